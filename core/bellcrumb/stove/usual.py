"""How a cream is cooked where nobody says otherwise: what plans, guides and versions begin with.

Craft: milk from the cold, eggs warmed on the bench, hot milk just under its boil, a ladle of
100 ml; the ring turned down once the egg is in. The settings are our estimates.
"""

HEAT_SETTING, COOK_SETTING = 0.7, 0.45  # of the ring, 0-1: the liquid up, then the thick mix
MILK_C, EGGS_C, HOT_C = 6.0, 18.0, 90.0
LADLE_ML = 100.0
HELD_BACK_ML = 250.0  # of the milk, for the eggs, where that is the school
# Syrup into whites, whites and sugar warmed over a bath, and whites from the bench, degC.
SYRUP_C, SWISS_C, WHITES_C = 118.0, 72.0, 20.0
SYRUP_WATER = 0.3  # of its sugar, where no water is written
