"""What holds an underside deep enough for what is added below it."""

from dataclasses import replace

import numpy as np

from ..errors import EditError
from ..mesh import facet_normals, first_hits
from . import _hollow_kernels
from .changes import Ground
from .rays import Ray, rays_of
from .underside import Underside

__all__ = [
    "NOT_DEEP",
    "RIBS_LEAN",
    "SHALLOW_MM",
    "deep_enough",
    "lacks",
    "least_of",
    "reaching_back",
]

# A hole in the wall no wider than this is passed by what stands beside it; a wall that ends no
# farther than that above what is needed of it is deep enough; so often edges are parted, the later
# times passed whole (ours).
_SMALL_MM, _BESIDE_MM, SHALLOW_MM, _STUB_MM, _MOST_PASSES, _LOOKED_AT = 4.0, 0.1, 0.02, 0.5, 20, 25

# A wall may lean back below an underside by this much of its depth: a fill reaches back to it, and
# ribs farther (ours).
_LEANS, RIBS_LEAN, _LEAN_LOOKS = 0.18, 0.25, 10

NOT_DEEP = (
    "Nothing beside it holds this underside deep enough, so a fill would end in the air; let it "
    "end in points that pillars hold, or stand the underside on pillars."
)


def least_of(ray: Ray, slope: float) -> tuple[float, int]:
    """The height at which a fill begins at a way's foot, and up to where on it that reaches."""
    line = ray.own - slope * ray.at
    k = int(line.argmin())
    return float(line[k]), k


def reaching_back(ground: Ground, rays: list[list[Ray]], slope: float) -> list[list[Ray]]:
    """The same ways, with how far behind their feet a wall lies that leans back below them."""
    every = [ray for row in rays for ray in row if ray.reach > 0]
    if not every:
        return rays
    low = np.array([max(least_of(ray, slope)[0], ground.lowest) for ray in every])
    foot, way = np.array([ray.foot for ray in every]), np.array([ray.way for ray in every])
    deep = np.array([ray.foot_z for ray in every]) - low
    behind = _behind_mm(ground, foot, way, low)
    back = {
        id(ray): float(far / (1 - slope * far / d)) + ground.over_mm
        for ray, far, d in zip(every, behind, deep, strict=True)
        if 0 < far <= _LEANS * d + ground.over_mm and slope * far < d / 2
    }
    if not back:
        return rays
    for row in rays:  # along the very end of a wall none is met: as beside it
        for end, beside in ((row[:1], row[1:2]), (row[-1:], row[-2:-1])):
            for ray, other in zip(end, beside, strict=False):
                back.setdefault(id(ray), back.get(id(other), 0.0))
    return [[replace(ray, back_mm=back.get(id(ray), 0.0)) for ray in row] for row in rays]


def _behind_mm(ground: Ground, foot: np.ndarray, way: np.ndarray, z: np.ndarray) -> np.ndarray:
    """(r,) float: how far behind places of the plane a wall begins at a height; infinite for none.

    Zero where it is there already.
    """
    index, normals = ground.mesh.index, facet_normals(ground.mesh)
    ways = np.column_stack([-way, np.zeros(len(way))])
    starts = np.column_stack([foot, z + SHALLOW_MM])

    def found(starts: np.ndarray) -> np.ndarray:
        return _hollow_kernels.distances_to_outside(
            index.vertices, index.facets, index.order, index.box, index.first_leaf, normals,
            starts, np.ascontiguousarray(ways),
        )  # fmt: skip

    # Twice: one may pass through the very edge between two facets, and see the wall's other side.
    return np.maximum(found(starts), found(starts + (0.0, 0.0, SHALLOW_MM / 3)))


