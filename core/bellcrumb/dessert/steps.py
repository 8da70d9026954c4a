"""The steps a dessert is made in and the gaps between them, from its parts and its layers.

Minutes are recalled craft, good to a third, and hours of keeping to a factor of two: every one can
be overruled by a kitchen. Shorter than a day's plan needs, they are no clock.
"""

from collections.abc import Mapping, Sequence
from dataclasses import KW_ONLY, dataclass, field, replace
from typing import Literal

from bellcrumb.dessert.layers import Lain, Made
from bellcrumb.dessert.tables import Meeting, Schools, StepRow, meeting, rows
from bellcrumb.dessert.works import FACTS, PartWork
from bellcrumb.words import say

AT_ONCE_MIN = 10.0  # "go on at once": the longest pause that is none
_KEEPS_LAID_H = 12.0  # what no row speaks of, once it is laid; our estimate
_COOLS = ("cool", "chill", "cool_chill", "let_harden", "cool_then_chill", "cool_cut", "set")

# What stands in no table: a layer laid on, and each dessert trimmed, cut and plated.
_LAID_ON = StepRow(
    work="", code="lay_on", stage="lay", words=say("dessert.lay_it_on"),
    hands_min=2, hands_min_per_kg=0, hands_min_per_piece=0.5, piece_mm=None,
    wait_low_min=0, wait_min=0, wait_high_min=0, uses=("bench",), holds=(), oven_c=None,
    attention=False, keeps_h=_KEEPS_LAID_H, source=say("dessert.our_estimate"),
)  # fmt: skip
_PLATED = replace(
    _LAID_ON, code="plate", stage="plate", words=say("dessert.trim_cut_plate"), hands_min=1,
    hands_min_per_piece=2, piece_mm=230,
)  # fmt: skip


@dataclass(frozen=True)
class Gap:
    """At least and at most minutes from the end of ``key`` to a start, and why; ``warm`` when what
    waits is food that spoils and stands outside the cold."""

    key: str
    at_least_min: float = 0.0
    at_most_min: float | None = None
    _: KW_ONLY
    why: str = ""
    warm: bool = False


@dataclass(frozen=True)
class BuildStep:
    """One step: ``hands_min`` takes a person, ``wait_min`` runs by itself; ``uses`` is what the
    hands occupy, ``holds`` what the wait does; ``own`` says that the kitchen gave the minutes.
    ``spoils`` is food that may not stand warm; it ``comes_hot`` into the cold."""

    key: str
    part: str
    code: str
    _: KW_ONLY
    words: str
    hands_min: float
    wait_min: float
    wait_low_min: float
    wait_high_min: float
    uses: tuple[str, ...]
    attention: bool
    oven_c: float | None
    source: str
    after: tuple[Gap, ...] = ()
    own: bool = False
    holds: tuple[str, ...] = ()
    spoils: bool = False
    comes_hot: bool = False

    @property
    def minutes(self) -> float:
        """From its start to its end."""
        return self.hands_min + self.wait_min


@dataclass(frozen=True)
class Timed:
    """Minutes of a step that a model worked out (None: as the table has them), and how."""

    hands_min: float | None
    wait_min: float | None
    wait_low_min: float | None
    _: KW_ONLY
    wait_high_min: float | None
    source: str


Cooked = Literal["boil", "nappe", "grain", "setter", "cream"]
_COOKED_WORDS: dict[Cooked, str] = {
    "nappe": say("dessert.cook_gently_until_it_coats_the"),
    "grain": say("dessert.let_the_grain_swell_at_a"),
    "setter": say("dessert.boil_until_the_setter_is_dissolved"),
    "cream": say("dessert.boil_cream_and_sugar_three_minutes"),
}


