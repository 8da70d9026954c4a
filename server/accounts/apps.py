from django.apps import AppConfig


class AccountsConfig(AppConfig):
    """Who signs in."""

    name = "accounts"
