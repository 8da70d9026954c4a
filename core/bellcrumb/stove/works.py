"""Guides for what is no stirred custard: caramel, meringues, cream, choux, citrus mix, roux."""

from bellcrumb.errors import CraftError
from bellcrumb.heat.pot import Cream as PotCream
from bellcrumb.heat.pot import Ring, heat_to, pot_for
from bellcrumb.laws.water import AT_BOIL_K, boils_c
from bellcrumb.mix.composition import Mix
from bellcrumb.stove.caramel import caramel, slow_cues, sugar_and_water
from bellcrumb.stove.glaze import ganache, mirror
from bellcrumb.stove.meringue import meringue, whip_s
from bellcrumb.stove.over_bath import curd, sabayon, swiss
from bellcrumb.stove.steps import Cue, Step, checks
from bellcrumb.stove.syrup import HOT_SUGAR
from bellcrumb.stove.whip import PEAKS, whip_of
from bellcrumb.stove.work import Pretence, Work, WorkKind, liquid_run, ready
from bellcrumb.texture.endpoint import endpoint
from bellcrumb.texture.families import Family
from bellcrumb.texture.how_set import is_whipped_cream
from bellcrumb.texture.no_custard import is_choux, is_mirror, part_kind_of

# What is cooked to when nobody says otherwise, degC. Source: craft.
USUAL_C: dict[str, float] = {"caramel": 172.0, "italian": 118.0, "swiss": 72.0}
CHOUX_DRY_C = (74.0, 82.0)


def work_kind(
    part_kind: str, mix: Mix, method: str = "", family: Family | None = None
) -> WorkKind | None:
    """Which of these a part is, by its kind, what is in it and the method chosen; None: custard."""
    part_kind = part_kind_of(part_kind, mix)
    if part_kind == "caramel":
        return "caramel"
    if part_kind == "meringue":
        if method in ("italian", "swiss", "french"):
            return method  # type: ignore[return-value]
        return "italian" if mix.grams_of_key("water") else "swiss"
    if part_kind == "glaze" and is_mirror(mix):
        return "mirror"
    if part_kind == "glaze" and mix.grams_of("chocolate"):
        return "ganache"
    if part_kind == "crust" and is_choux(mix):
        return "choux"
    if part_kind in ("cream", "filling"):
        if family is not None and family.key == "sabayon":
            return "sabayon"
        if family is not None and family.group == "curd":
            return "curd"
        flour = mix.grams_of_key("flour_plain", "flour_cake")
        if family is not None and family.key == "sugar_cream" and flour and mix.grams_of("fat"):
            return "roux"
        if is_whipped_cream(mix):
            return "whipped"
        if mix.grams_of_key("condensed_milk") > 0.4 * mix.mass_g and mix.grams_of("fruit"):
            return "citrus_mix"
    return None


def work(
    kind: WorkKind, mix: Mix, ring: Ring, setting: float, *, altitude_m: float = 0.0,
    target_c: float = 0.0, whites_c: float = 20.0, family: Family | None = None,
) -> Work:  # fmt: skip
    """The guide for a part. ``target_c`` 0 takes the usual one. Raises CraftError when what it
    needs is not in it."""
    power = ring.reaches_pot_w(setting)
    if kind == "caramel":
        return caramel(mix, power, altitude_m, target_c or USUAL_C["caramel"])
    if kind == "italian":
        return _italian(mix, power, altitude_m, target_c or USUAL_C["italian"], whites_c)
    if kind == "swiss":
        return swiss(mix, target_c or USUAL_C["swiss"])
    if kind == "french":
        return _french(mix)
    if kind == "whipped":
        return _whipped(mix)
    if kind == "ganache":
        return ganache(mix, ring, setting, altitude_m)
    if kind == "mirror":
        return mirror(mix, ring, setting, altitude_m)
    if kind == "choux":
        return _choux(mix, ring, setting, altitude_m)
    if kind == "sabayon" and family:
        return sabayon(mix, family, altitude_m)
    if kind == "curd" and family:
        return curd(mix, family, altitude_m)
    if kind == "roux" and family:
        return _roux(mix, family, ring, setting, altitude_m)
    return _citrus(mix)


