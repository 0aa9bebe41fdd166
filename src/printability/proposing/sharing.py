"""Let several tips share a shaft, where that saves material."""

import math
from dataclasses import replace
from heapq import nsmallest
from itertools import count, pairwise
from typing import TYPE_CHECKING

import numpy as np

from ..supports import (
    LEAST_RISE_DEG,
    Fitted,
    OnPlate,
    OnSupport,
    Rod,
    StrutSize,
    Support,
    fit_all,
)
from ..supports.strength import SAFE, least_shaft_mm
from .slim import branch_mm, carried_mm2, profile_shaft_mm, rounded_up_mm, slimmed_for
from .spots import BUNCHED, LOWEST

if TYPE_CHECKING:
    from .proposal import Search

__all__ = ["shared", "thick_enough"]

# A branch must save at least this part of the pillar that it stands for.
_SAVES = 0.25
# What carries nothing becomes a branch where that saves this part of it.
_SAVES_LITTLE = 0.1
# Places along a support that are looked at for a joint, and hosts that are tried.
_JOINTS, _MOST_HOSTS = 40, 6
# Contacts that a branch carries at most, its own among them.
_MOST_CARRIED = 4
# Pillars that are tried as branches of others.
_MOST_TRUNKS = 16
# These stay as they are.
_STAY = (LOWEST, BUNCHED, "Steadies")
# So often one branch alone is blamed for what comes back.
_ONE_BY_ONE = 3
# Farther than this many times its height a pillar's contact is not looked at for a shaft.
_FAR = 1.0


def shared(search: "Search", supports: tuple[Support, ...]) -> tuple[Support, ...]:
    """The supports with some of them as branches of others, where nothing comes back by that."""
    placed, _ = search.look(supports)
    fitted = {s.key: placed.supports[s.key] for s in supports}
    trunks = [f for f in fitted.values() if f.support.kind == "pillar" and f.stands]
    savings = []
    for one in fitted.values():
        if not one.stands or not one.contacts or len(one.contacts) > 1:
            continue
        for trunk in trunks:
            if trunk.support.key == one.support.key:
                continue
            level = math.dist(one.spine[1][:2], trunk.spine[-1][:2])
            rise = level * math.tan(math.radians(LEAST_RISE_DEG))
            low = trunk.spine[-1][2] + _foot_of(trunk) + 1.0
            joint = min(one.spine[1][2] - rise, trunk.spine[1][2])
            if joint < low or level > _FAR * one.contact_mm[2]:
                continue
            length = math.hypot(level, one.spine[1][2] - joint)
            saved = _rods_mm3(one) - _volume(one, length)
            if saved > _SAVES * _rods_mm3(one):
                savings.append((saved, one.support.key, trunk.support.key, length))
    by_trunk: dict[str, list] = {}
    for saved, key, trunk, length in savings:
        by_trunk.setdefault(trunk, []).append((saved, key, length))
    made: dict[str, Support] = {}
    taken: set[str] = set()
    while by_trunk:
        # The shaft that saves most, with all that still can be its branches.
        worth = {
            t: sum(saved for saved, key, _ in own if key not in taken)
            for t, own in by_trunk.items() if t not in made
        }  # fmt: skip
        trunk = max(worth, key=worth.get, default=None)
        if trunk is None or worth[trunk] <= 0:
            break
        for _, key, length in sorted(by_trunk.pop(trunk), reverse=True):
            if key in taken or key == trunk:
                continue
            branch = _branch(search, fitted[key], trunk, length)
            if fit_all(search.base.world, (fitted[trunk].support, branch))[key].stands:
                made[key] = branch
                taken |= {key, trunk}
    if search.process["pull_n_mm2"]:
        made = _fewer_trunks(search, fitted, _shortened(search, fitted, made))
    if not made:
        return supports
    before = search.left(supports)
    thick = _thick_enough(search, fitted, made)
    result = tuple(thick.get(s.key) or made.get(s.key, s) for s in supports)
    for turn in count():
        if not made:
            break
        back = search.left(result)
        if len(back) <= len(before):
            return result
        branches = len(made)
        blamed: set[str] = set()
        # What came back is nearest to a branch that would rather stand by itself; to more of them
        # where one after another takes long.
        many = 2 ** min(max(turn - _ONE_BY_ONE, 0), 6)
        for finding in back:
            if any(f.kind == finding.kind and math.dist(f.center_mm, finding.center_mm) < 1.0
                   for f in before):  # fmt: skip
                continue
            blamed |= set(nsmallest(
                many, made,
                key=lambda k, f=finding: math.dist(fitted[k].contact_mm, f.center_mm),
            ))  # fmt: skip
        while blamed:  # and what stands on it
            made = {key: s for key, s in made.items() if key not in blamed}
            blamed = {key for key, s in made.items() if s.ends[1].key in blamed}
        if len(made) == branches:  # nothing that any of them could be blamed for
            break
        thick = _thick_enough(search, fitted, made)
        result = tuple(thick.get(s.key) or made.get(s.key, s) for s in supports)
    return supports


