"""Cut a placed model into layers: closed loops, regions and areas of every one.

Layer k spans [k h, (k + 1) h] and is cut at its middle, z = (k + 1/2) h. Its region is what
is inside the model there, by non-zero winding: overlapping bodies count once.
"""

import os
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, replace
from functools import cached_property
from itertools import pairwise

import numpy as np
import shapely

from ..mesh import Mesh
from . import _joining, _kernels, _regions
from ._two import Two
from ._united import united
from .levels import hair_mm, layer_count, levels

__all__ = [
    "Layers",
    "coarser",
    "goes_beyond",
    "layers_beside",
    "layers_together",
    "outline",
    "outline_at",
    "outlines",
    "region_loops",
    "slice_layers",
    "without_straight",
]

# Slicing that reports its progress does so after each of this many blocks of layers.
_BLOCKS = 12
# From so many facets on, starting threads costs less than they save.
_ALONE_BELOW_FACETS = 20_000
ALONE_BELOW_POINTS = 30_000
# Loops are told apart before they are united up to so many times the points of their layer.
_MOST_TOLD_APART = 20_000_000
# What lies above something new is taken over where it is more than so many layers.
_FEW_LAYERS = 4
THREADS = max(1, min(4, os.cpu_count() or 1))


@dataclass(frozen=True, eq=False)
class Layers:
    """Every layer of a model, its loops stored flat.

    Attributes
    ----------
    layer_height_mm : float
    points : (p, 2) float
        Loop points, mm, one loop after another.
    loop_start : (l + 1,) int
        Loop ``i`` is ``points[loop_start[i]:loop_start[i + 1]]``, closed from last to first.
    layer_start : (n + 1,) int
        Layer ``k`` has loops ``layer_start[k]:layer_start[k + 1]``.
    open_chains : int
        Chains that an open mesh left unclosed, here closed by straight lines.
    """

    layer_height_mm: float
    points: np.ndarray
    loop_start: np.ndarray
    layer_start: np.ndarray
    open_chains: int = 0

    @property
    def count(self) -> int:
        """Number of layers."""
        return len(self.layer_start) - 1

    @property
    def heights_mm(self) -> np.ndarray:
        """(n,) float: where each layer is cut."""
        return (np.arange(self.count) + 0.5) * self.layer_height_mm

    @cached_property
    def perimeters_mm(self) -> np.ndarray:
        """Length of all outlines of every layer, (n,) float."""
        if not len(self.points):
            return np.zeros(self.count)
        following = np.arange(1, len(self.points) + 1)
        following[self.loop_start[1:] - 1] = self.loop_start[:-1]
        length = np.linalg.norm(self.points[following] - self.points, axis=1)
        loop = np.add.reduceat(length, self.loop_start[:-1])
        layer = np.repeat(np.arange(self.count), np.diff(self.layer_start))
        bounds = self.region_of_loop >= 0
        return np.bincount(layer[bounds], loop[bounds], self.count)

    @cached_property
    def box_mm(self) -> tuple[np.ndarray, np.ndarray]:
        """Low and high corner of the box around all outlines; zeros where there are none."""
        if not len(self.points):
            return np.zeros(2), np.zeros(2)
        # Axis by axis: NumPy is slow along an axis of two.
        columns = self.points[:, 0], self.points[:, 1]
        return np.array([c.min() for c in columns]), np.array([c.max() for c in columns])

    @cached_property
    def loop_area_mm2(self) -> np.ndarray:
        """(l,) float: signed area of every loop."""
        return self._sizes[0]

    @cached_property
    def loop_box_mm(self) -> np.ndarray:
        """(l, 4) float: x0, y0, x1, y1 of every loop."""
        return self._sizes[1]

    @cached_property
    def _two(self) -> Two | None:
        """What is known of it in two parts; set by `layers_together`."""
        return None

    @cached_property
    def _sizes(self):
        if self._two:
            return self._two.of_loops(lambda part: part._sizes)
        return _kernels.loop_areas_and_boxes(self.points, self.loop_start)

    @cached_property
    def _nesting(self):
        if self._two:
            return self._two.nesting
        points, starts, areas, boxes = (
            self.points, self.loop_start, self.loop_area_mm2, self.loop_box_mm
        )  # fmt: skip

        def nest(layer: np.ndarray) -> tuple:
            return layer, _regions.nest_loops(points, starts, layer, areas, boxes)

        region, is_hole, region_layer = [], [], []
        regions = layers = 0
        for layer, found in _side_by_side(nest, self.layer_start, len(points)):
            own = slice(layer[0], layer[-1])
            number = found[0][own]
            region.append(np.where(number < 0, number, number + regions))
            is_hole.append(found[1][own])
            region_layer.append(found[2] + layers)
            regions += len(found[2])
            layers += len(layer) - 1
        return tuple(np.concatenate(one) for one in (region, is_hole, region_layer))

    @property
    def region_of_loop(self) -> np.ndarray:
        """(l,) int: the connected region that a loop bounds, -1 for loops inside material."""
        return self._nesting[0]

    @property
    def is_hole(self) -> np.ndarray:
        """(l,) bool: whether a loop is a hole of its region."""
        return self._nesting[1]

    @property
    def region_layer(self) -> np.ndarray:
        """(r,) int: layer of every region, ascending."""
        return self._nesting[2]

    @cached_property
    def _region_sums(self):
        if self._two:
            return self._two.of_regions(lambda part: part._region_sums)
        return _regions.region_sums(
            self.points, self.loop_start, self.region_of_loop, self.is_hole,
            self.loop_area_mm2, len(self.region_layer),
        )  # fmt: skip

    @property
    def region_area_mm2(self) -> np.ndarray:
        """(r,) float: area of every region, holes taken off."""
        return self._region_sums[0]

    @property
    def region_center_mm(self) -> np.ndarray:
        """(r, 2) float: centroid of every region."""
        return self._region_sums[1]

    @cached_property
    def loops_by_region(self) -> tuple[np.ndarray, np.ndarray]:
        """Loops region by region, outline first, and where those of each region begin."""
        return _regions.loops_of_regions(self.region_of_loop, self.is_hole, len(self.region_layer))

    @cached_property
    def layer_regions(self) -> np.ndarray:
        """(n + 1,) int: layer ``k`` has regions ``layer_regions[k]:layer_regions[k + 1]``."""
        return _regions.layer_bounds(self.region_layer, self.count)

    @cached_property
    def touching(self) -> tuple[np.ndarray, np.ndarray]:
        """(p,) int twice: lower and upper region of all pairs that have a point in common."""
        points, starts, boxes = self.points, self.loop_start, self.loop_box_mm
        loops, start = self.loops_by_region

        def pairs(layer: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
            return _joining.touching_pairs(points, starts, loops, start, boxes, layer)

        if self._two:
            top = self._two.top
            seam = pairs(self.layer_regions[max(top - 1, 0) : top + 2])
            found = [self._two.low.touching, seam, self._two.touching_above]
        else:
            found = _side_by_side(pairs, self.layer_regions, len(points), overlap=1)
        return tuple(np.concatenate(side) for side in zip(*found, strict=True))

    @cached_property
    def standing(self) -> np.ndarray:
        """(r,) bool: regions below which there is something all the way down to the plate."""
        lower, upper = self.touching
        stands = np.zeros(len(self.region_layer), np.bool_)
        stands[: self.layer_regions[1] if self.count else 0] = True
        order = np.argsort(upper, kind="stable")
        _joining.spread_up(lower[order], upper[order], stands)
        return stands

    @cached_property
    def area_mm2(self) -> np.ndarray:
        """(n,) float: area of every layer."""
        return np.bincount(self.region_layer, self.region_area_mm2, self.count)[: self.count]


def slice_layers(
    mesh: Mesh,
    layer_height_mm: float,
    progress: Callable[[str, float], None] | None = None,
) -> Layers:
    """Cut a placed mesh at the middle of every layer.

    Parameters
    ----------
    mesh : Mesh
        Standing on or above z = 0.
    layer_height_mm : float
    progress : callable, optional
        Called with the stage's name and the part done between blocks of layers; may raise
        to stop.

    Returns
    -------
    Layers
        Loops have the material on their left. Where loops cross or touch (overlapping
        bodies, surfaces that meet), they are replaced by the outline of their union.

    Raises
    ------
    PrintabilityError
        If the model is taller than `MAX_LAYERS` layers.
    """
    top = float(mesh.vertices[:, 2].max(initial=0.0))
    count = layer_count(top, layer_height_mm)
    heights = (np.arange(count) + 0.5) * layer_height_mm
    twin = mesh.twin
    hair = hair_mm(layer_height_mm, top, mesh.grain_mm)
    level = levels(mesh.vertices[:, 2], layer_height_mm, hair)

    def cut(block: np.ndarray) -> Layers:
        first = round(block[0] / layer_height_mm - 0.5)
        found = _kernels.slice_facets(mesh.vertices, mesh.facets, twin, level, first, block)
        return with_unions(Layers(layer_height_mm, *found))

    if progress:
        blocks = []
        for block in np.array_split(heights, min(_BLOCKS, max(count, 1))):
            if len(block):
                progress(f"Slicing from z = {block[0]:.1f} mm", 0.1 + 0.6 * block[0] / top)
                blocks.append(cut(block))
    elif len(mesh.facets) < _ALONE_BELOW_FACETS or count < 2 * THREADS:
        blocks = [cut(heights)] if count else []
    else:  # the kernels let go of the interpreter, so blocks are cut side by side
        with ThreadPoolExecutor(THREADS) as pool:
            blocks = list(pool.map(cut, np.array_split(heights, THREADS)))
    return _stacked(layer_height_mm, blocks)


def _side_by_side(work: Callable, bounds: np.ndarray, points: int, overlap: int = 0) -> list:
    """What a kernel finds in blocks of layers, lowest first, on all threads where it is much.

    ``bounds`` says where each layer begins, and ends with the end; the kernel is given a part of
    it. With ``overlap``, a block begins so many layers early.
    """
    count = len(bounds) - 1
    if points < ALONE_BELOW_POINTS or count < 4 * THREADS:
        return [work(bounds)]
    # By what is in them: supports make many loops in the lower layers and none above.
    share = (bounds - bounds[0]) / max(bounds[-1] - bounds[0], 1) + np.arange(count + 1) / count
    cuts = np.unique(np.searchsorted(share, np.linspace(0, share[-1], 4 * THREADS + 1)))
    blocks = [bounds[max(a - overlap, 0) : b + 1] for a, b in pairwise(cuts)]
    with ThreadPoolExecutor(THREADS) as pool:
        return list(pool.map(work, blocks))


def _stacked(layer_height_mm: float, blocks: list[Layers]) -> Layers:
    """Blocks of layers, lowest first, as one."""
    if len(blocks) == 1:
        return blocks[0]
    loop_start, layer_start = [np.zeros(1, np.int64)], [np.zeros(1, np.int64)]
    for part in blocks:
        loop_start.append(part.loop_start[1:] + loop_start[-1][-1])
        layer_start.append(part.layer_start[1:] + layer_start[-1][-1])
    return Layers(
        layer_height_mm,
        np.concatenate([np.zeros((0, 2)), *(part.points for part in blocks)]),
        np.concatenate(loop_start),
        np.concatenate(layer_start),
        sum(part.open_chains for part in blocks),
    )


def layers_together(first: Layers, *others: Layers) -> Layers:
    """The layers of several models that stand in one place; overlaps count once.

    The number of layers is the first one's; all must have the same layer height.
    """
    top = max((_top_of(one) for one in others), default=0)
    if top >= first.count - _FEW_LAYERS:
        found = layers_beside(first, [first, *others])
        return first if found is first else with_unions(found)
    if not top:
        return first
    # Above the others it is as it was, and what is known of it stays.
    low = _layers_between(first, 0, top)
    low = with_unions(layers_beside(low, [low, *others]))
    at = first.layer_start[top]
    start = first.loop_start[at]
    found = Layers(
        first.layer_height_mm,
        np.concatenate([low.points, first.points[start:]]),
        np.concatenate([low.loop_start, first.loop_start[at + 1 :] - start + len(low.points)]),
        np.concatenate([low.layer_start[:top], first.layer_start[top:] - at + low.layer_start[-1]]),
        low.open_chains,
    )
    found.__dict__["_two"] = Two(low, first, top)
    return found


def _top_of(layers: Layers) -> int:
    """How many layers there are up to the last that has anything."""
    return int(np.searchsorted(layers.layer_start, layers.layer_start[-1]))


def goes_beyond(layers: Layers, loops: np.ndarray, others: np.ndarray, far_mm: float) -> np.ndarray:
    """Whether loops have a corner farther than that outside of others, (p,) int each.

    It takes the product of their points; where that is large, they are said to.
    """
    return _joining.goes_beyond(layers.points, layers.loop_start, loops, others, far_mm)


def without_straight(layers: Layers) -> Layers:
    """The same without points in straight parts of outlines, as cuts through facets of a flat
    side leave them; nothing moves by more than a millionth of a millimetre."""
    found = _regions.without_straight(layers.points, layers.loop_start, 1e-6)
    return replace(layers, points=found[0], loop_start=found[1])


def coarser(layers: Layers, by_mm: float) -> Layers:
    """The same with fewer points, outlines off by no more than that (Douglas & Peucker 1973)."""
    found = [layers.points[a:b] for a, b in pairwise(layers.loop_start)]
    for i, loop in enumerate(found):
        if len(loop) > 3:
            # Where a ring begins is left out afterwards, and may be off by as much again.
            ring = shapely.LinearRing(loop).simplify(by_mm / 2, preserve_topology=False)
            points = shapely.get_coordinates(ring)[:-1]
            found[i] = points if len(points) > 2 else loop  # one that falls together stays
    ends = np.cumsum([len(loop) for loop in found])
    return replace(
        layers,
        points=np.ascontiguousarray(np.concatenate([np.zeros((0, 2)), *found])),
        loop_start=np.concatenate([[0], ends]).astype(np.int64),
    )


def _layers_between(layers: Layers, first: int, end: int) -> Layers:
    """The same with nothing but layers ``first`` to before ``end``; their numbers stay."""
    bounds = layers.layer_start[np.clip([first, end], 0, layers.count)]
    a, b = layers.loop_start[bounds]
    return Layers(
        layers.layer_height_mm,
        layers.points[a:b],
        layers.loop_start[bounds[0] : bounds[1] + 1] - a,
        np.clip(layers.layer_start, *bounds) - bounds[0],
        layers.open_chains,
    )


def layers_beside(first: Layers, parts: list[Layers]) -> Layers:
    """The layers of several models with the loops of each as they are, whatever overlaps.

    The number of layers is that of ``first``, which is one of them.
    """
    parts = [one for one in parts if one is first or len(one.points)]
    if len(parts) == 1:
        return first
    n = first.count
    counts = np.stack([_loops_per_layer(part, n) for part in parts], axis=1)
    base = np.concatenate([[0], np.cumsum([len(part.points) for part in parts])])
    own = [np.arange(count) for count in counts.sum(axis=0)]  # loops are in order of layers
    start = np.concatenate(
        [part.loop_start[loops] + at for part, loops, at in zip(parts, own, base, strict=False)]
    )
    length = np.concatenate(
        [np.diff(part.loop_start)[loops] for part, loops in zip(parts, own, strict=True)]
    )
    layer = np.concatenate([np.repeat(np.arange(n), counts[:, i]) for i in range(len(parts))])
    order = np.argsort(layer, kind="stable")  # within a layer, the first one's come first
    points = np.concatenate([part.points for part in parts])
    return Layers(
        first.layer_height_mm,
        *_kernels.gathered(points, start[order], length[order]),
        np.concatenate([[0], np.cumsum(counts.sum(axis=1))]).astype(int),
        sum(part.open_chains for part in parts),
    )


def outlines(layers: Layers, k: int) -> list[np.ndarray]:
    """Loops that bound layer ``k``: outlines counter-clockwise, holes clockwise, (n, 2) each."""
    first, end = layers.layer_start[k : k + 2].tolist()
    bounds = np.flatnonzero(layers.region_of_loop[first:end] >= 0) + first
    return [outline(layers, loop) for loop in bounds.tolist()]


def outline(layers: Layers, loop: int) -> np.ndarray:
    """One of the loops that bound layers, as `outlines` gives it."""
    points = layers.points[layers.loop_start[loop] : layers.loop_start[loop + 1]]
    forwards = (layers.loop_area_mm2[loop] > 0) != layers.is_hole[loop]
    return points if forwards else points[::-1]


def outline_at(mesh: Mesh, z_mm: float, layer_height_mm: float) -> list[np.ndarray]:
    """Outlines of a placed mesh at one height, (n, 2) each, overlaps counted once."""
    return outlines(section_at(mesh, z_mm, layer_height_mm), 0)


def section_at(mesh: Mesh, z_mm: float, layer_height_mm: float = 1.0) -> Layers:
    """One layer: what a level plane cuts, overlaps counted once."""
    hair = hair_mm(layer_height_mm, float(np.abs(mesh.vertices[:, 2]).max()), mesh.grain_mm)
    above = (mesh.vertices[:, 2] >= z_mm - hair).astype(np.int32)
    found = _kernels.slice_facets(
        mesh.vertices, mesh.facets, mesh.twin, above, 0, np.array([float(z_mm)])
    )
    return with_unions(Layers(layer_height_mm, *found))


def region_loops(layers: Layers, region: int) -> list[np.ndarray]:
    """Outline and holes of one region, (n, 2) each."""
    loops, start = layers.loops_by_region
    own = loops[start[region] : start[region + 1]]
    return [layers.points[layers.loop_start[i] : layers.loop_start[i + 1]] for i in own]


def _loops_per_layer(layers: Layers, count: int) -> np.ndarray:
    loops = np.diff(layers.layer_start)[:count]
    return np.pad(loops, (0, count - len(loops)))


def with_unions(layers: Layers) -> Layers:
    """Replace the loops of layers in which they cross or touch by the union's outline."""
    crossing = np.concatenate(
        _side_by_side(
            lambda part: _kernels.layers_with_crossings(layers.points, layers.loop_start, part),
            layers.layer_start, len(layers.points),
        )
    )  # fmt: skip
    if not crossing.any():
        return layers
    points, starts, bounds = layers.points, layers.loop_start, layers.layer_start
    group = _regions.loops_to_unite(points, starts, bounds, crossing, _MOST_TOLD_APART)
    layer = np.repeat(np.arange(layers.count), np.diff(bounds))
    stay, crossed = np.flatnonzero(group == -1), np.flatnonzero(group >= 0)
    crossed = crossed[np.argsort(group[crossed], kind="stable")]  # of a layer, and of a group
    made, made_in = [points], []
    for own in np.split(crossed, np.flatnonzero(np.diff(group[crossed])) + 1):
        if len(own):
            union = united([points[starts[i] : starts[i + 1]] for i in own.tolist()])
            made += union
            made_in += [int(layer[own[0]])] * len(union)
    ends = np.cumsum([len(loop) for loop in made], dtype=np.int64)
    begin = np.concatenate([starts[stay], ends[:-1]])
    length = np.concatenate([np.diff(starts)[stay], np.diff(ends)])
    layer = np.concatenate([layer[stay], np.array(made_in, int)])
    order = np.argsort(layer, kind="stable")
    return Layers(
        layers.layer_height_mm,
        *_kernels.gathered(np.concatenate(made), begin[order], length[order]),
        np.searchsorted(layer[order], np.arange(layers.count + 1)),
        layers.open_chains,
    )
