"""The workshop’s shelf, and what Prop takes from elsewhere: processes, habits, stands, other stances."""

import manifold3d
import pytest

from printability.mesh import binary_stl, mesh_of
from solids import table

pytestmark = pytest.mark.browser

LIST = "document.querySelector('[data-model]').view.supports.list"


@pytest.fixture(scope="module")
def files(tmp_path_factory):
    folder = tmp_path_factory.mktemp("models")
    block = manifold3d.Manifold.cube((6, 6, 20.2), True)
    drill = (
        manifold3d.Manifold.cylinder(80, 4, 4, 48, True).rotate((90, 0, 0)).translate((0, 0, 14))
    )
    drilled = mesh_of(manifold3d.Manifold.cube((20, 12, 28)).translate((-10, -6, 0)) - drill)
    out = {}
    for name, mesh in (("table", table()), ("block", mesh_of(block)), ("drilled", drilled)):
        out[name] = folder / f"{name}.stl"
        out[name].write_bytes(binary_stl(mesh, name))
    return out


def test_a_process_is_copied_changed_and_chosen_at_the_bench(server, bench, page, files):
    page.goto(f"{server.url}/workshop/")
    page.locator('[data-noun="process"] [data-thing="fdm"] [data-do="copy"]').click()
    page.get_by_label("Name").fill("Garden shed")
    page.get_by_label("self-supporting slope").fill("60")
    page.locator('[data-do="save"]').click()
    assert page.get_by_text("instead of 45").is_visible()
    # Absurd numbers get a sentence, and nothing is changed.
    page.get_by_label("layer height").fill("0")
    page.locator('[data-do="save"]').click()
    assert "between 0.005 and 2 mm" in page.locator("[data-problem]").inner_text()
    bench.bring_in(server, files["table"])
    page.locator('[data-field="process"]').select_option(label="Garden shed")
    bench.settled()
    page.reload()
    bench.ready()
    chosen = page.locator('[data-field="process"]').evaluate(
        "s => s.options[s.selectedIndex].textContent"
    )
    assert chosen == "Garden shed"
    assert bench.field("threshold") == 60


def test_a_stand_is_brought_in_moved_undone_and_kept(server, bench, page, files):
    bench.bring_in(server, files["table"])
    bench.go("Prop")
    page.locator('[data-field="stand-file"]').set_input_files(files["block"])
    page.wait_for_function(f"() => {LIST}.length === 1")
    bench.settled()
    bench.fill("place-x", 12)
    bench.fill("turn_z_deg", 30)
    place = f"{LIST}[0].ends[0].plate"
    assert page.evaluate(place) == [12, 0]
    assert page.evaluate(f"{LIST}[0].size.turn_z_deg") == 30
    # By its contact it slides over the plate; the picture is looked at from the front.
    bench.look("below")
    at = page.evaluate(f"{LIST}[0].contact_mm")
    x, y = bench.at(at)
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 30, y + 6, steps=5)
    page.mouse.up()
    bench.settled()
    moved = page.evaluate(place)
    assert moved != [12, 0]
    page.keyboard.press("Control+z")
    bench.settled()
    assert page.evaluate(place) == [12, 0]
    page.reload()
    bench.ready()
    assert page.evaluate(f"{LIST}.map((s) => [s.kind, s.fit])") == [["stand", "stands"]]
    bench.go("Prop")
    page.locator('[data-field="stand-file"]').set_input_files(__file__)
    page.wait_for_selector("[data-problem]:visible")
    assert "STL, 3MF" in bench.problem()


