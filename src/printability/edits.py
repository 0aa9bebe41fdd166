"""The kinds of edit that a stance is made of.

Each kind is one frozen dataclass, registered under its key; its fields are its parameters,
validated on construction, and ``applied`` takes a `Setup` to the next one. A new kind is one
such class.
"""

import math
from dataclasses import asdict, dataclass, fields, replace
from typing import ClassVar

import numpy as np

from .errors import EditError
from .measuring import KINDS as MEASURES
from .measuring import Anchor
from .mesh import (
    MM_PER_UNIT,
    Mesh,
    angles_of_rotation,
    facet_normals,
    rotation_about_axes,
    rotation_taking_down,
)
from .pillars import PillarSize, PillarSpec
from .process import PROCESSES, process_named
from .stance import Accepted, Setup
from .surface import SIDES, Stroke

__all__ = ["EDIT_KINDS", "Edit", "edit_from"]

MAX_LIFT_MM = 1000.0


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


def _registered(cls):
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


def _number(value, name: str, low: float, high: float, unit: str) -> float:
    if isinstance(value, bool) or not isinstance(value, int | float) or not math.isfinite(value):
        raise EditError(f"The {name} must be a number.")
    if not low <= value <= high:
        raise EditError(f"The {name} must be between {low:g} and {high:g} {unit}.")
    return float(value)


def _facet(value) -> int:
    if isinstance(value, bool) or not isinstance(value, int) or value < 0:
        raise EditError("That is not a facet of the model.")
    return value


def _weights(value) -> tuple[float, float, float]:
    """Weights of a facet's corners, forgiving what rounding did to them."""
    if not isinstance(value, list | tuple) or len(value) != 3:
        raise EditError("A place on a facet needs three weights.")
    values = [_number(w, "weight", -0.001, 1.001, "") for w in value]
    if abs(sum(values) - 1) > 0.003:
        raise EditError("The place is not on its facet.")
    clipped = np.clip(values, 0, 1)
    return tuple(float(w) for w in clipped / clipped.sum())


@_registered
@dataclass(frozen=True)
class ReadAs(Edit):
    """Say which unit the file's numbers are in."""

    kind: ClassVar[str] = "unit"
    unit: str

    def __post_init__(self):
        if not isinstance(self.unit, str) or self.unit not in MM_PER_UNIT:
            raise EditError(f"The unit must be one of {', '.join(MM_PER_UNIT)}.")

    def applied(self, setup, source):
        return replace(setup, unit=self.unit)

    def said(self):
        return f"read in {self.unit}"


@_registered
@dataclass(frozen=True)
class PrintBy(Edit):
    """Choose the process; a threshold of the stance's own is given up with it."""

    kind: ClassVar[str] = "process"
    process: str

    def __post_init__(self):
        if not isinstance(self.process, str) or self.process not in PROCESSES:
            raise EditError(f"The process must be one of {', '.join(PROCESSES)}.")

    def applied(self, setup, source):
        return replace(setup, process=process_named(self.process), threshold_deg=None)

    def said(self):
        return f"print by {process_named(self.process).label}"


@_registered
@dataclass(frozen=True)
class Threshold(Edit):
    """Set the slope below which an underside counts as overhanging."""

    kind: ClassVar[str] = "threshold"
    threshold_deg: float

    def __post_init__(self):
        _number(self.threshold_deg, "overhang threshold", 1.0, 89.0, "degrees")

    def applied(self, setup, source):
        return replace(setup, threshold_deg=float(self.threshold_deg))

    def said(self):
        return f"threshold {self.threshold_deg:g}°"


@_registered
@dataclass(frozen=True)
class Turn(Edit):
    """Turn the piece as imported about the fixed axes X, then Y, then Z."""

    kind: ClassVar[str] = "turn"
    x_deg: float
    y_deg: float
    z_deg: float

    def __post_init__(self):
        for name in ("x_deg", "y_deg", "z_deg"):
            _number(getattr(self, name), f"angle about {name[0].upper()}", -3600, 3600, "degrees")

    def applied(self, setup, source):
        matrix = rotation_about_axes(self.x_deg, self.y_deg, self.z_deg)
        return replace(setup, angles_deg=_kept_angles(self, matrix))

    def said(self):
        return f"turn {self.x_deg:g}°, {self.y_deg:g}°, {self.z_deg:g}°"


def _kept_angles(turn: Turn, matrix: np.ndarray) -> tuple[float, float, float]:
    """The angles as typed where they are in range, else the same turn by smaller ones."""
    typed = (float(turn.x_deg), float(turn.y_deg), float(turn.z_deg))
    return typed if all(-180 < a <= 180 for a in typed) else angles_of_rotation(matrix)


