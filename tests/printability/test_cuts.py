"""Cuts and joints: volumes, sections, fits and provenance, against formulas and reference solids."""

import math

import numpy as np
import pytest
import shapely
import trimesh

from depth import about
from printability.edits import edit_from
from printability.errors import EditError
from printability.mesh import binary_stl, facet_areas, mesh_of, open_mesh, volume_mm3
from printability.parts import WHOLE, Frame, Part, anchor_at, resolve
from printability.splitting import (
    Cut,
    Dovetail,
    Joint,
    before_cut,
    bending_strain,
    crease_loops,
    face_of,
    halves_of,
    hole_of,
    joints_crossed,
    loop_near,
    mirrored,
    places_for,
    pokes_out,
    slide_of,
    weighed,
    zone_of,
)
from printability.stance import Setup, fold, parts_of
from printability.surface import SHOW, Stroke, painted_sides
from solids import box, frustum, ours, table, together


def whole(mesh) -> Part:
    facets = np.arange(len(mesh.facets), dtype=np.int32)
    return Part(WHOLE, mesh, facets, Frame(), mesh.digest, mesh)


def unit(draws) -> np.ndarray:
    n = draws.normal(size=3)
    return n / np.linalg.norm(n)


def cut_at(normal, point, **more) -> Cut:
    return Cut("1", WHOLE, tuple(map(float, normal)), tuple(map(float, point)), **more)


def parts_after(mesh, *edits) -> dict[str, Part]:
    setup = fold(mesh, [edit_from(kind, values) for kind, values in edits])
    return {part.key: part for part in parts_of(mesh, setup)}


def read_back(part: Part) -> trimesh.Trimesh:
    mesh = open_mesh(binary_stl(part.mesh, "part"), "part.stl").mesh
    return trimesh.Trimesh(mesh.vertices, mesh.facets, process=False)


def test_parts_and_kerf_make_up_the_whole_at_any_plane(draws, bunny):
    for mesh in (bunny, table(), ours(trimesh.creation.torus(20, 6)), together(
        box(20, 20, 20), box(10, 10, 10, (5, 5, 5)), box(5, 5, 5, (40, 0, 0))
    )):  # fmt: skip
        middle = (mesh.vertices.min(axis=0) + mesh.vertices.max(axis=0)) / 2
        reach = np.ptp(mesh.vertices, axis=0).min() / 4
        for _ in range(about(3)):
            normal, far = unit(draws), draws.uniform(-1e3, 1e3, 3)
            moved = type(mesh)(mesh.vertices + far, mesh.facets)
            point = middle + far + draws.uniform(-reach, reach) * normal
            kerf = float(draws.choice([0.0, 0.4]))
            parts = cut_at(normal, point, kerf_mm=kerf).applied((whole(moved),))
            assert [p.key for p in parts] == ["1.a", "1.b"]
            assert all(p.mesh.is_watertight for p in parts)
            halves = halves_of(whole(moved), cut_at(normal, point, kerf_mm=kerf))
            lost = volume_mm3(moved) - sum(volume_mm3(p.mesh) for p in parts)
            # Between its faces a kerf holds about its middle section's area.
            bare = halves_of(whole(moved), cut_at(normal, point))
            area = sum(s.slice(bare.plane.offset_mm + 1e-7).area() for s in bare.a)
            assert lost == pytest.approx(kerf * area, rel=0.25 if kerf else 0, abs=1e-3)
            for part, sign in zip(parts, (1, -1), strict=True):
                beyond = sign * (part.mesh.vertices @ halves.plane.normal - halves.plane.offset_mm)
                assert beyond.min() >= kerf / 2 - 1e-7


@pytest.mark.parametrize("loose", ["stay", "apart"])
def test_rooms_stay_empty_on_the_side_where_they_are(draws, loose):
    """A block with closed rooms, some of which hold a block with a room of its own."""
    for _ in range(about(6)):
        shells, clear = [box(60, 20, 20)], 60 * 20 * 20.0
        for x in (3.0, 23.0, 43.0):
            for size, inset, sign in ((14, 0, -1), (8, 3, 1), (4, 5, -1)):
                shell = box(size, size, size, np.array([x, 3, 3]) + inset)
                if sign < 0:
                    shell.invert()
                shells.append(shell)
                clear += sign * size**3
                if draws.random() < 0.4:
                    break
        turn = trimesh.transformations.random_rotation_matrix(draws.random(3))
        mesh = together(*(shell.apply_transform(turn) for shell in shells))
        assert volume_mm3(mesh) == pytest.approx(clear)
        # Somewhere between two rooms, or through one of them.
        point = turn[:3, :3] @ [draws.choice([20.0, 30.0, 40.0, draws.uniform(2, 58)]), 10, 10]
        point[2] -= min(shell.vertices[:, 2].min() for shell in shells)
        normal = turn[:3, 0] + draws.choice([0, 0.1]) * unit(draws)
        parts = cut_at(normal, point, loose=loose).applied((whole(mesh),))
        assert len(parts) >= 2
        assert sum(volume_mm3(part.mesh) for part in parts) == pytest.approx(clear, rel=1e-9)
        assert all(volume_mm3(part.mesh) > 0 for part in parts)


