"""Tests, checks, the schema, and the bench."""

import json
import os
import re
import secrets
import shutil
import subprocess
import tempfile
import time
from collections.abc import Callable, Iterator
from concurrent.futures import ThreadPoolExecutor
from contextlib import contextmanager
from pathlib import Path

from ops import needs
from ops.base import PYTHON, ROOT, VENV, Stop, django_env, run, say
from ops.mariadb import MariaDB

SCHEMA = ROOT / "docs" / "openapi.json"
LABELS = {
    "server": ["tests.server"],
    "e2e": ["e2e"],
    "tools": ["tests.tools"],
    "all": ["tests.server", "tests.tools", "e2e"],
}

# Nobody is refused here because the machine is busy with the other tests.
_PATIENT = {"CRUMB_PATIENCE_S": "600", "CRUMB_MOST_WORK_S": "600"}


@contextmanager
def throwaway() -> Iterator[dict[str, str]]:
    """A MariaDB that exists only for these tests; yields the environment to reach it."""
    base = "/dev/shm" if Path("/dev/shm").is_dir() else None
    home = Path(tempfile.mkdtemp(prefix="crumb-test-", dir=base))
    home.chmod(0o755)
    store = MariaDB(home, throwaway=True)
    try:
        store.start("throwaway")
        yield django_env(
            CRUMB_HOME=str(home),
            CRUMB_DB_SOCKET=str(store.socket),
            CRUMB_DB_PASSWORD="throwaway",
            CRUMB_SECRET_KEY=secrets.token_urlsafe(48),
        )
    finally:
        store.stop()
        shutil.rmtree(home, ignore_errors=True)


def test(part: str, names: list[str]) -> int:
    """Run the tests of a part (or all, with the checks). 0 only when everything passed."""
    started = time.monotonic()
    if part == "core":
        needs.debian(store=False)
        needs.python_packages("core")
    else:
        needs.debian(tests=True)
        needs.python_packages("tests")
    if part in ("all", "checks", "web"):
        needs.npm_packages()
    if part in ("all", "e2e", "tools"):
        needs.front_end()
    jobs: list[Callable[[], tuple[int, int]]] = []
    if part in ("all", "core"):
        jobs.append(lambda: _core_tests(names if part == "core" else [], aloud=part == "core"))
    if part in ("all", "checks"):
        jobs.append(_checks)
    if part in ("all", "web"):
        jobs.append(_web_tests)
    # Browsers wait more than they work: what needs neither browser nor store runs beside them.
    with ThreadPoolExecutor(max(1, len(jobs))) as beside:
        begun = [beside.submit(job) for job in jobs]
        runs = [_django_tests(names or LABELS[part])] if part in LABELS else []
        runs += [job.result() for job in begun]
    ran, failed = sum(r for r, _ in runs), sum(f for _, f in runs)
    seconds = time.monotonic() - started
    say(f"\nin {seconds:.0f} s")
    say(f"{max(0, ran - failed)} passed, {failed} failed")
    return 1 if failed else 0


def _followed(
    command: list[str], cwd: Path, env: dict[str, str], *, aloud: bool = True
) -> tuple[str, int]:
    """Run a command, showing what it says as it says it (not ``aloud``: at its end); returns that
    and its exit code."""
    done = subprocess.Popen(
        command, cwd=cwd, env=env, text=True, stdout=subprocess.PIPE, stderr=subprocess.STDOUT
    )
    assert done.stdout
    lines = []
    for line in done.stdout:
        if aloud:
            print(line, end="", flush=True)
        lines.append(line)
    if not aloud:
        print("".join(lines), end="", flush=True)
    return "".join(lines), done.wait()


def _unittest_counts(text: str, code: int) -> tuple[int, int]:
    ran = sum(int(n) for n in re.findall(r"^Ran (\d+) tests? in", text, re.M))
    failed = sum(
        int(n) for n in re.findall(r"(?:failures|errors|unexpected successes)=(\d+)", text)
    )
    if ran == 0:
        say("No test ran: that is a failure too.")
    return ran, failed or int(code != 0 or ran == 0)


def _core_tests(names: list[str], *, aloud: bool) -> tuple[int, int]:
    """The core's tests with nothing but Python: no store, no browser, no Django."""
    what = names or ["discover", "-s", "tests/core", "-t", "."]
    command = [str(PYTHON), "-m", "unittest", *what]
    env = {**django_env(), "PYTHONPATH": os.pathsep.join(str(ROOT / p) for p in ("core", "."))}
    text, code = _followed(command, ROOT, env, aloud=aloud)
    return _unittest_counts(text, code)


