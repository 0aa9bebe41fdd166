"""The shipped processes. Every value has a unit and says how well founded it is."""

import hashlib
from dataclasses import dataclass, field, replace
from enum import StrEnum
from functools import cached_property

__all__ = ["PROCESSES", "Process", "Rule", "Standing", "process_named"]


class Standing(StrEnum):
    """How well founded a value is."""

    PRACTICE = "common practice, no source"
    MEMORY = "from memory"
    OWN = "set by the maker"


@dataclass(frozen=True)
class Rule:
    """One number of a process: value, unit, what it governs, and its standing.

    A copy's value lies between ``low`` and ``high``.
    """

    key: str
    value: float
    unit: str
    label: str
    low: float
    high: float
    standing: Standing


@dataclass(frozen=True)
class Process:
    """A way to print: machine, layers and rules.

    Attributes
    ----------
    key, label : str
    rules : tuple of Rule
    words : dict
        What a maker reads of it: ``droops`` (what an overhang does), ``holds`` (what a cup
        holds), ``cup`` (why a cup matters), ``edge`` (why a free edge matters, empty where it
        does not), ``tilt`` (not empty where leaning is the usual cure).
    weights : dict
        How much each goal of turning counts (from memory).
    profiles : dict
        Diameters of contact, shaft and foot of supports, mm, from light to heavy (from memory).
    """

    key: str
    label: str
    rules: tuple[Rule, ...]
    words: dict[str, str] = field(default_factory=dict)
    weights: dict[str, float] = field(default_factory=dict)
    profiles: dict[str, tuple[float, float, float]] = field(default_factory=dict)

    def __getitem__(self, key: str) -> float:
        """Value of the rule ``key``, in the rule's unit."""
        for rule in self.rules:
            if rule.key == key:
                return rule.value
        raise KeyError(key)

    @cached_property
    def digest(self) -> str:
        """Names the process by all that it says, whatever its key."""
        said = repr(
            (self.rules, *(sorted(d.items()) for d in (self.words, self.weights, self.profiles)))
        )
        return hashlib.sha256(said.encode()).hexdigest()[:16]

    def copied(self, key: str, label: str, **values: float) -> "Process":
        """A copy with other numbers.

        Raises
        ------
        KeyError
            If there is no rule of such a name.
        """
        unknown = set(values) - {rule.key for rule in self.rules}
        if unknown:
            raise KeyError(sorted(unknown)[0])
        rules = tuple(
            replace(r, value=float(values[r.key]), standing=Standing.OWN)
            if r.key in values and float(values[r.key]) != r.value else r
            for r in self.rules
        )  # fmt: skip
        return replace(self, key=key, label=label, rules=rules)

    @property
    def layer_height_mm(self) -> float:
        """Thickness of a layer, mm."""
        return self["layer_height_mm"]

    @property
    def threshold_deg(self) -> float:
        """Slope from which a surface supports itself, degrees from the plate."""
        return self["threshold_deg"]

    @property
    def build_volume_mm(self) -> tuple[float, float, float]:
        """Room of the machine along X, Y and Z, mm; the plate's middle is x = y = 0."""
        return self["build_x_mm"], self["build_y_mm"], self["build_z_mm"]


