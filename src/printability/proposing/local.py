"""Two layers by themselves, with the ends of supports under the upper one."""

import manifold3d
import numpy as np

from ..layers import Layers

__all__ = ["layers_of_two", "with_discs"]

_SIDES = 24


def with_discs(below: list[np.ndarray], discs: list[tuple[float, float, float]]) -> list:
    """Outlines of a layer together with discs (x, y, radius)."""
    if not discs:
        return below
    solid = manifold3d.CrossSection(list(below), manifold3d.FillRule.NonZero)
    rounds = [manifold3d.CrossSection.circle(r, _SIDES).translate((x, y)) for x, y, r in discs]
    solid = manifold3d.CrossSection.batch_boolean([solid, *rounds], manifold3d.OpType.Add)
    return [np.asarray(loop, float) for loop in solid.to_polygons()]


def layers_of_two(layer_height_mm: float, below: list, own: list) -> Layers:
    """Outlines of two layers as layers."""
    loops = [*below, *own]
    start = np.concatenate([[0], np.cumsum([len(loop) for loop in loops])]).astype(int)
    points = np.concatenate(loops) if loops else np.zeros((0, 2))
    ends = np.array([0, len(below), len(loops)])
    return Layers(layer_height_mm, np.ascontiguousarray(points), start, ends)
