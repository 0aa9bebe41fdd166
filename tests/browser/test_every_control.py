"""Every control of every activity, pressed once: no error in the page, no unexplained answer."""

import pytest

from printability.mesh import binary_stl
from solids import box, reference, table, together

pytestmark = pytest.mark.browser

# Leave the page, or delete what the test works on.
LEAVES = ("delete-stance", "fork", "compare", "separate")


@pytest.fixture(scope="module")
def two_bodies(tmp_path_factory):
    """A table and a post beside it."""
    path = tmp_path_factory.mktemp("pair") / "pair.stl"
    path.write_bytes(binary_stl(together(reference(table()), box(4, 4, 30, (30, 0, 0))), "pair"))
    return path


@pytest.mark.parametrize("activity", ["Inspect", "Turn", "Prop", "Hand over"])
def test_every_control_can_be_pressed(server, bench, page, two_bodies, activity):
    bench.bring_in(server.url, two_bodies)
    bad = []
    page.on("response", lambda answer: bad.append(answer) if answer.status >= 400 else None)
    bench.go(activity)
    bench.settled()
    if activity == "Turn":
        page.wait_for_selector("[data-proposal]", timeout=60_000)
    for summary in page.locator("aside details summary").all():
        if summary.is_visible():
            summary.click()
    bench.settled()
    if activity == "Inspect":
        page.locator("[data-open]").first.click()
    if activity == "Prop":
        bench.look("below")
        bench.click_at([5, 8, 20])
    url, pressed, done = page.url, 0, set()
    for _ in range(200):
        # Controls come and go: the next one that has not been pressed yet, pressed at once.
        key = page.evaluate(
            """([done, leaves]) => {
              for (const b of document.querySelectorAll("button, input, select")) {
                const key = b.tagName + JSON.stringify(b.dataset) + b.textContent.trim().slice(0, 20) + b.ariaLabel;
                const seen = b.offsetParent && !b.disabled && b.role !== "tab" && b.type !== "file" && !b.closest("dialog");
                if (!seen || done.includes(key) || leaves.includes(b.dataset.do) || b.dataset.fork || b.dataset.forkTo) continue;
                b.scrollIntoView({block: "nearest"});
                if (b.tagName === "BUTTON") b.click();
                else {
                  b.focus();
                  if (b.tagName === "SELECT") b.selectedIndex = 0;
                  b.dispatchEvent(new Event("input", {bubbles: true}));
                  b.dispatchEvent(new Event("change", {bubbles: true}));
                }
                return key;
              }
              return null;
            }""",
            [list(done), LEAVES],
        )
        if key is None:
            break
        done.add(key)
        pressed += 1
        if page.locator("dialog[open]").count():
            page.keyboard.press("Escape")
        if page.url != url:
            page.goto(url)
            bench.ready()
            bench.go(activity)
    bench.settled()
    assert pressed > {"Inspect": 30, "Turn": 40, "Prop": 20, "Hand over": 12}[activity]
    for answer in bad:
        # What is refused must be said on the page.
        # 409: a picture of what has changed meanwhile; the page asks for the present one.
        assert answer.status in (400, 409)
        assert answer.status == 409 or answer.json()["error"]


def test_perspective_and_back_keeps_the_model_in_view(server, bench, page, demo_files):
    bench.bring_in(server.url, demo_files["Hide model"])
    parallel = bench.picture()
    page.locator('[data-do="perspective"]').click()
    bench.settled()
    assert page.locator('[data-do="perspective"]').get_attribute("aria-pressed") == "true"
    angled = bench.picture()
    assert angled != parallel
    # What is clicked in perspective is what is seen there.
    bench.click_at([0, -20, 20])
    page.locator('[data-do="perspective"]').click()
    bench.settled()
    assert page.locator('[data-do="perspective"]').get_attribute("aria-pressed") == "false"
    assert bench.picture() != angled


def test_tabs_typing_and_letters_work_as_elsewhere(server, bench, page, demo_files):
    bench.bring_in(server.url, demo_files["Nest-box yoke"])
    tabs = page.locator('[role="tab"]')
    assert page.locator('[role="tab"][tabindex="0"]').inner_text() == "Inspect"
    tabs.first.focus()
    page.keyboard.press("ArrowRight")
    assert page.evaluate("document.activeElement.dataset.activity") == "Turn"
    panel = page.locator('[role="tabpanel"]:visible')
    assert panel.get_attribute("aria-labelledby") == "tab-turn"
    # Undo belongs to the field while something is typed there, and to the stance otherwise.
    bench.fill("turn-x", 10)
    field = page.locator('[data-field="turn-x"]')
    field.press("End")
    field.type("7")
    page.keyboard.press("Control+z")
    bench.settled()
    assert "10" in page.locator('[data-do="undo"]').get_attribute("title")
    field.press("Escape")
    bench.fill("turn-x", 12)
    page.keyboard.press("Control+z")
    bench.settled()
    assert bench.field("turn-x") == 10
    # Keys of one letter can be switched off, and stay off.
    page.locator("canvas[data-model]").focus()
    page.keyboard.press("?")
    page.locator('[data-field="letter-keys"]').uncheck()
    page.keyboard.press("Escape")
    page.reload()
    bench.ready()
    page.keyboard.press("2")
    assert page.locator('[role="tab"][aria-selected="true"]').inner_text() == "Inspect"
    page.keyboard.press("ArrowUp")
    assert bench.field("layer") == 1


def test_on_a_narrow_screen_the_section_can_be_opened(server, bench, page, demo_files):
    page.set_viewport_size({"width": 1100, "height": 760})
    bench.bring_in(server.url, demo_files["Nest-box yoke"])
    assert not page.locator("[data-section]").is_visible()
    page.locator('[data-do="section"]').click()
    assert page.locator("[data-section] svg").is_visible()
    page.locator('[data-do="section"]').click()
    assert not page.locator("[data-section]").is_visible()
