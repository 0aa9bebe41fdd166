"""Django's record of the app."""

from django.apps import AppConfig


class WorkshopConfig(AppConfig):
    """The workshop app."""

    name = "fairstand.workshop"
    label = "workshop"
