"""A stance: one way to make a piece, kept as edits over its untouched source mesh.

Folding the edits (`edits`) gives the setup of a part: the steps of its shape, its pose, and what
hangs on it by place. Building the steps gives the part; standing it by its pose gives what stands
on the plate. Nothing is ever baked into the source.
"""

from collections.abc import Iterable
from dataclasses import dataclass, field, replace
from functools import cached_property
from typing import TYPE_CHECKING

import numpy as np

from .mesh import Mesh, rotation_about_axes
from .parts import WHOLE, Anchor, Frame, Framed, Part, Remembered, Step, build_parts, is_of
from .process import PROCESSES, Process
from .supports import Fitted, Support, World, fit_all
from .surface import Dyes, Stroke

if TYPE_CHECKING:
    from .edits import Edit

__all__ = [
    "Accepted",
    "Placed",
    "Pose",
    "Setup",
    "fold",
    "part_of",
    "part_on_bench",
    "parts_of",
    "place",
    "stand",
    "turned",
]


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
class Pose:
    """How a part lies on the plate: turned about fixed X, Y, Z, lifted, and moved."""

    angles_deg: tuple[float, float, float] = (0.0, 0.0, 0.0)
    lift_mm: float = 0.0
    move_mm: tuple[float, float] = (0.0, 0.0)

    @property
    def rotation(self) -> np.ndarray:
        """(3, 3) float: the turn."""
        return rotation_about_axes(*self.angles_deg)


@dataclass(frozen=True)
class Setup:
    """What a stance's edits add up to for one part, before any geometry is computed.

    Supports and measures have keys, which are never given out twice. Everything on the surface is
    kept by place (`Anchor`).
    """

    process: Process = PROCESSES["fdm"]
    threshold_deg: float | None = None
    part: str = WHOLE
    shape: tuple[Step, ...] = ()
    pose: Pose = Pose()
    supports: tuple[Support, ...] = ()
    accepted: tuple[Accepted, ...] = ()
    measures: tuple[tuple[str, str, tuple[Anchor, ...]], ...] = ()
    measures_taken: int = 0
    strokes: tuple[Stroke, ...] = ()
    dyes: Dyes = field(default_factory=Dyes)
    # The maker's own meshes for stands: digest and mesh.
    shapes: tuple[tuple[str, Mesh], ...] = field(default=(), repr=False)

    @property
    def effective_threshold_deg(self) -> float:
        """The overhang threshold in force: the stance's own, else the process's."""
        return self.process.threshold_deg if self.threshold_deg is None else self.threshold_deg

    @property
    def frame(self) -> Frame:
        """Unit, scale and mirror in force."""
        framed = [step.frame for step in self.shape if isinstance(step, Framed)]
        return framed[-1] if framed else Frame()

    def framed(self, frame: Frame) -> "Setup":
        """The same in another frame.

        It comes before all other changes of shape, whenever it was asked for: these are kept in
        the import's own numbers, so joints, say, keep their dimensions when the piece is scaled.
        """
        others = tuple(step for step in self.shape if not isinstance(step, Framed))
        framed = () if frame == Frame() else (Framed(frame),)
        return replace(self, shape=(*framed, *others))

    @property
    def angles_deg(self) -> tuple[float, float, float]:
        """The turn about fixed X, Y, Z."""
        return self.pose.angles_deg

    @property
    def lift_mm(self) -> float:
        """How far it is held above the plate."""
        return self.pose.lift_mm

    @property
    def move_mm(self) -> tuple[float, float]:
        """From the middle of the plate."""
        return self.pose.move_mm

    @property
    def rotation(self) -> np.ndarray:
        """(3, 3) float: the turn."""
        return self.pose.rotation

    def turned(self, angles_deg: tuple[float, float, float]) -> "Setup":
        """The same turned otherwise."""
        return replace(self, pose=replace(self.pose, angles_deg=angles_deg))

    @cached_property
    def supports_key(self) -> str:
        """Says everything of the supports."""
        return repr(self.supports)


def fold(
    source: Mesh, edits: Iterable["Edit"], start: Setup | None = None, part: str | None = None
) -> Setup:
    """What the edits add up to for a part, over the source mesh that picks refer to.

    What was said of a part that this one was cut from holds for it too.
    """
    setup = start or Setup()
    if part is not None:
        setup = replace(setup, part=part)
    for edit in edits:
        if edit.concerns(setup.part):
            setup = edit.applied(setup, source)
    return setup


