"""Where a print tears off: the least cut between a layer and the plate, against the pull at it."""

import hashlib
from collections import OrderedDict
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from threading import Lock

import numpy as np

from ..mesh.linking import linked
from . import _overlap_kernels, _tearing
from ._united import union_of_loops
from .slicing import THREADS, Layers, region_loops

__all__ = ["SAFE", "SPECK_MM2", "Tear", "find_tears", "ties_mm2", "torn_regions"]

# What should hold is asked to hold this many times the pull (common practice, no source).
SAFE = 2.0
# Regions smaller than this are not looked at by themselves, mm2 (from memory).
SPECK_MM2 = 0.1
# Regions that lie on each other, but for less than this part of the smaller one, tie by all of it.
_SHIFTED = 0.02
# Pairs of which so few edges might meet are intersected strip by strip; of others only so many,
# then the smaller one's area is taken.
_FEW, _MOST_PAIRS, _ALONE_BELOW_PAIRS = 12_000, 20_000, 1_000


# Areas in common by the outlines of both: the search for supports looks at the same layers over
# and over, with a few supports more or less.
_SHARED: OrderedDict[tuple[bytes, bytes], float] = OrderedDict()
_MOST_SHARED, _GUARD = 100_000, Lock()


@dataclass(frozen=True)
class Tear:
    """A cut through what is built, below a layer that pulls harder than half of what it bears.

    Attributes
    ----------
    layer : int
        The layer that pulls.
    z_mm : float
    hold_n, pull_n : float
        What the cut bears, and the pull at what it would tear off.
    cut_mm2 : float
        Area of the ties that are cut.
    ties : int
        How many they are.
    on_plate : bool
        Whether the piece lets go of the plate itself.
    at_mm : (3,) tuple of float
        Middle of the ties that are cut, by area.
    places_mm : tuple of (3,) tuple of float
        Of each tie, the largest first.
    cut : tuple of int
        Those ties: numbers of pairs that touch, or -1 - region for one on the plate.
    torn : tuple of int
        Regions of the layer that it tears off.
    """

    layer: int
    z_mm: float
    hold_n: float
    pull_n: float
    cut_mm2: float
    ties: int
    on_plate: bool
    at_mm: tuple[float, float, float]
    places_mm: tuple[tuple[float, float, float], ...]
    cut: tuple[int, ...]
    torn: tuple[int, ...]

    @property
    def lowest_mm(self) -> float:
        """Height of the lowest tie that is cut."""
        return min(place[2] for place in self.places_mm)


def ties_mm2(layers: Layers) -> np.ndarray:
    """(p,) float: area that the regions of each pair of `Layers.touching` have in common.

    Where one follows the other with next to no shift it is the smaller one's; else they are
    intersected. Of more than 20,000 such pairs of many edges a bound stands for the rest: the
    smaller area, less what the shift takes at most.
    """
    lower, upper = layers.touching
    area = layers.region_area_mm2
    least = np.minimum(area[lower], area[upper])
    loops, start = layers.loops_by_region
    box = layers.loop_box_mm[loops[start[:-1]]]
    wide = np.minimum(box[lower, 2:] - box[lower, :2], box[upper, 2:] - box[upper, :2])
    shift = np.abs(layers.region_center_mm[lower] - layers.region_center_mm[upper])
    # A shift takes at most its way times the width across it.
    lost = (shift * wide[:, ::-1]).sum(axis=1)
    count = len(area)
    single = (np.bincount(upper, minlength=count)[upper] == 1) & (
        np.bincount(lower, minlength=count)[lower] == 1
    )
    in_doubt = np.flatnonzero(~single | (lost > _SHIFTED * least))
    shared = _shared_by_strips(layers, lower[in_doubt], upper[in_doubt])
    few = shared >= 0
    least[in_doubt[few]] = np.minimum(least[in_doubt[few]], shared[few])
    in_doubt = in_doubt[~few]
    for p in in_doubt[:_MOST_PAIRS].tolist():
        pair = [region_loops(layers, int(r)) for r in (lower[p], upper[p])]
        least[p] = min(least[p], _shared_mm2(*pair))
    rest = in_doubt[_MOST_PAIRS:]
    least[rest] = np.maximum(least[rest] - np.where(single[rest], lost[rest], 0.0), 0.0)
    return least


