"""From records to geometry: what a stance is right now, computed once and remembered."""

import hashlib
import time
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np
from django.conf import settings

from fairstand.learned import note_time, took_s
from fairstand.library.keeping import source_colours, source_mesh
from fairstand.memory import (
    CODE,
    is_stored,
    kept_arrays,
    kept_object,
    known_already,
    remembered,
    stored_arrays,
    stored_object,
)
from fairstand.workshop import shelf
from printability.edits import Edit, edit_from
from printability.errors import EditError, PrintabilityError
from printability.findings import Ledger, find
from printability.inspection import Inspection, inspect_model
from printability.layers import Layers, layer_count, slice_layers
from printability.mesh import FacetColours, Mesh, facet_areas
from printability.parts import WHOLE, Frame, Framed, Part
from printability.stance import (
    Placed,
    Setup,
    fold,
    part_of,
    part_on_bench,
    parts_of,
    stand,
)
from printability.surface import (
    Dyes,
    Overhang,
    colours_of,
    dyes_key,
    overhang_of,
    paint_key,
    painted_sides,
    underside_slopes,
)

from .models import EditRecord, Stance
from .shapes import Unshaped, remembered_parts

__all__ = ["Current", "NeedsWork", "as_asked", "current", "digest", "edits_in_force"]

# Slicing to about this many loop points a facet of the background limit is still quick.
QUICK_POINTS_PER_FACET = 15
# What finding things in a layer may take, in loop points: 5,000 layers at the usual limit.
POINTS_PER_LAYER = 1200
# What took longer to be looked at is looked at in the background the next time; of so many loop
# points that is known to be quick.
_AT_ONCE_S, _SURELY_QUICK = 0.7, 80_000
# A support has a circle of so many points in a layer, which also has to be joined with the rest.
POINTS_PER_CUT = 64


class NeedsWork(Exception):
    """The layers are not known yet and take too long for a request."""


