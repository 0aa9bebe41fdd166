"""Begin work, join what is on it already, and ask it to stop."""

import time
from datetime import timedelta

from django.conf import settings
from django.db import transaction
from django.utils import timezone

from .models import Work
from .tasks import Task, task_named

__all__ = ["ask_cancel", "begin", "is_done_soon", "release", "seen"]

# A page that watches asks at least twice a second; browsers let one that is out of sight ask
# once a minute.
UNWATCHED_AFTER = timedelta(seconds=75)
_WAITED_S, _LOOKED_EVERY_S = 0.22, 0.015
_LOOKED_FOR_AGAIN = timedelta(seconds=4)


def begin(
    user, key: str, title: str, task: Task, *arguments, of=None, replaces: str = "",
    beside: str = "", lane: str = "",
) -> Work:  # fmt: skip
    """Start long work, or join what is open under its key.

    Parameters
    ----------
    user : User
    key : str
        Names the result: two requests for the same share one record. Empty: never shared.
    title : str
    task : Task
        Called with the record, a reporter and the arguments: all that it needs to know.
    of : Stance, optional
        What it is for: says where to go, and whose turn it is among pieces.
    replaces : str
        Open work whose key begins so is asked to stop: it is for what was there before.
    beside : str
        But not where its key begins so: it is for what there is now.
    lane : str
        Instead of the task's own.
    """
    with transaction.atomic():
        still_open = Work.objects.filter(owner=user, state__in=Work.OPEN, cancel_asked__isnull=True)
        if key:
            joined = still_open.filter(key=key).first()
            if joined:
                seen(joined)
                return joined
        if replaces:
            old = still_open.filter(key__startswith=replaces)
            for work in old.exclude(key__startswith=beside) if beside else old:
                ask_cancel(work)
        return Work.objects.create(
            owner=user, key=key, title=title[:120], task=task.name, arguments=list(arguments),
            lane=lane or task.lane, is_passing=task.is_passing, piece=of.piece_id if of else None,
            url=of.get_absolute_url() if of else "",
        )  # fmt: skip


def is_done_soon(work: Work) -> bool:
    """Wait a moment for work; whether it is done then.

    What is done within it is answered as if it had been done at once.
    """
    if not settings.FAIRSTAND_WORKERS:
        return False
    end = time.monotonic() + _WAITED_S
    while time.monotonic() < end:
        state = Work.objects.filter(pk=work.pk).values_list("state", flat=True).first()
        if state not in Work.OPEN:
            return state == Work.State.DONE
        time.sleep(_LOOKED_EVERY_S)
    return False


def seen(work: Work) -> None:
    """Note that a page asks for the work, at most every few seconds."""
    now = timezone.now()
    if now - work.watched > timedelta(seconds=5):
        Work.objects.filter(pk=work.pk).update(watched=now)


def release(work: Work) -> None:
    """A page that watched it goes away; another one may still watch it, and says so at once."""
    Work.objects.filter(pk=work.pk).update(
        watched=timezone.now() - UNWATCHED_AFTER + _LOOKED_FOR_AGAIN
    )


def ask_cancel(work: Work) -> None:
    """Ask work to stop; what has not begun never will."""
    now = timezone.now()
    Work.objects.filter(pk=work.pk, cancel_asked__isnull=True).update(cancel_asked=now)
    never = Work.objects.filter(pk=work.pk, state=Work.State.WAITING).update(
        state=Work.State.CANCELLED, ended=now
    )
    if never and work.task:
        try:
            after = task_named(work.task).after
        except ImportError:
            after = None
        if after is not None:
            after(*work.arguments)
