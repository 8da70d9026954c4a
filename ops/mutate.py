"""Plant small mistakes, one at a time, and see which the tests notice.

A mistake is a sign, a comparison, a connective or a number changed in the code of a chosen subject;
which ones is decided by the place alone, so that two runs plant the same. Each runs in a copy of
the tree against the tests that ought to notice. What nobody notices stands with its reason in
``docs/survivors.csv``; one that does not is a finding. By hand or by night, not in CI. Run inside
``checks.throwaway`` for the server's.
"""

import argparse
import ast
import csv
import os
import random
import re
import shutil
import subprocess
import sys
import tempfile
from collections.abc import Iterable, Iterator
from concurrent.futures import ThreadPoolExecutor
from dataclasses import KW_ONLY, dataclass
from pathlib import Path

from ops.base import PYTHON, ROOT, Stop, as_command, say

GOLDEN = "tests.core.test_golden"
SURVIVORS = ROOT / "docs" / "survivors.csv"


@dataclass(frozen=True)
class Subject:
    """Where mistakes are planted, how many, and who ought to notice."""

    name: str
    side: str  # core, server or web
    file: str
    _: KW_ONLY
    count: int
    tests: tuple[str, ...]


#: Where a side's files begin, and the names of its tests.
_SIDES = {
    "core": ("core/bellcrumb/", "tests.core."),
    "server": ("server/", "tests.server."),
    "web": ("web/src/", "src/"),
}


def _subjects() -> Iterator[Subject]:
    """The table; beside what it names, golden tables notice for the core, a file's own for web."""
    with (ROOT / "ops" / "planted.csv").open(newline="") as file:
        for row in csv.DictReader(file):
            folder, prefix = _SIDES[row["side"]]
            own = {"core": [GOLDEN], "web": [f"src/{row['file'].rsplit('.', 1)[0]}.test"]}
            tests = (*own.get(row["side"], ()), *(prefix + t for t in row["tests"].split()))
            path = folder + row["file"]
            yield Subject(row["name"], row["side"], path, count=int(row["count"]), tests=tests)


SUBJECTS = tuple(_subjects())


#: (file, code of the line, before, after).
Spot = tuple[str, str, str, str]


@dataclass(frozen=True)
class Mutant:
    """One planted mistake: a line of a file and what becomes of it."""

    subject: Subject
    line: int
    before: str
    _: KW_ONLY
    after: str
    text: str

    @property
    def spot(self) -> Spot:
        """How the list of survivors names it: by the code, since a line's number moves."""
        rows = (ROOT / self.subject.file).read_text().split("\n")
        return self.subject.file, rows[self.line - 1].strip(), self.before, self.after

    @property
    def words(self) -> str:
        """For who reads the run."""
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


def mutants(subject: Subject, each: int | None = None) -> list[Mutant]:
    """The mistakes planted in a subject, at most ``each`` of them: the same ones at each run."""
    source = (ROOT / subject.file).read_text()
    made = _typescript(source) if subject.side == "web" else _python(source)
    spots = sorted(set(made))
    chosen = random.Random(subject.file).sample(spots, min(subject.count, len(spots)))[:each]
    found = []
    for a, b, before, after in sorted(chosen):
        pad = " " if after[:1].isalpha() and source[a - 1] != " " else ""
        spaced = f" {after} " if source[a] == " " else f"{pad}{after}"
        text = source[:a] + spaced + source[b:]
        found.append(Mutant(subject, source.count("\n", 0, a) + 1, before, after=after, text=text))
    return found


#: A mistake that makes the tests run for ever is noticed, too.
PATIENCE_S = 600


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


def _fails(side: str, tests: Iterable[str], tree: Path) -> bool:
    """Whether any of a side's tests fails in a tree as it is."""
    folders = [tree / "core", tree] + ([tree / "server"] if side == "server" else [])
    env = {
        **os.environ,
        "PYTHONPATH": os.pathsep.join(map(str, folders)),
        "PYTHONDONTWRITEBYTECODE": "1",
        "DJANGO_SETTINGS_MODULE": "config.settings",
        "CRUMB_TEST_DB": f"mutant_{tree.name[-1]}",
    }
    if side == "core":
        command, cwd = [str(PYTHON), "-m", "unittest", "-f", *tests], tree
    elif side == "server":
        command = [str(PYTHON), "manage.py", "test", *tests, "--failfast", "--keepdb",
                   "--noinput"]  # fmt: skip
        cwd = tree / "server"
    else:
        command, cwd = ["npx", "vitest", "run", "--bail", "1", *tests], tree / "web"
    try:
        done = subprocess.run(
            command, cwd=cwd, env=env, capture_output=True, check=False, timeout=PATIENCE_S
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
        return _fails(mutant.subject.side, mutant.subject.tests, tree)
    finally:
        path.write_text(before)


def _whole(subjects: list[Subject], tree: Path) -> None:
    """Every test that is to notice passes while no mistake is planted."""
    for side in sorted({subject.side for subject in subjects}):
        tests = dict.fromkeys(t for s in subjects if s.side == side for t in s.tests)
        if _fails(side, tests, tree):
            raise Stop(f"Tests of {side} fail without any mistake planted.")


def _run(subjects: list[Subject], each: int | None, tree: Path) -> list[tuple[Mutant, bool]]:
    found = []
    for subject in subjects:
        mine = [(mutant, _noticed(mutant, tree)) for mutant in mutants(subject, each)]
        seen = sum(noticed for _, noticed in mine)
        survivors = "; ".join(mutant.words for mutant, noticed in mine if not noticed)
        say(f"| {subject.name} | {subject.side} | {len(mine)} | {seen} | {survivors} |")
        found += mine
    return found


def reasons() -> dict[Spot, str]:
    """Why a mistake may go unnoticed, by its spot."""
    with SURVIVORS.open(newline="") as file:
        return {
            (row["file"], row["code"], row["before"], row["after"]): row["reason"]
            for row in csv.DictReader(file)
        }


def main() -> None:
    """Plant, test, and print who noticed and what nobody did."""
    asked = argparse.ArgumentParser()
    asked.add_argument("subject", nargs="?", default="all")
    asked.add_argument("--each", type=int)
    options = asked.parse_args()
    chosen = [s for s in SUBJECTS if options.subject in ("all", s.side, s.name)]
    if not chosen:
        raise Stop(
            f"No such subject: {options.subject}. One of core, server, web or a name of the list.",
            2,
        )
    with tempfile.TemporaryDirectory(prefix="crumb-mutants-") as base:
        trees = [_copy(n, Path(base)) for n in range(2)]
        _whole(chosen, trees[0])
        say("| subject | side | planted | noticed | unnoticed |\n|---|---|---:|---:|---|")
        halves = [chosen[n::2] for n in range(2)]
        with ThreadPoolExecutor(2) as pool:
            found = [
                result
                for half in pool.map(_run, halves, [options.each] * 2, trees)
                for result in half
            ]
    noticed = sum(n for _, n in found)
    say(f"\n{len(found)} planted, {noticed} noticed: {100 * noticed / len(found):.0f} %")
    known = reasons()
    new = [mutant for mutant, seen in found if not seen and mutant.spot not in known]
    for mutant in new:
        say(f"no reason in {SURVIVORS.relative_to(ROOT)}: {','.join(mutant.spot)}")
    sys.exit(0 if noticed >= 0.85 * len(found) and not new else 1)


if __name__ == "__main__":
    as_command(main)
