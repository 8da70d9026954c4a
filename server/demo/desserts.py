"""The whole desserts of Weir House: parts of several kinds and how they are built. Invented."""

from typing import Any

from formulas.content import Baking, Content

_TIN = "springform_20_70"

# dessert, then its parts: kind, name, and the versions of its formula, oldest first
DESSERTS: tuple[tuple[str, tuple[tuple[str, str, tuple[Content, ...]], ...]], ...] = (
    (
        "Malt cheesecake with elderflower",
        (
            ("crust", "Crumb base", (Content(
                lines_text="170 g digestive biscuits\n70 g butter\n20 g light brown sugar",
                vessel_key=_TIN, vessel_count=1, portions_per_vessel=10, fill_by="weight",
                portion_g=240),)),
            ("filling", "Malted cheese", (Content(
                lines_text="600 g cream cheese\n60 g malted barley powder\n120 g sugar\n3 eggs\n"
                "120 g sour cream\n15 g corn starch",
                family="cheesecake_tall", vessel_key=_TIN, vessel_count=1, portions_per_vessel=10,
                fill_pct=60, baking=Baking(set_c=150, crust="crumb", crust_mm=6, after="oven_off"),
                note="Cheese out of the cold two hours before. Never whipped."),)),
            ("glaze", "Elderflower glaze", (Content(
                lines_text="120 g apricot jam\n40 g elderflower cordial",
                note="Brushed on cold, a film of a millimetre."),)),
        ),
    ),
    (
        "Barley praline ring",
        (
            ("crust", "Choux ring", (Content(
                lines_text="250 g water\n110 g butter\n4 g salt\n140 g flour\n5 eggs",
                note="Piped round the tea ring, dried with the door ajar."),)),
            ("cream", "Praline cream", (Content(
                lines_text="500 g whole milk\n5 yolks\n90 g sugar\n45 g corn starch\n"
                "160 g praline paste\n100 g butter",
                beaten="yes", vessel_key="Tea ring 70", vessel_count=12, fill_pct=95,
                note="Paste in at 65, butter at room warmth when it is cold."),)),
        ),
    ),
    (
        "Burnt butter slice",
        (
            ("crust", "Puff sheets", (Content(
                lines_text="500 g flour\n400 g butter\n10 g salt\n250 g water",
                note="Docked; a third free, a third weighted, a third open."),)),
            ("cream", "Burnt butter cream", (Content(
                lines_text="1 l whole milk\n9 yolks\n200 g light brown sugar\n90 g corn starch\n"
                "80 g burnt butter",
                beaten="yes", vessel_key="Deck pan", vessel_count=1, portions_per_vessel=20,
                fill_by="weight", portion_g=1300),)),
        ),
    ),
    (
        "Plum and malt glass",
        (
            ("garnish", "Plums", (Content(lines_text="500 g plums", note="Stoned, cut late."),)),
            ("filling", "Malt pudding", (Content(
                lines_text="1 l whole milk\n50 g malted barley powder\n110 g sugar\n"
                "44 g corn starch\n5 yolks\n30 g butter",
                family="layered_pudding", beaten="no", vessel_key="Garden glass", vessel_count=8,
                fill_pct=75, note="Goes in hot: it wets the biscuits."),)),
            ("meringue", "Italian meringue", (Content(
                lines_text="5 whites\n300 g sugar\n90 g water", method="italian",
                note="From the whites the pudding leaves."),)),
        ),
    ),
    (
        "Smoked tea burnt cream",
        (
            ("filling", "Tea custard", (Content(
                lines_text="650 g cream 35%\n250 g whole milk\n14 g smoked tea\n10 yolks\n"
                "110 g sugar",
                family="brulee_yolk", vessel_key="Island pot", vessel_count=9, fill_pct=75,
                tray_key="Deck pan", bath_level="half",
                baking=Baking(set_c=150, water_c=80, after="rack")),)),
            ("garnish", "Sugar crust", (Content(
                lines_text="60 g sugar", note="Torched at the pass, on a dry, cold top."),)),
        ),
    ),
)  # fmt: skip
# How they are built: the stand, and the layers from the bottom by part (or a line of what is
# bought), each with how it lies.
BUILDS: dict[str, dict[str, Any]] = {
    "Quince and rye tart": {
        "vessel": "Hatch shell 22", "count": 2, "portions": 8, "cut": "wedges",
        "layers": (("Rye crust", "lining", 3), ("Quince cream", "poured", None),
                   ("Meringue", "mm", 22)),
    },
    "Chestnut custard pie": {
        "vessel": "Hatch shell 22", "count": 1, "portions": 8, "cut": "wedges",
        "layers": (("Rye crust", "lining", 3), ("Chestnut custard", "below_rim", 2)),
    },
    "Barley caramel flan": {
        "vessel": "Island pot", "count": 10, "portions": 1, "cut": "whole",
        "layers": (("Caramel", "lining", 2), ("Flan", "poured", None)),
    },
    "Malt cheesecake with elderflower": {
        "vessel": _TIN, "count": 1, "portions": 10, "cut": "wedges",
        "layers": (("Crumb base", "lining", 6), ("Malted cheese", "poured", None),
                   ("Elderflower glaze", "mm", 1)),
    },
    "Barley praline ring": {
        "vessel": "Tea ring 70", "count": 12, "portions": 1, "cut": "whole",
        "layers": (("Choux ring", "grams", 32), ("Praline cream", "grams", 60)),
    },
    "Burnt butter slice": {
        "vessel": "Deck pan", "count": 1, "portions": 20, "cut": "squares",
        "layers": (("Puff sheets", "sheet", 7), ("Burnt butter cream", "share", 0.5),
                   ("Puff sheets", "sheet", 7), ("Burnt butter cream", "share", 0.5),
                   ("Puff sheets", "sheet", 7)),
    },
    "Plum and malt glass": {
        "vessel": "Garden glass", "count": 8, "portions": 1, "cut": "whole", "filling": "hot",
        "meringue": "hot",
        "layers": (("140 g ladyfingers", "grams", 16), ("Plums", "grams", 30),
                   ("Malt pudding", "grams", 95), ("Italian meringue", "dome", 24)),
    },
    "Smoked tea burnt cream": {
        "vessel": "Island pot", "count": 9, "portions": 1, "cut": "whole",
        "layers": (("Tea custard", "poured", None), ("Sugar crust", "dusted", 8)),
    },
}  # fmt: skip
