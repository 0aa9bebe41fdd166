"""Places on a surface: found again after turns, scales, cuts, remeshing and small changes."""

from dataclasses import replace

import manifold3d
import numpy as np
import pytest
import trimesh
from scipy.spatial.transform import Rotation

from printability.edits import edit_from, kept_by_place
from printability.measuring import measure_at
from printability.mesh import Mesh, facet_normals
from printability.mesh.nearest import facets_in_box, facets_within, nearest_facing
from printability.parts import Anchor, Frame, Part, anchor_at, build_parts, resolve
from printability.stance import Setup, fold, part_of, place, stand
from printability.supports import Fit
from printability.surface import SHOW, paint_key, painted_sides
from solids import box, ours, pillar_at, reference, table, together


def _bare(mesh: Mesh) -> Part:
    return part_of(mesh, Setup())


def _other(part: Part, mesh: Mesh, facet_from=None) -> Part:
    """The part with another mesh, as a change of shape leaves it."""
    if facet_from is None:
        facet_from = np.full(len(mesh.facets), -1, np.int32)
    return Part(part.key, mesh, facet_from, part.frame, mesh.digest)


def _blob(draws, rings=3) -> Mesh:
    """A smooth lump of about 20 mm."""
    ball = trimesh.creation.icosphere(rings, 10.0)
    waves = draws.normal(size=(3, 3)) / 14
    ball.vertices *= 1 + 0.12 * np.sin(ball.vertices @ waves.T).sum(axis=1, keepdims=True)
    return ours(ball)


def _anchors(draws, part, count=20):
    facets = draws.integers(0, len(part.mesh.facets), count)
    return [anchor_at(part, int(f), tuple(draws.dirichlet((1, 1, 1)))) for f in facets]


def _solid(mesh: Mesh) -> manifold3d.Manifold:
    facets = mesh.facets.astype(np.uint64)
    return manifold3d.Manifold(
        manifold3d.Mesh64(mesh.vertices, facets, face_id=np.arange(len(facets), dtype=np.uint64))
    )


def _cut(part: Part, normal, offset: float) -> tuple[Part, Part]:
    """Both halves of a part, with the facets they come from, by the reference's plane cut."""
    halves = []
    for half in _solid(part.mesh).split_by_plane(tuple(normal), offset):
        out = half.to_mesh64()
        vertices = np.array(out.vert_properties)[:, :3]
        mesh = Mesh(np.ascontiguousarray(vertices), np.array(out.tri_verts, np.int32))
        come_from = np.array(out.face_id, np.int64)
        # The cut face has numbers of its own, beyond those of the import.
        made_of = part.mesh.vertices[
            part.mesh.facets[np.minimum(come_from, len(part.facet_from) - 1)]
        ]
        own = np.cross(made_of[:, 1] - made_of[:, 0], made_of[:, 2] - made_of[:, 0])
        same = np.einsum("ij,ij->i", own, facet_normals(mesh)) > 0.99 * np.linalg.norm(own, axis=1)
        known = (come_from < len(part.facet_from)) & same
        halves.append(_other(part, mesh, np.where(known, come_from, -1).astype(np.int32)))
    return tuple(halves)


def test_the_index_agrees_with_the_reference(draws):
    mesh = _blob(draws)
    points = draws.normal(size=(200, 3)) * 9
    closest, far, _ = trimesh.proximity.closest_point(reference(mesh), points)
    for point, apart in zip(points, far, strict=True):
        _, found = nearest_facing(mesh.index, point, (0, 0, 0), -1.0, 100.0)
        assert found == pytest.approx(apart, abs=1e-9)
    assert nearest_facing(mesh.index, (100, 0, 0), (0, 0, 0), -1.0, 5.0)[0] == -1
    corners = mesh.vertices[mesh.facets]
    normals = facet_normals(mesh)
    for point, at in zip(points[:40], closest[:40], strict=True):
        way = normals[draws.integers(len(normals))]
        within = facets_within(mesh.index, at[None], way[None], 0.2, 2.5)
        near = trimesh.triangles.closest_point(corners, np.broadcast_to(at, (len(corners), 3)))
        expected = (np.linalg.norm(near - at, axis=1) <= 2.5) & (normals @ way >= 0.2)
        assert np.array_equal(within, expected)
        low, high = np.minimum(at, point), np.maximum(at, point) + 1
        meets = (corners.min(axis=1) <= high).all(axis=1) & (corners.max(axis=1) >= low).all(axis=1)
        assert set(np.flatnonzero(meets)) <= set(facets_in_box(mesh.index, low, high))


