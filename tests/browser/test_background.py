"""Long work seen in the browser."""

import pytest
import trimesh

from printability.mesh import binary_stl
from solids import ours

pytestmark = pytest.mark.browser


@pytest.fixture(scope="module")
def fine_ball(tmp_path_factory):
    """A ball of 81,920 facets, tall enough to take a while."""
    path = tmp_path_factory.mktemp("ball") / "ball.stl"
    ball = trimesh.creation.icosphere(subdivisions=6, radius=60)
    path.write_bytes(binary_stl(ours(ball), "ball"))
    return path


def _watching(page):
    """Another window, that notes every width and stage that the progress bar takes."""
    page = page.context.new_page()
    page.add_init_script("""
      window.seen = [];
      const look = () => {
        for (const bar of document.querySelectorAll('.bar > span'))
          if (bar.offsetParent) window.seen.push([bar.style.width, bar.closest('[role=status]').innerText]);
        requestAnimationFrame(look);
      };
      document.addEventListener("DOMContentLoaded", look);
    """)
    return page


def test_a_large_file_comes_under_a_moving_bar_and_its_slicing_is_cancelled(
    busy_server, bench, page, fine_ball
):
    page = _watching(page)
    bench = type(bench)(page)
    page.goto(busy_server.url)
    page.locator("#file").set_input_files(fine_ball)
    page.wait_for_function("() => window.seen.some(([w, t]) => /Joining|Counting|Keeping/.test(t))")
    opening = {tuple(s) for s in page.evaluate("window.seen")}
    page.wait_for_url("**/bench/**")
    bench.ready()
    assert "island" in bench.summary()
    # Thin layers, so that a fast machine shows it too.
    page.locator('[data-field="process"]').select_option("resin")
    # Clicked in the frame in which it appears: a person is slower, and a fast machine done.
    page.wait_for_function("""() => {
      const button = document.querySelector('[data-do="cancel-work"]');
      if (!button.offsetParent) return false;
      button.click();
      return true;
    }""")
    page.wait_for_selector("text=Slicing was cancelled.")
    # What needs no layers is there already.
    assert "mm², as flat as" in page.locator("[data-first]").first.inner_text()
    # The piece can still be turned, and sliced when it is wanted.
    bench.go("Turn")
    bench.fill("turn-x", 30)
    assert bench.field("turn-x") == 30
    page.wait_for_function(
        "() => window.seen.some(([w, t]) => /Slicing from z|islands|footing|bridges/.test(t))"
    )
    page.wait_for_selector("[data-summary]", state="attached", timeout=60_000)
    assert "2400 layers" in bench.figures()
    seen = opening | {tuple(s) for s in page.evaluate("window.seen")}
    assert len({width for width, _ in seen}) >= 3


def test_a_fine_mesh_is_drawn_with_few_facets_only_while_it_moves(server, bench, tmp_path):
    """By software; what lies under the pointer is a facet of the mesh itself all the same."""
    ring = trimesh.creation.torus(20, 8, 280, 280).apply_translation((0, 0, 8))
    ring.export(tmp_path / "ring.stl")
    bench.bring_in(server, tmp_path / "ring.stl")
    bench.settled()
    page = bench.page
    box = page.locator("[data-model]").bounding_box()
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2

    def drawn():
        return page.evaluate("""() => {
          const { view } = document.querySelector("[data-model]");
          const { rough, mesh, facets } = view.model;
          return [rough.mesh.visible, mesh.visible, rough.source.length, facets.length / 3];
        }""")

    assert drawn()[:2] == [False, True]
    page.mouse.move(x, y)
    page.mouse.down()
    # Beside other work a frame may come late: it goes on moving until one was drawn.
    for turn in range(60):
        page.mouse.move(x + 40 + turn % 2, y + 20, steps=4)
        if page.query_selector("canvas[data-coarse]"):
            break
        page.wait_for_timeout(250)
    page.wait_for_selector("canvas[data-coarse]")
    rough, whole, few, every = drawn()
    assert (rough, whole, every) == (True, False, 2 * 280 * 280)
    assert 2_000 < few < 50_000
    hit = page.evaluate(
        """([x, y]) => document.querySelector("[data-model]").view.pick(x, y)?.point""",
        bench.at([20, 0, 16]),
    )
    assert hit is not None
    page.mouse.up()
    bench.settled()
    assert drawn()[:2] == [False, True]
    # Each of the few is painted as the facet that it was.
    assert page.evaluate("""() => {
      const { rough, slopes } = document.querySelector("[data-model]").view.model;
      const own = rough.geometry.getAttribute("slope").array;
      return rough.source.every((f, i) => own[3 * i] === Math.fround(slopes[f]));
    }""")
