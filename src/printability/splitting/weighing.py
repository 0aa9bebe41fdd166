"""What a plane would leave on both sides, in numbers: quick enough to follow a hand."""

from dataclasses import dataclass
from weakref import WeakKeyDictionary

import numpy as np
import shapely
from shapely.geometry.base import BaseGeometry

from ..mesh import Mesh
from ..mesh.solids import facets_of_bodies
from ..parts import Part
from . import _weighing_kernels
from .cut import ON_PLANE, Cut
from .plane import Plane

__all__ = ["Side", "Weighed", "weighed"]

# What is decided by rounding alone is no body: of the whole volume.
_NOTHING = 1e-12
_BODIES: WeakKeyDictionary = WeakKeyDictionary()


@dataclass(frozen=True)
class Side:
    """What is on one side of a plane.

    Attributes
    ----------
    volume_mm3 : float
    bodies : int
        That nothing joins; closed rooms are none.
    thinnest_mm : float
        Least extent of a body along the plane's normal; 0 where there is none.
    overhang_mm2 : tuple of float
        For each direction that was asked for.
    """

    volume_mm3: float
    bodies: int
    thinnest_mm: float
    overhang_mm2: tuple[float, ...]


@dataclass(frozen=True, eq=False)
class Weighed:
    """Both sides of a plane, and what they have in common.

    Attributes
    ----------
    plane : Plane
    outline : shapely geometry
        Of the cut face, in the plane's two coordinates, mm.
    a, b : Side
    """

    plane: Plane
    outline: BaseGeometry
    a: Side
    b: Side


def weighed(
    part: Part,
    cut: Cut,
    downs_a: np.ndarray,
    downs_b: np.ndarray,
    threshold_deg: float,
    rest_mm: float,
) -> Weighed | None:
    """What a cut would leave, before anything joins its sides; nothing is cut.

    Volumes, extents and overhangs are those of the surface taken apart along the plane, as
    `halves_of` takes it; overlapping bodies count each.

    Parameters
    ----------
    part : Part
    cut : Cut
    downs_a, downs_b : (d, 3) float
        Directions of down by which each side's overhang is asked for.
    threshold_deg : float
        Undersides that are flatter overhang.
    rest_mm : float
        What is no farther than so from a side's end stands on the plate.

    Returns
    -------
    Weighed or None
        None where the surface is open.
    """
    mesh, plane = part.mesh, cut.plane(part)
    if not len(mesh.facets) or not mesh.is_watertight:
        return None
    limit = float(np.cos(np.radians(threshold_deg)))
    extent, far = mesh.reach_mm
    within = ON_PLANE * extent + 1e-9 * far + mesh.grain_mm
    sides, faces = [], []
    for sign, downs in ((1.0, downs_a), (-1.0, downs_b)):
        offset = plane.offset_mm + sign * cut.kerf_mm / 2
        # Near the origin, with the origin on the plane.
        middle = (mesh.low_mm + mesh.high_mm) / 2
        middle += (offset - plane.normal @ middle) * plane.normal
        points = mesh.vertices - middle
        depth = points @ (sign * plane.normal)
        in_plane = np.abs(depth) <= within
        depth[in_plane] = 0.0
        downs = np.ascontiguousarray(np.atleast_2d(downs), float)
        piece, volume, low, high, reach = _weighing_kernels.above_plane(
            points, depth, mesh.facets, mesh.twin, downs
        )
        # Without a kerf, and nothing in the plane, both sides have the same face.
        if not faces or cut.kerf_mm or in_plane.any():
            face, joined = _face(mesh, plane, points, depth, middle)
        overhang = _weighing_kernels.hanging_above(
            points, depth, mesh.facets, piece, downs, limit, reach - rest_mm
        )
        # The cut face is an underside too, where it does not stand on the plate itself.
        flat = shapely.get_coordinates(face)
        for i, down in enumerate(downs if len(flat) else ()):
            if -sign * (plane.normal @ down) > limit:
                at = np.column_stack([flat, np.full(len(flat), offset)])
                if ((plane.outside(at) - middle) @ down).min() <= reach[i] - rest_mm:
                    overhang[i] += face.area
        sides.append(_side(piece, volume, low, high, joined, overhang))
        faces.append(face)
    outline = faces[0]
    if faces[1] is not faces[0]:
        outline = faces[0].intersection(faces[1])
    return Weighed(plane, outline, *sides)


