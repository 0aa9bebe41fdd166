"""A record of long work: what waits in a lane, what runs, how it ended."""

import uuid

from django.conf import settings
from django.db import models
from django.utils import timezone

__all__ = ["LONG", "QUICK", "Work"]

# Short work is never behind long work: one process takes nothing else.
QUICK, LONG = "quick", "long"


class Work(models.Model):
    """One task: what it is given, what it is doing, how far it is, whether it should stop.

    It is both what the page watches and what the processes that work take from, so that there is
    one answer to how it stands.
    """

    class State(models.TextChoices):
        """Where the work stands."""

        WAITING = "waiting"
        RUNNING = "running"
        DONE = "done"
        FAILED = "failed"
        CANCELLED = "cancelled"

    OPEN = (State.WAITING, State.RUNNING)

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    owner = models.ForeignKey(settings.AUTH_USER_MODEL, models.CASCADE, related_name="work")
    title = models.CharField(max_length=120)
    # Two requests for the same result share one record.
    key = models.CharField(max_length=160, blank=True, db_index=True)
    # What is to be done: a `Task` by its name, and what it is given.
    task = models.CharField(max_length=120, blank=True)
    arguments = models.JSONField(default=list)
    lane = models.CharField(max_length=8, default=LONG)
    # Of no use to anybody once no page asks for it any more.
    is_passing = models.BooleanField(default=False)
    # Which piece it is for, and where to go to see it.
    piece = models.BigIntegerField(null=True, blank=True)
    url = models.CharField(max_length=200, blank=True)
    state = models.CharField(max_length=10, choices=State, default=State.WAITING, db_index=True)
    stage = models.CharField(max_length=120, default="Waiting for its turn")
    done = models.FloatField(default=0.0)
    error = models.CharField(max_length=500, blank=True)
    # While it runs, what it has so far.
    result = models.JSONField(default=dict)
    cancel_asked = models.DateTimeField(null=True, blank=True)
    # The process that is at it.
    worker = models.CharField(max_length=40, blank=True)
    created = models.DateTimeField(default=timezone.now)
    started = models.DateTimeField(null=True, blank=True)
    ended = models.DateTimeField(null=True, blank=True)
    # When a page last asked for it.
    watched = models.DateTimeField(default=timezone.now)

    class Meta:
        constraints = [
            models.UniqueConstraint(
                fields=("owner", "key"),
                condition=models.Q(state__in=("waiting", "running"), cancel_asked__isnull=True)
                & ~models.Q(key=""),
                name="one_open_work_a_key",
            )
        ]

    @property
    def is_open(self) -> bool:
        """Whether it has still to end."""
        return self.state in self.OPEN
