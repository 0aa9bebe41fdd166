"""Gussets: ribs under a ledge, from the wall to the outer rim."""

import math
from dataclasses import dataclass, replace

import manifold3d
import numpy as np

from ..errors import EditError
from ..mesh import first_hits, pieces_of
from . import _kernels
from .changes import Dimension, Ground, Worked, registered_change
from .deep import RIBS_LEAN, deep_enough
from .filling import holes_kept
from .rays import RIDGE
from .underside import Underside
from .undersides import ANGLE, underside_seen

# Edges that turn by less than some 20 degrees are one run (ours).
_STRAIGHT = 0.94
_RIB_STEPS = 25
# On a rim that bends outwards no straight thread spans from rib to rib: what is between them hangs
# as a ledge of half the gap. So they stand closer there, by this part of what is bridged (ours).
_ROUND_PART = 0.22


@registered_change(
    "gusset", "Gusset",
    "Stands ribs at the angle under a ledge; what is between them is bridged.",
    angle_deg=ANGLE,
    count=Dimension("ribs (0: as bridges need)", "", 0, 60, 0),
    thick_mm=Dimension("thickness", "mm", 0.4, 200, 1.6),
    bridge_mm=Dimension("bridges up to", "mm", 1, 200, 10),
)  # fmt: skip
def gusset(ground: Ground, places, size: dict) -> Worked:
    """Upright plates from the wall to the outer rim, their lower edge at the angle."""
    add, said = [], []
    for place in places:
        slope = math.tan(math.radians(size["angle_deg"]))
        seen, under = underside_seen(ground, place, size["angle_deg"], False)
        under = replace(under, is_bridged=True)  # ribs stand beside holes
        under, _ = deep_enough(seen, under, slope, in_parts=False, leans=RIBS_LEAN)
        runs, bows = _hinge_runs(under, _ends(under, size["thick_mm"]))
        if not runs and not bows:
            raise EditError("Nothing beside it holds this underside, so a rib has no wall.")
        whole = sum(length for _, _, length, _ in runs) + sum(bow.length for bow in bows)
        count = 0
        for bow in bows:
            own = size["count"] and max(round(size["count"] * bow.length / whole), 1)
            # A thicker one would stand out of the wall or of the underside beside the bend.
            thick = min(size["thick_mm"], bow.length, bow.r_mm / 2)
            bend_mm = bow.r_mm if bow.turn > 0 else math.inf
            for foot, along in bow.feet(int(own), thick, size["bridge_mm"]):
                rib = _rib(seen, under, foot, along, thick, size["angle_deg"], bend_mm)
                if rib is not None:
                    add.append(rib)
                    count += 1
        for start, along, length, reach in runs:
            thick = min(size["thick_mm"], length)
            own = size["count"] and max(round(size["count"] * length / whole), 1)
            # No farther apart than the ledge is deep: then what is between them is a bridge.
            gap = _gap(size["bridge_mm"], reach)
            own = int(own) or max(math.ceil((length - thick) / (gap + thick)) + 1, 1)
            # The outer ones at the ends, so that no corner hangs free.
            where = np.linspace(thick / 2, length - thick / 2, own) if own > 1 else [length / 2]
            where = [_beside_openings(under, start, along, s, thick, length) for s in where]
            feet = [(start + along * s, along) for s in where]
            feet += _corner_feet(runs, start + along * length, along)
            for foot, way in feet:
                rib = _rib(seen, under, foot, way, thick, size["angle_deg"])
                if rib is not None:
                    add.append(rib)
                    count += 1
        if not count:
            raise EditError("No rib finds a wall below this underside.")
        said.append(f"{count} rib{'s' if count > 1 else ''} along {whole:.1f} mm.")
    if ground.is_sketch:
        return Worked(add=add)
    ribs = manifold3d.Manifold.batch_boolean(add, manifold3d.OpType.Add)
    return Worked(add=pieces_of(ribs), said=tuple(said))


def _ends(under: Underside, thick: float) -> np.ndarray:
    """(s, 4) float: where a rib ends: at the rim, and at a hole much wider than it is thick."""
    wide = [ring for ring in under.openings if np.ptp(ring, axis=0).max() > max(2 * thick, 4.0)]
    rings = [np.column_stack([ring, np.roll(ring, -1, axis=0)]) for ring in wide]
    return np.ascontiguousarray(np.concatenate([under.around, *rings]))


