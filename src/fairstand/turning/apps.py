"""Django's record of the app."""

from django.apps import AppConfig


class TurningConfig(AppConfig):
    """The turning app."""

    name = "fairstand.turning"
    label = "turning"
