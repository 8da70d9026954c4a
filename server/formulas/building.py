"""A dessert's build as it is saved, and as the core is asked for it."""

from typing import Any, Literal
from uuid import UUID

from ninja import Schema
from pydantic import Field

from bellcrumb.contract.open.cooking import Lies, Step, is_sauce
from bellcrumb.contract.open.food import grams_text, mix_of
from bellcrumb.contract.open.planning import assembly_of, built, cut_of, whole
from bellcrumb.errors import CraftError
from bellcrumb.shapes import CurvePoint
from bellcrumb.shapes.build import (
    BuildIn,
    BuildOut,
    Cut,
    LayerIn,
    OverruleIn,
    SchoolsIn,
    StandIn,
)
from bellcrumb.words import say
from formulas.content import beaten_of, content_of, understood
from formulas.guide_shapes import PlaceOut, PlanOut, Scene
from formulas.models import Dessert, Part, Version
from kitchen.access import pantry_of, prices_of, vessels_of
from kitchen.models import Kitchen

_STAND = "springform_23_70"
_UNDER = ("crust", "caramel")


class LayerSaved(Schema):
    """A layer from the bottom: of a part of this dessert, or of something bought."""

    part_id: UUID | None = None
    fold: str = Field(default="", max_length=80, description="the name of a fold")
    item: str = Field(default="", max_length=200, description="“200 g digestives”, for all of it")
    lost_pct: float | None = Field(default=None, ge=0, le=90, description="of a bought thing: peel")
    lies: Lies | None = Field(default=None, description="null: the usual of its kind")
    value: float | None = Field(default=None, ge=0, le=20_000)
    walls: bool | None = None


class FoldSaved(Schema):
    """A part lightened with another; layers name it by ``name``."""

    name: str = Field(min_length=1, max_length=80)
    base_id: UUID
    light_id: UUID
    base_g: float | None = Field(default=None, gt=0, le=100_000, description="null: all of it")
    light_g: float | None = Field(default=None, gt=0, le=100_000, description="null: all of it")


class LossSaved(Schema):
    """What of a part stays in pot, bowl and on the board here."""

    part_id: UUID
    lost_pct: float = Field(ge=0, le=60)


class BuildContent(Schema):
    """How a dessert is built; empty layers are its parts as they usually lie."""

    vessel_key: str = Field(default="", max_length=60, description="empty: that of the main part")
    count: int = Field(default=1, ge=1, le=2000)
    portions_each: int = Field(default=1, ge=1, le=500)
    cut: Cut = "whole"
    layers: list[LayerSaved] = Field(default_factory=list, max_length=40)
    filling: Literal["cold", "hot"] = "cold"
    meringue: Literal["cold", "hot"] = "cold"
    overrules: list[OverruleIn] = Field(default_factory=list, max_length=200)
    folds: list[FoldSaved] = Field(default_factory=list, max_length=10)
    losses: list[LossSaved] = Field(default_factory=list, max_length=20)


def newest_versions(dessert: Dessert) -> list[Version]:
    """The newest version of each part, in the order of the parts."""
    found: dict[UUID, Version] = {}
    rows = Version.objects.filter(part__dessert=dessert).select_related("part")
    for version in rows.order_by("part__position", "-number"):
        found.setdefault(version.part_id, version)
    return list(found.values())


def main_version(versions: list[Version]) -> Version:
    """The version a dessert is judged by: of its filling or cream, else of its first part."""
    return next((v for v in versions if v.part.kind in ("filling", "cream")), versions[0])


def _from_the_bottom(versions: list[Version]) -> list[Version]:
    """The parts as they usually lie: what lines a mould below, what covers it on top; those of one
    kind in their own order."""
    rank = {"crust": 0, "caramel": 0, "meringue": 2, "glaze": 3, "garnish": 4}
    return sorted(versions, key=lambda v: 3 if _is_sauce(v) else rank.get(v.part.kind, 1))


def _is_sauce(version: Version) -> bool:
    """Whether a caramel is let down, and so is poured over and lines nothing."""
    if version.part.kind != Part.Kind.CARAMEL:
        return False
    return is_sauce(mix_of(understood(version.part.dessert.kitchen, version)))


def content_saved(dessert: Dessert, versions: list[Version]) -> BuildContent:
    """The build as saved; before it was, the main part's vessel, every part as it usually lies."""
    if dessert.build:
        content = BuildContent.model_validate(dessert.build)
        there = {version.part_id for version in versions}
        folds = [f for f in content.folds if f.base_id in there and f.light_id in there]
        known = {f.name for f in folds}
        kept = [
            x for x in content.layers
            if (x.part_id is None or x.part_id in there) and (not x.fold or x.fold in known)
        ]  # fmt: skip
        named = {x.part_id for x in kept} | {i for f in folds for i in (f.base_id, f.light_id)}
        new = [v for v in _from_the_bottom(versions) if v.part_id not in named]
        under = [v for v in new if v.part.kind in _UNDER and not _is_sauce(v)]
        kept = [
            *(LayerSaved(part_id=v.part_id) for v in under), *kept,
            *(LayerSaved(part_id=v.part_id) for v in new if v not in under),
        ]  # fmt: skip
        lost = [x for x in content.losses if x.part_id in there]
        return content.copy(update={"layers": kept, "folds": folds, "losses": lost})
    main = next((v for v in versions if v.vessel_key and v.part.kind in ("filling", "cream")), None)
    main = main or next((v for v in versions if v.vessel_key), None)
    return BuildContent(
        vessel_key=main.vessel_key if main else "",
        count=main.vessel_count if main else 1,
        portions_each=main.portions_per_vessel if main else 8,
        cut="wedges" if main and main.portions_per_vessel > 1 else "whole",
        layers=[LayerSaved(part_id=v.part_id) for v in _from_the_bottom(versions)],
    )


