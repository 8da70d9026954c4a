"""The table of the bench: how a time is taken, how a line is printed."""

import statistics
import time
from collections.abc import Callable

PASTRY = ["1 l whole milk", "9 yolks", "3/4 cup sugar", "85 g corn starch", "1 vanilla pod"]
RAMEKINS = {
    "mix": {"lines": ["1 l whole milk", "5 eggs", "3 yolks", "180 g sugar"]},
    "vessel": {"shape": "round", "top_diameter_mm": 83, "bottom_diameter_mm": 78, "depth_mm": 44,
               "wall_mm": 4.5, "material": "porcelain", "fill_mm": 38},
    "count": 6, "oven": {"set_c": 163}, "bath": {"level": "half", "water_c": 100},
}  # fmt: skip


def times_ms(job: Callable[[], object], runs: int = 40) -> list[float]:
    """Milliseconds of ``runs`` runs after a few to warm up."""
    for _ in range(3):
        job()
    found = []
    for _ in range(runs):
        began = time.perf_counter()
        job()
        found.append((time.perf_counter() - began) * 1000)
    return found


def row(name: str, found: list[float], unit: str = "ms", aim: str = "") -> None:
    """One line of the table: median and 95th percentile."""
    ordered = sorted(found)
    p95 = ordered[min(len(ordered) - 1, int(0.95 * len(ordered)))]
    print(
        f"| {name:<46} | {statistics.median(found):>8.1f} | {p95:>8.1f} | {unit:<5} | {aim:<16} |"
    )


def one(name: str, value: float, unit: str, aim: str = "") -> None:
    """One line of the table with a single figure."""
    print(f"| {name:<46} | {value:>8.1f} | {'':>8} | {unit:<5} | {aim:<16} |", flush=True)
