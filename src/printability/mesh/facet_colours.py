"""Colours of a file's facets: a few, by name."""

import hashlib
import re
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from .model import Mesh

__all__ = ["MOST_COLOURS", "NAMED", "FacetColours", "carried_to", "few", "name_of", "rgb_of"]

# What can be chosen by name (ours); a file's own colours are kept beside them.
NAMED = {
    "chalk": "#f4f1e8",
    "slate": "#4d5560",
    "ink": "#1f2328",
    "reed": "#7a8b3c",
    "rust": "#a4502a",
    "bark": "#5f4632",
    "straw": "#d9b96a",
    "water": "#3f7f9c",
}
# More than this a maker does not tell apart, nor a machine change (our choice).
MOST_COLOURS = 16


@dataclass(frozen=True, eq=False)
class FacetColours:
    """Colours of a mesh's facets.

    Attributes
    ----------
    palette : tuple of (name, rgb)
        ``rgb`` as ``#rrggbb``.
    of_facet : (m,) uint8
        Number in the palette from 1; 0 where there is none.
    """

    palette: tuple[tuple[str, str], ...]
    of_facet: np.ndarray

    @property
    def rgb(self) -> np.ndarray:
        """(m, 3) float: 0 to 255, -1 where a facet has none."""
        known = [tuple(bytes.fromhex(colour[1:])) for _, colour in self.palette]
        return np.array([(-1, -1, -1), *known], float)[self.of_facet]

    @cached_property
    def digest(self) -> str:
        """Names the colours."""
        content = hashlib.sha256(repr(self.palette).encode())
        content.update(np.ascontiguousarray(self.of_facet).data)
        return content.hexdigest()[:24]


def rgb_of(text) -> str | None:
    """A colour as ``#rrggbb``; None where the text is none."""
    if isinstance(text, str) and re.fullmatch(r"#[0-9a-fA-F]{6}", text):
        return text.lower()
    return None


def name_of(rgb: str) -> str:
    """The name of a colour that has one, else how it is written."""
    return next((name for name, own in NAMED.items() if own == rgb), rgb)


def few(rgb: np.ndarray, names: dict[str, str] | None = None) -> FacetColours | None:
    """Facets' colours as a few: those that most facets have, and the others as the nearest.

    Parameters
    ----------
    rgb : (m, 3) int
        0 to 255; -1 where a facet has none.
    names : dict, optional
        Names that the file gives its colours, by ``#rrggbb``.
    """
    has = (rgb >= 0).all(axis=1)
    if not has.any():
        return None
    packed = np.full(len(rgb), -1, np.int64)
    packed[has] = rgb[has] @ np.array([65536, 256, 1])
    found, inverse, count = np.unique(packed[has], return_inverse=True, return_counts=True)
    kept = found
    if len(found) > MOST_COLOURS:
        # Shades of one colour are one: the most frequent of each cube of 32 steps a side.
        cube = (found >> 21) * 64 + ((found >> 13) & 7) * 8 + ((found >> 5) & 7)
        weight = np.bincount(cube, count, 512)
        best = np.argsort(-weight, kind="stable")[:MOST_COLOURS]
        best = best[weight[best] > 0]
        kept = np.array([found[cube == c][np.argmax(count[cube == c])] for c in best])
    parts = [np.stack([v >> 16, (v >> 8) & 255, v & 255], 1).astype(float) for v in (found, kept)]
    nearest = np.array(
        [np.argmin(((parts[1] - one) ** 2).sum(axis=1)) for one in parts[0]], np.uint8
    )
    of_facet = np.zeros(len(rgb), np.uint8)
    of_facet[has] = nearest[inverse] + 1
    palette = [f"#{int(v):06x}" for v in kept]
    names = names or {}
    return FacetColours(tuple((names.get(c) or name_of(c), c) for c in palette), of_facet)


def carried_to(mesh: Mesh, points: np.ndarray, facets: np.ndarray, colours: FacetColours):
    """Colours of a file's own facets on the mesh that was repaired from it, by place."""
    from scipy.spatial import cKDTree

    if len(facets) == len(mesh.facets):
        middle = points[facets].mean(axis=1)
        own = mesh.vertices[mesh.facets].mean(axis=1)
        scale = mesh.size_mm.max()
        if np.abs(middle - own).max() <= 1e-9 * scale:
            return colours
    nearest = cKDTree(points[facets].mean(axis=1)).query(
        mesh.vertices[mesh.facets].mean(axis=1), workers=1
    )[1]
    return FacetColours(colours.palette, np.ascontiguousarray(colours.of_facet[nearest]))
