"""What a fill needs behind notches and holes: shortest level ways that bend there.

Straight ways from what holds an underside do not get behind a corner that sticks out of its rim.
The shortest level way to what lies there bends at such corners. At each of them ways are fanned
out as from a wall, into what straight ones do not reach; and from there back to the wall, along
the shortest way, stands a rib that is as deep as what hangs on it asks for.
"""

import heapq
import math
from dataclasses import dataclass

import manifold3d
import numpy as np
import shapely
from shapely.geometry.polygon import orient

from . import _kernels
from .rays import LOOKED_AT, Ray
from .underside import Underside, is_wide

__all__ = ["Bend", "bends_behind", "ribs_to"]

# What is left of an underside beside straight ways counts from here on (ours).
_LEAST_MM2, _LEAST_WIDE_MM = 0.02, 0.02
# A rib is so wide: two lines of a usual nozzle, or four pixels' rows by far (ours).
_RIB_MM = 1.0
_FAN_DEG, _OFF_RIM = 2.0, 1e-6
# So many corners at most; beyond that it is left to the inspection that follows.
_MOST_BENDS, _NEAREST_SIDES = 60, 12
# Corners as near as this part of the size are one.
_CLOSE = 1e-4
# Something else must be nearer by this part of the size to end a way.
_RIDGE = 5e-5


@dataclass(frozen=True, eq=False)
class Bend:
    """A corner that shortest ways bend round.

    Attributes
    ----------
    at : (2,) float
    before : int
        The bend before it on the way from what holds the underside; -1 where there is none.
    foot : (2,) float
        Where the part of the way that ends here begins.
    far_mm : float
        How long the whole way is.
    free : float
        1 where the way's free side is on its left, -1 on its right.
    rays : list of Ray
        Ways from here, in order.
    edge : int
        The held edge that the way begins on.
    """

    at: np.ndarray
    before: int
    foot: np.ndarray
    far_mm: float
    free: float
    rays: list[Ray]
    edge: int


def bends_behind(under: Underside, rays: list[list[Ray]]) -> list[Bend]:
    """Corners with ways to what straight ways leave out; nearer ones first. Mostly none.

    Parameters
    ----------
    under : Underside
    rays : list of list of Ray
        Straight ways, as `rays_of` gives them.
    """
    region, size = _region(under)
    # A hair outside: ways along it go to its end.
    rim = _rim_of(region.buffer(3 * _CLOSE * size, join_style="bevel"))
    left = _left_out(region, rays, rim, size)
    if left is None:
        return []
    at, before, after = _reflex(region, size)
    if not len(at) or len(at) > _MOST_BENDS:
        return []
    loose = _rim_of(region.buffer(4 * _CLOSE * size, join_style="bevel"))
    # Whether another way gets there is asked strictly: what only grazes a corner does not.
    strict = _rim_of(region.buffer(1e-6 * size, join_style="bevel"))
    far, parent, foot, edge = _shortest(under, at, loose, size)
    order = [int(i) for i in np.argsort(far) if np.isfinite(far[i])]
    row = {i: n for n, i in enumerate(order)}
    shadow = left.buffer(_LEAST_WIDE_MM)
    shapely.prepare(shadow)
    found = []
    for i in order:
        e = at[i] - foot[i]
        e = e / max(float(np.linalg.norm(e)), 1e-300)
        turn = _sector(e, before[i] - at[i], after[i] - at[i])
        fan = (
            []
            if turn == 0.0
            else _fanned(under, at, far, i, e, turn, rim, loose, strict, shadow, size)
        )
        found.append(
            Bend(at[i], row[parent[i]] if parent[i] >= 0 else -1, foot[i], float(far[i]),
                 -math.copysign(1.0, turn), fan, int(edge[i]))
        )  # fmt: skip
    return found


def left_behind_mm2(under: Underside, rays: list[list[Ray]], bends: list[Bend]) -> float:
    """The area of an underside that neither straight ways get to nor those from bends."""
    region, size = _region(under)
    rim = _rim_of(region.buffer(3 * _CLOSE * size, join_style="bevel"))
    left = _left_out(region, rays + [bend.rays for bend in bends], rim, size)
    return 0.0 if left is None else float(left.area)


