"""The demo kitchen: Weir House, an invented ten-room inn on a river island."""

import random
import uuid
from datetime import UTC, datetime, timedelta
from typing import Any

from django.db import transaction

from accounts.models import User
from batches.begin import begin
from batches.clock import raise_peak
from batches.models import Event, Reading, Verdict
from bellcrumb.contract.open.cooking import Cream, Pot, start, step
from bellcrumb.contract.open.vessels import library
from days.files import DayFile
from days.models import UsualDay
from demo.desserts import BUILDS, DESSERTS
from demo.formulas import COUNTS, FORMULAS, PANTRY, PRICES, RINGS, VESSELS
from devices.models import Device
from formulas.building import BuildContent, LayerSaved
from formulas.content import VESSEL_FIELDS, content_of, formula_of
from formulas.guide_shapes import PlanOut, Scene
from formulas.models import Dessert, Part, Version
from formulas.stove import plan_of
from kitchen.buying import set_price
from kitchen.models import Cold, Kitchen, Member, Oven, PantryItem, Ring, Vessel

NAME = "Weir House"
PASSWORD = "quince and hay"
CHEF = "chef@weirhouse.example"
PEOPLE = (
    (CHEF, "Pastry chef", "chef"),
    ("early@weirhouse.example", "Early cook", "cook"),
    ("late@weirhouse.example", "Late cook", "cook"),
    ("desk@weirhouse.example", "Front desk", "viewer"),
)
PROBE = "Stove probe"
SCALE = "Bench scale"


@transaction.atomic
def load(probe_token: str) -> Kitchen:
    """Make the demo kitchen with its people, equipment, formulas and first cooks."""
    kitchen = Kitchen.objects.create(name=NAME, egg_grade="EU/UK M", altitude_m=40)
    chef: User | None = None
    for email, name, role in PEOPLE:
        user = User.objects.create_user(email, PASSWORD, name)
        Member.objects.create(kitchen=kitchen, user=user, role=role)
        chef = chef or user
    rings = [Ring.objects.create(kitchen=kitchen, name=n, fuel=f, rated_w=w) for n, f, w in RINGS]
    Oven.objects.create(kitchen=kitchen, name="Deck oven", kind="static", dial_error_k=-9)
    Oven.objects.create(kitchen=kitchen, name="Fan oven", kind="fan", dial_error_k=0)
    Cold.objects.create(kitchen=kitchen, name="Reach-in", kind="fridge", air_c=3)
    Cold.objects.create(kitchen=kitchen, name="Blast chiller", kind="blast", air_c=-5)
    vessels = {}
    for name, kind, shape, top, bottom, depth, flutes, material in VESSELS:
        vessels[name] = Vessel.objects.create(
            kitchen=kitchen,
            name=name,
            kind=kind,
            shape=shape,
            top_dmm=top * 10,
            bottom_dmm=bottom * 10,
            width_dmm=0 if shape == "round" else bottom * 10,
            depth_dmm=depth * 10,
            flute_dmm=flutes * 10,
            material=material,
            wall_dmm=0,
            count=COUNTS.get(name),
        )
    for name, category, fat, sugars, protein, starch, water, cup, piece, allergens in PANTRY:
        PantryItem.objects.create(
            kitchen=kitchen,
            name=name,
            category=category,
            fat_pct=fat,
            sugars_pct=sugars,
            protein_pct=protein,
            starch_pct=starch,
            water_pct=water,
            g_per_us_cup=cup,
            g_per_piece=piece,
            allergens=allergens,
        )
    probe = Device.objects.create(
        kitchen=kitchen, name=PROBE, simulated=True, token_hash=Device.hash_of(probe_token)
    )
    for line, price in PRICES:
        set_price(kitchen, uuid.uuid4(), line, price)
    Device.objects.create(
        kitchen=kitchen,
        name=SCALE,
        kind="scale",
        simulated=True,
        token_hash=Device.hash_of(f"{probe_token}-scale"),
    )
    keys = {name: str(vessel.id) for name, vessel in vessels.items()} | {k: k for k in library()}
    made: dict[str, Version] = {}
    for name, parts in FORMULAS + DESSERTS:
        dessert = Dessert.objects.create(kitchen=kitchen, name=name)
        for place, (kind, part_name, versions) in enumerate(parts):
            part = Part.objects.create(dessert=dessert, position=place, kind=kind, name=part_name)
            for number, content in enumerate(versions, start=1):
                own = {f: keys.get(getattr(content, f), "") for f in VESSEL_FIELDS}
                more = {**own, "egg_grade": kitchen.egg_grade, "ring_id": rings[1].id}
                made[name] = Version.objects.create(
                    part=part,
                    number=number,
                    created_by=chef,
                    saved_by=chef,
                    **content.model_copy(update=more).dict(),
                )
        if name in BUILDS:
            dessert.build = _build_of(dessert, BUILDS[name], keys)
            dessert.build_revision = 1
            dessert.save(update_fields=["build", "build_revision"])
    _first_cooks(kitchen, made["Bay leaf pastry cream"], probe)
    UsualDay.objects.create(kitchen=kitchen, name="A Saturday", file=saturday())
    return kitchen


