"""A cut: a part taken apart along a plane, with what joins its sides."""

import math
from dataclasses import dataclass, fields, replace

import manifold3d
import numpy as np

from ..mesh import pieces_of
from ..parts import Part, Step, is_of
from ..parts.part import digest_of, letters_in_turn
from .joints import ROOT_MM, Joint, hole_of, pin_of
from .plane import Plane, plane_in_mm
from .solids import Tracked, tracked

__all__ = ["MOST_LOOSE", "Cut", "Dovetail", "Halves", "halves_of", "joined_sides", "placed_joint"]

# What is so near to the plane, as a part of the extent, lies on it.
ON_PLANE = 1e-7
# Bodies that a side is taken apart into at most; with more they stay together.
MOST_LOOSE = 100


@dataclass(frozen=True)
class Dovetail:
    """A ridge along the cut on side *b*, a groove in *a*: they slide together.

    Attributes
    ----------
    at : (3,) tuple of float
        A place on the cut that its middle runs through, in the import's own numbers.
    width_mm : float
        At the cut, where it is narrowest.
    depth_mm : float
    flank_deg : float
        By which its sides lean outwards.
    turn_deg : float
        The direction of sliding, about the cut's normal.
    taper_deg : float
        By which each side closes along the slide.
    clearance_mm : float
        Per side.
    """

    at: tuple[float, float, float]
    width_mm: float = 8.0
    depth_mm: float = 4.0
    flank_deg: float = 15.0
    turn_deg: float = 0.0
    taper_deg: float = 0.0
    clearance_mm: float = 0.15


@dataclass(frozen=True, repr=False)
class Cut(Step):
    """Take parts apart along a plane.

    Attributes
    ----------
    key : str
    part : str
        Which part is cut, with all that is left of it.
    normal, point : (3,) tuple of float
        The plane in the import's own numbers; its normal points to side *a*.
    kerf_mm : float
        What the saw takes, half on each side.
    keep : str
        "both", or the one side that is kept.
    loose : str
        What becomes of a side's separate bodies: they "stay" together or come "apart".
    dovetail : Dovetail, optional
    joints : tuple of Joint
    seam : str
        What the maker calls its seam.
    """

    key: str
    part: str
    normal: tuple[float, float, float]
    point: tuple[float, float, float]
    kerf_mm: float = 0.0
    keep: str = "both"
    loose: str = "stay"
    dovetail: Dovetail | None = None
    joints: tuple[Joint, ...] = ()
    seam: str = ""

    def __repr__(self) -> str:
        """All that the shape depends on: not what its seam is called."""
        said = (f"{one.name}={getattr(self, one.name)!r}" for one in fields(self)[:-1])
        return f"Cut({', '.join(said)})"

    def plane(self, part: Part) -> Plane:
        """Where it is on a part, in mm."""
        return plane_in_mm(part.frame, self.normal, self.point)

    def applied(self, parts: tuple[Part, ...]) -> tuple[Part, ...]:
        """What it leaves; a part that the plane does not meet, or that is no solid, stays."""
        out: list[Part] = []
        for part in parts:
            out += self._sides_of(part) if is_of(self.part, part.key) else [part]
        return tuple(out)

    def _sides_of(self, part: Part) -> list[Part]:
        halves = halves_of(part, self)
        if halves is None or not halves.a or not halves.b:
            return [part]
        a, b, pins = joined_sides(part, self, halves)
        groups: list[tuple[str, list]] = []
        for side, solids in (("a", a), ("b", b)):
            if self.keep not in ("both", side):
                groups.append((side, []))
            elif self.loose == "apart" and 1 < len(solids) <= MOST_LOOSE:
                groups += [(side, [one]) for one in sorted(solids, key=lambda s: -s.volume())]
            else:
                groups.append((side, solids))
        groups += [("", [pin]) for pin in pins] if self.keep == "both" else []
        made = []
        for letters, (side, solids) in zip(letters_in_turn(), groups, strict=False):
            if not solids:
                continue
            mesh, origin = halves.tracked.back(solids)
            digest = digest_of(part.shape_digest, repr(part.frame), repr(self), letters)
            within = (*part.within, *self._within(side))
            made.append(
                Part(
                    f"{part.key}.{letters}",
                    mesh,
                    origin,
                    part.frame,
                    digest,
                    within=within,
                    breaks_off=part.breaks_off,
                )
            )
        return made

    def _within(self, side: str) -> list[tuple]:
        """Where surface of the import may be on a side: see `Part.within`."""
        toward_a = (self.normal, self.point)
        toward_b = (tuple(-v for v in self.normal), self.point)
        if not side:
            return [toward_a, toward_b]  # a loose pin: nowhere
        # A ridge reaches beyond the plane, so near one a place may be on either side.
        return [] if self.dovetail is not None else [toward_a if side == "a" else toward_b]


@dataclass(frozen=True, eq=False)
class Halves:
    """Both sides of a cut before anything joins them, in the plane's coordinates."""

    plane: Plane
    tracked: Tracked
    whole: list[manifold3d.Manifold]
    a: list[manifold3d.Manifold]
    b: list[manifold3d.Manifold]


