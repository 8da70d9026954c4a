"""Starting and stopping the whole application."""

import contextlib
import hashlib
import json
import os
import secrets
import shutil
import signal
import socket
import ssl
import subprocess
import time
import urllib.error
import urllib.request
from datetime import UTC, datetime
from pathlib import Path

from ops import needs
from ops.base import HOME, PATIENCE_S, PYTHON, ROOT, RUN, VENV, Stop, django_env, say
from ops.certificate import Certificate, certificate
from ops.keep import BackupSchedule
from ops.mariadb import MariaDB
from ops.processes import Lock, Register
from ops.supervise import Supervisor

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
    needs.python_packages("tests" if tests else "run")
    needs.front_end()


def await_served(
    url: str, web: subprocess.Popen[bytes], ca: Path | None, log: Path = RUN / "web.log"
) -> None:
    """Wait until an application server answers. Raises Stop when it ends, or never does."""
    context = ssl.create_default_context(cafile=str(ca)) if ca else None
    until = time.monotonic() + PATIENCE_S
    while time.monotonic() < until:
        if web.poll() is not None:
            raise Stop(f"The application does not start; its log is {log}.")
        try:
            urllib.request.urlopen(url, timeout=PATIENCE_S, context=context).read()
            return
        except (urllib.error.URLError, OSError):
            time.sleep(0.05)
    raise Stop(f"The application does not answer; its log is {log}.")


def gunicorn(
    env: dict[str, str],
    bind: str,
    log: Path,
    workers: int = 2,
    tls: Certificate | None = None,
    prepared: int | None = None,
) -> subprocess.Popen[bytes]:
    """Start the application server. With ``prepared``, the reading end of a pipe, it loads and then
    waits for a byte there before it serves anybody."""
    if prepared is not None:
        env = {**env, "CRUMB_PREPARED_FD": str(prepared)}
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
        # A worker that dies is back at once: everything it needs is loaded in its parent.
        "--preload",
        "--chdir",
        str(ROOT / "server"),
        "--graceful-timeout",
        "5",
        # Longer than a cook looks away: a line that closes just then loses the next press.
        "--keep-alive",
        "75",
        "--no-control-socket",
        *(["--worker-tmp-dir", str(shm)] if shm.is_dir() else []),
        *(["--certfile", str(tls.cert), "--keyfile", str(tls.key)] if tls else []),
    ]
    with log.open("ab") as out:
        return subprocess.Popen(
            command,
            env=env,
            stdout=out,
            stderr=out,
            stdin=subprocess.DEVNULL,
            start_new_session=True,
            pass_fds=() if prepared is None else (prepared,),
        )


def stand_in(
    url: str,
    token: str,
    log: Path | None = None,
    *,
    kind: str = "probe",
    channels: int = 1,
    ca: Path | None = None,
) -> subprocess.Popen[bytes]:
    """Start a simulated probe or scale: its own process, speaking HTTP like a real one."""
    out = log.open("ab") if log else None
    env = {**django_env(), "CRUMB_PROBE_TOKEN": token}
    spool = str(RUN / f"{kind}-{hashlib.sha256(token.encode()).hexdigest()[:8]}.jsonl")
    more = ["--channels", str(channels)] if kind == "probe" else []
    more += ["--ca", str(ca)] if ca else []
    try:
        return subprocess.Popen(
            [str(PYTHON), "-m", f"standins.{kind}", "--url", url, "--spool", spool, *more],
            cwd=ROOT,
            env=env,
            stdout=out,
            stderr=out,
            stdin=subprocess.DEVNULL,
            start_new_session=True,
        )
    finally:
        if out:
            out.close()


def _clear_up(store: MariaDB) -> None:
    """What a starter that was killed has left running is ended; its store is taken over."""
    left = Register(RUN / "children").end_all()
    if left:
        say(f"An earlier start was killed: {left} of its processes were ended.")
    if store.process:
        say("Its store still runs and is taken over.")


def _check_language() -> None:
    language = os.environ.get("CRUMB_LANGUAGE", "en")
    spoken = sorted(p.stem for p in (ROOT / "core" / "bellcrumb" / "words").glob("*.json"))
    if language not in (*spoken, "en-XA"):
        raise Stop(
            f"Nobody has written “{language}” yet. CRUMB_LANGUAGE is one of: {', '.join(spoken)}."
        )


