"""Needles of joined surfaces, counted and read by the reference mesh library."""

import manifold3d
import numpy as np
import pytest
import trimesh

from depth import about
from printability.mesh import Mesh, fewer_needles, mesh_of, needles
from solids import blob, box, ours


def slenderness(mesh):
    """Longest edge over least height of each facet, by the reference library's areas."""
    body = trimesh.Trimesh(mesh.vertices, mesh.facets, process=False)
    edge = np.linalg.norm(np.roll(body.triangles, -1, axis=1) - body.triangles, axis=2).max(axis=1)
    return edge**2 / np.maximum(2 * body.area_faces, 1e-300)


def with_rods(draws, count=12):
    """A blob with rods through it."""
    mesh = blob(draws, 30.0)
    solid = manifold3d.Manifold(manifold3d.Mesh64(mesh.vertices, mesh.facets.astype(np.uint64)))
    for _ in range(count):
        rod = manifold3d.Manifold.cylinder(40, 0.6, 0.2, 48)
        solid += rod.rotate(draws.uniform(-40, 40, 3).tolist()).translate(
            (*draws.uniform(-10, 10, 2), -5)
        )
    return mesh_of(solid)


def test_needles_are_those_of_the_reference_library(draws):
    for _ in range(about(4)):
        mesh = with_rods(draws)
        assert set(needles(mesh)) == set(np.flatnonzero(slenderness(mesh) > 1000))


def test_no_needle_and_the_same_body(draws):
    """Rods through blobs, in single precision: 130 to 290 needles become at most two."""
    for _ in range(about(6)):
        made = with_rods(draws)
        mesh = Mesh(np.float64(np.float32(made.vertices)), made.facets)
        found = fewer_needles(mesh)
        before = trimesh.Trimesh(mesh.vertices, mesh.facets, process=False)
        after = trimesh.Trimesh(found.vertices, found.facets)
        assert after.is_watertight
        assert after.is_winding_consistent
        assert after.body_count == before.body_count
        assert after.euler_number == before.euler_number
        assert after.volume == pytest.approx(before.volume, rel=5e-6)
        assert len(needles(mesh)) > 50
        assert len(needles(found)) <= 2
        assert len(found.facets) <= 4 * len(mesh.facets)
        # Every place is one that single precision has.
        np.testing.assert_array_equal(found.vertices, np.float32(found.vertices))
        # Nowhere has it moved by more than an edge that is drawn together is long.
        _, far, _ = trimesh.proximity.closest_point(before, after.triangles_center[::7])
        assert far.max() <= 2.5e-3


def test_a_sliver_along_a_flat_face_goes_and_a_sharp_edge_stays(draws):
    """A point near the middle of an edge of a box's top: its cap is turned into the top."""
    for _ in range(about(20)):
        mesh = ours(box(10, 10, 10))
        top = np.flatnonzero((mesh.vertices[:, 2] == 10)[mesh.facets].all(axis=1))
        f = int(top[0])
        a, b, c = mesh.facets[f]
        near = draws.uniform(1e-5, 5e-3)
        corner = mesh.vertices[[a, b, c]].T @ [0.5 - near / 2, 0.5 - near / 2, near]
        n = len(mesh.vertices)
        facets = [*np.delete(mesh.facets, f, axis=0), (a, b, n), (b, c, n), (c, a, n)]
        made = Mesh(np.vstack([mesh.vertices, corner]), np.array(facets, np.int32))
        found = fewer_needles(made)
        assert not len(needles(found))
        body = trimesh.Trimesh(found.vertices, found.facets, process=False)
        assert body.is_watertight
        # On an edge of the box the point may have cut a thousandth off it.
        assert body.volume == pytest.approx(1000, abs=0.5e-3 * 10 * 10)


def test_what_has_no_needle_is_left_as_it_is():
    mesh = ours(box(1, 2, 3))
    assert fewer_needles(mesh) is mesh


def test_there_are_never_more(draws):
    """Open ones, without area, far out where single precision is coarse, tiny ones."""
    facet = np.array([(0, 1, 2)], np.int32)
    for _ in range(about(10)):
        height = 10.0 ** draws.uniform(-5, -1)
        corners = np.array([(0, 0, 0), (1000, 0, 0), (draws.uniform(0, 1000), height, 0)])
        for scale, away in ((1, 0), (1, 1e6), (1e-7, 0), (1e4, 0)):
            mesh = Mesh(corners * scale + away, facet)
            assert len(needles(fewer_needles(mesh))) <= len(needles(mesh))
    flat = Mesh(np.array([(0, 0, 0), (1, 0, 0), (2, 0, 0.0)]), facet)
    assert len(fewer_needles(flat).facets) == 1


def test_ten_thousand_corners_around_a_disc():
    """Each wall is as long as it is narrow, and both faces are one fan."""
    made = trimesh.creation.cylinder(radius=50, height=40, sections=10_000)
    mesh = Mesh(np.float64(np.float32(made.vertices)), made.faces.astype(np.int32))
    assert len(needles(mesh)) > 10_000
    found = fewer_needles(mesh)
    assert not len(needles(found))
    after = trimesh.Trimesh(found.vertices, found.facets)
    assert after.is_watertight
    assert after.volume == pytest.approx(made.volume, rel=1e-6)
