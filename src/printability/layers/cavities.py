"""Cups and closed cavities: room under a roof from which air, resin or powder cannot rise.

Seen from the top down, the room around a model behaves as material does seen from the bottom
up: a part of it that begins under a roof is an island, and it is let out where it joins the
room outside. So the search for islands is used again, on the room, from above.
"""

from dataclasses import dataclass

import numpy as np

from . import _kernels
from .slicing import Layers, outlines

__all__ = ["Cup", "find_cups"]


@dataclass(frozen=True)
class Cup:
    """Room under a roof.

    Attributes
    ----------
    closed : bool
        Whether it has no way out at all; else it opens only downwards.
    roof_mm : (3,) tuple of float
        Where a drain would help: the middle of its highest layer.
    volume_mm3 : float
        Room above the height where it is let out.
    opens_z_mm : float or None
    layer : int
        Its highest layer.
    """

    closed: bool
    roof_mm: tuple[float, float, float]
    volume_mm3: float
    opens_z_mm: float | None
    layer: int


def find_cups(layers: Layers, least_mm3: float) -> tuple[Cup, ...]:
    """Cups and cavities that hold at least a volume, largest first."""
    if not layers.is_hole.any():
        return ()  # without a hole in some layer there is no room that is walled in
    room = _room_from_above(layers)
    which, after, volume, _ = _kernels.trace_islands(
        room.points, room.loop_start, room.region_of_loop, room.is_hole, room.loop_box_mm,
        room.region_layer, len(room.region_layer), room.count, room.region_area_mm2,
    )  # fmt: skip
    h = layers.layer_height_mm
    found = []
    for region, opens, size in zip(which, after, volume, strict=True):
        held = float(size) * h
        if held < least_mm3:
            continue
        # Row 0 of the room is above the model; row r is layer count - r.
        layer = layers.count - int(room.region_layer[region])
        x, y = room.region_center_mm[region]
        found.append(
            Cup(
                closed=bool(opens < 0),
                roof_mm=(float(x), float(y), (layer + 1) * h),
                volume_mm3=held,
                opens_z_mm=None if opens < 0 else float((layer - int(opens) + 1) * h),
                layer=layer,
            )
        )
    return tuple(sorted(found, key=lambda cup: -cup.volume_mm3))


def _room_from_above(layers: Layers) -> Layers:
    """The room in a frame around the model, top layer first, between two empty layers."""
    if len(layers.points):
        low, high = layers.points.min(axis=0) - 1, layers.points.max(axis=0) + 1
    else:
        low, high = np.zeros(2), np.ones(2)
    frame = np.array([low, (high[0], low[1]), high, (low[0], high[1])])
    loops, per_layer = [frame], [1]
    for k in range(layers.count - 1, -1, -1):
        own = [loop[::-1] for loop in outlines(layers, k)]
        loops += [frame, *own]
        per_layer.append(1 + len(own))
    loops.append(frame)
    per_layer.append(1)
    return Layers(
        layers.layer_height_mm,
        np.ascontiguousarray(np.concatenate(loops)),
        np.concatenate([[0], np.cumsum([len(loop) for loop in loops])]).astype(np.int64),
        np.concatenate([[0], np.cumsum(per_layer)]).astype(np.int64),
    )