def thick_enough(search: "Search", supports: tuple[Support, ...]) -> tuple[Support, ...]:
    """The supports, thicker where what held one of them sideways has gone since."""
    if not supports or not search.process["pull_n_mm2"]:
        return supports
    placed, _ = search.look(supports)
    fitted = {s.key: placed.supports[s.key] for s in supports}
    made = {
        s.key: s for s in supports
        if s.kind == "strut" and isinstance(s.ends[1], OnSupport) and s.ends[1].key in fitted
    }  # fmt: skip
    thick = _thick_enough(search, fitted, made)
    return tuple(
        thick[s.key] if s.key in thick and thick[s.key].size.shaft_mm > s.size.shaft_mm else s
        for s in supports
    )


def _thick_enough(
    search: "Search", fitted: dict[str, Fitted], made: dict[str, Support]
) -> dict[str, Support]:
    """Pillars, and branches that carry others, as thick as what they carry asks for."""
    if not search.process["pull_n_mm2"]:
        return {}
    carried = {key: 0.0 for key, one in fitted.items() if key not in made and _is_upright(one)}
    for branch in made.values():
        on = branch.ends[1].key
        while True:
            carried[on] = carried.get(on, 0.0) + carried_mm2(branch.size.contact_mm)
            if on not in made:
                break
            on = made[on].ends[1].key
    out, rule, world = {}, search.process, search.base.world
    # No more pulls at one of them than at the whole layer, and twice that is asked.
    pull_n = rule["pull_n_mm2"] * float(search.own.own_layers.area_mm2.max())
    most = SAFE * pull_n / max(rule["green_n_mm2"], 1e-9)
    stand_so = fit_all(world, tuple(made.get(k, f.support) for k, f in fitted.items()))
    for key, more in carried.items():
        one = fitted[key]
        own = carried_mm2(one.support.size.contact_mm)
        area = max(min(own + more, most), own)
        joints = [stand_so[k].spine[2] for k, s in made.items() if s.ends[1].key == key]
        length = _longest_free(stand_so[key], joints)
        if key in made:
            thicker = replace(made[key], size=_size(one, length, rule, area))
            below = _below(key, fitted, made)[:-1]
        else:
            size = slimmed_for(one.support.size, rule, one.contact_mm[2], area, length)
            thicker, below = replace(one.support, size=size), ()
        if fit_all(world, (*below, thicker))[key].stands:
            out[key] = thicker
    return out


def _longest_free(one: Fitted, joints: list[tuple[float, float, float]]) -> float:
    """The longest way along a support between its contact, what joins it, and its end."""
    contact, top, end = one.spine[0], one.spine[1], one.spine[-1]
    start = top if one.support.kind == "strut" else contact
    along = sorted([0.0, math.dist(start, end), *(math.dist(start, at) for at in joints)])
    return max(b - a for a, b in pairwise(along))


