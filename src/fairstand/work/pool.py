"""The processes that do the work: started, watched, ended by force where they do not hear."""

import logging
import os
import signal
import subprocess
import sys
import threading
import time
import uuid
from collections.abc import Callable
from datetime import timedelta

from django.conf import settings
from django.db import DatabaseError, connection
from django.utils import timezone

from .begin import UNWATCHED_AFTER, ask_cancel
from .models import Work
from .progress import INTERRUPTED, end, resident_bytes, too_large, too_long

__all__ = ["Pool", "abandon_all"]

log = logging.getLogger(__name__)
_LOOKED_EVERY_S = 0.2
# Who was asked to stop has so long to hear it; who is over a limit, so long to end by itself.
_HEARS_WITHIN = timedelta(seconds=0.8)
_OVER_TIME = timedelta(seconds=5)
_OVER_MEMORY = 1.15
# Work that turns out longer than this goes on beside the lane that it was in.
_QUICK_FOR, _MOST_BESIDE = timedelta(seconds=6), 3
# Before a process that has ended is started again; longer each time where it ends at once.
_PAUSE_S, _AT_ONCE_S, _MOST_PAUSE_S = 0.3, 8.0, 60.0


def abandon_all() -> int:
    """End records that no process is at, since none runs yet; how many there were."""
    return end(
        Work.objects.filter(state=Work.State.RUNNING), state=Work.State.FAILED, error=INTERRUPTED
    )


class _Process:
    """One process that works, started again whenever it ends."""

    def __init__(self, lanes: str):
        self.lanes = lanes
        self.pause_s = 0.0
        self.start_at = 0.0
        self.start()

    def start(self) -> None:
        self.is_ended_by_us = False
        self.token = uuid.uuid4().hex
        self.began = time.monotonic()
        self.popen = subprocess.Popen(
            [sys.executable, "-m", "fairstand.cli.worker", str(os.getpid()), self.token,
             self.lanes],
            start_new_session=True,
        )  # fmt: skip

    @property
    def is_gone(self) -> bool:
        return self.popen.poll() is not None

    def plan_start(self) -> None:
        """Say when it is to be started again."""
        by_itself = not self.is_ended_by_us and self.popen.returncode != 0
        at_once = by_itself and time.monotonic() - self.began < _AT_ONCE_S
        self.pause_s = min(max(2 * self.pause_s, _PAUSE_S), _MOST_PAUSE_S) if at_once else 0.0
        self.start_at = time.monotonic() + self.pause_s


class Pool:
    """All processes that work, and a thread that watches over them.

    At least two: one takes nothing that is long. On more than two cores, one a core.

    Parameters
    ----------
    now_and_then : callable, optional
        Called every minute.
    """

    def __init__(self, now_and_then: Callable[[], None] | None = None):
        self.stopping = threading.Event()
        self.now_and_then = now_and_then
        count = max((os.cpu_count() or 1) - 1, 1)
        self.processes = [_Process("quick"), *(_Process("any") for _ in range(count))]
        # They end what they are at, and go.
        self.beside: list[_Process] = []
        self.thread = threading.Thread(target=self._watch, daemon=True)
        self.thread.start()

    def _watch(self) -> None:
        told = time.monotonic()
        while not self.stopping.wait(_LOOKED_EVERY_S):
            try:
                self._look()
                if self.now_and_then and time.monotonic() - told > 60:
                    told = time.monotonic()
                    self.now_and_then()
            except DatabaseError:
                log.warning("Work could not be looked at: the database is busy.", exc_info=True)
                connection.close()
        connection.close()

    def _look(self) -> None:
        for process in self.processes:
            if process.is_gone and process.start_at < process.began:
                # What it was at will not go on: the page is told, and can ask for it again.
                self._drop(process, state=Work.State.FAILED, error=INTERRUPTED)
                process.plan_start()
            if process.is_gone and time.monotonic() >= process.start_at >= process.began:
                process.start()
        for process in [p for p in self.beside if p.is_gone]:
            self._drop(process, state=Work.State.FAILED, error=INTERRUPTED)
            self.beside.remove(process)
        now = timezone.now()
        of = {process.token: process for process in (*self.processes, *self.beside)}
        for work in Work.objects.filter(state=Work.State.RUNNING).defer("result", "arguments"):
            process = of.get(work.worker)
            if process is None:
                end(Work.objects.filter(pk=work.pk), state=Work.State.FAILED, error=INTERRUPTED)
                continue
            found = _has_to_end(work, process.popen.pid, now)
            if found is not None:
                self._end_by_force(process, work, found)
            elif process.lanes == "quick" and now - work.started > _QUICK_FOR:
                self._make_way(process)
        unwatched = Work.objects.filter(
            is_passing=True, state__in=Work.OPEN, cancel_asked__isnull=True,
            watched__lt=now - UNWATCHED_AFTER,
        )  # fmt: skip
        for work in unwatched:
            ask_cancel(work)

    def _make_way(self, process: _Process) -> None:
        """Have another process take quick work, where one is at what turns out to be long."""
        if process not in self.processes or len(self.beside) >= _MOST_BESIDE:
            return
        process.popen.send_signal(signal.SIGTERM)
        self.beside.append(process)
        self.processes[self.processes.index(process)] = _Process("quick")

    def _drop(self, process: _Process, **found) -> None:
        end(Work.objects.filter(worker=process.token, state=Work.State.RUNNING), **found)

    def _end_by_force(self, process: _Process, work: Work, found: dict) -> None:
        if not end(Work.objects.filter(pk=work.pk, state=Work.State.RUNNING), **found):
            return  # it has just ended by itself
        process.is_ended_by_us = True
        process.popen.kill()
        process.popen.wait()
        # It may have begun something else in between, which is not to suffer for it.
        Work.objects.filter(worker=process.token, state=Work.State.RUNNING).update(
            state=Work.State.WAITING, worker="", stage="Waiting for its turn"
        )

    def stop(self) -> None:
        """End them, in peace at first."""
        self.stopping.set()
        self.thread.join(30)
        ending = [*self.processes, *self.beside]
        for process in ending:
            process.popen.send_signal(signal.SIGTERM)
        until = time.monotonic() + 3
        for process in ending:
            try:
                process.popen.wait(max(until - time.monotonic(), 0.01))
            except subprocess.TimeoutExpired:
                process.popen.kill()
                process.popen.wait()
        abandon_all()


def _has_to_end(work: Work, pid: int, now) -> dict | None:
    """How work that runs has to end by force; None where it does not."""
    if work.cancel_asked and now - work.cancel_asked > _HEARS_WITHIN:
        return {"state": Work.State.CANCELLED}
    limit = timedelta(seconds=settings.FAIRSTAND_JOB_S) + _OVER_TIME
    if work.started and now - work.started > limit:
        return {"state": Work.State.FAILED, "error": too_long()}
    if resident_bytes(pid) > _OVER_MEMORY * settings.FAIRSTAND_MEMORY_BYTES:
        return {"state": Work.State.FAILED, "error": too_large()}
    return None
