"""Reshape, on the canvas: tried, dragged, made, switched, ordered, seen before and after, undone."""

import pytest
import trimesh

from printability.mesh import binary_stl
from solids import box, ours

pytestmark = pytest.mark.browser
VIEW = "document.querySelector('[data-model]').view"


@pytest.fixture(scope="module")
def bracket_file(tmp_path_factory):
    """A wall with a ledge on either side."""
    parts = [box(20, 40, 60, (-10, -20, 0)), box(60, 40, 5, (-30, -20, 45))]
    path = tmp_path_factory.mktemp("b") / "bracket.stl"
    path.write_bytes(binary_stl(ours(trimesh.boolean.union(parts, engine="manifold")), "B"))
    return path


def volume(bench):
    state = bench.page.evaluate("() => fetch(location.pathname + 'state/').then(r => r.json())")
    return state["parts"][0]["volume_mm3"]


def tried(bench):
    bench.page.wait_for_function(
        "() => document.querySelector('[data-change-text]').innerText.includes('mm³')"
    )
    bench.settled()
    return bench.page.locator("[data-change-text]").inner_text()


def test_a_fill_is_tried_dragged_taken_switched_and_undone(server, bench, page, bracket_file):
    bench.bring_in(server, bracket_file)
    plain = volume(bench)
    bench.go("Reshape")
    bench.look("below")
    page.locator('[data-change="fill"]').click()
    assert page.get_by_text("Click the place on the model.").is_visible()
    bench.click_at([20, 0, 45])
    assert tried(bench).startswith("8,000 mm³ added")
    page.wait_for_function(
        "() => document.querySelector('[data-change-gain]').innerText.includes('→')"
    )
    hatch = f"{VIEW}.layers.find((l) => l.handle !== undefined)"
    assert page.evaluate(f"{hatch}.group.children.length") == 2  # what is added, and the ball
    assert volume(bench) == pytest.approx(plain)
    # The ball is dragged upwards: steeper, and more.
    x, y = bench.at(page.evaluate(f"{hatch}.handle"))
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x, y - 60, steps=4)
    page.mouse.up()
    bench.settled()
    assert bench.field("change-angle_deg") == pytest.approx(60, abs=1)
    page.wait_for_function(
        "() => !document.querySelector('[data-change-text]').innerText.startsWith('8,000 ')"
    )
    # Typed; on the other side too.
    bench.fill("change-angle_deg", 45)
    page.locator('[data-field="change-both"]').check()
    page.wait_for_function(
        "() => document.querySelector('[data-change-text]').innerText.startsWith('16,000 ')"
    )
    bench.do("take-change")
    page.wait_for_selector("[data-made-change]")
    assert volume(bench) == pytest.approx(plain + 16_000, rel=1e-4)
    # A second change; the first off and on; their order; before and after.
    page.locator('[data-change="flatten"]').click()
    # What was selected to be typed over stays so while the answer comes.
    page.locator('[data-field="change-sink_mm"]').select_text()
    tried(bench)
    page.keyboard.type("3")
    page.keyboard.press("Enter")
    bench.settled()
    assert bench.field("change-sink_mm") == 3
    tried(bench)
    bench.do("take-change")
    page.wait_for_function("() => document.querySelectorAll('[data-made-change]').length === 2")
    page.locator('[data-switch="1"]').uncheck()
    bench.settled()
    assert volume(bench) == pytest.approx(plain - 3 * 20 * 40, rel=1e-4)
    page.locator('[data-switch="1"]').check()
    bench.settled()
    page.locator('[data-up="2"]').click()
    bench.settled()
    order = (
        "() => [...document.querySelectorAll('[data-made-change]')].map(n => n.dataset.madeChange)"
    )
    assert page.evaluate(order) == ["2", "1"]
    page.locator('[data-made-change="1"]').drag_to(page.locator('[data-made-change="2"]'))
    bench.settled()
    assert page.evaluate(order) == ["1", "2"]
    page.locator("[data-model]").focus()
    page.keyboard.down("o")
    page.wait_for_function(f"() => !{VIEW}.model.group.visible")
    page.keyboard.up("o")
    page.wait_for_function(f"() => {VIEW}.model.group.visible")
    # Opened again with its numbers, and changed.
    page.locator('[data-open-change="2"]').click()
    bench.settled()
    assert bench.field("change-sink_mm") == 3
    bench.fill("change-sink_mm", 1)
    tried(bench)
    bench.do("take-change")
    bench.settled()
    page.reload()
    bench.ready()
    bench.go("Reshape")
    assert page.evaluate(order) == ["1", "2"]
    assert volume(bench) == pytest.approx(plain + 16_000 - 20 * 40, rel=1e-4)
    page.locator('[data-remove-change="2"]').click()
    bench.settled()
    assert page.evaluate(order) == ["1"]
    bench.undo_many(8)
    assert volume(bench) == pytest.approx(plain)
    bench.do("redo")
    assert volume(bench) == pytest.approx(plain + 16_000, rel=1e-4)


