"""Contacts set out together: along a line, over a face, and on the other side of the piece."""

import math

import numpy as np

from ..errors import EditError
from ..mesh import Mesh, facet_normals
from ..mesh.index import first_hits
from ..mesh.nearest import nearest_facing
from ..parts import Anchor, anchor_at
from .graph import World

__all__ = [
    "anchor_on",
    "checkerboard",
    "mirrored_place",
    "moved_place",
    "plane_of_symmetry",
    "rim",
    "row_between",
]

MOST = 2_000
# A place that is moved looks for its surface within this, mm.
_REACH_MM = 3.0
# Mirrored, so many of the sampled places must lie on the surface, within this part of the size.
_SAMPLES, _ALIKE, _OFF = 400, 0.995, 2e-3
# A plane of symmetry is fitted so many times at most.
_FITS = 12


def anchor_on(world: World, facet: int, place_mm) -> Anchor:
    """The place of a facet nearest to a point of the plate, as it is kept."""
    a, b, c = world.mesh.vertices[world.mesh.facets[facet]]
    u, v, w = b - a, c - a, np.asarray(place_mm, float) - a
    uu, uv, vv, wu, wv = u @ u, u @ v, v @ v, w @ u, w @ v
    det = uu * vv - uv * uv
    s, t = ((vv * wu - uv * wv) / det, (uu * wv - uv * wu) / det) if det > 0 else (0.0, 0.0)
    weights = np.clip([1 - s - t, s, t], 0, None)
    return anchor_at(world.part, int(facet), tuple(float(x) for x in weights / weights.sum()))


def _normal(mesh: Mesh, facet: int) -> np.ndarray:
    a, b, c = mesh.vertices[mesh.facets[facet]]
    normal = np.cross(b - a, c - a)
    return normal / max(float(np.linalg.norm(normal)), 1e-300)


def moved_place(world: World, anchor: Anchor, by_mm: tuple[float, float]) -> Anchor:
    """A place moved level along the surface.

    Raises
    ------
    EditError
        If there is no surface that faces the same way there.
    """
    at = world.surface_at(anchor)
    if at is None:
        raise EditError("The surface that it held is not there any more.")
    place = at.on(world.mesh)
    normal = _normal(world.mesh, at.facet)
    target = place + np.array([by_mm[0], by_mm[1], 0.0])
    if abs(normal[2]) > 1e-6:  # along the surface's own slope
        target[2] -= (normal[0] * by_mm[0] + normal[1] * by_mm[1]) / normal[2]
    facet, _ = nearest_facing(world.mesh.index, target, normal, 0.2, _REACH_MM)
    if facet < 0:
        raise EditError("There is no underside in that direction.")
    return anchor_on(world, facet, target)


def row_between(world: World, one: Anchor, other: Anchor, count: int) -> list[Anchor]:
    """So many places evenly between two, without those, on the underside above the line."""
    if isinstance(count, bool) or not isinstance(count, int) or not 1 <= count <= MOST:
        raise EditError(f"A row has from 1 to {MOST:,} contacts between its ends.")
    ends = [world.surface_at(anchor) for anchor in (one, other)]
    if any(end is None for end in ends):
        raise EditError("The surface at one end of the row is not there any more.")
    a, b = (end.on(world.mesh) for end in ends)
    found = []
    normal = _normal(world.mesh, ends[0].facet) + _normal(world.mesh, ends[1].facet)
    normal = normal / max(float(np.linalg.norm(normal)), 1e-300)
    reach = max(2.0, 0.5 * float(np.linalg.norm(b - a)))
    for t in np.arange(1, count + 1) / (count + 1):
        target = a + t * (b - a)
        (facet,) = first_hits(
            world.mesh.index, (target - (0, 0, reach))[None], (0.0, 0.0, 1.0), 0.0
        )
        if facet >= 0 and _normal(world.mesh, facet)[2] < -1e-3:
            n, corner = _normal(world.mesh, facet), world.mesh.vertices[
                world.mesh.facets[facet][0]]  # fmt: skip
            z = corner[2] - ((target[:2] - corner[:2]) @ n[:2]) / n[2]
            if abs(z - target[2]) <= reach:
                found.append(anchor_on(world, facet, (*target[:2], z)))
                continue
        facet, _ = nearest_facing(world.mesh.index, target, normal, 0.2, reach)
        if facet >= 0:
            found.append(anchor_on(world, facet, target))
    if not found:
        raise EditError("There is no underside between the two.")
    return found