# The services of a Saturday: when, and what is served how often. Begun that morning it does not
# fit: the cheesecake has to be cold through.
SATURDAY = (
    ("12:30", (("Quince and rye tart", 24), ("Plum and malt glass", 16))),
    ("15:30", (("Barley praline ring", 12), ("Burnt butter slice", 20),
               ("Malt cheesecake with elderflower", 10))),
    ("19:00", (("Barley caramel flan", 20), ("Smoked tea burnt cream", 18))),
)  # fmt: skip
HOURS = (("Pastry chef", 8, 20, 30), ("Early cook", 6, 14, 30), ("Late cook", 12, 21, 30))


def saturday() -> dict[str, Any]:
    """The demo's Saturday, as a day is written down."""
    date = "2026-11-28"
    return DayFile.model_validate({
        "begins": f"{date}T06:00:00",
        "services": [
            {"at": f"{date}T{at}:00", "name": name,
             "items": [{"dessert": dessert, "portions": n} for dessert, n in items]}
            for (at, items), name in zip(SATURDAY, ("Lunch", "Tea", "Dinner"), strict=True)
        ],
        "people": [
            {"name": name, "from_min": 60 * a, "to_min": 60 * b, "break_min": rest}
            for name, a, b, rest in HOURS
        ],
        "house": "40 eggs\n5 kg sugar\n10 kg flour\n2 kg butter",
    }).model_dump(mode="json")  # fmt: skip


def _build_of(dessert: Dessert, build: dict[str, Any], keys: dict[str, str]) -> dict[str, Any]:
    """How a demo dessert is built, as it is saved."""
    parts = {part.name: part.id for part in dessert.parts.all()}
    content = BuildContent(
        vessel_key=keys[build["vessel"]], count=build["count"], portions_each=build["portions"],
        cut=build["cut"], filling=build.get("filling", "cold"),
        meringue=build.get("meringue", "cold"),
        layers=[
            LayerSaved(part_id=parts.get(name), item="" if name in parts else name, lies=lies,
                       value=value)
            for name, lies, value in build["layers"]
        ],
    )  # fmt: skip
    return content.model_dump(mode="json")


def _first_cooks(kitchen: Kitchen, version: Version, probe: Device) -> None:
    """Two cooks of one formula with the simulated probe: one stopped early, one held."""
    people = {m.user.name: m.user for m in kitchen.members.select_related("user")}
    now = datetime.now(UTC).replace(microsecond=0)
    _cook(
        kitchen,
        version,
        probe,
        people["Late cook"],
        now - timedelta(days=3, hours=4),
        hold_s=14,
        seed=3,
        texture="spoon",
        faults=["thinned_overnight"],
        note="Looked thick enough at the first plop. Runny by breakfast.",
    )
    _cook(
        kitchen,
        version,
        probe,
        people["Pastry chef"],
        now - timedelta(days=1, hours=6),
        hold_s=75,
        seed=8,
        texture="pipe",
        faults=[],
        note="Held by the clock. Pipes clean, no starch taste.",
    )


