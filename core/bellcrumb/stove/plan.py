"""The plan of a cook: its steps in words, with their targets and what the pot should do."""

from dataclasses import dataclass, field

from bellcrumb.errors import CraftError
from bellcrumb.heat.pot import Cream, PotRun, Ring, Scorch, heat_to, pot_for, scorch_band
from bellcrumb.laws.starch import pasting, seen_to_thicken_c
from bellcrumb.laws.water import AT_BOIL_K, boils_c
from bellcrumb.mix.composition import Mix
from bellcrumb.pantry.ingredients import Ingredient
from bellcrumb.stove.finish import Addition, additions
from bellcrumb.stove.method import Split, split
from bellcrumb.stove.steps import Step, checks
from bellcrumb.stove.temper import Ladder, School, temper
from bellcrumb.stove.thickening import Thickener, signs_of
from bellcrumb.texture.coagulation import coagulation
from bellcrumb.texture.endpoint import Endpoint, endpoint
from bellcrumb.texture.families import COARSE, Family

# Corn starch per 1000 g of liquid from which it, not the egg, is what is seen to thicken; and how
# far past its onset egg is seen. Our estimates.
TELLS_G, EGG_SEEN_K = 8.0, 3.0
POURS_K = 3.0  # what a boiled pot has lost by the first ladle; our estimate
_FOLDED_BELOW_C = 30.0  # what goes in colder than this goes in after the sieve
_SIMMERS_K = 8.0  # how far under the boil a pot that simmers may show; our estimate
# Seconds a cook takes for one ladle, and to pour in eggs or slurry without one. Craft, estimate.
_LADLE_S, _POUR_S = 10.0, 30.0


@dataclass(frozen=True)
class Plan:
    """Everything a cook needs at the stove, frozen when the cook starts."""

    school: School
    steps: list[Step]
    split: Split
    ladder: Ladder | None
    endpoint: Endpoint
    hot_c: float
    eggs_c: float
    heat_run: PotRun
    cook_run: PotRun | None
    cook_from_c: float
    temper_s: float
    scorch: Scorch
    thickens_c: float | None
    warnings: list[str]
    checks: list[str] = field(default_factory=list)
    additions: list[Addition] = field(default_factory=list)
    signs: list[tuple[float, float, str]] = field(default_factory=list)

    @property
    def boils_off_g(self) -> float:
        """Water that leaves the pot until it is off the heat, by the model."""
        return self.heat_run.evaporated_g + (self.cook_run.evaporated_g if self.cook_run else 0.0)


def thickens_c(mix: Mix, family: Family) -> float | None:
    """Where the cream visibly thickens, degC: as its starch is seen to, or past the egg's onset;
    None for what holds neither and sets in the cold, if at all."""
    liquid = family.liquid_g(mix)
    if liquid and mix.corn_equivalent_g / liquid * 1000 >= TELLS_G:
        return seen_to_thicken_c(pasting(mix.main_starch, mix.sugar_pct_of_water_phase))
    egg = coagulation(mix, family)
    return (egg.onset_c + EGG_SEEN_K) if egg else None