def _web_tests() -> tuple[int, int]:
    """The browser's own logic, without a browser."""
    env = needs.npm_packages() | _PATIENT
    text, code = _followed(["npx", "vitest", "run"], ROOT / "web", env, aloud=False)
    bare = re.sub(r"\x1b\[[0-9;]*m", "", text)
    passed, failed = (
        sum(int(n) for n in re.findall(rf"^\s*Tests .*?(\d+) {word}", bare, re.M))
        for word in ("passed", "failed")
    )
    return passed + failed, failed or int(code != 0 or passed == 0)


def _django_tests(labels: list[str]) -> tuple[int, int]:
    """Run labels with Django's test runner; returns how many ran and how many failed."""
    command = [str(PYTHON), "manage.py", "test", *labels, "--noinput", "--timing", "-v", "2"]
    if len(labels) > 1:
        command += ["--parallel", "4"]
    with throwaway() as env:
        text, code = _followed(command, ROOT / "server", env | _PATIENT)
    return _unittest_counts(text, code)


def _checks() -> tuple[int, int]:
    """Types, lint, formatting and schema freshness on both sides; one counts when it failed."""
    env = needs.node()
    ruff, mypy = str(VENV / "bin" / "ruff"), str(VENV / "bin" / "mypy")
    folders = ["core", "server", "ops", "standins", "tests", "e2e"]
    wanted: list[tuple[str, list[str], Path, dict[str, str]]] = [
        (
            "lint (Python)",
            [ruff, "check", "-q", "--output-format", "concise", *folders, "crumb"],
            ROOT,
            dict(os.environ),
        ),
        ("format (Python)", [ruff, "format", "-q", "--check", *folders], ROOT, dict(os.environ)),
        (
            "what imports what",
            [str(VENV / "bin" / "lint-imports"), "--no-cache"],
            ROOT,
            django_env(PYTHONPATH=f"{ROOT / 'core'}:{ROOT / 'server'}:{ROOT}"),
        ),
        (
            "types (Python)",
            [mypy, "core/bellcrumb", "server", "ops", "standins"],
            ROOT,
            django_env(MYPYPATH=f"{ROOT / 'core'}:{ROOT / 'server'}:{ROOT}"),
        ),
        ("types (front end)", ["npx", "tsc", "--noEmit"], ROOT / "web", env),
        ("lint (front end)", ["npx", "eslint", ".", "--max-warnings", "0"], ROOT / "web", env),
        (
            "format (front end)",
            ["npx", "prettier", "--check", "--log-level", "warn", "."],
            ROOT / "web",
            env,
        ),
        (
            "migrations are complete",
            [str(PYTHON), "manage.py", "makemigrations", "--check", "--dry-run"],
            ROOT / "server",
            django_env(CRUMB_SECRET_KEY="nothing is served by a check"),
        ),
    ]
    failed = 0
    for name, command, cwd, environment in wanted:
        done = subprocess.run(
            command, cwd=cwd, env=environment, capture_output=True, text=True, check=False
        )
        say(f"{'ok    ' if done.returncode == 0 else 'FAILED'} {name}")
        if done.returncode:
            failed += 1
            print((done.stdout + done.stderr)[-4000:], flush=True)
    fresh = SCHEMA.exists() and SCHEMA.read_text() == _schema() and _types_are_fresh(env)
    say(f"{'ok    ' if fresh else 'FAILED'} schema and generated types are current")
    failed += not fresh
    return failed, failed


def _schema() -> str:
    done = subprocess.run(
        [
            str(PYTHON),
            "manage.py",
            "export_openapi_schema",
            "--api",
            "config.api.api",
            "--indent",
            "1",
            "--sorted",
        ],
        cwd=ROOT / "server",
        env=django_env(CRUMB_SECRET_KEY="nothing is served by a schema"),
        capture_output=True,
        text=True,
        check=False,
    )
    if done.returncode:
        raise Stop(f"The schema cannot be written:\n{done.stderr[-2000:]}")
    return json.dumps(json.loads(done.stdout), indent=1, ensure_ascii=False, sort_keys=True) + "\n"


def _types(out: str, env: dict[str, str]) -> None:
    run(
        ["npx", "openapi-typescript", str(SCHEMA), "-o", out],
        cwd=ROOT / "web",
        env=env,
        why="Generating the front end's types",
    )
    run(
        ["npx", "prettier", "--write", "--log-level", "warn", out],
        cwd=ROOT / "web",
        env=env,
        why="Formatting the generated types",
    )


