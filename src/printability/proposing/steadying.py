"""Contacts and feet against the drag of the nozzle, where what is built would break or tip."""

import math
from dataclasses import replace
from itertools import pairwise
from typing import TYPE_CHECKING

import numpy as np

from ..findings import Finding, Severity, case_of, dragged
from ..footing import WeakCut
from ..layers import Layers, region_loops
from ..mesh.linking import linked
from ..supports import Fitted, Support
from .holding import places_under
from .options import ASKED, BUT_FOR_HOLD, ROOM
from .spots import Round, Wanted

if TYPE_CHECKING:
    from .proposal import Search, Unreachable
    from .stands import Stands

__all__ = ["steadied"]

_MOST_PLACES, _MOST_TRIED = 800, 30
# So many are stood for a cut, round by round: more where one after another takes long.
_AT_ONCE = (2, 2, 4, 4, 8, 8)
_MOST_ROUNDS = len(_AT_ONCE)
# A contact may be so many times as wide as the heaviest profile's where that alone does.
_WIDER_CONTACT = 1.25
# What is left may be worse by no more than this where one is left out.
_NO_WORSE = 1.01
# What sways belongs to the support that is no farther from it than this.
_NEAR_MM = 4.0
# A foot or shaft is made no more than so many times as wide at once.
_MOST_WIDER = 3.0
_WAYS = np.stack([np.cos(np.pi * np.arange(12) / 12), np.sin(np.pi * np.arange(12) / 12)])


def steadied(
    search: "Search", stands: "Stands", supports: tuple[Support, ...], is_asked
) -> tuple[tuple[Support, ...], list["Unreachable"]]:
    """Some supports, and what more is asked for so that every cut bears the drag.

    Feet and shafts get wider; contacts as wide as the heaviest profile's; then others are stood
    beside them, low and far out, under what the cut would let go.

    Parameters
    ----------
    search : Search
    stands : Stands
    supports : tuple of Support
    is_asked : callable
        Which findings are to be cleared.
    """
    if not search.process["drag_n"]:
        return supports, []
    wanted, missed, before = Wanted(), [], {s.key for s in supports}
    stuck: set[str] = set()  # those that find no room where they are wider

    def open_with(some: tuple[Support, ...]):
        search.may_stop()
        placed, look = search.look(some)
        case = case_of(placed, look, search.threshold, search.overhang)
        # What is told of the footing as well.
        found = [*dragged(case, every=True), *search.ledger(placed, look, ("sway",)).findings]
        return look, [f for f in found if f.severity >= search.options.least and is_asked(f)]

    for turn in range(_MOST_ROUNDS):
        look, open_ = open_with(supports)
        if not open_:
            break
        job = Round(search, stands, look, wanted)
        wider: dict[str, Support] = {}
        own = {s.key: s for s in supports if s.key not in stuck}
        for finding in open_:
            if finding.kind == "sway":
                _stiffen(look, own, wider, finding)
                continue
            cut = next((c for c in look.weak_cuts if _is_of(finding, c)), None)
            if cut is not None:
                _steady(job, own, wider, finding, cut, _AT_ONCE[turn])
        missed += job.missed
        changed = tuple(wider.get(s.key, s) for s in supports)
        fitted = search.look(changed)[0].supports
        fresh = {key for key in wider if not fitted[key].stands}
        changed = tuple(
            old if old.key in fresh else s for s, old in zip(changed, supports, strict=True)
        )
        stuck |= fresh
        if changed == supports and not job.made and not fresh:
            break
        supports = (*changed, *(f.support for f in job.made))
    # Those without which it holds as well, the last first.
    added = [s for s in supports if s.key not in before][::-1][:_MOST_TRIED]

    def left_with(some: tuple[Support, ...]) -> tuple[int, int, float]:
        found = search.open(search.ledger(*search.look(some), BUT_FOR_HOLD)) + open_with(some)[1]
        fails = sum(f.severity >= Severity.WILL_FAIL for f in found)
        return fails, len(found), sum(f.burden for f in found)

    left = left_with(supports) if added else (0, 0, 0.0)
    for one in added:
        if not search.may_prune():
            break
        rest = tuple(s for s in supports if s is not one)
        now = left_with(rest)
        if now[0] <= left[0] and now[1] <= left[1] and now[2] <= left[2] * _NO_WORSE:
            supports = rest
    return supports, missed


