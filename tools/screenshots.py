"""Take docs/screenshots/ afresh from the demo data.

Run as ``.venv/bin/python -m tools.screenshots`` with Chromium installed. A server is started
on a data folder of its own.
"""

import re
from pathlib import Path

from tools.running import demo_page

OUT = Path(__file__).parents[1] / "docs/screenshots"


class Maker:
    """Someone at the browser."""

    def __init__(self, page, url):
        self.page, self.url = page, url

    def settled(self):
        """Wait for answers and two frames."""
        self.page.wait_for_selector("html:not([data-busy])")
        self.page.wait_for_timeout(250)

    def open(self, name):
        """Open a piece from its card."""
        self.page.goto(self.url)
        self.page.get_by_role("link", name=re.compile(name)).click()
        self.page.wait_for_selector("html[data-ready]")
        self.settled()

    def press(self, selector):
        """Click what a selector names."""
        self.page.locator(selector).first.click()
        self.settled()

    def choose(self, finding):
        """Open a finding's place and choose it."""
        place = self.page.locator(f'[data-place]:has([data-finding="{finding}"]) [data-open]').first
        if place.get_attribute("aria-expanded") != "true":
            place.click()
        self.press(f'[data-finding="{finding}"]')

    def fill(self, field, value):
        """Type into a field."""
        box = self.page.locator(f'[data-field="{field}"]')
        box.fill(str(value))
        box.press("Enter")
        self.settled()

    def click_at(self, *point):
        """Click on a place of the plate, mm."""
        x, y = self.page.evaluate(
            "p => document.querySelector('[data-model]').view.toScreen(p)", list(point)
        )
        box = self.page.locator("[data-model]").bounding_box()
        self.page.mouse.click(box["x"] + x, box["y"] + y)
        self.settled()

    def scroll(self, selector, by=0):
        """Bring something to the top of the left column, or a little lower."""
        self.page.evaluate(
            "([s, by]) => { const aside = document.querySelector('aside'); aside.scrollTop += "
            "document.querySelector(s).getBoundingClientRect().top - "
            "aside.getBoundingClientRect().top + by; }", [selector, by],
        )  # fmt: skip

    def drag_arc(self):
        """Take hold of the arc about X and turn by 35 degrees, without letting go."""
        box = self.page.locator("[data-model]").bounding_box()
        places = self.page.evaluate(
            """() => { const { view, arcs: { middle: m, radius: r } } =
            document.querySelector('[data-model]'); return [20, -15].map((d) => view.toScreen(
            [m.x, m.y + r * Math.sin(d * Math.PI / 180), m.z + r * Math.cos(d * Math.PI / 180)]));
            }"""
        )
        (x0, y0), (x1, y1) = places
        self.page.mouse.move(box["x"] + x0, box["y"] + y0)
        self.page.mouse.down()
        self.page.mouse.move(box["x"] + x1, box["y"] + y1, steps=8)
        self.page.wait_for_timeout(900)

    def shot(self, name):
        """Keep the picture."""
        if name != "turn-by-hand":  # there the pointer holds an arc
            self.page.mouse.move(640, 790)
        self.page.wait_for_timeout(150)
        self.page.wait_for_function(
            """() => [...document.images].every((i) => {
            const { top, bottom, width } = i.getBoundingClientRect();
            return !width || top > innerHeight || bottom < 0 || i.naturalWidth > 0; })"""
        )
        self.page.screenshot(path=OUT / f"{name}.png")