@dataclass(frozen=True)
class Making:
    """A part to be made: how much of it, the codes of steps its formula makes ``needless``, whether
    it is beaten again and unmoulded, how its pot is cooked and whether it goes through a sieve. A
    part that is folded of others names them in ``of``."""

    made: Made
    grams: float
    needless: frozenset[str] = frozenset()
    _: KW_ONLY
    beaten: bool = True
    unmoulds: bool = False
    cooked: Cooked = "boil"
    sieved: bool = True
    of: tuple[str, ...] = ()


@dataclass(frozen=True)
class Steps:
    """The steps in order, what is to be minded, and for each layer the key of its laying and the
    row of the table under which it meets what lies below."""

    steps: list[BuildStep]
    minded: list[str]
    laid: list[str]
    _: KW_ONLY
    met: list[Meeting | None]


def _poured_hot(kind: PartWork, schools: Schools) -> bool:
    return schools.filling == "hot" and kind in ("stirred", "curd")


def _needless(row: StepRow, making: Making, schools: Schools) -> bool:
    """Whether this part has no such step."""
    kind = making.made.kind
    hot = _poured_hot(kind, schools)
    if row.code in ("chill", "beat_smooth_before") and kind in ("stirred", "curd") and hot:
        return True
    if row.code == "beat_smooth_before":
        return not making.beaten
    if row.code in making.needless:
        return True
    if row.code == "soften_cream":
        return True  # a wait of the whole, from the cream on it to the plate
    if row.code == "unmould":
        return not making.unmoulds
    return row.code in ("poach", "drain") and kind != "poached_fruit"


def _words(row: StepRow, making: Making) -> str:
    """What a step is called for this part."""
    if row.code == "cook_boil_hold":
        return _COOKED_WORDS.get(making.cooked, row.words)
    if row.code == "strain_film_spread" and not making.sieved:
        return say("dessert.film_spread_shallow")
    return row.words


def steps_of(
    makings: Mapping[str, Making], lain: Sequence[Lain], count: int, schools: Schools,
    minutes: Mapping[str, tuple[float | None, float | None]] | None = None,
    modelled: Mapping[str, Timed] | None = None,
) -> Steps:  # fmt: skip
    """Every step of the dessert with the gaps before it, and what is to be minded where parts meet.

    ``minutes`` are a kitchen's own (hands, wait) by step key; None leaves one as it is. They go
    before what is ``modelled``, which goes before the table.
    """
    wide_mm = max((layer.width_mm for layer in lain), default=0.0)
    out = _Thread(minutes or {}, modelled or {}, wide_mm)
    for name, making in makings.items():
        out.before(name, making, count, schools)
    for place, layer in enumerate(lain):
        out.lay(place, layer, makings[layer.name], lain, count, schools)
    out.finish(count)
    return Steps(out.steps, out.minded, out.laid, met=out.met)