def plan(
    mix: Mix,
    family: Family,
    ring: Ring,
    *,
    school: School = "hot_into_eggs",
    heat_setting: float = 0.7,
    setting: float = 0.45,
    ladle_ml: float = 100.0,
    milk_c: float = 6.0,
    hot_c: float = 90.0,
    eggs_c: float = 18.0,
    held_back_ml: float = 0.0,
    altitude_m: float = 0.0,
) -> Plan:
    """Plan the cook of a stirred cream on a ring: ``heat_setting`` (0-1) brings the liquid up,
    ``setting`` cooks the thick mix.

    Raises CraftError when the mix has nothing to heat, or is one for the oven.
    """
    boiled_first = family.texture_mode == "boiled_baked"
    if not family.on_the_stove and not boiled_first:
        raise CraftError("family", f"{family.name} is set in the oven, not on the stove.")
    where = split(mix, family, school)
    if where.pot.mass_g <= 0:
        raise CraftError("lines", "Nothing goes in the pot: add milk, cream or another liquid.")
    stop = endpoint(mix, family, altitude_m, boiled_first=boiled_first)
    thick = thickens_c(mix, family)
    hot_c = min(hot_c, boils_c(altitude_m) - 1)
    boils_first = stop.boils_s > 0 or (where.pot.corn_equivalent_g > 0 and stop.mode == "boil_hold")
    # What only coats the spoon must not be poured hotter than that allows.
    from_the_boil = boils_first and stop.mode == "boil_hold"
    pot_hot_c = mix.boils_c(altitude_m) - POURS_K if from_the_boil else hot_c
    ladder = None
    cook_from = pot_hot_c
    if where.bowl.yolk_g or where.bowl.whole_egg_g or where.bowl.white_g:
        ladder = temper(where.pot, pot_hot_c, where.bowl, eggs_c, ladle_ml, school, held_back_ml)
        cook_from = ladder.end_temp_c
    power = ring.reaches_pot_w(setting)
    held_ml = held_back_ml if school == "held_back_liquid" else 0.0
    first = where.pot.scaled(1 - min(0.8, held_ml / max(where.pot.volume_ml, 1)))
    first_cream = Cream.of(first, thick if boils_first else None, altitude_m)
    heat_target = first_cream.boil_c if boils_first else hot_c
    heat_run = heat_to(
        first_cream,
        pot_for(mix.volume_ml),
        ring.fuel,
        power if boils_first else ring.reaches_pot_w(heat_setting),
        milk_c,
        heat_target,
        (stop.boils_s or stop.hold_s) if boils_first else 0,
        "whisk",
        loss_w_m2k=ring.loss_w_m2k,
    )
    cook_run = None
    if stop.temp_c is not None and where.bowl.mass_g:
        whole = where.pot + where.bowl
        cream = Cream.of(whole, thick, altitude_m)
        target = min(stop.temp_c, cream.boil_c)
        cook_run = heat_to(
            cream,
            pot_for(whole.volume_ml),
            ring.fuel,
            power,
            cook_from,
            target,
            stop.hold_s,
            "spatula",
            loss_w_m2k=ring.loss_w_m2k,
        )
    excess = max(heat_run.wall_excess_k, cook_run.wall_excess_k if cook_run else 0.0)
    warnings = list(ladder.warnings if ladder else [])
    if cook_run and cook_run.reaches_s is None:
        warnings.append(
            f"On this setting it does not reach {stop.temp_c:.0f} °C in an hour and a half: "
            "turn the ring up."
        )
    if heat_run.reaches_s is None:
        warnings.append("On this setting the liquid does not come up: turn the ring up.")
    adds = additions(where.pot + where.bowl, where.finish, family, stop.temp_c or hot_c)
    steps = _steps(
        where,
        school,
        stop,
        thick,
        heat_target,
        hot_c,
        boils_first,
        ladder,
        family,
        adds,
    )
    return Plan(
        school,
        steps,
        where,
        ladder,
        stop,
        pot_hot_c,
        eggs_c,
        heat_run,
        cook_run,
        cook_from,
        max(_POUR_S, _LADLE_S * len(ladder.rungs)) if ladder else _POUR_S,
        scorch_band(excess),
        thick,
        warnings,
        checks(mix, family),
        adds,
        signs_of(Thickener.of(mix, family), (cook_run or heat_run).curve, stop.temp_c or 100.0),
    )


# Title, sign and what to avoid of a pot that boils first, by what it boils for.
_BOILS: dict[str, tuple[str, str, str]] = {
    "starch": ("Stir starch and liquid to the boil and hold",
               "It thickens, then bubbles break in the middle while you whisk.",
               "Never leave a corner unwhisked: flat bottoms scorch in a heartbeat."),
    "grain": ("Up to the boil, then let the grain swell at a bare simmer",
              "A grain is soft to its middle, and the spoon's trail closes slowly.",
              "Left alone it catches: stir along the floor every minute, more towards the end."),
    "setter": ("Whisk the setter in cold, bring it to the boil and hold",
               "A drop on a cold plate sets within a minute; no grain of it is seen.",
               "Taken off before it is dissolved it sets in specks, or not at all."),
    "cream": ("Boil cream and sugar", "It rises and rolls, in a pot three times as high.",
              "Less than three minutes: it stays thin."),
}  # fmt: skip
_WORDS = {
    "vanilla_pod": "vanilla", "egg_yolk": "yolks", "egg_whole": "eggs", "egg_white": "whites",
    "sugar": "sugar", "butter_80": "butter", "butter_82": "butter", "flour_plain": "flour",
    "milk_whole": "milk", "cream_35": "cream", "cream_heavy": "cream", "salt_fine": "salt",
}  # fmt: skip


