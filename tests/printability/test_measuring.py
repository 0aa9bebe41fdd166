"""Measures at places of known solids, and painted sides."""

import math

import numpy as np
import pytest
import trimesh

from printability.edits import edit_from
from printability.errors import EditError
from printability.measuring import measure_at, take_measure
from printability.mesh import facet_normals
from printability.parts import SurfacePoint as Anchor
from printability.stance import Setup, fold, part_of, turned
from printability.surface import BACK, SHOW, painted_sides
from solids import box, frustum, ours, together


def _anchor(mesh, point) -> Anchor:
    """The anchor of a place on the surface."""
    for f, corners in enumerate(mesh.vertices[mesh.facets]):
        matrix = np.vstack([corners.T, np.ones(3)])
        weights, *_ = np.linalg.lstsq(matrix, [*point, 1], rcond=None)
        if (weights >= -1e-9).all() and np.allclose(matrix @ weights, [*point, 1], atol=1e-6):
            return Anchor(f, tuple(weights.tolist()))
    raise AssertionError


def _measured(mesh, kind, *points):
    return take_measure(mesh, kind, tuple(_anchor(mesh, p) for p in points))


def test_distance_thickness_and_span_of_a_slotted_block():
    block = ours(trimesh.boolean.difference(
        [box(30, 20, 10), box(6, 30, 6, (12, -5, 4.5))], engine="manifold"))  # fmt: skip
    assert _measured(block, "distance", (1, 0, 2), (4, 0, 6)).value == pytest.approx(5)
    assert _measured(block, "thickness", (15, 5, 4.5)).value == pytest.approx(4.5)
    assert _measured(block, "thickness", (5, 0, 5)).value == pytest.approx(20)
    span = _measured(block, "span", (12, 6, 8))
    assert span.value == pytest.approx(6)
    assert np.array(span.line_mm) == pytest.approx(np.array([(12, 6, 8), (18, 6, 8)]))
    nothing = _measured(block, "span", (5, 0, 5))
    assert (nothing.value, nothing.text) == (None, "nothing is opposite")


@pytest.mark.parametrize("tilt", [0, 20, 77])
def test_the_slope_of_a_face_follows_the_turn(tilt):
    block = turned(together(box(30, 20, 10)), (tilt, 0, 0))
    top = int(np.argmax(facet_normals(together(box(30, 20, 10)))[:, 2]))
    measure = take_measure(block, "slope", (Anchor(top, (1, 0, 0)),))
    assert measure.value == pytest.approx(tilt)
    assert "faces up" in measure.text
    # The protractor's arms enclose the angle, and one of them is level.
    steep, corner, level = (np.array(p) for p in measure.line_mm[:3])
    assert level[2] == pytest.approx(corner[2])
    a, b = steep - corner, level - corner
    between = math.degrees(math.acos(a @ b / np.linalg.norm(a) / np.linalg.norm(b)))
    assert between == pytest.approx(tilt, abs=1e-4)


def test_the_diameter_of_round_edges_and_of_none():
    tube = ours(trimesh.creation.annulus(4, 9, 12, sections=96))
    assert _measured(tube, "diameter", (8.9, 0, 12)).value == pytest.approx(18, rel=1e-3)
    assert _measured(tube, "diameter", (4.1, 0, 12)).value == pytest.approx(8, rel=1e-3)
    assert _measured(together(box(30, 20, 10)), "diameter", (15, 0, 9)).value is None
    ball = ours(trimesh.creation.icosphere(5, radius=5))
    assert take_measure(ball, "diameter", (Anchor(0, (1, 0, 0)),)).text == "there is no edge near"


def test_measures_are_kept_in_the_stance_and_follow_it():
    block = together(box(30, 20, 10))
    anchors = [{"facet": 0, "weights": [1, 0, 0]}, {"facet": 5, "weights": [0, 1, 0]}]
    setup = fold(block, [edit_from("measure", {"what": "distance", "anchors": anchors})])
    ((_key, kind, places),) = setup.measures
    part = part_of(block, setup)
    before = measure_at(part, block, kind, places)
    after = measure_at(part, turned(block, (33, 12, 5)), kind, places)
    assert after.value == pytest.approx(before.value)
    assert after.line_mm != before.line_mm
    assert fold(block, [edit_from("remove_measure", {"key": "1"})], setup).measures == ()
    # A key is never given out twice, so that it cannot mean another measure later.
    again = fold(block, [edit_from("remove_measure", {"key": "1"}),
                         edit_from("measure", {"what": "distance", "anchors": anchors})], setup)  # fmt: skip
    assert again.measures[0][0] == "2"
    with pytest.raises(EditError, match="not there any more"):
        fold(block, [edit_from("remove_measure", {"key": "1"})], again)
    with pytest.raises(EditError, match="not a facet"):
        fold(block, [edit_from("measure", {"what": "slope", "anchors": [
            {"facet": 12, "weights": [1, 0, 0]}]})])  # fmt: skip


def test_a_fill_stops_at_creases_and_a_rub_takes_it_off():
    cone = ours(frustum(10, 6, 12, 64))
    normal = facet_normals(cone)
    flank = int(np.argmax(np.abs(normal[:, 2]) < 0.9))

    def sides(*edits):
        return painted_sides(
            part_of(cone, Setup()), fold(cone, [edit_from(*e) for e in edits]).strokes
        )

    fill = ("fill", {"side": "show", "facet": flank, "crease_deg": 30.0})
    # The flank turns by 360° / 64 from side to side; its rims turn by more than 70°.
    assert np.array_equal(sides(fill) == SHOW, np.abs(normal[:, 2]) < 0.9)
    one = sides(("fill", {"side": "show", "facet": flank, "crease_deg": 2.0}))
    assert (one == SHOW).sum() == 2
    everything = sides(("fill", {"side": "back", "facet": flank, "crease_deg": 180.0}))
    assert (everything == BACK).all()
    touched = ("paint", {"side": "back", "facets": [[0, 3], [5, 2]]})
    assert np.flatnonzero(sides(touched) == BACK).tolist() == [0, 1, 2, 5, 6]
    assert sides(touched, ("paint", {"side": "none", "facets": [[0, 200]]})) is None
    assert sides() is None
    assert math.isclose(math.degrees(math.acos(normal[flank, 2])), 71.565, abs_tol=0.1)
