"""Pillars: fitted from contact to plate, checked for room and for what is in the way."""

import math
import re
from dataclasses import replace
from itertools import pairwise

import numpy as np
import pytest
import trimesh

from constructions import cuboid, mesh_of, upright
from depth import about
from printability import supports
from printability.errors import EditError
from printability.mesh import Mesh, facet_normals, mesh_facts
from printability.process import PROCESSES
from printability.stance import Pose, Setup, place, stand
from printability.supports import (
    KINDS,
    Fit,
    OnModel,
    OnSupport,
    Rod,
    Support,
    SupportKind,
    fit_all,
    resized,
    size_for,
)
from printability.supports._kernels import first_contact_below
from printability.supports.pillar import LEAST_RISE_MM
from solids import box, frustum, ours, pillar_at, profile_of, reference, table, together, world_of

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
    return pillar_at(mesh, best[0], best[1], size)


def fit_pillar(mesh, support):
    return supports.fit_pillar(world_of(mesh), support)


def test_a_pillar_under_a_flat_top_has_the_dimensions_it_was_given():
    top = table()
    pillar = fit_pillar(top, _spec_at(top, 12, 8))
    assert pillar.fit == Fit.STANDS
    assert pillar.contact_mm == pytest.approx((12, 8, 20))
    profile = [tuple(row) for row in profile_of(pillar)]
    assert profile == [
        (0, FDM.pad_mm / 2), (FDM.pad_height_mm, FDM.pad_mm / 2),
        (FDM.pad_height_mm, FDM.foot_mm / 2),
        (FDM.pad_height_mm + FDM.foot_height_mm, FDM.shaft_mm / 2),
        (20 - FDM.tip_mm, FDM.shaft_mm / 2), (20, FDM.contact_mm / 2),
        (20 + FDM.embed_mm, FDM.contact_mm / 2),
    ]  # fmt: skip


def test_its_mesh_is_watertight_and_has_the_volume_of_its_frusta():
    top = table()
    mesh = fit_pillar(top, _spec_at(top, 12, 8)).mesh
    facts = mesh_facts(mesh)
    assert facts.watertight
    assert facts.bodies == 1
    # Frusta over a regular 32-gon: the circle's formula times the polygon's share of its area.
    share = 32 / 2 * math.sin(2 * math.pi / 32) / math.pi

    def frusta(rows):
        return sum(
            math.pi * (z1 - z0) / 3 * (a * a + a * b + b * b) for (z0, a), (z1, b) in pairwise(rows)
        )

    rows = profile_of(fit_pillar(top, _spec_at(top, 12, 8)))
    assert facts.volume_mm3 == pytest.approx(share * frusta(rows), rel=1e-9)
    assert reference(mesh).is_volume


def test_the_end_is_sunk_deeper_on_a_slope_so_that_all_of_it_bonds():
    mesh = ours(frustum(5, 25, 20 * math.tan(math.radians(30)), 360))
    pillar = fit_pillar(mesh, _spec_at(mesh, 15, 0, size=replace(FDM, lean_deg=0.0)))
    assert pillar.contacts[0].slope_deg == pytest.approx(30, abs=0.1)
    sunk = profile_of(pillar)[-1, 0] - pillar.contact_mm[2]
    assert sunk == pytest.approx(
        FDM.embed_mm + FDM.contact_mm / 2 * math.tan(math.radians(30)), abs=1e-3
    )


def test_the_end_does_not_come_out_of_a_thin_wall():
    mesh = together(box(4, 4, 10), box(30, 4, 0.3, (0, 0, 10)))
    pillar = fit_pillar(mesh, _spec_at(mesh, 20, 2))
    assert profile_of(pillar)[-1, 0] == pytest.approx(10 + 0.6 * 0.3)
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


