"""Dimensions of supports: what they are called, and within which limits they may be."""

from dataclasses import dataclass, fields, replace
from typing import ClassVar

from ..errors import EditError
from ..numbers import is_number

__all__ = ["Dimension", "Size", "resized"]


@dataclass(frozen=True)
class Dimension:
    """One dimension of a kind of support.

    Attributes
    ----------
    label : str
    low, high : float
        Least and greatest value.
    unit : str
    choices : tuple of str
        What it may be, where it is a word and no number.
    """

    label: str
    low: float = 0.0
    high: float = 0.0
    unit: str = "mm"
    choices: tuple[str, ...] = ()

    def check(self, value) -> None:
        """Whether a value will do.

        Raises
        ------
        EditError
            If it will not.
        """
        if self.choices:
            if value not in self.choices:
                raise EditError(f"The {self.label} is one of: {', '.join(self.choices)}.")
            return
        if not is_number(value):
            raise EditError(f"The {self.label} must be a number.")
        if not self.low <= value <= self.high:
            unit = f" {self.unit}" if self.unit and self.unit != "°" else self.unit
            raise EditError(
                f"The {self.label} must be between {self.low:g} and {self.high:g}{unit}."
            )


@dataclass(frozen=True)
class Size:
    """Base of the dimensions of all kinds: every field is checked by its `Dimension`."""

    DIMENSIONS: ClassVar[dict[str, Dimension]] = {}

    def __post_init__(self):
        for field in fields(self):
            self.DIMENSIONS[field.name].check(getattr(self, field.name))


def resized(size: Size, changes: dict) -> Size:
    """The size with some dimensions changed; unknown names are refused."""
    for name in changes:
        if name not in size.DIMENSIONS:
            raise EditError(f"There is no dimension “{name}”.")
    return replace(size, **changes)
