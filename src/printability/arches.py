"""What closes gradually and needs nothing: bridges, ledges and patches that belong to arches."""

from dataclasses import dataclass
from functools import cached_property

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
from .mesh import Mesh, facet_normals

__all__ = ["Arches"]

# Facets of a patch that are asked whether they close an opening gradually, the largest first.
_ASKED = 48
# Of a patch, the part that may lie elsewhere where all others close an opening gradually.
_ELSEWHERE = 0.02


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
    """

    mesh: Mesh
    layers: Layers
    hair_mm: float
    slopes_deg: np.ndarray
    areas_mm2: np.ndarray
    limits_mm: tuple[float, float]

    @cached_property
    def flat(self) -> np.ndarray:
        """(f,) int: facets that are flat undersides."""
        return np.flatnonzero(self.slopes_deg < FLAT_DEG)

    def openings(self, places, directions, closing, threshold_deg: float) -> list[Opening]:
        """How openings close; see `look_at_openings`."""
        return look_at_openings(
            self.layers, self.mesh, self.hair_mm, self.flat, np.asarray(places).reshape(-1, 2),
            np.asarray(directions).reshape(-1, 2), np.asarray(closing, int), threshold_deg,
            self.limits_mm[0],
        )  # fmt: skip

    def of_spans(self, spans: tuple[Hanging, ...], threshold_deg: float) -> list[bool]:
        """Whether what hangs too far belongs to an opening that closes gradually."""
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

    def of_patches(self, patches: dict[int, np.ndarray], threshold_deg: float) -> set[int]:
        """Which patches (their facets by number) are roofs of openings that close gradually.

        Facets that slope are asked, the largest first: from the middle of each, level along
        its normal, there must be the other side of an opening, and what closes that opening
        further up must do so gradually. Flat ones are bridges or ledges of their own.
        """
        asked, owner = [np.zeros(0, int)], [np.zeros(0, int)]
        for number, facets in patches.items():
            sloping = facets[self.slopes_deg[facets] >= FLAT_DEG]
            largest = sloping[np.argsort(-self.areas_mm2[sloping], kind="stable")[:_ASKED]]
            asked.append(largest)
            owner.append(np.full(len(largest), number))
        asked, owner = np.concatenate(asked), np.concatenate(owner)
        if not len(asked):
            return set()
        middle = self.mesh.vertices[self.mesh.facets[asked]].mean(axis=1)
        normal = facet_normals(Mesh(self.mesh.vertices, self.mesh.facets[asked]))[:, :2]
        way = normal / np.maximum(np.linalg.norm(normal, axis=1, keepdims=True), 1e-300)
        # The layer whose cut is next below, and surely below.
        h = self.layers.layer_height_mm
        layer = levels(middle[:, 2] - 3 * self.hair_mm, h, self.hair_mm) - 1
        gradual = np.zeros(len(asked), bool)
        low = np.flatnonzero(layer >= 0)
        tops = openings_above(self.layers, middle[low, :2], way[low], layer[low])
        closed = tops[:, 2] >= 0
        looks = self.openings(
            tops[closed, :2], way[low[closed]], tops[closed, 2].astype(int), threshold_deg
        )
        gradual[low[closed]] = [opening.is_arch for opening in looks]
        area = self.areas_mm2[asked]
        total = np.bincount(owner, area)
        other = np.bincount(owner[~gradual], area[~gradual], len(total))
        return {int(n) for n in np.unique(owner) if other[n] <= _ELSEWHERE * total[n]}
