"""Guides, moments of a cook, pots and ovens: what the server may use of cooking."""

from bellcrumb.asked.bakes import oven_family, poured_c
from bellcrumb.curve.doubts import Doubt, doubts, doubts_of
from bellcrumb.curve.watch import STALE_S, Reading, Watch
from bellcrumb.dessert.assembly import checked_moment, is_enough, laid_moment
from bellcrumb.dessert.guided import Guided, HowCooked, guided
from bellcrumb.dessert.works import Lies, PartWork
from bellcrumb.heat.pot import (
    NEVER_C,
    Cream,
    Fuel,
    Pot,
    PotRun,
    Ring,
    Stirring,
    pot_for,
    pot_name,
    start,
    step,
)
from bellcrumb.oven.guide import BakePlan, bake_moment, bake_steps, is_fresh
from bellcrumb.oven.refit import Look, Observations
from bellcrumb.oven.school import After, before_of, sign_of
from bellcrumb.safety.pasteurise import Lethality, Pasteurising, Product, lethality, not_yet
from bellcrumb.stove import usual
from bellcrumb.stove.caramel import is_sauce
from bellcrumb.stove.finish import Addition
from bellcrumb.stove.guide import ENTERED_EARLY_S, Moment, held_above_c, missed, moment
from bellcrumb.stove.infuse import drawn_before
from bellcrumb.stove.meringue import Meringue
from bellcrumb.stove.over_bath import BATH_W_K
from bellcrumb.stove.plan import Plan
from bellcrumb.stove.steps import Cue, Step, StepKind
from bellcrumb.stove.temper import POURED_BACK_S, Ladder, Rung, School, in_the_mix_from_s
from bellcrumb.stove.whip import Whipped, whip_of
from bellcrumb.stove.work import Work, WorkKind
from bellcrumb.stove.works import AIMS, Aim

__all__ = [
    "AIMS",
    "BATH_W_K",
    "ENTERED_EARLY_S",
    "NEVER_C",
    "POURED_BACK_S",
    "STALE_S",
    "Addition",
    "After",
    "Aim",
    "BakePlan",
    "Cream",
    "Cue",
    "Doubt",
    "Fuel",
    "Guided",
    "HowCooked",
    "Ladder",
    "Lethality",
    "Lies",
    "Look",
    "Meringue",
    "Moment",
    "Observations",
    "PartWork",
    "Pasteurising",
    "Plan",
    "Pot",
    "PotRun",
    "Product",
    "Reading",
    "Ring",
    "Rung",
    "School",
    "Step",
    "StepKind",
    "Stirring",
    "Watch",
    "Whipped",
    "Work",
    "WorkKind",
    "bake_moment",
    "bake_steps",
    "before_of",
    "checked_moment",
    "doubts",
    "doubts_of",
    "drawn_before",
    "guided",
    "held_above_c",
    "in_the_mix_from_s",
    "is_enough",
    "is_fresh",
    "is_sauce",
    "laid_moment",
    "lethality",
    "missed",
    "moment",
    "not_yet",
    "oven_family",
    "pot_for",
    "pot_name",
    "poured_c",
    "sign_of",
    "start",
    "step",
    "usual",
    "whip_of",
]
