"""The search: what is not held gets contacts until a full inspection finds nothing left."""

import math
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from copy import copy
from dataclasses import dataclass, replace
from weakref import WeakKeyDictionary

import numpy as np

from ..findings import Finding, Ledger, find
from ..inspection import Inspection, inspect_model
from ..layers import Layers, coarser, slice_layers
from ..mesh import rotation_about_axes
from ..parts import Part
from ..stance import Placed, Setup, stand
from ..supports import SIDES, Contact, Fitted, OnSupport, Support
from ..surface import PatchUnheld
from ..turning import GOALS, Scorer, even_directions, said_of_turn, turn_to
from .habits import apply_habits, key_of
from .holding import bunched, held_down
from .minimal import beyond, made_minimal, relieved
from .options import (
    BUT_FOR_HOLD,
    CURABLE,
    HELD_DOWN,
    JUDGED,
    MOST_CONTACTS,
    PROFILES,
    Options,
)
from .sharing import shared, thick_enough
from .spots import Wanted, spots_for
from .stands import Stands
from .steadying import steadied

__all__ = ["CURABLE", "Proposal", "Search", "Unreachable", "propose"]

_MOST_ROUNDS = 8
# Turns looked at where a proposal weighs much.
_MOST_FLATS, _DIRECTIONS = 12, 150
_MOST_LOOKS_KEPT = 4
# A step is about a microsecond, with hundreds of contacts in resin or metal up to ten. A look takes
# some for each point of its layers and for itself, a contact that is tried some. After the first
# number nothing more is left out by trying, after the second no more contacts are looked for.
_LOOK_STEPS, _TRY_STEPS = 100_000, 1_500
_STEPS_TO_PRUNE, _STEPS_IN_ALL = 8_000_000, 24_000_000
# Outlines of so many points are taken coarser where that is enough.
_FINE_POINTS, _COARSE_MM = 200_000, 0.02
# Circles of supports have so many corners until the end.
_CORNERS = 12


@dataclass(frozen=True)
class Unreachable:
    """A place that needs a contact and gets none."""

    at_mm: tuple[float, float, float]
    why: str


@dataclass(frozen=True, eq=False)
class Proposal:
    """Supports that would hold what hangs.

    Attributes
    ----------
    supports : tuple of Support
        With their reasons; the maker's own are not among them.
    fitted : dict
        Those and the maker's own, by key, on the part as it stands.
    unreachable : tuple of Unreachable
    before, after : Ledger
        Without and with them.
    look : Inspection
        With them.
    volume_mm3 : float
        Of the proposed ones.
    grid_support_mm3 : float
        Of plain grid supports under all that overhangs, sampled.
    said : tuple of str
        What to know of the whole.
    """

    supports: tuple[Support, ...]
    fitted: dict[str, Fitted]
    unreachable: tuple[Unreachable, ...]
    before: Ledger
    after: Ledger
    look: Inspection
    volume_mm3: float
    grid_support_mm3: float
    said: tuple[str, ...] = ()

    @property
    def contact_area_mm2(self) -> float:
        """What the proposed ones touch of the model."""
        return sum(
            math.pi / 4 * c.diameter_mm**2
            for s in self.supports
            for c in self.fitted[s.key].contacts
        )


