"""Every control of every activity, pressed once: no error in the page, no unexplained answer."""

import pytest

from depth import about
from printability.mesh import binary_stl
from solids import box, reference, table, together

pytestmark = pytest.mark.browser

# Leave the page, delete what the test works on, or go on by themselves; ways out are long work.
LEAVES = ("delete-stance", "fork", "compare", "separate", "play")
# So many there are at least.
LEAST = {"Prop": 20, "Inspect": 30, "Turn": 40, "Hand over": 12, "Reshape": 20, "Split": 12}
PRESS = """([done, leaves, drawn]) => {
  const key = (b) => b.tagName + JSON.stringify(b.dataset) + b.textContent.trim().slice(0, 20) + b.ariaLabel;
  const free = [...document.querySelectorAll("button, input, select")].filter((b) =>
    b.offsetParent && !b.disabled && b.role !== "tab" && b.type !== "file" && !b.closest("dialog") &&
    !b.dataset.ways && !done.includes(key(b)) && !leaves.includes(b.dataset.do) && !b.dataset.fork && !b.dataset.forkTo);
  if (!free.length) return [null, 0];
  const b = free[Math.floor(drawn * free.length)];
  const said = key(b);
  b.scrollIntoView({block: "nearest"});
  if (b.tagName === "BUTTON") b.click();
  else {
    b.focus();
    if (b.tagName === "SELECT") b.selectedIndex = Math.floor(drawn * 1000) % b.options.length;
    b.dispatchEvent(new Event("input", {bubbles: true}));
    b.dispatchEvent(new Event("change", {bubbles: true}));
  }
  return [said, free.length];
}"""


@pytest.fixture(scope="module")
def two_bodies(tmp_path_factory):
    """A table and a post beside it."""
    path = tmp_path_factory.mktemp("pair") / "pair.stl"
    path.write_bytes(binary_stl(together(reference(table()), box(4, 4, 30, (30, 0, 0))), "pair"))
    return path


def test_any_control_can_be_pressed(server, bench, page, two_bodies, draws):
    """Of every activity some, at random, in one go."""
    bench.bring_in(server, two_bodies)
    bad = []
    page.on("response", lambda answer: bad.append(answer) if answer.status >= 400 else None)
    url = page.url
    for activity, least in LEAST.items():
        bench.go(activity)
        bench.settled()
        if activity == "Turn":
            page.wait_for_selector("[data-proposal]", timeout=60_000)
        for summary in page.locator("aside details:not([open]) summary").all():
            if summary.is_visible():
                summary.click()
        bench.settled()
        if activity == "Inspect":
            page.locator("[data-open]").first.click()
        if activity == "Prop":
            bench.look("below")
            bench.click_at([5, 8, 20])
        done, most = set(), 0
        while len(done) < about(4):
            # Controls come and go: one of those that have not been pressed yet, pressed at once.
            key, count = page.evaluate(PRESS, [list(done), LEAVES, float(draws.random())])
            if key is None:
                break
            done.add(key)
            print(activity, key)
            most = max(most, count + len(done))
            if page.locator("dialog[open]").count():
                page.keyboard.press("Escape")
            if page.url != url:
                page.goto(url)
                bench.ready()
                bench.go(activity)
        bench.settled()
        assert most > least, activity
    for answer in bad:
        # What is refused must be said on the page.
        # 409: a picture of what has changed meanwhile; the page asks for the present one.
        assert answer.status in (400, 409)
        assert answer.status == 409 or answer.json()["error"]


def test_perspective_and_back_keeps_the_model_in_view(server, bench, page, demo_files):
    bench.bring_in(server, demo_files["Hide model"])
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
    bench.bring_in(server, demo_files["Nest-box yoke"])
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
    bench.bring_in(server, demo_files["Nest-box yoke"])
    assert not page.locator("[data-section]").is_visible()
    page.locator('[data-do="section"]').click()
    assert page.locator("[data-section] svg").is_visible()
    page.locator('[data-do="section"]').click()
    assert not page.locator("[data-section]").is_visible()
