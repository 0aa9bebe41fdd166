"""Many drags among many pillars: what page and server hold stays level."""

import json
import math
import os
from pathlib import Path

import pytest

from printability.mesh import binary_stl, facet_normals
from solids import box, together

pytestmark = pytest.mark.browser
SHOWN = "document.querySelector('[data-model]').view"
# As many as fit the suite; set them to 1000 and 500 for a long look.
DRAGS = int(os.environ.get("FAIRSTAND_DRAGS", "40"))
PILLARS = int(os.environ.get("FAIRSTAND_PILLARS", "60"))


@pytest.fixture(scope="module")
def crowded(tmp_path_factory):
    """A wide plate on four feet, and a stance file that stands many pillars under it."""
    mesh = together(
        box(200, 200, 4, (0, 0, 40)),
        *(box(4, 4, 40, (x, y, 0)) for x in (0, 196) for y in (0, 196)),
    )
    folder = tmp_path_factory.mktemp("crowded")
    model = folder / "plate.stl"
    model.write_bytes(binary_stl(mesh, "plate"))
    edits = []
    side = math.ceil(math.sqrt(PILLARS))
    for n in range(PILLARS):
        x, y = 14 + 172 * (n % side) / (side - 1), 14 + 172 * (n // side) / (side - 1)
        at = {"point": [x, y, 40.0], "normal": [0, 0, -1], "facet": -1}
        size = {"contact_mm": 0.6, "embed_mm": 0.3, "tip_mm": 3, "shaft_mm": 2, "foot_mm": 4,
                "foot_height_mm": 2, "pad_mm": 5, "pad_height_mm": 0.6}  # fmt: skip
        parameters = {
            "key": str(n + 1),
            "support": "pillar",
            "ends": [at, {"plate": None}],
            "size": size,
        }
        edits.append({"kind": "support", "parameters": parameters})
    assert (facet_normals(mesh)[:, 2] < -0.9).any()
    recipe = folder / "stance.json"
    recipe.write_text(json.dumps({
        "fair_stand_stance": 2, "piece": "plate", "name": "Crowded",
        "model": {"sha256": "0" * 64, "unit": "mm"}, "edits": edits,
    }))  # fmt: skip
    return model, recipe


# Told where a drag is not followed: what is open, and whether the eye has turned instead.
WHY = f"""() => [
  document.querySelector('[data-activity][aria-selected="true"]')?.dataset.activity,
  document.querySelector('[data-problem]')?.innerText, {SHOWN}.controls.enabled,
  {SHOWN}.camera.position.toArray(), {SHOWN}.camera.zoom, {SHOWN}.canvas.clientHeight,
  document.documentElement.getAttributeNames()]"""


def _memory(page):
    """What three.js keeps on the graphics card, and the page's own heap after a sweep, MB."""
    return page.evaluate(f"""() => {{
      gc(); gc();
      const {{ geometries, textures }} = {SHOWN}.renderer.info.memory;
      return [geometries, textures, performance.memory.usedJSHeapSize / 1e6];
    }}""")


def _resident_mb(pid: int) -> float:
    status = Path(f"/proc/{pid}/status").read_text(encoding="utf-8")
    return int(status.split("VmRSS:")[1].split()[0]) / 1000


def test_many_drags_among_many_pillars_leave_nothing_behind(server, bench, page, crowded):
    model, recipe = crowded
    bench.bring_in(server, model)
    page.locator('[data-field="stance-file"]').set_input_files(recipe)
    page.wait_for_selector("html[data-ready]:not([data-leaving])")
    page.wait_for_function(f"() => {SHOWN}?.supports.list.length === {PILLARS}")
    bench.settled()
    bench.go("Prop")
    bench.look("below")
    contacts = f"{SHOWN}.supports.list.map((s) => s.contact_mm)"
    before_drag = page.evaluate(contacts)
    x, y = bench.at(before_drag[PILLARS // 2])
    page.mouse.move(x, y)
    page.mouse.down()
    before = None
    # Each step asks for the pillar there and draws it; the server answers as it goes.
    for step in range(DRAGS):
        page.mouse.move(x + 12 * math.cos(step / 7), y + 12 * math.sin(step / 7))
        if step in (DRAGS // 4, DRAGS - 1):
            bench.settled()
            shown = page.evaluate(contacts.replace("list", "shown"))
            assert shown != before_drag, page.evaluate(WHY)
            now = _memory(page), _resident_mb(server.process.pid)
            before = before or now
    page.mouse.up()
    # Let go, it is taken: on a busy machine that is a moment later.
    page.wait_for_function(
        f"""(old) => JSON.stringify({contacts}) !== JSON.stringify(old)
            || document.querySelector("[data-problem]")?.checkVisibility()""",
        arg=before_drag,
    )
    bench.settled()
    assert page.locator("[data-problem]").is_hidden(), bench.problem()
    (geometries, textures, heap), resident = now
    (first_geometries, first_textures, first_heap), first_resident = before
    assert geometries <= first_geometries
    assert textures <= first_textures
    assert heap < first_heap + 15
    assert resident < first_resident + 60
    # One drawing for all rods, however many there are.
    assert page.evaluate(f"{SHOWN}.supports.rods.geometry.drawRange.count") > 60 * PILLARS
    assert page.evaluate(f"{SHOWN}.renderer.info.render.calls") < 40
    after = page.evaluate(contacts)
    assert sum(a != b for a, b in zip(after, before_drag, strict=True)) == 1
    bench.do("undo")
    assert page.evaluate(contacts) == before_drag


def test_turning_and_cutting_over_and_over_draws_nothing_more(server, bench, page, demo_files):
    bench.bring_in(server, demo_files["Hide model"])
    bench.go("Turn")
    counts, programs = [], []
    for turn in range(15):
        page.evaluate(
            "([a]) => { const c = document.querySelector('[data-model]'); c.view.setPlane({lines: [[0,0,0,1,0,0,1,1,0]], reach: 9, normal: [0,0,1], origin: [0,0,a]}); c.arcs.showAngle('x', 0, a); c.arcs.clearAngle(); c.view.setPlane(null); }",
            [turn + 1],
        )
        if turn % 5 == 4:
            page.locator('[data-do="nudge-x"]').click()
            bench.settled()
            counts.append(_memory(page)[0])
            programs.append(page.evaluate(f"{SHOWN}.renderer.info.programs.map((p) => p.id)"))
    assert max(counts[1:]) <= counts[1]
    # Nor is anything compiled again.
    assert programs[1:] == programs[1:2] * 2
