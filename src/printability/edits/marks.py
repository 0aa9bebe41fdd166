"""Edits that mark the piece: painted sides, accepted findings, measures."""

import math
from dataclasses import dataclass, replace
from typing import ClassVar

from ..errors import EditError
from ..measuring import KINDS as MEASURES
from ..parts import Anchor, Framed
from ..stance import Accepted, Setup
from ..surface import SIDES, Stroke, filled
from .base import Edit, Pick, facet_number, number, place_from, registered

MOST_PLACES = 20_000
MOST_RUNS = 500_000
MOST_BRUSH_MM = 1_000.0

__all__ = ["Accept", "Fill", "Paint", "RemoveMeasure", "TakeBack", "TakeMeasure"]


def _place(value) -> tuple[float, float, float]:
    if not isinstance(value, list | tuple) or len(value) != 3:
        raise EditError("The finding has no place.")
    return tuple(number(v, "place", -1e9, 1e9, "units") for v in value)


@registered
@dataclass(frozen=True)
class Accept(Edit):
    """Accept a finding with a note; it stays listed, as accepted.

    ``place`` is on the source mesh, in its own unit, so that it is found again after turning.
    ``burden`` is how bad the finding is now, and ``said_then`` the same in words: when it becomes
    worse, it is open again.
    """

    kind: ClassVar[str] = "accept"
    finding: str
    place: tuple[float, float, float]
    note: str = ""
    burden: float | None = None
    said_then: str = ""

    def __post_init__(self):
        if not isinstance(self.finding, str) or not 0 < len(self.finding) <= 24:
            raise EditError("There is no such finding.")
        if not isinstance(self.note, str) or len(self.note) > 300:
            raise EditError("A note has at most 300 characters.")
        if self.burden is not None:
            number(self.burden, "measure", 0.0, 1e15, "")
        if not isinstance(self.said_then, str) or len(self.said_then) > 120:
            raise EditError("What the finding said then has at most 120 characters.")
        object.__setattr__(self, "place", _place(self.place))

    def applied(self, setup, source):
        accepted = Accepted(
            self.finding, self.place, self.note.strip(), self.burden, self.said_then
        )
        kept = [a for a in setup.accepted if (a.finding, a.place) != (self.finding, self.place)]
        return replace(setup, accepted=(*kept, accepted))

    def said(self):
        return f"accept {self.finding.replace('_', ' ')}"


@registered
@dataclass(frozen=True)
class TakeBack(Edit):
    """Take back that the finding nearest to a place was accepted."""

    kind: ClassVar[str] = "take_back"
    finding: str
    place: tuple[float, float, float]

    def __post_init__(self):
        if not isinstance(self.finding, str):
            raise EditError("There is no such finding.")
        object.__setattr__(self, "place", _place(self.place))

    def applied(self, setup, source):
        same = [a for a in setup.accepted if a.finding == self.finding]
        if not same:
            raise EditError("That finding was not accepted.")
        gone = min(same, key=lambda a: math.dist(a.place, self.place))
        return replace(setup, accepted=tuple(a for a in setup.accepted if a is not gone))

    def said(self):
        return f"take back accepting {self.finding.replace('_', ' ')}"


@registered
@dataclass(frozen=True)
class TakeMeasure(Edit):
    """Measure something and keep it listed; anchors are places, see `place_from`."""

    kind: ClassVar[str] = "measure"
    what: str
    anchors: tuple[Pick | Anchor, ...]

    def __post_init__(self):
        if not isinstance(self.what, str) or self.what not in MEASURES:
            raise EditError(f"What can be measured: {', '.join(MEASURES)}.")
        count = MEASURES[self.what]
        if not isinstance(self.anchors, list | tuple) or len(self.anchors) != count:
            raise EditError(f"A {self.what} takes {count} place{'s' if count > 1 else ''}.")
        object.__setattr__(self, "anchors", tuple(place_from(a) for a in self.anchors))

    def applied(self, setup, source):
        anchors = self._anchors(self.anchors, setup, source)
        key = str(setup.measures_taken + 1)
        return replace(
            setup,
            measures=(*setup.measures, (key, self.what, anchors)),
            measures_taken=setup.measures_taken + 1,
        )

    def said(self):
        return f"measure {self.what}"


