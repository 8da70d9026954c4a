"""More whole answers of the front door: crusts, bends, scales, foams, ovens and the bench."""

from collections.abc import Iterator

from tests.core.golden_answers import fields_of
from tests.core.golden_cases import BRULEE, HAY, PASTRY, RAMEKIN, Row

CHOUX = ["250 g water", "110 g butter", "140 g flour", "5 eggs"]
TART_MOULD = {"shape": "round", "top_diameter_mm": 230, "bottom_diameter_mm": 220, "depth_mm": 35}
PIE = ["3 eggs", "425 g pumpkin puree", "340 g evaporated milk", "150 g brown sugar"]
EGGS = {"name": "Curd", "lines": ["500 g lemon juice", "9 eggs", "575 g sugar"]}
_CASES: tuple[tuple[str, str, dict[str, object]], ...] = (
    ("crust, choux", "crust", {"lines": CHOUX, "fan": True}),
    ("crust, puff", "crust", {"lines": ["500 g flour", "400 g butter", "250 g water"]}),
    ("crust, crumbs", "crust", {"lines": ["200 g digestive biscuits", "90 g butter"],
                                "goes": "baked_in", "barrier": "chocolate"}),
    ("crust, sponge", "crust", {"lines": ["4 eggs", "120 g sugar", "120 g flour"]}),
    ("crust, hot start", "crust", {"school": "hot_start", "goes": "hot_filling", "offset_k": -12,
                                   "dough_mm": 5, "width_mm": 80, "wetness": "wet",
                                   "filled_at_c": 80}),
    ("crust, frozen, buttered", "crust", {"school": "frozen", "barrier": "butter",
                                          "wetness": "dry"}),
    ("bent to unmould", "solve", {"lines": PASTRY, "family": "starch_pudding",
                                  "wishes": {"set_class": "unmould"}}),
    ("bent, no gluten", "solve", {"lines": ["1 l whole milk", "9 yolks", "200 g sugar",
                                            "110 g plain flour"],
                                  "wishes": {"without": ["gluten"], "less_eggy": True}}),
    ("bent, whole eggs", "solve", {"lines": BRULEE, "wishes": {"whole_eggs": True}}),
    ("bent to a point", "solve", {"lines": PASTRY, "wishes": {"starch_per_1000": 50,
                                                              "egg_per_1000": 120}}),
    ("bent, eggs of another size", "solve", {"lines": PASTRY,
                                             "wishes": {"eggs_bought_as": "EU/UK M"}}),
    ("bent, what there is", "solve", {"lines": PASTRY, "wishes": {"have": "13 yolks"}}),
    ("bent, another thing", "solve", {"lines": PASTRY, "wishes": {
        "swaps": [{"old": "whole milk", "new": "oat drink"},
                  {"old": "corn starch", "new": "flour"}]}}),
    ("scaled to vessels", "scale", {"lines": HAY, "vessel": "ramekin_180", "by": "vessels",
                                    "value": 11}),
    ("scaled by its liquid", "scale", {"lines": PASTRY, "by": "liquid", "value": 640}),
    ("scaled by its weight", "scale", {"lines": BRULEE, "by": "batch", "value": 3000}),
    ("whipped for a pie", "whip", {"cream_g": 500, "icing_sugar_g": 40, "pie_diameter_mm": 230,
                                   "room_c": 27, "cream_c": 9}),
    ("whipped, lean", "whip", {"cream_g": 400, "fat_pct": 27, "use": "pipe"}),
    ("whipped, double", "whip", {"cream_g": 400, "fat_pct": 48, "use": "fold", "sugar_g": 60,
                                 "stabiliser_pct": 0.8}),
    ("finished", "finish", {"mix": {"lines": PASTRY, "temp_c": 95}, "family": "mousseline",
                            "extras": {"lines": ["250 g butter", "30 g rum"]}}),
    ("oven walked", "oven_walk", {"set_c": 160, "readings": [
        {"t_s": 60 * m, "temp_c": 18 + 62 * (1 - 0.972**m)} for m in range(0, 91, 3)],
        "shelf_c": 151}),
    ("chosen", "choose", {"mix": {"lines": HAY}, "vessel": RAMEKIN, "count": 6,
                          "oven": {"set_c": 150}, "bath": {"level": "half"}, "within_min": 60}),
    ("converted", "convert", {"mix": {"lines": HAY}, "vessel": RAMEKIN, "count": 6,
                              "oven": {"set_c": 150}, "bath": {"level": "half"}}),
    ("pie baked", "bake", {"mix": {"lines": PIE}, "vessel": TART_MOULD, "oven": {"set_c": 175},
                           "crust": {}, "after": "oven_off"}),
    ("cheesecake baked", "bake", {"mix": {"lines": ["900 g cream cheese", "250 g sugar", "5 eggs"]},
                                  "vessel": "springform_23_76", "oven": {"set_c": 160},
                                  "doneness": "just_set"}),
    ("cold pots, fan", "bake", {"mix": {"lines": BRULEE, "temp_c": 5}, "vessel": RAMEKIN,
                                "count": 8, "oven": {"set_c": 120, "kind": "fan"},
                                "doneness": "clean_knife"}),
    ("eggs of a day", "ledger", {"desserts": [
        {"name": "Cream", "lines": PASTRY, "times": 2}, EGGS,
        {"name": "Meringue", "lines": ["240 g egg whites", "480 g sugar"]}]}),
    ("compared", "compare", {"left": {"lines": PASTRY}, "right": {"lines": [
        "1 l whole milk", "8 yolks", "200 g sugar", "100 g plain flour", "1 vanilla pod"]}}),
    ("totalled", "dessert", {"parts": [
        {"name": "Cream", "part_kind": "cream", "lines": PASTRY, "vessel": "tart_ring_22",
         "count": 2, "portions_per_vessel": 8},
        {"name": "Curd", "part_kind": "filling", "lines": EGGS["lines"]}]}),
    *((f"bench, {name}", "plan", {"lines": lines, "part_kind": kind}) for name, kind, lines in (
        ("crumbs", "crust", ["200 g digestive biscuits", "90 g butter"]),
        ("sweet dough", "crust", ["250 g flour", "150 g butter", "90 g icing sugar", "1 egg"]),
        ("flaky dough", "crust", ["300 g flour", "200 g butter", "80 g water"]),
        ("praline", "garnish", ["200 g hazelnuts", "150 g sugar"]),
        ("nappage", "glaze", ["200 g apricot jam", "30 g water"]),
        ("brulee sugar", "garnish", ["80 g sugar"]),
        ("coulis", "glaze", ["500 g raspberries", "100 g icing sugar"]),
    )),
)  # fmt: skip


def more_answers() -> Iterator[Row]:
    """The same as ``answers``, of the kinds it has few of."""
    yield from fields_of(_CASES)
