"""How supports bend: sideways movement and buckling of upright members.

Formulas of any handbook of mechanics: a cantilever of length L moves by F L^3 / (3 E I) under a
force at its end, with I = pi d^4 / 64 for a round section; a column buckles at pi^2 E I / (K L)^2
(Euler 1757).
"""

import math
from dataclasses import dataclass

import numpy as np

from ..process import Process
from .graph import Fitted
from .shape import Rod

__all__ = [
    "BRACED_K", "FREE_K", "SAFE", "Bending", "bending_of", "bent_line", "buckling_n", "held_at_mm",
    "least_column_mm", "least_shaft_mm", "sideways_mm",
]  # fmt: skip

# A pillar's K, until something other than upright pillars holds the piece sideways.
FREE_K, HELD_K, BRACED_K = 2.0, 0.7, 1.0
# Something to hold is carried twice (from memory).
SAFE = 2.0


def second_moment_mm4(diameter_mm: float) -> float:
    """Second moment of area of a round section."""
    return math.pi * diameter_mm**4 / 64


def sideways_mm(force_n: float, length_mm: float, diameter_mm: float, young_gpa: float) -> float:
    """How far the end of a round cantilever moves under a force across it."""
    stiff = 3 * young_gpa * 1000 * second_moment_mm4(diameter_mm)
    return force_n * length_mm**3 / stiff


def buckling_n(length_mm: float, diameter_mm: float, young_gpa: float, k: float = FREE_K) -> float:
    """The load along a round column at which it buckles."""
    if length_mm <= 0:
        return math.inf
    bent = math.pi**2 * young_gpa * 1000 * second_moment_mm4(diameter_mm)
    return bent / (k * length_mm) ** 2


def least_shaft_mm(force_n: float, length_mm: float, most_mm: float, young_gpa: float) -> float:
    """The least diameter of a cantilever whose end moves no farther than that."""
    if length_mm <= 0 or force_n <= 0:
        return 0.0
    moment = force_n * length_mm**3 / (3 * young_gpa * 1000 * most_mm)
    return (64 * moment / math.pi) ** 0.25


def least_column_mm(load_n: float, length_mm: float, young_gpa: float, k: float = FREE_K) -> float:
    """The least diameter of a round column that does not buckle under a load."""
    return (64 * load_n * (k * length_mm) ** 2 / (math.pi**3 * young_gpa * 1000)) ** 0.25


@dataclass(frozen=True)
class Bending:
    """How a support gives way.

    Attributes
    ----------
    free_mm : float
        From the highest place where something holds it sideways, or its foot, to its contact.
    force_n : float
        Across its end.
    sideways_mm, most_mm : float
        How far its end moves, and how far it may.
    load_n, buckles_n : float
        Along it, and at which load it buckles.
    """

    free_mm: float
    force_n: float
    sideways_mm: float
    most_mm: float
    load_n: float
    buckles_n: float

    @property
    def bends(self) -> bool:
        """Whether it moves farther than it may."""
        return self.sideways_mm > self.most_mm

    @property
    def buckles(self) -> bool:
        """Whether it carries less than twice its load."""
        return self.buckles_n < SAFE * self.load_n


def _sections(fitted: Fitted, held_mm: float, count: int):
    """Each rod that stands free, with heights along it and the second moment there, mm⁴."""
    top = fitted.contact_mm[2]
    for rod in fitted.members:
        if not isinstance(rod, Rod):
            continue
        ends = sorted(((rod.a_mm[2], rod.r_a_mm), (rod.b_mm[2], rod.r_b_mm)))
        (low, _), (high, _) = ends
        z0, z1 = max(low, held_mm), min(high, top)
        if z1 > z0:
            steps = np.linspace(z0, z1, count)
            yield rod, steps, math.pi * (2 * np.interp(steps, *zip(*ends, strict=True))) ** 4 / 64


def bending_of(
    fitted: Fitted, process: Process, load_n: float = 0.0, held_mm: float = 0.0,
    is_held: bool = False,
) -> Bending:  # fmt: skip
    """How a support bends.

    The end's movement is that of a cantilever whose section changes: the sum over its rods of the
    unit load's work. The thinnest length of shaft decides about buckling.

    Parameters
    ----------
    fitted : Fitted
    process : Process
        Its ``drag_n``, ``young_gpa`` and ``line_mm`` count.
    load_n : float
        Along it.
    held_mm : float
        Height up to which braces or struts hold it sideways.
    is_held : bool
        Whether something other than upright pillars holds the piece sideways.
    """
    young = process["young_gpa"] * 1000
    force = process["drag_n"]
    top = fitted.contact_mm[2]
    moved, free, thin = 0.0, max(top - held_mm, 0.0), math.inf
    for rod, steps, inertia in _sections(fitted, held_mm, 33):
        moved += float(np.trapezoid((top - steps) ** 2 / inertia, steps)) * force / young
        if rod.r_a_mm == rod.r_b_mm and steps[-1] < top:
            thin = min(thin, 2 * rod.r_a_mm)
    thin = thin if math.isfinite(thin) else 2 * min(
        (min(r.r_a_mm, r.r_b_mm) for r in fitted.members if isinstance(r, Rod)), default=0.5
    )  # fmt: skip
    k = BRACED_K if held_mm > 0 else HELD_K if is_held else FREE_K
    return Bending(
        free, force, moved, process["line_mm"] / 2, load_n,
        buckling_n(free, thin, process["young_gpa"], k),
    )  # fmt: skip


def held_at_mm(fitted: Fitted, others: list[Fitted]) -> float:
    """The greatest height at which braces or struts hold a support sideways; 0 for none.

    A brace holds what it joins where it has others to lean on.
    """
    height = 0.0
    x, y = fitted.spine[-1][:2] if fitted.spine else (math.inf, math.inf)
    for other in others:
        if other.support.kind not in ("brace", "strut"):
            continue
        if fitted.support.key not in other.support.rests_on:
            continue
        for rod in other.members:
            for at in (rod.a_mm, rod.b_mm):
                if math.hypot(at[0] - x, at[1] - y) < 1e-6:
                    height = max(height, at[2])
    return height


def bent_line(
    fitted: Fitted, process: Process, held_mm: float = 0.0, points: int = 25
) -> tuple[np.ndarray, float]:
    """The middle line of a support as the drag bends it towards +x, exaggerated to be seen.

    Its end moves by about a twelfth of its height; by the unit load's work at each height.

    Parameters
    ----------
    fitted : Fitted
    process : Process
    held_mm : float
        See `bending_of`.
    points : int

    Returns
    -------
    line : (p, 3) float
        mm, from the place that is held up to its contact; empty where nothing bends.
    times : float
        How many times as much as it is.
    """
    top, force = fitted.contact_mm[2], process["drag_n"]
    heights = np.linspace(held_mm, top, points)
    moved = np.zeros(points)
    for _, s, inertia in _sections(fitted, held_mm, 65):
        for i, z in enumerate(heights):
            lever = np.clip(z - s, 0.0, None) * (top - s) / inertia
            moved[i] += float(np.trapezoid(lever, s)) * force / (process["young_gpa"] * 1000)
    if not moved[-1] > 0:
        return np.zeros((0, 3)), 1.0
    times = max((top - held_mm) / 12 / moved[-1], 1.0)
    times = float(f"{times:.1g}")
    at = np.array([fitted.at_height(z) for z in heights])
    at[:, 0] += times * moved
    return at, times
