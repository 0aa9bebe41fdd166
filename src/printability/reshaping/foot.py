"""Changes at the foot: flattened, and its edges bevelled."""

import math
from itertools import pairwise

import manifold3d
import numpy as np

from ..errors import EditError
from ..mesh import Mesh
from .changes import Dimension, Ground, Worked, registered_change

__all__ = ["bevel_solid", "low_points", "rounded_corners", "sink_for_area"]

# Sides of the cones that make bevels round corners (ours).
_SIDES, _SKETCHED_SIDES = 24, 8
# Of a sketch, about so many edges of the outline.
_SKETCHED_EDGES = 90
_ROUND_STEPS = 6
_MOST_EDGES = 4_000
# A corner turns by more than this; it is rounded in steps (ours).
_CORNER_DEG, _CORNER_STEP_DEG = 25.0, 10.0
# Low points lie at least this part of the size apart, and are not turned by more than this (ours).
_APART, _TURNED_DEG = 0.1, 20.0


def low_points(mesh: Mesh) -> np.ndarray:
    """Three low points that a part as it stands would come to rest on, (3,) int: vertices.

    Those of the flat of its convex hull that is nearest to level, of flats that are wide.

    Raises
    ------
    EditError
        If there is none that a small turn brings down.
    """
    from scipy.spatial import ConvexHull, QhullError  # takes a while to load

    try:
        hull = ConvexHull(mesh.vertices)
    except (QhullError, ValueError):
        raise EditError("It has no three points to stand on.") from None
    corners = mesh.vertices[hull.simplices]
    short = np.linalg.norm(corners - np.roll(corners, 1, axis=1), axis=2).min(axis=1)
    size = float(mesh.size_mm.max())
    tilt = np.degrees(np.arccos(np.clip(-hull.equations[:, 2], -1, 1)))
    wide = np.flatnonzero((short >= _APART * size) & (tilt <= _TURNED_DEG))
    if not len(wide):
        raise EditError(
            f"It has no three low points far enough apart that turning it by {_TURNED_DEG:g}° or "
            "less would level."
        )
    return hull.simplices[wide[np.argmin(tilt[wide])]]


def _foot(ground: Ground, height: float, taken=()) -> list[np.ndarray]:
    """Outlines of the part at a height, (n, 2) each."""
    out = []
    for solid in ground.tracked.solids:
        for one in taken:
            solid = solid - one
        # Sides of several facets leave points along edges.
        outline = solid.slice(height).simplify(1e-6 * ground.size_mm)
        out += [np.asarray(ring) for ring in outline.to_polygons()]
    return out


def bevel_solid(
    rings: list[np.ndarray],
    height: float,
    size_mm: float,
    angle_deg: float,
    is_round: bool = False,
    sides: int = _SIDES,
) -> manifold3d.Manifold | None:
    """What is taken along outlines so that they are set back at a height and rise to them.

    Everything nearer to an outline than it is set back at that height: by ``size`` less the
    height over the slope, or by a quarter circle. None for no outline.
    """  # fmt: skip
    count = sum(len(ring) for ring in rings)
    if not count:
        return None
    if count > _MOST_EDGES:
        raise EditError("The foot has too many edges to be bevelled; simplify the model first.")
    if is_round:
        turn = np.linspace(0, np.pi / 2, _ROUND_STEPS + 1)
        back, up = size_mm * (1 - np.sin(turn)), size_mm * (1 - np.cos(turn))
    else:
        back = np.array([size_mm, 0.0])
        up = np.array([0.0, size_mm * math.tan(math.radians(angle_deg))])
    # A little below, which is air, so that nothing stays.
    slope = (up[1] - up[0]) / (back[0] - back[1])
    back[0], up[0] = back[0] * 1.02, -0.02 * back[0] * slope
    solids = []
    for ring in rings:
        for a, b in zip(ring, np.roll(ring, -1, axis=0), strict=True):
            turn = math.atan2(b[1] - a[1], b[0] - a[0])
            # Corners of the cones lie square to the edge, so that along it the bevel is exact.
            angle = turn + math.pi / 2 + 2 * math.pi * np.arange(sides) / sides
            around = np.stack([np.cos(angle), np.sin(angle)], axis=1)
            for (r0, z0), (r1, z1) in pairwise(zip(back.tolist(), up.tolist(), strict=True)):
                points = [
                    np.column_stack([p + around * r, np.full(sides, height + z)])
                    for p in (a, b)
                    for r, z in ((r0, z0), (r1, z1))
                ]
                solids.append(manifold3d.Manifold.hull_points(np.concatenate(points)))
    return manifold3d.Manifold.batch_boolean(solids, manifold3d.OpType.Add)


