"""The whole measured: a dessert answered, days planned, formulas judged, ovens learned."""

import math
import random
import re
import statistics
import time
from collections.abc import Callable
from importlib import import_module
from typing import Any

Row = Callable[..., None]


def dessert_and_day(row: Row, one: Row) -> None:
    """A dessert's answer, and days of 5 to 100 batches against the careful chef's plan."""
    from bellcrumb.day.aim import tally
    from bellcrumb.day.greedy import backwards
    from bellcrumb.day.solve import planned
    from bellcrumb.day.tasks import Day, KitchenOfDay, OvenOfDay, Person, Task, tasks_of
    from bellcrumb.dessert.steps import BuildStep, Gap

    tested: Any = import_module("tests.core.test_dessert")
    desserts = tested.DESSERTS
    found = []
    for make in list(desserts.values()) * 3:
        began = time.perf_counter()
        make()
        found.append((time.perf_counter() - began) * 1000)
    row("a dessert whole, in the core", found, aim="150 ms over HTTP")
    made = [
        [
            BuildStep(
                s["key"], s["part"], s["code"], words=s["words"], hands_min=s["hands_min"],
                wait_min=s["wait_min"], wait_low_min=s["wait_low_min"],
                wait_high_min=s["wait_high_min"], uses=tuple(s["uses"]), attention=s["attention"],
                oven_c=s["oven_c"], source=s["source"], after=tuple(Gap(**g) for g in s["after"]),
                holds=tuple(s["holds"]), spoils=s["spoils"], comes_hot=s["comes_hot"],
            )
            for s in make()["steps"]
        ]
        for make in desserts.values()
    ]  # fmt: skip
    spans = tuple((d * 1440 + 420, d * 1440 + 1260) for d in range(3))
    services = (11, 12, 13, 15, 16, 18, 19, 20)
    for batches in (5, 20, 40, 100):
        tasks: list[Task] = []
        for n in range(batches):
            by = 2880 + 60 * services[n % len(services)]
            tasks += tasks_of(n, f"{n}", made[n % len(made)], by, len(tasks))
        people = tuple(Person(f"cook {n}", spans) for n in range(max(3, batches // 8)))
        ovens = tuple(
            OvenOfDay(f"oven {n}", 3, 8, cools_k_min=3) for n in range(max(2, batches // 13))
        )
        day = Day(
            tuple(tasks), KitchenOfDay(people, 6, ovens, mixers=2, trays=60, blast=10), 2880 + 1260
        )
        began = time.perf_counter()
        chef = backwards(day)
        one(f"day of {batches}: first plan", (time.perf_counter() - began) * 1000, "ms", "300 ms")
        began = time.perf_counter()
        plan = planned(day)
        one(f"day of {batches}: final plan", (time.perf_counter() - began) * 1000, "ms", "2000 ms")
        lost = chef.count(None)
        one(f"day of {batches}: tasks without a place, chef's {lost}", 0.0 if plan else lost, "")
        if plan:
            one(f"day of {batches}: gap", 100 * plan.gap, "%")
        first = [place for place in chef if place is not None]
        if plan and len(first) == len(day.tasks):
            written, ours = tally(day, first), plan.tally
            for what, was, is_now in (
                ("early minutes", written.early_min, ours.early_min),
                ("minutes warm", written.warm_min, ours.warm_min),
                ("not chilled", written.slow, ours.slow),
                ("turns of an oven", written.turns, ours.turns),
                ("busiest", written.busiest_pct, ours.busiest_pct),
            ):
                one(f"day of {batches}: {what}, chef's {was}", float(is_now), "")
            one(f"day of {batches}: better than the chef's",
                100 * (1 - ours.cost / max(1, written.cost)), "%")  # fmt: skip


def formulas(one: Row) -> None:
    """The corpus of formulas: families, classes, warnings. Written by us; limits chosen on it."""
    tested: Any = import_module("tests.core.test_formulas")
    tested.FormulaCorpusTest.setUpClass()
    case = tested.FormulaCorpusTest()
    right, _ = case.share("class", lambda want, a: {a.set.klass, a.set.borderline} & {*want})
    one("formulas: class right, of our corpus", 100 * right, "%", "90 %")
    right, _ = case.share("family", lambda want, a: a.family.key in want)
    one("formulas: family right, of our corpus", 100 * right, "%", "90 %")
    ruined = [(r, a) for r, a in case.rows if r["cautions"]]
    caught = sum(r["cautions"] in {c.code for c in a.cautions} for r, a in ruined)
    one("formulas: spoiled ones warned of", 100 * caught / len(ruined), "%", "90 %")
    sound = [a for r, a in case.rows if not r["cautions"]]
    unsure = sum(bool(a.warnings) and not a.cautions for a in sound)
    one("formulas: said to lie outside", 100 * unsure / len(sound), "%", "")
    one("formulas: false alarms", 100 * sum(bool(a.cautions) for a in sound) / len(sound), "%",
        "2.5 %")  # fmt: skip


def learning(one: Row) -> None:
    """Error of the pull before learning an oven and after 3, 10 and 30 bakes, minutes."""
    from bellcrumb.book.learn import oven, oven_offset_k
    from bellcrumb.contract import compute

    tested: Any = import_module("tests.core.test_oven")

    def minutes(offset: float) -> float:
        out = compute("bake", {
            "mix": {"lines": tested.FLAN, "temp_c": 20}, "vessel": tested.RAMEKIN, "count": 6,
            "oven": {"set_c": 163, "offset_k": offset}, "bath": {"level": "half"},
        })  # fmt: skip
        return float(out["pull_from_min"] + out["pull_to_min"]) / 2

    rng = random.Random(4)
    guessed = minutes(0)
    truths = [(truth, minutes(truth)) for truth in (-15, -10, -5, 5, 10, 15)]
    one("pull of an unknown oven, off by", statistics.mean(abs(guessed - m) for _, m in truths),
        "min")  # fmt: skip
    for bakes in (3, 10, 30):
        errors = []
        for _, real in truths:
            seen = [oven_offset_k(163, 78, guessed, real + rng.gauss(0, 2)) for _ in range(bakes)]
            errors.append(abs(minutes(oven("static", seen).mean) - real))
        one(f"the same after {bakes} bakes", statistics.mean(errors), "min", "half by 10")
    _rings_and_sets(one, rng)
    _figures(one, rng)
    _losses(one, rng)


def _figures(one: Row, rng: random.Random) -> None:
    """A bake's pull in an oven that blows and vents otherwise than thought, before learning and
    after bakes with a probe in the air; each bake of another depth of error and noise."""
    from bellcrumb.book.learn import oven_figure, told_of
    from bellcrumb.contract import compute
    from bellcrumb.oven.figures import figures

    tested: Any = import_module("tests.core.test_oven_figures")

    def minutes(**known: float) -> float:
        out = compute("bake", tested.asked(**known))
        return float(out["pull_from_min"] + out["pull_to_min"]) / 2

    truths = ({"film": 0.7, "vent": 0.6}, {"film": 1.4, "vent": 1.0}, {"film": 1.0, "vent": 2.5},
              {"film": 1.2, "vent": 0.4})  # fmt: skip
    before, after = [], {1: [], 3: [], 6: []}  # type: ignore[var-annotated]
    for truth in truths:
        real = minutes(**truth)
        before.append(abs(minutes() - real))
        rows: dict[str, list[tuple[float, float]]] = {"film": [], "vent": []}
        for bakes in range(1, 7):
            found = figures(*tested.seen(rng, truth))
            for name, seen in rows.items():
                log, spread = math.log(getattr(found, name)), getattr(found, f"{name}_spread")
                told = told_of(name, log, spread)
                seen.extend([told] if told else [])
            if bakes in after:
                known = {name: oven_figure(name, seen).mean for name, seen in rows.items()}
                after[bakes].append(abs(minutes(**known) - real))
    one("pull in an oven that blows otherwise, off by", statistics.mean(before), "min")
    for bakes, errors in after.items():
        one(f"  after {bakes} bakes with a probe in the air", statistics.mean(errors), "min")


def _losses(one: Row, rng: random.Random) -> None:
    """Boils on a whole flame and heatings to 82 degC on half of it, on rings weak and in a draught,
    learned from heatings on whole flames: by power alone, and by power and loss."""
    from bellcrumb.book.heating import heating_s, loss_told, share_per_loss
    from bellcrumb.contract import compute
    from bellcrumb.heat.pot import MEDIUM_GAS, Cream, heat_to, pot_for

    cream, pot = Cream(1000, 3.9, 100.4, thickens_c=200.0), pot_for(1000)
    rated_w = MEDIUM_GAS.reaches_pot_w(0.8)

    def heating(
        share: float, loss: float, to_c: float = 98, noise_k: float = 0
    ) -> list[tuple[float, float]]:
        run = heat_to(cream, pot, "gas", rated_w * share, 6, to_c, 0, "whisk", loss_w_m2k=loss)
        until = run.reaches_s or run.curve[-1][0]
        return [(t, c + rng.gauss(0, noise_k)) for t, c in run.curve if t <= until][::6]

    books = heating(1, 0)
    found: dict[tuple[int, bool, float], list[float]] = {}
    for share, loss in ((s, u) for s in (0.8, 0.95, 1.1) for u in (0.0, 20.0, 40.0)):
        batches = []
        for _ in range(30):
            today = share * math.exp(rng.gauss(0, 0.05))
            curve = heating(today, loss, noise_k=0.1)
            told, timed = loss_told(curve, cream, pot, "gas"), heating_s(books, curve)
            batch = {"ring": "r", "boil_predicted_s": timed and timed[0],
                     "boil_took_s": timed and timed[1],
                     "share_per_loss": share_per_loss(curve, pot, rated_w)}  # fmt: skip
            if told:
                batch |= {"loss_seen_w_m2k": told.loss_w_m2k, "loss_spread_w_m2k": told.spread}
            batches.append(batch)
        for n in (3, 10, 30):
            for both in (False, True):
                asked = {"batches": batches[:n]} | ({} if both else {"losses_w_m2k": {"r": 0.0}})
                out = compute("learn", asked)
                lost = out["losses"][0]["mean"] if both and out["losses"] else 0.0
                power = out["rings"][0]["mean"]
                for flame, to_c in ((1.0, 98.0), (0.5, 82.0)):
                    real = heating(share * flame, loss, to_c)[-1][0]
                    off = abs(heating(power * flame, lost, to_c)[-1][0] / real - 1)
                    found.setdefault((n, both, flame), []).append(off)
    for (n, both, flame), offs in sorted(found.items()):
        by = "power and loss" if both else "power alone"
        what = "half the flame to 82 °C" if flame < 1 else "boil in a draught"
        one(f"  {what}, {n} batches, by {by}", 100 * statistics.mean(offs), "%")


def _rings_and_sets(one: Row, rng: random.Random) -> None:
    """A boil's time on a ring that is not its rating, and the set of a kitchen with its own palate,
    before learning and after 3, 10 and 30 batches. The noise is a probe's and a spoon's."""
    from bellcrumb.book.learn import SetSeen, ring, set_shifts
    from bellcrumb.contract.explains import judged_s
    from bellcrumb.texture.set_index import CLASSES, CUTS

    shares = [0.6 + 0.05 * n for n in range(13)]
    one("boil on an unknown ring, off by", 100 * statistics.mean(abs(1 / s - 1) for s in shares),
        "%")  # fmt: skip
    shifts = [-0.6 + 0.1 * n for n in range(13)]
    one("set of an unknown kitchen, off by", statistics.mean(map(abs, shifts)), "S")
    for batches in (3, 10, 30):
        boils, sets = [], []
        for share in shares:
            told = [share * math.exp(rng.gauss(0, 0.1)) for _ in range(batches)]
            boils.append(abs(share / ring(told).mean - 1))
        for shift in shifts:
            seen = []
            for _ in range(batches):
                index = rng.uniform(2.0, 6.5)
                felt = index + shift + rng.gauss(0, 0.3)
                judged = CLASSES[sum(felt >= cut for cut in CUTS)]
                seen.append(SetSeen("cream", {}, judged_s(judged) - index))
            sets.append(abs(set_shifts(seen)[0]["cream"].mean - shift))
        one(f"  after {batches} batches: boil", 100 * statistics.mean(boils), "%")
        one(f"  after {batches} batches: set", statistics.mean(sets), "S")


# A spoiled batch as a cook tells of it: how much of the evidence is known, and how often what is
# told of the real cause, and of the others, is so. Nothing of this is the table's own.
_KNOWN, _SO, _ALSO = 0.6, 0.8, 0.15
_TOLD_OF = {"t_set": 80.0, "t_curdle": 87.0, "crack_c": 75.0, "fold_min_c": 17.0,
            "hold_min_s": 60.0}  # fmt: skip


def planted(one: Row) -> None:
    """Each cause of the table planted in batches that tell of it: does it come first?"""
    from bellcrumb.book.causes import causes, rows

    rng = random.Random(13)
    first = second = cases = by_prior = 0
    for row in rows():
        if row.key == "other":
            continue
        rivals = [r for r in rows() if r.fault == row.fault]
        for _ in range(6):
            signals: dict[str, Any] = dict(_TOLD_OF)
            for each, so in ((row, _SO), *((r, _ALSO) for r in rivals if r is not row)):
                for evidence in each.evidence:
                    if rng.random() < _KNOWN:
                        _tell(evidence.kind, evidence.holds, rng.random() < so, signals)
            ranked = [c.key for c in causes(row.fault, signals)]
            cases += 1
            first += ranked[0] == row.key
            second += row.key in ranked[:2]
            by_prior += max(rivals, key=lambda r: r.prior).key == row.key
    one("causes planted", float(cases), "")
    one("planted cause comes first", 100 * first / cases, "%")
    one("planted cause is among the first two", 100 * second / cases, "%")
    one("first by the prior alone", 100 * by_prior / cases, "%")


def _tell(kind: str, says: str, so: bool, signals: dict[str, Any]) -> None:
    """Make a piece of evidence hold or not, where nothing was told of its signals before."""
    if kind == "look":
        signals.setdefault(says, so)
        return
    ways = re.split(r"\bor\b", says)
    for way in ways[:1] if so else ways:
        for each in re.split(r"\band\b", way):
            _make(each.strip(), so, signals)


def _make(said: str, so: bool, signals: dict[str, Any]) -> None:
    if said.startswith("not "):
        _make(said[4:].strip(), not so, signals)
        return
    parts = re.split(r"(>=|<=|=|<|>)", said, maxsplit=1)
    if len(parts) == 1:
        signals.setdefault(said, so)
        return
    left, sign, right = (p.strip() for p in parts)
    if not right.replace(".", "").isdigit() and sign == "=":
        signals.setdefault(left, right if so else "another")
        return
    at = 0.0
    for mark, token in re.findall(r"([+-]?)\s*([A-Za-z_][\w/]*|\d+(?:\.\d+)?)", right):
        name = f"{left}:{token}" if token.startswith(("window", "target", "next")) else token
        value = float(token) if token[0].isdigit() else signals.setdefault(name, 50.0)
        at += -float(value) if mark == "-" else float(value)
    above = (sign in (">", ">=")) == so
    signals.setdefault(left, at + (0.15 * abs(at) + 1 if above else -0.15 * abs(at) - 1))