def _overhang(solids, axes, down, threshold_deg, rest_mm) -> float:
    """Area of undersides off the plate, triangle by triangle of a cut that was made."""
    surfaces = [mesh_of(one) for one in solids]
    triangles = np.concatenate([one.vertices[one.facets] @ axes for one in surfaces])
    across = np.cross(triangles[:, 1] - triangles[:, 0], triangles[:, 2] - triangles[:, 0])
    area = np.linalg.norm(across, axis=1)
    depth = triangles @ down
    hangs = across @ down > area * math.cos(math.radians(threshold_deg))
    return float(area[hangs & (depth.min(axis=1) <= depth.max() - rest_mm)].sum() / 2)


def test_what_is_weighed_is_what_a_cut_leaves(draws, bunny):
    """Against the solids that the library makes, at any plane, also along flats."""
    room = box(6, 6, 6, (12, 12, 12))
    room.invert()
    far = together(*(box(3, 3, 30, (x, y, 0)) for x in (0, 8, 16) for y in (0, 8)),
                   box(40, 40, 4, (0, 0, 40)))  # fmt: skip
    overlapping = together(box(20, 20, 20), box(10, 10, 30, (5, 5, 5)), box(5, 5, 5, (40, 0, 0)))
    solids = [
        bunny.moved(bunny.vertices * (60 / bunny.size_mm.max())), table(), far,
        ours(trimesh.creation.torus(20, 6)), together(box(30, 30, 30), room),
        overlapping, ours(trimesh.creation.annulus(5, 9, 20)),
    ]  # fmt: skip
    for mesh in solids:
        for _ in range(about(4)):
            moved = mesh.moved(mesh.vertices + draws.uniform(-1e3, 1e3, 3))
            level = draws.random() < 0.4
            normal = np.eye(3)[draws.integers(3)] * draws.choice([-1, 1]) if level else unit(draws)
            at = moved.vertices[draws.integers(len(moved.vertices))] if draws.random() < 0.5 else (
                moved.low_mm + draws.random(3) * moved.size_mm)  # fmt: skip
            cut = cut_at(normal, at, kerf_mm=float(draws.choice([0.0, 0.5])))
            down = unit(draws)
            found = weighed(whole(moved), cut, [down, -normal], [down, normal], 45.0, 0.1)
            halves = halves_of(whole(moved), cut)
            volume = volume_mm3(moved)
            for side, made, flat in (
                (found.a, halves.a, -normal), (found.b, halves.b, normal),
            ):  # fmt: skip
                assert side.bodies == len(made)
                whole_side = sum(one.volume() for one in made)
                assert side.volume_mm3 == pytest.approx(whole_side, abs=1e-8 * volume)
                if not made:
                    continue
                boxes = [one.bounding_box() for one in made]
                thinnest = min(b[5] - b[2] for b in boxes)
                assert side.thinnest_mm == pytest.approx(thinnest, abs=1e-7 * moved.size_mm.max())
                for way, area in zip((down, flat), side.overhang_mm2, strict=True):
                    # Triangles of a cut are others: those that reach down to what rests.
                    lean = _overhang(made, halves.plane.axes, way, 45.0, 0.1)
                    most = _overhang(made, halves.plane.axes, way, 45.0, 0.0)
                    assert area <= most * (1 + 1e-6) + 1e-6
                    if mesh is not overlapping:  # where bodies share a cut face it counts once
                        assert area == pytest.approx(lean, rel=0.02, abs=2.0)
            # That face is a little beyond the plane: by this much, on slopes of 6° by ten times.
            beyond = 1e-6 * max(1.0, abs(halves.plane.offset_mm)) * found.outline.length
            area = face_of(halves, cut.kerf_mm).area_mm2
            assert found.outline.area == pytest.approx(area, abs=20 * beyond + 1e-6)


def test_what_is_open_is_not_weighed():
    mesh = table()
    mesh = type(mesh)(mesh.vertices, np.ascontiguousarray(mesh.facets[1:]))
    assert weighed(whole(mesh), cut_at((0, 0, 1), (0, 0, 5)), [], [], 45.0, 0.1) is None


def test_sections_by_formula(draws):
    ball = ours(trimesh.creation.icosphere(5, 10.0))
    centre = (ball.vertices.min(axis=0) + ball.vertices.max(axis=0)) / 2
    for _ in range(4):
        normal, off = unit(draws), draws.uniform(-7, 7)
        halves = halves_of(whole(ball), cut_at(normal, centre + off * normal))
        assert face_of(halves).area_mm2 == pytest.approx(math.pi * (100 - off**2), rel=0.004)
    cone = ours(frustum(10, 5, 20))
    halves = halves_of(whole(cone), cut_at((0, 0, 1), (0, 0, 8)))
    assert face_of(halves).area_mm2 == pytest.approx(math.pi * 8**2, rel=1e-3)
    ring = ours(trimesh.creation.torus(20, 6, major_sections=256, minor_sections=256))
    halves = halves_of(whole(ring), cut_at((1, 0, 0), (0, 0, 0)))  # two circles
    assert face_of(halves).area_mm2 == pytest.approx(2 * math.pi * 36, rel=1e-3)
    assert halves.plane.axes == pytest.approx(np.array([[0, 1, 0], [0, 0, 1], [1, 0, 0]]))


