"""What no layer shows: sheets and steps between two cuts, and gaps that close.

A layer is cut at its middle, so what begins and ends between two cuts is simply not there; a gap
narrower than what slides together closes.
"""

from dataclasses import dataclass

import manifold3d
import numpy as np
import shapely

from ..mesh import Mesh, facet_areas, facet_normals, first_hits, spread_in
from ..mesh.linking import linked
from ._united import union_of_loops
from .levels import hair_mm, levels
from .slicing import Layers, outlines
from .thin import thin_rows, together

__all__ = ["Lost", "find_lost"]

# A wall is steeper than this, what it steps between is flatter (our choice): parts along Z of
# normals of length 1.
_WALL, _FLAT = 0.5, 0.87
# A step lower than this part of a layer is rounding of the model.
_LEAST_STEP = 0.1
# A step shorter than so many mm, and a gap that is not so deep, are specks (from memory).
_SPECK_MM, _SPECK_MM2 = 1.0, 1.0
# A clearance below this is none that any process keeps (from memory).
_LEAST_CLEARANCE_MM = 0.005
# Slits are looked for in layers so far apart.
_SLIT_APART_MM = 0.2
# Rays are sent up from so many places of an underside of 1 mm2, and from so many of one facet.
_PER_MM2, _MOST_OF_ONE = 1.0, 64


@dataclass(frozen=True)
class Lost:
    """Something that no layer shows.

    Attributes
    ----------
    what : str
        ``body`` or ``sheet`` (material with both its faces between two cuts), ``step`` (walls
        that no cut crosses), ``gap`` (level, between two cuts) or ``slit`` (upright, narrower
        than the clearance).
    thickness_mm : float
        Of the sheet, height of the step, width of the gap.
    area_mm2 : float
        Seen from above; of a slit, its face.
    parts_bodies : bool
        Of gaps and slits: whether different bodies lie on their sides.
    z_mm : float
    center_mm : (3,) tuple of float
    """

    what: str
    thickness_mm: float
    area_mm2: float
    parts_bodies: bool
    z_mm: float
    center_mm: tuple[float, float, float]


def find_lost(mesh: Mesh, layers: Layers, wall_mm: float, clearance_mm: float) -> tuple[Lost, ...]:
    """What of a placed mesh no layer of it shows, the largest of each sort first.

    Crowns and the topmost remainder of a body are none of it: above the last cut that meets them
    nothing of their own begins.

    Parameters
    ----------
    mesh : Mesh
    layers : Layers
        Of the same mesh.
    wall_mm : float
        A sheet counts where a circle of this radius lies within what is lost.
    clearance_mm : float
        Gaps narrower than this close.
    """
    if not len(mesh.facets):
        return ()
    h = layers.layer_height_mm
    hair = hair_mm(h, float(mesh.vertices[:, 2].max()), mesh.grain_mm)
    level = levels(mesh.vertices[:, 2], h, hair)[mesh.facets]
    uncut = level.min(axis=1) == level.max(axis=1)
    level = level[:, 0]
    found = []
    if uncut.any():
        normal = facet_normals(mesh)[:, 2]
        found += _between_cuts(mesh, layers, level, uncut, normal, wall_mm, clearance_mm)
        found += _steps(mesh, level, uncut, normal, h)
    found += _slits(mesh, layers, clearance_mm)
    order = {"body": 0, "sheet": 1, "gap": 2, "slit": 3, "step": 4}
    return tuple(sorted(found, key=lambda one: (order[one.what], -one.area_mm2)))


def _between_cuts(mesh, layers, level, uncut, normal, wall_mm, clearance_mm) -> list[Lost]:
    """Sheets and level gaps with both their faces between the same two cuts."""
    down = np.flatnonzero(uncut & (normal < -1e-6))
    if not len(down):
        return []
    at, owner = _places_on(mesh, down)
    found = []
    for up in (True, False):
        hit = first_hits(mesh.index, at, (0.0, 0.0, 1.0 if up else -1.0), 1e-7)
        is_met = hit >= 0
        met = uncut[hit] & (level[hit] == level[down[owner]]) & (normal[hit] > 1e-6) & is_met
        for k in np.unique(level[down[owner[met]]]).tolist():
            found += _of_level(
                mesh, layers, int(k), level, uncut, normal, up, wall_mm, clearance_mm
            )
    return found


