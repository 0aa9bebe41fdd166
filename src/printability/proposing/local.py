"""Two layers by themselves, with the ends of supports under the upper one."""

from dataclasses import replace

import manifold3d
import numpy as np

from ..layers import Hanging, Layers, hanging_parts
from ..process import Process
from . import _local_kernels

__all__ = ["hanging_around", "hanging_between", "with_discs"]

_SIDES = 24
# The frame around a window that stands for all that is beyond it, mm.
_FRAME_MM = 5.0
# Around parts that are asked about, all that comes so near to their boxes is looked at.
_AROUND_MM = np.array([-0.1, -0.1, 0.1, 0.1])


def hanging_around(
    below: list, own: list, discs: list, layer: int, process: Process, window: tuple,
    parts: list[Hanging] | None = None,
) -> list[Hanging]:  # fmt: skip
    """The same within a window (x0, y0, x1, y1), as if all beyond it were held.

    So what hangs in the middle of it does so truly, where the window is wider around it than
    anything may span.
    """
    low, high = np.array(window[:2], float), np.array(window[2:], float)
    own = _clean(_within(own, low, high))
    if not own:
        return []
    frame = [_square(low - _FRAME_MM, high + _FRAME_MM), _square(low, high)[::-1]]
    below = [*_within(below, low, high), *frame]
    discs = np.array(discs, float).reshape(-1, 3)
    from_middle = np.abs(discs[:, :2] - (low + high) / 2)
    near = discs[(from_middle < (high - low) / 2 + discs[:, 2:]).all(axis=1)]
    # With discs it is made clean anyway.
    return hanging_between(
        below if len(near) else _clean(below), own, near.tolist(), layer, process, parts
    )


def _square(low: np.ndarray, high: np.ndarray) -> np.ndarray:
    return np.array([low, (high[0], low[1]), high, (low[0], high[1])])


def _within(loops: list[np.ndarray], low: np.ndarray, high: np.ndarray) -> list[np.ndarray]:
    if not loops:
        return []
    ends = np.cumsum([len(loop) for loop in loops])
    points, ends = _local_kernels.clipped(
        np.ascontiguousarray(np.concatenate(loops), np.float64), ends, low, high
    )
    return np.split(points, ends[:-1])


def _clean(loops: list[np.ndarray]) -> list[np.ndarray]:
    """Without what runs there and back."""
    if not loops:
        return []
    solid = manifold3d.CrossSection(loops, manifold3d.FillRule.NonZero)
    return [np.asarray(loop, float) for loop in solid.to_polygons()]


def with_discs(below: list[np.ndarray], discs: list[tuple[float, float, float]]) -> list:
    """Outlines of a layer together with discs (x, y, radius)."""
    if not discs:
        return below
    solid = manifold3d.CrossSection(list(below), manifold3d.FillRule.NonZero)
    rounds = [manifold3d.CrossSection.circle(r, _SIDES).translate((x, y)) for x, y, r in discs]
    solid = manifold3d.CrossSection.batch_boolean([solid, *rounds], manifold3d.OpType.Add)
    return [np.asarray(loop, float) for loop in solid.to_polygons()]


def _layers_of_two(layer_height_mm: float, below: list, own: list) -> Layers:
    """Outlines of two layers as layers."""
    loops = [*below, *own]
    start = np.concatenate([[0], np.cumsum([len(loop) for loop in loops])]).astype(int)
    points = np.concatenate(loops) if loops else np.zeros((0, 2))
    ends = np.array([0, len(below), len(loops)])
    return Layers(layer_height_mm, np.ascontiguousarray(points), start, ends)


def hanging_between(
    below: list, own: list, discs: list, layer: int, process: Process,
    parts: list[Hanging] | None = None,
) -> list[Hanging]:  # fmt: skip
    """What hangs of a layer over the one below, with the ends of supports under it.

    Only what comes near some parts that hang without them, where these are given.
    """
    h = process.layer_height_mm
    two = _layers_of_two(h, with_discs(below, discs), own)
    limits = process["bridge_mm"], process["ledge_mm"]
    within = None
    if parts is not None:
        within = np.array([part.box_mm for part in parts]).reshape(-1, 4) + _AROUND_MM
    return [
        replace(
            part, layer=layer, z_mm=(layer + 0.5) * h, center_mm=(*part.center_mm[:2], layer * h)
        )
        for part in hanging_parts(two, 1, process["notable_mm"], limits, within)
    ]