def _region(under: Underside):
    """An underside seen from above, small holes filled; and its size in mm."""
    corners = under.mesh.vertices[under.mesh.facets[under.facets]][:, :, :2]
    size = max(float(np.ptp(corners.reshape(-1, 2), axis=0).max()), 1e-9)
    # A trace larger each: facets that only touch may stay apart by a hair.
    facets = shapely.buffer(shapely.polygons(corners), 1e-6 * size, join_style="mitre")
    holes = [shapely.polygons(ring) for ring in under.openings if not is_wide(ring)]
    return _united([_united(facets, size), *holes], size), size


def _united(shapes, size: float):
    """The union of outlines; on a fine grid where some cross themselves, as seen rims may."""
    try:
        return shapely.union_all(shapes)
    except shapely.GEOSException:
        return shapely.union_all(shapely.make_valid(shapes), grid_size=1e-8 * size)


def ribs_to(
    under: Underside, bends: list[Bend], lows: list[float], slope: float, over: float, back: float
) -> list[manifold3d.Manifold]:
    """What stands under the ways to bends.

    Parameters
    ----------
    under : Underside
    bends : list of Bend
        Those before a bend come before it.
    lows : list of float
        How low they are at each bend; lower towards the foot of its way, by the slope.
    slope, over, back : float
        How far they go up into what is above, and back into what holds the first, mm.
    """
    made, lag = [], []
    for bend, low in zip(bends, lows, strict=True):
        way, long = _way(bend)
        side = np.array([-way[1], way[0]]) * bend.free * _RIB_MM
        if not math.isfinite(low):  # nothing hangs on it
            lag.append(0.0)
            continue
        behind = back
        # Its outer side has the longer way round each bend, and is that much less deep.
        late = 0.0
        if bend.before >= 0:
            before = bends[bend.before]
            old, _ = _way(before)
            turn = abs(math.atan2(old[0] * way[1] - old[1] * way[0], float(old @ way)))
            other = np.array([-old[1], old[0]]) * before.free * _RIB_MM
            late = lag[bend.before] + _RIB_MM * min(turn, 1.0)
            behind = over  # so that they have more than a face in common
            at = low - slope * long
            corner = []
            for begin, ahead, rise in (
                (bend.foot, -over * old, -over),
                (bend.foot + other, -over * old, lag[bend.before] - over),
                (bend.foot, over * way, over),
                (bend.foot + side, over * way, late + over),
            ):
                corner.append((begin + ahead, at + slope * rise))
            made.append(_under(under, corner, over))
        lag.append(late)
        points = []
        for begin, less in ((bend.foot, 0.0), (bend.foot + side, late)):
            for x in np.linspace(-behind, long + over, LOOKED_AT):
                points.append((begin + way * x, low - slope * (long - x - less)))
        made.append(_under(under, points, over))
    return [solid for solid in made if solid.volume() > 0]


def _way(bend: Bend) -> tuple[np.ndarray, float]:
    """Direction and length of the last part of the way to a bend."""
    by = bend.at - bend.foot
    long = float(np.linalg.norm(by))
    return by / max(long, 1e-300), long


def _under(under: Underside, points: list, over: float) -> manifold3d.Manifold:
    """The hull of places of an underside and of what is so low under them."""
    places = np.array([p for p, _ in points])
    top = under.heights(places + 1e-6 * (places.mean(axis=0) - places))[0]
    known = np.isfinite(top)
    if not known.any():
        return manifold3d.Manifold()
    # Beside its rim as high as the nearest of the places that lie in it.
    for i in np.flatnonzero(~known):
        apart = np.linalg.norm(places[known] - places[i], axis=1)
        top[i] = top[known][np.argmin(apart)]
    low = np.minimum([z for _, z in points], top)
    corners = np.concatenate(
        [np.column_stack([places, top + over]), np.column_stack([places, low])]
    )
    return manifold3d.Manifold.hull_points(corners)


def _rim_of(region) -> np.ndarray:
    """(s, 4) float: all of a region's rim, holes too."""
    rows = [np.zeros((0, 4))]
    for part in shapely.get_parts(region):
        for ring in (part.exterior, *part.interiors):
            points = shapely.get_coordinates(ring)
            rows.append(np.column_stack([points[:-1], points[1:]]))
    return np.ascontiguousarray(np.concatenate(rows))


