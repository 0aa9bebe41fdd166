"""Django's record of the app."""

from django.apps import AppConfig


class CompareConfig(AppConfig):
    """The compare app."""

    name = "fairstand.compare"
    label = "compare"
