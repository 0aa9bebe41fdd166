"""Edits of size, mirror, place and turn, folded over a mesh and measured there."""

import numpy as np
import pytest
import trimesh

from printability.edits import edit_from
from printability.errors import EditError
from printability.measuring import measure_at
from printability.mesh import Mesh, rotation_about_axes, volume_mm3
from printability.parts import Frame, anchor_at
from printability.stance import Setup, fold, part_of, place
from solids import PILLAR_SIZE, box, ours, pillar_under, profile_of, table


def _wedge() -> Mesh:
    """Different along every axis and unlike its mirror image."""
    parts = [box(40, 20, 10), box(6, 5, 20), box(10, 4, 14, (28, 14, 0))]
    return ours(trimesh.boolean.union(parts, engine="manifold"))


def _placed(source, *edits, unit="mm"):
    setup = fold(
        source,
        [edit_from(kind, parameters) for kind, parameters in edits],
        Setup().framed(Frame(unit)),
    )
    return place(source, setup), setup


def _lines(points, way):
    return np.sort(points @ way)


def test_scale_by_factor_by_size_and_to_fit():
    wedge = _wedge()
    placed, _ = _placed(wedge, ("scale", {"x": 2.0, "y": 1.0, "z": 0.5}))
    assert placed.size_mm == pytest.approx((80, 20, 10))
    placed, setup = _placed(wedge, ("scale_to_size", {"axis": "y", "size_mm": 30.0}))
    assert placed.size_mm == pytest.approx((60, 30, 30))
    assert setup.frame.scale == pytest.approx((1.5, 1.5, 1.5))
    # Proportions as they are now are what is kept.
    placed, _ = _placed(
        wedge, ("scale", {"x": 2.0, "y": 1.0, "z": 1.0}),
        ("scale_to_size", {"axis": "x", "size_mm": 40.0}),
    )  # fmt: skip
    assert placed.size_mm == pytest.approx((40, 10, 10))
    placed, _ = _placed(wedge, ("scale_to_size", {"axis": "z", "size_mm": 5.0, "keep": False}))
    assert placed.size_mm == pytest.approx((40, 20, 5))
    # Largest that fits 220 x 220 x 250 as it stands: turned up, its 40 mm stand along Z.
    placed, _ = _placed(
        wedge, ("turn", {"x_deg": 0, "y_deg": 90, "z_deg": 0}), ("scale_to_fit", {})
    )
    assert placed.size_mm == pytest.approx((125, 125, 250), rel=1e-5)
    assert max(placed.size_mm) <= 250
    with pytest.raises(EditError, match="set it back"):
        _placed(wedge, ("move", {"x_mm": 400, "y_mm": 0}), ("scale_to_fit", {}))
    with pytest.raises(EditError, match="between"):
        _placed(
            wedge,
            ("scale", {"x": 1e4, "y": 1, "z": 1}),
            ("scale_to_size", {"axis": "y", "size_mm": 9000}),
        )


def test_a_scaled_piece_keeps_its_pillars_dimensions_and_they_refit():
    top = table()
    pillar = pillar_under(top)
    setup = fold(top, [pillar, edit_from("scale", {"x": 2.0, "y": 2.0, "z": 2.0})])
    small, large = place(top, fold(top, [pillar])), place(top, setup)
    one, two = small.supports["1"], large.supports["1"]
    assert one.fit == two.fit == "stands"
    assert two.support.size == one.support.size
    # The contact is at the same place of the piece: twice as far out and as high.
    assert np.array(two.contact_mm) == pytest.approx(2 * np.array(one.contact_mm), abs=1e-6)
    radii = [profile_of(p)[:, 1] for p in (one, two)]
    assert radii[1].max() == radii[0].max() == pytest.approx(PILLAR_SIZE["pad_mm"] / 2)
    assert radii[1].min() == pytest.approx(radii[0].min())


@pytest.mark.parametrize("axis", ["x", "y", "z"])
def test_mirror_makes_the_mirror_image(axis):
    wedge = _wedge()
    placed, setup = _placed(wedge, ("mirror", {"axis": axis}))
    assert setup.frame.is_mirrored
    assert placed.mesh.is_watertight
    assert volume_mm3(placed.mesh) == pytest.approx(volume_mm3(wedge))
    # Every corner is where the mirrored corner was, moved as a whole.
    flip = np.diag([-1.0 if a == axis else 1.0 for a in "xyz"])
    apart = placed.mesh.vertices - wedge.vertices @ flip
    assert np.ptp(apart, axis=0) == pytest.approx(0, abs=1e-9)
    # Twice is the piece as it was; about two axes it is half a turn, not a mirror image.
    again, setup = _placed(wedge, ("mirror", {"axis": axis}), ("mirror", {"axis": axis}))
    assert (again.mesh.vertices == place(wedge, Setup()).mesh.vertices).all()
    assert not _placed(wedge, ("mirror", {"axis": "x"}), ("mirror", {"axis": "y"}))[
        1
    ].frame.is_mirrored


def test_anchors_stay_at_their_place_when_mirrored():
    top = table()
    weights = (0.7, 0.2, 0.1)
    facet = int(np.argmax(top.vertices[top.facets][:, :, 2].min(axis=1)))
    there = np.array(weights) @ top.vertices[top.facets[facet]]
    placed, _ = _placed(top, ("mirror", {"axis": "x"}))
    bare = part_of(top, Setup())
    anchors = tuple(anchor_at(bare, facet, w) for w in (weights, (1.0, 0, 0)))
    measured = measure_at(placed.part, placed.mesh, "distance", anchors)
    expected = np.linalg.norm(there - top.vertices[top.facets[facet][0]])
    assert measured.value == pytest.approx(expected)
    fitted = place(top, fold(top, [pillar_under(top), edit_from("mirror", {"axis": "x"})]))
    plain = place(top, fold(top, [pillar_under(top)]))
    mirrored = np.array(plain.supports["1"].contact_mm) * (-1, 1, 1)
    assert np.array(fitted.supports["1"].contact_mm) == pytest.approx(mirrored, abs=1e-9)
    assert fitted.supports["1"].support == plain.supports["1"].support


