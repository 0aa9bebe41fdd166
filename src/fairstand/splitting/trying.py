"""A cut that is only tried, and the face of one that was made."""

import numpy as np
import shapely

from fairstand.memory import remembered
from fairstand.stances.current import Current
from fairstand.stances.cutting import CutFace, cut_face, joint_completed, plane_from
from printability.edits.base import number
from printability.edits.cuts import joint_of
from printability.errors import EditError
from printability.splitting import (
    MOST_LOOSE,
    Cut,
    Face,
    Joint,
    across_mm,
    bending_strain,
    face_of,
    fitting_places,
    joints_crossed,
    pokes_out,
    weighed,
    widest_that_fits,
    with_joint,
    zone_of,
)

__all__ = ["face_told", "joint_tried", "places_told", "tried"]

MOST_PLACES = 20


def tried(now: Current, body: dict) -> dict:
    """Both sides of a cut along a plane of the plate; nothing is changed."""
    plane = plane_from(now, body)
    kerf = number(body.get("kerf_mm", 0.0), "kerf", 0, 20, "mm")
    # One that was made is moved in what it was made in, and does not stand in its own way.
    part, moved = now.part, body.get("key")
    if moved is not None:
        part = cut_face(now, moved).part
    cut = Cut("try", part.key, tuple(plane["normal"]), tuple(plane["point"]), kerf)
    up = now.setup.rotation.T @ np.array([0.0, 0.0, 1.0])
    normal = cut.plane(part).normal
    found = weighed(
        part, cut, [-up, -normal], [-up, normal], now.setup.effective_threshold_deg - 0.01,
        now.setup.process.layer_height_mm / 2,
    )  # fmt: skip
    if found is None:
        raise EditError(
            "The model’s surface is open, so a cut has no inside to close; repair it where it "
            "was made."
        )
    matrix, factors = now.placed.matrix, now.part.frame.factors
    rings = []
    for ring in _rings(found.outline):
        flat = np.column_stack([ring, np.full(len(ring), found.plane.offset_mm)])
        own = found.plane.outside(flat) / factors
        rings.append((own @ matrix[:3, :3].T + matrix[:3, 3]).ravel().tolist())
    said = []
    if not found.a.bodies or not found.b.bodies:
        said.append("The plane does not meet the part.")
    cuts = tuple(s for s in now.setup.shape if isinstance(s, Cut) and s.key != moved)
    for other, joint in joints_crossed(part, cut, cuts):
        said.append(f"It may run through joint {joint} of cut {other}.")
    wall = now.setup.process["wall_mm"]
    sides = []
    for name, side in (("a", found.a), ("b", found.b)):
        if side.bodies and side.thinnest_mm < wall:
            said.append(
                f"Part {name} has a sliver of {side.thinnest_mm:.2f} mm; the least wall is "
                f"{wall:g} mm."
            )
        if side.bodies > 1:
            together = " So many stay together." if side.bodies > MOST_LOOSE else ""
            said.append(
                f"Part {name} falls into {side.bodies} bodies that nothing joins.{together}"
            )
        as_it_is, on_cut = side.overhang_mm2
        sides.append({
            "side": name, "volume_mm3": side.volume_mm3, "bodies": side.bodies,
            "overhang_as_it_is_mm2": as_it_is, "overhang_on_cut_mm2": on_cut,
        })  # fmt: skip
    return {"area_mm2": float(found.outline.area), "lines": rings, "sides": sides, "said": said}


def _rings(geometry) -> list[np.ndarray]:
    parts = shapely.get_parts(geometry)
    polygons = [p for p in parts if p.geom_type == "Polygon" and not p.is_empty]
    return [
        np.array(ring.coords)[:-1] for p in polygons for ring in (p.exterior, *p.interiors)
    ]  # fmt: skip


def _face(face: CutFace) -> Face:
    cut = face.cut
    name = f"face/{face.part.digest}/{cut.normal}/{cut.point}/{cut.kerf_mm}"
    return remembered(name, lambda: face_of(face.halves, cut.kerf_mm))


def face_told(now: Current, key) -> dict:
    """A cut's face drawn flat, with its joints."""
    face = cut_face(now, key)
    wall = now.setup.process["hole_wall_mm"]
    told = pokes_out(face.part, face.halves, face.cut, wall)
    flat = _face(face)
    if not flat.area_mm2:
        raise EditError("Nothing is left of that cut’s face.")
    return {
        "key": face.cut.key,
        "part": face.part.key,
        "area_mm2": flat.area_mm2,
        "kerf_mm": face.cut.kerf_mm,
        "keep": face.cut.keep,
        "loose": face.cut.loose,
        "wall_mm": wall,
        "clearance_mm": now.setup.process["clearance_mm"],
        "width_mm": _usual_width(flat, now),
        "down": _down(now, face),
        "outline": [ring.round(4).tolist() for ring in _rings(flat.outline)],
        "bounds": list(flat.outline.bounds),
        "joints": [_joint_told(face, joint, told, now) for joint in face.cut.joints],
        "dovetail": _tail_told(face),
        "said": told.get("dovetail", ""),
    }


