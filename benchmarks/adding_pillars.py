"""From the click to the pillar's picture on the screen, on the demo pieces, in Chromium."""

import numpy as np

from .browser import demo_pages
from .timing import line

# Notes the time from the release of the button to the frame that shows one more pillar.
WATCH = """() => {
  const canvas = document.querySelector("[data-model]");
  const view = canvas.view;
  window.took = null;
  canvas.addEventListener("pointerup", () => {
    const start = performance.now();
    const before = view.supports.list.length;
    const look = () => {
      const isMore = view.supports.list.length > before;
      if (isMore && !view.waiting) window.took = performance.now() - start;
      else if (performance.now() - start < 3000) requestAnimationFrame(look);
    };
    requestAnimationFrame(look);
  }, { capture: true });
}"""


def run() -> None:
    """Print the time on every demo piece that takes a pillar as it was imported."""
    print("Adding a pillar: click to picture on the screen (software rendering)")
    with demo_pages() as found:
        for href, name in found[1] if found else ():
            page = found[0]
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


def _click_until_one_stands(page) -> float | None:
    box = page.locator("[data-model]").bounding_box()
    for x, y in np.random.default_rng(3).uniform(0.2, 0.8, (80, 2)):
        page.mouse.click(box["x"] + box["width"] * x, box["y"] + box["height"] * y)
        page.wait_for_selector("html:not([data-busy])")
        if page.locator("[data-pillar]").count():
            page.wait_for_function("() => window.took !== null")
            return page.evaluate("window.took")
    return None
