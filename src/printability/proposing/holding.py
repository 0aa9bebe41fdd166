"""Contacts against the pull of the film, where what is built would tear off the plate."""

import math
from typing import TYPE_CHECKING

import numpy as np

from ..findings import Finding
from ..layers import Layers, Tear, torn_regions
from ..mesh import facets_by_area, spread_in
from ..mesh.index import first_hit
from ..supports import Fitted, Support
from .net import Net
from .options import ASKED, MOST_CONTACTS, ROOM
from .spots import BUNCHED, LOWEST, Round, Wanted

if TYPE_CHECKING:
    from .proposal import Search, Unreachable
    from .stands import Stands

__all__ = ["bunched", "held_down", "places_under"]

_MOST_ROUNDS, _MOST_AT_ONCE, _MOST_PLACES, _MOST_TRIED = 8, 400, 1_500, 100
# So many are bunched at the single lowest point, so far from it and from others in times their
# shaft, tried around.
_BUNCH, _APART, _BESIDE = 3, (1.6, 2.4, 3.2), 1.1
_TURNS = np.radians([0, 120, 240, 60, 180, 300, 30, 150, 270, 90, 210, 330])
_UP = np.array([0.0, 0.0, 1.0])
# How much more is asked of the net than of the whole, where that lacks a trace.
_ASKED_MORE = (1.0, 1.03, 1.1, 1.25)
# Of no more than so many each is tried by the whole as well.
_FEW = 8
# What pulls as much as this part of what it did pulls as before.
_NO_BETTER = 0.98


def held_down(
    search: "Search", stands: "Stands", supports: tuple[Support, ...], is_asked
) -> tuple[tuple[Support, ...], list["Unreachable"]]:
    """Some supports, and as many more as the pull of the film asks for.

    Each round counts how much the least cut lacks and stands so many contacts, far from those
    that there are, on undersides between the cut and the layer that pulls; so that leaving one
    out makes it too weak again.

    Parameters
    ----------
    search : Search
    stands : Stands
    supports : tuple of Support
    is_asked : callable
        Which findings are to be cleared.
    """
    missed: list = []
    if not search.process["pull_n_mm2"]:
        return supports, missed
    wanted, more, without = Wanted(), (), None

    def tears_with(some):
        search.may_stop()
        placed, look = search.look((*supports, *some))
        found = search.open(search.ledger(placed, look, ("hold",)))
        return look, [f for f in found if is_asked(f)]

    for _ in range(_MOST_ROUNDS):
        look, open_ = tears_with(more)
        if not open_:
            return (*supports, *_as_few(search, more, tears_with)), missed
        without = without or open_
        job = Round(search, stands, look, wanted)
        for finding in open_:
            tear = look.tears[int(finding.id.split("-")[1]) - 1]
            _hold(job, finding, tear)
        missed += job.missed
        if not search.may_go_on():
            break
        if not job.made or len(supports) + len(more) + len(job.made) > MOST_CONTACTS:
            break
        more = (*more, *(f.support for f in job.made))
    from .proposal import Unreachable

    left = tears_with(more)[1] if more else []
    missed += [
        Unreachable(
            finding.center_mm,
            f"{finding.title}: {len(more)} contacts more do not make it hold; turn it, or take "
            "heavier supports.",
        )
        for finding in left
    ]
    if left and sum(f.burden for f in left) > _NO_BETTER * sum(f.burden for f in without):
        more = ()  # as much tears without them
    return (*supports, *more), missed


def bunched(
    search: "Search", stands: "Stands", supports: tuple[Support, ...]
) -> tuple[Support, ...]:
    """Some supports, and beside the one at the single lowest point two more as heavy.

    There the print begins on next to nothing (common practice, no source); where the process
    pulls, and room is found.
    """
    own = [s for s in supports if s.why.startswith(LOWEST)]
    if not own or not search.process["pull_n_mm2"] or search.options.clear != "risky":
        return supports
    placed, look = search.look(supports)
    job, index = Round(search, stands, look, Wanted()), stands.mesh.index
    for one in own:
        contact = placed.supports[one.key].contacts[0]
        x, y, z = contact.at_mm
        wide = stands.sizes[job.heavy].shaft_mm
        near = [c.at_mm for c in look.contacts]
        made = 1
        for r, turn in ((r, turn) for r in _APART for turn in _TURNS):
            start = np.array([x + r * wide * np.cos(turn), y + r * wide * np.sin(turn), 0.0])
            facet, far = first_hit(
                index.vertices, index.facets, index.order, index.box, index.first_leaf,
                start, _UP, 1e-6,
            )  # fmt: skip
            if made == _BUNCH or facet < 0 or not -1e-6 <= far - z <= r * wide:
                continue
            place = start + far * _UP
            if min(math.dist(place[:2], at[:2]) for at in near) < _BESIDE * wide:
                continue
            found, _ = job.stand(int(facet), place, job.heavy, BUNCHED)
            if found is not None:
                near.append(found.contact_mm)
                made += 1
    return (*supports, *(f.support for f in job.made))


