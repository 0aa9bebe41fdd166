"""What stands alone: every stack of regions by itself, until layers join it with another.

Source: TRADE rules of the house (a drag of the nozzle at the height reached, the plate's strength,
the beam theory of any handbook of mechanics).
"""

import math
from dataclasses import dataclass

import numpy as np

from ..layers import Layers
from .footing import _hull_edges, _margins
from .moments import Moments, moments_of_regions

__all__ = ["LeastHeld", "Swaying", "find_least_held", "find_swaying"]

_GRAVITY_N_G = 9.81e-3
# Directions in which a foot's section is looked at.
_WAYS = 24
# More stacks than this beside each other are not looked at in every layer.
_CROWD = 60
# What is deflected and least, of a stack that has no width at all.
_NO_WIDTH_MM4 = 1e-9


@dataclass(frozen=True)
class LeastHeld:
    """A stack on the plate at the height where its foot holds it least.

    Attributes
    ----------
    push_nmm, hold_nmm : float
        Its weight by the lever beyond its foot with the drag at that height, and what the plate
        holds of its foot.
    margin_mm : float
        How far its centre of mass is inside the hull of its foot; negative outside.
    foot_mm2 : float
    center_mm : (3,) tuple of float
        Its centre of mass then.
    z_mm : float
        The height reached.
    is_all : bool
        Whether nothing else was on the plate then.
    """

    push_nmm: float
    hold_nmm: float
    margin_mm: float
    foot_mm2: float
    center_mm: tuple[float, float, float]
    z_mm: float
    is_all: bool


@dataclass(frozen=True)
class Swaying:
    """A stack at the height where the drag moves it most, before it joins another.

    Attributes
    ----------
    moves_mm : float
    z_mm : float
    center_mm : (3,) tuple of float
    area_mm2 : float
        Of its section there.
    """

    moves_mm: float
    z_mm: float
    center_mm: tuple[float, float, float]
    area_mm2: float


def find_least_held(
    layers: Layers, density_g_cm3: float, drag_n: float, plate_n_mm2: float, absorbed_layers: int
) -> tuple[LeastHeld, ...]:
    """Every stack that stands on the plate, where it is held least, the worst first.

    What joins another stand within ``absorbed_layers`` is not asked there.
    """
    if not layers.count or drag_n <= 0 or not len(layers.region_layer):
        return ()
    h, origin = layers.layer_height_mm, layers.box_mm[0]
    lower, upper = layers.touching
    start = layers.layer_regions
    order = np.argsort(layers.region_layer[upper], kind="stable")
    lower, upper = lower[order], upper[order]
    at = np.searchsorted(layers.region_layer[upper], np.arange(layers.count + 1))
    # Plain numbers: there may be a hundred thousand regions, each with a few sums.
    volume = (layers.region_area_mm2 * h).tolist()
    center = (layers.region_center_mm - origin).tolist()
    lower, upper = lower.tolist(), upper.tolist()
    feet = moments_of_regions(layers, np.arange(start[1]), origin)
    # Stacks by their root: sums of volume and first moments, feet, and their record so far.
    root = list(range(len(volume)))
    stacks: dict[int, _Stack] = {}
    ended: list[_Stack] = []

    def find(region: int) -> int:
        while root[region] != region:
            root[region] = root[root[region]]
            region = root[region]
        return region

    def look(stack: _Stack, k: int, alone: int) -> None:
        if stack.foot is None:
            stack.foot = _Foot(layers, feet, stack.feet, origin)
        stack.look(k, h, density_g_cm3, drag_n, plate_n_mm2, alone == 1)

    alone = 0
    for k in range(layers.count):
        z = (k + 0.5) * h
        for region in range(int(start[k]), int(start[k + 1])):
            stacks[region] = _Stack([region] if k == 0 else [], volume[region], *center[region], z)
        joined = []
        for a, b in zip(lower[at[k] : at[k + 1]], upper[at[k] : at[k + 1]], strict=True):
            one, other = find(a), find(b)
            if one == other:
                continue
            first, second = stacks.pop(one), stacks.pop(other)
            for stack in (first, second):
                # What stood for a while ends here; what has just begun does not count.
                if first.feet and second.feet:
                    if alone > _CROWD:
                        look(stack, k - 1, alone)
                    joined.append(stack.ended(k))
            root[other] = one
            stacks[one] = first.joined(second)
        ended += joined
        standing = [stack for stack in stacks.values() if stack.feet]
        alone = len(standing)
        # Of a crowd each is looked at where it ends: before it joins another, and at the top.
        if alone <= _CROWD or k == layers.count - 1:
            for stack in standing:
                look(stack, k, alone)
    ended += [
        stack.ended(layers.count + absorbed_layers) for stack in stacks.values() if stack.feet
    ]
    found = [stack.worst(absorbed_layers, origin) for stack in ended]
    found = [one for one in found if one is not None]
    return tuple(sorted(found, key=lambda one: one.hold_nmm / max(one.push_nmm, 1e-12)))


