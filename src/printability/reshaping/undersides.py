"""Changes of an underside that is too flat: cut steeper, filled below, or held up by ribs."""

import math

import manifold3d
import numpy as np

from ..errors import EditError
from ..mesh import Mesh, facet_normals, first_hits
from ..mesh.nearest import nearest_facing
from . import _kernels
from .changes import Dimension, Ground, Worked, registered_change
from .rays import RIDGE, Ray, rays_of, solid_between
from .underside import Underside, flat_undersides, underside_at

__all__ = ["fill_of", "steepened"]

# An underside that more edges than this hold is looked at on a copy, off by so much at most (ours).
_MOST_EDGES, _OFF_MM = 1_500, (0.02, 0.1)
# At outer corners of a wall, where a fill ends in a point.
_CORNER_MM = 0.3
# Edges that turn by less than some 20 degrees are one run (ours).
_STRAIGHT = 0.94
_RIB_STEPS, _ARCH_STEPS = 25, 24
_ANGLE = Dimension("angle from the plate", "°", 10, 85, 45)


def _underside(ground: Ground, place, angle_deg: float, with_steep: bool):
    """The underside at a place, and the ground that it is looked at on.

    One with very many edges is looked at on a copy that is off by a tenth of a mm at most.
    """
    for off_mm in (0.0, *_OFF_MM):
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


def steepened(ground: Ground, place, angle_deg: float, shape: str) -> manifold3d.Manifold:
    """What is taken away so that an underside rises from what holds it.

    Raises
    ------
    EditError
        If there is no such underside, or nothing holds it.
    """
    ground, under = _underside(ground, place, angle_deg, False)
    over = ground.over_mm
    if not len(under.held):
        raise EditError(
            "Nothing beside it holds this underside, so there is no hinge to rise from; fill it "
            "or stand it on a pillar."
        )
    slope = math.tan(math.radians(angle_deg))

    def profile(one: Ray, other: Ray):
        points = []
        for ray in (one, other):
            at = np.append(ray.at, ray.reach + over)
            own = np.append(ray.own, ray.own[-1])
            if shape == "round":
                turn = np.linspace(0, np.pi / 2, _ARCH_STEPS)
                at = np.unique(np.concatenate([ray.reach * (1 - np.cos(turn)), at]))
                own = np.interp(at, ray.at, ray.own)
                rise = np.sqrt(np.maximum(ray.reach**2 - (ray.reach - at) ** 2, 0.0))
            else:
                rise = slope * at
            line = ray.foot_z + rise
            for x, z, top in zip(at, own, line, strict=True):
                if top > z + 1e-9:
                    points += [ray.place(x, top), ray.place(x, z - over)]
            points.append(ray.place(0.0, ray.foot_z))
        return [points] if len(points) > 3 else None

    solid = solid_between(rays_of(under, over), profile)
    if solid is None:
        raise EditError("This underside rises steeply enough already.")
    return solid


@registered_change(
    "steepen", "Taper an underside",
    "Takes material away so that it rises from its hinge at the angle, or in a round arch.",
    angle_deg=_ANGLE,
    shape=Dimension("shape", "", 0, 0, 0, ("straight", "round")),
)  # fmt: skip
def taper(ground: Ground, places, size: dict) -> Worked:
    """Rise from the hinge: tapered ledges, pointed openings, arches."""
    take = [steepened(ground, place, size["angle_deg"], size["shape"]) for place in places]
    return Worked(take=take)


def _least(ray: Ray, slope: float) -> tuple[float, int]:
    """The height at which a fill begins at a way's foot, and up to where on it that reaches."""
    line = ray.own - slope * ray.at
    k = int(np.argmin(line))
    return float(line[k]), k


