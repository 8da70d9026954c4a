"""Places, words and errors the commands share."""

import hashlib
import os
import subprocess
import sys
from collections.abc import Callable, Iterable
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
HOME = Path(os.environ.get("CRUMB_HOME", ROOT / "var")).resolve()
VENV = ROOT / "var" / "venv"
PYTHON = VENV / "bin" / "python"
RUN = HOME / "run"
# How long a program of ours may take to answer for the first time, on a slow and busy machine.
PATIENCE_S = 300


class Stop(Exception):
    """Something a person has to hear, in one sentence; ends the command with ``code``."""

    def __init__(self, sentence: str, code: int = 1) -> None:
        super().__init__(sentence)
        self.code = code


def as_command(main: Callable[[], None]) -> None:
    """Run a module as a command of its own: what a person has to hear is no traceback."""
    try:
        main()
    except Stop as stop:
        print(stop, file=sys.stderr, flush=True)
        sys.exit(stop.code)


def say(text: str) -> None:
    """Tell the person what is going on."""
    print(text, flush=True)


def run(
    command: list[str], *, why: str, cwd: Path = ROOT, env: dict[str, str] | None = None
) -> None:
    """Run a command quietly; its output is shown only when it fails."""
    done = subprocess.run(
        command,
        cwd=cwd,
        env=env,
        stdout=subprocess.PIPE,
        stderr=subprocess.STDOUT,
        text=True,
        stdin=subprocess.DEVNULL,
        check=False,
    )
    if done.returncode:
        tail = "\n".join(done.stdout.strip().splitlines()[-30:])
        print(tail, file=sys.stderr, flush=True)
        if "No space left" in done.stdout:
            raise Stop("The disk is full. Free some space and run this again.")
        raise Stop(f"{why} did not work; what it said is above.")


def digest(paths: Iterable[Path]) -> str:
    """A hash of files' names and contents."""
    found = hashlib.sha256()
    for path in sorted(paths):
        if path.is_file():
            found.update(str(path.relative_to(ROOT)).encode())
            found.update(path.read_bytes())
    return found.hexdigest()


def is_done(stamp: str, value: str) -> bool:
    """Whether a step has been done for this very input before."""
    path = ROOT / "var" / "stamps" / stamp
    return path.exists() and path.read_text() == value


def mark_done(stamp: str, value: str) -> None:
    """Remember that a step has been done for this input."""
    path = ROOT / "var" / "stamps" / stamp
    path.parent.mkdir(parents=True, exist_ok=True)
    path.write_text(value)


def django_env(**more: str) -> dict[str, str]:
    """The environment for Django's processes. They keep their bytecode: a start reads it again."""
    inherited = {k: v for k, v in os.environ.items() if k != "PYTHONDONTWRITEBYTECODE"}
    return {
        **inherited,
        "CRUMB_HOME": str(HOME),
        "PYTHONPATH": os.pathsep.join(str(ROOT / p) for p in ("core", "server", ".")),
        "DJANGO_SETTINGS_MODULE": "config.settings",
        "OMP_NUM_THREADS": "1",
        "OPENBLAS_NUM_THREADS": "1",
        **more,
    }
