"""How a print grows: the grip of every layer, sudden jumps, the largest layer, necks."""

from dataclasses import dataclass

import numpy as np

from ..mesh import Mesh
from ..mesh.linking import linked
from . import _joining, _kernels, _span_kernels
from ._united import union_of_loops
from .levels import hair_mm
from .slicing import Layers, outlines, region_loops
from .spans import Hanging, edges_of_loops, just_inside
from .tug import tug_of_war

__all__ = [
    "Jump",
    "Neck",
    "Peak",
    "find_jumps",
    "find_necks",
    "grip_of_layers",
    "peak_layer",
    "underside_areas",
    "worst_grip",
]

# Below this the grip of a layer is worked out exactly; above, a bound is good enough.
EXACT_BELOW = 0.9
# A layer is of notable area from this part of the largest layer on (from memory).
NOTABLE_PART = 0.1
# What should hold is asked to hold this many times the pull (common practice, no source).
SAFE = 2.0


@dataclass(frozen=True)
class Jump:
    """What a layer adds over nothing, where it is held by less than twice the pull at it.

    Attributes
    ----------
    layer : int
    z_mm : float
    hold_n, pull_n : float
        See `tug_of_war`.
    hanging_mm2 : float
        Area that hangs.
    grip : float
        Part of the connected region around it that lies on the layer below.
    area_mm2 : float
        Area of that region.
    center_mm : (3,) tuple
    part : Hanging
        What hangs.
    """

    layer: int
    z_mm: float
    hold_n: float
    pull_n: float
    hanging_mm2: float
    grip: float
    area_mm2: float
    center_mm: tuple[float, float, float]
    part: Hanging


@dataclass(frozen=True)
class Peak:
    """The layer of greatest area, and the largest connected region of any layer."""

    layer: int
    z_mm: float
    area_mm2: float
    region_mm2: float
    region_layer: int


@dataclass(frozen=True)
class Neck:
    """A cut through little area that carries much; ``ratio`` is volume above over area^(3/2).

    The area is that of all regions of the layer that carry it together. ``is_footing``: whether
    that is all of the first layer.
    """

    layer: int
    z_mm: float
    area_mm2: float
    volume_above_mm3: float
    ratio: float
    center_mm: tuple[float, float, float]
    is_footing: bool = False


def underside_areas(layers: Layers, mesh: Mesh) -> np.ndarray:
    """Area of undersides between each cut and the one below, seen from above, (n,) float."""
    n = layers.count
    z = mesh.vertices[:, 2]
    hair = hair_mm(layers.layer_height_mm, float(z.max(initial=0.0)), mesh.grain_mm)
    return _kernels.underside_area_by_layer(
        mesh.vertices, mesh.facets, n, layers.layer_height_mm, hair
    )[:n]


def grip_of_layers(layers: Layers, under_mm2: np.ndarray) -> np.ndarray:
    """Part of each layer's area that lies on the layer below, (n,) float, 1 on the first.

    Where undersides between two cuts amount to less than a tenth of the layer, they are
    taken for all that hangs: exact but for features thinner than a layer. Elsewhere the
    two layers are intersected. Empty layers have grip 1.

    Parameters
    ----------
    layers : Layers
    under_mm2 : (n,) float
        See `underside_areas`, of what was sliced, pillars included.
    """
    if not layers.count:
        return np.ones(0)
    area = layers.area_mm2
    grip = np.ones(layers.count)
    some = area > 0
    grip[some] = np.clip(1 - under_mm2[some] / area[some], 0, 1)
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
    layers: Layers,
    hanging: tuple[Hanging, ...],
    limits_mm: tuple[float, float],
    green_n_mm2: float,
    pull_n_mm2: float,
) -> tuple[Jump, ...]:
    """Hanging parts that hold less than twice the pull at them, each judged by itself.

    Parameters
    ----------
    layers : Layers
    hanging : tuple of Hanging
    limits_mm : (2,) tuple of float
        Limits of bridges and of ledges.
    green_n_mm2, pull_n_mm2 : float
    """
    h = layers.layer_height_mm
    worst: dict[tuple[int, int], tuple] = {}
    for part in hanging:
        tug = tug_of_war(
            part.area_mm2, part.rim_mm, h, part.length_mm, limits_mm[part.kind == "ledge"],
            green_n_mm2, pull_n_mm2,
        )  # fmt: skip
        key = part.layer, part.part
        if tug.ratio < SAFE and (key not in worst or tug.ratio < worst[key][0].ratio):
            worst[key] = tug, part
    homes = _homes(layers, [part for _, part in worst.values()])
    around = {r: _grip_of_region(layers, r) for r in set(homes.tolist())}
    found = []
    for (tug, part), home in zip(worst.values(), homes.tolist(), strict=True):
        grip, area = around[home]
        found.append(
            Jump(
                part.layer,
                part.z_mm,
                tug.hold_n,
                tug.pull_n,
                part.area_mm2,
                grip,
                area,
                part.center_mm,
                part,
            )
        )
    return tuple(found)


