"""A simulated scale under the bowl: while somebody tempers, ladles fall into it, one by one,
and a layer at a time while a dessert is built.

A real scale only weighs; this one also pours, so that the ladder can be seen to fill by itself.
"""

import argparse
import random
from collections.abc import Callable
from datetime import UTC, datetime, timedelta
from typing import Any

from standins.gateway import Gateway, run

LADLE_EVERY_S = 9.0  # on the cook's clock
LAYER_S = 30.0  # a layer is laid in so long


class Scale:
    """The device: asks, weighs, posts."""

    def __init__(
        self,
        gateway: Gateway,
        seed: int,
        clock: Callable[[], datetime] = lambda: datetime.now(UTC),
    ) -> None:
        self.gateway = gateway
        self.clock = clock
        self.noise = random.Random(seed)
        self.batch: str | None = None
        self.bowl_g = 0.0

    def grams(self, scene: dict[str, Any], now_s: float) -> float:
        """What lies in the bowl ``now_s`` seconds into the cook, to a gram or so."""
        if scene.get("lay_g") or scene.get("laid_g"):
            share = min(1.0, max(0.0, (now_s - scene["step_entered_s"]) / LAYER_S))
            on: float = scene["laid_g"] + share * scene["lay_g"]
            return on + self.noise.gauss(0, 0.3)
        bowl: float = scene["bowl_g"] or 0.0
        rungs: list[float] = scene["rungs_g"]
        if scene["step"] == "temper" and rungs:
            # Who began it may have a clock a little ahead of this one.
            poured = max(0, int((now_s - scene["step_entered_s"]) / LADLE_EVERY_S))
            # A ladle is never exactly full.
            up = rungs[min(poured, len(rungs)) - 1] if poured else 0.0
            bowl += up * (1 + self.noise.uniform(-0.01, 0.01))
        elif scene["step"] not in ("ready", "heat", "temper"):
            return self.noise.gauss(0, 0.2)  # the bowl is back in the pot
        return bowl + self.noise.gauss(0, 0.3)

    def tick(self) -> None:
        """One round: where am I, how heavy is it, deliver."""
        scene = self.gateway.ask()
        if scene:
            began = datetime.fromisoformat(scene["started_at"])
            now = self.clock()
            now_s = (now - began).total_seconds() * scene["time_scale"]
            at = began + timedelta(seconds=now_s / scene["time_scale"])
            self.gateway.keep(at, grams=round(self.grams(scene, now_s), 1))
        self.gateway.deliver()


def _make(options: argparse.Namespace, token: str) -> Callable[[], None]:
    return Scale(Gateway(options.url, token, options.spool, options.ca), options.seed).tick


if __name__ == "__main__":
    run("A simulated scale.", _make)
