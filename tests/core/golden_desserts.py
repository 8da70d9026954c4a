"""Desserts whole: how every layer lies, what every part must give, what the building guide says."""

from collections.abc import Iterator
from typing import Any

from tests.core.test_dessert import CREAM, DESSERTS, TOPPING, build, part, round_tin

# What lies in none of those: below the rim, in swirls, so deep and then the rest, over a dome.
_MORE = {
    "verrine": lambda: build({"shape": "round", "top_diameter_mm": 90, "bottom_diameter_mm": 60,
                              "depth_mm": 110}, [
        part("Cream", "cream", *CREAM, beaten=True), part("Top", "cream", *TOPPING)],
        [{"part": "Cream", "lies": "mm", "value": 12},
         {"item": "100 g digestive biscuits", "lies": "mm", "value": 6}, {"part": "Cream"},
         {"part": "Top", "lies": "swirls", "value": 18}], count=6),
    "bombe": lambda: build(round_tin(160, 60), [
        part("Cream", "filling", *CREAM, beaten=False),
        part("Cap", "meringue", "120 g egg white", "240 g sugar"),
        part("Glaze", "glaze", "200 g dark chocolate 60%", "200 g cream 35%")],
        [{"part": "Cream", "lies": "below_rim", "value": 15},
         {"part": "Cap", "lies": "dome", "value": 40},
         {"part": "Glaze", "lies": "mm", "value": 2},
         {"item": "20 g icing sugar", "lies": "dusted", "value": 0.8}]),
}  # fmt: skip

_LAYER = ("lies", "mm", "from_mm", "to_mm", "ml_each", "g_each", "walls", "wall_mm", "width_mm",
          "top_width_mm", "over_mm", "kcal_each")  # fmt: skip
_PART = ("need_g", "written_g", "left_g", "times", "lost_pct", "scaled_times")
_STEP = ("kind", "title", "sign", "avoid", "caution", "low_c", "high_c", "hold_s", "grams", "count",
         "there")  # fmt: skip
_STAND = ("shape", "top_mm", "depth_mm", "brim_ml", "count", "portions", "top_of_build_mm",
          "cut_width_mm")  # fmt: skip


def _rows(of: str, what: str, key: str, rows: list[Any], fields: tuple[str, ...]) -> Any:
    for row in rows:
        yield {"of": of, "what": what, "name": row[key]} | {f: row[f] for f in fields}


def stacks() -> Iterator[dict[str, object]]:
    """Every stand, layer and part of our own desserts, and one portion."""
    for of, make in {**DESSERTS, **_MORE}.items():
        made = make()
        yield from _rows(of, "stand", "name", [made["stand"]], _STAND)
        yield from _rows(of, "layer", "name", made["layers"], _LAYER)
        yield from _rows(of, "part", "name", made["parts"], _PART)
        portion = made["portion"]
        yield {"of": of, "what": "portion", "name": "; ".join(portion["allergens"]),
               "g_each": portion["g"], "kcal_each": portion["kcal"]}  # fmt: skip
        for line in (line for given in made["parts"] for line in given["scaled_lines"]):
            yield {"of": of, "what": "line", "name": line}


def buildings() -> Iterator[dict[str, object]]:
    """Every step of putting them together, and what is warned of."""
    for of, make in DESSERTS.items():
        made = make()
        yield from _rows(of, "step", "key", made["guide"], _STEP)
        for warning in made["warnings"]:
            yield {"of": of, "what": "warning", "title": warning}
        for step in made["steps"]:
            yield {"of": of, "what": "thread", "name": step["key"], "title": step["words"],
                   "kind": " ".join(step["uses"] + step["holds"]), "there": step["spoils"],
                   "sign": step["comes_hot"], "avoid": step["critical"]}  # fmt: skip
