"""Desserts and their formulas in versions."""

from typing import Annotated, Any
from uuid import UUID

from django.db import IntegrityError, transaction
from django.db.models import Count, F, Max, Q, Window
from django.http import HttpRequest
from ninja import Query, Router, Schema
from ninja.errors import HttpError
from ninja.responses import Status
from pydantic import Field

from accounts.models import User
from bellcrumb.shapes import PartKind
from bellcrumb.words import say
from formulas.cards import DessertCard, cards
from formulas.content import Content, VersionOut, check, content_of, version_out
from formulas.models import Dessert, Part, Version
from kitchen.access import member_of
from kitchen.models import Kitchen, Member
from shared.shapes import PROBLEMS

router = Router(tags=["formulas"])


class PartOut(Schema):
    """A part with its versions, oldest first."""

    id: UUID
    kind: PartKind
    name: str
    versions: list[VersionOut]


class DessertOut(Schema):
    """A dessert with its parts."""

    id: UUID
    name: str
    parts: list[PartOut]


class Conflict(Schema):
    """Somebody saved in between: their version and yours, neither lost."""

    message: str
    mine: Content
    theirs: VersionOut


def dessert_of(kitchen: Kitchen, dessert_id: UUID) -> Dessert:
    """A dessert of this kitchen. Raises HttpError 404."""
    found = Dessert.objects.filter(kitchen=kitchen, pk=dessert_id).first()
    if not found:
        raise HttpError(404, say("formulas.this_dessert_is_not_in_the"))
    return found


def dessert_out(dessert: Dessert) -> DessertOut:
    """A dessert with everything in it."""
    parts = []
    for part in dessert.parts.all():
        # Counting makes the model forget its order: it is asked for again.
        counted = part.versions.select_related("saved_by").annotate(n=Count("batches"))
        versions = counted.order_by("number")
        parts.append(
            PartOut(
                id=part.id,
                kind=part.kind,  # type: ignore[arg-type]
                name=part.name,
                versions=[version_out(v, v.n) for v in versions],
            )
        )
    return DessertOut(id=dessert.id, name=dessert.name, parts=parts)


class ShelfOut(Schema):
    """A stretch of the shelf: ``total`` desserts match."""

    cards: list[DessertCard]
    total: int


@router.get("/k/{kid}/desserts", response={200: ShelfOut, **PROBLEMS})
def shelf(
    request: HttpRequest,
    kid: UUID,
    search: Annotated[str, Query(max_length=120)] = "",
    skip: Annotated[int, Query(ge=0, le=1_000_000)] = 0,
    take: Annotated[int, Query(ge=1, le=200)] = 24,
) -> ShelfOut:
    """Desserts by name; ``search`` finds words in names and in the lines of their formulas."""
    kitchen = member_of(request, kid).kitchen
    found = Dessert.objects.filter(kitchen=kitchen, archived=False)
    for word in search.split()[:6]:
        lines = Version.objects.filter(part__dessert__kitchen=kitchen, lines_text__icontains=word)
        found = found.filter(Q(name__icontains=word) | Q(pk__in=lines.values("part__dessert")))
    # The count rides on the page: the lines of five thousand formulas are read once.
    page = found.annotate(of=Window(Count("*"))).order_by("name", "id")
    rows = list(page.values_list("id", "of")[skip : skip + take])
    total = rows[0][1] if rows else found.count() if skip else 0
    return ShelfOut(cards=cards(kitchen, [pk for pk, _ in rows]), total=total)


class NewDessert(Schema):
    """A new dessert with its first part and version; all ids are made by the client."""

    id: UUID
    part_id: UUID
    version_id: UUID
    name: str = Field(min_length=1, max_length=120)
    kind: PartKind = "filling"
    content: Content = Content()


def _write_first(part: Part, by: User, given: "NewDessert | NewPart") -> None:
    Version.objects.create(
        id=given.version_id, part=part, number=1, created_by=by, saved_by=by,
        **given.content.dict(),
    )  # fmt: skip


