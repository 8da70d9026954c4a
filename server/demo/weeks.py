"""Six weeks of Weir House in the book: the same every time, made by the same physics.

The house has a deck oven cooler than it is written down, a back ring that has grown weak, pots that
boil more away, creams that come out softer than the books', and people who err: a hold cut short, a
bake forgotten."""

import random
import uuid
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta

from batches.models import Batch, Event, Reading, Verdict
from batches.teaching import by_the_books, relearn
from bellcrumb.contract.explains import judged_s
from bellcrumb.contract.shapes.explain import BatchSeen
from bellcrumb.contract.shapes.formula import FormulaOut
from bellcrumb.errors import CraftError
from bellcrumb.texture.set_by import set_by
from bellcrumb.texture.set_index import CLASSES
from devices.models import Device
from formulas.bake_plan import bake_plan_of
from formulas.content import content_of, formula_of
from formulas.guide_shapes import PlanOut
from formulas.models import Version
from formulas.oven import oven_of
from formulas.stove import plan_of
from kitchen.models import Kitchen, Oven

BATCHES, WEEKS, DESSERTS = 96, 6, 12
RING, OVEN_K, SOFTER_S, BOILS_OFF = 0.86, -6.0, -0.4, 1.4  # the truth nobody has written down
_SPOON_S = 0.25  # how well a class is felt
_EVERY_S = 12.0  # a reading so often: enough for a curve, few enough for a start
_WEIGHED = 0.6  # how often somebody puts what came out on the scale
_SHORT, _FORGOT = 0.15, 0.12  # how often a hold is cut short, a bake forgotten


@dataclass(frozen=True)
class _Line:
    """A dessert that is made again and again: as predicted, and when a bake is truly done."""

    version: Version
    plan: PlanOut
    formula: FormulaOut
    true_mid_min: float | None
    oven: Oven | None
    set_by: dict[str, float]


def load_weeks(kitchen: Kitchen, now: datetime | None = None) -> int:
    """Fill the book of the demo kitchen; returns how many batches were made."""
    noise = random.Random(1906)
    lines = _lines(kitchen)
    probe = Device.objects.filter(kitchen=kitchen, kind="probe").first()
    members = kitchen.members.select_related("user").exclude(role="viewer").order_by("user__email")
    people = [member.user for member in members]
    first = (now or datetime.now(UTC)).replace(minute=0, second=0, microsecond=0)
    first -= timedelta(weeks=WEEKS, days=1)
    batches: list[Batch] = []
    events: list[Event] = []
    readings: list[Reading] = []
    verdicts: list[Verdict] = []
    for n in range(BATCHES):
        line = lines[n % len(lines)]
        cook = people[noise.randrange(len(people))]
        began = first + timedelta(hours=round(n * WEEKS * 7 * 24 / BATCHES), minutes=7 * (n % 8))
        made = _bake(line, noise) if line.true_mid_min else _cook(line, noise)
        batch = Batch(
            kitchen=kitchen, version=line.version, cook=cook, cook_name=cook.name, device=probe,
            started_at=began, ended_at=began + timedelta(seconds=made.end_s),
            predicted_class=line.formula.set.class_ if line.formula.set else "",
            prediction={"plan": line.plan.model_dump(mode="json"),
                        "formula": line.formula.model_dump(mode="json", by_alias=True)},
            peak_cc=round(100 * max(c for _, c in made.curve)),
            taught=made.taught.model_dump(mode="json"),
        )  # fmt: skip
        batches.append(batch)
        events += [
            Event(id=_id(noise), batch=batch, kind="step", step=key,
                  cook_ms=round(1000 * at), by=cook)
            for key, at in made.steps
        ]  # fmt: skip
        readings += [
            Reading(batch=batch, device=probe, client_id=_id(noise),
                    at=began + timedelta(seconds=at), cook_ms=round(1000 * at),
                    temp_cc=round(100 * (c + noise.gauss(0, 0.1))))
            for at, c in made.curve
        ]  # fmt: skip
        verdicts.append(
            Verdict(
                batch=batch,
                texture=made.texture,
                faults=made.faults,
                note=made.note,
                weighs_g=made.weighs_g,
                by=cook,
            )
        )
    Batch.objects.bulk_create(batches, batch_size=12)
    Event.objects.bulk_create(events)
    Reading.objects.bulk_create(readings, batch_size=2000)
    Verdict.objects.bulk_create(verdicts)
    for line in lines:
        Version.objects.filter(pk=line.version.pk, cooked_at__isnull=True).update(cooked_at=first)
    relearn(kitchen)
    return len(batches)


def _id(noise: random.Random) -> uuid.UUID:
    return uuid.UUID(int=noise.getrandbits(128), version=4)


def _lines(kitchen: Kitchen) -> list[_Line]:
    """The first twelve desserts of which a part is cooked or baked, each by its newest version."""
    found: dict[uuid.UUID, _Line] = {}
    newest = Version.objects.filter(part__dessert__kitchen=kitchen).select_related("part__dessert")
    for version in newest.order_by("part__dessert__created_at", "part__position", "-number"):
        if version.part.dessert_id in found or version.part.kind not in ("filling", "cream"):
            continue
        line = _line(kitchen, version)
        if line is not None:
            found[version.part.dessert_id] = line
        if len(found) == DESSERTS:
            break
    return list(found.values())


