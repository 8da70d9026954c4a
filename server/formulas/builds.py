"""The dessert whole: its stand and layers as saved, and what they come to."""

from typing import Any, Literal
from uuid import UUID

from django.db import transaction
from django.db.models import F, Max
from django.http import HttpRequest
from ninja import Router, Schema
from ninja.errors import HttpError
from ninja.responses import Status
from pydantic import Field

from bellcrumb.contract.builds import built
from bellcrumb.contract.shapes.build import (
    BuildIn,
    BuildOut,
    Cut,
    LayerIn,
    OverruleIn,
    SchoolsIn,
    StandIn,
)
from bellcrumb.dessert.works import Lies
from bellcrumb.errors import CraftError
from config.heavy import heavy
from config.shapes import PROBLEMS
from formulas.api import dessert_of
from formulas.content import beaten_of, content_of
from formulas.models import Dessert, Version
from kitchen.access import member_of, pantry_of, vessels_of
from kitchen.models import Kitchen, Member

router = Router(tags=["formulas"])
_STAND = "springform_23_70"


class LayerSaved(Schema):
    """A layer from the bottom: of a part of this dessert, or of something bought."""

    part_id: UUID | None = None
    item: str = Field(default="", max_length=200, description="“200 g digestives”, for all of it")
    lies: Lies | None = Field(default=None, description="null: the usual of its kind")
    value: float | None = Field(default=None, ge=0, le=20_000)
    walls: bool | None = None


class BuildContent(Schema):
    """How a dessert is built; empty layers are its parts in order, from the bottom."""

    vessel_key: str = Field(default="", max_length=60, description="empty: that of the main part")
    count: int = Field(default=1, ge=1, le=2000)
    portions_each: int = Field(default=1, ge=1, le=500)
    cut: Cut = "whole"
    layers: list[LayerSaved] = Field(default_factory=list, max_length=40)
    filling: Literal["cold", "hot"] = "cold"
    meringue: Literal["cold", "hot"] = "cold"
    overrules: list[OverruleIn] = Field(default_factory=list, max_length=200)


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


def newest_versions(dessert: Dessert) -> list[Version]:
    """The newest version of each part, in the order of the parts."""
    found: dict[UUID, Version] = {}
    rows = Version.objects.filter(part__dessert=dessert).select_related("part")
    for version in rows.order_by("part__position", "-number"):
        found.setdefault(version.part_id, version)
    return list(found.values())


def content_saved(dessert: Dessert, versions: list[Version]) -> BuildContent:
    """The build as saved; before it was, the main part's vessel and every part in order."""
    if dessert.build:
        content = BuildContent.model_validate(dessert.build)
        there = {version.part_id for version in versions}
        kept = [x for x in content.layers if x.part_id is None or x.part_id in there]
        named = {x.part_id for x in kept}
        kept += [LayerSaved(part_id=v.part_id) for v in versions if v.part_id not in named]
        return content.copy(update={"layers": kept})
    main = next((v for v in versions if v.vessel_key and v.part.kind in ("filling", "cream")), None)
    main = main or next((v for v in versions if v.vessel_key), None)
    return BuildContent(
        vessel_key=main.vessel_key if main else "",
        count=main.vessel_count if main else 1,
        portions_each=main.portions_per_vessel if main else 8,
        cut="wedges" if main and main.portions_per_vessel > 1 else "whole",
        layers=[LayerSaved(part_id=v.part_id) for v in versions],
    )


def build_given(kitchen: Kitchen, versions: list[Version], content: BuildContent) -> BuildIn:
    """A build as the core's input. Raises CraftError for a part that is not in the dessert."""
    names: dict[UUID, str] = {}
    for version in versions:
        name, again = version.part.name, 2
        while name in names.values():
            name, again = f"{version.part.name} {again}", again + 1
        names[version.part_id] = name
    parts: list[dict[str, Any]] = []
    for version in versions:
        saved = content_of(version)
        parts.append({
            "name": names[version.part_id], "kind": version.part.kind,
            "lines": saved.lines_text.split("\n")[:200], "egg_grade": saved.egg_grade,
            "family": saved.family or None, "method": saved.method, "beaten": beaten_of(saved),
        })  # fmt: skip
    layers = []
    for n, layer in enumerate(content.layers):
        if layer.part_id is not None and layer.part_id not in names:
            raise CraftError(f"layers[{n}].part_id", "This part is not in the dessert (any more).")
        layers.append(
            LayerIn(
                part=names[layer.part_id] if layer.part_id else None, item=layer.item or None,
                lies=layer.lies, value=layer.value, walls=layer.walls,
            )
        )  # fmt: skip
    return BuildIn.model_validate({
        "stand": StandIn(
            vessel=content.vessel_key or _STAND, count=content.count,
            portions_each=content.portions_each, cut=content.cut,
        ).model_dump(),
        "parts": parts,
        "layers": [layer.model_dump() for layer in layers],
        "schools": SchoolsIn(filling=content.filling, meringue=content.meringue).model_dump(),
        "overrules": [o.model_dump() for o in content.overrules],
        "measures": kitchen.measures,
    })  # fmt: skip


def answer_of(kitchen: Kitchen, versions: list[Version], content: BuildContent) -> BuildOut:
    """What a build comes to. Raises CraftError at a field of it."""
    given = build_given(kitchen, versions, content)
    return built(given, pantry_of(kitchen), vessels_of(kitchen))


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
    said = "Somebody saved this build while you were at it. Theirs stands; yours is kept beside it."
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
    if version.cooked_at is None:
        Version.objects.filter(pk=version.pk).update(
            lines_text=text, revision=F("revision") + 1, saved_by=member.user
        )
        return
    last = version.part.versions.aggregate(n=Max("number"))["n"] or 0
    content = content_of(version).copy(update={"lines_text": text})
    if len(text) > 20_000:
        raise HttpError(422, "These lines are longer than a formula may be.")
    Version.objects.create(
        part=version.part, number=last + 1, created_by=member.user, saved_by=member.user,
        **content.dict(),
    )  # fmt: skip
