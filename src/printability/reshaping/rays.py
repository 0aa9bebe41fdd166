"""Ways from what holds an underside out over it, and the solids under and over them.

An underside is laid out in strips: between neighbouring ways, from what holds it straight to where
it ends or where something else is nearer. Along a way a fill or a taper is a profile; between two
ways it is the convex hull of theirs. On a strip between parallel ways that is exact; round corners
it is steeper than the angle by what the chord is shorter than the arc, never flatter.
"""

import math
from dataclasses import dataclass, replace
from itertools import pairwise

import numpy as np

from ..errors import EditError
from . import _kernels
from .underside import Underside
from .watching import counted

__all__ = ["LOOKED_AT", "RIDGE", "Ray", "rays_of"]

# Strips are no wider than this part of the size; ways fan round corners in steps (ours).
_STRIPS, _FAN_DEG = 40, 2.0
# Of more corners than this, only those of its rim have a way through them.
_MOST_CORNERS = 400
# Of a sketch, about so many corners of the rim alone.
_MOST_SKETCHED = 100
# Places along a way at which the underside's height is looked at.
LOOKED_AT = 16
# Ways that differ by less than this, in radians, are one.
_SAME_WAY = 1e-4
# Between two ways there is another where the line that joins their ends would be off by more than
# this, in mm and as a part of the size; so often they are halved (ours).
_BOW_MM, _BOW, _MOST_HALVED = 0.008, 3e-4, 7
# Sides of a room no longer than this part of its size may be those of a round one (ours).
_SHORT_SIDE = 0.15
# Two directions whose cosine is this are opposite (ours).
_GOES_BACK = 0.9999
# So far beside a grazed corner, as a part of the size, a way goes by it (ours).
_HAIR = 2e-5
_MOST_WAYS = 12_000
# What looking along one counts, in facets that go through a boolean (measured: some 15 µs).
_STEPS_A_WAY = 12
# Of a sketch, about so many are looked along.
_MOST_WAYS_SKETCHED = 250
# Something else must be nearer by this part of the size to end a way.
RIDGE = 5e-5
_BESIDE_MM, _MOST_CROSSED = 1e-3, 4


@dataclass(frozen=True, eq=False)
class Ray:
    """A way over an underside.

    Attributes
    ----------
    foot, way : (2,) float
        Where it begins on what holds the underside, and its direction.
    foot_z : float
    reach : float
        How far the underside goes on.
    at : (k,) float
        Distances along it, from 0 to the reach.
    own : (k,) float
        Height of the underside there.
    edge : int
        Which of the held edges it begins on.
    is_corner : bool
        Whether it begins at a corner of what holds the underside, between two sides.
    is_outer : bool
        Whether the underside ends beside it.
    bend : float
        Where it becomes steep, round its rounded end; infinite where it does not.
    back_mm : float
        How far behind its foot the wall lies where a fill ends, which leans back.
    """

    foot: np.ndarray
    way: np.ndarray
    foot_z: float
    reach: float
    at: np.ndarray
    own: np.ndarray
    edge: int
    is_corner: bool = False
    is_outer: bool = False
    bend: float = math.inf
    back_mm: float = 0.0

    def from_mm(self, along: float) -> "Ray":
        """The way from a place of it on."""
        if along <= 0:
            return self
        further = self.at > along
        level = float(np.interp(along, self.at, self.own))
        return replace(
            self, foot=self.foot + self.way * along, foot_z=level, reach=self.reach - along,
            bend=self.bend - along,
            at=np.append(0.0, self.at[further] - along), own=np.append(level, self.own[further]),
        )  # fmt: skip

    def places(self, along: np.ndarray, z: np.ndarray) -> np.ndarray:
        """(k, 3) float: points above or below places of it."""
        out = np.empty((len(along), 3))
        out[:, 0] = self.foot[0] + self.way[0] * along
        out[:, 1] = self.foot[1] + self.way[1] * along
        out[:, 2] = z
        return out

    def place(self, along: float, z: float) -> tuple[float, float, float]:
        """A point above or below a place of it."""
        x, y = self.foot + self.way * along
        return float(x), float(y), float(z)