_LABELS = {
    "layer_height_mm": ("mm", "layer height", 0.005, 2),
    "line_mm": ("mm", "line or pixel width", 0.005, 5),
    "threshold_deg": ("°", "self-supporting slope", 1, 89),
    "build_x_mm": ("mm", "build volume along X", 5, 10000),
    "build_y_mm": ("mm", "build volume along Y", 5, 10000),
    "build_z_mm": ("mm", "build volume along Z", 5, 10000),
    "spacing_mm": ("mm", "room between copies on the plate", 0, 100),
    "density_g_cm3": ("g/cm³", "density", 0.1, 25),
    "contact_mm": ("mm", "contact diameter", 0.05, 10),
    "embed_mm": ("mm", "embed depth", 0, 5),
    "tip_mm": ("mm", "tip length", 0.2, 50),
    "shaft_mm": ("mm", "shaft diameter", 0.2, 50),
    "foot_mm": ("mm", "foot diameter", 0.2, 100),
    "foot_height_mm": ("mm", "foot height", 0, 50),
    "pad_mm": ("mm", "pad diameter", 0.2, 200),
    "pad_height_mm": ("mm", "pad height", 0, 20),
    "lean_deg": ("°", "a tip leans with the surface up to this", 0, 60),
    "absorbed_layers": ("layers", "an island joined within this is usually harmless", 0, 1000),
    "bridge_mm": ("mm", "longest span that bridges", 0.1, 200),
    "ledge_mm": ("mm", "longest reach held on one side", 0.05, 100),
    "notable_mm": ("mm", "spans and reaches below this are not listed", 0.05, 50),
    "wall_mm": ("mm", "least wall", 0.02, 20),
    "clearance_mm": ("mm", "clearance of what slides together, per side", 0, 5),
    "hole_wall_mm": ("mm", "least wall around a hole", 0, 20),
    "snap_strain": ("", "bending strain that a catch bears", 0.0001, 1),
    "pull_n_mm2": ("N/mm²", "pull of the film on what hangs, 0 where nothing pulls", 0, 10),
    "green_n_mm2": ("N/mm²", "strength of what has just set", 0, 1000),
    "plate_n_mm2": ("N/mm²", "what the first layer holds on the plate", 0, 1000),
    "bond_n_mm2": ("N/mm²", "what layers hold on each other, 0 where nothing drags", 0, 1000),
    "drag_n": (
        "N",
        "drag sideways on a support until the model bonds, 0 where nothing drags",
        0,
        100,
    ),
    "young_gpa": ("GPa", "Young’s modulus", 0.001, 1000),
    "hold_flat_mm": ("mm", "how far a contact holds a flat underside", 0.1, 100),
    "hold_steep_mm": ("mm", "how far a contact holds an underside at the threshold", 0.1, 200),
    "corner_mm": ("mm", "first layer from which sharp corners lift, 0 where they do not", 0, 10000),
    "margin_mm": (
        "mm",
        "least distance of the centre of mass from the edge of the footing",
        0,
        100,
    ),
    "tip_deg": ("°", "least angle by which it must be tipped to fall", 0, 60),
    "slender": ("times the footing", "greatest height over the footing's width", 0.5, 1000),
    "neck_ratio": ("", "greatest volume above over area to the power 3/2", 0.5, 100000),
    "rough_from_deg": ("°", "slope from which steps show most", 0, 90),
    "rough_to_deg": ("°", "slope up to which steps show most", 0, 90),
    "pixel_mm": ("mm", "pixel width, 0 where the process has none", 0, 5),
    "cup_mm3": ("mm³", "room that may be walled in, 0 where it does not matter", 0, 1e09),
    "cup_open": ("", "1 where room walled in only for a while counts too", 0, 1),
    "grid_density": ("of the column", "density of plain grid supports", 0.01, 1),
    "fill": ("of the volume", "material in what is not wall", 0, 1),
    "flow_mm3_s": ("mm³/s", "material laid down", 0, 1000),
    "layer_s": ("s", "time that every layer takes whatever its area", 0, 3600),
}


def _rules(**values: tuple[float, Standing]) -> tuple[Rule, ...]:
    return tuple(
        Rule(key, value, *_LABELS[key], standing) for key, (value, standing) in values.items()
    )


_P, _M = Standing.PRACTICE, Standing.MEMORY

