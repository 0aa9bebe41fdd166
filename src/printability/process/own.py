"""A maker's own machines, materials and processes: shipped ones copied, with other numbers.

Each can be written and read as JSON. A process is a shipped one whose numbers give way, in this
order, to its machine's, its material's, and its own rules.
"""

import json
from collections.abc import Callable
from dataclasses import dataclass, field, replace
from typing import ClassVar

from ..errors import ProcessError
from ..numbers import is_number
from .rules import PROCESSES, Process, Rule

__all__ = [
    "MACHINES",
    "MATERIALS",
    "STEPS",
    "Machine",
    "Material",
    "OwnProcess",
    "read_own",
    "written_own",
]

# Four materials from stiff to rubbery; each step makes supports wider by this (from memory).
STEPS = ("stiff", "tough", "soft", "rubbery")
STEP_BY = 1.25
_STEPPED = ("contact_mm", "shaft_mm", "foot_mm", "pad_mm")
_MOST_NAME, _MOST_PROFILES, _MOST_BYTES = 80, 12, 200_000
_FIXED_PROFILES = ("light", "medium", "heavy")
# Contact, shaft and foot of a profile, mm.
_PROFILE = (("contact", 0.05, 10.0), ("shaft", 0.2, 50.0), ("foot", 0.2, 100.0))


def _rule(like: str, key: str) -> Rule:
    return next(rule for rule in PROCESSES[like].rules if rule.key == key)


def checked_name(value, what: str = "name") -> str:
    """A name of 1 to 80 letters."""
    if not isinstance(value, str) or not 0 < len(value.strip()) <= _MOST_NAME:
        raise ProcessError(f"The {what} has 1 to {_MOST_NAME} letters.")
    return value.strip()


def checked_like(value) -> str:
    """The key of a shipped process."""
    if not isinstance(value, str) or value not in PROCESSES:
        raise ProcessError(f"It is for one of: {', '.join(PROCESSES)}.")
    return value


def checked_number(value, label: str, low: float, high: float, unit: str) -> float:
    """A number within its limits."""
    if not is_number(value):
        raise ProcessError(f"The {label} must be a number.")
    if not low <= value <= high:
        raise ProcessError(f"The {label} must be between {low:g} and {high:g} {unit}".strip() + ".")
    return float(value)


def checked_values(values, like: str, allowed: tuple[str, ...] | None = None) -> dict[str, float]:
    """Numbers of rules, each within its limits."""
    if not isinstance(values, dict):
        raise ProcessError("The numbers cannot be read.")
    rules = {rule.key: rule for rule in PROCESSES[like].rules}
    out = {}
    for key, value in values.items():
        if key not in rules or (allowed is not None and key not in allowed):
            raise ProcessError(f"There is no number “{key}”.")
        rule = rules[key]
        out[key] = checked_number(value, rule.label, rule.low, rule.high, rule.unit)
    return out


def known_only(said, names: set[str], what: str) -> None:
    """Refuse what is no table, or has names that are not known."""
    if not isinstance(said, dict):
        raise ProcessError(f"The {what} cannot be read.")
    unknown = sorted(set(said) - names)
    if unknown:
        raise ProcessError(f"A {what} has no “{unknown[0]}”.")


@dataclass(frozen=True)
class Machine:
    """A machine: its room, its line or pixel, and the layer heights that it is used with.

    Attributes
    ----------
    label : str
    like : str
        The shipped process that it is for.
    values : dict
        Rules of `NAMES`, in their units.
    layer_heights_mm : tuple of float
    """

    noun: ClassVar[str] = "machine"
    NAMES: ClassVar[tuple[str, ...]] = (
        "build_x_mm", "build_y_mm", "build_z_mm", "line_mm", "pixel_mm", "spacing_mm",
        "flow_mm3_s", "layer_s",
    )  # fmt: skip
    label: str
    like: str
    values: dict[str, float]
    layer_heights_mm: tuple[float, ...]

    @classmethod
    def from_plain(cls, said) -> "Machine":
        """The machine that plain data say.

        Raises
        ------
        ProcessError
        """
        known_only(said, {"label", "like", "values", "layer_heights_mm"}, cls.noun)
        like = checked_like(said.get("like"))
        heights = said.get("layer_heights_mm")
        if not isinstance(heights, list | tuple) or not 0 < len(heights) <= 20:
            raise ProcessError("A machine has 1 to 20 layer heights.")
        rule = _rule(like, "layer_height_mm")
        heights = {checked_number(h, rule.label, rule.low, rule.high, "mm") for h in heights}
        values = _complete(like, cls.NAMES, said.get("values", {}))
        return cls(checked_name(said.get("label")), like, values, tuple(sorted(heights)))

    def plain(self) -> dict:
        """It as plain data."""
        return {"label": self.label, "like": self.like, "values": dict(self.values),
                "layer_heights_mm": list(self.layer_heights_mm)}  # fmt: skip


