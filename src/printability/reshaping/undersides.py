"""Changes of an underside that is too flat: cut steeper, filled below, or held up by ribs."""

import math

import manifold3d
import numpy as np

from ..errors import EditError
from ..mesh import facet_normals, first_hits
from . import _kernels
from .changes import Dimension, Ground, Worked, registered_change
from .field import Ways, column_solid, least_beyond, refined
from .underside import Underside, underside_at

__all__ = ["fill_of", "steepened"]

# How far solids reach into what they join or take from, mm (ours): far above rounding, far below
# what is printed.
_OVER_MM = 0.004
# Edges that turn by less than some 20 degrees are one run; runs that face alike are braced.
_STRAIGHT, _ALIKE = 0.94, 0.8
_RIB_STEPS = 25
_ANGLE = Dimension("angle from the plate", "°", 10, 85, 45)


def _underside(ground: Ground, place, angle_deg: float, with_steep: bool) -> Underside:
    facet = ground.facet_of(place)
    if facet < 0:
        raise EditError("The place it was made at is not there any more.")
    found = underside_at(ground.mesh, facet, angle_deg, with_steep)
    if found is None:
        raise EditError(f"That is no underside flatter than {angle_deg:g}°.")
    return found


def _rim_pushed(under: Underside, points: np.ndarray, edges: np.ndarray, by_mm: float):
    """Places on some edges of the rim moved outwards, and which they are."""
    if not len(edges):
        return points, np.zeros(len(points), bool)
    segments = under.segments(edges)
    along = segments[:, 2:] - segments[:, :2]
    length = np.maximum(np.linalg.norm(along, axis=1, keepdims=True), 1e-300)
    outward = np.stack([-along[:, 1], along[:, 0]], axis=1) / length
    far, which, _ = _kernels.distances(np.ascontiguousarray(points), segments)
    near = far <= 1e-7 * max(float(np.ptp(points, axis=0).max()), 1e-9)
    out = points.copy()
    out[near] += by_mm * outward[which[near]]
    return out, near


def steepened(ground: Ground, place, angle_deg: float, shape: str) -> manifold3d.Manifold:
    """What is taken away so that an underside rises from what holds it.

    Raises
    ------
    EditError
        If there is no such underside, or nothing holds it.
    """
    under = _underside(ground, place, angle_deg, False)
    if not len(under.held):
        raise EditError(
            "Nothing beside it holds this underside, so there is no hinge to rise from; fill it "
            "or stand it on a pillar."
        )
    slope = math.tan(math.radians(angle_deg))

    def heights(points, own):
        ways = Ways(under, points)
        if shape == "round":
            half = ways.far + _reach(under, ways)
            rise = np.sqrt(np.maximum(half**2 - (half - ways.far) ** 2, 0.0))
        else:
            rise = slope * ways.far
        return np.maximum(ways.foot_z + rise, own)

    points, own, high, facets = refined(under, heights)
    points, _ = _rim_pushed(under, points, under.free, _OVER_MM)
    # A little deeper than the underside, which is air, so that none of it stays.
    low = np.where(high > own + 1e-9, own - _OVER_MM, own)
    solid = column_solid(points, low, np.maximum(high, low), facets)
    if solid is None:
        raise EditError("This underside rises steeply enough already.")
    return solid


def _reach(under: Underside, ways: Ways) -> np.ndarray:
    near = 1e-7 * max(float(np.ptp(ways.points, axis=0).max()), 1e-9)
    return _kernels.reaches(
        ways.points, np.ascontiguousarray(ways.ways), ways.far, under.held_segments,
        under.nodes, under.nodes_far, under.all_segments, near,
    )  # fmt: skip


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


