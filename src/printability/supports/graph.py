"""Supports as a graph: members between ends, fitted in the order in which they depend.

A support is kept as what the maker said: its kind, its ends and its dimensions. What it comes to
on a part as it stands, its members, is fitted again whenever that changes, and never kept. A new
kind is one module that registers a `SupportKind`.
"""

from bisect import bisect_right
from collections.abc import Callable, Iterable
from dataclasses import dataclass, field, replace
from enum import StrEnum
from functools import cached_property

import numpy as np

from ..errors import EditError
from ..mesh import Mesh
from ..parts import Anchor, Part, SurfacePoint, resolve
from ..process import Process
from .shape import Rod, Shape, Solid, shape_of
from .sizes import Size

__all__ = [
    "KINDS",
    "Contact",
    "End",
    "Fit",
    "Fitted",
    "OnBelow",
    "OnModel",
    "OnPlate",
    "OnSupport",
    "Support",
    "SupportKind",
    "World",
    "fit_all",
    "registered_kind",
]

# Fits that a placed part remembers: previews of a drag pass through here too.
_MOST_FITS = 4_000
# So are places on its surface.
_MOST_SURFACES = 20_000


@dataclass(frozen=True)
class OnModel:
    """An end on the surface of the part."""

    anchor: Anchor


@dataclass(frozen=True)
class OnPlate:
    """An end on the build plate; straight below the other end where no place is given."""

    at_mm: tuple[float, float] | None = None


@dataclass(frozen=True)
class OnBelow:
    """An end on whatever is straight below: the part, else the plate."""


@dataclass(frozen=True)
class OnSupport:
    """An end on another support, a part ``t`` of the way from its first end to its last.

    Without ``t``: where the kind that has the end thinks best.
    """

    key: str
    t: float | None = None


End = OnModel | OnPlate | OnBelow | OnSupport


@dataclass(frozen=True)
class Support:
    """A support as the maker said it.

    Attributes
    ----------
    key : str
        Never given out twice within a stance.
    kind : str
        A key of `KINDS`.
    ends : tuple of End
    size : Size
        The kind's own dimensions.
    insist : bool
        Whether it is made though it runs through the part or rises too flat.
    why : str
        Why it is there, where it was proposed.
    """

    key: str
    kind: str
    ends: tuple[End, ...]
    size: Size
    insist: bool = False
    why: str = ""

    @property
    def rests_on(self) -> tuple[str, ...]:
        """Keys of the supports that it has an end on."""
        return tuple(end.key for end in self.ends if isinstance(end, OnSupport))


class Fit(StrEnum):
    """Whether a support can stand."""

    STANDS = "stands"
    BLOCKED = "blocked"
    NO_CONTACT = "no_contact"
    NO_ROOM = "no_room"
    LOST = "lost"
    SHALLOW = "shallow"


@dataclass(frozen=True)
class Contact:
    """Where a support meets the model.

    ``slope_deg`` is that of the surface there, and ``facet`` the one of the part that it is on:
    -1 where there is no surface any more.
    """

    at_mm: tuple[float, float, float]
    diameter_mm: float
    slope_deg: float
    facet: int