def _left_out(region, rays, rim, size):
    """What straight ways that end where the underside does leave out; None for nothing."""
    strips = []
    near = 1e-6 * size
    for row in rays:
        ends = []
        for ray in row:
            out = _kernels.way_out(*map(float, (*ray.foot, *ray.way)), rim, 10 * near)
            ends.append(ray.foot + ray.way * min(ray.reach, out))
        for (one, end), (other, last) in zip(
            zip(row, ends, strict=True), zip(row[1:], ends[1:], strict=True), strict=False
        ):
            strips.append(shapely.MultiPoint([one.foot, end, last, other.foot]).convex_hull)
    covered = shapely.union_all([s for s in strips if s.area > 0])
    left = region.difference(covered.buffer(1e-4 * size)).buffer(-_LEAST_WIDE_MM / 2)
    return left.buffer(_LEAST_WIDE_MM / 2) if left.area > _LEAST_MM2 else None


def _reflex(region, size):
    """Corners of a region's rim that stick into it, with those before and after on the rim."""
    found = []
    for part in shapely.get_parts(region):
        part = orient(part)
        for ring in (part.exterior, *part.interiors):
            p = shapely.get_coordinates(shapely.simplify(ring, _CLOSE * size))[:-1]
            one, two = p - np.roll(p, 1, axis=0), np.roll(p, -1, axis=0) - p
            turn = one[:, 0] * two[:, 1] - one[:, 1] * two[:, 0]
            scale = np.linalg.norm(one, axis=1) * np.linalg.norm(two, axis=1)
            # The region is on the left: a turn to the right sticks into it.
            for k in np.flatnonzero(turn < -1e-6 * scale):
                found.append((p[k], p[k - 1], p[(k + 1) % len(p)]))
    rows = np.array(found).reshape(-1, 3, 2)
    return tuple(np.ascontiguousarray(rows[:, k]) for k in range(3))


def _shortest(under: Underside, at, rim, size):
    """Of each corner: how long its shortest way is, the bend before, its last part's foot."""
    held = under.held_segments
    n = len(at)
    far, parent = np.full(n, np.inf), np.full(n, -1)
    foot, edge = np.zeros((n, 2)), np.full(n, -1)
    along = held[:, 2:] - held[:, :2]
    long2 = np.maximum((along**2).sum(axis=1), 1e-300)
    for i in range(n):
        t = np.clip(((at[i] - held[:, :2]) * along).sum(axis=1) / long2, 0, 1)
        nearest = held[:, :2] + t[:, None] * along
        apart = np.linalg.norm(nearest - at[i], axis=1)
        for k in np.argsort(apart)[:_NEAREST_SIDES]:
            if apart[k] < 1e-6 * size or _kernels.sees(*nearest[k], *at[i], rim):
                far[i], foot[i], edge[i] = apart[k], nearest[k], k
                break
    # What stands on the hinge itself is no bend: ways fan round it as it is.
    far[far < 1e-6 * size] = np.inf
    heap = [(float(far[i]), i) for i in range(n) if np.isfinite(far[i])]
    heapq.heapify(heap)
    done = np.zeros(n, bool)
    while heap:
        d, i = heapq.heappop(heap)
        if done[i] or d > far[i]:
            continue
        done[i] = True
        step = np.linalg.norm(at - at[i], axis=1)
        for j in np.flatnonzero(~done & (d + step < far - 1e-9 * size)):
            if _kernels.sees(*at[i], *at[j], rim):
                far[j], parent[j], foot[j], edge[j] = d + step[j], i, at[i], edge[i]
                heapq.heappush(heap, (float(far[j]), int(j)))
    return far, parent, foot, edge


def _sector(e, to_before, to_after) -> float:
    """By how much ways turn at a corner from straight on, in radians; left is positive.

    0 where a way that comes by there has nothing to bend round.
    """
    first = math.atan2(e[1], e[0])
    a, b = (
        (math.atan2(v[1], v[0]) - first) % (2 * math.pi) for v in (to_before, to_after)
    )  # fmt: skip
    # The region is on the left of the rim: what sticks out lies from `before` on to `after`.
    wide = (b - a) % (2 * math.pi)
    if a + wide <= math.pi + 1e-6:
        return a if a > 1e-4 else 0.0
    right = (2 * math.pi - b) % (2 * math.pi)
    if right + wide <= math.pi + 1e-6:
        return -right if right > 1e-4 else 0.0
    return 0.0


