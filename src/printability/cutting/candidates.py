"""Planes worth a look: flats, creases, narrow and wide sections, overhangs, an even spread."""

import math
from dataclasses import dataclass

import manifold3d
import numpy as np

from ..mesh import Mesh, facet_areas, facet_normals
from ..process import Process
from ..splitting import Plane, crease_loops

__all__ = ["Candidate", "candidate_planes", "planes_that_fit"]

# Levels at which sections are measured along a direction.
_LEVELS = 64
# Flats that count, as a part of the surface, and how many of them.
_LEAST_FLAT, _MOST_FLATS = 0.01, 16
_MOST_LOOPS = 8
# Candidates nearer to each other than this part of the extent, and turned less than this, are one.
_SAME_PART, _SAME_DEG = 0.015, 4.0
_MOST = 48
# Closer to the end of the part than this part of its extent nothing is cut off.
_END = 0.03


@dataclass(frozen=True, eq=False)
class Candidate:
    """A plane, and why it is worth a look."""

    plane: Plane
    why: str


def candidate_planes(mesh: Mesh, solid: manifold3d.Manifold, up: np.ndarray) -> list[Candidate]:
    """Planes worth a look, the most promising kinds first.

    Parameters
    ----------
    mesh : Mesh
        Of the part, mm.
    solid : manifold3d.Manifold
        The same, perhaps simplified.
    up : (3,) float
        The direction of the part that points up now.
    """
    ways = _directions(mesh, up)
    found = _levels_of_undersides(mesh, up)
    for way in ways:
        found += _by_sections(solid, way)
    found += _along_flats(mesh)
    found += [Candidate(one.plane, "along a crease") for one in crease_loops(mesh)[:_MOST_LOOPS]]
    for way in ways:
        low, high = _reach(mesh, way)
        found += [
            Candidate(Plane.through(way, way * (low + part * (high - low))), why)
            for part, why in ((0.5, "halfway"), (1 / 3, "at a third"), (2 / 3, "at two thirds"))
        ]
    return _different(mesh, found)[:_MOST]


def _reach(mesh: Mesh, way: np.ndarray) -> tuple[float, float]:
    along = mesh.vertices @ way
    return float(along.min()), float(along.max())


def _directions(mesh: Mesh, up: np.ndarray) -> list[np.ndarray]:
    """The part's own axes, up, and the axes along which it is longest and shortest."""
    ways = [np.asarray(up, float), *np.eye(3)]
    a, b, c = (mesh.vertices[mesh.facets[:, i]] for i in range(3))
    area, middle = facet_areas(mesh), (a + b + c) / 3
    centre = (middle * area[:, None]).sum(axis=0) / max(area.sum(), 1e-12)
    spread = ((middle - centre) * area[:, None]).T @ (middle - centre)
    ways += list(np.linalg.eigh(spread)[1].T)
    kept: list[np.ndarray] = []
    for way in ways:
        if all(abs(float(way @ other)) < math.cos(math.radians(_SAME_DEG)) for other in kept):
            kept.append(way)
    return kept


def _along_flats(mesh: Mesh) -> list[Candidate]:
    """Planes along flats of the surface, the largest first."""
    normals, areas = facet_normals(mesh), facet_areas(mesh)
    # A plane and its back are one: the first of its numbers that is not 0 is positive.
    sign = np.sign(normals[:, 2] + 1e-6 * normals[:, 1] + 1e-9 * normals[:, 0])
    turned = normals * np.where(sign == 0, 1.0, sign)[:, None]
    offset = np.einsum("ij,ij->i", turned, mesh.vertices[mesh.facets[:, 0]])
    extent = max(float(mesh.size_mm.max()), 1e-9)
    keys = np.column_stack([np.round(turned * 200), np.round(offset / extent * 2000)])
    _, first, group = np.unique(keys, axis=0, return_index=True, return_inverse=True)
    total = np.bincount(group.ravel(), areas)
    order = np.argsort(-total, kind="stable")[:_MOST_FLATS]
    return [
        Candidate(Plane.through(turned[first[i]], turned[first[i]] * offset[first[i]]),
                  "along a flat")
        for i in order if total[i] >= _LEAST_FLAT * areas.sum()
    ]  # fmt: skip


