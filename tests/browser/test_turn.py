"""Turning, clicked and dragged through in Chromium: arcs, numbers, faces, map; stances compared."""

import re

import numpy as np
import pytest

from printability.mesh import binary_stl
from solids import box, table, together

pytestmark = pytest.mark.browser
MODEL = "document.querySelector('[data-model]')"


@pytest.fixture(scope="module")
def table_file(tmp_path_factory):
    path = tmp_path_factory.mktemp("table") / "reed table.stl"
    path.write_bytes(binary_stl(table(), "table"))
    return path


@pytest.fixture(scope="module")
def hook_file(tmp_path_factory):
    """An arm on a post with an end that hangs down: an island."""
    path = tmp_path_factory.mktemp("hook") / "hook.stl"
    hook = together(box(6, 6, 30), box(26, 6, 5, (0, 0, 30)), box(6, 6, 12, (20, 0, 20)))
    path.write_bytes(binary_stl(hook, "hook"))
    return path


def _state(page):
    return page.evaluate(f"{MODEL}.view.model.group.matrix.toArray()")


def _angles(bench):
    return [bench.field(f"turn-{axis}") for axis in "xyz"]


def _on_ball(page, *places):
    """Screen places of points of the ball that the arcs lie on, given as directions."""
    box = page.locator("[data-model]").bounding_box()
    found = page.evaluate(
        f"""(list) => {{ const {{ view, arcs }} = {MODEL}; const [m, r] = [arcs.middle, arcs.radius];
        return list.map(([x, y, z]) => view.toScreen([m.x + r * x, m.y + r * y, m.z + r * z])); }}""",
        [list(p) for p in places],
    )
    return [(box["x"] + x, box["y"] + y) for x, y in found]


def _drag(page, start, end, key=None):
    page.mouse.move(*start)
    page.mouse.down()
    if key:
        page.keyboard.down(key)
    page.mouse.move(*end, steps=8)
    page.wait_for_selector("[data-live]:visible")


def _drop(page, bench, key=None):
    page.mouse.up()
    if key:
        page.keyboard.up(key)
    bench.settled()


def test_arcs_numbers_faces_and_points_turn_the_piece_and_undo_goes_all_the_way_back(
    server, bench, page, table_file
):
    bench.bring_in(server, table_file)
    bench.go("Turn")
    bench.settled()
    before = _state(page)

    # Along the arc about X, by about 40 degrees: snapped to 5, followed while dragging.
    start, end = _on_ball(
        page, (0, np.sin(np.radians(20)), np.cos(np.radians(20))),
        (0, -np.sin(np.radians(20)), np.cos(np.radians(20))),
    )  # fmt: skip
    _drag(page, start, end)
    page.wait_for_function(f"() => {MODEL}.dataset.liveMs")
    live = page.locator("[data-live]").inner_text()
    assert re.search(r"overhang [\d,]+ mm² · \d+ islands? · height [\d.]+ mm · first layer", live)
    assert page.locator("[data-turn-label]").inner_text().startswith("X +")
    assert bench.field("turn-x") % 5 == 0  # the number beside the drag
    _drop(page, bench)
    assert _angles(bench) == [40, 0, 0]
    assert page.locator("[data-live]").is_hidden()

    # With Alt it is free; the knob leans about two axes in one gesture.
    start, end = _on_ball(page, (np.sin(0.3), 0, np.cos(0.3)), (np.sin(0.52), 0, np.cos(0.52)))
    _drag(page, start, end, "Alt")
    _drop(page, bench, "Alt")
    after_alt = _angles(bench)
    assert after_alt[1] % 5 != 0
    knob, target = _on_ball(page, (0, 0, 1), (0.25, -0.2, 0.947))
    _drag(page, knob, target)
    _drop(page, bench)
    assert bench.field("lean-by") % 5 == 0
    assert 10 <= bench.field("lean-by") <= 30
    assert _angles(bench) != after_alt

    # Esc lets go without turning anything.
    before_escape = _angles(bench)
    _drag(page, *_on_ball(page, (0, np.sin(0.35), np.cos(0.35)), (0, -np.sin(0.2), np.cos(0.2))))
    page.keyboard.press("Escape")
    assert page.locator("[data-turn-label]").count() == 0
    _drop(page, bench)
    assert _angles(bench) == before_escape

    # By typing, by a nudge, about its own axes, and leaning by numbers.
    bench.do("as-imported")
    bench.fill("turn-x", 90)
    bench.do("own-axes")
    bench.do("nudge-z")
    assert _angles(bench) == pytest.approx([90, -1, 0], abs=0.01)  # its own Z lies along -Y now
    bench.do("own-axes")
    bench.do("as-imported")
    bench.fill("lean-by", 25)
    bench.fill("lean-toward", 90)
    bench.do("lean")
    assert _angles(bench) == [-25, 0, 0]

    # A face down, then two points level.
    bench.do("as-imported")
    bench.look("above")
    bench.do("face-down")
    bench.click_at([10, 8, 24])
    assert abs(bench.field("turn-x")) == 180
    assert "0.0 mm² overhang" in bench.summary()
    bench.do("as-imported")
    bench.fill("turn-y", 30)
    bench.look("above")
    bench.do("level")
    ends = [np.reshape(_state(page), (4, 4)).T @ [x, 0, 24, 1] for x in (-15, 15)]
    for place in ends:
        bench.click_at(place[:3].tolist())
    assert abs(bench.field("turn-y")) < 0.5  # clicked within a pixel

    # Every step can be taken back, as fast as keys are pressed.
    bench.go("Inspect")
    bench.undo_many(18)
    assert page.locator('[data-do="undo"]').is_disabled()
    bench.go("Turn")
    assert _angles(bench) == [0, 0, 0]
    assert _state(page) == pytest.approx(before)


