"""Edits that turn the piece, and place it on its plate."""

from dataclasses import dataclass, replace
from typing import ClassVar

import numpy as np

from ..errors import EditError
from ..mesh import angles_of_rotation, rotation_about_axes, rotation_taking_down
from ..parts import Anchor
from ..stance import Pose
from .base import Edit, Pick, number, place_from, registered

__all__ = [
    "AsImported",
    "FaceDown",
    "Lean",
    "Level",
    "Lift",
    "Move",
    "StandOn",
    "Turn",
    "TurnBy",
]

MAX_LIFT_MM = 1000.0
MAX_MOVE_MM = 2000.0


@registered
@dataclass(frozen=True)
class Turn(Edit):
    """Turn the piece as imported about the fixed axes X, then Y, then Z."""

    kind: ClassVar[str] = "turn"
    x_deg: float
    y_deg: float
    z_deg: float

    def __post_init__(self):
        for name in ("x_deg", "y_deg", "z_deg"):
            number(getattr(self, name), f"angle about {name[0].upper()}", -3600, 3600, "degrees")

    def applied(self, setup, source):
        matrix = rotation_about_axes(self.x_deg, self.y_deg, self.z_deg)
        return setup.turned(_kept_angles(self, matrix))

    def said(self):
        return f"turn {self.x_deg:g}°, {self.y_deg:g}°, {self.z_deg:g}°"


def _kept_angles(turn: Turn, matrix: np.ndarray) -> tuple[float, float, float]:
    """The angles as typed where they are in range, else the same turn by smaller ones."""
    typed = (float(turn.x_deg), float(turn.y_deg), float(turn.z_deg))
    return typed if all(-180 < a <= 180 for a in typed) else angles_of_rotation(matrix)


@registered
@dataclass(frozen=True)
class TurnBy(Edit):
    """Turn the piece from where it stands about one of the plate's axes, or one of its own."""

    kind: ClassVar[str] = "turn_by"
    axis: str
    by_deg: float
    own: bool = False

    def __post_init__(self):
        if not isinstance(self.axis, str) or self.axis not in ("x", "y", "z"):
            raise EditError("The axis must be x, y or z.")
        if not isinstance(self.own, bool):
            raise EditError("The axes are the plate's or the piece's own.")
        number(self.by_deg, "angle", -360, 360, "degrees")

    def applied(self, setup, source):
        about = [self.by_deg if self.axis == axis else 0.0 for axis in "xyz"]
        by = rotation_about_axes(*about)
        matrix = setup.rotation @ by if self.own else by @ setup.rotation
        return setup.turned(angles_of_rotation(matrix))

    def said(self):
        own = "its own " if self.own else ""
        return f"turn {self.by_deg:+.4g}° about {own}{self.axis.upper()}"


@registered
@dataclass(frozen=True)
class Lean(Edit):
    """Lean the piece from where it stands: its top goes towards a direction of the plate.

    ``toward_deg`` is measured from +X to +Y; the turn is about the level axis across it.
    """

    kind: ClassVar[str] = "lean"
    toward_deg: float
    by_deg: float

    def __post_init__(self):
        number(self.toward_deg, "direction", -3600, 3600, "degrees")
        number(self.by_deg, "angle", -360, 360, "degrees")

    def applied(self, setup, source):
        across = rotation_about_axes(0.0, 0.0, self.toward_deg)
        matrix = across @ rotation_about_axes(0.0, self.by_deg, 0.0) @ across.T @ setup.rotation
        return setup.turned(angles_of_rotation(matrix))

    def said(self):
        return f"lean {self.by_deg:.4g}°"


@registered
@dataclass(frozen=True)
class StandOn(Edit):
    """Stand the piece with a direction of its own straight down, by the smallest turn."""

    kind: ClassVar[str] = "stand_on"
    down: tuple[float, float, float]

    def __post_init__(self):
        if not isinstance(self.down, list | tuple) or len(self.down) != 3:
            raise EditError("A direction has three numbers.")
        values = tuple(number(v, "direction", -1e6, 1e6, "") for v in self.down)
        if not any(values):
            raise EditError("The direction has no length.")
        object.__setattr__(self, "down", values)

    def applied(self, setup, source):
        matrix = rotation_taking_down(setup.rotation @ np.array(self.down)) @ setup.rotation
        return setup.turned(angles_of_rotation(matrix))

    def said(self):
        return "stand it another way"


