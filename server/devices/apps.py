from django.apps import AppConfig


class DevicesConfig(AppConfig):
    """See models.py."""

    name = "devices"
