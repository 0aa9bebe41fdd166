"""What was handed over, when, and with which hash."""

from django.db import models
from django.utils import timezone

from fairstand.bench.models import Stance

__all__ = ["HandOver"]


class HandOver(models.Model):
    """One file given out of a stance."""

    stance = models.ForeignKey(Stance, models.CASCADE, related_name="hand_overs")
    filename = models.CharField(max_length=255)
    format = models.CharField(max_length=8)
    sha256 = models.CharField(max_length=64)
    size_bytes = models.BigIntegerField()
    created = models.DateTimeField(default=timezone.now)

    class Meta:
        ordering = ("-created",)
