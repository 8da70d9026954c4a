"""Six weeks of Weir House in the book: the same every time, made by the same physics.

The house has a deck oven that is cooler than is written down and whose air hardly moves, a back
ring that has grown weak and stands in a draught, pots that boil more away, creams that come out
softer than the books', and people who err: a hold cut short, a bake forgotten."""

import random
import uuid
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import KW_ONLY, dataclass
from datetime import UTC, datetime, timedelta

import numpy as np

from batches.bakes import AIR_CHANNEL, BATH_CHANNEL
from batches.models import Batch, Event, Reading, Verdict
from batches.teaching import by_the_books, relearn, tell_oven, tell_ring
from bellcrumb.contract.explains import judged_s
from bellcrumb.contract.open.cooking import Observations
from bellcrumb.contract.open.food import CLASSES, set_by
from bellcrumb.errors import CraftError
from bellcrumb.shapes.explain import BatchSeen
from bellcrumb.shapes.formula import FormulaOut
from bellcrumb.shapes.oven import BakeOut
from devices.models import Device
from formulas.bake_plan import bake_plan_of
from formulas.content import content_of, formula_of
from formulas.guide_shapes import PlanOut
from formulas.models import Version
from formulas.oven import bake_of, figures_of, oven_of
from formulas.stove import plan_of
from kitchen.models import Kitchen, Lesson, Oven

BATCHES, WEEKS, DESSERTS = 96, 6, 12
# The truth nobody has written down: the ring, its loss (W/m2K), the oven, its film, set and steam.
RING, LOSS_W_M2K, OVEN_K, FILM, SOFTER_S, BOILS_OFF = 0.86, 25.0, -6.0, 0.75, -0.4, 1.4
_AIR_EVERY = 19  # bakes: how often somebody also hangs a probe in the air and one in the water
_SPOON_S = 0.25  # how well a class is felt
_IN_S = 60.0  # when a bake goes in, on the clock of its cook
_BAKED_EVERY_S = 20.0
_EVERY_S = 12.0  # a reading so often: enough for a curve, few enough for a start
_WEIGHED = 0.6  # how often somebody puts what came out on the scale
_SHORT, _FORGOT = 0.15, 0.12  # how often a hold is cut short, a bake forgotten


