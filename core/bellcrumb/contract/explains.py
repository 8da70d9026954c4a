"""The book at the front door: a batch explained, and what batches teach."""

import math
from collections import defaultdict

from bellcrumb.asked.lines import answered
from bellcrumb.book import learn as laws
from bellcrumb.book.causes import Cause, causes, fault_of
from bellcrumb.book.happened import CookSeen, Happened, StepSeen, happened
from bellcrumb.book.learned import Learned
from bellcrumb.book.signals import Value
from bellcrumb.contract.bend import bend
from bellcrumb.curve.watch import held_s, smoothed
from bellcrumb.formula.answer import Answer
from bellcrumb.laws.safety import CoolingRule
from bellcrumb.pantry.pantry import Pantry
from bellcrumb.shapes import SolveIn, WishesIn
from bellcrumb.shapes import explain as shapes
from bellcrumb.texture.set_index import CLASSES, CUTS
from bellcrumb.words import say

_BOIL_BELOW_K = 3.0
_RULED_OUT = 0.03
_DRAWN = 40  # batches of which a learned value is drawn
_MEASURED = (
    "heat_predicted_s", "heat_took_s", "ladder_jump_k", "to_pour_g", "poured_g", "oven_moved_k",
    "egg_share",
)  # fmt: skip
# A batch is light when twice what was to boil away is gone, and a spoonful in fifty that stays on
# pot and whisk. Our estimates.
_MUCH_GONE, _STAYS = 2.0, 0.02
# Causes that the formula mends: which way the set has to go.
_FIRMER = {"starch_short_or_liquid_over", "yolk_or_egg_short", "egg_short_for_the_liquid"}
_SOFTER = {"too_much_starch", "too_much_egg_or_white", "much_egg_or_white_little"}


def explain(given: shapes.ExplainIn, pantry: Pantry | None = None) -> shapes.ExplainOut:
    """Why a batch came out as it did; ``pantry`` adds a kitchen's own."""
    found, _ = answered(given, pantry)
    signals: dict[str, Value] = _of_formula(found) | _of_curve(given, found)
    signals |= given.signals
    signals |= dict.fromkeys(given.events, True) | dict.fromkeys(given.absent, False)
    faults = list(given.verdict.faults)
    judged = given.verdict.class_
    expected = given.planned.set_class or (found.set.klass if found.set else None)
    if judged and expected and judged != expected:
        firmer = CLASSES.index(judged) > CLASSES.index(expected)
        faults.append("too_firm" if firmer else "too_thin")
    family = found.family.key if found.family else ""
    told: list[Cause] = []
    for fault in dict.fromkeys(faults):
        key = fault_of(fault, family)
        if key:
            told += causes(key, signals)
    told.sort(key=lambda c: -c.probability)
    likely = [c for c in told if c.probability >= _RULED_OUT]
    return shapes.ExplainOut(
        happened=_happened(given, signals),
        causes=[
            shapes.CauseOut.model_validate({
                "fault": c.fault, "of": c.of, "cause": c.key, "words": c.cause,
                "probability": c.probability, "for": c.speaks_for, "against": c.speaks_against,
                "ask": c.ask, "mend": c.mend, "source": c.source,
            })
            for c in likely
        ],
        ruled_out=[c.cause for c in told if c.probability < _RULED_OUT],
        change=[_change(c, given, found, pantry) for c in likely[:2] if c.mend],
    )  # fmt: skip


def _of_formula(found: Answer) -> dict[str, Value]:
    """What the lines tell, under the names of the causal table."""
    mix, liquid = found.mix, found.liquid_g
    if not mix.mass_g:
        return {}
    per = 1000 / liquid if liquid else 0.0
    water = mix.parts_g["water"]
    out: dict[str, Value] = {
        "starch_ce_g_l": mix.corn_equivalent_g * per,
        "yolk_g_l": mix.yolk_g * per,
        "egg_g_l": (mix.whole_egg_g + mix.yolk_g + mix.white_g) * per,
        "acid_g_100": 100 * mix.lemon_juice_g / mix.mass_g,
        "sugar_water_pct": 100 * mix.parts_g["sugars"] / max(water + mix.parts_g["sugars"], 1e-9),
        "cheese_share": mix.grams_of("fresh_cheese") / mix.mass_g,
    }
    if found.set:
        target = CLASSES.index(found.set.klass)
        out["S"] = found.set.index
        out["S:target_cut"] = (0.0, *CUTS)[target]
        out["S:next_cut"] = (*CUTS, 99.0)[target]
    if found.family:
        for name, window in (
            ("starch_ce_g_l", found.family.corn_equivalent_g), ("yolk_g_l", found.family.yolk_g),
            ("egg_g_l", found.family.whole_egg_g),
        ):  # fmt: skip
            out[f"{name}:window_lo"], out[f"{name}:window_hi"] = window.low, window.high
    if found.coagulation:
        out["t_set"] = found.coagulation.ideal_c
        out["t_curdle"] = found.coagulation.curdle_c or found.coagulation.ideal_c + 7
    return out


