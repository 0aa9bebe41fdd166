"""Thin walls: where a layer is narrower than can be printed."""

import math
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, replace
from itertools import pairwise

import manifold3d
import numpy as np
import shapely

from . import _thin_kernels as _kernels
from ._united import union_of_loops
from .slicing import THREADS, Layers, outlines

__all__ = ["ThinWall", "find_thin_walls", "thin_places_of_layer", "thin_rows", "together"]

# Thin places nearer than this many least walls belong together.
_TOGETHER = 4.0
_MOST_CELLS = 2_000_000
# A ridge runs out thin in its last layer or two; a wall goes on (from memory).
_LEAST_LAYERS = 3
# Thin faces of fewer square least walls are small: a note (from memory).
_SMALL_FACE = 4.0
# Below this many it is a speck (from memory).
_SPECK = 0.25
# Of a stack that may be a link, so many layers are looked at, the narrowest first.
_MOST_ASKED = 5
# A layer is shrunk by this part of the radius, by circles of so many corners, to see whether it
# parts; pieces that meet at a link reach nearer to it than this many radii beyond its length.
_SHRUNK, _ROUND, _MEETS = 0.999, 64, 1.5
# A link nearer to a thin wall than this many least walls is that wall.
_BESIDE = 4.0


@dataclass(frozen=True)
class ThinWall:
    """Thin places that belong together, at their thinnest.

    Attributes
    ----------
    thickness_mm : float
    z_mm : float
    center_mm : (3,) tuple of float
    area_mm2 : float
        The wall's face that is thin, both sides counted once each and halved.
    is_small : bool
        Whether that is less than four square least walls; of a link, whether it is lower than one.
    is_link : bool
        Whether it joins two wider pieces, however short it is.
    """

    thickness_mm: float
    z_mm: float
    center_mm: tuple[float, float, float]
    area_mm2: float
    is_small: bool
    is_link: bool = False


def thin_places_of_layer(layers: Layers, k: int, least_mm: float) -> np.ndarray:
    """Thin places of one layer, (p, 3) float: x, y in the middle of the wall, and thickness."""
    found = _rows(layers, least_mm, layers.is_hole, (k, min(k + 1, layers.count)))
    is_link = found[:, 6] > 0
    is_link[is_link] = ~_parts(layers, k, found[is_link], least_mm)
    found = found[~is_link]
    return np.c_[found[:, :2], np.abs(found[:, 3])]


def _rows(layers: Layers, width_mm: float, is_hole: np.ndarray, ends, every: int = 1) -> np.ndarray:
    return _kernels.thin_places(
        layers.points, layers.loop_start, layers.layer_start, layers.region_of_loop, is_hole,
        layers.loop_area_mm2, layers.heights_mm, width_mm, *ends, every,
    )  # fmt: skip


def thin_rows(layers: Layers, width_mm: float, is_room: bool = False, every: int = 1) -> np.ndarray:
    """Rows of `_thin_kernels.thin_places`, of every ``every``-th layer, on all threads.

    With ``is_room`` those of the room around the material.
    """
    is_hole = ~layers.is_hole if is_room else layers.is_hole
    bounds = np.linspace(0, layers.count, 4 * THREADS + 1).astype(int)
    with ThreadPoolExecutor(THREADS) as pool:
        found = pool.map(
            lambda ends: _rows(layers, width_mm, is_hole, ends, every), pairwise(bounds)
        )
        return np.concatenate(list(found))


def find_thin_walls(layers: Layers, least_mm: float) -> tuple[ThinWall, ...]:
    """What a morphological opening by half the least width takes away, largest first.

    It counts where it reaches more than half the least width beyond what is left, so that plain
    corners of 60 and more are silent. What is thin in one or two layers alone and carries
    nothing, such as the ridge of a roof, is left out; what carries something, such as the wall
    left between two grooves, is not. Where the opening parts a region into pieces, what joined
    them counts however short it is.

    Parameters
    ----------
    layers : Layers
    least_mm : float
    """
    rows = thin_rows(layers, least_mm)
    is_link = rows[:, 6] > 0
    rows, may_link = rows[~is_link], rows[is_link]
    links = _find_links(layers, may_link, least_mm)
    walls = _find_walls(layers, rows, least_mm) if len(rows) else []
    walls = [_as_thin(wall, may_link, least_mm) for wall in walls]
    # A link within a thin wall is that wall, unless that would be small.
    walls = [
        wall
        for wall in walls
        if not wall.is_small or all(_apart(wall, link) > _BESIDE * least_mm for link in links)
    ]
    links = [
        link
        for link in links
        if all(wall.is_small or _apart(wall, link) > _BESIDE * least_mm for wall in walls)
    ]
    return tuple(sorted(walls + links, key=lambda wall: -wall.area_mm2))


def _as_thin(wall: ThinWall, rows: np.ndarray, least_mm: float) -> ThinWall:
    """A wall as thin as what may be a link in it: its width is the least across."""
    apart = np.hypot(*(rows[:, :2] - np.array(wall.center_mm[:2])).T)
    near = (apart <= _BESIDE * least_mm) & (np.abs(rows[:, 2] - wall.z_mm) <= _BESIDE * least_mm)
    thinnest = float(rows[near, 3].min(initial=wall.thickness_mm))
    return replace(wall, thickness_mm=thinnest)


