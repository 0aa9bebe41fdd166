"""A record of long work that the page can watch."""

import uuid

from django.conf import settings
from django.db import models
from django.utils import timezone

__all__ = ["Work"]


class Work(models.Model):
    """One long task: what it is doing, how far it is, whether it should stop."""

    class State(models.TextChoices):
        """Where the work stands."""

        WAITING = "waiting"
        RUNNING = "running"
        DONE = "done"
        FAILED = "failed"
        CANCELLED = "cancelled"

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    owner = models.ForeignKey(settings.AUTH_USER_MODEL, models.CASCADE, related_name="work")
    title = models.CharField(max_length=120)
    # Two requests for the same result share one record.
    key = models.CharField(max_length=160, blank=True, db_index=True)
    state = models.CharField(max_length=10, choices=State, default=State.WAITING)
    stage = models.CharField(max_length=120, default="Waiting for its turn")
    done = models.FloatField(default=0.0)
    error = models.CharField(max_length=500, blank=True)
    result = models.JSONField(default=dict)
    cancel_asked = models.BooleanField(default=False)
    created = models.DateTimeField(default=timezone.now)
    touched = models.DateTimeField(default=timezone.now)

    class Meta:
        constraints = [
            models.UniqueConstraint(
                fields=("owner", "key"),
                condition=models.Q(state__in=("waiting", "running"), cancel_asked=False)
                & ~models.Q(key=""),
                name="one_open_work_a_key",
            )
        ]

    @property
    def is_open(self) -> bool:
        """Whether it has still to end."""
        return self.state in (self.State.WAITING, self.State.RUNNING)