def test_the_map_is_dragged_across_and_clicked_and_proposals_are_taken(
    server, bench, page, demo_files
):
    bench.bring_in(server, demo_files["Nest-box yoke"])
    bench.go("Turn")
    page.wait_for_selector("[data-proposal]", timeout=90_000)
    bench.settled()
    disc = page.locator("[data-disc]")
    disc.scroll_into_view_if_needed()
    box = disc.bounding_box()
    middle = (box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    page.mouse.move(*middle)
    page.mouse.down()
    seen = set()
    for part in (0.1, 0.2, 0.35):
        page.mouse.move(middle[0] + part * box["width"], middle[1], steps=3)
        seen.add(bench.until("[data-live]", seen | {""}))
    assert len(seen) == 3  # the piece follows
    assert bench.field("turn-y") != 0
    page.mouse.up()
    bench.settled()
    # 0.35 of the width is 0.7 of the radius: the piece's +X is down, about a right angle.
    matrix = np.reshape(_state(page), (4, 4)).T[:3, :3]
    down = matrix.T @ [0, 0, -1]
    assert down[0] > 0.95
    goal_text = page.locator("[data-at]").inner_text()
    assert "as it stands" in goal_text

    # The number for a goal is Inspect's.
    page.locator('[data-field="goal"]').select_option("area")
    page.mouse.move(5, 5)
    stands = float(
        re.search(r"([\d,.]+) mm² as it stands", page.locator("[data-at]").inner_text())[1].replace(
            ",", ""
        )
    )
    inspected = float(re.search(r"([\d,.]+) mm² overhang", bench.summary())[1].replace(",", ""))
    assert stands == pytest.approx(inspected, rel=0.01, abs=0.6)

    # By the keyboard on the map: arrows follow, Enter stands it.
    before = _angles(bench)
    disc.focus()
    for _ in range(4):
        page.keyboard.press("ArrowUp")
    page.wait_for_selector("[data-live]:visible")
    page.keyboard.press("Escape")
    bench.settled()
    assert _angles(bench) == before
    disc.focus()
    for _ in range(4):
        page.keyboard.press("ArrowUp")
    with page.expect_response(lambda r: r.url.endswith("/turning/")):  # proposals from there
        page.keyboard.press("Enter")
    bench.settled()
    assert _angles(bench) != before

    # A click on a proposal's mark means that proposal, though no direction of the map is it.
    marks = disc.evaluate("d => d.map.marks")
    letter, at = max(((m["letter"], m["at"]) for m in marks), key=lambda m: np.hypot(*m[1]))
    note = page.locator(f'[data-proposal="{letter}"] p.quiet').first.inner_text()
    assert "Stay as it is" not in page.locator(f'[data-proposal="{letter}"]').inner_text()
    box = disc.bounding_box()
    middle = (box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    page.mouse.click(middle[0] + 123 * at[0], middle[1] - 123 * at[1])  # its outer part
    bench.settled()
    wanted = [float(angle) for angle in re.findall(r"(-?[\d.]+)°", note)[:3]]
    assert _angles(bench) == pytest.approx(wanted, abs=0.06)

    # A proposal says what it wins, and taken gives it.
    card = page.locator('[data-proposal="A"]')
    wins = card.inner_text()
    height = float(re.search(r"height ([\d.]+) instead of", wins)[1])
    page.locator('[data-stand="A"]').click()
    bench.settled()
    assert f"height {height:.1f} mm" in bench.figures()
    assert "Stay as it is" in page.locator('[data-proposal="A"]').inner_text()
    # Other weights find other ways.
    page.locator("details summary", has_text="What counts").click()
    for name in ("area", "volume", "islands", "footing", "finish"):
        bench.fill(f"weight-{name}", 0)
    bench.fill("weight-copies", 5)
    page.locator('[data-do="weigh"]').click()
    page.wait_for_function(
        "() => document.querySelector('[data-proposal=A]')?.innerText.includes('fit on the plate')",
        timeout=60_000,
    )
    assert "Wins:" in page.locator('[data-proposal="A"]').inner_text()


def test_stances_are_forked_named_ordered_deleted_and_compared(server, bench, page, table_file):
    bench.bring_in(server, table_file)
    bench.go("Turn")
    bench.fill("turn-x", 180)
    bench.go("Inspect")
    with page.expect_navigation():
        page.locator('[data-do="fork"]').click()
    bench.ready()
    bench.settled()
    cards = page.locator("[data-stance]")
    assert cards.count() == 2
    assert page.locator("[data-stance-name]").inner_text() == "Stance 2"
    page.locator('[data-do="rename"]:visible').click()
    page.locator('[data-field="stance-name"]:visible').fill("On its leg")
    page.keyboard.press("Enter")
    bench.settled()
    assert page.locator("[data-stance-name]").inner_text() == "On its leg"
    page.locator('[data-do="stance-left"]:visible').click()
    bench.settled()
    assert "On its leg" in cards.first.inner_text()
    # The fork goes its own way: back onto its leg.
    bench.go("Turn")
    bench.do("as-imported")
    assert "overhang 1,184 mm²" in bench.figures()
    assert "supports 0 mm³" in cards.last.inner_text()

    page.locator('[data-do="compare"]').click()
    page.wait_for_selector("[data-table]")
    row = page.locator('[data-row="area_mm2"] td')
    assert row.all_inner_texts() == ["1,184", "0 ✓"]
    assert page.locator('[data-row="height_mm"] [data-best]').count() == 0
    assert page.locator("[data-towers] path[stroke-width='1.8']").count() == 2
    page.wait_for_function(
        """() => { const drawn = [...document.querySelectorAll('[data-column] img')];
        return drawn.length === 2 && drawn.every((i) => i.naturalWidth === 300); }"""
    )
    with page.expect_download() as download:
        page.locator('[data-do="csv"]').click()
    text = download.value.path().read_text(encoding="utf-8")
    assert text.splitlines()[0] == "what,unit,On its leg,First stance"
    # One column less where a stance is left out.
    page.locator("[data-choose] input").first.uncheck()
    page.wait_for_function("() => document.querySelectorAll('[data-column]').length === 1")
    page.locator('[data-do="back"]').click()
    bench.ready()
    bench.settled()

    # Delete, and take it back.
    with page.expect_navigation():
        page.locator('[data-do="delete-stance"]:visible').click()
    bench.ready()
    bench.settled()
    assert page.locator("[data-stance]").count() == 1
    page.locator('[data-do="undo-strip"]').click()
    page.wait_for_function("() => document.querySelectorAll('[data-stance]').length === 2")


def test_a_scaled_piece_keeps_its_pillar_and_shows_what_leaves_the_machine(
    server, bench, page, table_file
):
    bench.bring_in(server, table_file)
    bench.go("Prop")
    bench.look("below")
    bench.click_at([12, 8, 20])
    page.wait_for_selector("[data-pillar]")
    pillar = f"{MODEL}.view.supports.list[0]"
    small = page.evaluate(pillar)
    bench.go("Turn")
    bench.fill("size-x", 80)  # proportions kept: 60 deep and 48 high
    assert [bench.field(f"size-{axis}") for axis in "xyz"] == [80, 60, 48]
    large = page.evaluate(pillar)
    # What grew out of view is looked at whole; who has come close to a detail stays there.
    assert page.evaluate(f"{MODEL}.arcs.isInView()")
    page.evaluate(f"{MODEL}.view.frame([0, 0, 10], 5)")
    close = page.evaluate(f"{MODEL}.view.camera.zoom")
    bench.do("nudge-z")
    bench.do("nudge-back-z")
    assert page.evaluate(f"{MODEL}.view.camera.zoom") == close
    assert large["size"] == small["size"]
    assert large["fit"] == "stands"
    assert large["contact_mm"] == pytest.approx([2 * v for v in small["contact_mm"]], abs=1e-3)
    widest = [max(max(rod[6:]) for rod in p["rods"]) for p in (small, large)]
    assert widest[0] == widest[1]
    # Not kept: one axis alone.
    page.locator('[data-field="keep"]').uncheck()
    bench.fill("scale-z", 1)
    assert [bench.field(f"size-{axis}") for axis in "xyz"] == [80, 60, 24]
    bench.fill("size-x", 300)
    assert "40.0 mm at the left" in page.locator("[data-outside]").inner_text()
    before = bench.picture()
    bench.do("fit")
    assert page.locator("[data-outside]").is_hidden()
    assert bench.picture() != before
    bench.do("mirror-x")
    assert page.locator('[data-do="mirror-x"]').get_attribute("aria-pressed") == "true"
    mirrored = page.evaluate(pillar)
    assert mirrored["contact_mm"][0] < 0
    bench.fill("move-x", 1000)
    assert "Leaves the build volume" in page.locator("[data-outside]").inner_text()
    bench.fill("move-x", 99999)
    assert "between" in bench.problem()
    bench.go("Prop")
    bench.undo_many(8)
    assert page.evaluate(pillar)["contact_mm"] == pytest.approx(small["contact_mm"])


def test_a_way_out_turns_the_piece_and_is_tried_as_a_stance(server, bench, page, hook_file):
    bench.bring_in(server, hook_file)
    bench.choose("island-1")
    page.locator("[data-ways]:visible").click()
    page.wait_for_selector("[data-way] figure", timeout=60_000)
    assert page.locator('[data-way="1"] figure svg').count() == 2  # the layers before and after
    way = page.locator('[data-way="1"]').inner_text()
    stay, new = map(int, re.search(r"(\d+) stays?, (\d+) comes? new", way).groups())
    page.locator('[data-way="1"] [data-turn-to]').click()
    bench.settled()
    listed = page.locator("[data-finding]").all_text_contents()
    assert sum("will fail" in t or "risky" in t for t in listed) == stay + new
    # Tried beside what there is.
    bench.do("undo")
    bench.choose("island-1")
    page.locator("[data-ways]:visible").click()
    page.wait_for_selector("[data-way] figure", timeout=60_000)
    with page.expect_navigation():
        page.locator('[data-way="1"] [data-fork-to]').click()
    bench.ready()
    bench.settled()
    assert page.locator("[data-stance]").count() == 2


def test_looking_at_every_way_can_be_cancelled(server, bench, page, demo_files):
    bench.bring_in(server, demo_files["Heron finial"])
    bench.settled()
    bench.go("Turn")
    page.locator('[data-do="cancel-turns"]').click()
    page.wait_for_selector("text=Looking at every way was cancelled.")
    assert page.locator('[data-do="find-turns"]').is_visible()  # to begin again
    assert page.locator("[data-proposal]").count() == 0


def test_a_second_window_loses_nothing_and_catches_up(server, bench, page, chromium, demo_files):
    bench.bring_in(server, demo_files["Trail marker plate"])
    address = page.url
    other = type(bench)(page.context.new_page())
    other.page.goto(address)
    other.ready()
    other.settled()
    bench.go("Turn")
    bench.fill("turn-x", 20)
    # The other window still shows what there was: its change is not made, and it catches up.
    other.go("Turn")
    other.fill("turn-y", 30)
    assert "another window" in other.problem()
    assert (other.field("turn-x"), other.field("turn-y")) == (20, 0)
    other.fill("turn-y", 30)
    assert (other.field("turn-x"), other.field("turn-y")) == (20, 30)
    bench.do("undo")
    assert "another window" in bench.problem()
    assert bench.field("turn-y") == 30
    bench.do("undo")
    assert (bench.field("turn-x"), bench.field("turn-y")) == (20, 0)


def test_a_fork_taken_back_is_redone_or_brought_back(server, bench, page, demo_files):
    bench.bring_in(server, demo_files["Nest-box yoke"])
    first = page.url
    with page.expect_navigation():
        page.locator('[data-do="fork"]').click()
    bench.ready()
    bench.settled()
    bench.go("Turn")
    bench.fill("turn-x", 15)
    with page.expect_navigation(url=first):
        page.locator('[data-do="undo-strip"]').click()
    bench.ready()
    bench.settled()
    assert page.locator("[data-stance]").count() == 1
    bench.do("redo-strip")
    assert page.locator("[data-stance]").count() == 2
    bench.do("undo-strip")
    page.locator('[data-do="away"]').click()
    assert "1 edit" in page.locator("dialog[open]").inner_text()
    with page.expect_navigation():
        page.locator("[data-bring-back]").click()
    bench.ready()
    bench.go("Turn")
    assert bench.field("turn-x") == 15
