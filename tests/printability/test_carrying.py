"""Supports carried to the same, a mirrored, a scaled and a remeshed body."""

import math

import manifold3d
import numpy as np
import pytest

from printability.edits import edit_from
from printability.errors import EditError
from printability.mesh import Mesh, as_solid, mesh_of
from printability.stance import Setup, fold, place
from printability.supports import OnModel, aligned, anchor_on, carry, pillar_on, size_for


def _lump(turn=(0, 0, 0), scale=1.0, mirror=False, fine=48) -> Mesh:
    """A body without symmetry: a bar with a ball and an arm."""
    bar = manifold3d.Manifold.cube((30, 8, 6), True)
    ball = manifold3d.Manifold.sphere(7, fine).translate((12, 3, 4))
    arm = manifold3d.Manifold.cylinder(16, 3, 2, fine).rotate((70, 0, 25)).translate((-8, 2, 1))
    body = bar + ball + arm
    if mirror:
        body = body.mirror((1, 0, 0))
    return mesh_of(body.scale((scale,) * 3).rotate(turn))


def _stood(mesh, *edits):
    return place(mesh, fold(mesh, [edit_from(kind, p) for kind, p in edits], Setup()))


def _pillars(placed, count, draws):
    mesh = placed.mesh
    a, b, c = mesh.vertices[mesh.facets].transpose(1, 0, 2)
    normal = np.cross(b - a, c - a)
    area = np.linalg.norm(normal, axis=1)
    down = np.flatnonzero((normal[:, 2] < -0.5 * area) & (area > 0.1))
    middle = (a + b + c) / 3
    made = []
    for i, f in enumerate(draws.choice(down, min(count, len(down)), replace=False)):
        anchor = anchor_on(placed.world, f, middle[f])
        made.append(pillar_on(str(i + 1), anchor, size_for(Setup().process)))
    return tuple(made)


def _at(world, support):
    return np.array(world.place_of(support.ends[0].anchor))


def test_to_the_same_piece_turned_scaled_and_mirrored_places_are_kept_exactly(draws):
    mesh = _lump()
    here = _stood(mesh, ("lift", {"lift_mm": 6.0}))
    pillars = _pillars(here, 6, draws)
    there = _stood(
        mesh,
        ("turn", {"x_deg": 12.0, "y_deg": -9.0, "z_deg": 40.0}),
        ("lift", {"lift_mm": 8.0}),
        ("scale", {"x": 1.5, "y": 1.5, "z": 1.5}),
    )
    found = carry(here.world, pillars, there.world, by_import=True)
    assert len(found.reports) == len(pillars)
    for one in found.supports:
        old = next(p for p in pillars if p.key == one.key)
        exact = there.world.place_of(old.ends[0].anchor)
        assert math.dist(_at(there.world, one), exact) < 1e-6


@pytest.mark.parametrize(("mirror", "scale"), [(False, 1.37), (True, 1.0)])
def test_to_another_file_turned_mirrored_and_scaled(draws, mirror, scale):
    here = _stood(_lump(), ("lift", {"lift_mm": 6.0}))
    pillars = _pillars(here, 8, draws)
    turn = tuple(float(v) for v in draws.uniform(-180, 180, 3))
    other = _lump(turn, scale, mirror)
    way = aligned(here.part.mesh, other)
    assert way.share > 0.98, way
    assert ("mirrored" in way.said) == mirror
    # The same body vertex by vertex: every corner has its own.
    own = np.c_[here.part.mesh.vertices, np.ones(len(here.part.mesh.vertices))] @ way.matrix.T
    far = [np.linalg.norm(other.vertices - p[:3], axis=1).min() for p in own]
    assert max(far) < 0.02 * scale, max(far)
    there = _stood(other, ("lift", {"lift_mm": 60.0}))
    found = carry(here.world, pillars, there.world)
    assert {r.key for r in found.reports} == {p.key for p in pillars}
    for one in found.supports:
        assert isinstance(one.ends[0], OnModel)
    lost = [r for r in found.reports if r.outcome == "lost"]
    assert all(r.text for r in lost)
    assert len(found.supports) + len(lost) == len(pillars)


def test_to_a_remeshed_copy_most_fit_and_every_one_is_reported(draws):
    fine = _lump(fine=160)
    here = _stood(fine, ("lift", {"lift_mm": 6.0}))
    pillars = _pillars(here, 8, draws)
    coarse = mesh_of(as_solid(fine).simplify(0.06).translate(draws.uniform(-50, 50, 3)))
    assert len(coarse.facets) < 0.7 * len(fine.facets)
    there = _stood(coarse, ("lift", {"lift_mm": 6.0}))
    found = carry(here.world, pillars, there.world)
    assert len(found.supports) >= len(pillars) - 2
    for one in found.supports:
        old = next(p for p in pillars if p.key == one.key)
        # Both stand alike: contacts are where they were, to the coarseness of the copy.
        assert math.dist(_at(there.world, one), _at(here.world, old)) < 0.4


def test_what_is_not_alike_is_refused():
    here = _stood(_lump())
    ring = manifold3d.Manifold.cylinder(3, 60, 60, 64) - manifold3d.Manifold.cylinder(3, 58, 58, 64)
    with pytest.raises(EditError, match="not alike"):
        carry(here.world, (), _stood(mesh_of(ring)).world)