@dataclass(frozen=True, eq=False)
class Fitted:
    """What a support comes to on a placed part.

    Attributes
    ----------
    support : Support
    fit : Fit
    text : str
        One sentence where it cannot stand, or what to know where it does; may be empty.
    contacts : tuple of Contact
    members : tuple of Rod or Solid
        Empty where there is nothing to draw.
    blocked_at_mm : (3,) tuple or None
        The highest place where something is in the way, insisted on or not.
    spine : tuple of (3,) tuple
        Its middle line from the first end to the last: what other supports are joined to.
    """

    support: Support
    fit: Fit
    text: str
    contacts: tuple[Contact, ...]
    members: tuple[Rod | Solid, ...] = ()
    blocked_at_mm: tuple[float, float, float] | None = None
    spine: tuple[tuple[float, float, float], ...] = ()

    @property
    def stands(self) -> bool:
        """Whether it is made."""
        return self.fit == Fit.STANDS

    @property
    def contact_mm(self) -> tuple[float, float, float]:
        """Where it meets the model, or did; the middle of it where it meets none."""
        if self.contacts:
            return self.contacts[0].at_mm
        if not self.members:
            return (0.0, 0.0, 0.0)
        low, high = self.mesh.low_mm, self.mesh.high_mm
        return tuple(float(v) for v in (low + high) / 2)

    @cached_property
    def shape(self) -> Shape:
        """Its surface; the same one for all that have equal members."""
        return shape_of(self.members)

    @property
    def solids(self) -> tuple[Mesh, ...]:
        """Its parts as watertight meshes; they may overlap."""
        return self.shape.solids

    @property
    def mesh(self) -> Mesh:
        """All of it side by side in one mesh."""
        return self.shape.mesh

    @property
    def whole(self) -> Mesh:
        """All of it as one surface."""
        return self.shape.whole

    @property
    def volume_mm3(self) -> float:
        """Of all of it, what overlaps counted once."""
        return self.shape.volume_mm3

    def at(self, t: float) -> tuple[float, float, float]:
        """The place a part of the way along its spine."""
        points = np.array(self.spine, float)
        along = np.concatenate(
            [[0.0], np.cumsum(np.linalg.norm(np.diff(points, axis=0), axis=1))]
        )  # fmt: skip
        return tuple(float(np.interp(t * along[-1], along, points[:, k])) for k in range(3))

    def at_height(self, z_mm: float) -> tuple[float, float, float]:
        """The place of its spine at a height, within its ends."""
        (upwards, heights), z_mm = self._upwards, float(z_mm)
        i = bisect_right(heights, z_mm) - 1
        if not 0 <= i < len(heights) - 1:
            return upwards[max(i, 0)]
        (x, y, z), (u, v, w) = upwards[i : i + 2]
        return ((u - x) / (w - z) * (z_mm - z) + x, (v - y) / (w - z) * (z_mm - z) + y, z_mm)

    @cached_property
    def _upwards(self) -> tuple[list[tuple[float, float, float]], list[float]]:
        """The points of its spine from the lowest up, and their heights."""
        points = sorted((tuple(map(float, p)) for p in self.spine), key=lambda p: p[2])
        return points, [z for _, _, z in points]


@dataclass(eq=False)
class World:
    """A placed part as supports see it, with what was fitted to it.

    Attributes
    ----------
    part : Part
    mesh : Mesh
        The part on its plate; its index is the one that all supports ask.
    matrix : (4, 4) float
        Takes the import's own numbers to ``mesh``.
    """

    part: Part
    mesh: Mesh
    matrix: np.ndarray
    fits: dict[tuple, Fitted] = field(default_factory=dict, repr=False)
    # Meshes of the maker's own for stands, by their digest.
    shapes: dict[str, Mesh] = field(default_factory=dict, repr=False)
    _surfaces: dict[Anchor, SurfacePoint | None] = field(default_factory=dict, repr=False)

    def surface_at(self, anchor: Anchor) -> SurfacePoint | None:
        """Where a place is on the part now."""
        if anchor not in self._surfaces:
            if len(self._surfaces) >= _MOST_SURFACES:
                self._surfaces.clear()
            self._surfaces[anchor] = resolve(anchor, self.part)
        return self._surfaces[anchor]

    def place_of(self, anchor: Anchor) -> tuple[float, float, float]:
        """Where a place is above the plate, whether there is a surface or not."""
        return tuple(float(v) for v in self.matrix[:3, :3] @ anchor.point + self.matrix[:3, 3])


