"""Which layer a height belongs to: the one place that decides it.

Layer k spans [k h, (k + 1) h] and is cut at its middle, z = (k + 1/2) h. A height's *level* is
the number of cuts at or below it. Material that begins at a height shows first in the layer of
that number, material that ends there shows last in the layer before, and an edge is cut by
layer k when one end's level is at most k and the other's is more.

A height within a hair of a cut lies on it, so that no rounding of a file can move it from one
side to the other: max(h / 1000, the spacing of single precision there), or the rounding that
the file's own coordinates carry where that is more (a model far from its origin).
"""

import numpy as np

from ..compiled import compiled
from ..errors import PrintabilityError

__all__ = ["MAX_LAYERS", "count_of", "cut_height", "hair_mm", "layer_count", "level", "levels"]

# A height this much of a layer over a whole number of layers is rounding, not a layer.
_ROUNDING = 1e-3
# More layers than any machine prints; what asks for them is in the wrong unit.
MAX_LAYERS = 100_000


def hair_mm(layer_height_mm: float, top_mm: float, grain_mm: float = 0.0) -> float:
    """How near to a cut a height lies on it.

    Parameters
    ----------
    layer_height_mm : float
    top_mm : float
        Greatest height of the model; heights below it are known at least as well.
    grain_mm : float
        Rounding of the model's coordinates, see `Mesh.grain_mm`.
    """
    return float(hair_of(layer_height_mm, float(top_mm), float(grain_mm)))


@compiled
def hair_of(h, top, grain):
    """The same, compiled."""
    # The spacing of single precision, which keeps 24 binary digits.
    single = 2.0 ** (np.floor(np.log2(max(abs(top), 1e-30))) - 23)
    return min(max(h / 1000, single, grain), h / 4)


@compiled
def level(z, h, hair):
    """Number of cuts at or below a height."""
    return max(int(np.floor((z + hair) / h + 0.5)), 0)


@compiled
def cut_height(k, h):
    """Where layer k is cut."""
    return (k + 0.5) * h


@compiled
def _levels(z, h, hair):
    out = np.empty(z.shape[0], np.int32)
    for i in range(z.shape[0]):
        out[i] = level(z[i], h, hair)
    return out


def levels(z_mm: np.ndarray, layer_height_mm: float, hair: float) -> np.ndarray:
    """(n,) int32: level of some heights, (n,) float."""
    return _levels(np.ascontiguousarray(z_mm, np.float64), layer_height_mm, hair)


@compiled
def count_of(height, h):
    """Height over layer height, rounded up but for a thousandth of a layer."""
    return max(int(np.ceil(height / h - _ROUNDING)), 0)


def layer_count(height_mm: float, layer_height_mm: float) -> int:
    """Layers of a model of that height: the height over the layer height, rounded up.

    A thousandth of a layer over a whole number is rounding.

    Raises
    ------
    PrintabilityError
        If they are more than `MAX_LAYERS`.
    """
    if height_mm / layer_height_mm > MAX_LAYERS:
        raise PrintabilityError(
            f"The model is {height_mm:,.0f} mm tall, more than {MAX_LAYERS:,} layers of "
            f"{layer_height_mm:g} mm; check the unit it is read in."
        )
    return int(count_of(float(height_mm), layer_height_mm))
