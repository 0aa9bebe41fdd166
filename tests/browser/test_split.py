"""Split, on the canvas and on the cut face."""

import numpy as np
import pytest
import trimesh

from printability.mesh import binary_stl
from solids import box, ours

pytestmark = pytest.mark.browser
VIEW = "document.querySelector('[data-model]').view"


@pytest.fixture(scope="module")
def t_file(tmp_path_factory):
    """A stem of 16 x 20 x 40 under a bar of 60 x 20 x 12."""
    parts = [box(16, 20, 40, (-8, -10, 0)), box(60, 20, 12, (-30, -10, 40))]
    path = tmp_path_factory.mktemp("t") / "t.stl"
    path.write_bytes(binary_stl(ours(trimesh.boolean.union(parts, engine="manifold")), "T"))
    return path


def handle(bench):
    """Where the ball of the plane is on the screen."""
    point = bench.page.evaluate(
        f"() => {VIEW}.layers.map((l) => l.plane).find((p) => p && p.point).point"
    )
    return point, bench.at(point)


def parts(bench):
    return bench.page.locator("[data-show-part]").evaluate_all(
        "b => b.map(x => x.dataset.showPart)"
    )


def spot(bench, u, v):
    """A place of the cut face on the screen."""
    return bench.page.evaluate(
        """([u, v]) => {
          const svg = document.querySelector('[data-part="cut-face"] svg');
          const p = new DOMPoint(u, -v).matrixTransform(svg.getScreenCTM());
          return [p.x, p.y];
        }""",
        [u, v],
    )


def test_a_plane_is_dragged_typed_cut_joined_undone_and_kept(server, bench, page, t_file):
    bench.bring_in(server, t_file)
    bench.go("Split")
    bench.look("front")
    bench.do("cut-level")
    page.wait_for_selector("[data-cut-side]")
    before, (x, y) = handle(bench)
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x, y - 30, steps=5)
    page.mouse.up()
    bench.settled()
    after, _ = handle(bench)
    assert after[2] > before[2] + 1
    assert bench.field("cut-offset") == pytest.approx(after[2], abs=0.02)
    whole = bench.picture()
    bench.fill("cut-offset", 40)
    bench.until("[data-cut-text]", [""])
    page.wait_for_function(
        "() => document.querySelector('[data-cut-text]').innerText.startsWith('320')"
    )
    assert bench.picture() != whole
    bench.do("take-cut")
    page.wait_for_selector("[data-show-part]")
    assert parts(bench) == ["1.a", "1.b"]
    assert page.locator('[data-field="part"]').input_value() == "1.a"
    page.wait_for_function(f"() => {VIEW}.size[2] === 12")
    bench.do("undo")
    assert parts(bench) == ["1"]
    bench.do("redo")
    assert parts(bench) == ["1.a", "1.b"]
    # The other part, by the header; its own height.
    page.locator('[data-field="part"]').select_option("1.b")
    bench.settled()
    page.wait_for_function(f"() => {VIEW}.size[2] === 40")
    # Joints on the cut face: clicked, dragged, typed, removed.
    page.locator('[data-open-face="1"]').click()
    page.wait_for_selector("[data-zone]")
    page.mouse.click(*spot(bench, -3, 0))
    page.wait_for_selector("g[data-joint]")
    x, y = spot(bench, -3, 0)
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(*spot(bench, 2, 3), steps=6)
    page.mouse.up()
    bench.settled()
    page.wait_for_function(
        "() => Math.abs(document.querySelector('g[data-joint] text')?.getAttribute('x') - 2) < 0.3"
    )
    page.locator("g[data-joint]").click()
    bench.settled()
    bench.fill("joint-width_mm", 4)
    page.wait_for_function(f"() => Math.abs({VIEW}.size[2] - 45) < 1e-6")  # the peg rises by 5
    bench.do("remove-joint")
    assert page.locator("g[data-joint]").count() == 0
    # As many as asked for, placed for the maker.
    bench.fill("joint-width_mm", 3)
    bench.do("place-joints")
    page.wait_for_function("() => document.querySelectorAll('g[data-joint]').length === 2")
    # One that pokes out is refused, and can be insisted on.
    page.mouse.click(*spot(bench, -7.8, 9))
    page.wait_for_selector('[data-do="insist-joint"]:visible')
    assert "Nothing was changed" in bench.problem()
    bench.do("insist-joint")
    page.wait_for_selector("g[data-joint].is-out")
    page.reload()
    bench.ready()
    bench.go("Split")
    page.wait_for_selector("[data-show-part]")
    assert parts(bench) == ["1.a", "1.b"]
    assert page.locator('[data-field="part"]').input_value() == "1.b"
    bench.undo_many(7)
    assert parts(bench) == ["1"]


