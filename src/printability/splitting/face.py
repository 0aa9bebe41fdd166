"""The cut face drawn flat: its outline, where a joint fits, and what pokes out."""

from dataclasses import dataclass, replace

import manifold3d
import numpy as np
import shapely
from shapely.geometry.base import BaseGeometry

from ..parts import Part
from .cut import Cut, Halves, dovetail_solid, placed_joint
from .joints import Joint, across_mm, deeper_mm, hole_across_mm, pin_of, swept_room

__all__ = [
    "Face",
    "face_of",
    "fitting_places",
    "joints_crossed",
    "places_for",
    "pokes_out",
    "widest_that_fits",
    "zone_of",
]

# Where a pin grows, what is below its foot is looked at so deep.
_FOOT_MM = 0.1
# How far inwards joints are placed, as a part of the zone's room, until the exact test takes them.
_INWARDS = (0.0, 0.02, 0.1, 0.25, 0.45, 0.7, 0.9)
# A second joint is so much thinner; no pin is thinner than that.
_THINNER, _LEAST_WIDTH_MM = 0.8, 0.6
# Volumes below this are rounding, mm³.
_SPECK_MM3 = 1e-3


@dataclass(frozen=True, eq=False)
class Face:
    """The cut face, in the plane's own two coordinates, mm.

    Attributes
    ----------
    area_mm2 : float
        Of where both sides touch.
    outline : shapely geometry
    loose_a, loose_b : int
        Separate bodies on each side.
    """

    area_mm2: float
    outline: BaseGeometry
    loose_a: int
    loose_b: int


def _section(solids: list[manifold3d.Manifold], height: float) -> BaseGeometry:
    """What a level cuts of some solids."""
    return shapely.union_all([_section_of(one, height) for one in solids])


def _section_of(solid: manifold3d.Manifold, height: float) -> BaseGeometry:
    loops = [loop for loop in solid.slice(height).to_polygons() if len(loop) > 2]
    return _even_odd(loops)


def _even_odd(loops: list[np.ndarray]) -> BaseGeometry:
    polygons = [shapely.Polygon(loop) for loop in loops]
    polygons = [one if one.is_valid else one.buffer(0) for one in polygons]
    if not polygons:
        return shapely.Polygon()
    # Loops within loops are holes: what an even number of them covers is not there.
    first, *others = sorted(polygons, key=lambda p: -p.area)
    for other in others:
        first = first.symmetric_difference(other)
    return first


def face_of(halves: Halves, kerf_mm: float = 0.0) -> Face:
    """What a cut's faces are."""
    d, k = halves.plane.offset_mm, kerf_mm / 2
    hair = 1e-6 * max(1.0, abs(d))
    above = _section(halves.a, d + k + hair)
    below = _section(halves.b, d - k - hair)
    outline = above.intersection(below)
    return Face(float(outline.area), outline, len(halves.a), len(halves.b))


def zone_of(halves: Halves, cut: Cut, joint: Joint, wall_mm: float) -> BaseGeometry:
    """Where the middle of a joint may be, so that its holes keep their wall along all their depth.

    What is material at every depth that the hole with its wall reaches, less the hole's reach all
    around: on the safe side for outlines with corners and for tapers; `pokes_out` is exact.
    """
    d, k = halves.plane.offset_mm, cut.kerf_mm / 2
    bevel = 0.0 if joint.kind == "snap" else joint.bevel_mm
    reach = hole_across_mm(joint, max(wall_mm, bevel)) + 1e-3
    zone = None
    for side, solids, up in (("a", halves.a, 1.0), ("b", halves.b, -1.0)):
        depth = joint.depth_mm(side)
        below = deeper_mm(joint, k) + joint.clearance_mm + wall_mm
        deep = depth + below if depth else _FOOT_MM
        hair = 1e-6 * max(1.0, abs(d))
        ends = d + up * (k + hair), d + up * (k + deep)
        least = reach if depth else across_mm(joint) + 1e-3
        free = _throughout(solids, min(ends), max(ends)).buffer(-least)
        zone = free if zone is None else zone.intersection(free)
    return zone