def checkerboard(
    world: World, facets: np.ndarray, spacing_mm: float, turn_deg: float = 0.0
) -> list[Anchor]:
    """Places of a patch on a checkerboard: every second field of squares, rim included.

    Parameters
    ----------
    world : World
    facets : (k,) int
        The patch.
    spacing_mm : float
        From a contact to the nearest ones.
    turn_deg : float
    """
    spacing = float(spacing_mm)
    if not (math.isfinite(spacing) and 0.3 <= spacing <= 500 and math.isfinite(turn_deg)):
        raise EditError("The spacing is from 0.3 to 500 mm.")
    mesh = world.mesh
    corners = mesh.vertices[mesh.facets[facets]]
    a = math.radians(turn_deg + 45.0)  # squares standing on a corner: a checkerboard
    axes = np.array([[math.cos(a), math.sin(a)], [-math.sin(a), math.cos(a)]])
    flat = corners[:, :, :2].reshape(-1, 2) @ axes.T
    low, high = flat.min(axis=0), flat.max(axis=0)
    counts = np.maximum(np.ceil((high - low) / spacing).astype(int), 1)
    if counts.prod() > 40 * MOST:
        raise EditError(f"That would be more than {MOST:,} contacts: a wider spacing, please.")
    lines = [lo + (hi - lo - (n - 1) * spacing) / 2 + spacing * np.arange(n)
             for lo, hi, n in zip(low, high, counts, strict=True)]  # fmt: skip
    grid = np.stack(np.meshgrid(*lines), axis=-1).reshape(-1, 2) @ axes
    floor = float(corners[:, :, 2].min()) - 1.0
    inside = np.zeros(len(mesh.facets), bool)
    inside[facets] = True
    found = []
    mine = Mesh(mesh.vertices, np.ascontiguousarray(mesh.facets[facets]))
    hits = first_hits(mine.index, np.c_[grid, np.full(len(grid), floor)], (0.0, 0.0, 1.0), 0.0)
    for point, hit in zip(grid, hits, strict=True):
        if hit < 0:
            continue
        facet = int(facets[hit])
        n, corner = _normal(mesh, facet), mesh.vertices[mesh.facets[facet][0]]
        if n[2] >= 0:
            continue
        z = corner[2] - ((point - corner[:2]) @ n[:2]) / n[2]
        found.append(anchor_on(world, facet, (*point, z)))
    if len(found) > MOST:
        raise EditError(f"That would be {len(found):,} contacts: a wider spacing, please.")
    if not found:
        raise EditError("The face is smaller than the spacing: one contact will do.")
    return found


