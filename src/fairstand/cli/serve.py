"""``fairstand serve``: the web server and the processes that work, together, until Ctrl-C."""

import argparse
import contextlib
import ctypes
import fcntl
import os
import signal
import socket
import sys
import threading

__all__ = ["arguments", "run", "serve"]

HOST = "127.0.0.1"
# Enough for one maker's browser: it asks for a few things at a time.
THREADS = 8
_M_ARENA_MAX = -8  # of malloc.h


def arguments(command: argparse.ArgumentParser) -> None:
    """What can be said to it."""
    command.add_argument("--port", type=int, default=8000)
    command.add_argument("--demo", action="store_true", help="add the demo pieces first, once")


def run(options: argparse.Namespace) -> int:
    """Serve on ``options.port``."""
    return serve(options.port, options.demo)


def serve(port: int, with_demo: bool) -> int:
    """Migrate, warm up, then serve on loopback with processes that work beside it."""
    if not 0 <= port <= 65535:
        print(f"fairstand: {port} is not a port; choose one from 1024 to 65535.", file=sys.stderr)
        return 2
    if _taken(port):
        print(
            f"fairstand: port {port} is in use; end what runs there or choose another (PORT=8001).",
            file=sys.stderr,
        )
        return 2
    # Threads that each have memory of their own would give little of it back.
    with contextlib.suppress(OSError, AttributeError):
        ctypes.CDLL(None).mallopt(_M_ARENA_MAX, 2)
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "fairstand.settings")
    import django

    django.setup()
    from django.conf import settings
    from django.core.management import call_command

    from fairstand.library.keeping import sweep
    from fairstand.warm_up import warm_up
    from fairstand.work.pool import Pool, abandon_all

    # Held until this process ends, however it does.
    alone = (settings.DATA_DIR / "serving.lock").open("w")
    try:
        fcntl.flock(alone, fcntl.LOCK_EX | fcntl.LOCK_NB)
    except BlockingIOError:
        print(
            "fairstand: another Fair Stand is serving this data folder; end it, or name another "
            "folder (FAIRSTAND_DATA=…).",
            file=sys.stderr,
        )
        return 2
    call_command("migrate", verbosity=0, interactive=False)
    abandon_all()
    sweep(at_start=True)
    if settings.FAIRSTAND_WARM_UP:
        print("Warming up (the first time, compiling takes two to three minutes) …", flush=True)
        warm_up()
    if with_demo:
        from fairstand.demo.seed import seed

        made = seed()
        if made:
            print(f"Added {made} demo pieces.", flush=True)
    settings.FAIRSTAND_WORKERS = True
    pool = Pool(now_and_then=sweep)
    try:
        return _serve(port)
    finally:
        pool.stop()
        alone.close()


def _serve(port: int) -> int:
    from django.conf import settings
    from waitress.server import create_server

    from fairstand.wsgi import application

    # A file within its limit, and what a form adds to it.
    most = settings.FAIRSTAND_MAX_BYTES + 1_000_000
    server = create_server(
        application, host=HOST, port=port, threads=THREADS, max_request_body_size=most,
        ident=None,
    )  # fmt: skip
    port = server.effective_port

    def stop(*_):
        raise KeyboardInterrupt

    if threading.current_thread() is threading.main_thread():
        # Also where it was started in the background, where shells have Ctrl-C ignored.
        for end in (signal.SIGINT, signal.SIGTERM):
            signal.signal(end, stop)
    print(f"Fair Stand is at http://{HOST}:{port}/  (Ctrl-C ends it)", flush=True)
    try:
        server.run()
    except KeyboardInterrupt:
        pass
    finally:
        server.close()
    print("\nFair Stand has ended; your pieces are kept.", flush=True)
    return 0


def _taken(port: int) -> bool:
    if port == 0:
        return False
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind((HOST, port))
        except OSError:
            return True
    return False
