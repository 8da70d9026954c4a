"""What a planned day needs: what to buy, what to weigh when, which moulds are in use."""

import math
from datetime import datetime

from bellcrumb.asked.lines import read_lines
from bellcrumb.formula.answer import mix_of
from bellcrumb.formula.scale import eggs_cracked, scale_text
from bellcrumb.mix.composition import Mix
from bellcrumb.mix.lines import understand_all
from bellcrumb.pantry.eggs import EggGrade, egg_grade
from bellcrumb.pantry.ingredients import Ingredient
from bellcrumb.pantry.pantry import Pantry, shipped
from bellcrumb.planner.builds import parts_out
from bellcrumb.planner.day_asked import Asked
from bellcrumb.planner.day_joined import DayBatch
from bellcrumb.shapes import plan as shapes
from bellcrumb.shapes.build import BuildPartOut
from bellcrumb.words import say

_SHELL = ("egg_whole", "egg_yolk", "egg_white")
_LEAST_G = 0.5


def eggs_of(asked: Asked, pantry: Pantry | None) -> float:
    """Shell eggs cracked for everything as it is scaled."""
    return sum(eggs_cracked(mix, grade) for mix, grade in _mixes(asked, pantry))


def _mixes(asked: Asked, pantry: Pantry | None) -> list[tuple[Mix, EggGrade]]:
    found = []
    for batch in asked.batches:
        for part in parts_out(batch.given, batch.made):
            grade = batch.made.found.parts[part.name].grade
            read = understand_all(part.scaled_lines, pantry, grade, batch.given.measures)
            found.append((mix_of(read), grade))
    return found


def buy_out(given: shapes.DayIn, asked: Asked, pantry: Pantry | None) -> list[shapes.BuyOut]:
    """What to buy, with what is in the house taken off, in the supplier's packs."""
    need: dict[str, float] = {}
    known: dict[str, Ingredient] = {}
    eggs = 0.0
    for mix, grade in _mixes(asked, pantry):
        eggs += eggs_cracked(mix, grade)
        for portion in mix.portions:
            key = portion.ingredient.key
            known[key] = portion.ingredient
            need[key] = need.get(key, 0.0) + portion.grams
    store = pantry or shipped()
    house_eggs, house = _in_the_house(given, pantry)
    packs = {_key(store, name): grams for name, grams in given.packs.items()}
    out = []
    if eggs > 0:
        grade = next((g for m, g in _mixes(asked, pantry) if m.grams_of("egg")), egg_grade("EU M"))
        crack = math.ceil(eggs - 1e-6)
        each = grade.content_g
        buy = max(0, crack - math.floor(house_eggs))
        pack = packs.get("egg_whole")
        out.append(
            shapes.BuyOut(
                ingredient="egg_whole",
                name=say("planner.eggs", grade=grade.name),
                need_g=crack * each,
                house_g=house_eggs * each,
                buy_g=buy * each,
                pieces=float(buy),
                pack_g=pack,
                packs=None if pack is None else float(math.ceil(buy * each / pack)),
            )
        )
    for key, grams in sorted(need.items(), key=lambda pair: -pair[1]):
        if key in _SHELL or key == "water" or grams < _LEAST_G:
            continue
        have = house.get(key, 0.0)
        buy_g, pack, each_g = max(0.0, grams - have), packs.get(key), known[key].g_per_piece
        out.append(
            shapes.BuyOut(
                ingredient=key, name=known[key].name, need_g=grams, house_g=have, buy_g=buy_g,
                packs=None if pack is None else float(math.ceil(buy_g / pack - 1e-9)), pack_g=pack,
                pieces=float(math.ceil(buy_g / each_g)) if each_g and not pack else None,
            )
        )  # fmt: skip
    return out


def _key(pantry: Pantry, name: str) -> str:
    found = pantry.find(name)
    return found.ingredient.key if found else name


