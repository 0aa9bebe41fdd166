"""The whole look at a placed model, in stages from the cheap to the dear."""

import math
from collections.abc import Callable
from dataclasses import dataclass, field
from functools import cached_property

import numpy as np

from .estimate import Estimate, estimate
from .footing import Footing, copies_on_plate, find_footing, greatest_extent
from .layers import (
    Cup,
    Hanging,
    Island,
    Jump,
    Layers,
    Neck,
    Peak,
    ThinWall,
    find_cups,
    find_islands,
    find_jumps,
    find_necks,
    find_thin_walls,
    grip_of_layers,
    hanging_parts,
    island_weight,
    layers_together,
    opening_below,
    outlines,
    peak_layer,
    slice_layers,
    worst_grip,
)
from .mesh import Fault, Mesh, facet_areas, find_faults, joined
from .pillars import FittedPillar, pillar_mesh
from .process import Process
from .surface import (
    SHOW,
    Finish,
    Overhang,
    Patch,
    find_finish,
    find_overhang,
    patch_form,
    plane_form,
    underside_slopes,
)

__all__ = ["Inspection", "PatchLook", "inspect_model", "pillar_layers"]

# An opening that rises at least this part of half its width closes gradually enough: a round
# arch has 1 (common practice, no source, but for the slack).
ARCH_RISE = 0.9
# Patches smaller than this are not looked at one by one, mm2 (from memory).
SPECK_MM2 = 0.5
_KEPT = ("islands", "grip", "jumps", "necks", "thin", "cups", "footing", "spans", "faults")


@dataclass(frozen=True)
class PatchLook:
    """What a closer look at an overhang patch tells.

    Attributes
    ----------
    patch : Patch
    form : str
        ``area``, ``edge`` or ``point``.
    prints : str
        Why nothing has to be done, empty where something has: ``arch`` (closes gradually),
        ``step`` (a flat step, judged by its span or reach instead), ``speck``.
    """

    patch: Patch
    form: str
    prints: str