def take(maker: Maker) -> None:
    """One picture of each main view."""
    page = maker.page
    page.goto(maker.url)
    page.wait_for_timeout(1500)
    maker.shot("library")
    maker.open("Hide")
    maker.choose("bridge-1")
    maker.shot("bridge")
    maker.open("Heron")
    maker.choose("overhang-1")
    maker.shot("inspect")
    maker.open("Heron")
    maker.press("[data-sides] summary")
    maker.press('[data-side="show"]')
    maker.click_at(-6, -9, 52)
    page.keyboard.press("Escape")
    maker.press('[data-do="free-cut"]')
    maker.fill("plane-turn", 25)
    maker.fill("plane-tilt", 60)
    maker.shot("sides-and-free-cut")
    maker.open("Perch brackets")
    maker.press("[data-measures] summary")
    maker.press("[data-bodies] summary")
    maker.press('[data-measure="distance"]')
    maker.click_at(8, -7, 40)
    maker.click_at(28, -7, 48)
    maker.press('[data-measure="diameter"]')
    maker.click_at(22, 0, 52)
    page.keyboard.press("Escape")
    maker.shot("measure-and-bodies")
    maker.open("Heron")
    maker.choose("island-1")
    maker.press('[data-ways="island-1"]')
    page.wait_for_selector("[data-way]", timeout=60_000)
    maker.scroll('[data-ways-for="island-1"]')
    maker.shot("ways-out")
    maker.press('[data-activity="Turn"]')
    page.wait_for_selector("[data-proposal]", timeout=90_000)
    maker.settled()
    maker.scroll('[data-do="own-axes"]', -330)
    maker.drag_arc()
    maker.shot("turn-by-hand")
    page.mouse.up()
    maker.settled()
    maker.press('[data-do="undo"]')
    maker.scroll("[data-field=goal]", -60)
    maker.shot("turn")
    maker.scroll("[data-proposals]")
    maker.shot("proposals")
    maker.press('[data-fork="A"]')
    page.wait_for_selector("html[data-ready]")
    maker.settled()
    maker.press('[data-activity="Turn"]')
    page.wait_for_selector("[data-proposal]", timeout=90_000)
    maker.press('[data-fork="E"]')
    page.wait_for_selector("html[data-ready]")
    maker.settled()
    maker.press('[data-do="compare"]')
    page.wait_for_selector("[data-table]")
    page.wait_for_timeout(500)
    maker.shot("compare")
    maker.open("Hide")
    maker.press('[data-activity="Reshape"]')
    maker.press('[data-view="below"]')
    maker.press('[data-change="fill"]')
    maker.click_at(0, -24.5, 34)
    page.wait_for_timeout(1500)
    maker.press('[data-do="take-change"]')
    maker.press('[data-change="steepen"]')
    maker.click_at(0, -28.5, 44)
    page.wait_for_timeout(2500)
    maker.settled()
    maker.shot("reshape")
    maker.press('[data-do="end-change"]')
    maker.press('[data-do="undo"]')
    maker.open("Gauge-board")
    maker.press('[data-activity="Prop"]')
    maker.press('[data-view="below"]')
    for y in (-17, 17):
        maker.click_at(26, y, 71.2)
    maker.press('[data-view="home"]')
    maker.shot("prop")
    maker.open("Heron")
    maker.press('[data-activity="Prop"]')
    maker.press('[data-do="propose"]')
    page.wait_for_selector('[data-do="take-proposal"]:visible', timeout=120_000)
    maker.settled()
    maker.shot("proposed-supports")
    maker.open("Hide model")
    maker.press('[data-view="home"]')
    maker.press('[data-activity="Split"]')
    maker.press('[data-do="cut-level"]')
    maker.fill("cut-offset", 44)
    page.wait_for_timeout(500)
    maker.shot("split")
    maker.open("Gauge-board")
    maker.press('[data-activity="Split"]')
    maker.press('[data-do="propose-cuts"]')
    page.wait_for_selector("[data-proposed-cut]", timeout=120_000)
    maker.press('[data-do="take-proposed-cut"]')
    page.wait_for_selector("[data-open-face]:visible")
    maker.settled()
    maker.press("[data-open-face]")
    maker.press('[data-do="place-joints"]')
    page.wait_for_timeout(1500)
    page.locator("g[data-joint]").first.click()
    maker.settled()
    maker.shot("joints")
    maker.open("Otter")
    maker.press('[data-activity="Split"]')
    maker.press('[data-do="cut-level"]')
    maker.fill("cut-tilt", 90)
    maker.fill("cut-toward", 90)
    maker.fill("cut-offset", 0)
    maker.press('[data-do="take-cut"]')
    maker.press("[data-open-face]")
    maker.press('[data-do="place-joints"]')
    page.wait_for_timeout(1000)
    maker.press('[data-field="others"]')
    page.locator("[data-seam]").fill("belly seam")
    page.locator("[data-seam]").press("Enter")
    page.wait_for_timeout(1500)
    maker.scroll('[data-part="parts"]')
    maker.shot("together")
    for noun, name in (("process", "process"), ("habits", "habits")):
        page.goto(f"{maker.url}/workshop/")
        page.locator(f'[data-noun="{noun}"] [data-do="copy"]').first.click()
        page.wait_for_selector('[data-do="save"]')
        maker.shot(name)
    maker.open("Gauge-board")
    maker.press('[data-activity="Prop"]')
    maker.press('[data-activity="Hand over"]')
    page.wait_for_selector("[data-check]")
    maker.settled()
    maker.shot("hand-over")


def main() -> None:
    """Start a server, take the pictures, end it."""
    OUT.mkdir(parents=True, exist_ok=True)
    with demo_page() as (page, url):
        take(Maker(page, url))


if __name__ == "__main__":
    main()