def _as_few(search: "Search", more, tears_with):
    """Those of some supports without which it does not hold: contacts bear more than counted.

    They are chosen on a net of the part's own layers; the whole has the last word.
    """
    if not more:
        return more
    look, _ = tears_with(more)
    net = Net(search, look)
    own = [f.support.key for f in look.supports]
    names = [s.key for s in more if s.key in own]
    others = [key for key in own if key not in names]

    def holds(keys):
        search.may_stop()
        return net.holds([*others, *keys])

    for times in _ASKED_MORE:  # more where the whole lacks a trace
        net.ask(times)
        kept = names[: _first(len(names), lambda n: holds(names[:n]))]
        for key in kept[::-1][1:_MOST_TRIED]:
            rest = [one for one in kept if one != key]
            if holds(rest):
                kept = rest
        left = tuple(s for s in more if s.key in kept)
        if not tears_with(left)[1]:
            break
    else:
        return more
    for one in left[::-1] if len(left) <= _FEW else ():
        rest = tuple(s for s in left if s is not one)
        if not tears_with(rest)[1]:
            left = rest
    return left


def _first(count: int, is_so) -> int:
    """The first number below a count from which on something is so, or the count."""
    low, high = 0, count
    while low < high:
        half = (low + high) // 2
        if is_so(half):
            high = half
        else:
            low = half + 1
    return high


def _hold(job: Round, finding: Finding, tear: Tear) -> None:
    """As many contacts as one cut lacks."""
    search, rule = job.search, job.process
    size = job.stands.sizes[job.heavy]
    each = math.pi / 4 * size.contact_mm**2 * rule["green_n_mm2"]
    lacks = ASKED[search.options.clear] * tear.pull_n - tear.hold_n
    if each <= 0 or rule["plate_n_mm2"] <= 0:
        nothing = "what has just set" if each <= 0 else "the plate"
        job.give_up(finding.center_mm, f"{finding.title}: {nothing} holds nothing.")
        return
    count = min(math.ceil(lacks / each - 1e-9), _MOST_AT_ONCE) - _made_for(job, tear)
    facets, places = _undersides(job, tear)
    taken = np.array([c.at_mm for c in _contacts(job)]).reshape(-1, 3)
    far = np.full(len(places), np.inf)
    for at in taken:
        far = np.minimum(far, np.linalg.norm(places - at, axis=1))
    made = 0
    while made < count and len(places):
        search.may_stop()
        best = int(np.argmax(far))
        if far[best] < ROOM * size.contact_mm:
            break
        found: Fitted | None = None
        if not job.wanted.knows(places[best]):
            why = f"Holds against the pull of {tear.pull_n:.2g} N at z = {tear.z_mm:.1f} mm"
            found, _ = job.stand(int(facets[best]), places[best], job.heavy, why)
        if found is None:
            far[np.linalg.norm(places - places[best], axis=1) < 0.8] = -1.0
            continue
        made += 1
        far = np.minimum(far, np.linalg.norm(places - places[best], axis=1))
    if not made and count > 0:
        job.give_up(finding.center_mm, f"{finding.title}: no contact finds room above it.")


def _made_for(job: Round, tear: Tear) -> int:
    """How many contacts made in this round hold what a cut tears off as well."""
    at = np.array([f.contacts[0].at_mm for f in job.made if f.contacts]).reshape(-1, 3)
    at = at[(at[:, 2] > tear.lowest_mm) & (at[:, 2] < tear.z_mm)]
    layers = job.look.layers
    own = _belongs(layers, torn_regions(layers, tear), at, job.look.levels_of(at[:, 2]))
    return int(own.sum())


def _contacts(job: Round) -> list:
    return [*job.look.contacts, *(c for f in job.made for c in f.contacts[:1])]


def _undersides(job: Round, tear: Tear) -> tuple[np.ndarray, np.ndarray]:
    """Places that face down under what a cut would tear off, evenly by area."""
    look, mesh = job.look, job.look.mesh
    corners = mesh.vertices[mesh.facets]
    middle = corners.mean(axis=1)
    down = np.flatnonzero(
        (job.stands.normals[:, 2] < -0.2) & np.isfinite(look.slopes_deg)
        & (middle[:, 2] > tear.lowest_mm) & (middle[:, 2] < tear.z_mm)
    )  # fmt: skip
    if not len(down):
        return down, np.zeros((0, 3))
    area = float(look.areas_mm2[down].sum())
    count = int(min(_MOST_PLACES, max(60, area / 0.5)))
    return places_under(job, down, count, torn_regions(look.layers, tear))


def places_under(
    job: Round, facets: np.ndarray, count: int, regions: np.ndarray
) -> tuple[np.ndarray, np.ndarray]:
    """About so many places spread evenly over facets, those under some regions of layers."""
    look = job.look
    at, number = facets_by_area(look.areas_mm2[facets], count)
    facet = facets[at]
    places = spread_in(look.mesh.vertices[look.mesh.facets[facet]], number)
    own = _belongs(look.layers, regions, places, look.levels_of(places[:, 2]))
    return facet[own], places[own]


def _belongs(layers: Layers, regions, places: np.ndarray, level: np.ndarray) -> np.ndarray:
    """Which places, by the layer that begins above each, lie within the boxes of some regions."""
    loops, start = layers.loops_by_region
    box = layers.loop_box_mm[loops[start[regions]]]
    first = np.searchsorted(layers.region_layer[regions], np.arange(layers.count + 1))
    own = np.zeros(len(places), bool)
    for i, (x, y, _) in enumerate(places):
        b = box[first[level[i]] : first[min(level[i] + 1, layers.count)]]
        own[i] = ((b[:, :2] <= (x, y)) & (b[:, 2:] >= (x, y))).all(axis=1).any()
    return own