def deep_enough(
    ground: Ground, under: Underside, slope: float, in_parts: bool = True, leans: float = _LEANS
):
    """An underside with what holds it deep enough for a fill, and the ways from that.

    A wall that is not there at the lowest that a fill would need of it holds nothing there: ways
    go on over it to what is behind. Unless ``in_parts``, edges hold as a whole or not at all, as
    most of their length does. A wall may lean back below it by ``leans`` of its depth.

    Raises
    ------
    EditError
        If nothing is left that holds it.
    """
    if not len(under.held):
        raise EditError(
            "Nothing beside it holds this underside, so a fill would end in the air; stand it on "
            "a pillar."
        )
    is_fine = ground.is_sketch
    for turn in range(_MOST_PASSES + 1):
        if not len(under.held):
            break
        rays = rays_of(under, is_sketch=ground.is_sketch, is_fine=is_fine)
        shallow = _shallow(ground, under, rays, slope, leans)
        if not in_parts:
            shallow = {k: parts for k, parts in shallow.items() if _length(parts) > 0.5}
        if not shallow and is_fine:
            return under, rays
        if not shallow:
            is_fine = True
            continue
        if not in_parts or turn > _MOST_PASSES // 2:
            shallow = {k: [(0.0, 1.0)] for k in shallow}
        under = under.passing(shallow)
    if not in_parts:
        raise EditError("Nothing beside it holds this underside deep enough for ribs.")
    raise EditError(NOT_DEEP)


def _shallow(ground: Ground, under: Underside, rays, slope: float, leans: float) -> dict:
    """Stretches of held edges where there is no wall at the height where a fill begins."""
    every = [ray for row in rays for ray in row if ray.reach > 0]
    if not every:
        return {}
    segments = under.held_segments
    along = segments[:, 2:] - segments[:, :2]
    length = np.maximum(np.linalg.norm(along, axis=1), 1e-300)
    along = along / length[:, None]
    edge = np.array([ray.edge for ray in every])
    needs = np.array([max(least_of(ray, slope)[0], ground.lowest) for ray in every])
    foot = np.array([ray.foot for ray in every])
    is_corner = np.array([ray.is_corner for ray in every])
    at = ((foot - segments[edge, :2]) * along[edge]).sum(axis=1) / length[edge]
    corner = np.where(at > 0.5, under.held[edge, 1], under.held[edge, 0])  # the nearer end
    starts, ends = set(under.held[:, 0].tolist()), set(under.held[:, 1].tolist())
    by = 2 * ground.over_mm
    inward = np.stack([along[:, 1], -along[:, 0]], axis=1)
    # A little into the wall, and from the ends of an edge into it.
    inside = np.clip(at, by / length[edge], 1 - by / length[edge])
    inside = np.where(length[edge] > 2 * by, inside, 0.5)
    places = segments[edge, :2] + along[edge] * (inside * length[edge])[:, None] - by * inward[edge]
    lack = np.minimum(lacks(ground, places, needs), 1e6)
    short = np.flatnonzero(lack > SHALLOW_MM)
    deep = np.array([every[k].foot_z for k in short]) - needs[short]
    missed, last = np.zeros(len(short), int), np.zeros(len(short))
    for part in np.linspace(0, 1, _LEAN_LOOKS + 1)[1:]:  # all the way down, without a jump
        z = needs[short] + (1 - part) * deep
        behind = _behind_mm(ground, places[short], inward[edge[short]], z)
        most = np.minimum(leans * part * deep, last + leans * deep / _LEAN_LOOKS) + by
        missed += behind > most
        last = np.where(behind <= most, behind, last)
    leaning = (missed <= 1) & (behind <= most) if len(short) else np.zeros(0, bool)
    lack[short[leaning]] = 0.0
    found: dict[int, list] = {}
    for k, (first, last) in enumerate(under.held.tolist()):
        goes_on = first in ends, last in starts
        own = np.flatnonzero((edge == k) & ~is_corner)
        own = own[np.argsort(at[own], kind="stable")]
        stretches = []
        for a, b in _above(at[own], lack[own]):
            is_small = (b - a) * length[k] <= _SMALL_MM and b - a <= 0.5
            if is_small and (a > 0 or goes_on[0]) and (b < 1 or goes_on[1]):
                # Over a small hole in the wall it is held beside that, if there it is deep enough.
                t = np.array([t for t in (a - _BESIDE_MM / length[k], b + _BESIDE_MM / length[k])
                              if 0 < t < 1])  # fmt: skip
                beside = segments[k, :2] + along[k] * (t * length[k])[:, None] - by * inward[k]
                low = needs[own][lack[own] > SHALLOW_MM].min()
                if len(t) and (lacks(ground, beside, np.full(len(t), low)) <= SHALLOW_MM).all():
                    continue
            stretches.append((a, b))
        for end in (0, 1):
            fan = is_corner & (corner == int(under.held[k, end]))
            if not fan.any() or lack[fan].max() <= SHALLOW_MM:
                continue
            # Farther back on it, to where it is as deep as ways need it that are longer by that.
            t = np.linspace(1 - end, end, _LOOKED_AT)[:-1]
            back = segments[k, :2] + along[k] * (t * length[k])[:, None] - by * inward[k]
            low = needs[fan].min() - slope * np.abs(end - t) * length[k]
            deep = lacks(ground, back, np.maximum(low, ground.lowest)) <= SHALLOW_MM
            to = t[np.flatnonzero(deep)[-1]] if deep.any() else 1 - end
            stretches.append((min(to, end), max(to, end)))
        if stretches:
            found[k] = _joined(stretches, _STUB_MM / length[k])
    return found