def test_where_to_cut_is_proposed_shown_and_taken(server, bench, page, t_file):
    bench.bring_in(server, t_file)
    bench.go("Split")
    bench.do("propose-cuts")
    page.wait_for_selector("[data-proposed-cut]")
    assert page.locator("[data-proposed-cut] img").first.evaluate("i => i.complete || true")
    page.locator('[data-do="look-at-cut"]').first.click()
    bench.settled()
    assert bench.field("cut-offset") == pytest.approx(40)
    page.locator('[data-do="take-proposed-cut"]').first.click()
    page.wait_for_selector("[data-show-part]")
    bench.settled()
    assert parts(bench) == ["1.a", "1.b"]
    bench.go("Inspect")
    assert "0 islands" in bench.figures()
    bench.go("Hand over")
    page.wait_for_selector('[data-download="plate"]')
    with page.expect_download() as download:
        page.locator('[data-download="plate"]').click()
    assert download.value.suggested_filename.endswith("plate.3mf")
    page.wait_for_function(
        "() => document.querySelector('[data-part=assembly-file] img')?.naturalWidth"
    )
    bench.do("undo")  # cut and turns were taken at once
    bench.go("Split")
    assert parts(bench) == ["1"]


def test_a_cut_along_a_face_and_through_three_points(server, bench, page, t_file):
    bench.bring_in(server, t_file)
    bench.go("Split")
    bench.look("below")
    page.locator('[data-tool="cut-flat"]').click()
    bench.click_at([20, 0, 40])  # the bar's underside
    assert bench.field("cut-tilt") == pytest.approx(0, abs=1e-6)
    assert bench.field("cut-offset") == pytest.approx(40, abs=1e-4)
    bench.look("front")
    page.locator('[data-tool="cut-three"]').click()
    for point in ([-20, -10, 44], [20, -10, 44]):
        bench.click_at(point)
    bench.look("above")
    bench.click_at([0, 8, 52])
    normal = np.cross([40, 0, 0], [20, 18, 8])
    tilt = np.degrees(np.arccos(normal[2] / np.linalg.norm(normal)))
    assert bench.field("cut-tilt") == pytest.approx(tilt, abs=1.0)
    assert page.locator("[data-cut-side]").count() == 2
    page.keyboard.press("Escape")
    bench.settled()  # what goes is gone with the next frame
    assert page.locator('[data-part="cut"]').is_hidden()
    # A second plane through every part that the first one left, at once, and taken back at once.
    bench.do("cut-level")
    bench.fill("cut-offset", 40)
    assert page.locator('[data-field="cut-of"]').is_hidden()
    bench.do("take-cut")
    page.wait_for_selector("[data-show-part]")
    bench.settled()
    bench.do("cut-level")
    bench.fill("cut-tilt", 90)
    bench.fill("cut-offset", 1)
    page.locator('[data-field="cut-of"]').select_option("all")
    bench.do("take-cut")
    page.wait_for_function("() => document.querySelectorAll('[data-show-part]').length === 4")
    bench.settled()
    assert parts(bench) == ["1.a.a", "1.a.b", "1.b.a", "1.b.b"]
    bench.do("undo")
    assert parts(bench) == ["1.a", "1.b"]


