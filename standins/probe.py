"""A simulated probe thermometer of one to four channels.

It asks the server which cook it is in (as a gateway would, to know how fast to sample), pretends
the pot, the pan of syrup or the bowl over water with the core's physics and some noise, and posts.
"""

import argparse
import math
import random
from collections.abc import Callable
from dataclasses import KW_ONLY, dataclass
from datetime import UTC, datetime, timedelta
from itertools import pairwise
from typing import Any

from bellcrumb.heat.pot import Cream, Pot, PotState, start, step
from bellcrumb.stove.over_bath import BATH_C
from bellcrumb.stove.syrup import Pan
from standins.gateway import Gateway, run


@dataclass
class SimulatedPot:
    """The pot the probe is pretending to be in, stepped on the cook's clock."""

    noise: random.Random
    careful: bool = False
    key: tuple[str, str] | None = None
    _: KW_ONLY
    ring_truth: float = 1.0
    state: PotState | None = None
    pan: Pan | None = None
    temp_c: float = 20.0
    at_s: float = 0.0

    def read(self, scene: dict[str, Any], now_s: float) -> float:
        """The temperature ``now_s`` seconds into the cook, with a probe's noise."""
        where = (scene["batch_id"], scene["step"])
        pot = scene["scene"]
        if where != self.key:
            if self.key is None or self.key[0] != where[0]:
                self.temp_c = 6.0
                # No ring is exactly its rating: what the plan predicts, the pot does not quite do.
                self.ring_truth = self.noise.uniform(0.94, 1.10)
            self.key = where
            self.at_s = max(self.at_s, scene["step_entered_s"]) if self.state else now_s
            self.at_s = min(self.at_s, now_s)
            self.state = self.pan = None
            if pot:
                self._set_up(pot)
        dt = now_s - self.at_s
        if pot and pot["kind"] == "bake":
            self.temp_c = _along(pot["points"], now_s - scene["step_entered_s"], self.temp_c)
        elif pot and pot["kind"] == "bath":
            tau = pot["mass_g"] * pot["cp_j_per_gk"] / max(pot["bath_w_k"], 0.1) / self.ring_truth
            self.temp_c = BATH_C + (self.temp_c - BATH_C) * math.exp(-dt / tau)
        elif pot and (self.state or self.pan):
            self._heat(pot, dt, scene["wanted_c"] if self.careful else None)
        else:
            self._drift(scene, dt)
        self.at_s = now_s
        return self.temp_c + self.noise.gauss(0, 0.12)

    def _set_up(self, pot: dict[str, Any]) -> None:
        """Something new on the ring: a pot of cream, a pan of syrup, a bowl over water."""
        if pot["kind"] == "syrup":
            water = pot["water_g"] or 0.005 * pot["sugar_g"]
            self.pan = Pan(
                pot["sugar_g"], water, pot["from_c"], diameter_mm=pot["pot_mm"], pan_g=pot["pot_g"]
            )
            self.temp_c = self.pan.temp_c
        elif pot["kind"] == "pot":
            self.state = start(self._cream(pot), pot["from_c"])
        else:
            self.temp_c = pot["from_c"]

    def beside(self, channel: int, scene: dict[str, Any], now_s: float) -> float:
        """What the other channels see: the bath, the room (or the oven's air), the refrigerator."""
        pot = scene["scene"]
        points = {2: "bath_points", 3: "air_points"}.get(channel)
        if pot and points and pot.get(points):
            at_s = now_s - scene["step_entered_s"]
            return _along(pot[points], at_s, 20.0) + self.noise.gauss(0, 0.4)
        return {2: 84.0, 3: 23.0, 4: 4.0}[channel] + self.noise.gauss(0, 0.15)

    @staticmethod
    def _cream(pot: dict[str, Any]) -> Cream:
        return Cream(pot["mass_g"], pot["cp_j_per_gk"], pot["boil_c"], thickens_c=pot["thickens_c"])

    def _heat(self, pot: dict[str, Any], dt: float, wanted_c: float | None) -> None:
        """The ring on; a careful cook lifts the pan whenever it is at ``wanted_c``."""
        power_w = pot["power_w"] * self.ring_truth

        def ring_w() -> float:
            return 0.0 if wanted_c is not None and self.temp_c >= wanted_c else power_w

        while dt > 1e-6 and self.pan:
            part = min(dt, 2.0)
            self.pan.step(ring_w(), part)
            self.temp_c = self.pan.temp_c
            dt -= part
        cream, vessel = self._cream(pot), Pot(pot["pot_mm"], pot["pot_g"])
        while dt > 1e-6 and self.state:
            part = min(dt, 2.0)
            self.state = step(
                self.state,
                cream,
                vessel,
                pot["fuel"],
                ring_w(),
                pot["stirring"],
                part,
            )
            self.temp_c = self.state.cream_c
            dt -= part

    def _drift(self, scene: dict[str, Any], dt: float) -> None:
        if scene["step"] == "temper" and scene["bowl_c"] is not None:
            target, seconds = scene["bowl_c"], 4.0
        elif scene["step"] in ("finish", "cool"):
            target, seconds = 18.0, 420.0
        else:
            return
        self.temp_c = target + (self.temp_c - target) * math.exp(-dt / seconds)


