"""What all kinds of edit share: the base class, the register, and checks of parameters."""

import re
from collections.abc import Iterable
from dataclasses import dataclass, fields, replace
from typing import ClassVar

import numpy as np

from ..errors import EditError
from ..mesh import Mesh
from ..numbers import is_number
from ..parts import WHOLE, Anchor, Part, anchor_at, is_of
from ..stance import Setup, part_of
from .carried import carried_over

__all__ = [
    "EDIT_KINDS",
    "Edit",
    "Pick",
    "edit_from",
    "facet_number",
    "located",
    "number",
    "place_from",
    "registered",
]


@dataclass(frozen=True)
class Pick:
    """A place as it was pointed out: a facet of the part's own mesh, and weights of its corners."""

    facet: int
    weights: tuple[float, float, float]

    def plain(self) -> dict:
        """The pick as plain data."""
        return {"facet": self.facet, "weights": self.weights}


@dataclass(frozen=True, kw_only=True)
class Edit:
    """Base of all edits.

    Attributes
    ----------
    part : str
        Key of the part that it is of; it holds for what a cut leaves of that, too.
    """

    kind: ClassVar[str]
    # Whether it is of the piece as a whole, whichever part was looked at.
    of_all: ClassVar[bool] = False
    part: str = WHOLE

    def concerns(self, part: str) -> bool:
        """Whether it holds for a part."""
        return self.of_all or is_of(self.part, part)

    def check_part(self, parts: Iterable[str]) -> None:
        """Whether it is of a part that there is.

        Raises
        ------
        EditError
            If it is of none.
        """
        if not any(self.concerns(part) for part in parts):
            raise EditError("That part is not there.")

    @property
    def names_facets(self) -> bool:
        """Whether it names facets of one mesh, and so makes no sense on another."""
        values = [getattr(self, one.name) for one in fields(self)]
        flat = [v for value in values for v in (value if isinstance(value, tuple) else (value,))]
        return any(isinstance(v, Pick) for v in flat)

    def applied(self, setup: Setup, source: Mesh) -> Setup:
        """The setup after this edit."""
        raise NotImplementedError

    def said(self) -> str:
        """What the edit did, in a few words for the undo button."""
        raise NotImplementedError

    def parameters(self) -> dict:
        """The edit's fields as plain data, the inverse of `edit_from`."""
        out = {}
        for one in fields(self):
            value = getattr(self, one.name)
            if one.name != "part" or value != WHOLE:
                out[one.name] = _plain(value)
        return out

    def located(self, part: Part) -> "Edit":
        """The edit with what was pointed out on a part kept by place.

        Raises
        ------
        EditError
            If something was pointed out that is not on the part.
        """
        changes = {}
        for one in fields(self):
            value = getattr(self, one.name)
            if isinstance(value, Pick):
                changes[one.name] = located(value, part)
            elif isinstance(value, tuple) and any(isinstance(v, Pick) for v in value):
                changes[one.name] = tuple(located(v, part) for v in value)
        return replace(self, **changes) if changes else self

    def _anchors(self, places, setup: Setup, source: Mesh) -> tuple[Anchor, ...]:
        if not any(isinstance(place, Pick) for place in places):
            return tuple(places)
        part = part_of(source, setup)
        return tuple(located(place, part) for place in places)


def _plain(value):
    if isinstance(value, Pick | Anchor):
        return value.plain()
    if isinstance(value, tuple):
        return tuple(_plain(v) for v in value)
    return value


def located(place, part: Part):
    """What was pointed out on a part as a place of the import; anything else as it is."""
    if not isinstance(place, Pick):
        return place
    if place.facet >= len(part.mesh.facets):
        raise EditError("That is not a facet of the model.")
    return anchor_at(part, place.facet, place.weights)


_PART = re.compile(r"1(\.[a-z]){0,20}")

EDIT_KINDS: dict[str, type[Edit]] = {}


def registered(cls):
    """Class decorator: makes a kind of edit known under its key."""
    EDIT_KINDS[cls.kind] = cls
    return cls


def edit_from(kind: str, parameters: dict) -> Edit:
    """The edit of that kind with those parameters.

    Raises
    ------
    EditError
        For an unknown kind, a missing or unknown parameter, or a value out of range.
    """
    if isinstance(parameters, dict):
        kind, parameters = carried_over(kind, parameters)
    cls = EDIT_KINDS.get(kind)
    if cls is None:
        raise EditError(f"There is no edit “{kind}”.")
    if not isinstance(parameters, dict):
        raise EditError("The edit's parameters cannot be read.")
    part = parameters.get("part", WHOLE)
    if not isinstance(part, str) or not _PART.fullmatch(part):
        raise EditError("There is no such part.")
    names = {field.name for field in fields(cls)}
    for name in parameters:
        if name not in names:
            raise EditError(f"The edit “{kind}” has no “{name}”.")
    try:
        return cls(**parameters)
    except TypeError as error:
        raise EditError(f"The edit “{kind}” lacks some of its values.") from error


def number(value, name: str, low: float, high: float, unit: str) -> float:
    """The value as a float; an `EditError` where it is none or out of range."""
    if not is_number(value):
        raise EditError(f"The {name} must be a number.")
    if not low <= value <= high:
        raise EditError(f"The {name} must be between {low:g} and {high:g} {unit}.")
    return float(value)


def facet_number(value) -> int:
    """The value as the number of a facet."""
    if isinstance(value, bool) or not isinstance(value, int) or value < 0:
        raise EditError("That is not a facet of the model.")
    return value


def corner_weights(value) -> tuple[float, float, float]:
    """Weights of a facet's corners, forgiving what rounding did to them."""
    if not isinstance(value, list | tuple) or len(value) != 3:
        raise EditError("A place on a facet needs three weights.")
    values = [number(w, "weight", -0.001, 1.001, "") for w in value]
    if abs(sum(values) - 1) > 0.003:
        raise EditError("The place is not on its facet.")
    clipped = np.clip(values, 0, 1)
    return tuple(float(w) for w in clipped / clipped.sum())


def place_from(value) -> Pick | Anchor:
    """A place on the surface, checked.

    Either as it was pointed out, ``{"facet", "weights"}``, or as it is kept, ``{"point",
    "normal", "facet"}``.
    """
    if isinstance(value, Pick | Anchor):
        return value
    if not isinstance(value, dict):
        raise EditError("That is no place on the model.")
    if set(value) == {"facet", "weights"}:
        return Pick(facet_number(value["facet"]), corner_weights(value["weights"]))
    if set(value) != {"point", "normal", "facet"}:
        raise EditError("That is no place on the model.")
    facet = value["facet"]
    if facet != -1:
        facet_number(facet)
    return Anchor(_three(value["point"], 1e12), _three(value["normal"], 1.001), facet)


def _three(value, most: float) -> tuple[float, float, float]:
    if not isinstance(value, list | tuple) or len(value) != 3:
        raise EditError("A place has three numbers, and three for the way it faces.")
    return tuple(number(v, "place", -most, most, "") for v in value)