def rounded_corners(
    rings: list[np.ndarray], height: float, radius_mm: float, angle_deg: float
) -> list[manifold3d.Manifold]:
    """What is taken at sharp corners of outlines so that they are round at a height.

    It shrinks upwards to nothing at the corner, nowhere flatter than the angle. Where an edge is
    short, the radius is less.

    Parameters
    ----------
    rings : list of (n, 2) float
        Outlines counter-clockwise, holes clockwise.
    height, radius_mm, angle_deg : float
    """
    out = []
    for ring in rings:
        along = np.roll(ring, -1, axis=0) - ring
        length = np.maximum(np.linalg.norm(along, axis=1), 1e-300)
        on = along / length[:, None]
        for p, u, v, before, after in zip(
            ring, np.roll(on, 1, axis=0), on, np.roll(length, 1), length, strict=True
        ):
            turn = math.atan2(u[0] * v[1] - u[1] * v[0], float(u @ v))
            if turn < math.radians(_CORNER_DEG):
                continue
            back = min(radius_mm * math.tan(turn / 2), 0.5 * before, 0.5 * after)
            r = back / math.tan(turn / 2)
            middle = p - back * u + r * np.array([-u[1], u[0]])
            first = math.atan2(-u[0], u[1])
            steps = max(math.ceil(math.degrees(turn) / _CORNER_STEP_DEG), 1)
            turns = first + turn * np.arange(steps + 1) / steps
            arc = middle + r * np.stack([np.cos(turns), np.sin(turns)], axis=1)
            outwards = (u - v) / max(float(np.linalg.norm(u - v)), 1e-300)
            tip = p + 1e-3 * back * outwards
            # From its middle the corner is farthest.
            deep = r / math.cos(turn / 2) - r + 1e-3 * back
            up = max(deep * math.tan(math.radians(angle_deg)), 1e-3)
            low = height - 0.01 * up
            for a, b in pairwise(arc):
                base = [(*q, low) for q in (tip, a, b)]
                out.append(manifold3d.Manifold.hull_points(np.array([*base, (*tip, height + up)])))
    return [one for one in out if one.volume() > 0]


def sink_for_area(ground: Ground, area_mm2: float) -> float:
    """How far a part is sunk until its foot has an area.

    Raises
    ------
    EditError
        If it never has.
    """
    low = ground.lowest
    top = float(ground.mesh.high_mm[2])

    def area(sink: float) -> float:
        return sum(one.slice(low + sink).area() for one in ground.tracked.solids)

    steps = np.linspace(0, top - low, 241)[1:-1]
    found = next((k for k, s in enumerate(steps) if area(float(s)) >= area_mm2), None)
    if found is None:
        raise EditError("No level of the part is as large as that.")
    first, last = (0.0 if found == 0 else float(steps[found - 1])), float(steps[found])
    for _ in range(40):
        middle = (first + last) / 2
        first, last = (first, middle) if area(middle) >= area_mm2 else (middle, last)
    return last


@registered_change(
    "flatten", "Flatten the foot",
    "Sinks the part a little and cuts off what is below the plate.",
    needs_place=False,
    sink_mm=Dimension("sunk by", "mm", 0.0, 200, 0.5),
    area_mm2=Dimension("until the foot is", "mm²", 0, 1e6, 0),
    bevel_mm=Dimension("bevelled by", "mm", 0, 20, 0),
)  # fmt: skip
def flatten(ground: Ground, places, size: dict) -> Worked:
    """Cut at a level above the lowest place, or at which the foot has an area."""
    sink = sink_for_area(ground, size["area_mm2"]) if size["area_mm2"] > 0 else size["sink_mm"]
    if sink <= 0:
        raise EditError("Sunk by nothing, nothing is cut.")
    level = ground.lowest + sink
    if level >= ground.mesh.high_mm[2]:
        raise EditError("That would cut all of it away.")
    take = [_below(ground, level)]
    if ground.is_sketch:
        return Worked(take=_seen(ground, take))
    foot = sum(one.slice(level).area() for one in ground.tracked.solids)
    said = [f"Sunk by {sink:.2f} mm; the foot is {foot:.1f} mm²."]
    if size["bevel_mm"] > 0:
        rings = _foot(ground, level)
        bevel = bevel_solid(rings, level, size["bevel_mm"], 45.0)
        take += [bevel] if bevel is not None else []
    return Worked(take=take, said=tuple(said))


def _below(ground: Ground, level: float) -> manifold3d.Manifold:
    low, high = ground.mesh.low_mm - 1.0, ground.mesh.high_mm + 1.0
    box = manifold3d.Manifold.cube((high[0] - low[0], high[1] - low[1], level - low[2]))
    return box.translate(tuple(float(v) for v in low))


@registered_change(
    "bevel", "Bevel the foot",
    "Sets the lowest edges back, for lifting off and against a squashed first layer; rounds sharp "
    "corners of the foot, which pull themselves off the plate.",
    needs_place=False,
    size_mm=Dimension("set back by", "mm", 0.1, 20, 0.6),
    angle_deg=Dimension("angle from the plate", "°", 20, 80, 45),
    shape=Dimension("shape", "", 0, 0, 0, ("straight", "round")),
    corners_mm=Dimension("corners rounded by", "mm", 0, 100, 0),
)  # fmt: skip
def bevel(ground: Ground, places, size: dict) -> Worked:
    """A bevel along the outline of what rests on the plate, its sharp corners round if asked."""
    height = ground.lowest
    rings = _foot(ground, height + 1e-6 * ground.size_mm)
    is_round = size["shape"] == "round"
    sides = _SKETCHED_SIDES if ground.is_sketch else _SIDES
    if ground.is_sketch:
        every = -(-sum(map(len, rings)) // _SKETCHED_EDGES)
        rings = [ring[::every] if len(ring) >= 3 * every else ring for ring in rings]
    is_round = is_round and not ground.is_sketch
    solid = bevel_solid(rings, height, size["size_mm"], size["angle_deg"], is_round, sides)
    take = [solid] if solid is not None else []
    if not take:
        raise EditError("Nothing rests on the plate as it was turned then.")
    if size["corners_mm"] > 0:
        take += rounded_corners(rings, height, size["corners_mm"], max(size["angle_deg"], 45.0))
    return Worked(take=_seen(ground, take))


def _seen(ground: Ground, take: list[manifold3d.Manifold]) -> list[manifold3d.Manifold]:
    """What is taken; of a sketch what of it lies in the part."""
    if not ground.is_sketch:
        return take
    return [one ^ solid for one in take for solid in ground.tracked.solids]
