"""Pillars: fitted from contact to plate, checked for room and for what is in the way."""

import math
from dataclasses import replace
from itertools import pairwise

import numpy as np
import pytest
import trimesh

from printability.errors import EditError
from printability.mesh import Mesh, facet_normals, mesh_facts
from printability.pillars import Fit, PillarSpec, fit_pillar, pillar_mesh, resized, size_for
from printability.pillars._kernels import first_contact_below
from printability.process import PROCESSES
from solids import box, frustum, ours, reference, table, together

FDM = size_for(PROCESSES["fdm"])


def _spec_at(mesh, x, y, facing=-1, size=FDM, below=None):
    """The spec of a contact straight above or below (x, y), on the facet that faces so."""
    normal = facet_normals(mesh)[:, 2] * facing
    best = None
    for f in np.flatnonzero(normal > 1e-9):
        corners = mesh.vertices[mesh.facets[f]]
        matrix = np.vstack([corners[:, :2].T, np.ones(3)])
        if abs(np.linalg.det(matrix)) < 1e-12:
            continue
        weights = np.linalg.solve(matrix, [x, y, 1])
        z = weights @ corners[:, 2]
        higher = best is None or z > best[2]
        if (weights > -1e-9).all() and higher and (below is None or z < below):
            best = (int(f), tuple(float(w) for w in weights), z)
    return PillarSpec(best[0], best[1], size)


def test_a_pillar_under_a_flat_top_has_the_dimensions_it_was_given():
    top = table()
    pillar = fit_pillar(top, _spec_at(top, 12, 8))
    assert pillar.fit == Fit.STANDS
    assert pillar.contact_mm == pytest.approx((12, 8, 20))
    profile = [tuple(row) for row in pillar.profile_mm]
    assert profile == [
        (0, FDM.pad_mm / 2), (FDM.pad_height_mm, FDM.pad_mm / 2),
        (FDM.pad_height_mm, FDM.foot_mm / 2),
        (FDM.pad_height_mm + FDM.foot_height_mm, FDM.shaft_mm / 2),
        (20 - FDM.tip_mm, FDM.shaft_mm / 2), (20, FDM.contact_mm / 2),
        (20 + FDM.embed_mm, FDM.contact_mm / 2),
    ]  # fmt: skip


def test_its_mesh_is_watertight_and_has_the_volume_of_its_frusta():
    top = table()
    mesh = pillar_mesh(fit_pillar(top, _spec_at(top, 12, 8)))
    facts = mesh_facts(mesh)
    assert facts.watertight
    assert facts.bodies == 1
    # Frusta over a regular 32-gon: the circle's formula times the polygon's share of its area.
    share = 32 / 2 * math.sin(2 * math.pi / 32) / math.pi

    def frusta(rows):
        return sum(
            math.pi * (z1 - z0) / 3 * (a * a + a * b + b * b) for (z0, a), (z1, b) in pairwise(rows)
        )

    rows = fit_pillar(top, _spec_at(top, 12, 8)).profile_mm
    assert facts.volume_mm3 == pytest.approx(share * frusta(rows), rel=1e-9)
    assert reference(mesh).is_volume


def test_the_end_is_sunk_deeper_on_a_slope_so_that_all_of_it_bonds():
    mesh = ours(frustum(5, 25, 20 * math.tan(math.radians(30)), 360))
    pillar = fit_pillar(mesh, _spec_at(mesh, 15, 0))
    assert pillar.contact_slope_deg == pytest.approx(30, abs=0.1)
    sunk = pillar.profile_mm[-1, 0] - pillar.contact_mm[2]
    assert sunk == pytest.approx(
        FDM.embed_mm + FDM.contact_mm / 2 * math.tan(math.radians(30)), abs=1e-3
    )


def test_the_end_does_not_come_out_of_a_thin_wall():
    mesh = together(box(4, 4, 10), box(30, 4, 0.3, (0, 0, 10)))
    pillar = fit_pillar(mesh, _spec_at(mesh, 20, 2))
    assert pillar.profile_mm[-1, 0] == pytest.approx(10 + 0.6 * 0.3)
    assert "0.30 mm thick" in pillar.text


def test_the_way_down_is_blocked_where_the_model_stands_in_it():
    mesh = together(box(4, 4, 30), box(30, 10, 4, (0, 0, 30)), box(30, 10, 4, (0, 0, 8)))
    pillar = fit_pillar(mesh, _spec_at(mesh, 20, 5))
    assert pillar.fit == Fit.BLOCKED
    assert pillar.blocked_at_mm[2] == pytest.approx(12)
    assert "z = 12.0" in pillar.text
    beside = fit_pillar(mesh, _spec_at(mesh, 20, 5, below=20))
    assert (beside.fit, beside.contact_mm[2]) == (Fit.STANDS, 8)


def test_a_shaft_that_grazes_a_wall_is_blocked_and_one_beside_it_is_not():
    radius = FDM.shaft_mm / 2
    bare = replace(FDM, foot_mm=FDM.shaft_mm, pad_mm=FDM.shaft_mm)
    for gap, fit in ((radius - 0.01, Fit.BLOCKED), (radius + 0.01, Fit.STANDS)):
        mesh = together(box(4, 40, 40), box(30, 40, 4, (0, 0, 40)))
        assert fit_pillar(mesh, _spec_at(mesh, 4 + gap, 20, size=bare)).fit == fit


