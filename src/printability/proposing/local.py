"""Two layers by themselves, with the ends of supports under the upper one."""

from dataclasses import replace

import manifold3d
import numpy as np

from ..layers import Hanging, Layers, hanging_parts
from ..process import Process

__all__ = ["hanging_between", "with_discs"]

_SIDES = 24


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
    below: list, own: list, discs: list, layer: int, process: Process
) -> list[Hanging]:
    """What hangs of a layer over the one below, with the ends of supports under it."""
    h = process.layer_height_mm
    two = _layers_of_two(h, with_discs(below, discs), own)
    limits = process["bridge_mm"], process["ledge_mm"]
    return [
        replace(
            part, layer=layer, z_mm=(layer + 0.5) * h, center_mm=(*part.center_mm[:2], layer * h)
        )
        for part in hanging_parts(two, 1, process["notable_mm"], limits)
    ]
