"""Braces for what bends, and the bent line, against the cantilever's formulas."""

import numpy as np
import pytest
import trimesh

from printability.process import PROCESSES
from printability.stance import Setup, place
from printability.supports import (
    OnModel,
    OnPlate,
    PillarSize,
    Support,
    anchor_on,
    braces_for,
    fit_all,
)
from printability.supports.strength import bending_of, bent_line, held_at_mm, sideways_mm
from solids import box, ours

FDM = PROCESSES["fdm"]


def _tall(*places, high=71.0, shaft=2.2):
    """Pillars of one shaft under a roof on a far post, without tip, foot or pad to speak of."""
    post, roof = box(6, 6, high + 4, (60, 0, 0)), box(80, 30, 4, (-14, -12, high))
    model = trimesh.boolean.union([post, roof], engine="manifold")
    placed = place(ours(model), Setup())
    normal = np.cross(
        *(
            placed.mesh.vertices[placed.mesh.facets[:, k]]
            - placed.mesh.vertices[placed.mesh.facets[:, 0]]
            for k in (1, 2)
        )
    )
    z = placed.mesh.vertices[placed.mesh.facets].mean(axis=1)[:, 2]
    facet = int(np.flatnonzero((normal[:, 2] < 0) & (np.abs(z - high) < 1e-3))[0])
    low = placed.mesh.vertices[:, :2].min(axis=0)
    size = PillarSize(0.5, 0.2, 0.2, shaft, shaft, 0.0, shaft, 0.0)
    made = []
    for i, (x, y) in enumerate(places):
        at = (low[0] + x, low[1] + y, high)
        facets = np.flatnonzero((normal[:, 2] < 0) & (np.abs(z - high) < 1e-3))
        inside = [f for f in facets if _covers(placed.mesh, f, at)]
        anchor = anchor_on(placed.world, int(inside[0] if inside else facet), at)
        made.append(Support(str(i + 1), "pillar", (OnModel(anchor), OnPlate()), size))
    return placed, tuple(made)


def _covers(mesh, facet, at):
    a, b, c = mesh.vertices[mesh.facets[facet], :2]
    m = np.array([b - a, c - a]).T
    u, v = np.linalg.solve(m, np.array(at[:2]) - a)
    return u >= 0 and v >= 0 and u + v <= 1


def test_the_bent_line_is_a_cantilever_s_and_says_by_how_much_it_is_drawn():
    placed, made = _tall((10, 10))
    fitted = fit_all(placed.world, made)["1"]
    line, times = bent_line(fitted, FDM)
    exact = sideways_mm(0.1, 71.0, 2.2, 3.5)  # 2.96 mm, the worked value of the trade
    assert exact == pytest.approx(2.96, abs=0.01)
    moved = (line[:, 0] - line[0, 0]) / times
    assert moved[-1] == pytest.approx(exact, rel=0.01)
    # w(z) = F z^2 (3 L - z) / (6 E I), any handbook of mechanics.
    z = line[:, 2]
    assert moved == pytest.approx(exact * z**2 * (3 * 71 - z) / (2 * 71**3), rel=0.02, abs=0.003)


def test_what_bends_is_braced_so_that_it_does_not(draws):
    for _ in range(6):
        apart, high = float(draws.uniform(5, 12)), float(draws.uniform(60, 90))
        placed, made = _tall((8, 10), (8 + apart, 10), high=high)
        fits = fit_all(placed.world, made)
        weak = {key: bending_of(f, FDM) for key, f in fits.items()}
        assert all(b.bends for b in weak.values())
        braces, alone = braces_for(fits.values(), weak, FDM)
        assert alone == []
        both = fit_all(placed.world, (*made, *braces))
        for key in ("1", "2"):
            held = held_at_mm(both[key], [f for f in both.values() if f.support.kind == "brace"])
            after = bending_of(both[key], FDM, held_mm=held)
            assert not after.bends, (apart, high, after)


def test_one_without_a_neighbour_is_named():
    placed, made = _tall((8, 10), (48, 10))
    fits = fit_all(placed.world, made)
    weak = {key: bending_of(f, FDM) for key, f in fits.items()}
    braces, alone = braces_for(fits.values(), weak, FDM)
    assert braces == []
    assert alone == ["1", "2"]
