"""From the click to the pillar's picture on the screen, on the demo pieces, in Chromium."""

import os
import re
import shutil
import subprocess
import sys
import tempfile

import numpy as np
from playwright.sync_api import sync_playwright

from .timing import line

FLAGS = [
    "--no-sandbox", "--disable-quic", "--no-first-run", "--disable-background-networking",
    "--disable-component-update", "--disable-sync", "--use-gl=angle", "--use-angle=swiftshader",
    "--enable-unsafe-swiftshader",
]  # fmt: skip

# Notes the time from the release of the button to the frame that shows one more pillar.
WATCH = """() => {
  const canvas = document.querySelector("[data-model]");
  const view = canvas.view;
  window.took = null;
  canvas.addEventListener("pointerup", () => {
    const start = performance.now();
    const before = view.pillarList.length;
    const look = () => {
      if (view.pillarList.length > before && !view.waiting) window.took = performance.now() - start;
      else if (performance.now() - start < 3000) requestAnimationFrame(look);
    };
    requestAnimationFrame(look);
  }, { capture: true });
}"""


def run() -> None:
    """Print the time on every demo piece that takes a pillar as it was imported."""
    chromium = os.environ.get("FAIRSTAND_CHROMIUM") or shutil.which("chromium")
    if not chromium:
        print("Adding a pillar: not measured, there is no Chromium.")
        return
    with tempfile.TemporaryDirectory() as folder:
        server = subprocess.Popen(
            [sys.executable, "-c", "from fairstand.cli import main; main()",
             "serve", "--port", "0", "--demo"],
            env=os.environ | {"FAIRSTAND_DATA": folder}, stdout=subprocess.PIPE, encoding="utf-8",
        )  # fmt: skip
        try:
            url = next(
                found[0] for text in server.stdout if (found := re.search(r"http://\S+?/", text))
            )
            _measure(url, chromium)
        finally:
            server.send_signal(2)
            server.wait(15)


def _measure(url: str, chromium: str) -> None:
    print("Adding a pillar: click to picture on the screen (software rendering)")
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=chromium, args=FLAGS)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(url, wait_until="networkidle")
        links = page.locator("[data-piece] a").evaluate_all(
            "all => all.map((a) => [a.href, a.querySelector('.font-semibold').innerText])"
        )
        for href, name in links:
            page.goto(href)
            page.wait_for_selector("html[data-ready]")
            page.locator('[data-activity="Prop"]').click()
            page.locator('[data-view="below"]').first.click()
            page.evaluate(WATCH)
            took = _click_until_one_stands(page)
            if took is None:  # it lies flat: lifted, it has an underside
                page.locator('[data-activity="Turn"]').click()
                page.locator('[data-field="lift"]').fill("8")
                page.locator('[data-field="lift"]').press("Enter")
                page.wait_for_selector("html:not([data-busy])")
                page.locator('[data-activity="Prop"]').click()
                took = _click_until_one_stands(page)
                name += ", lifted 8 mm"
            line(name, "no place" if took is None else f"{took:.0f} ms", "under 300 ms")
        browser.close()


def _click_until_one_stands(page) -> float | None:
    box = page.locator("[data-model]").bounding_box()
    for x, y in np.random.default_rng(3).uniform(0.2, 0.8, (80, 2)):
        page.mouse.click(box["x"] + box["width"] * x, box["y"] + box["height"] * y)
        page.wait_for_selector("html:not([data-busy])")
        if page.locator("[data-pillar]").count():
            page.wait_for_function("() => window.took !== null")
            return page.evaluate("window.took")
    return None
