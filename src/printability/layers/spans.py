"""What hangs between two layers: bridges held on opposite sides, ledges held on one.

The part of a layer that does not lie on the layer below is taken apart into connected parts.
The worst point of a part is the one farthest from what holds it. If some straight line
through that point reaches what holds the part in both directions, the part is a bridge and
the shortest such line is its span; else it is a ledge and the distance is its reach. A line
over four times as long as that distance does not count: it runs along a ledge, as a tangent
does on the rim of a round hole.
"""

from dataclasses import dataclass, field

import numpy as np

from . import _span_kernels as _kernels
from .slicing import Layers, outlines, union_of_loops

__all__ = ["Hanging", "hanging_parts", "opening_below"]

# Points tried across a part's longer side before the best one is refined.
_GRID = 24
# Outlines that were cut and joined agree within this.
_SAME_PLACE_MM = 1e-5
# A worst point lies about midway of a bridge. A line many times longer than its distance from
# what holds it runs along a curved ledge rather than across a gap.
_ACROSS = 4.0
# An opening that widens by less than this from layer to layer has upright sides.
_WIDER_MM = 1e-4


@dataclass(frozen=True)
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
    center_mm : (3,) tuple
        Middle of the part's area, at the layer's underside.
    worst_mm : (2,) tuple
        The worst point.
    direction : (2,) tuple
        Along the span, or from the worst point to what holds it.
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
    loops: tuple[np.ndarray, ...] = field(default=(), repr=False, compare=False)


def hanging_parts(layers: Layers, k: int, least_mm: float) -> list[Hanging]:
    """Parts of layer ``k`` that hang and reach at least ``least_mm`` from what holds them.

    Parameters
    ----------
    layers : Layers
    k : int
        At least 1.
    least_mm : float
        Parts nearer to what holds them everywhere are left out.
    """
    own, below = outlines(layers, k), outlines(layers, k - 1)
    if not own or not below:
        return []
    hanging = union_of_loops(own) - union_of_loops(below)
    outline_below = _segments(below)
    z = (k + 0.5) * layers.layer_height_mm
    found = []
    for part in hanging.decompose():
        area = float(part.area())
        if area < 0.25 * least_mm**2:
            continue
        # A part is bounded by the layer below, which holds it, and by the layer's own edge.
        loops = part.to_polygons()
        edges = _segments(loops)
        is_held = _kernels.lie_on(edges, outline_below, _SAME_PLACE_MM)
        held, free = edges[is_held], edges[~is_held]
        if not len(held):
            continue  # an island: nothing holds it
        x, y, distance = _kernels.farthest_point(edges, held, _GRID, least_mm)
        if distance < least_mm:
            continue
        span, angle, x, y = _kernels.shortest_crossing(x, y, free, held)
        across = span <= _ACROSS * distance
        kind, length = ("bridge", span) if across else ("ledge", distance)
        cx, cy = _centroid(edges, area)
        found.append(
            Hanging(
                kind,
                k,
                z,
                float(length),
                area,
                (cx, cy, k * layers.layer_height_mm),
                (float(x), float(y)),
                (float(np.cos(angle)), float(np.sin(angle))),
                tuple(loops),
            )
        )
    return found


def opening_below(layers: Layers, part: Hanging) -> tuple[float, float]:
    """Width and rise of the opening that a bridge closes, looking along its span.

    From the bridge down, the opening is as wide as the free line through the worst point;
    where it stops widening, it springs. The rise is from there to the bridge.

    Returns
    -------
    width_mm, rise_mm : float
    """
    x, y = part.worst_mm
    dx, dy = part.direction
    widest, springs = 0.0, part.layer
    for j in range(part.layer - 1, -1, -1):
        gap = _kernels.gap_along(x, y, dx, dy, _segments(outlines(layers, j)))
        if not np.isfinite(gap) or gap <= 0:
            break
        if gap > widest + _WIDER_MM:
            widest, springs = gap, j
    rise = (part.layer - springs) * layers.layer_height_mm if widest else 0.0
    return float(widest), float(rise)


def _centroid(edges: np.ndarray, area_mm2: float) -> tuple[float, float]:
    """Middle of the area that edges bound, from sums of triangles about their first point."""
    origin = edges[0, :2]
    a, b = edges[:, :2] - origin, edges[:, 2:] - origin
    cross = a[:, 0] * b[:, 1] - a[:, 1] * b[:, 0]
    x, y = ((a + b) * cross[:, None]).sum(axis=0) / (6 * area_mm2) + origin
    return float(x), float(y)


def _segments(loops: list[np.ndarray]) -> np.ndarray:
    """(s, 4) float: x0, y0, x1, y1 of every edge of closed loops."""
    if not loops:
        return np.zeros((0, 4))
    return np.concatenate([np.hstack([loop, np.roll(loop, -1, axis=0)]) for loop in loops])