def _throughout(solids: list[manifold3d.Manifold], low: float, high: float) -> BaseGeometry:
    """Where there is material at every height from one to another: what no gap casts a shadow on.

    Of one solid after another, so that what crosses from one into the next counts as a gap.
    """
    parts = []
    for solid in solids:
        box = np.array(solid.bounding_box())
        if not (box[2] < high and box[5] > low):
            continue
        size = box[3:5] - box[:2] + 2.0
        slab = manifold3d.Manifold.cube((float(size[0]), float(size[1]), high - low))
        slab = slab.translate((float(box[0]) - 1.0, float(box[1]) - 1.0, low))
        shadow = [p for p in (slab - solid).project().to_polygons() if len(p) > 2]
        whole = shapely.box(box[0] - 1, box[1] - 1, box[3] + 1, box[4] + 1)
        parts.append(whole.difference(_even_odd(shadow)))
    return shapely.union_all(parts) if parts else shapely.Polygon()


def fitting_places(
    part: Part, halves: Halves, cut: Cut, joint: Joint, wall_mm: float, count: int, face: Face
) -> list[Joint]:
    """Joints like one, up to so many, far from each other, each taken by the exact test.

    Where the places farthest out are refused, others farther in are looked for.

    Parameters
    ----------
    part, halves, cut
        The cut with the joints that it has already.
    joint : Joint
        What they are like; keys are given anew, "new 1" and on.
    wall_mm : float
    count : int
    face : Face
    """
    zone = zone_of(halves, cut, joint, wall_mm)
    for other in cut.joints:
        u, v, _ = halves.plane.inside(part.frame.factors * np.array(other.at, float))
        apart = across_mm(other) + across_mm(joint) + 2 * joint.clearance_mm + wall_mm
        zone = zone.difference(shapely.Point(u, v).buffer(apart))
    if zone.is_empty:
        return []
    # Their holes with the wall of one of them between.
    apart = hole_across_mm(joint, wall_mm) + hole_across_mm(joint, 0.0)
    room = shapely.maximum_inscribed_circle(zone).length
    best: list[Joint] = []
    for inwards in _INWARDS:
        within = zone.buffer(-inwards * room) if inwards else zone
        joints = []
        for uv in places_for(face, within, count, apart):
            at = halves.plane.outside(np.array([*uv, halves.plane.offset_mm]))
            at = tuple(float(x) for x in at / part.frame.factors)
            one = replace(joint, key=f"new {len(joints) + 1}", at=at)
            # One thinner than the others: so the pattern fits one way only.
            if len(joints) == 1 and joint.kind != "snap":
                one = replace(one, width_mm=round(_THINNER * joint.width_mm, 2))
            joints.append(one)
        told = pokes_out(part, halves, replace(cut, joints=(*cut.joints, *joints)), wall_mm)
        good = [one for one in joints if one.key not in told]
        if len(good) > len(best):
            best = good
        if len(best) == count:
            break
    return best


def widest_that_fits(
    part: Part, halves: Halves, cut: Cut, joint: Joint, wall_mm: float, face: Face
) -> float | None:
    """About how wide such a joint may be so that one is taken, mm; None where none is."""
    least = joint.width_mm
    while least > _LEAST_WIDTH_MM:
        least = round(_THINNER * least, 2)
        if fitting_places(part, halves, cut, replace(joint, width_mm=least), wall_mm, 1, face):
            return least
    return None


def pokes_out(part: Part, halves: Halves, cut: Cut, wall_mm: float) -> dict[str, str]:
    """Joints that leave their sides, or less than the least wall, each with a sentence.

    By booleans of the hole with its wall and what is there; joints are looked at against each
    other, too. The dovetail has the key "dovetail".
    """
    k, out = cut.kerf_mm / 2, {}
    rooms: list[tuple[str, str, manifold3d.Manifold]] = []
    for joint in cut.joints:
        for side, solids in (("a", halves.a), ("b", halves.b)):
            room = swept_room(joint, side, wall_mm, k)
            if room is None:
                foot = _foot_outside(part, halves, cut, joint, side)
                if foot > _SPECK_MM3:
                    out[joint.key] = "Part of its foot stands beside the cut face."
                continue
            room = placed_joint(part, halves.plane, joint, room)
            missing = room
            for one in solids:
                missing = missing - one
            if missing.volume() > _SPECK_MM3:
                bare = placed_joint(part, halves.plane, joint, swept_room(joint, side, 0.0, k))
                for one in solids:
                    bare = bare - one
                out[joint.key] = (
                    "It pokes out of the part." if bare.volume() > _SPECK_MM3
                    else f"Less than {wall_mm:g} mm of wall is left around it."
                )  # fmt: skip
            for key, where, other in rooms:
                if where == side and (other ^ room).volume() > _SPECK_MM3:
                    out.setdefault(joint.key, f"It is too near to joint {key}.")
            rooms.append((joint.key, side, room))
    if cut.dovetail is not None and (text := _tail_outside(part, halves, cut, wall_mm)):
        out["dovetail"] = text
    return out


