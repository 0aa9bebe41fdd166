"""A real server with its worker, and Chromium in front of it."""

import pytest
from playwright.sync_api import Error, sync_playwright
from tools import running
from tools.running import WINDOW, Server

from fairstand.demo.pieces import PIECES
from fairstand.demo.seed import file_of


@pytest.fixture(scope="session")
def server(tmp_path_factory):
    # What is compiled is loaded when a test needs it; ways to stand are looked at whenever a test
    # rests at Turn, and fewer of them do.
    server = Server(
        tmp_path_factory.mktemp("serve"), FAIRSTAND_WARM_UP="off", FAIRSTAND_DIRECTIONS="500"
    )
    yield server
    server.stop()


@pytest.fixture(scope="session")
def busy_server(tmp_path_factory):
    """A server to which nearly everything is long work."""
    limits = {"FAIRSTAND_BACKGROUND_FACETS": "2000", "FAIRSTAND_BACKGROUND_BYTES": "200000",
              "FAIRSTAND_WARM_UP": "off"}  # fmt: skip
    server = Server(tmp_path_factory.mktemp("busy"), **limits)
    yield server
    server.stop()


@pytest.fixture(scope="session")
def chromium():
    with sync_playwright() as playwright:
        browser = running.chromium(playwright, "--webgl-antialiasing-mode=none")
        yield browser
        browser.close()


@pytest.fixture(scope="session")
def windows(chromium):
    """A window that is used again: one that is new needs twice the time to open a bench."""
    kept = []
    yield kept
    for page in kept:
        page.context.close()


@pytest.fixture
def page(chromium, windows):
    """A page that remembers nothing; errors of its scripts fail the test."""
    if windows:
        page = windows.pop()
    else:
        # Drawn by software, a fourth of the pixels is drawn in less time.
        context = chromium.new_context(
            viewport=WINDOW, accept_downloads=True, device_scale_factor=0.5
        )
        context.set_default_timeout(60_000)
        page = context.new_page()
    errors, context = [], page.context

    def note(error):
        errors.append(str(error.error.stack or error.error))

    context.on("weberror", note)
    yield page
    context.remove_listener("weberror", note)
    try:
        for other in context.pages:
            if other != page:
                other.close()
        page.set_viewport_size(WINDOW)
        page.evaluate("() => (localStorage.clear(), sessionStorage.clear())")
        page.goto("about:blank")
        context.clear_cookies()
        page.mouse.up()
        windows.append(page)
    except Error:  # it hangs, or its server is gone
        context.close()
    assert errors == []


@pytest.fixture(scope="session")
def demo_files(tmp_path_factory):
    """The demo pieces as files on disk, by name."""
    folder = tmp_path_factory.mktemp("pieces")
    files = {}
    for piece in PIECES:
        files[piece.name] = folder / piece.filename
        files[piece.name].write_bytes(file_of(piece))
    return files


class Bench:
    """What a person does at the bench."""

    def __init__(self, page):
        self.page = page

    def choose_file(self, url, path):
        """Choose a file on the library page and wait for its bench."""
        self.page.goto(url)
        self.page.locator("#file").set_input_files(path)
        self.ready()

    def bring_in(self, server, path):
        """Open the bench of a file, without the library page."""
        self.page.goto(server.bring_in(path))
        self.ready()
        return self

    def undo_many(self, count):
        """Take back so many, as fast as keys are pressed."""
        self.page.locator("canvas[data-model]").focus()
        for _ in range(count):
            self.page.keyboard.press("Control+z")
        self.settled()

    def ready(self):
        self.page.wait_for_selector("html[data-ready]")
        self.page.wait_for_selector("[data-summary]", state="attached")

    def settled(self):
        """Wait until changes have been answered and drawn."""
        # Asked every 30 ms: a selector is looked for every half second only after some time.
        self.page.wait_for_function(
            # A fount that comes late moves the canvas by some pixels.
            "() => document.fonts.status === 'loaded' &&"
            " document.querySelector('html:not([data-busy]):not(:has([data-coarse]))')",
            polling=30,
        )
        self.page.evaluate(
            "() => new Promise((r) => requestAnimationFrame(() => requestAnimationFrame(r)))"
        )

    def go(self, activity):
        self.page.locator(f'[data-activity="{activity}"]').click()

    def open(self, selector):
        """Open the place that holds a finding."""
        place = self.page.locator(f"[data-place]:has({selector}) [data-open]").first
        if place.get_attribute("aria-expanded") != "true":
            place.click()
        self.settled()

    def choose(self, finding):
        """Open a finding's place and choose it."""
        self.open(f'[data-finding="{finding}"]')
        self.page.locator(f'[data-finding="{finding}"]').click()
        self.settled()

    def look(self, name):
        self.page.locator(f'[data-view="{name}"]').first.click()
        self.settled()

    def at(self, point):
        """Place of a point of the plate on the screen."""
        x, y = self.page.evaluate(
            "p => document.querySelector('[data-model]').view.toScreen(p)", point
        )
        box = self.page.locator("[data-model]").bounding_box()
        return box["x"] + x, box["y"] + y

    def click_at(self, point):
        self.page.mouse.click(*self.at(point))
        self.settled()

    def until(self, selector, other_than):
        """The text of what a selector names, once it is another than some."""
        self.page.wait_for_function(
            "([name, texts]) => !texts.includes(document.querySelector(name).innerText)",
            arg=[selector, list(other_than)],
        )
        return self.page.locator(selector).inner_text()

    def summary(self):
        return self.page.locator("[data-summary]").inner_text()

    def figures(self):
        return self.page.locator("footer [data-figures]").inner_text().replace("\u00a0", " ")

    def picture(self):
        return self.page.locator("[data-model]").screenshot()

    def fill(self, field, value):
        box = self.page.locator(f'[data-field="{field}"]')
        box.fill(str(value))
        box.press("Enter")
        self.settled()

    def do(self, name):
        self.page.locator(f'[data-do="{name}"]').click()
        self.settled()

    def field(self, name):
        return float(self.page.locator(f'[data-field="{name}"]').input_value())

    def problem(self):
        return self.page.locator("[data-problem]").inner_text()


@pytest.fixture
def bench(page):
    return Bench(page)