@dataclass(eq=False)
class Inspection:
    """Everything found out about a placed model; dearer parts are worked out when asked for.

    Attributes
    ----------
    mesh : Mesh
        The placed model alone.
    pillars : list of FittedPillar
        Those that stand; they are part of the layers.
    process : Process
    layers : Layers
    sides : (m,) uint8, optional
        Painted sides.
    """

    mesh: Mesh
    pillars: list[FittedPillar]
    process: Process
    layers: Layers
    sides: np.ndarray | None = None
    _parts: dict[tuple[int, bool], list[Hanging]] = field(default_factory=dict, repr=False)

    @cached_property
    def slopes_deg(self) -> np.ndarray:
        """(m,) float: see `underside_slopes`."""
        return underside_slopes(self.mesh, self.process.layer_height_mm)

    @cached_property
    def areas_mm2(self) -> np.ndarray:
        """(m,) float: area of each facet."""
        return facet_areas(self.mesh)

    @cached_property
    def islands(self) -> tuple[Island, ...]:
        """Parts of layers that begin on nothing."""
        return find_islands(self.layers)

    @cached_property
    def printed(self) -> Mesh:
        """Model and pillars side by side in one mesh."""
        if not self.pillars:
            return self.mesh
        return joined([self.mesh, *(pillar_mesh(pillar) for pillar in self.pillars)])

    @cached_property
    def grip(self) -> np.ndarray:
        """(n,) float: how much of each layer lies on the one below."""
        return grip_of_layers(self.layers, self.printed)

    @cached_property
    def jumps(self) -> tuple[Jump, ...]:
        """Layers of which too little lies on the one below, where the process minds."""
        return find_jumps(
            self.layers, self.grip, self.process["jump_grip"], self.process["jump_mm2"]
        )

    @cached_property
    def peak(self) -> Peak | None:
        """The layer of greatest area."""
        return peak_layer(self.layers)

    @cached_property
    def necks(self) -> tuple[Neck, ...]:
        """Where little carries much."""
        return find_necks(self.layers, self.process["neck_ratio"])

    @cached_property
    def thin(self) -> tuple[ThinWall, ...]:
        """Walls thinner than the process prints."""
        return find_thin_walls(self.layers, self.process["wall_mm"])

    @cached_property
    def cups(self) -> tuple[Cup, ...]:
        """Room under a roof, where the process minds."""
        least = self.process["cup_mm3"]
        return find_cups(self.layers, least) if least else ()

    @cached_property
    def footing(self) -> Footing | None:
        """How it stands."""
        return find_footing(self.layers)

    @cached_property
    def starts_with(self) -> str:
        """Form of the first layer that has anything: ``area``, ``edge`` or ``point``."""
        some = np.flatnonzero(self.layers.area_mm2 > 0)
        if not len(some):
            return "point"
        k = int(some[0])
        points = np.concatenate(outlines(self.layers, k))
        return plane_form(points, float(self.layers.area_mm2[k]), self.process["line_mm"])

    @cached_property
    def start_mm(self) -> float:
        """Greatest extent of the first layer that has anything: small for one lowest point."""
        some = np.flatnonzero(self.layers.area_mm2 > 0)
        if not len(some):
            return 0.0
        return greatest_extent(np.concatenate(outlines(self.layers, int(some[0]))))

    @cached_property
    def island_weight(self) -> float:
        """Islands, each counted by how long it lasts; see `layers.island_weight`."""
        return island_weight(self.islands, self.process["absorbed_layers"])

    @cached_property
    def worst_grip(self) -> float:
        """The least grip of any layer of notable area."""
        return worst_grip(self.layers, self.grip)

    @cached_property
    def copies(self) -> int:
        """How many fit on the plate side by side, pillars included."""
        vertices = self.printed.vertices
        return copies_on_plate(
            vertices[:, :2], float(vertices[:, 2].max()), self.process.build_volume_mm,
            self.process["spacing_mm"],
        )  # fmt: skip

    @cached_property
    def finish(self) -> Finish:
        """Roughness of the show side, or of all faces where none is painted."""
        return find_finish(self.mesh, self.process, self.shown)

    @property
    def shown(self) -> np.ndarray | None:
        """(m,) bool: facets of the show side, None where none is painted."""
        if self.sides is None or not (self.sides == SHOW).any():
            return None
        return self.sides == SHOW

    @cached_property
    def faults(self) -> tuple[Fault, ...]:
        """Holes of the mesh."""
        return find_faults(self.mesh)

    def found(self) -> dict:
        """What has been worked out so far but for arrays the size of the mesh, to be kept."""
        return {name: self.__dict__[name] for name in (*_KEPT, "_parts") if name in self.__dict__}

    def take_found(self, found: dict) -> None:
        """Take over what `found` gave, of the same model."""
        self.__dict__.update({k: v for k, v in found.items() if k in (*_KEPT, "_parts")})

    def overhang(self, threshold_deg: float) -> Overhang:
        """Overhang patches at a threshold."""
        return find_overhang(self.mesh, self.slopes_deg, threshold_deg, self.areas_mm2)

    def estimate(self, threshold_deg: float) -> Estimate:
        """Grid supports, mass and time."""
        return estimate(
            self.mesh, self.slopes_deg, threshold_deg, self.layers, self.process,
            self.areas_mm2, self.shown,
        )  # fmt: skip

    def hanging(self, k: int, even_short: bool = False) -> list[Hanging]:
        """Bridges and ledges of one layer, worked out once; short ones only when asked for."""
        if (k, even_short) not in self._parts:
            least = self.layers.layer_height_mm / 4 if even_short else self.process["notable_mm"]
            self._parts[k, even_short] = hanging_parts(self.layers, k, least)
        return self._parts[k, even_short]

    @cached_property
    def spans(self) -> tuple[Hanging, ...]:
        """Bridges and ledges of all layers that are long enough to be listed.

        Only layers are looked at that have undersides flat enough to reach so far within one
        layer.
        """
        h = self.layers.layer_height_mm
        flat = self.slopes_deg < math.degrees(math.atan(h / self.process["notable_mm"]))
        z = self.mesh.vertices[:, 2][self.mesh.facets[flat]]
        wanted = np.zeros(self.layers.count + 2, int)
        low = np.clip(_layer_above(z.min(axis=1), h), 0, self.layers.count)
        high = np.clip(_layer_above(z.max(axis=1), h) + 1, 0, self.layers.count + 1)
        np.add.at(wanted, low, 1)
        np.add.at(wanted, high, -1)
        chosen = np.flatnonzero(np.cumsum(wanted)[: self.layers.count] > 0)
        return tuple(part for k in chosen if k > 0 for part in self.hanging(int(k)))

    def is_arch(self, part: Hanging) -> bool:
        """Whether a bridge is the top of an opening that closes gradually."""
        if part.kind != "bridge":
            return False
        width, rise = opening_below(self.layers, part)
        return width > 0 and 2 * rise >= ARCH_RISE * width

    def look_at_patches(self, overhang: Overhang) -> list[PatchLook]:
        """A closer look at each patch of some size, in their order."""
        order = np.argsort(overhang.patch_of_facet, kind="stable")
        ends = np.searchsorted(overhang.patch_of_facet[order], np.arange(len(overhang.patches) + 2))
        looks = []
        for patch in overhang.patches:
            if patch.area_mm2 < SPECK_MM2:
                looks.append(PatchLook(patch, "point", "speck"))
                continue
            facets = order[ends[patch.id] : ends[patch.id + 1]]
            form = patch_form(self.mesh, facets, self.process["line_mm"])
            looks.append(PatchLook(patch, form, self._why_it_prints(patch, facets)))
        return looks

    def _why_it_prints(self, patch: Patch, facets: np.ndarray) -> str:
        corners = self.mesh.vertices[self.mesh.facets[facets]].reshape(-1, 3)
        h = self.layers.layer_height_mm
        top = corners[:, 2].max()
        if top - patch.lowest_z_mm <= 0.5 * h:
            return "step"
        k = int(_layer_above(np.array([top - 1e-6]), h)[0])
        # The opening closes where its roof is highest, within the patch; a flat top that lies
        # on a cut is closed by the layer after.
        low, high = corners[:, :2].min(axis=0) - h, corners[:, :2].max(axis=0) + h
        for closing in (k, k + 1):
            if not 0 < closing < self.layers.count:
                continue
            for part in self.hanging(closing, even_short=True):
                place = np.array(part.worst_mm)
                if (place >= low).all() and (place <= high).all() and self.is_arch(part):
                    return "arch"
        return ""