def _fanned(under, at, far, i, e, turn, rim, loose, strict, shadow, size) -> list[Ray]:
    """Ways from a corner into what straight ways leave out, each until another way is shorter."""
    first = math.atan2(e[1], e[0])
    steps = max(math.ceil(abs(math.degrees(turn)) / _FAN_DEG), 1)
    turns = set(np.linspace(0, turn, steps + 1).tolist())
    # Through the corners of the rim there, just beside them too: there it ends farther.
    for p in rim[:, :2] - at[i]:
        by = (math.atan2(p[1], p[0]) - first + math.pi) % (2 * math.pi) - math.pi
        if 0 < by * math.copysign(1, turn) < abs(turn):
            turns.update((by - 1e-4, by, by + 1e-4))
    # The last one a hair off the rim, along which it would run else.
    last = abs(turn) - _OFF_RIM
    inner = {math.copysign(min(abs(t), last), turn) for t in turns if t * turn >= 0}
    ways = [np.array([math.cos(first + t), math.sin(first + t)]) for t in sorted(inner)]
    reach = []
    for way in ways:
        out = _kernels.way_out(*map(float, (*at[i], *way)), rim, 6 * _CLOSE * size)
        end = max(float(out) - 3 * _CLOSE * size, 0.0) if np.isfinite(out) else 0.0
        if end and not _kernels.sees(*at[i], *(at[i] + way * end), loose):
            end = 0.0  # it runs through what is no underside
        reach.append(_until_shorter(under, at, far, i, way, end, strict, size))
    # Only where there is something left, between two ways or on one.
    wanted = np.zeros(len(ways), bool)
    for k in range(len(ways) - 1):
        ends = [at[i], at[i] + ways[k] * reach[k], at[i] + ways[k + 1] * reach[k + 1]]
        if shadow.intersects(shapely.MultiPoint(ends).convex_hull):
            wanted[k : k + 2] = True
    reach = np.where(wanted, reach, 0.0)
    reach[reach <= 1e-5 * size] = 0.0
    z = _heights_near(under, at[i], size)
    heading = np.array(ways)
    along = reach[:, None] * np.linspace(0, 1, LOOKED_AT)
    # Heights a hair inside its rim.
    inset = np.minimum(5 * _CLOSE * size, reach / 4)[:, None]
    inside = np.clip(along, inset, np.maximum(reach[:, None] - inset, inset))
    places = at[i] + heading[:, None] * inside[:, :, None]
    own = under.heights(places.reshape(-1, 2))[0].reshape(along.shape)
    # Along the rim, a hair to the side of it.
    beside = np.stack([heading[:, 1], -heading[:, 0]], axis=1)
    places = places + (beside * math.copysign(5 * _CLOSE * size, turn))[:, None]
    missed = ~np.isfinite(own)
    if missed.any():
        own[missed] = under.heights(places[missed])[0]
    found = []
    for way, end, s, heights in zip(ways, reach.tolist(), along, own, strict=True):
        ok = np.isfinite(heights)
        if not end or not ok.any():
            found.append(Ray(at[i], way, z, 0.0, np.zeros(1), np.array([z]), -1, True))
            continue
        heights = np.interp(s, s[ok], heights[ok])
        found.append(Ray(at[i], way, float(heights[0]), end, s, heights, -1, True))
    return found if any(ray.reach for ray in found) else []


def _until_shorter(under, at, far, i, way, reach, rim, size) -> float:
    """How far a way goes until another one gets there on a shorter way."""
    if not reach:
        return 0.0
    s = reach * np.linspace(0, 1, LOOKED_AT)[1:]
    places = at[i] + way * s[:, None]
    own = far[i] + s - _RIDGE * size
    k = _kernels.until_shorter(
        np.ascontiguousarray(places), own, at, far, i, under.held_segments, rim
    )
    return float(s[k]) if k < len(s) else reach


def _heights_near(under: Underside, point, size: float) -> float:
    """The underside's height at a corner of its rim: of the nearest of its vertices."""
    used = np.unique(under.mesh.facets[under.facets])
    vertices = under.mesh.vertices[used]
    return float(vertices[np.argmin(np.linalg.norm(vertices[:, :2] - point, axis=1)), 2])