@dataclass(frozen=True)
class SupportKind:
    """A kind of support.

    Attributes
    ----------
    key, label, plural : str
    ends : tuple of tuples of types
        What each of its ends may be on.
    size : type
        Dataclass of its dimensions, a `Size`.
    size_for : callable
        ``(process) -> size``: the dimensions that a process suggests.
    fitted : callable
        ``(world, support, on) -> Fitted``, given the fits of the supports that it rests on.
    least_ends : int, optional
        Where there may be any number of ends from this one on, all like the last.
    under_all : bool
        Whether it rests on all supports that have a foot where it names none.
    """

    key: str
    label: str
    ends: tuple[tuple[type, ...], ...]
    size: type[Size]
    size_for: Callable[[Process], Size]
    fitted: Callable[[World, Support, tuple[Fitted, ...]], Fitted]
    plural: str = ""
    least_ends: int | None = None
    under_all: bool = False

    def may_be(self, count: int) -> list[tuple[type, ...]]:
        """What each of so many ends may be on.

        Raises
        ------
        EditError
            If it cannot have so many.
        """
        if self.least_ends is None:
            if count != len(self.ends):
                raise EditError(f"A {self.label} has {len(self.ends)} ends.")
            return list(self.ends)
        if count < self.least_ends:
            raise EditError(f"A {self.label} needs {self.least_ends} ends or more.")
        return [self.ends[min(i, len(self.ends) - 1)] for i in range(count)]


KINDS: dict[str, SupportKind] = {}


def registered_kind(kind: SupportKind) -> SupportKind:
    """Makes a kind of support known under its key."""
    KINDS[kind.key] = kind
    return kind


def fit_all(world: World, supports: Iterable[Support]) -> dict[str, Fitted]:
    """Fit supports to a placed part, each after those that it rests on.

    A fit is remembered by the support and by the fits that it rests on: what did not change is
    not fitted again. The answer has the order of ``supports``.
    """
    supports = tuple(supports)
    known = {support.key: support for support in supports}
    under = {s.key for s in supports if s.kind in KINDS and KINDS[s.kind].under_all}
    on_feet = tuple(s.key for s in supports if s.key not in under and not s.rests_on)
    done: dict[str, Fitted] = {}
    for first in supports:
        stack = [first.key]
        while stack:
            support = known[stack[-1]]
            if support.key in done:
                stack.pop()
                continue
            rests_on = support.rests_on
            if support.key in under and not rests_on:
                rests_on = on_feet
            waits = [k for k in rests_on if k in known and k not in done]
            round_about = [k for k in waits if k in stack]
            if waits and not round_about:
                stack.append(waits[0])
                continue
            stack.pop()
            gone = [k for k in rests_on if k not in known] + round_about
            done[support.key] = _lost_on(world, support, gone) if gone else _fit(
                world, support, tuple(done[k] for k in rests_on)
            )  # fmt: skip
    return {support.key: done[support.key] for support in supports}


def _fit(world: World, support: Support, on: tuple[Fitted, ...]) -> Fitted:
    name = (support, on)
    known = world.fits.get(name)
    if known is None:
        kind = KINDS.get(support.kind)
        if kind is None:
            raise EditError(f"There is no support “{support.kind}”.")
        fallen = [] if kind.under_all else [f.support.key for f in on if not f.members]
        known = _lost_on(world, support, fallen) if fallen else kind.fitted(world, support, on)
        if support.insist and known.fit in (Fit.BLOCKED, Fit.SHALLOW):
            known = replace(known, fit=Fit.STANDS, text=f"{known.text} You insisted.")
        while len(world.fits) >= _MOST_FITS:
            world.fits.pop(next(iter(world.fits)), None)
        world.fits[name] = known
    return known


def _lost_on(world: World, support: Support, gone: list[str]) -> Fitted:
    places = [world.place_of(e.anchor) for e in support.ends if isinstance(e, OnModel)]
    return Fitted(
        support, Fit.LOST, f"What it stood on (support {gone[0]}) is not there any more.",
        tuple(Contact(at, 0.0, 0.0, -1) for at in places),
    )  # fmt: skip
