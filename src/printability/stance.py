"""A stance: one way to stand a piece, kept as edits over its untouched source mesh.

Folding the edits (`edits`) gives the setup; placing the source mesh by the setup gives what
stands on the plate. Nothing is ever baked into the source.
"""

from collections.abc import Iterable
from dataclasses import dataclass, field, replace
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
    "shaped",
    "turned",
]


# Fits that a mesh remembers: previews of a drag pass through here too.
_MOST_FITS = 2_000


@dataclass(frozen=True)
class Accepted:
    """A finding that the maker has accepted: its kind, place on the source, and a note.

    ``burden`` is how bad it was then, None where that is not known, and ``said`` the same in
    words.
    """

    finding: str
    place: tuple[float, float, float]
    note: str
    burden: float | None = None
    said: str = ""


@dataclass(frozen=True)
class Setup:
    """What a stance's edits add up to, before any geometry is computed.

    Pillars and measures have keys, which are never given out twice.
    """

    unit: str = "mm"
    process: Process = PROCESSES["fdm"]
    threshold_deg: float | None = None
    angles_deg: tuple[float, float, float] = (0.0, 0.0, 0.0)
    lift_mm: float = 0.0
    pillars: tuple[tuple[str, PillarSpec], ...] = ()
    accepted: tuple["Accepted", ...] = ()
    measures: tuple[tuple[str, str, tuple[Anchor, ...]], ...] = ()
    measures_taken: int = 0
    strokes: tuple[Stroke, ...] = ()
    scale: tuple[float, float, float] = (1.0, 1.0, 1.0)
    mirrored: tuple[bool, bool, bool] = (False, False, False)
    move_mm: tuple[float, float] = (0.0, 0.0)

    @property
    def effective_threshold_deg(self) -> float:
        """The overhang threshold in force: the stance's own, else the process's."""
        return self.process.threshold_deg if self.threshold_deg is None else self.threshold_deg

    @property
    def rotation(self) -> np.ndarray:
        """(3, 3) float: the turn."""
        return rotation_about_axes(*self.angles_deg)

    @property
    def shape(self) -> np.ndarray:
        """(3, 3) float: scale and mirror along the piece's own axes, and its unit to mm."""
        signs = [-f if m else f for f, m in zip(self.scale, self.mirrored, strict=True)]
        return np.diag(signs) * MM_PER_UNIT[self.unit]

    @property
    def linear(self) -> np.ndarray:
        """(3, 3) float: shape, then turn."""
        return self.rotation @ self.shape

    @property
    def is_mirrored(self) -> bool:
        """Whether left and right are exchanged."""
        return sum(self.mirrored) % 2 == 1

    @property
    def bare(self) -> "Setup":
        """Only what decides the shape of the piece and how it lies on the plate."""
        return Setup(
            unit=self.unit, angles_deg=self.angles_deg, lift_mm=self.lift_mm, scale=self.scale,
            mirrored=self.mirrored, move_mm=self.move_mm,
        )  # fmt: skip


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
    is_mirrored : bool
        The corners of a mirrored model's facets run the other way round than the source's.
    """

    mesh: Mesh
    matrix: np.ndarray
    pillars: dict[str, FittedPillar]
    accepted: tuple[Accepted, ...] = ()
    is_mirrored: bool = False
    # What was fitted on this mesh, for all placings that share it.
    _fits: dict[PillarSpec, FittedPillar] = field(default_factory=dict, repr=False)

    def source_place(self, point_mm: tuple[float, float, float]) -> tuple[float, float, float]:
        """A point of the plate as a place on the source mesh, in its own unit."""
        moved = np.asarray(point_mm) - self.matrix[:3, 3]
        return tuple(float(v) for v in np.linalg.solve(self.matrix[:3, :3], moved))

    def weights(self, of_source: tuple[float, float, float]) -> tuple[float, float, float]:
        """Weights of a source facet's corners, in the order of this mesh's corners."""
        a, b, c = of_source
        return (a, c, b) if self.is_mirrored else (a, b, c)

    def anchor(self, of_source: Anchor) -> Anchor:
        """An anchor on the source mesh as one on this mesh."""
        return Anchor(of_source.facet, self.weights(of_source.weights))

    def fit(self, spec: PillarSpec) -> FittedPillar:
        """Fit a pillar whose contact is kept on the source mesh."""
        known = self._fits.get(spec)
        if known is None:
            own = replace(spec, weights=self.weights(spec.weights))
            known = replace(fit_pillar(self.mesh, own), spec=spec)
            while len(self._fits) >= _MOST_FITS:
                self._fits.pop(next(iter(self._fits)), None)
            self._fits[spec] = known
        return known

    @property
    def standing(self) -> list[FittedPillar]:
        """The pillars that can stand."""
        return [pillar for pillar in self.pillars.values() if pillar.fit == "stands"]

    @property
    def size_mm(self) -> tuple[float, float, float]:
        """Extent of the model along X, Y and Z."""
        return tuple(float(v) for v in np.ptp(self.mesh.vertices, axis=0))


def shaped(source: Mesh, setup: Setup) -> Mesh:
    """The source in mm, scaled and mirrored along its own axes, not turned yet."""
    grain = source.grain_mm * float(np.abs(setup.shape).max())
    mesh = source.moved(np.ascontiguousarray(source.vertices @ setup.shape.T), grain)
    if setup.is_mirrored:
        return Mesh(mesh.vertices, np.ascontiguousarray(source.facets[:, [0, 2, 1]]), grain)
    return mesh


def turned(shape: Mesh, angles_deg: tuple[float, float, float]) -> Mesh:
    """A model turned about the origin and dropped onto z = 0; x and y as turned."""
    vertices = shape.vertices @ rotation_about_axes(*angles_deg).T
    vertices[:, 2] -= vertices[:, 2].min()
    return shape.moved(np.ascontiguousarray(vertices))


def place(
    source: Mesh, setup: Setup, base: Placed | None = None, shape: Mesh | None = None
) -> Placed:
    """Stand the model as the setup says, in the middle of the plate, and fit its pillars.

    ``base`` may be a placing of the same source by a setup that differs only in what is not
    `Setup.bare`; its mesh is then used as it is. ``shape`` may be what `shaped` gives.
    """
    if base is None:
        mesh = turned(shaped(source, setup) if shape is None else shape, setup.angles_deg)
        low, high = mesh.vertices.min(axis=0), mesh.vertices.max(axis=0)
        middle = (low[:2] + high[:2]) / 2
        shift = np.array([*(np.array(setup.move_mm) - middle), setup.lift_mm])
        mesh = mesh.moved(mesh.vertices + shift)
        matrix = np.eye(4)
        matrix[:3, :3] = setup.linear
        matrix[:3, 3] = mesh.vertices[0] - setup.linear @ source.vertices[0]
        base = Placed(mesh, matrix, {}, is_mirrored=setup.is_mirrored)
    pillars = {key: base.fit(spec) for key, spec in setup.pillars}
    return replace(base, pillars=pillars, accepted=setup.accepted)