def _gap(bridge_mm: float, reach: float) -> float:
    """How far apart ribs stand: no farther than the ledge is deep, so that a bridge is between."""
    return min(bridge_mm, max(0.8 * reach, 2.0))


@dataclass(frozen=True, eq=False)
class _Bow:
    """A stretch of what holds an underside that bends little by little, all around or not.

    Attributes
    ----------
    line : (n, 2) float
        With the underside on its right; closed where its ends are one.
    reach : float
        How far the underside goes on from its middle.
    turn : float
        By how much it turns in all, radians; positive where the underside is outside.
    """

    line: np.ndarray
    reach: float
    turn: float

    @property
    def steps(self) -> np.ndarray:
        """Lengths of its edges."""
        return np.linalg.norm(np.diff(self.line, axis=0), axis=1)

    @property
    def length(self) -> float:
        return float(self.steps.sum())

    @property
    def is_closed(self) -> bool:
        return bool((self.line[0] == self.line[-1]).all())

    @property
    def r_mm(self) -> float:
        """How wide it bends."""
        return self.length / float(np.abs(_turns(np.diff(self.line, axis=0))).sum())

    def feet(self, count: int, thick: float, bridge_mm: float):
        """Where ribs stand on it, and the direction of the wall there."""
        # Round a pole they spread outwards: at the rim they are farthest apart.
        rim = self.length + max(self.turn, 0.0) * self.reach
        gap = _gap(bridge_mm, self.reach)
        if self.turn > 0:
            gap = min(gap, _ROUND_PART * bridge_mm)
        closed = self.is_closed
        if not count:
            free = rim if closed else rim - thick
            count = max(math.ceil(free / (gap + thick)) + (not closed), 1)
        ends = (0.0, self.length) if closed else (thick / 2, self.length - thick / 2)
        where = np.linspace(*ends, count, endpoint=not closed)
        at = np.append(0.0, np.cumsum(self.steps))
        ways = np.diff(self.line, axis=0)
        # It bends evenly, not from edge to edge: so ribs spread evenly too.
        middles, turns = (at[:-1] + at[1:]) / 2, np.append(0.0, np.cumsum(_turns(ways)))
        if closed:
            middles = np.concatenate([middles - self.length, middles, middles + self.length])
            turns = np.concatenate([turns - self.turn, turns, turns + self.turn])
        first = math.atan2(ways[0, 1], ways[0, 0])
        for s in where:
            k = min(int(np.searchsorted(at, s, side="right")) - 1, len(ways) - 1)
            turn = first + float(np.interp(s, middles, turns))
            foot = self.line[k] + ways[k] * ((s - at[k]) / self.steps[k])
            yield foot, np.array([math.cos(turn), math.sin(turn)])


def _beside_openings(under: Underside, start, along, s: float, thick: float, length: float):
    """Where along a run a rib stands, moved beside holes that it would be cut in two by."""
    out = np.array([along[1], -along[0]])
    for ring in under.openings:
        by = ring - start
        low, high = float((by @ along).min()) - thick / 2, float((by @ along).max()) + thick / 2
        if (by @ out).max() <= 0 or not low < s < high:
            continue
        ends = [end for end in (low - 0.2, high + 0.2) if thick / 2 <= end <= length - thick / 2]
        if ends:
            s = min(ends, key=lambda end: abs(end - s))
    return s