def test_a_ring_gets_its_contact_and_it_is_carried_to_another_stance(server, bench, page, files):
    bench.bring_in(server, files["drilled"])
    bench.go("Prop")
    bench.look("front")
    page.locator('[data-tool="ring"]').click()
    # From a little above one looks into the hole: its lower wall is seen.
    page.evaluate("() => document.querySelector('[data-model]').view.look(0, 25)")
    bench.settled()
    bench.click_at([0.5, -5.4, 10.05])
    page.wait_for_function(f"() => {LIST}.length === 1")
    bench.settled()
    x, y, z = page.evaluate(f"{LIST}[0].contact_mm")
    assert (x, y) == pytest.approx((0, 0), abs=0.3)
    assert z == pytest.approx(18, abs=0.02)
    # The same file brought in once more has none; they are carried to it.
    bench.bring_in(server, files["drilled"])
    assert page.evaluate(f"{LIST}.length") == 0
    bench.go("Prop")
    bench.settled()
    page.locator('[data-field="carry-from"] option', has_text="drilled").first.wait_for(
        state="attached"
    )
    name = page.locator('[data-field="carry-from"] option', has_text="drilled").first
    page.locator('[data-field="carry-from"]').select_option(value=name.get_attribute("value"))
    page.wait_for_selector("[data-carried]:visible")
    assert "1 fit, 0 moved, 0 lost" in page.locator("[data-carried]").inner_text()
    bench.do("take-carried")
    assert page.evaluate(f"{LIST}[0].contact_mm[2]") == pytest.approx(z, abs=1e-6)
    page.keyboard.press("Control+z")
    bench.settled()
    assert page.evaluate(f"{LIST}.length") == 0


def test_ways_out_by_propping_and_reshaping_are_offered_and_taken(server, bench, page, files):
    bench.bring_in(server, files["table"])
    first = page.locator("[data-ways]").first
    finding = first.get_attribute("data-ways")
    bench.choose(finding)
    page.locator(f'[data-ways="{finding}"]').click()
    page.wait_for_selector("[data-prop-way]", timeout=120_000)
    told = page.locator("[data-prop-way]").first.inner_text()
    assert "mm³ of support" in told
    page.locator("[data-prop-so]").first.click()
    bench.settled()
    assert page.evaluate(f"{LIST}.every((s) => s.fit === 'stands') && {LIST}.length") > 0
    page.keyboard.press("Control+z")
    bench.settled()
    assert page.evaluate(f"{LIST}.length") == 0
    # And one by changing the shape.
    bench.choose(finding)
    if not page.locator("[data-shape-so]:visible").count():
        page.locator(f'[data-ways="{finding}"]').click()
    page.locator("[data-shape-so]:visible").first.click()
    bench.settled()
    bench.go("Reshape")
    page.wait_for_selector("[data-made-change]")
    assert page.locator("[data-made-change]").count() == 1


def test_what_bends_is_drawn_bent_and_braced_and_weights_are_given_to_several(
    server, bench, page, tmp_path
):
    path = tmp_path / "tall.stl"
    path.write_bytes(binary_stl(table(90.0), "tall"))
    bench.bring_in(server, path)
    bench.go("Prop")
    bench.look("below")
    for place in ([8, 9, 90], [16, 9, 90]):
        bench.click_at(place)
    page.locator('[data-do="brace-all"]').wait_for(state="visible")
    page.locator('[data-pillar="1"]').click()
    page.wait_for_selector("[data-bent]:visible")
    assert "Dotted" in page.locator("[data-bent]").inner_text()
    bench.do("brace-all")
    kinds = f"{LIST}.map((s) => [s.kind, s.fit])"
    assert ["brace", "stands"] in page.evaluate(kinds)
    page.locator('[data-do="brace-all"]').wait_for(state="hidden")
    # A weight for both pillars at once: shaft and foot are those of the profile.
    page.locator('[data-pillar="1"]').click()
    page.locator('[data-pillar="2"]').click(modifiers=["Shift"])
    page.locator('[data-field="profile"]').select_option("heavy")
    bench.settled()
    assert page.evaluate(f"{LIST}.slice(0, 2).map((s) => s.size.shaft_mm)") == [3.2, 3.2]
    for _ in range(2):
        page.keyboard.press("Control+z")
        bench.settled()
    assert page.evaluate(f"{LIST}.map((s) => s.size.shaft_mm)") == [2.2, 2.2]
    # A shaft dragged to another one joins the two.
    bench.look("front")
    a, b = (bench.at(p) for p in ([8, 9, 30], [16, 9, 30]))
    page.mouse.move(*a)
    page.mouse.down()
    page.mouse.move(*b, steps=6)
    page.mouse.up()
    bench.settled()
    assert page.evaluate(kinds)[-1] == ["brace", "stands"]