@dataclass(frozen=True, eq=False)
class Current:
    """A part of a stance, placed, with what has been found out about it.

    Every derived thing is named by what it is derived from: the part by its digest, how it stands
    by its pose, what it carries by its supports and paint, in full.
    """

    stance: Stance
    source: Mesh
    setup: Setup
    given: tuple[Edit, ...] | None = None  # the edits, where they are not the stance's own
    further: tuple[Edit, ...] = ()
    is_passing: bool = False  # shown while the hand moves, and not remembered
    note: str = ""  # what to say of the change that it comes from

    @cached_property
    def part(self) -> Part:
        """The part as the changes of its shape leave it."""
        return part_of(self.source, self.setup, remembered_parts)

    @cached_property
    def parts(self) -> tuple[Part, ...]:
        """All parts that there are."""
        return parts_of(self.source, self.setup, remembered_parts)

    def of_part(self, key: str) -> "Current":
        """The same stance with another part on the bench."""
        if key == self.setup.part:
            return self
        start = replace(_start(self.stance), part=key)
        setup = fold(self.source, self.edits, start)
        return replace(self, setup=setup, given=self.edits, further=())

    @cached_property
    def placed(self) -> Placed:
        """The part on its plate with its supports."""

        def make() -> Placed:
            return stand(self.part, replace(self.setup, supports=(), accepted=()))

        base = make() if self.is_passing else remembered(f"placed/{self.base_key}", make)
        return stand(self.part, self.setup, base)

    @cached_property
    def base_key(self) -> str:
        """Names the part as it stands."""
        return digest(self.part.digest, repr(self.setup.pose))

    @cached_property
    def key(self) -> str:
        """Names everything that the layers and findings depend on, but for the threshold."""
        return digest(
            self.base_key, self.setup.process.digest, self.setup.supports_key, self.paint_key
        )

    @property
    def edits(self) -> tuple[Edit, ...]:
        """The edits that it comes from."""
        known = edits_in_force(self.stance) if self.given is None else self.given
        return (*known, *self.further)

    @property
    def recipe(self) -> list[list]:
        """The part on the bench, and the edits as plain data: what background work is given."""
        return recipe_of(self.setup.part, self.edits)

    @property
    def source_key(self) -> str:
        """Names the part's mesh in the import's own numbers."""
        return self.part.shape_digest

    @property
    def slopes_key(self) -> str:
        """Names the slopes of the undersides."""
        return f"{self.base_key}-{self.layer_height_mm:g}"

    @property
    def view_key(self) -> str:
        """Names everything that is shown, the threshold included."""
        return f"{self.key}-{self.setup.effective_threshold_deg:g}"

    @cached_property
    def paint_key(self) -> str:
        """Names the painted sides, empty where there are none."""
        return paint_key(self.part, self.setup.strokes)

    @property
    def sides(self) -> np.ndarray | None:
        """Painted sides of the facets, see `painted_sides`."""
        if not self.paint_key:
            return None
        return remembered(
            f"sides/{self.paint_key}",
            lambda: painted_sides(
                self.part, self.setup.strokes, lambda key: known_already(f"sides/{key}")
            ),
        )

    @cached_property
    def dyes_key(self) -> str:
        """Names the colours, empty where there are none."""
        return dyes_key(self.part, self.setup.dyes)

    @property
    def colours(self) -> FacetColours | None:
        """Colours of the facets, see `colours_of`."""
        if not self.dyes_key:
            return None
        return remembered(
            f"dyes/{self.dyes_key}",
            lambda: colours_of(
                self.part, self.setup.dyes, lambda key: known_already(f"dyes/{key}")
            ),
        )

    @property
    def layer_height_mm(self) -> float:
        """Layer height of the process."""
        return self.setup.process.layer_height_mm

    @property
    def slopes_deg(self) -> np.ndarray:
        """(m,) float: see `underside_slopes`."""
        h = self.layer_height_mm
        return remembered(
            f"slopes/{self.base_key}/{h}", lambda: underside_slopes(self.placed.mesh, h)
        )

    def overhang(self, threshold_deg: float) -> Overhang:
        """Overhang patches at a threshold."""
        # One that is only looked at while the hand moves pushes nothing else out.
        if self.is_passing or threshold_deg != self.setup.effective_threshold_deg:
            return self._overhang(threshold_deg)
        name = f"overhang/{self.base_key}/{self.setup.process.digest}/{threshold_deg}"
        return remembered(name, lambda: self._overhang(threshold_deg))

    def _overhang(self, threshold_deg: float) -> Overhang:
        areas = remembered(f"areas/{self.base_key}", lambda: facet_areas(self.placed.mesh))
        return overhang_of(
            self.placed.mesh, self.slopes_deg, threshold_deg, areas, self.setup.process
        )

    def inspection(self, progress=None) -> Inspection:
        """Layers and what is found in them, pillars included.

        Raises
        ------
        NeedsWork
            If slicing takes long and no ``progress`` shows that this is background work.
        """

        name = f"found/{self.key}"

        def make():
            found = stored_object(name)
            if found is None and progress is None and self._looking_is_long():
                raise NeedsWork
            bare, start = None, time.perf_counter()
            if self.placed.standing:
                bare = replace(self, setup=replace(self.setup, supports=())).inspection(progress)
            look = inspect_model(
                self.placed.mesh,
                self.setup.process,
                self.placed.standing,
                self._model_layers(progress),
                progress if found is None else None,
                self.sides,
                bare,
            )
            if found is not None:
                look.take_found(found)
            elif progress is not None:
                kept_object(name, look.found())
                note_time(self._look_kind, time.perf_counter() - start)
            return look

        return remembered(f"inspection/{self.key}", make)

    @property
    def needs_work(self) -> bool:
        """Whether `inspection` has to be worked out in the background first, if it can be."""
        try:
            return self._is_long and not is_stored(f"found/{self.key}")
        except PrintabilityError:  # said with the findings
            return False

    @property
    def _is_long(self) -> bool:
        return self._slicing_is_long() or self._looking_is_long()

    def ledger(self, threshold_deg: float) -> Ledger:
        """The findings at a threshold."""
        is_fresh = known_already(f"inspection/{self.key}") is None and not is_stored(
            f"found/{self.key}"
        )
        start = time.perf_counter()
        found = find(self.placed, self.inspection(), threshold_deg, self.overhang(threshold_deg))
        if is_fresh:
            note_time(self._look_kind, time.perf_counter() - start)
        return found

    @property
    def _look_kind(self) -> str:
        """Names what takes about as long to be inspected; see `learned`."""
        facets = len(self.placed.mesh.facets).bit_length()
        props = len(self.setup.supports).bit_length()
        return f"look-{self.setup.process.digest[:12]}-{facets}-{props}"

    def _looking_is_long(self) -> bool:
        """Whether looking for findings takes too long for a request, sliced or not."""
        if self._props_are_long():
            return True
        took = took_s(self._look_kind)
        if took is None:
            return settings.FAIRSTAND_WORKERS and self._points > _SURELY_QUICK
        return settings.FAIRSTAND_WORKERS and took > _AT_ONCE_S

    def _model_layers(self, progress) -> Layers:
        name = f"layers/{self.base_key}-{self.layer_height_mm:g}"

        def make():
            kept = stored_arrays(name)
            if kept is not None:
                return Layers(
                    float(kept["layer_height_mm"]), kept["points"], kept["loop_start"],
                    kept["layer_start"], int(kept["open_chains"]),
                )  # fmt: skip
            if progress is None and self._slicing_is_long():
                raise NeedsWork
            layers = slice_layers(self.placed.mesh, self.layer_height_mm, progress=progress)
            if self._is_long:
                kept_arrays(
                    name, layer_height_mm=layers.layer_height_mm, points=layers.points,
                    loop_start=layers.loop_start, layer_start=layers.layer_start,
                    open_chains=layers.open_chains,
                )  # fmt: skip
            return layers

        return remembered(name, make)

    def _props_are_long(self) -> bool:
        """Whether laying the supports' layers into the model's takes too long for a request."""
        h = self.layer_height_mm
        points = sum(POINTS_PER_CUT * f.contact_mm[2] / h for f in self.placed.standing)
        return points > settings.FAIRSTAND_BACKGROUND_FACETS * QUICK_POINTS_PER_FACET

    def _slicing_is_long(self) -> bool:
        limit = settings.FAIRSTAND_BACKGROUND_FACETS
        mesh = self.placed.mesh
        if len(mesh.facets) > limit:
            return True
        z = mesh.vertices[:, 2]
        layers = layer_count(float(z.max()), self.layer_height_mm)
        if layers * POINTS_PER_LAYER > limit * QUICK_POINTS_PER_FACET:
            return True
        return self._points > limit * QUICK_POINTS_PER_FACET

    @cached_property
    def _points(self) -> float:
        """About how many points its layers have: how often facets are cut."""
        corners = self.placed.mesh.vertices[:, 2][self.placed.mesh.facets]
        return float((corners.max(axis=1) - corners.min(axis=1)).sum() / self.layer_height_mm)


