from django.apps import AppConfig


class KitchenConfig(AppConfig):
    """See models.py."""

    name = "kitchen"