@dataclass(frozen=True, eq=False)
class _Look:
    """A stack at a height: what pushes, what holds, how far its middle is inside its foot."""

    layer: int
    push_nmm: float
    hold_nmm: float
    margin_mm: float
    center_mm: np.ndarray
    z_mm: float
    is_all: bool


class _Stack:
    """A stack while it grows."""

    def __init__(self, feet: list[int], volume: float, x: float, y: float, z: float):
        self.feet, self.volume, self.x, self.y, self.z = feet, volume, x, y, z
        self.looks: list[_Look] = []
        self.foot = None
        self.joins = math.inf

    def joined(self, other: "_Stack") -> "_Stack":
        keeps = self if len(self.feet) >= len(other.feet) else other
        volume = self.volume + other.volume
        share = other.volume / volume if volume else 0.0
        made = _Stack(
            [*self.feet, *other.feet], volume, self.x + share * (other.x - self.x),
            self.y + share * (other.y - self.y), self.z + share * (other.z - self.z),
        )  # fmt: skip
        # With the same feet it is the same stand; with more it is a new one.
        if len(made.feet) == len(keeps.feet):
            made.looks, made.foot = keeps.looks, keeps.foot
        return made

    def ended(self, k: int) -> "_Stack":
        self.joins = k
        return self

    def look(self, k, h, density, drag_n, plate_n_mm2, is_all) -> None:
        com = np.array([self.x, self.y, self.z])
        height = (k + 1) * h
        out, hold = self.foot.asked(com[:2], plate_n_mm2)
        weight = self.volume * 1e-3 * density * _GRAVITY_N_G
        push = weight * max(-out, 0.0) + drag_n * height
        self.looks.append(_Look(k, push, hold, out, com, height, is_all))

    def worst(self, absorbed: int, origin) -> LeastHeld | None:
        own = [one for one in self.looks if one.layer < self.joins - absorbed]
        if not own:
            return None
        worst = max(own, key=lambda one: one.push_nmm / max(one.hold_nmm, 1e-12))
        x, y, z = worst.center_mm
        return LeastHeld(
            worst.push_nmm, worst.hold_nmm, min(one.margin_mm for one in own), self.foot.area_mm2,
            (float(x + origin[0]), float(y + origin[1]), float(z)), worst.z_mm, worst.is_all,
        )  # fmt: skip


class _Foot:
    """The first layer's regions that a stack stands on."""

    def __init__(self, layers: Layers, every: Moments, feet: list[int], origin: np.ndarray):
        loops, first = layers.loops_by_region
        self.points = np.concatenate([
            layers.points[layers.loop_start[loop] : layers.loop_start[loop + 1]]
            for region in feet for loop in loops[first[region] : first[region + 1]]
        ]) - origin  # fmt: skip
        self.edges = _hull_edges(self.points)
        found = Moments(every.area_mm2[feet], every.center_mm[feet], every.tensor_mm4[feet])
        self.area_mm2 = float(found.area_mm2.sum())
        own = found.together()
        angles = np.pi * np.arange(_WAYS) / _WAYS
        ways = np.stack([np.cos(angles), np.sin(angles)], axis=1)
        second = np.einsum("wi,ij,wj->w", ways, own.tensor_mm4, ways)
        reach = np.abs((self.points - own.center_mm) @ ways.T).max(axis=0)
        self.section_mm3 = float((second / np.maximum(reach, 1e-12)).min())

    def asked(self, place: np.ndarray, plate_n_mm2: float) -> tuple[float, float]:
        out = -math.inf if self.edges is None else float(_margins(self.edges, place[None])[0])
        return out, plate_n_mm2 * self.section_mm3


