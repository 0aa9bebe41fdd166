"""Django's record of the app."""

from django.apps import AppConfig


class HandOverConfig(AppConfig):
    """The handover app."""

    name = "fairstand.handover"
    label = "handover"