@pytest.mark.parametrize("kerf", [0.0, 2.0])
@pytest.mark.parametrize("sign", [1, -1])
@pytest.mark.parametrize("turn", [0.0, 33.0])
@pytest.mark.parametrize("high", [False, True])
def test_a_cut_along_a_flat_leaves_no_film(turn, sign, kerf, high):
    """Cutting where the top rests on the leg, turned so that rounding has its say."""
    mesh = table()
    about = trimesh.transformations.rotation_matrix(math.radians(turn), (1, 2, 3))[:3, :3]
    turned = type(mesh)(mesh.vertices @ about.T + 1000 / 3, mesh.facets)
    point = about @ (0, 0, 20.0) + 1000 / 3
    point = point + kerf / 2 * (about @ (0, 0, 1)) * (1 if high else -1)
    thick, long = 4 - (kerf if high else 0.0), 20 - (0.0 if high else kerf)
    parts = cut_at(sign * about @ (0, 0, 1), point, kerf_mm=kerf).applied((whole(turned),))
    a, b = parts[::sign]
    assert volume_mm3(a.mesh) == pytest.approx(40 * 30 * thick, rel=1e-9)
    assert volume_mm3(b.mesh) == pytest.approx(4 * 4 * long, rel=1e-9)
    assert facet_areas(a.mesh).sum() == pytest.approx(2 * 40 * 30 + 2 * 70 * thick)
    assert facet_areas(b.mesh).sum() == pytest.approx(2 * 4 * 4 + 4 * 4 * long)


def test_facets_keep_where_they_come_from(draws, bunny):
    reference = trimesh.Trimesh(bunny.vertices, bunny.facets, process=False)
    middle = bunny.vertices.mean(axis=0)
    normal = unit(draws)
    for part in cut_at(normal, middle).applied((whole(bunny),)):
        old = part.facet_from >= 0
        assert 0.02 < old.mean() < 1
        corners = part.mesh.vertices[part.mesh.facets]
        own = corners[old].mean(axis=1)
        a = bunny.vertices[bunny.facets[part.facet_from[old]]]
        # Each lies on the plane of the facet that it names, and faces the same way.
        n = reference.face_normals[part.facet_from[old]]
        size = np.ptp(bunny.vertices, axis=0).max()
        assert np.abs(np.einsum("ij,ij->i", own - a[:, 0], n)).max() < 1e-6 * size
        on_cut = np.abs(corners[~old] @ normal - middle @ normal).max()
        assert on_cut < 1e-6 * size


@pytest.mark.parametrize(("kind", "outline"), [
    ("peg", "round"), ("peg", "hexagon"), ("peg", "triangle"), ("dowel", "square"), ("dowel", "round"),
])  # fmt: skip
def test_joints_by_formula_and_with_their_clearance(kind, outline):
    block = ours(box(30, 30, 40))
    w, depth, c = 6.0, 7.0, 0.2
    joint = {"key": "1", "kind": kind, "at": [15, 15, 20], "outline": outline, "width_mm": w,
             "depth_a_mm": depth, "depth_b_mm": 5.0, "clearance_mm": c, "bevel_mm": 0.0}  # fmt: skip
    parts = parts_after(
        block, ("cut", {"key": "1", "normal": [0, 0, 1], "point": [0, 0, 20]}),
        ("joints", {"cut": "1", "joints": [joint]}),
    )  # fmt: skip
    n = {"round": 64, "triangle": 3, "square": 4, "hexagon": 6}[outline]

    def area(inner, is_round_pin=False):  # of a regular polygon by its inner or outer radius
        if is_round_pin:
            return n / 2 * inner**2 * math.sin(2 * math.pi / n)
        return n * inner**2 * math.tan(math.pi / n)

    pin, hole = area(w / 2, outline == "round"), area(w / 2 + c)
    side = 30 * 30 * 20
    if kind == "peg":
        assert set(parts) == {"1.a", "1.b"}
        assert volume_mm3(parts["1.b"].mesh) == pytest.approx(side + pin * depth, rel=1e-6)
    else:
        assert set(parts) == {"1.a", "1.b", "1.c"}
        assert volume_mm3(parts["1.b"].mesh) == pytest.approx(side - hole * (5 + c), rel=1e-6)
        assert volume_mm3(parts["1.c"].mesh) == pytest.approx(pin * (depth + 5), rel=1e-6)
    assert volume_mm3(parts["1.a"].mesh) == pytest.approx(side - hole * (depth + c), rel=1e-6)
    # Read back from STL: they do not meet, and are as far apart as was asked for.
    a, pin_part = read_back(parts["1.a"]), read_back(parts["1.b" if kind == "peg" else "1.c"])
    inside = pin_part.vertices[pin_part.vertices[:, 2] > 20.5]
    _, apart, _ = trimesh.proximity.closest_point(a, inside)
    # Corners of a polygon are farther than its sides; a round pin's corners are nearest.
    assert c - 1e-3 <= apart.min() <= c / math.cos(math.pi / n) + 0.02
    assert not a.contains(inside).any()