def _shared_by_strips(layers: Layers, lower: np.ndarray, upper: np.ndarray) -> np.ndarray:
    """Areas in common of pairs of regions, (p,) float; -1 for those of many edges."""
    loops, start = layers.loops_by_region

    def some(block: np.ndarray) -> np.ndarray:
        return _overlap_kernels.shared_areas(
            layers.points, layers.loop_start, loops, start, lower[block], upper[block], _FEW
        )

    every = np.arange(len(lower))
    if len(every) < _ALONE_BELOW_PAIRS:
        return some(every)
    with ThreadPoolExecutor(THREADS) as pool:
        return np.concatenate(list(pool.map(some, np.array_split(every, THREADS))))


def _shared_mm2(one: list[np.ndarray], other: list[np.ndarray]) -> float:
    """The area that two regions have in common, by their loops."""
    key = _name_of(one), _name_of(other)
    with _GUARD:
        known = _SHARED.get(key)
    if known is not None:
        return known
    area = (union_of_loops(one) ^ union_of_loops(other)).area()
    with _GUARD:
        _SHARED[key] = area
        while len(_SHARED) > _MOST_SHARED:
            _SHARED.popitem(last=False)
    return area


def _name_of(loops: list[np.ndarray]) -> bytes:
    name = hashlib.blake2b(digest_size=16)
    for loop in loops:
        name.update(len(loop).to_bytes(8, "little"))
        name.update(np.ascontiguousarray(loop))
    return name.digest()


def find_tears(
    layers: Layers, green_n_mm2: float, plate_n_mm2: float, pull_n_mm2: float
) -> tuple[Tear, ...]:
    """Where less than twice the pull at a layer holds it to the plate, the worst first.

    Regions of consecutive layers are tied by the area in which they lie on each other, those of
    the first layer to the plate; all regions of a layer pull at once, and it tears at the cut of
    the least hold over pull (max-flow, min-cut: Ford & Fulkerson 1956). What hangs together with
    nothing below is an island and told as one. Of each layer the worst cut counts, then the worst
    for what that one does not tear off, and so on; of cuts through the same tie the worst is told.

    Parameters
    ----------
    layers : Layers
        With supports.
    green_n_mm2, plate_n_mm2, pull_n_mm2 : float
        What a section bears, what a unit of area bears on the plate, and the film's pull.
    """
    if not len(layers.region_layer) or not pull_n_mm2:
        return ()
    lower, upper = (np.ascontiguousarray(side, np.int64) for side in layers.touching)
    area = np.ascontiguousarray(layers.region_area_mm2)
    tie = ties_mm2(layers)
    cut_layer, hold, pull, start, weak, torn_start, torn = _tearing.least_cuts(
        np.ascontiguousarray(layers.region_layer, np.int64), area, lower, upper,
        green_n_mm2 * tie, plate_n_mm2, pull_n_mm2, SAFE, SPECK_MM2, _tearing.EVERY,
    )  # fmt: skip
    h = layers.layer_height_mm
    # Ties, then regions on the plate: how large, which region tells where, and how high.
    thinner = np.where(area[lower] < area[upper], lower, upper)
    size = np.concatenate([tie, area])
    region = np.concatenate([thinner, np.arange(len(area))])
    height = np.where(np.arange(len(size)) < len(tie), layers.region_layer[region] + 0.5, 0.0) * h
    place = np.column_stack([layers.region_center_mm[region], height])
    taken = np.zeros(len(size), bool)
    found = []
    for c in np.argsort(np.round(hold / pull, 9), kind="stable"):
        ties = weak[start[c] : start[c + 1]]
        number = np.where(ties >= 0, ties, len(tie) - 1 - ties)
        if taken[number].any():
            continue
        taken[number] = True
        order = number[np.argsort(-size[number], kind="stable")]
        middle = (place[order] * size[order, None]).sum(axis=0) / max(size[order].sum(), 1e-300)
        k = int(cut_layer[c])
        tear = Tear(
            k, (k + 0.5) * h, float(hold[c]), float(pull[c]), float(size[order].sum()), len(ties),
            bool((ties < 0).all()), tuple(middle.tolist()),
            tuple(map(tuple, place[order].tolist())), tuple(ties.tolist()),
            tuple(torn[torn_start[c] : torn_start[c + 1]].tolist()),
        )  # fmt: skip
        found.append(tear)
    return tuple(found)


def torn_regions(layers: Layers, tear: Tear) -> np.ndarray:
    """(t,) int: all regions up to the layer that pulls which a cut tears off, ascending."""
    lower, upper = layers.touching
    stays = np.ones(len(lower), bool)
    stays[[p for p in tear.cut if p >= 0]] = False
    stays &= layers.region_layer[upper] <= tear.layer
    count = len(layers.region_layer)
    part = linked(count, lower[stays], upper[stays])
    return np.flatnonzero(np.isin(part, part[list(tear.torn)]))
