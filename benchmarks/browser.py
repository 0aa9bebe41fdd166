"""The application with its demo pieces, in Chromium rendering by software."""

import os
import re
import shutil
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from contextlib import contextmanager

from playwright.sync_api import Page, sync_playwright

FLAGS = [
    "--no-sandbox", "--disable-quic", "--no-first-run", "--disable-background-networking",
    "--disable-component-update", "--disable-sync", "--use-gl=angle", "--use-angle=swiftshader",
    "--enable-unsafe-swiftshader",
]  # fmt: skip


@contextmanager
def demo_pages() -> Iterator[tuple[Page, list[tuple[str, str]]] | None]:
    """A page, and the addresses and names of the demo pieces; None without Chromium."""
    chromium = os.environ.get("FAIRSTAND_CHROMIUM") or shutil.which("chromium")
    if not chromium:
        print("Not measured: there is no Chromium.")
        yield None
        return
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as playwright:
        server = subprocess.Popen(
            [sys.executable, "-c", "from fairstand.cli import main; main()",
             "serve", "--port", "0", "--demo"],
            env=os.environ | {"FAIRSTAND_DATA": folder}, stdout=subprocess.PIPE, encoding="utf-8",
        )  # fmt: skip
        try:
            url = next(
                found[0] for text in server.stdout if (found := re.search(r"http://\S+?/", text))
            )
            browser = playwright.chromium.launch(executable_path=chromium, args=FLAGS)
            page = browser.new_page(viewport={"width": 1280, "height": 800})
            page.goto(url, wait_until="networkidle")
            links = page.locator("[data-piece] a").evaluate_all(
                "all => all.map((a) => [a.href, a.querySelector('.font-semibold').innerText])"
            )
            yield page, links
            browser.close()
        finally:
            server.send_signal(2)
            server.wait(15)