def _fewer_trunks(
    search: "Search", fitted: dict[str, Fitted], made: dict[str, Support]
) -> dict[str, Support]:
    """Branches, with pillars among them that cost more than others to stand what they carry on."""
    stay: set[str] = set()
    least = _volume_of_all(search, fitted, made)
    for _ in range(_MOST_TRUNKS):
        search.may_stop()
        trunks = {s.ends[1].key for s in made.values()} - set(made) - stay
        gain = {key: _gain_without(search, key, fitted, made) for key in trunks
                if _is_plain(fitted[key])}  # fmt: skip
        key = max(gain, key=gain.get, default=None)
        if key is None or gain[key] <= 0:
            break
        stay.add(key)
        fewer = _shortened(search, fitted, made, key)
        volume = _volume_of_all(search, fitted, fewer)
        if volume < least:
            made, least = fewer, volume
    return made


def _volume_of_all(search: "Search", fitted: dict[str, Fitted], made: dict[str, Support]) -> float:
    thick = _thick_enough(search, fitted, made)
    every = tuple(thick.get(k) or made.get(k, f.support) for k, f in fitted.items())
    return sum(_rods_mm3(one) for one in fit_all(search.base.world, every).values())


def _rods_mm3(one: Fitted) -> float:
    """Volume of a support, what overlaps counted twice."""
    return sum(
        math.pi / 3 * math.dist(r.a_mm, r.b_mm) * (r.r_a_mm**2 + r.r_a_mm * r.r_b_mm + r.r_b_mm**2)
        for r in one.members if isinstance(r, Rod)
    )  # fmt: skip


def _gain_without(
    search: "Search", key: str, fitted: dict[str, Fitted], made: dict[str, Support]
) -> float:
    """What is saved, about, if a pillar becomes a branch and what it carries stands elsewhere."""
    trunks = {s.ends[1].key for s in made.values()} - set(made) - {key}
    own = [name for name, s in made.items() if s.ends[1].key == key]

    def best(one: Fitted, names) -> float:
        length, order = _lengths(one, [fitted[name] for name in names])
        return float(length[order[0]]) if order else math.inf

    gain = _rods_mm3(fitted[key]) - _volume(fitted[key], best(fitted[key], trunks))
    for name in own:
        now = best(fitted[name], [key])
        gain += _volume(fitted[name], now) - _volume(fitted[name], best(fitted[name], trunks))
    return gain if math.isfinite(gain) else -math.inf


def _shortened(
    search: "Search", fitted: dict[str, Fitted], made: dict[str, Support], without: str = ""
) -> dict[str, Support]:
    """Branches, each where it is shortest: on a shaft, or on a branch that can carry it as well.

    A pillar that carries nothing becomes one where that saves a little. From the lowest up, so
    that a branch only stands on what was there before it.
    """
    world = search.base.world
    trunks = {s.ends[1].key for s in made.values()} - set(made) - {without}
    hosts = {key: fitted[key] for key in trunks}
    left = dict.fromkeys(trunks, math.inf)  # how many contacts each can still carry
    out: dict[str, Support] = {}
    for one in sorted(fitted.values(), key=lambda f: f.contact_mm[2]):
        key = one.support.key
        if key in trunks or len(one.contacts) != 1 or not (key in made or _is_plain(one)):
            continue
        names = [name for name in hosts if left[name] >= 1]
        length, order = _lengths(one, [hosts[name] for name in names])
        found = None
        for i in order[:_MOST_HOSTS]:
            branch = _branch(search, one, names[i], float(length[i]))
            saved = _rods_mm3(one) - _volume(one, float(length[i]))
            if key not in made and saved < _SAVES_LITTLE * _rods_mm3(one):
                break
            below = _below(names[i], fitted, out)
            stands = fit_all(world, (*below, branch))[key]
            if stands.stands:
                found = stands
                break
        if found is None and key in made:
            found = fit_all(world, (*_below(made[key].ends[1].key, fitted, out), made[key]))[key]
        if found is None:
            continue
        out[key], hosts[key] = found.support, found
        left[key] = _MOST_CARRIED - 1
        on = found.support.ends[1].key
        while on in out:  # what a branch carries, all those below it carry too
            left[on] -= 1
            left[key] = min(left[key], left[on])
            on = out[on].ends[1].key
    return out


