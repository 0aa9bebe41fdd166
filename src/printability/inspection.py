"""The whole look at a placed model, in stages from the cheap to the dear."""

from collections.abc import Callable, Collection, Iterator
from concurrent.futures import ThreadPoolExecutor
from contextlib import contextmanager
from copy import copy
from dataclasses import dataclass, field
from functools import cached_property
from threading import Lock
from typing import Any
from weakref import WeakKeyDictionary

import numpy as np

from .arches import Arches
from .estimate import Estimate, estimate
from .footing import (
    Buckling,
    Footing,
    LeastHeld,
    LongFoot,
    Swaying,
    WeakCut,
    copies_on_plate,
    find_buckling,
    find_footing,
    find_least_held,
    find_swaying,
    find_weak_cuts,
    greatest_extent,
    long_feet,
)
from .layers import (
    THREADS,
    Cup,
    Hanging,
    Island,
    Jump,
    Layers,
    Lost,
    Neck,
    Peak,
    Tear,
    ThinWall,
    find_cups,
    find_dots,
    find_islands,
    find_jumps,
    find_lost,
    find_necks,
    find_tears,
    find_thin_walls,
    grip_of_layers,
    hair_mm,
    hanging_parts,
    island_weight,
    layers_that_reach,
    layers_together,
    levels,
    outlines,
    peak_layer,
    slice_layers,
    underside_areas,
    without_straight,
    worst_grip,
)
from .mesh import Fault, Mesh, facet_areas, find_faults, first_hits, joined
from .patches import PatchLook, dots_under, look_at_patches
from .process import Process
from .prop_layers import Known, Say, known_beside
from .supports import SIDES, Contact, Fitted, Shape
from .surface import (
    SHOW,
    Finish,
    Held,
    HeldPieces,
    Overhang,
    Patch,
    find_finish,
    held_in_sum,
    held_pieces,
    overhang_of,
    plane_form,
    underside_slopes,
)

__all__ = ["Inspection", "PatchLook", "inspect_model"]

# Where the film pulls, an arch is too wide only over so many times the bridge limit (from memory).
_PULLED_ARCH = 3.0
_KEPT = (
    "islands", "grip", "peak", "necks", "thin", "lost", "cups", "footing", "faults", "corners",
    "spans", "jumps", "tears", "least_held", "swaying", "weak_cuts", "buckling",
)  # fmt: skip


# So many pieces of patches are remembered with what holds them; threads share them.
_MOST_PIECES = 1_000_000
_LOCK = Lock()
# Two feet are one where their areas differ by no more than this part.
_SAME_FOOT = 0.01
# What compiled code finds for some kinds of findings, the longest first.
_AHEAD = {
    "hold": "tears",
    "cup": "cups",
    "thin": "thin",
    "lost": "lost",
    "footing": "footing",
    "neck": "necks",
}
_AHEAD_FROM_POINTS = 100_000