def _along(points: list[dict[str, float]], t_s: float, otherwise: float) -> float:
    """Where a curve is at a moment; its last value after its end."""
    for before, after in pairwise(points):
        if t_s <= after["t_s"]:
            share = (t_s - before["t_s"]) / max(1e-9, after["t_s"] - before["t_s"])
            return before["temp_c"] + (after["temp_c"] - before["temp_c"]) * max(0.0, share)
    return points[-1]["temp_c"] if points else otherwise


class Probe:
    """The device: asks, measures, posts."""

    def __init__(
        self,
        gateway: Gateway,
        seed: int,
        channels: int = 1,
        *,
        careful: bool = False,
        clock: Callable[[], datetime] = lambda: datetime.now(UTC),
    ) -> None:
        self.gateway = gateway
        self.clock = clock
        self.channels = channels
        self.pot = SimulatedPot(random.Random(seed), careful)
        self.measured: dict[str, Any] | None = None

    def tick(self) -> None:
        """One round: where am I, how hot is it, deliver."""
        scene = self.gateway.ask()
        if scene:
            self.measure(scene)
        self.gateway.deliver()

    def measure(self, scene: dict[str, Any]) -> None:
        """Readings since the last round, one every two seconds of cooking."""
        began = datetime.fromisoformat(scene["started_at"])
        scale = scene["time_scale"]
        now_s = (self.clock() - began).total_seconds() * scale
        last_s = self.pot.at_s if self.pot.key and self.pot.key[0] == scene["batch_id"] else now_s
        before, self.measured = self.measured or scene, scene
        count = max(1, min(60, round((now_s - last_s) / 2)))
        for n in range(1, count + 1):
            at_s = last_s + (now_s - last_s) * n / count
            # What was measured before the cook moved on belongs to the pot as it was then.
            earlier = before["batch_id"] == scene["batch_id"] and at_s < scene["step_entered_s"]
            there = before if earlier else scene
            temp = self.pot.read(there, at_s)
            at = began + timedelta(seconds=at_s / scale)
            self.gateway.keep(at, temp_c=round(temp, 2))
            for channel in range(2, self.channels + 1):
                beside = round(self.pot.beside(channel, there, at_s), 2)
                self.gateway.keep(at, temp_c=beside, channel=channel)


def _make(options: argparse.Namespace, token: str) -> Callable[[], None]:
    gateway = Gateway(options.url, token, options.spool, options.ca)
    return Probe(gateway, options.seed, options.channels, careful=options.careful).tick


if __name__ == "__main__":
    run("A simulated probe thermometer.", _make)
