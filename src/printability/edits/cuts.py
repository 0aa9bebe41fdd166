"""Edits that take the piece apart and join it again. They change its shape."""

from dataclasses import dataclass, field, fields, replace
from typing import ClassVar

from ..errors import EditError
from ..splitting import JOINT_KINDS, OUTLINES, Cut, Dovetail, Joint, bending_strain, with_joint
from .base import Edit, number, registered

__all__ = ["CutApart", "JoinSides", "TakeOut", "joint_of"]

MOST_JOINTS = 60


def _key(value, what: str) -> str:
    if not isinstance(value, str) or not 1 <= len(value) <= 20:
        raise EditError(f"A {what} needs a key of up to 20 letters.")
    return value


def _three(value, what: str, most: float = 1e12) -> tuple[float, float, float]:
    if not isinstance(value, list | tuple) or len(value) != 3:
        raise EditError(f"A {what} has three numbers.")
    return tuple(number(v, what, -most, most, "") for v in value)


def _one_of(value, names, what: str) -> str:
    if not isinstance(value, str) or value not in names:
        raise EditError(f"The {what} must be one of {', '.join(names)}.")
    return value


def _dovetail(value) -> Dovetail:
    if isinstance(value, Dovetail):
        value = vars(value)
    known = {one.name for one in fields(Dovetail)}
    if not isinstance(value, dict) or "at" not in value or set(value) - known:
        raise EditError("The dovetail cannot be read.")
    default = Dovetail((0.0, 0.0, 0.0))

    def of(name, label, low, high, unit="mm"):
        return number(value.get(name, getattr(default, name)), label, low, high, unit)

    return Dovetail(
        _three(value["at"], "place"),
        of("width_mm", "dovetail's width", 0.2, 1000),
        of("depth_mm", "dovetail's depth", 0.2, 1000),
        of("flank_deg", "flank's angle", 0, 60, "degrees"),
        of("turn_deg", "direction of sliding", -360, 360, "degrees"),
        of("taper_deg", "taper along the slide", 0, 20, "degrees"),
        of("clearance_mm", "clearance", 0, 5),
    )


_JOINT_NUMBERS = {
    "width_mm": ("joint's width", 0.3, 500, "mm"),
    "depth_a_mm": ("depth into part a", 0.2, 500, "mm"),
    "depth_b_mm": ("depth into part b", 0.2, 500, "mm"),
    "turn_deg": ("joint's turn", -360, 360, "degrees"),
    "taper_deg": ("taper", 0, 30, "degrees"),
    "clearance_mm": ("clearance", 0, 5, "mm"),
    "bevel_mm": ("bevel of the mouth", 0, 5, "mm"),
    "thick_mm": ("thickness of the beam", 0.2, 100, "mm"),
    "catch_mm": ("catch", 0.05, 50, "mm"),
    "play_mm": ("play behind the catch", 0, 5, "mm"),
}


def joint_of(value) -> Joint:
    if isinstance(value, Joint):
        value = vars(value)
    known = {one.name for one in fields(Joint)}
    if not isinstance(value, dict) or not {"key", "kind", "at"} <= set(value) or set(value) - known:
        raise EditError("The joint cannot be read.")
    numbers = {
        name: number(value[name], label, low, high, unit)
        for name, (label, low, high, unit) in _JOINT_NUMBERS.items() if name in value
    }  # fmt: skip
    insist = value.get("insist", False)
    if not isinstance(insist, bool):
        raise EditError("A joint is insisted on or not.")
    joint = Joint(
        _key(value["key"], "joint"), _one_of(value["kind"], JOINT_KINDS, "joint"),
        _three(value["at"], "place"), _one_of(value.get("outline", "round"), OUTLINES, "outline"),
        on=_one_of(value.get("on", "b"), ("a", "b"), "side"), insist=insist, **numbers,
    )  # fmt: skip
    if joint.kind == "snap":
        length = joint.depth_mm(joint.into)
        if joint.catch_mm * 2 > length:
            raise EditError("The catch is too large for a beam so short.")
        if bending_strain(joint) > 1:
            raise EditError("The beam is too short and thick to bend at all.")
    return joint


def _cut_of(setup, key: str) -> Cut | None:
    return next((s for s in setup.shape if isinstance(s, Cut) and s.key == key), None)


def _with_cut(setup, cut: Cut):
    return replace(
        setup,
        shape=tuple(cut if isinstance(s, Cut) and s.key == cut.key else s for s in setup.shape),
    )


@dataclass(frozen=True, kw_only=True)
class _OfAll(Edit):
    """An edit of the shape: the steps of all parts are the same, each says which it is of."""

    def concerns(self, part: str) -> bool:
        return True