@dataclass(eq=False)
class Inspection:
    """Everything found out about a placed model; dearer parts are worked out when asked for.

    Attributes
    ----------
    mesh : Mesh
        The placed model alone.
    supports : list of Fitted
        Those that stand; they are part of the layers.
    process : Process
    layers : Layers
        Of the model and its pillars.
    own_layers : Layers
        Of the model alone.
    sides : (m,) uint8, optional
        Painted sides.
    bare : Inspection, optional
        Of the same without supports: what those do not touch is taken from it.
    say : Say, optional
        Which supports have a say in what hangs in a layer; of one with ``bare``.
    """

    mesh: Mesh
    supports: list[Fitted]
    process: Process
    layers: Layers
    own_layers: Layers
    sides: np.ndarray | None = None
    bare: "Inspection | None" = field(default=None, repr=False)
    say: Say | None = field(default=None, repr=False)
    _hanging: dict[int, list[Hanging]] = field(default_factory=dict, repr=False)
    _arches: dict[float, list[bool]] = field(default_factory=dict, repr=False)
    _looks: dict[float, list[PatchLook]] = field(default_factory=dict, repr=False)
    _held: dict[tuple[float, int], Held] = field(default_factory=dict, repr=False)
    _pieces: dict[tuple, HeldPieces] = field(default_factory=dict, repr=False)
    # What was found out of hanging parts that are still about; see `recall`.
    _of_parts: WeakKeyDictionary[Hanging, dict] = field(
        default_factory=WeakKeyDictionary, repr=False
    )

    @cached_property
    def hair_mm(self) -> float:
        """How near to a layer's cut a height lies on it, see `layers.levels`."""
        top = float(self.mesh.vertices[:, 2].max(initial=0.0))
        return hair_mm(self.layers.layer_height_mm, top, self.mesh.grain_mm)

    @cached_property
    def slopes_deg(self) -> np.ndarray:
        """(m,) float: see `underside_slopes`."""
        return underside_slopes(self.mesh, self.process.layer_height_mm)

    @cached_property
    def areas_mm2(self) -> np.ndarray:
        """(m,) float: area of each facet."""
        return facet_areas(self.mesh)

    @property
    def contacts(self) -> list[Contact]:
        """Where supports meet the model."""
        return [contact for support in self.supports for contact in support.contacts]

    @cached_property
    def holds(self) -> list[Contact]:
        """What holds undersides from below: contacts of supports, then small posts of the model.

        Whoever made it: a tip in a joined file holds as one that is told does.
        """
        return [*self.contacts, *(self.bare or self).own_dots]

    @cached_property
    def own_dots(self) -> list[Contact]:
        """Small sections of the model that end under an overhang, one for each patch around."""
        layer, center, area = find_dots(self.own_layers, self.process["hold_flat_mm"])
        overhang = self.overhang(self.process.threshold_deg)
        return dots_under(
            self.mesh, overhang, self.slopes_deg, self.layers.layer_height_mm, layer, center, area
        )

    @cached_property
    def islands(self) -> tuple[Island, ...]:
        """Parts of layers that begin on nothing."""
        return find_islands(self.layers)

    @cached_property
    def printed(self) -> Mesh:
        """Model and pillars side by side in one mesh."""
        if not self.supports:
            return self.mesh
        return joined([self.mesh, *(support.mesh for support in self.supports)])

    @cached_property
    def under_mm2(self) -> np.ndarray:
        """(n,) float: area of the undersides between each cut and the one below."""
        return underside_areas(self.layers, self.printed)

    @cached_property
    def grip(self) -> np.ndarray:
        """(n,) float: how much of each layer lies on the one below."""
        return grip_of_layers(self.layers, self.under_mm2)

    @property
    def limits_mm(self) -> tuple[float, float]:
        """Limits of bridges and of ledges."""
        return self.process["bridge_mm"], self.process["ledge_mm"]

    @cached_property
    def jumps(self) -> tuple[Jump, ...]:
        """What a layer adds that holds less than twice the pull, where the process pulls."""
        pull = self.process["pull_n_mm2"]
        if not pull:
            return ()
        return find_jumps(
            self.layers, self.spans, self.limits_mm, self.process["green_n_mm2"], pull
        )

    @cached_property
    def tears(self) -> tuple[Tear, ...]:
        """Where what is built holds less than twice the pull, where the process pulls."""
        rule = self.process
        return find_tears(self.layers, rule["green_n_mm2"], rule["plate_n_mm2"], rule["pull_n_mm2"])

    @cached_property
    def corners(self) -> tuple[LongFoot, ...]:
        """Long first layers with sharp corners, where the process minds."""
        longest = self.process["corner_mm"]
        return long_feet(self.layers, longest) if longest else ()

    @cached_property
    def peak(self) -> Peak | None:
        """The layer of greatest area."""
        return peak_layer(self.layers)

    @cached_property
    def necks(self) -> tuple[Neck, ...]:
        """Where little carries much."""
        return find_necks(self.layers, self.process["neck_ratio"], self.own_layers.area_mm2)

    @cached_property
    def thin(self) -> tuple[ThinWall, ...]:
        """Walls of the model thinner than the process prints; pillars are meant to be thin."""
        return find_thin_walls(self.own_layers, self.process["wall_mm"])

    @cached_property
    def lost(self) -> tuple[Lost, ...]:
        """What of the model no layer shows."""
        rule = self.process
        return find_lost(self.mesh, self.own_layers, rule["wall_mm"], rule["clearance_mm"])

    @cached_property
    def cups(self) -> tuple[Cup, ...]:
        """Room that is walled in, where the process minds."""
        least = self.process["cup_mm3"]
        found = find_cups(self.layers, least) if least else ()
        return tuple(cup for cup in found if cup.closed or self.process["cup_open"])

    @cached_property
    def footing(self) -> Footing | None:
        """How it stands."""
        return find_footing(self.layers)

    @cached_property
    def least_held(self) -> tuple[LeastHeld, ...]:
        """What of the model stands on the plate by itself, where it is held least.

        Supports join what they hold; their own feet, and feet that a brim makes larger, are told
        only where they fall.
        """
        rule = self.process

        def held(layers: Layers) -> tuple[LeastHeld, ...]:
            return find_least_held(
                layers, rule["density_g_cm3"], rule["drag_n"], rule["plate_n_mm2"],
                int(rule["absorbed_layers"]),
            )  # fmt: skip

        if not self.supports:
            return held(self.own_layers)
        feet = [one.foot_mm2 for one in held(self.own_layers)]
        return tuple(
            one for one in held(self.layers)
            if one.push_nmm > one.hold_nmm
            or any(abs(one.foot_mm2 - foot) <= _SAME_FOOT * foot for foot in feet)
        )  # fmt: skip

    @cached_property
    def weak_cuts(self) -> tuple[WeakCut, ...]:
        """Where what is built, supports among it, holds less than twice what the drag asks."""
        rule = self.process
        return find_weak_cuts(
            self.layers, rule["drag_n"], rule["bond_n_mm2"], rule["plate_n_mm2"],
            int(rule["absorbed_layers"]),
        )  # fmt: skip

    @cached_property
    def swaying(self) -> tuple[Swaying, ...]:
        """How far the nozzle's drag moves what stands up from the plate, supports among it."""
        rule = self.process
        return find_swaying(self.layers, rule["drag_n"], rule["young_gpa"], rule["line_mm"])

    @cached_property
    def buckling(self) -> tuple[Buckling, ...]:
        """What buckles when it is pushed back down, supports among it, where the film pulls."""
        rule = self.process
        return find_buckling(self.layers, rule["pull_n_mm2"], rule["young_gpa"], rule["line_mm"])

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

    @contextmanager
    def ahead(self, kinds: Collection[str]) -> Iterator[list[str]]:
        """Work out in a second thread what compiled code finds, while something else is done.

        Parameters
        ----------
        kinds : collection of str
            Kinds of findings that will be asked for.

        Yields
        ------
        later : list of str
            Those of them that are being worked out until the end.
        """
        later = [
            kind for kind, name in _AHEAD.items() if kind in kinds and name not in self.__dict__
        ]
        if THREADS < 2 or len(self.layers.points) < _AHEAD_FROM_POINTS or not later:
            yield []
            return

        def work() -> None:
            for kind in later:
                getattr(self, _AHEAD[kind])

        with ThreadPoolExecutor(1) as pool:
            done = pool.submit(work)
            yield later
        done.result()

    def found(self) -> dict:
        """What has been worked out so far but for arrays the size of the mesh, to be kept."""
        kept = (*_KEPT, "_hanging", "_arches", "_looks", "_held")
        return {name: self.__dict__[name] for name in kept if name in self.__dict__}

    def take_found(self, found: dict) -> None:
        """Take over what `found` gave, of the same model."""
        self.__dict__.update(found)

    def overhang(self, threshold_deg: float) -> Overhang:
        """Overhang patches at a threshold."""
        return overhang_of(self.mesh, self.slopes_deg, threshold_deg, self.areas_mm2, self.process)

    def estimate(self, threshold_deg: float) -> Estimate:
        """Grid supports, mass and time."""
        return estimate(
            self.mesh, self.slopes_deg, threshold_deg, self.layers, self.process,
            self.areas_mm2, self.shown,
        )  # fmt: skip

    def hanging(self, k: int) -> list[Hanging]:
        """Bridges and ledges of one layer, worked out once."""
        k = int(k)
        if k in self._hanging:
            return self._hanging[k]
        own = self.say(k) if self.say is not None else frozenset()
        if self.bare is not None and not own:
            self._hanging[k] = self.bare.hanging(k)
            return self._hanging[k]
        found = self.bare.beside.hanging.get((k, own)) if own else None
        if found is None:
            limits = self.limits_mm
            found = hanging_parts(self.layers, k, self.process["notable_mm"], limits)
            if own:
                self.bare.beside.keep(k, own, found)
        self._hanging[k] = found
        return found

    @cached_property
    def beside(self) -> Known:
        """What is known of it with supports beside it."""
        return known_beside(self.spans, self.layers, self.process["notable_mm"] / 2)

    @cached_property
    def reaching(self) -> np.ndarray:
        """Layers that may hold bridges or ledges long enough to be listed, (l,) int."""
        least, under = self.process["notable_mm"], self.under_mm2
        if self.say is None or self.bare is None:
            return layers_that_reach(self.layers, under, least)
        # Elsewhere it is as without supports.
        told = self.say.anywhere(self.layers.count)
        found = layers_that_reach(self.layers, np.where(told, under, 0.0), least)
        without = self.bare.reaching
        return np.union1d(found, without[~told[without]])

    @cached_property
    def spans(self) -> tuple[Hanging, ...]:
        """Bridges and ledges of all layers that are long enough to be listed."""
        if self.bare is not None:
            _ = self.bare.beside  # on all threads, before those ask for it
        if len(self.reaching) < 3:  # threads would take longer to begin
            return tuple(part for k in self.reaching for part in self.hanging(k))
        with ThreadPoolExecutor(THREADS) as pool:
            return tuple(part for own in pool.map(self.hanging, self.reaching) for part in own)

    @cached_property
    def _arch_rule(self) -> Arches:
        return Arches(
            self.mesh, self.own_layers, self.hair_mm, self.slopes_deg, self.areas_mm2,
            self.limits_mm, self.widest_arch_mm,
        )  # fmt: skip

    @property
    def widest_arch_mm(self) -> float:
        """Span up to which an arch needs nothing; where the film pulls, that decides first."""
        return self.process["bridge_mm"] * (_PULLED_ARCH if self.process["pull_n_mm2"] else 1.0)

    def arches(self, threshold_deg: float) -> list[bool]:
        """Whether each of `spans` belongs to an opening that closes gradually."""
        if threshold_deg not in self._arches:
            self._arches[threshold_deg] = self._arch_rule.of_spans(self.spans, threshold_deg)
        return self._arches[threshold_deg]

    def look_at_patches(self, overhang: Overhang, threshold_deg: float) -> list[PatchLook]:
        """A closer look at each patch of some size, in their order."""
        if self.bare is not None:  # supports make no patch, and an opening is no less an arch
            return self.bare.look_at_patches(overhang, threshold_deg)
        if threshold_deg not in self._looks:
            self._looks[threshold_deg] = look_at_patches(
                self.mesh, overhang, threshold_deg, self.process, self.slopes_deg, self.areas_mm2,
                self.hair_mm, self._arch_rule,
            )  # fmt: skip
        return self._looks[threshold_deg]

    def facets_that_hang(self, patch: int, overhang: Overhang, threshold_deg: float) -> np.ndarray:
        """Facets of a patch, those left out that close an opening gradually, (k,) int."""
        return self.look_at_patches(overhang, threshold_deg)[patch - 1].facets

    def held(self, patch: Patch, overhang: Overhang, threshold_deg: float) -> Held:
        """What the pillars hold of a patch."""
        key = threshold_deg, patch.id
        if key not in self._held:
            facets = self.facets_that_hang(patch.id, overhang, threshold_deg)
            total, count = float(self.areas_mm2[facets].sum()), len(self.holds)
            under = self._under(facets)
            if len(under):
                pieces = self.pieces_held(patch.id, overhang, threshold_deg)
                self._held[key] = held_in_sum(pieces, total, under, count)
            else:
                self._held[key] = Held(total, total, (0.0,) * count)
        return self._held[key]

    @cached_property
    def _hold_facets(self) -> np.ndarray:
        return np.array([one.facet for one in self.holds], int)

    def _under(self, facets: np.ndarray) -> np.ndarray:
        """Which of `holds` are under some facets, (c,) int."""
        return np.flatnonzero(np.isin(self._hold_facets, facets))

    def pieces_held(self, patch: int, overhang: Overhang, threshold_deg: float) -> HeldPieces:
        """A patch in small pieces with what the contacts hold of it, worked out once.

        Looks with other supports share what was found for the same contacts under it, and
        `HeldPieces.contact` counts these alone.
        """
        facets = self.facets_that_hang(patch, overhang, threshold_deg)
        own = [self.holds[c] for c in self._under(facets)]
        known = (self.bare or self)._pieces
        key = threshold_deg, patch, tuple(own)
        with _LOCK:
            found = known.pop(key, None)
        if found is None:
            found = held_pieces(
                self.mesh, facets, self.slopes_deg,
                np.array([one.at_mm for one in own]).reshape(-1, 3),
                np.array([one.facet for one in own], int), self.process, threshold_deg,
            )  # fmt: skip
        with _LOCK:
            known[key] = found
            while len(known) > 1 and sum(len(p.area_mm2) for p in known.values()) > _MOST_PIECES:
                known.pop(next(iter(known)))
        return found

    def contacts_on(self, patches: set[int], overhang: Overhang) -> frozenset[Contact]:
        """Those of `holds` that are under some patches."""
        own = np.isin(overhang.patch_of_facet[self._hold_facets], list(patches))
        return frozenset(self.holds[c] for c in np.flatnonzero(own))

    def with_contacts(self, contacts: list[Contact]) -> "Inspection":
        """The same model with some contacts alone; only what these hold of it is of use."""
        bare = self.bare or self
        look = copy(bare)
        look.bare, look._held = bare, {}
        look.__dict__.pop("_hold_facets", None)
        look.__dict__["holds"] = [*contacts, *bare.own_dots]
        look.supports = []
        return look

    def recall(self, part: Hanging, what: tuple, found: Callable[[], Any]) -> Any:
        """Something about a hanging part, found once for this look and all with other supports.

        Parameters
        ----------
        part : Hanging
        what : tuple
            What is asked, with all that its answer depends on.
        found : callable
        """
        known = (self.bare or self)._of_parts.setdefault(part, {})
        if what not in known:
            known[what] = found()
        return known[what]

    def level(self, z_mm: float) -> int:
        """The layer in which what begins at a height shows first, see `layers.levels`."""
        return int(levels(np.array([z_mm]), self.layers.layer_height_mm, self.hair_mm)[0])

    def levels_of(self, z_mm: np.ndarray) -> np.ndarray:
        """The same of many heights, (p,) int."""
        return levels(z_mm, self.layers.layer_height_mm, self.hair_mm)

    def layer_at(self, z_mm: float) -> int:
        """The layer that spans a height."""
        last = max(self.layers.count - 1, 0)
        return min(max(int((z_mm + self.hair_mm) / self.layers.layer_height_mm), 0), last)

    def begins_in(self, facets: np.ndarray, layer: int) -> np.ndarray:
        """(f,) bool: whether facets lie, in part, between a layer's cut and the one below."""
        if not len(facets):
            return np.zeros(0, bool)
        z = self.mesh.vertices[:, 2][self.mesh.facets[facets]]
        h = self.layers.layer_height_mm
        low = levels(z.min(axis=1), h, self.hair_mm)
        high = levels(z.max(axis=1), h, self.hair_mm)
        return (low <= layer) & (layer <= high)

    def facets_above(self, places_mm: np.ndarray, layer: np.ndarray) -> np.ndarray:
        """Facet that a part of a layer begins with above some places, (p,) int; -1 where none.

        Parameters
        ----------
        places_mm : (p, 2) float
            Inside the part, and outside the layer below.
        layer : (p,) int
        """
        h = self.layers.layer_height_mm
        z = (np.asarray(layer) - 0.5) * h - 2 * self.hair_mm
        return first_hits(self.mesh.index, np.c_[places_mm, z], (0.0, 0.0, 1.0), 0.0)


