"""What Weir House owns, pays and makes: invented, like everything about it."""

from formulas.content import Baking, Content

RINGS = (
    ("Gas, back left", "gas", 1300),
    ("Gas, back right", "gas", 1900),
    ("Gas, front left", "gas", 1900),
    ("Gas, front right", "gas", 2700),
    ("Induction plate", "induction", 2000),
)
# name, kind, shape, top (or length), bottom (or width), depth, flutes in mm, made of
VESSELS = (
    ("Garden glass", "glass", "round", 70, 56, 62, 0, "glass"),
    ("Tea ring 70", "ring", "round", 70, 70, 20, 0, "steel"),
    ("Hatch shell 22", "shell", "round", 218, 200, 28, 5, "tin"),
    ("Island pot", "mould", "round", 68, 60, 52, 0, "stoneware"),
    ("Deck pan", "pan", "rect", 500, 300, 65, 0, "steel"),
)
# How many there are; of what is not named there are always enough.
COUNTS = {"Hatch shell 22": 4, "Tea ring 70": 24, "Island pot": 40, "Garden glass": 30}
# name, category, fat, sugars, protein, starch, water, g per cup, g per piece
PANTRY = (
    ("Bay leaf", "flavour", 8, 2, 7, 0, 6, None, 0.3, ""),
    ("Malted barley powder", "own", 2, 58, 10, 20, 4, 115, None, "gluten"),
    ("Elderflower cordial", "sugar", 0, 55, 0, 0, None, 300, None, ""),
    ("Hay, toasted", "flavour", 2, 3, 8, 0, 8, None, None, ""),
    ("Quince cheese", "own", 0, 62, 0, 0, 33, None, None, ""),
    ("Rye flour", "starch", 2, 1, 8, 62, 13, 110, None, "gluten"),
)
# line, price in euro
PRICES = (
    ("1 l whole milk", 1.15),
    ("1 kg cream 35%", 4.60),
    ("30 eggs", 7.20),
    ("1 kg sugar", 1.10),
    ("1 kg light brown sugar", 2.30),
    ("1 kg corn starch", 2.40),
    ("1 kg flour", 0.95),
    ("1 kg butter", 8.90),
    ("1 kg rye flour", 1.40),
    ("1 kg quince cheese", 9.50),
    ("1 kg plums", 4.20),
    ("1 kg apricot jam", 5.20),
    ("1 kg digestive biscuits", 4.10),
    ("1 kg cream cheese", 7.80),
    ("1 kg praline paste", 21.00),
)

