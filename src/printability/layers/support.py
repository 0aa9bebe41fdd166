"""What holds a layer: the part of it that nothing below supports."""

import math
from dataclasses import dataclass

import numpy as np
from manifold3d import JoinType

from ._united import union_of_loops
from .slicing import Layers, outlines

__all__ = ["LayerPicture", "layer_picture"]


@dataclass(frozen=True)
class LayerPicture:
    """One layer as the section shows it; every entry is a list of (n, 2) loops, mm."""

    layer: int
    z_mm: float
    area_mm2: float
    outline: list[np.ndarray]
    below: list[np.ndarray]
    unsupported: list[np.ndarray]
    unsupported_mm2: float
    held_mm2: float


def layer_picture(layers: Layers, k: int, threshold_deg: float) -> LayerPicture:
    """Layer ``k`` over the one below, and its unsupported region.

    The unsupported region is the layer minus the one below grown by h / tan(threshold); the
    plate holds the whole first layer. ``held_mm2`` is the area that lies straight on the
    layer below: over the layer's own area it is the grip.
    """
    own = outlines(layers, k)
    below = outlines(layers, k - 1) if k else []
    unsupported, area, held_mm2 = [], 0.0, float(layers.area_mm2[k])
    if k:
        reach = layers.layer_height_mm / math.tan(math.radians(threshold_deg))
        under, over = union_of_loops(below), union_of_loops(own)
        held_mm2 = float((over ^ under).area())
        held = under.offset(reach, JoinType.Round, circular_segments=48)
        hanging = over - held
        area = hanging.area()
        unsupported = hanging.to_polygons()
    return LayerPicture(
        layer=k,
        z_mm=(k + 0.5) * layers.layer_height_mm,
        area_mm2=float(layers.area_mm2[k]),
        outline=own,
        below=below,
        unsupported=unsupported,
        unsupported_mm2=float(area),
        held_mm2=held_mm2,
    )
