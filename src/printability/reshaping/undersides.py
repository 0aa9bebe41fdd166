"""An underside that is too flat, cut steeper."""

import math

import manifold3d
import numpy as np

from ..errors import EditError
from ..mesh import Mesh
from ..mesh.nearest import nearest_facing
from . import _kernels
from .changes import Dimension, Ground, Worked, registered_change
from .joining import joined_two_by_two
from .rays import Ray, rays_of
from .strips import solids_between
from .underside import Underside, flat_undersides, held_by_nearest_side, underside_at, with_its_end

__all__ = ["ANGLE", "steepened", "underside_seen"]

# An underside that more edges than this hold is looked at on a copy, off by so much at most (ours).
_MOST_EDGES, _OFF_MM = 300, (0.02, 0.1)
# A sketch of a part with more facets than this is made on the coarser copy.
_MOST_SKETCHED = 8_000
_ARCH_STEPS, _ROUND_STEPS = 24, 9
_OVERLAP_MM, _BACK_MM = 0.01, 0.003
# A taper goes on so far beyond its ends, farther where it meets them at a slant (ours).
_BEYOND_MM, _MOST_BEYOND_MM, _LEANING_PART = 0.01, 0.1, 0.03
# Where ways meet in a point, as much round that is taken (ours).
_NEEDLE_MM, _EVEN_PART = 0.03, 1e-5
# What an underside rises from: all that holds it, or the side nearest to the place.
HINGES = ("all around", "nearest side")
ANGLE = Dimension("angle from the plate", "°", 10, 85, 45)


def underside_seen(ground: Ground, place, angle_deg: float, with_steep: bool):
    """The underside at a place, and the ground that it is looked at on.

    One with very many edges is looked at on a copy that is off by a tenth of a mm at most.
    """
    is_fine = len(ground.part.mesh.facets) > _MOST_SKETCHED
    for off_mm in _OFF_MM[-1:] if ground.is_sketch and is_fine else (0.0, *_OFF_MM):
        seen = ground.simplified(off_mm) if off_mm else ground
        facet = seen.facet_of(place)
        if facet < 0:
            raise EditError("The place it was made at is not there any more.")
        found = underside_at(seen.mesh, facet, angle_deg, with_steep)
        if found is None and off_mm:  # beside it, where the copy differs
            found = _flat_beside(seen, ground.at(place), angle_deg, with_steep)
        if found is None:
            raise EditError(f"That is no underside flatter than {angle_deg:g}°.")
        if len(found.held) <= _MOST_EDGES:
            return seen, found
    raise EditError(
        f"{len(found.held):,} edges hold this underside; reduce the model’s facets where it was "
        "made, or choose a smaller place."
    )


def _flat_beside(seen: Ground, point, angle_deg: float, with_steep: bool) -> Underside | None:
    """The underside nearest to a place, within a millimetre."""
    rows = np.flatnonzero(flat_undersides(seen.mesh, angle_deg))
    if not len(rows):
        return None
    flat = Mesh(seen.mesh.vertices, np.ascontiguousarray(seen.mesh.facets[rows]))
    facet, _ = nearest_facing(flat.index, np.asarray(point, float), (0.0, 0.0, 0.0), -1.0, 1.0)
    return underside_at(seen.mesh, int(rows[facet]), angle_deg, with_steep) if facet >= 0 else None


def steepened(
    ground: Ground, place, angle_deg: float, shape: str, hinge: str = HINGES[0],
    begins_mm: float = 0.0,
) -> list[manifold3d.Manifold]:  # fmt: skip
    """What is taken away so that an underside rises from what holds it.

    ``hinge`` says whether from all that, or from the side nearest to the place alone;
    ``begins_mm`` how far from there it stays as it is. One solid, but for a sketch.

    Raises
    ------
    EditError
        If there is no such underside, or nothing holds it.
    """
    ground, under = underside_seen(ground, place, angle_deg, False)
    over = ground.over_mm
    if not len(under.held):
        raise EditError(
            "Nothing beside it holds this underside, so there is no hinge to rise from; fill it "
            "or stand it on a pillar."
        )
    if hinge == HINGES[1]:
        under = held_by_nearest_side(under, ground.at(place)[:2])
    under = with_its_end(under, angle_deg)
    slope = math.tan(math.radians(angle_deg))

    def profile(one: Ray, other: Ray):
        points, beyond = [], _beyond(one, other, max(over, _BEYOND_MM))
        if max(one.reach, other.reach) <= begins_mm:
            return None
        for ray, beside in ((one, other), (other, one)):
            if ray.reach <= begins_mm:
                points.append(_where_it_begins(ray, beside, begins_mm, over))
                continue
            ray = ray.from_mm(begins_mm)
            at = np.append(ray.at, ray.reach + beyond)
            own = np.append(ray.own, ray.own[-1])
            if shape == "round":
                turn = np.linspace(0, np.pi / 2, _ARCH_STEPS)
                at = np.unique(np.concatenate([ray.reach * (1 - np.cos(turn)), at]))
                own = np.interp(at, ray.at, ray.own)
                rise = np.sqrt(np.maximum(ray.reach**2 - (ray.reach - at) ** 2, 0.0))
            else:
                rise = slope * at
            # Below the line there is nothing but what is to go, so between places it may be lower.
            low = np.minimum(
                own, np.minimum(np.append(own[0], own[:-1]), np.append(own[1:], own[-1]))
            )
            line = ray.foot_z + rise
            gone = line > low + 1e-9
            points += [
                ray.places(at[gone], line[gone]), ray.places(at[gone], low[gone] - over),
                ray.places(np.zeros(1), ray.foot_z),
            ]  # fmt: skip
        points = np.concatenate(points) if points else np.zeros((0, 3))
        if len(points) <= 3:
            return None
        if shape == "round" or ground.is_sketch:
            return [points]
        return [points, *_round_pieces(one, other, under, angle_deg)]

    rays = rays_of(under, over, ground.is_sketch)
    solids = solids_between(rays, profile, ground.is_sketch)
    if not solids:
        raise EditError("This underside rises steeply enough already.")
    if ground.is_sketch or shape == "round":
        return solids
    return [joined_two_by_two(solids + _peaks(under, rays, slope, over, begins_mm))]


