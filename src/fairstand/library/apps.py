"""Django's record of the app."""

from django.apps import AppConfig


class LibraryConfig(AppConfig):
    """The library app."""

    name = "fairstand.library"
    label = "library"