@dataclass(frozen=True, eq=False)
class Placed:
    """A part on its plate.

    Attributes
    ----------
    part : Part
    mesh : Mesh
        Turned and moved, mm; the plate is z = 0 and its middle x = y = 0.
    matrix : (4, 4) float
        Takes the import's own numbers to ``mesh``.
    supports : dict
        Key to `Fitted`, in the order in which they were made.
    """

    part: Part
    mesh: Mesh
    matrix: np.ndarray
    supports: dict[str, Fitted]
    accepted: tuple[Accepted, ...] = ()
    # What supports are fitted to, with what was fitted, for all placings that share the mesh.
    world: World | None = field(default=None, repr=False)

    def source_place(self, point_mm: tuple[float, float, float]) -> tuple[float, float, float]:
        """A point of the plate as a place of the import, in its own numbers."""
        moved = np.asarray(point_mm) - self.matrix[:3, 3]
        return tuple(float(v) for v in np.linalg.solve(self.matrix[:3, :3], moved))

    def on_plate(self, point: tuple[float, float, float]) -> tuple[float, float, float]:
        """A place of the import, in its own numbers, as a point of the plate."""
        return tuple(float(v) for v in self.matrix[:3, :3] @ point + self.matrix[:3, 3])

    @property
    def standing(self) -> list[Fitted]:
        """The supports that can stand."""
        return [support for support in self.supports.values() if support.stands]

    @property
    def size_mm(self) -> tuple[float, float, float]:
        """Extent of the model along X, Y and Z."""
        return tuple(float(v) for v in self.mesh.size_mm)


def part_of(source: Mesh, setup: Setup, remembered: Remembered | None = None) -> Part:
    """The setup's part as its steps leave it, not turned yet; see `build_parts`.

    Where it has not been cut off yet, what it is to be cut from; where it was cut further, the
    first of what it was cut into.
    """
    parts = {part.key: part for part in parts_of(source, setup, remembered)}
    return parts[part_on_bench(list(parts), setup.part)]


def parts_of(source: Mesh, setup: Setup, remembered: Remembered | None = None) -> tuple[Part, ...]:
    """All parts that the setup's steps leave."""
    return build_parts(source, setup.shape, remembered)


def part_on_bench(keys: list[str], wanted: str) -> str:
    """The part to show where another one may be gone: itself, what it was cut from or into."""
    if wanted in keys:
        return wanted
    above = [key for key in keys if is_of(key, wanted)]
    below = [key for key in keys if is_of(wanted, key)]
    return (above or below or keys)[0]


def turned(shape: Mesh, angles_deg: tuple[float, float, float]) -> Mesh:
    """A model turned about the origin and dropped onto z = 0; x and y as turned."""
    vertices = shape.vertices @ rotation_about_axes(*angles_deg).T
    vertices[:, 2] -= vertices[:, 2].min()
    return shape.moved(np.ascontiguousarray(vertices))


def stand(part: Part, setup: Setup, base: Placed | None = None) -> Placed:
    """Stand a part as the setup says, in the middle of the plate, and fit its supports.

    ``base`` may be a placing of the same part in the same pose; its mesh is then used as it is.
    """
    if base is None:
        pose = setup.pose
        mesh = turned(part.mesh, pose.angles_deg)
        low, high = mesh.low_mm, mesh.high_mm
        middle = (low[:2] + high[:2]) / 2
        shift = np.array([*(np.array(pose.move_mm) - middle), pose.lift_mm])
        mesh = mesh.moved(mesh.vertices + shift)
        matrix = np.eye(4)
        matrix[:3, :3] = pose.rotation @ part.frame.matrix
        matrix[:3, 3] = mesh.vertices[0] - pose.rotation @ part.mesh.vertices[0]
        base = Placed(part, mesh, matrix, {}, world=World(part, mesh, matrix))
    base.world.shapes.update(setup.shapes)
    supports = fit_all(base.world, setup.supports)
    return replace(base, supports=supports, accepted=setup.accepted)


def place(source: Mesh, setup: Setup) -> Placed:
    """Stand what the setup leaves of a source mesh."""
    return stand(part_of(source, setup), setup)
