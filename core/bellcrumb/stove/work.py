"""What a guide of no stirred custard is: its steps, its prediction, what a simulated pan needs."""

from dataclasses import KW_ONLY, dataclass, field
from typing import Literal

from bellcrumb.heat.pot import Cream as PotCream
from bellcrumb.heat.pot import PotRun, Ring, heat_to, pot_for
from bellcrumb.mix.composition import Mix
from bellcrumb.stove.steps import Step

WorkKind = Literal[
    "caramel",
    "italian",
    "swiss",
    "french",
    "whipped",
    "ganache",
    "mirror",
    "choux",
    "citrus_mix",
    "curd",
    "roux",
    "sabayon",
]


@dataclass(frozen=True)
class Pretence:
    """What a simulated pan needs to know of a step."""

    step: str
    kind: Literal["syrup", "bath", "pot"]
    from_c: float
    _: KW_ONLY
    power_w: float
    sugar_g: float = 0.0
    water_g: float = 0.0
    mass_g: float = 0.0
    cp_j_per_gk: float = 4.0


@dataclass(frozen=True)
class Work:
    """A guide with its prediction: ``curve`` of (s, degC) for the step ``curve_step``."""

    kind: WorkKind
    name: str
    steps: list[Step]
    _: KW_ONLY
    checks: list[str]
    curve: list[tuple[float, float]]
    curve_step: str
    reaches_s: float | None
    pot: Mix
    bowl: Mix
    finish: Mix
    scenes: list[Pretence]
    warnings: list[str] = field(default_factory=list)


def liquid_run(mix: Mix, ring: Ring, setting: float, to_c: float, altitude_m: float) -> PotRun:
    """A liquid from the cold heated to ``to_c``, its own boil at most."""
    cream = PotCream.of(mix, 200.0, altitude_m)
    return heat_to(cream, pot_for(mix.volume_ml), ring.fuel, ring.reaches_pot_w(setting), 6.0,
                   min(to_c, cream.boil_c), 0, "whisk", loss_w_m2k=ring.loss_w_m2k)  # fmt: skip
