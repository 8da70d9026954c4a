"""Devices: registered by people, sending through one door by token."""

import json
from datetime import datetime
from typing import Any, Literal
from uuid import UUID

from django.db import IntegrityError, transaction
from django.http import HttpRequest
from ninja import Router, Schema
from ninja.errors import HttpError
from pydantic import Field

from batches.clock import course_of
from batches.holding import cook_of, cooks_of
from batches.intake import Sent, read_item, store
from bellcrumb.contract.open.cooking import Rung, Step
from bellcrumb.words import say
from devices.models import Device
from devices.token import DeviceThrottle, Token
from formulas.guide_shapes import Scene
from kitchen.access import member_of
from shared.now import now as clock_now
from shared.shapes import PROBLEMS

router = Router(tags=["devices"])
MOST_BYTES = 64 * 1024
MOST_READINGS = 500


door = Router(tags=["device"], auth=Token(), throttle=[DeviceThrottle("360/m")])


class DeviceOut(Schema):
    """A device as its kitchen sees it."""

    id: UUID
    name: str
    kind: str
    simulated: bool
    last_seen_at: datetime | None
    busy: bool
    refused: str
    refused_at: datetime | None


class DeviceIn(Schema):
    """A device to register; ``id`` is made by the client."""

    id: UUID
    name: str = Field(min_length=1, max_length=60)
    kind: Literal["probe", "scale"] = "probe"
    simulated: bool = False


class DeviceAdded(DeviceOut):
    """A device just registered: the only time its token is shown."""

    token: str | None


def _out(device: Device, *, busy: bool) -> dict[str, Any]:
    return {
        "id": device.id,
        "name": device.name,
        "kind": device.kind,
        "simulated": device.simulated,
        "last_seen_at": device.last_seen_at,
        "busy": busy,
        "refused": device.refused,
        "refused_at": device.refused_at,
    }


@router.get("/k/{kid}/devices", response={200: list[DeviceOut], **PROBLEMS})
def devices(request: HttpRequest, kid: UUID) -> list[DeviceOut]:
    """The kitchen's devices."""
    kitchen = member_of(request, kid).kitchen
    found = list(Device.objects.filter(kitchen=kitchen))
    busy = cooks_of([d.pk for d in found], clock_now())
    return [DeviceOut(**_out(d, busy=d.pk in busy)) for d in found]


@router.post("/k/{kid}/devices", response={200: DeviceAdded, **PROBLEMS})
def add_device(request: HttpRequest, kid: UUID, given: DeviceIn) -> DeviceAdded:
    """Register a device. Its token comes back this once."""
    kitchen = member_of(request, kid).kitchen
    there = Device.objects.filter(pk=given.id, kitchen=kitchen).first()
    if there:
        return DeviceAdded(**_out(there, busy=cook_of(there) is not None), token=None)
    token = Device.new_token()
    try:
        with transaction.atomic():
            device = Device.objects.create(
                id=given.id,
                kitchen=kitchen,
                name=given.name,
                kind=given.kind,
                simulated=given.simulated,
                token_hash=Device.hash_of(token),
            )
    except IntegrityError:
        there = Device.objects.filter(pk=given.id, kitchen=kitchen).first()
        if there:  # it arrived twice at once
            return DeviceAdded(**_out(there, busy=False), token=None)
        raise HttpError(
            422, say("batches.a_device_called_is_already_there", given=given.name)
        ) from None
    return DeviceAdded(**_out(device, busy=False), token=token)


@router.delete("/k/{kid}/devices/{device_id}", response={200: list[DeviceOut], **PROBLEMS})
def remove_device(request: HttpRequest, kid: UUID, device_id: UUID) -> list[DeviceOut]:
    """Take a device's token away. What it measured stays."""
    kitchen = member_of(request, kid).kitchen
    Device.objects.filter(kitchen=kitchen, pk=device_id).delete()
    return devices(request, kid)


class Assignment(Schema):
    """The cook a device is in. ``scene`` is for simulated devices: what to pretend; ``wanted_c`` is
    where the step's window of temperatures has its middle; ``bowl_g`` and ``rungs_g`` are what a
    scale under the bowl will see."""

    device: str
    batch_id: UUID | None
    started_at: datetime | None
    time_scale: int
    step: str | None
    step_entered_s: float
    scene: Scene | None
    wanted_c: float | None
    bowl_c: float | None
    bowl_g: float | None
    rungs_g: list[float]
    laid_g: float = Field(description="what lies on the scale as this step begins, of a build")
    lay_g: float = Field(description="what this step lays on it")


