"""The dessert whole over HTTP: its build read, tried, saved, and its parts scaled to it."""

from typing import Any
from uuid import UUID

from django.db import transaction
from django.db.models import F, Max
from django.http import HttpRequest
from ninja import Router, Schema
from ninja.errors import HttpError
from ninja.responses import Status
from pydantic import Field

from bellcrumb.errors import CraftError
from bellcrumb.shapes.build import BuildOut
from bellcrumb.words import say
from formulas.api import dessert_of
from formulas.building import BuildContent, answer_of, content_saved, newest_versions
from formulas.content import content_of
from formulas.models import Dessert, Version
from kitchen.access import member_of
from kitchen.models import Kitchen, Member
from shared.heavy import heavy
from shared.shapes import PROBLEMS

router = Router(tags=["formulas"])


class BuildProblem(Schema):
    """What stands in the way, at its field."""

    field: str
    message: str


class BuildPage(Schema):
    """The build as saved (or as it would begin) and what it comes to; one of found and problem."""

    revision: int = Field(description="0: not saved yet")
    content: BuildContent
    found: BuildOut | None
    problem: BuildProblem | None


class BuildSave(Schema):
    """An edit made on revision ``revision``."""

    revision: int
    content: BuildContent


class BuildConflict(Schema):
    """Somebody saved in between: theirs is what stands now."""

    message: str
    mine: BuildContent
    theirs: BuildPage


def page_of(kitchen: Kitchen, dessert: Dessert, content: BuildContent | None = None) -> BuildPage:
    """The page of a dessert's build: what stands in the way is said, not raised."""
    versions = newest_versions(dessert)
    content = content or content_saved(dessert, versions)
    found, problem = None, None
    try:
        found = answer_of(kitchen, versions, content)
    except CraftError as error:
        problem = BuildProblem(field=error.field, message=error.message)
    return BuildPage(revision=dessert.build_revision, content=content, found=found, problem=problem)


@router.get("/k/{kid}/desserts/{dessert_id}/build", response={200: BuildPage, **PROBLEMS})
@heavy
def read_build(request: HttpRequest, kid: UUID, dessert_id: UUID) -> BuildPage:
    """How a dessert is built, layer on layer, and what it comes to."""
    kitchen = member_of(request, kid).kitchen
    return page_of(kitchen, dessert_of(kitchen, dessert_id))


@router.post("/k/{kid}/desserts/{dessert_id}/build", response={200: BuildPage, **PROBLEMS})
@heavy
def try_build(request: HttpRequest, kid: UUID, dessert_id: UUID, given: BuildContent) -> BuildPage:
    """What a build would come to; nothing is saved."""
    kitchen = member_of(request, kid).kitchen
    return page_of(kitchen, dessert_of(kitchen, dessert_id), given)


@router.put(
    "/k/{kid}/desserts/{dessert_id}/build",
    response={200: BuildPage, 409: BuildConflict, **PROBLEMS},
)
def save_build(request: HttpRequest, kid: UUID, dessert_id: UUID, given: BuildSave) -> Status[Any]:
    """Save a build. Refused with both (409) when somebody else saved in between."""
    kitchen = member_of(request, kid).kitchen
    dessert = dessert_of(kitchen, dessert_id)
    answer_of(kitchen, newest_versions(dessert), given.content)
    changed = Dessert.objects.filter(pk=dessert_id, build_revision=given.revision).update(
        build=given.content.model_dump(mode="json"), build_revision=F("build_revision") + 1
    )
    dessert.refresh_from_db()
    page = page_of(kitchen, dessert)
    if changed or page.content == given.content:
        return Status(200, page)
    said = say("formulas.somebody_saved_this_build_while_you")
    return Status(409, BuildConflict(message=said, mine=given.content, theirs=page))


@router.post("/k/{kid}/desserts/{dessert_id}/build/scale", response={200: BuildPage, **PROBLEMS})
@heavy
def scale_parts(
    request: HttpRequest, kid: UUID, dessert_id: UUID, given: BuildContent
) -> BuildPage:
    """Write every part at the size its layers need, in whole eggs: into the version at hand, or as
    the next one where it has been cooked. A part whose layer takes all of it stays."""
    member = member_of(request, kid)
    kitchen = member.kitchen
    dessert = dessert_of(kitchen, dessert_id)
    with transaction.atomic():
        Dessert.objects.select_for_update().get(pk=dessert_id)
        versions = newest_versions(dessert)
        found = answer_of(kitchen, versions, given)
        for version, part in zip(versions, found.parts, strict=False):
            if part.scaled_times > 0 and abs(part.scaled_times - 1) > 0.005:
                _write(member, version, "\n".join(part.scaled_lines))
    return page_of(kitchen, dessert, given)


def _write(member: Member, version: Version, text: str) -> None:
    if len(text) > 20_000:
        raise HttpError(422, say("formulas.these_lines_are_longer_than_a"))
    if version.cooked_at is None:
        Version.objects.filter(pk=version.pk).update(
            lines_text=text, revision=F("revision") + 1, saved_by=member.user
        )
        return
    last = version.part.versions.aggregate(n=Max("number"))["n"] or 0
    content = content_of(version).copy(update={"lines_text": text})
    Version.objects.create(
        part=version.part, number=last + 1, created_by=member.user, saved_by=member.user,
        **content.dict(),
    )  # fmt: skip
