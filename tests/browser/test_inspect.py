"""Looking, done on the canvas: accept, run through layers, measure, bodies, painted sides."""

import zipfile

import pytest

from printability.mesh import binary_stl
from solids import table

pytestmark = pytest.mark.browser


@pytest.fixture
def at_table(server, bench, tmp_path):
    path = tmp_path / "table.stl"
    path.write_bytes(binary_stl(table(), "table"))
    return bench.bring_in(server, path)


def test_who_looks_round_while_the_findings_come_is_not_turned_back(at_table, page):
    held_back = []
    page.route("**/findings/", lambda route: held_back.append(route), times=1)
    page.reload()
    page.wait_for_function("() => document.querySelector('[data-model]')?.view?.model.mesh")
    page.locator('[data-view="below"]').first.click()
    height = "() => document.querySelector('[data-model]').view.camera.position.z"
    below = page.evaluate(height)
    assert below < 0
    while not held_back:
        page.wait_for_timeout(20)
    held_back[0].continue_()
    at_table.ready()
    assert page.evaluate(height) == below


def test_the_ledger_is_ordered_by_harm_and_accepting_survives_a_turn(
    server, bench, page, demo_files
):
    bench.bring_in(server, demo_files["Hide model"])
    order = ["will fail", "risky", "marks", "note"]
    tags = page.locator(".place-line:has(.flag) .tag").all_inner_texts()
    ranks = [order.index(tag) for tag in tags]
    assert ranks == sorted(ranks)
    assert ranks[0] == 0
    # The flags in the picture and the tower's pins count places.
    places = page.locator(".place-line .flag").count()
    assert page.locator(".pin[data-pin^=place]").count() == places
    assert page.locator('[aria-label="Layer tower"] [data-pin]').count() == places
    bench.choose("bridge-1")
    page.locator('[data-note="bridge-1"]').fill("one long strip, sanded later")
    page.locator('[data-accept="bridge-1"]').click()
    bench.settled()
    last = page.locator("[data-place]:has(.flag)").last
    assert "accepted" in last.inner_text()
    assert "one long strip, sanded later" in last.inner_text()
    assert page.locator(".pin[data-pin^=place]").count() == places - 1
    bench.go("Turn")
    bench.fill("turn-z", 35)
    bench.go("Inspect")
    assert "one long strip" in page.locator("[data-place]:has(.flag)").last.inner_text()
    page.locator("[data-take-back]").last.click()
    bench.settled()
    assert "accepted" not in page.locator("[data-ledger]").inner_text()


def test_an_accepted_bridge_that_grows_is_open_again(server, bench, page, demo_files):
    bench.bring_in(server, demo_files["Hide model"])
    bench.choose("bridge-1")
    page.locator('[data-accept="bridge-1"]').click()
    bench.settled()
    bench.go("Turn")
    bench.fill("size-x", 200)
    bench.go("Inspect")
    bench.settled()
    told = page.locator("[data-ledger]").inner_html()
    assert "Worse than when it was accepted (bridge of 52.0 mm then)" in told


def test_places_are_read_in_one_look_and_open_when_chosen(server, bench, page, demo_files):
    bench.bring_in(server, demo_files["Gauge-board bracket"])
    bench.fill("threshold", 60)
    lines = page.locator(".place-line")
    column = page.locator("aside[aria-label=Activity]").bounding_box()
    heights = [lines.nth(i).bounding_box()["height"] for i in range(lines.count())]
    first = lines.nth(0).bounding_box()["y"]
    # Room for eight lines without scrolling.
    assert first + 8 * max(heights) <= column["y"] + column["height"]
    body = page.locator("[data-place] .place-body").first
    assert not body.is_visible()
    lines.first.click()
    bench.settled()
    assert body.is_visible()
    assert lines.first.get_attribute("aria-expanded") == "true"
    lines.first.click()
    assert not body.is_visible()
    # A flag in the picture opens its place as well.
    page.locator(".pin[data-pin=place-1]").click()
    assert body.is_visible()


def test_a_note_that_is_typed_stays_while_the_ledger_changes(server, bench, page, demo_files):
    bench.bring_in(server, demo_files["Hide model"])
    bench.choose("ledge-1")
    note = page.locator('[data-note="ledge-1"]')
    note.click()
    page.keyboard.type("trimmed by hand")
    page.keyboard.press("ArrowLeft")
    # Another edit answers meanwhile: the ledger is made anew under the cursor.
    page.evaluate("document.querySelector('[data-field=threshold-range]').value = 50")
    page.evaluate(
        "document.querySelector('[data-field=threshold-range]').dispatchEvent(new Event('input'))"
    )
    page.wait_for_function(
        "() => document.querySelector('[data-summary]').textContent.includes('50°')"
    )
    page.keyboard.type("!")
    assert page.locator('[data-note="ledge-1"]').input_value() == "trimmed by han!d"