def _italian(mix: Mix, power: float, altitude_m: float, syrup_c: float, whites_c: float) -> Work:
    sugar, water = sugar_and_water(mix)
    whites = mix.white_g
    if whites <= 0:
        raise CraftError("lines", "There is no white in this meringue.")
    found = meringue(
        "italian", whites, sugar, water_g=water or None, syrup_c=syrup_c, power_w=power,
        whites_c=whites_c, altitude_m=altitude_m,
    )  # fmt: skip
    assert found.syrup
    start = found.start_whites_c or syrup_c - 6
    cues = (*slow_cues(syrup_c), Cue(start, "start the whites", "Whites on, medium speed", "now"))
    steps = [
        ready("Whites in a clean bowl at room temperature, whisk on the machine.",
               "A trace of fat or yolk and they do not rise."),
        Step(
            "cook", "cook", f"Cook the syrup to {syrup_c:.0f} °C",
            "A drop in cold water rolls into a ball that holds.",
            "Stopping at 105 to 110: far too much water left, it weeps and falls.",
            syrup_c - 0.5, syrup_c + 3, syrup_c + 8, 0, None, HOT_SUGAR,
            "Pour now, in a thin stream, machine running", "too hard: it sets in threads",
            tuple(sorted(cues, key=lambda c: c.from_c)),
        ),
        Step("pour", "finish", "Pour it in a thin stream between whisk and bowl",
             "The whites swell and shine.", "Onto the whisk it flies to the wall and sets there.",
             caution=HOT_SUGAR),
        Step("whip", "finish", "Whip until the bowl is only warm",
             "Glossy, a bird's beak that bends.", "Stopping hot: it softens as it cools.",
             hold_s=round(found.whip_s + 120)),
        Step("use", "finish", "Use it while it is warm", "It pipes with a clean edge.",
             "It waits badly: an hour at most.",
             caution="Lightly cooked egg: torch or bake it for those at risk."),
    ]  # fmt: skip
    syrup = mix.only({"water"}) + Mix(
        tuple(p for p in mix.portions if p.ingredient.category == "sugar")
    )
    rest = Mix(tuple(p for p in mix.portions if p not in syrup.portions))
    return Work(
        "italian", "Italian meringue", steps,
        ["Whites free of yolk, at room temperature", "Bowl and whisk free of fat",
         "Syrup thermometer in reach"],
        [(t, c) for t, c, _, _ in found.syrup.curve], "cook", found.syrup.time_s, syrup, rest,
        Mix(()), [Pretence("cook", "syrup", 20.0, power, sugar, water or 0.3 * sugar)],
        [w for w in found.warnings if w != HOT_SUGAR],
    )  # fmt: skip


def _french(mix: Mix) -> Work:
    found = meringue("french", mix.white_g or 1e-9, mix.added_sugar_g or 1e-9)
    if mix.white_g <= 0 or mix.added_sugar_g <= 0:
        raise CraftError("lines", "A French meringue needs whites and sugar.")
    steps = [
        ready("Whites at room temperature, sugar in a bowl with a spoon.", "Fat or yolk."),
        Step("soft", "finish", "Whip the whites to soft peaks", "The trail just stays.",
             "Sugar too early: they stay low.", hold_s=round(whip_s(mix.white_g) * 0.6)),
        Step("sugar", "finish", "Sugar in by the spoon, whipping", "No grain between fingers.",
             "All at once: it weeps.", hold_s=round(whip_s(mix.white_g))),
        Step("use", "finish", "Fold or bake at once", "Stiff and glossy.", "Waiting.",
             caution="Raw white: not for those at risk unless baked through."),
    ]  # fmt: skip
    return Work("french", "French meringue", steps, ["Bowl and whisk free of fat"], [], "soft",
                None, Mix(()), mix, Mix(()), [], found.warnings)  # fmt: skip


def _whipped(mix: Mix) -> Work:
    found = whip_of(mix)
    gelatine = mix.grams_of("setter") > 0
    melted = Step(
        "melt", "finish", "Soak the gelatine, melt it in a spoon of cream, keep it lukewarm",
        "Liquid and clear, no warmer than the hand.", "Cold it falls into threads as it goes in.",
    )  # fmt: skip
    steps = [
        ready("Cream, bowl and whisk from the cold.", "A warm bowl: it never stands."),
        *([melted] if gelatine else []),
        Step("whip", "finish", "Whip cold, medium speed", f"{PEAKS['top'].capitalize()}.",
             "Too fast and too long: butter. Stop early, finish by hand.",
             hold_s=round(found.time_s)),
        Step("use", "finish", "Use it the same day, cold",
             f"Stands about {_hours(found.stands_cold_h)} in the cold, {_hours(found.stands_h)} in "
             "a room of 20 °C." + (" Pipe it within 20 minutes: then it sets." if gelatine else ""),
             "Two to four centimetres on a pie and not more."),
    ]  # fmt: skip
    return Work("whipped", "Whipped cream", steps,
                ["Cream at 2 to 6 °C", "Bowl and beaters out of the freezer"], [], "whip", None,
                Mix(()), mix, Mix(()), [], found.warnings)  # fmt: skip


def _hours(hours: float) -> str:
    return f"{hours:.0f} h" if hours >= 2 else f"{round(60 * hours, -1):.0f} min"