def _word(i: Ingredient) -> str:
    if i.key in _WORDS:
        return _WORDS[i.key]
    short = i.name.split(",")[0].split("(")[0].split(" / ")[0].strip()
    return short[0].lower() + short[1:]


def _names(mix: Mix) -> str:
    words = list(dict.fromkeys(_word(p.ingredient) for p in mix.portions))
    return ", ".join(words[:-1]) + (" and " if len(words) > 1 else "") + words[-1] if words else ""


def _steps(
    where: Split, school: School, stop: Endpoint, thick: float | None, heat_target: float,
    hot_c: float, boils_first: bool, ladder: Ladder | None, family: Family, adds: list[Addition],
) -> list[Step]:  # fmt: skip
    steps = [
        Step(
            "ready",
            "ready",
            "Everything within reach",
            f"Pot: {_names(where.pot)}. Bowl: {_names(where.bowl) or 'nothing'}."
            + (f" For the end: {_names(where.finish)}." if where.finish.portions else ""),
            "Sugar lies on the yolks no longer than a minute unwhisked: it burns them to specks."
            if where.bowl.yolk_g and where.bowl.added_sugar_g
            else "Sieve, film and an ice bath stand ready before the heat is lit.",
        ),
    ]
    if boils_first:
        steps.append(
            Step(
                "heat",
                "heat",
                *_BOILS[stop.boils or "starch"],
                heat_target - (_SIMMERS_K if stop.boils == "grain" else AT_BOIL_K),
                heat_target + 1,
                None,
                stop.boils_s or stop.hold_s,
                thick,
            )
        )
    else:
        steps.append(
            Step(
                "heat",
                "heat",
                "Warm the liquid to just under the simmer",
                "Small bubbles round the edge, steam rising, nothing breaking in the middle.",
                "Cream left a moment too long boils over.",
                hot_c - 4,
                hot_c + 3,
                heat_target + 8,
            )
        )
    if ladder:
        last = ladder.rungs[-1].mix_temp_c
        title = {
            "hot_into_eggs": "Ladle the hot liquid onto the eggs, whisking",
            "eggs_after_boil": "Loosen the eggs with the hot cream, then fold them in off the heat",
            "held_back_liquid": "Loosen the eggs with the cold liquid and pour into the pot",
        }[school]
        steps.append(
            Step(
                "temper",
                "temper",
                title,
                f"Even and loose, no grains; it ends near {last:.0f} °C.",
                "The first ladle is the dangerous one: thin stream, whisk moving."
                if school != "held_back_liquid"
                else "Off the heat while you pour, whisk moving.",
                never_c=ladder.scramble_c,
            )
        )
    if stop.mode == "boil_hold" and where.bowl.mass_g:
        again = boils_first
        steps.append(
            Step(
                "cook",
                "cook",
                "Back to the boil for the eggs"
                if again
                else "Back on the ring: stir to the boil and hold",
                "Thin, then thick within a minute, then slow bubbles that plop.",
                "Stopping at the first thickening: raw taste, and the yolk thins it overnight.",
                (stop.temp_c or 100) - AT_BOIL_K,
                (stop.temp_c or 100) + 1,
                None,
                stop.hold_s,
                thick,
                "Boiling starch spits and sticks: long sleeves.",
            )
        )
    elif stop.mode in ("nappe", "double_boiler") and stop.low_c is not None:
        steps.append(
            Step(
                "cook",
                "cook",
                "Gentle heat until it coats the spoon"
                if stop.mode == "nappe"
                else "Over simmering water, whisk until it mounds",
                "Foam gone, a finger drawn across the spoon leaves a clean trail.",
                "A few degrees past this it curdles: off the heat a moment early, it runs on.",
                stop.low_c,
                stop.high_c,
                stop.never_c,
                0,
                thick,
            )
        )
    whole = (where.pot + where.bowl).main_starch in COARSE
    warm = [a for a in adds if a.window.high_c > _FOLDED_BELOW_C]
    folded = [a for a in adds if a not in warm]
    steps += _finishing(warm)
    gels = any(p.ingredient.key.startswith("gelatine") for p in where.finish.portions)
    steps.append(_cool(family, whole, [a.window.high_c for a in folded], gels=gels))
    if folded:
        steps += _finishing(folded, sum(s.key.startswith("finish") for s in steps))
        steps.append(
            Step("chill", "cool", "At once where it shall set, film on it, and into the cold",
                 f"It holds its shape. Set in {_hours(family)} h.",
                 "Left standing in its bowl: it sets there, and stirred again it is slack.")
        )  # fmt: skip
    return steps