def _of_curve(given: shapes.ExplainIn, found: Answer) -> dict[str, Value]:
    """What the curve and the clock tell, under the names of the causal table."""
    curve = smoothed([(r.t_s, r.temp_c) for r in given.readings])
    baked = found.family is not None and not found.family.on_the_stove
    out: dict[str, Value] = {}
    if len(curve) >= 4:
        peak, end = max(c for _, c in curve), curve[-1][1]
        if baked:
            out |= {"centre_peak_c": peak, "centre_end_c": end, "core_c": end}
        else:
            boil = found.endpoint.temp_c if found.endpoint and found.endpoint.temp_c else 100.0
            out |= {"peak_c": peak, "hold_boil_s": held_s(curve, boil - _BOIL_BELOW_K)}
    plan = given.planned
    if plan.took_min and plan.from_min and plan.to_min:
        out["bake_ratio"] = plan.took_min / ((plan.from_min + plan.to_min) / 2)
        out["late_pull"] = plan.took_min > plan.to_min
    if plan.went_in_g and plan.came_out_g and plan.boils_off_g is not None:
        gone = plan.went_in_g - plan.came_out_g
        out["yield_low"] = gone > _MUCH_GONE * plan.boils_off_g + _STAYS * plan.went_in_g
    return out


def _happened(given: shapes.ExplainIn, signals: dict[str, Value]) -> list[Happened]:
    """What happened against what was planned, what mattered most first."""
    out: list[Happened] = []

    def tell(code: str, weight: float, value: float | None, words: str) -> None:
        out.append(Happened(code=code, weight=weight, value=value, words=words))

    plan, held = given.planned, signals.get("hold_boil_s")
    if plan.took_min and plan.to_min and plan.took_min > plan.to_min:
        late = plan.took_min - plan.to_min
        tell("late", min(1.0, late / 20), late, say("contract.min_past_its_window", late=late))
    if plan.took_min and plan.from_min and plan.took_min < plan.from_min:
        early = plan.from_min - plan.took_min
        tell(
            "early", min(1.0, early / 10), early, say("contract.min_before_its_window", early=early)
        )
    if signals.get("yield_low") and plan.went_in_g and plan.came_out_g:
        gone = plan.went_in_g - plan.came_out_g
        tell(
            "light",
            min(1.0, gone / (0.2 * plan.went_in_g)),
            gone,
            say("contract.g_lighter_than_it_went_in", gone=gone, boils_off_g=plan.boils_off_g or 0),
        )
    if plan.hold_s and isinstance(held, float) and held < plan.hold_s:
        short = plan.hold_s - held
        tell(
            "short_hold",
            min(1.0, short / plan.hold_s),
            held,
            say("contract.held_s_of_s_at_the", held=held, hold_s=plan.hold_s),
        )
    for code in ("peak_c", "centre_peak_c"):
        peak, curdles = signals.get(code), signals.get("t_curdle")
        if isinstance(peak, float):
            past = isinstance(curdles, float) and peak > curdles and code == "centre_peak_c"
            tell(code, 0.8 if past else 0.2, peak, say("contract.c_at_most", peak=peak))
    if given.cook:
        out += happened(_seen(given.cook))
    return sorted(out, key=lambda h: -h.weight)


def _seen(cook: shapes.CookSeenIn) -> CookSeen:
    told = {name: getattr(cook, name) for name in _MEASURED}
    return CookSeen(
        steps=[StepSeen(**vars(step)) for step in cook.steps],
        curve=[(r.t_s, r.temp_c) for r in cook.readings],
        rule=CoolingRule(**vars(cook.rule)),
        **told,
    )


def _change(
    cause: Cause, given: shapes.ExplainIn, found: Answer, pantry: Pantry | None
) -> shapes.ChangeOfBatch:
    """What to change, with the lines written anew where the formula is to blame."""
    lines: list[str] = []
    if found.set and cause.key in _FIRMER | _SOFTER:
        family = found.family
        asked = given.model_dump(include={"lines", "egg_grade", "measures", "family"}, mode="json")
        asked["beaten"] = given.beaten
        if given.beaten is None and family is not None:
            asked["beaten"] = family.usually_beaten
        # What the family is meant to be, as it is eaten.
        wished = family.texture_target.split("/")[0] if family else found.set.klass
        solved = bend(SolveIn(**asked, wishes=WishesIn(set_class=wished)), pantry)
        lines = [] if solved.unmet else solved.lines
    return shapes.ChangeOfBatch(cause=cause.key, words=cause.mend, lines=lines)