# dessert, then its parts: kind, name, and the versions of its formula, oldest first
FORMULAS: tuple[tuple[str, tuple[tuple[str, str, tuple[Content, ...]], ...]], ...] = (
    (
        "Bay leaf pastry cream",
        (
            (
                "cream",
                "Cream",
                (
                    Content(
                        lines_text="1 l whole milk\n4 bay leaves\n10 yolks\n195 g sugar\n"
                        "80 g corn starch\n45 g butter\na pinch of salt",
                        beaten="yes",
                        vessel_key="Tea ring 70",
                        vessel_count=18,
                        fill_pct=95,
                        note="Corn starch school. Leaves out before the first ladle.",
                    ),
                ),
            ),
        ),
    ),
    (
        "Malted barley pastry cream",
        (
            (
                "cream",
                "Cream",
                (
                    Content(
                        lines_text="1 l whole milk\n45 g malted barley powder\n10 yolks\n"
                        "150 g light brown sugar\n135 g flour\n60 g butter",
                        beaten="yes",
                        vessel_key="Hatch shell 22",
                        vessel_count=2,
                        portions_per_vessel=8,
                        fill_pct=80,
                        note="Flour school: two minutes at the boil, holds in the hatch shells.",
                    ),
                ),
            ),
        ),
    ),
    (
        "Smoked tea pastry cream",
        (
            (
                "cream",
                "Cream",
                (
                    Content(
                        lines_text="850 g whole milk\n150 g cream 35%\n14 g smoked tea\n8 yolks\n"
                        "210 g sugar\n68 g corn starch",
                        school="eggs_after_boil",
                        family="pastry_cream",
                        beaten="yes",
                        vessel_key="Tea ring 70",
                        vessel_count=18,
                        fill_pct=95,
                        note="Too soft for the rings and too sweet beside the tea.",
                    ),
                    Content(
                        lines_text="850 g whole milk\n150 g cream 35%\n14 g smoked tea\n9 yolks\n"
                        "180 g sugar\n84 g corn starch",
                        school="eggs_after_boil",
                        family="pastry_cream",
                        beaten="yes",
                        vessel_key="Tea ring 70",
                        vessel_count=18,
                        fill_pct=95,
                        note="Eggs after the boil: softer, then to the bubbles again.",
                    ),
                ),
            ),
        ),
    ),
    (
        "Elderflower anglaise",
        (
            (
                "cream",
                "Cream",
                (
                    Content(
                        lines_text="700 g whole milk\n300 g cream 35%\n190 g yolk\n95 g sugar\n"
                        "90 g elderflower cordial",
                        vessel_key="Island pot",
                        vessel_count=12,
                        fill_pct=80,
                        cook_setting_pct=25,
                        note="No starch: off the heat at 83.",
                    ),
                ),
            ),
        ),
    ),
    (
        "Burnt butter pudding",
        (
            (
                "filling",
                "Filling",
                (
                    Content(
                        lines_text="1 l whole milk\n3 yolks\n150 g light brown sugar\n"
                        "42 g corn starch\n60 g butter\na pinch of salt",
                        vessel_key="Garden glass",
                        vessel_count=8,
                        fill_pct=85,
                        note="Butter browned first, in at the end.",
                    ),
                ),
            ),
        ),
    ),
    (
        "Toasted hay pots",
        (
            (
                "cream",
                "Custard",
                (
                    Content(
                        lines_text="720 g whole milk\n720 g cream 35%\n12 g hay, toasted\n"
                        "14 yolks\n190 g sugar",
                        family="pot_de_creme",
                        vessel_key="Island pot",
                        vessel_count=12,
                        fill_by="below_rim",
                        below_rim_mm=6,
                        tray_key="Deck pan",
                        bath_level="half",
                        baking=Baking(set_c=150, water_c=80, after="in_bath"),
                        note="Strain twice: hay leaves dust.",
                    ),
                ),
            ),
        ),
    ),
    (
        "Quince and rye tart",
        (
            (
                "crust",
                "Rye crust",
                (
                    Content(
                        lines_text="300 g flour\n120 g rye flour\n250 g butter\n90 g sugar\n1 egg\n"
                        "a pinch of salt",
                        vessel_key="Hatch shell 22",
                        vessel_count=2,
                        portions_per_vessel=8,
                        fill_by="weight",
                        portion_g=380,
                        note="Frozen a quarter of an hour before the oven.",
                    ),
                ),
            ),
            (
                "filling",
                "Quince cream",
                (
                    Content(
                        lines_text="1 l whole milk\n8 yolks\n120 g sugar\n64 g corn starch\n"
                        "180 g quince cheese\n50 g butter",
                        family="cream_pie",
                        vessel_key="Hatch shell 22",
                        vessel_count=2,
                        portions_per_vessel=8,
                        fill_pct=85,
                        rest_vessel_key="Garden glass",
                        note="The cheese melts in off the heat.",
                    ),
                ),
            ),
            (
                "meringue",
                "Meringue",
                (
                    Content(
                        lines_text="6 whites\n380 g sugar\n110 g water",
                        note="Syrup to 118. Takes six of the eight whites.",
                    ),
                ),
            ),
        ),
    ),
    (
        "Chestnut custard pie",
        (
            (
                "crust",
                "Rye crust",
                (
                    Content(
                        lines_text="150 g flour\n60 g rye flour\n125 g butter\n45 g sugar\n"
                        "half an egg",
                        vessel_key="Hatch shell 22",
                        vessel_count=1,
                        portions_per_vessel=8,
                        fill_by="weight",
                        portion_g=380,
                        baking=Baking(blind="weights", goes="baked_in", dough_mm=3.5),
                        note="Pale gold: it bakes again with the custard.",
                    ),
                ),
            ),
            (
                "filling",
                "Chestnut custard",
                (
                    Content(
                        lines_text="420 g chestnut puree\n320 g cream 35%\n3 eggs\n1 yolk\n"
                        "110 g sugar\na pinch of salt",
                        family="pumpkin_pie",
                        vessel_key="Hatch shell 22",
                        vessel_count=1,
                        portions_per_vessel=8,
                        fill_pct=95,
                        baking=Baking(
                            set_c=165, doneness="domed", crust="pastry", crust_mm=4, poured_c=45
                        ),
                        note="Warm into the shell, on the oven shelf.",
                    ),
                ),
            ),
        ),
    ),
    (
        "Barley caramel flan",
        (
            (
                "caramel",
                "Caramel",
                (
                    Content(
                        lines_text="260 g sugar\n80 g water",
                        vessel_key="Island pot",
                        vessel_count=10,
                        fill_by="weight",
                        portion_g=14,
                        note="Chestnut brown, then into cold water at once.",
                    ),
                ),
            ),
            (
                "filling",
                "Flan",
                (
                    Content(
                        lines_text="1 l whole milk\n40 g malted barley powder\n6 eggs\n3 yolks\n"
                        "150 g sugar",
                        family="creme_caramel",
                        vessel_key="Island pot",
                        vessel_count=10,
                        fill_by="below_rim",
                        below_rim_mm=5,
                        tray_key="Deck pan",
                        bath_level="rim",
                        baking=Baking(set_c=160, water_c=70, doneness="just_set"),
                        note="Skim the bubbles: they stay as holes.",
                    ),
                ),
            ),
        ),
    ),
)
