"""Run long work under a record: stages, progress, cancel, and an honest end."""

import logging
import time
from collections.abc import Callable
from datetime import timedelta

from django.utils import timezone

from printability.errors import Cancelled, PrintabilityError

from .models import Work

__all__ = ["Reporter", "abandon_stale", "ask_cancel", "run", "work_for"]

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


def work_for(user, key: str, title: str) -> tuple[Work, bool]:
    """The open record under a key, or a new one; and whether it is new."""
    if key:
        open_work = Work.objects.filter(
            owner=user, key=key, state__in=(Work.State.WAITING, Work.State.RUNNING),
            cancel_asked=False,
        ).first()  # fmt: skip
        if open_work:
            return open_work, False
    return Work.objects.create(owner=user, key=key, title=title[:120]), True


def ask_cancel(work: Work) -> None:
    """Ask work to stop; what has not begun never will."""
    Work.objects.filter(pk=work.pk).update(cancel_asked=True)
    Work.objects.filter(pk=work.pk, state=Work.State.WAITING).update(
        state=Work.State.CANCELLED, touched=timezone.now()
    )


def abandon_stale(older_than: timedelta = timedelta(0)) -> int:
    """End records that a stopped worker left running; called when a worker starts."""
    return Work.objects.filter(
        state=Work.State.RUNNING, touched__lte=timezone.now() - older_than
    ).update(state=Work.State.FAILED, error="The work was interrupted; start it again.")
