"""Habits, round holes and free rims: constructions with known answers."""

import math

import manifold3d
import numpy as np
import pytest
import trimesh

from depth import about
from printability.errors import EditError, ProcessError
from printability.findings import Severity
from printability.mesh import facet_normals, mesh_of
from printability.process import PROCESSES, written_own
from printability.proposing import HABITS, HabitLine, Habits, Options, propose, read_habits
from printability.stance import Pose, Setup, part_of, place
from printability.supports import rim
from printability.surface import NEITHER, round_hole
from solids import box, ours, together

FDM, RESIN = PROCESSES["fdm"], PROCESSES["resin"]


def _by(mesh, *lines, process=FDM, **options):
    setup = Setup(process=process)
    part = part_of(mesh, setup)
    return propose(part, setup, Options(habits=Habits("mine", lines), **options))


def _places(found):
    return np.array([found.fitted[s.key].contact_mm for s in found.supports])


def _shelf(reach=12.0, length=40.0, z=25.0):
    """A wall with a shelf that reaches out along +x."""
    wall = box(30, length, z + 4, (0, 0, 0))
    shelf = box(reach + 1, length, 4, (29, 0, z))
    return ours(trimesh.boolean.union([wall, shelf], engine="manifold"))


def test_a_row_stands_along_the_free_rim_and_a_board_as_far_apart_as_it_says(draws):
    spacing = float(draws.uniform(4.0, 7.0))
    mesh = _shelf()
    row = _by(mesh, HabitLine("any", stand="row", profile="light", spacing_mm=spacing))
    at = _places(row)
    # Free are the front and both ends of the shelf: 40 + 12 + 12 mm.
    low, high = at.min(axis=0), at.max(axis=0)
    assert np.ptp(at[:, 1]) > 0.8 * (40 - 2)
    assert high[0] - low[0] < 12
    assert 64 / spacing * 0.6 <= len(at) <= 64 / spacing + 3
    apart = np.linalg.norm(at[:, None] - at, axis=2) + 1e9 * np.eye(len(at))
    assert apart.min() >= spacing - 0.5
    contact = FDM.profiles["light"][0]
    assert all(c.diameter_mm == contact for f in row.fitted.values() for c in f.contacts)
    board = _by(mesh, HabitLine("any", stand="board", spacing_mm=spacing))
    # What a wide board leaves unheld, the search holds.
    at = _places(board)[["mine, line 1" in s.why for s in board.supports]]
    apart = np.linalg.norm(at[:, None] - at, axis=2) + 1e9 * np.eye(len(at))
    assert len(at) > 6
    assert apart.min(axis=1) == pytest.approx(np.full(len(at), spacing), abs=1e-3)


def test_the_first_line_that_fits_decides_and_what_is_left_alone_is_listed():
    mesh = _shelf()
    alone = _by(mesh, HabitLine("any", stand="none"))
    assert alone.supports == ()
    assert alone.unreachable
    assert all("leave it alone" in one.why for one in alone.unreachable)
    # A line for high places only does not fit this one; the next one does.
    lines = (
        HabitLine("any", height_mm=(60.0, 1e5), stand="none"),
        HabitLine("any", stand="search"),
    )
    search = _by(mesh, *lines)
    assert search.supports
    assert not search.unreachable
    assert not [f for f in search.after.findings if f.severity >= Severity.RISKY
                and f.kind in ("ledge", "bridge", "overhang")]  # fmt: skip
    plain = propose(part_of(mesh, Setup()), Setup(), Options())
    assert {s.why for s in search.supports} == {s.why for s in plain.supports}
    with pytest.raises(EditError, match="no profile"):
        _by(mesh, HabitLine("any", profile="feather"))


@pytest.mark.parametrize("key", list(HABITS))
def test_shipped_tables_leave_nothing_that_fails_and_survive_a_file(key):
    process = PROCESSES[key]
    assert read_habits(written_own(HABITS[key])) == HABITS[key]
    ball = mesh_of(manifold3d.Manifold.sphere(5, 40).translate((0, 0, 5)))
    bar = mesh_of(manifold3d.Manifold.cube((8, 3, 2)).translate((12, 0, 1.31)))
    mesh = together(*map(_theirs, (ball, bar)))
    setup = Setup(process=process, pose=Pose(lift_mm=6.13))
    found = propose(part_of(mesh, setup), setup, Options(habits=HABITS[key]))
    left = [f for f in found.after.findings if f.severity == Severity.WILL_FAIL
            and f.kind in ("island", "ledge", "bridge", "overhang", "jump")]  # fmt: skip
    assert len(left) <= len(found.unreachable), [f.short for f in left]
    assert any("line 1" in s.why for s in found.supports)


