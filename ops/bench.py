"""Measure: run inside a throwaway MariaDB with the demo kitchen; print a table of medians.

Ratios first: they hold on any machine. Times are medians on this one.
"""

import json
import statistics
import subprocess
import sys
from itertools import count
from pathlib import Path

from ops import bench_whole, needs
from ops.base import ROOT
from ops.bench_browser import first_load, in_browser
from ops.bench_http import over_http
from ops.bench_table import PASTRY, RAMEKINS, one, row, times_ms
from ops.demo_server import demo_server


def core() -> dict[str, float]:
    """The core alone, in this process."""
    from bellcrumb.contract import compute

    grams = count(1000)

    def fresh() -> object:
        lines = [f"{next(grams)} g whole milk", *PASTRY[1:]]
        return compute("formula", {"lines": lines, "vessel": "ramekin_150", "count": 8})

    found = {"formula": times_ms(fresh, 100)}
    found["temper"] = times_ms(
        lambda: compute(
            "temper",
            {
                "hot": {"lines": ["1 l whole milk"], "temp_c": 90},
                "eggs": {"lines": ["9 yolks", "150 g sugar"], "temp_c": 18},
                "ladle_ml": 100,
            },
        )
    )
    found["pot"] = times_ms(lambda: compute("pot", {"lines": PASTRY, "temp_c": 60, "hold_s": 60}))
    row("formula answer with set map, in the core", found["formula"], aim="100 ms a key")
    row("temper ladder, in the core", found["temper"])
    row(
        "bend a pudding until it slices, in the core",
        times_ms(
            lambda: compute(
                "solve",
                {"lines": PASTRY, "family": "starch_pudding", "wishes": {"set_class": "slice"}},
            )
        ),
        aim="300 ms",
    )
    row("pot to the boil and hold, in the core", found["pot"])
    found["bake"] = oven()
    return {name: statistics.median(t) for name, t in found.items()}


def oven() -> list[float]:
    """The bake in the core, and its field against an independent library of finite elements."""
    from bellcrumb.contract import compute
    from tests.core.independent import ours, theirs
    from tests.core.practice import met, table

    bake = times_ms(lambda: compute("bake", RAMEKINS), 30)
    row("bake with its band and carry-over, in the core", bake, aim="60 ms")
    row("choose oven and bath (20 settings), in the core", times_ms(
        lambda: compute("choose", {**RAMEKINS, "oven": {}, "within_min": 75}), 6))  # fmt: skip
    pan = {"shape": "rect", "length_mm": 500, "width_mm": 300, "depth_mm": 65, "fill_mm": 25}
    row("cooling with its deepest depth, in the core", times_ms(
        lambda: compute("cool", {"mix": {"lines": PASTRY}, "vessel": pan}), 10))  # fmt: skip
    each = {}
    for columns, rows in ((16, 20), (32, 40), (64, 80)):
        mine = times_ms(lambda c=columns, r=rows: ours(c, r, 5.0, 600.0), 5)  # type: ignore[misc]
        fem = times_ms(lambda c=columns, r=rows: theirs(c, r, 5.0, 600.0), 3)  # type: ignore[misc]
        each[columns * rows] = statistics.median(mine)
        one(
            f"  field of {columns} × {rows}: finite elements against ours",
            statistics.median(fem) / statistics.median(mine), "ratio",
        )  # fmt: skip
    one("  16 times the cells take so many times as long", each[5120] / each[320], "ratio")
    for name, n, ratio, spread, meets in table(met()):
        one(f"ordinary bakes, {name}: ours / practice, of {n}", ratio, "ratio", "0.95-1.05")
        one(f"  spread of its logarithm; {meets} windows meet", spread, "", "0.15")
    return bake


def memory(server: subprocess.Popen[bytes]) -> None:
    """Resident memory of each worker, from /proc."""
    found = []
    for status in Path("/proc").glob("[0-9]*/status"):
        try:
            text = status.read_text()
        except OSError:
            continue
        fields = dict(line.split(":", 1) for line in text.splitlines() if ":" in line)
        if fields.get("PPid", "").strip() == str(server.pid):
            found.append(int(fields["VmRSS"].split()[0]) / 1000)
    row("memory of a worker", found or [0.0], "MB")


def cold_command() -> None:
    """``./crumb compute``: start-up plus answer."""
    given = json.dumps({"lines": PASTRY})
    found = times_ms(
        lambda: subprocess.run(
            [sys.executable, "-m", "bellcrumb.contract", "formula"],
            cwd=ROOT / "core",
            input=given,
            capture_output=True,
            text=True,
            check=True,
        ),
        6,
    )
    row("./crumb compute formula, start-up and answer", found, aim="1500 ms")


def main() -> None:
    """Print the table."""
    print(f"| {'what':<46} | {'median':>8} | {'p95':>8} | unit  | {'aim':<16} |")
    print(f"|{'-' * 48}|{'-' * 9}:|{'-' * 9}:|{'-' * 7}|{'-' * 18}|")
    in_core = core()
    cold_command()
    bench_whole.dessert_and_day(row, one)
    bench_whole.formulas(one)
    bench_whole.learning(one)
    bench_whole.planted(one)
    needs.front_end()  # what is measured stands in the source, and is built before it is served
    with demo_server() as server:
        over_http(server, in_core)
        in_browser(server)
        memory(server.process)
    first_load()


if __name__ == "__main__":
    main()
