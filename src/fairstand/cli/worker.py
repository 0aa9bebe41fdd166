"""The task worker as a process of its own; `fairstand.cli.serve` starts and ends it."""

import os
import threading
import time


def main() -> None:
    """Work through background tasks until told to end, or until the server is gone."""
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "fairstand.settings")
    import django

    django.setup()
    from django.core.management import call_command

    from fairstand.warm_up import warm_up
    from fairstand.work.progress import abandon_stale

    abandon_stale()
    threading.Thread(target=_end_with, args=(os.getppid(),), daemon=True).start()
    warm_up()
    call_command("db_worker", interval=0.2, startup_delay=False, reload=False, verbosity=0)


def _end_with(parent: int) -> None:
    """End this process once its parent is gone, however that happened."""
    while os.getppid() == parent:
        time.sleep(1)
    os._exit(0)


if __name__ == "__main__":
    main()