def _is_of(finding: Finding, cut: WeakCut) -> bool:
    return finding.center_mm == cut.at_mm and finding.layer == cut.layer


def _stiffen(look, own: dict[str, Support], wider: dict, finding: Finding) -> None:
    """Make what sways as thick as it has to be, and what it stands on."""
    at, best, key = np.array(finding.center_mm), _NEAR_MM, ""
    for fitted in look.supports:
        spine = np.array(fitted.spine)
        for a, b in pairwise(spine):
            t = np.clip((at - a) @ (b - a) / max(float((b - a) @ (b - a)), 1e-12), 0, 1)
            far = float(np.linalg.norm(a + t * (b - a) - at))
            if far < best:
                best, key = far, fitted.support.key
    part = min((1.05 * finding.measure / finding.limit) ** 0.25, _MOST_WIDER)
    # Most of it comes from the shaft that it stands on.
    seen = set()
    while key in own and key not in seen:
        seen.add(key)
        below = next(iter(own[key].rests_on), "")
        if below not in own:
            _widen(wider, own[key], part, ("shaft_mm",))
        key = below


def _steady(
    job: Round, own: dict[str, Support], wider: dict, finding: Finding, cut: WeakCut, most: int
) -> None:
    """Make what a cut goes through wider, or stand contacts beside it."""
    asked = ASKED[job.search.options.clear] / max(cut.ratio, 1e-6)
    layers = job.look.layers
    group, above = _group(layers, cut)
    through = _supports_through(job.look.supports, layers, group, cut)
    theirs = sum(math.pi * r * r for _, _, r in through)
    is_theirs = theirs > 0.7 * cut.area_mm2
    keys = {key for key, _, _ in through}
    alone = len(keys) == 1 and is_theirs
    part = min(asked ** (1 / 3 if alone else 1 / 2), _MOST_WIDER)
    if cut.on_plate and is_theirs and keys & own.keys():
        for key in keys & own.keys():
            _widen(wider, own[key], part, ("foot_mm", "pad_mm"))
        return
    tops = {f.support.key: f.contact_mm[2] for f in job.look.supports if f.contacts}
    if (
        alone
        and keys & own.keys()
        and all(cut.reached_mm <= tops.get(key, 0.0) + layers.layer_height_mm for key in keys)
    ):
        for key in keys & own.keys():
            _widen(wider, own[key], part, ("shaft_mm",))
        return
    heavy = job.stands.sizes[job.heavy].contact_mm
    shown = {
        f.support.key for f in job.look.supports
        if any(c.facet >= 0 and job.stands.is_shown(c.facet) for c in f.contacts)
    }  # fmt: skip
    more = 1.0
    for key in keys & own.keys():
        size = wider.get(key, own[key]).size
        contact = getattr(size, "contact_mm", heavy)
        alone_mm = contact * asked ** (1 / 3)
        wide = heavy
        if len(keys) == 1 and is_theirs and heavy < alone_mm <= _WIDER_CONTACT * heavy:
            wide = round(alone_mm + 0.005, 2)
        if contact < wide and key not in shown:
            more = max(more, (wide / contact) ** 3)
            shaft = max(size.shaft_mm, wide)
            foot = max(size.foot_mm, shaft)
            wider[key] = replace(
                own[key], size=replace(size, contact_mm=wide, shaft_mm=shaft, foot_mm=foot)
            )
    if more >= asked:
        return
    lever = cut.hold_nmm * more / job.process["drag_n"] / ASKED[job.search.options.clear]
    made = _stand_beside(job, cut, group, above, lever, heavy, most)
    if not made and more == 1.0:
        job.give_up(finding.center_mm, f"{finding.title}: no contact finds room beside it.")


def _widen(wider: dict, support: Support, part: float, names: tuple[str, ...]) -> None:
    if support.key in wider:  # once a round
        return
    size, made = support.size, {}
    for name in names:
        if hasattr(size, name) and getattr(size, name) > 0:
            most = size.DIMENSIONS[name].high
            made[name] = round(min(getattr(size, name) * part, most), 2)
    if "shaft_mm" in made and hasattr(size, "foot_mm"):
        made["foot_mm"] = max(size.foot_mm, made["shaft_mm"])
    if made:
        wider[support.key] = replace(support, size=replace(size, **made))


