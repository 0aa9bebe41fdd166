"""Edits of the piece's size: the file's unit, scale, mirror. They change its shape."""

from dataclasses import dataclass, replace
from typing import ClassVar

import numpy as np

from ..errors import EditError
from ..mesh import MM_PER_UNIT
from ..stance import Setup, part_of, turned
from .base import Edit, number, registered

__all__ = ["Mirror", "ReadAs", "Scale", "ScaleToFit", "ScaleToSize"]


@registered
@dataclass(frozen=True)
class ReadAs(Edit):
    """Say which unit the file's numbers are in."""

    kind: ClassVar[str] = "unit"
    of_all: ClassVar[bool] = True
    unit: str

    def __post_init__(self):
        if not isinstance(self.unit, str) or self.unit not in MM_PER_UNIT:
            raise EditError(f"The unit must be one of {', '.join(MM_PER_UNIT)}.")

    def applied(self, setup, source):
        return setup.framed(replace(setup.frame, unit=self.unit))

    def said(self):
        return f"read in {self.unit}"


# Factors outside this are slips of the keyboard.
LEAST_FACTOR, MOST_FACTOR = 1e-4, 1e4
MOST_SIZE_MM = 10_000.0


def _kept(setup: Setup, factors) -> Setup:
    """The setup with other scale factors, refused where they are out of range."""
    if not all(LEAST_FACTOR <= f <= MOST_FACTOR for f in factors):
        raise EditError(f"The scale must be between {LEAST_FACTOR:g} and {MOST_FACTOR:g} times.")
    return setup.framed(replace(setup.frame, scale=tuple(float(f) for f in factors)))


def _axis(value) -> int:
    if not isinstance(value, str) or value not in ("x", "y", "z"):
        raise EditError("The axis must be x, y or z.")
    return "xyz".index(value)


@registered
@dataclass(frozen=True)
class Scale(Edit):
    """Scale the piece as imported along its own axes. Pillars keep their dimensions."""

    kind: ClassVar[str] = "scale"
    of_all: ClassVar[bool] = True
    x: float
    y: float
    z: float

    def __post_init__(self):
        for name in ("x", "y", "z"):
            number(getattr(self, name), f"scale along {name.upper()}", LEAST_FACTOR, MOST_FACTOR,
                   "times")  # fmt: skip

    def applied(self, setup, source):
        return _kept(setup, (self.x, self.y, self.z))

    def said(self):
        same = self.x == self.y == self.z
        factors = f"{self.x:.4g}" if same else f"{self.x:.4g} × {self.y:.4g} × {self.z:.4g}"
        return f"scale to {factors} times"


@registered
@dataclass(frozen=True)
class ScaleToSize(Edit):
    """Scale until the piece measures so much along one of its own axes.

    With ``keep`` the other axes are scaled alike, so that proportions stay.
    """

    kind: ClassVar[str] = "scale_to_size"
    of_all: ClassVar[bool] = True
    axis: str
    size_mm: float
    keep: bool = True

    def __post_init__(self):
        _axis(self.axis)
        number(self.size_mm, f"size along {self.axis.upper()}", 1e-3, MOST_SIZE_MM, "mm")
        if not isinstance(self.keep, bool):
            raise EditError("Proportions are kept or not.")

    def applied(self, setup, source):
        axis = _axis(self.axis)
        extent = float(np.ptp(source.vertices[:, axis])) * MM_PER_UNIT[setup.frame.unit]
        if extent <= 0:
            raise EditError(f"The piece has no extent along {self.axis.upper()}.")
        factor = self.size_mm / extent
        ratio = factor / setup.frame.scale[axis]
        factors = [f * ratio if self.keep else f for f in setup.frame.scale]
        factors[axis] = factor
        return _kept(setup, factors)

    def said(self):
        return f"scale to {self.size_mm:g} mm along {self.axis.upper()}"


@registered
@dataclass(frozen=True)
class ScaleToFit(Edit):
    """Scale to the largest that fits the build volume as it stands, proportions kept."""

    kind: ClassVar[str] = "scale_to_fit"
    of_all: ClassVar[bool] = True

    def applied(self, setup, source):
        room = np.array(setup.process.build_volume_mm) - (0.0, 0.0, setup.lift_mm)
        room[:2] -= 2 * np.abs(setup.move_mm)
        if room.min() <= 0:
            raise EditError(
                "The piece is moved or lifted so far that nothing fits; set it back first."
            )
        size = np.ptp(turned(part_of(source, setup).mesh, setup.angles_deg).vertices, axis=0)
        # A millionth less, so that what fits is not over by a rounding.
        ratio = float((room / np.maximum(size, 1e-9)).min()) * (1 - 1e-6)
        return _kept(setup, [f * ratio for f in setup.frame.scale])

    def said(self):
        return "scale to the largest that fits"


@registered
@dataclass(frozen=True)
class Mirror(Edit):
    """Mirror the piece about the plane across one of its own axes."""

    kind: ClassVar[str] = "mirror"
    of_all: ClassVar[bool] = True
    axis: str

    def __post_init__(self):
        _axis(self.axis)

    def applied(self, setup, source):
        axis = _axis(self.axis)
        mirrored = tuple(m != (i == axis) for i, m in enumerate(setup.frame.mirrored))
        return setup.framed(replace(setup.frame, mirrored=mirrored))

    def said(self):
        return f"mirror along {self.axis.upper()}"