def test_a_place_is_the_same_after_any_turn_scale_mirror_and_unit(draws):
    mesh = _blob(draws)
    for _ in range(8):
        frame = Frame(
            str(draws.choice(["mm", "inch", "cm"])), tuple(draws.uniform(0.2, 5, 3)),
            tuple(bool(b) for b in draws.integers(0, 2, 3)),
        )  # fmt: skip
        setup = Setup().framed(frame).turned(tuple(draws.uniform(-180, 180, 3)))
        placed = place(mesh, setup)
        for anchor in _anchors(draws, _bare(mesh), 10):
            at = resolve(anchor, placed.part)
            assert at.facet == anchor.facet
            spot = at.on(placed.mesh)
            assert placed.on_plate(anchor.point) == pytest.approx(spot, abs=1e-7 * abs(spot).max())
            # The way it faces, by the reference: the facet's own normal as it stands.
            turned = setup.rotation @ frame.normal(anchor.normal)
            assert turned == pytest.approx(facet_normals(placed.mesh)[at.facet], abs=1e-6)


def test_a_place_is_found_on_another_mesh_of_the_same_shape(draws):
    """The same shape in other facets: no farther off than the two meshes are apart."""
    coarse = _bare(_blob(draws))
    solid = _solid(coarse.mesh)
    finer = _mesh(solid.refine(3))
    simpler = _mesh(solid.refine(2).simplify(0.02))
    shuffled = Mesh(
        coarse.mesh.vertices, coarse.mesh.facets[draws.permutation(len(coarse.mesh.facets))]
    )
    for mesh, apart in ((finer, 1e-9), (simpler, 0.05), (shuffled, 1e-9)):
        part = _other(coarse, mesh)
        for anchor in _anchors(draws, coarse):
            at = resolve(anchor, part)
            assert np.linalg.norm(at.on(mesh) - anchor.point) <= apart
            assert facet_normals(mesh)[at.facet] @ anchor.normal > 0.9


def _mesh(solid: manifold3d.Manifold) -> Mesh:
    out = solid.to_mesh64()
    vertices = np.ascontiguousarray(np.array(out.vert_properties)[:, :3])
    return Mesh(vertices, np.array(out.tri_verts, np.int32))


def test_a_surface_moved_by_less_than_the_reach_keeps_its_places(draws):
    part = _bare(_blob(draws))
    normals = reference(part.mesh).vertex_normals
    for by, is_there in ((0.3, True), (-0.3, True), (3.0, False)):
        moved = _other(part, Mesh(part.mesh.vertices + by * normals, part.mesh.facets))
        for anchor in _anchors(draws, part):
            at = resolve(anchor, moved)
            assert (at is not None) == is_there
            if is_there:
                assert np.linalg.norm(at.on(moved.mesh) - anchor.point) <= abs(by) + 1e-9


def test_of_a_thin_wall_the_other_side_is_another_place():
    part = _bare(together(box(20, 20, 0.4)))
    top = int(np.argmax(facet_normals(part.mesh)[:, 2]))
    anchor = anchor_at(part, top, (0.4, 0.3, 0.3))
    # The upper skin is gone; the lower one is nearer than the reach, but faces the other way.
    up = facet_normals(part.mesh)[:, 2] > 0.5
    open_below = _other(part, Mesh(part.mesh.vertices, part.mesh.facets[~up]))
    assert resolve(anchor, open_below) is None


def test_places_stay_with_the_half_that_has_them_when_it_is_cut(draws):
    part = _bare(_blob(draws))
    for _ in range(6):
        normal = draws.normal(size=3)
        normal /= np.linalg.norm(normal)
        offset = float(draws.uniform(-4, 4))
        halves = _cut(part, normal, offset)
        for anchor in _anchors(draws, part, 30):
            apart = np.array(anchor.point) @ normal - offset
            if abs(apart) < 1.5:
                continue  # within the reach of the cut's rim either half may answer
            found = [resolve(anchor, half) for half in halves]
            mine = 0 if apart > 0 else 1
            assert found[mine].on(halves[mine].mesh) == pytest.approx(anchor.point, abs=1e-6)
            assert halves[mine].facet_from[found[mine].facet] == anchor.facet
            assert found[1 - mine] is None


