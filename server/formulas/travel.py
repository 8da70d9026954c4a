"""Formulas in and out of the kitchen in open formats."""

import re
from collections.abc import Iterator
from typing import Annotated, Any
from uuid import UUID, uuid5

from django.db import transaction
from django.http import HttpRequest, StreamingHttpResponse
from ninja import File, Query, Router, Schema
from ninja.errors import HttpError
from ninja.files import UploadedFile
from pydantic import Field, ValidationError

from bellcrumb.contract.open.books import Format, Written, WrittenPart, pieces, read
from bellcrumb.contract.open.food import Line, egg_grade, families, understand_all
from bellcrumb.errors import CraftError
from bellcrumb.shapes import PartKind
from bellcrumb.words import say
from formulas.cards import glances
from formulas.content import FIELDS, VESSEL_FIELDS, Content, check, content_of
from formulas.models import Dessert, Part, Version
from kitchen.access import member_of, pantry_of, vessels_of
from kitchen.models import Kitchen
from shared.heavy import heavy
from shared.shapes import PROBLEMS
from shared.uploads import text_of

router = Router(tags=["formulas"])
MOST_BYTES = 4_000_000
OUT_STRETCH = 100
_TYPES: dict[Format, tuple[str, str]] = {
    "json": ("application/json", "json"),
    "jsonld": ("application/ld+json", "jsonld"),
    "text": ("text/plain", "txt"),
    "csv": ("text/csv", "csv"),
}
# Content that names rows of one kitchen: written by name, looked up again where it is read.
_LOCAL = ("ring_id",)
_PART_TEXT = ("lines_text", "note", "egg_grade", "family")


def _settings(version: Version, vessels: dict[str, str]) -> dict[str, Any]:
    """Everything of a version that is not text; a kitchen's own vessels go by their names."""
    data = content_of(version).dict()
    for field in VESSEL_FIELDS:
        data[field] = vessels.get(data[field], data[field])
    return {k: v for k, v in data.items() if k not in (*_LOCAL, *_PART_TEXT)}


def _written(dessert: Dessert, vessels: dict[str, str]) -> Written:
    parts = []
    makes = ""
    for part in sorted(dessert.parts.all(), key=lambda p: p.position):
        versions = sorted(part.versions.all(), key=lambda v: v.number)
        now = versions[-1]
        if now.vessel_key and not makes:
            makes = f"{now.vessel_count} × {vessels.get(now.vessel_key, now.vessel_key)}"
        parts.append(
            WrittenPart(
                kind=part.kind,
                name=part.name,
                lines=now.lines_text.split("\n"),
                note=now.note,
                egg_grade=now.egg_grade,
                family=now.family,
                settings=_settings(now, vessels),
                earlier=[
                    {
                        "lines": v.lines_text.split("\n"),
                        "note": v.note,
                        "egg_grade": v.egg_grade,
                        "family": v.family,
                        **_settings(v, vessels),
                    }
                    for v in versions[:-1]
                ],
            )
        )
    return Written(dessert.name, parts, makes)


@router.get("/k/{kid}/export", response={200: None, **PROBLEMS})
def export(
    request: HttpRequest, kid: UUID, form: Format = "json", dessert: UUID | None = None
) -> StreamingHttpResponse:
    """One dessert or all of them as a file: our own JSON, schema.org JSON-LD, text or CSV. It is
    written as it is sent; ``X-Desserts`` says how many there are."""
    kitchen = member_of(request, kid).kitchen
    rows = Dessert.objects.filter(kitchen=kitchen, archived=False)
    if dessert:
        rows = rows.filter(pk=dessert)
    ids = list(rows.order_by("name", "id").values_list("id", flat=True))
    if not ids:
        raise HttpError(404, say("formulas.there_is_nothing_to_write_out"))
    vessels = {key: vessel.name for key, vessel in vessels_of(kitchen).items()}
    kind, ending = _TYPES[form]
    name = Dessert.objects.get(pk=ids[0]).name if dessert else kitchen.name
    stem = re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-")
    answer = StreamingHttpResponse(
        (piece.encode() for piece in pieces(_each(ids, vessels), form)),
        content_type=f"{kind}; charset=utf-8",
    )
    answer["Content-Disposition"] = f'attachment; filename="{stem}.{ending}"'
    answer["X-Desserts"] = str(len(ids))
    return answer