@dataclass(frozen=True)
class Material:
    """A material: density, stiffness, strengths, and how soft it is.

    Attributes
    ----------
    label, like : str
    values : dict
        Rules of `NAMES`, in their units.
    step : int
        Index in `STEPS`.
    """

    noun: ClassVar[str] = "material"
    NAMES: ClassVar[tuple[str, ...]] = (
        "density_g_cm3", "young_gpa", "green_n_mm2", "plate_n_mm2", "pull_n_mm2",
    )  # fmt: skip
    label: str
    like: str
    values: dict[str, float]
    step: int = 0

    @classmethod
    def from_plain(cls, said) -> "Material":
        """The material that plain data say.

        Raises
        ------
        ProcessError
        """
        known_only(said, {"label", "like", "values", "step"}, cls.noun)
        like, step = checked_like(said.get("like")), said.get("step", STEPS[0])
        if not isinstance(step, str) or step not in STEPS:
            raise ProcessError(f"A material is one of: {', '.join(STEPS)}.")
        values = _complete(like, cls.NAMES, said.get("values", {}))
        return cls(checked_name(said.get("label")), like, values, STEPS.index(step))

    def plain(self) -> dict:
        """It as plain data."""
        return {"label": self.label, "like": self.like, "values": dict(self.values),
                "step": STEPS[self.step]}  # fmt: skip


def _complete(like: str, names: tuple[str, ...], values) -> dict[str, float]:
    base = {name: PROCESSES[like][name] for name in names}
    return base | checked_values(values, like, names)


@dataclass(frozen=True)
class OwnProcess:
    """A copy of a shipped process: a machine, a material, and numbers of its own.

    Attributes
    ----------
    label, like : str
    machine : Machine
    material : Material
    rules : dict
        Numbers that differ from the shipped process, machine and material, in their units.
    profiles : dict
        Contact, shaft and foot of supports, mm, where they differ; further names may be given.
    """

    noun: ClassVar[str] = "process"
    label: str
    like: str
    machine: Machine
    material: Material
    rules: dict[str, float] = field(default_factory=dict)
    profiles: dict[str, tuple[float, float, float]] = field(default_factory=dict)

    @classmethod
    def from_plain(cls, said) -> "OwnProcess":
        """The process that plain data say, checked as a whole.

        Raises
        ------
        ProcessError
        """
        names = {"label", "like", "machine", "material", "rules", "profiles"}
        known_only(said, names, cls.noun)
        like = checked_like(said.get("like"))
        machine = Machine.from_plain(said["machine"]) if "machine" in said else MACHINES[like]
        material = Material.from_plain(said["material"]) if "material" in said else MATERIALS[like]
        for part in (machine, material):
            if part.like != like:
                raise ProcessError(
                    f"The {part.noun} “{part.label}” is for {PROCESSES[part.like].label}, not for "
                    f"{PROCESSES[like].label}."
                )
        rules = checked_values(said.get("rules", {}), like)
        own = cls(
            checked_name(said.get("label")), like, machine, material, rules,
            _profiles(said.get("profiles", {})),
        )  # fmt: skip
        own.process("")
        return own

    def plain(self) -> dict:
        """It as plain data."""
        return {
            "label": self.label, "like": self.like, "machine": self.machine.plain(),
            "material": self.material.plain(), "rules": dict(self.rules),
            "profiles": {name: list(p) for name, p in self.profiles.items()},
        }  # fmt: skip

    def process(self, key: str) -> Process:
        """The process that it comes to.

        Raises
        ------
        ProcessError
            If its numbers contradict each other.
        """
        base = PROCESSES[self.like]
        wider = STEP_BY**self.material.step
        values = {name: base[name] * wider for name in _STEPPED}
        values |= self.machine.values | self.material.values
        heights = self.machine.layer_heights_mm
        values["layer_height_mm"] = min(heights, key=lambda h: abs(h - base.layer_height_mm))
        values |= self.rules
        made = base.copied(key, self.label, **values)
        profiles = {
            name: tuple(round(d * wider, 3) for d in sizes)
            for name, sizes in base.profiles.items()
        }  # fmt: skip
        made = replace(made, profiles=profiles | self.profiles)
        _check_agreement(made)
        return made


def _profiles(said) -> dict[str, tuple[float, float, float]]:
    if not isinstance(said, dict) or len(said) > _MOST_PROFILES:
        raise ProcessError(f"A process has up to {_MOST_PROFILES} profiles of its own.")
    out = {}
    for name, sizes in said.items():
        name = checked_name(name, "profile's name")
        if not isinstance(sizes, list | tuple) or len(sizes) != 3:
            raise ProcessError(f"The profile “{name}” has a contact, a shaft and a foot.")
        out[name] = tuple(
            checked_number(v, f"{what} of “{name}”", low, high, "mm")
            for v, (what, low, high) in zip(sizes, _PROFILE, strict=True)
        )
    return out