def inspect_model(
    mesh: Mesh,
    process: Process,
    supports: list[Fitted] = (),
    model_layers: Layers | None = None,
    progress: Callable[[str, float], None] | None = None,
    sides: np.ndarray | None = None,
    bare: Inspection | None = None,
    corners: int = SIDES,
) -> Inspection:
    """Slice a placed model with its pillars, ready to be looked at.

    Parameters
    ----------
    mesh : Mesh
    process : Process
    supports : list of Fitted
        Those that stand.
    model_layers : Layers, optional
        The model's own layers where they are known already.
    progress : callable, optional
        Called with the stage's name and the part done; may raise to stop. With it, every
        part is worked out, the cheap ones first.
    sides : (m,) uint8, optional
        Painted sides, see `painted_sides`.
    bare : Inspection, optional
        Of the same placed model without supports.
    corners : int
        Of the polygons that stand for circles of supports.
    """
    h = process.layer_height_mm
    if model_layers is None:
        model_layers = slice_layers(mesh, h, progress)
    own = [_layers_of(support, h, corners) for support in supports]
    layers = layers_together(model_layers, *own) if supports else model_layers
    if not supports:
        bare = None
    whole = Inspection(mesh, list(supports), process, layers, model_layers, sides, bare)
    if bare is not None:
        whole.say = Say(bare.beside, whole.supports, own)
        # What supports do not change.
        whole.__dict__["_arch_rule"] = bare._arch_rule
        for name in ("slopes_deg", "areas_mm2", "hair_mm", "thin", "lost", "faults"):
            if name in bare.__dict__:
                whole.__dict__[name] = bare.__dict__[name]
    if progress:
        for stage, done, names in (
            ("Looking for islands", 0.72, ("islands",)),
            (
                "Looking at footing and growth",
                0.78,
                ("footing", "corners", "grip", "necks", "tears"),
            ),
            ("Measuring bridges and ledges", 0.84, ("spans",)),
            ("Looking for thin walls", 0.92, ("thin", "lost")),
            ("Looking for cups", 0.97, ("cups", "finish", "faults")),
        ):
            progress(stage, done)
            for name in names:
                getattr(whole, name)
    return whole


# Layers of supports that are still about.
_SLICED: "WeakKeyDictionary[Shape, dict[tuple, Layers]]" = WeakKeyDictionary()


def _layers_of(support: Fitted, layer_height_mm: float, corners: int) -> Layers:
    known = _SLICED.setdefault(support.shape, {})
    name = layer_height_mm, corners
    if name not in known:
        mesh = support.shape.with_sides(corners)
        known[name] = without_straight(slice_layers(mesh, layer_height_mm))
    return known[name]
