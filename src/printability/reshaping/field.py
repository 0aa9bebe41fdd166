"""Solids under and over an underside, by a height over every place of it.

The underside's facets, seen from above, are split where the heights are not linear between their
corners; the solid lies between two heights over them.
"""

from collections.abc import Callable

import manifold3d
import numpy as np

from . import _kernels
from .underside import Underside

__all__ = ["Ways", "column_solid", "refined", "ways_of"]

# Bounds of the splitting (ours): rounds, corners, and what is linear enough, as a part of the size.
_ROUNDS, _MOST_CORNERS, _LINEAR = 9, 20_000, 5e-4
# So near the ends of an edge, as a part of it, it is looked at how heights begin and end.
_BESIDE = 0.01
# Of a way away from what holds, so many places are looked at.
_LOOKED_AT = 12
# At a corner of what holds, the ways between both sides that are looked at.
_FAN = 9


class Ways:
    """For places of an underside: how far they are from what holds them, and on which way."""

    def __init__(self, under: Underside, points: np.ndarray):
        self.under, self.points = under, np.ascontiguousarray(points, float)
        self.far, foot, self.which, self.along = _kernels.ways_held(
            self.points, under.held_segments, under.nodes, under.nodes_far, under.all_segments
        )
        ends = under.mesh.vertices[under.held[np.maximum(self.which, 0)]]
        at = np.where(self.which >= 0, self.along, 0.0)
        self.foot_z = ends[:, 0, 2] + at * (ends[:, 1, 2] - ends[:, 0, 2])
        by_node = np.flatnonzero(self.which < 0)
        if len(by_node):  # the height of what holds the node
            nodes = under.nodes[self.along[by_node].astype(int)]
            _, which, along = _kernels.distances(np.ascontiguousarray(nodes), under.held_segments)
            z = under.mesh.vertices[under.held[which], 2]
            self.foot_z[by_node] = z[:, 0] + along * (z[:, 1] - z[:, 0])
        away = self.points - foot
        length = np.linalg.norm(away, axis=1)
        self.on_hinge = length <= 1e-9 * max(under_size(under), 1e-9)
        self.ways = np.divide(away, length[:, None], out=np.zeros_like(away),
                              where=~self.on_hinge[:, None])  # fmt: skip


def under_size(under: Underside) -> float:
    """Greatest extent of an underside seen from above, mm."""
    corners = under.mesh.vertices[under.mesh.facets[under.facets]].reshape(-1, 3)[:, :2]
    return float(np.ptp(corners, axis=0).max())


def ways_of(under: Underside, points: np.ndarray) -> Ways:
    """How places of an underside are held."""
    return Ways(under, points)


def _inward(under: Underside) -> np.ndarray:
    """(h, 2) float: of every held edge, the way into the underside, seen from above.

    Its half-edges run counter-clockwise seen from outside, so from below: seen from above the
    underside is on their right.
    """
    s = under.held_segments
    along = s[:, 2:] - s[:, :2]
    length = np.maximum(np.linalg.norm(along, axis=1, keepdims=True), 1e-300)
    return np.stack([along[:, 1], -along[:, 0]], axis=1) / length


def least_beyond(under: Underside, points: np.ndarray, slope: float) -> np.ndarray:
    """The height at each place from which what lies beyond it rises by no less than a slope.

    The least, over all places beyond it on the shortest way from what holds it, of their height
    less ``slope`` times how much farther they are; at most the underside's own height.
    """
    found = Ways(under, points)
    own = under.heights(points)
    missing = np.isnan(own)
    if missing.any():  # on the rim, where rounding decides
        own[missing] = _heights_at_rim(under, points[missing])
    out = own.copy()
    inner = ~found.on_hinge
    rows, ways = [np.flatnonzero(inner)], [found.ways[inner]]
    # On what holds it there is no way of its own: those between the sides that meet there.
    inward, ends = _inward(under), under.held_segments
    near = 1e-7 * max(under_size(under), 1e-9)
    for i in np.flatnonzero(found.on_hinge):
        p = points[i]
        if found.which[i] < 0:  # a corner that ways bend round: on in all directions
            turns = 2 * np.pi * np.arange(24) / 24
            rows.append(np.full(24, i))
            ways.append(np.column_stack([np.cos(turns), np.sin(turns)]))
            continue
        touching = [
            k for k in range(len(ends)) if _kernels._to_segment(p[0], p[1], ends[k])[0] <= near**2
        ]
        fan = _fan(inward[touching])
        rows.append(np.full(len(fan), i))
        ways.append(fan)
    row, way = np.concatenate(rows), np.concatenate(ways)
    at, far = points[row], found.far[row]
    reach = _kernels.reaches(
        np.ascontiguousarray(at), np.ascontiguousarray(way), far, under.held_segments,
        under.nodes, under.nodes_far, under.all_segments, near,
    )  # fmt: skip
    part = np.linspace(0, 1, _LOOKED_AT + 1)[1:]
    part[-1] -= 1e-7
    for k in part:
        beyond = at + way * (reach * k)[:, None]
        height = under.heights(beyond) - slope * reach * k
        ok = np.isfinite(height) & (reach > 0)
        np.minimum.at(out, row[ok], height[ok])
    return out


