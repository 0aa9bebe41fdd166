"""Run work under its record: stages, progress, limits, and an honest end."""

import logging
import time
from collections.abc import Callable
from pathlib import Path

from django.conf import settings
from django.db import DatabaseError, OperationalError, connection
from django.utils import timezone

from printability.errors import Cancelled, PrintabilityError

from .models import Work
from .tasks import task_named

__all__ = [
    "INTERRUPTED",
    "Limited",
    "Reporter",
    "end",
    "resident_bytes",
    "run",
    "too_large",
    "too_long",
]

log = logging.getLogger(__name__)
# Often enough to look alive, seldom enough not to matter.
REPORT_EVERY_S = 0.15
INTERRUPTED = "The work was interrupted; start it again."
_WRITE_AGAIN_S = 0.25


class Limited(PrintabilityError):
    """The work takes more time or memory than it may."""


def too_long() -> str:
    """What is said of work that took too long."""
    return (
        f"It was ended after {settings.FAIRSTAND_JOB_S / 60:.0f} minutes. Nothing was changed; "
        "try it with a simpler part, or a smaller share of it."
    )


def too_large() -> str:
    """What is said of work that took too much memory."""
    return (
        f"It was ended because it needed more than {settings.FAIRSTAND_MEMORY_BYTES / 1e6:,.0f} MB "
        "of memory. Nothing was changed; try it with a simpler part (or set FAIRSTAND_MEMORY_MB)."
    )


def resident_bytes(pid: int | str = "self") -> int:
    """Memory that a process holds; 0 where that cannot be told."""
    try:
        pages = Path(f"/proc/{pid}/statm").read_text().split()[1]
    except (OSError, IndexError):
        return 0
    return int(pages) * 4096


class Reporter:
    """Passes progress on to the record, and stops the work when it has to end."""

    def __init__(self, work: Work):
        self.work = work
        self.began = time.monotonic()
        self._last = 0.0

    def __call__(self, stage: str, done: float) -> None:
        """Note the stage and the part done.

        Raises
        ------
        Cancelled
        Limited
        """
        now = time.monotonic()
        if stage == self.work.stage and now - self._last < REPORT_EVERY_S:
            return
        self._last = now
        self.work.stage, self.work.done = stage, done
        self._note(stage=stage[:120], done=done)
        if now - self.began > settings.FAIRSTAND_JOB_S:
            raise Limited(too_long())
        if resident_bytes() > settings.FAIRSTAND_MEMORY_BYTES:
            raise Limited(too_large())

    def so_far(self, result: dict) -> None:
        """Keep what there is so far, for the page to show, however the work ends."""
        self.work.result = result
        self._note(result=result)

    def _note(self, **fields) -> None:
        """Write to the record; where others write too long, the note is left out."""
        try:
            Work.objects.filter(pk=self.work.pk).update(**fields)
            asked = Work.objects.filter(pk=self.work.pk, cancel_asked__isnull=False).exists()
        except OperationalError:
            log.warning("The progress of %s was not noted: the database is busy.", self.work.title)
            return
        if asked:
            raise Cancelled("Stopped.")


def run(work_id) -> None:
    """Do the work of a record that is this process's; the record always ends in a final state."""
    work = Work.objects.get(pk=work_id)
    report, found = Reporter(work), {"state": Work.State.DONE, "done": 1.0}
    task = None
    try:
        task = task_named(work.task)
        report("Starting", 0.0)
        found["result"] = task.job(work, report, *work.arguments)
    except Cancelled:
        found = {"state": Work.State.CANCELLED}
    except PrintabilityError as error:
        found = {"state": Work.State.FAILED, "error": str(error)[:500]}
    except MemoryError:
        found = {"state": Work.State.FAILED, "error": too_large()}
    except Exception:
        log.exception("Work %s failed", work.title)
        found = {
            "state": Work.State.FAILED,
            "error": "Something went wrong in this work; nothing was changed. Try it again.",
        }
    finally:
        if task is not None and task.after is not None:
            task.after(*work.arguments)
    _surely(lambda: end(Work.objects.filter(pk=work_id), **found))


def end(works, **found) -> int:
    """Give open records their final state; how many there were."""
    return works.filter(state__in=Work.OPEN).update(ended=timezone.now(), **found)


def _surely(write: Callable[[], object]) -> None:
    """Write, again and again while the database is busy: an end that is lost is waited for."""
    while True:
        try:
            write()
            return
        except DatabaseError:
            log.exception("The end of work could not be noted; it is tried again")
            connection.close()
            time.sleep(_WRITE_AGAIN_S)