def _foot_piece(one: Ray, other: Ray, lows, ends, slope: float, over: float) -> list:
    """The profile from the foot up to the place that asks for the most there."""
    points = []
    for ray, low, k in zip((one, other), lows, ends, strict=True):
        if ray.is_corner:  # round a corner the steeper of both
            low = min(lows)
        back = _CORNER_MM if ray.is_corner else over
        points += [
            ray.place(0.0, low), ray.place(0.0, ray.own[0] + over),
            ray.place(-back, low - slope * back), ray.place(-back, ray.own[0] + over),
        ]  # fmt: skip
        points += [ray.place(x, z) for x, z in zip(ray.at[: k + 1], ray.own[: k + 1], strict=True)]
        points += [ray.place(x, z + over) for x, z in zip(ray.at[1:k], ray.own[1:k], strict=True)]
    return points


def _further_pieces(one: Ray, other: Ray, first: int, slope: float, over: float) -> list[list]:
    """Profiles beyond that place: what is there asks for less, but for something."""
    count = min(len(one.at), len(other.at))
    lows = []
    for ray in (one, other):
        line = ray.own[:count] - slope * ray.at[:count]
        lows.append(np.minimum.accumulate(line[::-1])[::-1] + slope * ray.at[:count])
    pieces = []
    for k in range(first, count - 1):
        deep = max(float(ray.own[k] - low[k]) for ray, low in zip((one, other), lows, strict=True))
        if deep <= 1e-6:
            continue
        points = []
        for ray, low in zip((one, other), lows, strict=True):
            for i in (k, k + 1):
                points += [ray.place(ray.at[i], low[i]),
                           ray.place(ray.at[i], ray.own[i] + over)]  # fmt: skip
        pieces.append(points)
    return pieces


def _deep_enough(ground: Ground, under: Underside, slope: float):
    """An underside with what holds it deep enough for a fill, and the ways from that.

    A wall that ends above the lowest that a fill would need of it holds nothing there: ways go on
    over it to what is behind.

    Raises
    ------
    EditError
        If nothing is left that holds it.
    """
    while len(under.held):
        rays = rays_of(under)
        flat = [ray for row in rays for ray in row if not ray.is_corner and ray.reach > 0]
        ends = _walls_end(ground, flat)
        short, count = np.zeros(len(under.held)), np.zeros(len(under.held))
        for ray, end in zip(flat, ends, strict=True):
            count[ray.edge] += 1
            short[ray.edge] += max(_least(ray, slope)[0], ground.lowest) < end - 1e-3
        # Over a small hole in the wall it is held beside that.
        weak = short > 0.5 * count
        if not weak.any():
            return under, rays
        under = under.passing(weak)
    raise EditError(
        "Nothing beside it holds this underside deep enough, so a fill would end in the air; "
        "stand it on a pillar."
    )


def _walls_end(ground: Ground, rays: list[Ray]) -> np.ndarray:
    """(r,) float: down to which height there is wall where each way begins."""
    mesh = ground.mesh
    normals = facet_normals(mesh)
    start = np.array([ray.place(-2 * ground.over_mm, ray.foot_z - 1e-3) for ray in rays])
    out = np.full(len(rays), ground.lowest)
    if not len(rays):
        return out
    hit = first_hits(mesh.index, start, (0.0, 0.0, -1.0), 0.0)
    for i in np.flatnonzero(hit >= 0):
        n = normals[hit[i]]
        if n[2] >= 0:  # it is air already: no wall at all
            out[i] = start[i, 2]
            continue
        c = mesh.vertices[mesh.facets[hit[i], 0]]
        out[i] = c[2] - (n[0] * (start[i, 0] - c[0]) + n[1] * (start[i, 1] - c[1])) / n[2]
    return out


def fill_of(ground: Ground, place, angle_deg: float) -> tuple[manifold3d.Manifold, Underside]:
    """The least that is added below an underside so that it prints by itself.

    Raises
    ------
    EditError
        If there is no such underside, or nothing beside it holds it.
    """
    slope = math.tan(math.radians(angle_deg))
    lowest = ground.lowest
    ground, under = _underside(ground, place, angle_deg, True)
    under, rays = _deep_enough(ground, under, slope)
    over = ground.over_mm

    def profile(one: Ray, other: Ray):
        (a, i), (b, j) = _least(one, slope), _least(other, slope)
        if min(one.foot_z - a, other.foot_z - b) < -1e-9 and i == j == 0:
            return None
        pieces = [_foot_piece(one, other, (a, b), (i, j), slope, over)]
        if max(i, j) < min(len(one.at), len(other.at)) - 1:
            pieces += _further_pieces(one, other, max(i, j), slope, over)
        return pieces

    solid = solid_between(rays, profile)
    if solid is None:
        raise EditError("This underside is held well enough already.")
    # Not below the plate, and holes through the underside stay open.
    solid = solid.trim_by_plane((0, 0, 1), lowest)
    return _holes_kept(solid, under), under