def halves_of(part: Part, cut: Cut) -> Halves | None:
    """A part on both sides of a cut; None where its surface bounds no solid."""
    plane = cut.plane(part)
    d, k = plane.offset_mm, cut.kerf_mm / 2
    if not len(part.mesh.vertices):
        return None
    extent = float(part.mesh.size_mm.max())
    far = float(np.abs(part.mesh.vertices).max())
    within = ON_PLANE * extent + 1e-9 * far + part.mesh.grain_mm
    found = tracked(part, plane.axes, (d - k, d + k) if k else (d,), within)
    if found is None:
        return None
    a, b = [], []
    for solid in found.solids:
        if found.lies_in_plane:
            # Of what is split off, only the rest is free of films where a flat lies in the plane.
            above = solid.split_by_plane((0, 0, -1), -(d + k))[1]
            below = solid.split_by_plane((0, 0, 1), d - k)[1]
        elif k:
            above = solid.trim_by_plane((0, 0, 1), d + k)
            below = solid.trim_by_plane((0, 0, -1), -(d - k))
        else:
            above, below = solid.split_by_plane((0, 0, 1), d)
        # What is decided by rounding alone is no body.
        least = 1e-12 * max(solid.volume(), 0.0)
        a += [one for one in pieces_of(above) if one.volume() > least]
        b += [one for one in pieces_of(below) if one.volume() > least]
    return Halves(plane, found, found.solids, a, b)


def placed_joint(part: Part, plane: Plane, joint: Joint | Dovetail, solid: manifold3d.Manifold):
    """A joint's solid moved from the middle of the plane to its place."""
    u, v, _ = plane.inside(part.frame.factors * np.array(joint.at, float))
    return solid.translate((float(u), float(v), plane.offset_mm))


def joined_sides(part: Part, cut: Cut, halves: Halves):
    """Both sides with their joints, and the loose pins of dowels, each a list of solids."""
    a, b = list(halves.a), list(halves.b)
    k = cut.kerf_mm / 2
    if cut.dovetail is not None:
        a, b = _dovetailed(part, cut, halves, a, b)
    pins = []
    for joint in cut.joints:
        sides = {"a": a, "b": b}
        for side, solids in sides.items():
            hole = hole_of(joint, side, k)
            if hole is not None:
                hole = placed_joint(part, halves.plane, joint, hole)
                solids[:] = [_only_if_left(one, one - hole) for one in solids]
        pin = placed_joint(part, halves.plane, joint, pin_of(joint, k))
        if joint.kind == "dowel":
            # A cut through several parts has its joints where they are, not once in each.
            if any((one ^ pin).volume() > 0 for one in (*halves.a, *halves.b)):
                pins.append(pin)
            continue
        own = sides[joint.on]
        shared = [(one ^ pin).volume() for one in own]
        if own and max(shared) > 0:
            best = int(np.argmax(shared))
            own[best] = own[best] + pin
    return a, b, pins


def _only_if_left(before: manifold3d.Manifold, after: manifold3d.Manifold) -> manifold3d.Manifold:
    """A body without a hole; the whole one where the hole would take all of it."""
    return before if after.is_empty() else after


def _profile(dovetail: Dovetail, grown_mm: float, low: float, narrower: float = 1.0):
    """(n, 2) float: across the slide, so many times as wide, and up; then moved out."""
    w, d = dovetail.width_mm / 2, dovetail.depth_mm
    lean = math.tan(math.radians(dovetail.flank_deg))
    points = [
        (-w + lean * -low, low),
        (w - lean * -low, low),
        (w + lean * d, d),
        (-w - lean * d, d),
    ]
    section = manifold3d.CrossSection([np.array(points) * (narrower, 1.0)])
    if grown_mm:
        section = section.offset(grown_mm, manifold3d.JoinType.Miter)
    return np.concatenate(section.to_polygons())


def dovetail_solid(dovetail: Dovetail, reach_mm: float, grown_mm: float, low: float):
    """The ridge, or the groove with the clearance around it, along the whole slide."""
    close = math.radians(dovetail.taper_deg)
    half = max(float(np.abs(_profile(dovetail, 0.0, low)[:, 0]).max()), 1e-6)
    corners = []
    for y in (-reach_mm, reach_mm):
        narrower = float(np.clip(1 - math.tan(close) * y / half, 0.02, 1.98))
        # Moved out square to the sides that close, too.
        profile = _profile(dovetail, grown_mm / math.cos(close), low, narrower)
        corners.append(np.insert(profile, 1, y, axis=1))
    solid = manifold3d.Manifold.hull_points(np.concatenate(corners))
    return solid.rotate((0, 0, dovetail.turn_deg))


def _dovetailed(part, cut, halves, a, b):
    tail, k = cut.dovetail, cut.kerf_mm / 2
    extent = float(np.linalg.norm(part.mesh.size_mm))
    ridge = dovetail_solid(tail, extent, 0.0, -(ROOT_MM + 2 * k))
    # Once the faces are closed the ridge lies deeper by the kerf.
    groove = dovetail_solid(tail, extent, tail.clearance_mm, -(ROOT_MM + 4 * k))
    place = [placed_joint(part, halves.plane, tail, one.translate((0, 0, z)))
             for one, z in ((ridge, k), (groove, 3 * k))]  # fmt: skip
    a = [_only_if_left(one, one - place[1]) for one in a]
    ridges = [one ^ place[0] for one in halves.whole]
    for ridge in (r for r in ridges if not r.is_empty()):
        shared = [(one ^ ridge).volume() for one in b]
        if shared and max(shared) > 0:
            best = int(np.argmax(shared))
            b[best] = b[best] + ridge
    return a, b


def with_joint(cut: Cut, joint: Joint) -> Cut:
    """The cut with a joint more, or in the place of the one with the same key."""
    known = [one.key for one in cut.joints]
    if joint.key in known:
        return replace(cut, joints=tuple(joint if j.key == joint.key else j for j in cut.joints))
    return replace(cut, joints=(*cut.joints, joint))
