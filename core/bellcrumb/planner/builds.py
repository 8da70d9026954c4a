"""The dessert at the front door: from parts and layers to millimetres, grams and a thread."""

import math
from dataclasses import KW_ONLY, dataclass, replace

from bellcrumb.asked.lines import priced
from bellcrumb.asked.vessels import vessel_of
from bellcrumb.dessert.assembly import assembly
from bellcrumb.dessert.layers import Made, Need, Stack, stack
from bellcrumb.dessert.steps import Cooked, Making, Steps, steps_of
from bellcrumb.dessert.tables import Schools, needless
from bellcrumb.dessert.thread import could_save, thread
from bellcrumb.dessert.warm import said_warm
from bellcrumb.formula.scale import eggs_cracked, scale_text
from bellcrumb.formula.worth import cost, nutrition
from bellcrumb.mix.lines import Line
from bellcrumb.pantry.pantry import Pantry, shipped
from bellcrumb.planner.build_parts import Fold, PartBuilt, Understood, understood
from bellcrumb.planner.build_times import timed_steps
from bellcrumb.quantities.units import Measures
from bellcrumb.shapes import build as shapes
from bellcrumb.stove.steps import Step
from bellcrumb.texture.endpoint import endpoint
from bellcrumb.texture.families import COARSE
from bellcrumb.vessels.geometry import Vessel
from bellcrumb.words import say


@dataclass(frozen=True)
class Whole:
    """A dessert understood, laid and put in order."""

    vessel: Vessel
    found: Understood
    stack: Stack
    _: KW_ONLY
    needs: dict[str, Need]
    steps: Steps
    schools: Schools


def whole(
    given: shapes.BuildIn, pantry: Pantry | None = None, vessels: dict[str, Vessel] | None = None
) -> Whole:
    """Lay the parts and put their steps in order. Raises CraftError."""
    vessel = vessel_of(given.stand.vessel, vessels, "stand.vessel")
    count = given.stand.count
    found = understood(given, pantry)
    lain = stack(vessel, count, _made(found), found.layers)
    schools = Schools(given.schools.filling, given.schools.meringue)
    needs = _needs(found, {need.part: need for need in lain.needs})
    own = {o.key: (o.hands_min, o.wait_min) for o in given.overrules}
    modelled = timed_steps(found, lain.layers, vessel, count)
    steps = steps_of(_makings(found, lain, needs), lain.layers, count, schools, own, modelled)
    steps = replace(steps, steps=said_warm(steps.steps, steps.laid))
    return Whole(vessel, found, lain, needs=needs, steps=steps, schools=schools)


def _made(found: Understood) -> dict[str, Made]:
    """What there is to lay: of a part that is folded into another, only what is left of it."""
    out = {}
    for name, part in found.parts.items():
        used = sum(
            (f.base_g if f.base == name else 0.0) + (f.light_g if f.light == name else 0.0)
            for f in found.folds.values()
        )
        made = part.made
        left = max(0.0, made.batch_g - made.takes_g(used))
        out[name] = Made(
            name, made.kind, left if used else made.batch_g, density=made.density, lost=made.lost
        )
    return out | {name: fold.part.made for name, fold in found.folds.items()}


def _needs(found: Understood, laid: dict[str, Need]) -> dict[str, Need]:
    """What each part must give: in its layers, and in what it is folded into."""
    out = {}
    for name, part in found.parts.items():
        need = laid[name].need_g
        for fold in found.folds.values():
            share = {fold.base: fold.base_g, fold.light: fold.light_g}.get(name, 0.0)
            whole_g = fold.base_g + fold.light_g
            need += part.made.takes_g(laid[fold.name].need_g * share / whole_g)
        out[name] = Need(name, need, part.made.batch_g)
    return out | {name: laid[name] for name in found.folds}


