"""Score many directions of down on all goals, without turning or slicing the model."""

import math
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from functools import cached_property
from typing import TYPE_CHECKING

import numpy as np

from ..layers import hair_mm, layer_count
from ..layers.growth import NOTABLE_PART
from ..mesh import FacetIndex, Mesh, coarser, facet_areas, facet_normals, union_of_bodies
from ..process import Process
from ..surface import SHOW, SLOPE_TOLERANCE_DEG
from . import _kernels, _many_kernels, _outline_kernels
from .directions import Face, faces_to_stand_on
from .goals import GOALS

if TYPE_CHECKING:
    from scipy.spatial import ConvexHull

__all__ = ["Scorer"]

COLUMNS = 72
THREADS = 2
_CHUNK = 16
# Meshes of more facets than this are ranked by a copy of so many.
RANKED_BY_COPY_ABOVE, COPY_FACETS, COPY_COLUMNS = 24_000, 10_000, 48
# What the copy answers; all else is of the mesh itself.
_OF_COPY = {
    "volume": _kernels.VOLUME, "islands": _kernels.ISLANDS, "peak": _kernels.PEAK,
    "growth": _kernels.GRIP,
}  # fmt: skip


class Scorer:
    """A model made ready to be scored; the same for every threshold and direction.

    Parameters
    ----------
    shape : Mesh
        In mm, scaled, not turned.
    process : Process
    threshold_deg : float
    lift_mm : float
        How far its lowest point is held above the plate.
    sides : (m,) uint8, optional
        Painted sides, see `painted_sides`.
    columns : int
        Across the longer side, by which support volume is estimated.

    Notes
    -----
    A direction is a unit vector of the model that points straight down. Layers and islands
    are those of the bodies' union, by formula (see `_kernels`). Grip takes all undersides
    between two cuts for hanging, which is exact but for features thinner than a layer.
    """

    def __init__(
        self,
        shape: Mesh,
        process: Process,
        threshold_deg: float,
        lift_mm: float = 0.0,
        sides: np.ndarray | None = None,
        columns: int = COLUMNS,
    ):
        self.columns = columns
        layer_count(float(np.linalg.norm(shape.size_mm)), process.layer_height_mm)
        self.shape = shape
        self.process = process
        self.threshold_deg = threshold_deg
        self.lift_mm = lift_mm
        self.sides = sides
        has_show = sides is not None and bool((sides == SHOW).any())
        self.shown = np.ascontiguousarray(sides == SHOW) if has_show else np.zeros(0, np.bool_)
        self.normals = facet_normals(shape)
        self.areas = facet_areas(shape)
        union = union_of_bodies(shape)
        self.is_closed = union is not None
        self.solid = shape if union is None else union
        self.solid_normals = self.normals if self.solid is shape else facet_normals(self.solid)
        self.solid_areas = self.areas if self.solid is shape else facet_areas(self.solid)

    @property
    def estimated(self) -> frozenset[str]:
        """Goals whose scores are estimates; all that layers decide where the mesh is open."""
        layered = {"peak", "start", "footing"} if not self.is_closed else set()
        return frozenset({key for key, goal in GOALS.items() if goal.is_estimate} | layered)

    def islands_at(self, down: np.ndarray) -> np.ndarray:
        """Islands of a direction: rows of vertex of the solid, first layer, layers it lasts."""
        h = self.process.layer_height_mm
        vertices = self._near(self.solid.vertices)
        down = np.ascontiguousarray(down, np.float64)
        z = -(vertices @ down)
        shift = self.lift_mm - float(z.min())
        top = float(z.max()) + shift
        index = self._index
        return _kernels.island_lives(
            z, shift, *self.neighbours, self.outward, down, h, hair_mm(h, top, self.shape.grain_mm),
            layer_count(top, h), vertices, self.solid.facets, index.order, index.box,
            index.first_leaf,
        )  # fmt: skip

    @cached_property
    def _origin(self) -> np.ndarray:
        """The model's middle: far from it digits would be lost."""
        return (self.shape.low_mm + self.shape.high_mm) / 2

    def _near(self, points: np.ndarray) -> np.ndarray:
        return np.ascontiguousarray(points - self._origin)

    @cached_property
    def _index(self) -> FacetIndex:
        return FacetIndex(self._near(self.solid.vertices), self.solid.facets)

    def broad_face_slope_deg(self, down: np.ndarray) -> float | None:
        """Slope to the plate of the broad face of a slab; None where there is no such face.

        It is one that is a quarter of the hull's surface or more, as each of a slab's two is.
        """
        if self._broad_face is None:
            return None
        cos = abs(float(np.dot(self._broad_face, down)))
        return math.degrees(math.acos(min(cos, 1.0)))

    @cached_property
    def _broad_face(self) -> np.ndarray | None:
        if not self.faces:
            return None
        from scipy.spatial import ConvexHull  # takes a while to load

        whole = ConvexHull(self.hull_mm).area
        broad = self.faces[0]
        return np.array(broad.down) if broad.area_mm2 >= 0.25 * whole else None

    @cached_property
    def faces(self) -> list[Face]:
        """Faces to stand on, the largest first."""
        hull = self._hull
        if hull is None:
            return []
        return faces_to_stand_on(hull, self.middle_mm - self._origin)

    @cached_property
    def _hull(self) -> "ConvexHull | None":
        """Of the model, moved near the origin; None where it has no volume."""
        from scipy.spatial import ConvexHull, QhullError

        try:
            return ConvexHull(self._near(self.shape.vertices))
        except (QhullError, ValueError):
            return None

    @cached_property
    def hull_mm(self) -> np.ndarray:
        """(k, 3) float: corners of the convex hull."""
        points = self.shape.vertices
        return points if self._hull is None else np.ascontiguousarray(points[self._hull.vertices])

    @cached_property
    def _outline(self) -> tuple[np.ndarray, ...]:
        """Normals (m, 3) of the hull's facets, their corners in `hull_mm`, and those beside.

        And the middle (b, 3) and radius (b,) of the normals of blocks of them, those beside
        included.
        """
        hull = self._hull
        if hull is None:
            nothing = np.zeros((0, 3), np.int32)
            return np.zeros((0, 3)), nothing, nothing, np.zeros((0, 3)), np.zeros(0)
        number = np.zeros(len(self.shape.vertices), np.int32)
        number[hull.vertices] = np.arange(len(hull.vertices))
        # In an order in which those that face alike follow each other, block by block.
        normals = hull.equations[:, :3]
        order = np.lexsort(np.round(16 * normals).T)
        place = np.empty(len(order), np.int32)
        place[order] = np.arange(len(order))
        normals = np.ascontiguousarray(normals[order])
        corners = np.ascontiguousarray(number[hull.simplices[order]])
        beside = np.ascontiguousarray(place[hull.neighbors[order]])
        return normals, corners, beside, *_outline_kernels.blocks_of(normals, beside)

    @cached_property
    def middle_mm(self) -> np.ndarray:
        """(3,) float: centre of mass of the solid."""
        near = self._near(self.solid.vertices)
        a, b, c = (near[self.solid.facets[:, i]] for i in range(3))
        volume = np.einsum("ij,ij->i", a, np.cross(b, c))
        total = volume.sum()
        if abs(total) < 1e-12:
            return self.solid.vertices.mean(axis=0)
        return self._origin + ((a + b + c) * volume[:, None]).sum(axis=0) / (4 * total)

    @cached_property
    def neighbours(self) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
        """Vertices that an edge of the solid joins to each, see `neighbours_of`."""
        solid = self.solid
        return _kernels.neighbours_of(len(solid.vertices), solid.facets, solid.twin)

    @cached_property
    def outward(self) -> np.ndarray:
        """(n, 3) float: normals of the vertices, each facet weighed by its angle there.

        Their sign tells which side of a lowest point the material is on (Baerentzen and
        Aanaes 2005, from memory).
        """
        return _many_kernels.outward_of(
            self._near(self.solid.vertices), self.solid.facets, self.solid_normals
        )

    @cached_property
    def _points(self) -> tuple[np.ndarray, np.ndarray]:
        """Corners of the shape and of the solid, moved near the origin."""
        solid = self._near(self.solid.vertices)
        return solid if self.solid is self.shape else self._near(self.shape.vertices), solid

    @cached_property
    def _limits(self) -> tuple[float, np.ndarray]:
        """Cosines beyond which an underside overhangs, and between which a slope is rough."""
        rule = self.process
        limit = math.cos(math.radians(self.threshold_deg - SLOPE_TOLERANCE_DEG))
        return limit, np.cos(np.radians([rule["rough_from_deg"], rule["rough_to_deg"]]))

    @cached_property
    def _given(self) -> tuple:
        """What the kernel needs of the model and the process."""
        rule = self.process
        shape, solid = self._points
        offsets = np.einsum("ij,ij->i", self.solid_normals, solid[self.solid.facets[:, 0]])
        model = (
            shape, self.shape.facets, self.normals, self.areas, self.shown, *self.neighbours,
            self.outward, solid, self.solid.facets, self.solid_normals, self.solid_areas, offsets,
            self._near(self.hull_mm), self._outline, self.middle_mm - self._origin,
            self.solid is self.shape, self._index.order, self._index.box, self._index.first_leaf,
        )  # fmt: skip
        numbers = (
            float(self.lift_mm), rule.layer_height_mm, self.shape.grain_mm, *self._limits,
            rule["absorbed_layers"], NOTABLE_PART, np.array(rule.build_volume_mm),
            rule["spacing_mm"],
        )  # fmt: skip
        return model, numbers

    def prepare(self) -> None:
        """Make ready what `rank` and `faces` need of a fine mesh: its copy beside all else."""
        if "coarse" in self.__dict__ or len(self.shape.facets) <= RANKED_BY_COPY_ABOVE:
            return
        with ThreadPoolExecutor(1) as pool:
            rest = pool.submit(lambda: (self._many, self.faces))
            _ = self.coarse
            rest.result()

    def score(
        self,
        downs: np.ndarray,
        with_volume: bool = True,
        progress: Callable[[float], None] | None = None,
    ) -> np.ndarray:
        """Score directions.

        Parameters
        ----------
        downs : (d, 3) float
            Unit vectors of the model that point straight down.
        with_volume : bool
            Whether support volume is estimated too; NaN where not.
        progress : callable, optional
            Called with the part done; may raise to stop.

        Returns
        -------
        (d, 11) float
            One row a direction, columns as in `GOALS`.
        """
        downs = np.ascontiguousarray(downs, np.float64).reshape(-1, 3)
        rows = np.full((len(downs), _kernels.COUNT), np.nan)
        model, numbers = self._given

        def block(part: slice) -> None:
            _kernels.score_rows(*model, downs[part], *numbers, rows[part])
            if with_volume:
                self._fill_volumes(downs, rows, range(*part.indices(len(downs))))

        _on_both_cores(block, len(downs), progress)
        return rows

    def fill_volumes(self, downs: np.ndarray, rows: np.ndarray, which: np.ndarray) -> None:
        """Fill in the support volume of some rows of (d, 11)."""
        _on_both_cores(
            lambda part: self._fill_volumes(downs, rows, which[part].tolist()), len(which), None
        )

    def rank(
        self,
        downs: np.ndarray,
        with_volume: bool = True,
        progress: Callable[[float], None] | None = None,
    ) -> np.ndarray:
        """Score directions to choose among them: the same, quicker for a fine mesh.

        Overhang, finish, marks, height, first layer, footing and copies are exact. Islands,
        layers and supports are those of a copy with fewer facets; `map_estimated` names them.

        Parameters and result as of `score`.
        """
        self.prepare()
        if self.coarse is None:
            return self.score(downs, with_volume, progress)
        downs = np.ascontiguousarray(downs, np.float64).reshape(-1, 3)
        rows = self.coarse.score(
            downs, with_volume, None if progress is None else lambda done: progress(0.7 * done)
        )
        self.fill_exact(
            downs, rows, None if progress is None else lambda done: progress(0.7 + 0.3 * done)
        )
        return rows

    def fill_exact(
        self,
        downs: np.ndarray,
        rows: np.ndarray,
        progress: Callable[[float], None] | None = None,
    ) -> None:
        """Fill in (d, 11) rows what needs neither layers nor islands, for very many directions."""
        model, numbers = self._many

        def block(part: slice) -> None:
            _many_kernels.many_rows(*model, downs[part], *numbers, rows[part])

        _on_both_cores(block, len(downs), progress)

    @cached_property
    def coarse(self) -> "Scorer | None":
        """Of a copy with fewer facets; None where the mesh is not fine."""
        if len(self.shape.facets) <= RANKED_BY_COPY_ABOVE:
            return None
        copy = coarser(self.solid, COPY_FACETS)
        if len(copy.facets) > len(self.solid.facets) / 2:
            return None
        return Scorer(copy, self.process, self.threshold_deg, self.lift_mm, columns=COPY_COLUMNS)

    @property
    def map_estimated(self) -> frozenset[str]:
        """Goals whose ranks are estimates, see `rank`."""
        return self.estimated if self.coarse is None else self.estimated | frozenset(_OF_COPY)

    @cached_property
    def _many(self) -> tuple:
        """What the kernel of many directions needs."""
        rule, facets, index = self.process, self.shape.facets, self._index
        shape, solid = self._points
        own = index if self.solid is self.shape else FacetIndex(shape, facets)
        bins = _many_kernels.bin_normals(self.normals, self.areas, self.shown)
        given = (
            shape, facets, self.normals, self.areas, self.shown, bins, own.order, own.box,
            own.first_leaf, solid, self.solid.facets, index.order, index.box, index.first_leaf,
            self._near(self.hull_mm), self._outline, self.middle_mm - self._origin,
        )  # fmt: skip
        numbers = (
            float(self.lift_mm), rule.layer_height_mm, self.shape.grain_mm, *self._limits,
            np.array(rule.build_volume_mm), rule["spacing_mm"],
        )  # fmt: skip
        return given, numbers

    def _fill_volumes(self, downs: np.ndarray, rows: np.ndarray, which) -> None:
        density, (limit, _) = self.process["grid_density"], self._limits
        for i in which:
            rows[i, _kernels.VOLUME] = density * _kernels.support_columns(
                self._points[0], self.shape.facets, self.normals, downs[i],
                float(self.lift_mm), self.process.layer_height_mm, self.shape.grain_mm, limit,
                self.columns,
            )  # fmt: skip


def _on_both_cores(
    block: Callable[[slice], None], count: int, progress: Callable[[float], None] | None
) -> None:
    """Run ``block`` for slices of so many rows."""
    parts = [slice(lo, lo + _CHUNK) for lo in range(0, count, _CHUNK)]
    if len(parts) < 2:
        for part in parts:
            block(part)
        return
    with ThreadPoolExecutor(THREADS) as pool:
        jobs = [pool.submit(block, part) for part in parts]
        try:
            for done, job in enumerate(jobs, start=1):
                job.result()
                if progress:
                    progress(done / len(jobs))
        finally:
            for job in jobs:
                job.cancel()
