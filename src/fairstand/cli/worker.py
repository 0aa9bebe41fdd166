"""A process that works through the lanes; `fairstand.work.pool` starts, watches and ends it.

Called with the number of the process that it belongs to, and gone as soon as that is.
"""

import contextlib
import os
import signal
import sys
import threading
import time
from pathlib import Path

# By how much the server goes first.
_NICE = int(os.environ.get("FAIRSTAND_WORKER_NICE", "10"))
_ASKS_EVERY_S = 0.04
# One that holds more than this share of what it may begins afresh.
_RENEWED_FROM = 0.3


def main() -> None:
    """Work until told to end, or until the server is gone."""
    server, token, lanes = int(sys.argv[1]), sys.argv[2], sys.argv[3]
    # Before anything else: a server that is killed while this starts leaves nothing behind.
    threading.Thread(target=_end_with, args=(server,), daemon=True).start()
    _give_way(0 if lanes == "quick" else _NICE)
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "fairstand.settings")
    import django

    django.setup()
    from django.conf import settings

    from fairstand.warm_up import warm_up

    if settings.FAIRSTAND_WARM_UP:
        warm_up()
    _work(token, lanes)


def _work(token: str, lanes: str) -> None:
    from django.conf import settings
    from django.db import DatabaseError, connection

    from fairstand.work.lanes import LANES, take_next
    from fairstand.work.progress import resident_bytes, run

    ending = threading.Event()
    signal.signal(signal.SIGTERM, lambda *_: ending.set())
    signal.signal(signal.SIGINT, signal.SIG_IGN)
    while not ending.is_set():
        try:
            work = take_next(token, LANES[lanes])
        except DatabaseError:  # busy: it waits there
            connection.close()
            work = None
        if work is None:
            ending.wait(_ASKS_EVERY_S)
            continue
        run(work.pk)
        if resident_bytes() > _RENEWED_FROM * settings.FAIRSTAND_MEMORY_BYTES:
            return


def _give_way(nice: int) -> None:
    """Let the server go first: behind it a hand waits for an answer."""
    os.nice(nice)
    # Where the processor is shared between sessions, niceness counts only within one.
    with contextlib.suppress(OSError):
        Path("/proc/self/autogroup").write_text(str(nice))


def _end_with(server: int) -> None:
    """End this process once its parent is gone, however that happened."""
    while os.getppid() == server:
        time.sleep(0.5)
    os._exit(0)


if __name__ == "__main__":
    main()
