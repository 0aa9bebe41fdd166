"""Thin walls: where a layer is narrower than can be printed."""

from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from scipy import ndimage

from . import _span_kernels as _kernels
from .slicing import THREADS, Layers

__all__ = ["ThinWall", "find_thin_walls", "thin_places_of_layer"]

# Thin places nearer than this many least walls belong together.
_TOGETHER = 4.0
_MOST_CELLS = 2_000_000
# Thin faces of fewer square least walls are corners and tips (from memory).
_LEAST_FACE = 4.0
# A ridge runs out thin in its last layer or two; a wall goes on (from memory).
_LEAST_LAYERS = 3


@dataclass(frozen=True)
class ThinWall:
    """Thin places that belong together, at their thinnest.

    ``area_mm2`` is the wall's face that is thin, both sides counted once each and halved.
    """

    thickness_mm: float
    z_mm: float
    center_mm: tuple[float, float, float]
    area_mm2: float


def thin_places_of_layer(layers: Layers, k: int, least_mm: float) -> np.ndarray:
    """Thin places of one layer, (p, 3) float: x, y in the middle of the wall, and thickness."""
    rows = _kernels.thin_places(
        layers.points, layers.loop_start, layers.layer_start, layers.region_of_loop,
        layers.is_hole, layers.loop_area_mm2, layers.heights_mm, least_mm, k, k + 1,
    )  # fmt: skip
    return rows[:, [0, 1, 3]]


def find_thin_walls(layers: Layers, least_mm: float) -> tuple[ThinWall, ...]:
    """Walls thinner than ``least_mm``, largest first.

    The thickness is measured in the layer, straight across from wall to wall. Places of less
    than four square least walls of face, such as sharp corners, and of less than three layers,
    such as the ridge of a roof, are left out.
    """
    nesting = layers.region_of_loop, layers.is_hole, layers.loop_area_mm2, layers.heights_mm

    def between(ends: tuple[int, int]) -> np.ndarray:
        return _kernels.thin_places(
            layers.points, layers.loop_start, layers.layer_start, *nesting, least_mm, *ends
        )

    bounds = np.linspace(0, layers.count, THREADS + 1).astype(int)
    with ThreadPoolExecutor(THREADS) as pool:
        rows = np.concatenate(list(pool.map(between, pairwise(bounds))))
    if not len(rows):
        return ()
    low = rows[:, :3].min(axis=0)
    span = np.ptp(rows[:, :3], axis=0)
    cell = max(_TOGETHER * least_mm, float(np.prod(span + least_mm) / _MOST_CELLS) ** (1 / 3))
    place = ((rows[:, :3] - low) / cell).astype(int)
    grid = np.zeros(place.max(axis=0) + 1, bool)
    grid[tuple(place.T)] = True
    label = ndimage.label(grid, np.ones((3, 3, 3)))[0][tuple(place.T)]
    found = []
    for group in range(1, label.max() + 1):
        own = rows[label == group]
        area = float(own[:, 4].sum() * layers.layer_height_mm / 2)
        if area < _LEAST_FACE * least_mm**2 or len(np.unique(own[:, 2])) < _LEAST_LAYERS:
            continue
        worst = own[np.argmin(own[:, 3])]
        found.append(
            ThinWall(float(worst[3]), float(worst[2]), tuple(float(v) for v in worst[:3]), area)
        )
    return tuple(sorted(found, key=lambda wall: -wall.area_mm2))