def edits_in_force(stance: Stance) -> list[Edit]:
    """The edits that hold, in order."""
    records = stance.edits.filter(position__lt=stance.in_force)
    return [_edit_of(stance, record) for record in records]


def _edit_of(stance: Stance, record: EditRecord) -> Edit:
    """An edit as it was kept; a process of the maker's own with the numbers that it has now."""
    parameters = record.parameters
    if record.kind == "process" and parameters.get("own"):
        own = shelf.own_process(stance.piece.owner, parameters["process"])
        if own:
            try:
                return edit_from(record.kind, parameters | {"own": own})
            except EditError:  # what it says now makes no sense: what it said then holds
                pass
    return edit_from(record.kind, parameters)


def current(
    stance: Stance, edits: list[Edit] | None = None, further: tuple[Edit, ...] = (),
    is_passing: bool = False, part: str | None = None, with_parts: bool = True,
) -> Current:  # fmt: skip
    """The stance as it is, or as it would be.

    Parameters
    ----------
    stance : Stance
    edits : list of Edit, optional
        Instead of those in force.
    further : tuple of Edit
        After those.
    is_passing : bool
        Whether it is only shown while the hand moves: without supports then.
    part : str, optional
        Instead of the one on the bench; where it is not there, what it was cut from or into.
    with_parts : bool
        Whether its parts are made, to see which are there.

    Raises
    ------
    Unshaped
        In the server, where making the parts takes long.
    """
    source = source_mesh(stance.piece)
    wanted = stance.part if part is None else part

    def of(key: str) -> Setup:
        if edits is None:
            before = _setup_in_force(stance, source, key)
        else:
            before = fold(source, edits, replace(_start(stance), part=key))
        return fold(source, further, before)

    setup = of(wanted)
    # A cut that was made or taken back may have left other parts than there were.
    if with_parts and (
        any(not isinstance(step, Framed) for step in setup.shape) or wanted != WHOLE
    ):
        try:
            keys = [one.key for one in parts_of(source, setup, remembered_parts)]
        except Unshaped as error:
            known = edits_in_force(stance) if edits is None else edits
            error.stance = stance
            error.recipe = recipe_of(wanted, (*known, *further))
            raise
        there = part_on_bench(keys, wanted)
        setup = setup if there == wanted else of(there)
    if is_passing:
        setup = replace(setup, supports=())
    given = None if edits is None else tuple(edits)
    return Current(stance, source, setup, given, tuple(further), is_passing)