def _in_the_house(
    given: shapes.DayIn, pantry: Pantry | None
) -> tuple[float, dict[str, float]]:  # fmt: skip
    """Shell eggs and grams of everything else that are there. Raises CraftError at a line."""
    grade = egg_grade("US large")
    lines = read_lines(given.house, grade, pantry, "house")
    mix = mix_of(lines)
    grams: dict[str, float] = {}
    for portion in mix.portions:
        key = portion.ingredient.key
        grams[key] = grams.get(key, 0.0) + portion.grams
    return grams.pop("egg_whole", 0.0) / grade.content_g, grams


def mise_out(
    asked: Asked, begins: dict[str, datetime]
) -> list[shapes.MiseOut]:  # fmt: skip
    """What is weighed for each part, before the first thing that is done to it. ``begins`` are
    starts by the key of a step."""
    found = []
    # Each dessert has its own name for the part it shares.
    joined = {
        (n, key.split("/")[0]): share for share in asked.joined for n, key in share.stands_for
    }
    done: set[int] = set()
    for n, batch in enumerate(asked.batches):
        for part in parts_out(batch.given, batch.made):
            if batch.made.found.parts[part.name].bought:
                continue
            share = joined.get((n, part.name))
            name, lines = batch.wanted.name, _lines(part, batch)
            at = _first(begins, batch.wanted.name, part.name)
            if share is not None:
                if id(share) in done:
                    continue
                done.add(id(share))
                name = say("planner.and").join(
                    dict.fromkeys(asked.batches[k].wanted.name for k in share.items)
                )
                lines = _scaled(part, batch, share.grams)
                at = _first(begins, share.name, share.part)
            if at is not None:
                found.append(shapes.MiseOut(at=at, dessert=name, part=part.name, lines=lines))
    return sorted(found, key=lambda m: m.at)


def _first(begins: dict[str, datetime], dessert: str, part: str) -> datetime | None:
    own = [at for key, at in begins.items() if key.startswith(f"{dessert}/{part}/")]
    return min(own, default=None)


def _lines(part: BuildPartOut, batch: DayBatch) -> list[str]:
    return [line for line in part.scaled_lines if line.strip()] or [batch.wanted.name]


def _scaled(part: BuildPartOut, batch: DayBatch, grams: float) -> list[str]:
    """The lines of a part at the size of all that share it."""
    own = batch.made.found.parts[part.name]
    times = grams / own.mix.mass_g
    text = scale_text("\n".join(own.texts), own.lines, times, batch.given.measures)
    return [line for line in text.split("\n") if line.strip()]


def moulds_out(given: shapes.DayIn, asked: Asked, begins: dict[str, int]) -> list[shapes.MouldsOut]:
    """How many moulds of a kind are in use at once at most. ``begins`` are minutes by task key."""
    have = {m.vessel: m.count for m in given.moulds}
    uses: dict[str, list[tuple[int, int, int]]] = {}
    names: dict[str, str] = {}
    for batch in asked.batches:
        vessel = batch.made.vessel
        key = batch.wanted.build.stand.vessel
        key = key if isinstance(key, str) else vessel.name
        names[key] = vessel.name
        mine = [t for t in asked.day.tasks if t.key.startswith(f"{batch.wanted.name}/")]
        laid = batch.made.steps.laid[0] if batch.made.steps.laid else None
        first = next((t for t in mine if f"{batch.wanted.name}/{laid}" in t.steps), None)
        hold = next((h for h in asked.day.holds if asked.day.tasks[h.first] is first), None)
        last = next((t for t in mine if t.by is not None), None)
        last = asked.day.tasks[hold.last] if hold else last
        if first is not None and last is not None:
            uses.setdefault(key, []).append(
                (begins[first.key], begins[last.key] + last.minutes, batch.wanted.count)
            )
    out = []
    for key, spans in sorted(uses.items()):
        most = max(sum(n for a, b, n in spans if a <= at < b) for at, _, _ in spans)
        out.append(shapes.MouldsOut(vessel=names[key], used=most, have=have.get(key)))
    return out


def joined_out(asked: Asked) -> list[shapes.JoinedOut]:
    """The parts that are made once for several desserts."""
    return [
        shapes.JoinedOut(
            part=share.part,
            grams=share.grams,
            desserts=list(dict.fromkeys(asked.batches[n].wanted.name for n in share.items)),
        )
        for share in asked.joined
    ]
