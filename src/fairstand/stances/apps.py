"""Django's record of the app."""

from django.apps import AppConfig
from django.db.models.signals import post_save


class StancesConfig(AppConfig):
    """The stances app."""

    name = "fairstand.stances"
    label = "stances"

    def ready(self):
        """Let every piece begin with a stance."""
        post_save.connect(_first_stance, sender="library.Piece", dispatch_uid="first stance")


def _first_stance(sender, instance, created, raw=False, **_):
    if created and not raw:
        from .models import Stance

        Stance.objects.first_of(instance)
