"""Django's record of the app."""

from django.apps import AppConfig


class SplittingConfig(AppConfig):
    """The splitting app."""

    name = "fairstand.splitting"
    label = "splitting"