def _choux(mix: Mix, ring: Ring, setting: float, altitude_m: float) -> Work:
    eggs = Mix(tuple(p for p in mix.portions if p.ingredient.category == "egg"))
    flour = Mix(tuple(p for p in mix.portions if p.ingredient.category == "starch"))
    pot = Mix(tuple(p for p in mix.portions if p not in eggs.portions + flour.portions))
    boil = boils_c(altitude_m)
    run = liquid_run(pot, ring, setting, boil - 0.5, altitude_m)
    steps = [
        ready("Flour sifted onto paper, eggs beaten in a jug.", "Flour in parts: lumps."),
        Step("heat", "heat", "Bring liquid, fat and salt to the boil",
             "The fat is melted as it boils.", "Boiling on: the water leaves.",
             boil - AT_BOIL_K, boil + 2, None, 0, None, "", "Off the heat: all the flour at once"),
        Step("dry", "cook", "Back on the heat: dry the panade, stirring",
             "It leaves the pan in one piece and films the floor.",
             "Too wet it takes too little egg, too dry it cracks.",
             *CHOUX_DRY_C, 90.0, 0, None, "", "Dry: into a cold bowl", "too dry"),
        Step("eggs", "finish", "Cool to under 60 °C, then egg by egg",
             "It falls from the spoon in a V that hangs.", "All the egg at once: it swims.",
             hold_s=180),
    ]  # fmt: skip
    scene = Pretence("heat", "pot", 20.0, ring.reaches_pot_w(setting), mass_g=pot.mass_g,
                  cp_j_per_gk=pot.heat_capacity_j_per_gk)  # fmt: skip
    return Work("choux", "Choux panade", steps, ["Flour sifted", "Eggs beaten", "Oven hot"],
                run.curve, "heat", run.reaches_s, pot, flour, eggs, [scene])  # fmt: skip


def _citrus(mix: Mix) -> Work:
    juice = Mix(tuple(p for p in mix.portions if p.ingredient.category == "fruit"))
    rest = Mix(tuple(p for p in mix.portions if p not in juice.portions))
    milk = mix.grams_of_key("condensed_milk")
    warnings = []
    if juice.mass_g < 0.2 * milk:
        warnings.append(
            f"Only {100 * juice.mass_g / milk:.0f} % of juice to condensed milk: it stays loose "
            "below 20."
        )
    steps = [
        ready("Zest taken, then the juice squeezed and strained.", "Bare metal: it tastes of it."),
        Step("mix", "finish", "Juice in slowly, whisking: it thickens by itself",
             "It mounds on the whisk without any heat.", "All at once: it curdles in grains.",
             hold_s=90),
        Step("bake", "finish", "Into its shell, about ten minutes in the oven",
             "The edge set, the top no longer wet.", "Longer: it cracks.",
             caution="Raw yolk until it is baked to 71 °C."),
        Step("cool", "cool", "Cool, then chill for hours", "Cuts clean.", "Cutting warm.",
             None, 21.0),
    ]  # fmt: skip
    return Work("citrus_mix", "Citrus and condensed milk", steps,
                ["Zest taken, then the juice squeezed"], [], "mix", None, Mix(()), rest, juice,
                [], warnings)  # fmt: skip


def _roux(mix: Mix, family: Family, ring: Ring, setting: float, altitude_m: float) -> Work:
    stop = endpoint(mix, family, altitude_m)
    roux = Mix(tuple(p for p in mix.portions if p.ingredient.category in ("fat", "starch")))
    rest = Mix(tuple(p for p in mix.portions if p not in roux.portions))
    cream = PotCream.of(mix, 84.0, altitude_m)
    run = heat_to(cream, pot_for(mix.volume_ml), ring.fuel, ring.reaches_pot_w(setting), 25.0,
                  cream.boil_c, stop.hold_s, "whisk", loss_w_m2k=ring.loss_w_m2k)  # fmt: skip
    steps = [
        ready("Flour sifted, dairy and sugar in a jug.", "Flour browned: it thickens less."),
        Step("roux", "finish", "Butter and flour together, two minutes, stirring",
             "It foams and smells of biscuit, still pale.", "Browning it.", hold_s=120),
        Step("cook", "cook", "Dairy in by parts, whisking, to the boil and hold",
             "Smooth after every part; then slow bubbles.", "All at once: lumps.",
             cream.boil_c - AT_BOIL_K, cream.boil_c + 1, None, max(60, stop.hold_s), 84.0),
        Step("sieve", "finish", "Through a sieve into the baked shell", "No lump left.",
             "A cold shell with hot cream: only if it bakes again at once."),
        Step("bake", "finish", "Bake again until only just set", "It trembles like jelly.",
             "Longer: it weeps.", hold_s=0),
    ]  # fmt: skip
    scene = Pretence("cook", "pot", 25.0, ring.reaches_pot_w(setting), mass_g=mix.mass_g,
                  cp_j_per_gk=mix.heat_capacity_j_per_gk)  # fmt: skip
    return Work("roux", family.name, steps, checks(mix, family), run.curve, "cook", run.reaches_s,
                roux, rest, Mix(()), [scene])  # fmt: skip