def build_given(kitchen: Kitchen, versions: list[Version], content: BuildContent) -> BuildIn:
    """A build as the core's input. Raises CraftError for a part that is not in the dessert."""
    names: dict[UUID, str] = {}
    for version in versions:
        name, again = version.part.name, 2
        while name in names.values():
            name, again = f"{version.part.name} {again}", again + 1
        names[version.part_id] = name
    lost = {each.part_id: each.lost_pct for each in content.losses}
    parts: list[dict[str, Any]] = []
    for version in versions:
        saved = content_of(version)
        parts.append({
            "name": names[version.part_id], "kind": version.part.kind,
            "lines": saved.lines_text.split("\n")[:200], "egg_grade": saved.egg_grade,
            "family": saved.family or None, "method": saved.method, "beaten": beaten_of(saved),
            "lost_pct": lost.get(version.part_id),
        })  # fmt: skip
    layers = []
    for n, layer in enumerate(content.layers):
        if layer.part_id is not None and layer.part_id not in names:
            raise CraftError(f"layers[{n}].part_id", say("formulas.this_part_is_not_in_the_2"))
        layers.append(
            LayerIn(
                part=names[layer.part_id] if layer.part_id else layer.fold or None,
                item=layer.item or None, lies=layer.lies, value=layer.value, walls=layer.walls,
                lost_pct=layer.lost_pct,
            )
        )  # fmt: skip
    folds = []
    for n, fold in enumerate(content.folds):
        for field, part_id in (("base", fold.base_id), ("light", fold.light_id)):
            if part_id not in names:
                raise CraftError(f"folds[{n}].{field}", say("formulas.this_part_is_not_in_the_3"))
        folds.append({
            "name": fold.name, "base": names[fold.base_id], "light": names[fold.light_id],
            "base_g": fold.base_g, "light_g": fold.light_g,
        })  # fmt: skip
    return BuildIn.model_validate({
        "stand": StandIn(
            vessel=content.vessel_key or _STAND, count=content.count,
            portions_each=content.portions_each, cut=content.cut,
        ).model_dump(),
        "parts": parts,
        "layers": [layer.model_dump() for layer in layers],
        "folds": folds,
        "prices": prices_of(kitchen),
        "schools": SchoolsIn(filling=content.filling, meringue=content.meringue).model_dump(),
        "overrules": [o.model_dump() for o in content.overrules],
        "measures": kitchen.measures,
    })  # fmt: skip


def answer_of(kitchen: Kitchen, versions: list[Version], content: BuildContent) -> BuildOut:
    """What a build comes to. Raises CraftError at a field of it."""
    given = build_given(kitchen, versions, content)
    return built(given, pantry_of(kitchen), vessels_of(kitchen))


# How a simulated probe finds a part before it is laid on: this far off, and there in so long.
_OFF_K, _THERE_S = 5.0, 40.0


def assembly_plan(kitchen: Kitchen, dessert: Dessert) -> tuple[Version, PlanOut]:
    """The guide of building a dessert, as a cook is followed. Raises CraftError."""
    versions = newest_versions(dessert)
    if not versions:
        raise CraftError("dessert_id", say("formulas.there_is_no_part_in_this"))
    given = build_given(kitchen, versions, content_saved(dessert, versions))
    made = whole(given, pantry_of(kitchen), vessels_of(kitchen))
    steps = assembly_of(given, made)
    laid = made.stack.layers
    nothing = PlaceOut(grams=0, words=[])
    words = [
        f"{grams_text(need.need_g)} {name}" for name, need in made.needs.items()
        if any(x.name == name for x in laid)
    ]  # fmt: skip
    return main_version(versions), PlanOut(
        family=dessert.name[:80],
        guide="build",
        ring="",
        boil_c=200,
        thickens_c=None,
        pot=PlaceOut(grams=sum(n.need_g for n in made.needs.values()), words=words, us_words=words),
        bowl=nothing,
        finish=nothing,
        ladder=None,
        steps=steps,
        heat=None,
        cook=None,
        cook_from_c=20,
        temper_s=0,
        scorch="low",
        scenes=[s for step in steps if (s := _scene(step))],
        cut=cut_of(given, made, pantry_of(kitchen)),
        warnings=list(made.stack.warnings),
        checks=[say("formulas.made_and_at_hand", word=word) for word in words],
    )


def _scene(step: Step) -> Scene | None:
    """What a simulated probe sees of a check: it comes to the window from outside."""
    if step.kind != "check" or step.high_c is None:
        return None
    low = step.high_c - 6 if step.low_c is None else step.low_c
    there = (low + step.high_c) / 2
    points = [(0.0, step.high_c + _OFF_K), (_THERE_S, there), (36_000.0, there)]
    return Scene(
        step=step.key, mass_g=0, cp_j_per_gk=4, boil_c=200, thickens_c=200, from_c=points[0][1],
        power_w=0, fuel="gas", stirring="whisk", pot_mm=0, pot_g=0, kind="bake",
        points=[CurvePoint(t_s=t, temp_c=c) for t, c in points],
    )  # fmt: skip