def test_a_pad_that_meets_the_model_is_no_block_but_is_said():
    mesh = together(box(4, 40, 40), box(30, 40, 4, (0, 0, 40)))
    slim = replace(FDM, foot_mm=4, pad_mm=12)
    pillar = fit_pillar(mesh, _spec_at(mesh, 4 + 4, 20, size=slim))
    assert pillar.fit == Fit.STANDS
    assert "pad meets the model" in pillar.text


@pytest.mark.parametrize("facing", [1, -1])
def test_faces_that_hold_nothing_are_refused(facing):
    mesh = together(box(10, 10, 10))
    pillar = fit_pillar(mesh, _spec_at(mesh, 5, 5, facing))
    assert pillar.fit == (Fit.NO_CONTACT if facing > 0 else Fit.NO_ROOM)
    wall = int(np.argmax(np.abs(facet_normals(mesh)[:, 0]) > 0.5))
    steep = fit_pillar(mesh, PillarSpec(wall, (0.3, 0.3, 0.4), FDM))
    assert steep.fit == Fit.NO_CONTACT
    assert "steep" in steep.text


def test_a_low_contact_squeezes_foot_and_tip():
    low = together(box(4, 4, 4), box(20, 4, 2, (0, 0, 4)))
    pillar = fit_pillar(low, _spec_at(low, 15, 2))
    assert pillar.fit == Fit.STANDS
    z = pillar.profile_mm[:, 0]
    assert (np.diff(z) >= 0).all()
    assert mesh_facts(pillar_mesh(pillar)).watertight
    too_low = together(box(4, 4, 1), box(20, 4, 2, (0, 0, 1)))
    refused = fit_pillar(too_low, _spec_at(too_low, 15, 2))
    assert refused.fit == Fit.NO_ROOM
    assert "Lift the piece by 0.5 mm" in refused.text


@pytest.mark.parametrize(
    ("changes", "says"),
    [({"contact_mm": 0.01}, "between"), ({"contact_mm": math.nan}, "between"),
     ({"contact_mm": "a"}, "number"), ({"contact_mm": 3.0}, "wider than the shaft"),
     ({"shaft_mm": 9.0}, "wider than the foot"), ({"colour": 3}, "has no")],
)  # fmt: skip
def test_senseless_dimensions_get_a_sentence(changes, says):
    with pytest.raises(EditError, match=says):
        resized(FDM, changes)


def test_the_block_test_agrees_with_a_boolean_intersection():
    """Random tetrahedra against a cone and shaft, by the reference's exact volume."""
    random = np.random.default_rng(11)
    profile = np.array([(0, 4.0), (3, 1.5), (12, 1.5)])
    solid = trimesh.creation.revolve([(0, 0), (4, 0), (1.5, 3), (1.5, 12), (0, 12)], sections=256)
    met = 0
    for _ in range(120):
        corners = random.normal(size=(4, 3)) * (2, 2, 3) + random.uniform((-5, -5, 0), (5, 5, 12))
        tetra = trimesh.Trimesh(corners, [[0, 1, 2], [0, 3, 1], [1, 3, 2], [0, 2, 3]])
        if tetra.volume < 0:
            tetra.invert()
        mesh = Mesh(np.array(tetra.vertices), np.array(tetra.faces, np.int32))
        hit, *_ = first_contact_below(
            mesh.vertices, mesh.facets, 0.0, 0.0,
            np.ascontiguousarray(profile[:, 0]), np.ascontiguousarray(profile[:, 1]), np.inf,
        )  # fmt: skip
        common = trimesh.boolean.intersection([solid, tetra], engine="manifold").volume
        # Where the pieces barely touch, the 256-gon differs from the round solid.
        if common > 0.01:
            assert hit
        elif common == 0:
            gap = trimesh.proximity.closest_point(solid, tetra.sample(200))[1].min()
            assert not hit or gap < 0.05 or _swallows(profile, tetra)
        met += common > 0.01
    assert 20 < met < 110


def _swallows(profile, tetra):
    z = tetra.vertices[:, 2]
    inside = np.hypot(*tetra.vertices[:, :2].T) < np.interp(z, profile[:, 0], profile[:, 1])
    return bool(inside.any())


def test_a_pillar_is_fitted_once_for_a_mesh_that_does_not_change(monkeypatch):
    from printability import stance

    calls = []

    def counted(mesh, spec):
        calls.append(spec.facet)
        return fit_pillar(mesh, spec)

    monkeypatch.setattr(stance, "fit_pillar", counted)
    under = int(np.argmax(facet_normals(table())[:, 2] < -0.9))
    specs = [
        PillarSpec(under, (0.2, 0.3 + n / 50, 0.5 - n / 50), size_for(PROCESSES["fdm"]))
        for n in range(5)
    ]
    base = stance.place(table(), stance.Setup())
    for count in (4, 5, 3):
        pillars = tuple((str(n), spec) for n, spec in enumerate(specs[:count]))
        placed = stance.place(table(), stance.Setup(pillars=pillars), base)
        assert list(placed.pillars) == [key for key, _ in pillars]
    assert len(calls) == 5
    turned_base = stance.place(table(), stance.Setup(angles_deg=(5.0, 0.0, 0.0)))
    stance.place(table(), stance.Setup(angles_deg=(5.0, 0.0, 0.0), pillars=pillars), turned_base)
    assert len(calls) == 8