class Search:
    """What the steps of a proposal share: the part as it stands, its own layers, the rules.

    Until `exactly`, outlines of very many points are taken coarser by no more than 0.02 mm, and
    supports with fewer corners.

    Parameters
    ----------
    is_coarse : bool
        Whether they may be: where all that hangs is asked for.
    """

    def __init__(self, part: Part, setup: Setup, options: Options, sides=None, progress=None,
                 base: Placed | None = None, own_layers=None, is_coarse=True):  # fmt: skip
        self.part, self.options, self.sides = part, options, sides
        self.setup = setup
        self.kinds = JUDGED  # those that are looked for
        self.steps, self.left_unpruned, self.left_unsought = 0, False, False
        self._told = progress or (lambda *_: None)
        self._last = ("", 0.0)
        bare = replace(setup, supports=())
        self.base = stand(part, bare, base)
        self.process = setup.process
        self.threshold = setup.effective_threshold_deg
        if own_layers is None:
            own_layers = slice_layers(self.base.mesh, self.process.layer_height_mm)
        self.exact = inspect_model(self.base.mesh, self.process, (), own_layers, sides=sides)
        self.overhang = self.exact.overhang(self.threshold)
        self._looks: dict[tuple, Inspection] = {}
        self._ledgers: WeakKeyDictionary[Inspection, dict[tuple, Ledger]] = WeakKeyDictionary()
        self._patches: dict[int, PatchUnheld] = {}
        _ = self.exact.hair_mm
        self.own, self.corners, self.is_whole = self.exact, SIDES, is_coarse
        if is_coarse:
            self.corners = _CORNERS
            if len(own_layers.points) > _FINE_POINTS:
                self._take_coarser(own_layers)
            else:
                self._keep_outlines()

    def _keep_outlines(self) -> None:
        """Take the exact look for the search, with all that is known of it."""
        self.own = copy(self.exact)
        self.own.__dict__.pop("beside", None)  # what is known with supports that are exact

    def _take_coarser(self, own_layers: Layers) -> None:
        less = coarser(own_layers, _COARSE_MM)
        self.own = inspect_model(self.base.mesh, self.process, (), less, sides=self.sides)
        # What is coarser reaches no farther than what it stands for.
        for name in ("slopes_deg", "areas_mm2", "hair_mm", "reaching"):
            self.own.__dict__[name] = getattr(self.exact, name)

    def progress(self, stage: str, done: float) -> None:
        """Say how far it is; may raise to stop."""
        self._last = stage, done
        self._told(stage, done)

    def found_without(self) -> Callable[[], Ledger]:
        """Begin to find all without proposed supports; gives it when it is asked for.

        Where outlines are taken coarser meanwhile it is found in a second thread.
        """
        placed, look = self.look((), exactly=True)
        what = placed, look, self.threshold, self.overhang
        if self.own.own_layers is self.exact.own_layers:
            found = find(*what)
            if self.own is not self.exact:
                self._keep_outlines()
            return lambda: found
        aside = ThreadPoolExecutor(1)
        later = aside.submit(find, *what)
        aside.shutdown(wait=False)
        return later.result

    def may_stop(self) -> None:
        """Say the same again from inside a long step, so that it can be stopped there."""
        self._told(*self._last)

    def tried(self, steps: int = _TRY_STEPS) -> None:
        """Count a contact that was tried, or so many steps."""
        self.steps += steps

    def may_prune(self) -> bool:
        """Whether trying what can be left out may go on; that it may not is remembered."""
        self.left_unpruned |= self.steps >= _STEPS_TO_PRUNE
        return self.steps < _STEPS_TO_PRUNE

    def may_go_on(self) -> bool:
        """Whether more may be looked for at all; that it may not is remembered."""
        self.left_unsought |= self.steps >= _STEPS_IN_ALL
        return self.steps < _STEPS_IN_ALL

    def exactly(self) -> None:
        """From now on look at outlines as they are."""
        self.own = self.exact
        self.corners = SIDES

    def look(self, supports: tuple[Support, ...], exactly=False) -> tuple[Placed, Inspection]:
        """The part with the maker's supports and some more, sliced; the last ones remembered."""
        setup = replace(self.setup, supports=(*self.setup.supports, *supports))
        placed = stand(self.part, setup, self.base)
        own = self.exact if exactly else self.own
        if not placed.standing:
            return placed, own
        corners = SIDES if exactly else self.corners
        name = (own is self.exact, corners, *(f.support for f in placed.standing))
        look = self._looks.pop(name, None)
        if look is None:
            look = inspect_model(
                self.base.mesh, self.process, placed.standing, own.own_layers, sides=self.sides,
                bare=own, corners=corners,
            )  # fmt: skip
            self.steps += _LOOK_STEPS + len(look.layers.points)
        self._keep(name, look)
        return placed, look

    def _keep(self, name: tuple, look: Inspection) -> None:
        self._looks[name] = look
        while len(self._looks) > _MOST_LOOKS_KEPT:
            self._looks.pop(next(iter(self._looks)))

    def ledger(self, placed: Placed, look: Inspection, only=None) -> Ledger:
        """Its findings, of the kinds that are looked for or of some; known for as long as it is."""
        known, kinds = self._ledgers.setdefault(look, {}), only or self.kinds
        if kinds not in known:
            known[kinds] = find(placed, look, self.threshold, self.overhang, kinds)
        return known[kinds]

    def open(self, ledger: Ledger) -> list[Finding]:
        """What of it is to be cleared."""
        return [
            f for f in ledger.findings
            if f.kind in JUDGED and f.severity >= self.options.least and f.accepted is None
        ]  # fmt: skip

    def unheld_mm2(self, patch, contacts: list[Contact]) -> float:
        """What of a patch some contacts under it leave unheld."""
        if patch.id not in self._patches:
            self._patches[patch.id] = PatchUnheld(
                self.base.mesh,
                self.own.facets_that_hang(patch.id, self.overhang, self.threshold),
                self.own.slopes_deg, self.own.areas_mm2, self.process, self.threshold,
            )  # fmt: skip
        at = np.array([c.at_mm for c in contacts]).reshape(-1, 3)
        return self._patches[patch.id].unheld_mm2(at, np.array([c.facet for c in contacts], int))

    def left(self, supports: tuple[Support, ...]) -> list[Finding]:
        """What is to be cleared with some supports more."""
        placed, look = self.look(supports)
        return self.open(self.ledger(placed, look))