def _places_on(mesh: Mesh, facets: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Places on facets, (p, 3), on each at least one, and which of them each lies on."""
    areas = facet_areas(Mesh(mesh.vertices, mesh.facets[facets]))
    count = np.clip(np.ceil(areas * _PER_MM2), 1, _MOST_OF_ONE).astype(int)
    owner = np.repeat(np.arange(len(facets)), count)
    number = np.arange(len(owner)) - (np.cumsum(count) - count)[owner] + 1.0
    return spread_in(mesh.vertices[mesh.facets[facets[owner]]], number), owner


def _of_level(mesh, layers, k, level, uncut, normal, up, wall_mm, clearance_mm) -> list[Lost]:
    """What is lost between two cuts: material where undersides lie below tops, else gaps."""
    own = uncut & (level == k)
    low, high = own & (normal < -1e-6), own & (normal > 1e-6)
    both = _seen(mesh, low) ^ _seen(mesh, high)
    beside = [union_of_loops(outlines(layers, j)) for j in (k - 1, k) if 0 <= j < layers.count]
    for section in beside:
        both = both - section if up else both ^ section
    if not up and len(beside) < 2:
        return []
    found = []
    for part in both.decompose():
        area = part.area()
        if area < _SPECK_MM2 * 1e-2:
            continue
        x, y = _middle(part)
        z0, z1, facets = _column(mesh, x, y, low, high)
        if z1 is None or (z1 > z0) != up:
            continue
        thick = abs(z1 - z0)
        is_body = up and _is_whole(mesh, facets[0], own)
        wide = not part.offset(-wall_mm, manifold3d.JoinType.Round, circular_segments=24).is_empty()
        if not is_body and (not wide or area < _SPECK_MM2):
            continue
        if not up and thick > clearance_mm:
            continue
        bodies = mesh.body_of_facet[list(facets)]
        found.append(Lost(
            "body" if is_body else "sheet" if up else "gap", float(thick), float(area),
            bool(not up and bodies[0] != bodies[1]), float(min(z0, z1)),
            (float(x), float(y), float((z0 + z1) / 2)),
        ))  # fmt: skip
    return found


def _seen(mesh: Mesh, which: np.ndarray) -> manifold3d.CrossSection:
    """Facets seen from above, as one section."""
    corners = mesh.vertices[mesh.facets[which], :2]
    (ux, uy), (vx, vy) = (corners[:, 1] - corners[:, 0]).T, (corners[:, 2] - corners[:, 0]).T
    area = ux * vy - uy * vx
    corners[area < 0] = corners[area < 0][:, ::-1]
    return manifold3d.CrossSection(list(corners), manifold3d.FillRule.NonZero)


def _middle(part: manifold3d.CrossSection) -> tuple[float, float]:
    outer, *holes = part.to_polygons()
    point = shapely.point_on_surface(shapely.Polygon(outer, holes))
    return float(point.x), float(point.y)


def _column(mesh, x, y, low, high) -> tuple[float, float | None, tuple[int, int]]:
    """Height and facet of the underside and of the top above a place."""
    out, facets = [], []
    for which in (low, high):
        own = np.flatnonzero(which)
        corners = mesh.vertices[mesh.facets[own]]
        inside, z = _heights_at(corners, x, y)
        if not inside.any():
            return 0.0, None, (0, 0)
        i = int(np.flatnonzero(inside)[0])
        out.append(float(z[i]))
        facets.append(int(own[i]))
    return out[0], out[1], (facets[0], facets[1])


def _heights_at(corners: np.ndarray, x: float, y: float) -> tuple[np.ndarray, np.ndarray]:
    a, u, v = corners[:, 0], corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0]
    cross = u[:, 0] * v[:, 1] - u[:, 1] * v[:, 0]
    safe = np.where(np.abs(cross) > 0, cross, np.inf)
    px, py = x - a[:, 0], y - a[:, 1]
    s, t = (px * v[:, 1] - py * v[:, 0]) / safe, (u[:, 0] * py - u[:, 1] * px) / safe
    inside = (s >= -1e-9) & (t >= -1e-9) & (s + t <= 1 + 1e-9) & np.isfinite(safe)
    return inside, a[:, 2] + s * u[:, 2] + t * v[:, 2]


def _is_whole(mesh: Mesh, facet: int, own: np.ndarray) -> bool:
    """Whether all of a facet's body lies between the two cuts."""
    return bool(own[mesh.body_of_facet == mesh.body_of_facet[facet]].all())


def _steps(mesh: Mesh, level, uncut, normal, h: float) -> list[Lost]:
    """Steps between flats that face the same way and of which no cut crosses the walls."""
    steep = uncut & (np.abs(normal) < _WALL)
    flat = uncut & (np.abs(normal) > _FLAT)
    if not steep.any() or not flat.any():
        return []
    half = np.flatnonzero(np.repeat(steep, 3))
    twin = mesh.twin[half]
    half, twin = half[twin >= 0], twin[twin >= 0]
    one, other = half // 3, twin // 3
    number = np.cumsum(steep) - 1
    among = steep[other]
    label = linked(int(steep.sum()), number[one[among]], number[other[among]])
    z = mesh.vertices[:, 2]
    zs = z[mesh.facets[steep]]
    low, high = np.full(label.max() + 1, np.inf), np.full(label.max() + 1, -np.inf)
    np.minimum.at(low, label, zs.min(axis=1))
    np.maximum.at(high, label, zs.max(axis=1))
    # Flats beside walls, by the edge between them: at the wall's foot or at its top.
    beside = flat[other] & (level[other] == level[one])
    one, other, half = one[beside], other[beside], half[beside]
    own = label[number[one]]
    a, b = mesh.facets[one, half % 3], mesh.facets[one, (half % 3 + 1) % 3]
    edge_z = (z[a] + z[b]) / 2
    length = np.linalg.norm(mesh.vertices[a] - mesh.vertices[b], axis=1)
    slack = 0.1 * (high[own] - low[own]) + 1e-9
    count = len(low)
    sums = {}
    for up in (True, False):
        way = (normal[other] > 0) == up
        for name, near in (
            ("foot", edge_z <= low[own] + slack),
            ("top", edge_z >= high[own] - slack),
        ):
            some = way & near
            sums[up, name] = np.bincount(own[some], length[some], count)
    run = np.maximum(*(np.minimum(sums[up, "foot"], sums[up, "top"]) for up in (True, False)))
    height = high - low
    is_step = (run >= _SPECK_MM) & (height >= _LEAST_STEP * h)
    found = []
    of_level = np.zeros(count, int)
    of_level[label] = level[steep]
    middle = mesh.vertices[mesh.facets[steep]].mean(axis=1)
    for k in np.unique(of_level[is_step]).tolist():
        some = np.flatnonzero(is_step & (of_level == k))
        longest = some[np.argmax(run[some])]
        x, y, zc = middle[label == longest][0]
        found.append(Lost(
            "step", float(height[some].max()), float((run[some] * height[some]).sum()), False,
            float(low[longest]), (float(x), float(y), float(zc)),
        ))  # fmt: skip
    return found


def _slits(mesh: Mesh, layers: Layers, clearance_mm: float) -> list[Lost]:
    """Upright gaps narrower than the clearance, as walls of room that are too thin."""
    if clearance_mm < _LEAST_CLEARANCE_MM or not layers.count:
        return []
    every = max(int(_SLIT_APART_MM / layers.layer_height_mm), 1)
    rows = thin_rows(layers, clearance_mm, True, every)
    rows = rows[(rows[:, 6] == 0) & (rows[:, 3] > 0)]
    if not len(rows):
        return []
    label = together(rows[:, :3], clearance_mm)
    order = np.argsort(label, kind="stable")
    found, h = [], layers.layer_height_mm * every
    for own in np.split(rows[order], np.flatnonzero(np.diff(label[order])) + 1):
        deep = np.bincount(own[:, 5].astype(int), own[:, 4]).max() / 2
        area = float(own[:, 4].sum() * h / 2)
        if deep < _SPECK_MM or area < _SPECK_MM2 or len(np.unique(own[:, 5])) < 2:
            continue
        middle = own[len(own) // 2]
        found.append(Lost(
            "slit", float(np.median(own[:, 3])), area, _parts_bodies(mesh, layers, middle),
            float(own[0, 2]), tuple(float(v) for v in middle[:3]),
        ))  # fmt: skip
    return found


def _parts_bodies(mesh: Mesh, layers: Layers, row: np.ndarray) -> bool:
    """Whether different bodies lie on the two sides of a slit."""
    if mesh.body_of_facet.max() == 0:
        return False
    k = int(row[5])
    place = shapely.Point(*row[:2])
    bodies = set()
    loops = np.arange(layers.layer_start[k], layers.layer_start[k + 1])
    box = layers.loop_box_mm[loops]
    near = (box[:, :2] - row[3] <= row[:2]).all(axis=1) & (box[:, 2:] + row[3] >= row[:2]).all(
        axis=1
    )
    for loop in loops[near & (layers.region_of_loop[loops] >= 0)].tolist():
        ring = shapely.linearrings(
            layers.points[layers.loop_start[loop] : layers.loop_start[loop + 1]]
        )
        if ring.distance(place) > row[3]:
            continue
        way = shapely.get_coordinates(shapely.shortest_line(place, ring))[-1] - row[:2]
        away = float(np.hypot(*way))
        if away > 0:
            hit = first_hits(mesh.index, row[None, :3], (*(way / away), 0.0), 0.0)[0]
            if hit >= 0:
                bodies.add(int(mesh.body_of_facet[hit]))
    return len(bodies) > 1
