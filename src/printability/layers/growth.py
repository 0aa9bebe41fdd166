"""How a print grows: the grip of every layer, sudden jumps, the largest layer, necks."""

from dataclasses import dataclass

import numpy as np

from ..mesh import Mesh
from . import _span_kernels as _kernels
from .slicing import Layers, outlines, union_of_loops

__all__ = [
    "Jump",
    "Neck",
    "Peak",
    "find_jumps",
    "find_necks",
    "grip_of_layers",
    "peak_layer",
    "worst_grip",
]

# Below this the grip of a layer is worked out exactly; above, a bound is good enough.
EXACT_BELOW = 0.9
# A layer is of notable area from this part of the largest layer on (from memory).
NOTABLE_PART = 0.1


@dataclass(frozen=True)
class Jump:
    """A layer of which little lies on the one below."""

    layer: int
    z_mm: float
    grip: float
    area_mm2: float
    center_mm: tuple[float, float, float]


@dataclass(frozen=True)
class Peak:
    """The layer of greatest area."""

    layer: int
    z_mm: float
    area_mm2: float


@dataclass(frozen=True)
class Neck:
    """A layer of little area that carries much; ``ratio`` is volume above over area^(3/2)."""

    layer: int
    z_mm: float
    area_mm2: float
    volume_above_mm3: float
    ratio: float
    center_mm: tuple[float, float, float]


def grip_of_layers(layers: Layers, mesh: Mesh) -> np.ndarray:
    """Part of each layer's area that lies on the layer below, (n,) float, 1 on the first.

    Where undersides between two cuts amount to less than a tenth of the layer, they are
    taken for all that hangs: exact but for features thinner than a layer. Elsewhere the
    two layers are intersected. Empty layers have grip 1.

    Parameters
    ----------
    layers : Layers
    mesh : Mesh
        What was sliced, pillars included.
    """
    n = layers.count
    if not n:
        return np.ones(0)
    under = _kernels.underside_area_by_layer(
        mesh.vertices, mesh.facets, layers.heights_mm, layers.layer_height_mm
    )[:n]
    area = layers.area_mm2
    grip = np.ones(n)
    some = area > 0
    grip[some] = np.clip(1 - under[some] / area[some], 0, 1)
    grip[0] = 1.0
    for k in np.flatnonzero(grip < EXACT_BELOW):
        own, below = union_of_loops(outlines(layers, k)), union_of_loops(outlines(layers, k - 1))
        grip[k] = min((own ^ below).area() / area[k], 1.0)
    return grip


def worst_grip(layers: Layers, grip: np.ndarray) -> float:
    """The least grip of the layers that have a tenth of the largest layer's area or more."""
    if not layers.count:
        return 1.0
    notable = layers.area_mm2 >= NOTABLE_PART * layers.area_mm2.max()
    return float(grip[notable].min(initial=1.0))


def find_jumps(
    layers: Layers, grip: np.ndarray, least_grip: float, least_new_mm2: float
) -> tuple[Jump, ...]:
    """Layers whose grip is below ``least_grip`` and that add at least ``least_new_mm2``."""
    new = layers.area_mm2 * (1 - grip)
    found = []
    for k in np.flatnonzero((grip < least_grip) & (new >= least_new_mm2)):
        z = (k + 0.5) * layers.layer_height_mm
        found.append(
            Jump(int(k), float(z), float(grip[k]), float(layers.area_mm2[k]), _middle(layers, k))
        )
    return tuple(found)


def peak_layer(layers: Layers) -> Peak | None:
    """The layer of greatest area, the lowest of equals; None without layers."""
    if not layers.count:
        return None
    k = int(np.argmax(layers.area_mm2))
    return Peak(k, (k + 0.5) * layers.layer_height_mm, float(layers.area_mm2[k]))


def find_necks(layers: Layers, most_ratio: float) -> tuple[Neck, ...]:
    """Stretches of layers that carry too much on too little, each at its worst layer.

    A stretch that begins on the plate is a matter of footing, not a neck.
    """
    area = layers.area_mm2
    if not layers.count:
        return ()
    above = np.concatenate([np.cumsum(area[::-1])[::-1][1:], [0.0]]) * layers.layer_height_mm
    ratio = np.divide(above, area**1.5, out=np.zeros_like(area), where=area > 0)
    over = np.flatnonzero(ratio > most_ratio)
    found = []
    for stretch in np.split(over, np.flatnonzero(np.diff(over) > 1) + 1):
        if not len(stretch) or stretch[0] == 0:
            continue
        k = int(stretch[np.argmax(ratio[stretch])])
        z = (k + 0.5) * layers.layer_height_mm
        found.append(
            Neck(k, z, float(area[k]), float(above[k]), float(ratio[k]), _middle(layers, k))
        )
    return tuple(found)


def _middle(layers: Layers, k: int) -> tuple[float, float, float]:
    own = layers.region_layer == k
    weight = layers.region_area_mm2[own]
    x, y = weight @ layers.region_center_mm[own] / max(weight.sum(), 1e-300)
    return float(x), float(y), float((k + 0.5) * layers.layer_height_mm)
