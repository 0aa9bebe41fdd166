"""Colours of a part: those that its file has, and what the maker put over them."""

import hashlib
from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from ..mesh import FacetColours, name_of
from ..parts import Part
from .sides import Stroke, brushed_over

__all__ = ["Dyes", "colours_of", "dyes_key"]


@dataclass(frozen=True)
class Dyes:
    """What a part's colours come from.

    Attributes
    ----------
    imported : FacetColours, optional
        Of the import's facets.
    strokes : tuple of Stroke
        Put over them, in order; ``side`` is the colour as ``#rrggbb``, or ``none``.
    names : tuple of (rgb, name)
        That the maker gave.
    """

    imported: FacetColours | None = None
    strokes: tuple[Stroke, ...] = ()
    names: tuple[tuple[str, str], ...] = ()

    @property
    def palette(self) -> tuple[tuple[str, str], ...]:
        """(name, rgb) of every colour, in the order in which they came."""
        names = dict(self.names)
        out = {rgb: name for name, rgb in self.imported.palette} if self.imported else {}
        for stroke in self.strokes:
            if stroke.side != "none":
                out.setdefault(stroke.side, name_of(stroke.side))
        return tuple((names.get(rgb) or name, rgb) for rgb, name in out.items())


def dyes_key(part: Part, dyes: Dyes) -> str:
    """Names the colours of a part; empty where there are none."""
    if dyes.imported is None and not dyes.strokes:
        return ""
    imported = dyes.imported.digest if dyes.imported else ""
    text = [part.shape_digest, imported, *(one.digest for one in dyes.strokes), repr(dyes.names)]
    return hashlib.sha256("\n".join(text).encode()).hexdigest()[:24]


def colours_of(
    part: Part,
    dyes: Dyes,
    known: Callable[[str], FacetColours | None] = lambda key: None,
) -> FacetColours | None:
    """Colours of a part's facets; None where it has none.

    Facets that a change of shape made, a cut's face for one, have no colour until they are given
    one. ``known`` gives what fewer strokes left, by their `dyes_key`.
    """
    if dyes.imported is None and not dyes.strokes:
        return None
    palette = dyes.palette
    number = {rgb: i + 1 for i, (_, rgb) in enumerate(palette)} | {"none": 0}
    start = np.zeros(len(part.mesh.facets), np.uint8)
    if dyes.imported is not None:
        own = part.facet_from >= 0
        start[own] = dyes.imported.of_facet[part.facet_from[own]]

    def before(strokes) -> np.ndarray | None:
        found = known(dyes_key(part, Dyes(dyes.imported, strokes, dyes.names)))
        return found.of_facet if found is not None else None

    found = brushed_over(part, dyes.strokes, start, number, before)
    return FacetColours(palette, found) if found.any() else None
