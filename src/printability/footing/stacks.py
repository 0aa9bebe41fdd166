"""What stands alone: every stack of regions by itself, until layers join it with another.

Source: TRADE rules of the house (a drag of the nozzle at the height reached, the plate's strength,
the beam theory of any handbook of mechanics).
"""

from dataclasses import dataclass

import numpy as np

from ..layers import SAFE, Layers
from ._stack_kernels import least_held, sway
from .moments import moments_of_regions

__all__ = [
    "Buckling", "LeastHeld", "Swaying", "find_buckling", "find_least_held", "find_swaying",
]  # fmt: skip

# Directions in which a foot's section is looked at.
_WAYS = 24
# pi²/12.
_EULER = np.pi**2 / 12
# Of what sways no more are told, the farthest first.
_MOST_TOLD = 1_000


@dataclass(frozen=True)
class LeastHeld:
    """A stack on the plate at the height where its foot holds it least.

    Attributes
    ----------
    push_nmm, hold_nmm : float
        Its weight by the lever beyond its foot with the drag at that height, and what the plate
        holds of its foot.
    margin_mm : float
        How far its centre of mass is inside the hull of its foot; negative outside.
    foot_mm2 : float
    center_mm : (3,) tuple of float
        Its centre of mass then.
    z_mm : float
        The height reached.
    is_all : bool
        Whether nothing else was on the plate then.
    """

    push_nmm: float
    hold_nmm: float
    margin_mm: float
    foot_mm2: float
    center_mm: tuple[float, float, float]
    z_mm: float
    is_all: bool


@dataclass(frozen=True)
class Swaying:
    """A stack at the height where the drag moves it most, before it joins another.

    Attributes
    ----------
    moves_mm : float
    z_mm : float
    center_mm : (3,) tuple of float
    area_mm2 : float
        Of its section there.
    """

    moves_mm: float
    z_mm: float
    center_mm: tuple[float, float, float]
    area_mm2: float


@dataclass(frozen=True)
class Buckling:
    """A stack at the layer where it carries least of what pushes it back down.

    Attributes
    ----------
    ratio : float
        What buckles it over what pushes.
    buckles_n, push_n, long_mm : float
        ``long_mm`` of what gives way.
    z_mm : float
    center_mm : (3,) tuple of float
    area_mm2 : float
        Of the layer's region.
    """

    ratio: float
    buckles_n: float
    push_n: float
    long_mm: float
    z_mm: float
    center_mm: tuple[float, float, float]
    area_mm2: float


def find_least_held(
    layers: Layers, density_g_cm3: float, drag_n: float, plate_n_mm2: float, absorbed_layers: int
) -> tuple[LeastHeld, ...]:
    """Every stack that stands on the plate, where it is held least, the worst first.

    What joins another stand within ``absorbed_layers`` is not asked there.
    """
    if not layers.count or drag_n <= 0 or not len(layers.region_layer):
        return ()
    h, origin = layers.layer_height_mm, layers.box_mm[0]
    lower, upper = layers.touching
    order = np.argsort(upper, kind="stable")
    loops, start = layers.loops_by_region
    feet = moments_of_regions(layers, np.arange(layers.layer_regions[1]), origin)
    angles = np.pi * np.arange(_WAYS) / _WAYS
    rows = least_held(
        layers.points - origin, layers.loop_start, loops, start, layers.layer_regions,
        lower[order], upper[order], layers.region_area_mm2 * h, layers.region_center_mm - origin,
        feet.sums(), np.stack([np.cos(angles), np.sin(angles)], axis=1), h, density_g_cm3, drag_n,
        plate_n_mm2, absorbed_layers,
    )  # fmt: skip
    found = [
        LeastHeld(
            push, hold, margin, foot, (x + float(origin[0]), y + float(origin[1]), z), up,
            bool(alone),
        )
        for push, hold, margin, foot, x, y, z, up, alone in rows.tolist()
    ]  # fmt: skip
    return tuple(sorted(found, key=lambda one: one.hold_nmm / max(one.push_nmm, 1e-12)))


def find_swaying(
    layers: Layers, drag_n: float, young_gpa: float, line_mm: float
) -> tuple[Swaying, ...]:
    """How far the drag moves what grows from the plate, by stretches that stand by themselves.

    A stretch is a chain of regions, one on the other. Where several join, those that stood apart
    since they parted (or since the plate) act as columns between two ends that do not turn:
    F L³ / (12 E ΣI); along one of them as a cantilever, F Σ (H - z)² h / (E I).
    """
    if not layers.count or drag_n <= 0 or not len(layers.region_layer):
        return ()
    moves, _, ends = _gives(layers, line_mm)
    told = np.flatnonzero(ends & (moves >= 0))
    told = told[np.argsort(-moves[told], kind="stable")]
    stiff = drag_n / (young_gpa * 1000)
    return tuple(
        Swaying(float(stiff * moves[r]), top, (x, y, top), float(layers.region_area_mm2[r]))
        for r, x, y, top in _tops(layers, told[:_MOST_TOLD])
    )


def find_buckling(
    layers: Layers, pull_n_mm2: float, young_gpa: float, line_mm: float, ratio: float = SAFE
) -> tuple[Buckling, ...]:
    """Stacks that carry less than so many times half the pull of a layer, the worst first.

    Pushed back down by half of what pulled (from memory), a stack of stiffness k against a load
    across its top, and as long as what gives way, buckles at pi²/12 k L: Euler's load of a
    cantilever and of a column that does not turn at its ends alike. An estimate.
    """
    if not layers.count or pull_n_mm2 <= 0 or not len(layers.region_layer):
        return ()
    moves, long, _ = _gives(layers, line_mm)
    push = pull_n_mm2 / 2 * layers.region_area_mm2
    stands = (moves > 0) & (push > 0)
    buckles = np.full(len(push), np.inf)
    buckles[stands] = _EULER * young_gpa * 1000 * long[stands] / moves[stands]
    part = np.divide(buckles, push, out=np.full(len(push), np.inf), where=stands)
    told = np.flatnonzero(part < ratio)
    told = told[np.argsort(part[told], kind="stable")]
    return tuple(
        Buckling(
            float(part[r]), float(buckles[r]), float(push[r]), float(long[r]), top, (x, y, top),
            float(layers.region_area_mm2[r]),
        )
        for r, x, y, top in _tops(layers, told[:_MOST_TOLD])
    )  # fmt: skip


def _gives(layers: Layers, line_mm: float) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """What `sway` gives for all regions; nothing is laid down narrower than a line."""
    found = moments_of_regions(layers, np.arange(len(layers.region_area_mm2)), layers.box_mm[0])
    least = np.maximum(found.least_mm4(), line_mm**4 / 12)
    lower, upper = layers.touching
    order = np.argsort(upper, kind="stable")
    below_start = np.searchsorted(upper[order], np.arange(len(least) + 1))
    children = np.bincount(lower, minlength=len(least))
    h = layers.layer_height_mm
    return sway(layers.region_layer, below_start, lower[order], children, least, h)


def _tops(layers: Layers, regions: np.ndarray):
    """Regions with the middle of their top."""
    for r in regions.tolist():
        x, y = (float(v) for v in layers.region_center_mm[r])
        yield r, x, y, float(layers.region_layer[r] + 1) * layers.layer_height_mm
