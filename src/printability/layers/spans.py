"""What hangs between two layers: bridges held on opposite sides, ledges held on one.

The unsupported region of layer k is U = L_k - grow(L_{k-1}, h / tan t). What of it reaches the
length that is listed is told apart by growing the layer below by nine tenths of that: finer parts
than those of U, at least one in each that matters, and the same at every threshold. Each is looked
at by itself. Its worst point is the one farthest from what holds it: the outline of
the layer below where that bounds the part of L_k - L_{k-1} around it. If some straight line
through that point reaches what holds the part in both directions, the part is a bridge and the
shortest such line is its span; else it is a ledge and the distance is its reach. A line over
four times as long as that distance does not count: it runs along a ledge, as a tangent does on
the rim of a round hole. Of a region that is a bridge, corners that stick out on their own are
ledges beside it.
"""

import math
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, field
from functools import cached_property
from itertools import pairwise

import manifold3d
import numpy as np
from manifold3d import JoinType

from . import _reach_kernels, _straight_kernels
from . import _span_kernels as _kernels
from ._united import union_of_loops
from .slicing import ALONE_BELOW_POINTS, THREADS, Layers, outline

__all__ = ["Hanging", "edges_of_loops", "hanging_parts", "just_inside", "layers_that_reach"]

# Outlines that were cut and joined agree within this.
_SAME_PLACE_MM = 1e-4
_TRACE_MM = 2e-5
_SPIKE_MM = 1e-6
# How far the layer below is grown to tell parts that hang apart, in lengths that are listed.
_GROWN = 0.9
# Parts smaller than this are rounding, mm2.
_LEAST_MM2 = 1e-6
# A worst point lies about midway of a bridge. A line many times longer than its distance from
# what holds it runs along a curved ledge rather than across a gap.
_ACROSS = 4.0
# Corners of one region that are looked at by themselves.
_TIPS = 6
# Places across a region that are looked at for a bridge beside a ledge.
_ASIDE = 24
# Sides of the polygon that stands for a circle when a layer is grown.
_CIRCLE = 48


@dataclass(frozen=True, eq=False)
class Hanging:
    """A connected part of a layer with nothing below it.

    Attributes
    ----------
    kind : str
        ``bridge`` or ``ledge``. What meets nothing that holds it is an island, not listed here.
    layer : int
    z_mm : float
        Where the layer is cut.
    length_mm : float
        Span of a bridge, reach of a ledge.
    area_mm2 : float
        Of all that hangs together with it in this layer.
    center_mm : (3,) tuple
        Middle of that area, at the layer's underside.
    worst_mm : (2,) tuple
        The worst point.
    direction : (2,) tuple
        Along the span, or from the worst point to what holds it.
    rim_mm : float
        Length along which what hangs is held.
    part : int
        Number of the part of its layer; a bridge and ledges may share one.
    loops : tuple of (n, 2) float
        The part's outline.
    """

    kind: str
    layer: int
    z_mm: float
    length_mm: float
    area_mm2: float
    center_mm: tuple[float, float, float]
    worst_mm: tuple[float, float]
    direction: tuple[float, float]
    rim_mm: float = 0.0
    part: int = 0
    loops: tuple[np.ndarray, ...] = field(default=(), repr=False, compare=False)

    def near(self, points_mm: np.ndarray, reach_mm: np.ndarray) -> np.ndarray:
        """Which points are within the part, or no farther than that from its outline, (p,) bool.

        Parameters
        ----------
        points_mm : (p, 2) float
        reach_mm : (p,) float
        """
        if not self.loops:
            return np.zeros(len(points_mm), np.bool_)
        points, ends = self._outline
        return _kernels.near_loops(
            points, ends, np.ascontiguousarray(points_mm, np.float64),
            np.ascontiguousarray(reach_mm, np.float64),
        )  # fmt: skip

    @cached_property
    def box_mm(self) -> np.ndarray:
        """(4,) float: x0, y0, x1, y1 of its outline."""
        points, _ = self._outline
        return np.concatenate([points.min(axis=0), points.max(axis=0)])

    @cached_property
    def _outline(self) -> tuple[np.ndarray, np.ndarray]:
        """All points of the outline, and where each loop ends."""
        return np.concatenate(self.loops), np.cumsum([len(loop) for loop in self.loops])


