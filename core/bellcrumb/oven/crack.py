"""Whether a cheesecake or a pie of puree cracks: by how uneven it is, how far it went, how fast it
cools."""

from typing import Literal

import numpy as np
from numpy.typing import NDArray

from bellcrumb.words import say

Array = NDArray[np.float64]
Risk = Literal["low", "middling", "high"]

# Source: the fault table of practice: cracks with the middle over 75 degC (cheesecake) or 85 (pies
# of puree), cooling faster than 1 K a minute from 65 on, an edge far ahead. Confidence: low; the
# bands are ours.
OVER_C = {"cheesecake": 75.0, "pie": 85.0}
AHEAD_K, FAR_AHEAD_K = 14.0, 22.0
FAST_K_PER_MIN, COOLS_FROM_C = 1.0, 65.0


def crack_risk(
    kind: Literal["cheesecake", "pie"], peak_c: float, ahead_k: float, t_s: Array, cooling_c: Array
) -> tuple[Risk, str]:
    """The risk and its reason. ``ahead_k`` is the edge over the middle at the pull, ``cooling_c``
    the middle at ``t_s`` afterwards."""
    reasons: list[str] = []
    points = 0
    over = OVER_C[kind]
    if peak_c > over:
        points += 2
        reasons.append(say("oven.the_middle_goes_to_c_over", peak_c=peak_c, over=over))
    if ahead_k > AHEAD_K:
        points += 2 if ahead_k > FAR_AHEAD_K else 1
        reasons.append(say("oven.the_edge_is_k_ahead_of", ahead_k=ahead_k))
    under = cooling_c <= COOLS_FROM_C
    if under.any() and not under.all():
        fall = -np.diff(cooling_c) / np.diff(t_s) * 60
        fastest = float(fall[np.maximum(0, int(under.argmax()) - 1) :].max())
        if fastest > FAST_K_PER_MIN:
            points += 1
            reasons.append(say("oven.it_cools_by_k_a_minute", fastest=fastest))
    risk: Risk = "high" if points >= 3 else "middling" if points else "low"
    return risk, ", ".join(reasons) if reasons else say("oven.even_not_too_far_and_it")