@registered
@dataclass(frozen=True)
class RemoveMeasure(Edit):
    """Take a measure off the list, by its key."""

    kind: ClassVar[str] = "remove_measure"
    key: str

    def __post_init__(self):
        if not isinstance(self.key, str):
            raise EditError("That measure is not there any more.")

    def applied(self, setup, source):
        kept = tuple(measure for measure in setup.measures if measure[0] != self.key)
        if len(kept) == len(setup.measures):
            raise EditError("That measure is not there any more.")
        return replace(setup, measures=kept)

    def said(self):
        return "remove a measure"


@registered
@dataclass(frozen=True)
class Paint(Edit):
    """Mark what a brush goes over as show side or back side, or rub the mark out.

    ``places`` are where the brush was, ``brush_mm`` its diameter on the piece as it was then.
    Strokes made before places were kept name ``facets`` of the import, as ``[first, count]`` runs.
    """

    kind: ClassVar[str] = "paint"
    side: str
    places: tuple[Pick | Anchor, ...] = ()
    brush_mm: float = 0.0
    facets: tuple[tuple[int, int], ...] = ()

    def __post_init__(self):
        _side(self.side)
        number(self.brush_mm, "brush", 0.0, MOST_BRUSH_MM, "mm")
        for name, most in (("places", MOST_PLACES), ("facets", MOST_RUNS)):
            value = getattr(self, name)
            if not isinstance(value, list | tuple) or len(value) > most:
                raise EditError(f"A stroke has at most {most:,} {name}.")
        if not self.places and not self.facets:
            raise EditError("The brush touched nothing.")
        for run in self.facets:
            if not isinstance(run, list | tuple) or len(run) != 2 or facet_number(run[1]) < 1:
                raise EditError("The facets cannot be read.")
            facet_number(run[0])
        object.__setattr__(self, "places", tuple(place_from(p) for p in self.places))
        object.__setattr__(self, "facets", tuple((int(a), int(n)) for a, n in self.facets))

    @property
    def names_facets(self):
        return bool(self.facets) or super().names_facets

    def applied(self, setup, source):
        if any(first + count > len(source.facets) for first, count in self.facets):
            raise EditError("That is not a facet of the model.")
        places = self._anchors(self.places, setup, source)
        radius = setup.frame.length(self.brush_mm / 2)
        stroke = Stroke(self.side, places, radius, facets=self.facets)
        return replace(setup, strokes=(*setup.strokes, stroke))

    def said(self):
        return "rub out a side" if self.side == "none" else f"paint the {self.side} side"


@registered
@dataclass(frozen=True)
class Fill(Edit):
    """Mark a face up to its creases as show side or back side, or rub the mark out."""

    kind: ClassVar[str] = "fill"
    side: str
    at: Pick | Anchor
    crease_deg: float = 30.0

    def __post_init__(self):
        _side(self.side)
        object.__setattr__(self, "at", place_from(self.at))
        number(self.crease_deg, "crease angle", 0.1, 180.0, "degrees")

    def applied(self, setup, source):
        places = self._anchors((self.at,), setup, source)
        stroke = fill_stroke(self.side, places, float(self.crease_deg), setup, source)
        return replace(setup, strokes=(*setup.strokes, stroke))

    def said(self):
        return "rub out a side" if self.side == "none" else f"fill the {self.side} side"


def fill_stroke(side: str, places, crease_deg: float, setup: Setup, source) -> Stroke:
    """The stroke of a fill: by facets of the import where nothing has changed its shape yet."""
    if all(isinstance(step, Framed) for step in setup.shape):
        runs = filled(source, places[0], crease_deg)
        if runs:
            return Stroke(side, (), facets=runs)
    return Stroke(side, places, crease_deg=crease_deg)


def _side(value) -> None:
    if not isinstance(value, str) or value not in SIDES:
        raise EditError(f"A side is one of {', '.join(SIDES)}.")