def _hinge_runs(
    under: Underside, ends: np.ndarray
) -> tuple[list[tuple[np.ndarray, np.ndarray, float, float]], list[_Bow]]:
    """Straight runs of what holds an underside, without those that lie in front of longer ones.

    Each its start (2,), direction (2,) with the underside on its right, its length, and how far
    the underside goes on from its middle. And those that bend little by little.
    """
    if not len(under.held):
        return [], []
    points = under.mesh.vertices[:, :2]
    runs, bows = [], []
    for chain in _chains(under.held.tolist()):
        line = points[chain]
        ways = np.diff(line, axis=0)
        turns = _turns(ways)
        corners = np.flatnonzero(np.abs(turns) > math.acos(_STRAIGHT)) + 1
        for piece in np.split(np.arange(len(ways)), corners):
            own = line[piece[0] : piece[-1] + 2]
            bent = np.abs(np.cumsum(turns[piece[:-1]])).max(initial=0.0)
            if bent > math.acos(_STRAIGHT):
                bows.append(own)
                continue
            way = own[-1] - own[0]
            length = float(np.linalg.norm(way))
            if length > 0:
                runs.append((own[0], way / length, length))
    runs = _in_one_line(runs)
    runs.sort(key=lambda run: -run[2])
    kept: list[tuple[np.ndarray, np.ndarray, float, float]] = []
    near = 1e-6 * max(float(np.ptp(points[under.held].reshape(-1, 2), axis=0).max()), 1e-9)
    for start, along, length in runs:
        if length < 0.1 * runs[0][2]:
            continue
        reach = _reach(ends, start + along * length / 2, along, near)
        if not np.isfinite(reach):
            continue
        # What lies in front of a longer run has that one's ribs.
        place = start + along * length / 2 + np.array([along[1], -along[0]]) * (near + reach / 2)
        if not any(_in_front(place, run) for run in kept):
            kept.append((start, along, length, reach))
    return kept, [bow for line in bows if (bow := _bow(ends, line, near)) is not None]


def _turns(ways: np.ndarray) -> np.ndarray:
    """By how much a line turns from edge to edge, radians; left is positive."""
    one, two = ways[:-1], ways[1:]
    return np.arctan2(
        one[:, 0] * two[:, 1] - one[:, 1] * two[:, 0], (one * two).sum(axis=1)
    )  # fmt: skip


def _bow(ends: np.ndarray, line: np.ndarray, near: float) -> _Bow | None:
    ways = np.diff(line, axis=0)
    turn = float(_turns(ways).sum())
    if (line[0] == line[-1]).all():
        turn += float(_turns(ways[[-1, 0]])[0])
    k = len(ways) // 2
    along = ways[k] / max(float(np.linalg.norm(ways[k])), 1e-300)
    reach = _reach(ends, (line[k] + line[k + 1]) / 2, along, near)
    if not np.isfinite(reach):
        return None
    return _Bow(line, float(reach), turn)


def _reach(ends: np.ndarray, middle: np.ndarray, along: np.ndarray, near: float) -> float:
    """How far an underside goes on, square to what holds it there."""
    out = np.array([along[1], -along[0]])
    foot = middle + out * near
    return float(_kernels.way_out(*map(float, (*foot, *out)), ends, near))


def _in_one_line(runs):
    """Runs of one wall that something stands between, as one."""
    out: list[tuple[np.ndarray, np.ndarray, float]] = []
    for start, along, length in runs:
        for i, (first, way, long) in enumerate(out):
            across = np.array([-way[1], way[0]])
            if along @ way < 1 - 1e-9 or abs((start - first) @ across) > 1e-6 * (length + long):
                continue
            ends = [0.0, long, (start - first) @ way, (start - first) @ way + length]
            gap = max(ends) - min(ends) - long - length
            if gap <= max(long, length):
                out[i] = (first + way * min(ends), way, float(max(ends) - min(ends)))
                break
        else:
            out.append((start, along, length))
    return out


def _in_front(place: np.ndarray, run) -> bool:
    start, along, length, reach = run
    by = place - start
    return 0 < by @ along < length and 0 < by @ np.array([along[1], -along[0]]) < reach


def _corner_feet(runs, corner: np.ndarray, along: np.ndarray):
    """A rib across an outer corner of the wall, where a run goes on round it."""
    feet = []
    for start, other, length, _ in runs:
        if np.linalg.norm(start - corner) <= 1e-6 * length:
            turn = along[0] * other[1] - along[1] * other[0]
            # The underside lies on the right of both: it goes round the corner on a left turn.
            if turn > 0.2:
                between = along + other
                feet.append((corner, between / np.linalg.norm(between)))
    return feet