def layers_that_reach(layers: Layers, under_mm2: np.ndarray, least_mm: float) -> np.ndarray:
    """Layers that may hold something at least so far from the layer below, (l,) int.

    Parameters
    ----------
    layers : Layers
    under_mm2 : (n,) float
        Area of the undersides between each cut and the one below.
    least_mm : float
    """

    def between(ends) -> np.ndarray:
        return _reach_kernels.layers_that_reach(
            layers.points, layers.loop_start, layers.layer_start, layers.region_of_loop,
            layers.loop_box_mm, *ends, under_mm2, least_mm,
        )  # fmt: skip

    if len(layers.points) < ALONE_BELOW_POINTS:  # threads would take longer to begin
        return np.flatnonzero(between((0, layers.count)))
    bounds = np.linspace(0, layers.count, 4 * THREADS + 1).astype(int)
    with ThreadPoolExecutor(THREADS) as pool:
        found = list(pool.map(between, pairwise(bounds)))
    return np.flatnonzero(np.concatenate(found)) if found else np.zeros(0, int)


def hanging_parts(
    layers: Layers,
    k: int,
    least_mm: float,
    limits_mm: tuple[float, float] = (math.inf, math.inf),
    within_mm: np.ndarray | None = None,
) -> list[Hanging]:
    """Parts of layer ``k`` that hang and reach at least ``least_mm`` from what holds them.

    Parameters
    ----------
    layers : Layers
    k : int
        At least 1.
    least_mm : float
        Parts nearer to what holds them everywhere are left out.
    limits_mm : (2,) tuple of float
        Limits of bridges and ledges: corners over the ledge limit are looked at by themselves.
    within_mm : (b, 4) float, optional
        x0, y0, x1, y1 of boxes: what comes into none of them is left out.
    """
    loops = [np.arange(*layers.layer_start[at : at + 2]) for at in (k - 1, k)]
    loops = [some[layers.region_of_loop[some] >= 0] for some in loops]
    loops = _straight_kernels.without_straight_on(
        layers.points, layers.loop_start, layers.region_of_loop, layers.loop_box_mm, *loops,
        least_mm,
    )  # fmt: skip
    if not all(map(len, loops)):
        return []
    below, own = ([outline(layers, loop) for loop in some] for some in loops)
    over, under = union_of_loops(own), union_of_loops(below)
    grown = under.offset(_GROWN * least_mm, JoinType.Round, circular_segments=_CIRCLE)
    unsupported = _parts_of(over - grown)
    if not unsupported:
        return []
    # Grown by a trace, so that outlines above each other leave nothing between them.
    hanging = _parts_of(over - under.offset(_TRACE_MM, JoinType.Miter))
    segs, region = _edges_of(hanging)
    segs, region = _kernels.split_at(segs, region, np.concatenate(below), _SAME_PLACE_MM)
    is_held = _kernels.lie_on(segs, edges_of_loops(below), _SAME_PLACE_MM)
    ends = np.searchsorted(region, np.arange(len(hanging) + 1))
    length = np.hypot(segs[:, 2] - segs[:, 0], segs[:, 3] - segs[:, 1])

    parts, part_of = _edges_of(unsupported)
    part_ends = np.searchsorted(part_of, np.arange(len(unsupported) + 1))
    home = _kernels.containing(segs, region, just_inside(parts, part_ends))
    found: list[Hanging] = []
    z = (k + 0.5) * layers.layer_height_mm
    for u, r in enumerate(home.tolist()):
        if r < 0 or part_ends[u] == part_ends[u + 1]:
            continue
        mine = slice(ends[r], ends[r + 1])
        held, free = segs[mine][is_held[mine]], segs[mine][~is_held[mine]]
        if not len(held):
            continue  # an island: nothing holds it
        edges = parts[part_ends[u] : part_ends[u + 1]]
        if within_mm is not None and not _comes_into(edges[:, :2], within_mm):
            continue
        x, y, distance = _kernels.farthest_point(edges, held, least_mm)
        if distance < least_mm:
            continue
        worst = _measured(np.array([[x, y, distance]]), free, held)
        if worst[0][0] == "ledge" and distance > limits_mm[0] / 2:
            # The worst is a ledge; what spans too far beside it is a bridge all the same.
            places = _kernels.places_inside(edges, held, 0.45 * limits_mm[0], _ASIDE)
            worst += [one for one in _measured(places, free, held) if one[0] == "bridge"]
        if distance > limits_mm[1] and len(free):
            tips = _kernels.free_tips(edges, held, limits_mm[1], _TIPS)
            worst += _measured(tips, free, held)
        area, (cx, cy) = _area_and_middle(hanging[r])
        kinds = set()
        for n, (kind, span, x, y, angle) in enumerate(
            [worst[0], *sorted(worst[1:], key=lambda w: -w[1])]
        ):
            if kind in kinds or (n and span <= limits_mm[kind == "ledge"]):
                continue
            kinds.add(kind)
            found.append(
                Hanging(
                    kind,
                    k,
                    z,
                    float(span),
                    area,
                    (cx, cy, k * layers.layer_height_mm),
                    (float(x), float(y)),
                    (float(np.cos(angle)), float(np.sin(angle))),
                    float(length[mine][is_held[mine]].sum()),
                    r,
                    tuple(hanging[r]),
                )
            )
    return found