def _each(ids: list[UUID], vessels: dict[str, str]) -> Iterator[Written]:
    """Desserts by their ids, a stretch read at a time."""
    for start in range(0, len(ids), OUT_STRETCH):
        stretch = ids[start : start + OUT_STRETCH]
        found = Dessert.objects.prefetch_related("parts__versions").in_bulk(stretch)
        for pk in stretch:
            if pk in found:
                yield _written(found[pk], vessels)


class DoubtOut(Schema):
    """A line in doubt and what was said of it; unknown lines are not counted until mended."""

    part: str
    line: str
    message: str
    unknown: bool


class ReadPart(Schema):
    """A part as it was read: versions oldest first."""

    kind: PartKind
    name: str = Field(max_length=80)
    versions: list[Content] = Field(min_length=1, max_length=200)


class ReadDessert(Schema):
    """A dessert read from a file, with what was doubtful in it."""

    name: str
    parts: list[ReadPart]
    lines: int
    sure: int
    doubts: list[DoubtOut]
    problems: list[str]


class ReadOut(Schema):
    """A stretch of what a file holds, of ``total`` desserts; nothing of it is kept yet."""

    desserts: list[ReadDessert]
    total: int


@router.post("/k/{kid}/import/read", response={200: ReadOut, **PROBLEMS})
@heavy
def read_file(
    request: HttpRequest,
    kid: UUID,
    file: File[UploadedFile],
    skip: Annotated[int, Query(ge=0, le=5000)] = 0,
    take: Annotated[int, Query(ge=1, le=100)] = 100,
) -> ReadOut:
    """Read a stretch of a file of formulas and say what is doubtful; nothing is kept."""
    kitchen = member_of(request, kid).kitchen
    text = text_of(file, MOST_BYTES)
    try:
        written = read(text)
    except CraftError as error:
        raise CraftError("file", error.message) from None
    own = {vessel.name: key for key, vessel in vessels_of(kitchen).items()}
    stretch = written[skip : skip + take]
    return ReadOut(desserts=[_read_dessert(kitchen, d, own) for d in stretch], total=len(written))


def _read_dessert(kitchen: Kitchen, written: Written, own: dict[str, str]) -> ReadDessert:
    problems = list(written.problems)
    parts: list[ReadPart] = []
    doubts: list[DoubtOut] = []
    counted = sure = 0
    for number, part in enumerate(written.parts, start=1):
        name = (part.name or part.kind.capitalize())[:80]
        now = {
            "lines": part.lines,
            "note": part.note,
            "egg_grade": part.egg_grade,
            "family": part.family,
            **part.settings,
        }
        if written.makes and number == 1 and not part.settings:
            now["note"] = say("formulas.makes", makes=written.makes, note=part.note).strip()
        versions = [_content(kitchen, v, own, problems) for v in (*part.earlier, now)]
        parts.append(ReadPart(kind=part.kind, name=name, versions=versions))  # type: ignore[arg-type]
        if not versions[-1].lines_text.strip():
            problems.append(say("formulas.no_lines_were_found", part=name))
        for line in _understood(kitchen, versions[-1]):
            counted += 1
            if line.ingredient and line.grams and line.confidence in ("sure", "likely"):
                sure += 1
            else:
                unknown = not (line.ingredient and line.grams)
                doubts.append(
                    DoubtOut(
                        part=name, line=line.text.strip(), message=line.message, unknown=unknown
                    )
                )
    return ReadDessert(
        name=written.name.strip()[:120] or say("formulas.without_a_name"),
        parts=parts,
        lines=counted,
        sure=sure,
        doubts=doubts,
        problems=problems,
    )


def _understood(kitchen: Kitchen, content: Content) -> list[Line]:
    rows = content.lines_text.split("\n")
    grade = egg_grade(content.egg_grade)
    found = understand_all(rows, pantry_of(kitchen), grade, kitchen.measures)  # type: ignore[arg-type]
    return [line for line in found if line]


