"""Ordinary bakes with the minutes kitchens give them, and how far the oven model is off.

Our own lists, of what kitchens usually say; nobody measured it. The constants of the oven were
chosen on the first; every other list was written whole before any of it was baked.
"""

import json
import math
from collections import defaultdict
from dataclasses import KW_ONLY, dataclass
from pathlib import Path
from statistics import fmean, pstdev

from bellcrumb.contract.ovens import baked
from bellcrumb.shapes.oven import BakeIn

BAKES = Path(__file__).with_name("practice.jsonl")


@dataclass(frozen=True)
class Met:
    """A bake of the list: the logarithm of ours over practice's, and whether the windows meet."""

    name: str
    family: str
    listed: str
    _: KW_ONLY
    log_ratio: float
    meets: bool


def met(*lists: str) -> list[Met]:
    """Every bake of these lists (of all, where none is named), baked."""
    found = []
    for text in BAKES.read_text("utf8").splitlines():
        case = json.loads(text)
        if lists and case["list"] not in lists:
            continue
        out = baked(BakeIn.model_validate(case["asked"]))
        low, high = case["practice_min"]
        begins, ends = out.pull_from_min, out.pull_to_min
        if begins is None or ends is None:
            found.append(
                Met(case["name"], case["family"], case["list"], log_ratio=math.inf, meets=False)
            )
            continue
        ratio = math.log(math.sqrt(begins * ends) / math.sqrt(low * high))
        meets = ends >= low and begins <= high
        found.append(Met(case["name"], case["family"], case["list"], log_ratio=ratio, meets=meets))
    return found


def table(bakes: list[Met]) -> list[tuple[str, int, float, float, int]]:
    """(family or list, n, mean ratio, spread of the logarithm, how many meet)."""
    groups: dict[str, list[Met]] = defaultdict(list)
    for bake in bakes:
        groups[bake.family].append(bake)
        groups[f"all {bake.listed}"].append(bake)
    return [
        (name, len(g), math.exp(fmean(b.log_ratio for b in g)),
         pstdev([b.log_ratio for b in g]), sum(b.meets for b in g))
        for name, g in groups.items()
    ]  # fmt: skip
