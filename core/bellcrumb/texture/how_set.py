"""How a part is set: in the oven or on the stove, beaten or left, with what folded in.

The set index takes this as given. A cook says it, or the family they chose does; where nobody
said, egg that might be baked or stirred is taken at the chance of each, so that a mix never turns
softer because a gram more made another family nearer.
"""

from bellcrumb.mix.composition import Mix
from bellcrumb.texture.families import GRAINS, JUICES, Family, family
from bellcrumb.texture.set_index import SETTER_S, SOAKS, Style

# Corn starch (equivalent) per 1000 g of liquid between which egg creams pass from the oven to the
# boil; nearly all below are baked or kept off the boil, all above are boiled. Our estimate from the
# windows of the families; wide enough that starch gains more than the egg's network loses.
_BAKED_BELOW_G, _BOILED_ABOVE_G = 12.0, 62.0
_MORE_PER_EGG = 0.1  # the upper end rises by this per gram of egg in 1000 g of liquid
# Sugar of what is beside egg and starch from which yolks are in a syrup, and how often such a sweet
# is baked rather than stirred. Our estimates.
_SYRUP, _SYRUP_BAKED = (0.3, 0.45), 0.6
PULPS = ("pumpkin_puree", "sweet_potato", "chestnut_sweet")


# Beside the cream: sugar, flavour and setters, and so much of anything else.
_WHIPPED_REST = 0.15
_SOURS = 0.06  # grams of juice per gram of cream from which it sets it; our estimate
_WHIPPED_GELATINE = 0.008  # more, in grams per gram of cream, and it is a cream set in moulds


def is_whipped_cream(mix: Mix) -> bool:
    """Whether a mix is cream to be whipped: cream with sugar and little else. A little gelatine or
    mascarpone steadies it; much gelatine sets it instead, unless a line says that it is whipped or
    icing sugar does."""
    cream = mix.grams_of("cream")
    if not cream or mix.yolk_g or mix.whole_egg_g or mix.starch_g > 0.03 * cream:
        return False
    if mix.grams_of_key(*JUICES) > _SOURS * cream and not any(p.whipped for p in mix.portions):
        return False  # a posset: the juice sets it
    beside = mix.added_sugar_g + mix.grams_of("flavour", "setter") + mix.grams_of_key("mascarpone")
    if mix.mass_g - cream - beside > _WHIPPED_REST * cream:
        return False
    if mix.grams_of_key("mascarpone") > cream or mix.added_sugar_g > 0.6 * cream:
        return False
    told = mix.grams_of_key("sugar_icing") or any(p.whipped for p in mix.portions)
    return bool(told) or _as_gelatine_g(mix) <= _WHIPPED_GELATINE * cream


def _as_gelatine_g(mix: Mix) -> float:
    """Grams of gelatine that would set as firmly as the setters of a mix do."""
    gelatine = SETTER_S["gelatine"]
    return sum(
        p.grams * SETTER_S.get(p.ingredient.key, gelatine) / gelatine
        for p in mix.portions
        if p.ingredient.category == "setter"
    )


def cream_to_whip(mix: Mix) -> tuple[float, float, float]:
    """Of the cream in a mix that is whipped cream, mascarpone with it: grams, per cent of fat, and
    per cent of what steadies it (gelatine and the like, else the mascarpone)."""
    mascarpone = mix.grams_of_key("mascarpone")
    cream = mix.grams_of("cream") + mascarpone
    steadied = mix.grams_of("setter") or mascarpone
    return cream, 100 * mix.parts_g["fat"] / max(cream, 1.0), 100 * steadied / max(cream, 1.0)


def ramp(value: float, low: float, high: float) -> float:
    """0 up to ``low``, 1 from ``high`` on, a straight line between."""
    return min(1.0, max(0.0, (value - low) / (high - low)))


def still_chance(mix: Mix) -> float:
    """The chance that the egg of a mix sets undisturbed in the oven, from the mix alone.

    Fresh cheese, fruit or vegetable pulp, condensed milk and buttermilk are baked; milk and egg are
    baked when there is whole egg or much fat and little starch; juice with butter is stirred.
    """
    if not mix.mass_g:
        return 0.0
    # Of what is neither egg nor starch, so that more of either never speaks against baking.
    share = 1 / max(mix.mass_g - mix.grams_of("egg", "starch"), 1e-9)
    pulp = mix.grams_of_key(*PULPS)
    mascarpone = mix.grams_of_key("mascarpone")  # is whipped with egg, hardly ever baked by itself
    told = max(
        ramp((mix.grams_of("fresh_cheese") - mascarpone) * share, 0.10, 0.25),
        ramp(pulp * share, 0.10, 0.25),
        ramp(mix.grams_of_key(*SOAKS) * share, 0.05, 0.15),
        ramp(mix.grams_of_key("condensed_milk") * share, 0.12, 0.30),
        ramp(mix.grams_of_key("buttermilk_low", "buttermilk_whole") * share, 0.15, 0.35),
    )
    wine = mix.grams_of("alcohol")
    liquid = family("anglaise").liquid_g(mix) + wine
    sour = mix.grams_of_key(*JUICES)
    per = 1000 / max(liquid + sour, 0.05 * mix.mass_g)
    dairy = max(
        ramp(mix.whole_egg_g * per, 30, 130),
        ramp(mix.share("fat") * 100, 11, 19),
    )
    eggs = (mix.whole_egg_g + 0.4 * mix.yolk_g) * per
    boiled = _BOILED_ABOVE_G + _MORE_PER_EGG * eggs
    dairy *= 1 - ramp(mix.corn_equivalent_g * per, _BAKED_BELOW_G, boiled)
    dairy *= 1 - ramp(mix.grams_of_key(*GRAINS) * share, 0.02, 0.06)  # grains simmer in a pot
    milky = liquid - wine - mix.grams_of_key("water")
    dairy *= 1 - ramp(wine / max(liquid, 1e-9), 0.25, 0.6)  # egg and wine are whisked over a bath
    dairy *= 1 - ramp(sour / max(milky + sour, 1e-9), 0.25, 0.6)
    dairy *= 1 - ramp(mascarpone * share, 0.25, 0.45)
    return max(told, dairy, _syrup_chance(mix))


def _syrup_chance(mix: Mix) -> float:
    """The chance that yolks in sugar and water, without milk, are baked in a bath: such sweets are
    about as often stirred over the heat."""
    if mix.grams_of("milk", "cream", "cultured", "alcohol") or mix.grams_of_key(*JUICES):
        return 0.0
    beside = max(mix.mass_g - mix.grams_of("egg", "starch"), 1e-9)
    sweet = ramp(mix.added_sugar_g / beside, *_SYRUP)
    return _SYRUP_BAKED * sweet * (1 if mix.yolk_g else 0)


def how_set(mix: Mix, chosen: Family | None, beaten: bool | None) -> Style:
    """The style of a mix: ``chosen`` is the family a cook named (None: it was guessed).

    ``beaten`` None is not known and taken as left to set; whoever shows it shows both.
    """
    if chosen is None:
        return Style(still_chance(mix), bool(beaten))
    usual = chosen.style
    return Style(
        usual.still,
        bool(beaten),
        usual.foam_keys,
        foam_strength=usual.foam_strength,
        air_ml_per_g=usual.air_ml_per_g,
    )


def beating_matters(mix: Mix, style: Style) -> bool:
    """Whether it makes a difference that a cream is beaten: a starch gel off the stove."""
    return style.still < 0.5 and mix.mass_g > 0 and mix.corn_equivalent_g / mix.mass_g > 0.015