def start(*, empty: bool, port: int, lan: bool, plain: bool = False) -> int:
    """Install, build, start everything, and stay until told to stop."""
    RUN.mkdir(parents=True, exist_ok=True)
    lock = Lock(RUN / "start.lock")
    if not lock.take():
        raise Stop("Bell Crumb is already running. Stop it first: ./crumb stop")
    try:
        return _start(empty=empty, port=port, lan=lan, plain=plain)
    finally:
        lock.give_back()


def _start(*, empty: bool, port: int, lan: bool, plain: bool) -> int:
    host = "0.0.0.0" if lan else "127.0.0.1"
    store = MariaDB(HOME)
    _clear_up(store)
    _check_port(host, port)
    _check_language()
    for place in (ROOT, HOME):
        if shutil.disk_usage(place).free < LEAST_FREE:
            raise Stop(
                f"The disk of {place} is nearly full: Bell Crumb needs 400 MB free to start."
            )
    install()
    own = secrets_file()
    address = _own_address() if lan else "127.0.0.1"
    names = list(dict.fromkeys(["127.0.0.1", "localhost", address, socket.gethostname()]))
    tls = certificate(HOME, names) if lan and not plain else None
    env = django_env(
        CRUMB_HOSTS=",".join(names),
        CRUMB_DB_SOCKET=str(store.socket),
        CRUMB_TLS="1" if tls else "",
    )
    told = {"stop": False}
    for number in (signal.SIGTERM, signal.SIGINT, signal.SIGHUP):
        signal.signal(number, lambda *_: told.update(stop=True))
    kept = Supervisor(changed=Register(RUN / "children").write)
    try:
        store.start(own["db"])
        # The application loads while its store is brought up to date: half a warm start.
        waiting, ready = os.pipe()
        first = [waiting]
        web = kept.keep(
            "The application",
            lambda: gunicorn(env, f"{host}:{port}", RUN / "web.log", tls=tls,
                             prepared=first.pop() if first else None),
        )  # fmt: skip
        os.close(waiting)
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
        with contextlib.suppress(BrokenPipeError), os.fdopen(ready, "wb") as tell:
            tell.write(b"1")
        scheme, ca = ("https", tls.cert) if tls else ("http", None)
        url = f"{scheme}://127.0.0.1:{port}"
        assert web.process
        await_served(f"{url}/api/session", web.process, ca)
        if "demo probe" in prepared.stdout:
            kept.keep("The demo probe",
                      lambda: stand_in(url, own["probe"], RUN / "probe.log", ca=ca))  # fmt: skip
            kept.keep("The demo scale", lambda: stand_in(
                url, f"{own['probe']}-scale", RUN / "scale.log", kind="scale", ca=ca))  # fmt: skip
        say(f"\nBell Crumb is up:  {scheme}://{address}:{port}\n")
        if tls:
            say("It speaks HTTPS with a certificate of its own. A tablet warns once: compare the")
            say(f"fingerprint (SHA-256) before you go on:\n  {tls.fingerprint}\n")
        elif lan:
            say("It speaks plain HTTP, as asked: passwords can be read in this network.\n")
        say(prepared.stdout.strip())
        say("\nCtrl-C (or ./crumb stop) stops it; everything is there next time.")
        _watch(kept, store, own["db"], told)
        say("\nStopping ...")
    finally:
        kept.stop()
        store.stop()
    return 0


def _watch(kept: Supervisor, store: MariaDB, password: str, told: dict[str, bool]) -> None:
    """Until told to stop: processes that die are started again, backups made when they are due."""
    schedule = BackupSchedule(HOME, store)
    while not told["stop"]:
        kept.look()
        if store.process is None:
            say("The store has stopped. Starting it again ...")
            try:
                store.start(password)
            except Stop as error:
                say(str(error))
                time.sleep(5)
        else:
            schedule.look(datetime.now(UTC))
        time.sleep(0.2)


def stop() -> int:
    """Stop what ``start`` started, and wait for it. Nothing else is ever touched."""
    holder = Lock(RUN / "start.lock").holder()
    if holder is None:
        left = Register(RUN / "children").end_all()
        store = MariaDB(HOME)
        stood = store.process is not None
        store.stop()
        if left or stood:
            say("Its starter was gone; what it had left running is stopped.")
        else:
            say("Bell Crumb was not running.")
        return 0
    if not holder.end(patience_s=45.0):
        raise Stop(f"It does not stop; its pid is {holder.pid}.")
    Register(RUN / "children").end_all()
    MariaDB(HOME).stop()
    say("Stopped. Everything is there next time.")
    return 0