def _rib(
    ground: Ground, under: Underside, foot, along, thick: float, angle_deg: float,
    bend_mm: float = math.inf,
):  # fmt: skip
    """An upright plate square to a run of the hinge; None where there is no wall for its foot.

    ``bend_mm`` is how wide the wall bends outwards there: at the rib's sides the wall lies farther
    back, and the rim too.
    """
    out = np.array([along[1], -along[0]])
    slope = math.tan(math.radians(angle_deg))
    near = 1e-6 * ground.size_mm
    ends = _ends(under, thick)
    reach = _kernels.way_out(*map(float, (*foot, *out)), ends, 10 * near)
    if math.isfinite(bend_mm) and np.isfinite(reach):
        # From its middle on: where it begins, its sides may lie on the wall or in it.
        begin = foot + out * reach / 2
        sides = [begin - along * thick / 2, begin + along * thick / 2]
        ways = [_kernels.way_out(*map(float, (*side, *out)), ends, 10 * near) for side in sides]
        reach = min(reach, reach / 2 + min(ways))
    if not np.isfinite(reach) or reach <= 100 * near:
        return None
    tip = np.ascontiguousarray((foot + out * reach)[None])
    if _kernels.distances(tip, under.held_segments)[0][0] <= 100 * near:
        # It ends at another wall: up to where that is nearer.
        turn, side = under.sides
        reach = _kernels.reaches(
            np.ascontiguousarray(foot[None]), np.ascontiguousarray(out[None]), np.array([-1]),
            under.held_segments, turn, side, ends, np.zeros((0, 4)), near, RIDGE * ground.size_mm,
        )[0]  # fmt: skip
    # Over its whole thickness: the lowest of the rim, so that nothing of the rib stands out.
    sides = np.array([-0.5, 0.0, 0.5]) * thick
    tips = [foot + out * (reach - 10 * near) + along * s for s in sides]
    tip = under.heights(np.array(tips))[0]
    tip = float(np.nanmin(tip)) if np.isfinite(tip).any() else math.nan
    if not math.isfinite(tip):
        return None
    top = np.linspace(near, reach - 10 * near, _RIB_STEPS)
    heights = np.array(
        [under.heights(foot + out * top[:, None] + along * s)[0] for s in sides]
    )  # fmt: skip
    over = np.nanmax(np.where(np.isfinite(heights), heights, -np.inf), axis=0)
    over = np.where(np.isfinite(over), over, np.interp(top, [top[0], top[-1]], [tip, tip]))
    bottom = tip - slope * reach
    # Straight inwards from its lowest place until there is wall.
    level = max(bottom, ground.lowest)
    start = np.array([*(foot + out * near), level + near])
    hit = first_hits(ground.mesh.index, start[None], (-float(out[0]), -float(out[1]), 0.0), 0.0)[0]
    if hit < 0:
        return None
    a, b, c = ground.mesh.vertices[ground.mesh.facets[hit]]
    n = np.cross(b - a, c - a)
    back = float(n @ (a - start) / (n @ np.array([-out[0], -out[1], 0.0])))
    if n[:2] @ out < 0:  # inside the wall already, which widens downwards
        back = 0.0
    if back > RIBS_LEAN * reach + 0.1:
        return None
    back += ground.over_mm
    if math.isfinite(bend_mm):
        back += bend_mm - math.sqrt(max(bend_mm**2 - thick**2 / 4, 0.0))
    profile = [(-back, bottom - slope * back)]
    profile += [(float(reach), tip)]
    profile += [
        (float(x), float(z) + ground.over_mm) for x, z in zip(top[::-1], over[::-1], strict=True)
    ]
    profile += [(-back, float(over[0]) + ground.over_mm)]
    plate = manifold3d.CrossSection([np.array(profile)]).extrude(thick)
    # Its x runs out from the wall, its y up, and its thickness along the wall.
    axes = np.array([[out[0], 0, along[0]], [out[1], 0, along[1]], [0, 1.0, 0]])
    if np.linalg.det(axes) < 0:
        axes[:, 2] *= -1
    shift = np.array([foot[0], foot[1], 0.0]) - axes[:, 2] * thick / 2
    plate = plate.transform(np.column_stack([axes, shift]))
    return holes_kept(plate.trim_by_plane((0, 0, 1), ground.lowest), under)


def _chains(edges: list[list[int]]) -> list[list[int]]:
    """Edges joined end to end, in their own direction."""
    following = dict(map(tuple, edges))
    starts = set(following) - set(following.values())
    chains, used = [], set()
    for start in [*starts, *following]:
        if start in used:
            continue
        chain = [start]
        while chain[-1] in following and chain[-1] not in used:
            used.add(chain[-1])
            chain.append(following[chain[-1]])
        if len(chain) > 1:
            chains.append(chain)
    return chains
