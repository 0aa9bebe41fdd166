"""Moments of regions of layers: area, centre and second moments, by their outlines."""

from dataclasses import dataclass

import numpy as np

from ..layers import Layers

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

    def together(self) -> "Moments":
        """Of all regions as one section: one center (2,), one tensor (2, 2)."""
        area = self.area_mm2.sum()
        center = self.area_mm2 @ self.center_mm / area
        off = self.center_mm - center
        tensor = self.tensor_mm4.sum(axis=0)
        tensor = tensor + np.einsum("n,ni,nj->ij", self.area_mm2, off, off)
        return Moments(np.array([area]), center, tensor)


def moments_of_regions(layers: Layers, regions: np.ndarray, origin: np.ndarray) -> Moments:
    """Moments of some regions of layers, holes taken off.

    By the edges of their outlines (Green's theorem; any handbook gives the sums).

    Parameters
    ----------
    layers : Layers
    regions : (n,) int
    origin : (2,) float
    """
    points = layers.points - origin
    # The point that follows each on its loop.
    after = np.arange(1, len(points) + 1)
    ends = layers.loop_start[1:] - 1
    after[ends] = layers.loop_start[:-1]
    x0, y0 = points.T
    x1, y1 = points[after].T
    cross = x0 * y1 - x1 * y0
    sums = np.stack([
        cross / 2, (x0 + x1) * cross / 6, (y0 + y1) * cross / 6,
        (x0 * x0 + x0 * x1 + x1 * x1) * cross / 12, (y0 * y0 + y0 * y1 + y1 * y1) * cross / 12,
        (x0 * y1 + 2 * x0 * y0 + 2 * x1 * y1 + x1 * y0) * cross / 24,
    ])  # fmt: skip
    of_loop = np.add.reduceat(sums, layers.loop_start[:-1], axis=1)
    sign = np.where(of_loop[0] < 0, -1.0, 1.0) * np.where(layers.is_hole, -1.0, 1.0)
    of_loop = of_loop * sign
    count = len(layers.region_area_mm2)
    of = layers.region_of_loop
    known = of >= 0  # what closes nothing is of no region
    area, mx, my, xx, yy, xy = (
        np.bincount(of[known], row[known], count)[regions] for row in of_loop
    )
    safe = np.where(area > 0, area, 1.0)
    cx, cy = mx / safe, my / safe
    tensor = np.empty((len(area), 2, 2))
    tensor[:, 0, 0] = xx - area * cx * cx
    tensor[:, 1, 1] = yy - area * cy * cy
    tensor[:, 0, 1] = tensor[:, 1, 0] = xy - area * cx * cy
    return Moments(area, np.stack([cx, cy], axis=1), tensor)
