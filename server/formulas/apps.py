from django.apps import AppConfig


class FormulasConfig(AppConfig):
    """See models.py."""

    name = "formulas"
