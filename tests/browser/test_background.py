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
