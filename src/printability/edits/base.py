"""What all kinds of edit share: the base class, the register, and checks of parameters."""

import math
from dataclasses import asdict, fields
from typing import ClassVar

import numpy as np

from ..errors import EditError
from ..mesh import Mesh
from ..stance import Setup

__all__ = [
    "EDIT_KINDS",
    "Edit",
    "anchor_from",
    "corner_weights",
    "edit_from",
    "facet_number",
    "number",
    "registered",
]


class Edit:
    """Base of all edits."""

    kind: ClassVar[str]

    def applied(self, setup: Setup, source: Mesh) -> Setup:
        """The setup after this edit."""
        raise NotImplementedError

    def said(self) -> str:
        """What the edit did, in a few words for the undo button."""
        raise NotImplementedError

    def parameters(self) -> dict:
        """The edit's fields as plain data, the inverse of `edit_from`."""
        return asdict(self)


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
    cls = EDIT_KINDS.get(kind)
    if cls is None:
        raise EditError(f"There is no edit “{kind}”.")
    if not isinstance(parameters, dict):
        raise EditError("The edit's parameters cannot be read.")
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
    if isinstance(value, bool) or not isinstance(value, int | float) or not math.isfinite(value):
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


def anchor_from(value) -> dict:
    """A place on the surface, ``{"facet", "weights"}``, checked."""
    if not isinstance(value, dict) or set(value) != {"facet", "weights"}:
        raise EditError("That is no place on the model.")
    return {"facet": facet_number(value["facet"]), "weights": corner_weights(value["weights"])}