PROCESSES = {
    "fdm": Process(
        "fdm",
        "Filament (FDM)",
        _rules(
            layer_height_mm=(0.2, _P),
            line_mm=(0.42, _M),
            threshold_deg=(45.0, _P),
            build_x_mm=(220.0, _M),
            build_y_mm=(220.0, _M),
            build_z_mm=(250.0, _M),
            spacing_mm=(3.0, _M),
            density_g_cm3=(1.24, _M),
            contact_mm=(0.45, _P),
            embed_mm=(0.25, _P),
            tip_mm=(3.0, _M),
            shaft_mm=(2.2, _P),
            foot_mm=(7.0, _M),
            foot_height_mm=(3.0, _M),
            pad_mm=(8.0, _M),
            pad_height_mm=(1.0, _P),
            lean_deg=(45.0, _P),
            absorbed_layers=(5.0, _P),
            bridge_mm=(10.0, _M),
            ledge_mm=(1.5, _M),
            notable_mm=(1.0, _M),
            wall_mm=(0.84, _M),
            clearance_mm=(0.15, _M),
            hole_wall_mm=(0.84, _M),
            snap_strain=(0.02, _M),
            pull_n_mm2=(0.0, _M),
            green_n_mm2=(0.0, _M),
            plate_n_mm2=(1.0, _M),
            bond_n_mm2=(20.0, _M),
            drag_n=(0.1, _M),
            young_gpa=(3.5, _M),
            hold_flat_mm=(5.0, _M),
            hold_steep_mm=(20.0, _M),
            corner_mm=(80.0, _M),
            cup_open=(0.0, _M),
            margin_mm=(2.0, _M),
            tip_deg=(10.0, _M),
            slender=(8.0, _M),
            neck_ratio=(50.0, _M),
            rough_from_deg=(1.0, _P),
            rough_to_deg=(29.0, _P),
            pixel_mm=(0.0, _M),
            cup_mm3=(0.0, _M),
            grid_density=(0.15, _M),
            fill=(0.2, _M),
            flow_mm3_s=(6.0, _M),
            layer_s=(2.0, _M),
        ),
        words={
            "droops": "droops",
            "holds": "air",
            "cup": "Air is shut in.",
            "edge": "",
            "tilt": "",
        },
        weights={
            "area": 2,
            "volume": 3,
            "islands": 2,
            "height": 0.5,
            "peak": 0,
            "growth": 0,
            "start": 0,
            "finish": 1,
            "marks": 2,
            "footing": 2.5,
            "copies": 0,
        },
        profiles={
            "light": (0.45, 1.6, 6.0),
            "medium": (0.5, 2.2, 7.0),
            "heavy": (0.8, 3.2, 10.0),
        },
    ),
    "resin": Process(
        "resin",
        "Resin",
        _rules(
            layer_height_mm=(0.05, _P),
            line_mm=(0.05, _M),
            threshold_deg=(45.0, _P),
            build_x_mm=(143.0, _M),
            build_y_mm=(89.0, _M),
            build_z_mm=(175.0, _M),
            spacing_mm=(2.0, _M),
            density_g_cm3=(1.15, _M),
            contact_mm=(0.4, _P),
            embed_mm=(0.25, _P),
            tip_mm=(2.0, _M),
            shaft_mm=(1.0, _P),
            foot_mm=(4.0, _M),
            foot_height_mm=(1.5, _M),
            pad_mm=(5.0, _M),
            pad_height_mm=(0.5, _P),
            lean_deg=(45.0, _P),
            absorbed_layers=(5.0, _P),
            bridge_mm=(2.0, _M),
            ledge_mm=(1.5, _M),
            notable_mm=(0.5, _M),
            wall_mm=(0.5, _M),
            clearance_mm=(0.08, _M),
            hole_wall_mm=(1.0, _M),
            snap_strain=(0.015, _M),
            pull_n_mm2=(0.02, _M),
            green_n_mm2=(8.0, _M),
            plate_n_mm2=(1.0, _M),
            bond_n_mm2=(0.0, _M),
            drag_n=(0.0, _M),
            young_gpa=(2.0, _M),
            hold_flat_mm=(2.0, _M),
            hold_steep_mm=(4.0, _M),
            corner_mm=(0.0, _M),
            cup_open=(1.0, _M),
            margin_mm=(1.0, _M),
            tip_deg=(5.0, _M),
            slender=(12.0, _M),
            neck_ratio=(50.0, _M),
            rough_from_deg=(1.0, _P),
            rough_to_deg=(29.0, _P),
            pixel_mm=(0.05, _M),
            cup_mm3=(30.0, _M),
            grid_density=(0.15, _M),
            fill=(1.0, _M),
            flow_mm3_s=(0.0, _M),
            layer_s=(8.0, _M),
        ),
        words={
            "droops": "peels or warps",
            "holds": "resin",
            "cup": "It sucks on the vat film at every layer, and holds resin.",
            "edge": "",
            "tilt": "a lean of 30° to 45°",
        },
        weights={
            "area": 2,
            "volume": 1,
            "islands": 3,
            "height": 1,
            "peak": 2.5,
            "growth": 2.5,
            "start": 2,
            "finish": 1,
            "marks": 3,
            "footing": 0,
            "copies": 0,
        },
        profiles={
            "light": (0.25, 0.7, 3.0),
            "medium": (0.4, 1.0, 4.0),
            "heavy": (0.6, 1.5, 6.0),
        },
    ),
    "metal": Process(
        "metal",
        "Metal powder bed",
        _rules(
            layer_height_mm=(0.04, _M),
            line_mm=(0.1, _M),
            threshold_deg=(45.0, _P),
            build_x_mm=(250.0, _M),
            build_y_mm=(250.0, _M),
            build_z_mm=(300.0, _M),
            spacing_mm=(3.0, _M),
            density_g_cm3=(7.9, _M),
            contact_mm=(0.6, _M),
            embed_mm=(0.2, _M),
            tip_mm=(2.0, _M),
            shaft_mm=(1.5, _M),
            foot_mm=(3.0, _M),
            foot_height_mm=(1.5, _M),
            pad_mm=(3.0, _M),
            pad_height_mm=(0.0, _M),
            lean_deg=(45.0, _P),
            absorbed_layers=(0.0, _M),
            bridge_mm=(2.0, _M),
            ledge_mm=(0.5, _M),
            notable_mm=(0.5, _M),
            wall_mm=(0.4, _M),
            clearance_mm=(0.15, _M),
            hole_wall_mm=(1.0, _M),
            snap_strain=(0.004, _M),
            pull_n_mm2=(0.0, _M),
            green_n_mm2=(0.0, _M),
            plate_n_mm2=(0.0, _M),
            bond_n_mm2=(0.0, _M),
            drag_n=(0.0, _M),
            young_gpa=(200.0, _M),
            hold_flat_mm=(1.0, _M),
            hold_steep_mm=(4.0, _M),
            corner_mm=(0.0, _M),
            cup_open=(0.0, _M),
            margin_mm=(0.0, _M),
            tip_deg=(0.0, _M),
            slender=(10.0, _M),
            neck_ratio=(50.0, _M),
            rough_from_deg=(1.0, _P),
            rough_to_deg=(29.0, _P),
            pixel_mm=(0.0, _M),
            cup_mm3=(10.0, _M),
            grid_density=(0.15, _M),
            fill=(1.0, _M),
            flow_mm3_s=(3.0, _M),
            layer_s=(10.0, _M),
        ),
        words={
            "droops": "peels or warps",
            "holds": "powder",
            "cup": "Powder stays inside.",
            "edge": "An edge over loose powder curls up and meets the spreader.",
            "tilt": "",
        },
        weights={
            "area": 3,
            "volume": 3,
            "islands": 2,
            "height": 1.5,
            "peak": 0.5,
            "growth": 0.5,
            "start": 0,
            "finish": 1,
            "marks": 2,
            "footing": 1,
            "copies": 0,
        },
        profiles={
            "light": (0.5, 1.0, 2.0),
            "medium": (0.8, 1.5, 3.0),
            "heavy": (1.2, 2.5, 4.0),
        },
    ),
}


def process_named(key: str) -> Process:
    """The shipped process of that key.

    Raises
    ------
    KeyError
        If there is none.
    """
    return PROCESSES[key]
