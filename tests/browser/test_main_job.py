"""The main job, clicked through in Chromium: open, read, scrub, turn, prop, hand over."""

import re

import numpy as np
import pytest

from printability.mesh import binary_stl, mesh_facts, open_mesh
from solids import box, table, together

pytestmark = pytest.mark.browser


@pytest.fixture(scope="module")
def table_file(tmp_path_factory):
    path = tmp_path_factory.mktemp("table") / "reed table.stl"
    path.write_bytes(binary_stl(table(), "table"))
    return path


def test_from_upload_to_both_files(server, bench, page, demo_files, tmp_path):
    bench.choose_file(server.url, demo_files["Perch brackets, left and right"])
    # Read the ledger: worst first, and choosing a finding moves layer and view.
    assert "2 islands" in bench.summary()
    titles = page.locator(".place-line").all_inner_texts()
    assert "Island" in titles[0]
    assert "will fail" in titles[0]
    before = bench.picture()
    bench.choose("overhang-1")
    assert bench.field("layer") > 100
    assert page.locator('[data-finding="overhang-1"]').get_attribute("aria-current") == "true"
    assert bench.picture() != before

    # Scrub the tower: cut plane and section follow while the pointer moves.
    tower = page.locator('[aria-label="Layer tower"] svg').bounding_box()
    x = tower["x"] + 70
    page.mouse.move(x, tower["y"] + tower["height"] * 0.75)
    page.mouse.down()
    seen = set()
    for part in (0.7, 0.6, 0.5, 0.4):
        page.mouse.move(x, tower["y"] + tower["height"] * part, steps=3)
        page.wait_for_function("""() => {
          const layer = document.querySelector("[data-field=layer]").value;
          return document.querySelector("[data-section] [data-figures]").innerText.includes(`${layer} of`);
        }""")
        bench.settled()
        figures = page.locator("[data-section] [data-figures]").inner_text()
        seen.add((figures, bench.picture()))
    page.mouse.up()
    assert len({figures for figures, _ in seen}) == 4
    assert len({picture for _, picture in seen}) == 4

    # Turn by typing, prop by clicking under a wing, and see both in the strip.
    bench.go("Turn")
    bench.fill("turn-x", 20)
    assert bench.field("turn-x") == 20
    bench.go("Prop")
    bench.look("below")
    _stand_pillar(bench, page)
    assert "1 pillar" in bench.figures()
    after_pillar = bench.figures()

    # Undo both, redo both.
    bench.do("undo")
    assert "0 pillars" in bench.figures()
    bench.do("undo")
    bench.go("Turn")
    assert bench.field("turn-x") == 0
    assert page.locator('[data-do="undo"]').is_disabled()
    bench.do("redo")
    bench.do("redo")
    assert bench.figures() == after_pillar

    # Reload: all is as it was.
    page.reload()
    bench.ready()
    bench.settled()
    assert bench.figures() == after_pillar
    assert page.locator('[data-do="undo"]').is_enabled()
    bench.go("Turn")
    assert bench.field("turn-x") == 20

    # Hand over: checks hold, both files come and are read back.
    bench.go("Hand over")
    page.wait_for_selector("[data-check]")
    # What is written is sound; what the piece still lacks is said beside it.
    for key in ("one_body", "build_volume"):
        assert page.locator(f'[data-check="{key}"]').get_attribute("data-ok") == "true"
    assert "will fail" in page.locator('[data-check="ledger"]').inner_text()
    assert "Not so yet:" in page.locator("[data-part='open']").inner_text()
    files = {}
    for kind in ("stl", "3mf"):
        with page.expect_download() as download:
            page.locator(f'[data-download="{kind}"]').click()
        files[kind] = tmp_path / download.value.suggested_filename
        download.value.save_as(files[kind])
        assert files[kind].name == f"perch-brackets-first-stance.{kind}"
    body = open_mesh(files["stl"].read_bytes(), "a.stl").mesh
    facts = mesh_facts(body)
    assert (facts.watertight, facts.bodies) == (True, 2)  # left and right, one with its pillar
    opened = open_mesh(files["3mf"].read_bytes(), "a.3mf")
    model = mesh_facts(opened.mesh)
    assert "Left out 1 support" in opened.notes[0]
    assert facts.volume_mm3 > model.volume_mm3 + 50
    assert body.vertices[:, 2].min() == pytest.approx(0, abs=1e-5)


