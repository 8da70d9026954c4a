"""The dessert at the front door: from parts and layers to millimetres, grams and a thread."""

import math
from dataclasses import dataclass, replace

from bellcrumb.contract.build import read_lines
from bellcrumb.contract.fitting import vessel_of
from bellcrumb.contract.shapes import LineIn
from bellcrumb.contract.shapes import build as shapes
from bellcrumb.dessert.layers import Layer, Made, Need, Stack, stack
from bellcrumb.dessert.steps import Making, Schools, steps_of
from bellcrumb.dessert.thread import could_save, thread
from bellcrumb.dessert.works import FACTS, Kind, kind_of_part
from bellcrumb.errors import CraftError
from bellcrumb.formula.answer import answer, mix_of
from bellcrumb.formula.scale import eggs_cracked, scale_text
from bellcrumb.formula.worth import nutrition
from bellcrumb.mix.composition import Mix
from bellcrumb.mix.lines import Line
from bellcrumb.pantry.eggs import EggGrade, egg_grade
from bellcrumb.pantry.ingredients import Pantry
from bellcrumb.quantities.units import Measures
from bellcrumb.vessels.geometry import Vessel

_NOT_CUSTARD = ("crust", "caramel", "meringue", "glaze", "garnish")


@dataclass(frozen=True)
class _Part:
    """A part understood: its lines, mix, eggs, and how it is made and lies."""

    lines: list[Line | None]
    texts: list[str]
    mix: Mix
    grade: EggGrade
    made: Made
    beaten: bool


def built(
    given: shapes.BuildIn, pantry: Pantry | None = None, vessels: dict[str, Vessel] | None = None
) -> shapes.BuildOut:
    """What a dessert comes to. Raises CraftError at the field that stands in the way."""
    vessel = vessel_of(given.stand.vessel, vessels, "stand.vessel")
    count = given.stand.count
    parts, layers = _understood(given, pantry)
    made = {name: part.made for name, part in parts.items()}
    lain = stack(vessel, count, made, layers)
    schools = Schools(given.schools.filling, given.schools.meringue)
    caramel = any(x.kind == "caramel" for x in lain.layers)
    needs = {need.part: need for need in lain.needs}
    makings = {
        name: Making(
            part.made, needs[name].need_g,
            gelatine=part.mix.grams_of("setter") > 0,
            beaten=part.beaten, unmoulds=caramel,
        )
        for name, part in parts.items()
        if any(x.part == name for x in lain.layers)
    }  # fmt: skip
    own = {o.key: (o.hands_min, o.wait_min) for o in given.overrules}
    made_in = steps_of(makings, lain.layers, count, schools, own)
    steps = made_in.steps
    timed = thread(steps)
    unknown = sorted(set(own) - {step.key for step in steps})
    if unknown:
        raise CraftError("overrules", f"There is no step “{unknown[0]}”.")
    when = {w.key: w for w in timed.whens}
    warnings = [f"{n}: {t}" for n, p in parts.items() for t in _unread(p.lines)]
    return shapes.BuildOut(
        stand=_stand_out(vessel, given.stand, lain.top_mm),
        layers=_layers_out(lain, parts),
        parts=[_part_out(name, p, needs[name], given) for name, p in parts.items()],
        portion=_portion(lain, parts, given.stand.portions_each),
        steps=[
            shapes.BuildStepOut(
                **{k: getattr(s, k) for k in (
                    "key", "part", "code", "words", "hands_min", "wait_min", "wait_low_min",
                    "wait_high_min", "attention", "oven_c", "source", "own")},
                uses=list(dict.fromkeys((*s.uses, *s.holds))),
                holds=list(s.holds),
                after=[shapes.GapOut(**vars(g)) for g in s.after],
                earliest_min=when[s.key].earliest_min,
                latest_min=when[s.key].latest_min,
                critical=when[s.key].critical,
                ahead=when[s.key].ahead,
            )
            for s in steps
        ],
        shortest_min=timed.shortest_min,
        critical=timed.critical,
        shorter=[
            shapes.SavingOut(key=key, saves_min=saves)
            for key, saves in could_save(steps, timed.critical)[:3]
        ],
        minded=made_in.minded,
        warnings=[*warnings, *lain.warnings, *timed.clashes],
    )  # fmt: skip


def _unread(lines: list[Line | None]) -> list[str]:
    return [
        f"“{line.text.strip()}” is not counted. {line.message}"
        for line in lines
        if line and not (line.ingredient and line.grams)
    ]


def _understood(
    given: shapes.BuildIn, pantry: Pantry | None
) -> tuple[dict[str, _Part], list[Layer]]:
    """Every part and bought thing by its name, and the layers that name them."""
    names = [part.name for part in given.parts]
    if len(set(names)) < len(names):
        twice = next(n for n in names if names.count(n) > 1)
        raise CraftError("parts", f"Two parts are called “{twice}”: give one another name.")
    asked = given.layers or [shapes.LayerIn(part=name) for name in names]
    parts: dict[str, _Part] = {}
    in_shell = any(part.kind == "crust" for part in given.parts)
    for n, part in enumerate(given.parts):
        parts[part.name] = _part(n, part, given, pantry, in_shell=in_shell)
    layers = []
    for n, layer in enumerate(asked):
        if (layer.part is None) == (layer.item is None):
            raise CraftError(f"layers[{n}]", "A layer is of a part or of something bought: one.")
        name = layer.part or ""
        if layer.item is not None:
            found = _bought(n, layer.item.strip(), given, pantry)
            name = found.made.name
            if name in parts and parts[name].texts != found.texts:
                name = layer.item.strip()
            parts.setdefault(name, replace(found, made=replace(found.made, name=name)))
        layers.append(Layer(name, layer.lies, layer.value, layer.walls))
    return parts, layers