def test_pillars_paint_and_measures_after_a_cut_are_kept_and_named_where_lost():
    """A table cut through its leg: what was on the top stays with it, what was below is lost."""
    top = table()
    part = _bare(top)
    under = int(
        np.argmax(
            (facet_normals(top)[:, 2] < -0.9) & (top.vertices[top.facets][:, :, 2].min(axis=1) > 10)
        )
    )
    upper = int(
        np.argmax(facet_normals(top)[:, 2] * (top.vertices[top.facets][:, :, 2].min(axis=1) > 20))
    )
    low = int(np.argmin(top.vertices[top.facets][:, :, 2].max(axis=1)))
    edits = [
        edit_from("paint", {"side": "show", "places": [{"facet": upper, "weights": [0.4, 0.3, 0.3]}], "brush_mm": 6}),
        edit_from("fill", {"side": "back", "at": {"facet": low, "weights": [0.4, 0.3, 0.3]}}),
        edit_from("measure", {"what": "slope", "anchors": [{"facet": low, "weights": [0.4, 0.3, 0.3]}]}),
        edit_from("measure", {"what": "thickness", "anchors": [{"facet": upper, "weights": [0.4, 0.3, 0.3]}]}),
    ]  # fmt: skip
    setup = fold(top, kept_by_place(top, edits))
    # Out from the leg, so that the half without it keeps the contact.
    pillar = pillar_at(top, under, (0.8, 0.15, 0.05))
    setup = replace(setup, supports=(pillar,))
    whole = stand(part, setup)
    upper_half, lower_half = _cut(part, (0, 0, 1), 12.0)
    above, below = stand(upper_half, setup), stand(lower_half, setup)
    assert below.supports["1"].fit == Fit.LOST
    assert "not there any more" in below.supports["1"].text
    assert below.supports["1"].contact_mm == pytest.approx(
        below.on_plate(pillar.ends[0].anchor.point)
    )
    assert below.standing == []
    kept = above.supports["1"]
    assert kept.fit == Fit.STANDS
    moved = np.array(kept.contact_mm) - whole.supports["1"].contact_mm
    assert moved == pytest.approx((moved[0], moved[1], -12.0), abs=1e-9)
    slope, wall = (
        [measure_at(p.part, p.mesh, what, anchors) for p in (above, below)]
        for _, what, anchors in setup.measures
    )
    assert [m.value for m in slope] == [None, pytest.approx(0)]
    assert "lost" in slope[0].text
    assert [m.value is None for m in wall] == [False, True]
    sides = [painted_sides(p, setup.strokes) for p in (upper_half, lower_half)]
    assert set(np.unique(sides[0])) == {0, SHOW}
    assert SHOW not in sides[1]


def test_paint_covers_the_same_ground_on_a_finer_mesh(draws):
    part = _bare(_blob(draws))
    finer = _other(part, _mesh(_solid(part.mesh).refine(4)))
    places = [
        {"point": a.point, "normal": a.normal, "facet": a.facet} for a in _anchors(draws, part, 6)
    ]
    setup = fold(
        part.mesh, [edit_from("paint", {"side": "show", "places": places, "brush_mm": 7.0})]
    )
    areas = []
    for one in (part, finer):
        sides = painted_sides(one, setup.strokes)
        corners = one.mesh.vertices[one.mesh.facets]
        area = (
            np.linalg.norm(
                np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0]), axis=1
            )
            / 2
        )
        areas.append(area[sides == SHOW].sum())
        near = trimesh.triangles.closest_point(
            corners, np.broadcast_to(places[0]["point"], (len(corners), 3))
        )
        touched = np.linalg.norm(near - places[0]["point"], axis=1) <= 3.5
        assert sides[touched & (facet_normals(one.mesh) @ places[0]["normal"] >= 0.2)].all()
    # Facets are painted whole: the finer the mesh, the nearer to six discs of 7 mm.
    assert areas[1] < areas[0]
    assert areas[1] < 6 * np.pi * 3.5**2 * 1.5


def test_a_stroke_more_costs_only_itself():
    part = _bare(table())
    asked, known = [], {}

    def remember(key):
        asked.append(key)
        return known.get(key)

    edits = [
        edit_from("fill", {"side": side, "facet": n})
        for n, side in enumerate(("show", "back", "none", "show"))
    ]
    strokes = fold(part.mesh, edits).strokes
    for count in range(1, 5):
        known[paint_key(part, strokes[:count])] = painted_sides(part, strokes[:count], remember)
    assert paint_key(part, strokes[:3]) in asked
    fresh = painted_sides(part, strokes)
    assert np.array_equal(known[paint_key(part, strokes)], fresh)
    assert len({paint_key(part, strokes[:n]) for n in range(5)}) == 5
    # Paint is on the piece itself: a scale does not make it another.
    scaled = part_of(table(), Setup().framed(Frame(scale=(2.0, 1.0, 1.0))))
    assert paint_key(scaled, strokes) == paint_key(part, strokes)
    assert np.array_equal(painted_sides(scaled, strokes), fresh)