@dataclass(frozen=True)
class _Line:
    """A dessert that is made again and again: as predicted by the books, and as it truly goes on
    its ring or in its oven; ``known_mid_min`` is when a bake is predicted to be done once it is
    known how its oven blows."""

    version: Version
    plan: PlanOut
    formula: FormulaOut
    _: KW_ONLY
    set_by: dict[str, float]
    true: PlanOut | None = None
    oven: Oven | None = None
    baked: BakeOut | None = None
    known_mid_min: float = 0.0


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
    baked = 0
    for n in range(BATCHES):
        line = lines[n % len(lines)]
        cook = people[noise.randrange(len(people))]
        began = first + timedelta(hours=round(n * WEEKS * 7 * 24 / BATCHES), minutes=7 * (n % 8))
        made = _bake(line, noise, baked) if line.oven else _cook(line, noise)
        baked += line.oven is not None
        batch = Batch(
            kitchen=kitchen, version=line.version, cook=cook, cook_name=cook.name, device=probe,
            started_at=began, ended_at=began + timedelta(seconds=made.end_s),
            predicted_class=line.formula.set.class_ if line.formula.set else "",
            prediction={"plan": line.plan.model_dump(mode="json"),
                        "formula": line.formula.model_dump(mode="json", by_alias=True)},
            peak_cc=round(100 * max(c for _, c in made.curves[1])),
            taught=made.taught.model_dump(mode="json"),
        )  # fmt: skip
        batches.append(batch)
        events += [
            Event(id=_id(noise), batch=batch, kind="step", step=key,
                  cook_ms=round(1000 * at), by=cook)
            for key, at in made.steps
        ]  # fmt: skip
        readings += [
            Reading(batch=batch, device=probe, client_id=_id(noise), channel=channel,
                    at=began + timedelta(seconds=at), cook_ms=round(1000 * at),
                    temp_cc=round(100 * c))
            for channel, curve in made.curves.items() for at, c in curve
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
            plan = plan_of(kitchen, content, kind)
        except CraftError:
            return _bake_line(kitchen, version, formula, by)
    except CraftError:
        return None
    with _known(kitchen, plan.ring, ring=RING, loss=LOSS_W_M2K):
        return _Line(version, plan, formula, set_by=by, true=plan_of(kitchen, content, kind))


def _bake_line(
    kitchen: Kitchen, version: Version, formula: FormulaOut, by: dict[str, float]
) -> _Line:
    content, kind = content_of(version), version.part.kind
    plan, oven = bake_plan_of(kitchen, content, kind), oven_of(kitchen, content.baking)
    with _known(kitchen, oven.name, film=FILM):
        known = bake_of(kitchen, content, kind, frames=False).found
    with _known(kitchen, oven.name, film=FILM, oven=OVEN_K):
        true = bake_of(kitchen, content, kind, frames=False).found
    return _Line(
        version,
        plan,
        formula,
        set_by=by,
        true=None,
        oven=oven,
        baked=true,
        known_mid_min=known.pull_min or _mid_min(plan),
    )


@contextmanager
def _known(kitchen: Kitchen, name: str, **values: float) -> Iterator[None]:
    """As if somebody had put what is so in by hand."""
    rows = [
        Lesson(kitchen=kitchen, kind=kind, name=name, mean=value, sd=0, by_hand=value)
        for kind, value in values.items()
    ]
    kept = list(Lesson.objects.filter(kitchen=kitchen, name=name))
    Lesson.objects.filter(kitchen=kitchen, name=name).delete()
    Lesson.objects.bulk_create(rows)
    try:
        yield
    finally:
        Lesson.objects.filter(kitchen=kitchen, name=name).delete()
        Lesson.objects.bulk_create(kept)


def _mid_min(plan: PlanOut) -> float:
    bake = next(s for s in plan.steps if s.kind == "bake")
    return ((bake.from_s or 0) + (bake.to_s or 0)) / 120


@dataclass(frozen=True)
class _Made:
    """What came of a batch: steps entered, the curves by channel (s, degC), the verdict, what it
    teaches."""

    steps: list[tuple[str, float]]
    curves: dict[int, list[tuple[float, float]]]
    end_s: float
    _: KW_ONLY
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
    plan, true, pace = line.plan, line.true or line.plan, noise.uniform(0.97, 1.03)
    short = noise.random() < _SHORT
    keys = [s.key for s in plan.steps]
    steps, curve, heating, at = [], [], [], 30.0
    for key, predicted in (("heat", true.heat), ("cook", true.cook)):
        if predicted is None or key not in keys:
            continue
        steps.append((key, at))
        points = [(p.t_s / pace, p.temp_c) for p in predicted.points]
        hold = next((s.hold_s for s in plan.steps if s.key == key), 0)
        end = points[-1][0] - (0.7 * hold if short else 0.0)
        last = -_EVERY_S
        for t, c in points:
            if t <= end and t - last >= _EVERY_S:
                curve.append((at + t, _read(c, noise)))
                last = t
        if key == "heat":
            heating = [(t - at, c) for t, c in curve]
        at += end + 20
    texture, taught = _felt(line, noise, -0.9 if short else 0.0)
    tell_ring(taught, plan, heating)
    faults = ["thinned_overnight"] if short and line.plan.egg_from else []
    note = "Off the ring at the first plop." if short else ""
    weighs = None
    if plan.boils_off_g and noise.random() < _WEIGHED:
        gone = plan.boils_off_g * BOILS_OFF * noise.uniform(0.75, 1.25)
        weighs = float(round(plan.went_in_g - gone))
        taught.pot, taught.off_predicted_g = plan.pot_name, plan.boils_off_g
        taught.off_g = plan.went_in_g - weighs
    return _Made(
        steps, {1: curve or [(30.0, 20.0)]}, at + 120, texture=texture, faults=faults, note=note,
        taught=taught, weighs_g=weighs
    )  # fmt: skip


def _bake(line: _Line, noise: random.Random, nth: int) -> _Made:
    """In the oven as it really is; pulled by the wobble, or forgotten. Each nineteenth bake has a
    probe in the air and one in the water; from the first of them on it is known how the oven
    blows."""
    assert line.oven is not None and line.baked is not None
    true, true_mid = line.baked.curve, line.baked.pull_min or _mid_min(line.plan)
    forgot = noise.random() < _FORGOT
    took = true_mid + (noise.uniform(12, 20) if forgot else noise.gauss(0, 1.5))
    bake = next(s for s in line.plan.steps if s.kind == "bake")
    curves = {1: _sampled([(p.t_min, p.centre_c) for p in true], took, noise)}
    texture, taught = _felt(line, noise, 0.3 if forgot else 0.0)
    content = content_of(line.version)
    taught.oven, taught.oven_kind = line.oven.name, "fan" if line.oven.kind == "fan" else "static"
    taught.dial_c = float(content.baking.set_c)
    taught.bake_predicted_min = line.known_mid_min if nth else _mid_min(line.plan)
    taught.bake_took_min = None if forgot else took  # pulled by no sign: it tells nothing
    if nth % _AIR_EVERY == 0:
        curves[AIR_CHANNEL] = _sampled([(p.t_min, p.oven_c) for p in true], took, noise)
        water = [(p.t_min, p.bath_c) for p in true if p.bath_c is not None]
        if water:
            curves[BATH_CHANNEL] = _sampled(water, took, noise)
        inside = {n: [(t - _IN_S, c) for t, c in curve] for n, curve in curves.items()}
        tell_oven(taught, line.oven, figures_of(
            line.oven.kitchen, content, line.version.part.kind,
            Observations(inside[1], [], inside[AIR_CHANNEL], bath=inside.get(BATH_CHANNEL, [])),
        ))  # fmt: skip
    return _Made(
        [(bake.key, _IN_S), ("out", _IN_S + 60 * took)], curves, 60 * took + 900, texture=texture,
        faults=["weeping"] if forgot else [], note="Forgotten while plating." if forgot else "",
        taught=taught,
    )  # fmt: skip


def _sampled(
    points: list[tuple[float, float]], took_min: float, noise: random.Random
) -> list[tuple[float, float]]:
    """A curve of (min, degC) as a probe reads it, (s, degC) from when it went in."""
    if not points:
        return [(_IN_S, 20.0)]
    at, temps = zip(*points, strict=True)
    times = np.arange(0.0, 60 * min(at[-1], took_min), _BAKED_EVERY_S)
    curve = np.interp(times / 60, at, temps)
    read = zip(times.tolist(), curve.tolist(), strict=True)
    return [(_IN_S + t, _read(c, noise)) for t, c in read]


def _read(temp_c: float, noise: random.Random) -> float:
    return temp_c + noise.gauss(0, 0.1)
