"""Layer on layer in one stand: how deep each lies, what it takes, and what each part must give.

Everything is worked out for one vessel from the bottom up, then multiplied. Raw grams are what the
formula makes; what stays in pots and on boards is the part's loss.
"""

import math
from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import KW_ONLY, dataclass

from bellcrumb.dessert.stand import Room
from bellcrumb.dessert.works import FACTS, TOPPINGS, Lies, PartWork
from bellcrumb.errors import CraftError
from bellcrumb.vessels.geometry import Vessel
from bellcrumb.words import say

_ABOVE = (*TOPPINGS, "stirred", "folded", "butter", "nut", "fruit", "poached_fruit", "choux",
          "biscuit", "puff", "sponge", "garnish", "jam", "coulis", "ganache",
          "sauce")  # fmt: skip
LEAST_MM = 0.05
_ROUNDS, _AGREE_G = 8, 0.05
# Of a flat layer as high as they are, swirls piped side by side fill so much: each is half of its
# box, and they cover 84 %. Source: our estimate.
_SWIRLS = 0.42


@dataclass(frozen=True)
class Made:
    """A part as it is made: its kind of work, the grams its formula gives, what a millilitre of it
    weighs, and the share lost on the way."""

    name: str
    kind: PartWork
    batch_g: float
    _: KW_ONLY
    density: float
    lost: float

    @property
    def gives_g(self) -> float:
        """What reaches the stand from one batch."""
        return self.batch_g * (1 - self.lost)

    def takes_g(self, lies_g: float) -> float:
        """What has to be made of it for so much that lies in the stand."""
        return lies_g / (1 - self.lost)


@dataclass(frozen=True)
class Layer:
    """One layer as it is asked for, from the bottom. ``lies`` None is the usual of its kind;
    ``walls`` None lines the wall where that kind does; ``poured`` takes all of the batch."""

    part: str
    lies: Lies | None = None
    value: float | None = None
    _: KW_ONLY
    walls: bool | None = None


@dataclass(frozen=True)
class Lain:
    """A layer of the part ``name`` as it lies in each vessel: heights in mm over the vessel's
    floor, ``mm`` its depth. ``over_mm`` is the height of the dome it coats: at its edge it lies so
    much lower."""

    name: str
    kind: PartWork
    lies: Lies
    _: KW_ONLY
    from_mm: float
    to_mm: float
    mm: float
    ml_each: float
    g_each: float
    walls: bool
    wall_mm: float
    width_mm: float
    top_width_mm: float
    over_mm: float = 0.0


@dataclass(frozen=True)
class Need:
    """What a part has to give for all vessels, as made; ``times`` is by what to multiply it."""

    part: str
    need_g: float
    written_g: float

    @property
    def times(self) -> float:
        """Batches of the formula as written."""
        return self.need_g / self.written_g if self.written_g else 0.0

    @property
    def left_g(self) -> float:
        """Over (negative: short) when one batch is made as written."""
        return self.written_g - self.need_g


@dataclass(frozen=True)
class Stack:
    """All layers as they lie, what each part must give, and what does not go."""

    layers: list[Lain]
    needs: list[Need]
    warnings: list[str]
    _: KW_ONLY
    top_mm: float


def stack(vessel: Vessel, count: int, parts: Mapping[str, Made], layers: Sequence[Layer]) -> Stack:
    """Build ``layers`` in each of ``count`` vessels.

    Raises CraftError for a layer of no part, of a measure that makes no sense, or a lining with no
    room left inside it.
    """
    if count < 1:
        raise CraftError("stand.count", say("dessert.how_many_at_least_one"))
    for n, layer in enumerate(layers):
        if layer.part not in parts:
            raise CraftError(f"layers[{n}].part", say("dessert.there_is_no_part", part=layer.part))
    poured = Counter(layer.part for layer in layers if _lies(layer, parts) == "poured")
    # What is poured takes what the layers of a told measure leave, and how much these hold depends
    # on how high it reaches: it begins with nothing and rises until both agree.
    taken = {part: parts[part].gives_g / count for part in poured}
    for _ in range(_ROUNDS):
        found = _stacked(vessel, count, parts, layers, poured, taken)
        told = {
            part: sum(x.g_each for x in found.layers if x.name == part and x.lies != "poured")
            for part in poured
        }
        if all(abs(told[part] - taken[part]) < _AGREE_G for part in poured):
            break
        taken = told
    return found


def _stacked(
    vessel: Vessel, count: int, parts: Mapping[str, Made], layers: Sequence[Layer],
    poured: Mapping[str, int], taken: Mapping[str, float],
) -> Stack:  # fmt: skip
    """The layers as they lie when those of a told measure take so many grams of a poured part."""
    room, level, dome_mm = Room(vessel), 0.0, 0.0
    lain: list[Lain] = []
    warnings: list[str] = []
    for n, layer in enumerate(layers):
        part = parts[layer.part]
        lies = _lies(layer, parts)
        left_g = max(0.0, part.gives_g / count - taken.get(layer.part, 0.0))
        room, level, one = _lay(
            Place(room, level, dome_mm, rim_mm=vessel.depth_mm), n, layer, part, lies,
            left_g / max(1, poured.get(layer.part, 0)), count, warnings,
        )  # fmt: skip
        dome_mm = one.mm if lies == "dome" else one.over_mm
        lain.append(one)
    return Stack(lain, _needs(parts, lain, count), warnings, top_mm=level)


def _lies(layer: Layer, parts: Mapping[str, Made]) -> Lies:
    return layer.lies or FACTS[parts[layer.part].kind].lies


@dataclass(frozen=True)
class Place:
    """Where the next layer goes: the room left, the level reached (``dome_mm`` of it a dome, which
    falls to the edge), and the rim."""

    room: Room
    level_mm: float
    dome_mm: float
    _: KW_ONLY
    rim_mm: float


