"""The demo kitchen."""

from django.apps import AppConfig


class DemoConfig(AppConfig):
    """Weir House, and the command that brings a store up to date with or without it."""

    name = "demo"