def propose(
    part: Part,
    setup: Setup,
    options: Options | None = None,
    sides: np.ndarray | None = None,
    progress: Callable[[str, float], None] | None = None,
    only: Callable[[Finding], bool] | None = None,
    base: Placed | None = None,
    own_layers=None,
    fully: bool = True,
) -> Proposal:
    """Propose supports for what hangs, as few as will do.

    Parameters
    ----------
    part : Part
    setup : Setup
        The stance as it is; its supports stay as they are and count.
    options : Options, optional
    sides : (m,) uint8, optional
        Painted sides.
    progress : callable, optional
        Called with the stage and the part done; may raise to stop.
    only : callable, optional
        Which findings are to be cleared; all without it.
    base : Placed, optional
        The part as it stands, where it is known.
    own_layers : Layers, optional
        Its own layers, where they are known.
    fully : bool
        Whether full looks are to try to leave out still more, which takes longest.

    Returns
    -------
    Proposal
    """
    options = options or Options()

    def found_with(asked: Options) -> Proposal:
        return _proposed(part, setup, asked, sides, progress, only, base, own_layers, fully)

    found = found_with(options)
    if not found.volume_mm3 > found.grid_support_mm3 > 0:
        return found
    # Never a forest: the finer profiles are tried before it is offered.
    for profile in PROFILES[: PROFILES.index(options.profile)][::-1]:
        finer = found_with(replace(options, profile=profile))
        if finer.volume_mm3 < found.volume_mm3 and not beyond(
            _to_clear(finer, options), _to_clear(found, options)
        ):
            said = f"Taken in the profile “{profile}”, which takes less material."
            found = replace(finer, said=(said, *finer.said))
        if found.volume_mm3 <= found.grid_support_mm3:
            break
    return found


def _to_clear(found: "Proposal", options: Options) -> list[Finding]:
    return [
        f for f in found.after.findings
        if f.kind in JUDGED and f.severity >= options.least and f.accepted is None
    ]  # fmt: skip


