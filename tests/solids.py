"""Solids with known measures, and our meshes as the reference library's."""

from dataclasses import asdict
from pathlib import Path

import numpy as np
import trimesh

from printability.edits import Edit, edit_from
from printability.mesh import Mesh, facet_normals
from printability.parts import anchor_at
from printability.process import PROCESSES
from printability.stance import Setup, part_of
from printability.supports import Fitted, Support, World, pillar_on, size_for

DATA = Path(__file__).parent / "data"
PILLAR_SIZE = asdict(size_for(PROCESSES["fdm"]))


def ours(reference: trimesh.Trimesh) -> Mesh:
    """A reference mesh as ours, dropped onto the plate."""
    vertices = np.array(reference.vertices, float)
    vertices[:, 2] -= vertices[:, 2].min()
    return Mesh(np.ascontiguousarray(vertices), np.ascontiguousarray(reference.faces, np.int32))


def reference(mesh: Mesh) -> trimesh.Trimesh:
    """Our mesh as the reference library's, untouched."""
    return trimesh.Trimesh(mesh.vertices, mesh.facets, process=False)


def box(x, y, z, at=(0.0, 0.0, 0.0)) -> trimesh.Trimesh:
    """A box whose lower corner is at ``at``."""
    solid = trimesh.creation.box((x, y, z))
    solid.apply_translation(np.array(at) + np.array((x, y, z)) / 2)
    return solid


def together(*parts: trimesh.Trimesh) -> Mesh:
    """Solids side by side or overlapping, in one mesh, dropped onto the plate."""
    return ours(trimesh.util.concatenate(list(parts)))


def table(leg_height=20.0) -> Mesh:
    """A top of 40 x 30 x 4 on one leg of 4 x 4, joined by union."""
    top = box(40, 30, 4, (-20, -15, leg_height))
    leg = box(4, 4, leg_height + 1, (-2, -2, 0))
    return ours(trimesh.boolean.union([top, leg], engine="manifold"))


def frustum(r0, r1, height, sides=256) -> trimesh.Trimesh:
    """A frustum of a cone on the plate, its polygons inscribed in the circles."""
    profile = [(0, 0), (r0, 0), (r1, height), (0, height)]
    return trimesh.creation.revolve(profile, sections=sides)


def _under(mesh, x, y):
    """Facet and weights of the underside above (x, y)."""
    for f in np.flatnonzero(facet_normals(mesh)[:, 2] < -0.9):
        corners = mesh.vertices[mesh.facets[f]]
        weights = np.linalg.solve(np.vstack([corners[:, :2].T, np.ones(3)]), [x, y, 1])
        if (weights >= 0).all() and corners[0, 2] > 1:
            return int(f), weights.tolist()
    raise AssertionError


def pillar_under(mesh: Mesh, key="1", x=12.0, y=8.0) -> Edit:
    """The edit that stands a pillar under the flat underside above (x, y)."""
    facet, weights = _under(mesh, x, y)
    return edit_from(
        "pillar", {"key": key, "facet": facet, "weights": weights, "size": PILLAR_SIZE}
    )


def world_of(mesh: Mesh) -> World:
    """A mesh as it lies, for supports to be fitted to."""
    return World(part_of(mesh, Setup()), mesh, np.eye(4))


def pillar_at(mesh: Mesh, facet: int, weights, size=None, key="1") -> Support:
    """A pillar under a place of a mesh."""
    at = anchor_at(part_of(mesh, Setup()), facet, tuple(weights))
    return pillar_on(key, at, size or size_for(PROCESSES["fdm"]))


def profile_of(fitted: Fitted) -> np.ndarray:
    """Height and radius along an upright run of rods, (k, 2), each knot once."""
    rows = []
    for rod in fitted.members:
        rows += [(rod.a_mm[2], rod.r_a_mm), (rod.b_mm[2], rod.r_b_mm)]
    return np.array([row for i, row in enumerate(rows) if i == 0 or row != rows[i - 1]])


def anchor_near(mesh, point):
    """The place of the surface nearest to a point, by the reference library."""
    _, _, (facet,) = trimesh.proximity.closest_point(reference(mesh), [point])
    corners = mesh.vertices[mesh.facets[facet]]
    at, _, _ = trimesh.proximity.closest_point(reference(mesh), [point])
    weights = trimesh.triangles.points_to_barycentric(corners[None], at)[0]
    weights = tuple(float(w) for w in np.clip(weights, 0, 1))
    return anchor_at(part_of(mesh, Setup()), int(facet), weights)


def blob(draws, size=40.0, subdivisions=3) -> Mesh:
    """A lumpy closed body: a ball with bumps, standing as it falls."""
    ball = trimesh.creation.icosphere(subdivisions)
    out = np.ones(len(ball.vertices))
    for _ in range(int(draws.integers(4, 9))):
        way = draws.normal(size=3)
        way /= np.linalg.norm(way)
        near = np.clip(ball.vertices @ way, 0, 1) ** draws.uniform(2, 12)
        out += draws.uniform(-0.35, 0.7) * near
    ball.vertices *= (np.clip(out, 0.25, None) * size / 2)[:, None] * draws.uniform(0.6, 1.4, 3)
    turn = trimesh.transformations.random_rotation_matrix(draws.uniform(size=3))
    ball.apply_transform(turn)
    ball.apply_translation((0, 0, -ball.vertices[:, 2].min()))
    return ours(ball)