@registered
@dataclass(frozen=True)
class Level(Edit):
    """Turn the piece by the least that sets places of its surface level with each other.

    ``anchors`` are two or three places of the surface, see `place_from`.
    """

    kind: ClassVar[str] = "level"
    anchors: tuple[Pick | Anchor, ...]

    def __post_init__(self):
        if not isinstance(self.anchors, list | tuple) or len(self.anchors) not in (2, 3):
            raise EditError("Two places or three can be set level with each other.")
        object.__setattr__(self, "anchors", tuple(place_from(a) for a in self.anchors))

    def applied(self, setup, source):
        linear = setup.rotation @ setup.frame.matrix
        anchors = self._anchors(self.anchors, setup, source)
        places = [linear @ np.array(anchor.point) for anchor in anchors]
        if len(places) == 3:
            return self._plane_level(places, setup, source)
        apart = places[1] - places[0]
        flat = float(np.hypot(apart[0], apart[1]))
        if flat <= 1e-6 * np.linalg.norm(apart) or not np.any(apart):
            raise EditError("The two places lie straight above each other; choose two others.")
        toward = np.degrees(np.arctan2(apart[1], apart[0]))
        rise = np.degrees(np.arctan2(apart[2], flat))
        return Lean(float(toward), float(rise)).applied(setup, source)

    def _plane_level(self, places, setup, source):
        across = np.cross(places[1] - places[0], places[2] - places[0])
        size = max(float(np.ptp(places, axis=0).max()), 1e-300)
        if np.linalg.norm(across) < 1e-6 * size**2:
            raise EditError("The three places lie on one line; choose others.")
        down = across if across[2] < 0 else -across
        down = setup.rotation.T @ (down / np.linalg.norm(down))
        return StandOn(tuple(float(v) for v in down)).applied(setup, source)

    def said(self):
        return f"set {'two' if len(self.anchors) == 2 else 'three'} places level"


@registered
@dataclass(frozen=True)
class FaceDown(Edit):
    """Set the model down on the face at a place, by the smallest turn."""

    kind: ClassVar[str] = "face_down"
    at: Pick | Anchor

    def __post_init__(self):
        object.__setattr__(self, "at", place_from(self.at))

    def applied(self, setup, source):
        (anchor,) = self._anchors((self.at,), setup, source)
        normal = setup.frame.normal(anchor.normal)
        if not normal.any():
            raise EditError("That facet has no area; choose another one.")
        matrix = rotation_taking_down(setup.rotation @ normal) @ setup.rotation
        return setup.turned(angles_of_rotation(matrix))

    def said(self):
        return "set a face down"


@registered
@dataclass(frozen=True)
class Lift(Edit):
    """Hold the piece above the plate."""

    kind: ClassVar[str] = "lift"
    lift_mm: float

    def __post_init__(self):
        number(self.lift_mm, "lift", 0.0, MAX_LIFT_MM, "mm")

    def applied(self, setup, source):
        return replace(setup, pose=replace(setup.pose, lift_mm=float(self.lift_mm)))

    def said(self):
        return f"lift {self.lift_mm:g} mm"


@registered
@dataclass(frozen=True)
class Move(Edit):
    """Move the middle of the piece away from the middle of the plate."""

    kind: ClassVar[str] = "move"
    x_mm: float
    y_mm: float

    def __post_init__(self):
        number(self.x_mm, "place along X", -MAX_MOVE_MM, MAX_MOVE_MM, "mm")
        number(self.y_mm, "place along Y", -MAX_MOVE_MM, MAX_MOVE_MM, "mm")

    def applied(self, setup, source):
        move_mm = (float(self.x_mm), float(self.y_mm))
        return replace(setup, pose=replace(setup.pose, move_mm=move_mm))

    def said(self):
        return f"move to {self.x_mm:g}, {self.y_mm:g} mm"


@registered
@dataclass(frozen=True)
class AsImported(Edit):
    """Stand the piece as it was imported: no turn, no lift, not moved. Size and pillars stay."""

    kind: ClassVar[str] = "as_imported"

    def applied(self, setup, source):
        return replace(setup, pose=Pose())

    def said(self):
        return "back to as imported"
