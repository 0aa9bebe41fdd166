"""Layers: closed loops and areas against formulas and the reference library's sections."""

import math

import numpy as np
import pytest
import shapely
import trimesh
from shapely.geometry import LinearRing, Polygon
from shapely.ops import polygonize, unary_union

from depth import about
from printability.errors import Cancelled, PrintabilityError
from printability.layers import (
    Layers,
    _straight_kernels,
    coarser,
    hanging_parts,
    layer_count,
    layer_picture,
    layers_together,
    outlines,
    plane_section,
    slice_layers,
    without_straight,
)
from printability.mesh import Mesh, open_mesh, volume_mm3
from printability.stance import turned
from solids import DATA, box, frustum, ours, reference, table, together


@pytest.mark.parametrize("angles", [(0, 0, 0), (33, 21, -70), (180, 0, 0)])
def test_areas_are_the_reference_librarys_on_an_open_mesh(bunny, angles):
    mesh = turned(bunny, angles)
    layers = slice_layers(mesh, 0.5)
    sections = reference(mesh).section_multiplane([0, 0, 0], [0, 0, 1], layers.heights_mm)
    expected = [0.0 if part is None else part.area for part in sections]
    # Corners within a thousandth of a layer of a cut lie on it: that moves a little outline.
    on_a_cut = np.abs((mesh.vertices[:, 2] / 0.5 - 0.5) % 1.0 - 0.5) > 0.499
    cut = np.unique(np.round(mesh.vertices[on_a_cut, 2] / 0.5 - 0.5).astype(int))
    free = np.setdiff1d(np.arange(layers.count), cut)
    assert layers.area_mm2[free] == pytest.approx(np.array(expected)[free], rel=1e-6, abs=1e-6)
    assert layers.area_mm2 == pytest.approx(expected, rel=2e-4, abs=1e-3)


def test_a_spheres_layers():
    r = 10.0
    layers = slice_layers(ours(trimesh.creation.icosphere(subdivisions=6, radius=r)), 0.2)
    z = layers.heights_mm
    assert layers.count == 100
    assert layers.area_mm2 == pytest.approx(math.pi * (r**2 - (z - r) ** 2), abs=0.3)


def test_a_cones_layers():
    layers = slice_layers(ours(trimesh.creation.cone(radius=8, height=12, sections=2048)), 0.1)
    radius = 8 * (1 - layers.heights_mm / 12)
    assert layers.area_mm2 == pytest.approx(math.pi * radius**2, rel=1e-4, abs=1e-6)


