"""What is added below an underside: the least that makes it print by itself, or a post."""

import math
from dataclasses import replace

import manifold3d
import numpy as np

from ..errors import EditError
from ..mesh import facet_areas, facet_normals, first_hits
from ..parts import Part
from .behind import bends_behind, left_behind_mm2, ribs_to
from .changes import Dimension, Ground, Worked, registered_change
from .deep import NOT_DEEP, SHALLOW_MM, deep_enough, lacks, least_of, reaching_back
from .joining import FILM_MM, joined_two_by_two, joined_whole
from .perforated import breaking_off
from .rays import Ray, rays_of
from .strips import strips_between
from .touching import held_where_it_touches
from .underside import Underside, is_wide
from .undersides import ANGLE, underside_seen

__all__ = ["fill_of", "holes_kept"]

# Ways round a corner may be left out between two that differ by less than this (ours): so that a
# chord is shorter than its arc by 0.06 % at most.
_AS_LONG, _LEAST_COS = 1.04, math.cos(math.radians(4.01))
# At outer corners of a wall, where a fill ends in a point: so far it reaches back into the wall,
# and so far out all ways share one piece; nearer, every two of them would cross.
_CORNER_MM, _CORE_MM, _FEW_WAYS = 0.3, 0.1, 4
# Where one of two ways beside each other is shorter than so much of the other, they end at a ridge
# (ours).
_ALIKE = 0.5
# So much may be left out behind wide holes (ours).
_LEFT_MM2 = 0.5
# What is no thicker than this part of the size in the mean is none (ours).
_NOTHING_PART = 1e-5
# Whether a fill stays, or is a support that is broken off.
HOLDS = ("stays", "breaks off")
_BREAKS_OFF = ("hold", HOLDS[1])
# Where a fill ends: where what holds it is deep enough, or also in the air below that.
ENDS = ("in the wall", "in points for pillars")
# Of a part with so few facets what breaks off takes less than about a second (measured).
_FEW_FACETS = 300


def _foot_piece(one: Ray, other: Ray, lows, ends, slope: float, over: float, core: float):
    """(k, 3) float: the profile from the foot up to the place that asks for the most there.

    ``core`` is from where on it is made; zero where it reaches back into the wall by itself.
    """
    points, lines = [], []
    for ray, low, k in zip((one, other), lows, ends, strict=True):
        if ray.is_corner:  # round a corner the steeper of both
            low = min(lows)
        if core:
            top = float(np.interp(core, ray.at, ray.own))
            points += [ray.place(core, low + slope * core), ray.place(core, top + over)]
        else:
            back = max(_CORNER_MM if ray.is_corner else over, ray.back_mm)
            points += [
                ray.place(0.0, low), ray.place(0.0, ray.own[0] + over),
                ray.place(-back, low - slope * back), ray.place(-back, ray.own[0] + over),
            ]  # fmt: skip
        own = slice(int(np.searchsorted(ray.at, core)), k + 1)
        lines.append(ray.places(ray.at[own], ray.own[own]))
        own = slice(max(own.start, 1), k)
        lines.append(ray.places(ray.at[own], ray.own[own] + over))
    return np.concatenate([np.array(points), *lines])


def _cores(row: list[Ray], slope: float, over: float) -> list[manifold3d.Manifold]:
    """What all ways round one corner share, next to it, reaching back into the wall.

    A cone is convex, so it is the hull of what it is on every way; it is never flatter than those.
    """
    made = []
    for run in _runs(row):
        low = min(least_of(ray, slope)[0] for ray in run)
        middle = sum(ray.way for ray in run)
        back = Ray(run[0].foot, middle / max(float(np.linalg.norm(middle)), 1e-9), low, 0.0,
                   run[0].at, run[0].own, -1)  # fmt: skip
        top = float(run[0].own[0]) + over
        far = max(_CORNER_MM, *(ray.back_mm for ray in run))
        points = [
            back.place(0.0, low), back.place(0.0, top),
            back.place(-far, low - slope * far), back.place(-far, top),
        ]  # fmt: skip
        for ray in run:
            end = min(_CORE_MM, ray.reach)
            own = float(np.interp(end, ray.at, ray.own))
            points += [
                ray.place(end, min(least_of(ray, slope)[0] + slope * end, own)),
                ray.place(end, own + over),
            ]
        made.append(manifold3d.Manifold.hull_points(np.array(points)))
    return [solid for solid in made if solid.volume() > 0]