def _usual_width(flat: Face, now: Current) -> float:
    """A joint's width that the face has room for, at most 5 mm, in halves of a mm."""
    rule = now.setup.process
    rim = shapely.maximum_inscribed_circle(flat.outline).length
    room = 2 * (rim - rule["clearance_mm"] - rule["hole_wall_mm"])
    return max(min(5.0, np.floor(1.8 * room) / 2), 1.0)


def _down(now: Current, face: CutFace) -> list[float]:
    """The way that the part on the bench faces at the cut, as a direction of its own."""
    normal = face.halves.plane.normal
    depth = now.part.mesh.vertices @ normal
    is_above = depth.mean() > face.halves.plane.offset_mm
    return [float(v) for v in (-normal if is_above else normal)]


def _uv(face: CutFace, at) -> list[float]:
    u, v, _ = face.halves.plane.inside(face.part.frame.factors * np.array(at, float))
    return [round(float(u), 4), round(float(v), 4)]


def _tail_told(face: CutFace) -> dict | None:
    tail = face.cut.dovetail
    return None if tail is None else vars(tail) | {"at": list(tail.at), "uv": _uv(face, tail.at)}


def _joint_told(face: CutFace, joint: Joint, told: dict, now: Current) -> dict:
    said = told.get(joint.key, "")
    strain = bending_strain(joint) if joint.kind == "snap" else 0.0
    limit = now.setup.process["snap_strain"]
    if strain > limit:
        said = f"{said} It bends by {100 * strain:.1f} %; the material bears {100 * limit:.1f} %."
    # Along the layers it is strong: where the beam rises from the plate it is bent across them.
    side = now.part.key.removeprefix(f"{face.part.key}.")[:1]
    up = now.placed.matrix[:3, :3] @ (face.halves.plane.normal / face.part.frame.factors)
    if joint.kind in ("peg", "snap") and side == joint.on and abs(up[2]) > 0.7:
        said = f"{said} As it stands it is bent across its layers, and carries about half."
    return {k: list(v) if isinstance(v, tuple) else v for k, v in vars(joint).items()} | {
        "uv": _uv(face, joint.at), "across_mm": across_mm(joint), "strain": strain,
        "said": said.strip(), "ok": joint.key not in told,
    }  # fmt: skip


def joint_tried(now: Current, body: dict) -> dict:
    """The zone in which a joint fits, and what is to be said of it where it is."""
    face = cut_face(now, body.get("cut"))
    said = body.get("joint")
    joint = joint_of(joint_completed(now, face, {"uv": [0, 0]} | said, "new")
                     if isinstance(said, dict) else {})  # fmt: skip
    wall = now.setup.process["hole_wall_mm"]
    zone = zone_of(face.halves, face.cut, joint, wall)
    told = {}
    if "uv" in said:
        cut = with_joint(face.cut, joint)
        told = pokes_out(face.part, face.halves, cut, wall)
    return {
        "zone": [ring.round(4).tolist() for ring in _rings(zone)],
        "zone_mm2": float(zone.area),
        "joint": _joint_told(face, joint, told, now),
    }


def places_told(now: Current, body: dict) -> dict:
    """Joints placed for the maker: as many as asked for, far apart, inside, fitting one way."""
    face = cut_face(now, body.get("cut"))
    count = body.get("count")
    if isinstance(count, bool) or not isinstance(count, int) or not 1 <= count <= MOST_PLACES:
        raise EditError(f"From 1 to {MOST_PLACES} joints can be placed.")
    said = body.get("joint")
    given = (
        joint_completed(now, face, {"uv": [0, 0]} | said, "new") if isinstance(said, dict) else {}
    )
    joint = joint_of(given)
    wall = now.setup.process["hole_wall_mm"]
    on = face.part, face.halves, face.cut
    found = fitting_places(*on, joint, wall, count, _face(face))
    joints = [
        {k: v for k, v in said.items() if k != "uv"}
        | {"uv": _uv(face, one.at), "width_mm": one.width_mm}
        for one in found
    ]
    note = "" if len(found) == count else f"There is room for {len(found)} of {count}."
    if not found:
        widest = widest_that_fits(*on, joint, wall, _face(face))
        note = "There is no room for such a joint on this face" + (
            f"; one of {widest:g} mm fits." if widest else ", nor for a thinner one."
        )
    return {"joints": joints, "note": note}
