"""An underside as it stands: its facets seen from above, what holds it and where it ends."""

from collections import deque
from dataclasses import dataclass, field, replace
from functools import cached_property

import numpy as np

from ..mesh import Mesh, facet_areas, facet_normals, first_hits
from . import _kernels

__all__ = [
    "Underside", "flat_undersides", "held_by_nearest_side", "is_wide", "underside_at",
    "with_its_end",
]  # fmt: skip

# A facet that leans less than this from upright is a wall (ours): seen from above it has no area.
_WALL_NZ = 0.02
# One that leans less than 10 degrees over what is below it holds as a wall does (ours).
_LEANS_NZ = 0.1736
# Held edges that follow each other and turn by less than this are one side (ours).
_ONE_SIDE_DEG = 30.0
# And so little by little that ways from them do not end where they meet.
_SMOOTH_DEG = 20.0
# An edge is of a round where the surface turns by so much there (ours).
_LEAST_TURN_DEG, _MOST_TURN_DEG = 0.3, 35.0
# Round a smaller hole no way bends: what hangs behind it is a bridge that prints (ours).
_WIDE_HOLE_MM = 4.0
# Where the surface beyond an edge goes down by this much of its way, it holds the edge (ours).
_GOES_DOWN = 0.02


@dataclass(frozen=True, eq=False)
class Underside:
    """Facets that face down and belong together.

    Attributes
    ----------
    mesh : Mesh
        As it stands: up is z.
    facets : (k,) int
    held : (h, 2) int
        Edges, as vertices, beyond which the surface goes down: what holds it.
    free : (e, 2) int
        Edges at which it ends.
    flat_deg : float
        What is steeper than this holds itself: ways from what is flat go on through it.
    passed : (p, 2) int
        Edges that hold it too little to count, over which ways go on.
    rounded : (b, 2) int
        Edges at which it bends on upwards, round its outer end, where that is rounded.
    radius_mm : float
        Of that, 0 where it is not.
    bend_deg : float
        How steep it is there.
    is_bridged : bool
        Whether ways go on over wide holes through it too.
    """

    mesh: Mesh
    facets: np.ndarray
    held: np.ndarray
    free: np.ndarray
    flat_deg: float
    passed: np.ndarray = field(default_factory=lambda: np.zeros((0, 2), int))
    rounded: np.ndarray = field(default_factory=lambda: np.zeros((0, 2), int))
    radius_mm: float = 0.0
    bend_deg: float = 0.0
    is_bridged: bool = False

    @cached_property
    def own(self) -> Mesh:
        """Its facets alone, with the vertices of all."""
        return Mesh(self.mesh.vertices, np.ascontiguousarray(self.mesh.facets[self.facets]))

    def segments(self, edges: np.ndarray) -> np.ndarray:
        """(e, 4) float: edges seen from above."""
        return np.ascontiguousarray(self.mesh.vertices[edges][:, :, :2].reshape(-1, 4))

    @cached_property
    def held_segments(self) -> np.ndarray:
        """(h, 4) float: `held` seen from above."""
        return self.segments(self.held)

    @cached_property
    def sides(self) -> tuple[np.ndarray, np.ndarray]:
        """What holds it in sides that bend little by little.

        Returns
        -------
        turn_rad : (h,) float
            How far its side has turned at each edge.
        side : (h,) int
        """
        held = self.held_segments
        along = held[:, 2:] - held[:, :2]
        heading = np.arctan2(along[:, 1], along[:, 0])
        follows = {int(a): k for k, (a, _) in enumerate(self.held.tolist())}
        after = np.full(len(held), -1)
        bend = np.zeros(len(held))
        for k, (_, b) in enumerate(self.held.tolist()):
            other = follows.get(int(b), -1)
            if other < 0:
                continue
            turn = (heading[other] - heading[k] + np.pi) % (2 * np.pi) - np.pi
            if abs(turn) < np.radians(_SMOOTH_DEG):
                after[k], bend[k] = other, turn
        turn, side = np.zeros(len(held)), np.full(len(held), -1)
        starts = np.setdiff1d(np.arange(len(held)), after)
        for start in (*starts.tolist(), *range(len(held))):  # then those that go all round
            k = start
            while k >= 0 and side[k] < 0:
                side[k] = start
                if after[k] >= 0 and side[after[k]] < 0:
                    turn[after[k]] = turn[k] + bend[k]
                k = after[k]
        return turn, side

    @cached_property
    def all_segments(self) -> np.ndarray:
        """(h + e, 4) float: all its rim seen from above."""
        return self.segments(np.concatenate([self.held, self.free]))

    @cached_property
    def kinks(self) -> np.ndarray:
        """(k, 2) int: edges between what is flat of it and what is steep."""
        mesh = self.mesh
        flat = np.zeros(len(mesh.facets), np.int8)  # 1 where it is flat, -1 where it is steep
        flat[self.facets] = np.where(-_normals(self.own)[:, 2] > _flat_nz(self.flat_deg), 1, -1)
        if flat.min() == 0 or flat.max() == 0:
            return np.zeros((0, 2), int)
        half = np.flatnonzero(np.repeat(flat == 1, 3))
        half = half[(mesh.twin[half] >= 0) & (flat[mesh.twin[half] // 3] == -1)]
        return np.stack([mesh.facets.ravel()[half], _next_vertex(mesh, half)], axis=1)

    @cached_property
    def openings(self) -> list[np.ndarray]:
        """Rims of holes through it that nothing holds, (n, 2) each, seen from above."""
        found = []
        for loop in _loops(self.free.tolist()):
            ring = self.mesh.vertices[loop][:, :2]
            x, y = ring.T
            # Its own rim has it on the right; round a hole that is counter-clockwise.
            if (x * np.roll(y, -1) - y * np.roll(x, -1)).sum() > 0:
                found.append(ring)
        return found

    @cached_property
    def around(self) -> np.ndarray:
        """(s, 4) float: the rim seen from above but of small such holes: ways go on over those."""
        small = [ring for ring in self.openings if self.is_bridged or not is_wide(ring)]
        holes = {tuple(p) for ring in small for p in ring.tolist()}
        rows = [s for s in self.all_segments.tolist() if tuple(s[:2]) not in holes]
        rim = np.array(rows).reshape(-1, 4)
        if not len(self.passed) or not len(rim):
            return rim
        # What lies straight above or below an edge that is passed is passed as well.
        held = {tuple(one) for one in self.held_segments.tolist()}
        close = 1e-6 * max(float(np.ptp(rim.reshape(-1, 2), axis=0).max()), 1e-9)
        passed = self.segments(self.passed)
        left = [
            [one] if tuple(one) in held else _beside(np.array(one), passed, close)
            for one in rim.tolist()
        ]
        return np.array([one for some in left for one in some]).reshape(-1, 4)

    def passing(self, stretches: dict[int, list[tuple[float, float]]]) -> "Underside":
        """The same with stretches of its held edges passed: from where to where, 0 to 1."""
        vertices, more = self.mesh.vertices, []
        held, passed = [], self.passed.tolist()
        for k, (first, last) in enumerate(self.held.tolist()):
            at, ends = first, stretches.get(k, [])
            for start, end in ends:
                between = []
                for t in (start, end):
                    if 0 < t < 1:
                        between.append(len(vertices) + len(more))
                        more.append(vertices[first] + t * (vertices[last] - vertices[first]))
                    else:
                        between.append(first if t <= 0 else last)
                if between[0] != at:
                    held.append((at, between[0]))
                passed.append(tuple(between))
                at = between[1]
            if at != last:
                held.append((at, last))
        if more:
            vertices = np.concatenate([vertices, more])
        found = replace(
            self, mesh=Mesh(vertices, self.mesh.facets),
            held=np.array(held, int).reshape(-1, 2), passed=np.array(passed, int).reshape(-1, 2),
        )  # fmt: skip
        # Its facets and free edges are the same.
        for name in ("own", "kinks", "openings"):
            found.__dict__[name] = getattr(self, name)
        return found

    def heights(self, points: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
        """Of the underside over places of the plane.

        Returns
        -------
        height_mm : (n,) float
            NaN where there is none.
        is_flat : (n,) bool
            Whether it is flatter there than the angle.
        """
        own = self.own
        low = float(own.vertices[own.facets, 2].min()) - 1.0
        origins = np.column_stack([points, np.full(len(points), low)])
        hit = first_hits(own.index, origins, (0.0, 0.0, 1.0), 0.0)
        out, is_flat = np.full(len(points), np.nan), np.zeros(len(points), bool)
        found = hit >= 0
        a = own.vertices[own.facets[hit[found], 0]]
        n = _normals(own)[hit[found]]
        at = points[found]
        out[found] = a[:, 2] - (
            n[:, 0] * (at[:, 0] - a[:, 0]) + n[:, 1] * (at[:, 1] - a[:, 1])
        ) / n[:, 2]  # fmt: skip
        is_flat[found] = -n[:, 2] > _flat_nz(self.flat_deg)
        return out, is_flat


def is_wide(ring: np.ndarray) -> bool:
    """Whether a hole, (n, 2), is too wide for ways to go on over it."""
    return float(np.linalg.norm(np.ptp(ring, axis=0))) > _WIDE_HOLE_MM


def _flat_nz(threshold_deg: float) -> float:
    return float(np.cos(np.radians(threshold_deg - 0.01)))


def _beside(one: np.ndarray, others: np.ndarray, close: float) -> list[np.ndarray]:
    """Of a segment what does not lie along others of the plane, each (4,)."""
    a, along = one[:2], one[2:] - one[:2]
    long = float(np.hypot(*along))
    if long <= close:
        return [one]
    way = along / long
    ends = others.reshape(-1, 2, 2) - a
    on, off = ends @ way, np.abs(ends @ np.array([-way[1], way[0]]))
    spans = np.sort(on[(off <= close).all(axis=1)], axis=1)
    left, at = [], 0.0
    for first, last in spans[np.argsort(spans[:, 0])]:
        if first > at + close:
            left.append((at, min(float(first), long)))
        at = max(at, float(last))
        if at >= long - close:
            break
    else:
        left.append((at, long))
    return [np.concatenate([a + way * s, a + way * e]) for s, e in left if e > s]


def held_by_nearest_side(under: Underside, at: np.ndarray) -> Underside:
    """An underside held by that side of what holds it alone which is nearest to a place.

    Parameters
    ----------
    under : Underside
    at : (2,) float
        Seen from above.
    """
    held = under.held_segments
    if not len(held):
        return under
    _, which, _ = _kernels.distances(np.array(at, float)[None], held)
    along = held[:, 2:] - held[:, :2]
    way = np.arctan2(along[:, 1], along[:, 0])
    follows = {int(a): k for k, (a, _) in enumerate(under.held.tolist())}
    before = {int(b): k for k, (_, b) in enumerate(under.held.tolist())}
    side = {int(which[0])}
    for chain, end in ((follows, 1), (before, 0)):
        k = int(which[0])
        while (beside := chain.get(int(under.held[k, end]))) is not None and beside not in side:
            turn = (way[beside] - way[k] + np.pi) % (2 * np.pi) - np.pi
            if abs(turn) > np.radians(_ONE_SIDE_DEG):
                break
            side.add(beside)
            k = beside
    own = np.zeros(len(held), bool)
    own[list(side)] = True
    # At the other sides it ends, as at its free edges.
    free = np.concatenate([under.free, under.held[~own]])
    return replace(under, held=under.held[own], free=free)


def _normals(mesh: Mesh) -> np.ndarray:
    if "reshaping_normals" not in mesh.__dict__:
        mesh.__dict__["reshaping_normals"] = facet_normals(mesh)
    return mesh.__dict__["reshaping_normals"]


def flat_undersides(mesh: Mesh, threshold_deg: float) -> np.ndarray:
    """(m,) bool: facets that face down and are flatter than the threshold, as seen from above."""
    down = -_normals(mesh)[:, 2]
    return down > _flat_nz(threshold_deg)


def underside_at(
    mesh: Mesh, facet: int, threshold_deg: float, with_steep: bool = False
) -> Underside | None:
    """The underside that a facet belongs to; None where it is no underside that is too flat.

    Parameters
    ----------
    mesh : Mesh
        As it stands.
    facet : int
    threshold_deg : float
    with_steep : bool
        Whether with the steeper undersides by which it goes on downwards, walls not counted.
    """
    flat = flat_undersides(mesh, threshold_deg)
    lowest = float(mesh.low_mm[2])
    on_plate = mesh.vertices[mesh.facets, 2].max(axis=1) <= lowest + 1e-6
    flat &= ~on_plate
    if not flat[facet]:
        return None
    inside = np.zeros(len(flat), bool)
    _flood(mesh, inside, [facet], flat)
    if with_steep:
        steep = (-_normals(mesh)[:, 2] > _LEANS_NZ) & ~flat & ~on_plate
        rim = _rim(mesh, inside)
        held = rim[_goes_down(mesh, rim)]
        beyond = mesh.twin[held]
        start = [int(t) // 3 for t in beyond if t >= 0 and steep[t // 3]]
        _flood(mesh, inside, start, steep)
    rim = _rim(mesh, inside)
    # What lies on the plate holds it as well.
    twin = mesh.twin[rim]
    down = _goes_down(mesh, rim) | ((twin >= 0) & on_plate[np.maximum(twin, 0) // 3])
    ends = np.stack([mesh.facets.ravel()[rim], _next_vertex(mesh, rim)], axis=1)
    flat_deg = threshold_deg if with_steep else 90.0
    return Underside(mesh, np.flatnonzero(inside), ends[down], ends[~down], flat_deg)


def with_its_end(under: Underside, threshold_deg: float) -> Underside:
    """An underside with the steeper ones by which it goes on outwards and up.

    They are what is left hanging where a taper takes away what is beside them: the round of an
    edge, or a wall that leans. What holds it stays the same.
    """
    mesh = under.mesh
    inside = np.zeros(len(mesh.facets), bool)
    inside[under.facets] = True
    z = mesh.vertices[mesh.facets, 2]
    corners = mesh.vertices[mesh.facets[under.facets]].reshape(-1, 3)
    low, size = float(corners[:, 2].min()), float(np.ptp(corners[:, :2], axis=0).max())
    steep = (-_normals(mesh)[:, 2] > _WALL_NZ) & ~inside
    steep &= ~flat_undersides(mesh, threshold_deg) & (z.min(axis=1) >= low - 1e-6)
    # Higher up no taper comes.
    high = float(corners[:, 2].max()) + size * float(np.tan(np.radians(min(threshold_deg, 85.0))))
    steep &= z.min(axis=1) <= high
    rim = _rim(mesh, inside)
    rim = rim[~_goes_down(mesh, rim)]
    beyond = mesh.twin[rim]
    rim = rim[(beyond >= 0) & steep[np.maximum(beyond, 0) // 3]]
    if not len(rim):
        return under
    rounded, radius, bend = _rounded(mesh, rim)
    _flood(mesh, inside, [int(t) // 3 for t in mesh.twin[rim]], steep)
    out = _rim(mesh, inside)
    ends = np.stack([mesh.facets.ravel()[out], _next_vertex(mesh, out)], axis=1)
    held = {tuple(edge) for edge in under.held.tolist()}
    free = np.array([edge for edge in ends.tolist() if tuple(edge) not in held], int)
    return replace(
        under, facets=np.flatnonzero(inside), free=free.reshape(-1, 2), rounded=rounded,
        radius_mm=radius, bend_deg=bend,
    )  # fmt: skip


def _rounded(mesh: Mesh, rim: np.ndarray) -> tuple[np.ndarray, float, float]:
    """Of half-edges at which it becomes steep, those of a round: as vertices; radius and slope.

    Strips c wide that turn by d at an edge lie round a circle of radius c / (2 tan(d / 2)).
    """
    one, two = rim // 3, mesh.twin[rim] // 3
    normals = _normals(mesh)
    ends = np.stack([mesh.facets.ravel()[rim], _next_vertex(mesh, rim)], axis=1)
    a, b = mesh.vertices[ends[:, 0]], mesh.vertices[ends[:, 1]]
    length = np.maximum(np.linalg.norm(b - a, axis=1), 1e-300)
    # Positive where it is a ridge of the part, not a groove.
    turn = np.arctan2(
        (np.cross(normals[one], normals[two]) * (b - a)).sum(axis=1) / length,
        (normals[one] * normals[two]).sum(axis=1),
    )
    areas = facet_areas(mesh)
    wide = (areas[one] + areas[two]) / length
    smooth = (turn > np.radians(_LEAST_TURN_DEG)) & (turn < np.radians(_MOST_TURN_DEG))
    if length[smooth].sum() < 0.5 * length.sum():
        return np.zeros((0, 2), int), 0.0, 0.0
    radius = wide[smooth] / (2 * np.tan(turn[smooth] / 2))
    slope = np.degrees(np.arccos(np.clip(-normals[:, 2], -1, 1)))
    bend = (slope[one] + slope[two])[smooth] / 2
    return ends[smooth], float(np.median(radius)), float(np.median(bend))


def _flood(mesh: Mesh, inside: np.ndarray, start: list[int], allowed: np.ndarray) -> None:
    queue = deque(start)
    inside[start] = True
    twin = mesh.twin
    while queue:
        f = queue.popleft()
        for h in (3 * f, 3 * f + 1, 3 * f + 2):
            t = twin[h]
            if t >= 0 and allowed[t // 3] and not inside[t // 3]:
                inside[t // 3] = True
                queue.append(int(t) // 3)


def _rim(mesh: Mesh, inside: np.ndarray) -> np.ndarray:
    """Half-edges of facets inside whose other side is not."""
    half = np.flatnonzero(np.repeat(inside, 3))
    twin = mesh.twin[half]
    return half[(twin < 0) | ~inside[np.maximum(twin, 0) // 3]]


def _next_vertex(mesh: Mesh, half: np.ndarray) -> np.ndarray:
    return mesh.facets[half // 3, (half % 3 + 1) % 3]


def _goes_down(mesh: Mesh, half: np.ndarray) -> np.ndarray:
    """Whether the facet on the other side of each half-edge goes down from it."""
    twin = mesh.twin[half]
    has = twin >= 0
    twin = np.maximum(twin, 0)
    f, i = twin // 3, twin % 3
    a = mesh.vertices[mesh.facets[f, i]]
    b = mesh.vertices[mesh.facets[f, (i + 1) % 3]]
    c = mesh.vertices[mesh.facets[f, (i + 2) % 3]]
    along = b - a
    length2 = np.maximum((along**2).sum(axis=1), 1e-300)
    into = c - a
    into = into - along * ((into * along).sum(axis=1) / length2)[:, None]
    length = np.maximum(np.linalg.norm(into, axis=1), 1e-300)
    normals = _normals(mesh)
    # What faces up is a wall that widens downwards, or the other side of a sharp end.
    in_front = (into * normals[half // 3]).sum(axis=1) > 0
    faces_up = (normals[f, 2] > _WALL_NZ) & ~in_front
    return has & (into[:, 2] / length < -_GOES_DOWN) & ~faces_up


def _loops(edges: list[list[int]]) -> list[list[int]]:
    """Closed chains of edges."""
    following = dict(map(tuple, edges))
    out, seen = [], set()
    for start in following:
        chain, at = [], start
        while at in following and at not in seen:
            seen.add(at)
            chain.append(at)
            at = following[at]
        if chain and at == start:
            out.append(chain)
    return out