@registered
@dataclass(frozen=True)
class CutApart(_OfAll):
    """Cut along a plane; with the key of a cut that there is, move that one.

    The plane is in the import's own numbers, its normal points to side *a*. ``part`` says what is
    cut, with all that is left of it.
    """

    kind: ClassVar[str] = "cut"
    key: str
    normal: tuple[float, float, float]
    point: tuple[float, float, float]
    kerf_mm: float = 0.0
    keep: str = "both"
    loose: str = "stay"
    dovetail: dict | None = None
    seam: str = ""

    def __post_init__(self):
        _key(self.key, "cut")
        object.__setattr__(self, "normal", _three(self.normal, "direction"))
        if not any(self.normal):
            raise EditError("The cut's direction has no length.")
        object.__setattr__(self, "point", _three(self.point, "place"))
        number(self.kerf_mm, "kerf", 0, 20, "mm")
        _one_of(self.keep, ("both", "a", "b"), "side that is kept")
        _one_of(self.loose, ("stay", "apart"), "way with loose bodies")
        if not isinstance(self.seam, str) or len(self.seam) > 60:
            raise EditError("A seam's name has at most 60 letters.")
        if self.dovetail is not None:
            object.__setattr__(self, "dovetail", _dovetail(self.dovetail))

    def parameters(self):
        out = super().parameters()
        if isinstance(self.dovetail, Dovetail):
            out["dovetail"] = {k: list(v) if isinstance(v, tuple) else v
                               for k, v in vars(self.dovetail).items()}  # fmt: skip
        return out

    def applied(self, setup, source):
        known = _cut_of(setup, self.key)
        cut = Cut(
            self.key, known.part if known else self.part, self.normal, self.point, self.kerf_mm,
            self.keep, self.loose, self.dovetail, known.joints if known else (),
            self.seam.strip(),
        )  # fmt: skip
        if known:
            return _with_cut(setup, cut)
        return replace(setup, shape=(*setup.shape, cut))

    def said(self):
        return f"cut {self.key}"


@registered
@dataclass(frozen=True)
class JoinSides(_OfAll):
    """Joints between the sides of a cut: new ones, changed ones, and those taken away."""

    kind: ClassVar[str] = "joints"
    cut: str
    joints: tuple = ()
    remove: tuple[str, ...] = field(default=())

    def __post_init__(self):
        _key(self.cut, "cut")
        if not isinstance(self.joints, list | tuple) or len(self.joints) > MOST_JOINTS:
            raise EditError(f"Up to {MOST_JOINTS} joints at once.")
        if not isinstance(self.remove, list | tuple):
            raise EditError("What is to be removed cannot be read.")
        object.__setattr__(self, "joints", tuple(joint_of(one) for one in self.joints))
        object.__setattr__(self, "remove", tuple(_key(one, "joint") for one in self.remove))
        if not self.joints and not self.remove:
            raise EditError("There is no joint in it.")

    def parameters(self):
        out = super().parameters()
        out["joints"] = [
            {k: list(v) if isinstance(v, tuple) else v for k, v in vars(one).items()}
            for one in self.joints
        ]
        out["remove"] = list(self.remove)
        return out

    def applied(self, setup, source):
        cut = _cut_of(setup, self.cut)
        if cut is None:
            return setup
        gone = set(self.remove)
        cut = replace(cut, joints=tuple(one for one in cut.joints if one.key not in gone))
        for joint in self.joints:
            cut = with_joint(cut, joint)
        if len(cut.joints) > MOST_JOINTS:
            raise EditError(f"A cut has up to {MOST_JOINTS} joints.")
        return _with_cut(setup, cut)

    def said(self):
        if not self.joints:
            return (
                "remove a joint" if len(self.remove) == 1 else f"remove {len(self.remove)} joints"
            )
        first = {"peg": "peg", "dowel": "dowel", "snap": "snap-fit"}[self.joints[0].kind]
        count = len(self.joints)
        return f"{first} {self.joints[0].key}" if count == 1 else f"{count} {first}s"


@registered
@dataclass(frozen=True)
class TakeOut(_OfAll):
    """Take a cut back, with its joints; later cuts hold on, of what it was cut from."""

    kind: ClassVar[str] = "uncut"
    key: str

    def __post_init__(self):
        _key(self.key, "cut")

    def applied(self, setup, source):
        kept = tuple(s for s in setup.shape if not (isinstance(s, Cut) and s.key == self.key))
        return replace(setup, shape=kept)

    def said(self):
        return f"take cut {self.key} back"
