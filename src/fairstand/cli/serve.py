"""``fairstand serve``: the web server and the task worker together, until Ctrl-C."""

import os
import signal
import socket
import subprocess
import sys
import threading

__all__ = ["run"]

HOST = "127.0.0.1"
# Enough for one maker's browser: it asks for a few things at a time.
THREADS = 8


def run(port: int, with_demo: bool) -> int:
    """Migrate, warm up, then serve on loopback with a worker beside it."""
    if not 0 <= port <= 65535:
        print(f"fairstand: {port} is not a port; choose one from 1024 to 65535.", file=sys.stderr)
        return 2
    if _taken(port):
        print(
            f"fairstand: port {port} is in use; end what runs there or choose another (PORT=8001).",
            file=sys.stderr,
        )
        return 2
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "fairstand.settings")
    import django

    django.setup()
    from django.core.management import call_command

    from fairstand.library.keeping import sweep
    from fairstand.warm_up import warm_up

    call_command("migrate", verbosity=0, interactive=False)
    sweep()
    print("Warming up (the first time, compiling takes about a minute) …", flush=True)
    warm_up()
    if with_demo:
        from fairstand.demo.seed import seed

        made = seed()
        if made:
            print(f"Added {made} demo pieces.", flush=True)
    worker = subprocess.Popen(
        [sys.executable, "-m", "fairstand.cli.worker"], start_new_session=True
    )
    try:
        return _serve(port)
    finally:
        worker.send_signal(signal.SIGTERM)
        try:
            worker.wait(5)
        except subprocess.TimeoutExpired:
            worker.kill()
            worker.wait()


def _serve(port: int) -> int:
    from waitress.server import create_server

    from fairstand.wsgi import application

    server = create_server(
        application, host=HOST, port=port, threads=THREADS, max_request_body_size=2**31,
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