def _layer_above(z: np.ndarray, h: float) -> np.ndarray:
    """First layer that is cut at or above a height."""
    return np.ceil(z / h - 0.5 - 1e-9).astype(int)


def inspect_model(
    mesh: Mesh,
    process: Process,
    pillars: list[FittedPillar] = (),
    model_layers: Layers | None = None,
    progress: Callable[[str, float], None] | None = None,
    sides: np.ndarray | None = None,
) -> Inspection:
    """Slice a placed model with its pillars, ready to be looked at.

    Parameters
    ----------
    mesh : Mesh
    process : Process
    pillars : list of FittedPillar
        Those that stand.
    model_layers : Layers, optional
        The model's own layers where they are known already.
    progress : callable, optional
        Called with the stage's name and the part done; may raise to stop. With it, every
        part is worked out, the cheap ones first.
    sides : (m,) uint8, optional
        Painted sides, see `painted_sides`.
    """
    h = process.layer_height_mm
    if model_layers is None:
        model_layers = slice_layers(mesh, h, progress)
    layers = model_layers
    if pillars:
        layers = layers_together(model_layers, pillar_layers(pillars, h))
    whole = Inspection(mesh, list(pillars), process, layers, sides)
    if progress:
        for stage, done, names in (
            ("Looking for islands", 0.72, ("islands",)),
            ("Looking at footing and growth", 0.78, ("footing", "grip", "jumps", "necks")),
            ("Measuring bridges and ledges", 0.84, ("spans",)),
            ("Looking for thin walls", 0.92, ("thin",)),
            ("Looking for cups", 0.97, ("cups", "finish", "faults")),
        ):
            progress(stage, done)
            for name in names:
                getattr(whole, name)
    return whole


def pillar_layers(pillars: list[FittedPillar], layer_height_mm: float) -> Layers:
    """The layers of pillars alone, overlaps counted once."""
    return slice_layers(joined([pillar_mesh(pillar) for pillar in pillars]), layer_height_mm)
