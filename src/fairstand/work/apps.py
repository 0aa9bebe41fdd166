"""Django's record of the app."""

from django.apps import AppConfig


class WorkConfig(AppConfig):
    """The work app."""

    name = "fairstand.work"
    label = "work"
