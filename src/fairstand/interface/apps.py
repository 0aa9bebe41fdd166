"""Django's record of the app."""

from django.apps import AppConfig


class InterfaceConfig(AppConfig):
    """The interface app."""

    name = "fairstand.interface"
    label = "interface"