def test_a_snap_fit_bends_as_the_formula_says_and_slides_in():
    block = ours(box(30, 30, 40))
    joint = Joint("1", "snap", (15, 15, 20), width_mm=6, depth_a_mm=10, thick_mm=1.5, catch_mm=0.6)
    # y = 2/3 strain L^2 / t, beam theory: 1.5 * 1.5 * 0.6 / 100
    assert bending_strain(joint) == pytest.approx(0.0135)
    cut = cut_at((0, 0, 1), (0, 0, 20), joints=(joint,))
    a, b = cut.applied((whole(block),))
    assert a.mesh.is_watertight
    assert b.mesh.is_watertight
    room, beam = read_back(a), read_back(b)
    assert not room.contains(beam.vertices[beam.vertices[:, 2] > 20.1]).any()
    top = beam.vertices[beam.vertices[:, 2] > 20.1]
    assert top[:, 0].max() == pytest.approx(15 + 0.75 + 0.6)  # the catch
    assert pokes_out(whole(block), halves_of(whole(block), cut), cut, 0.8) == {}


def test_a_dovetail_by_formula():
    block = ours(box(30, 60, 40))
    tail = Dovetail((15, 30, 20), 8.0, 4.0, 15.0, 0.0, 0.0, 0.2)
    cut = cut_at((0, 0, 1), (0, 0, 20), dovetail=tail)
    a, b = cut.applied((whole(block),))
    wide = 8 + 2 * 4 * math.tan(math.radians(15))
    ridge = (8 + wide) / 2 * 4 * 60
    assert volume_mm3(b.mesh) == pytest.approx(30 * 60 * 20 + ridge, rel=1e-6)
    solid, tail_mesh = read_back(a), read_back(b)
    up = tail_mesh.vertices[(tail_mesh.vertices[:, 2] > 20.1)]
    inner = up[(up[:, 1] > 1) & (up[:, 1] < 59)]
    assert not solid.contains(inner + [0, 0, 0]).any()
    assert pokes_out(whole(block), halves_of(whole(block), cut), cut, 0.8) == {}
    too_wide = cut_at((0, 0, 1), (0, 0, 20), dovetail=Dovetail((15, 30, 20), 28.0, 4.0))
    assert "dovetail" in pokes_out(whole(block), halves_of(whole(block), too_wide), too_wide, 0.8)


def test_no_joint_pokes_out_unnoticed(draws, bunny):
    """Random joints on random cuts, against dense samples and the reference library."""
    block = ours(box(40, 30, 40))
    hollow = ours(trimesh.boolean.difference(
        [box(40, 40, 40), box(36, 36, 36, (2, 2, 2))], engine="manifold"
    ))  # fmt: skip
    seen = {True: 0, False: 0}
    for mesh in (block, hollow, bunny):
        size = np.ptp(mesh.vertices, axis=0).max()
        reference = trimesh.Trimesh(mesh.vertices, mesh.facets, process=False)
        for _ in range(about(3)):
            normal = unit(draws)
            middle = (mesh.vertices.min(axis=0) + mesh.vertices.max(axis=0)) / 2
            cut = cut_at(normal, middle)
            halves = halves_of(whole(mesh), cut)
            if not halves.a or not halves.b:
                continue
            u, v = halves.plane.axes[:2]
            at = middle + draws.uniform(-0.4, 0.4) * size * u + draws.uniform(-0.4, 0.4) * size * v
            joint = Joint(
                "1", "dowel", tuple(map(float, at)), str(draws.choice(["round", "square"])),
                0.08 * size, 0.12 * size, 0.1 * size, float(draws.uniform(0, 90)),
                float(draws.choice([0.0, 8.0])), 0.01 * size, 0.0,
            )  # fmt: skip
            cut = Cut("1", WHOLE, cut.normal, cut.point, joints=(joint,))
            said = pokes_out(whole(mesh), halves, cut, 0.0)
            out = 0
            for side in "ab":
                hole = hole_of(joint, side).to_mesh()
                solid = trimesh.Trimesh(hole.vert_properties[:, :3], hole.tri_verts)
                points = trimesh.sample.sample_surface(solid, 600, seed=1)[0]
                points = points[(points[:, 2] > 1e-3) if side == "a" else (points[:, 2] < -1e-3)]
                local = halves.plane.inside(at[None])[0]
                spots = halves.plane.outside(points + [local[0], local[1], halves.plane.offset_mm])
                signed = trimesh.proximity.signed_distance(reference, spots)
                out += int((signed < -1e-3 * size).sum())
            assert not (out and not said), f"{out} of the samples outside and nothing said"
            seen[bool(said)] += 1
    assert min(seen.values()) > 0


def test_places_lie_in_the_zone_and_hold_their_wall(draws):
    block = ours(box(50, 30, 40))
    cut = cut_at((0, 0, 1), (0, 0, 20))
    part = whole(block)
    halves = halves_of(part, cut)
    joint = Joint("x", "peg", (0.0, 0.0, 20.0), width_mm=5.0)
    zone = zone_of(halves, cut, joint, 1.0)
    reach = 2.5 + 0.15 + 1.0
    assert zone.area == pytest.approx((50 - 2 * reach) * (30 - 2 * reach), rel=0.01)
    at = places_for(face_of(halves), zone, 4, 8.0)
    assert len(at) == 4
    joints = tuple(
        Joint(str(i), "peg", tuple(halves.plane.outside([u, v, 20.0])), width_mm=5.0)
        for i, (u, v) in enumerate(at)
    )
    cut = cut_at((0, 0, 1), (0, 0, 20), joints=joints)
    assert pokes_out(part, halves, cut, 0.99) == {}