def _cook(
    kitchen: Kitchen,
    version: Version,
    probe: Device,
    cook: User,
    began: datetime,
    *,
    hold_s: int,
    seed: int,
    texture: str,
    faults: list[str],
    note: str,
) -> None:
    content = content_of(version)
    plan = plan_of(kitchen, content, version.part.kind)
    found = formula_of(kitchen, content, version.part.kind)
    batch = begin(kitchen, version, cook, plan, found, began, device=probe)
    noise = random.Random(seed)
    readings: list[tuple[float, float]] = []
    events: list[tuple[str, str, float, float | None]] = []
    t = _pretend(plan, noise, hold_s, readings, events)
    Event.objects.bulk_create(
        [
            Event(
                id=uuid.uuid4(),
                batch=batch,
                kind=kind,
                step=step,
                cook_ms=round(at * 1000),
                value=value,
                by=cook,
            )
            for kind, step, at, value in events
        ]
    )
    rows = [
        Reading(
            batch=batch,
            device=probe,
            client_id=uuid.uuid4(),
            at=began + timedelta(seconds=at),
            cook_ms=round(at * 1000),
            temp_cc=round(100 * (temp + noise.gauss(0, 0.12))),
        )
        for at, temp in readings
    ]
    Reading.objects.bulk_create(rows)
    raise_peak(batch, max(row.temp_cc for row in rows))
    batch.ended_at = began + timedelta(seconds=t)
    batch.save(update_fields=["ended_at"])
    Verdict.objects.create(batch=batch, texture=texture, faults=faults, note=note, by=cook)


def _pretend(
    plan: PlanOut,
    noise: random.Random,
    hold_s: int,
    readings: list[tuple[float, float]],
    events: list[tuple[str, str, float, float | None]],
) -> float:
    """Walk the plan's steps as the simulated probe would see them; returns the end."""
    scenes = {s.step: s for s in plan.scenes}
    t = 30.0
    events.append(("step", "heat", t, None))
    heat = next(s for s in plan.steps if s.key == "heat")
    t = _heat(scenes["heat"], t, (heat.low_c or 86) + 2, 0, noise, readings)
    events.append(("step", "temper", t, None))
    if plan.ladder:
        for n, rung in enumerate(plan.ladder.rungs, start=1):
            events.append(("ladle", "temper", t, float(n)))
            for _ in range(4):
                t += 2
                readings.append((t, rung.mix_temp_c))
    events.append(("step", "cook", t, None))
    cook = next(s for s in plan.steps if s.key == "cook")
    t = _heat(scenes["cook"], t, cook.low_c or 98, hold_s, noise, readings)
    events += [("step", "finish", t, None), ("step", "cool", t + 60, None)]
    for n in range(60):
        readings.append((t + 2 * n, 96 - 0.35 * n))
    events.append(("end", "", t + 120, None))
    return t + 120


def _heat(
    scene: Scene,
    t: float,
    until_c: float,
    hold_s: int,
    noise: random.Random,
    readings: list[tuple[float, float]],
) -> float:
    cream = Cream(scene.mass_g, scene.cp_j_per_gk, scene.boil_c, thickens_c=scene.thickens_c)
    state = start(cream, scene.from_c)
    # A real ring is never exactly its rating.
    power = scene.power_w * noise.uniform(1.04, 1.14)
    reached: float | None = None
    while reached is None or t < reached + hold_s:
        state = step(
            state,
            cream,
            Pot(scene.pot_mm, scene.pot_g),
            scene.fuel,
            power,
            scene.stirring,
            2.0,
        )
        t += 2
        readings.append((t, state.cream_c))
        if reached is None and state.cream_c >= until_c:
            reached = t
    return t