def _proposed(part, setup, options, sides, progress, only, base, own_layers, fully) -> "Proposal":
    """What one profile comes to, see `propose`."""
    # Single places are known again by where they are exactly.
    is_coarse = only is None and options.habits is None
    search = Search(part, setup, options, sides, progress, base, own_layers, is_coarse)
    search.progress("Looking for what hangs", 0.05)
    found_before = search.found_without()
    placed, look = search.look(())
    stands = Stands(search.base, search.process, options, sides)
    unreachable: list[Unreachable] = []
    by_habit: tuple[Support, ...] = ()
    said: list[str] = []
    left_alone: set[tuple] = set()
    if options.habits is not None:
        search.progress("Standing what the habits say", 0.08)
        wanted = [f for f in search.open(found_before()) if only is None or only(f)]
        applied = apply_habits(search, stands, options.habits, look, placed, wanted)
        by_habit, said = tuple(f.support for f in applied.made), applied.said
        unreachable, left_alone = applied.missed, applied.left_alone
        # What a habit made is the maker's: the search leaves it as it is.
        search.setup = replace(setup, supports=(*setup.supports, *by_habit))

    def is_asked(finding: Finding) -> bool:
        return key_of(finding) not in left_alone and (only is None or only(finding))

    def is_wanted(finding: Finding) -> bool:
        return finding.kind not in HELD_DOWN and is_asked(finding)

    search.kinds = BUT_FOR_HOLD
    supports, missed = _rounds(search, stands, (), is_wanted, (0.1, 0.6))
    unreachable += missed
    if supports:
        search.progress("Leaving out what is not needed", 0.6)
        supports = made_minimal(search, supports, is_wanted, fully=False)
        search.progress("Letting tips share a shaft", 0.85)
        # A branch may hold what another one held before.
        supports = made_minimal(search, shared(search, supports), is_wanted, fully)
    search.progress("Holding against the pull", 0.9)
    search.kinds = JUDGED
    supports = _bunched_if_good(search, stands, supports)
    before_pull = supports
    supports, missed = held_down(search, stands, supports, is_asked)
    unreachable += missed
    alone = supports
    supports, missed = steadied(search, stands, supports, is_asked)
    unreachable += missed
    if supports != alone:  # what has come last may share a shaft too
        sharing, _ = steadied(search, stands, shared(search, supports), is_asked)
        if _volume_mm3(search, sharing) < _volume_mm3(search, supports) and not beyond(
            search.left(sharing), search.left(supports)
        ):
            supports = sharing
    if fully:
        known = {s.key for s in before_pull}
        added = [s for s in supports if s.key not in known]
        supports = relieved(search, supports, added, is_asked)
    supports = thick_enough(search, supports)
    if search.own is not search.exact:
        allowed = [f for f in search.left(supports) if is_asked(f)]
        search.exactly()
        supports = _numbered(supports, setup)  # looked at once more by these names
        supports, missed = _beyond_allowed(search, stands, supports, is_asked, allowed)
        unreachable += missed
    supports = _numbered((*by_habit, *supports), setup)
    search.setup = setup
    search.progress("Looking at it again", 0.95)
    placed, look = search.look(supports)
    after = find(placed, look, search.threshold, search.overhang)
    volume = sum(placed.supports[s.key].volume_mm3 for s in supports)
    unreachable += [
        Unreachable(f.center_mm, f"{f.title}: the habits leave it alone.")
        for f in search.open(after) if key_of(f) in left_alone
    ]  # fmt: skip
    grid = search.exact.estimate(search.threshold).grid_support_mm3
    return Proposal(
        supports, placed.supports, _still_open(unreachable, search.open(after), search),
        found_before(), after, look, float(volume), float(grid),
        (*said, *said_of_weight(volume, grid, search), *_said_of_steps(search)),
    )  # fmt: skip


def _said_of_steps(search: Search) -> tuple[str, ...]:
    if search.left_unsought:
        return ("The search has used up its steps; what it has not come to is listed.",)
    if search.left_unpruned:
        return ("Some may be left out: trying each was given up after so many steps.",)
    return ()


def _volume_mm3(search: Search, supports: tuple[Support, ...]) -> float:
    placed, _ = search.look(supports)
    return sum(placed.supports[s.key].volume_mm3 for s in supports)


def _rounds(
    search: Search, stands: Stands, supports: tuple[Support, ...], is_wanted, done=(0.1, 0.6)
) -> tuple[tuple[Support, ...], list[Unreachable]]:
    """Some supports, and as many more as what hangs asks for, looked at again and again."""
    given_up = Wanted()
    made: list[Fitted] = []
    unreachable: list[Unreachable] = []
    for turn in range(_MOST_ROUNDS):
        placed, look = search.look((*supports, *(f.support for f in made)))
        wanted = [f for f in search.open(search.ledger(placed, look)) if is_wanted(f)]
        if not wanted or len(made) > MOST_CONTACTS or not search.may_go_on():
            break
        part = done[0] + (done[1] - done[0]) * turn / _MOST_ROUNDS
        search.progress("Standing contacts under it", part)
        fresh, missed = spots_for(search, stands, look, placed, wanted, given_up)
        unreachable += missed
        made += fresh
        if not fresh:
            break
    return (*supports, *(f.support for f in made)), unreachable


def _bunched_if_good(
    search: Search, stands: Stands, supports: tuple[Support, ...]
) -> tuple[Support, ...]:
    """Some supports, bunched at the lowest point unless something hangs by that which did not."""
    more = bunched(search, stands, supports)
    if more == supports or beyond(search.left(more), search.left(supports)):
        return supports
    return more


def _beyond_allowed(
    search: Search, stands: Stands, supports: tuple[Support, ...], is_asked, allowed: list[Finding]
) -> tuple[tuple[Support, ...], list[Unreachable]]:
    """Some supports, and more for what is open beside what may be."""

    def is_new(finding: Finding) -> bool:
        return is_asked(finding) and bool(beyond([finding], allowed))

    supports, missed = _rounds(
        search, stands, supports, lambda f: f.kind not in HELD_DOWN and is_new(f), (0.92, 0.95)
    )
    supports, more = held_down(search, stands, supports, is_new)
    supports, steady = steadied(search, stands, supports, is_new)
    return supports, missed + more + steady


