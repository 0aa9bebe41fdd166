"""Corners that lift: long first layers shrink and pull their sharp corners off the plate."""

from dataclasses import dataclass

import numpy as np

from ..layers import Layers, region_loops
from . import _kernels

__all__ = ["LongFoot", "long_feet"]

# A corner turns by at least this much within this length of outline (from memory).
SHARP_DEG, WITHIN_MM = 55.0, 6.0


@dataclass(frozen=True)
class LongFoot:
    """A connected first layer that is long and has sharp corners.

    Attributes
    ----------
    length_mm : float
        Its greatest extent.
    corners_mm : (c, 2) tuple of tuple of float
        Sharp corners of its hull, the farthest from its middle first.
    area_mm2 : float
    """

    length_mm: float
    corners_mm: tuple[tuple[float, float], ...]
    area_mm2: float


def long_feet(layers: Layers, longest_mm: float) -> tuple[LongFoot, ...]:
    """First layers longer than ``longest_mm`` with sharp corners, the longest first."""
    found = []
    if not layers.count:
        return ()
    for r in range(layers.layer_regions[0], layers.layer_regions[1]):
        outline = region_loops(layers, r)[0]
        hull = _kernels.hull_of(np.ascontiguousarray(outline))
        length = float(_kernels.reach_of(hull))
        if length <= longest_mm:
            continue
        corners = _sharp(hull)
        if len(corners):
            far = np.linalg.norm(corners - hull.mean(axis=0), axis=1)
            order = np.argsort(-far, kind="stable")
            found.append(
                LongFoot(
                    length,
                    tuple((float(x), float(y)) for x, y in corners[order]),
                    float(layers.region_area_mm2[r]),
                )
            )
    return tuple(sorted(found, key=lambda foot: -foot.length_mm))


def _sharp(hull: np.ndarray) -> np.ndarray:
    """Corners of a hull, counter-clockwise, where it turns sharply; rounded ones once."""
    along = np.roll(hull, -1, axis=0) - hull
    length = np.hypot(along[:, 0], along[:, 1])
    before = np.roll(along, 1, axis=0)
    cross = before[:, 0] * along[:, 1] - before[:, 1] * along[:, 0]
    turn = np.degrees(np.arctan2(cross, np.einsum("ij,ij->i", before, along)))
    n = len(hull)
    found, taken = [], np.zeros(n, bool)
    for i in np.argsort(-turn, kind="stable"):
        if taken[i]:
            continue
        # From this corner both ways, half of the length each.
        total, own = float(turn[i]), [i]
        for step in (1, -1):
            run, j = 0.0, int(i)
            for _ in range(n - 1):
                run += length[j] if step > 0 else length[j - 1]
                j = (j + step) % n
                if run > WITHIN_MM / 2 or taken[j] or j in own:
                    break
                total += float(turn[j])
                own.append(j)
        if total >= SHARP_DEG:
            taken[own] = True
            found.append(hull[i])
    return np.array(found).reshape(-1, 2)