def test_a_torus_layers_have_a_hole():
    big, small = 12.0, 4.0
    torus = trimesh.creation.torus(big, small, major_sections=512, minor_sections=512)
    layers = slice_layers(ours(torus), 0.25)
    half = np.sqrt(small**2 - (layers.heights_mm - small) ** 2)
    # Annulus between R - a and R + a: 4 pi R a.
    assert layers.area_mm2 == pytest.approx(4 * math.pi * big * half, rel=1e-3)
    assert volume_mm3(ours(torus)) == pytest.approx(2 * math.pi**2 * big * small**2, rel=1e-3)
    middle = outlines(layers, layers.count // 2)
    assert len(middle) == 2
    signs = sorted(np.sign([Polygon(loop).exterior.is_ccw - 0.5 for loop in middle]))
    assert signs == [-1, 1]


def test_a_frustums_layers_exactly():
    sides = 7
    layers = slice_layers(ours(frustum(9, 4, 10, sides)), 0.3)
    radius = 9 - 5 * layers.heights_mm / 10
    polygon = sides / 2 * math.sin(2 * math.pi / sides)
    inside = layers.heights_mm < 10
    assert layers.area_mm2[inside] == pytest.approx(polygon * radius[inside] ** 2, rel=1e-9)


@pytest.mark.parametrize(
    ("height", "h", "count"), [(10, 0.2, 50), (10.01, 0.2, 51), (0.3, 0.2, 2), (0, 0.2, 0),
                               (30.000000000000004, 0.05, 600)],
)  # fmt: skip
def test_the_number_of_layers_is_height_over_layer_height_rounded_up(height, h, count):
    assert layer_count(height, h) == count


def test_layers_are_cut_at_their_middles_from_the_plate():
    lifted = Mesh(together(box(4, 4, 1)).vertices + (0, 0, 1), together(box(4, 4, 1)).facets)
    layers = slice_layers(lifted, 0.5)
    assert layers.area_mm2.tolist() == [0, 0, 16, 16]
    assert layers.heights_mm.tolist() == [0.25, 0.75, 1.25, 1.75]


def test_planes_through_vertices_and_flat_faces_cut_clean_loops():
    # Steps whose faces lie exactly on the cutting planes; a plane takes what is just below it.
    steps = together(box(8, 8, 0.5), box(6, 6, 1.5), box(4, 4, 2.5))
    layers = slice_layers(steps, 1.0)
    assert layers.area_mm2 == pytest.approx([64, 36, 16])
    assert all(len(outlines(layers, k)) == 1 for k in range(layers.count))


def test_overlapping_touching_and_nested_bodies_count_once():
    crossing = slice_layers(together(box(10, 10, 4), box(10, 10, 4, (5, 3, 0))), 0.5)
    assert crossing.area_mm2 == pytest.approx(np.full(8, 200 - 5 * 7))
    nested = slice_layers(together(box(10, 10, 4), box(4, 4, 4, (3, 3, 0))), 0.5)
    assert nested.area_mm2 == pytest.approx(np.full(8, 100))
    side_by_side = slice_layers(together(box(10, 10, 4), box(10, 10, 4, (10, 0, 0))), 0.5)
    assert side_by_side.area_mm2 == pytest.approx(np.full(8, 200))
    assert set(side_by_side.region_layer) == set(range(8))
    assert len(side_by_side.region_layer) == 8
    cavity = box(4, 4, 2, (3, 3, 1))
    cavity.invert()
    hollow = slice_layers(together(box(10, 10, 4), cavity), 0.5)
    assert hollow.area_mm2 == pytest.approx([100, 100, 84, 84, 84, 84, 100, 100])


def test_an_open_mesh_is_sliced_with_its_gaps_counted():
    mesh = turned(open_mesh((DATA / "teapot.obj").read_bytes(), "t.obj").mesh, (90, 0, 0))
    layers = slice_layers(mesh, 0.5)
    assert layers.open_chains > 0
    assert np.isfinite(layers.area_mm2).all()
    lidless = together(box(10, 10, 4))
    up = np.cross(*(lidless.vertices[lidless.facets[:, i]] - lidless.vertices[lidless.facets[:, 0]]
                    for i in (1, 2)))[:, 2] > 0  # fmt: skip
    tub = Mesh(lidless.vertices, np.ascontiguousarray(lidless.facets[~up]))
    assert slice_layers(tub, 0.5).area_mm2 == pytest.approx(np.full(8, 100))


def test_two_models_layers_laid_together_are_the_layers_of_both():
    first, second = together(box(10, 10, 4)), together(box(4, 20, 3))
    both = layers_together(slice_layers(first, 0.5), slice_layers(second, 0.5))
    whole = slice_layers(Mesh(np.concatenate([first.vertices, second.vertices]),
                              np.concatenate([first.facets, second.facets + 8])), 0.5)  # fmt: skip
    assert both.area_mm2 == pytest.approx(whole.area_mm2)
    assert both.area_mm2 == pytest.approx([140] * 6 + [100] * 2)


def test_progress_is_said_and_can_stop_the_slicing(bunny):
    said = []
    whole = slice_layers(bunny, 0.5)
    blocks = slice_layers(bunny, 0.5, progress=lambda stage, done: said.append((stage, done)))
    assert np.array_equal(whole.points, blocks.points)
    assert np.array_equal(whole.layer_start, blocks.layer_start)
    assert len(said) > 5
    assert [done for _, done in said] == sorted(done for _, done in said)

    def stop(stage, done):
        raise Cancelled("Stopped.")

    with pytest.raises(Cancelled):
        slice_layers(bunny, 0.5, progress=stop)


def test_a_model_in_the_wrong_unit_is_refused_with_a_sentence():
    tower = together(box(1, 1, 1e7))
    with pytest.raises(PrintabilityError, match="unit"):
        slice_layers(tower, 0.05)


def test_the_unsupported_region_is_the_layer_minus_the_one_below_grown():
    layers = slice_layers(table(), 0.2)
    first_of_top = 100
    picture = layer_picture(layers, first_of_top, 45.0)
    # The leg's square of 4 mm grown by h / tan 45° with round corners (Steiner's formula).
    grown = 16 + 4 * 4 * 0.2 + math.pi * 0.2**2
    assert picture.unsupported_mm2 == pytest.approx(1200 - grown, rel=1e-3)
    assert picture.held_mm2 == pytest.approx(16)
    assert layer_picture(layers, 0, 45.0).unsupported_mm2 == 0
    assert layer_picture(layers, 50, 45.0).unsupported_mm2 == pytest.approx(0, abs=1e-6)
    steep = layer_picture(layers, first_of_top, 60.0).unsupported_mm2
    assert steep > picture.unsupported_mm2


@pytest.mark.parametrize("normal", [(0, 0, 1), (1, 0, 0), (1, 2, 3), (-1, 0.2, 0)])
def test_a_plane_at_any_angle_cuts_a_ball_in_a_circle_and_a_mesh_as_the_reference_does(
    bunny, normal
):
    n = np.array(normal) / np.linalg.norm(normal)
    ball = ours(trimesh.creation.icosphere(subdivisions=6, radius=10))
    cut = plane_section(ball, np.array([0, 0, 10]) + 6 * n, n)
    assert cut.area_mm2 == pytest.approx(math.pi * (100 - 36), rel=2e-3)
    in_space = cut.in_space(cut.loops[0]) - (0, 0, 10)
    assert in_space @ n == pytest.approx(np.full(len(in_space), 6.0))
    middle = (bunny.vertices.min(axis=0) + bunny.vertices.max(axis=0)) / 2
    path = reference(bunny).section(plane_origin=middle, plane_normal=n)
    flat, _ = path.to_2D()
    assert plane_section(bunny, middle, n).area_mm2 == pytest.approx(flat.area, rel=1e-6)


def test_perimeters_are_those_of_squares_with_holes():
    tube = trimesh.boolean.difference([box(20, 20, 4), box(8, 8, 6, (6, 6, -1))], engine="manifold")
    assert slice_layers(ours(tube), 0.5).perimeters_mm == pytest.approx(np.full(8, 80 + 32))


def circle(x, y, r, sides, draws, hole=False):
    turn = np.linspace(0, 2 * math.pi, sides, endpoint=False) + draws.uniform(0, 1)
    points = np.c_[x + r * np.cos(turn), y + r * np.sin(turn)]
    return points[::-1] if hole else points


def layers_from(*loops_of_layers):
    """Layers of given loops, overlaps and all."""
    loops = [loop for own in loops_of_layers for loop in own]
    return Layers(
        0.2,
        np.concatenate(loops),
        np.concatenate([[0], np.cumsum([len(loop) for loop in loops])]).astype(np.int64),
        np.concatenate([[0], np.cumsum([len(own) for own in loops_of_layers])]).astype(np.int64),
    )


def area_by_winding(loops):
    """What lies inside by non-zero winding, face by face of all the lines."""
    faces = polygonize(unary_union([LinearRing(loop) for loop in loops]))
    rounds = [(Polygon(loop), 1 if LinearRing(loop).is_ccw else -1) for loop in loops]
    return sum(
        face.area
        for face in faces
        if sum(way for area, way in rounds if area.contains(face.representative_point()))
    )


def test_uniting_what_meets_and_leaving_the_rest_is_uniting_everything(draws):
    """Rings that cross, with small discs over and beside them, in holes and in material."""
    for _ in range(about(60)):
        loops = []
        for _ in range(draws.integers(1, 4)):
            x, y, r = *draws.uniform(-20, 20, 2), draws.uniform(4, 14)
            loops.append(circle(x, y, r, 30, draws))
            if draws.random() < 0.7:
                loops.append(circle(x, y, draws.uniform(0.2, 0.75) * r, 24, draws, hole=True))
        for _ in range(draws.integers(0, 30)):
            loops.append(circle(*draws.uniform(-25, 25, 2), draws.uniform(0.2, 2), 12, draws))
        draws.shuffle(loops)
        bare, far = layers_from(loops), layers_from([circle(90, 0, 1, 12, draws)])
        together = layers_together(bare, far)
        expected = area_by_winding(loops) + far.area_mm2[0]
        assert together.area_mm2 == pytest.approx([expected], abs=1e-5)


@pytest.mark.parametrize("count", [6, 110])
def test_regions_touch_those_below_that_they_meet(count, draws):
    """Few and many, straight above and across, against another library."""
    for _ in range(about(8)):
        own = []
        for _ in range(3):
            apart = []
            for x, y, r in np.c_[draws.uniform(-50, 50, (count, 2)), draws.uniform(0.2, 5, count)]:
                if all(math.hypot(x - a, y - b) > r + q + 0.01 for a, b, q in apart):
                    apart.append((x, y, r))
            own.append(apart)
        own[2] = own[1]
        loops = [[circle(*disc, 16, draws) for disc in discs] for discs in own]
        layers = layers_from(*loops)
        region = layers.region_of_loop
        first = np.cumsum([0, *map(len, loops)])
        expected = {
            (int(region[first[k - 1] + i]), int(region[first[k] + j]))
            for k in (1, 2)
            for i, a in enumerate(map(Polygon, loops[k - 1]))
            for j, b in enumerate(map(Polygon, loops[k]))
            if a.intersects(b)
        }
        assert set(zip(*(side.tolist() for side in layers.touching), strict=True)) == expected


def test_points_in_straight_outlines_go_and_nothing_else():
    rod = ours(trimesh.creation.cylinder(radius=2.0, height=9.0, sections=32))
    rod = Mesh(rod.vertices - (0, 0, rod.vertices[:, 2].min()), rod.facets)
    cut = slice_layers(rod, 0.2)
    found = without_straight(cut)
    assert (len(cut.points), len(found.points)) == (64 * cut.count, 32 * cut.count)
    assert found.area_mm2 == pytest.approx(cut.area_mm2, rel=1e-9)


def test_coarser_outlines_are_off_by_no_more_than_asked(bunny):
    fine = slice_layers(bunny, 0.5)
    for by_mm in (0.1, 1.0, 1e6):
        rough = coarser(fine, by_mm)
        assert len(rough.loop_start) == len(fine.loop_start)
        assert (rough.layer_start == fine.layer_start).all()
        assert len(rough.points) < len(fine.points) or by_mm == 1e6  # all would be lost
        for loop in range(0, len(fine.loop_start) - 1, 7):
            one, other = (
                shapely.LinearRing(of.points[of.loop_start[loop] : of.loop_start[loop + 1]])
                for of in (fine, rough)
            )
            assert one.hausdorff_distance(other) <= by_mm + 1e-9


def forest(draws):
    """Layers of a ring, a block and many leaning posts of different heights, and those of each."""
    ring = trimesh.creation.torus(8, 3, 24, 12).apply_translation((0, 0, draws.uniform(3, 9)))
    block = box(4, 4, draws.uniform(25, 35), (*draws.uniform(-10, 6, 2), 2))
    first = slice_layers(together(ring, block), 0.2)
    posts = []
    for _ in range(draws.integers(8, 40)):
        wide, tall = draws.uniform(0.3, 1), draws.uniform(2, 16)
        post = trimesh.creation.cylinder(wide, tall, sections=12)
        lean = draws.uniform(0, 0.6), (*draws.normal(size=2), 0)
        post.apply_translation((0, 0, tall / 2))
        post.apply_transform(trimesh.transformations.rotation_matrix(*lean))
        post.apply_translation((*draws.uniform(-12, 12, 2), -post.bounds[0, 2]))
        posts.append(slice_layers(ours(post), 0.2))
    return first, posts, layers_together(first, *posts)


@pytest.mark.parametrize("case", range(about(2)))
def test_what_lies_above_supports_is_as_if_found_anew(draws, case):
    first, posts, found = forest(draws)
    assert found._two is not None
    assert found.count == first.count
    fresh = Layers(0.2, found.points, found.loop_start, found.layer_start)
    for name in ("region_of_loop", "is_hole", "region_layer", "region_area_mm2", "loop_box_mm"):
        assert np.array_equal(getattr(found, name), getattr(fresh, name)), name
    assert np.array_equal(found.touching, fresh.touching)
    for k in draws.integers(1, found.count, 6):  # and the union by another library
        loops = [loop for one in (first, *posts) if k < one.count for loop in raw(one, k)]
        assert found.area_mm2[k] == pytest.approx(area_by_winding(loops), abs=1e-5)


def raw(layers, k):
    return [
        layers.points[layers.loop_start[i] : layers.loop_start[i + 1]]
        for i in range(*layers.layer_start[k : k + 2])
    ]


@pytest.mark.parametrize("case", range(about(1)))
def test_shafts_that_go_straight_on_change_nothing_that_hangs(draws, case, monkeypatch):
    _, _, found = forest(draws)
    least = [float(draws.uniform(0.05, 0.6)) for _ in range(found.count)]

    def hang():
        return [
            sorted((p.kind, round(p.length_mm, 5), round(p.area_mm2, 5), round(p.rim_mm, 4))
                   for p in hanging_parts(found, k, least[k], (5.0, 1.0)))
            for k in range(1, found.count)
        ]  # fmt: skip

    quick, left_out = hang(), [0]

    def all_of_them(points, starts, region, boxes, below, own, reach):
        kept = straight(points, starts, region, boxes, below, own, reach)
        left_out[0] += len(own) - len(kept[1])
        return below, own

    straight = _straight_kernels.without_straight_on
    monkeypatch.setattr(_straight_kernels, "without_straight_on", all_of_them)
    assert hang() == quick
    assert left_out[0] > 20
    assert any(quick)
