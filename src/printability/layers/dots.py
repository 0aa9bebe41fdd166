"""Dots: small sections that end under something larger, as tips of supports do under a model."""

import numpy as np

from .slicing import Layers

__all__ = ["find_dots"]

# A section that carries a region of so many times its own area is a dot under it (our choice).
_LARGER = 2.5
# Below a dot there is a section of at least so much of its area: it is no growing foot.
_AS_WIDE = 0.8


def find_dots(layers: Layers, widest_mm: float) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """Regions that stand, are no wider than a length, and end under a larger region.

    They stand on sections no smaller than themselves: where a body begins on the plate and grows
    there is none.

    Parameters
    ----------
    layers : Layers
    widest_mm : float

    Returns
    -------
    layer : (d,) int
        The layer that lies on each.
    center_mm : (d, 2) float
    area_mm2 : (d,) float
    """
    lower, upper = layers.touching
    area = layers.region_area_mm2
    if not len(lower):
        return np.zeros(0, int), np.zeros((0, 2)), np.zeros(0)
    stands = layers.standing
    loops, start = layers.loops_by_region
    box = layers.loop_box_mm[loops[start[:-1]]]
    wide = np.hypot(box[:, 2] - box[:, 0], box[:, 3] - box[:, 1])
    is_dot = stands[lower] & (wide[lower] <= widest_mm) & (area[upper] >= _LARGER * area[lower])
    dots = np.unique(lower[is_dot])
    below = np.zeros(len(area))
    np.maximum.at(below, upper, area[lower])
    dots = dots[below[dots] >= _AS_WIDE * area[dots]]
    return layers.region_layer[dots] + 1, layers.region_center_mm[dots], area[dots]