def _makings(found: Understood, lain: Stack, needs: dict[str, Need]) -> dict[str, Making]:
    """The parts that are made, those that are folded before what they are folded into."""
    laid = {x.name for x in lain.layers}
    caramel = any(x.kind == "caramel" for x in lain.layers)
    folds = {name: fold for name, fold in found.folds.items() if name in laid}
    inside = {name for fold in folds.values() for name in (fold.base, fold.light)}
    out = {
        name: Making(
            part.made, needs[name].need_g, needless=needless(part.made.kind, part.mix),
            beaten=part.beaten or name in inside, unmoulds=caramel,
            cooked=_cooked(part),
            sieved=part.mix.main_starch not in COARSE,
        )
        for name, part in found.parts.items()
        if name in laid | inside
    }  # fmt: skip
    for name, fold in folds.items():
        out[name] = Making(
            fold.part.made, needs[name].need_g, of=(fold.base, fold.light),
            needless=needless(fold.part.made.kind, fold.part.mix),
        )  # fmt: skip
    return out


def _cooked(part: PartBuilt) -> Cooked:
    """How the pot of a part is cooked, in the words of the thread."""
    kin = part.family
    if kin is None or not (kin.on_the_stove or kin.texture_mode == "boiled_baked"):
        return "boil"
    stop = endpoint(part.mix, kin, boiled_first=kin.texture_mode == "boiled_baked")
    if stop.boils in ("grain", "setter", "cream"):
        return stop.boils
    return "nappe" if stop.mode == "nappe" else "boil"


def assembly_of(given: shapes.BuildIn, made: Whole) -> list[Step]:
    """The guide of building it."""
    return assembly(
        made.stack.layers, given.stand.count, made.schools, made.steps, made.vessel.name
    )


def built(
    given: shapes.BuildIn, pantry: Pantry | None = None, vessels: dict[str, Vessel] | None = None
) -> shapes.BuildOut:
    """What a dessert comes to. Raises CraftError at the field that stands in the way."""
    made = whole(given, pantry, vessels)
    timed = thread(made.steps.steps)
    when = {w.key: w for w in timed.whens}
    parts = made.found.parts
    gone = sorted({o.key for o in given.overrules} - set(when))
    unread = [f"{n}: {t}" for n, p in parts.items() for t in _unread(p.lines)]
    worth = _Worth(made.found, given, pantry or shipped())
    return shapes.BuildOut(
        stand=_stand_out(made.vessel, given.stand, made.stack.top_mm),
        layers=_layers_out(made, worth),
        parts=parts_out(given, made),
        folds=[_fold_out(f, made.needs[f.name]) for f in made.found.folds.values()],
        guide=assembly_of(given, made),
        portion=_portion(made, worth, given.stand.portions_each, complete=not unread),
        steps=[
            shapes.BuildStepOut(
                **vars(s) | {"uses": tuple(dict.fromkeys((*s.uses, *s.holds)))},
                earliest_min=when[s.key].earliest_min,
                latest_min=when[s.key].latest_min,
                critical=when[s.key].critical,
                ahead=when[s.key].ahead,
            )
            for s in made.steps.steps
        ],
        shortest_min=timed.shortest_min,
        critical=timed.critical,
        shorter=[
            shapes.SavingOut(key=key, saves_min=saves)
            for key, saves in could_save(made.steps.steps, timed.critical)[:3]
        ],
        minded=made.steps.minded,
        warnings=[
            *unread,
            *made.stack.warnings,
            *timed.clashes,
            *(say("planner.there_is_no_step_any_more", key=key) for key in gone),
        ],
    )


def cut_of(
    given: shapes.BuildIn, made: Whole, pantry: Pantry | None = None
) -> shapes.CutOut:  # fmt: skip
    """The dessert as it is drawn, without its thread."""
    worth = _Worth(made.found, given, pantry or shipped())
    return shapes.CutOut(
        stand=_stand_out(made.vessel, given.stand, made.stack.top_mm),
        layers=_layers_out(made, worth),
    )


