"""All goals for two thousand directions, beside brute force; and how fast a turn is followed."""

import time

import numpy as np

from fairstand.demo.pieces import PIECES
from printability.inspection import inspect_model
from printability.layers import outline_at
from printability.mesh import Mesh, rotation_about_axes, rotation_taking_down
from printability.process import PROCESSES
from printability.surface import underside_slopes
from printability.turning import DIRECTIONS, GOALS, Scorer, even_directions, goals_of

from .browser import demo_pages
from .slicing import blob
from .timing import best_of, line

BRUTE, INSPECTED = 20, 4


def run() -> None:
    """Print the ratios."""
    fdm = PROCESSES["fdm"]
    mesh = blob()
    mesh = Mesh(mesh.vertices - mesh.vertices.mean(axis=0), mesh.facets)
    scorer = Scorer(mesh, fdm, 45.0)
    downs = even_directions(DIRECTIONS)
    scorer.score(downs[:2])
    print(f"{len(mesh.facets):,} facets, {DIRECTIONS:,} directions, all goals")
    took, rows = best_of(1, lambda: scorer.score(downs))
    line("scored", f"{took:.0f} s")
    own = took / DIRECTIONS

    normal, area = scorer.normals, scorer.areas

    def plain(down):
        """Overhanging area alone, in plain arrays over all facets."""
        z = -(mesh.vertices @ down)
        z -= z.min()
        hangs = normal @ down > np.cos(np.radians(45 - 0.01))
        return area[hangs & ~(z[mesh.facets] <= 0.1).all(axis=1)].sum()

    took, found = best_of(3, lambda: [plain(down) for down in downs[:BRUTE]])
    line("  of a direction", f"{own * 1e3:.1f} ms")
    line("  brute force over facets, overhanging area alone", f"{took / BRUTE * 1e3:.1f} ms")
    worst = np.abs(rows[:BRUTE, GOALS["area"].column] - found).max()
    line("  largest difference of that area", f"{worst:.1e} mm²")

    def inspected(down):
        turn = rotation_taking_down(down)
        vertices = mesh.vertices @ turn.T
        vertices[:, 2] -= vertices[:, 2].min()
        return goals_of(inspect_model(mesh.moved(vertices), fdm), 45.0)

    took, looks = best_of(1, lambda: [inspected(down) for down in downs[100 : 100 + INSPECTED]])
    line("  brute force, all goals by inspecting", f"{took / INSPECTED * 1e3:.0f} ms")
    line("  times as fast", f"{took / INSPECTED / own:.0f}")
    for key, goal in GOALS.items():
        scores = rows[100 : 100 + INSPECTED, goal.column]
        parts = [
            abs(s - e[key]) / max(abs(e[key]), 1e-9) for s, e in zip(scores, looks, strict=True)
        ]
        line(f"  {goal.measure}: largest difference", f"{100 * max(parts):.2f} %")
    _followed()


def _followed() -> None:
    """What the server does for one step of a turn, on each demo piece."""
    fdm = PROCESSES["fdm"]
    for piece in PIECES:
        shape = piece.make()
        scorer = Scorer(shape, fdm, 45.0)
        turn = rotation_about_axes(33, 12, 5)

        def step(shape=shape, scorer=scorer, turn=turn):
            vertices = shape.vertices @ turn.T
            vertices[:, 2] -= vertices[:, 2].min()
            mesh = shape.moved(vertices)
            scorer.score(-turn[2], with_volume=False)
            scorer.islands_at(-turn[2])
            return underside_slopes(mesh, 0.2), outline_at(mesh, 0.1, 0.2)

        step()
        took, _ = best_of(20, step)
        line(f"a turn followed in the core, {piece.name}", f"{took * 1e3:.1f} ms")
    _in_the_browser()


def _in_the_browser() -> None:
    """From asking the server to the picture, while an arc is dragged in Chromium."""
    print("A turn followed: from asking to the picture on the screen (software rendering)")
    with demo_pages() as found:
        for href, name in found[1] if found else ():
            page = found[0]
            page.goto(href)
            page.wait_for_selector("html[data-ready]")
            page.locator('[data-activity="Turn"]').click()
            page.wait_for_selector("[data-proposal]", timeout=120_000)
            page.wait_for_selector("html:not([data-busy])")
            page.wait_for_timeout(1500)  # a maker looks first; the proposals are drawn meanwhile
            took = sorted(_steps(page))
            line(name, f"{took[len(took) // 2]:.0f} ms", "under 100 ms")


def _steps(page) -> list[float]:
    box = page.locator("[data-model]").bounding_box()
    where = """(d) => { const { view, arcs: { middle: m, radius: r } } =
        document.querySelector('[data-model]'); const a = d * Math.PI / 180;
        return view.toScreen([m.x, m.y + r * Math.sin(a), m.z + r * Math.cos(a)]); }"""
    places = [page.evaluate(where, 25 - 5 * i) for i in range(11)]
    page.mouse.move(box["x"] + places[0][0], box["y"] + places[0][1])
    page.mouse.down()
    took = []
    for x, y in places[1:]:
        page.evaluate("delete document.querySelector('[data-model]').dataset.liveMs")
        page.mouse.move(box["x"] + x, box["y"] + y)
        end = time.monotonic() + 3
        while time.monotonic() < end:
            ms = page.evaluate("document.querySelector('[data-model]').dataset.liveMs")
            if ms:
                took.append(float(ms))
                break
            page.wait_for_timeout(20)
        page.wait_for_timeout(120)
    page.keyboard.press("Escape")
    page.mouse.up()
    page.wait_for_selector("html:not([data-busy])")
    return took