def _hours(family: Family) -> str:
    return f"{family.chill_h[0]:g}-{family.chill_h[1]:g}"


def _cool(family: Family, whole: bool, folds_c: list[float], *, gels: bool) -> Step:
    """Through the sieve and cool: to where something is folded in, or all the way."""
    sieve = "" if whole else "Pass it through a fine sieve at once, "
    title = "" if whole else "Sieve, "
    if family.texture_mode == "boiled_baked":
        return Step("cool", "finish", f"{title}spread it in its shell, and smooth it",
                    f"{sieve}then level to the rim.".capitalize(),
                    "A skin before it is smooth: it bakes to a crust that tears.")  # fmt: skip
    sets = "" if folds_c else f" Set in {_hours(family)} h."
    slow = "A deep bowl in the fridge cools too slowly."
    how, avoid = "spread shallow, film on contact, and cool", slow
    if folds_c and gels:
        how, avoid = (
            "into a bowl over ice, and stir it cool",
            "Left alone it gels at the wall: lumps.",
        )
    elif family.texture_mode == "still" and not folds_c:
        how = "pour where it shall set, film on contact, and cool"
        avoid = "Stirred while it sets: slack."
    does = f"{title}{how}"
    return Step(
        "cool", "cool", does[:1].upper() + does[1:],
        (f"{sieve}film on contact." if sieve else "Film on contact.") + sets,
        f"{avoid} Thin while hot is normal.", None, min(folds_c, default=21.0), None, 0, None,
        "57 to 21 °C within 2 h, 5 °C within 4 h more. Your local code comes first.",
        there="Cool enough to fold" if folds_c else "",
    )  # fmt: skip


def _finishing(adds: list[Addition], number: int = 0) -> list[Step]:
    """Steps for what goes in off the heat: at once, or each when the mix is cool enough."""
    now = [a for a in adds if not a.waits_s]
    steps: list[Step] = []
    if now:
        names = ", ".join(dict.fromkeys(_short(a.name) for a in now))
        advice = next((a.advice for a in now if a.advice), "Stirred smooth and shining.")
        steps.append(
            Step("finish", "finish", f"Off the heat: {names} in", advice,
                 f"Outside its window {now[0].window.below or 'its aroma leaves'}.",
                 caution="Spirits and extracts are flammable: away from the flame.")
        )  # fmt: skip
    for n, a in enumerate((a for a in adds if a.waits_s), start=number + len(steps) + 1):
        key = "finish" if n == 1 else f"finish{n}"
        colder = (
            f"; colder than {a.window.low_c:.0f} °C, {a.window.below}" if a.window.below else ""
        )
        steps.append(
            Step(key, "cool", f"At {a.window.high_c:.0f} °C: {_short(a.name)} in",
                 f"{a.window.sign.capitalize()}. {a.advice}".strip(),
                 f"Hotter, {a.window.above}{colder}.",
                 a.window.low_c, a.window.high_c, there=f"{_short(a.name).capitalize()} in now")
        )  # fmt: skip
    return steps


def _short(name: str) -> str:
    short = name.split(",", maxsplit=1)[0].split("(", maxsplit=1)[0].strip()
    return short[:1].lower() + short[1:]