def _holes_kept(solid: manifold3d.Manifold, under: Underside) -> manifold3d.Manifold:
    """What is added under an underside, but not below holes that go through that."""
    if not under.openings or solid.is_empty():
        return solid
    box = solid.bounding_box()
    rings = manifold3d.CrossSection(under.openings, manifold3d.FillRule.NonZero)
    return solid - rings.extrude(box[5] - box[2] + 2.0).translate((0, 0, box[2] - 1.0))


@registered_change(
    "fill",
    "Fill below",
    "Adds the least below it that makes it print by itself, down to where it ends in the wall.",
    angle_deg=_ANGLE,
)
def fill(ground: Ground, places, size: dict) -> Worked:
    """The least solid profile under ledges, bridges and corners."""
    return Worked(add=[fill_of(ground, place, size["angle_deg"])[0] for place in places])


@registered_change(
    "gusset", "Gusset",
    "Stands ribs at the angle under a ledge; what is between them is bridged.",
    angle_deg=_ANGLE,
    count=Dimension("ribs (0: as bridges need)", "", 0, 60, 0),
    thick_mm=Dimension("thickness", "mm", 0.4, 200, 1.6),
    bridge_mm=Dimension("bridges up to", "mm", 1, 200, 10),
)  # fmt: skip
def gusset(ground: Ground, places, size: dict) -> Worked:
    """Upright plates from the wall to the outer rim, their lower edge at the angle."""
    add, said = [], []
    for place in places:
        slope = math.tan(math.radians(size["angle_deg"]))
        seen, under = _underside(ground, place, size["angle_deg"], False)
        under, _ = _deep_enough(seen, under, slope)
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
    return _holes_kept(plate.trim_by_plane((0, 0, 1), ground.lowest), under)


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


@registered_change(
    "post", "Post below",
    "Stands a post of the model's own under an underside, down to what is below it.",
    wide_mm=Dimension("width", "mm", 0.4, 100, 3.0),
)  # fmt: skip
def post(ground: Ground, places, size: dict) -> Worked:
    """A square post from a place straight down, for windows and lintels."""
    add, mesh = [], ground.mesh
    normals = facet_normals(mesh)
    wide = size["wide_mm"]
    for place in places:
        facet = ground.facet_of(place)
        at = ground.at(place)
        if at is None:
            raise EditError("The place it was made at is not there any more.")
        if normals[facet, 2] > -0.05:
            raise EditError("A post stands under an underside.")
        below = at - (0, 0, 1e-4)
        hit = first_hits(mesh.index, below[None], (0.0, 0.0, -1.0), 0.0)[0]
        bottom = ground.lowest
        if hit >= 0:
            a, n = mesh.vertices[mesh.facets[hit, 0]], normals[hit]
            if abs(n[2]) > 1e-6:
                bottom = float(a[2] - (n[:2] @ (at[:2] - a[:2])) / n[2])
        # Into what is above and below, as far as they slope under its width.
        steep = [abs(normals[facet, 2])] + ([abs(normals[hit, 2])] if hit >= 0 else [1.0])
        more = [wide / math.sqrt(2) * math.sqrt(max(1 / max(n, 0.2) ** 2 - 1, 0)) + ground.over_mm
                for n in steep]  # fmt: skip
        low = max(bottom - more[1], ground.lowest)
        bar = manifold3d.Manifold.cube((wide, wide, float(at[2]) + more[0] - low))
        add.append(bar.translate((float(at[0]) - wide / 2, float(at[1]) - wide / 2, low)))
    return Worked(add=add)