def _stand_pillar(bench, page):
    """Click places under the model until a pillar stands."""
    box = page.locator("[data-model]").bounding_box()
    for part_x, part_y in np.random.default_rng(3).uniform(0.25, 0.75, (60, 2)):
        page.mouse.click(box["x"] + box["width"] * part_x, box["y"] + box["height"] * part_y)
        bench.settled()
        if page.locator("[data-pillar]").count():
            return
    raise AssertionError("no place under the model took a pillar")


def test_pillars_are_placed_moved_resized_and_removed_on_the_canvas(
    server, bench, page, table_file
):
    bench.bring_in(server, table_file)
    bench.go("Prop")
    bench.look("below")
    bench.click_at([12, 8, 20])
    (text,) = page.locator("[data-pillar]").all_inner_texts()
    assert "Contact at z = 20.00 mm" in text
    # Drag the contact along the underside.
    x, y = bench.at([12, 8, 20])
    to_x, to_y = bench.at([-14, -9, 20])
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move((x + to_x) / 2, (y + to_y) / 2, steps=4)
    page.mouse.move(to_x, to_y, steps=4)
    page.mouse.up()
    bench.settled()
    contact = page.evaluate(
        "document.querySelector('[data-model]').view.supports.list[0].contact_mm"
    )
    assert contact == pytest.approx([-14, -9, 20], abs=0.3)
    # Type a dimension; a senseless one is refused in a sentence and changes nothing.
    bench.fill("contact_mm", 0.8)
    size = "document.querySelector('[data-model]').view.supports.list[0].size.contact_mm"
    assert page.evaluate(size) == 0.8
    bench.fill("contact_mm", 9)
    assert "wider than the shaft" in bench.problem()
    assert page.evaluate(size) == 0.8
    # It stays when the piece is turned, and stands from the same place of the model.
    bench.go("Turn")
    bench.fill("lift", 5)
    bench.fill("turn-y", 12)
    moved = page.evaluate("document.querySelector('[data-model]').view.supports.list[0]")
    assert moved["fit"] == "stands"
    assert moved["contact_slope_deg"] == pytest.approx(12, abs=0.01)
    bench.go("Prop")
    bench.do("remove-pillar")
    assert page.locator("[data-pillar]").count() == 0
    page.keyboard.press("Control+z")
    bench.settled()
    assert page.locator("[data-pillar]").count() == 1


def test_a_blocked_way_down_is_refused_with_the_place(server, bench, page, tmp_path):
    path = tmp_path / "shelves.stl"
    shelves = together(box(4, 30, 40), box(40, 30, 3, (0, 0, 37)), box(40, 30, 3, (0, 0, 12)))
    path.write_bytes(binary_stl(shelves, "shelves"))
    bench.bring_in(server, path)
    bench.go("Prop")
    bench.look("below")
    page.evaluate("document.querySelector('[data-model]').view.look(0, -20)")
    bench.settled()
    # From far below the front, the upper shelf's underside shows above the lower one.
    bench.click_at([10, -10, 37])
    assert re.search(r"blocked by the model at z = 15\.0 mm", bench.problem())
    assert page.locator("[data-pillar]").count() == 0


def test_setting_a_face_down_by_a_click(server, bench, page, table_file):
    bench.bring_in(server, table_file)
    assert "height 24.0 mm" in bench.figures()
    assert "overhang 1,184 mm²" in bench.figures()
    bench.go("Turn")
    bench.look("above")
    bench.do("face-down")
    bench.click_at([10, 10, 24])
    assert "overhang 0 mm²" in bench.figures()
    assert bench.field("turn-x") == 180
    bench.do("as-imported")
    assert "overhang 1,184 mm²" in bench.figures()
    bench.do("quarter-x")
    assert "height 30.0 mm" in bench.figures()