def test_cuts_one_after_another_and_taken_back():
    block = ours(box(40, 30, 20))
    first = ("cut", {"key": "1", "normal": [1, 0, 0], "point": [10, 0, 0]})
    both = ("cut", {"key": "2", "normal": [0, 0, 1], "point": [0, 0, 5]})
    one = ("cut", {"key": "3", "part": "1.a", "normal": [0, 1, 0], "point": [0, 15, 0]})
    assert set(parts_after(block, first)) == {"1.a", "1.b"}
    assert set(parts_after(block, first, both)) == {"1.a.a", "1.a.b", "1.b.a", "1.b.b"}
    assert set(parts_after(block, first, one)) == {"1.a.a", "1.a.b", "1.b"}
    assert set(parts_after(block, first, both, ("uncut", {"key": "1"}))) == {"1.a", "1.b"}
    thrown = ("cut", {"key": "1", "normal": [1, 0, 0], "point": [10, 0, 0], "keep": "a"})
    assert set(parts_after(block, thrown)) == {"1.a"}
    # Scaled afterwards, the plane goes with the piece and joints keep their dimensions.
    peg = ("joints", {"cut": "1", "joints": [
        {"key": "1", "kind": "peg", "at": [10, 15, 10], "width_mm": 4.0, "depth_a_mm": 5.0,
         "outline": "square", "bevel_mm": 0}]})  # fmt: skip
    parts = parts_after(block, first, peg, ("scale", {"x": 2, "y": 2, "z": 2}))
    assert volume_mm3(parts["1.b"].mesh) == pytest.approx(20 * 60 * 40 + 4 * 4 * 5, rel=1e-9)
    mirrored = parts_after(block, first, ("mirror", {"axis": "x"}))
    assert volume_mm3(mirrored["1.a"].mesh) == pytest.approx(30 * 30 * 20)


def test_loose_bodies_stay_or_become_parts():
    two_legs = together(box(40, 10, 5, (0, 0, 20)), box(5, 10, 21), box(5, 10, 21, (35, 0, 0)))
    cut = {"key": "1", "normal": [0, 0, 1], "point": [0, 0, 20]}
    united = ours(trimesh.boolean.union(
        [box(40, 10, 5, (0, 0, 20)), box(5, 10, 21), box(5, 10, 21, (35, 0, 0))], engine="manifold"
    ))  # fmt: skip
    assert set(parts_after(united, ("cut", cut))) == {"1.a", "1.b"}
    assert set(parts_after(united, ("cut", cut | {"loose": "apart"}))) == {"1.a", "1.b", "1.c"}
    assert before_cut(united, fold(united, [edit_from("cut", cut)]).shape, "1", "1.a")[1].key == "1"
    assert len(parts_after(two_legs, ("cut", cut))) == 2


def test_what_is_no_solid_or_not_met_stays_whole():
    mesh = table()
    open_one = type(mesh)(mesh.vertices, np.ascontiguousarray(mesh.facets[1:]))
    assert [p.key for p in cut_at((0, 0, 1), (0, 0, 10)).applied((whole(open_one),))] == ["1"]
    assert [p.key for p in cut_at((0, 0, 1), (0, 0, 99)).applied((whole(mesh),))] == ["1"]
    assert [p.key for p in cut_at((0, 0, 1), (0, 0, 0)).applied((whole(mesh),))] == ["1"]


@pytest.mark.parametrize(("kind", "values", "words"), [
    ("cut", {"key": "1", "normal": [0, 0, 0], "point": [0, 0, 0]}, "no length"),
    ("cut", {"key": "", "normal": [0, 0, 1], "point": [0, 0, 0]}, "key"),
    ("cut", {"key": "1", "normal": [0, 0, math.nan], "point": [0, 0, 0]}, "number"),
    ("cut", {"key": "1", "normal": [0, 0, 1], "point": [0, 0, 0], "kerf_mm": 99}, "kerf"),
    ("cut", {"key": "1", "normal": [0, 0, 1], "point": [0, 0, 0], "keep": "c"}, "side"),
    ("cut", {"key": "1", "normal": [0, 0, 1], "point": [0, 0, 0], "dovetail": 3}, "dovetail"),
    ("joints", {"cut": "1", "joints": []}, "no joint"),
    ("joints", {"cut": "1", "joints": [{"key": "1", "kind": "nail", "at": [0, 0, 0]}]}, "joint"),
    ("joints", {"cut": "1", "joints": [{"key": "1", "kind": "peg", "at": [0, 0, 0],
                                        "width_mm": -1}]}, "width"),
    ("joints", {"cut": "1", "joints": [{"key": "1", "kind": "snap", "at": [0, 0, 0],
                                        "catch_mm": 9.0}]}, "catch"),
])  # fmt: skip
def test_what_makes_no_sense_gets_a_sentence(kind, values, words):
    with pytest.raises(EditError, match=words):
        edit_from(kind, values)


def test_edits_of_cuts_survive_being_written():
    edits = [
        edit_from("cut", {"key": "1", "normal": [0, 0, 1], "point": [0, 0, 5],
                          "dovetail": {"at": [1, 2, 5], "width_mm": 4}}),
        edit_from("joints", {"cut": "1", "joints": [{"key": "1", "kind": "peg", "at": [1, 2, 5]}],
                             "remove": ["7"]}),
    ]  # fmt: skip
    for edit in edits:
        assert edit_from(edit.kind, edit.parameters()) == edit
    assert Setup() != fold(table(), edits)


