"""Guides of the glazes with chocolate: ganache, and the mirror that gelatine holds."""

from bellcrumb.errors import CraftError
from bellcrumb.heat.pot import Ring
from bellcrumb.laws.water import AT_BOIL_K, boils_c
from bellcrumb.mix.composition import Mix
from bellcrumb.stove.steps import Step
from bellcrumb.stove.syrup import HOT_SUGAR, cook_syrup
from bellcrumb.stove.work import Pretence, Work, liquid_run, ready

# What a mirror's syrup is cooked to: the sugar is dissolved, the water of a gel is left in it.
_SYRUP_C = 103.0
# A mirror pours a little warmer the more cocoa butter sets in it: white, milk, dark. Source: craft.
_POUR_C = {"choc_white": (30.0, 32.0), "choc_milk": (31.0, 33.0)}
_POUR_DARK_C = (33.0, 35.0)
_DEPTHS_MM = (1.0, 2.0, 3.0)
_BEYOND_BOIL_C = 2.0
# Of what is poured, so much stays on; the rest is caught and used again. Source: trade, 40-60 %.
_STAYS = 0.5


def _poured(mix: Mix, warmth: str) -> Step:
    """How far it goes, by how deep it lies, and what the warmth does to that."""
    covers = ", ".join(
        f"{round(_STAYS * mix.volume_ml / mm, -1) * 10:.0f} cm² at {mm:g} mm" for mm in _DEPTHS_MM
    )
    return Step(
        "pour", "finish", "Pour it in one go over the cold piece on its rack",
        f"It covers {covers}; the other half runs off and is caught. {warmth}",
        "Twice over the same place: it wrinkles.",
    )  # fmt: skip


def ganache(mix: Mix, ring: Ring, setting: float, altitude_m: float) -> Work:
    """Chocolate under hot cream. Raises CraftError where nothing is poured over it."""
    poured = ("cream", "milk", "basic", "sugar")
    liquid = Mix(tuple(p for p in mix.portions if p.ingredient.category in poured))
    if liquid.mass_g <= 0:
        raise CraftError("lines", "There is no cream to pour over the chocolate.")
    chocolate = Mix(tuple(p for p in mix.portions if p.ingredient.category == "chocolate"))
    rest = Mix(tuple(p for p in mix.portions if p not in liquid.portions + chocolate.portions))
    run = liquid_run(liquid, ring, setting, 85.0, altitude_m)
    warnings = []
    if liquid.parts_g["water"] < 0.35 * chocolate.parts_g["fat"]:
        warnings.append("Little water for so much fat: it may split. A spoon of milk mends it.")
    steps = [
        ready("Chocolate chopped fine in a tall bowl.", "Big pieces: they do not melt through."),
        Step("heat", "heat", "Warm the liquid to just under the simmer", "Small bubbles, steam.",
             "Boiling it down: it thickens too much.", 80.0, 88.0, 96.0, 0, None, "",
             "Hot enough: a third of it onto the chocolate", "boiling up"),
        Step("emulsify", "finish", "A third at a time, stirred from the middle out",
             "It looks split, then closes from the middle and shines.",
             "Whisking air into it: bubbles on the glaze.", hold_s=60),
        Step("cool", "cool", "Let it come to 32 to 35 °C to glaze", "It falls in a thick sheet.",
             "Colder it drags, warmer it runs off.", None, 34.0),
        _poured(mix, "A film of 1 mm at 35 to 40 °C, 2 to 3 mm at 32 to 35 °C, a thick coat at "
                     "30 to 32 °C."),
    ]  # fmt: skip
    scene = Pretence("heat", "pot", 6.0, ring.reaches_pot_w(setting), mass_g=liquid.mass_g,
                  cp_j_per_gk=liquid.heat_capacity_j_per_gk)  # fmt: skip
    return Work("ganache", "Ganache glaze", steps, ["Chocolate chopped fine", "Rack over a tray"],
                run.curve, "heat", run.reaches_s, liquid, chocolate, rest, [scene],
                warnings)  # fmt: skip


