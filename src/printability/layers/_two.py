"""Layers of which the upper ones are known already."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np

if TYPE_CHECKING:
    from .slicing import Layers

__all__ = ["Two"]


@dataclass(frozen=True, eq=False)
class Two:
    """Layers that are new below and those of others above, of which much may be known already.

    Attributes
    ----------
    low : Layers
        Those below, nothing above.
    other : Layers
    top : int
        From this layer on they are the other's.
    """

    low: "Layers"
    other: "Layers"
    top: int

    def of_loops(self, give: Callable[["Layers"], tuple]) -> tuple[np.ndarray, ...]:
        """What is known loop by loop."""
        at = self.other.layer_start[self.top]
        pairs = zip(give(self.low), give(self.other), strict=True)
        return tuple(np.concatenate([a, b[at:]]) for a, b in pairs)

    @property
    def _first_region(self) -> int:
        return int(self.other.layer_regions[self.top])

    def of_regions(self, give: Callable[["Layers"], tuple]) -> tuple[np.ndarray, ...]:
        """What is known region by region."""
        pairs = zip(give(self.low), give(self.other), strict=True)
        return tuple(np.concatenate([a, b[self._first_region :]]) for a, b in pairs)

    @property
    def nesting(self) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
        """As `Layers` keeps it."""
        region, is_hole = self.of_loops(lambda part: (part.region_of_loop, part.is_hole))
        above = region[len(self.low.region_of_loop) :]  # of an array made just now
        above[above >= 0] += len(self.low.region_layer) - self._first_region
        return region, is_hole, *self.of_regions(lambda part: (part.region_layer,))

    @property
    def touching_above(self) -> tuple[np.ndarray, np.ndarray]:
        """Pairs of regions, both above."""
        below, above = self.other.touching
        chosen = below >= self._first_region
        shift = len(self.low.region_layer) - self._first_region
        return below[chosen] + shift, above[chosen] + shift