def _side(piece, volume, low, high, joined, overhang) -> Side:
    """A side from its pieces of surface; ``joined``: pairs of facets that a cut face joins."""
    names = np.unique(piece[piece >= 0])
    home = {int(name): int(name) for name in names}

    def root(name: int) -> int:
        while home[name] != name:
            name = home[name]
        return name

    for f, g in joined:
        a, b = root(int(piece[f])), root(int(piece[g]))
        home[max(a, b)] = min(a, b)
    bodies: dict[int, list[int]] = {}
    for name in home:
        bodies.setdefault(root(name), []).append(name)
    total = float(volume[names].sum())
    own = [some for some in bodies.values() if volume[some].sum() > _NOTHING * abs(total)]
    thin = [float(high[some].max() - low[some].min()) for some in own]
    return Side(total, len(own), min(thin, default=0.0), tuple(overhang.tolist()))


def _bodies(mesh: Mesh) -> np.ndarray:
    """(m,) int: the body of each facet, cavities with what they are in."""
    found = _BODIES.get(mesh)
    if found is None:
        found = np.zeros(len(mesh.facets), np.int32)
        for number, facets in enumerate(facets_of_bodies(mesh)):
            found[facets] = number
        _BODIES[mesh] = found
    return found


def _face(mesh: Mesh, plane: Plane, points, depth, middle) -> tuple[BaseGeometry, list]:
    """The cut face of a side in the plane's coordinates, and pairs of facets that it joins."""
    at, ends, first = _weighing_kernels.loops_at(points, depth, mesh.facets, mesh.twin)
    count = np.diff(ends)
    first = first[count > 2]
    flat = ((at + middle) @ plane.axes[:2].T)[np.repeat(count > 2, count)]
    count = count[count > 2]
    if not len(count):
        return shapely.Polygon(), []
    begins = np.cumsum(count) - count
    areas = _areas(flat, begins, count)
    rings = shapely.linearrings(flat, indices=np.repeat(np.arange(len(count)), count))
    # Around material they run one way, around holes the other; the widest is around material.
    bodies = _bodies(mesh)[first]
    order = np.lexsort((-np.abs(areas), bodies))
    widest = order[np.unique(bodies[order], return_index=True)[1]]
    way = np.zeros(bodies.max() + 1)
    way[bodies[widest]] = np.sign(areas[widest])
    is_outer = areas * way[bodies] > 0
    outer, holes = np.flatnonzero(is_outer), np.flatnonzero(areas * way[bodies] < 0)
    polygons = shapely.polygons(rings[outer])
    inside: dict[int, list] = {}
    joined = []
    if len(holes):
        hole, around = shapely.STRtree(polygons).query(
            shapely.points(flat[begins[holes]]), predicate="covered_by"
        )
        same = bodies[holes[hole]] == bodies[outer[around]]
        hole, around = hole[same], around[same]
        # Each belongs to the narrowest around it.
        nearest = np.lexsort((np.abs(areas[outer[around]]), hole))
        for i in nearest[np.unique(hole[nearest], return_index=True)[1]]:
            inside.setdefault(int(around[i]), []).append(rings[holes[hole[i]]])
            joined.append((first[outer[around[i]]], first[holes[hole[i]]]))
    for i, within in inside.items():
        polygons[i] = shapely.polygons(rings[outer[i]], holes=within)
    crossed = np.flatnonzero(~shapely.is_valid(polygons))
    polygons[crossed] = shapely.buffer(polygons[crossed], 0)
    if len(polygons) == 1:
        return polygons[0], joined
    whole = shapely.multipolygons(polygons) if _are_plain(polygons) else None
    if whole is None or not whole.is_valid:
        whole = shapely.union_all(polygons)
    return whole, joined


def _are_plain(polygons: np.ndarray) -> bool:
    return bool((shapely.get_type_id(polygons) == shapely.GeometryType.POLYGON).all())


def _areas(flat: np.ndarray, begins: np.ndarray, count: np.ndarray) -> np.ndarray:
    """Signed areas of rings that lie one after another."""
    after = np.arange(len(flat)) + 1
    after[begins + count - 1] = begins
    near = flat - np.repeat(flat[begins], count, axis=0)
    cross = near[:, 0] * near[after, 1] - near[:, 1] * near[after, 0]
    return 0.5 * np.add.reduceat(cross, begins)
