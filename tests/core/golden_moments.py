"""What a cook is told while the pot goes through each step: a row wherever that changes."""

from collections.abc import Iterator
from itertools import pairwise, product

from bellcrumb.curve.watch import Watch
from bellcrumb.dessert.guided import HowCooked, guided
from bellcrumb.heat.pot import MEDIUM_GAS
from bellcrumb.stove.finish import additions, cools_in_s
from bellcrumb.stove.guide import Moment, follow, held_above_c, missed, moment
from bellcrumb.stove.steps import Step
from bellcrumb.texture.families import family
from tests.core.kitchen import ask, mix

Readings = list[tuple[float, float]]
_EVERY_S = 5.0
_GUIDES: dict[str, tuple[str, str, list[str]]] = {
    "pastry cream": ("cream", "pastry_cream",
                     ["1 l milk", "9 yolks", "150 g sugar", "85 g corn starch", "45 g butter"]),
    "anglaise": ("cream", "anglaise",
                 ["500 ml milk", "500 ml cream 35%", "10 yolks", "150 g sugar"]),
    "diplomat": ("cream", "diplomat",
                 ["500 g milk", "100 g yolks", "120 g sugar", "45 g corn starch", "8 g gelatine",
                  "300 g cream 35%, whipped"]),
    "rice": ("cream", "rice_pudding", ["1 l milk", "120 g pudding rice", "80 g sugar"]),
    "curd": ("filling", "lemon_curd",
             ["4 eggs", "150 g sugar", "150 ml lemon juice", "120 g butter"]),
    "sabayon": ("cream", "sabayon", ["6 yolks", "120 g sugar", "150 g marsala"]),
    "swiss": ("meringue", "", ["120 g egg whites", "240 g sugar"]),
    "caramel": ("caramel", "", ["200 g sugar", "60 g water"]),
    "italian": ("meringue", "", ["120 g egg whites", "240 g sugar", "72 g water"]),
    "choux": ("crust", "", ["125 g water", "125 g milk", "110 g butter", "140 g flour", "5 eggs"]),
}  # fmt: skip


def _through(step: Step) -> Readings:
    """A curve through all that can be told: up to where it is too much, there for a while, and
    down again; a step that cools comes down only."""
    high = (step.never_c or step.high_c or 100.0) + 3
    low = (step.low_c or high) - 25
    if step.kind == "cool":
        way = [high + 40, high + 20, high, high - 10, high - 10]
    elif step.hold_s:
        boil = (step.low_c or 97.5) + 0.5
        stays = [boil] * (4 + (4 * step.hold_s + 60) // 60)
        lost = [boil, boil - 6, boil - 6]
        way = [low, boil - 12, boil - 6, *lost, *stays, boil - 4, boil - 12, boil]
    else:
        way = [low, (low + high) / 2, high, high - 4, low]
    readings: Readings = []
    for n, (a, b) in enumerate(pairwise(way)):
        readings += [(60.0 * n + t, a + (b - a) * t / 60) for t in range(0, 60, int(_EVERY_S))]
    return readings


def _row(of: str, step: Step, at_s: float, now: Moment) -> dict[str, object]:
    return {
        "of": of, "step": step.key, "at_s": at_s, "figure": now.figure, "unit": now.figure_unit,
        "headline": now.headline, "next": now.next_move, "urgency": now.urgency,
        "hold_left_s": now.hold_left_s, "rate_k_per_min": now.rate_k_per_min,
        "to_target_s": now.to_target_s, "done": now.done,
    }  # fmt: skip


def _told(of: str, step: Step) -> Iterator[dict[str, object]]:
    if not step.hold_s and step.high_c is None and step.kind != "temper":
        yield _row(of, step, 10.0, follow(step, [], 0.0, 10.0))
        return
    readings = _through(step)
    last = None
    watch = Watch(held_above_c(step))
    for reading in readings:
        watch.add(reading)
        now = moment(step, watch, 0.0, reading[0])
        told = (now.headline, now.urgency, now.done, (now.hold_left_s or 0) // 30)
        if told != last:
            yield _row(of, step, reading[0], now)
        last = told
    for silent_s in (10.0, step.hold_s + 20.0):  # no probe, or one that went silent
        yield _row(of, step, silent_s, follow(step, [], 0.0, silent_s))
    yield _row(of, step, 45.0, follow(step, [(3.0, 50.0)], 0.0, 45.0))


def moments() -> Iterator[dict[str, object]]:
    """Every step of some guides, and holds that were left out or cut short."""
    for of, (kind, kin, lines) in _GUIDES.items():
        found = ask(*lines, family=kin or None)
        made = guided(kind, found.mix, found.family, MEDIUM_GAS, HowCooked(), chosen=True)
        for step in made.steps:
            yield from _told(of, step)
        for step in made.steps:
            if not (step.hold_s and step.low_c is not None):
                continue
            for peak, long_s in ((-1, 200), (1, 10), (1, 25), (1, 40), (1, 200)):
                hot: Readings = [(float(t), step.low_c + peak) for t in range(0, long_s, 2)]
                entered = [(step.key, 0.0, 200.0), (made.steps[-1].key, 200.0, 260.0)]
                _, headline, then = missed(made.steps, entered, hot) or ("", "", "")
                yield {"of": of, "step": step.key, "at_s": long_s, "figure": peak,
                       "headline": headline, "next": then}  # fmt: skip


def finishes() -> Iterator[dict[str, object]]:
    """What goes in off the heat: when, how warm the mix is after it, and what comes of that."""
    bases = {
        "cream": mix(milk_whole=1000, egg_yolk=160, sugar=150, corn_starch=80),
        "little": mix(milk_whole=200, egg_yolk=40, sugar=40),
        "curd": mix(lemon_juice=150, egg_whole=200, sugar=150),
    }
    late = {
        "butter": mix(butter_82=120), "much butter": mix(butter_82=500),
        "chocolate": mix(choc_dark_65=250), "gelatine": mix(gelatine=12),
        "rum": mix(rum=40), "praline": mix(praline_paste=150), "cream": mix(cream_35=400),
        "whites": mix(egg_white=150), "two": mix(butter_82=60, cream_35=300),
    }  # fmt: skip
    for (base, into), (what, extras), warm_c, kin in product(
        bases.items(), late.items(), (100.0, 62.0, 30.0), (None, "mousseline", "lemon_curd")
    ):
        if (kin == "lemon_curd") != (base == "curd"):
            continue
        for a in additions(into, extras, family(kin) if kin else None, warm_c):
            yield {
                "base": base, "what": what, "mix_c": warm_c, "kin": kin, "name": a.name,
                "low_c": a.window.low_c, "high_c": a.window.high_c, "after_c": a.after_c,
                "splits": a.splits, "advice": a.advice,
                **{f"waits_{how}_s": s for how, s in a.waits_s.items()},
            }  # fmt: skip
    for how, to_c in product(("bench", "ice_bath", "tray"), (60.0, 22.0, 10.0)):
        yield {"base": how, "mix_c": to_c, "waits_bench_s": cools_in_s(1500, 90, to_c, how)}