def _by_sections(solid: manifold3d.Manifold, way: np.ndarray) -> list[Candidate]:
    """Where sections along a direction are narrowest and widest."""
    frame = Plane.through(way, (0, 0, 0))
    upright = solid.transform(np.column_stack([frame.axes, np.zeros(3)]))
    box = upright.bounding_box()
    low, high = box[2], box[5]
    from scipy.signal import find_peaks  # takes a second to load, and few need it

    levels = low + (high - low) * (np.arange(_LEVELS) + 0.5) / _LEVELS
    area = np.array([upright.slice(float(z)).area() for z in levels])
    found = []
    around = np.concatenate([[0.0], area, [0.0]])
    least = 0.05 * float(area.max(initial=0.0))
    for values, why in ((-around[1:-1], "where it is narrow"), (around, "where it is widest")):
        at, _ = find_peaks(values, prominence=max(least, 1e-9), plateau_size=1)
        for i in at - (len(values) - len(area)) // 2:
            # Of a run of equal ones the middle; two beside each other are one between levels.
            same = np.abs(area - area[i]) <= 1e-6 * max(area[i], 1e-9)
            first = last = int(i)
            while first > 0 and same[first - 1]:
                first -= 1
            while last < _LEVELS - 1 and same[last + 1]:
                last += 1
            run = slice(first, last + 1)
            found.append(Candidate(Plane.through(way, way * levels[run].mean()), why))
    return found


def _levels_of_undersides(mesh: Mesh, up: np.ndarray) -> list[Candidate]:
    """Levels at which undersides begin, as it stands now: there they would rest on the plate."""
    down = -(facet_normals(mesh) @ up)
    areas = facet_areas(mesh)
    height = (mesh.vertices @ up)[mesh.facets].min(axis=1)
    steep = down > math.cos(math.radians(50.0))
    if not steep.any():
        return []
    low, high = _reach(mesh, up)
    bins = np.linspace(low, high, 41)
    weight, _ = np.histogram(height[steep], bins, weights=areas[steep])
    found = []
    for i in np.argsort(-weight, kind="stable")[:4]:
        if weight[i] <= 0:
            continue
        inside = steep & (height >= bins[i]) & (height <= bins[i + 1])
        level = float(height[inside].min())
        found.append(Candidate(Plane.through(up, up * level), "where an underside begins"))
    return found


def _different(mesh: Mesh, found: list[Candidate]) -> list[Candidate]:
    """Those that cut something off, each once."""
    extent = max(float(mesh.size_mm.max()), 1e-9)
    kept: list[Candidate] = []
    for one in found:
        n, d = one.plane.normal, one.plane.offset_mm
        low, high = _reach(mesh, n)
        if not low + _END * (high - low) < d < high - _END * (high - low):
            continue
        for other in kept:
            cos = float(n @ other.plane.normal)
            middle = n * d
            apart = abs(float(other.plane.normal @ middle) - other.plane.offset_mm)
            if abs(cos) > math.cos(math.radians(_SAME_DEG)) and apart < _SAME_PART * extent:
                break
        else:
            kept.append(one)
    return kept


def planes_that_fit(mesh: Mesh, process: Process, lift_mm: float = 0.0) -> list[Plane]:
    """The fewest even cuts across the part's axes after which every part fits the machine."""
    room = np.array(process.build_volume_mm, float) - (0, 0, lift_mm)
    size = mesh.size_mm
    low = mesh.low_mm
    best: list[int] | None = None
    # Which of its axes stands along which of the machine's.
    for order in ((0, 1, 2), (0, 2, 1), (1, 0, 2), (1, 2, 0), (2, 0, 1), (2, 1, 0)):
        count = [math.ceil(size[axis] / room[i] * (1 - 1e-9)) for i, axis in enumerate(order)]
        by_axis = [0, 0, 0]
        for i, axis in enumerate(order):
            by_axis[axis] = max(count[i], 1)
        if best is None or math.prod(by_axis) < math.prod(best):
            best = by_axis
    return [
        Plane.through(np.eye(3)[axis], np.eye(3)[axis] * (low[axis] + size[axis] * i / n))
        for axis, n in enumerate(best) for i in range(1, n)
    ]  # fmt: skip
