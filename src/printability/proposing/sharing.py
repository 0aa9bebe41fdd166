"""Let several tips share a shaft, where that saves material."""

import math
from dataclasses import replace
from typing import TYPE_CHECKING

from ..supports import (
    LEAST_RISE_DEG,
    Fitted,
    OnSupport,
    StrutSize,
    Support,
    fit_all,
)
from ..supports.strength import least_shaft_mm

if TYPE_CHECKING:
    from .proposal import Search

__all__ = ["shared"]

# A branch must save at least this part of the pillar that it stands for.
_SAVES = 0.25
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
            saved = one.volume_mm3 - _volume(one, length)
            if saved > _SAVES * one.volume_mm3:
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
    if not made:
        return supports
    before = search.left(supports)
    result = tuple(made.get(s.key, s) for s in supports)
    while made:
        back = search.left(result)
        if len(back) <= len(before):
            return result
        branches = len(made)
        # What came back is nearest to a branch that would rather stand by itself.
        for finding in back:
            if any(f.kind == finding.kind and math.dist(f.center_mm, finding.center_mm) < 1.0
                   for f in before):  # fmt: skip
                continue
            near = min(made, key=lambda k, f=finding: math.dist(fitted[k].contact_mm, f.center_mm),
                       default=None)  # fmt: skip
            made.pop(near, None)
        if len(made) == branches:  # nothing that any of them could be blamed for
            break
        result = tuple(made.get(s.key, s) for s in supports)
    return supports


def _foot_of(trunk: Fitted) -> float:
    size = trunk.support.size
    return size.pad_height_mm + size.foot_height_mm


def _size(one: Fitted, length: float, process) -> StrutSize:
    size = one.support.size
    shaft = size.contact_mm * 2
    if process is not None and process["drag_n"]:
        shaft = max(shaft, least_shaft_mm(
            process["drag_n"], length, process["line_mm"] / 2, process["young_gpa"]))  # fmt: skip
    shaft = min(max(round(shaft + 0.049, 1), size.contact_mm), size.shaft_mm)
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
