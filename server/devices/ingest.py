"""What a device sends, checked reading by reading."""

import math
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from uuid import UUID, uuid5

from django.db import IntegrityError, transaction
from django.db.models import Q

from batches.clock import cook_ms, course_of, poured_g
from batches.models import Batch, Event, Reading, Weight
from devices.models import Device

FUTURE = timedelta(seconds=30)
LOW_C, HIGH_C = -40.0, 300.0
MOST_G = 60_000.0
CHANNELS = (1, 2, 3, 4)
FORGOTTEN_MS = 24 * 3600 * 1000


@dataclass(frozen=True)
class Sent:
    """One reading as a device sends it: a temperature on a channel, or grams."""

    id: UUID
    at: datetime
    temp_c: float | None
    channel: int
    grams: float | None


def cook_of(device: Device) -> Batch | None:
    """The cook a device is in now, as its probe or its scale."""
    mine = Q(device=device) | Q(scale=device)
    return _going_on(Batch.objects.filter(mine, ended_at__isnull=True).first(), datetime.now(UTC))


def _going_on(batch: Batch | None, at: datetime) -> Batch | None:
    """A cook nobody ended is over a day after its start, or a probe left on would fill it."""
    return batch if batch and cook_ms(batch, at) < FORGOTTEN_MS else None


def batch_for(device: Device, at: datetime) -> Batch | None:
    """The cook a reading taken at ``at`` belongs to: also one that has ended since."""
    batch = (
        Batch.objects.filter(Q(device=device) | Q(scale=device), started_at__lte=at)
        .exclude(ended_at__lt=at)
        .order_by("-started_at")
        .first()
    )
    return _going_on(batch, at)


def _number(value: object) -> float | None:
    if isinstance(value, bool) or not isinstance(value, int | float) or not math.isfinite(value):
        return None
    return float(value)


def _wrong(item: dict[str, object], at: datetime | None, now: datetime) -> str | None:
    """Why a reading cannot be taken, in a sentence, or None."""
    grams, temp = _number(item.get("grams")), _number(item.get("temp_c"))
    if "grams" in item:
        if grams is None:
            return "This is no weight."
        if not -MOST_G <= grams <= MOST_G:
            return f"{grams:g} g is outside what a scale can weigh."
    else:
        if temp is None:
            return "This is no temperature."
        if not LOW_C <= temp <= HIGH_C:
            return f"{temp:g} °C is outside what a probe can read."
        if item.get("channel", 1) not in CHANNELS:
            return "A probe has channels 1 to 4."
    if at is None:
        return "This is no time. Send ISO 8601 with a zone."
    if at.tzinfo is None:
        return "The time has no zone. Send ISO 8601 with a zone."
    if at > now + FUTURE:
        return "This reading comes from the future. Set the device's clock."
    return None


def read_item(item: object, now: datetime) -> tuple[Sent | None, str | None]:
    """One item of a post as a reading, or what is wrong with it in a sentence."""
    if not isinstance(item, dict):
        return None, "This is no reading."
    try:
        reading_id = UUID(str(item.get("id")))
    except ValueError:
        return None, "A reading needs an id (a UUID made by the device)."
    try:
        at = datetime.fromisoformat(str(item.get("at")))
    except ValueError:
        at = None
    wrong = _wrong(item, at, now)
    if wrong or at is None:
        return None, wrong
    grams, temp = _number(item.get("grams")), _number(item.get("temp_c"))
    return Sent(reading_id, at.astimezone(UTC), temp, int(item.get("channel", 1)), grams), None


def store(device: Device, batch: Batch, sent: Sent) -> bool:
    """Keep a reading; False when it is already there. Idempotent by its id."""
    try:
        with transaction.atomic():
            if sent.grams is not None:
                Weight.objects.create(
                    batch=batch,
                    client_id=sent.id,
                    cook_ms=cook_ms(batch, sent.at),
                    dg=round(sent.grams * 10),
                )
            else:
                Reading.objects.create(
                    batch=batch,
                    device=device,
                    client_id=sent.id,
                    at=sent.at,
                    cook_ms=cook_ms(batch, sent.at),
                    temp_cc=round((sent.temp_c or 0.0) * 100),
                    channel=sent.channel,
                )
    except IntegrityError:
        return False
    if sent.grams is not None:
        _climb(batch)
    return True


def _climb(batch: Batch) -> None:
    """Fill the ladder by weight: a rung is up when its grams are in the bowl, to a tenth of it."""
    course = course_of(batch)
    ladder = course.plan.ladder
    if course.current != "temper" or ladder is None:
        return
    poured = poured_g(batch, course)
    if poured is None:
        return
    each = ladder.rungs[0].added_g
    up = sum(r.added_g <= poured + 0.1 * each for r in ladder.rungs)
    for rung in range(course.rungs + 1, up + 1):
        Event.objects.get_or_create(
            id=uuid5(batch.id, f"rung {rung} by weight"),
            defaults={
                "batch": batch,
                "kind": "ladle",
                "step": "temper",
                "cook_ms": round(course.now_s * 1000),
                "value": rung,
            },
        )
