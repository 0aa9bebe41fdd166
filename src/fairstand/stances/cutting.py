"""Edits of cuts and joints: what the page leaves out, and whether they can be made."""

from collections import OrderedDict
from dataclasses import dataclass
from threading import Lock

import numpy as np

from printability.edits.base import number
from printability.errors import EditError
from printability.judging import Fault, faults_of_cuts
from printability.parts import Part, is_of
from printability.splitting import (
    Cut,
    Halves,
    Plane,
    before_cut,
    halves_of,
    pokes_out,
)

from .current import Current
from .shapes import remembered_parts

__all__ = [
    "CutFace",
    "check_cut",
    "check_joints",
    "cut_completed",
    "cut_face",
    "cut_faults",
    "joint_completed",
    "joints_completed",
    "plane_from",
    "plane_on_plate",
]


@dataclass(frozen=True, eq=False)
class CutFace:
    """A cut of a stance, the part that it cuts, and both sides of that."""

    part: Part
    cut: Cut
    halves: Halves


# Solids keep their bytes to themselves, so few are remembered, and by number.
_LATELY: OrderedDict[tuple[str, str], Halves | None] = OrderedDict()
_MOST_KEPT = 3
_GUARD = Lock()


def _halves(part: Part, cut: Cut) -> Halves | None:
    """Both sides of a part; those looked at last are remembered."""
    name = part.digest, repr(cut)
    with _GUARD:
        if name in _LATELY:
            _LATELY.move_to_end(name)
            return _LATELY[name]
    found = halves_of(part, cut)
    with _GUARD:
        _LATELY[name] = found
        while len(_LATELY) > _MOST_KEPT:
            _LATELY.popitem(last=False)
    return found


def cut_face(now: Current, key) -> CutFace:
    """A cut of the stance.

    Raises
    ------
    EditError
        If there is none with that key, or it meets nothing.
    """
    known = isinstance(key, str) and before_cut(
        now.source, now.setup.shape, key, now.setup.part, remembered_parts
    )
    if not known:
        raise EditError("That cut is not there any more.")
    part, cut = known
    bare = Cut(cut.key, cut.part, cut.normal, cut.point, cut.kerf_mm)
    halves = _halves(part, bare)
    if halves is None or not halves.a or not halves.b:
        raise EditError("That cut does not meet the part any more.")
    return CutFace(part, cut, halves)


def plane_from(now: Current, body: dict) -> dict:
    """A plane of the plate in the import's own numbers: ``normal`` and ``point``."""

    def three(name: str, most: float) -> np.ndarray:
        value = body.get(name)
        if not isinstance(value, list | tuple) or len(value) != 3:
            raise EditError("A plane has a direction and a place, three numbers each.")
        return np.array([number(v, "plane's number", -most, most, "") for v in value])

    normal, through = three("plate_normal", 1e6), three("plate_point", 1e6)
    if not np.linalg.norm(normal) > 1e-9:
        raise EditError("The plane's direction has no length.")
    own = now.placed.matrix[:3, :3].T @ normal
    return {
        "normal": [float(v) for v in own / np.linalg.norm(own)],
        "point": [float(v) for v in now.placed.source_place(tuple(through))],
    }


def plane_on_plate(now: Current, plane: Plane) -> dict:
    """A plane of the part in mm as one of the plate: ``normal`` and ``point``."""
    rotation = now.placed.matrix[:3, :3] / now.part.frame.factors
    point = rotation @ (plane.normal * plane.offset_mm) + now.placed.matrix[:3, 3]
    return {"normal": (rotation @ plane.normal).tolist(), "point": point.tolist()}


def cut_completed(now: Current, parameters: dict, taken: tuple[str, ...] = ()) -> dict:
    """A cut's edit with its key, part and plane; the plane may be given on the plate.

    ``taken`` are keys that are given out already though they are not in the stance yet.
    """
    if not isinstance(parameters, dict):
        raise EditError("The edit's parameters cannot be read.")
    parameters = dict(parameters)
    key = parameters.get("key")
    known = {s.key: s for s in now.setup.shape if isinstance(s, Cut)}
    if key is None:
        parameters["key"] = _next_cut(now, taken)
    if "plate_normal" in parameters:
        plane = plane_from(now, parameters)
        parameters = {k: v for k, v in parameters.items() if not k.startswith("plate_")} | plane
    if isinstance(key, str) and key in known:
        old = known[key]
        kept = {"normal": old.normal, "point": old.point, "kerf_mm": old.kerf_mm,
                "keep": old.keep, "loose": old.loose, "dovetail": old.dovetail,
                "seam": old.seam}  # fmt: skip
        by = parameters.pop("by_mm", None)
        parameters = kept | parameters
        if by is not None:
            parameters["point"] = _moved(now, known[key], by)
    tail = parameters.get("dovetail")
    if isinstance(tail, dict) and "uv" in tail and isinstance(key, str):
        face = cut_face(now, key)
        parameters["dovetail"] = {k: v for k, v in tail.items() if k != "uv"} | {
            "at": _at(face, tail["uv"])
        }
    return {"part": now.setup.part} | parameters