def _group(layers: Layers, cut: WeakCut) -> tuple[np.ndarray, np.ndarray]:
    """Regions of the cut's layer that hold together then, and all regions above that they hold."""
    top = min(round(cut.reached_mm / layers.layer_height_mm), layers.count)
    first, last = int(layers.layer_regions[cut.layer]), int(layers.layer_regions[top])
    lower, upper = layers.touching
    some = (lower >= first) & (upper < last)
    label = linked(last - first, lower[some] - first, upper[some] - first)
    same = first + np.flatnonzero(label == label[cut.region - first])
    own = int(layers.layer_regions[cut.layer + 1])
    return same[same < own], same[same >= own]


def _supports_through(supports: list[Fitted], layers: Layers, group, cut: WeakCut) -> list[tuple]:
    """Supports of which members go through some regions of a layer: key, place, radius."""
    z = max(cut.z_mm, 0.25 * layers.layer_height_mm)
    loops = [region_loops(layers, int(region))[0] for region in group]
    boxes = np.array([(*loop.min(axis=0), *loop.max(axis=0)) for loop in loops])
    found = []
    for fitted in supports:
        for rod in fitted.members:
            a, b = getattr(rod, "a_mm", None), getattr(rod, "b_mm", None)
            if a is None or not min(a[2], b[2]) - 1e-9 <= z <= max(a[2], b[2]) + 1e-9:
                continue
            t = (z - a[2]) / (b[2] - a[2]) if b[2] != a[2] else 0.5
            at = np.array(a[:2]) + t * (np.array(b[:2]) - np.array(a[:2]))
            if ((boxes[:, :2] <= at) & (boxes[:, 2:] >= at)).all(axis=1).any():
                found.append((fitted.support.key, at, rod.r_a_mm + t * (rod.r_b_mm - rod.r_a_mm)))
                break
    return found


def _stand_beside(job: Round, cut, group, above, lever: float, heavy: float, most: int) -> int:
    """Contacts under what a cut would let go, where they widen best what holds."""
    facets, places = _undersides(job, cut, above)
    if not len(places):
        return 0
    layers = job.look.layers
    points = [layers.region_center_mm[region] for region in group]
    made = 0
    # As low as the cut bears the drag until then, else the lowest.
    height = np.maximum(places[:, 2] - cut.z_mm - lever, 0.0)
    near = np.array([c.at_mm for c in job.look.contacts]).reshape(-1, 3)
    free = np.ones(len(places), bool)
    for at in near:
        free &= np.linalg.norm(places - at, axis=1) >= ROOM * heavy
    for _ in range(40):
        if made == most or not free.any():
            break
        job.search.may_stop()
        middle = np.mean(points, axis=0)
        spread = ((np.array(points) - middle) @ _WAYS) ** 2
        gain = np.sqrt((spread.sum(axis=0) + ((places[:, :2] - middle) @ _WAYS) ** 2).min(axis=1))
        score = np.where(free, gain - 2 * height, -np.inf)
        best = int(np.argmax(score))
        free &= np.linalg.norm(places - places[best], axis=1) >= ROOM * heavy
        if job.wanted.knows(places[best]):
            continue
        why = f"Holds beside others at z = {cut.z_mm:.1f} mm against the drag"
        fitted, _ = job.stand(int(facets[best]), places[best], job.heavy, why)
        if fitted is not None:
            points.append(np.array(fitted.contact_mm[:2]))
            made += 1
    return made


def _undersides(job: Round, cut: WeakCut, above: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Places that face down under regions, evenly by area."""
    look, mesh = job.look, job.look.mesh
    z = mesh.vertices[:, 2][mesh.facets]
    down = np.flatnonzero(
        (job.stands.normals[:, 2] < -0.2) & np.isfinite(look.slopes_deg)
        & (z.max(axis=1) > cut.z_mm) & (z.min(axis=1) < cut.reached_mm)
    )  # fmt: skip
    if not len(down) or not len(above):
        return down[:0], np.zeros((0, 3))
    count = int(min(_MOST_PLACES, max(120, look.areas_mm2[down].sum())))
    facet, places = places_under(job, down, count, above)
    inside = (places[:, 2] > cut.z_mm) & (places[:, 2] < cut.reached_mm)
    return facet[inside], places[inside]