def rim(world: World, facets: np.ndarray, spacing_mm: float, inset_mm: float) -> list[Anchor]:
    """Places along the free rim of a patch, about so far apart, and so far in from the rim.

    Free is an edge beyond which the surface bends upwards.

    Parameters
    ----------
    world : World
    facets : (k,) int
        The patch.
    spacing_mm, inset_mm : float
    """
    spacing = float(spacing_mm)
    if not (math.isfinite(spacing) and 0.3 <= spacing <= 500):
        raise EditError("The spacing is from 0.3 to 500 mm.")
    mesh = world.mesh
    inside = np.zeros(len(mesh.facets), bool)
    inside[facets] = True
    half = (3 * np.asarray(facets)[:, None] + np.arange(3)).ravel()
    twin = mesh.twin[half]
    other = np.where(twin >= 0, twin // 3, -1)
    half, other = half[(other < 0) | ~inside[other]], other[(other < 0) | ~inside[other]]
    facet, side = half // 3, half % 3
    a = mesh.vertices[mesh.facets[facet, side]]
    b = mesh.vertices[mesh.facets[facet, (side + 1) % 3]]
    middle = mesh.vertices[mesh.facets[facet]].mean(axis=1)
    beyond = mesh.vertices[mesh.facets[np.maximum(other, 0)]].mean(axis=1)
    normal = facet_normals(Mesh(mesh.vertices, mesh.facets[facet]))
    free = (other < 0) | (((beyond - a) * normal).sum(axis=1) <= 1e-9)
    facet, a, b, middle = facet[free], a[free], b[free], middle[free]
    count = np.clip(np.ceil(np.linalg.norm(b - a, axis=1) / (spacing / 8)).astype(int), 1, 10_000)
    if count.sum() > 100 * MOST:
        raise EditError(f"That would be more than {MOST:,} contacts: a wider spacing, please.")
    row = np.repeat(np.arange(len(facet)), count)
    t = np.concatenate([(np.arange(n) + 0.5) / n for n in count]) if len(count) else np.zeros(0)
    at = a[row] + t[:, None] * (b - a)[row]
    way = middle[row] - at
    far = np.maximum(np.linalg.norm(way, axis=1), 1e-9)
    at = at + way * np.minimum(inset_mm / far, 0.9)[:, None]
    cells: dict[tuple, list] = {}
    found = []
    for i, place in enumerate(at):
        cell = tuple(np.floor(place / spacing).astype(int))
        around = (
            one
            for step in np.ndindex(3, 3, 3)
            for one in cells.get(tuple(c + s - 1 for c, s in zip(cell, step, strict=True)), ())
        )
        if all(math.dist(place, one) >= spacing for one in around):
            cells.setdefault(cell, []).append(place)
            found.append(anchor_on(world, int(facet[row[i]]), place))
    if len(found) > MOST:
        raise EditError(f"That would be {len(found):,} contacts: a wider spacing, please.")
    return found


# Planes that differ by less than some 2.5 degrees are one (ours).
_SAME_PLANE = 0.999


def plane_of_symmetry(mesh: Mesh) -> tuple[np.ndarray, np.ndarray] | None:
    """The upright plane about which a placed part is its own mirror image best; None without one.

    A point of it and its normal; see `planes_of_symmetry`.
    """
    found = planes_of_symmetry(mesh)
    return found[0] if found else None


def planes_of_symmetry(mesh: Mesh) -> list[tuple[np.ndarray, np.ndarray]]:
    """All upright planes about which a placed part is its own mirror image, the best first.

    A point of each and its normal. Tried through the middle of its surface, along the main
    directions of its outline and every 15°; then fitted to what corresponds on both sides, so
    that it is exact where the piece is; checked on places spread over its surface.
    """
    corners = mesh.vertices[mesh.facets]
    area = 0.5 * np.linalg.norm(
        np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0]), axis=1
    )
    if not area.sum() > 0:
        return []
    middle, facing = corners.mean(axis=1), facet_normals(mesh)
    centre = area @ middle / area.sum()
    spread = ((middle - centre)[:, :2].T * area) @ (middle - centre)[:, :2]
    _, axes = np.linalg.eigh(spread)
    # Where it reaches out farthest first: of two planes, the one between left and right.
    turns = [math.atan2(axes[1, k], axes[0, k]) for k in (1, 0)]
    turns += [math.radians(15 * k) for k in range(12)]
    size = float(np.linalg.norm(mesh.size_mm))
    # Evenly by area, the same every time.
    ends = np.cumsum(area)
    picks = np.searchsorted(ends, (np.arange(_SAMPLES) + 0.5) / _SAMPLES * ends[-1])
    places = middle[np.minimum(picks, len(middle) - 1)]
    planes: list[tuple[float, int, tuple[np.ndarray, np.ndarray]]] = []
    for number, turn in enumerate(turns):
        normal = np.array([math.cos(turn), math.sin(turn), 0.0])
        if any(abs(normal @ known[1]) > _SAME_PLANE for _, _, known in planes):
            continue
        other = _reflected(places, centre, normal)
        far = [nearest_facing(mesh.index, p, (0.0, 0.0, 0.0), -1.0, size)[1] for p in other[::8]]
        if np.max(far) > 20 * _OFF * size:
            continue
        plane = _fitted_plane(
            mesh, places, facing[np.minimum(picks, len(middle) - 1)], centre, turn
        )
        other = _reflected(places, *plane)
        far = [nearest_facing(mesh.index, p, (0.0, 0.0, 0.0), -1.0, size)[1] for p in other]
        alike = float(np.mean(np.array(far) <= _OFF * size))
        if alike >= _ALIKE and not any(abs(plane[1] @ known[1]) > _SAME_PLANE
                                       for _, _, known in planes):  # fmt: skip
            planes.append((-round(alike, 9), number, plane))
    return [plane for _, _, plane in sorted(planes, key=lambda one: one[:2])]


