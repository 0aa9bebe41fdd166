"""The surface of a support: its members as watertight meshes, each worked out once."""

import math
from collections.abc import Iterable
from dataclasses import dataclass
from functools import cached_property, lru_cache
from threading import Lock
from weakref import WeakValueDictionary

import manifold3d
import numpy as np

from ..mesh import Mesh, as_solid, joined, mesh_of, volume_mm3

__all__ = ["SIDES", "Rod", "Shape", "Solid", "shape_of", "united"]

# Sides of the polygon that stands for a circle.
SIDES = 32
# Below the plate by no more than this is rounding.
_HAIR_MM = 1e-9
# A ball at a joint, in radii of its rod, and where rings go around it: between them it is not
# narrower than the rod.
_BALL, _BALL_DEG = 1.05, (0.0, 30.0, 60.0, 75.0)


@dataclass(frozen=True)
class Rod:
    """A round member, which may narrow: between two points, with a radius at each.

    Where it ends on a member that goes another way it is rounded off around that point, or the
    rim of an end would begin beside the other one, on nothing.
    """

    a_mm: tuple[float, float, float]
    b_mm: tuple[float, float, float]
    r_a_mm: float
    r_b_mm: float
    is_round_a: bool = False
    is_round_b: bool = False


@dataclass(frozen=True, eq=False)
class Solid:
    """A member of any other shape."""

    mesh: Mesh


@dataclass(frozen=True, eq=False)
class Shape:
    """What some members come to.

    Attributes
    ----------
    members : tuple of Rod or Solid
    """

    members: tuple[Rod | Solid, ...]

    @cached_property
    def solids(self) -> tuple[Mesh, ...]:
        """Each run of rods in one line, and each solid, as a watertight mesh; they may overlap."""
        return (
            *(_turned_solid(run, SIDES) for run in _runs(self.members)),
            *(m.mesh for m in self.members if isinstance(m, Solid)),
        )

    def with_sides(self, sides: int) -> Mesh:
        """The same as `mesh` with polygons of so many sides, as large as those that it has."""
        if sides == SIDES:
            return self.mesh
        turned = (_turned_solid(run, sides) for run in _runs(self.members))
        return joined([*turned, *(m.mesh for m in self.members if isinstance(m, Solid))])

    @cached_property
    def mesh(self) -> Mesh:
        """All of it side by side in one mesh."""
        return joined(self.solids)

    @cached_property
    def whole(self) -> Mesh:
        """All of it as one surface."""
        if len(self.solids) == 1:
            return self.solids[0]
        return mesh_of(united([as_solid(one) for one in self.solids]))

    @cached_property
    def volume_mm3(self) -> float:
        """Of all of it, what overlaps counted once."""
        if len(self.solids) == 1:
            return volume_mm3(self.solids[0])
        return float(united([as_solid(one) for one in self.solids]).volume())


_SHAPES: "WeakValueDictionary[tuple, Shape]" = WeakValueDictionary()
_LOCK = Lock()


def shape_of(members: tuple[Rod | Solid, ...]) -> Shape:
    """The shape of some members; as long as one of them is about, equal ones share it."""
    with _LOCK:
        return _SHAPES.setdefault(members, Shape(members))


def united(solids: Iterable[manifold3d.Manifold]) -> manifold3d.Manifold:
    """The union of some solids."""
    return manifold3d.Manifold.batch_boolean(list(solids), manifold3d.OpType.Add)


def _runs(members: Iterable[Rod | Solid]) -> list[list[Rod]]:
    """Rods that follow each other in one line, end to end."""
    runs: list[list[Rod]] = []
    for rod in members:
        if not isinstance(rod, Rod):
            continue
        if runs and runs[-1][-1].b_mm == rod.a_mm and _in_line(runs[-1][-1], rod):
            runs[-1].append(rod)
        else:
            runs.append([rod])
    return runs