def _runs(row: list[Ray]) -> list[list[Ray]]:
    """Ways beside each other that lead anywhere."""
    runs: list[list[Ray]] = [[]]
    for ray in row:
        if ray.reach > 0:
            runs[-1].append(ray)
        elif runs[-1]:
            runs.append([])
    return [run for run in runs if len(run) > 1]


def _has_core(row: list[Ray]) -> bool:
    return len(row) > _FEW_WAYS and row[0].is_corner


def _thinned(row: list[Ray]) -> list[Ray]:
    """Ways round a corner without those that change next to nothing.

    Over a level underside, between two that are nearly as long and end on the same straight rim:
    what is filled between those is deeper by their difference at most.
    """
    kept = row[:1]
    for k, ray in enumerate(row[1:-1], 1):
        one, other = kept[-1], row[k + 1]
        reach = sorted(way.reach for way in (one, ray, other))
        ends = [way.foot + way.way * way.reach for way in (one, ray, other)]
        chord, beside = ends[2] - ends[0], ends[1] - ends[0]
        if not (
            reach[2] <= _AS_LONG * reach[0]
            and one.way @ other.way >= _LEAST_COS
            and max(float(np.ptp(way.own)) for way in (one, ray, other)) <= 1e-7 * reach[2]
            and abs(chord[0] * beside[1] - chord[1] * beside[0])
            <= 1e-6 * reach[2] * float(np.linalg.norm(chord))
        ):
            kept.append(ray)
    return kept + row[-1:]


def _further_pieces(one: Ray, other: Ray, first: int, slope: float, over: float) -> list[list]:
    """Profiles beyond that place: what is there asks for less, but for something."""
    reach = sorted((one.reach, other.reach))
    if reach[0] < _ALIKE * reach[1]:  # at a ridge: what lies beyond it is filled from there
        return []
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


def fill_of(
    ground: Ground, place, angle_deg: float, in_points: bool = False
) -> list[manifold3d.Manifold]:
    """The least that is added below an underside so that it prints by itself.

    One solid, but for a sketch. With ``in_points`` all that is beside it holds it, however deep:
    what ends below that is for pillars.

    Raises
    ------
    EditError
        If there is no such underside, or nothing beside it holds it.
    """
    slope = math.tan(math.radians(angle_deg))
    lowest = ground.lowest
    ground, under = underside_seen(ground, place, angle_deg, True)
    under, posts = held_where_it_touches(under, lowest, ground.over_mm)
    seen = under

    def ways(under: Underside):
        if in_points and len(under.held):
            return under, rays_of(under, is_sketch=ground.is_sketch)
        under, rays = deep_enough(ground, under, slope)
        return under, reaching_back(ground, rays, slope)

    under, rays = ways(seen)
    bends = [] if ground.is_sketch else bends_behind(under, rays)
    if not ground.is_sketch and any(map(is_wide, under.openings)):
        if left_behind_mm2(under, rays, bends) > _LEFT_MM2:
            # Behind holes a strip of one layer hangs then, and not all that is there.
            under, rays = ways(replace(seen, is_bridged=True))
            bends = bends_behind(under, rays)
    over = ground.over_mm

    def profile(one: Ray, other: Ray, core: float = 0.0):
        (a, i), (b, j) = least_of(one, slope), least_of(other, slope)
        pieces = []
        is_held = min(one.foot_z - a, other.foot_z - b) < -1e-9 and i == j == 0
        if not is_held and (not core or max(one.at[i], other.at[j]) > core):
            pieces = [_foot_piece(one, other, (a, b), (i, j), slope, over, core)]
        if min(i, j) < min(len(one.at), len(other.at)) - 1:
            pieces += _further_pieces(one, other, min(i, j), slope, over)
        return pieces

    def filled(row: list[Ray]) -> list[manifold3d.Manifold]:
        if not _has_core(row):
            return strips_between(row, profile)
        row = _thinned(row)
        strips = strips_between(row, lambda *pair: profile(*pair, _CORE_MM / 2))
        return strips + (_cores(row, slope, over) if strips else [])

    strips = [one for row in rays for one in filled(row)]
    if not strips:
        raise EditError("This underside is held well enough already.")
    if ground.is_sketch:
        return strips
    solid = joined_two_by_two(strips + posts)
    behind = _behind_corners(ground, under, bends, slope, filled)
    if behind:
        solid = joined_whole(solid, joined_two_by_two(behind)).simplify(FILM_MM)
    if solid.volume() < _NOTHING_PART * ground.size_mm * float(facet_areas(under.own).sum()):
        raise EditError(NOT_DEEP)  # some hair beside it holds a hair of it
    # Not below the plate, and holes through the underside stay open.
    solid = solid.trim_by_plane((0, 0, 1), lowest)
    return [holes_kept(solid, under)]


