"""Run long work under a record: stages, progress, cancel, and an honest end."""

import logging
import time
from collections.abc import Callable

from django.db import transaction
from django.utils import timezone
from django_tasks.base import TaskResultStatus
from django_tasks_db.models import DBTaskResult

from printability.errors import Cancelled, PrintabilityError

from .models import Work

__all__ = ["Reporter", "abandon_stale", "ask_cancel", "begin", "run"]

log = logging.getLogger(__name__)
# Often enough to look alive, seldom enough not to matter.
REPORT_EVERY_S = 0.15


class Reporter:
    """Passes progress on to the record, and stops the work when the maker asks."""

    def __init__(self, work: Work):
        self.work = work
        self._last = 0.0

    def __call__(self, stage: str, done: float) -> None:
        """Note the stage and the part done.

        Raises
        ------
        Cancelled
        """
        now = time.monotonic()
        if stage == self.work.stage and now - self._last < REPORT_EVERY_S:
            return
        self._last = now
        self.work.stage, self.work.done = stage, done
        Work.objects.filter(pk=self.work.pk).update(stage=stage, done=done, touched=timezone.now())
        if Work.objects.filter(pk=self.work.pk, cancel_asked=True).exists():
            raise Cancelled("Stopped.")


def run(work_id: str, job: Callable[[Work, Reporter], dict]) -> None:
    """Do a job under its record; the record always ends in a final state."""
    started = Work.objects.filter(pk=work_id, state=Work.State.WAITING).update(
        state=Work.State.RUNNING, touched=timezone.now()
    )
    if not started:
        return
    work = Work.objects.get(pk=work_id)
    end = {"state": Work.State.DONE, "done": 1.0}
    try:
        report = Reporter(work)
        report("Starting", 0.0)
        end["result"] = job(work, report)
    except Cancelled:
        end = {"state": Work.State.CANCELLED}
    except PrintabilityError as error:
        end = {"state": Work.State.FAILED, "error": str(error)[:500]}
    except Exception:
        log.exception("Work %s failed", work.title)
        end = {
            "state": Work.State.FAILED,
            "error": "Something went wrong in this work; nothing was changed. Try it again.",
        }
    Work.objects.filter(pk=work_id).update(touched=timezone.now(), **end)


def begin(
    user, key: str, title: str, task, *arguments, replaces: str = "", beside: str = ""
) -> Work:
    """Start long work, or join what is open under its key.

    The record and what the worker is given are written in one transaction.

    Parameters
    ----------
    user : User
    key : str
        Names the result: two requests for the same share one record. Empty: never shared.
    title : str
    task : Task
        Called with the record's id and the arguments: all that it needs to know.
    replaces : str
        Open work whose key begins so is asked to stop: it is for what was there before.
    beside : str
        But not where its key begins so: it is for what there is now.
    """
    with transaction.atomic():
        still_open = Work.objects.filter(
            owner=user, state__in=(Work.State.WAITING, Work.State.RUNNING), cancel_asked=False
        )
        if key:
            joined = still_open.filter(key=key).first()
            if joined:
                return joined
        if replaces:
            old = still_open.filter(key__startswith=replaces)
            for work in old.exclude(key__startswith=beside) if beside else old:
                ask_cancel(work)
        work = Work.objects.create(owner=user, key=key, title=title[:120])
        task.enqueue(str(work.pk), *arguments)
    return work


def ask_cancel(work: Work) -> None:
    """Ask work to stop; what has not begun never will."""
    Work.objects.filter(pk=work.pk).update(cancel_asked=True)
    Work.objects.filter(pk=work.pk, state=Work.State.WAITING).update(
        state=Work.State.CANCELLED, touched=timezone.now()
    )


def abandon_stale() -> int:
    """End records that a worker which has ended left running; how many there were."""
    DBTaskResult.objects.filter(status=TaskResultStatus.RUNNING).update(
        status=TaskResultStatus.FAILED, finished_at=timezone.now()
    )
    return Work.objects.filter(state=Work.State.RUNNING).update(
        state=Work.State.FAILED, error="The work was interrupted; start it again."
    )
