"""What holds what stands above every cut, while the nozzle drags at it.

Source: TRADE rules of the house; the section modulus of any handbook of mechanics. A joined file
and a model with its supports are judged alike, by their layers alone.
"""

from dataclasses import dataclass

import numpy as np

from ..layers import SAFE, Layers
from ..mesh.linking import linked
from ._holding_kernels import WAYS, weak_cuts
from .moments import moments_of_regions

__all__ = ["WeakCut", "find_weak_cuts"]

# Cuts above each other are one where the middle of what holds moves by no more than this, mm.
_SAME_MM = 1.0
_MOST = 200


@dataclass(frozen=True)
class WeakCut:
    """A cut that holds less than twice what the drag asks of it, at the height that asks most.

    Attributes
    ----------
    ratio : float
        What it holds over what pushes.
    hold_nmm, push_nmm, lever_mm : float
    z_mm, reached_mm : float
        Height of the cut, and the height up to which it is printed then.
    at_mm : (3,) tuple of float
        Middle of what holds.
    area_mm2 : float
    on_plate : bool
        Whether it is the plate that holds.
    layer : int
    region : int
        One of the regions that hold.
    """

    ratio: float
    hold_nmm: float
    push_nmm: float
    lever_mm: float
    z_mm: float
    reached_mm: float
    at_mm: tuple[float, float, float]
    area_mm2: float
    on_plate: bool
    layer: int
    region: int


def find_weak_cuts(
    layers: Layers, drag_n: float, bond_n_mm2: float, plate_n_mm2: float, absorbed_layers: int,
    ratio: float = SAFE,
) -> tuple[WeakCut, ...]:  # fmt: skip
    """Cuts that hold less than so many times what the drag asks of them, the worst first.

    About every level axis through the middle of what holds there, strength times section modulus
    against drag times the greater of the height above and the distance square to the axis, at
    every time of the print: what is joined above counts from the layer that joins it. What joins
    another stand within ``absorbed_layers``, or has no more above it, is not asked; nor is what
    begins on nothing. How far a group reaches while it grows is taken between its first and last
    layer evenly: an estimate where several meet.

    Parameters
    ----------
    layers : Layers
    drag_n, bond_n_mm2, plate_n_mm2 : float
    absorbed_layers : int
    ratio : float
    """
    if not layers.count or drag_n <= 0 or not len(layers.region_layer):
        return ()
    h, origin = layers.layer_height_mm, layers.box_mm[0]
    n = len(layers.region_layer)
    sums = moments_of_regions(layers, np.arange(n), origin).sums()
    lower, upper = layers.touching
    order = np.argsort(lower, kind="stable")
    pair_start = np.searchsorted(lower[order], np.arange(n + 1))
    angles = 2 * np.pi * np.arange(WAYS) / WAYS
    loops, start = layers.loops_by_region
    rows = weak_cuts(
        layers.points - origin, layers.loop_start, loops, start, layers.layer_regions, pair_start,
        upper[order], layers.standing, sums, np.stack([np.cos(angles), np.sin(angles)], axis=1), h,
        bond_n_mm2, plate_n_mm2, drag_n, absorbed_layers, ratio,
    )  # fmt: skip
    return _told_once(rows, h, origin)


def _same_stack(rows: np.ndarray) -> np.ndarray:
    """Number of the stack that each cut belongs to, by neighbouring layers and middles."""
    wide = _SAME_MM + 0.5 * np.sqrt(rows[:, 7])
    places = np.c_[rows[:, 5:7] / np.median(wide), rows[:, 3] / 2.5]
    if len(rows) < 2:
        return np.zeros(len(rows), int)
    from scipy.spatial import cKDTree  # takes a while to load

    pairs = cKDTree(places).query_pairs(1.0, output_type="ndarray")
    return linked(len(rows), pairs[:, 0], pairs[:, 1])


def _told_once(rows: np.ndarray, h: float, origin: np.ndarray) -> tuple[WeakCut, ...]:
    """Of cuts above each other through the same, up to the same height, the weakest."""
    worst: list[np.ndarray] = []
    if len(rows):
        _, key = np.unique(rows[:, [4, 8]], axis=0, return_inverse=True)
        for number in range(int(key.max()) + 1):
            own = rows[key.ravel() == number]
            label = _same_stack(own)
            order = np.lexsort((own[:, 0], label))
            first = np.flatnonzero(np.diff(label[order], prepend=-1))
            worst += list(own[order[first]])
    worst.sort(key=lambda row: row[0])
    return tuple(
        WeakCut(
            ratio=float(row[0]), hold_nmm=float(row[1]), push_nmm=float(row[2]),
            lever_mm=float(row[9]), z_mm=0.0 if row[8] else float((row[3] + 0.5) * h),
            reached_mm=float((row[4] + 1) * h),
            at_mm=(float(row[5] + origin[0]), float(row[6] + origin[1]), float((row[3] + 0.5) * h)),
            area_mm2=float(row[7]), on_plate=bool(row[8]), layer=int(row[3]), region=int(row[10]),
        )
        for row in worst[:_MOST]
    )  # fmt: skip
