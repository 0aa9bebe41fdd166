"""Overhang facets and patches, against facet normals of a reference library and closed forms."""

import math

import networkx as nx
import numpy as np
import pytest
import trimesh

from printability.mesh import Mesh, facet_areas
from printability.stance import turned
from printability.surface import find_overhang, underside_slopes
from solids import box, frustum, ours, reference, together


def _overhang(mesh, threshold=45.0, h=0.2):
    return find_overhang(mesh, underside_slopes(mesh, h), threshold)


@pytest.mark.parametrize("angles", [(0, 0, 0), (37, -20, 0), (180, 0, 0), (10, 80, 30)])
@pytest.mark.parametrize("threshold", [20, 45, 70])
def test_area_and_patches_agree_with_the_reference_librarys_normals(bunny, angles, threshold):
    mesh = turned(bunny, angles)
    other = reference(mesh)
    slope = np.degrees(np.arccos(np.clip(-other.face_normals[:, 2], -1, 1)))
    rests = (np.abs(mesh.vertices[:, 2]) <= 0.1)[mesh.facets].all(axis=1)
    hangs = (slope < threshold - 0.01) & ~rests
    found = _overhang(mesh, threshold)
    assert found.area_mm2 == pytest.approx(other.area_faces[hangs].sum(), rel=1e-9)
    assert np.array_equal(found.patch_of_facet > 0, hangs)
    # Patches are the connected components of the reference's adjacency.
    pairs = other.face_adjacency
    graph = nx.Graph()
    graph.add_nodes_from(np.flatnonzero(hangs))
    graph.add_edges_from(pairs[hangs[pairs].all(axis=1)])
    areas = sorted(
        (other.area_faces[list(part)].sum() for part in nx.connected_components(graph)),
        reverse=True,
    )
    assert [p.area_mm2 for p in found.patches] == pytest.approx(areas)


@pytest.mark.parametrize(("slope", "hangs"), [(44.9, True), (45.0, False), (45.1, False)])
def test_a_slope_at_the_threshold_prints(slope, hangs):
    # A frustum on its small end: its flank has the slope atan(height / widening).
    flank = ours(frustum(5, 15, 10 * math.tan(math.radians(slope)), sides=4096))
    found = _overhang(flank)
    assert bool(found.patches) == hangs


def test_a_frustums_flank_has_its_formulas_area():
    r0, r1, height = 4.0, 16.0, 6.0
    found = _overhang(ours(frustum(r0, r1, height, sides=1024)))
    expected = math.pi * (r0 + r1) * math.hypot(r1 - r0, height)
    (patch,) = found.patches
    assert patch.area_mm2 == pytest.approx(expected, rel=1e-4)
    assert patch.min_slope_deg == pytest.approx(
        math.degrees(math.atan(height / (r1 - r0))), abs=1e-2
    )
    assert patch.lowest_z_mm == pytest.approx(0)
    assert patch.center_mm[:2] == pytest.approx((0, 0), abs=1e-9)


def test_what_rests_on_the_plate_does_not_hang_and_what_is_lifted_does():
    slab = together(box(10, 10, 4))
    assert _overhang(slab).area_mm2 == 0
    near = Mesh(slab.vertices + (0, 0, 0.09), slab.facets)
    assert _overhang(near).area_mm2 == 0
    lifted = Mesh(slab.vertices + (0, 0, 0.11), slab.facets)
    (patch,) = _overhang(lifted).patches
    assert (patch.area_mm2, patch.min_slope_deg) == pytest.approx((100, 0))


def test_patches_are_numbered_by_area_and_placed():
    found = _overhang(together(box(4, 4, 20), box(30, 10, 4, (0, 0, 20)),
                               box(4, 4, 20, (60, 0, 0)), box(12, 10, 4, (56, 0, 20))))  # fmt: skip
    assert [p.id for p in found.patches] == [1, 2]
    assert [p.area_mm2 for p in found.patches] == pytest.approx([300, 120])
    assert found.patches[0].center_mm == pytest.approx((15, 5, 20))
    assert found.area_mm2 == pytest.approx(420)


def test_a_sphere_hangs_below_its_latitude_of_the_threshold():
    sphere = trimesh.creation.icosphere(subdivisions=6, radius=10)
    mesh = ours(sphere)
    found = _overhang(mesh, 45, h=1e-6)
    # Cap of a sphere, 2 pi r (r - r cos t): Archimedes.
    assert found.area_mm2 == pytest.approx(
        2 * math.pi * 100 * (1 - math.cos(math.pi / 4)), rel=0.01
    )
    assert facet_areas(mesh).sum() == pytest.approx(4 * math.pi * 100, rel=1e-3)
