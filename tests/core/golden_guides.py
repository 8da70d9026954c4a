"""Guides of the stove and the bench, step by step, as they are told."""

from collections.abc import Iterator

from bellcrumb.contract import compute
from bellcrumb.formula.starters import starters
from bellcrumb.texture.families import families
from tests.core.test_dessert import DESSERTS

_SCHOOLS = ("hot_into_eggs", "eggs_after_boil", "held_back_liquid")
# Beside the formulas that families begin with: what is let down, dissolved, melted or high up.
_MORE: dict[str, tuple[list[str], dict[str, object]]] = {
    "sauce": (["200 g sugar", "200 g cream 35%", "60 g butter", "3 g salt"], {}),
    "toffee": (["200 g sugar", "60 g butter"], {}),
    "caramel": (["200 g sugar", "60 g water"], {}),
    "dry caramel": (["200 g sugar"], {"part_kind": "caramel"}),
    "agar": (["500 ml milk", "4 yolks", "80 g sugar", "1 g agar"], {}),
    "tapioca": (["750 ml milk", "80 g small pearl tapioca", "2 eggs", "80 g sugar"], {}),
    "semolina": (["1 l milk", "80 g semolina", "80 g sugar", "20 g rum"], {}),
    "on a mountain": (["1 l milk", "9 yolks", "150 g sugar", "85 g corn starch"],
                      {"altitude_m": 2000}),
    "thin": (["1 l milk", "10 yolks", "150 g sugar", "10 g corn starch"], {"family": "anglaise"}),
    "flour": (["500 ml milk", "4 yolks", "150 g sugar", "45 g flour"], {"ring": "low"}),
    "italian": (["120 g egg whites", "240 g sugar", "72 g water"], {"part_kind": "meringue"}),
    "swiss": (["120 g egg whites", "240 g sugar"], {"part_kind": "meringue"}),
    "french": (["120 g egg whites", "240 g sugar"],
               {"part_kind": "meringue", "method": "french"}),
    "whipped": (["500 g cream 35%", "40 g sugar"], {"part_kind": "cream"}),
    "whipped with gelatine": (["500 g cream 35%", "40 g sugar", "3 g gelatine"],
                              {"part_kind": "cream"}),
    "ganache": (["200 g cream 35%", "200 g dark chocolate 60%", "20 g butter"],
                {"part_kind": "glaze"}),
    "mirror": (["150 g sugar", "75 g water", "150 g glucose syrup", "150 g white chocolate",
                "100 g condensed milk", "10 g gelatine"], {"part_kind": "glaze"}),
    "cocoa mirror": (["200 g sugar", "130 g water", "70 g cocoa powder", "130 g cream 35%",
                      "10 g gelatine"], {"part_kind": "glaze"}),
    "choux": (["125 g water", "125 g milk", "110 g butter", "3 g salt", "140 g flour", "5 eggs"],
              {"part_kind": "crust"}),
    "condensed citrus": (["400 g sweetened condensed milk", "120 g lime juice", "4 yolks"],
                         {"part_kind": "filling"}),
    "sabayon with cream": (["6 yolks", "120 g sugar", "150 g marsala", "200 g cream 35%"],
                           {"family": "sabayon"}),
    "chiboust with whites": (["1 l milk", "13 yolks", "100 g sugar", "80 g corn starch",
                              "16 g gelatine", "13 egg whites, whipped"], {"family": "chiboust"}),
    "bavarian with both": (["500 ml milk", "6 yolks", "120 g sugar", "10 g gelatine",
                            "400 g cream 35%, whipped", "4 egg whites, whipped"],
                           {"family": "bavarian_cream"}),
    "custard with whites": (["500 ml milk", "5 yolks", "100 g sugar", "40 g corn starch",
                             "4 egg whites, whipped"], {"family": "pastry_cream"}),
    "drawn": (["500 ml milk", "10 g earl grey tea", "100 g yolks", "100 g sugar",
               "45 g corn starch"], {}),
    "drawn before the starch": (["500 ml milk", "20 g mint", "5 g hay", "40 g corn starch",
                                 "60 g sugar"], {}),
    "drawn, half held back": (["500 ml milk", "30 g coffee beans", "100 g yolks", "100 g sugar",
                               "45 g corn starch"],
                              {"school": "held_back_liquid", "held_back_ml": 250}),
    "roux": (["60 g butter", "60 g flour", "500 g milk", "250 g cream 35%", "150 g sugar"],
             {"family": "sugar_cream"}),
}  # fmt: skip


def _asked() -> Iterator[tuple[str, dict[str, object]]]:
    for key, starter in starters().items():
        kin = families()[key]
        if not kin.on_the_stove and kin.texture_mode != "boiled_baked":
            continue
        schools = (
            _SCHOOLS if any("yolk" in x or "egg" in x for x in starter.lines) else _SCHOOLS[:1]
        )
        for school in schools:
            name = key if school == _SCHOOLS[0] else f"{key}, {school}"
            yield name, {"lines": list(starter.lines), "family": key, "school": school}
    for name, (lines, more) in _MORE.items():
        yield name, {"lines": lines, **more}


def guides() -> Iterator[dict[str, object]]:
    """One row for each step, and one for what stands ready and what is warned of."""
    for name, given in _asked():
        found = compute("plan", given)
        yield {"of": name, "step": "", "title": "; ".join(found["checks"]),
               "sign": "; ".join(found["warnings"])}  # fmt: skip
        for step in found["steps"]:
            yield {
                "of": name, "step": step["code"], "title": step["title"], "sign": step["sign"],
                "avoid": step["avoid"], "low_c": step["low_c"], "high_c": step["high_c"],
                "never_c": step["never_c"], "hold_s": step["hold_s"], "minutes": step["minutes"],
            }  # fmt: skip


def threads() -> Iterator[dict[str, object]]:
    """Every step of our own desserts with its minutes and when it may begin before the plate."""
    for name, make in DESSERTS.items():
        for step in make()["steps"]:
            gaps = " ".join(
                f"{gap['key']}:{gap['at_least_min']:.4g}-{gap['at_most_min'] or 0:.4g}"
                for gap in step["after"]
            )
            yield {
                "of": name, "step": step["key"], "hands_min": step["hands_min"],
                "low_min": step["wait_low_min"], "wait_min": step["wait_min"],
                "high_min": step["wait_high_min"], "earliest_min": step["earliest_min"],
                "latest_min": step["latest_min"], "oven_c": step["oven_c"], "after": gaps,
            }  # fmt: skip