def _part(
    n: int, part: shapes.BuildPartIn, given: shapes.BuildIn, pantry: Pantry | None, *,
    in_shell: bool,
) -> _Part:  # fmt: skip
    grade = egg_grade(part.egg_grade)
    lines = read_lines(part.lines, grade, pantry, f"parts[{n}].lines", given.measures)
    custard = part.kind not in _NOT_CUSTARD
    found = answer(lines, grade, part.family, custard=custard, beaten=part.beaten)
    if not found.mix.mass_g:
        raise CraftError(f"parts[{n}].lines", f"{part.name} has nothing in it yet.")
    kind: Kind = part.work or kind_of_part(
        part.kind, found.mix, found.family, method=part.method, beaten=part.beaten,
        baked=part.baking, in_shell=in_shell,
    )  # fmt: skip
    facts = FACTS[kind]
    lost = facts.lost if part.lost_pct is None else part.lost_pct / 100
    own = found.mix.mass_g / found.mix.volume_ml
    grams = found.mix.mass_g * given.batches
    made = Made(part.name, kind, grams, facts.density or own, lost)
    usually = bool(found.family and found.family.usually_beaten)
    return _Part(
        lines, _texts(part.lines), found.mix, grade, made,
        usually if part.beaten is None else part.beaten,
    )  # fmt: skip


def _bought(n: int, text: str, given: shapes.BuildIn, pantry: Pantry | None) -> _Part:
    """Something bought, given as a line for all of it."""
    grade = egg_grade("US large")
    lines = read_lines([text], grade, pantry, f"layers[{n}].item", given.measures)
    mix = mix_of(lines)
    if not mix.mass_g:
        said = next((line.message for line in lines if line), "Write it as “200 g digestives”.")
        raise CraftError(f"layers[{n}].item", said)
    kind = kind_of_part("garnish", mix, None)
    facts = FACTS[kind]
    density = mix.mass_g / mix.volume_ml if facts.density is None else facts.density
    name = mix.portions[0].ingredient.name.split(",")[0]
    made = Made(name, kind, mix.mass_g * given.batches, density, 0.0)
    return _Part(lines, [text], mix, grade, made, False)


def _texts(lines: list[LineIn]) -> list[str]:
    return [t if isinstance(t, str) else f"{t.grams:g} g {t.ingredient}" for t in lines]


def _stand_out(vessel: Vessel, given: shapes.StandIn, top_mm: float) -> shapes.StandOut:
    low, high = vessel.across(0.0)[0], vessel.across(1.0)[0]
    cut_width = high / 2 if given.cut == "wedges" else high
    if given.cut == "squares":
        cut_width = min(high, math.sqrt(math.prod(vessel.across(1.0)) / given.portions_each))
    return shapes.StandOut(
        name=vessel.name, shape=vessel.shape, top_mm=high, bottom_mm=low, depth_mm=vessel.depth_mm,
        brim_ml=vessel.brim_ml, count=given.count, portions=given.count * given.portions_each,
        cut=given.cut, top_of_build_mm=top_mm, cut_width_mm=cut_width,
    )  # fmt: skip


def _layers_out(lain: Stack, parts: dict[str, _Part]) -> list[shapes.LainOut]:
    return [
        shapes.LainOut(
            name=x.part, kind=x.kind, lies=x.lies, mm=x.mm, from_mm=x.from_mm, to_mm=x.to_mm,
            ml_each=x.ml_each, g_each=x.g_each, walls=x.walls, wall_mm=x.wall_mm,
            width_mm=x.width_mm, top_width_mm=x.top_width_mm,
            kcal_each=nutrition(parts[x.part].mix, x.g_each).kcal,
            allergens=list(parts[x.part].mix.allergens),
        )
        for x in lain.layers
    ]  # fmt: skip


def _portion(lain: Stack, parts: dict[str, _Part], each: int) -> shapes.PortionOut:
    layers = [
        shapes.LayerShareOut(
            name=x.part, g=x.g_each / each, kcal=nutrition(parts[x.part].mix, x.g_each / each).kcal
        )
        for x in lain.layers
    ]
    allergens = dict.fromkeys(a for x in lain.layers for a in parts[x.part].mix.allergens)
    return shapes.PortionOut(
        g=sum(x.g for x in layers), kcal=sum(x.kcal for x in layers), allergens=sorted(allergens),
        layers=layers,
    )  # fmt: skip


def _part_out(name: str, part: _Part, need: Need, given: shapes.BuildIn) -> shapes.BuildPartOut:
    times = need.times * given.batches
    times = _whole_eggs(part, times) if given.whole_eggs else times
    measures: Measures = given.measures
    lines = part.texts
    if times > 0 and abs(times - 1) > 1e-6:
        lines = scale_text("\n".join(part.texts), part.lines, times, measures).split("\n")
    return shapes.BuildPartOut(
        name=name, kind=part.made.kind, need_g=need.need_g, written_g=need.written_g,
        left_g=need.left_g, times=need.times, lost_pct=100 * part.made.lost, scaled_times=times,
        scaled_lines=lines,
    )  # fmt: skip


def _whole_eggs(part: _Part, times: float) -> float:
    """The next batch up that cracks whole eggs, where it cracks any and it is not far."""
    eggs = eggs_cracked(part.mix, part.grade)
    if not eggs or times <= 0:
        return times
    whole = max(1.0, float(-(-(eggs * times - 0.02) // 1)))
    return whole / eggs if whole / eggs < 1.6 * times else times