@door.get("", response={200: Assignment, **PROBLEMS})
def assignment(request: HttpRequest) -> Assignment:
    """Which cook this device is in, if any."""
    device: Device = request.device  # type: ignore[attr-defined]
    now = clock_now()
    Device.objects.filter(pk=device.pk).update(last_seen_at=now)
    batch = cook_of(device)
    if not batch:
        return Assignment(
            device=device.name,
            batch_id=None,
            started_at=None,
            time_scale=1,
            step=None,
            step_entered_s=0,
            scene=None,
            wanted_c=None,
            bowl_c=None,
            bowl_g=None,
            rungs_g=[],
            laid_g=0,
            lay_g=0,
        )
    course = course_of(batch)
    scene = next((s for s in course.plan.scenes if s.step == course.current), None)
    step = next((s for s in course.plan.steps if s.key == course.current), None)
    return Assignment(
        device=device.name,
        batch_id=batch.id,
        started_at=batch.started_at,
        time_scale=batch.time_scale,
        step=course.current,
        step_entered_s=course.timings[-1].entered_s,
        scene=scene if device.simulated else None,
        wanted_c=_wanted_c(step),
        bowl_c=_bowl_c(course.plan.ladder, course.rungs),
        bowl_g=course.plan.ladder.bowl_g if course.plan.ladder else None,
        rungs_g=[r.added_g for r in course.plan.ladder.rungs] if course.plan.ladder else [],
        laid_g=_laid_before(course.plan.steps, course.current),
        lay_g=step.grams * step.count if step else 0,
    )


def _laid_before(steps: list[Step], current: str) -> float:
    keys = [s.key for s in steps]
    before = steps[: keys.index(current)] if current in keys else []
    return float(sum(s.grams * s.count for s in before))


def _wanted_c(step: Any) -> float | None:
    if step is None or step.low_c is None or step.high_c is None or step.hold_s:
        return None
    middle: float = (step.low_c + step.high_c) / 2
    return middle


def _bowl_c(ladder: Any, rungs: int) -> float | None:
    if ladder is None:
        return None
    if rungs < 1:
        start: float = ladder.bowl_temp_c
        return start
    poured: Rung = ladder.rungs[min(rungs, len(ladder.rungs)) - 1]
    return poured.mix_temp_c


def _whole(text: str) -> int | float:
    return int(text) if len(text) < 20 else float(text)


class Refused(Schema):
    """A reading that was not taken, and why."""

    index: int
    id: str | None
    message: str


class Received(Schema):
    """What became of the readings: kept, already there, on no cook, or refused with a reason."""

    kept: int
    already_there: int
    on_no_cook: int
    refused: list[Refused]


class DeviceReading(Schema):
    """One reading of up to 500 in a post: ``temp_c`` of a probe (channels 1 to 4) or ``grams`` of a
    scale. ``id`` is made by the device: the same one again is the same reading. Nonsense readings
    are refused one by one; the rest are kept."""

    id: UUID
    at: datetime
    temp_c: float | None = None
    channel: int = 1
    grams: float | None = None


@door.post(
    "/readings",
    response={200: Received, 413: PROBLEMS[422], **PROBLEMS},
    openapi_extra={
        "requestBody": {
            "required": True,
            "content": {
                "application/json": {
                    "schema": {
                        "type": "object",
                        "required": ["readings"],
                        "properties": {
                            "readings": {
                                "type": "array",
                                "maxItems": MOST_READINGS,
                                "items": DeviceReading.model_json_schema(),
                            }
                        },
                    }
                }
            },
        }
    },
)
def receive(request: HttpRequest) -> Received:
    """Take a device's readings. Read by hand, so that one bad reading spoils no other."""
    if int(request.headers.get("content-length") or 0) > MOST_BYTES:
        raise HttpError(413, say("batches.at_most_kb_in_one_go", most_bytes=MOST_BYTES // 1024))
    try:
        # As it comes: one odd number is that reading's fault, not the post's.
        given = json.loads(request.body, parse_int=_whole)["readings"]
        if not isinstance(given, list):
            raise TypeError
    except (ValueError, KeyError, TypeError, RecursionError):
        raise HttpError(422, say("batches.send_readings")) from None
    if len(given) > MOST_READINGS:
        raise HttpError(413, say("batches.at_most_readings_in_one_go", most_readings=MOST_READINGS))
    device: Device = request.device  # type: ignore[attr-defined]
    now = clock_now()
    Device.objects.filter(pk=device.pk).update(last_seen_at=now)
    taken: list[Sent] = []
    refused = []
    for index, item in enumerate(given):
        reading, wrong = read_item(item, now)
        if reading is None:
            shown = item.get("id") if isinstance(item, dict) else None
            refused.append(
                Refused(
                    index=index,
                    id=str(shown)[:40] if shown else None,
                    message=wrong or say("batches.this_is_no_reading"),
                )
            )
            continue
        taken.append(reading)
    found = store(device, taken)
    if refused:
        Device.objects.filter(pk=device.pk).update(refused=refused[-1].message, refused_at=now)
    return Received(**vars(found), refused=refused)
