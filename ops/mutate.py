"""Plant small mistakes, one at a time, and see which the tests notice.

A mistake is a sign, a comparison, a connective or a number changed in the code of a chosen subject;
which ones is decided by the place alone, so that two runs plant the same. Each runs in a copy of
the tree against the tests that ought to notice. By hand or by night, not in CI. Run inside
``checks.throwaway`` for the server's.
"""

import ast
import os
import random
import re
import shutil
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path

from ops.base import PYTHON, ROOT, Stop, say

CORE = ROOT / "core" / "bellcrumb"
GOLDEN = "tests.core.test_golden"


@dataclass(frozen=True)
class Subject:
    """Where mistakes are planted, how many, and who ought to notice."""

    name: str
    side: str  # core, server or web
    file: str
    count: int
    tests: tuple[str, ...]


def _core(name: str, file: str, count: int, *tests: str) -> Subject:
    noticing = (GOLDEN, *(f"tests.core.{test}" for test in tests))
    return Subject(name, "core", f"core/bellcrumb/{file}", count, noticing)


def _server(name: str, file: str, count: int, *tests: str) -> Subject:
    return Subject(
        name, "server", f"server/{file}", count, tuple(f"tests.server.{t}" for t in tests)
    )


def _web(name: str, file: str, count: int, *tests: str) -> Subject:
    own = f"src/{file.rsplit('.', 1)[0]}.test"
    return Subject(name, "web", f"web/src/{file}", count, (own, *(f"src/{t}" for t in tests)))