def find_swaying(layers: Layers, drag_n: float, young_gpa: float) -> tuple[Swaying, ...]:
    """How far the drag moves what grows from the plate, by stretches that stand by themselves.

    A stretch is a chain of regions, one on the other. Where several join, those that stood apart
    since they parted (or since the plate) act as columns between two ends that do not turn:
    F L³ / (12 E ΣI); along one of them as a cantilever, F Σ (H - z)² h / (E I).
    """
    if not layers.count or drag_n <= 0 or not len(layers.region_layer):
        return ()
    h, origin = layers.layer_height_mm, layers.box_mm[0]
    found = moments_of_regions(layers, np.arange(len(layers.region_area_mm2)), origin)
    least = np.maximum(found.least_mm4(), _NO_WIDTH_MM4)
    lower, upper = layers.touching
    below = np.split(lower[np.argsort(upper, kind="stable")],
                     np.cumsum(np.bincount(upper, minlength=len(least)))[:-1])  # fmt: skip
    children = np.bincount(lower, minlength=len(least))
    # Regions above which several meet: until then each gives way by itself.
    meets = np.zeros(len(least), bool)
    meets[lower[np.bincount(upper, minlength=len(least))[upper] > 1]] = True
    stiff = drag_n / (young_gpa * 1000)
    chains: list[_Chain | None] = [None] * len(least)
    out: list[Swaying] = []
    for region in range(len(least)):
        k = int(layers.region_layer[region])
        z = (k + 0.5) * h
        under = [chains[int(r)] for r in below[region] if chains[int(r)] is not None]
        if k == 0:
            chain = _Chain(0.0, 0.0, 0.0, 0.0, 0.0, None, 0.0)
        elif not under:
            continue  # begins on nothing: told as an island
        elif len(under) == 1:
            chain = under[0]
            if children[below[region][0]] > 1:
                chain = chain.parted((k) * h)
        else:
            chain = _joined(under, k * h)
        chains[region] = chain.grown(h / least[region], z)
        if children[region] == 0 or meets[region]:
            moves = stiff * chains[region].gives((k + 1) * h)
            place = layers.region_center_mm[region]
            out.append(Swaying(
                float(moves), (k + 1) * h, (float(place[0]), float(place[1]), (k + 1) * h),
                float(found.area_mm2[region]),
            ))  # fmt: skip
    return tuple(sorted(out, key=lambda one: -one.moves_mm))


@dataclass(frozen=True)
class _Chain:
    """Sums along a chain of regions: unit load and unit modulus give what it gives."""

    lump: float
    s0: float
    s1: float
    s2: float
    parted_z: float
    before: "_Chain | None"
    since: float  # Σ h / I since it parted

    def grown(self, soft: float, z: float) -> "_Chain":
        return _Chain(
            self.lump, self.s0 + soft, self.s1 + soft * z, self.s2 + soft * z * z, self.parted_z,
            self.before, self.since + soft,
        )  # fmt: skip

    def gives(self, height: float) -> float:
        return self.lump + height * height * self.s0 - 2 * height * self.s1 + self.s2

    def parted(self, z: float) -> "_Chain":
        return _Chain(self.lump, self.s0, self.s1, self.s2, z, self, 0.0)


def _joined(under: list[_Chain], z: float) -> _Chain:
    """What stands on several chains that meet at a height."""
    first = min(under, key=lambda one: (one.parted_z, one.gives(z)))
    length = max(z - first.parted_z, 1e-9)
    # Of each the even second moment that gives as much; apart, they do not turn at their ends.
    together = sum((z - one.parted_z) / one.since for one in under if one.since > 0)
    lump = length**3 / (12 * max(together, _NO_WIDTH_MM4))
    before = first.before
    if before is None:
        return _Chain(min(lump, first.gives(z)), 0.0, 0.0, 0.0, z, None, 0.0)
    added = min(before.gives(z) + lump, first.gives(z)) - before.gives(z)
    return _Chain(
        before.lump + added, before.s0, before.s1, before.s2, before.parted_z, before.before,
        before.since,
    )  # fmt: skip