@dataclass
class _Thread:
    """The steps so far; ``last`` is what a part's next step follows and the hours it keeps."""

    own: Mapping[str, tuple[float | None, float | None]]
    modelled: Mapping[str, Timed]
    wide_mm: float
    _: KW_ONLY
    steps: list[BuildStep] = field(default_factory=list)
    minded: list[str] = field(default_factory=list)
    last: dict[str, tuple[str, float]] = field(default_factory=dict)
    built: tuple[str, float] | None = None
    until: list[Gap] = field(default_factory=list)
    laid: list[str] = field(default_factory=list)
    met: list[Meeting | None] = field(default_factory=list)
    hot: bool = False

    def add(self, name: str, row: StepRow, making: Making, pieces: int, after: list[Gap]) -> str:
        """Put a step in and return its key."""
        kilos = making.grams / 1000
        key = f"{name}/{row.code}"
        again = sum(step.key.split("#")[0] == key for step in self.steps)
        key = f"{key}#{again + 1}" if again else key
        hands = row.hands(kilos, pieces, self.wide_mm)
        step = BuildStep(
            key, name, row.code, words=_words(row, making), hands_min=hands, wait_min=row.wait_min,
            wait_low_min=row.wait_low_min, wait_high_min=row.wait_high_min, uses=row.uses,
            attention=row.attention, oven_c=row.oven_c, source=row.source, after=tuple(after),
            holds=row.holds, spoils=FACTS[making.made.kind].spoils,
        )  # fmt: skip
        timed = self.modelled.get(key)
        if timed:
            told = {k: v for k, v in vars(timed).items() if v is not None}
            step = replace(step, **told)
        hands_own, wait_own = self.own.get(key, (None, None))
        if hands_own is not None or wait_own is not None:
            step = replace(
                step, own=True, source=say("dessert.this_kitchens_own"),
                hands_min=step.hands_min if hands_own is None else hands_own,
                wait_min=step.wait_min if wait_own is None else wait_own,
            )  # fmt: skip
        self.steps.append(step)
        return key

    def before(self, name: str, making: Making, count: int, schools: Schools) -> None:
        """What is done to a part before it meets the others."""
        kind = making.made.kind
        if making.of:
            self._fold(name, making, count)
            return
        if kind == "butter":
            self._run(name, replace(making, beaten=False), "stirred", "before", count, schools)
        if kind == "folded":
            self._run(name, making, "stirred", "before", count, schools)
        self._run(name, making, kind, "before", count, schools)

    def _fold(self, name: str, making: Making, count: int) -> None:
        """Two parts into one, once both are there."""
        code = "beat_cream_butter" if making.made.kind == "butter" else "fold"
        row = next(r for r in rows()[making.made.kind] if r.code == code)
        after = [self._following(part) for part in making.of if part in self.last]
        key = self.add(name, row, making, count, after)
        self.last[name] = (key, max(row.keeps_h, 1.0))

    def _run(
        self, name: str, making: Making, work: str, stage: str, count: int, schools: Schools
    ) -> None:
        work = "fruit" if work == "poached_fruit" else work
        for row in rows().get(work, []):
            if row.stage != stage or _needless(row, making, schools):
                continue
            after = [self._following(name)] if name in self.last else []
            key = self.add(name, row, making, count, after)
            self.last[name] = (key, row.keeps_h)

    def _following(self, name: str) -> Gap:
        key, keeps_h = self.last[name]
        return Gap(
            key, 0.0, max(60 * keeps_h, AT_ONCE_MIN), why=say("dessert.keeps_that_long_or_goes_on")
        )

    def lay(
        self, place: int, layer: Lain, making: Making, lain: Sequence[Lain], count: int,
        schools: Schools,
    ) -> None:  # fmt: skip
        """Lay one layer, with what must have happened to the one below."""
        after = [self._following(layer.name)] if layer.name in self.last else []
        met = self._meets(place, layer, lain, schools)
        after += self._gap_below(place, layer, lain, met)
        work = "fruit" if layer.kind == "poached_fruit" else layer.kind
        table = rows().get(work, [])
        row = next((r for r in table if r.stage == "lay"), None)
        row = row or replace(_LAID_ON, work=work)
        key = self.add(layer.name, row, making, count, after)
        self.laid.append(key)
        self.met.append(met)
        self.last[layer.name] = (key, row.keeps_h)
        if met is not None and met.most_h and place:
            softens = "biscuit" in (layer.kind, lain[place - 1].kind)
            least = 60 * met.best_from_h if softens else 0.0
            self.until.append(Gap(key, least, 60 * met.most_h, why=met.too_late))
        self.hot |= _poured_hot(layer.kind, schools)
        if self.last_use(place, layer, lain):
            self._run(layer.name, making, work, "after", count, schools)
        self.built = self.last[layer.name]

    @staticmethod
    def last_use(place: int, layer: Lain, lain: Sequence[Lain]) -> bool:
        """Whether what happens after laying (baking, setting) comes now."""
        return not any(other.name == layer.name for other in lain[place + 1 :])

    @staticmethod
    def _meets(place: int, layer: Lain, lain: Sequence[Lain], schools: Schools) -> Meeting | None:
        """The row of the table for a layer and the one it lies on."""
        if place == 0:
            return None
        coated = lain[place - 1].kind == "chocolate_coat" and place > 1
        below = lain[place - 2 if coated else place - 1]
        return meeting(below.kind, layer.kind, schools, coated=coated)

    def _gap_below(
        self, place: int, layer: Lain, lain: Sequence[Lain], found: Meeting | None
    ) -> list[Gap]:
        if self.built is None or place == 0:
            return []
        below = lain[place - 1]
        if found is None:
            return [Gap(self.built[0], 0.0, max(60 * self.built[1], 60.0), why="")]
        cooled = any(s.part == below.name and s.code in _COOLS for s in self.steps)
        least = 0.0 if cooled else found.least_min
        most = max(self._most(below, found), least + 60)
        self.minded.append(_mind(below.name, layer.name, found))
        return [Gap(self.built[0], least, most, why=found.too_soon)]

    def _most(self, below: Lain, found: Meeting) -> float:
        """How long what lies below may wait for this one."""
        assert self.built is not None
        keeps = max(60 * self.built[1], AT_ONCE_MIN)
        hot = found.upper_min_c is not None and (found.lower_max_c or 0) > 60
        return min(keeps, 10.0) if hot and FACTS[below.kind].density is None else keeps

    def _set_cold(self) -> None:
        """What was poured hot sets in the cold, whole."""
        assert self.built is not None
        key, keeps_h = self.built
        least, most = 60.0, max(60 * keeps_h, 90.0)
        hands_own, wait_own = self.own.get("set_cold", (None, None))
        own = hands_own is not None or wait_own is not None
        usual = say("dessert.trade_practice_our_estimate")
        self.steps.append(
            BuildStep(
                "set_cold", "", "set_cold", words=say("dessert.chill_until_it_is_set"),
                hands_min=1.0 if hands_own is None else hands_own,
                wait_min=240.0 if wait_own is None else wait_own,
                wait_low_min=180, wait_high_min=480, uses=(), attention=False, oven_c=None,
                source=say("dessert.this_kitchens_own") if own else usual,
                after=(Gap(key, least, most, why=say("dessert.cools_on_the_bench_first")),),
                holds=("cold",), own=own,
            )
        )  # fmt: skip
        self.built = ("set_cold", 24.0)

    def finish(self, count: int) -> None:
        """From the last layer to the plate."""
        if self.built is None:
            return
        if self.hot:
            self._set_cold()
        key, keeps_h = self.built
        after = [
            Gap(
                key,
                0.0,
                max(60 * keeps_h, AT_ONCE_MIN),
                why=say("dessert.keeps_that_long_once_built"),
            )
        ]
        after += [gap for gap in self.until if gap.key != key]
        if self.until and self.until[-1].key == key:
            after[0] = self.until[-1]
        self.steps.append(
            BuildStep(
                "plate",
                "",
                "plate",
                words=_PLATED.words,
                hands_min=_PLATED.hands(0.0, count, self.wide_mm),
                wait_min=0,
                wait_low_min=0,
                wait_high_min=0,
                uses=("bench",),
                attention=False,
                oven_c=None,
                source=_PLATED.source,
                after=tuple(after),
                spoils=any(step.spoils for step in self.steps),
            )
        )


def _mind(lower: str, upper: str, found: Meeting) -> str:
    limits = []
    if found.lower_max_c is not None:
        limits.append(say("dessert.at_c_or_under", lower=lower, lower_max_c=found.lower_max_c))
    if found.upper_min_c is not None and found.upper_max_c is not None:
        limits.append(
            say(
                "dessert.at_to_c",
                upper=upper,
                upper_min_c=found.upper_min_c,
                upper_max_c=found.upper_max_c,
            )
        )
    said = say("dessert.on", upper=upper, lower=lower) + say("dessert.and").join(
        limits or [say("dessert.as_they_are")]
    )
    if found.most_h:
        said += say("dessert.at_its_best_for_h_then", most_h=found.most_h, too_late=found.too_late)
    return said + "."