def _axis(rod: Rod) -> np.ndarray:
    way = np.subtract(rod.b_mm, rod.a_mm)
    return way / np.linalg.norm(way)


def _in_line(one: Rod, other: Rod) -> bool:
    return float(_axis(one) @ _axis(other)) > 1 - 1e-12


def _turned_solid(run: list[Rod], sides: int) -> Mesh:
    """Watertight mesh of rods in one line, a solid of revolution of so many sides.

    The polygon of `SIDES` is inscribed, so its diameter across corners is the one given; others
    have its area.
    """
    rows = []
    for rod in run:
        rows += [(*rod.a_mm, rod.r_a_mm), (*rod.b_mm, rod.r_b_mm)]
    rows = np.array([row for i, row in enumerate(rows) if i == 0 or row != rows[i - 1]])
    way = _axis(run[0])
    if run[0].is_round_a:
        rows = np.concatenate([_rounding(rows[0], -way, run[0])[::-1], rows[1:]])
    if run[-1].is_round_b:
        rows = np.concatenate([rows[:-1], _rounding(rows[-1], way, run[-1])])
    if abs(way[2]) > 1 - 1e-12:
        u, v = np.array([1.0, 0.0, 0.0]), np.array([0.0, math.copysign(1.0, way[2]), 0.0])
    else:
        u = np.array([-way[1], way[0], 0.0]) / math.hypot(way[0], way[1])
        v = np.cross(way, u)
    angle = np.arange(sides)[:, None] * (2 * np.pi / sides)
    # A polygon's area is n / 2 sin(2 pi / n) of its radius squared.
    wider = math.sqrt(SIDES * math.sin(2 * np.pi / SIDES) / (sides * math.sin(2 * np.pi / sides)))
    ring = wider * (np.cos(angle) * u + np.sin(angle) * v)
    rings = rows[:, None, :3] + rows[:, None, 3:] * ring
    vertices = np.concatenate([rows[[0, -1], :3], rings.reshape(-1, 3)])
    mesh = Mesh(vertices, _facets_of_rings(len(rows), sides))
    return mesh if vertices[:, 2].min() >= -_HAIR_MM else _above_the_plate(mesh)


def _above_the_plate(mesh: Mesh) -> Mesh:
    """A solid without what the rim of a slanting end has below z = 0."""
    solid = as_solid(mesh)
    cut = None if solid is None else solid.trim_by_plane((0.0, 0.0, 1.0), 0.0)
    return mesh if cut is None or cut.is_empty() else mesh_of(cut)


def _rounding(end: np.ndarray, way: np.ndarray, rod: Rod) -> np.ndarray:
    """Rows of a ball around the end of a rod, from the rod on, in which that of its radius is."""
    ball = _BALL * end[3]
    angle = np.radians(_BALL_DEG)
    begins = min(math.sqrt(ball**2 - end[3] ** 2), 0.4 * math.dist(rod.a_mm, rod.b_mm))
    along = np.concatenate([[-begins], ball * np.sin(angle)])
    wide = np.concatenate([[end[3]], ball * np.cos(angle)])
    return np.column_stack([end[:3] + along[:, None] * way, wide])


@lru_cache
def _facets_of_rings(count: int, sides: int) -> np.ndarray:
    """Facets between so many rings of `sides` points, with a middle at either end before them."""
    i = np.arange(sides)
    j = (i + 1) % sides
    facets = [np.stack([np.zeros(sides, int), 2 + j, 2 + i], axis=1)]
    for level in range(count - 1):
        low, high = 2 + level * sides, 2 + (level + 1) * sides
        facets.append(np.stack([low + i, low + j, high + j], axis=1))
        facets.append(np.stack([low + i, high + j, high + i], axis=1))
    last = 2 + (count - 1) * sides
    facets.append(np.stack([np.ones(sides, int), last + i, last + j], axis=1))
    return np.concatenate(facets).astype(np.int32)
