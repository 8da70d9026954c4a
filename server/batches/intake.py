"""What a device sends, checked reading by reading."""

import math
from dataclasses import KW_ONLY, dataclass
from datetime import UTC, datetime, timedelta
from typing import Any
from uuid import UUID, uuid5

from django.db.models import QuerySet

from batches.clock import cook_ms, course_of, poured_g, raise_peak
from batches.holding import cook_at, cooks_between
from batches.models import Batch, Event, Reading, Weight
from bellcrumb.words import say
from devices.models import Device

FUTURE = timedelta(seconds=30)
LOW_C, HIGH_C = -40.0, 300.0
MOST_G = 60_000.0
CHANNELS = (1, 2, 3, 4)
OLDEST = timedelta(days=366)


@dataclass(frozen=True)
class Sent:
    """One reading as a device sends it: a temperature on a channel, or grams."""

    id: UUID
    at: datetime
    temp_c: float | None
    _: KW_ONLY
    channel: int
    grams: float | None


def _number(value: object) -> float | None:
    if isinstance(value, bool) or not isinstance(value, int | float):
        return None
    try:
        number = float(value)
    except OverflowError:
        return None
    return number if math.isfinite(number) else None


def _channel(value: object) -> int | None:
    whole = isinstance(value, int) and not isinstance(value, bool)
    return value if whole and value in CHANNELS else None


def _wrong(item: dict[str, object], at: datetime | None, now: datetime) -> str | None:
    """Why a reading cannot be taken, in a sentence, or None."""
    grams, temp = _number(item.get("grams")), _number(item.get("temp_c"))
    if "grams" in item:
        if grams is None:
            return say("batches.this_is_no_weight")
        if not -MOST_G <= grams <= MOST_G:
            return say("batches.g_is_outside_what_a_scale", grams=grams)
    else:
        if temp is None:
            return say("batches.this_is_no_temperature")
        if not LOW_C <= temp <= HIGH_C:
            return say("batches.c_is_outside_what_a_probe", temp=temp)
        if _channel(item.get("channel", 1)) is None:
            return say("batches.a_probe_has_channels_1_to")
    if at is None:
        return say("batches.this_is_no_time_send_iso")
    if at.tzinfo is None:
        return say("batches.the_time_has_no_zone_send")
    if at > now + FUTURE:
        return say("batches.this_reading_comes_from_the_future")
    if at < now - OLDEST:
        return say("batches.this_reading_is_more_than_a")
    return None


def read_item(item: object, now: datetime) -> tuple[Sent | None, str | None]:
    """One item of a post as a reading, or what is wrong with it in a sentence."""
    if not isinstance(item, dict):
        return None, say("batches.this_is_no_reading")
    try:
        reading_id = UUID(str(item.get("id")))
    except ValueError:
        return None, say("batches.a_reading_needs_an_id_a")
    try:
        at = datetime.fromisoformat(str(item.get("at"))[:40])
        at = at.astimezone(UTC) if at.tzinfo else at
    except (ValueError, OverflowError):
        at = None
    wrong = _wrong(item, at, now)
    if wrong or at is None:
        return None, wrong
    grams, temp = _number(item.get("grams")), _number(item.get("temp_c"))
    channel = _channel(item.get("channel", 1)) or 1
    return Sent(reading_id, at, temp, channel=channel, grams=grams), None


@dataclass
class Kept:
    """What became of a post's readings: kept now, there already, or on no cook."""

    kept: int = 0
    already_there: int = 0
    on_no_cook: int = 0


def store(device: Device, sent: list[Sent]) -> Kept:
    """Keep readings in bulk, each in the cook it was taken in. Idempotent by their ids."""
    found = Kept()
    if not sent:
        return found
    cooks = cooks_between(device, min(s.at for s in sent), max(s.at for s in sent))
    homes = [(s, batch) for s in sent if (batch := cook_at(cooks, s.at))]
    found.on_no_cook = len(sent) - len(homes)
    weights = [(s, b) for s, b in homes if s.grams is not None]
    temps = [(s, b) for s, b in homes if s.grams is None]
    new = _new(weights, Weight.objects.all())
    Weight.objects.bulk_create([_weight(b, s) for s, b in new], ignore_conflicts=True)
    for batch in {b.pk: b for _, b in new}.values():
        _climb(batch)
    found.kept += len(new)
    new = _new(temps, Reading.objects.all())
    rows = [_reading(device, b, s) for s, b in new]
    Reading.objects.bulk_create(rows, ignore_conflicts=True)
    for batch in {b.pk: b for _, b in new}.values():
        tops = [r.temp_cc for r in rows if r.batch_id == batch.pk and r.channel == 1]
        raise_peak(batch, max(tops, default=None))
    found.kept += len(new)
    found.already_there = len(homes) - found.kept
    return found


def _new(pairs: list[tuple[Sent, Batch]], rows: QuerySet[Any]) -> list[tuple[Sent, Batch]]:
    """Those that are not there yet, each once."""
    ids = {s.id for s, _ in pairs}
    there = (
        set(rows.filter(client_id__in=ids).values_list("client_id", flat=True)) if ids else set()
    )
    return list({s.id: (s, b) for s, b in pairs if s.id not in there}.values())


def _weight(batch: Batch, sent: Sent) -> Weight:
    return Weight(
        batch=batch, client_id=sent.id, cook_ms=cook_ms(batch, sent.at),
        dg=round((sent.grams or 0.0) * 10),
    )  # fmt: skip


def _reading(device: Device, batch: Batch, sent: Sent) -> Reading:
    return Reading(
        batch=batch, device=device, client_id=sent.id, at=sent.at, cook_ms=cook_ms(batch, sent.at),
        temp_cc=round((sent.temp_c or 0.0) * 100), channel=sent.channel,
    )  # fmt: skip


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
