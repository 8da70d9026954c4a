"""Tests, checks, the schema, and the bench."""

import json
import os
import re
import shutil
import subprocess
import tempfile
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from ops import needs
from ops.base import PYTHON, ROOT, VENV, Stop, django_env, run, say
from ops.mariadb import MariaDB
from ops.serve import install

SCHEMA = ROOT / "docs" / "openapi.json"
LABELS = {
    "core": ["tests.core"],
    "server": ["tests.server"],
    "e2e": ["e2e"],
    "tools": ["tests.tools"],
    "all": ["tests.core", "tests.server", "tests.tools", "e2e"],
}


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
            CRUMB_HOME=str(home), CRUMB_DB_SOCKET=str(store.socket), CRUMB_DB_PASSWORD="throwaway"
        )
    finally:
        store.stop()
        shutil.rmtree(home, ignore_errors=True)


def test(part: str, names: list[str]) -> int:
    """Run the tests of a part (or all, with the checks). 0 only when everything passed."""
    started = time.monotonic()
    needs.debian(tests=True)
    needs.python_packages()
    needs.python_packages(tests=True)
    failed_checks = 0
    if part in ("all", "checks"):
        needs.npm_packages()
        failed_checks = _checks()
    ran = failures = 0
    if part != "checks":
        if part in ("all", "e2e"):
            needs.front_end()
        ran, failures = _django_tests(names or LABELS[part], needs_store=part != "core")
    failed = failures + failed_checks
    seconds = time.monotonic() - started
    say(f"\nin {seconds:.0f} s")
    say(f"{max(0, ran - failures)} passed, {failed} failed")
    return 1 if failed else 0


def _django_tests(labels: list[str], *, needs_store: bool) -> tuple[int, int]:
    """Run labels with Django's test runner; returns how many ran and how many failed."""
    command = [str(PYTHON), "manage.py", "test", *labels, "--noinput", "--timing"]
    if needs_store and len(labels) > 1:
        command += ["--parallel", "2"]

    def go(env: dict[str, str]) -> tuple[int, int]:
        done = subprocess.Popen(
            command,
            cwd=ROOT / "server",
            env=env,
            text=True,
            stdout=subprocess.PIPE,
            stderr=subprocess.STDOUT,
        )
        assert done.stdout
        lines = []
        for line in done.stdout:
            print(line, end="", flush=True)
            lines.append(line)
        text = "".join(lines)
        code = done.wait()
        ran = sum(int(n) for n in re.findall(r"^Ran (\d+) tests? in", text, re.M))
        failed = sum(
            int(n) for n in re.findall(r"(?:failures|errors|unexpected successes)=(\d+)", text)
        )
        if ran == 0:
            say("No test ran: that is a failure too.")
        return ran, failed or int(code != 0 or ran == 0)

    if not needs_store:
        return go(django_env())
    with throwaway() as env:
        return go(env)


def _checks() -> int:
    """Types, lint, formatting and schema freshness on both sides; returns how many failed."""
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
            django_env(),
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
    return failed + (not fresh)


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
        env=django_env(),
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


def _types_are_fresh(env: dict[str, str]) -> bool:
    kept = ROOT / "web" / "src" / "api" / "schema.d.ts"
    with tempfile.TemporaryDirectory(dir=ROOT / "web") as folder:
        made = Path(folder) / "schema.d.ts"
        _types(str(made), env)
        return kept.exists() and made.read_text() == kept.read_text()


def write_schema() -> int:
    """Write docs/openapi.json and the types generated from it."""
    needs.python_packages()
    env = needs.npm_packages()
    SCHEMA.write_text(_schema())
    _types("src/api/schema.d.ts", env)
    say("Wrote docs/openapi.json and web/src/api/schema.d.ts.")
    return 0


def format_all() -> int:
    """Format both sides."""
    needs.python_packages(tests=True)
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
        env=needs.npm_packages(),
        why="Formatting the front end",
    )
    return 0


def lock() -> int:
    """Lock the Python packages with their hashes."""
    needs.python_packages()
    for name in ("requirements", "requirements-dev"):
        run(
            [
                str(VENV / "bin" / "uv"),
                "pip",
                "compile",
                "-q",
                "--generate-hashes",
                "--no-emit-index-url",
                "--no-header",
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


def in_demo(module: str) -> int:
    """Run ``ops.bench`` or ``ops.pictures`` against a throwaway store."""
    install(tests=True)
    with throwaway() as env:
        done = subprocess.run([str(PYTHON), "-m", module], cwd=ROOT, env=env, check=False)
    return done.returncode