def _theirs(mesh):
    return trimesh.Trimesh(mesh.vertices, mesh.facets, process=False)


def test_lines_that_make_no_sense_are_refused():
    for bad in (
        {"place": "moon"},
        {"stand": 3},
        {"size_mm2": (5, 1)},
        {"spacing_mm": math.nan},
        {"spacing_mm": 0},
        {"slope_deg": "x"},
        {"contact_mm": -1},
        {"profile": ""},
    ):
        with pytest.raises(ProcessError):
            HabitLine(**bad)
    for text in (
        b"{}",
        b"[",
        b'{"fair_stand_habits": 1}',
        b'{"fair_stand_habits": 1, "label": "x", "lines": []}',
        b'{"fair_stand_machine": 1}',
    ):
        with pytest.raises(ProcessError):
            read_habits(text)


def _drilled(sides, r, turn, lean, through=True):
    block = manifold3d.Manifold.cube((30, 12, 24), True)
    drill = manifold3d.Manifold.cylinder(40 if through else 8, r, r, sides, True).rotate((90, 0, 0))
    drill = drill if through else drill.translate((0, -6, 0))
    return mesh_of((block - drill).rotate((lean, 0, turn)).translate((7, -3, 40)))


def test_the_top_of_a_random_round_hole_is_found_and_a_pin_is_none(draws):
    for _ in range(about(4)):
        sides, r = int(draws.integers(10, 120)), float(draws.uniform(1.0, 6.0))
        turn, lean = float(draws.uniform(0, 360)), float(draws.uniform(-30, 30))
        through = bool(draws.integers(2))
        mesh = _drilled(sides, r, turn, lean, through)
        normals = facet_normals(mesh)
        axis = np.array([0.0, math.cos(math.radians(lean)), math.sin(math.radians(lean))])
        c, s = math.cos(math.radians(turn)), math.sin(math.radians(turn))
        axis = np.array([[c, -s, 0], [s, c, 0], [0, 0, 1]]) @ axis
        middle = mesh.vertices[mesh.facets].mean(axis=1) - [7, -3, 40]
        off = np.linalg.norm(middle - np.outer(middle @ axis, axis), axis=1)
        wall = np.flatnonzero((off < r * 1.001) & (np.abs(normals @ axis) < 1e-6))
        found = [round_hole(mesh, int(f), normals) for f in wall[:: max(len(wall) // 5, 1)]]
        assert all(h is not None for h in found), (sides, r, turn, lean, through)
        for hole in found:
            assert hole.radius_mm == pytest.approx(r, rel=1e-6)
            assert abs(hole.axis @ axis) == pytest.approx(1, abs=1e-6)
            # The top lies on the polygon, at most r (1 - cos(pi / n)) below the circle's.
            up = np.array([0, 0, 1]) - hole.axis[2] * hole.axis
            up /= np.linalg.norm(up)
            high = (hole.top_mm - hole.centre_mm) @ up
            assert r * math.cos(math.pi / sides) - 1e-6 <= high <= r + 1e-6
            assert set(hole.facets) == set(wall)
    pin = mesh_of(manifold3d.Manifold.cylinder(20, 4, 4, 64, True).rotate((90, 0, 0)))
    assert all(round_hole(pin, f) is None for f in range(0, len(pin.facets), 5))


def test_the_rim_of_a_turned_shelf_is_its_three_free_edges(draws):
    turn, spacing = float(draws.uniform(0, 360)), float(draws.uniform(2.0, 5.0))
    solid = manifold3d.Manifold.cube((6, 30, 24)) + manifold3d.Manifold.cube((10, 30, 4)).translate(
        (6, 0, 20)
    )
    placed = place(mesh_of(solid.rotate((0, 0, turn))), Setup())
    normals = facet_normals(placed.mesh)
    z = placed.mesh.vertices[placed.mesh.facets].mean(axis=1)[:, 2]
    under = np.flatnonzero((normals[:, 2] < -0.99) & (z > 1))
    at = np.array([placed.world.place_of(a) for a in rim(placed.world, under, spacing, 0.0)])
    c, s = math.cos(math.radians(-turn)), math.sin(math.radians(-turn))
    flat = (at[:, :2] @ np.array([[c, s], [-s, c]])) - (
        at[:, :2] @ np.array([[c, s], [-s, c]])
    ).mean(axis=0)
    length = 30 + 10 + 10
    assert length / spacing * 0.6 <= len(at) <= length / spacing + 3
    assert np.ptp(flat[:, 1]) == pytest.approx(30, abs=spacing)
    assert NEITHER == 0
