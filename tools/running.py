"""The application as a maker starts it, and a browser: for tests, speed tests and screenshots."""

import json
import os
import re
import shutil
import subprocess
import sys
import tempfile
import threading
import time
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from playwright.sync_api import Browser, Page, Playwright, sync_playwright

__all__ = ["Server", "chromium", "chromium_path", "demo_page"]

_CHROMIUMS = ("chromium-headless-shell", "chromium", "chromium-browser")
WINDOW = {"width": 1280, "height": 800}
FLAGS = [
    "--no-sandbox", "--disable-quic", "--no-first-run", "--disable-background-networking",
    "--disable-component-update", "--disable-sync", "--use-gl=angle", "--use-angle=swiftshader",
    "--enable-unsafe-swiftshader", "--enable-precise-memory-info", "--js-flags=--expose-gc",
    # Laying the page together on the processor costs a fourth of doing it by software GL.
    "--disable-gpu-compositing", "--in-process-gpu",
]  # fmt: skip


def chromium_path() -> str | None:
    """Where Debian's Chromium is, or the one named in the environment.

    The one without any window of its own needs two thirds of the time of the other.
    """
    named = os.environ.get("FAIRSTAND_CHROMIUM")
    return named or next(filter(None, map(shutil.which, _CHROMIUMS)), None)


def chromium(playwright: Playwright, *flags: str) -> Browser:
    """Chromium without a monitor, drawing by software."""
    path = chromium_path()
    assert path, "Chromium is missing; `make test` installs it on Debian."
    return playwright.chromium.launch(executable_path=path, args=[*FLAGS, *flags])


class Server:
    """``fairstand serve`` on a data folder of its own.

    Parameters
    ----------
    folder : Path
    *options : str
        Further ones of the command, like ``--demo``.
    wait : bool
        Whether until it says where it is.
    **settings : str
        Environment of the server.
    """

    def __init__(self, folder: Path, *options: str, wait: bool = True, **settings: str):
        self.folder, self.options, self.settings = folder, options, settings
        self.start(wait)

    def start(self, wait: bool = True) -> None:
        """Start it, and wait until it says where it is."""
        own = {"FAIRSTAND_DATA": str(self.folder), "DJANGO_SETTINGS_MODULE": "fairstand.settings"}
        self.process = subprocess.Popen(
            [sys.executable, "-c", "from fairstand.cli import main; main()", "serve", "--port", "0",
             *self.options],
            env=os.environ | self.settings | own, stdout=subprocess.PIPE, stderr=subprocess.STDOUT,
            encoding="utf-8",
        )  # fmt: skip
        self.log, self._url = [], None
        threading.Thread(target=self._read, daemon=True).start()
        if wait:
            self.wait()

    def wait(self) -> None:
        """Wait until it says where it is."""
        end = time.monotonic() + 240
        while self._url is None:
            assert self.process.poll() is None, "".join(self.log)
            assert time.monotonic() < end, "".join(self.log)
            time.sleep(0.05)

    @property
    def url(self) -> str:
        """Where it is, without a slash at the end; waits until it says so."""
        self.wait()
        return self._url

    def bring_in(self, path: Path) -> str:
        """Bring a small file in as the library page does; the address of its bench."""
        token, mark = "0" * 32, "------------------------bringing"
        name = f'Content-Disposition: form-data; name="file"; filename="{path.name}"'
        body = f"--{mark}\r\n{name}\r\n\r\n".encode()
        body += path.read_bytes() + f"\r\n--{mark}--\r\n".encode()
        request = urllib.request.Request(
            f"{self.url}/pieces/upload/", body,
            {"Content-Type": f"multipart/form-data; boundary={mark}",
             "Cookie": f"csrftoken={token}", "X-CSRFToken": token},
        )  # fmt: skip
        with urllib.request.urlopen(request, timeout=60) as answer:
            told = json.load(answer)
        while "url" not in told:
            with urllib.request.urlopen(self.url + told["work"]["url"], timeout=60) as answer:
                work = json.load(answer)
            assert work["state"] in ("waiting", "running", "done"), work["error"]
            told = work["result"] if work["state"] == "done" else {"work": work}
            time.sleep(0.02)
        return self.url + told["url"]

    def _read(self) -> None:
        for line in self.process.stdout:
            self.log.append(line)
            found = re.search(r"http://127\.0\.0\.1:\d+", line)
            if found:
                self._url = found[0]

    def stop(self) -> None:
        """End it as Ctrl-C does."""
        self.process.send_signal(2)
        self.process.wait(60)


@contextmanager
def demo_page() -> Iterator[tuple[Page, str]]:
    """A page of 1280 x 800 and the address of a server with the demo pieces."""
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as playwright:
        server = Server(Path(folder), "--demo")
        browser = chromium(playwright)
        try:
            yield browser.new_page(viewport=WINDOW), server.url
        finally:
            browser.close()
            server.stop()
