"""Which cook a device is in: one rule, locked where a cook starts."""

from collections.abc import Iterable
from datetime import datetime, timedelta
from uuid import UUID

from django.db.models import Max, Q
from ninja.errors import HttpError

from batches.models import Batch
from bellcrumb.words import say
from devices.models import Device
from kitchen.models import Kitchen
from shared.now import now as clock_now

# A cook nobody ended is over after a day on its clock, or a probe left on would fill it for ever.
DAY = timedelta(hours=24)


def over_at(batch: Batch) -> datetime:
    """When a cook that nobody ends is over."""
    return batch.started_at + DAY / batch.time_scale


def _with(devices: Iterable[UUID]) -> Q:
    ids = list(devices)
    return Q(device__in=ids) | Q(scale__in=ids)


def cooks_of(devices: Iterable[UUID], now: datetime) -> dict[UUID, Batch]:
    """The cooks that devices are in now, by the device; one that nobody ended in a day is over."""
    found: dict[UUID, Batch] = {}
    rows = Batch.objects.filter(_with(devices), ended_at__isnull=True, started_at__gte=now - DAY)
    for batch in rows.defer("prediction").order_by("started_at"):
        if over_at(batch) > now:
            for device_id in (batch.device_id, batch.scale_id):
                if device_id:
                    found[device_id] = batch
    return found


def cook_of(device: Device) -> Batch | None:
    """The cook a device is in now, as its probe or its scale."""
    return cooks_of([device.pk], clock_now()).get(device.pk)


def cooks_between(device: Device, first: datetime, last: datetime) -> list[Batch]:
    """The cooks a device was in at some moment between two, the latest first."""
    rows = Batch.objects.filter(_with([device.pk]), started_at__lte=last)
    rows = rows.exclude(ended_at__lt=first).filter(started_at__gte=first - DAY)
    return list(rows.defer("prediction").order_by("-started_at"))


def cook_at(cooks: list[Batch], at: datetime) -> Batch | None:
    """The one of a device's cooks that something measured at a moment belongs to."""
    for batch in cooks:
        if batch.started_at <= at < over_at(batch) and not (batch.ended_at and batch.ended_at < at):
            return batch
    return None


def take(kitchen: Kitchen, device_id: UUID | None, kind: str, word: str) -> Device | None:
    """A device for a new cook, locked until the transaction ends.

    Raises HttpError 404 for one that is not there, 422 for one that is in another cook.
    """
    if device_id is None:
        return None
    device = (
        Device.objects.select_for_update().filter(kitchen=kitchen, pk=device_id, kind=kind).first()
    )
    if not device:
        raise HttpError(404, say("batches.this_is_not_in_the_kitchen", word=word))
    busy = cook_of(device)
    if busy:
        raise HttpError(
            422,
            say(
                "batches.is_in_another_pot_since_utc",
                device=device.name,
                started_at=f"{busy.started_at:%H:%M}",
                word=word,
            ),
        )
    _end_forgotten(device)
    return device


def _end_forgotten(device: Device) -> None:
    """End the cooks that nobody ended, at the last thing that is known of them."""
    for batch in Batch.objects.filter(_with([device.pk]), ended_at__isnull=True):
        last = batch.readings.aggregate(at=Max("at"))["at"] or batch.started_at
        Batch.objects.filter(pk=batch.pk).update(ended_at=min(max(last, batch.started_at),
                                                              over_at(batch)))  # fmt: skip
