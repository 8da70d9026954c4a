"""Starting and stopping the whole application."""

import hashlib
import json
import os
import secrets
import shutil
import signal
import socket
import subprocess
import time
import urllib.error
import urllib.request
from pathlib import Path

from ops import needs
from ops.base import HOME, PYTHON, ROOT, RUN, VENV, Stop, alive, django_env, say
from ops.mariadb import MariaDB

LEAST_FREE = 400 * 1024 * 1024


def secrets_file() -> dict[str, str]:
    """The secrets of this kitchen, made at first start and readable by the owner alone."""
    path = HOME / "secrets.json"
    if path.exists():
        return dict(json.loads(path.read_text()))
    made = {name: secrets.token_urlsafe(48) for name in ("django", "db", "probe")}
    path.parent.mkdir(parents=True, exist_ok=True)
    with os.fdopen(os.open(path, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600), "w") as out:
        json.dump(made, out)
    return made


def _own_address() -> str:
    """This machine's address in the kitchen's network (nothing is sent)."""
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as probe:
        try:
            probe.connect(("192.0.2.1", 9))
        except OSError:
            return "127.0.0.1"
        return str(probe.getsockname()[0])


def _check_port(host: str, port: int) -> None:
    if not 1 <= port <= 65535:
        raise Stop(f"{port} is no port. Choose one between 1024 and 65535.", 2)
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind((host, port))
        except PermissionError:
            raise Stop(f"Port {port} is for root alone. Choose one above 1023.") from None
        except OSError:
            raise Stop(
                f"Port {port} is taken by another program. Choose another: "
                f"./crumb start --port {port + 1}"
            ) from None


def install(*, tests: bool = False) -> None:
    """Everything that has to be there before anything runs."""
    needs.debian(tests=tests)
    needs.python_packages()
    if tests:
        needs.python_packages(tests=True)
    needs.front_end()


def _wait_until_served(url: str, web: subprocess.Popen[bytes]) -> None:
    for _ in range(200):
        if web.poll() is not None:
            raise Stop(f"The application does not start; its log is {RUN / 'web.log'}.")
        try:
            urllib.request.urlopen(url, timeout=2).read()
            return
        except (urllib.error.URLError, OSError):
            time.sleep(0.05)
    raise Stop(f"The application does not answer; its log is {RUN / 'web.log'}.")


def gunicorn(
    env: dict[str, str], bind: str, log: Path, workers: int = 2
) -> subprocess.Popen[bytes]:
    """Start the application server."""
    shm = Path("/dev/shm")
    command = [
        str(VENV / "bin" / "gunicorn"),
        "config.wsgi:application",
        "--bind",
        bind,
        "--workers",
        str(workers),
        "--threads",
        "16",
        "--worker-class",
        "gthread",
        "--chdir",
        str(ROOT / "server"),
        "--graceful-timeout",
        "5",
        *(["--worker-tmp-dir", str(shm)] if shm.is_dir() else []),
    ]
    out = log.open("ab")
    return subprocess.Popen(
        command, env=env, stdout=out, stderr=out, stdin=subprocess.DEVNULL, start_new_session=True
    )


def stand_in(
    url: str, token: str, log: Path | None = None, *, kind: str = "probe", channels: int = 1
) -> subprocess.Popen[bytes]:
    """Start a simulated probe or scale: its own process, speaking HTTP like a real one."""
    out = log.open("ab") if log else None
    env = {**django_env(), "CRUMB_PROBE_TOKEN": token}
    spool = str(RUN / f"{kind}-{hashlib.sha256(token.encode()).hexdigest()[:8]}.jsonl")
    more = ["--channels", str(channels)] if kind == "probe" else []
    return subprocess.Popen(
        [str(PYTHON), "-m", f"standins.{kind}", "--url", url, "--spool", spool, *more],
        cwd=ROOT,
        env=env,
        stdout=out,
        stderr=out,
        stdin=subprocess.DEVNULL,
        start_new_session=True,
    )


def start(*, empty: bool, port: int, lan: bool) -> int:
    """Install, build, start everything, and stay until told to stop."""
    running = alive(RUN / "start.pid")
    if running:
        raise Stop("Bell Crumb is already running. Stop it first: ./crumb stop")
    host = "0.0.0.0" if lan else "127.0.0.1"
    _check_port(host, port)
    HOME.mkdir(parents=True, exist_ok=True)
    for place in (ROOT, HOME):
        if shutil.disk_usage(place).free < LEAST_FREE:
            raise Stop(
                f"The disk of {place} is nearly full: Bell Crumb needs 400 MB free to start."
            )
    install()
    RUN.mkdir(parents=True, exist_ok=True)
    own = secrets_file()
    store = MariaDB(HOME)
    address = _own_address() if lan else "127.0.0.1"
    hosts = ",".join(dict.fromkeys(["127.0.0.1", "localhost", address, socket.gethostname()]))
    env = django_env(CRUMB_HOSTS=hosts, CRUMB_DB_SOCKET=str(store.socket))
    pid_file = RUN / "start.pid"
    pid_file.write_text(str(os.getpid()))
    children: list[subprocess.Popen[bytes]] = []
    told = {"stop": False}
    for number in (signal.SIGTERM, signal.SIGINT):
        signal.signal(number, lambda *_: told.update(stop=True))
    try:
        store.start(own["db"])
        prepared = subprocess.run(
            [str(PYTHON), "manage.py", "prepare", *(["--empty"] if empty else [])],
            cwd=ROOT / "server",
            env={**env, "CRUMB_PROBE_TOKEN": own["probe"]},
            capture_output=True,
            text=True,
            check=False,
        )
        if prepared.returncode:
            raise Stop(f"The store could not be brought up to date:\n{prepared.stderr[-2000:]}")
        web = gunicorn(env, f"{host}:{port}", RUN / "web.log")
        children.append(web)
        url = f"http://127.0.0.1:{port}"
        _wait_until_served(f"{url}/api/session", web)
        if "demo probe" in prepared.stdout:
            children.append(stand_in(url, own["probe"], RUN / "probe.log"))
            scale = f"{own['probe']}-scale"
            children.append(stand_in(url, scale, RUN / "scale.log", kind="scale"))
        say(f"\nBell Crumb is up:  http://{address}:{port}\n")
        say(prepared.stdout.strip())
        say("\nCtrl-C (or ./crumb stop) stops it; everything is there next time.")
        while not told["stop"]:
            if web.poll() is not None:
                raise Stop(f"The application stopped by itself; its log is {RUN / 'web.log'}.")
            if alive(store.pid_file) is None:
                say("The store has stopped. Starting it again ...")
                store.start(own["db"])
            time.sleep(0.2)
        say("\nStopping ...")
    finally:
        _stop_all(children)
        store.stop()
        pid_file.unlink(missing_ok=True)
    return 0


def _stop_all(children: list[subprocess.Popen[bytes]]) -> None:
    for child in reversed(children):
        if child.poll() is None:
            child.terminate()
    for child in children:
        try:
            child.wait(10)
        except subprocess.TimeoutExpired:
            child.kill()


def stop() -> int:
    """Stop what ``start`` started, and wait for it."""
    pid = alive(RUN / "start.pid")
    if pid is None:
        MariaDB(HOME).stop()
        say("Bell Crumb was not running.")
        return 0
    os.kill(pid, signal.SIGTERM)
    for _ in range(300):
        if alive(RUN / "start.pid") is None:
            say("Stopped. Everything is there next time.")
            return 0
        time.sleep(0.1)
    raise Stop(f"It does not stop; its pid is {pid}.")