def fill_of(ground: Ground, place, angle_deg: float) -> tuple[manifold3d.Manifold, Underside]:
    """The least that is added below an underside so that it prints by itself.

    Raises
    ------
    EditError
        If there is no such underside, or nothing beside it holds it.
    """
    under = _underside(ground, place, angle_deg, True)
    if not len(under.held):
        raise EditError(
            "Nothing beside it holds this underside, so a fill would end in the air; stand it on "
            "a pillar."
        )
    slope = math.tan(math.radians(angle_deg))

    def heights(points, own):
        return np.minimum(least_beyond(under, points, slope), own)

    points, own, low, facets = refined(under, heights)
    points, pushed = _rim_pushed(under, points, under.held, _OVER_MM)
    # Where it goes into what holds it, it goes on at the angle.
    low = np.where(pushed & (low < own - 1e-9), low - slope * _OVER_MM, low)
    high = np.where(low < own - 1e-9, own + _OVER_MM, own)
    solid = column_solid(points, np.minimum(low, high), high, facets)
    if solid is None:
        raise EditError("This underside is held well enough already.")
    # Not below the plate.
    return solid.trim_by_plane((0, 0, 1), ground.lowest), under


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
        under = _underside(ground, place, size["angle_deg"], False)
        runs = _hinge_runs(under)
        if not runs:
            raise EditError("Nothing beside it holds this underside, so a rib has no wall.")
        whole = sum(length for _, _, length in runs)
        count = 0
        for start, along, length in runs:
            own = size["count"] and max(round(size["count"] * length / whole), 1)
            thick = min(size["thick_mm"], length)
            own = int(own) or max(math.ceil((length - thick) / (size["bridge_mm"] + thick)) + 1, 1)
            # The outer ones at the ends, so that no corner hangs free.
            where = np.linspace(thick / 2, length - thick / 2, own) if own > 1 else [length / 2]
            for s in where:
                rib = _rib(ground, under, start + along * s, along, thick, size["angle_deg"])
                if rib is not None:
                    add.append(rib)
                    count += 1
        if not count:
            raise EditError("No rib finds a wall below this underside.")
        said.append(f"{count} rib{'s' if count > 1 else ''} along {whole:.1f} mm.")
    ribs = manifold3d.Manifold.batch_boolean(add, manifold3d.OpType.Add)
    return Worked(add=ribs.decompose(), said=tuple(said))


def _hinge_runs(under: Underside) -> list[tuple[np.ndarray, np.ndarray, float]]:
    """Straight runs of what holds an underside that face as the longest does.

    Each its start (2,), direction (2,) with the underside on its right, and length.
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
    longest = max(runs, key=lambda run: run[2])
    return [
        run for run in runs
        if float(run[1] @ longest[1]) > _ALIKE and run[2] >= 0.1 * longest[2]
    ]  # fmt: skip


def _rib(ground: Ground, under: Underside, foot, along, thick: float, angle_deg: float):
    """An upright plate square to a run of the hinge; None where there is no wall for its foot."""
    out = np.array([along[1], -along[0]])
    slope = math.tan(math.radians(angle_deg))
    near = 1e-6 * ground.size_mm
    reach = _kernels.way_out(
        float(foot[0] + out[0] * near), float(foot[1] + out[1] * near), float(out[0]),
        float(out[1]), under.segments(under.free if len(under.free) else under.held), near,
    )  # fmt: skip
    if not np.isfinite(reach) or reach <= near:
        return None
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
    if back > reach:
        return None
    back += _OVER_MM
    profile = [(-back, bottom - slope * back)]
    profile += [(float(reach), tip)]
    profile += [(float(x), float(z) + _OVER_MM) for x, z in zip(top[::-1], over[::-1], strict=True)]
    profile += [(-back, float(over[0]) + _OVER_MM)]
    plate = manifold3d.CrossSection([np.array(profile)]).extrude(thick)
    # Its x runs out from the wall, its y up, and its thickness along the wall.
    axes = np.array([[out[0], 0, along[0]], [out[1], 0, along[1]], [0, 1.0, 0]])
    if np.linalg.det(axes) < 0:
        axes[:, 2] *= -1
    shift = np.array([foot[0], foot[1], 0.0]) - axes[:, 2] * thick / 2
    plate = plate.transform(np.column_stack([axes, shift]))
    return plate.trim_by_plane((0, 0, 1), ground.lowest)


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
        more = [wide / 2 * math.sqrt(2) * math.sqrt(max(1 / max(n, 0.2) ** 2 - 1, 0)) + _OVER_MM
                for n in steep]  # fmt: skip
        low = max(bottom - more[1], ground.lowest)
        bar = manifold3d.Manifold.cube((wide, wide, float(at[2]) + more[0] - low))
        add.append(bar.translate((float(at[0]) - wide / 2, float(at[1]) - wide / 2, low)))
    return Worked(add=add)