@_registered
@dataclass(frozen=True)
class TurnBy(Edit):
    """Turn the piece from where it stands about one of the plate's axes."""

    kind: ClassVar[str] = "turn_by"
    axis: str
    by_deg: float

    def __post_init__(self):
        if self.axis not in ("x", "y", "z"):
            raise EditError("The axis must be x, y or z.")
        _number(self.by_deg, "angle", -360, 360, "degrees")

    def applied(self, setup, source):
        about = [self.by_deg if self.axis == axis else 0.0 for axis in "xyz"]
        matrix = rotation_about_axes(*about) @ rotation_about_axes(*setup.angles_deg)
        return replace(setup, angles_deg=angles_of_rotation(matrix))

    def said(self):
        return f"turn {self.by_deg:+g}° about {self.axis.upper()}"


@_registered
@dataclass(frozen=True)
class FaceDown(Edit):
    """Set a facet of the model down on the plate by the smallest turn."""

    kind: ClassVar[str] = "face_down"
    facet: int

    def __post_init__(self):
        _facet(self.facet)

    def applied(self, setup, source):
        if self.facet >= len(source.facets):
            raise EditError("That is not a facet of the model.")
        one = Mesh(source.vertices, source.facets[self.facet : self.facet + 1])
        normal = facet_normals(one)[0]
        if not normal.any():
            raise EditError("That facet has no area; choose another one.")
        now = rotation_about_axes(*setup.angles_deg)
        matrix = rotation_taking_down(now @ normal) @ now
        return replace(setup, angles_deg=angles_of_rotation(matrix))

    def said(self):
        return "set a face down"


@_registered
@dataclass(frozen=True)
class Lift(Edit):
    """Hold the piece above the plate."""

    kind: ClassVar[str] = "lift"
    lift_mm: float

    def __post_init__(self):
        _number(self.lift_mm, "lift", 0.0, MAX_LIFT_MM, "mm")

    def applied(self, setup, source):
        return replace(setup, lift_mm=float(self.lift_mm))

    def said(self):
        return f"lift {self.lift_mm:g} mm"


@_registered
@dataclass(frozen=True)
class AsImported(Edit):
    """Stand the piece as it was imported: no turn, no lift. Pillars stay."""

    kind: ClassVar[str] = "as_imported"

    def applied(self, setup, source):
        return replace(setup, angles_deg=(0.0, 0.0, 0.0), lift_mm=0.0)

    def said(self):
        return "back to as imported"


@_registered
@dataclass(frozen=True)
class StandPillar(Edit):
    """Stand a pillar, or move or change the one of that key."""

    kind: ClassVar[str] = "pillar"
    key: str
    facet: int
    weights: tuple[float, float, float]
    size: dict

    def __post_init__(self):
        if not isinstance(self.key, str) or not 0 < len(self.key) <= 40:
            raise EditError("The pillar has no name.")
        _facet(self.facet)
        object.__setattr__(self, "weights", _weights(self.weights))
        if not isinstance(self.size, dict):
            raise EditError("The pillar's dimensions cannot be read.")
        try:
            PillarSize(**self.size)
        except TypeError as error:
            raise EditError("The pillar's dimensions are not complete.") from error

    def applied(self, setup, source):
        if self.facet >= len(source.facets):
            raise EditError("The pillar's contact is not on this model.")
        spec = PillarSpec(self.facet, self.weights, PillarSize(**self.size))
        pillars = dict(setup.pillars)
        pillars[self.key] = spec
        return replace(setup, pillars=tuple(pillars.items()))

    def said(self):
        return f"pillar {self.key}"


@_registered
@dataclass(frozen=True)
class RemovePillar(Edit):
    """Take a pillar away."""

    kind: ClassVar[str] = "remove_pillar"
    key: str

    def __post_init__(self):
        if not isinstance(self.key, str):
            raise EditError("The pillar has no name.")

    def applied(self, setup, source):
        pillars = dict(setup.pillars)
        if pillars.pop(self.key, None) is None:
            raise EditError("That pillar is not there any more.")
        return replace(setup, pillars=tuple(pillars.items()))

    def said(self):
        return f"remove pillar {self.key}"


def _place(value) -> tuple[float, float, float]:
    if not isinstance(value, list | tuple) or len(value) != 3:
        raise EditError("The finding has no place.")
    return tuple(_number(v, "place", -1e9, 1e9, "units") for v in value)


