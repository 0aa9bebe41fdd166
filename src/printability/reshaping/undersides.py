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
        under.all_segments, near,
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
    "Adds ribs at the angle below a ledge; what is between them is bridged.",
    angle_deg=_ANGLE,
    count=Dimension("ribs (0: as bridges need)", "", 0, 60, 0),
    bridge_mm=Dimension("bridges up to", "mm", 1, 200, 10),
    thick_mm=Dimension("thickness", "mm", 0.4, 50, 1.6),
)  # fmt: skip
def gusset(ground: Ground, places, size: dict) -> Worked:
    """Ribs cut out of the fill, evenly along what holds it; as many as bridges need for 0."""
    add, said = [], []
    for place in places:
        solid, under = fill_of(ground, place, size["angle_deg"])
        at, ways, length = _along_hinge(under)
        count = int(size["count"]) or max(math.ceil(length / size["bridge_mm"]), 1)
        bars = []
        box = solid.bounding_box()
        reach = math.hypot(box[3] - box[0], box[4] - box[1]) + 1.0
        # The outer ones at the ends, so that no corner hangs free.
        thick = size["thick_mm"]
        inset = min(thick / 2, length / 2)
        where = np.linspace(inset, length - inset, count) if count > 1 else np.array([length / 2])
        for s in where:
            p, way = at(s), ways(s)
            turn = math.degrees(math.atan2(way[1], way[0]))
            bar = manifold3d.Manifold.cube((reach + 2.0, thick, box[5] - box[2] + 2.0))
            bar = bar.translate((-2.0, -thick / 2, box[2] - 1.0)).rotate((0, 0, turn))
            bars.append(bar.translate((float(p[0]), float(p[1]), 0.0)))
        ribs = solid ^ manifold3d.Manifold.batch_boolean(bars, manifold3d.OpType.Add)
        add.append(ribs)
        said.append(f"{count} rib{'s' if count > 1 else ''} along {length:.1f} mm.")
    return Worked(add=add, said=tuple(said))


def _along_hinge(under: Underside):
    """Places and ways along the longest run of what holds an underside, by length."""
    chains = _chains(under.held.tolist())
    points = under.mesh.vertices[:, :2]

    def length_of(chain):
        return float(np.linalg.norm(np.diff(points[chain], axis=0), axis=1).sum())

    chain = max(chains, key=length_of)
    line = points[chain]
    steps = np.linalg.norm(np.diff(line, axis=0), axis=1)
    ends = np.concatenate([[0.0], np.cumsum(steps)])

    def at(s: float) -> np.ndarray:
        return np.array([np.interp(s, ends, line[:, k]) for k in range(2)])

    def way(s: float) -> np.ndarray:
        k = int(np.clip(np.searchsorted(ends, s) - 1, 0, len(steps) - 1))
        along = (line[k + 1] - line[k]) / max(steps[k], 1e-300)
        return np.array([along[1], -along[0]])

    return at, way, float(ends[-1])


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
