"""A part: what the changes of shape so far leave of a piece.

A change of shape is kept as a `Step`; the digest of the steps up to one names what they leave,
and everything that is derived from it.
"""

import hashlib
from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass, field, replace
from functools import cached_property
from itertools import count, product
from string import ascii_lowercase

import numpy as np

from ..mesh import Mesh
from .frame import Frame

__all__ = ["WHOLE", "Part", "Step", "build_parts", "is_of"]

# The key of the one part that there is before any cut. What a cut leaves of a part has that
# part's key with a dot and a letter: what was said of "1" holds for "1.a" too. What a change of
# shape makes beside a part is a part by itself: nothing that was said of that holds for a plug.
WHOLE = "1"
PLUG = "p"


@dataclass(frozen=True, eq=False)
class Part:
    """What the changes of shape leave of a piece, or of a part of it.

    Attributes
    ----------
    key : str
    mesh : Mesh
        In mm, as imported but for the changes of shape: not turned.
    facet_from : (m,) int32
        Facet of the import that each facet was, or was cut from; -1 where it is new.
    frame : Frame
        How the import's numbers became mm.
    shape_digest : str
        Names the mesh but for its frame.
    framed_from : Mesh, optional
        The mesh in the import's own numbers where nothing but its frame was changed since.
    within : tuple of (normal, point)
        Planes that it was cut along, in the import's own numbers, their normals to its side.
    breaks_off : tuple of Mesh
        What was added to be broken off, in the import's own numbers; later changes of shape may
        have taken of it.
    """

    key: str
    mesh: Mesh
    facet_from: np.ndarray
    frame: Frame
    shape_digest: str
    framed_from: Mesh | None = field(default=None, repr=False)
    within: tuple[tuple[tuple[float, float, float], tuple[float, float, float]], ...] = ()
    breaks_off: tuple[Mesh, ...] = field(default=(), repr=False)

    @property
    def digest(self) -> str:
        """Names the part's mesh and everything derived from it."""
        return digest_of(self.shape_digest, repr(self.frame))

    @cached_property
    def own(self) -> Mesh:
        """The mesh in the import's own numbers; its facets are those of ``mesh``, by number."""
        if self.framed_from is not None:
            return self.framed_from
        return self.in_own_numbers(self.mesh)

    def in_own_numbers(self, mesh: Mesh) -> Mesh:
        """A surface in mm as the part's own, in the import's own numbers."""
        mesh = mesh.moved(np.ascontiguousarray(mesh.vertices / self.frame.factors))
        if self.frame.is_mirrored:
            mesh = Mesh(mesh.vertices, _wound_back(mesh.facets), mesh.grain_mm)
        return mesh

    def on_its_side(self, points: np.ndarray, hair: float) -> np.ndarray:
        """Which places, (p, 3) float in the import's own numbers, no cut gave to other parts."""
        inside = np.ones(len(points), bool)
        for normal, point in self.within:
            inside &= (points - point) @ np.array(normal) >= -hair * float(np.linalg.norm(normal))
        return inside

    def framed(self, frame: Frame) -> "Part":
        """The part with another unit, scale and mirror."""
        own = self.own
        grain = own.grain_mm * float(np.abs(frame.factors).max())
        mesh = own.moved(np.ascontiguousarray(own.vertices * frame.factors), grain)
        if frame.is_mirrored:
            mesh = Mesh(mesh.vertices, _wound_back(mesh.facets), grain)
        return replace(self, mesh=mesh, frame=frame, framed_from=own)


class Step:
    """A change of shape, as plain data whose ``repr`` says everything of it."""

    def applied(self, parts: tuple[Part, ...]) -> tuple[Part, ...]:
        """The parts that it leaves."""
        raise NotImplementedError


Remembered = Callable[[str, Step, tuple[Part, ...]], tuple[Part, ...]]


def is_of(edit_part: str, key: str) -> bool:
    """Whether what was said of one part holds for another: for itself, and what is left of it."""
    return key == edit_part or key.startswith(f"{edit_part}.")


def build_parts(
    source: Mesh,
    steps: Iterable[Step],
    remembered: Remembered | None = None,
) -> tuple[Part, ...]:
    """The parts that some steps leave of an imported mesh.

    Parameters
    ----------
    source : Mesh
    steps : iterable of Step
    remembered : callable, optional
        Given a name, a step and the parts that it is to be applied to: gives what is remembered
        under the name, or makes it, so that a step more costs only itself.
    """
    facets = np.arange(len(source.facets), dtype=np.int32)
    parts, name = (Part(WHOLE, source, facets, Frame(), source.digest, source),), source.digest
    for step in steps:
        name = digest_of(name, repr(step))
        parts = remembered(f"parts/{name}", step, parts) if remembered else step.applied(parts)
    return parts


def letters_in_turn() -> Iterator[str]:
    """What parts are told apart by: a, b … z, aa, ab …"""
    for length in count(1):
        for letters in product(ascii_lowercase, repeat=length):
            yield "".join(letters)


def digest_of(*parts: str) -> str:
    """A short name for what some texts say."""
    return hashlib.sha256("\n".join(parts).encode()).hexdigest()[:24]


def _wound_back(facets: np.ndarray) -> np.ndarray:
    return np.ascontiguousarray(facets[:, [0, 2, 1]])