@router.post("/k/{kid}/desserts", response={200: DessertOut, **PROBLEMS})
def add_dessert(request: HttpRequest, kid: UUID, given: NewDessert) -> DessertOut:
    """Start a dessert. Sending it twice makes one."""
    member = member_of(request, kid)
    check(member.kitchen, given.content)
    if Dessert.objects.filter(pk=given.id).exists():
        return dessert_out(dessert_of(member.kitchen, given.id))
    try:
        with transaction.atomic():
            dessert = Dessert.objects.create(id=given.id, kitchen=member.kitchen, name=given.name)
            part = Part.objects.create(id=given.part_id, dessert=dessert, kind=given.kind)
            _write_first(part, member.user, given)
    except IntegrityError:
        if Dessert.objects.filter(pk=given.id, kitchen=member.kitchen).exists():
            return dessert_out(dessert_of(member.kitchen, given.id))  # it arrived twice at once
        raise HttpError(422, say("formulas.these_ids_are_already_taken_start")) from None
    return dessert_out(dessert)


@router.get("/k/{kid}/desserts/{dessert_id}", response={200: DessertOut, **PROBLEMS})
def read_dessert(request: HttpRequest, kid: UUID, dessert_id: UUID) -> DessertOut:
    """One dessert."""
    return dessert_out(dessert_of(member_of(request, kid).kitchen, dessert_id))


class DessertChange(Schema):
    """A new name, or off the shelf."""

    name: str | None = Field(default=None, min_length=1, max_length=120)
    archived: bool | None = None


@router.patch("/k/{kid}/desserts/{dessert_id}", response={200: DessertOut, **PROBLEMS})
def change_dessert(
    request: HttpRequest, kid: UUID, dessert_id: UUID, given: DessertChange
) -> DessertOut:
    """Rename a dessert or take it off the shelf."""
    dessert = dessert_of(member_of(request, kid).kitchen, dessert_id)
    for field, value in given.dict(exclude_none=True).items():
        setattr(dessert, field, value)
    dessert.save()
    return dessert_out(dessert)


def version_of(member: Member, version_id: UUID) -> Version:
    """A version of this kitchen. Raises HttpError 404."""
    found = (
        Version.objects.select_related("part__dessert", "saved_by")
        .filter(part__dessert__kitchen=member.kitchen, pk=version_id)
        .first()
    )
    if not found:
        raise HttpError(404, say("formulas.this_version_is_not_in_the"))
    return found


class Save(Schema):
    """An edit made on revision ``revision``."""

    revision: int
    content: Content


@router.put("/k/{kid}/versions/{version_id}", response={200: VersionOut, 409: Conflict, **PROBLEMS})
def save_version(request: HttpRequest, kid: UUID, version_id: UUID, given: Save) -> Status[Any]:
    """Save an edit. Refused with both texts (409) when somebody else saved in between, and when
    the version has been cooked: then the edit makes the next version."""
    member = member_of(request, kid)
    version = version_of(member, version_id)
    check(member.kitchen, given.content)
    changed = Version.objects.filter(
        pk=version_id, revision=given.revision, cooked_at__isnull=True
    ).update(revision=F("revision") + 1, saved_by=member.user, **given.content.dict())
    version = version_of(member, version_id)
    if changed or content_of(version) == given.content:
        return Status(200, version_out(version))
    message = (
        say("formulas.this_version_has_been_cooked_and")
        if version.cooked_at
        else say(
            "formulas.saved_this_formula_while_you_were",
            saved_by=version.saved_by.name if version.saved_by else say("formulas.somebody"),
        )
    )
    return Status(409, Conflict(message=message, mine=given.content, theirs=version_out(version)))


class NextVersion(Schema):
    """The next version of a part; ``id`` is made by the client."""

    id: UUID
    content: Content