def _line(kitchen: Kitchen, version: Version) -> _Line | None:
    content = content_of(version)
    kind = version.part.kind
    try:
        formula = formula_of(kitchen, content, kind)
        books = by_the_books(kitchen, content)
        by = set_by(books.mix, books.style)
        try:
            return _Line(version, plan_of(kitchen, content, kind), formula, None, None, by)
        except CraftError:
            plan = bake_plan_of(kitchen, content, kind)
    except CraftError:
        return None
    oven = oven_of(kitchen, content.baking)
    return _Line(version, plan, formula, _true_mid_min(kitchen, version, plan, oven), oven, by)


def _true_mid_min(kitchen: Kitchen, version: Version, plan: PlanOut, oven: Oven) -> float:
    """The middle of the window in the oven as it really is."""
    if oven.kind != "static":
        return _mid_min(plan)
    known = oven.dial_error_k
    Oven.objects.filter(pk=oven.pk).update(dial_error_k=float(known) + OVEN_K)
    try:
        return _mid_min(bake_plan_of(kitchen, content_of(version), version.part.kind))
    finally:
        Oven.objects.filter(pk=oven.pk).update(dial_error_k=known)


def _mid_min(plan: PlanOut) -> float:
    bake = next(s for s in plan.steps if s.kind == "bake")
    return ((bake.from_s or 0) + (bake.to_s or 0)) / 120


@dataclass(frozen=True)
class _Made:
    """What came of a batch: steps entered, the curve (s, degC), the verdict, what it teaches."""

    steps: list[tuple[str, float]]
    curve: list[tuple[float, float]]
    end_s: float
    texture: str
    faults: list[str]
    note: str
    taught: BatchSeen
    weighs_g: float | None = None


def _felt(line: _Line, noise: random.Random, off: float) -> tuple[str, BatchSeen]:
    """The class as it is judged, and the start of what it teaches."""
    index = line.formula.set.index if line.formula.set else 3.0
    true = index + SOFTER_S + off + noise.gauss(0, _SPOON_S)
    texture = min(CLASSES, key=lambda klass: abs(judged_s(klass) - true))
    family = line.formula.family.name if line.formula.family else None
    return texture, BatchSeen(
        family=family, predicted_index=max(0.0, index), set_by=line.set_by, judged=texture
    )


def _cook(line: _Line, noise: random.Random) -> _Made:
    """At the stove: the ring weaker than its rating, the hold sometimes cut short."""
    plan, pace = line.plan, RING * noise.uniform(0.97, 1.03)
    short = noise.random() < _SHORT
    keys = [s.key for s in plan.steps]
    steps, curve, at = [], [], 30.0
    for key, predicted in (("heat", plan.heat), ("cook", plan.cook)):
        if predicted is None or key not in keys:
            continue
        steps.append((key, at))
        points = [(p.t_s / pace, p.temp_c) for p in predicted.points]
        hold = next((s.hold_s for s in plan.steps if s.key == key), 0)
        end = points[-1][0] - (0.7 * hold if short else 0.0)
        last = -_EVERY_S
        for t, c in points:
            if t <= end and t - last >= _EVERY_S:
                curve.append((at + t, c))
                last = t
        at += end + 20
    texture, taught = _felt(line, noise, -0.9 if short else 0.0)
    heat = plan.heat.reaches_s if plan.heat else None
    if heat and heat > 90:
        taught.ring, taught.boil_predicted_s, taught.boil_took_s = plan.ring, heat, heat / pace
    faults = ["thinned_overnight"] if short and line.plan.egg_from else []
    note = "Off the ring at the first plop." if short else ""
    weighs = None
    if plan.boils_off_g and noise.random() < _WEIGHED:
        gone = plan.boils_off_g * BOILS_OFF * noise.uniform(0.75, 1.25)
        weighs = float(round(plan.went_in_g - gone))
        taught.pot, taught.off_predicted_g = plan.pot_name, plan.boils_off_g
        taught.off_g = plan.went_in_g - weighs
    return _Made(
        steps, curve or [(30.0, 20.0)], at + 120, texture, faults, note, taught, weighs
    )  # fmt: skip


def _bake(line: _Line, noise: random.Random) -> _Made:
    """In the oven as it really is; pulled by the wobble, or forgotten."""
    assert line.true_mid_min is not None and line.oven is not None
    forgot = noise.random() < _FORGOT
    took = line.true_mid_min + (noise.uniform(12, 20) if forgot else noise.gauss(0, 1.5))
    bake = next(s for s in line.plan.steps if s.kind == "bake")
    predicted = line.plan.cook.points if line.plan.cook else []
    stretch = line.true_mid_min / _mid_min(line.plan)
    curve = [(60 + p.t_s * stretch, p.temp_c) for p in predicted if p.t_s * stretch <= 60 * took]
    every = max(1, len(curve) // 60)
    texture, taught = _felt(line, noise, 0.3 if forgot else 0.0)
    taught.oven, taught.oven_kind = line.oven.name, "fan" if line.oven.kind == "fan" else "static"
    taught.dial_c = float(content_of(line.version).baking.set_c)
    taught.bake_predicted_min, taught.bake_took_min = _mid_min(line.plan), took
    if forgot:
        taught.bake_took_min = None  # nobody pulled it by its sign: it tells nothing of the oven
    return _Made(
        [(bake.key, 60.0), ("out", 60.0 + 60 * took)], curve[::every] or [(60.0, 20.0)],
        60 * took + 900, texture, ["weeping"] if forgot else [],
        "Forgotten while plating." if forgot else "", taught,
    )  # fmt: skip