def test_a_cut_is_dragged_again_seen_together_and_named(server, bench, page, t_file):
    bench.bring_in(server, t_file)
    bench.go("Split")
    # Along the loop of creases at the foot of the bar, then to the other side and back.
    bench.look("front")
    page.locator('[data-tool="cut-crease"]').click()
    bench.click_at([20, -10, 40.3])
    assert bench.field("cut-offset") == pytest.approx(40, abs=1e-3)
    bench.fill("cut-tilt", 30)
    toward = bench.field("cut-toward")
    bench.do("mirror-cut")
    assert abs(abs(bench.field("cut-toward") - toward) - 180) < 1
    bench.fill("cut-tilt", 0)
    bench.fill("cut-offset", 30)
    bench.do("take-cut")
    page.wait_for_selector("[data-show-part]")
    page.locator("[data-open-face]").click()
    bench.settled()
    bench.fill("joint-width_mm", 4)
    bench.do("place-joints")
    page.wait_for_function("() => document.querySelectorAll('g[data-joint]').length === 2")
    # Together: the model gives way to both sides, which are pulled apart by the slider.
    page.locator("[data-pair]").click()
    page.wait_for_selector("[data-pair-said]")
    assert "without meeting" in page.locator("[data-pair-said]").first.inner_text()
    assert not page.evaluate(f"{VIEW}.model.group.visible")
    page.locator('[data-field="pulled"]').fill("0")
    layer = f"{VIEW}.layers.at(-1).group.children"
    assert page.evaluate(f"{layer}[1].position.length()") == 0
    page.locator('[data-field="pulled"]').fill("6")
    assert page.evaluate(f"{layer}[1].position.length()") == pytest.approx(6)
    page.keyboard.press("Escape")
    page.locator("[data-model]").focus()
    page.keyboard.press("Escape")
    assert page.evaluate(f"{VIEW}.model.group.visible")
    # All on the plate.
    page.locator('[data-field="others"]').check()
    bench.settled()
    page.wait_for_function(f"() => {layer}.length === 2")
    page.locator('[data-field="others"]').uncheck()
    # Named, dragged by its ball to another height; side a stays side a.
    page.locator("[data-seam]").fill("neck")
    page.locator("[data-seam]").press("Enter")
    bench.settled()
    sizes = page.evaluate(
        "() => [...document.querySelectorAll('[data-show-part]')].map(b => b.innerText)"
    )
    page.locator("[data-drag-cut]").click()
    bench.settled()
    _, (x, y) = handle(bench)
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x, y - 30, steps=4)
    page.mouse.up()
    bench.settled()
    bench.do("take-cut")
    after = page.evaluate(
        "() => [...document.querySelectorAll('[data-show-part]')].map(b => b.innerText)"
    )
    assert after != sizes
    assert "neck" in page.locator('[data-part="cuts"]').inner_text()
    cut = page.evaluate("() => fetch(location.pathname + 'state/').then(r => r.json())")
    assert cut["cuts"][0]["joints"] == 2
    bench.do("undo")
    again = page.evaluate(
        "() => [...document.querySelectorAll('[data-show-part]')].map(b => b.innerText)"
    )
    assert again == sizes
    page.wait_for_function(
        "() => document.querySelector('[data-part=assembly] img').naturalWidth > 100"
    )


def test_colours_are_filled_brushed_and_stay(server, bench, page, t_file):
    bench.bring_in(server, t_file)
    page.locator("[data-colours] summary").click()
    page.locator('[data-dye="#a4502a"]').click()
    bench.look("front")
    bench.click_at([0, -10, 20])
    has = f"{VIEW}.model.mesh.geometry.getAttribute('dye')"
    page.wait_for_function(f"() => {has}")
    painted = f"[...{has}.array].filter((v) => v === 1 + 0xa4502a).length / 3"
    assert page.evaluate(painted) >= 2
    # A colour of one's own by brush, dragged over the bar.
    page.locator('[data-field="dye-rgb"]').fill("#123456")
    page.locator('[data-field="dye-name"]').fill("pool")
    page.locator('[data-do="own-dye"]').click()
    page.locator('input[name="dye-by"][value="brush"]').check()
    page.mouse.move(*bench.at([-20, -10, 46]))
    page.mouse.down()
    page.mouse.move(*bench.at([20, -10, 46]), steps=6)
    page.mouse.up()
    bench.settled()
    page.wait_for_selector('[data-dye="#123456"]')
    assert page.locator('[data-dye="#123456"]').inner_text() == "pool"
    page.reload()
    bench.ready()
    bench.settled()
    assert page.evaluate(f"[...{has}.array].some((v) => v === 1 + 0x123456)")
    bench.do("undo")
    bench.do("undo")
    bench.settled()
    assert page.evaluate(f"() => !{has}")