def test_what_takes_long_is_sketched_and_given_up_for_other_numbers(server, bench, page, tmp_path):
    pipe = tmp_path / "pipe.stl"
    wall = trimesh.creation.annulus(19.5, 20.5, 30, sections=100)
    pipe.write_bytes(binary_stl(ours(wall), "pipe"))
    bench.bring_in(server, pipe)
    bench.go("Reshape")
    seen = f"{VIEW}.layers.find((l) => l.handle !== undefined)?.handle"
    page.locator('[data-change="thicken"]').click()
    bench.settled()  # as it usually is was tried
    page.locator('[data-field="change-least_mm"]').fill("3")
    page.keyboard.press("Enter")
    page.locator('[data-do="cancel-change"]').click()
    page.wait_for_function(
        "() => document.querySelector('[data-change-problem]')?.innerText.startsWith('Stopped')"
    )
    assert page.locator('[data-do="take-change"]').is_disabled()
    page.locator('[data-field="change-least_mm"]').fill("1.5")
    page.keyboard.press("Enter")
    # At once a sketch beside the bar, and nothing to be taken yet.
    page.wait_for_function(f"() => {seen}")
    bench.settled()
    assert float(tried(bench).split()[0].replace(",", "")) == pytest.approx(
        3.1416 * 40 * 0.5 * 30, rel=0.05
    )
    assert page.locator("[data-change-problem]").is_hidden()
    bench.do("take-change")
    page.wait_for_selector("[data-made-change]")


def test_small_changes_are_found_ticked_and_made(server, bench, page, bracket_file):
    bench.bring_in(server, bracket_file)
    bench.go("Reshape")
    bench.fill("small-volume", 20_000)
    bench.fill("small-move", 50)
    bench.do("find-small")
    # They come one by one; all are there when they can be made.
    page.wait_for_selector('[data-do="make-small"]:visible')
    count = page.locator("[data-small-change]").count()
    page.locator("[data-small-change] input").first.uncheck()
    assert page.locator('[data-do="make-small"]').is_enabled() == (count > 1)
    page.locator("[data-small-change] input").first.check()
    bench.do("make-small")
    page.wait_for_function(
        f"() => document.querySelectorAll('[data-made-change]').length === {count}"
    )
    bench.do("undo")
    assert page.locator("[data-made-change]").count() == 0


def test_what_cannot_be_changed_says_why(server, bench, page, bracket_file):
    bench.bring_in(server, bracket_file)
    bench.go("Reshape")
    bench.look("above")
    page.locator('[data-change="steepen"]').click()
    bench.click_at([0, 0, 60])
    page.wait_for_selector("[data-change-problem]:visible")
    assert "no underside" in page.locator("[data-change-problem]").inner_text()
    assert bench.field("change-angle_deg") == 45  # what it was tried with
    assert not page.locator('[data-do="take-change"]').is_enabled()


def test_a_hinge_is_changed_a_fill_breaks_off_and_a_room_gets_plugs(
    server, bench, page, bracket_file
):
    bench.bring_in(server, bracket_file)
    plain = volume(bench)
    bench.go("Reshape")
    bench.look("below")
    page.locator('[data-change="steepen"]').click()
    bench.click_at([20, 0, 45])
    whole = tried(bench)
    bench.fill("change-begins_mm", 4)
    bench.until("[data-change-text]", [whole])
    bench.settled()
    from_farther = bench.page.locator("[data-change-text]").inner_text()
    page.locator('[data-field="change-hinge"]').select_option("nearest side")
    bench.settled()
    bench.do("take-change")
    page.wait_for_selector("[data-made-change]")
    assert volume(bench) < plain
    assert from_farther != whole
    bench.do("undo")
    assert volume(bench) == pytest.approx(plain)
    # A fill that breaks off says by how many points it holds.
    page.locator('[data-change="fill"]').click()
    bench.click_at([20, 0, 45])
    stays = tried(bench)
    page.locator('[data-field="change-hold"]').select_option("breaks off")
    bench.until("[data-change-text]", [stays])
    bench.settled()  # beyond a sketch: its numbers and what is said of it
    assert "points" in " ".join(page.locator("[data-change-said]").all_inner_texts())
    bench.do("end-change")
    # Hollow with plugs: parts of their own, by the header; gone when it is taken back.
    page.locator('[data-change="hollow"]').click()
    tried(bench)
    page.locator('[data-field="change-plugs"]').select_option("made")
    page.wait_for_function(
        "() => [...document.querySelectorAll('[data-change-said]')].some((p) => p.innerText.includes('plug'))"
    )
    bench.settled()
    bench.do("take-change")
    page.wait_for_selector("[data-made-change]")
    part = page.locator('[data-field="part"]')
    names = part.locator("option").all_inner_texts()
    assert names[0] == "whole piece"
    assert names[1].startswith("plug ")
    part.select_option(names[1])
    page.wait_for_function(f"() => {VIEW}.size[2] < 10")
    bench.settled()
    bench.do("undo")
    bench.settled()
    assert part.is_hidden()
    page.wait_for_function(f"() => {VIEW}.size[2] === 60")


def test_low_points_are_levelled_before_the_foot_is_flattened(server, bench, page, bracket_file):
    bench.bring_in(server, bracket_file)
    bench.go("Turn")
    bench.fill("turn-x", 3)
    bench.go("Reshape")
    page.locator('[data-change="flatten"]').click()
    tried(bench)
    assert bench.field("change-sink_mm") > 0
    bench.do("level-first")
    bench.go("Turn")
    assert bench.field("turn-x") == pytest.approx(0, abs=0.01)
