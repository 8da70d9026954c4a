"""The pretended stove: acts in, physics on, and what went wrong when."""

import random
from collections.abc import Sequence

from bellcrumb.heat.pot import Cream, PotState, pot_for, start, step
from bellcrumb.laws.water import AT_BOIL_K
from bellcrumb.mix.composition import Mix
from bellcrumb.pantry.pantry import shipped
from bellcrumb.rehearse.exercises import RING, Exercise, guide_step
from bellcrumb.rehearse.world import HEATS, LONGEST_S, Act, Replay, Result, Slip, World
from bellcrumb.stove.guide import Moment, follow
from bellcrumb.stove.meringue import whip_s
from bellcrumb.stove.plan import thickens_c
from bellcrumb.stove.syrup import Pan, colour_word
from bellcrumb.stove.temper import scramble_c, temper
from bellcrumb.texture.endpoint import endpoint
from bellcrumb.texture.families import family
from bellcrumb.words import say

_SHOWS = 0.25  # of the damage: from here a cook sees it
_SMOKES_C = 250.0  # sugar past this is black and smokes; our estimate


class Stove:
    """One run of an exercise."""

    def __init__(self, ex: Exercise, seed: int) -> None:
        noise = random.Random(seed)
        self.ex = ex
        self.truth = noise.uniform(0.9, 1.1)  # no ring is its rating
        self.world = World(temp_c=ex.from_c + noise.uniform(-1.5, 1.5))
        self.slips: list[Slip] = []
        self.curve: list[tuple[float, float]] = [(0.0, self.world.temp_c)]
        self.pot = pot_for(ex.mix.volume_ml)
        self.state: PotState | None = None
        self.pan: Pan | None = None
        fam = family(ex.family_key) if ex.family_key else None
        self.never_c = endpoint(ex.mix, fam).never_c if fam else None
        thick = thickens_c(ex.mix, fam) if fam else None
        if ex.stage == "pot":
            self.cream = Cream.of(ex.mix, thick)
            self.state = start(self.cream, self.world.temp_c)
        elif ex.stage == "syrup":
            self.pan = Pan(ex.grams["sugar"], ex.grams["water"], self.world.temp_c,
                           diameter_mm=self.pot.diameter_mm, pan_g=self.pot.mass_g)  # fmt: skip
            self.world.sugar.water_g = self.pan.water_g
        elif ex.stage == "bowl":
            pantry = shipped()
            self.eggs = Mix.of([(pantry.key("egg_yolk"), 180.0), (pantry.key("sugar"), 180.0)])
            self.world.temp_c = ex.egg_c

    # -- acts ---------------------------------------------------------------------------------

    def do(self, act: Act) -> None:
        """Take an act. Unknown acts, and those this exercise has not, are left out."""
        w = self.world
        if act.kind not in self.ex.acts or w.ended:
            return
        if act.kind == "heat":
            w.hands.heat = max(0, min(HEATS, round(act.value)))
        elif act.kind == "stir":
            w.hands.stirring = act.value > 0
            if w.hands.stirring and self.pan and self.pan.solids_pct > 70 and self.pan.temp_c > 102:
                self._hurt(
                    "crystals",
                    0.5,
                    say("rehearse.it_grained"),
                    say("rehearse.stirred_after_it_boiled"),
                )
        elif act.kind == "lift":
            w.hands.lifted = act.value > 0
        elif act.kind == "ladle":
            self._ladle(act.value)
        elif act.kind == "whites" and w.sugar.whites_s is None:
            w.sugar.whites_s = w.t_s
        elif act.kind == "cold_water" and self.pan:
            self.pan.temp_c = min(self.pan.temp_c, 140.0)
            w.hands.lifted = True
        elif act.kind in ("pour", "end"):
            w.ended = True

    def _ladle(self, grams: float) -> None:
        w, hot = self.world, self.ex.mix
        grams = min(grams, hot.mass_g - w.poured_g)
        if grams <= 0:
            return
        before = self.eggs + hot.scaled(w.poured_g / hot.mass_g)
        safe = temper(hot, self.ex.from_c, before, w.temp_c, 100.0).first_safe_g
        w.poured_g += grams
        now = self.eggs + hot.scaled(w.poured_g / hot.mass_g)
        cp_before, cp_hot = before.mass_g * 3.2, grams * 3.9
        w.temp_c = (cp_before * w.temp_c + cp_hot * self.ex.from_c) / (cp_before + cp_hot)
        # A warm bowl takes more: half its own weight, once it is past the first ladles.
        limit = max(safe, 0.5 * before.mass_g if w.temp_c > 48 else 0.0)
        limit *= 2.2 if w.hands.stirring else 0.5
        if grams > limit and w.temp_c < 74:
            self._hurt(
                "scrambled",
                min(0.6, 0.25 * grams / max(limit, 1.0)),
                say("rehearse.eggs_scrambled"),
                say("rehearse.g_at_once_onto_eggs_at", grams=grams, temp_c=w.temp_c)
                + ("." if w.hands.stirring else say("rehearse.not_whisked")),
            )
        if w.temp_c > scramble_c(now):
            self._hurt(
                "scrambled",
                0.5,
                say("rehearse.eggs_scrambled"),
                say("rehearse.the_whole_bowl_went_too_hot"),
            )

    # -- time ---------------------------------------------------------------------------------

    def tick(self) -> None:
        """One second on."""
        w = self.world
        w.t_s += 1.0
        power = 0.0 if w.hands.lifted else RING.reaches_pot_w(w.hands.heat / HEATS) * self.truth
        if self.state is not None:
            self._pot(power)
        elif self.pan is not None:
            self._syrup(power)
        elif self.ex.stage == "mixer":
            self._mixer()
        w.peak_c = max(w.peak_c, w.temp_c)
        self.curve.append((w.t_s, w.temp_c))

    def _pot(self, power: float) -> None:
        assert self.state is not None
        w = self.world
        self.state = step(self.state, self.cream, self.pot, "gas", power,
                          "spatula" if w.hands.stirring else "none", 1.0)  # fmt: skip
        w.temp_c = self.state.cream_c
        excess = self.state.wall_c - self.state.cream_c
        if self.state.thickened and not w.hands.stirring and power > 0:
            self._hurt(
                "lumps",
                0.03,
                say("rehearse.lumps"),
                say("rehearse.it_thickened_while_nobody_stirred"),
            )
        if excess > 60 and (self.state.thickened or self.ex.key == "scald"):
            rate = 0.004 * (excess - 60) / 30
            why = (
                say("rehearse.too_much_heat")
                if w.hands.stirring
                else say("rehearse.too_much_heat_and_no_stirring")
            )
            self._hurt("scorched", rate, say("rehearse.it_caught_on_the_bottom"), why)
        boils = self.cream.boil_c
        if self.ex.key == "scald" and w.temp_c > boils - 1.0 and power > 0:
            self._hurt(
                "boiled_over",
                0.12,
                say("rehearse.it_boiled_over"),
                say("rehearse.left_on_the_heat_past_97"),
            )
        if self.never_c is not None and w.temp_c > self.never_c:
            self._hurt(
                "curdled",
                0.08 * (1 + w.temp_c - self.never_c),
                say("rehearse.it_curdled"),
                say("rehearse.past_c_it_ran_on_after", never_c=self.never_c),
            )
        if w.temp_c >= boils - AT_BOIL_K:
            w.held_s += 1.0

    def _syrup(self, power: float) -> None:
        assert self.pan is not None
        w = self.world
        self.pan.step(power, 1.0)
        w.temp_c, w.sugar.water_g, w.sugar.colour = (
            self.pan.temp_c,
            self.pan.water_g,
            self.pan.colour,
        )
        if self.pan.temp_c > 200:
            self._hurt("burnt", 0.1, say("rehearse.it_burnt"), say("rehearse.past_200_c"))
        if self.pan.temp_c > _SMOKES_C:  # nobody cooks on: there is nothing left to learn
            w.ended = True
        if w.sugar.whites_s is not None:
            ready = whip_s(self.ex.grams.get("egg_white", 100.0))
            if w.t_s - w.sugar.whites_s > ready + 90:
                self._hurt(
                    "overwhipped",
                    0.02,
                    say("rehearse.the_whites_went_dry_and_grainy"),
                    say("rehearse.they_waited_for_the_syrup"),
                )

    def _mixer(self) -> None:
        w = self.world
        w.whipped_s += w.hands.heat / 6.0
        w.temp_c += 0.012 * w.hands.heat
        if w.whipped_s > 175:
            self._hurt(
                "butter",
                0.05 * w.hands.heat,
                say("rehearse.it_turned_to_butter"),
                say("rehearse.whipped_past_stiff"),
            )

    def _hurt(self, what: str, by: float, said: str, why: str) -> None:
        before = self.world.damage.get(what, 0.0)
        self.world.damage[what] = min(1.0, before + by)
        if before < _SHOWS <= self.world.damage[what]:
            self.slips.append(Slip(self.world.t_s, said, why))

    # -- what came of it ----------------------------------------------------------------------

    def judge(self) -> tuple[Result, list[str]]:
        """The result and its reasons, worst first."""
        says = [f"{s.what} {s.why}" for s in self.slips]
        worst = max(self.world.damage.values(), default=0.0)
        short = self._short()
        result: Result = "good"
        if worst >= 0.5 or (short and short[0] == "spoiled"):
            result = "spoiled"
        elif worst >= 0.2 or short:
            result = "usable"
        if short:
            says.append(short[1])
        return result, says or [say("rehearse.just_as_it_should_be")]

    def _short(self) -> tuple[Result, str] | None:
        """What was left out, as opposed to what was broken."""
        w, ex = self.world, self.ex
        low, high = ex.goal_c
        if ex.key == "scald" and w.peak_c < low:
            return "usable", say("rehearse.only_c_not_hot_enough_to", peak_c=w.peak_c)
        if ex.key == "temper" and w.poured_g < 0.95 * ex.mix.mass_g:
            return "usable", say("rehearse.g_of_the_milk_is_not", mass_g=ex.mix.mass_g - w.poured_g)
        if ex.key == "anglaise" and w.peak_c < low:
            return "usable", say("rehearse.only_c_it_stays_thin_as", peak_c=w.peak_c)
        if ex.key == "pastry_cream":
            if w.peak_c < low:
                return "spoiled", say("rehearse.it_never_boiled_raw_starch_and")
            if w.held_s < 50:
                return "usable", say("rehearse.held_s_at_the_boil_a", held_s=w.held_s)
        if ex.key in ("syrup", "italian") and not low <= w.temp_c <= high:
            word = (
                say("rehearse.too_early_loose_it_weeps")
                if w.temp_c < low
                else say("rehearse.too_late_hard_threads")
            )
            result: Result = "spoiled" if w.temp_c < 112 or w.temp_c > 130 else "usable"
            return result, say(
                "rehearse.poured_at_c_g_of_water",
                temp_c=w.temp_c,
                word=word,
                water_g=w.sugar.water_g,
            )
        if ex.key == "italian":
            ready = whip_s(ex.grams["egg_white"])
            if w.sugar.whites_s is None:
                return "spoiled", say("rehearse.the_whites_were_never_started")
            if w.t_s - w.sugar.whites_s < ready - 45:
                return "usable", say("rehearse.the_whites_were_not_at_soft")
        if ex.key == "caramel" and not 0.5 <= w.sugar.colour <= 1.8:
            return (
                "usable" if 0.2 <= w.sugar.colour <= 2.6 else "spoiled",
                say("rehearse.it_came_out", colour=colour_word(w.sugar.colour)),
            )
        if ex.key == "cream" and w.whipped_s < 110:
            return "usable", say("rehearse.still_soft_it_does_not_hold")
        return None