def _comes_into(points: np.ndarray, boxes: np.ndarray) -> bool:
    """Whether the box around some points meets any of others."""
    low, high = points.min(axis=0), points.max(axis=0)
    return bool(((boxes[:, :2] <= high) & (boxes[:, 2:] >= low)).all(axis=1).any())


def _parts_of(section: manifold3d.CrossSection) -> list[list[np.ndarray]]:
    """Loops of each connected part, outlines counter-clockwise, without spikes or specks.

    Where outlines run along each other, what is cut leaves spikes without width.
    """
    parts = []
    for part in section.decompose():
        loops = [
            _kernels.without_spikes(np.asarray(loop, np.float64), _SPIKE_MM)
            for loop in part.to_polygons()
        ]
        loops = [loop for loop in loops if len(loop)]
        if loops and part.area() > _LEAST_MM2:
            parts.append(loops)
    return parts


def _edges_of(parts: list[list[np.ndarray]]) -> tuple[np.ndarray, np.ndarray]:
    """Edges (s, 4) of parts, part by part, and the number of the part of each."""
    count = [sum(map(len, loops)) for loops in parts]
    every = edges_of_loops([loop for loops in parts for loop in loops])
    return every, np.repeat(np.arange(len(parts)), count)


def _area_and_middle(loops: list[np.ndarray]) -> tuple[float, tuple[float, float]]:
    """Area and centroid of a part, from sums of triangles about its first point."""
    edges = edges_of_loops(loops)
    origin = edges[0, :2].copy()
    a, b = edges[:, :2] - origin, edges[:, 2:] - origin
    cross = a[:, 0] * b[:, 1] - a[:, 1] * b[:, 0]
    area = float(cross.sum() / 2)
    x, y = ((a + b) * cross[:, None]).sum(axis=0) / (6 * max(area, 1e-300)) + origin
    return area, (float(x), float(y))


def _measured(places: np.ndarray, free, held) -> list[tuple[str, float, float, float, float]]:
    """Kind, length, place and angle of what hangs at places (p, 3): x, y, how far it is held."""
    found = []
    crossings = _kernels.shortest_crossings(np.ascontiguousarray(places[:, :2]), free, held)
    for distance, (span, angle, x, y) in zip(places[:, 2], crossings.tolist(), strict=True):
        span, distance = span + 2 * _TRACE_MM, float(distance) + _TRACE_MM
        across = span <= _ACROSS * distance
        found.append(("bridge", span, x, y, angle) if across else ("ledge", distance, x, y, angle))
    return found


def just_inside(segs: np.ndarray, ends: np.ndarray) -> np.ndarray:
    """A point a hair inside each region, beside the middle of its longest edge, (r, 2).

    Outlines run counter-clockwise and holes clockwise, so that the inside is on the left.
    """
    along = segs[:, 2:] - segs[:, :2]
    length = np.hypot(along[:, 0], along[:, 1])
    places = np.zeros((len(ends) - 1, 2))
    for r, (lo, hi) in enumerate(pairwise(ends)):
        if lo == hi:
            continue
        e = lo + int(np.argmax(length[lo:hi]))
        left = np.array([-along[e, 1], along[e, 0]]) / max(length[e], 1e-300)
        hair = min(1e-6, 1e-3 * length[e])
        places[r] = (segs[e, :2] + segs[e, 2:]) / 2 + hair * left
    return places


def edges_of_loops(loops: list[np.ndarray]) -> np.ndarray:
    """(s, 4) float: x0, y0, x1, y1 of every edge of closed loops."""
    loops = [loop for loop in loops if len(loop)]
    if not loops:
        return np.zeros((0, 4))
    start = np.concatenate(loops)
    ends = np.cumsum([len(loop) for loop in loops])
    end = np.roll(start, -1, axis=0)
    end[ends - 1] = start[np.r_[0, ends[:-1]]]  # the last of a loop leads to its first
    return np.hstack([start, end])