SUBJECTS = (
    _core("safety", "safety/pasteurise.py", 14, "test_texture", "test_sugar"),
    _core("set temperature", "texture/coagulation.py", 12, "test_texture"),
    _core("set index", "texture/set_index.py", 12, "test_texture"),
    _core("how a mix sets", "texture/how_set.py", 8, "test_texture", "test_formulas"),
    _core("families", "texture/families.py", 8, "test_texture", "test_formulas"),
    _core("answer", "formula/answer.py", 8, "test_formulas", "test_texture"),
    _core("cautions", "formula/cautions.py", 10, "test_formulas"),
    _core("doubts of a line", "mix/doubts.py", 4, "test_lines"),
    _core("tables of a thread", "dessert/tables.py", 4, "test_dessert", "test_warm"),
    _core("cook endpoint", "texture/endpoint.py", 8, "test_texture", "test_stove"),
    _core("what is no custard", "texture/no_custard.py", 8, "test_no_custard", "test_works"),
    _core("plan of the stove", "stove/plan.py", 8, "test_stove", "test_works"),
    _core("caramel", "stove/caramel.py", 5, "test_works"),
    _core("steps of a thread", "dessert/steps.py", 8, "test_dessert", "test_warm"),
    _core("weights of a line", "mix/weights.py", 6, "test_lines", "test_quantities"),
    _core("law of water", "laws/water.py", 8, "test_stove", "test_laws"),
    _core("law of food", "laws/food.py", 6, "test_stove", "test_laws"),
    _core("law of starch", "laws/starch.py", 6, "test_laws", "test_sugar"),
    _core("law of egg", "laws/egg.py", 8, "test_laws", "test_texture", "test_oven"),
    _core("law of air", "laws/air.py", 6, "test_laws", "test_oven"),
    _core("curve watched", "curve/watch.py", 10, "test_watch", "test_book"),
    _core("doubts of a probe", "curve/doubts.py", 6, "test_book"),
    _core("forms of a line", "mix/forms.py", 8, "test_lines"),
    _core("sizes of eggs", "mix/egg_sizes.py", 4, "test_lines"),
    _core("body of a bake", "oven/body.py", 8, "test_oven"),
    _core("day that runs", "day/running.py", 8, "test_day_running"),
    _core("day's aim", "day/aim.py", 8, "test_day_tally"),
    _core("day's pools", "day/pools.py", 6, "test_day_tally"),
    _core("warm between steps", "dessert/warm.py", 6, "test_warm"),
    _core("learning", "book/learn.py", 8, "test_learn", "test_laws"),
    _core("heatings", "book/heating.py", 8, "test_learn"),
    _core("figures of an oven", "oven/figures.py", 6, "test_oven_figures"),
    _core("what sets a mix", "texture/set_by.py", 4, "test_learn"),
    _core("what happened", "book/happened.py", 8, "test_happened"),
    _core("glaze", "stove/glaze.py", 5, "test_works", "test_no_custard"),
    _core("pouring", "oven/pour.py", 4, "test_oven"),
    _core("control chart", "book/control.py", 3, "test_laws"),
    _core("pot", "heat/pot.py", 10, "test_stove"),
    _core("temper", "stove/temper.py", 10, "test_stove"),
    _core("syrup", "stove/syrup.py", 8, "test_sugar"),
    _core("meringue", "stove/meringue.py", 6, "test_sugar"),
    _core("thickening", "stove/thickening.py", 6, "test_works", "test_stove"),
    _core("bath", "vessels/tray.py", 6, "test_vessels"),
    _core("vessels", "vessels/geometry.py", 6, "test_vessels"),
    _core("pull window", "oven/pull.py", 6, "test_oven"),
    _core("cooling", "cold/cooling.py", 6, "test_cooling"),
    _core("lines", "mix/lines.py", 8, "test_lines"),
    _core("amounts", "quantities/amount.py", 6, "test_quantities", "test_lines"),
    _core("logger files", "book/curve_file.py", 6, "test_book"),
    _server("roles and access", "kitchen/access.py", 4, "test_access"),
    _server("people", "kitchen/people.py", 6, "test_people"),
    _server("sessions", "kitchen/session.py", 6, "test_people", "test_access"),
    _server("devices' door", "batches/intake.py", 8, "test_door", "test_cook"),
    _server("cook folded", "batches/state.py", 6, "test_cook"),
    _server("days", "days/running.py", 6, "test_days"),
    _server("lessons", "batches/teaching.py", 6, "test_learned"),
    _server("holding", "batches/holding.py", 6, "test_door", "test_cook"),
    _server("edge", "shared/edge.py", 6, "test_edge"),
    _server("heavy work", "shared/heavy.py", 3, "test_door", "test_edge"),
    _core("whose units", "words/measures.py", 10, "test_measures"),
    _core("what a line calls it", "mix/called.py", 4, "test_lines"),
    _core("cups and spoons", "quantities/show.py", 8, "test_quantities"),
    _core("whipping", "stove/whip.py", 8, "test_sugar"),
    _core("a bake judged", "book/review.py", 8, "test_book"),
    _core("bent formulas", "formula/solve.py", 8, "test_solve"),
    _core("guide of a cook", "stove/guide.py", 6, "test_stove", "test_words", "test_book"),
    _core("finishing", "stove/finish.py", 6, "test_works", "test_stove"),
    _core("over a bath", "stove/over_bath.py", 5, "test_works"),
    _core("run of a bake", "oven/run.py", 6, "test_oven"),
    _core("chamber", "oven/chamber.py", 6, "test_oven"),
    _core("crust", "oven/crust.py", 6, "test_oven", "test_dessert"),
    _core("guide of a bake", "oven/guide.py", 5, "test_oven"),
    _core("layers", "dessert/layers.py", 6, "test_dessert"),
    _core("building", "dessert/assembly.py", 6, "test_assembly"),
    _core("thread", "dessert/thread.py", 5, "test_dessert", "test_warm"),
    _core("tasks of a day", "day/tasks.py", 6, "test_day", "test_day_plan", "test_day_running"),
    _core("lists of a day", "planner/day_lists.py", 5, "test_day", "test_day_plan"),
    _core("rehearsed at the stove", "rehearse/stove.py", 6, "test_rehearse"),
    _core("files read", "travel/reading.py", 6, "test_travel"),
    _core("scaling", "formula/scale.py", 6, "test_scale"),
    _core("found by its name", "pantry/pantry.py", 6, "test_lines"),
    _core("what a mix holds", "mix/composition.py", 6, "test_worth", "test_texture"),
    _core("causes", "book/causes.py", 5, "test_learn"),
    _core("map of the set", "texture/set_map.py", 5, "test_texture", "test_formulas"),
    _server("who reads", "kitchen/reader.py", 4, "test_reader"),
    _web("units", "units.ts", 10),
    _web("the question of a day", "screens/day/ask.ts", 8),
    _web("a plate's scale", "figures/scale.ts", 6),
    _web("a number's field", "ui/field.tsx", 8),
    _web("moved by strokes", "figures/movable.tsx", 4),
    _web("calls of the API", "api/client.ts", 5),
    _web("what a browser keeps", "keep/stored.ts", 3),
    _web("a cook watched", "screens/cook/live.ts", 6, "screens/cook/standing.test"),
    _web("what is called out", "screens/cook/call.ts", 6),
    _web("a build's draft", "screens/dessert/use-build.ts", 5),
    _web("cases of a bake", "screens/oven/baking.ts", 6),
    _web("described from a label", "screens/formula/describe.tsx", 6),
    _web("outbox", "keep/outbox.ts", 6),
    _web("draft", "keep/draft.ts", 6),
    _web("alignment", "screens/batch/align.ts", 4),
    _web("plan as a curve", "screens/stove/plan-curve.ts", 3),
)