def test_paint_stays_where_it_was(draws, bunny):
    """Painted sides of the parts, against the nearest facets of the whole."""
    whole_part = whole(bunny)
    mesh = bunny
    middle = (mesh.vertices.min(axis=0) + mesh.vertices.max(axis=0)) / 2
    seed = int(draws.integers(len(mesh.facets)))
    at = anchor_at(whole_part, seed, (1 / 3, 1 / 3, 1 / 3))
    brush = 0.15 * float(np.ptp(mesh.vertices, axis=0).max())
    strokes = (Stroke("show", (at,), brush),)
    before = painted_sides(whole_part, strokes)
    assert (before == SHOW).sum() > 20
    corner = mesh.vertices[mesh.facets[seed]].mean(axis=0)
    # The plane runs through the painted place.
    for part in cut_at(middle - corner + 1e-3, corner).applied((whole_part,)):
        now = painted_sides(part, strokes) == SHOW
        old = part.facet_from >= 0
        was = np.zeros(len(now), bool)
        was[old] = before[part.facet_from[old]] == SHOW
        area = facet_areas(part.mesh)
        # A facet that was cut in two may leave the brush; whole ones are as they were.
        assert area[old & (now != was)].sum() < 0.15 * max(area[was].sum(), 1e-9)
        # Of the cut's own facets, long ones perhaps, those are painted that the brush reaches.
        fresh = part.mesh.vertices[part.mesh.facets[~old & now]]
        nearest = trimesh.triangles.closest_point(fresh, np.tile(corner, (len(fresh), 1)))
        assert (np.linalg.norm(nearest - corner, axis=1) <= brush * 1.001).all()


def test_what_hangs_near_a_cut_goes_with_its_side(draws):
    """Places within a hair of a cut: each on the part whose surface it is on, and on no other."""
    for _ in range(5):
        mesh = ours(trimesh.creation.icosphere(3, 20.0))
        mesh = type(mesh)(mesh.vertices + draws.uniform(-300, 300, 3), mesh.facets)
        far = (mesh.vertices.min(axis=0) + mesh.vertices.max(axis=0)) / 2
        part, n = whole(mesh), unit(draws)
        offset, kerf = float(draws.uniform(-10, 10)), float(draws.choice([0.0, 0.4]))
        parts = cut_at(n, far + offset * n, kerf_mm=kerf).applied((part,))
        sides = {"1.a": 0, "1.b": 0}
        near = np.abs((mesh.vertices[mesh.facets] - far) @ n - offset).min(axis=1) < 1.0
        for facet in np.flatnonzero(near):
            weights = draws.dirichlet((1, 1, 1))
            anchor = anchor_at(part, int(facet), tuple(map(float, weights)))
            beyond = float((np.array(anchor.point) - far) @ n - offset)
            if not 1e-3 < abs(beyond) < 0.95:
                continue
            side = "1.a" if beyond > 0 else "1.b"
            found = {one.key for one in parts if resolve(anchor, one) is not None}
            assert found == {side}
            sides[side] += 1
        assert min(sides.values()) > 2


def test_nothing_of_the_import_sticks_to_a_loose_pin():
    joint = Joint("1", "dowel", (2.2, 15.0, 20.0), width_mm=4.0, depth_a_mm=6.0, insist=True)
    part = whole(ours(box(30, 30, 40)))
    parts = cut_at((0, 0, 1), (0, 0, 20), joints=(joint,)).applied((part,))
    face = int(np.flatnonzero(np.ptp(part.mesh.vertices[part.mesh.facets][:, :, 0], axis=1) < 1)[0])
    anchor = anchor_at(part, face, (1 / 3, 1 / 3, 1 / 3))
    assert resolve(anchor, parts[2]) is None
    own = anchor_at(parts[2], 3, (1 / 3, 1 / 3, 1 / 3))
    assert resolve(own, parts[2]) is not None


def test_a_wide_brush_beyond_a_cut_left_its_paint_on_this_side():
    mesh = ours(trimesh.creation.icosphere(5, 20.0))
    part, places = whole(mesh), mesh.vertices[mesh.facets].mean(axis=1)
    seed = int(np.argmax(places[:, 0]))
    at = anchor_at(part, seed, (1 / 3, 1 / 3, 1 / 3))
    strokes = (Stroke("show", (at,), 6.0),)
    before = painted_sides(part, strokes) == SHOW
    a, b = cut_at((0, 0, 1), (0, 0, at.point[2] - 2.5)).applied((part,))
    now = painted_sides(b, strokes) == SHOW
    old = b.facet_from >= 0
    kept = np.linalg.norm(places[b.facet_from[old]] - at.point, axis=1) < 5.0
    assert kept.sum() > 20
    assert now[old][kept].all()
    assert not now[~old].any()
    assert before.sum() > kept.sum()
    assert (painted_sides(a, strokes) == SHOW).any()


