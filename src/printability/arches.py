"""What closes gradually and needs nothing: bridges, ledges and patches that belong to arches."""

import math
from dataclasses import dataclass, field
from functools import cached_property
from weakref import WeakKeyDictionary

import numpy as np

from .layers import (
    FLAT_DEG,
    STEP,
    Hanging,
    Layers,
    Opening,
    levels,
    look_at_openings,
    openings_above,
)
from .mesh import Mesh, facet_normals, facets_by_area
from .mesh.linking import linked
from .surface import edge_ends, twin_is_below

__all__ = ["Arches"]

# Facets of a patch that are asked whether they close an opening gradually: the largest, and others
# spread evenly by area; of all patches together no more of these than so many. What is not asked
# is as what is asked next to it.
_LARGEST, _SPREAD, _MOST_ASKED = 48, 400, 20_000
# Of a patch, the part that may lie elsewhere where all others close an opening gradually.
_ELSEWHERE = 0.02
# Of the edges by which a part of a patch rests on what is below it, the part that may be of the
# same patch and hang: else it stands on nothing itself.
_RESTS = 0.2
# Facets longer than this are asked midway to their corners as well, mm.
_LONG_MM = 4.0
# Flats at a crown are flatter than this; two facets of a fine round one are not (our choice).
_LEVEL_DEG = 0.3
# Of a facet so much may lie beyond the mouth of an opening.
_AT_MOUTH_MM2 = 2.0
# Parts smaller than this among such a roof are rounding.
_TINY_MM2 = 0.5