def rays_of(
    under: Underside, beyond_mm: float = 0.0, is_sketch: bool = False, is_fine: bool = True
) -> list[list[Ray]]:
    """Ways over an underside in order: those of one list follow each other without a gap.

    ``beyond_mm`` is how far the outermost stand out where the underside ends beside them. For a
    sketch there are fewer; unless they are fine, ends may lie off what joins those beside them.
    """
    if not len(under.held):
        return []
    begun = _leading_anywhere(under, _begun(under, is_sketch))
    if is_sketch and len(begun) > _MOST_WAYS_SKETCHED:
        every = -(-len(begun) // _MOST_WAYS_SKETCHED)
        ends = [True, *(one.row != other.row for one, other in pairwise(begun)), True]
        begun = [b for k, b in enumerate(begun) if ends[k] or ends[k + 1] or k % every == 0]
    if is_fine and not is_sketch:
        begun = _refined(under, begun)
    if len(begun) > _MOST_WAYS:
        raise EditError(
            "What holds this underside has too many edges; simplify the model where it was made."
        )
    counted(_STEPS_A_WAY * len(begun))
    near = 1e-7 * _size(under)
    feet, ways, reach = _reached(under, begun)
    bends = _crossed(feet, ways, under.segments(under.rounded))
    bend = np.where(bends < reach[:, None], bends, -np.inf).max(axis=1, initial=-np.inf)
    bend[bend < 0] = np.inf
    along = _looked_at(under, feet, ways, reach)
    inside = along.copy()
    inside[:, 0], inside[:, -1] = 1e-5 * reach, reach * (1 - 1e-5)
    places = feet[:, None] + ways[:, None] * inside[:, :, None]
    own, is_flat = (found.reshape(along.shape) for found in under.heights(places.reshape(-1, 2)))
    # Steeper ones that a way gets to from flat ones hold themselves; there it goes on through them.
    own[~is_flat & is_flat[:, :1]] = np.nan
    out: list[list[Ray]] = [[] for _ in range(begun[-1].row + 1)]
    for i, one in enumerate(begun):
        ok = np.isfinite(own[i])
        if reach[i] <= near or not ok.any():
            at, heights = np.zeros(1), np.array([one.z])
        else:
            # As many places on every way, those beside each other on both; what is unknown beyond
            # its last known one has no length.
            last = int(np.flatnonzero(ok)[-1])
            at = np.minimum(along[i], along[i][last])
            if abs(own[i, 0] - one.z) < 1e-4 * reach[i] or not ok[0]:
                own[i, 0], ok[0] = one.z, True  # looked at a hair beside it
            heights = np.interp(at, along[i][ok], own[i][ok])
        foot = one.foot + beyond_mm * one.outer
        out[one.row].append(
            Ray(
                foot,
                one.way,
                one.z,
                min(float(reach[i]), float(at[-1])),
                at,
                heights,
                one.edge,
                one.is_corner,
                bool(one.outer.any()),
                float(bend[i]),
            )
        )
    return out


def _reached(under: Underside, begun: list["_Begun"]):
    """Where ways begin and how they go, (r, 2) float each, and how far, (r,) float."""
    feet, ways = np.array([b.foot for b in begun]), np.array([b.way for b in begun])
    size = _size(under)
    # Those along its ends run a hair inside: along a rim of many edges they would meet one.
    feet = feet - 1e-5 * size * np.array([b.beside for b in begun])
    own = np.array([b.edge for b in begun])
    reach = _kernels.reaches(
        np.ascontiguousarray(feet), np.ascontiguousarray(ways), own, under.held_segments,
        *under.sides, under.around, under.segments(under.passed), 1e-7 * size, RIDGE * size,
    )  # fmt: skip
    return feet, ways, reach


def _leading_anywhere(under: Underside, begun: list["_Begun"]) -> list["_Begun"]:
    """The same without ways round corners into the wall: of those only the first and last."""
    if not any(one.is_corner for one in begun):
        return begun
    _, _, reach = _reached(under, begun)
    leads = reach > 1e-7 * _size(under)
    rows = np.array([one.row for one in begun])
    beside = leads.copy()
    for one, other in ((slice(1, None), slice(None, -1)), (slice(None, -1), slice(1, None))):
        beside[one] |= leads[other] & (rows[one] == rows[other])
    return [b for b, keep in zip(begun, beside, strict=True) if keep or not b.is_corner]


def _refined(under: Underside, begun: list["_Begun"]) -> list["_Begun"]:
    """The same with more between those beside each other whose ends no straight line joins.

    Where ways from several sides meet in a point, or in a line that is bent, nothing is left out.
    """
    size = _size(under)
    off_mm = max(_BOW_MM, _BOW * size)
    _, ways, reach = _reached(under, begun)
    active = [
        i for i, (one, other) in enumerate(pairwise(begun)) if one.row == other.row
    ]  # of pairs, by the first of them
    for _ in range(_MOST_HALVED):
        middles = [_between(begun, reach, i, off_mm) for i in active]
        tried = [(i, one) for i, one in zip(active, middles, strict=True) if one is not None]
        if not tried or len(begun) + len(tried) > _MOST_WAYS:
            break
        _, _, far = _reached(under, [one for _, one in tried])
        more = {}
        for (i, one), r in zip(tried, far, strict=True):
            ends = (
                begun[i].foot + ways[i] * reach[i],
                begun[i + 1].foot + ways[i + 1] * reach[i + 1],
            )
            if abs(_along_to(one.foot, one.way, *ends) - r) > off_mm:
                more[i] = one, r
        if not more:
            break
        out, known, active = [], [], []
        for i, one in enumerate(begun):
            out.append(one)
            known.append(reach[i])
            if i in more:
                active += [len(out) - 1, len(out)]
                out.append(more[i][0])
                known.append(more[i][1])
        begun, reach = out, np.array(known)
        ways = np.array([one.way for one in begun])
    return begun


def _between(begun: list["_Begun"], reach: np.ndarray, i: int, off_mm: float):
    """A way between one and the next; None where they are too near each other for one."""
    one, other = begun[i], begun[i + 1]
    if one.is_corner:
        way = one.way + other.way
        long = float(np.linalg.norm(way))
        if long < 0.1 or np.linalg.norm(one.way - other.way) * max(reach[i : i + 2]) < off_mm:
            return None
        return replace(one, way=way / long)
    apart = float(np.linalg.norm(other.foot - one.foot))
    if apart < off_mm:
        return None
    # Where the lines meet on which the ends before and after them lie; else in the middle.
    t = 0.5
    if 0 < i < len(begun) - 2 and begun[i - 1].row == begun[i + 2].row == one.row:
        before = float(np.linalg.norm(one.foot - begun[i - 1].foot))
        after = float(np.linalg.norm(begun[i + 2].foot - other.foot))
        if before > 1e-9 and after > 1e-9:
            up = (reach[i] - reach[i - 1]) / before
            down = (reach[i + 2] - reach[i + 1]) / after
            if abs(up - down) > 1e-9:
                met = (reach[i + 1] - reach[i] - down * apart) / (up - down) / apart
                t = met if 0.02 < met < 0.98 else 0.5
    way = (1 - t) * one.way + t * other.way
    return replace(
        one, foot=one.foot + t * (other.foot - one.foot), z=one.z + t * (other.z - one.z),
        way=way / np.linalg.norm(way), outer=np.zeros(2), beside=np.zeros(2),
    )  # fmt: skip


def _along_to(foot: np.ndarray, way: np.ndarray, a: np.ndarray, b: np.ndarray) -> float:
    """How far along a way the line through two places is; infinite where it is along that."""
    vx, vy = b - a
    det = way[0] * vy - way[1] * vx
    if abs(det) <= 1e-12 * max(abs(vx) + abs(vy), 1e-300):
        return math.inf
    wx, wy = a - foot
    return float((wx * vy - wy * vx) / det)


@dataclass(frozen=True, eq=False)
class _Begun:
    """Where a way begins: its foot and height, in which row, on which edge.

    ``outer`` points along the hinge away from the underside where that ends beside it, else it
    is zero; it runs a hair to the other side of what ``beside`` points to.
    """

    foot: np.ndarray
    way: np.ndarray
    z: float
    row: int
    edge: int
    is_corner: bool
    outer: np.ndarray
    beside: np.ndarray


def _size(under: Underside) -> float:
    return max(float(np.ptp(under.all_segments.reshape(-1, 2), axis=0).max()), 1e-9)


def _begun(under: Underside, is_sketch: bool) -> list[_Begun]:
    """Where ways begin: along every held edge, and fanned out at corners that they go round."""
    held = under.held_segments
    inward = np.stack([held[:, 3] - held[:, 1], -(held[:, 2] - held[:, 0])], axis=1)
    length = np.maximum(np.linalg.norm(inward, axis=1), 1e-300)
    inward /= length[:, None]
    z = under.mesh.vertices[under.held, 2]
    stops, fans = _stops(under, held, length, _size(under), is_sketch)
    follows = {int(a): k for k, (a, _) in enumerate(under.held.tolist())}
    ends = {int(b) for _, b in under.held.tolist()}
    # Where what goes on from its end is passed, ways fan out from that end.
    loose_first, loose_last = _loose_ends(under, held)
    leaning = _leaning(under, inward, length, follows)
    passed: dict[int, list] = {}
    for (first, last), (a, b, c, d) in zip(
        under.passed.tolist(), under.segments(under.passed).tolist(), strict=True
    ):
        passed.setdefault(first, []).append((a, b, c, d))
        passed.setdefault(last, []).append((c, d, a, b))
    begun: list[_Begun] = []
    row, nothing = 0, np.zeros(2)

    def fan_out(k: int, at: int, one, two, beside=nothing):
        nonlocal row
        i = 1 if at == int(under.held[k, 1]) else 0
        corner = held[k, 2 * i : 2 * i + 2]
        through = [p - corner for p in fans.get(at, ())]
        for a, b, c, d in passed.get(at, ()):
            # On both sides of what is passed: heights jump there.
            way = np.array([c - a, d - b])
            across = np.array([-way[1], way[0]]) * 2 * _SAME_WAY
            through += [way - across, way + across]
        for way in _fan(one, two, through):
            begun.append(_Begun(corner, way, float(z[k, i]), row, k, True, nothing, beside))
        row += 1

    for k in range(len(held)):
        first, last = (int(v) for v in under.held[k])
        a, b = held[k, :2], held[k, 2:]
        on = (b - a) / length[k]
        if first not in ends and first in loose_first:
            fan_out(k, first, -inward[k], inward[k], on)
        for i, t in enumerate(stops[k]):
            outer = beside = nothing
            if i == 0 and first not in ends:
                outer, beside = (nothing if first in loose_first else -on), -on
            elif i == len(stops[k]) - 1 and last not in follows:
                outer, beside = (nothing if last in loose_last else on), on
            level = float(z[k, 0] + t * (z[k, 1] - z[k, 0]))
            way = (1 - t) * leaning[k, 0] + t * leaning[k, 1]
            way = way / np.linalg.norm(way)
            begun.append(_Begun(a + t * (b - a), way, level, row, k, False, outer, beside))
        row += 1
        other = follows.get(last)
        if other is None and last in loose_last:
            fan_out(k, last, inward[k], -inward[k], -on)
        if other is None or other == k:
            continue
        one, two = inward[k], inward[other]
        turn = one[0] * two[1] - one[1] * two[0]
        if turn > 1e-9 or (abs(turn) <= 1e-9 and one @ two < 0):
            fan_out(k, last, one, two)
    return begun


def _leaning(under: Underside, inward: np.ndarray, length: np.ndarray, follows: dict) -> np.ndarray:
    """(h, 2, 2) float: how ways go at both ends of each held edge.

    Straight inwards; but round a room of many short sides towards its middle, as in a round one.
    """
    ways = np.stack([inward, inward], axis=1)
    _, side = under.sides
    short = length < _SHORT_SIDE * _size(under)
    for k, (_, b) in enumerate(under.held.tolist()):
        other = follows.get(int(b), k)
        if other == k or side[other] != side[k] or not (short[k] and short[other]):
            continue
        one, two = inward[k], inward[other]
        if one[0] * two[1] - one[1] * two[0] < 0:
            ways[k, 1] = ways[other, 0] = (one + two) / np.linalg.norm(one + two)
    return ways


def _loose_ends(under: Underside, held: np.ndarray) -> tuple[set, set]:
    """Vertices at which what holds begins and ends within the underside, seen from above.

    What goes on from there is passed, or is a free edge that goes back above or below it.
    """
    first, last = ({int(v) for v in under.passed[:, i]} for i in (1, 0))
    along = held[:, 2:] - held[:, :2]
    # Or what goes on from there above or below it is passed, and nothing else that holds begins.
    passed, off = under.segments(under.passed).reshape(-1, 2), 1e-6 * _size(under)
    for column, other, found in ((0, 2, first), (2, 0, last)):
        for k in range(len(held) if len(passed) else 0):
            at = held[k, column : column + 2]
            goes_on = np.abs(held[:, other : other + 2] - at).max(axis=1) <= off
            if (np.abs(passed - at).max(axis=1) <= off).any() and not goes_on.any():
                found.add(int(under.held[k, column // 2]))
    free = under.segments(under.free)
    way = free[:, 2:] - free[:, :2]
    own = np.linalg.norm(along, axis=1)
    long = np.linalg.norm(way, axis=1)
    for k, (a, b) in enumerate(under.held.tolist()):
        for at, end, found in ((b, 0, last), (a, 1, first)):
            for i in np.flatnonzero(under.free[:, end] == at):
                if way[i] @ along[k] < -_GOES_BACK * own[k] * long[i]:
                    found.add(at)
    return first, last


def _crossed(feet, ways, segments: np.ndarray) -> np.ndarray:
    """(r, s) float: where along each way it goes over each segment; infinite where nowhere."""
    if not len(segments):
        return np.full((len(feet), 0), np.inf)
    found = []
    for a, b in segments.reshape(-1, 2, 2):
        v = b - a
        det = ways[:, 0] * v[1] - ways[:, 1] * v[0]
        safe = np.where(np.abs(det) > 1e-12, det, np.nan)
        w = a - feet
        t = (w[:, 0] * v[1] - w[:, 1] * v[0]) / safe
        k = (w[:, 0] * ways[:, 1] - w[:, 1] * ways[:, 0]) / safe
        found.append(np.where((k >= -1e-9) & (k <= 1 + 1e-9) & (t > 0), t, np.inf))
    return np.stack(found, axis=1)


def _looked_at(under: Underside, feet, ways, reach) -> np.ndarray:
    """(r, k) float: distances along ways at which heights are looked at.

    Evenly, and on both sides of edges that they go on over: there the height jumps or bends, or
    it ends at a hole.
    """
    along = reach[:, None] * np.linspace(0, 1, LOOKED_AT)
    over = np.concatenate([
        *(under.segments(edges) for edges in (under.passed, under.rounded, under.kinks)),
        *(np.column_stack([ring, np.roll(ring, -1, axis=0)]) for ring in under.openings),
    ])  # fmt: skip
    if not len(over):
        return along
    t = _crossed(feet, ways, over)
    t = np.where(t < reach[:, None], t, reach[:, None])
    t = t[:, (t < reach[:, None]).any(axis=0)]
    if not t.shape[1]:
        return along
    crossed = [np.clip(t + by, 0, reach[:, None]) for by in (-_BESIDE_MM, _BESIDE_MM)]
    # The same number for all, those that are not crossed at their end.
    more = np.sort(np.concatenate(crossed, axis=1), axis=1)[:, : 2 * _MOST_CROSSED]
    return np.sort(np.concatenate([along, more], axis=1), axis=1)


def _stops(under: Underside, held, length, size: float, is_sketch: bool):
    """Where along each held edge ways begin, and the corners of the rim before each of its ends.

    A way that only grazes a corner ends there on one side and goes on beside it on the other: there
    is one on both sides of it.
    """
    stops = [set(np.linspace(0, 1, max(math.ceil(n / size * _STRIPS), 1) + 1)) for n in length]
    fans: dict[int, list[np.ndarray]] = {}
    # Through its corners, those inside it too: between two ways it is to have no fold.
    own = under.mesh.vertices[np.unique(under.mesh.facets[under.facets])][:, :2]
    places = under.around.reshape(-1, 2)
    if is_sketch:
        places = places[:: max(len(places) // _MOST_SKETCHED, 1)]
    elif len(own) <= _MOST_CORNERS:
        places = np.concatenate([places, own])
    places = np.unique(places, axis=0)
    beside = _beside_on_rim(under)
    _, which, along = _kernels.distances(places, held)
    for p, k, t in zip(places, which.tolist(), along.tolist(), strict=True):
        on = (held[k, 2:] - held[k, :2]) / length[k]
        if 1e-9 < t < 1 - 1e-9:
            stops[k].add(t)
            if _is_grazed(np.array([on[1], -on[0]]), p, beside, size):
                hair = _HAIR * size / length[k]
                stops[k].update((max(t - hair, 0.0), min(t + hair, 1.0)))
        else:
            corner = held[k, 2:] if t > 0.5 else held[k, :2]
            through = fans.setdefault(int(under.held[k, 1 if t > 0.5 else 0]), [])
            through.append(p)
            way = p - corner
            if _is_grazed(way, p, beside, size):
                across = np.array([-way[1], way[0]]) * 2 * _SAME_WAY
                through += [p - across, p + across]
    return [sorted(one) for one in stops], fans


def _beside_on_rim(under: Underside) -> dict:
    """Of each corner of the rim, of holes too, those before and after it."""
    rims = [under.around]
    rims += [np.column_stack([ring, np.roll(ring, -1, axis=0)]) for ring in under.openings]
    found: dict = {}
    for ax, ay, bx, by in np.concatenate(rims).tolist():
        found.setdefault((ax, ay), []).append((bx, by))
        found.setdefault((bx, by), []).append((ax, ay))
    return found


def _is_grazed(way, p, beside: dict, size: float) -> bool:
    """Whether the rim lies on one side of a way that goes through a corner of it."""
    others = beside.get((float(p[0]), float(p[1])), ())
    if len(others) != 2:
        return False
    one, two = (way[0] * (q[1] - p[1]) - way[1] * (q[0] - p[0]) for q in others)
    close = 1e-9 * size * float(np.hypot(*way))
    return (one > -close and two > -close) or (one < close and two < close)


def _fan(one: np.ndarray, two: np.ndarray, through: list[np.ndarray]) -> list[np.ndarray]:
    """Directions from one to another, turning left, in small steps and through some places."""
    first = math.atan2(one[1], one[0])
    whole = (math.atan2(two[1], two[0]) - first) % (2 * math.pi)
    steps = max(math.ceil(math.degrees(whole) / _FAN_DEG), 1)
    turns = {whole * i / steps for i in range(steps + 1)}
    for way in through:
        turn = (math.atan2(way[1], way[0]) - first) % (2 * math.pi)
        if all(abs(turn - known) > _SAME_WAY for known in turns) and turn < whole:
            turns.add(turn)
    ways = [np.array([math.cos(first + t), math.sin(first + t)]) for t in sorted(turns)]
    ways[0], ways[-1] = one, two
    return ways