@pytest.mark.parametrize("top", [1.5, 2.5, 2.4999, 20.0, 37.0])
def test_a_floor_is_in_the_way_even_where_its_top_lies_where_the_foot_ends(top):
    """Between two frusta of a pillar, or at a height of none."""
    slim = replace(FDM, pad_height_mm=1.0, foot_height_mm=1.5, tip_mm=3.0)
    mesh = together(box(4, 40, 40), box(60, 40, 4, (0, 0, 40)), box(60, 40, top))
    pillar = fit_pillar(mesh, _spec_at(mesh, 30, 20, size=slim))
    assert pillar.fit == Fit.BLOCKED
    assert pillar.blocked_at_mm[2] == pytest.approx(top)


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
    steep = fit_pillar(mesh, pillar_at(mesh, wall, (0.3, 0.3, 0.4), FDM))
    assert steep.fit == Fit.NO_CONTACT
    assert "steep" in steep.text


def test_a_low_contact_squeezes_foot_and_tip():
    low = together(box(4, 4, 4), box(20, 4, 2, (0, 0, 4)))
    pillar = fit_pillar(low, _spec_at(low, 15, 2))
    assert pillar.fit == Fit.STANDS
    z = profile_of(pillar)[:, 0]
    assert (np.diff(z) >= 0).all()
    assert mesh_facts(pillar.mesh).watertight
    too_low = together(box(4, 4, 1), box(20, 4, 2, (0, 0, 1)))
    refused = fit_pillar(too_low, _spec_at(too_low, 15, 2))
    assert refused.fit == Fit.NO_ROOM
    assert "Lift the piece by 0.5 mm" in refused.text