@dataclass(eq=False)
class Arches:
    """Tells what closes gradually in a sliced model.

    Attributes
    ----------
    mesh : Mesh
    layers : Layers
    hair_mm : float
        See `layers.levels`.
    slopes_deg, areas_mm2 : (m,) float
        Slope of each facet as an underside, and its area.
    limits_mm : (2,) tuple of float
        Limits of bridges and of ledges.
    widest_mm : float
        An arch is too wide where its span is more than this.
    """

    mesh: Mesh
    layers: Layers
    hair_mm: float
    slopes_deg: np.ndarray
    areas_mm2: np.ndarray
    limits_mm: tuple[float, float]
    widest_mm: float
    # What was told of parts that are still about, by threshold.
    _told: WeakKeyDictionary[Hanging, dict[float, bool]] = field(
        default_factory=WeakKeyDictionary, repr=False
    )

    @cached_property
    def flat(self) -> np.ndarray:
        """(f,) int: facets that are level undersides."""
        return np.flatnonzero(self.slopes_deg < _LEVEL_DEG)

    def openings(self, places, directions, closing, threshold_deg: float) -> list[Opening]:
        """How openings close; see `look_at_openings`."""
        return look_at_openings(
            self.layers, self.mesh, self.hair_mm, self.flat, np.asarray(places).reshape(-1, 2),
            np.asarray(directions).reshape(-1, 2), np.asarray(closing, int), threshold_deg,
            self.limits_mm,
        )  # fmt: skip

    def of_spans(self, spans: tuple[Hanging, ...], threshold_deg: float) -> list[bool]:
        """Whether what hangs too far belongs to an opening that closes gradually."""
        fresh = tuple(one for one in spans if threshold_deg not in self._told.get(one, ()))
        for one, is_so in zip(fresh, self._of_spans(fresh, threshold_deg), strict=True):
            self._told.setdefault(one, {})[threshold_deg] = is_so
        return [self._told[one][threshold_deg] for one in spans]

    def _of_spans(self, spans: tuple[Hanging, ...], threshold_deg: float) -> list[bool]:
        out = [False] * len(spans)
        bridge, ledge = self.limits_mm
        long = [i for i, p in enumerate(spans) if p.kind == "bridge" and p.length_mm > bridge]
        looks = self.openings(
            [spans[i].worst_mm for i in long], [spans[i].direction for i in long],
            [spans[i].layer for i in long], threshold_deg,
        )  # fmt: skip
        for i, opening in zip(long, looks, strict=True):
            out[i] = opening.is_arch
        far = [i for i, p in enumerate(spans) if p.kind == "ledge" and p.length_mm > ledge]
        for i, is_side in zip(
            far, self._sides([spans[i] for i in far], threshold_deg), strict=True
        ):
            out[i] = is_side
        return out

    def _sides(self, ledges: list[Hanging], threshold_deg: float) -> list[bool]:
        """Whether ledges are sides of openings that close gradually further up.

        What a ledge adds must itself be gradual: at most so many times what the layer below
        added on its side.
        """
        out = [False] * len(ledges)
        if not ledges:
            return out
        # Away from the ends of a tunnel, where rounding makes its mouth crooked.
        middles = [part.center_mm[:2] for part in ledges]
        places = np.array(
            [
                middle if part.near(np.array([middle]), np.zeros(1))[0] else part.worst_mm
                for part, middle in zip(ledges, middles, strict=True)
            ]
        )
        ways = np.array([part.direction for part in ledges])
        layer = np.array([part.layer for part in ledges])
        # In the layer below, where there is nothing yet under the ledge.
        tops = openings_above(self.layers, places, ways, layer - 1)
        here = self.openings(places, ways, layer, threshold_deg)
        closed = np.flatnonzero(tops[:, 2] >= 0)
        looks = self.openings(
            tops[closed, :2], ways[closed], tops[closed, 2].astype(int), threshold_deg
        )
        for i, opening in zip(closed, looks, strict=True):
            gradual = here[i].closed_mm * STEP / 2 >= ledges[i].length_mm - self.hair_mm
            out[i] = opening.is_arch and gradual and here[i].flat_mm <= self.limits_mm[1]
        return out

    def of_patches(
        self, patches: dict[int, np.ndarray], threshold_deg: float
    ) -> dict[int, tuple[np.ndarray, float]]:
        """Which facets of patches (by number) are roofs of openings that close gradually.

        Facets that slope are asked: from the middle of each, level along its normal, there must be
        the other side of an opening, and what closes that opening further up must do so gradually.
        Flat ones are bridges or ledges of their own. What goes on beyond such a roof on the same
        patch hangs, and so does the crown of one that is too wide, where it is flat.

        Returns
        -------
        dict
            For each patch with such facets, (k,) bool, which of them are; and the greatest span
            of a roof that is too wide, 0 without one.
        """
        chosen = {}
        spread = min(_SPREAD, _MOST_ASKED // max(len(patches), 1))
        for number, facets in patches.items():
            sloping = np.flatnonzero(self.slopes_deg[facets] >= FLAT_DEG)
            if len(sloping):
                chosen[number] = sloping[_spread(self.areas_mm2[facets[sloping]], spread)]
        if not chosen:
            return {}
        asked = np.concatenate([patches[n][some] for n, some in chosen.items()])
        ends = np.cumsum([0, *(len(some) for some in chosen.values())])
        gradual, span = self._facets_close(asked, threshold_deg)
        h, ledge = self.layers.layer_height_mm, self.limits_mm[1]
        wide = span > self.widest_mm
        flat_deg = math.degrees(math.atan(h / ledge))
        found = {}
        for i, (number, some) in enumerate(chosen.items()):
            own = slice(ends[i], ends[i + 1])
            facets = patches[number]
            is_arch = self._all_of(facets, some, gradual[own])
            widest = 0.0
            if (wide[own] & gradual[own]).any():
                crown = self._all_of(facets, some, wide[own]) & is_arch
                crown &= self.slopes_deg[facets] < flat_deg
                if crown.any():
                    widest = float(span[own][wide[own] & gradual[own]].max())
                    is_arch &= ~crown
            if is_arch.any():
                found[number] = is_arch, widest
        return found

    def _facets_close(
        self, asked: np.ndarray, threshold_deg: float
    ) -> tuple[np.ndarray, np.ndarray]:
        """Whether some facets close openings gradually, and the span of each such arch."""
        corners = self.mesh.vertices[self.mesh.facets[asked]]
        normal = facet_normals(Mesh(self.mesh.vertices, self.mesh.facets[asked]))[:, :2]
        way = normal / np.maximum(np.linalg.norm(normal, axis=1, keepdims=True), 1e-300)
        side = np.linalg.norm(corners - np.roll(corners, 1, axis=1), axis=2).max(axis=1)
        long = np.flatnonzero(side > _LONG_MM)
        middle = corners.mean(axis=1)
        near = (corners[long] + middle[long][:, None]) / 2
        place = np.concatenate([middle, near.reshape(-1, 3)])
        of = np.concatenate([np.arange(len(asked)), np.repeat(long, 3)])
        # The layer whose cut is next below, and surely below.
        h = self.layers.layer_height_mm
        layer = levels(place[:, 2] - 3 * self.hair_mm, h, self.hair_mm) - 1
        gradual = np.zeros(len(place), bool)
        span = np.zeros(len(place))
        low = np.flatnonzero(layer >= 0)
        tops = openings_above(self.layers, place[low, :2], way[of[low]], layer[low])
        closed = tops[:, 2] >= 0
        looks = self.openings(
            tops[closed, :2], way[of[low[closed]]], tops[closed, 2].astype(int), threshold_deg
        )
        gradual[low[closed]] = [opening.is_arch for opening in looks]
        span[low[closed]] = [opening.span_mm for opening in looks]
        # Of a long facet, a little at its end may lie beyond the mouth.
        others = np.bincount(of, ~gradual, len(asked)) / np.bincount(of, minlength=len(asked))
        is_so = gradual[: len(asked)] & (others * self.areas_mm2[asked] <= _AT_MOUTH_MM2)
        most = np.zeros(len(asked))
        np.maximum.at(most, of, span)
        return is_so, most

    def _all_of(self, facets: np.ndarray, some: np.ndarray, is_so: np.ndarray) -> np.ndarray:
        """(k,) bool: what was found for some facets of a patch, for all of them.

        Flat ones go with what they lie beside. What rests on parts of the patch that are not so is
        not so either, and what is not so but tiny is.
        """
        k = len(facets)
        if is_so.all():
            return np.ones(k, bool)
        if not is_so.any():
            return np.zeros(k, bool)
        out = np.zeros(k, bool)
        known = np.zeros(k, bool)
        out[some], known[some] = is_so, True
        middle = self.mesh.vertices[self.mesh.facets[facets]].mean(axis=1)
        if not known.all():
            from scipy.spatial import cKDTree  # takes a while to load

            out[~known] = is_so[cKDTree(middle[some]).query(middle[~known])[1]]
        areas = self.areas_mm2[facets]
        one, other, length, rests = self._edges(facets)
        inner = other >= 0
        for _ in range(k):
            same = inner.copy()
            same[inner] = out[one[inner]] == out[other[inner]]
            label = linked(k, one[same], other[same])
            count = int(label.max()) + 1
            # On what each part rests: on what is steep, or on the other sort.
            on_other = inner & ~same & rests
            below = np.bincount(label[one[on_other]], length[on_other], count)
            outside = ~inner & rests
            beside = np.bincount(label[one[outside]], length[outside], count)
            falls = (below > _RESTS * (below + beside)) & (np.bincount(label, out, count) > 0)
            if not falls.any():
                break
            out &= ~falls[label]
        if areas[~out].sum() <= _ELSEWHERE * areas.sum():
            part = np.bincount(label, areas, count)
            out |= (part < _TINY_MM2)[label]
        return out

    def _edges(self, facets: np.ndarray) -> tuple[np.ndarray, ...]:
        """Half-edges of a patch: place in it of the facet and of its neighbour (-1: none of it).

        And their level length, and whether the neighbour lies below the edge.
        """
        mesh = self.mesh
        order = np.argsort(facets, kind="stable")
        half = (3 * facets[:, None] + np.arange(3)).ravel()
        one = np.repeat(np.arange(len(facets)), 3)
        twin = mesh.twin[half]
        half, one, twin = half[twin >= 0], one[twin >= 0], twin[twin >= 0]
        at = np.minimum(np.searchsorted(facets[order], twin // 3), len(facets) - 1)
        other = np.where(facets[order][at] == twin // 3, order[at], -1)
        a, b = edge_ends(mesh, half)
        edge = mesh.vertices[b] - mesh.vertices[a]
        return one, other, np.hypot(edge[:, 0], edge[:, 1]), twin_is_below(mesh, half)


def _spread(areas: np.ndarray, count: int) -> np.ndarray:
    """The largest of some facets and others spread evenly by area, ascending."""
    largest = np.argsort(-areas, kind="stable")[:_LARGEST]
    if len(areas) <= max(count, _LARGEST):
        return np.arange(len(areas))
    if count < 1 or areas.sum() <= 0:
        return np.sort(largest)
    return np.union1d(largest, facets_by_area(areas, count)[0])