def _moved(now: Current, cut: Cut, by) -> list[float]:
    """A place on a cut's plane moved along its normal, in the import's own numbers."""
    by = number(by, "move", -1000.0, 1000.0, "mm")
    frame = now.part.frame
    shift = by * frame.normal(cut.normal) / frame.factors
    return [float(v) for v in np.array(cut.point) + shift]


def _next_cut(now: Current, taken: tuple[str, ...]) -> str:
    """The next free number; none is given out twice within a stance."""
    used = list(taken)
    for kind, own in now.stance.edits.filter(kind__in=("cut", "several")).values_list(
        "kind", "parameters"
    ):
        among = [own] if kind == "cut" else [e["parameters"] for e in own.get("edits", ())]
        used += [one.get("key") for one in among]
    return str(max((int(k) for k in used if str(k).isdigit()), default=0) + 1)


def _at(face: CutFace, uv) -> list[float]:
    """A place on the cut face, in its own two coordinates, in the import's own numbers."""
    if not isinstance(uv, list | tuple) or len(uv) != 2:
        raise EditError("A place on the cut face has two numbers.")
    u, v = (number(x, "place on the cut", -1e6, 1e6, "mm") for x in uv)
    plane = face.halves.plane
    at = plane.outside(np.array([u, v, plane.offset_mm])) / face.part.frame.factors
    return [float(x) for x in at]


def joint_completed(now: Current, face: CutFace, said: dict, fresh: str) -> dict:
    """A joint with what the maker did not say of it: its key, place, and the usual dimensions."""
    if not isinstance(said, dict):
        raise EditError("The joint cannot be read.")
    said = dict(said)
    known = {joint.key: joint for joint in face.cut.joints}
    old = known.get(said.get("key")) if isinstance(said.get("key"), str) else None
    if said.get("key") is not None and old is None:
        raise EditError("That joint is not there any more.")
    uv = said.pop("uv", None)
    if uv is not None:
        said["at"] = _at(face, uv)
    if old is not None:
        return vars(old) | said
    rule = now.setup.process
    usual = {"key": fresh, "kind": "peg", "clearance_mm": rule["clearance_mm"]}
    if said.get("kind") == "snap":
        usual |= {"depth_a_mm": 8.0, "depth_b_mm": 8.0}
    return usual | said


def joints_completed(now: Current, parameters: dict) -> dict:
    """An edit of joints with what the maker did not say of each."""
    if not isinstance(parameters, dict) or not isinstance(parameters.get("joints", []), list):
        raise EditError("The edit's parameters cannot be read.")
    face = cut_face(now, parameters.get("cut"))
    used = [
        one.get("key") for many in
        now.stance.edits.filter(kind="joints").values_list("parameters__joints", flat=True)
        for one in many or ()
    ]  # fmt: skip
    first = max((int(k) for k in used if str(k).isdigit()), default=0) + 1
    joints = []
    for one in parameters.get("joints", [])[:200]:
        joints.append(joint_completed(now, face, one, str(first)))
        first += joints[-1]["key"] == str(first)
    return parameters | {"joints": joints}


def cut_faults(now: Current) -> list[Fault]:
    """What is wrong with the cuts of a stance and their joints."""
    wall = now.setup.process["hole_wall_mm"]
    return faults_of_cuts(now.source, now.setup.shape, wall, remembered_parts, _halves)


def check_cut(before: Current, now: Current, edit) -> None:
    """Whether a cut cuts anything.

    Raises
    ------
    EditError
        If it meets nothing, or what it would cut is no solid.
    """
    old = {part.key: part for part in before.parts if is_of(edit.part, part.key)}
    new = {part.key for part in now.parts}
    if any(isinstance(s, Cut) and s.key == edit.key for s in before.setup.shape):
        cut_face(now, edit.key)
        return
    if set(old) - new:
        return
    if not any(part.mesh.is_watertight for part in old.values()):
        raise EditError(
            "The model’s surface is open, so a cut has no inside to close; repair it where it "
            "was made. Nothing was changed."
        )
    raise EditError("The plane does not meet the part. Nothing was changed.")


def check_joints(now: Current, edit) -> None:
    """Whether new and changed joints stay inside, or are insisted on.

    Raises
    ------
    EditError
        If one pokes out unasked.
    """
    face = cut_face(now, edit.cut)
    wall = now.setup.process["hole_wall_mm"]
    told = pokes_out(face.part, face.halves, face.cut, wall)
    for joint in edit.joints:
        if joint.key in told and not joint.insist:
            raise EditError(f"Joint {joint.key}: {told[joint.key]} Nothing was changed.")
