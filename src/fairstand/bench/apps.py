"""Django's record of the app."""

from django.apps import AppConfig


class BenchConfig(AppConfig):
    """The bench app."""

    name = "fairstand.bench"
    label = "bench"