def test_the_threshold_changes_picture_and_numbers(server, bench, page, demo_files):
    bench.bring_in(server, demo_files["Gauge-board bracket"])
    bench.look("below")
    bench.settled()
    summary, picture = bench.summary(), bench.picture()
    slider = page.locator('[data-field="threshold-range"]')
    box = slider.bounding_box()
    page.mouse.move(box["x"] + box["width"] * 0.5, box["y"] + box["height"] / 2)
    page.mouse.down()
    page.mouse.move(box["x"] + box["width"] * 0.04, box["y"] + box["height"] / 2, steps=6)
    # While it is held: numbers and picture have moved, but nothing is decided.
    bench.until("[data-summary]", [summary])
    bench.settled()
    assert bench.picture() != picture
    assert page.locator('[data-do="undo"]').is_disabled()
    page.mouse.up()
    bench.settled()
    assert page.locator('[data-do="undo"]').is_enabled()
    bench.do("undo")
    assert bench.summary() == summary
    assert bench.field("threshold") == 45


def test_keys_work_without_a_mouse(server, bench, page, table_file):
    bench.bring_in(server, table_file)
    page.keyboard.press("PageUp")
    page.keyboard.press("ArrowUp")
    page.keyboard.press("ArrowUp")
    page.keyboard.press("ArrowDown")
    assert bench.field("layer") == 21
    page.keyboard.press("n")
    bench.settled()
    assert bench.field("layer") == 100
    assert page.locator('[data-finding][aria-current="true"]').count() == 1
    page.keyboard.press("2")
    assert page.locator('[data-activity="Turn"]').get_attribute("aria-selected") == "true"
    page.keyboard.press("?")
    assert page.get_by_role("dialog", name="Keys").is_visible()
    page.keyboard.press("Escape")
    assert not page.get_by_role("dialog", name="Keys").is_visible()


def test_bad_files_are_refused_on_the_page_and_leave_nothing(server, page, tmp_path):
    page.goto(server.url)
    cards = page.locator("[data-piece]").count()
    bad = tmp_path / "letter.stl"
    bad.write_text("Dear reader, this is a letter and no model. " * 5)
    page.locator("#file").set_input_files(bad)
    page.get_by_role("alert").filter(has_text="text that is no mesh").wait_for()
    page.reload()
    assert page.locator("[data-piece]").count() == cards


def test_a_stance_file_is_written_and_read_again(server, bench, page, table_file, tmp_path):
    bench.bring_in(server, table_file)
    bench.go("Turn")
    bench.fill("turn-x", 25)
    bench.go("Hand over")
    with page.expect_download() as download:
        page.locator('[data-download="stance"]').click()
    path = tmp_path / download.value.suggested_filename
    download.value.save_as(path)
    assert '"x_deg": 25' in path.read_text(encoding="utf-8")
    with page.expect_navigation():
        page.locator('[data-field="stance-file"]').set_input_files(path)
    bench.ready()
    bench.settled()
    assert page.locator("[data-stance]").count() == 2
    bench.go("Turn")
    assert bench.field("turn-x") == 25
    path.write_text("{}", encoding="utf-8")
    page.locator('[data-field="stance-file"]').set_input_files(path)
    page.wait_for_selector("[data-problem]:visible")
    assert "no stance file" in bench.problem()


def test_a_card_is_deleted_and_brought_back(server, bench, page, table_file):
    bench.bring_in(server, table_file)
    page.goto(server.url)
    cards = page.locator("[data-piece]").count()
    first = page.locator("[data-piece]").first
    first.get_by_role("button").click()
    first.wait_for(state="hidden")
    page.get_by_role("button", name="Undo").click()
    first.wait_for(state="visible")
    page.reload()
    assert page.locator("[data-piece]").count() == cards
    page.locator("[data-piece]").first.get_by_role("button").click()
    page.get_by_role("button", name="Undo").wait_for()
    page.reload()
    assert page.locator("[data-piece]").count() == cards - 1
    # After a reload it is listed, and comes back from there.
    page.locator("[data-away] summary").click()
    with page.expect_navigation():
        page.locator("[data-back-piece]").first.click()
    page.wait_for_selector(f"[data-piece] >> nth={cards - 1}")
    assert page.locator("[data-piece]").count() == cards


def test_a_doubtful_unit_is_offered_its_conversion(server, bench, page, tmp_path):
    small = table()
    path = tmp_path / "metres.stl"
    path.write_bytes(binary_stl(small.moved(small.vertices / 200), "small"))
    bench.bring_in(server, path)
    page.locator('[data-doubt="unit"]').get_by_role("button", name="Read in m: 200 mm").click()
    bench.settled()
    assert "height 120.0 mm" in bench.figures()
    assert page.locator('[data-doubt="unit"]').count() == 0