def _fan(inward: np.ndarray) -> np.ndarray:
    """Ways from a place on what holds: into the underside, and between where it turns away."""
    ways = list(inward)
    for i in range(len(inward)):
        for j in range(i + 1, len(inward)):
            cos = float(np.clip(inward[i] @ inward[j], -1, 1))
            if -0.999 < cos < 0.999:
                for k in np.linspace(0, 1, _FAN)[1:-1]:
                    between = (1 - k) * inward[i] + k * inward[j]
                    ways.append(between / np.linalg.norm(between))
    return np.array(ways) if ways else np.zeros((0, 2))


def _heights_at_rim(under: Underside, points: np.ndarray) -> np.ndarray:
    edges = np.concatenate([under.held, under.free])
    _, which, along = _kernels.distances(np.ascontiguousarray(points), under.all_segments)
    z = under.mesh.vertices[edges[which], 2]
    return z[:, 0] + along * (z[:, 1] - z[:, 0])


def refined(
    under: Underside, heights: Callable[[np.ndarray, np.ndarray], np.ndarray]
) -> tuple[np.ndarray, np.ndarray, np.ndarray, np.ndarray]:
    """The underside's facets seen from above, split until heights are linear between corners.

    Parameters
    ----------
    under : Underside
    heights : callable
        Of places (n, 2) with the underside's own height there (n,): one height each.

    Returns
    -------
    points : (n, 2) float
    own : (n,) float
        The underside's own height.
    values : (n,) float
        ``heights`` there.
    facets : (k, 3) int
        Counter-clockwise seen from above.
    """
    used, index = np.unique(under.mesh.facets[under.facets], return_inverse=True)
    facets = index.reshape(-1, 3)[:, [0, 2, 1]]
    points = under.mesh.vertices[used][:, :2]
    own = under.mesh.vertices[used][:, 2]
    a, b, c = (points[facets[:, i]] for i in range(3))
    area = (b[:, 0] - a[:, 0]) * (c[:, 1] - a[:, 1]) - (b[:, 1] - a[:, 1]) * (c[:, 0] - a[:, 0])
    facets = facets[area > 0]
    values = heights(points, own)
    size = max(under_size(under), 1e-9)
    known: set[tuple[int, int]] = set()
    for round_ in range(_ROUNDS):
        edges = np.sort(facets[:, [[0, 1], [1, 2], [2, 0]]].reshape(-1, 2), axis=1)
        unique, of = np.unique(edges, axis=0, return_inverse=True)
        fresh = np.flatnonzero([tuple(e) not in known for e in unique.tolist()])
        if not len(fresh):
            break
        at, value, bent = _kinks(points, own, values, unique[fresh], heights, _LINEAR * size)
        ends = points[unique[fresh]]
        long = np.linalg.norm(ends[:, 0] - ends[:, 1], axis=1)
        # A kink between two corners does not show along a long edge that crosses it twice.
        split = bent | ((round_ < 3) & (long > size / 8))
        known |= {tuple(e) for e in unique[fresh[~split]].tolist()}
        if not split.any() or len(points) > _MOST_CORNERS:
            break
        number = np.full(len(unique), -1)
        number[fresh[split]] = len(points) + np.arange(split.sum())
        t = at[split][:, None]
        first, last = unique[fresh[split]].T
        points = np.concatenate([points, (1 - t) * points[first] + t * points[last]])
        own = np.concatenate([own, (1 - t[:, 0]) * own[first] + t[:, 0] * own[last]])
        values = np.concatenate([values, value[split]])
        facets = _split(facets, number[of].reshape(-1, 3))
    return points, own, values, facets