def _homes(layers: Layers, parts: list[Hanging]) -> np.ndarray:
    """Connected region that each hanging part belongs to, (p,) int."""
    homes = np.zeros(len(parts), int)
    layer = np.array([part.layer for part in parts], int)
    edges = [edges_of_loops(list(part.loops)) for part in parts]
    ends = np.cumsum([0, *(len(e) for e in edges)])
    inside = just_inside(np.concatenate(edges), ends) if edges else np.zeros((0, 2))
    for k in np.unique(layer):
        regions = np.arange(layers.layer_regions[k], layers.layer_regions[k + 1])
        segs = [edges_of_loops(region_loops(layers, int(r))) for r in regions]
        own = np.flatnonzero(layer == k)
        number = np.repeat(regions, [len(e) for e in segs])
        homes[own] = _span_kernels.containing(np.concatenate(segs), number, inside[own])
    return homes


def _grip_of_region(layers: Layers, region: int) -> tuple[float, float]:
    """Part of a connected region that lies on the layer below, and its area."""
    lower, upper = layers.touching
    own = union_of_loops(region_loops(layers, region))
    below = [loop for r in lower[upper == region].tolist() for loop in region_loops(layers, r)]
    area = float(own.area())
    return float((own ^ union_of_loops(below)).area()) / max(area, 1e-300), area


def peak_layer(layers: Layers) -> Peak | None:
    """The layer of greatest area, the lowest of equals; None without layers."""
    if not layers.count:
        return None
    k = int(np.argmax(layers.area_mm2))
    regions = layers.region_area_mm2
    r = int(np.argmax(regions)) if len(regions) else -1
    return Peak(
        k, (k + 0.5) * layers.layer_height_mm, float(layers.area_mm2[k]),
        float(regions[r]) if r >= 0 else 0.0, int(layers.region_layer[r]) if r >= 0 else 0,
    )  # fmt: skip


def find_necks(
    layers: Layers, most_ratio: float, model_mm2: np.ndarray | None = None
) -> tuple[Neck, ...]:
    """Stretches that carry too much on too little, each at its worst layer.

    What is joined above a cut is carried by all regions of the cut that it rests on together,
    whatever stands beside them, the first layer too. What begins on nothing is an island.

    Parameters
    ----------
    layers : Layers
    most_ratio : float
    model_mm2 : (k,) float, optional
        Area of the model alone in its layers: those of supports by themselves do not count.
    """
    n = len(layers.region_layer)
    if not n:
        return ()
    lower, upper = layers.touching
    group, area, above = _joining.carried(
        lower, upper, layers.layer_regions, layers.region_area_mm2
    )
    above = above * layers.layer_height_mm
    ratio = np.divide(above, area**1.5, out=np.zeros(n), where=area > 0)
    over = ratio > most_ratio
    if model_mm2 is not None:
        own = np.zeros(layers.count, bool)
        own[: len(model_mm2)] = model_mm2[: layers.count] > 0
        over &= own[layers.region_layer]
    if not over.any():
        return ()
    held = np.zeros(n, bool)
    held[upper] = True
    held[: layers.layer_regions[1]] = True
    both = over[lower] & over[upper]
    member = np.flatnonzero(over)
    one = np.concatenate([lower[both], member])
    other = np.concatenate([upper[both], group[member]])
    label = linked(n, one, other)
    order = member[np.argsort(label[member], kind="stable")]
    found = []
    for stretch in np.split(order, np.flatnonzero(np.diff(label[order])) + 1):
        layer = layers.region_layer[stretch]
        lowest = stretch[layer == layer.min()]
        if layer.min() > 0 and not held[lowest].any():
            continue
        worst = stretch[np.argmax(ratio[stretch])]
        k = int(layers.region_layer[worst])
        own = stretch[(layer == k) & (group[stretch] == group[worst])]
        weight = layers.region_area_mm2[own]
        x, y = weight @ layers.region_center_mm[own] / max(weight.sum(), 1e-300)
        z = (k + 0.5) * layers.layer_height_mm
        found.append(
            Neck(
                k,
                z,
                float(area[worst]),
                float(above[worst]),
                float(ratio[worst]),
                (float(x), float(y), float(z)),
                k == 0 and bool(area[worst] >= layers.area_mm2[0] * (1 - 1e-9)),
            )
        )
    return tuple(sorted(found, key=lambda neck: (neck.layer, neck.center_mm)))
