"""The pretended stove: acts in, physics on, and what went wrong when."""

import random
from collections.abc import Sequence

from bellcrumb.heat.pot import Cream, PotState, pot_for, start, step
from bellcrumb.laws.water import AT_BOIL_K
from bellcrumb.mix.composition import Mix
from bellcrumb.pantry.ingredients import shipped
from bellcrumb.rehearse.exercises import RING, Exercise, guide_step
from bellcrumb.rehearse.world import HEATS, LONGEST_S, Act, Replay, Result, Slip, World
from bellcrumb.stove.guide import Moment, follow
from bellcrumb.stove.meringue import whip_s
from bellcrumb.stove.plan import thickens_c
from bellcrumb.stove.syrup import Pan, colour_word
from bellcrumb.stove.temper import scramble_c, temper
from bellcrumb.texture.endpoint import endpoint
from bellcrumb.texture.families import family


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
                           self.pot.diameter_mm, self.pot.mass_g)  # fmt: skip
            self.world.water_g = self.pan.water_g
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
            w.heat = max(0, min(HEATS, round(act.value)))
        elif act.kind == "stir":
            w.stirring = act.value > 0
            if w.stirring and self.pan and self.pan.solids_pct > 70 and self.pan.temp_c > 102:
                self._hurt("crystals", 0.5, "It grained.", "Stirred after it boiled.")
        elif act.kind == "lift":
            w.lifted = act.value > 0
        elif act.kind == "ladle":
            self._ladle(act.value)
        elif act.kind == "whites" and w.whites_s is None:
            w.whites_s = w.t_s
        elif act.kind == "cold_water" and self.pan:
            self.pan.temp_c = min(self.pan.temp_c, 140.0)
            w.lifted = True
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
        limit *= 2.2 if w.stirring else 0.5
        if grams > limit and w.temp_c < 74:
            self._hurt("scrambled", min(0.6, 0.25 * grams / max(limit, 1.0)), "Eggs scrambled.",
                       f"{grams:.0f} g at once onto eggs at {w.temp_c:.0f} °C"
                       + ("." if w.stirring else ", not whisked."))  # fmt: skip
        if w.temp_c > scramble_c(now):
            self._hurt("scrambled", 0.5, "Eggs scrambled.", "The whole bowl went too hot.")

    # -- time ---------------------------------------------------------------------------------

    def tick(self) -> None:
        """One second on."""
        w = self.world
        w.t_s += 1.0
        power = 0.0 if w.lifted else RING.reaches_pot_w(w.heat / HEATS) * self.truth
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
                          "spatula" if w.stirring else "none", 1.0)  # fmt: skip
        w.temp_c = self.state.cream_c
        excess = self.state.wall_c - self.state.cream_c
        if self.state.thickened and not w.stirring and power > 0:
            self._hurt("lumps", 0.03, "Lumps.", "It thickened while nobody stirred.")
        if excess > 60 and (self.state.thickened or self.ex.key == "scald"):
            rate = 0.004 * (excess - 60) / 30
            why = "Too much heat." if w.stirring else "Too much heat and no stirring."
            self._hurt("scorched", rate, "It caught on the bottom.", why)
        boils = self.cream.boil_c
        if self.ex.key == "scald" and w.temp_c > boils - 1.0 and power > 0:
            self._hurt("boiled_over", 0.12, "It boiled over.", "Left on the heat past 97 °C.")
        if self.never_c is not None and w.temp_c > self.never_c:
            self._hurt("curdled", 0.08 * (1 + w.temp_c - self.never_c), "It curdled.",
                       f"Past {self.never_c:.0f} °C; it ran on after the heat.")  # fmt: skip
        if w.temp_c >= boils - AT_BOIL_K:
            w.held_s += 1.0
            w.boiled_s += 1.0

    def _syrup(self, power: float) -> None:
        assert self.pan is not None
        w = self.world
        self.pan.step(power, 1.0)
        w.temp_c, w.water_g, w.colour = self.pan.temp_c, self.pan.water_g, self.pan.colour
        if self.pan.temp_c > 200:
            self._hurt("burnt", 0.1, "It burnt.", "Past 200 °C.")
        if w.whites_s is not None:
            ready = whip_s(self.ex.grams.get("egg_white", 100.0))
            if w.t_s - w.whites_s > ready + 90:
                self._hurt("overwhipped", 0.02, "The whites went dry and grainy.",
                           "They waited for the syrup.")  # fmt: skip

    def _mixer(self) -> None:
        w = self.world
        w.whipped_s += w.heat / 6.0
        w.temp_c += 0.012 * w.heat
        if w.whipped_s > 175:
            self._hurt("butter", 0.05 * w.heat, "It turned to butter.", "Whipped past stiff.")

    def _hurt(self, what: str, by: float, said: str, why: str) -> None:
        before = self.world.damage.get(what, 0.0)
        self.world.damage[what] = min(1.0, before + by)
        if before < 0.25 <= self.world.damage[what]:
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
        return result, says or ["Just as it should be."]

    def _short(self) -> tuple[Result, str] | None:
        """What was left out, as opposed to what was broken."""
        w, ex = self.world, self.ex
        low, high = ex.goal_c
        if ex.key == "scald" and w.peak_c < low:
            return "usable", f"Only {w.peak_c:.0f} °C: not hot enough to temper with."
        if ex.key == "temper" and w.poured_g < 0.95 * ex.mix.mass_g:
            return "usable", f"{ex.mix.mass_g - w.poured_g:.0f} g of the milk is not in yet."
        if ex.key == "anglaise" and w.peak_c < low:
            return "usable", f"Only {w.peak_c:.0f} °C: it stays thin as milk."
        if ex.key == "pastry_cream":
            if w.peak_c < low:
                return "spoiled", "It never boiled: raw starch, and thin by tomorrow."
            if w.held_s < 50:
                return "usable", f"Held {w.held_s:.0f} s at the boil: a minute it should be."
        if ex.key in ("syrup", "italian") and not low <= w.temp_c <= high:
            word = "too early: loose, it weeps" if w.temp_c < low else "too late: hard threads"
            result: Result = "spoiled" if w.temp_c < 112 or w.temp_c > 130 else "usable"
            return result, f"Poured at {w.temp_c:.0f} °C, {word}. {w.water_g:.0f} g of water left."
        if ex.key == "italian":
            ready = whip_s(ex.grams["egg_white"])
            if w.whites_s is None:
                return "spoiled", "The whites were never started."
            if w.t_s - w.whites_s < ready - 45:
                return "usable", "The whites were not at soft peaks yet when the syrup came."
        if ex.key == "caramel" and not 0.5 <= w.colour <= 1.8:
            return ("usable" if 0.2 <= w.colour <= 2.6 else "spoiled",
                    f"It came out {colour_word(w.colour)}.")  # fmt: skip
        if ex.key == "cream" and w.whipped_s < 110:
            return "usable", "Still soft: it does not hold on a pie."
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
    return Replay(stove.world, stove.curve, stove.slips, moment, word, result, says)


def _run_on(stove: Stove) -> None:
    """Off the heat it goes on for a minute and a half; cold water stops a caramel."""
    if stove.ex.key in ("syrup", "italian"):
        return
    stove.world.lifted = True
    for _ in range(90):
        stove.tick()


def _moment(stove: Stove) -> tuple[Moment, str]:
    """What the guide says now, and what the figure is."""
    w, ex = stove.world, stove.ex
    if ex.stage == "mixer":
        share = min(1.0, w.whipped_s / 150)
        word = "liquid" if share < 0.4 else "soft" if share < 0.75 else "firm"
        return Moment(round(100 * share), "s", word, ex.task, "calm", None, None, None, False), "%"
    if ex.stage == "bowl":
        left = ex.mix.mass_g - w.poured_g
        said = f"{left:.0f} g of milk to go" if left > 1 else "All in: back to the pot"
        return Moment(w.temp_c, "c", "in the bowl", said, "calm", None, None, None, False), "c"
    found = follow(guide_step(ex.key), stove.curve, 0.0, w.t_s)
    return found, "c"
