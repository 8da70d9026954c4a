"""What happened in a cook against what was planned, in order of what mattered."""

from collections.abc import Callable, Sequence
from dataclasses import KW_ONLY, dataclass

from bellcrumb.book.record import cooled
from bellcrumb.curve.watch import NOISE_S, Reading, smoothed
from bellcrumb.laws.safety import COOLING, CoolingRule
from bellcrumb.words import say

# A rise in so many seconds is one ladle's; so much beyond the ladder's own is a jump. Estimates.
_LADLE_S, _BEYOND_K = 10.0, 6.0
# So far off its plan, a ring or an oven is another one, or set otherwise: no weak ring is so weak.
_OTHER_RING, _OTHER_OVEN_K = 1.7, 15.0
_LEFT_OUT = 0.88  # of what was to be poured; a drip in the jug is less
_UNDER_K = 1.0
_BOWL_C = 60.0  # eggs are never so warm before the first ladle: the probe stayed in the pot
_OTHER_EGGS = 0.04


@dataclass(frozen=True)
class Happened:
    """One thing that happened; ``weight`` 0 to 1 is how much it matters."""

    code: str
    weight: float
    value: float | None
    _: KW_ONLY
    words: str


@dataclass(frozen=True)
class StepSeen:
    """A step as it was planned and when it was entered and left, on the cook's clock."""

    key: str
    kind: str
    entered_s: float
    _: KW_ONLY
    left_s: float
    low_c: float | None = None
    never_c: float | None = None
    hold_s: float = 0.0


@dataclass(frozen=True)
class CookSeen:
    """A whole cook: its steps, its curve, and what else was measured; None: it was not."""

    steps: Sequence[StepSeen] = ()
    curve: Sequence[Reading] = ()
    heat_predicted_s: float | None = None
    _: KW_ONLY
    heat_took_s: float | None = None
    ladder_jump_k: float | None = None
    to_pour_g: float | None = None
    poured_g: float | None = None
    oven_moved_k: float | None = None
    egg_share: float | None = None
    rule: CoolingRule = COOLING


def happened(cook: CookSeen) -> list[Happened]:
    """Everything that did not go as it was planned; empty where all did."""
    found: list[Happened] = []

    def tell(code: str, weight: float, value: float | None, words: str) -> None:
        found.append(Happened(code, min(1.0, max(0.0, weight)), value, words=words))

    curve = smoothed(list(cook.curve))
    for step in cook.steps:
        mine = [r for r in curve if step.entered_s <= r[0] <= step.left_s]
        if step.hold_s and step.low_c is not None:
            _dips(step, mine, tell)
        if step.kind == "temper":
            _tempered(step, mine, cook.ladder_jump_k, tell)
    if cook.heat_predicted_s and cook.heat_took_s:
        share = cook.heat_predicted_s / cook.heat_took_s
        if not 1 / _OTHER_RING < share < _OTHER_RING:
            tell("other_ring", 0.5, share, say("book.the_heat_came_at_of_what", share=100 * share))
    if cook.oven_moved_k is not None and abs(cook.oven_moved_k) > _OTHER_OVEN_K:
        word = say("book.hotter") if cook.oven_moved_k > 0 else say("book.cooler")
        tell(
            "other_dial",
            0.7,
            cook.oven_moved_k,
            say("book.the_oven_ran_k_than_it", oven_moved_k=abs(cook.oven_moved_k), word=word),
        )
    poured, asked = cook.poured_g, cook.to_pour_g
    if asked and poured is not None and 0 < poured < _LEFT_OUT * asked:
        tell(
            "left_out",
            2 * (1 - poured / asked),
            asked - poured,
            say("book.g_of_g_never_came_onto", asked=asked - poured, asked_2=asked),
        )
    if cook.egg_share is not None and abs(cook.egg_share - 1) > _OTHER_EGGS:
        word, off = (
            (say("book.more") if cook.egg_share > 1 else say("book.less")),
            abs(cook.egg_share - 1),
        )
        tell(
            "other_eggs",
            4 * off,
            cook.egg_share,
            say("book.eggs_of_another_grade_egg", off=100 * off, word=word),
        )
    _cold(cook, curve, tell)
    return sorted(found, key=lambda h: -h.weight)


Tell = Callable[[str, float, float | None, str], None]


def _dips(step: StepSeen, mine: list[Reading], tell: Tell) -> None:
    """Times it fell out of its hold and came back."""
    assert step.low_c is not None
    dips, inside, out_since, out_s = 0, False, None, 0.0
    for t, c in mine:
        if c >= step.low_c:
            if out_since is not None and t - out_since > NOISE_S:
                dips, out_s = dips + 1, out_s + t - out_since
            inside, out_since = True, None
        elif inside and c < step.low_c - _UNDER_K and out_since is None:
            out_since = t
    if dips:
        times = (
            say("book.once")
            if dips == 1
            else say("book.twice")
            if dips == 2
            else say("book.times", dips=dips)
        )
        tell(
            "dips",
            0.2 + out_s / max(step.hold_s, 60.0) / 2,
            float(dips),
            say("book.fell_out_of_its_hold_s", times=times, out_s=out_s),
        )


def _tempered(step: StepSeen, mine: list[Reading], ladder_k: float | None, tell: Tell) -> None:
    """Whether a ladle was too hot or too big: a jump, or past where egg scrambles."""
    # The probe comes out of the hot liquid into the bowl: the bowl begins where it is coldest.
    coldest = min(range(len(mine)), key=lambda n: mine[n][1], default=0)
    mine = mine[coldest:]
    if len(mine) < 3 or mine[0][1] > _BOWL_C:
        return
    jump = max((c - c0 for t0, c0 in mine for t, c in mine if t0 < t <= t0 + _LADLE_S), default=0.0)
    if ladder_k is not None and jump > ladder_k + _BEYOND_K:
        tell(
            "temper_jump",
            0.3 + (jump - ladder_k) / 60,
            jump,
            say("book.jumped_k_in_one_go_while", jump=jump, ladder_k=ladder_k),
        )
    top = max(c for _, c in mine)
    if step.never_c is not None and top >= step.never_c:
        tell(
            "temper_hot",
            0.9,
            top,
            say("book.c_while_tempering_egg_scrambles_from", top=top, never_c=step.never_c),
        )


def _cold(cook: CookSeen, curve: list[Reading], tell: Tell) -> None:
    """Its way through the warm zone, against the two stages of the kitchen's rule."""
    down = cooled(curve, cook.rule)
    if down is None or down.complies is not False:
        return
    rule = cook.rule
    first = down.to_mid_min is None or down.to_mid_min > rule.mid_min
    took, most, to_c = (
        (down.to_mid_min, rule.mid_min, rule.mid_c)
        if first
        else (down.to_end_min, rule.end_min, rule.end_c)
    )
    said = say("book.min", took=took) if took else say("book.more_than_min", most=most)
    tell(
        "warm_zone",
        0.8,
        took,
        say("book.from_to_c_min_are_allowed", said=said, from_c=rule.from_c, to_c=to_c, most=most),
    )
