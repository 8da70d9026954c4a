"""The demo kitchen made once for each process and laid out again before each test, its shelf drawn:
making it costs a second, putting its rows back a twentieth of that."""

from django.apps import apps
from django.db import connection
from django.test import Client

from accounts.models import User
from batches import state
from batches.clock import plan_of_batch
from demo import kitchen as demo
from kitchen import access
from kitchen.models import Kitchen

Rows = list[tuple[object, ...]]
_OURS = ("accounts", "kitchen", "formulas", "batches", "devices", "days", "rehearsals")
_kept: dict[str, tuple[list[str], Rows]] = {}


def demo_kitchen(token: str) -> Kitchen:
    """The demo kitchen in an empty store."""
    # The same ids as in the test before: what a process remembers of them is of that one.
    plan_of_batch.cache_clear()
    state._known.clear()
    access._pantry.cache_clear()
    if _kept:
        _put_back()
        return Kitchen.objects.get()
    kitchen = demo.load(token)
    chef = Client()
    chef.force_login(
        User.objects.get(email=demo.CHEF), backend="django.contrib.auth.backends.ModelBackend"
    )
    shelf = chef.get(f"/api/k/{kitchen.pk}/desserts")
    assert shelf.status_code == 200
    _keep()
    return kitchen


def _keep() -> None:
    tables = [m._meta.db_table for m in apps.get_models() if m._meta.app_label in _OURS]
    with connection.cursor() as cursor:
        for table in tables:
            cursor.execute(f"SELECT * FROM `{table}`")
            rows = list(cursor.fetchall())
            if rows:
                _kept[table] = ([column[0] for column in cursor.description], rows)


def _put_back() -> None:
    with connection.constraint_checks_disabled(), connection.cursor() as cursor:
        for table, (columns, rows) in _kept.items():
            names = ", ".join(f"`{c}`" for c in columns)
            places = ", ".join(["%s"] * len(columns))
            cursor.executemany(f"INSERT INTO `{table}` ({names}) VALUES ({places})", rows)