@dataclass(frozen=True)
class Mutant:
    """One planted mistake: a line of a file and what becomes of it."""

    subject: Subject
    line: int
    before: str
    after: str
    text: str

    @property
    def words(self) -> str:
        """For the list of survivors."""
        return f"{self.subject.file}:{self.line}: {self.before} → {self.after}"


_COMPARE = {ast.Lt: ">=", ast.LtE: ">", ast.Gt: "<=", ast.GtE: "<", ast.Eq: "!=", ast.NotEq: "==",
            ast.In: "not in", ast.NotIn: "in", ast.Is: "is not", ast.IsNot: "is"}  # fmt: skip
_SHOWN = {ast.Lt: "<", ast.LtE: "<=", ast.Gt: ">", ast.GtE: ">=", ast.Eq: "==", ast.NotEq: "!=",
          ast.In: "in", ast.NotIn: "not in", ast.Is: "is", ast.IsNot: "is not"}  # fmt: skip
_BINARY = {ast.Add: ("+", "-"), ast.Sub: ("-", "+"), ast.Mult: ("*", "/"), ast.Div: ("/", "*")}


def _quarter_more(value: float) -> float:
    return value * 5 // 4 if isinstance(value, int) and value % 4 == 0 else value * 1.25


def _python(source: str) -> Iterator[tuple[int, int, str, str]]:
    """(start, end, before, after) of every mistake that can be made in Python code."""
    starts = [0]
    for row in source.split("\n"):
        starts.append(starts[-1] + len(row) + 1)

    def at(line: int, column: int) -> int:
        row = source[starts[line - 1] :].encode()[:column].decode()
        return starts[line - 1] + len(row)

    def between(left: ast.expr, right: ast.expr, sign: str) -> tuple[int, int] | None:
        assert left.end_lineno is not None and left.end_col_offset is not None
        a, b = at(left.end_lineno, left.end_col_offset), at(right.lineno, right.col_offset)
        found = re.search(rf"(?<![\w*/]){re.escape(sign)}(?![\w*/])", source[a:b])
        return (a + found.start(), a + found.end()) if found else None

    for node in ast.walk(ast.parse(source)):
        if isinstance(node, ast.Compare) and len(node.ops) == 1:
            kind = type(node.ops[0])
            spot = between(node.left, node.comparators[0], _SHOWN[kind])
            if spot:
                yield (*spot, _SHOWN[kind], _COMPARE[kind])
        elif isinstance(node, ast.BinOp) and type(node.op) in _BINARY:
            before, after = _BINARY[type(node.op)]
            text = isinstance(node.left, ast.JoinedStr | ast.List) or isinstance(
                node.right, ast.JoinedStr | ast.List
            )
            spot = None if text else between(node.left, node.right, before)
            if spot:
                yield (*spot, before, after)
        elif isinstance(node, ast.BoolOp) and len(node.values) == 2:
            before, after = ("and", "or") if isinstance(node.op, ast.And) else ("or", "and")
            spot = between(node.values[0], node.values[1], before)
            if spot:
                yield (*spot, before, after)
        elif (
            isinstance(node, ast.Constant)
            and isinstance(node.value, int | float)
            and not isinstance(node.value, bool)
            and node.value not in (0, 1)
        ):
            assert node.end_lineno is not None and node.end_col_offset is not None
            a, b = at(node.lineno, node.col_offset), at(node.end_lineno, node.end_col_offset)
            yield (
                a,
                b,
                source[a:b],
                repr(node.value * 1.25 if node.value % 4 else node.value * 5 // 4),
            )


_SWAPS = (("===", "!=="), ("!==", "==="), ("&&", "||"), ("||", "&&"), (" + ", " - "),
          (" - ", " + "),
          (" * ", " / "), (" / ", " * "), (" < ", " >= "), (" >= ", " < "), (" > ", " <= "),
          ("=== undefined", "!== undefined"))  # fmt: skip


def _typescript(source: str) -> Iterator[tuple[int, int, str, str]]:
    """The same for TypeScript, by its signs; comments, imports and styles are no code."""
    for before, after in _SWAPS:
        for found in re.finditer(re.escape(before), source):
            row = source[source.rfind("\n", 0, found.start()) + 1 :].split("\n", 1)[0].strip()
            if not row.startswith(("*", "/", "import", "export type", "className")):
                yield found.start(), found.end(), before.strip(), after.strip()
    for found in re.finditer(r"(?<![\w.#-])\d+(?:\.\d+)?(?![\w%])", source):
        value = float(found.group())
        if value not in (0, 1):
            yield found.start(), found.end(), found.group(), f"{value * 1.25:g}"


def mutants(subject: Subject) -> list[Mutant]:
    """The mistakes planted in a subject: the same ones at each run."""
    source = (ROOT / subject.file).read_text()
    made = _typescript(source) if subject.side == "web" else _python(source)
    spots = sorted(set(made))
    chosen = random.Random(subject.file).sample(spots, min(subject.count, len(spots)))
    found = []
    for a, b, before, after in sorted(chosen):
        pad = " " if after[:1].isalpha() and source[a - 1] != " " else ""
        spaced = f" {after} " if source[a] == " " else f"{pad}{after}"
        text = source[:a] + spaced + source[b:]
        found.append(Mutant(subject, source.count("\n", 0, a) + 1, before, after, text))
    return found


def _copy(number: int, base: Path) -> Path:
    """A copy of the tree to spoil; what is installed is shared."""
    copy = base / f"tree-{number}"
    shutil.copytree(
        ROOT,
        copy,
        ignore=shutil.ignore_patterns("var", "node_modules", ".git"),
        symlinks=True,
    )
    (copy / "web" / "node_modules").symlink_to(ROOT / "web" / "node_modules")
    return copy


def _fails(subject: Subject, tree: Path) -> bool:
    """Whether the subject's tests fail in a tree as it is."""
    folders = [tree / "core", tree] + ([tree / "server"] if subject.side == "server" else [])
    env = {
        **os.environ,
        "PYTHONPATH": os.pathsep.join(map(str, folders)),
        "PYTHONDONTWRITEBYTECODE": "1",
        "DJANGO_SETTINGS_MODULE": "config.settings",
        "CRUMB_TEST_DB": f"mutant_{tree.name[-1]}",
    }
    if subject.side == "core":
        command, cwd = [str(PYTHON), "-m", "unittest", "-f", *subject.tests], tree
    elif subject.side == "server":
        command = [str(PYTHON), "manage.py", "test", *subject.tests, "--failfast", "--keepdb",
                   "--noinput"]  # fmt: skip
        cwd = tree / "server"
    else:
        command, cwd = ["npx", "vitest", "run", "--bail", "1", *subject.tests], tree / "web"
    try:
        done = subprocess.run(
            command, cwd=cwd, env=env, capture_output=True, check=False, timeout=300
        )
    except subprocess.TimeoutExpired:
        return True
    return done.returncode != 0


def _noticed(mutant: Mutant, tree: Path) -> bool:
    """Whether the tests fail with this mistake in the tree."""
    path = tree / mutant.subject.file
    before = path.read_text()
    path.write_text(mutant.text)
    try:
        return _fails(mutant.subject, tree)
    finally:
        path.write_text(before)


def _run(subjects: list[Subject], tree: Path) -> list[tuple[Mutant, bool]]:
    found = []
    for subject in subjects:
        if _fails(subject, tree):
            raise Stop(f"The tests of {subject.name} fail without any mistake planted.")
        mine = [(mutant, _noticed(mutant, tree)) for mutant in mutants(subject)]
        seen = sum(noticed for _, noticed in mine)
        survivors = "; ".join(mutant.words for mutant, noticed in mine if not noticed)
        say(f"| {subject.name} | {subject.side} | {len(mine)} | {seen} | {survivors} |")
        found += mine
    return found


def main() -> None:
    """Plant, test, and print who noticed and what nobody did."""
    wanted = sys.argv[1] if len(sys.argv) > 1 else "all"
    chosen = [s for s in SUBJECTS if wanted in ("all", s.side, s.name)]
    if not chosen:
        raise Stop(f"No such subject: {wanted}. One of core, server, web or a name of the list.")
    say("| subject | side | planted | noticed | unnoticed |\n|---|---|---:|---:|---|")
    with tempfile.TemporaryDirectory(prefix="crumb-mutants-") as base:
        trees = [_copy(n, Path(base)) for n in range(2)]
        halves = [chosen[n::2] for n in range(2)]
        with ThreadPoolExecutor(2) as pool:
            found = [r for half in pool.map(_run, halves, trees) for r in half]
    noticed = sum(n for _, n in found)
    say(f"\n{len(found)} planted, {noticed} noticed: {100 * noticed / len(found):.0f} %")
    sys.exit(0 if noticed >= 0.85 * len(found) else 1)


if __name__ == "__main__":
    main()
