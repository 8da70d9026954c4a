"""Rehearsing: start an exercise, act, see what the pot does, and read what went wrong."""

from uuid import UUID

from django.db import IntegrityError, transaction
from django.db.models import Count, Q
from django.http import HttpRequest
from ninja import Router, Schema
from ninja.errors import HttpError
from pydantic import Field

from batches.shapes import Point
from bellcrumb.contract.open.cooking import Moment, Step
from bellcrumb.contract.open.rehearsing import (
    EXERCISES,
    HEATS,
    LADLES_G,
    LONGEST_S,
    Act,
    ActKind,
    Replay,
    Result,
    Slip,
    Stage,
    exercise,
    guide_step,
    replay,
)
from bellcrumb.words import say
from kitchen.access import member_of
from kitchen.models import Member
from rehearsals.models import Rehearsal
from shared.now import now as clock_now
from shared.shapes import PROBLEMS

router = Router(tags=["rehearsals"])
MOST_ACTS = 600


class ExerciseOut(Schema):
    """An exercise, and how somebody has done at it so far."""

    key: str
    level: int
    name: str
    stage: Stage
    task: str
    teaches: str
    tried: int
    done: int


class RehearsalIn(Schema):
    """Start an exercise; ``seed`` makes the same pot again."""

    id: UUID
    exercise: str = Field(max_length=20)
    seed: int = Field(default=1, ge=0, le=2_000_000_000)
    speed: int = Field(default=10, ge=1, le=60)


class ActIn(Schema):
    """Something done at ``at_s`` on the exercise's clock."""

    id: UUID
    at_s: float = Field(ge=0, le=LONGEST_S)
    kind: ActKind
    value: float = Field(default=0, ge=0, le=100_000)


class ActsIn(Schema):
    """Acts in the order they happened; the same id again counts once."""

    acts: list[ActIn] = Field(max_length=50)


class RehearsalOut(Schema):
    """A run: the pot as it stands and, when it is over, what came of it."""

    id: UUID
    exercise: str
    name: str
    stage: Stage
    task: str
    teaches: str
    seed: int
    speed: int
    can: list[ActKind]
    heats: int
    ladles_g: list[float]
    goal_c: list[float]
    step: Step
    now_s: float
    temp_c: float
    heat: int
    stirring: bool
    lifted: bool
    damage: dict[str, float]
    held_s: float
    poured_g: float
    to_pour_g: float
    colour: float
    water_g: float
    whites_s: float | None
    whipped_share: float
    disc_share: float | None
    looked_s: float | None
    figure_word: str
    moment: Moment
    curve: list[Point]
    acts: list[Act]
    slips: list[Slip]
    ended: bool
    result: Result | None
    says: list[str]


@router.get("/k/{kid}/rehearsals", response={200: list[ExerciseOut], **PROBLEMS})
def exercises(request: HttpRequest, kid: UUID) -> list[ExerciseOut]:
    """The exercises, easiest first, with my own tries."""
    member = member_of(request, kid)
    rows = (
        Rehearsal.objects.filter(kitchen=member.kitchen, user=member.user)
        .order_by()
        .values("exercise")
        .annotate(n=Count("id"), good=Count("id", filter=Q(result="good")))
    )
    tries = {row["exercise"]: (row["n"], row["good"]) for row in rows}
    return [
        ExerciseOut(
            key=e.key,
            level=e.level,
            name=e.name,
            stage=e.stage,
            task=e.task,
            teaches=e.teaches,
            tried=tries.get(e.key, (0, 0))[0],
            done=tries.get(e.key, (0, 0))[1],
        )
        for e in EXERCISES
    ]


def _run_of(member: Member, rehearsal_id: UUID) -> Rehearsal:
    found = Rehearsal.objects.filter(
        kitchen=member.kitchen, user=member.user, pk=rehearsal_id
    ).first()
    if not found:
        raise HttpError(404, say("rehearsals.this_rehearsal_is_not_yours_any"))
    return found


def _now_s(run: Rehearsal) -> float:
    if run.ended_at_s is not None:
        return run.ended_at_s
    return (clock_now() - run.started_at).total_seconds() * run.speed


def _acts(run: Rehearsal) -> list[Act]:
    return [Act(a["at_s"], a["kind"], a["value"]) for a in run.acts]


def _replayed(run: Rehearsal) -> Replay:
    return replay(exercise(run.exercise), run.seed, _acts(run), _now_s(run))


