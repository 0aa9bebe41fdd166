"""Pieces and their source files."""

from django.conf import settings
from django.db import models
from django.utils import timezone

__all__ = ["Piece", "SourceFile"]


class SourceFile(models.Model):
    """A file as it was brought in, stored once under the hash of its content."""

    sha256 = models.CharField(max_length=64, primary_key=True)
    size_bytes = models.BigIntegerField()
    created = models.DateTimeField(default=timezone.now)

    @property
    def path(self):
        """Where the bytes are."""
        return settings.SOURCES_DIR / self.sha256


class PieceQuerySet(models.QuerySet):
    """Pieces, asked for by whom they belong to."""

    def of(self, user):
        """Those of one owner that are not deleted."""
        return self.filter(owner=user, deleted__isnull=True)


class Piece(models.Model):
    """What a maker works on. The source is never altered; stances are kept beside it."""

    owner = models.ForeignKey(settings.AUTH_USER_MODEL, models.CASCADE, related_name="pieces")
    name = models.CharField(max_length=120)
    filename = models.CharField(max_length=255)
    format = models.CharField(max_length=8)
    source = models.ForeignKey(SourceFile, models.PROTECT, related_name="pieces")
    file_unit = models.CharField(max_length=8, blank=True)
    facts = models.JSONField(default=dict)
    problem = models.CharField(max_length=200, blank=True)
    # Counts every change of the strip of stances: a change names the one it was made on.
    strip_revision = models.PositiveBigIntegerField(default=0)
    created = models.DateTimeField(default=timezone.now)
    deleted = models.DateTimeField(null=True, blank=True)

    objects = PieceQuerySet.as_manager()

    class Meta:
        ordering = ("-created", "-pk")

    def __str__(self):
        return self.name
