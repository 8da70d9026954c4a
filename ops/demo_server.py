"""The demo kitchen served from a throwaway store: for measuring and for taking pictures."""

import os
import subprocess
import uuid
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import KW_ONLY, dataclass

from ops.base import HOME, PATIENCE_S
from ops.mariadb import free_port
from ops.serve import await_served, gunicorn


@dataclass(frozen=True)
class DemoServer:
    """Where it is served, the process that serves, the demo probe's token, and who signs in."""

    url: str
    process: subprocess.Popen[bytes]
    token: str
    _: KW_ONLY
    kitchen: str
    email: str
    password: str


def fill_store(token: str) -> None:
    """Migrate the store this process is pointed at and load the demo kitchen."""
    import django

    django.setup()
    from django.core.management import call_command

    from demo import kitchen as demo

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
        await_served(f"{url}/api/session", server, None, HOME / "demo.log")
        from demo import kitchen as demo

        yield DemoServer(
            url, server, token, kitchen=demo.NAME, email=demo.CHEF, password=demo.PASSWORD
        )
    finally:
        server.terminate()
        server.wait(PATIENCE_S)