def _length(stretches: list[tuple[float, float]]) -> float:
    return sum(b - a for a, b in stretches)


def _above(at: np.ndarray, lack: np.ndarray) -> list[tuple[float, float]]:
    """Stretches, 0 to 1, along which the wall lacks depth, between places looked at."""
    short = lack > SHALLOW_MM
    if not short.any():
        return []
    found, begun = [], 0.0 if short[0] else None
    for i in range(1, len(at)):
        if short[i] == short[i - 1]:
            continue
        part = (lack[i - 1] - SHALLOW_MM) / (lack[i - 1] - lack[i])
        to = float(at[i - 1] + min(max(part, 0.02), 0.98) * (at[i] - at[i - 1]))
        if short[i]:
            begun = to
        else:
            found.append((begun, to))
            begun = None
    if begun is not None:
        found.append((begun, 1.0))
    return found


def _joined(stretches: list[tuple[float, float]], stub: float) -> list[tuple[float, float]]:
    """The same in order, without overlaps or shorter stubs between them or at an end."""
    out = [(0.0, 0.0)]
    for a, b in [*sorted(stretches), (1.0, 1.0)]:
        if a <= out[-1][1] + stub:
            out[-1] = (out[-1][0], max(out[-1][1], b))
        else:
            out.append((a, b))
    return [(a, b) for a, b in out if b > a]


def lacks(ground: Ground, places: np.ndarray, needs: np.ndarray) -> np.ndarray:
    """(r,) float: how far above a height at places of the plane there is material; negative
    where there is some at that height.

    What stands on it holds itself from there on: what else is in the wall does not count.
    """
    mesh = ground.mesh
    out = np.full(len(needs), np.inf)
    if not len(needs):
        return out
    normals = facet_normals(mesh)
    start = np.column_stack([places, needs + SHALLOW_MM])
    is_inside = np.zeros(len(needs), bool)
    for up, chosen in ((1.0, np.arange(len(needs))), (-1.0, None)):
        chosen = np.flatnonzero(is_inside) if chosen is None else chosen
        if not len(chosen):
            continue
        hit = first_hits(mesh.index, start[chosen], (0.0, 0.0, up), 0.0)
        found, chosen = hit[hit >= 0], chosen[hit >= 0]
        n, c = normals[found], mesh.vertices[mesh.facets[found, 0]]
        off = (n[:, :2] * (start[chosen, :2] - c[:, :2])).sum(axis=1)
        is_level = np.abs(n[:, 2]) > 1e-9
        z = np.where(is_level, c[:, 2] - off / np.where(is_level, n[:, 2], 1.0), start[chosen, 2])
        out[chosen] = z - needs[chosen]
        if up > 0:
            is_inside[chosen] = n[:, 2] > 0
    return out