def recipe_of(part: str, edits) -> list:
    """A part, and edits as plain data: what background work is given."""
    return [part, *([edit.kind, edit.parameters()] for edit in edits)]


def as_asked(work, stance_id: int, recipe: list, only_setup: bool = False) -> Current:
    """The stance as it was when background work was asked for, whatever has been done since.

    Raises
    ------
    EditError
        If its piece is not there any more.
    """
    stances = Stance.objects.of(work.owner, deleted=True).select_related("piece")
    stance = stances.filter(pk=stance_id).first()
    if stance is None:
        raise EditError("The piece was deleted meanwhile.")
    part = recipe[0] if recipe and isinstance(recipe[0], str) else None
    edits = [edit_from(kind, parameters) for kind, parameters in recipe[part is not None :]]
    return current(stance, edits, part=part, with_parts=not only_setup)


def _start(stance: Stance) -> Setup:
    framed = Setup().framed(Frame(stance.piece.file_unit or "mm"))
    return replace(framed, dyes=Dyes(source_colours(stance.piece)))


def _setup_in_force(stance: Stance, source: Mesh, part: str) -> Setup:
    """What the stance's edits add up to, remembered by the digest of the last one.

    However much was painted and propped before, a request reads the last edit's digest only.
    """
    n = stance.in_force
    colours = source_colours(stance.piece)
    start = digest(
        source.digest, colours.digest if colours else "", stance.piece.file_unit,
        shelf.mark(stance.piece.owner),
    )  # fmt: skip
    tips = dict(stance.edits.filter(position__in=(n - 2, n - 1)).values_list("position", "digest"))

    def name(count: int) -> str:
        return f"setup/{start}/{part}/{tips.get(count - 1, '') if count else ''}"

    def make() -> Setup:
        before = known_already(name(n - 1)) if n > 1 else None
        if before is None:
            return fold(source, edits_in_force(stance), replace(_start(stance), part=part))
        record = stance.edits.get(position=n - 1)
        return fold(source, [_edit_of(stance, record)], before)

    return remembered(name(n), make)


def digest(*parts: str) -> str:
    """A short name for what some texts say, and for how the core computes."""
    return hashlib.sha256("\n".join((CODE, *parts)).encode()).hexdigest()[:24]
