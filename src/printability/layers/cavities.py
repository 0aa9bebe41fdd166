"""Cups and closed cavities: room that is walled in while it is printed.

From the plate up, the room around a model behaves as material does: a part of it that begins on
the floor of a bowl, or within a ring that stands on the plate, is an island, and it is let out
where it joins the room outside through layers printed already. So the search for islands is
used again, on the room.
"""

from dataclasses import dataclass

import numpy as np

from . import _joining
from .slicing import Layers, outlines

__all__ = ["Cup", "find_cups"]


@dataclass(frozen=True)
class Cup:
    """Room that the layer being printed walls in, with no opening below it.

    Attributes
    ----------
    closed : bool
        Whether it has no way out at all once printed; else it opens at its top or side.
    drain_mm : (3,) tuple of float
        Where a drain would help: the middle of its lowest layer.
    volume_mm3 : float
        Room up to the height where it is let out.
    mouth_mm2 : float
        The greatest area walled in at once.
    mouth_layer : int
    opens_z_mm : float or None
        Where it is let out; the top of the model for a bowl that stands upright.
    layer : int
        Its lowest layer.
    """

    closed: bool
    drain_mm: tuple[float, float, float]
    volume_mm3: float
    mouth_mm2: float
    mouth_layer: int
    opens_z_mm: float | None
    layer: int


def find_cups(layers: Layers, least_mm3: float) -> tuple[Cup, ...]:
    """Cups and cavities that hold at least a volume, largest first."""
    if not layers.is_hole.any():
        return ()  # without a hole in some layer there is no room that is walled in
    room = _room_from_below(layers)
    first, after, taken, _, mouth, mouth_at = _joining.trace_floating(
        *room.touching, room.layer_regions, room.region_area_mm2
    )
    h = layers.layer_height_mm
    found = []
    for region, opens, size, wide, wide_at in zip(
        first, after, taken, mouth, mouth_at, strict=True
    ):
        held = float(size) * h
        if held < least_mm3:
            continue
        layer = int(room.region_layer[region]) - 1  # row 0 of the room is outside alone
        x, y = room.region_center_mm[region]
        found.append(
            Cup(
                closed=bool(opens < 0),
                drain_mm=(float(x), float(y), layer * h),
                volume_mm3=held,
                mouth_mm2=float(wide),
                mouth_layer=int(wide_at) - 1,
                opens_z_mm=None if opens < 0 else float((layer + int(opens)) * h),
                layer=layer,
            )
        )
    return tuple(sorted(found, key=lambda cup: -cup.volume_mm3))


def _room_from_below(layers: Layers) -> Layers:
    """The room in a frame around the model, between the outside alone and an empty layer.

    Below the first layer lies the plate, which seals what stands on it: only a rim of the
    frame is room there.
    """
    low, high = layers.box_mm
    low, high = low - 2, high + 2
    frame = np.array([low, (high[0], low[1]), high, (low[0], high[1])])
    inner = np.array([low + 1, (low[0] + 1, high[1] - 1), high - 1, (high[0] - 1, low[1] + 1)])
    loops, per_layer = [frame, inner], [2]
    for k in range(layers.count):
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