def _lay(
    at: Place, n: int, layer: Layer, part: Made, lies: Lies, rest_g: float, count: int,
    warnings: list[str],
) -> tuple[Room, float, Lain]:  # fmt: skip
    value = _value(layer, lies, part, n, count)
    room, level = at.room, at.level_mm
    if lies == "lining":
        return _line(at, n, layer, part, value)
    area = room.area_mm2(level)
    over = at.dome_mm if lies in ("mm", "dusted", "sheet") else 0.0
    area += math.pi * over**2  # a cap of a sphere
    ml, g, to = 0.0, 0.0, level
    if lies == "dusted":
        g = value * area / 10_000
        ml = g / part.density
        to = level + max(LEAST_MM, 1000 * ml / area) if area else level
    elif lies == "dome":
        radius = math.sqrt(area / math.pi)
        ml = math.pi * value * (3 * radius**2 + value**2) / 6000
        to = level + value
    elif lies == "swirls":
        to = level + value
        ml = _SWIRLS * room.volume_ml(level, to)
    elif lies in ("mm", "sheet"):
        to = level + value
        ml = area * value / 1000 if over else room.volume_ml(level, to)
    elif lies == "below_rim":
        to = at.rim_mm - value
        if to <= level:
            raise CraftError(
                f"layers[{n}].value",
                say("dessert.what_lies_below_stands_at_mm", level=level, value=value),
            )
        ml = room.volume_ml(level, to)
    else:
        grams = {"poured": rest_g, "share": value * part.gives_g / count, "grams": value}[lies]
        ml = grams / part.density
        to = room.reaches_mm(level, ml)
    stands = lies in ("dome", "swirls", "dusted") or part.kind in _ABOVE
    if to > at.rim_mm + 0.5 and not stands:
        spilt = ml - max(0.0, room.volume_ml(level, at.rim_mm))
        warnings.append(
            say(
                "dessert.runs_over_g_more_than_goes",
                part=part.name,
                spilt=spilt * part.density,
                spilt_2=1 / (1 - spilt / ml) if spilt < ml else 2,
            )
        )
        to, ml = max(level, at.rim_mm), ml - spilt
    g = g or ml * part.density
    short = count * part.takes_g(g) - part.batch_g
    if (
        lies in ("mm", "below_rim", "dome", "swirls", "sheet", "dusted", "grams")
        and short > 0.02 * g * count
    ):
        warnings.append(
            say(
                "dessert.as_written_gives_g_g_are",
                part=part.name,
                batch_g=part.batch_g,
                batch_g_2=part.batch_g + short,
            )
        )
    width = _width(room, level)
    one = Lain(
        part.name, part.kind, lies, from_mm=level, to_mm=to, mm=to - level, ml_each=ml, g_each=g,
        walls=False, wall_mm=0.0, width_mm=width, top_width_mm=_width(room, to), over_mm=over,
    )  # fmt: skip
    return room, to, one


def _line(at: Place, n: int, layer: Layer, part: Made, value: float) -> tuple[Room, float, Lain]:
    """A lining: dough under and around, crumbs pressed in, caramel on the floor."""
    facts = FACTS[part.kind]
    walls = facts.walls if layer.walls is None else layer.walls
    room = at.room
    thick = value * facts.swells
    area = room.area_mm2(at.level_mm)
    if walls:
        area += room.side_mm2(at.level_mm, at.rim_mm)
    inner = room.lined(thick, walls=walls)
    if inner.area_mm2(at.rim_mm / 2) <= 0 or at.level_mm + thick >= at.rim_mm:
        raise CraftError(f"layers[{n}].value", say("dessert.this_lining_leaves_no_room_inside"))
    raw = area * value * part.density / 1000
    return inner, at.level_mm + thick, Lain(
        part.name, part.kind, "lining", from_mm=at.level_mm, to_mm=at.level_mm + thick, mm=thick,
        ml_each=area * thick / 1000, g_each=raw, walls=walls, wall_mm=thick if walls else 0.0,
        width_mm=_width(room, at.level_mm), top_width_mm=_width(room, at.level_mm + thick),
    )  # fmt: skip


def _value(layer: Layer, lies: Lies, part: Made, n: int, count: int) -> float:
    """The measure of a layer in the unit of how it lies. Raises CraftError where it makes none."""
    facts = FACTS[part.kind]
    usual = {"lining": facts.lining_mm or 3.0, "mm": facts.lining_mm or 10.0, "below_rim": 5.0,
             "dome": 15.0, "swirls": 25.0, "sheet": 8.0,
             "dusted": 8.0 if part.kind == "torched" else 3.0,
             "share": 0.5, "poured": 0.0, "grams": 0.0}  # fmt: skip
    value = usual[lies] if layer.value is None else layer.value
    most = {"share": 1.0, "dusted": 200.0, "grams": 20_000.0}.get(lies, 400.0)
    if lies == "grams" and layer.value is None:  # nobody said: all of it, shared out
        return part.gives_g / count
    if not 0 <= value <= most or (not value and lies not in ("poured", "below_rim")):
        raise CraftError(
            f"layers[{n}].value", say("dessert.makes_no_layer_more_than_0", value=value, most=most)
        )
    return value


def _width(room: Room, height_mm: float) -> float:
    share = min(1.0, max(0.0, height_mm / room.vessel.depth_mm))
    return max(0.0, room.vessel.across(share)[0] - 2 * room.wall_mm)


def _needs(parts: Mapping[str, Made], lain: list[Lain], count: int) -> list[Need]:
    return [
        Need(
            name, count * part.takes_g(sum(x.g_each for x in lain if x.name == name)), part.batch_g
        )
        for name, part in parts.items()
    ]