def learned(given: shapes.LearnIn) -> shapes.LearnOut:
    """What batches teach of rings, pots, ovens and the set; simulated ones teach nothing."""
    rings: dict[str, list[tuple[float, float]]] = defaultdict(list)
    leaks: dict[str, list[tuple[float, float]]] = defaultdict(list)
    ovens: dict[tuple[str, str], list[tuple[float, float]]] = defaultdict(list)
    figures: dict[tuple[str, shapes.OvenFigure], list[tuple[float, float]]] = defaultdict(list)
    sets: list[laws.SetSeen] = []
    pots: dict[str, list[tuple[float, float]]] = defaultdict(list)
    for batch in given.batches:
        if batch.simulated:
            continue
        if batch.ring and batch.boil_predicted_s and batch.boil_took_s:
            share = batch.boil_predicted_s / batch.boil_took_s
            rings[batch.ring].append((share, batch.share_per_loss))
        if batch.ring and batch.loss_seen_w_m2k is not None:
            leaks[batch.ring].append((batch.loss_seen_w_m2k, batch.loss_spread_w_m2k))
        if batch.pot and batch.off_predicted_g and batch.off_g:
            pots[batch.pot].append((batch.off_predicted_g, batch.off_g))
        told = _oven_told(batch)
        if batch.oven and told:
            ovens[batch.oven, batch.oven_kind].append(told)
        for told_by in batch.figures if batch.oven else ():
            row = told_by.log, told_by.spread
            figures[batch.oven or "", told_by.figure].append(row)
        if batch.family and batch.judged and batch.predicted_index is not None:
            shift = judged_s(batch.judged) - batch.predicted_index
            sets.append(laws.SetSeen(batch.family, batch.set_by, shift))
    families, lines = laws.set_shifts(sets)
    losses = {name: laws.loss(seen) for name, seen in leaks.items()}
    # The power is what a heating needed and what its pot lost, so that both together always boil
    # when it boiled, whatever is thought of the loss.
    lost = {name: found.mean for name, found in losses.items()} | given.losses_w_m2k
    needed = {
        name: [max(share / 2, share + lost.get(name, 0.0) * per) for share, per in seen]
        for name, seen in rings.items()
    }
    return shapes.LearnOut(
        rings=[
            _out(name, laws.ring(shares), shares) for name, shares in sorted(needed.items())
        ],
        losses=[
            _out(name, found, [value for value, _ in leaks[name]])
            for name, found in sorted(losses.items())
        ],
        pots=[
            _out(name, laws.boiled_off([p for p, _ in seen], [g for _, g in seen]),
                 [g / p for p, g in seen])
            for name, seen in sorted(pots.items())
        ],
        ovens=[
            _out(name, laws.oven(kind, [k for k, _ in seen], [sd for _, sd in seen]),
                 [k for k, _ in seen])
            for (name, kind), seen in sorted(ovens.items())
        ],
        figures=[
            shapes.FigureOut(
                **vars(_out(name, laws.oven_figure(figure, seen), [math.exp(x) for x, _ in seen])),
                figure=figure,
            )
            for (name, figure), seen in sorted(figures.items())
        ],
        set_shift=[
            _out(name, found, [row.shift for row in sets if row.family == name])
            for name, found in families.items()
        ],
        lines=[
            _out(key, found, _of_line(key, sets, families))
            for key, found in lines.items()
        ],
    )  # fmt: skip


def _oven_told(batch: shapes.BatchSeen) -> tuple[float, float] | None:
    """What a bake tells of its oven above its dial, and how well, K: by a probe, else by its time;
    None where it tells nothing."""
    if batch.offset_seen_k is not None:
        return batch.offset_seen_k, max(laws.OVEN_PROBED_K, batch.offset_spread_k)
    if not (batch.dial_c and batch.bake_predicted_min and batch.bake_took_min):
        return None
    found = laws.oven_offset_k(
        batch.dial_c, batch.set_c, batch.bake_predicted_min, batch.bake_took_min
    )
    return batch.offset_used_k + found, laws.OVEN_NOISE


def judged_s(klass: str) -> float:
    """The middle of a class, in S."""
    edges = (0.6, *CUTS, CUTS[-1] + 1.6)
    n = CLASSES.index(klass)
    return (edges[n] + edges[n + 1]) / 2


def _of_line(
    key: str, sets: list[laws.SetSeen], families: dict[str, Learned]
) -> list[float]:  # fmt: skip
    """What each batch tells of a line: what its family does not explain."""
    return [row.shift - families[row.family].mean for row in sets if key in row.lines]


def _out(name: str, found: Learned, seen: list[float]) -> shapes.LearnedOut:
    latest = [round(value, 3) for value in seen[-_DRAWN:]]
    return shapes.LearnedOut(**vars(found), name=name, seen=latest)
