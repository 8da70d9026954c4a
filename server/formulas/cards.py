"""A dessert as it lies on the shelf: what one glance at its first part tells."""

import hashlib
from collections.abc import Collection, Mapping
from datetime import datetime
from uuid import UUID

from django.db.models import Count, Max
from ninja import Schema

from bellcrumb.contract.formula_out import points_out
from bellcrumb.contract.open.cooking import PartWork
from bellcrumb.contract.open.food import answered
from bellcrumb.errors import CraftError
from bellcrumb.shapes import FormulaIn, PointsOut, SetClass
from formulas.building import answer_of, content_saved
from formulas.content import beaten_of, content_of, lines_of
from formulas.models import Brief, Dessert, Version
from formulas.program import program
from kitchen.access import pantry_of
from kitchen.models import Kitchen


class Glance(Schema):
    """What the numbers of a formula decide, in brief."""

    family: str | None
    family_key: str | None
    klass: SetClass | None
    position: float | None
    yolk_g: float | None
    starch_g: float | None
    sugar_g: float | None
    mass_g: float
    cook: str | None
    points: PointsOut | None


class SliceLayer(Schema):
    """A layer of the cut dessert, in per cent of its width: what a card draws."""

    kind: PartWork
    low_pct: float
    high_pct: float


class DessertCard(Glance):
    """A dessert on the shelf: enough to know it by. ``slice`` is empty for a single part."""

    slice: list[SliceLayer]

    id: UUID
    name: str
    version: int
    parts: int
    batches: int
    last_cooked_at: datetime | None


def _glance(kitchen: Kitchen, version: Version) -> Glance:
    content = content_of(version)
    given = FormulaIn.model_validate({
        **lines_of(kitchen, content),
        "family": content.family or None,
        "beaten": beaten_of(content),
        "part_kind": version.part.kind,
        "altitude_m": kitchen.altitude_m,
    })  # fmt: skip
    found, _ = answered(given, pantry_of(kitchen))
    per = found.ratios
    return Glance(
        family=found.family.name if found.family else None,
        family_key=found.family.key if found.family else None,
        klass=found.set.klass if found.set else None,
        position=found.set.position if found.set else None,
        yolk_g=per.yolk_g if per else None,
        starch_g=per.corn_starch_equivalent_g if per else None,
        sugar_g=per.sugar_g if per else None,
        mass_g=found.mix.mass_g,
        cook=found.endpoint.mode if found.endpoint else None,
        points=points_out(found),
    )


def _key(kitchen: Kitchen, version: Version) -> str:
    inputs = (
        program(), kitchen.id, kitchen.pantry_rev, kitchen.altitude_m, kitchen.measures,
        version.part.kind, version.family, version.beaten, version.egg_grade, version.lines_text,
    )  # fmt: skip
    return hashlib.sha256(repr(inputs).encode()).hexdigest()


def glances(kitchen: Kitchen, versions: Collection[Version]) -> dict[UUID, Glance]:
    """What each version comes to, by its id; what was worked out before is looked up."""
    keys = {version.id: _key(kitchen, version) for version in versions}
    rows = Brief.objects.filter(pk__in=set(keys.values())).values_list("key", "data")
    known = {key: Glance.model_validate(data) for key, data in rows}
    new: dict[str, Glance] = {}
    for version in versions:
        key = keys[version.id]
        if key not in known:
            known[key] = new[key] = _glance(kitchen, version)
    if new:
        Brief.objects.bulk_create(
            [Brief(key=key, data=glance.model_dump(mode="json")) for key, glance in new.items()],
            ignore_conflicts=True,
        )
    return {version_id: known[key] for version_id, key in keys.items()}


_HEART = ("filling", "cream")  # what a dessert of several parts is known by


def newest(dessert_ids: list[UUID]) -> dict[UUID, list[Version]]:
    """The newest version of each part of each dessert, in the order of the parts."""
    found: dict[UUID, dict[UUID, Version]] = {}
    rows = (
        Version.objects.filter(part__dessert__in=dessert_ids)
        .select_related("part")
        .order_by("part__position", "-number")
    )
    for version in rows:
        found.setdefault(version.part.dessert_id, {}).setdefault(version.part_id, version)
    return {dessert_id: list(parts.values()) for dessert_id, parts in found.items()}


def heart(versions: list[Version]) -> Version:
    """The version a dessert is known by: its filling or cream, else its first part."""
    return next((v for v in versions if v.part.kind in _HEART), versions[0])


def slices(
    kitchen: Kitchen, desserts: Mapping[UUID, Dessert], parts: dict[UUID, list[Version]]
) -> dict[UUID, list[SliceLayer]]:
    """The cut of each dessert of several parts, remembered by what it is made of."""
    several = {d: v for d, v in parts.items() if len(v) > 1 and d in desserts}
    keys = {
        d: hashlib.sha256(
            repr(("slice", desserts[d].build, [_key(kitchen, v) for v in versions])).encode()
        ).hexdigest()
        for d, versions in several.items()
    }
    rows = Brief.objects.filter(pk__in=keys.values()).values_list("key", "data")
    known = {key: [SliceLayer.model_validate(x) for x in data["layers"]] for key, data in rows}
    new = {}
    for d, key in keys.items():
        if key not in known:
            known[key] = new[key] = _cut(kitchen, desserts[d], several[d])
    if new:
        Brief.objects.bulk_create(
            [Brief(key=k, data={"layers": [x.dict() for x in v]}) for k, v in new.items()],
            ignore_conflicts=True,
        )
    return {d: known[key] for d, key in keys.items()}


def _cut(kitchen: Kitchen, dessert: Dessert, versions: list[Version]) -> list[SliceLayer]:
    try:
        found = answer_of(kitchen, versions, content_saved(dessert, versions))
    except CraftError:
        return []  # its page says what stands in the way
    wide = found.stand.cut_width_mm
    return [
        SliceLayer(kind=x.kind, low_pct=100 * x.from_mm / wide, high_pct=100 * x.to_mm / wide)
        for x in found.layers
    ]


def cards(kitchen: Kitchen, dessert_ids: list[UUID]) -> list[DessertCard]:
    """Cards of desserts, in the order of their ids."""
    parts = newest(dessert_ids)
    shown = {d: heart(versions) for d, versions in parts.items()}
    counted = {
        d.id: d
        for d in Dessert.objects.filter(id__in=dessert_ids).annotate(
            n=Count("parts__versions__batches", distinct=True),
            last=Max("parts__versions__batches__started_at"),
            k=Count("parts", distinct=True),
        )
    }
    known = glances(kitchen, shown.values())
    cut = slices(kitchen, counted, parts)
    return [
        DessertCard(
            **known[shown[d].id].dict(),
            id=d,
            name=counted[d].name,
            version=shown[d].number,
            parts=counted[d].k,
            batches=counted[d].n,
            last_cooked_at=counted[d].last,
            slice=cut.get(d, []),
        )
        for d in dessert_ids
        if d in shown and d in counted
    ]
