"""Django's record of the app."""

from django.apps import AppConfig


class SupportsConfig(AppConfig):
    """The supports app."""

    name = "fairstand.supports"
    label = "supports"
