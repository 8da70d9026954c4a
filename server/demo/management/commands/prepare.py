"""Bring the store up to date and, the first time, fill it. Called by ./crumb start."""

import os
import secrets
from typing import Any

from django.conf import settings
from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandParser
from django.db import connection
from django.db.migrations.executor import MigrationExecutor

from accounts.models import User
from demo import kitchen as demo
from demo.weeks import load_weeks
from devices.models import Device
from formulas.models import Brief
from kitchen.models import Kitchen, Member, Ring

SHOWN_ONCE = "shown once; ./crumb manage changepassword {} makes another"
MOST_BRIEFS = 100_000  # remembered cards; more are mostly of formulas that have changed since


class Command(BaseCommand):
    """Migrate, make the cache table, load the demo kitchen, say who can sign in."""

    help = __doc__ or ""
    requires_system_checks: tuple[
        str, ...
    ] = ()  # the test suite makes them; here they cost a start

    def add_arguments(self, parser: CommandParser) -> None:
        """``--empty``: no demo kitchen."""
        parser.add_argument("--empty", action="store_true")

    def handle(self, *args: Any, **options: Any) -> None:
        """Do it."""
        executor = MigrationExecutor(connection)
        if executor.migration_plan(executor.loader.graph.leaf_nodes()):
            call_command("migrate", verbosity=0, interactive=False)
            call_command("createcachetable", verbosity=0)
        self._static()
        if Brief.objects.count() > MOST_BRIEFS:
            Brief.objects.all().delete()
        if not Kitchen.objects.exists():
            if options["empty"]:
                self._empty()
                return
            token = os.environ.get("CRUMB_PROBE_TOKEN", secrets.token_urlsafe(32))
            load_weeks(demo.load(token))
        self._who()

    def _static(self) -> None:
        """Collect what the browser loads, when it has been built again since."""
        built = [p for p in settings.STATICFILES_DIRS for p in sorted(p.rglob("*"))]
        value = "\n".join(f"{p.name} {p.stat().st_mtime_ns}" for p in built)
        stamp = settings.STATIC_ROOT / ".collected"
        if not (stamp.exists() and stamp.read_text() == value):
            call_command("collectstatic", verbosity=0, interactive=False, clear=True)
            stamp.write_text(value)

    def _empty(self) -> None:
        password = "-".join(secrets.token_hex(2) for _ in range(4))
        kitchen = Kitchen.objects.create(name="Our kitchen")
        user = User.objects.create_user(
            "chef@kitchen.example", password, "Pastry chef", must_change=True
        )
        Member.objects.create(kitchen=kitchen, user=user, role="chef")
        Ring.objects.create(kitchen=kitchen, name="Gas ring, medium", fuel="gas", rated_w=1900)
        self.stdout.write(
            f"An empty kitchen. Sign in as chef@kitchen.example with {password}\n"
            f"({SHOWN_ONCE.format('chef@kitchen.example')})"
        )

    def _who(self) -> None:
        if User.objects.filter(email=demo.CHEF).exists():
            self.stdout.write(
                f"Sign in to {demo.NAME} (the demo kitchen), password “{demo.PASSWORD}”:"
            )
            for email, name, role in demo.PEOPLE:
                self.stdout.write(f"  {email:28} {name} ({role})")
        else:
            chefs = User.objects.filter(memberships__role="chef").order_by("email").distinct()
            own = [chef.email for chef in chefs if not chef.must_change]
            if own:
                self.stdout.write(f"Sign in as {', '.join(own)} with your own password.")
            for chef in chefs.filter(must_change=True):
                self.stdout.write(
                    f"Sign in as {chef.email} with the password that was made up for it\n"
                    f"({SHOWN_ONCE.format(chef.email)})"
                )
        if Device.objects.filter(simulated=True, name=demo.PROBE).exists():
            self.stdout.write("The demo probe (simulated) is running.")