def test_move_and_lift_place_the_middle():
    placed, _ = _placed(
        _wedge(), ("move", {"x_mm": 12.5, "y_mm": -4.0}), ("lift", {"lift_mm": 3.0})
    )
    low, high = placed.mesh.vertices.min(axis=0), placed.mesh.vertices.max(axis=0)
    assert (low + high)[:2] / 2 == pytest.approx((12.5, -4.0))
    assert low[2] == pytest.approx(3.0)
    back, setup = _placed(
        _wedge(),
        ("move", {"x_mm": 9, "y_mm": 9}),
        ("scale", {"x": 2, "y": 2, "z": 2}),
        ("as_imported", {}),
    )
    assert setup.move_mm == (0, 0)
    assert back.size_mm == pytest.approx((80, 40, 40))  # the size stays


def test_lean_takes_the_top_towards_a_side():
    for toward in (0, 90, 215):
        _, setup = _placed(_wedge(), ("lean", {"toward_deg": toward, "by_deg": 25}))
        top = setup.rotation @ [0, 0, 1]
        side = np.array([np.cos(np.radians(toward)), np.sin(np.radians(toward)), 0])
        assert top @ side == pytest.approx(np.sin(np.radians(25)))
        assert top[2] == pytest.approx(np.cos(np.radians(25)))


def test_turning_about_its_own_axes_is_not_about_the_plates():
    first = ("turn", {"x_deg": 90, "y_deg": 0, "z_deg": 0})
    _, plate = _placed(_wedge(), first, ("turn_by", {"axis": "z", "by_deg": 30}))
    _, own = _placed(_wedge(), first, ("turn_by", {"axis": "z", "by_deg": 30, "own": True}))
    upright = rotation_about_axes(90, 0, 0)
    assert plate.rotation == pytest.approx(rotation_about_axes(0, 0, 30) @ upright)
    assert own.rotation == pytest.approx(upright @ rotation_about_axes(0, 0, 30))


@pytest.mark.parametrize("start", [(0, 0, 0), (31, -77, 140)])
def test_stand_on_and_face_down_by_the_smallest_turn(start):
    turn = ("turn", dict(zip(("x_deg", "y_deg", "z_deg"), start, strict=True)))
    _, setup = _placed(_wedge(), turn, ("stand_on", {"down": [1.0, 2.0, -0.5]}))
    down = np.array([1.0, 2.0, -0.5]) / np.linalg.norm([1.0, 2.0, -0.5])
    assert setup.rotation @ down == pytest.approx([0, 0, -1], abs=1e-8)
    before = rotation_about_axes(*start)
    moved = setup.rotation @ before.T
    angle = np.degrees(np.arccos((np.trace(moved) - 1) / 2))
    assert angle == pytest.approx(np.degrees(np.arccos(-(before @ down)[2])))
    # A face of a piece that is stretched and mirrored lies flat all the same.
    wedge = _wedge()
    for facet in (0, 7, 19):
        placed, _ = _placed(
            wedge, ("scale", {"x": 2.0, "y": 1.0, "z": 0.5}), ("mirror", {"axis": "y"}), turn,
            ("face_down", {"facet": facet}),
        )  # fmt: skip
        assert np.ptp(placed.mesh.vertices[placed.mesh.facets[facet]][:, 2]) < 1e-6
        outward = np.cross(*np.diff(placed.mesh.vertices[placed.mesh.facets[facet]], axis=0))
        assert outward[2] < 0


def test_two_points_are_set_level_by_the_smallest_turn():
    wedge = _wedge()
    top = int(np.argmax(wedge.vertices[wedge.facets][:, :, 2].mean(axis=1)))
    anchors = [
        {"facet": top, "weights": [1, 0, 0]},
        {"facet": 0, "weights": [0.2, 0.3, 0.5]},
    ]
    placed, setup = _placed(
        wedge, ("turn", {"x_deg": 10, "y_deg": 50, "z_deg": 5}), ("level", {"anchors": anchors})
    )
    places = [
        np.array(a["weights"]) @ placed.mesh.vertices[placed.mesh.facets[a["facet"]]]
        for a in anchors
    ]
    assert places[0][2] == pytest.approx(places[1][2], abs=1e-6)
    # No smaller turn does: it turns by the angle at which the line between them stood.
    before = rotation_about_axes(10, 50, 5)
    apart = before @ (
        np.subtract(
            *[np.array(a["weights"]) @ wedge.vertices[wedge.facets[a["facet"]]] for a in anchors]
        )
    )
    stood = np.degrees(np.arcsin(abs(apart[2]) / np.linalg.norm(apart)))
    turned_by = np.degrees(np.arccos((np.trace(setup.rotation @ before.T) - 1) / 2))
    assert turned_by == pytest.approx(stood, abs=1e-6)
    with pytest.raises(EditError, match="straight above"):
        _placed(wedge, ("level", {"anchors": [anchors[0], anchors[0]]}))


def test_the_unit_can_be_corrected_later():
    wedge = _wedge()
    placed, _ = _placed(wedge, ("scale", {"x": 1, "y": 1, "z": 2}), ("unit", {"unit": "cm"}))
    assert placed.size_mm == pytest.approx((400, 200, 400))
    assert part_of(wedge, Setup().framed(Frame("inch"))).mesh.vertices.max() == pytest.approx(
        40 * 25.4
    )