def replay_stove(ex: Exercise, seed: int, acts: Sequence[Act], until_s: float) -> Replay:
    """Run an exercise of the stove from its start to ``until_s`` with the acts so far, in order."""
    stove = Stove(ex, seed)
    queue = list(acts)
    until = min(until_s, LONGEST_S)
    while True:
        while queue and queue[0].at_s <= stove.world.t_s + 0.5:
            stove.do(queue.pop(0))
        if stove.world.ended or stove.world.t_s + 1 > until:
            break
        stove.tick()
    if stove.world.ended and ex.stage in ("pot", "syrup"):
        _run_on(stove)
    ended = stove.world.ended or stove.world.t_s + 1 > LONGEST_S
    result, says = stove.judge() if ended else (None, [])
    moment, word = _moment(stove)
    return Replay(
        stove.world,
        stove.curve,
        stove.slips,
        moment=moment,
        figure_word=word,
        result=result,
        says=says,
    )


def _run_on(stove: Stove) -> None:
    """Off the heat it goes on for a minute and a half; cold water stops a caramel."""
    if stove.ex.key in ("syrup", "italian"):
        return
    stove.world.hands.lifted = True
    for _ in range(90):
        stove.tick()


def _moment(stove: Stove) -> tuple[Moment, str]:
    """What the guide says now, and what the figure is."""
    w, ex = stove.world, stove.ex
    if ex.stage == "mixer":
        share = min(1.0, w.whipped_s / 150)
        word = (
            say("rehearse.whips_butter")
            if w.damage.get("butter", 0.0) >= _SHOWS
            else say("rehearse.whips_liquid")
            if share < 0.4
            else say("rehearse.whips_soft")
            if share < 0.75
            else say("rehearse.whips_firm")
        )
        return Moment(round(100 * share), "s", word, next_move=ex.task, urgency="calm"), "%"
    if ex.stage == "bowl":
        left = ex.mix.mass_g - w.poured_g
        said = (
            say("rehearse.g_of_milk_to_go", left=left)
            if left > 1
            else say("rehearse.all_in_back_to_the_pot")
        )
        return Moment(
            w.temp_c, "c", say("rehearse.in_the_bowl"), next_move=said, urgency="calm"
        ), "c"
    found = follow(guide_step(ex.key), stove.curve, 0.0, w.t_s)
    return found, "c"
