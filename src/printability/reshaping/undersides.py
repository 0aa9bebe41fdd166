"""An underside that is too flat, cut steeper."""

import math

import manifold3d
import numpy as np

from ..errors import EditError
from ..mesh import Mesh, facet_areas, facet_normals, mesh_of, pieces_of
from ..mesh.nearest import nearest_facing
from . import _kernels
from .changes import FALLS_OFF, Dimension, Ground, Worked, less, registered_change
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
# What is left of a taper is a film below this part of it (ours).
_FILM_PART = 1e-5
# What faces up goes where so much of it does, looked at in a skin of it (ours).
_SKIN_MM, _LEAST_GONE_MM2 = 0.005, 0.3
_LEVEL_MM, _FACES_DOWN = 1e-4, 0.1
# Of what is kept above it this is looked at (ours).
_PARTS_ABOVE = (1.0, 0.7, 0.4, 0.15)
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
    least_mm=Dimension("keeps at least", "mm", 0, 50, 0.85, before=0.0),
)  # fmt: skip
def taper(ground: Ground, places, size: dict) -> Worked:
    """Rise from the hinge: tapered ledges, pointed openings, arches."""
    angle_deg, shape, hinge, begins_mm = (
        size[name] for name in ("angle_deg", "shape", "hinge", "begins_mm")
    )
    take = [
        one for place in places
        for one in steepened(ground, place, angle_deg, shape, hinge, begins_mm)
    ]  # fmt: skip
    if ground.is_sketch:
        return Worked(take=take, from_below=True)
    flat_mm2, said = 0.0, ()
    hangs = _hangs_with(ground, take) if _cuts_through(ground, take) else 0
    if hangs and size["least_mm"]:
        # What is in front of the cut begins on nothing then: less so, where a skin is kept.
        kept, flat = _keeping(ground, take, size["least_mm"], angle_deg)
        if (less_so := _hangs_with(ground, kept)) <= hangs:
            take, flat_mm2, hangs = kept, flat, less_so
    if flat_mm2 > 0:
        said = (
            f"It keeps {size['least_mm']:g} mm of what is above, so {flat_mm2:,.1f} mm² stay "
            "flatter; a gusset or a fill holds them.",
        )
    return Worked(take=take, from_below=True, said=said, hangs=hangs > 0, left_mm2=flat_mm2)


def _cuts_through(ground: Ground, take: list[manifold3d.Manifold]) -> bool:
    """Whether something that faces up would go."""
    gone = 0.0
    for body in ground.tracked.solids:
        lower = body.translate((0, 0, -_SKIN_MM))
        gone += sum(((one ^ body) - lower).volume() for one in take)
    return gone / _SKIN_MM > _LEAST_GONE_MM2


def _hangs_with(ground: Ground, take: list[manifold3d.Manifold]) -> float:
    """At how many places more something begins off the plate once so much is taken away.

    Infinite where it falls in pieces.
    """
    count = 0
    for body in ground.tracked.solids:
        after = less(body, take)
        volumes = [one.volume() for one in pieces_of(after)]
        if sum(one >= FALLS_OFF * max(volumes, default=0.0) for one in volumes) > 1:
            return math.inf
        count += _lowest_places(mesh_of(after), ground.lowest)
        count -= _lowest_places(mesh_of(body), ground.lowest)
    return max(count, 0)


def _lowest_places(mesh: Mesh, lowest: float) -> int:
    """How many places of a surface, off the plate, have nothing lower beside them.

    Level undersides and edges are one place each; the bottom of a bowl, which faces up, is none.
    """
    from scipy.sparse import csr_array
    from scipy.sparse.csgraph import connected_components

    z = mesh.vertices[:, 2]
    a, b = mesh.facets.ravel(), np.roll(mesh.facets, -1, axis=1).ravel()
    level = np.abs(z[a] - z[b]) <= _LEVEL_MM
    graph = csr_array((np.ones(level.sum()), (a[level], b[level])), shape=(len(z), len(z)))
    count, part = connected_components(graph, directed=False)
    is_low = np.ones(count, bool)
    is_low[part[a[~level & (z[a] > z[b])]]] = False
    is_low[part[b[~level & (z[b] > z[a])]]] = False
    has_under = np.zeros(count, bool)
    has_under[part[mesh.facets[facet_normals(mesh)[:, 2] < -_FACES_DOWN]]] = True
    is_low &= has_under
    is_low[part[z <= lowest + _LEVEL_MM]] = False
    is_low[np.setdiff1d(np.arange(count), part[a])] = False
    return int(is_low.sum())


def _keeping(
    ground: Ground, take: list[manifold3d.Manifold], least_mm: float, angle_deg: float
) -> tuple[list[manifold3d.Manifold], float]:
    """What is taken away but for what has less than so much above it.

    Returns
    -------
    take : list of Manifold
    flat_mm2 : float
        Undersides that stay flatter than the angle for it.
    """
    bodies = ground.tracked.solids
    # At all of it, and at parts of it: there may be air between.
    lower = [
        (body, body.translate((0, 0, -part * least_mm)))
        for body in bodies for part in _PARTS_ABOVE
    ]  # fmt: skip
    kept, flat_mm2, steep = [], 0.0, math.cos(math.radians(angle_deg))
    for one in take:
        left = [(one ^ body) - low for body, low in lower]
        left = [some for some in left if some.volume() > _FILM_PART * one.volume()]
        if not left:
            kept.append(one)
            continue
        mesh = mesh_of(manifold3d.Manifold.batch_boolean(left, manifold3d.OpType.Add))
        down = -facet_normals(mesh)[:, 2]
        flat_mm2 += float(facet_areas(mesh)[down > steep + 1e-6].sum())
        kept.append(less(one, left))
    kept = [one for one in kept if one.volume() > 0]
    if not sum((one ^ body).volume() for one in kept for body in bodies) > 0:
        raise EditError(
            f"It is nowhere {least_mm:g} mm thicker than a taper takes; a gusset or a fill holds "
            "it."
        )
    return kept, flat_mm2
