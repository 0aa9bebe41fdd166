"""Stances and their edits."""

import hashlib
import json

from django.db import models, transaction
from django.urls import reverse
from django.utils import timezone

from fairstand.library.models import Piece

__all__ = ["EditRecord", "Stance", "StripRecord", "digest_after"]


class StanceQuerySet(models.QuerySet):
    """Stances, asked for by whom their piece belongs to."""

    def of(self, user, deleted: bool = False):
        """Those of one owner's pieces that are not deleted; deleted stances only if asked for."""
        found = self.filter(piece__owner=user, piece__deleted__isnull=True)
        return found if deleted else found.standing()

    def standing(self):
        """Those that are not deleted, in the order of the strip."""
        return self.filter(deleted__isnull=True)

    def first_of(self, piece):
        """The first stance of a piece; made where it has none yet."""
        with transaction.atomic():
            found = self.filter(piece=piece).standing().first()
            return found or self.create(piece=piece, name="First stance")


class Stance(models.Model):
    """One way to stand a piece. Its first ``in_force`` edits hold; the rest can be redone."""

    piece = models.ForeignKey(Piece, models.CASCADE, related_name="stances")
    name = models.CharField(max_length=80)
    position = models.PositiveIntegerField(default=0)
    in_force = models.PositiveIntegerField(default=0)
    # Counts every change, undo and redo included: a change names the one that it was made on.
    revision = models.PositiveBigIntegerField(default=0)
    # The part that is on the bench; see `printability.parts`.
    part = models.CharField(max_length=60, default="1")
    forked_from = models.ForeignKey("self", models.SET_NULL, null=True, blank=True)
    created = models.DateTimeField(default=timezone.now)
    deleted = models.DateTimeField(null=True, blank=True)

    objects = StanceQuerySet.as_manager()

    class Meta:
        ordering = ("position", "pk")

    def __str__(self):
        return f"{self.piece} ▸ {self.name}"

    def get_absolute_url(self) -> str:
        """Its bench."""
        return reverse("bench:page", args=[self.pk])


class EditRecord(models.Model):
    """One edit of a stance: its kind and parameters, as the core validated them."""

    stance = models.ForeignKey(Stance, models.CASCADE, related_name="edits")
    position = models.PositiveIntegerField()
    kind = models.CharField(max_length=24)
    parameters = models.JSONField()
    # Of this edit and all before it: names everything that is derived from them.
    digest = models.CharField(max_length=32)
    created = models.DateTimeField(default=timezone.now)

    class Meta:
        ordering = ("position",)
        constraints = [
            models.UniqueConstraint(fields=("stance", "position"), name="one_edit_a_position")
        ]

    @classmethod
    def after(cls, before: str, stance: Stance, position: int, edit) -> "EditRecord":
        """A record of an edit after the one with the digest ``before``; not saved yet."""
        parameters = edit.parameters()
        return cls(
            stance=stance, position=position, kind=edit.kind, parameters=parameters,
            digest=digest_after(before, edit.kind, parameters),
        )  # fmt: skip


def digest_after(before: str, kind: str, parameters: dict) -> str:
    """Names an edit with all that came before it."""
    text = json.dumps([before, kind, parameters], sort_keys=True)
    return hashlib.sha256(text.encode()).hexdigest()[:32]


class StripRecord(models.Model):
    """One change of a piece's strip of stances, with the strip before and after it.

    What was taken back can be redone until another change is made.
    """

    piece = models.ForeignKey(Piece, models.CASCADE, related_name="strip_records")
    said = models.CharField(max_length=120)
    before = models.JSONField()
    after = models.JSONField(default=list)
    is_undone = models.BooleanField(default=False)
    created = models.DateTimeField(default=timezone.now)

    class Meta:
        ordering = ("pk",)
