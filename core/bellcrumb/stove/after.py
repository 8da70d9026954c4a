"""What follows the heat: what goes in late, at its temperature, and how it is cooled."""

from itertools import groupby

from bellcrumb.stove.finish import Addition
from bellcrumb.stove.steps import Step
from bellcrumb.texture.families import Family
from bellcrumb.words import say


def hours(family: Family) -> str:
    """How long it sets in the cold, as hours from and to."""
    return f"{family.chill_h[0]:g}-{family.chill_h[1]:g}"


def cooling(family: Family, whole: bool, folds_c: list[float], *, gels: bool) -> Step:
    """Through the sieve and cool: to where something is folded in, or all the way."""
    sieve = "" if whole else say("stove.pass_it_through_a_fine_sieve")
    title = "" if whole else say("stove.sieve")
    if family.texture_mode == "boiled_baked":
        return Step(
            "cool",
            "finish",
            say("stove.spread_it_in_its_shell_and", title=title),
            sign=say("stove.then_level_to_the_rim", sieve=sieve).capitalize(),
            avoid=say("stove.a_skin_before_it_is_smooth"),
        )
    sets = "" if folds_c else say("stove.set_in_h", family=hours(family))
    slow = say("stove.a_deep_bowl_in_the_fridge")
    how, avoid = say("stove.spread_shallow_film_on_contact_and"), slow
    if folds_c and gels:
        how, avoid = (
            say("stove.into_a_bowl_over_ice_and"),
            say("stove.left_alone_it_gels_at_the"),
        )
    elif family.texture_mode == "still" and not folds_c:
        how = say("stove.pour_where_it_shall_set_film")
        avoid = say("stove.stirred_while_it_sets_slack")
    does = f"{title}{how}"
    return Step(
        "cool",
        "cool",
        does[:1].upper() + does[1:],
        sign=(
            say("stove.film_on_contact", sieve=sieve) if sieve else say("stove.film_on_contact_2")
        )
        + sets,
        avoid=say("stove.thin_while_hot_is_normal", avoid=avoid),
        high_c=min(folds_c, default=21.0),
        caution=say("stove.57_to_21_c_within_2"),
        there=say("stove.cool_enough_to_fold") if folds_c else "",
    )


def finishing(adds: list[Addition], number: int = 0) -> list[Step]:
    """Steps for what goes in off the heat, in order: when the mix is cool enough, or at once what
    need not wait (any more, where the one before it has cooled the mix)."""
    steps: list[Step] = []
    for waits, group in groupby(adds, key=lambda a: bool(a.waits_s)):
        for together in [[a] for a in group] if waits else [list(group)]:
            n = number + len(steps) + 1
            key = "finish" if n == 1 else f"finish{n}"
            steps.append(_waited(key, *together) if waits else _at_once(key, together, steps))
    return steps


def _at_once(key: str, now: list[Addition], before: list[Step]) -> Step:
    names = ", ".join(dict.fromkeys(a.name for a in now))
    folded = any(a.folds for a in now)
    done = (
        say("stove.folded_under_no_streak") if folded else say("stove.stirred_smooth_and_shining")
    )
    advice = next((a.advice for a in now if a.advice), done)
    cold = max((a.window for a in now if a.window.below), key=lambda w: w.low_c, default=None)
    return Step(
        key,
        "finish",
        say("stove.then_in", names=names) if before else say("stove.off_the_heat_in", names=names),
        sign=advice,
        avoid=say("stove.under_c_it", low_c=cold.low_c, below=cold.below) if cold else "",
        caution=_flames(*now),
    )


def _waited(key: str, a: Addition) -> Step:
    colder = (
        say("stove.colder_than_c", low_c=a.window.low_c, below=a.window.below)
        if a.window.below
        else ""
    )
    return Step(
        key,
        "cool",
        say("stove.at_c_in", high_c=a.window.high_c, a=a.name),
        sign=f"{a.window.sign.capitalize()}. {a.advice}".strip(),
        avoid=say("stove.hotter_2", above=a.window.above, colder=colder),
        low_c=a.window.low_c,
        high_c=a.window.high_c,
        there=say("stove.in_now", a=a.name.capitalize()),
        caution=_flames(a),
    )


def _flames(*adds: Addition) -> str:
    burns = any(a.burns for a in adds)
    return say("stove.spirits_and_extracts_are_flammable_away") if burns else ""