def _content(
    kitchen: Kitchen, raw: dict[str, Any], own: dict[str, str], problems: list[str]
) -> Content:
    """Content from what was read; a setting that does not do is left at its default and said."""
    lines = raw.get("lines")
    text = "\n".join(str(line) for line in lines) if isinstance(lines, list) else ""
    note = str(raw.get("note") or "")
    if len(text) > 20_000:
        problems.append(say("formulas.more_than_20_000_characters_of"))
        note = f"{note}\n{text[20_000:]}"
        text = text[:20_000]
    if len(note) > 8_000:
        problems.append(say("formulas.the_note_is_cut_after_8", note=note[8000:8060]))
        note = note[:8_000]
    data: dict[str, Any] = {"lines_text": text, "note": note, "egg_grade": kitchen.egg_grade}
    if raw.get("family") in families():
        data["family"] = raw["family"]
    for field in FIELDS:
        if field in raw and field not in (*_LOCAL, *_PART_TEXT):
            data[field] = raw[field]
    for field in VESSEL_FIELDS:
        data[field] = own.get(str(data.get(field, "")), data.get(field, ""))
    if raw.get("egg_grade"):
        data["egg_grade"] = str(raw["egg_grade"])
    while True:
        try:
            content = Content.model_validate(data)
            check(kitchen, content)
        except ValidationError as error:
            field = str(error.errors()[0]["loc"][0])
        except CraftError as error:
            field = error.field
        else:
            return content
        problems.append(
            say("formulas.does_not_do_as_here", data=data.get(field), field=field.replace("_", " "))
        )
        data.pop(field, None)
        if field == "egg_grade":
            data["egg_grade"] = kitchen.egg_grade


class KeepDessert(Schema):
    """A dessert to keep; the ids of its parts and versions follow from its own."""

    id: UUID
    name: str = Field(min_length=1, max_length=120)
    parts: list[ReadPart] = Field(min_length=1, max_length=30)


class KeepIn(Schema):
    """A stretch of an import, small enough to show how far it is."""

    desserts: list[KeepDessert] = Field(min_length=1, max_length=50)


class KeptOut(Schema):
    """How many of them are in the kitchen now."""

    kept: int


@router.post("/k/{kid}/import/keep", response={200: KeptOut, **PROBLEMS})
def keep(request: HttpRequest, kid: UUID, given: KeepIn) -> KeptOut:
    """Keep desserts that were read. Sending a stretch twice keeps it once."""
    member = member_of(request, kid)
    kitchen = member.kitchen
    if len({d.id for d in given.desserts}) < len(given.desserts):
        raise HttpError(422, say("formulas.an_id_is_in_it_twice"))
    there = set(
        Dessert.objects.filter(pk__in=[d.id for d in given.desserts]).values_list("id", flat=True)
    )
    foreign = Dessert.objects.filter(pk__in=there).exclude(kitchen=kitchen).exists()
    if foreign:
        raise HttpError(422, say("formulas.these_ids_are_already_taken_read"))
    desserts, parts, versions = [], [], []
    ring = kitchen.rings.first()
    for d in given.desserts:
        if d.id in there:
            continue
        dessert = Dessert(id=d.id, kitchen=kitchen, name=d.name)
        desserts.append(dessert)
        for place, p in enumerate(d.parts):
            part = Part(
                id=uuid5(d.id, f"part {place}"), dessert=dessert, position=place, kind=p.kind,
                name=p.name,
            )  # fmt: skip
            parts.append(part)
            for number, content in enumerate(p.versions, start=1):
                check(kitchen, content)
                fields = content.dict() | {"ring_id": ring.id if ring else None}
                versions.append(
                    Version(
                        id=uuid5(part.id, f"version {number}"), part=part, number=number,
                        created_by=member.user, saved_by=member.user, **fields,
                    )
                )  # fmt: skip
    with transaction.atomic():
        Dessert.objects.bulk_create(desserts)
        Part.objects.bulk_create(parts)
        Version.objects.bulk_create(versions)
    newest = {version.part_id: version for version in versions if version.part.position == 0}
    glances(kitchen, newest.values())  # the shelf shows them at once
    return KeptOut(kept=len(given.desserts))