@_registered
@dataclass(frozen=True)
class Accept(Edit):
    """Accept a finding with a note; it stays listed, as accepted.

    ``place`` is on the source mesh, in its own unit, so that it is found again after turning.
    """

    kind: ClassVar[str] = "accept"
    finding: str
    place: tuple[float, float, float]
    note: str = ""

    def __post_init__(self):
        if not isinstance(self.finding, str) or not 0 < len(self.finding) <= 24:
            raise EditError("There is no such finding.")
        if not isinstance(self.note, str) or len(self.note) > 300:
            raise EditError("A note has at most 300 characters.")
        object.__setattr__(self, "place", _place(self.place))

    def applied(self, setup, source):
        accepted = Accepted(self.finding, self.place, self.note.strip())
        kept = [a for a in setup.accepted if (a.finding, a.place) != (self.finding, self.place)]
        return replace(setup, accepted=(*kept, accepted))

    def said(self):
        return f"accept {self.finding.replace('_', ' ')}"


@_registered
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


@_registered
@dataclass(frozen=True)
class TakeMeasure(Edit):
    """Measure something and keep it listed; anchors are ``{"facet", "weights"}``."""

    kind: ClassVar[str] = "measure"
    what: str
    anchors: tuple[dict, ...]

    def __post_init__(self):
        if not isinstance(self.what, str) or self.what not in MEASURES:
            raise EditError(f"What can be measured: {', '.join(MEASURES)}.")
        count = MEASURES[self.what]
        if not isinstance(self.anchors, list | tuple) or len(self.anchors) != count:
            raise EditError(f"A {self.what} takes {count} place{'s' if count > 1 else ''}.")
        places = []
        for anchor in self.anchors:
            if not isinstance(anchor, dict) or set(anchor) != {"facet", "weights"}:
                raise EditError("The measure has no place.")
            places.append(
                {"facet": _facet(anchor["facet"]), "weights": _weights(anchor["weights"])}
            )
        object.__setattr__(self, "anchors", tuple(places))

    def applied(self, setup, source):
        if any(anchor["facet"] >= len(source.facets) for anchor in self.anchors):
            raise EditError("The measure is not on this model.")
        anchors = tuple(Anchor(anchor["facet"], anchor["weights"]) for anchor in self.anchors)
        return replace(setup, measures=(*setup.measures, (self.what, anchors)))

    def said(self):
        return f"measure {self.what}"


@_registered
@dataclass(frozen=True)
class RemoveMeasure(Edit):
    """Take a measure off the list, by its place in it from 0."""

    kind: ClassVar[str] = "remove_measure"
    number: int

    def __post_init__(self):
        _facet(self.number)

    def applied(self, setup, source):
        if self.number >= len(setup.measures):
            raise EditError("That measure is not there any more.")
        kept = setup.measures[: self.number] + setup.measures[self.number + 1 :]
        return replace(setup, measures=kept)

    def said(self):
        return "remove a measure"


@_registered
@dataclass(frozen=True)
class Paint(Edit):
    """Mark facets as show side or back side, or rub the mark out.

    ``facets`` are those that the brush touched, as ``[first, count]`` runs.
    """

    kind: ClassVar[str] = "paint"
    side: str
    facets: tuple[tuple[int, int], ...]

    def __post_init__(self):
        _side(self.side)
        runs = self.facets
        if not isinstance(runs, list | tuple) or not 0 < len(runs) <= 500_000:
            raise EditError("The brush touched nothing.")
        for run in runs:
            if not isinstance(run, list | tuple) or len(run) != 2 or _facet(run[1]) < 1:
                raise EditError("The facets cannot be read.")
            _facet(run[0])
        object.__setattr__(self, "facets", tuple((int(a), int(n)) for a, n in runs))

    def applied(self, setup, source):
        if any(first + count > len(source.facets) for first, count in self.facets):
            raise EditError("That is not a facet of the model.")
        touched = tuple(f for first, count in self.facets for f in range(first, first + count))
        return replace(setup, strokes=(*setup.strokes, Stroke(self.side, touched)))

    def said(self):
        return "rub out a side" if self.side == "none" else f"paint the {self.side} side"


@_registered
@dataclass(frozen=True)
class Fill(Edit):
    """Mark a face up to its creases as show side or back side, or rub the mark out."""

    kind: ClassVar[str] = "fill"
    side: str
    facet: int
    crease_deg: float = 30.0

    def __post_init__(self):
        _side(self.side)
        _facet(self.facet)
        _number(self.crease_deg, "crease angle", 0.1, 180.0, "degrees")

    def applied(self, setup, source):
        if self.facet >= len(source.facets):
            raise EditError("That is not a facet of the model.")
        stroke = Stroke(self.side, (self.facet,), float(self.crease_deg))
        return replace(setup, strokes=(*setup.strokes, stroke))

    def said(self):
        return "rub out a side" if self.side == "none" else f"fill the {self.side} side"


def _side(value) -> None:
    if not isinstance(value, str) or value not in SIDES:
        raise EditError(f"A side is one of {', '.join(SIDES)}.")