def _out(run: Rehearsal) -> RehearsalOut:
    ex = exercise(run.exercise)
    found = _replayed(run)
    if found.result and run.ended_at_s is None:
        run.ended_at_s, run.result = found.world.t_s, found.result
        # Two who look at once end it once, and one that was taken away meanwhile stays away.
        Rehearsal.objects.filter(pk=run.pk, ended_at_s=None).update(
            ended_at_s=run.ended_at_s, result=run.result
        )
    w = found.world
    stride = max(1, len(found.curve) // 500)
    points = [*found.curve[::stride], found.curve[-1]]
    return RehearsalOut.model_validate(
        {
            "id": run.id,
            "exercise": ex.key,
            "name": ex.name,
            "stage": ex.stage,
            "task": ex.task,
            "teaches": ex.teaches,
            "seed": run.seed,
            "speed": run.speed,
            "can": list(ex.acts),
            "heats": HEATS,
            "ladles_g": list(LADLES_G),
            "goal_c": list(ex.goal_c),
            "step": guide_step(ex.key),
            "now_s": w.t_s,
            "temp_c": w.temp_c,
            "heat": w.hands.heat,
            "stirring": w.hands.stirring,
            "lifted": w.hands.lifted,
            "damage": w.damage,
            "held_s": w.held_s,
            "poured_g": w.poured_g,
            "to_pour_g": ex.mix.mass_g - w.poured_g if ex.stage == "bowl" else 0,
            "colour": w.sugar.colour,
            "water_g": w.sugar.water_g,
            "whites_s": None if w.sugar.whites_s is None else w.t_s - w.sugar.whites_s,
            "whipped_share": min(1.3, w.whipped_s / 150),
            "disc_share": w.glimpse.disc_share if w.glimpse else None,
            "looked_s": w.t_s - w.glimpse.at_s if w.glimpse else None,
            "figure_word": found.figure_word,
            "moment": found.moment,
            "curve": [Point(t_s=t, temp_c=c) for t, c in points],
            "acts": _acts(run),
            "slips": found.slips,
            "ended": found.result is not None,
            "result": found.result,
            "says": found.says,
        }
    )


@router.post("/k/{kid}/rehearsals", response={200: RehearsalOut, **PROBLEMS})
def start(request: HttpRequest, kid: UUID, given: RehearsalIn) -> RehearsalOut:
    """Start an exercise. Sending it twice starts one. Everybody may rehearse."""
    member = member_of(request, kid)
    ex = exercise(given.exercise)
    if not Rehearsal.objects.filter(pk=given.id).exists():
        try:
            with transaction.atomic():
                Rehearsal.objects.create(
                    id=given.id,
                    kitchen=member.kitchen,
                    user=member.user,
                    exercise=ex.key,
                    seed=given.seed,
                    speed=given.speed,
                    started_at=clock_now(),
                )
        except IntegrityError:
            pass  # it arrived twice
    return _out(_run_of(member, given.id))


@router.get("/k/{kid}/rehearsals/{rehearsal_id}", response={200: RehearsalOut, **PROBLEMS})
def read(request: HttpRequest, kid: UUID, rehearsal_id: UUID) -> RehearsalOut:
    """The pot as it stands."""
    return _out(_run_of(member_of(request, kid), rehearsal_id))


@router.post("/k/{kid}/rehearsals/{rehearsal_id}/acts", response={200: RehearsalOut, **PROBLEMS})
def act(request: HttpRequest, kid: UUID, rehearsal_id: UUID, given: ActsIn) -> RehearsalOut:
    """Act. What arrives late is taken at its own time, never before what came earlier."""
    member = member_of(request, kid)
    with transaction.atomic():
        run = (
            Rehearsal.objects.select_for_update()
            .filter(kitchen=member.kitchen, user=member.user, pk=rehearsal_id)
            .first()
        )
        if not run:
            raise HttpError(404, say("rehearsals.this_rehearsal_is_not_yours_any"))
        known = {a["id"] for a in run.acts}
        now = _now_s(run)
        for one in given.acts:
            if str(one.id) in known or run.ended_at_s is not None or len(run.acts) >= MOST_ACTS:
                continue
            last = run.acts[-1]["at_s"] if run.acts else 0.0
            at = max(last, min(one.at_s, now))
            run.acts.append({"id": str(one.id), "at_s": at, "kind": one.kind, "value": one.value})
        run.save(update_fields=["acts"])
    return _out(run)
