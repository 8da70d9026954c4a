"""Rehearsals run to their end by good and bad cooks: the pot by the minute, what is said, what it
comes to."""

from collections.abc import Iterator
from dataclasses import asdict

from bellcrumb.rehearse.exercises import EXERCISES, exercise
from bellcrumb.rehearse.replay import replay
from bellcrumb.rehearse.world import LONGEST_S, Act

_STIRRED = [Act(0, "heat", 4), Act(0, "stir", 1)]
_LADLES = [Act(5 + 8 * n, "ladle", 40 if n < 4 else 100 if n < 8 else 250) for n in range(10)]
_COOKS: dict[str, tuple[str, list[Act]]] = {
    "scalded": ("scald", [*_STIRRED, Act(420, "lift", 1), Act(421, "end")]),
    "scald left alone": ("scald", [Act(0, "heat", 9)]),
    "tempered": ("temper", [Act(0, "stir", 1), *_LADLES, Act(99, "end")]),
    "tempered still": ("temper", [*_LADLES, Act(99, "end")]),
    "all at once": ("temper", [Act(5, "ladle", 1030), Act(60, "end")]),
    "anglaise, gentle": ("anglaise", [Act(0, "heat", 2), Act(0, "stir", 1), Act(900, "lift", 1),
                                      Act(930, "lift", 0), Act(1500, "end")]),
    "anglaise, hot": ("anglaise", [Act(0, "heat", 7), Act(0, "stir", 1), Act(400, "end")]),
    "cream, held": ("pastry_cream", [Act(0, "heat", 3), Act(0, "stir", 1), Act(900, "end")]),
    "cream, never stirred": ("pastry_cream", [Act(0, "heat", 5), Act(700, "end")]),
    "syrup": ("syrup", [Act(0, "heat", 4), Act(700, "pour")]),
    "syrup, stirred": ("syrup", [Act(0, "heat", 5), Act(600, "stir", 1), Act(800, "pour")]),
    "caramel, stopped": ("caramel", [Act(0, "heat", 4), Act(800, "cold_water"), Act(802, "pour")]),
    "caramel, forgotten": ("caramel", [Act(0, "heat", 9), Act(1200, "pour")]),
    "italian": ("italian", [Act(0, "heat", 4), Act(350, "whites"), Act(560, "pour")]),
    "whipped": ("cream", [Act(0, "heat", 5), Act(130, "end")]),
    "whipped to butter": ("cream", [Act(0, "heat", 9), Act(400, "end")]),
    "pulled early": ("oven", [Act(1500, "look"), Act(2100, "end")]),
    "pulled": ("oven", [Act(60.0 * n, "look") for n in (20, 30, 40)] + [Act(3000, "end")]),
    "pulled late": ("oven", [Act(3560, "end")]),
}  # fmt: skip


def rehearsed() -> Iterator[dict[str, object]]:
    """Each exercise by its text, then each cook."""
    for ex in EXERCISES:
        yield {"of": ex.key, "what": "exercise", "says": ex.task, "why": ex.name}
    for of, (key, acts) in _COOKS.items():
        ex = exercise(key)
        for share in (0.3, 0.7):  # what the guide says on the way
            at_s = share * acts[-1].at_s
            now = replay(ex, 3, [a for a in acts if a.at_s <= at_s], at_s)
            yield {"of": of, "what": "told", "at_s": at_s, "temp_c": now.world.temp_c,
                   "figure": now.moment.figure, "word": now.figure_word,
                   "says": now.moment.headline, "why": now.moment.next_move,
                   "urgency": now.moment.urgency}  # fmt: skip
        run = replay(ex, 3, acts, LONGEST_S)
        due = 0.0
        for at_s, temp in run.curve:
            if at_s >= due:
                yield {"of": of, "what": "curve", "at_s": at_s, "temp_c": temp}
                due = at_s + 120
        for slip in run.slips:
            yield {"of": of, "what": "slip", "at_s": slip.at_s, "says": slip.what, "why": slip.why}
        for name, figure in _stands(asdict(run.world)):
            yield {"of": of, "what": name, "figure": figure}
        yield {"of": of, "what": run.result, "says": " / ".join(run.says)}


def _stands(world: dict[str, object]) -> Iterator[tuple[str, object]]:
    """Every figure of a world with its name, those of its parts among them."""
    for name, value in world.items():
        yield from _stands(value) if isinstance(value, dict) else [(name, value)]