def _where_it_begins(ray: Ray, beside: Ray, begins_mm: float, over: float) -> np.ndarray:
    """(2, 3) float: the place between the ends of two ways, one of them too short, from where on
    a taper begins; and below it."""
    t = (begins_mm - ray.reach) / (beside.reach - ray.reach)
    x, y = (1 - t) * (ray.foot + ray.way * ray.reach) + t * (
        beside.foot + beside.way * beside.reach
    )
    z = (1 - t) * float(ray.own[-1]) + t * float(beside.own[-1])
    return np.array([(x, y, z), (x, y, z - over)])


def _peaks(
    under: Underside, rays, slope: float, over: float, begins_mm: float
) -> list[manifold3d.Manifold]:
    """Needles that may be left where ways from several sides meet in a point."""
    found = []
    for row in rays:
        for one, ray, other in zip(row, row[1:], row[2:], strict=False):
            beside = max(one.reach, other.reach)
            if not ray.is_corner and ray.reach > beside + _EVEN_PART * ray.reach > 0:
                found.append(ray)
    if not found:
        return []
    ends = np.array([ray.foot + ray.way * ray.reach for ray in found])
    far, _, _ = _kernels.distances(ends, under.around)
    made: dict[tuple, manifold3d.Manifold] = {}
    for ray, end, off in zip(found, ends, far, strict=True):
        low = float(ray.own.min()) - over
        start = ray.from_mm(begins_mm)
        high = start.foot_z + slope * start.reach
        if off <= 3 * _NEEDLE_MM or high <= low:
            continue
        needle = manifold3d.Manifold.cylinder(high - low, _NEEDLE_MM, _NEEDLE_MM, 8)
        made.setdefault(
            tuple(np.round(end / _NEEDLE_MM, 0).tolist()),
            needle.translate((float(end[0]), float(end[1]), low)),
        )
    return list(made.values())


def _beyond(one: Ray, other: Ray, over: float) -> float:
    """How far beyond their ends two ways go on, to be so far beyond the line that joins those."""
    if not one.is_corner and one.way @ other.way < 1 - 1e-9:
        # Towards the middle of a round room, where they narrow to nothing.
        return max(over, _LEANING_PART * max(one.reach, other.reach))
    ends = [ray.foot + ray.way * ray.reach for ray in (one, other)]
    along = ends[1] - ends[0]
    long = float(np.hypot(*along))
    if not long:
        return over
    across = min(abs(ray.way[0] * along[1] - ray.way[1] * along[0]) for ray in (one, other))
    return over / max(float(across) / long, over / _MOST_BEYOND_MM)


def _round_pieces(one: Ray, other: Ray, under: Underside, angle_deg: float) -> list[list]:
    """What is taken away besides, so that an outer end that was round is round above the taper.

    Of the same radius: from where the taper's line touches the circle to where that is upright,
    taken away in chords.
    """
    r, slope = under.radius_mm, math.tan(math.radians(angle_deg))
    if not r or not math.isfinite(one.bend + other.bend):
        return []
    turn = np.radians(np.linspace(angle_deg, 90.0, _ROUND_STEPS))
    out, up = r * (np.sin(turn) - 1), r * (math.cos(turn[0]) - np.cos(turn))
    pieces: list[list] = [[] for _ in turn[1:]]
    for ray in (one, other):
        end = ray.bend + r * (1 - math.sin(math.radians(under.bend_deg)))
        x = end + out
        if x[0] < 0:
            return []
        z = ray.foot_z + slope * x[0] + up
        line = ray.foot_z + slope * x - _OVERLAP_MM
        for i, piece in enumerate(pieces):
            # Along its chord a little back into the piece before it: else a film is left.
            back = (z[i + 1] - z[i]) / (x[i + 1] - x[i]) * _BACK_MM
            piece += [ray.place(x[i] - _BACK_MM, z[i] - back), ray.place(x[i + 1], z[i + 1])]
            piece += [
                ray.place(x[i] - _BACK_MM, line[i] - _BACK_MM),
                ray.place(x[i + 1], line[i + 1]),
            ]
        # Beyond where it is upright there may be a trace of what was round.
        pieces[-1] += [
            ray.place(end + 0.01 * r, z[-1] + 0.2 * r),
            ray.place(end + 0.01 * r, line[-1]),
        ]
    return pieces


@registered_change(
    "steepen", "Taper an underside",
    "Takes material away so that it rises from its hinge at the angle, or in a round arch.",
    angle_deg=ANGLE,
    shape=Dimension("shape", "", 0, 0, 0, ("straight", "round")),
    hinge=Dimension("hinge", "", 0, 0, 0, HINGES),
    begins_mm=Dimension("begins at", "mm", 0, 200, 0),
)  # fmt: skip
def taper(ground: Ground, places, size: dict) -> Worked:
    """Rise from the hinge: tapered ledges, pointed openings, arches."""
    angle_deg, shape, hinge, begins_mm = (
        size[name] for name in ("angle_deg", "shape", "hinge", "begins_mm")
    )
    take = [steepened(ground, place, angle_deg, shape, hinge, begins_mm) for place in places]
    return Worked(take=[one for solids in take for one in solids], from_below=True)
