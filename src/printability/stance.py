"""A stance: one way to stand a piece, kept as edits over its untouched source mesh.

Folding the edits (`edits`) gives the setup; placing the source mesh by the setup gives what
stands on the plate. Nothing is ever baked into the source.
"""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np

from .measuring import Anchor
from .mesh import (
    MM_PER_UNIT,
    Mesh,
    rotation_about_axes,
)
from .pillars import FittedPillar, PillarSpec, fit_pillar
from .process import PROCESSES, Process
from .surface import Stroke

if TYPE_CHECKING:
    from .edits import Edit

__all__ = [
    "Accepted",
    "Placed",
    "Setup",
    "fold",
    "place",
    "turned",
]


@dataclass(frozen=True)
class Accepted:
    """A finding that the maker has accepted: its kind, place on the source, and a note."""

    finding: str
    place: tuple[float, float, float]
    note: str


@dataclass(frozen=True)
class Setup:
    """What a stance's edits add up to, before any geometry is computed."""

    unit: str = "mm"
    process: Process = PROCESSES["fdm"]
    threshold_deg: float | None = None
    angles_deg: tuple[float, float, float] = (0.0, 0.0, 0.0)
    lift_mm: float = 0.0
    pillars: tuple[tuple[str, PillarSpec], ...] = ()
    accepted: tuple["Accepted", ...] = ()
    measures: tuple[tuple[str, tuple[Anchor, ...]], ...] = ()
    strokes: tuple[Stroke, ...] = ()

    @property
    def effective_threshold_deg(self) -> float:
        """The overhang threshold in force: the stance's own, else the process's."""
        return self.process.threshold_deg if self.threshold_deg is None else self.threshold_deg


def fold(source: Mesh, edits: Iterable["Edit"], start: Setup | None = None) -> Setup:
    """What the edits add up to, over the source mesh that facets refer to."""
    setup = start or Setup()
    for edit in edits:
        setup = edit.applied(setup, source)
    return setup


@dataclass(frozen=True, eq=False)
class Placed:
    """A model on its plate.

    Attributes
    ----------
    mesh : Mesh
        Turned and moved, mm; the plate is z = 0 and its middle x = y = 0.
    matrix : (4, 4) float
        Takes the source mesh, in its own unit, to ``mesh``.
    pillars : dict
        Key to `FittedPillar`, in the order in which they were made.
    """

    mesh: Mesh
    matrix: np.ndarray
    pillars: dict[str, FittedPillar]
    accepted: tuple[Accepted, ...] = ()

    def source_place(self, point_mm: tuple[float, float, float]) -> tuple[float, float, float]:
        """A point of the plate as a place on the source mesh, in its own unit."""
        moved = np.asarray(point_mm) - self.matrix[:3, 3]
        return tuple(float(v) for v in np.linalg.solve(self.matrix[:3, :3], moved))

    def accepted_at(self, finding: str, point_mm: tuple[float, float, float]) -> str | None:
        """The note of an accepted finding of that kind at that place, None if there is none.

        It is the same place within a fiftieth of the model's diagonal, or a millimetre.
        """
        near = max(1.0, float(np.linalg.norm(np.ptp(self.mesh.vertices, axis=0))) / 50)
        best = None
        for accepted in self.accepted:
            if accepted.finding != finding:
                continue
            place = self.matrix[:3, :3] @ accepted.place + self.matrix[:3, 3]
            apart = float(np.linalg.norm(place - point_mm))
            if apart <= near and (best is None or apart < best[0]):
                best = apart, accepted.note
        return None if best is None else best[1]

    @property
    def standing(self) -> list[FittedPillar]:
        """The pillars that can stand."""
        return [pillar for pillar in self.pillars.values() if pillar.fit == "stands"]

    @property
    def size_mm(self) -> tuple[float, float, float]:
        """Extent of the model along X, Y and Z."""
        return tuple(float(v) for v in np.ptp(self.mesh.vertices, axis=0))


def turned(source: Mesh, unit: str, angles_deg: tuple[float, float, float]) -> Mesh:
    """The source in mm, turned about the origin and dropped onto z = 0; x and y as turned."""
    matrix = rotation_about_axes(*angles_deg) * MM_PER_UNIT[unit]
    vertices = source.vertices @ matrix.T
    vertices[:, 2] -= vertices[:, 2].min()
    return source.moved(np.ascontiguousarray(vertices))


def place(source: Mesh, setup: Setup, base: "Placed | None" = None) -> Placed:
    """Stand the model as the setup says, in the middle of the plate, and fit its pillars.

    ``base`` may be a placing of the same source by a setup that differs only in pillars; its
    mesh is then used as it is.
    """
    if base is None:
        mesh = turned(source, setup.unit, setup.angles_deg)
        low, high = mesh.vertices.min(axis=0), mesh.vertices.max(axis=0)
        shift = np.array([-(low[0] + high[0]) / 2, -(low[1] + high[1]) / 2, setup.lift_mm])
        mesh = mesh.moved(mesh.vertices + shift)
        matrix = np.eye(4)
        matrix[:3, :3] = rotation_about_axes(*setup.angles_deg) * MM_PER_UNIT[setup.unit]
        matrix[:3, 3] = mesh.vertices[0] - matrix[:3, :3] @ source.vertices[0]
    else:
        mesh, matrix = base.mesh, base.matrix
    pillars = {key: fit_pillar(mesh, spec) for key, spec in setup.pillars}
    return Placed(mesh, matrix, pillars, setup.accepted)
