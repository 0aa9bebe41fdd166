"""How the numbers of an imported file become millimetres: its unit, scale and mirror."""

from dataclasses import dataclass

import numpy as np

from ..mesh import MM_PER_UNIT

__all__ = ["Frame"]


@dataclass(frozen=True)
class Frame:
    """Unit, scale and mirror along the import's own axes.

    Attributes
    ----------
    unit : str
        That the file's numbers are read in, a key of `MM_PER_UNIT`.
    scale : (3,) tuple of float
    mirrored : (3,) tuple of bool
    """

    unit: str = "mm"
    scale: tuple[float, float, float] = (1.0, 1.0, 1.0)
    mirrored: tuple[bool, bool, bool] = (False, False, False)

    @property
    def factors(self) -> np.ndarray:
        """(3,) float: what the import's coordinates are multiplied by."""
        signs = [-f if m else f for f, m in zip(self.scale, self.mirrored, strict=True)]
        return np.array(signs) * MM_PER_UNIT[self.unit]

    @property
    def matrix(self) -> np.ndarray:
        """(3, 3) float: takes the import's coordinates to millimetres."""
        return np.diag(self.factors)

    @property
    def is_mirrored(self) -> bool:
        """Whether left and right are exchanged."""
        return sum(self.mirrored) % 2 == 1

    def normal(self, of_import) -> np.ndarray:
        """A normal of the import as one of the framed shape, (3,) float of length 1 or 0."""
        out = np.asarray(of_import, float) / self.factors
        length = float(np.linalg.norm(out))
        return out / length if length else out

    def length(self, mm: float) -> float:
        """A length in mm as one in the import's own numbers, the mean of the three axes."""
        return mm / float(np.cbrt(np.abs(self.factors).prod()))
