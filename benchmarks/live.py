"""What a hand sees while it drags, in Chromium drawing by software: until the picture has
followed, and until the server has answered.
"""

import numpy as np
from playwright.sync_api import Page

from .browser import demo_pages
from .timing import line

# Every move of the pointer is timed until the next drawing is there, and every answer by itself.
WATCH = """(address) => {
  const view = document.querySelector("[data-model]").view;
  const told = window.told = { drawn: [], answered: [], moved: 0 };
  const gl = view.renderer.getContext();
  const pixel = new Uint8Array(4);
  const draw = view.renderer.render.bind(view.renderer);
  const moved = (e) => { if (e.buttons) told.moved ||= performance.now(); };
  window.addEventListener("pointermove", moved, true);
  view.renderer.render = (...all) => {
    draw(...all);
    if (!told.moved || all[0] !== view.scene) return;
    gl.readPixels(0, 0, 1, 1, gl.RGBA, gl.UNSIGNED_BYTE, pixel); // waits for what was drawn
    told.drawn.push(performance.now() - told.moved);
    told.moved = 0;
  };
  new PerformanceObserver((list) => {
    for (const e of list.getEntries())
      if (e.name.includes(address)) told.answered.push(e.responseEnd - e.requestStart);
  }).observe({ type: "resource" });
}"""
MOVES = 24


def run() -> None:
    """Print it for what can be dragged in each activity, on every demo piece."""
    print("A drag, until the picture follows (software rendering) and until the server answers")
    with demo_pages() as found:
        for href, name in found[1] if found else ():
            page = found[0]
            for what, begin, address in (
                ("plane of a cut", _begin_cut, "/split/try/"),
                ("arc of a turn", _begin_turn, "/turning/live/"),
                ("ball of a bevel", _begin_bevel, "/reshape/try/"),
                ("ball of a fill", _begin_fill, "/reshape/try/"),
                ("contact of a pillar", _begin_contact, "/pillar-preview/"),
            ):
                page.goto(href)
                page.wait_for_selector("html[data-ready]")
                page.wait_for_selector("html:not([data-busy])")
                ends = begin(page)
                if ends is None:
                    line(f"{name}, {what}", "none", "no place for it")
                    continue
                start, end = ends
                page.evaluate(WATCH, address)
                before = _edits(page)
                _dragged(page, start, end)
                drawn, answered = page.evaluate("() => [told.drawn, told.answered]")
                page.wait_for_selector("html:not([data-busy])")
                if _edits(page) != before:  # what was turned would be turned for the next
                    page.locator('[data-do="undo"]').first.click()
                    page.wait_for_selector("html:not([data-busy])")
                line(f"{name}, {what}", f"picture {_said(drawn)}", f"server {_said(answered)}")


def _edits(page: Page) -> str:
    """The last edit, by what would be undone."""
    return page.locator('[data-do="undo"]').first.get_attribute("title")


def _said(times_ms: list[float]) -> str:
    if not times_ms:
        return "none"
    median, slow = np.percentile(times_ms, (50, 90))
    return f"{median:.0f} ms, nine in ten under {slow:.0f} ms, of {len(times_ms)}"


def _on_screen(page: Page, point) -> tuple[float, float]:
    x, y = page.evaluate("p => document.querySelector('[data-model]').view.toScreen(p)", point)
    box = page.locator("[data-model]").bounding_box()
    return box["x"] + x, box["y"] + y


def _begin_cut(page: Page):
    page.locator('[data-activity="Split"]').click()
    page.locator('[data-do="cut-level"]').click()
    page.wait_for_selector("[data-cut-text]")
    ball = page.evaluate(
        "() => document.querySelector('[data-model]').view.layers"
        ".map((l) => l.plane).find((p) => p && p.point).point"
    )
    x, y = _on_screen(page, ball)
    return (x, y), (x, y - 60)


def _begin_turn(page: Page):
    page.locator('[data-activity="Turn"]').click()
    page.wait_for_selector("[data-proposal]", timeout=90_000)
    ball = page.evaluate(
        "() => { const { middle, radius } = document.querySelector('[data-model]').arcs;"
        " return [middle.x, middle.y, middle.z, radius]; }"
    )
    middle, radius = np.array(ball[:3]), ball[3]
    places = [middle + radius * np.array([0, np.sin(a), np.cos(a)]) for a in (0.35, -0.35)]
    return [_on_screen(page, place.tolist()) for place in places]


def _begin_bevel(page: Page):
    page.locator('[data-activity="Reshape"]').click()
    page.locator('[data-change="bevel"]').click()
    return _ball_of_change(page)


def _begin_fill(page: Page):
    page.locator('[data-activity="Reshape"]').click()
    page.locator('[data-change="fill"]').click()
    for place in _undersides(page):
        page.mouse.click(*place)
        ends = _ball_of_change(page)
        if ends:
            return ends
    return None


def _ball_of_change(page: Page):
    page.wait_for_selector("html:not([data-busy])")
    page.wait_for_timeout(500)
    page.wait_for_selector("html:not([data-busy])", timeout=60_000)
    ball = page.evaluate(
        "() => document.querySelector('[data-model]').view.layers"
        ".find((l) => l.handle !== undefined)?.handle ?? null"
    )
    if ball is None:
        return None
    x, y = _on_screen(page, ball)
    return (x, y), (x, y - 40)


def _begin_contact(page: Page):
    page.locator('[data-activity="Prop"]').click()
    for place in _undersides(page):
        page.mouse.click(*place)
        page.wait_for_selector("html:not([data-busy])")
        page.wait_for_timeout(300)
        page.wait_for_selector("html:not([data-busy])")
        contact = page.evaluate(
            "() => document.querySelector('[data-model]').view.supports.list[0]?.contact_mm ?? null"
        )
        if contact:
            x, y = _on_screen(page, contact)
            return (x, y), (x + 30, y)
    return None


def _undersides(page: Page) -> list[tuple[float, float]]:
    """Places on the screen, seen from below, where the model is well above the plate."""
    page.locator('[data-view="below"]').first.click()
    page.wait_for_selector("html:not([data-busy])")
    page.wait_for_timeout(200)
    return page.evaluate(
        """() => {
          const canvas = document.querySelector("[data-model]");
          const box = canvas.getBoundingClientRect();
          const { slopes } = canvas.view.model;
          const found = [];
          for (let i = 1; i < 60; i++)
            for (let j = 1; j < 60; j++) {
              const at = [box.x + (box.width * i) / 60, box.y + (box.height * j) / 60];
              const hit = canvas.view.pick(...at);
              if (hit && slopes[hit.facet] < 44) found.push(at);
            }
          return found.filter((_, k) => k % Math.ceil(found.length / 12) === 0);
        }"""
    )


def _dragged(page: Page, start, end) -> None:
    page.mouse.move(*start)
    page.mouse.down()
    for k in range(1, MOVES + 1):
        page.mouse.move(*(a + (b - a) * k / MOVES for a, b in zip(start, end, strict=True)))
        page.wait_for_timeout(120)
    page.mouse.up()
    page.wait_for_timeout(300)
