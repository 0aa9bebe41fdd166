"""Moments of regions of layers: area, centre and second moments, by their outlines."""

from dataclasses import dataclass

import numpy as np

from ..layers import Layers
from ._moment_kernels import sums_of_regions

__all__ = ["Moments", "moments_of_regions"]


@dataclass(frozen=True, eq=False)
class Moments:
    """Moments of some regions.

    Attributes
    ----------
    area_mm2 : (n,) float
    center_mm : (n, 2) float
        From the origin that was asked for.
    tensor_mm4 : (n, 2, 2) float
        ∫ (p - center)(p - center)ᵀ dA: nᵀ T n is the second moment for bending along n.
    """

    area_mm2: np.ndarray
    center_mm: np.ndarray
    tensor_mm4: np.ndarray

    def least_mm4(self) -> np.ndarray:
        """(n,) float: least second moment of each about itself."""
        a, b, c = (self.tensor_mm4[:, i, j] for i, j in ((0, 0), (1, 1), (0, 1)))
        return (a + b) / 2 - np.sqrt(((a - b) / 2) ** 2 + c**2)

    def sums(self) -> np.ndarray:
        """(n, 6) float: area and moments x, y, xx, yy, xy about the origin; they add up."""
        area, (cx, cy) = self.area_mm2, self.center_mm.T
        a, b, c = (self.tensor_mm4[:, i, j] for i, j in ((0, 0), (1, 1), (0, 1)))
        return np.stack(
            [area, area * cx, area * cy, a + area * cx**2, b + area * cy**2, c + area * cx * cy],
            axis=1,
        )


def moments_of_regions(layers: Layers, regions: np.ndarray, origin: np.ndarray) -> Moments:
    """Moments of some regions of layers, holes taken off.

    By the edges of their outlines (Green's theorem; any handbook gives the sums).

    Parameters
    ----------
    layers : Layers
    regions : (n,) int
    origin : (2,) float
    """
    loops, start = layers.loops_by_region
    sums = sums_of_regions(
        layers.points, layers.loop_start, loops, start, layers.is_hole,
        np.ascontiguousarray(regions, np.int64), np.asarray(origin, np.float64),
    )  # fmt: skip
    area = sums[:, 0]
    safe = np.where(area > 0, area, 1.0)
    cx, cy = sums[:, 1] / safe, sums[:, 2] / safe
    tensor = np.empty((len(area), 2, 2))
    tensor[:, 0, 0] = sums[:, 3] - area * cx * cx
    tensor[:, 1, 1] = sums[:, 4] - area * cy * cy
    tensor[:, 0, 1] = tensor[:, 1, 0] = sums[:, 5] - area * cx * cy
    return Moments(area, np.stack([cx, cy], axis=1), tensor)