def _behind_corners(ground: Ground, under: Underside, bends, slope: float, filled):
    """What a fill needs behind notches and holes, and the ribs that hold that."""
    low = [min((least_of(ray, slope)[0] for ray in bend.rays if ray.reach), default=math.inf)
           for bend in bends]  # fmt: skip
    # From the farthest on: what hangs on a bend hangs on the one before it too.
    for bend, least in zip(reversed(bends), reversed(low), strict=True):
        if bend.before >= 0:
            before = bends[bend.before]
            long = float(np.linalg.norm(bend.at - before.at))
            low[bend.before] = min(low[bend.before], least - slope * long)
    holds = []
    for bend, least in zip(bends, low, strict=True):
        if bend.before >= 0 or not math.isfinite(least):
            holds.append(bend.before < 0 or holds[bend.before])
            continue
        long = float(np.linalg.norm(bend.at - bend.foot))
        way = (bend.at - bend.foot) / max(long, 1e-300)
        inside = bend.foot - 2 * ground.over_mm * way
        lack = lacks(ground, inside[None], np.array([max(least - slope * long, ground.lowest)]))
        holds.append(lack[0] <= SHALLOW_MM)
    if not all(holds):
        # The wall is not deep enough: it is left as it is, and the inspection tells.
        return []
    made = [joined_two_by_two(filled(bend.rays)) for bend in bends if bend.rays]
    made += ribs_to(under, bends, low, slope, ground.over_mm, _CORNER_MM)
    return [solid for solid in made if solid is not None]


def holes_kept(solid: manifold3d.Manifold, under: Underside) -> manifold3d.Manifold:
    """What is added under an underside, but not below holes that go through that."""
    if not under.openings or solid.is_empty():
        return solid
    box = solid.bounding_box()
    rings = manifold3d.CrossSection(under.openings, manifold3d.FillRule.NonZero)
    return solid - rings.extrude(box[5] - box[2] + 2.0).translate((0, 0, box[2] - 1.0))


def _breaks_off_of_many(part: Part, size: dict) -> bool:
    return size.get("hold") == HOLDS[1] and len(part.mesh.facets) > _FEW_FACETS


@registered_change(
    "fill",
    "Fill below",
    "Adds the least below it that makes it print by itself, down to its wall or the plate.",
    seems_long=_breaks_off_of_many,
    angle_deg=ANGLE,
    hold=Dimension("it", "", 0, 0, 0, HOLDS),
    ends=Dimension("it ends", "", 0, 0, 0, ENDS),
    gap_mm=Dimension("gap", "mm", 0.05, 2, 0.2, only_with=_BREAKS_OFF),
    every_mm=Dimension("a point every", "mm", 1, 50, 3.0, only_with=_BREAKS_OFF),
    point_mm=Dimension("points", "mm", 0.3, 5, 0.6, only_with=_BREAKS_OFF),
)
def fill(ground: Ground, places, size: dict) -> Worked:
    """The least solid profile under ledges, bridges and corners."""
    in_points = size["ends"] == ENDS[1]
    solids = [
        one for place in places for one in fill_of(ground, place, size["angle_deg"], in_points)
    ]
    add, said = [], []
    if in_points:
        said.append("Where it ends in the air the ledger lists islands; hold those on pillars.")
    if size["hold"] == HOLDS[0] or ground.is_sketch:
        return Worked(add=solids, said=tuple(said))
    for solid in solids:
        held, count = breaking_off(
            ground, solid, size["gap_mm"], size["every_mm"], size["point_mm"]
        )
        add.append(held)
        said.append(
            f"It hangs on {count} points; break it off when it is printed. 3MF files hold it as "
            "support."
        )
    return Worked(add=add, said=tuple(said), breaks_off=True)


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
