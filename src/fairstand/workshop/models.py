"""What a maker keeps in the workshop: copies with numbers of their own."""

from django.conf import settings
from django.db import models
from django.utils import timezone

__all__ = ["Copy"]


class CopyQuerySet(models.QuerySet):
    """Copies, asked for by whom they belong to."""

    def of(self, user, noun: str = ""):
        """Those of one owner that are not put away, of one noun or of all."""
        found = self.filter(owner=user, deleted__isnull=True)
        return found.filter(noun=noun) if noun else found


class Copy(models.Model):
    """A machine, material, process or table of habits of the maker's own.

    ``said`` is what it says, as the core reads it; ``before`` and ``after`` are what it said
    before its last changes, and what it says again when those taken back are put back.
    """

    owner = models.ForeignKey(settings.AUTH_USER_MODEL, models.CASCADE, related_name="copies")
    noun = models.CharField(max_length=12)
    said = models.JSONField()
    before = models.JSONField(default=list)
    after = models.JSONField(default=list)
    # Counts every change: a form names the one that it was filled in on.
    revision = models.PositiveIntegerField(default=0)
    created = models.DateTimeField(default=timezone.now)
    deleted = models.DateTimeField(null=True, blank=True)

    objects = CopyQuerySet.as_manager()

    class Meta:
        ordering = ("noun", "pk")

    def __str__(self):
        return self.label

    @property
    def key(self) -> str:
        """What edits and links name it by."""
        return f"own-{self.pk}"

    @property
    def label(self) -> str:
        """Its name."""
        return self.said.get("label", "")
