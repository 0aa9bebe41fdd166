"""Gussets: ribs under a ledge, from the wall to the outer rim."""

import math

import manifold3d
import numpy as np

from ..errors import EditError
from ..mesh import first_hits
from . import _kernels
from .changes import Dimension, Ground, Worked, registered_change
from .rays import RIDGE
from .underside import Underside
from .undersides import ANGLE, deep_enough, holes_kept, underside_seen

# Edges that turn by less than some 20 degrees are one run (ours).
_STRAIGHT = 0.94
_RIB_STEPS = 25


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
        under, _ = deep_enough(seen, under, slope)
        runs = _hinge_runs(under)
        if not runs:
            raise EditError("Nothing beside it holds this underside, so a rib has no wall.")
        whole = sum(length for _, _, length, _ in runs)
        count = 0
        for start, along, length, reach in runs:
            thick = min(size["thick_mm"], length)
            own = size["count"] and max(round(size["count"] * length / whole), 1)
            # No farther apart than the ledge is deep: then what is between them is a bridge.
            gap = min(size["bridge_mm"], max(0.8 * reach, 2.0))
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
    ribs = manifold3d.Manifold.batch_boolean(add, manifold3d.OpType.Add)
    return Worked(add=ribs.decompose(), said=tuple(said))


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


def _hinge_runs(under: Underside) -> list[tuple[np.ndarray, np.ndarray, float, float]]:
    """Straight runs of what holds an underside, without those that lie in front of longer ones.

    Each its start (2,), direction (2,) with the underside on its right, its length, and how far
    the underside goes on from its middle.
    """
    if not len(under.held):
        return []
    points = under.mesh.vertices[:, :2]
    runs = []
    for chain in _chains(under.held.tolist()):
        line = points[chain]
        begin = 0
        for i in range(1, len(line)):
            last = i == len(line) - 1
            if not last:
                one, other = line[i] - line[begin], line[i + 1] - line[i]
                scale = float(np.linalg.norm(one) * np.linalg.norm(other))
                straight = float(one @ other) > _STRAIGHT * scale
            if last or not straight:
                way = line[i] - line[begin]
                length = float(np.linalg.norm(way))
                if length > 0:
                    runs.append((line[begin], way / length, length))
                begin = i
    runs = _in_one_line(runs)
    runs.sort(key=lambda run: -run[2])
    kept: list[tuple[np.ndarray, np.ndarray, float, float]] = []
    near = 1e-6 * max(float(np.ptp(points[under.held].reshape(-1, 2), axis=0).max()), 1e-9)
    for start, along, length in runs:
        if length < 0.1 * runs[0][2]:
            continue
        out = np.array([along[1], -along[0]])
        foot = start + along * length / 2 + out * near
        reach = _kernels.way_out(*map(float, (*foot, *out)), under.around, near)
        if not np.isfinite(reach):
            continue
        # What lies in front of a longer run has that one's ribs.
        place = foot + out * reach / 2
        if not any(_in_front(place, run) for run in kept):
            kept.append((start, along, length, reach))
    return kept


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


def _rib(ground: Ground, under: Underside, foot, along, thick: float, angle_deg: float):
    """An upright plate square to a run of the hinge; None where there is no wall for its foot."""
    out = np.array([along[1], -along[0]])
    slope = math.tan(math.radians(angle_deg))
    near = 1e-6 * ground.size_mm
    reach = _kernels.way_out(*map(float, (*foot, *out)), under.around, 10 * near)
    if not np.isfinite(reach) or reach <= 100 * near:
        return None
    end = np.ascontiguousarray((foot + out * reach)[None])
    if _kernels.distances(end, under.held_segments)[0][0] <= 100 * near:
        # It ends at another wall: up to where that is nearer.
        reach = _kernels.reaches(
            np.ascontiguousarray(foot[None]), np.ascontiguousarray(out[None]),
            under.held_segments, under.around, near, RIDGE * ground.size_mm,
        )[0]  # fmt: skip
    # Over its whole thickness: the lowest of the rim, so that nothing of the rib stands out.
    sides = np.array([-0.5, 0.0, 0.5]) * thick
    ends = [foot + out * (reach - 10 * near) + along * s for s in sides]
    tip = under.heights(np.array(ends))
    tip = float(np.nanmin(tip)) if np.isfinite(tip).any() else math.nan
    if not math.isfinite(tip):
        return None
    top = np.linspace(near, reach - 10 * near, _RIB_STEPS)
    heights = np.array(
        [under.heights(foot + out * top[:, None] + along * s) for s in sides]
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
    if back > 0.25 * reach + 0.1:
        return None
    back += ground.over_mm
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