def _check_agreement(process: Process) -> None:
    """Numbers that make sense alone and not together."""
    sizes = {"the process": tuple(process[n] for n in ("contact_mm", "shaft_mm", "foot_mm"))}
    for name, (contact, shaft, foot) in (sizes | process.profiles).items():
        if not contact <= shaft <= foot:
            raise ProcessError(
                f"Of {'“' + name + '”' if name in process.profiles else name}, the contact must "
                "not be wider than the shaft, nor the shaft wider than the foot."
            )
    if process["rough_from_deg"] > process["rough_to_deg"]:
        raise ProcessError("The slopes at which steps show most are the wrong way round.")
    if process.layer_height_mm > min(process["build_z_mm"], 20 * process["line_mm"]):
        raise ProcessError("The layers are far thicker than the line is wide.")


def _machine(like: str, label: str, heights: tuple[float, ...]) -> Machine:
    return Machine(label, like, _complete(like, Machine.NAMES, {}), heights)


def _material(like: str, label: str, step: int = 0, **values: float) -> Material:
    return Material(label, like, _complete(like, Material.NAMES, values), step)


# All heights, densities and moduli here are from memory.
MACHINES: dict[str, Machine] = {
    "fdm": _machine("fdm", "Filament machine, 0.4 mm nozzle", (0.1, 0.15, 0.2, 0.28)),
    "resin": _machine("resin", "Resin machine, 0.05 mm pixel", (0.025, 0.05, 0.1)),
    "metal": _machine("metal", "Powder bed machine", (0.03, 0.04, 0.06)),
}
MATERIALS: dict[str, Material] = {
    "fdm": _material("fdm", "PLA"),
    "fdm-tough": _material("fdm", "PETG", 1, density_g_cm3=1.27, young_gpa=2.0),
    "fdm-soft": _material("fdm", "Polypropylene", 2, density_g_cm3=0.9, young_gpa=1.2),
    "fdm-rubbery": _material("fdm", "TPU", 3, density_g_cm3=1.21, young_gpa=0.05),
    "resin": _material("resin", "Standard resin"),
    "resin-tough": _material("resin", "Tough resin", 1, density_g_cm3=1.13, young_gpa=1.5),
    "resin-soft": _material(
        "resin", "Flexible resin", 2, density_g_cm3=1.1, young_gpa=0.2, green_n_mm2=5.0
    ),
    "resin-rubbery": _material(
        "resin", "Rubbery resin", 3, density_g_cm3=1.1, young_gpa=0.02, green_n_mm2=3.0
    ),
    "metal": _material("metal", "Steel"),
    "metal-titanium": _material("metal", "Titanium alloy", 0, density_g_cm3=4.43, young_gpa=114.0),
    "metal-aluminium": _material("metal", "Aluminium alloy", 0, density_g_cm3=2.68, young_gpa=70.0),
}

_NOUNS = {cls.noun: cls for cls in (Machine, Material, OwnProcess)}


def written_own(one) -> str:
    """A machine, material, process or table of habits as a JSON text."""
    plain = {f"fair_stand_{one.noun}": 1} | one.plain()
    return json.dumps(plain, indent=1, ensure_ascii=False, allow_nan=False) + "\n"


def read_own(text: str | bytes, nouns: dict[str, Callable] | None = None):
    """What a JSON text says.

    Parameters
    ----------
    text : str or bytes
    nouns : dict, optional
        Further nouns and their classes, each with ``from_plain``.

    Raises
    ------
    ProcessError
    """
    if len(text) > _MOST_BYTES:
        raise ProcessError("The file is larger than any such file; it is refused.")
    try:
        said = json.loads(text)
    except (ValueError, RecursionError) as error:
        raise ProcessError("The file cannot be read as JSON.") from error
    known = _NOUNS | (nouns or {})
    if isinstance(said, dict):
        for noun, cls in known.items():
            version = said.pop(f"fair_stand_{noun}", None)
            if version is None:
                continue
            if version != 1:
                raise ProcessError(f"The {noun} has version {version}; up to 1 is read.")
            return cls.from_plain(said)
    names = ", ".join(f"“fair_stand_{noun}”" for noun in known)
    raise ProcessError(f"The file is none of ours: one of {names} is missing.")


def shipped_as_own(key: str) -> OwnProcess:
    """A shipped process as it is copied: its machine, its material, nothing changed."""
    process = PROCESSES[key]
    return OwnProcess(f"{process.label}, copy", key, MACHINES[key], MATERIALS[key])