# Shapes a screen begins from: what the server takes when a field is left out, for the browser.
_BEGUN_FROM = ("Baking", "Content")


def _defaults() -> str:
    """The server's own defaults as TypeScript, so that no screen types them again."""
    shapes = json.loads(SCHEMA.read_text())["components"]["schemas"]
    lines = ["/** Written by `./crumb schema` from docs/openapi.json, not by hand. */",
             'import type { Shapes } from "./client";']  # fmt: skip
    for name in _BEGUN_FROM:
        begun = {}
        for field, shape in shapes[name]["properties"].items():
            if "$ref" in shape or any("$ref" in one for one in shape.get("allOf", [])):
                continue  # a shape of its own
            begun[field] = shape.get("default", [] if shape.get("type") == "array" else None)
        lines.append(f'export const {name.upper()}: Shapes["{name}"] = {json.dumps(begun)};')
    return "\n".join(lines) + "\n"


def _generate(folder: str, env: dict[str, str]) -> None:
    """What the front end takes from the document: its types, and the defaults."""
    _types(f"{folder}/schema.d.ts", env)
    made = ROOT / "web" / folder / "defaults.ts"
    made.write_text(_defaults())
    run(
        ["npx", "prettier", "--write", "--log-level", "warn", str(made)],
        cwd=ROOT / "web",
        env=env,
        why="Formatting the generated defaults",
    )


def _types_are_fresh(env: dict[str, str]) -> bool:
    kept = ROOT / "web" / "src" / "api"
    with tempfile.TemporaryDirectory(dir=ROOT / "web") as folder:
        _generate(folder, env)
        return all(
            (kept / name).exists()
            and (kept / name).read_text() == (Path(folder) / name).read_text()
            for name in ("schema.d.ts", "defaults.ts")
        )


def write_schema() -> int:
    """Write docs/openapi.json and the types generated from it."""
    needs.must_be_there()
    env = needs.node()
    SCHEMA.write_text(_schema())
    _generate("src/api", env)
    say("Wrote docs/openapi.json, web/src/api/schema.d.ts and defaults.ts.")
    return 0


def format_all() -> int:
    """Format both sides."""
    needs.must_be_there()
    run(
        [
            str(VENV / "bin" / "ruff"),
            "format",
            "-q",
            "core",
            "server",
            "ops",
            "standins",
            "tests",
            "e2e",
        ],
        why="Formatting Python",
    )
    run(
        ["npx", "prettier", "--write", "--log-level", "warn", "."],
        cwd=ROOT / "web",
        env=needs.node(),
        why="Formatting the front end",
    )
    return 0


def lock() -> int:
    """Lock the Python packages with their hashes."""
    needs.must_be_there()
    for name in ("requirements-core", "requirements", "requirements-dev"):
        run(
            [
                str(VENV / "bin" / "uv"),
                "pip",
                "compile",
                "-q",
                "--generate-hashes",
                "--no-emit-index-url",
                "--no-header",
                "--python-version",
                "3.11",  # the first of them too, which is Debian's: it needs what later ones do not
                f"{name}.in",
                "-o",
                f"{name}.txt",
            ],
            why=f"Locking {name}",
        )
    return 0


def manage(args: list[str]) -> int:
    """Django's own commands, for people who carry on the work."""
    done = subprocess.run(
        [str(PYTHON), "manage.py", *args], cwd=ROOT / "server", env=django_env(), check=False
    )
    return done.returncode


def in_demo(module: str, *args: str) -> int:
    """Run ``ops.bench`` and its like against a throwaway store."""
    needs.must_be_there(built=True)
    with throwaway() as env:
        done = subprocess.run([str(PYTHON), "-m", module, *args], cwd=ROOT, env=env, check=False)
    return done.returncode


def golden() -> int:
    """Make the golden tables again; what changed is read in the diff."""
    needs.must_be_there("core")
    env = {**django_env(), "PYTHONPATH": os.pathsep.join(str(ROOT / p) for p in ("core", "."))}
    return subprocess.run(
        [str(PYTHON), "-m", "tests.core.golden"], cwd=ROOT, env=env, check=False
    ).returncode


def mutate(subject: str, each: int | None) -> int:
    """Plant mistakes, at most so many a subject, and see which the tests notice."""
    needs.must_be_there()
    most = [] if each is None else ["--each", str(each)]
    with throwaway() as env:
        done = subprocess.run(
            [str(PYTHON), "-m", "ops.mutate", subject, *most], cwd=ROOT, env=env, check=False
        )
    return done.returncode