def _numbered(supports: tuple[Support, ...], setup: Setup) -> tuple[Support, ...]:
    """Keys that none of the maker's supports has; what stood on one that has gone, goes."""
    kept = {s.key for s in (*setup.supports, *supports)}
    while gone := {s.key for s in supports if s.key in kept and not kept.issuperset(s.rests_on)}:
        kept -= gone
    supports = tuple(s for s in supports if s.key in kept)
    used = [int(s.key) for s in setup.supports if s.key.isdigit()]
    first = max(used, default=0) + 1
    name = {s.key: str(first + i) for i, s in enumerate(supports)}
    out = []
    for s in supports:
        ends = tuple(
            replace(e, key=name.get(e.key, e.key)) if isinstance(e, OnSupport) else e
            for e in s.ends
        )
        out.append(replace(s, key=name[s.key], ends=ends))
    return tuple(out)


def _still_open(
    missed: list[Unreachable], left: list[Finding], search: Search
) -> tuple[Unreachable, ...]:
    """Places without a contact, each once, as far as something is left to be cleared; what is
    left for another reason is among them."""
    found: list[Unreachable] = []
    for one in missed:
        if all(math.dist(one.at_mm, other.at_mm) > 1.0 for other in found):
            found.append(one)
    kept = [one for one in found if any(_is_at(one, finding, search) for finding in left)]
    for finding in left:
        if not any(_is_at(one, finding, search) for one in kept):
            kept.append(
                Unreachable(finding.center_mm, f"{finding.title}: no contact was found for it.")
            )
    return tuple(kept)


def _is_at(one: Unreachable, finding: Finding, search: Search) -> bool:
    """Whether a place without a contact is one of a finding's."""
    if math.dist(one.at_mm, finding.center_mm) <= _reach_of(finding):
        return True
    if not finding.patch:
        return False
    # The middle of what winds or goes round a hole is not on it.
    mesh = search.base.mesh
    corners = mesh.vertices[mesh.facets[search.overhang.patch_of_facet == finding.patch]]
    far = np.linalg.norm(corners.reshape(-1, 3) - one.at_mm, axis=1)
    return bool(far.min() <= math.sqrt(max(finding.area_mm2, 1.0)))


def _reach_of(finding: Finding) -> float:
    if finding.kind in ("footing", "wobble"):
        return math.inf
    return (
        5.0
        + 2.0 * math.sqrt(max(finding.area_mm2, 0.0))
        + (finding.measure if finding.unit == "mm" and math.isfinite(finding.measure) else 0.0)
    )


def said_of_weight(volume: float, grid: float, search: Search) -> tuple[str, ...]:
    """What to say where supports weigh much against plain grid ones, mm³ both."""
    if not (grid > 1000 and volume > grid / 2):
        return ()
    much = "more than plain grid supports would" if volume > grid else (
        "more than half of what plain grid supports would"
    )  # fmt: skip
    return (f"These take {volume:,.0f} mm³, {much} ({grid:,.0f} mm³): {_cheaper(volume, search)}",)


def _cheaper(volume: float, search: Search) -> str:
    """The cheaper cure: the turn that needs least, where that is much less; else in general."""
    setup = search.setup
    scorer = Scorer(search.part.mesh, search.process, search.threshold, setup.lift_mm, search.sides)
    flats = [face.down for face in scorer.faces[:_MOST_FLATS]]
    downs = np.array([*flats, *even_directions(_DIRECTIONS)]).reshape(-1, 3)
    rows = scorer.score(downs)
    needs = rows[:, GOALS["volume"].column]
    stands = (rows[:, GOALS["footing"].column] > 3.0) & (rows[:, GOALS["copies"].column] >= 1)
    best = int(np.argmin(np.where(stands, np.nan_to_num(needs, nan=np.inf), np.inf)))
    if not stands[best] or needs[best] > volume / 2:
        return "a cut or a change of shape may be cheaper."
    after = rotation_about_axes(*turn_to(downs[best], scorer, setup.rotation))
    turn = said_of_turn(setup.rotation, after)
    return (
        f"to {turn} is cheaper, plain grid supports would be about {needs[best]:,.0f} mm³ then "
        "(an estimate)."
    )
