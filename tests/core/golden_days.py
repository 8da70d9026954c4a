"""A day before it is solved: its tasks and what each takes, what is bought, weighed and held."""

from collections.abc import Iterator
from datetime import datetime, timedelta

from bellcrumb.planner.day_asked import asked_of, wanted_of
from bellcrumb.planner.day_lists import buy_out, eggs_of, joined_out, mise_out, moulds_out
from bellcrumb.shapes.plan import DayIn
from tests.core.test_dessert import CREAM, DOUGH, TOPPING, part, round_tin

_NOW = datetime(2026, 11, 28, 6, 0)
_TART = {
    "stand": {"vessel": round_tin(230, 40), "count": 1, "portions_each": 8, "cut": "wedges"},
    "parts": [part("Shell", "crust", *DOUGH), part("Cream", "cream", *CREAM, beaten=False),
              part("Topping", "cream", *TOPPING)],
    "layers": [{"part": "Shell"}, {"part": "Cream"},
               {"part": "Topping", "lies": "mm", "value": 15}],
}  # fmt: skip
_FLAN = {
    "stand": {"vessel": "dariole_120", "count": 6, "portions_each": 1},
    "parts": [part("Caramel", "caramel", "200 g sugar", "60 g water"),
              part("Flan", "filling", "1 l whole milk", "8 eggs", "200 g sugar")],
}  # fmt: skip
_GLASS = {
    "stand": {"vessel": round_tin(75, 90), "count": 6, "portions_each": 1},
    "parts": [part("Cream", "cream", *CREAM, beaten=False),
              part("Meringue", "meringue", "120 g egg white", "240 g sugar", "80 g water")],
    "layers": [{"item": "160 g ladyfingers", "lies": "grams", "value": 20},
               {"part": "Cream", "lies": "share", "value": 0.6},
               {"part": "Meringue", "lies": "dome", "value": 25}],
}  # fmt: skip


def _day(
    *services: tuple[float, list[tuple[str, dict[str, object], int]]], **more: object
) -> DayIn:
    people = [{"name": f"cook {n}", "from": _NOW.isoformat(),
               "to": (_NOW + timedelta(hours=14)).isoformat()} for n in range(2)]  # fmt: skip
    return DayIn.model_validate({
        "now": _NOW.isoformat(), "people": people, "rings": ["a", "b"],
        "ovens": [{"name": "deck"}], "cold": [{"name": "reach-in", "trays": 10}],
        "services": [
            {"at": (_NOW + timedelta(hours=h)).isoformat(),
             "items": [{"name": n, "build": b, "portions": p} for n, b, p in items]}
            for h, items in services
        ], **more,
    })  # fmt: skip


_DAYS = {
    "a tart": _day((12, [("Tart", _TART, 16)])),
    "shared cream": _day((12, [("Tart", _TART, 16), ("Glass", _GLASS, 12)]), (13, [
        ("Flan", _FLAN, 20)])),
    "with a house": _day(
        (12, [("Tart", _TART, 24), ("Flan", _FLAN, 6)]), join=False,
        house=["2 l milk", "12 eggs", "1 kg sugar"],
        packs={"milk": 1000, "butter": 250, "flour": 1000, "cream 35%": 500},
        moulds=[{"vessel": "dariole_120", "count": 4}], stock=[{"name": "Tart", "portions": 8}],
    ),
}  # fmt: skip


def tasks() -> Iterator[dict[str, object]]:
    """Every task of some days: hands, waiting, what it occupies, after what and how soon."""
    for of, given in _DAYS.items():
        asked, said = asked_of(given, wanted_of(given)[0], None, None, join=given.join)
        for t in asked.day.tasks:
            after = " ".join(
                f"{asked.day.tasks[x.before].key}:{x.least}-{'' if x.most is None else x.most}"
                for x in t.after
            )
            yield {
                "day": of, "key": t.key, "what": t.what, "hands": t.hands, "wait": t.wait,
                "rings": t.rings, "mixers": t.mixers, "trays": t.trays, "oven_c": t.oven_c,
                "shelves": t.shelves, "by": t.by, "not_before": t.not_before, "hot": t.comes_hot,
                "spoils": t.spoils, "steps": " ".join(t.steps), "after": after,
            }  # fmt: skip
        for text in said:
            yield {"day": of, "what": text}


def lists() -> Iterator[dict[str, object]]:
    """What a day needs: eggs, what is bought in which packs, weighed for what, in which moulds."""
    for of, given in _DAYS.items():
        asked, _ = asked_of(given, wanted_of(given)[0], None, None, join=given.join)
        at = {t.key: 10 * n for n, t in enumerate(asked.day.tasks)}
        begins = {
            key: _NOW + timedelta(minutes=at[t.key])
            for t in asked.day.tasks
            for key in t.steps or (t.key,)
        }
        yield {"day": of, "what": "eggs", "need_g": eggs_of(asked, None)}
        for b in buy_out(given, asked, None):
            yield {"day": of, "what": "buy", "name": b.name, "need_g": b.need_g,
                   "pack_g": b.pack_g, "house_g": b.house_g, "buy_g": b.buy_g, "pieces": b.pieces,
                   "packs": b.packs}  # fmt: skip
        for m in mise_out(asked, begins):
            yield {"day": of, "what": f"{m.dessert}, {m.part}", "name": " / ".join(m.lines),
                   "at": m.at.isoformat()}  # fmt: skip
        for v in moulds_out(given, asked, at):
            yield {"day": of, "what": "moulds", "name": v.vessel, "pieces": v.used, "packs": v.have}
        for j in joined_out(asked):
            yield {"day": of, "what": "joined", "name": f"{j.part}: {', '.join(j.desserts)}",
                   "need_g": j.grams}  # fmt: skip