def test_a_later_cut_through_a_joint_is_told():
    joint = Joint("1", "dowel", (15.0, 15.0, 20.0), width_mm=4.0, depth_a_mm=6.0, depth_b_mm=6.0)
    first = cut_at((0, 0, 1), (0, 0, 20), joints=(joint,))
    part = whole(ours(box(30, 30, 40)))
    for x, crossed in ((15, True), (17.1, True), (18.5, False), (12.9, True), (10, False)):
        second = Cut("2", WHOLE, (1.0, 0.0, 0.0), (float(x), 0.0, 0.0))
        assert bool(joints_crossed(part, second, (first,))) is crossed, x
    for z, crossed in ((25, True), (27, False), (14.5, True), (13, False)):
        level = Cut("2", WHOLE, (0.0, 0.0, 1.0), (0.0, 0.0, float(z)))
        assert bool(joints_crossed(part, level, (first,))) is crossed, z


def test_a_wide_bevel_is_part_of_the_hole():
    """A mouth wider than the wall breaks through the side of the part at the cut face."""
    part = whole(ours(box(30, 30, 40)))
    for bevel, out in ((0.4, False), (3.0, True)):
        joint = Joint("1", "peg", (27.0, 15.0, 20.0), width_mm=3.0, depth_a_mm=6.0, bevel_mm=bevel)
        cut = cut_at((0, 0, 1), (0, 0, 20), joints=(joint,))
        assert bool(pokes_out(part, halves_of(part, cut), cut, 0.8)) is out
        zone = zone_of(halves_of(part, cut), cut, joint, 0.8)
        assert zone.contains(shapely.Point(27.0, 15.0)) is not out