def joints_crossed(part: Part, cut: Cut, others: tuple[Cut, ...]) -> list[tuple[str, str]]:
    """Joints of other cuts that a cut's plane may run through: keys of their cut and their own.

    By the cylinder around each; one that lies in another part counts too, so it is on the safe
    side.
    """
    plane = cut.plane(part)
    found = []
    for other in others:
        if other.key == cut.key:
            continue
        own = other.plane(part)
        for joint in other.joints:
            u, v, _ = own.inside(part.frame.factors * np.array(joint.at, float))
            middle = own.outside(np.array([u, v, own.offset_mm]))
            lean = float(plane.normal @ own.normal)
            reach = hole_across_mm(joint, 0.0) * np.sqrt(max(1 - lean**2, 0.0))
            at = float(plane.normal @ middle) - plane.offset_mm
            more = joint.clearance_mm + other.kerf_mm / 2 + deeper_mm(joint, other.kerf_mm / 2)
            deep = [at + lean * (joint.depth_a_mm + more), at - lean * (joint.depth_b_mm + more)]
            if min(deep) - reach < 0 < max(deep) + reach:
                found.append((other.key, joint.key))
    return found


def _foot_outside(part, halves, cut, joint, side) -> float:
    """What of a pin's foot stands on no material, mm³ of a thin slice."""
    d, k = halves.plane.offset_mm, cut.kerf_mm / 2
    up = -1.0 if side == "b" else 1.0
    pin = placed_joint(part, halves.plane, joint, pin_of(joint, k))
    face = d + up * k
    low, high = sorted((face, face + up * _FOOT_MM))
    foot = pin.trim_by_plane((0, 0, 1), low).trim_by_plane((0, 0, -1), -high)
    for one in halves.a if side == "a" else halves.b:
        foot = foot - one
    return foot.volume()


def _tail_outside(part, halves, cut, wall_mm) -> str:
    """Where a dovetail's groove breaks through: it may only leave the part along its slide."""
    tail, k = cut.dovetail, cut.kerf_mm / 2
    extent = float(np.linalg.norm(part.mesh.size_mm))
    room = dovetail_solid(tail, extent, tail.clearance_mm + wall_mm, -2 * k)
    room = placed_joint(part, halves.plane, tail, room.translate((0, 0, 3 * k)))
    room = room.trim_by_plane((0, 0, 1), halves.plane.offset_mm + k)
    # Seen along the slide, the groove with its wall must lie within what is above the cut.
    turn = -tail.turn_deg
    along = (0.0, 0.0, turn)

    def seen(solid):
        flat = solid.rotate(along).rotate((90, 0, 0)).project()
        polygons = [shapely.Polygon(p) for p in flat.to_polygons() if len(p) > 2]
        return shapely.union_all([p.buffer(0) for p in polygons]) if polygons else shapely.Polygon()

    there = shapely.union_all([seen(one) for one in halves.a])
    beyond = seen(room).difference(there)
    if beyond.area > 1e-3:
        return f"Its groove leaves less than {wall_mm:g} mm of wall beside or above it."
    return ""


def places_for(face: Face, zone: BaseGeometry, count: int, apart_mm: float) -> np.ndarray:
    """(n, 2) float: up to so many places in a zone, far from each other.

    The first two are the farthest pair of a grid, each further one the farthest from those before.
    """
    if zone.is_empty or count < 1:
        return np.zeros((0, 2))
    low_x, low_y, high_x, high_y = zone.bounds
    step = max(high_x - low_x, high_y - low_y) / 40 or 1.0
    grid = np.stack(
        np.meshgrid(np.arange(low_x, high_x + step, step), np.arange(low_y, high_y + step, step)),
        axis=-1,
    ).reshape(-1, 2)
    corners = shapely.get_coordinates(zone.boundary)
    pool = np.concatenate([grid[shapely.contains_xy(zone, grid)], corners])
    middle = shapely.get_coordinates(zone.representative_point())
    if count == 1:
        inner = shapely.get_coordinates(shapely.maximum_inscribed_circle(zone))[:1]
        return inner if len(inner) else middle
    centre = pool.mean(axis=0)
    chosen = [pool[int(np.argmax(np.hypot(*(pool - centre).T)))]]
    while len(chosen) < count:
        away = np.min([np.hypot(*(pool - one).T) for one in chosen], axis=0)
        best = int(np.argmax(away))
        if away[best] < apart_mm:
            break
        chosen.append(pool[best])
    return np.array(chosen)