def _reflected(places: np.ndarray, point: np.ndarray, normal: np.ndarray) -> np.ndarray:
    return places - 2 * ((places - point) @ normal)[:, None] * normal


def _fitted_plane(
    mesh: Mesh, places: np.ndarray, facing: np.ndarray, centre: np.ndarray, turn: float
) -> tuple[np.ndarray, np.ndarray]:
    """An upright plane fitted so that places, mirrored, lie on the surface that faces as they do.

    Least squares of the distances to the facets that are nearest (Chen & Medioni 1992, from
    memory), by turn and shift of the plane: exact where the piece is its own mirror image.
    """
    size, shift = float(np.linalg.norm(mesh.size_mm)), 0.0
    flat = np.ascontiguousarray(mesh.vertices[mesh.facets])
    for _ in range(_FITS):
        normal = np.array([math.cos(turn), math.sin(turn), 0.0])
        across = np.array([-normal[1], normal[0], 0.0])
        other = _reflected(places, centre + shift * normal, normal)
        towards = facing - 2 * (facing @ normal)[:, None] * normal
        met = np.array([
            nearest_facing(mesh.index, p, n, 0.5, 40 * _OFF * size)[0]
            for p, n in zip(other, towards, strict=True)
        ])  # fmt: skip
        known = met >= 0
        if known.sum() < 8:
            break
        met, p, own = met[known], places[known] - centre, other[known]
        n = np.cross(flat[met, 1] - flat[met, 0], flat[met, 2] - flat[met, 0])
        n /= np.maximum(np.linalg.norm(n, axis=1), 1e-300)[:, None]
        off = ((own - flat[met, 0]) * n).sum(axis=1)
        near = np.abs(off) <= max(3 * float(np.median(np.abs(off))), 1e-9 * size)
        deep = p @ normal - shift
        by_turn = -2 * ((p @ across)[:, None] * normal + deep[:, None] * across)
        rows = np.column_stack([(by_turn * n).sum(axis=1), 2 * (n @ normal)])[near]
        step, *_ = np.linalg.lstsq(rows, -off[near], rcond=1e-9)
        turn, shift = turn + float(step[0]), shift + float(step[1])
        if abs(step[0]) * size + abs(step[1]) < 1e-10 * size:
            break
    normal = np.array([math.cos(turn), math.sin(turn), 0.0])
    return centre + shift * normal, normal


def mirrored_place(
    world: World, anchor: Anchor, plane: tuple[np.ndarray, np.ndarray]
) -> Anchor | None:
    """The place on the other side of a plane, exactly on the surface; None without one."""
    at = world.surface_at(anchor)
    if at is None:
        return None
    centre, normal = plane
    place = at.on(world.mesh)
    facing = _normal(world.mesh, at.facet)
    target = place - 2 * ((place - centre) @ normal) * normal
    facing = facing - 2 * (facing @ normal) * normal
    reach = 5 * _OFF * float(np.linalg.norm(world.mesh.size_mm))
    facet, _ = nearest_facing(world.mesh.index, target, facing, 0.8, max(reach, 0.05))
    return anchor_on(world, facet, target) if facet >= 0 else None