def _apart(one: ThinWall, other: ThinWall) -> float:
    return math.dist(one.center_mm[:2], other.center_mm[:2])


def _find_links(layers: Layers, rows: np.ndarray, least_mm: float) -> list[ThinWall]:
    """What joins pieces that the opening parts, once for each stack of them."""
    if not len(rows):
        return []
    label = together(rows[:, :3], least_mm)
    order = np.argsort(label, kind="stable")
    found = []
    for own in np.split(rows[order], np.flatnonzero(np.diff(label[order])) + 1):
        layer = own[:, 5].astype(int)
        count = len(np.unique(layer))
        # Lobes that meet do so in a layer or two, with nothing below.
        if count < _LEAST_LAYERS and not _carries(
            layers, own[layer == layer.max()], own[layer == layer.min()]
        ):
            continue
        # The narrowest layer that is parted; others are of the same stack.
        for row in own[np.argsort(own[:, 3], kind="stable")][:_MOST_ASKED]:
            if _parts(layers, int(row[5]), row[None], least_mm)[0]:
                tall = count * layers.layer_height_mm
                found.append(ThinWall(
                    float(row[3]), float(row[2]), tuple(float(v) for v in row[:3]),
                    tall * float(row[3]), tall < least_mm, True,
                ))  # fmt: skip
                break
    return found


def _parts(layers: Layers, k: int, rows: np.ndarray, least_mm: float) -> np.ndarray:
    """(p,) bool: whether two pieces of a layer where the least circle fits meet at some places."""
    if not len(rows):
        return np.zeros(0, bool)
    own = union_of_loops(outlines(layers, k))
    radius = least_mm / 2
    shrunk = own.offset(
        -radius * _SHRUNK, manifold3d.JoinType.Round, circular_segments=_ROUND
    ).decompose()
    least = (_SPECK * radius) ** 2 * 1e-3
    places = shapely.points(rows[:, :2])
    meets = np.zeros(len(rows), int)
    for part in shrunk:
        if part.area() > least:
            rim = shapely.MultiLineString([np.r_[loop, loop[:1]] for loop in part.to_polygons()])
            meets += shapely.distance(rim, places) < _MEETS * radius + rows[:, 4] / 2
    return meets > 1


def _find_walls(layers: Layers, rows: np.ndarray, least_mm: float) -> list[ThinWall]:
    """Thin walls, those of a ridge or a speck left out."""
    label = together(rows[:, :3], least_mm)
    order = np.argsort(label, kind="stable")
    found = []
    for own in np.split(rows[order], np.flatnonzero(np.diff(label[order])) + 1):
        layer = own[:, 5].astype(int)
        few = len(np.unique(layer)) < _LEAST_LAYERS
        if few and not _carries(layers, own[layer == layer.max()], own[layer == layer.min()]):
            continue
        across = own[own[:, 3] > 0]
        # Without a wall straight across, as thick as the largest circle that fits there.
        worst = across[np.argmin(across[:, 3])] if len(across) else own[np.argmin(own[:, 3])]
        area = float((across if len(across) else own)[:, 4].sum() * layers.layer_height_mm / 2)
        if area < _SPECK * least_mm**2:
            continue
        found.append(
            ThinWall(
                float(abs(worst[3])),
                float(worst[2]),
                tuple(float(v) for v in worst[:3]),
                area,
                area < (_SMALL_FACE if not few else 1.0) * least_mm**2,
            )
        )
    return found


def together(places: np.ndarray, least_mm: float) -> np.ndarray:
    """Number of the group that each place belongs to, by neighbouring cells of a grid."""
    from scipy import ndimage  # only where it is needed: it takes a while to load

    low = places.min(axis=0)
    span = np.ptp(places, axis=0)
    cell = max(_TOGETHER * least_mm, float(np.prod(span + least_mm) / _MOST_CELLS) ** (1 / 3))
    place = ((places - low) / cell).astype(int)
    grid = np.zeros(place.max(axis=0) + 1, bool)
    grid[tuple(place.T)] = True
    return ndimage.label(grid, np.ones((3, 3, 3)))[0][tuple(place.T)]


def _carries(layers: Layers, top: np.ndarray, bottom: np.ndarray) -> bool:
    """Whether there is material in the layer above the highest and below the lowest places."""
    above, below = int(top[0, 5]) + 1, int(bottom[0, 5]) - 1
    if above >= layers.count or below < 0:
        return False
    return all(
        _is_material(layers, k, place[:, :2].mean(axis=0)) or _is_material(layers, k, place[0, :2])
        for k, place in ((above, top), (below, bottom))
    )


def _is_material(layers: Layers, k: int, point: np.ndarray) -> bool:
    spot = point + 1e-3 * np.array([(-1.0, -1.0), (1.0, -1.0), (1.0, 1.0), (-1.0, 1.0)])
    return (union_of_loops(outlines(layers, k)) ^ union_of_loops([spot])).area() > 2e-6