def mirror(mix: Mix, ring: Ring, setting: float, altitude_m: float) -> Work:
    """A syrup (or cream and cocoa) boiled, on chocolate, held by gelatine, poured when it cools.
    Raises CraftError where there is nothing to boil."""
    dairy = ("cream", "milk")
    bowl = Mix(tuple(p for p in mix.portions if p.ingredient.key == "condensed_milk"
                     or (p.ingredient.category == "chocolate"
                         and not p.ingredient.key.startswith("cocoa_"))))  # fmt: skip
    boiled = ("basic", "sugar", "chocolate", *dairy)
    pot = Mix(tuple(p for p in mix.portions
                    if p.ingredient.category in boiled and p not in bowl.portions))  # fmt: skip
    rest = Mix(tuple(p for p in mix.portions if p not in pot.portions + bowl.portions))
    water = pot.parts_g["water"]
    if pot.mass_g <= 0 or water <= 0:
        raise CraftError("lines", "There is no water or cream to boil with the sugar.")
    plain = not pot.grams_of("chocolate", *dairy) and pot.added_sugar_g > 0
    power = ring.reaches_pot_w(setting)
    boil = boils_c(altitude_m)
    if plain:
        run = cook_syrup(pot.added_sugar_g, water, boil + _SYRUP_C - 100, power, altitude_m)
        curve, takes = [(t, c) for t, c, _, _ in run.curve], run.time_s
        scene = Pretence("cook", "syrup", 20.0, power, pot.added_sugar_g, water)
        low, high = boil + _SYRUP_C - 101, boil + _SYRUP_C - 98
    else:
        heated = liquid_run(pot, ring, setting, boil, altitude_m)
        curve, takes = heated.curve, heated.reaches_s
        scene = Pretence("cook", "pot", 6.0, power, mass_g=pot.mass_g,
                         cp_j_per_gk=pot.heat_capacity_j_per_gk)  # fmt: skip
        low, high = boil - AT_BOIL_K, boil + _BEYOND_BOIL_C
    whites = [_POUR_C[p.ingredient.key] for p in bowl.portions if p.ingredient.key in _POUR_C]
    pour_low, pour_high = whites[0] if whites else _POUR_DARK_C
    steps = [
        ready("Gelatine soaked, a tall jug and a sieve, the piece frozen on a rack.",
              "A piece only cold: the glaze slides off."),
        Step(
            "cook", "cook",
            f"Cook the syrup to {boil + _SYRUP_C - 100:.0f} °C" if plain
            else "Bring it to the boil, whisking",
            "Clear, small tight bubbles." if plain
            else "It boils in the middle, no dry lump left.",
            "Boiled on: it sets like rubber.", low, high, None, 0, None, HOT_SUGAR,
            "Off the heat: wait until it no longer bubbles", "boiled down",
        ),
        Step("gelatine", "cool", "Let it fall under 80 °C, then the gelatine in",
             "It melts without a thread.", "Boiling: the gelatine weakens.", None, 80.0),
        Step("blend", "finish", "Over the chocolate, blend with the head under, strain"
             if bowl.mass_g else "Blend with the head under, strain",
             "It shines like glass, no bubble.", "Air drawn in: bubbles that stay.", hold_s=90),
        Step("cool", "cool", f"Film on contact; pour at {pour_low:.0f} to {pour_high:.0f} °C",
             "A finger drawn through it closes slowly.", "Colder it drags, warmer it runs thin.",
             None, pour_high),
        _poured(mix, "Warmer it lies thinner, cooler it lies thicker."),
    ]  # fmt: skip
    checks = ["Gelatine soaking in cold water", "Rack over a tray", "The piece frozen hard"]
    checks += ["Chocolate chopped fine"] if bowl.mass_g else []
    return Work("mirror", "Mirror glaze", steps, checks, curve, "cook", takes, pot, bowl, rest,
                [scene])  # fmt: skip