def test_the_tower_shows_grip_and_perimeter_and_runs_from_the_bottom(at_table, page):
    tower = page.locator('[aria-label="Layer tower"] svg')
    texts = {}
    for measure in ("area_mm2", "grip", "perimeter_mm"):
        page.locator('[data-field="tower"]').select_option(measure)
        texts[measure] = tower.text_content()
    assert "widest 1,200 mm²" in texts["area_mm2"].replace("\n", " ")
    assert "most 1.00" in texts["grip"].replace("\n", " ")
    assert "longest 140 mm" in texts["perimeter_mm"].replace("\n", " ")
    # Pressed without waiting for all to be answered: on a slow machine that may be at the top.
    run = page.locator('[data-do="play"]')
    run.click()
    page.wait_for_function("() => Number(document.querySelector('[data-field=layer]').value) > 8")
    run.click()
    stopped = at_table.field("layer")
    page.wait_for_timeout(300)
    assert at_table.field("layer") == stopped


def test_the_section_hatches_a_ledge_with_its_length_and_layers_are_downloaded(
    at_table, page, tmp_path
):
    at_table.fill("layer", 100)
    section = page.locator("[data-section]")
    section.locator('[data-hanging="ledge"]').wait_for()
    assert "22." in section.locator("svg").text_content()
    for name, suffix in (("layer-svg", ".svg"), ("layers-zip", ".zip")):
        with page.expect_download() as download:
            page.locator(f'[data-do="{name}"]').click()
        path = tmp_path / f"out{suffix}"
        download.value.save_as(path)
    assert len(zipfile.ZipFile(tmp_path / "out.zip").namelist()) == 120
    assert (tmp_path / "out.svg").read_text(encoding="utf-8").startswith("<svg")


def test_measures_are_taken_by_clicks_and_undone(at_table, page):
    page.locator("[data-measures] summary").click()
    at_table.look("above")
    page.locator('[data-measure="distance"]').click()
    at_table.click_at([-15, -10, 24])
    at_table.click_at([15, -10, 24])
    page.locator('[data-measure="thickness"]').click()
    at_table.click_at([10, 5, 24])
    page.locator('[data-measure="slope"]').click()
    at_table.click_at([-10, 5, 24])
    page.keyboard.press("Escape")
    listed = page.locator("[data-measured]").all_inner_texts()
    value = float(listed[0].split()[1])
    assert value == pytest.approx(30, abs=0.4)
    assert "4.00 mm thick" in listed[1]
    assert "slopes 0.0°" in listed[2]
    assert page.locator(".measured").count() == 3
    at_table.do("undo")
    assert page.locator("[data-measured]").count() == 2


def test_bodies_are_shown_alone_and_separated(server, bench, page, demo_files):
    bench.bring_in(server, demo_files["Perch brackets, left and right"])
    page.locator("[data-bodies] summary").click()
    page.get_by_text("Bodies 1 and 2 are mirror images.").wait_for()
    before = bench.picture()
    page.locator('[data-alone="2"]').click()
    bench.settled()
    assert bench.picture() != before
    # What is hidden cannot be clicked.
    at = bench.at([8.5, -7, 10])
    assert (
        page.evaluate("p => document.querySelector('[data-model]').view.pick(p[0], p[1])", list(at))
        is None
    )
    page.locator('[data-alone="2"]').click()
    page.locator('[data-do="separate"]').click()
    page.wait_for_url("**/?made=*")
    made = page.locator('[data-piece]:has-text("body")')
    assert made.count() == 2
    page.locator('[data-do="undo-separate"]').click()
    page.wait_for_url(server.url + "/")
    assert made.count() == 0


def test_sides_are_painted_by_filling_and_by_brush_and_survive_turning(at_table, page):
    sides = "fetch(location.pathname + 'sides.bin', {cache: 'no-store'}).then(r => r.arrayBuffer()).then(b => Array.from(new Uint32Array(b)))"
    page.locator("[data-sides] summary").click()
    at_table.look("above")
    page.locator('[data-side="show"]').click()
    before = at_table.picture()
    at_table.click_at([10, 5, 24])
    assert at_table.picture() != before
    filled = page.evaluate(sides)
    assert set(filled) == {0, 1}
    assert filled.count(1) == 2  # the flat top, up to its creases
    page.locator('[data-side="back"]').click()
    page.locator('input[name="paint-by"][value="brush"]').check()
    x, y = at_table.at([-10, 5, 24])
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 30, y, steps=4)
    page.mouse.up()
    at_table.settled()
    brushed = page.evaluate(sides)
    assert 2 in brushed
    at_table.go("Turn")
    at_table.fill("turn-x", 30)
    assert page.evaluate(sides) == brushed
    at_table.do("undo")
    at_table.do("undo")
    assert page.evaluate(sides) == filled


def test_a_free_cut_is_dragged_and_typed(at_table, page):
    at_table.do("free-cut")
    figures = page.locator("[data-section] [data-figures]")
    # Upright through the middle, seen from the front: the top 40 x 4 and the leg 4 x 20.
    assert "240.00 mm²" in figures.inner_text()
    at_table.fill("plane-tilt", 0)
    at_table.fill("plane-offset", 5)
    assert "16.00 mm²" in figures.inner_text()
    before = at_table.picture()
    slider = page.locator('[data-field="plane-offset-range"]').bounding_box()
    page.mouse.move(slider["x"] + slider["width"] * 0.6, slider["y"] + slider["height"] / 2)
    page.mouse.down()
    page.mouse.move(
        slider["x"] + slider["width"] * 0.67, slider["y"] + slider["height"] / 2, steps=5
    )
    page.mouse.up()
    at_table.settled()
    assert at_table.picture() != before
    at_table.do("free-cut")
    assert "layer" in figures.inner_text()