def _is_plain(one: Fitted) -> bool:
    return _is_upright(one) and not one.support.why.startswith(_STAY)


def _is_upright(one: Fitted) -> bool:
    """Whether it is a pillar on the plate."""
    own = one.support
    return one.stands and own.kind == "pillar" and isinstance(own.ends[-1], OnPlate)


def _below(key: str, fitted: dict[str, Fitted], out: dict[str, Support]) -> tuple[Support, ...]:
    """A support and all that it stands on, the lowest first."""
    found = []
    while key in out:
        found.append(out[key])
        key = out[key].ends[1].key
    return (fitted[key].support, *found[::-1])


def _lengths(one: Fitted, hosts: list[Fitted]) -> tuple[np.ndarray, list[int]]:
    """How long a branch would be on each of some supports, and those that it can stand on,
    the shortest first."""
    if not hosts:
        return np.zeros(0), []
    top = np.array([host.spine[1] for host in hosts])
    end = np.array([host.spine[2] for host in hosts])
    low = [end[i, 2] + (_foot_of(h) + 1.0 if h.support.kind == "pillar" else 0.5)
           for i, h in enumerate(hosts)]  # fmt: skip
    t = np.linspace(0.0, 1.0, _JOINTS)[None, :, None]
    places = top[:, None] + t * (end - top)[:, None]
    apart = np.array(one.spine[1]) - places
    level = np.hypot(apart[..., 0], apart[..., 1])
    rises = apart[..., 2] >= level * math.tan(math.radians(LEAST_RISE_DEG))
    rises &= (places[..., 2] >= np.array(low)[:, None]) & (level > 0.3)
    first = rises.argmax(axis=1)  # the highest, as it is fitted
    every = np.arange(len(hosts))
    length = np.linalg.norm(apart[every, first], axis=1)
    length[~rises[every, first]] = math.inf
    order = np.argsort(length, kind="stable")
    return length, [int(i) for i in order if math.isfinite(length[i])]


def _foot_of(trunk: Fitted) -> float:
    size = trunk.support.size
    return size.pad_height_mm + size.foot_height_mm


def _size(one: Fitted, length: float, process, carried: float = 0.0) -> StrutSize:
    """Of a branch that carries so much section of contacts, its own alone where it is 0."""
    size = one.support.size
    carried = carried or carried_mm2(size.contact_mm)
    shaft = round(size.contact_mm * 2 + 0.049, 1)
    if process["pull_n_mm2"]:
        shaft = rounded_up_mm(branch_mm(process, size.contact_mm, length, carried))
    if process["drag_n"]:
        needed = least_shaft_mm(
            process["drag_n"], length, process["line_mm"] / 2, process["young_gpa"]
        )
        shaft = max(shaft, round(needed + 0.049, 1))
    most = max(size.shaft_mm, profile_shaft_mm(size, process))
    shaft = min(max(shaft, size.contact_mm), most)
    values = {name: getattr(size, name) for name in StrutSize.DIMENSIONS}
    return StrutSize(**values | {"shaft_mm": shaft})


def _volume(one: Fitted, length: float) -> float:
    size = one.support.size
    shaft = min(max(2 * size.contact_mm, 0.8 * size.shaft_mm), size.shaft_mm)
    return math.pi / 4 * shaft**2 * length + math.pi / 12 * size.tip_mm * shaft**2


def _branch(search: "Search", one: Fitted, trunk: str, length: float) -> Support:
    return replace(
        one.support, kind="strut", ends=(one.support.ends[0], OnSupport(trunk)),
        size=_size(one, length, search.process),
    )  # fmt: skip
