from django.apps import AppConfig


class BatchesConfig(AppConfig):
    """See models.py."""

    name = "batches"
