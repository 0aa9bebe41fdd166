"""The edit that gives places of the surface a colour."""

from dataclasses import dataclass, replace
from typing import ClassVar

from ..errors import EditError
from ..mesh import MOST_COLOURS, rgb_of
from ..parts import Anchor
from ..surface import Stroke
from .base import Edit, Pick, number, place_from, registered
from .marks import MOST_BRUSH_MM, MOST_PLACES, fill_stroke

__all__ = ["Colour"]


@registered
@dataclass(frozen=True)
class Colour(Edit):
    """Give places a colour, or take it away with ``none``.

    With ``crease_deg`` the face at the first place is filled up to edges at which the surface
    turns by more than that (180 fills the whole body); else ``brush_mm`` is the diameter of a
    brush that went over the places. ``name`` is what the maker calls the colour.
    """

    kind: ClassVar[str] = "colour"
    colour: str
    places: tuple[Pick | Anchor, ...] = ()
    brush_mm: float = 0.0
    crease_deg: float | None = None
    name: str = ""

    def __post_init__(self):
        rgb = "none" if self.colour == "none" else rgb_of(self.colour)
        if rgb is None:
            raise EditError("A colour is written as # and six digits, or “none”.")
        object.__setattr__(self, "colour", rgb)
        if not isinstance(self.name, str) or len(self.name) > 40:
            raise EditError("A colour's name has at most 40 letters.")
        number(self.brush_mm, "brush", 0.0, MOST_BRUSH_MM, "mm")
        if self.crease_deg is not None:
            number(self.crease_deg, "crease angle", 0.1, 180.0, "degrees")
        if not isinstance(self.places, list | tuple) or len(self.places) > MOST_PLACES:
            raise EditError(f"A stroke has at most {MOST_PLACES:,} places.")
        if not self.places:
            raise EditError("The brush touched nothing.")
        object.__setattr__(self, "places", tuple(place_from(p) for p in self.places))

    def applied(self, setup, source):
        places = self._anchors(self.places, setup, source)
        if self.crease_deg is not None:
            crease = float(self.crease_deg)
            stroke = fill_stroke(self.colour, places[:1], crease, setup, source)
        else:
            stroke = Stroke(self.colour, places, setup.frame.length(self.brush_mm / 2))
        dyes = setup.dyes
        names = tuple(one for one in dyes.names if one[0] != self.colour)
        if self.name.strip() and self.colour != "none":
            dyes = replace(dyes, names=(*names, (self.colour, self.name.strip())))
        dyes = replace(dyes, strokes=(*dyes.strokes, stroke))
        if len(dyes.palette) > MOST_COLOURS:
            raise EditError(f"A piece has at most {MOST_COLOURS} colours.")
        return replace(setup, dyes=dyes)

    def said(self):
        if self.colour == "none":
            return "take colour away"
        return "fill with colour" if self.crease_deg is not None else "paint with colour"