def _kinks(points, own, values, edges, heights, allowed: float):
    """Where along edges heights are bent, their value there, and whether they are.

    Where they are linear from both ends up to one place, that place; else the middle.
    """
    (a, b), (za, zb), (fa, fb) = (
        (which[edges[:, 0]], which[edges[:, 1]]) for which in (points, own, values)
    )

    def of(t: np.ndarray) -> np.ndarray:
        return heights((1 - t)[:, None] * a + t[:, None] * b, (1 - t) * za + t * zb)

    count = len(edges)
    near = np.full(count, _BESIDE)
    middle, first, last = of(np.full(count, 0.5)), of(near), of(1 - near)
    up, down = (first - fa) / _BESIDE, (fb - last) / _BESIDE
    turn = up - down
    safe = np.where(np.abs(turn) > 1e-12, turn, 1.0)
    t = np.where(np.abs(turn) > 1e-12, (fb - down - fa) / safe, 0.5)
    bent = np.abs(middle - (fa + fb) / 2) > allowed
    bent |= (np.abs(turn) * np.minimum(t, 1 - t) > 2 * allowed) & (t > 0) & (t < 1)
    usable = (t > 2 * _BESIDE) & (t < 1 - 2 * _BESIDE)
    t = np.where(usable, t, 0.5)
    value = of(t)
    # Only where both lines meet in it; else half way, and on.
    meets = np.abs(value - (fa + up * t)) <= allowed
    t = np.where(meets, t, 0.5)
    return t, np.where(meets, value, middle), bent


def _split(facets: np.ndarray, middle: np.ndarray) -> np.ndarray:
    """Facets split at the middles of edges (-1 for none), edge i from corner i to i + 1."""
    out = []
    for (a, b, c), (ab, bc, ca) in zip(facets.tolist(), middle.tolist(), strict=True):
        count = (ab >= 0) + (bc >= 0) + (ca >= 0)
        if count == 0:
            out.append((a, b, c))
        elif count == 3:
            out += [(a, ab, ca), (ab, b, bc), (ca, bc, c), (ab, bc, ca)]
        elif count == 1:
            while ab < 0:
                a, b, c, ab, bc, ca = b, c, a, bc, ca, ab
            out += [(a, ab, c), (ab, b, c)]
        else:
            while ca >= 0:
                a, b, c, ab, bc, ca = b, c, a, bc, ca, ab
            out += [(ab, b, bc), (a, ab, bc), (a, bc, c)]
    return np.array(out, np.int64)


def column_solid(
    points: np.ndarray, low: np.ndarray, high: np.ndarray, facets: np.ndarray
) -> manifold3d.Manifold | None:
    """The solid between two heights over a net of facets; where they are equal they join.

    None where there is nothing between them.
    """
    thick = high - low
    open_ = thick > 1e-9
    keep = open_[facets].any(axis=1)
    facets = facets[keep]
    if not len(facets):
        return None
    n = len(points)
    bottom = np.arange(n)
    top = np.where(open_, np.arange(n) + n, bottom)
    edges = np.concatenate([facets[:, [0, 1]], facets[:, [1, 2]], facets[:, [2, 0]]])
    key = edges[:, 0] * n + edges[:, 1]
    back = edges[:, 1] * n + edges[:, 0]
    rim = edges[~np.isin(key, back)]
    walls = []
    for a, b in rim.tolist():
        if top[a] != a or top[b] != b:
            if top[b] != b:
                walls.append((a, b, top[b]))
            if top[a] != a:
                walls.append((a, top[b], top[a]))
    corners = np.concatenate([np.column_stack([points, low]), np.column_stack([points, high])])
    rows = [facets[:, [0, 2, 1]], top[facets]]
    if walls:
        rows.append(np.array(walls))
    rows = np.concatenate(rows)
    used, index = np.unique(rows, return_inverse=True)
    solid = manifold3d.Manifold(
        manifold3d.Mesh64(
            np.ascontiguousarray(corners[used]),
            np.ascontiguousarray(index.reshape(-1, 3).astype(np.uint64)),
        )
    )
    if solid.status() != manifold3d.Error.NoError or solid.is_empty():
        return None
    return solid
