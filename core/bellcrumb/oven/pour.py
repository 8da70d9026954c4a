"""From the jug to the oven: what is poured warm into cold moulds cools while the others are filled.

Six ramekins take about three minutes to fill and as many to set in the pan and carry (the table of
steps); the one in the middle has stood that long when the door closes.
"""

import math

from bellcrumb.heat.materials import Food
from bellcrumb.laws.air import ROOM_C
from bellcrumb.oven.scene import Mould

STANDS_MIN = 6.0  # our estimate, from the minutes of the steps
# Still air and radiation at a wall; at the top also the steam it gives off. W/m2K, estimates.
WALL_H, TOP_H = 10.0, 19.0


def at_the_oven_c(poured_c: float, mould: Mould, food: Food, minutes: float = STANDS_MIN) -> float:
    """What a custard poured at ``poured_c`` has cooled to when it goes in, degC; as it is, where it
    was poured no warmer than the room. Its mould takes its own share in the oven.

    Newton's law of cooling over the wetted wall and the free top.
    """
    if poured_c <= ROOM_C:
        return poured_c
    half, deep = mould.half_mm / 1000, mould.fill_mm / 1000
    if mould.section == "round":
        top, side = math.pi * half * half, 2 * math.pi * half * deep
    else:
        top, side = 2 * half, 2 * deep
    loses_w_k = TOP_H * top + WALL_H * side
    holds_j_k = food.rho * food.cp * top * deep
    left = math.exp(-60 * minutes * loses_w_k / holds_j_k)
    return ROOM_C + (poured_c - ROOM_C) * left
