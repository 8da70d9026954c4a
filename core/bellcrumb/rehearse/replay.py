"""A rehearsal run again from its acts, on the stove or in the oven."""

from collections.abc import Sequence
from itertools import pairwise

from bellcrumb.errors import CraftError
from bellcrumb.rehearse.exercises import Exercise
from bellcrumb.rehearse.stove import replay_stove
from bellcrumb.rehearse.world import Act, Replay
from bellcrumb.words import say


def replay(ex: Exercise, seed: int, acts: Sequence[Act], until_s: float) -> Replay:
    """Run an exercise from its start to ``until_s`` with the acts so far.

    Raises CraftError for acts out of order.
    """
    if any(b.at_s < a.at_s for a, b in pairwise(acts)):
        raise CraftError("acts", say("rehearse.acts_come_in_the_order_of"))
    if ex.stage == "oven":
        # Loaded for those who bake: the stove rehearses without the solver's libraries.
        from bellcrumb.rehearse.oven import replay_oven

        return replay_oven(ex, seed, acts, until_s)
    return replay_stove(ex, seed, acts, until_s)
