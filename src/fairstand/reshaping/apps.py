"""Django's record of the app."""

from django.apps import AppConfig


class ReshapingConfig(AppConfig):
    """The reshaping app."""

    name = "fairstand.reshaping"
    label = "reshaping"
