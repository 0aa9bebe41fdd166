"""A large model from the library page to its bench, in Chromium drawing by software."""

import os
import tempfile
import time
from pathlib import Path

import numpy as np
from playwright.sync_api import sync_playwright
from tools.running import WINDOW, Server, chromium

from .ratios import _ball
from .timing import line

# Subdivisions of the ball: 327,680, 1,310,720 and 5,242,880 facets.
SIZES = (7, 8, 9)
_RECORD = [("normal", "<f4", 3), ("corners", "<f4", (3, 3)), ("rest", "<u2")]


def run() -> None:
    """Print how long it takes from the file's choice on, and what memory it takes at most."""
    print("From the choice of a file to its bench (with the upload on the same machine)")
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as playwright:
        browser = chromium(playwright)
        for subdivisions in SIZES:
            file, facets = _written(Path(folder) / "ball.stl", subdivisions)
            server = Server(Path(folder) / str(subdivisions), FAIRSTAND_MAX_MB="300",
                            FAIRSTAND_MAX_FACETS="6000000")  # fmt: skip
            try:
                page = browser.new_page(viewport=WINDOW)
                page.set_default_timeout(300_000)
                # A smaller one before it: the worker has started then, as it has in daily use.
                first, _ = _written(Path(folder) / "first.stl", 7)
                page.goto(server.url)
                page.locator("#file").set_input_files(first)
                page.wait_for_selector("[data-summary]", state="attached")
                page.goto(server.url)
                start = time.perf_counter()
                page.locator("#file").set_input_files(file)
                page.wait_for_url("**/bench/2/")
                opened = time.perf_counter() - start
                page.wait_for_selector("html[data-ready]")
                page.wait_for_selector("[data-summary]", state="attached")
                ready = time.perf_counter() - start
                peak = _peak_gb(server.process.pid)
                told = f"read after {opened:.1f} s; server and worker {peak:.1f} GB at most"
                line(f"{facets:,} facets, ready", f"{ready:.1f} s", told)
                page.close()
            finally:
                server.stop()
        browser.close()


def _written(file: Path, subdivisions: int) -> tuple[Path, int]:
    mesh = _ball(subdivisions)
    records = np.zeros(len(mesh.facets), _RECORD)
    records["corners"] = mesh.vertices[mesh.facets]
    file.write_bytes(b"\0" * 80 + np.uint32(len(records)).tobytes() + records.tobytes())
    return file, len(records)


def _peak_gb(server: int) -> float:
    """The largest memory of a process and those that it started, added up."""
    total = 0.0
    for status in Path("/proc").glob("[0-9]*/status"):
        try:
            said = dict(row.split(":", 1) for row in status.read_text().splitlines() if ":" in row)
        except OSError:
            continue
        if str(server) in (said["Pid"].strip(), said["PPid"].strip()) and "VmHWM" in said:
            total += int(said["VmHWM"].split()[0]) * 1024 / 1e9
    return total


if __name__ == "__main__":
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "fairstand.settings")
    run()