@router.post("/k/{kid}/parts/{part_id}/versions", response={200: VersionOut, **PROBLEMS})
def next_version(request: HttpRequest, kid: UUID, part_id: UUID, given: NextVersion) -> VersionOut:
    """Make the next version of a part. Sending it twice makes one."""
    member = member_of(request, kid)
    check(member.kitchen, given.content)
    there = Version.objects.filter(pk=given.id).first()
    if there:
        return version_out(version_of(member, given.id))
    with transaction.atomic():
        part = (
            Part.objects.select_for_update()
            .filter(pk=part_id, dessert__kitchen=member.kitchen)
            .first()
        )
        if not part:
            raise HttpError(404, say("formulas.this_part_is_not_in_the"))
        last = part.versions.aggregate(n=Max("number"))["n"] or 0
        version = Version.objects.create(
            id=given.id,
            part=part,
            number=last + 1,
            created_by=member.user,
            saved_by=member.user,
            **given.content.dict(),
        )
    return version_out(version)


class NewPart(Schema):
    """One more part of a dessert, with its first version; ids made by the client."""

    id: UUID
    version_id: UUID
    kind: PartKind
    name: str = Field(min_length=1, max_length=80)
    content: Content = Content()


@router.post("/k/{kid}/desserts/{dessert_id}/parts", response={200: DessertOut, **PROBLEMS})
def add_part(request: HttpRequest, kid: UUID, dessert_id: UUID, given: NewPart) -> DessertOut:
    """Add a part at the end. Sending it twice makes one."""
    member = member_of(request, kid)
    check(member.kitchen, given.content)
    dessert = dessert_of(member.kitchen, dessert_id)
    if dessert.parts.filter(pk=given.id).exists():
        return dessert_out(dessert)
    try:
        with transaction.atomic():
            Dessert.objects.select_for_update().get(pk=dessert_id)
            last = dessert.parts.aggregate(n=Max("position"))["n"]
            part = Part.objects.create(
                id=given.id,
                dessert=dessert,
                position=0 if last is None else last + 1,
                kind=given.kind,
                name=given.name,
            )
            _write_first(part, member.user, given)
    except IntegrityError:
        if dessert.parts.filter(pk=given.id).exists():
            return dessert_out(dessert)  # it arrived twice at once
        raise HttpError(422, say("formulas.these_ids_are_already_taken_start_2")) from None
    return dessert_out(dessert)


def _part(member: Member, part_id: UUID) -> Part:
    found = Part.objects.filter(pk=part_id, dessert__kitchen=member.kitchen).first()
    if not found:
        raise HttpError(404, say("formulas.this_part_is_not_in_the"))
    return found


class PartChange(Schema):
    """Another name or kind, or another place among the parts (0 is the first)."""

    name: str | None = Field(default=None, min_length=1, max_length=80)
    kind: PartKind | None = None
    position: int | None = Field(default=None, ge=0, le=50)


@router.patch("/k/{kid}/parts/{part_id}", response={200: DessertOut, **PROBLEMS})
def change_part(request: HttpRequest, kid: UUID, part_id: UUID, given: PartChange) -> DessertOut:
    """Rename a part, say what it is, or move it."""
    member = member_of(request, kid)
    part = _part(member, part_id)
    with transaction.atomic():
        part.name = given.name or part.name
        part.kind = given.kind or part.kind
        part.save(update_fields=["name", "kind"])
        if given.position is not None:
            row = [p for p in part.dessert.parts.select_for_update() if p.id != part.id]
            row.insert(given.position, part)
            # Two passes: no two parts may share a place, not even for a moment.
            for offset in (100, 0):
                for place, each in enumerate(row):
                    Part.objects.filter(pk=each.pk).update(position=place + offset)
    return dessert_out(dessert_of(member.kitchen, part.dessert_id))


@router.delete("/k/{kid}/parts/{part_id}", response={200: DessertOut, **PROBLEMS})
def drop_part(request: HttpRequest, kid: UUID, part_id: UUID) -> DessertOut:
    """Take a part out of a dessert. One that has been cooked, or the only one, stays."""
    member = member_of(request, kid)
    part = _part(member, part_id)
    dessert = part.dessert
    if part.versions.filter(cooked_at__isnull=False).exists():
        raise HttpError(422, say("formulas.this_part_has_been_cooked_its"))
    if dessert.parts.count() == 1:
        raise HttpError(422, say("formulas.a_dessert_keeps_at_least_one"))
    part.delete()
    return dessert_out(dessert)