@pytest.mark.parametrize(
    ("changes", "says"),
    [({"contact_mm": 0.01}, "between"), ({"contact_mm": math.nan}, "number"),
     ({"contact_mm": "a"}, "number"), ({"contact_mm": 3.0}, "wider than the shaft"),
     ({"shaft_mm": 9.0}, "wider than the foot"), ({"colour": 3}, "no dimension")],
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
    for _ in range(about(30)):
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
    assert 0.15 < met / about(30) < 0.92


def _swallows(profile, tetra):
    z = tetra.vertices[:, 2]
    inside = np.hypot(*tetra.vertices[:, :2].T) < np.interp(z, profile[:, 0], profile[:, 1])
    return bool(inside.any())


def _counting(monkeypatch, key="pillar"):
    """Counts what is fitted of a kind of support."""
    calls, kind = [], KINDS[key]

    def counted(world, support, on):
        calls.append(support.key)
        return kind.fitted(world, support, on)

    monkeypatch.setitem(KINDS, key, replace(kind, fitted=counted))
    return calls


def test_a_pillar_is_fitted_once_for_a_mesh_that_does_not_change(monkeypatch):
    calls = _counting(monkeypatch)
    under = int(np.argmax(facet_normals(table())[:, 2] < -0.9))
    made = [
        pillar_at(table(), under, (0.2, 0.3 + n / 50, 0.5 - n / 50), key=str(n)) for n in range(5)
    ]
    base = place(table(), Setup())
    for count in (4, 5, 3):
        placed = stand(base.part, Setup(supports=tuple(made[:count])), base)
        assert list(placed.supports) == [one.key for one in made[:count]]
    assert len(calls) == 5
    place(table(), Setup(pose=Pose((5.0, 0.0, 0.0)), supports=tuple(made[:3])))
    assert len(calls) == 8


def test_supports_are_fitted_after_what_they_rest_on_and_only_when_that_changes(monkeypatch):
    """A kind made up for the test: a rod from a contact to the middle of another support."""
    calls = []

    def fitted(world, support, on):
        calls.append(support.key)
        at = world.place_of(support.ends[0].anchor)
        x, y, z = on[0].contact_mm
        contact = supports.Contact(at, 0.4, 0.0, 0)
        rod = Rod((x, y, support.ends[1].t * z), at, 0.4, 0.2)
        return supports.Fitted(support, Fit.STANDS, "", (contact,), (rod,))

    monkeypatch.setitem(
        KINDS, "prop", SupportKind("prop", "prop", ((OnModel,), (OnSupport,)), dict, None, fitted)
    )
    top = table()
    world = world_of(top)
    one, two = _spec_at(top, 12, 8), replace(_spec_at(top, -12, 8), key="2")

    def prop(key, on, t=0.5):
        return Support(key, "prop", (one.ends[0], OnSupport(on, t)), ())

    # Said before what it rests on, and a chain: each is fitted once, in the order of dependence.
    found = fit_all(world, (prop("a", "b"), prop("b", "1"), one, two))
    assert list(found) == ["a", "b", "1", "2"]
    assert calls == ["b", "a"]
    assert mesh_facts(found["b"].mesh).watertight
    fit_all(world, (prop("a", "b"), prop("b", "1"), one))
    assert calls == ["b", "a"]
    # What it rests on moves: it and what rests on it are fitted again, nothing else.
    moved = replace(_spec_at(top, 10, 8), key="1")
    fit_all(world, (prop("a", "b"), prop("b", "1"), moved, two))
    assert calls == ["b", "a", "b", "a"]
    # What it rests on is gone, or rests on it: kept, named, and said.
    for lost in ((prop("a", "9"),), (prop("a", "b"), prop("b", "a"))):
        found = fit_all(world, lost)
        assert {f.fit for f in found.values()} <= {Fit.LOST, Fit.STANDS}
        assert found[lost[-1].key].fit == Fit.LOST
        assert "not there any more" in found[lost[-1].key].text


def test_slanting_rods_make_watertight_members_of_their_volume(draws):
    for _ in range(about(10)):
        # Above the plate, which cuts off what is below.
        a, way = draws.normal(size=3) * 20 + (0, 0, 200), draws.normal(size=3) * 10
        r0, r1 = draws.uniform(0.2, 3, 2)
        rods = (
            Rod(tuple(a), tuple(a + way), r0, r1),
            Rod(tuple(a + way), tuple(a + 2 * way), r1, r0),
        )
        fitted = supports.Fitted(None, Fit.STANDS, "", (), rods)
        facts, length = mesh_facts(fitted.mesh), float(np.linalg.norm(way))
        share = 32 / 2 * math.sin(2 * math.pi / 32)
        assert facts.watertight
        assert facts.bodies == 1
        assert facts.volume_mm3 == pytest.approx(
            share * 2 * length / 3 * (r0 * r0 + r0 * r1 + r1 * r1)
        )


@pytest.mark.parametrize("lacking", [0.02, 0.1, 0.14, 0.3])
def test_the_lift_that_is_asked_for_is_enough(lacking):
    """Rounded up to a tenth: never 0.0, and with it the pillar stands."""
    size = size_for(PROCESSES["fdm"])
    low = size.pad_height_mm + LEAST_RISE_MM - lacking

    def fitted(lift):
        z = low + lift
        mesh = together(box(4, 4, z), box(20, 4, 2, (0, 0, z)))
        return fit_pillar(mesh, _spec_at(mesh, 15, 2))

    asked = float(re.search(r"Lift the piece by ([\d.]+) mm", fitted(0.0).text)[1])
    assert lacking - 1e-6 <= asked < lacking + 0.1
    assert fitted(asked).stands


def test_a_tip_does_not_stand_under_a_knife_edge():
    """A wedge that runs out thin: near its edge a tip has next to nothing to be sunk into."""
    profile = [(0, 10), (20, 10), (20, 14)]
    wedge = mesh_of(upright(profile, 10) + cuboid(19, -5, 0, 24, 5, 14))
    under = np.flatnonzero(facet_normals(wedge)[:, 2] < -0.9)
    facet = next(f for f in under if wedge.vertices[wedge.facets[f], 2].min() > 5)
    corners = wedge.vertices[wedge.facets[facet]]
    for x, stands in ((0.1, False), (0.2, False), (2.0, True), (8.0, True)):
        weights = np.linalg.solve(np.vstack([corners[:, :2].T, np.ones(3)]), [x, 0.0, 1.0])
        fitted = fit_pillar(wedge, pillar_at(wedge, int(facet), weights))
        assert fitted.stands == stands, (x, fitted.text)
        assert stands or "does not bond" in fitted.text