def test_steps_are_named_by_their_prefix_and_built_once():
    source, built = table(), []

    def remembered(name, step, parts):
        if name not in memory:
            built.append(name)
            memory[name] = step.applied(parts)
        return memory[name]

    memory = {}
    plain, double = Setup(), Setup().framed(Frame(scale=(2.0, 2.0, 2.0)))
    assert plain.framed(Frame()).shape == () == double.framed(Frame()).shape
    assert double.framed(Frame("inch")).shape == Setup().framed(Frame("inch")).shape
    one = part_of(source, double, remembered)
    assert part_of(source, double, remembered) is one
    assert len(built) == 1
    (bare,) = build_parts(source, ())
    assert len({bare.digest, one.digest, part_of(source, plain.framed(Frame("cm"))).digest}) == 3
    assert bare.shape_digest == one.shape_digest  # nothing but its frame is another
    other = Mesh(source.vertices + 1e-9, source.facets)
    assert build_parts(other, ())[0].digest != bare.digest


def test_edits_of_a_part_hold_for_what_is_cut_from_it():
    source = table()
    lift = edit_from("lift", {"lift_mm": 3})
    own = edit_from("lift", {"lift_mm": 7, "part": "1.a"})
    scale = edit_from("scale", {"x": 2.0, "y": 2.0, "z": 2.0, "part": "1.b"})
    lifts = {
        key: fold(source, [lift, own, scale], part=key).lift_mm
        for key in ("1", "1.a", "1.b", "1.a.b")
    }
    assert lifts == {"1": 3, "1.a": 7, "1.b": 3, "1.a.b": 7}
    assert fold(source, [scale], part="1.a").frame.scale == (2.0, 2.0, 2.0)


def test_edits_of_an_earlier_day_become_places(draws):
    """Facet and weights on the import: the same contact, whatever was scaled before."""
    top = table()
    under = int(
        np.argmax(
            (facet_normals(top)[:, 2] < -0.9) & (top.vertices[top.facets][:, :, 2].min(axis=1) > 10)
        )
    )
    weights = tuple(draws.dirichlet((1, 1, 1)))
    old = [
        edit_from("scale", {"x": 2.0, "y": 1.0, "z": 1.5}), edit_from("mirror", {"axis": "x"}),
        edit_from("pillar", {"key": "4", "facet": under, "weights": weights, "size": _SIZE}),
        edit_from("face_down", {"facet": 3}), edit_from("fill", {"side": "show", "facet": under}),
        edit_from("measure", {"what": "slope", "anchors": [{"facet": under, "weights": weights}]}),
        edit_from("remove_pillar", {"key": "4"}),
    ]  # fmt: skip
    new = kept_by_place(top, old)
    assert not any(edit.names_facets for edit in new)
    assert [edit.kind for edit in new] == [
        "scale", "mirror", "support", "face_down", "fill", "measure", "remove_support",
    ]  # fmt: skip
    assert new[2].ends[0].point == pytest.approx(
        np.array(weights) @ top.vertices[top.facets[under]]
    )
    assert fold(top, new) == fold(top, old)
    for edit in new:
        assert edit_from(edit.kind, edit.parameters()) == edit


_SIZE = {"contact_mm": 0.5, "embed_mm": 0.3, "tip_mm": 3.0, "shaft_mm": 2.2, "foot_mm": 6.0,
         "foot_height_mm": 3.0, "pad_mm": 8.0, "pad_height_mm": 1.0}  # fmt: skip


def test_a_place_far_from_the_origin_and_in_single_precision(draws):
    for far in (1e3, 1e5):
        ball = trimesh.creation.icosphere(3, 10.0)
        vertices = (ball.vertices @ Rotation.random(random_state=3).as_matrix() + far).astype(
            np.float32
        )
        mesh = Mesh(vertices.astype(np.float64), ball.faces.astype(np.int32))
        part = _bare(mesh)
        for anchor in _anchors(draws, part):
            assert resolve(anchor, part).facet == anchor.facet
            stale = Anchor(anchor.point, anchor.normal, (anchor.facet + 7) % len(mesh.facets))
            spot = resolve(stale, part).on(mesh)
            assert np.linalg.norm(spot - anchor.point) <= 1e-9 * far
