"""The day while it happens."""

from django.apps import AppConfig


class DaysConfig(AppConfig):
    """See models.py."""

    name = "days"