class _Worth:
    """What a gram of each part costs, where there are prices."""

    def __init__(self, found: Understood, given: shapes.BuildIn, pantry: Pantry) -> None:
        prices = priced(given.prices, pantry)
        self.per_g: dict[str, float] = {}
        self.without: set[str] = set()
        if not prices:
            return
        every = {**found.parts, **{name: fold.part for name, fold in found.folds.items()}}
        for name, part in every.items():
            spent = cost(part.mix, prices, part.grade)
            self.per_g[name] = spent.batch / part.mix.mass_g
            self.without |= set(spent.without_price)

    def of(self, name: str, grams: float) -> float | None:
        """The cost of so many grams of a part as made; None without prices."""
        return self.per_g[name] * grams if self.per_g else None


def parts_out(given: shapes.BuildIn, made: Whole) -> list[shapes.BuildPartOut]:
    """What each part must give, with its lines at that size."""
    return [
        _part_out(name, part, made.needs[name], given) for name, part in made.found.parts.items()
    ]


def _unread(lines: list[Line | None]) -> list[str]:
    return [
        say("planner.is_not_counted", line=line.text.strip(), message=line.message)
        for line in lines
        if line and not line.counted
    ]


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


def _layers_out(made: Whole, worth: _Worth) -> list[shapes.LainOut]:
    out = []
    for x in made.stack.layers:
        part = made.found.laid(x.name)
        out.append(
            shapes.LainOut(
                **vars(x),
                kcal_each=nutrition(part.mix, x.g_each).kcal,
                cost_each=worth.of(x.name, part.made.takes_g(x.g_each)),
                allergens=list(part.mix.allergens),
            )
        )  # fmt: skip
    return out


def _portion(made: Whole, worth: _Worth, each: int, *, complete: bool) -> shapes.PortionOut:
    layers, allergens, untold = [], set[str](), set[str]()
    for x in made.stack.layers:
        part = made.found.laid(x.name)
        mix, grams = part.mix, x.g_each / each
        spent = worth.of(x.name, part.made.takes_g(grams))
        kcal = nutrition(mix, grams).kcal
        layers.append(shapes.LayerShareOut(name=x.name, g=grams, kcal=kcal, cost=spent))
        allergens |= set(mix.allergens)
        untold |= set(mix.allergens_untold)
    return shapes.PortionOut(
        g=sum(x.g for x in layers), kcal=sum(x.kcal for x in layers), allergens=sorted(allergens),
        allergens_untold=sorted(untold), complete=complete,
        cost=sum(x.cost or 0.0 for x in layers) if worth.per_g else None,
        without_price=sorted(worth.without), layers=layers,
    )  # fmt: skip


def _fold_out(fold: Fold, need: Need) -> shapes.FoldOut:
    strength = fold.found.set
    return shapes.FoldOut(
        name=fold.name, base=fold.base, light=fold.light, base_g=fold.base_g,
        light_g=fold.light_g, volume_ml=fold.volume_ml, density_g_per_ml=fold.part.made.density,
        set_class=strength.klass if strength else None,
        family=fold.found.family.name if fold.found.family else None,
        base_from_c=fold.window.low_c, base_to_c=fold.window.high_c, sign=fold.window.sign,
        too_cold=fold.window.below, too_warm=fold.window.above, need_g=need.need_g,
    )  # fmt: skip


def _part_out(name: str, part: PartBuilt, need: Need, given: shapes.BuildIn) -> shapes.BuildPartOut:
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


def _whole_eggs(part: PartBuilt, times: float) -> float:
    """The next batch up that cracks whole eggs, where it cracks any and it is not far."""
    eggs = eggs_cracked(part.mix, part.grade)
    if not eggs or times <= 0:
        return times
    whole = max(1.0, float(-(-(eggs * times - 0.02) // 1)))
    return whole / eggs if whole / eggs < 1.6 * times else times
