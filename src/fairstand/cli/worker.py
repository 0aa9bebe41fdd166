"""The task worker as a process of its own; `fairstand.cli.serve` starts, watches and ends it.

Called with the number of the process that it belongs to, and gone as soon as that is.
"""

import contextlib
import os
import sys
import threading
import time
from pathlib import Path

# By how much the server goes first.
_NICE = int(os.environ.get("FAIRSTAND_WORKER_NICE", "10"))


def main() -> None:
    """Work through background tasks until told to end, or until the server is gone."""
    server = int(sys.argv[1])
    # Before anything else: a server that is killed while this starts leaves nothing behind.
    threading.Thread(target=_end_with, args=(server,), daemon=True).start()
    _give_way()
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "fairstand.settings")
    import django

    django.setup()
    from django.conf import settings
    from django.core.management import call_command

    from fairstand.warm_up import warm_up

    if settings.FAIRSTAND_WARM_UP:
        warm_up()
    call_command("db_worker", interval=0.2, startup_delay=False, reload=False, verbosity=0)


def _give_way() -> None:
    """Let the server go first: behind it a hand waits for an answer."""
    os.nice(_NICE)
    # Where the processor is shared between sessions, niceness counts only within one.
    with contextlib.suppress(OSError):
        Path("/proc/self/autogroup").write_text(str(_NICE))


def _end_with(server: int) -> None:
    """End this process once its parent is gone, however that happened."""
    while os.getppid() == server:
        time.sleep(0.5)
    os._exit(0)


if __name__ == "__main__":
    main()