def test_more_dowels_than_letters_are_all_there():
    joints = tuple(
        Joint(str(i), "dowel", (5.0 + 10 * (i % 6), 5.0 + 10 * (i // 6), 20.0), width_mm=3.0)
        for i in range(30)
    )
    parts = cut_at((0, 0, 1), (0, 0, 20), joints=joints).applied((whole(ours(box(65, 55, 40))),))
    assert [part.key for part in parts[-6:]] == ["1.aa", "1.ab", "1.ac", "1.ad", "1.ae", "1.af"]
    pins = sum(volume_mm3(part.mesh) for part in parts[2:])
    assert pins == pytest.approx(30 * volume_mm3(parts[2].mesh), rel=1e-6)


def test_a_cut_through_several_parts_has_its_joints_where_they_are():
    """Two halves of a block, cut across at once, with a dowel in each: two pins, not four."""
    block = ours(box(60, 40, 30))
    first = ("cut", {"key": "1", "normal": [1, 0, 0], "point": [30, 0, 0]})
    across = ("cut", {"key": "2", "normal": [0, 0, 1], "point": [0, 0, 15]})
    dowels = [
        {"key": str(i), "kind": "dowel", "at": [x, 20, 15], "width_mm": 5}
        for i, x in enumerate((15, 45))
    ]
    parts = parts_after(block, first, across, ("joints", {"cut": "2", "joints": dowels}))
    assert sorted(parts) == ["1.a.a", "1.a.b", "1.a.c", "1.b.a", "1.b.b", "1.b.c"]
    pins = [p for key, p in parts.items() if key.endswith(".c")]
    assert sorted(p.mesh.vertices[:, 0].mean().round() for p in pins) == [15, 45]
    whole_mm3 = sum(volume_mm3(p.mesh) for p in parts.values())
    assert whole_mm3 < 60 * 40 * 30
    assert all(p.mesh.is_watertight for p in parts.values())


@pytest.mark.parametrize("kind", ["peg", "dowel"])
def test_sides_slide_together_with_the_gap_that_was_asked_for(draws, kind):
    mesh = ours(box(60, 40, 30))
    n = unit(draws)
    middle = mesh.vertices.mean(axis=0)
    for clearance in (0.0, 0.15, 0.4):
        joint = Joint("1", kind, tuple(middle), "hexagon", 6.0, 5.0, 5.0, clearance_mm=clearance,
                      taper_deg=float(draws.uniform(0, 30)), turn_deg=float(draws.uniform(0, 90)))  # fmt: skip
        cut = cut_at(n, middle, joints=(joint,), kerf_mm=float(draws.choice([0.0, 0.3])))
        part = whole(mesh)
        slide = slide_of(part, cut, halves_of(part, cut))
        assert slide.meets_mm3 < 1e-6 or clearance == 0.0, slide
        assert slide.way == pytest.approx(tuple(n), abs=1e-9)
        # Against the reference library: the nearest of dense samples of one side to the other.
        parts = {p.key: p for p in cut.applied((part,))}
        a = trimesh.Trimesh(parts["1.a"].mesh.vertices, parts["1.a"].mesh.facets, process=False)
        pin = parts["1.c" if kind == "dowel" else "1.b"].mesh
        above = trimesh.Trimesh(pin.vertices, pin.facets, process=False)
        above = trimesh.intersections.slice_mesh_plane(
            above, n, middle + n * (cut.kerf_mm / 2 + 0.6), cap=False
        )
        points, _ = trimesh.sample.sample_surface(above, 800, seed=1)
        # The faces closed: a loose pin sinks by half of the kerf into each half.
        points = points + n * cut.kerf_mm / (2 if kind == "dowel" else 1)
        near = trimesh.proximity.closest_point(a, points)[1].min()
        assert slide.gap_mm <= near + 1e-6
        # Square to the walls, tapered ones too.
        assert slide.gap_mm == pytest.approx(clearance, abs=0.02 * clearance + 2e-3)


@pytest.mark.parametrize("kind", ["peg", "dowel", "snap", "dovetail"])
def test_a_kerf_closes_whatever_is_in_it(draws, kind):
    """Halves moved together until their faces touch share nothing, by the reference library."""
    for _ in range(about(3)):
        mesh = ours(box(60, 60, 40))
        kerf, clearance = float(draws.uniform(0.2, 1.5)), float(draws.uniform(0.05, 0.3))
        middle = (30.0, 30.0, 20.0)
        if kind == "dovetail":
            tail = Dovetail(middle, 12.0, 5.0, float(draws.uniform(5, 30)), clearance_mm=clearance,
                            taper_deg=float(draws.uniform(0, 4)))  # fmt: skip
            cut = cut_at((0, 0, 1), middle, kerf_mm=kerf, dovetail=tail)
        else:
            joint = Joint("1", kind, middle, str(draws.choice(["round", "square"])), 7.0, 6.0, 5.0,
                          clearance_mm=clearance, taper_deg=float(draws.uniform(0, 20)),
                          on=str(draws.choice(["a", "b"])))  # fmt: skip
            cut = cut_at((0, 0, 1), middle, kerf_mm=kerf, joints=(joint,))
        part = whole(mesh)
        parts = {p.key: p for p in cut.applied((part,))}
        solids = {
            key: trimesh.Trimesh(one.mesh.vertices, one.mesh.facets, process=False)
            for key, one in parts.items()
        }
        a = solids["1.a"].apply_translation((0, 0, -kerf + 1e-4))
        others = [solids["1.b"]]
        if kind == "dowel":
            others.append(solids["1.c"].apply_translation((0, 0, -kerf / 2)))
        for other in others:
            shared = trimesh.boolean.intersection([a, other], engine="manifold")
            assert shared.is_empty or abs(shared.volume) < 1e-3
        slide = slide_of(part, cut, halves_of(part, cut))
        if kind != "snap":
            assert slide.meets_mm3 < 1e-6
            assert slide.gap_mm == pytest.approx(clearance, abs=0.02 * clearance + 2e-3)


def test_sides_that_meet_on_the_way_are_told():
    mesh = ours(box(40, 40, 40))
    part, middle = whole(mesh), tuple(mesh.vertices.mean(axis=0))
    tail = Dovetail(middle, 8.0, 4.0, 15.0, clearance_mm=0.1)
    cut = cut_at((0, 0, 1), middle, dovetail=tail)
    halves = halves_of(part, cut)
    slide = slide_of(part, cut, halves)
    assert slide.meets_mm3 == 0  # along itself it slides
    assert slide.gap_mm == pytest.approx(0.1, abs=2e-3)
    assert abs(slide.way[2]) < 1e-9
    # A peg that a dovetail runs across cannot be slid along it.
    peg = Joint("1", "peg", (middle[0] + 14, middle[1], middle[2]), "round", 4.0, 4.0, 4.0)
    crossed = cut_at((0, 0, 1), middle, dovetail=tail, joints=(peg,))
    assert slide_of(part, crossed, halves).meets_mm3 > 1


def test_crease_loops_lie_in_their_planes(draws):
    n = unit(draws)
    turn = np.linalg.qr(np.column_stack([n, draws.normal(size=(3, 2))]))[0]
    if np.linalg.det(turn) < 0:
        turn[:, 0] *= -1
    # A stepped rod: rings of radius 10, 10, 6 and 6 at its ends and its step.
    rod = trimesh.boolean.union(
        [trimesh.creation.cylinder(10, 20, sections=40),
         trimesh.creation.cylinder(6, 20, sections=40).apply_translation((0, 0, 15))],
        engine="manifold",
    )  # fmt: skip
    mesh = ours(rod)
    shift = draws.normal(size=3) * 50
    mesh = mesh.moved((mesh.vertices - (0, 0, 10)) @ turn.T + shift)
    axis = turn[:, 2]
    for radius, z in ((10, -10), (10, 10), (6, 10), (6, 25)):
        ring = turn @ np.array([radius, 0, z]) + shift
        loop = loop_near(crease_loops(mesh), ring)
        assert abs(loop.plane.normal @ axis) == pytest.approx(1, abs=1e-9)
        assert abs(loop.plane.normal @ (shift + axis * z) - loop.plane.offset_mm) < 1e-9
        assert loop.length_mm == pytest.approx(40 * 2 * radius * math.sin(math.pi / 40), rel=1e-6)
    assert crease_loops(ours(trimesh.creation.icosphere(subdivisions=3))) == []
    corners = crease_loops(ours(box(10, 20, 30)))
    assert corners
    assert all(one.off_mm < 1e-9 for one in corners)


def test_a_mirrored_plane_mirrors_its_points(draws):
    n, p, c, m = unit(draws), draws.normal(size=3), draws.normal(size=3), unit(draws)
    other, through = mirrored(n, p, c, m)
    flip = np.eye(3) - 2 * np.outer(m, m)
    for _ in range(5):
        on = p + np.cross(n, draws.normal(size=3))
        assert abs((flip @ (on - c) + c - through) @ other) < 1e-9
    back = mirrored(other, through, c, m)
    assert np.allclose(back[0], n)
    assert np.allclose(back[1], p)
