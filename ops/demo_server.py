"""The demo kitchen served from a throwaway store: for measuring and for taking pictures."""

import os
import subprocess
import time
import urllib.request
import uuid
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass

from ops.base import HOME, Stop
from ops.mariadb import free_port
from ops.serve import gunicorn


@dataclass(frozen=True)
class DemoServer:
    """Where it is served, the process that serves, the demo probe's token, and who signs in."""

    url: str
    process: subprocess.Popen[bytes]
    token: str
    kitchen: str
    email: str
    password: str


def fill_store(token: str) -> None:
    """Migrate the store this process is pointed at and load the demo kitchen."""
    import django

    django.setup()
    from django.core.management import call_command

    from kitchen import demo

    call_command("migrate", verbosity=0, interactive=False)
    call_command("createcachetable", verbosity=0)
    call_command("collectstatic", verbosity=0, interactive=False)
    demo.load(token)


@contextmanager
def demo_server() -> Iterator[DemoServer]:
    """Fill the store, serve it, and stop serving at the end."""
    token = uuid.uuid4().hex
    fill_store(token)
    port = free_port()
    url = f"http://127.0.0.1:{port}"
    server = gunicorn(dict(os.environ), f"127.0.0.1:{port}", HOME / "demo.log")
    try:
        for _ in range(100):
            try:
                urllib.request.urlopen(f"{url}/api/session", timeout=2).read()
                break
            except OSError:
                time.sleep(0.1)
        else:
            raise Stop((HOME / "demo.log").read_text()[-2000:])
        from kitchen import demo

        yield DemoServer(url, server, token, demo.NAME, demo.CHEF, demo.PASSWORD)
    finally:
        server.terminate()
        server.wait(15)
