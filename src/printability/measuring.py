"""Measures taken on a placed model at places that the maker pointed out."""

import math
from dataclasses import dataclass

import numpy as np

from .mesh import Mesh, crease_edges, facet_normals
from .mesh._kernels import ray_hits
from .parts import Anchor, Part, SurfacePoint, resolve

__all__ = ["KINDS", "Measure", "measure_at", "take_measure"]

# What can be measured, and how many places each takes.
KINDS = {"distance": 2, "span": 1, "slope": 1, "thickness": 1, "diameter": 1}


@dataclass(frozen=True)
class Measure:
    """One measure: ``value`` in ``unit`` (None where there is nothing to measure).

    ``line_mm`` are the points to draw it by, (k, 3).
    """

    kind: str
    value: float | None
    unit: str
    text: str
    line_mm: tuple[tuple[float, float, float], ...]


def measure_at(part: Part, mesh: Mesh, kind: str, anchors: tuple[Anchor, ...]) -> Measure:
    """Measure a part as it stands, ``mesh``, at places of the import.

    Where a place has no surface any more, there is nothing to measure, and the text says so.
    """
    points = [resolve(anchor, part) for anchor in anchors]
    if any(point is None for point in points):
        there = [point.on(mesh) for point in points if point is not None]
        unit = "°" if kind == "slope" else "mm"
        return _measure(kind, None, unit, "lost: the surface is not there any more", there)
    return take_measure(mesh, kind, tuple(points))


def take_measure(mesh: Mesh, kind: str, anchors: tuple[SurfacePoint, ...]) -> Measure:
    """Measure a placed model.

    - ``distance``: straight between two places.
    - ``span``: from a place straight out, along the face's normal, to what is opposite.
    - ``slope``: of the face, to the plate.
    - ``thickness``: from a place straight in, against the normal, to where it comes out.
    - ``diameter``: of the circle that fits the crease nearest to a place.
    """
    points = [anchor.on(mesh) for anchor in anchors]
    if kind == "distance":
        value = float(np.linalg.norm(points[1] - points[0]))
        return _measure(kind, value, "mm", f"{value:.2f} mm apart", points)
    if kind == "diameter":
        return _diameter(mesh, points[0])
    one = Mesh(mesh.vertices, mesh.facets[anchors[0].facet : anchors[0].facet + 1])
    normal = facet_normals(one)[0]
    if kind == "slope":
        slope = math.degrees(math.acos(min(abs(float(normal[2])), 1.0)))
        way = "down" if normal[2] < -1e-9 else "up" if normal[2] > 1e-9 else "sideways"
        line = _protractor(mesh, points[0], normal, slope)
        return _measure(kind, slope, "°", f"slopes {slope:.1f}°, faces {way}", line)
    way = normal if kind == "span" else -normal
    hits = ray_hits(mesh.vertices, mesh.facets, points[0], way, anchors[0].facet)
    hits = hits[hits > 1e-6]
    if not len(hits):
        what = "nothing is opposite" if kind == "span" else "the surface does not close behind it"
        return _measure(kind, None, "mm", what, points)
    value = float(hits.min())
    text = f"spans {value:.2f} mm" if kind == "span" else f"{value:.2f} mm thick"
    return _measure(kind, value, "mm", text, [points[0], points[0] + value * way])


def _protractor(mesh: Mesh, point, normal, slope_deg: float) -> list[np.ndarray]:
    """The angle drawn in space: along the face's steepest line, to the level, and the arc."""
    length = 0.12 * float(np.linalg.norm(mesh.size_mm))
    flat = np.array([normal[0], normal[1], 0.0])
    size = np.linalg.norm(flat)
    level = flat / size if size > 1e-9 else np.array([1.0, 0.0, 0.0])
    # A face that looks up falls towards where its normal leans, one that looks down rises.
    rise = np.array([0.0, 0.0, -1.0 if normal[2] > 0 else 1.0])
    angles = np.radians(np.linspace(slope_deg, 0, 13))
    arc = [point + 0.6 * length * (np.cos(a) * level + np.sin(a) * rise) for a in angles]
    steep = np.radians(slope_deg)
    along = point + length * (np.cos(steep) * level + np.sin(steep) * rise)
    return [along, point, point + length * level, point + 0.6 * length * level, *arc[::-1]]


def _diameter(mesh: Mesh, point: np.ndarray) -> Measure:
    """Circle through the crease that passes nearest to a place."""
    edges = crease_edges(mesh)
    if not len(edges):
        return _measure("diameter", None, "mm", "there is no edge near", [point])
    a, b = mesh.vertices[edges[:, 0]], mesh.vertices[edges[:, 1]]
    along = np.clip(
        np.einsum("ij,ij->i", point - a, b - a)
        / np.maximum(np.einsum("ij,ij->i", b - a, b - a), 1e-300),
        0,
        1,
    )
    nearest = int(np.argmin(np.linalg.norm(a + along[:, None] * (b - a) - point, axis=1)))
    ring = mesh.vertices[_smooth_chain(mesh, edges, nearest)]
    if len(ring) < 5:
        return _measure("diameter", None, "mm", "the edge here is not round", [point])
    middle = ring.mean(axis=0)
    _, _, axes = np.linalg.svd(ring - middle)
    u, v = (ring - middle) @ axes[0], (ring - middle) @ axes[1]
    # Least squares of u² + v² = 2 a u + 2 b v + c (Kåsa 1976, from memory).
    matrix = np.stack([2 * u, 2 * v, np.ones_like(u)], axis=1)
    (cu, cv, c), *_ = np.linalg.lstsq(matrix, u**2 + v**2, rcond=None)
    radius = math.sqrt(max(c + cu**2 + cv**2, 0.0))
    off = float(np.abs(np.hypot(u - cu, v - cv) - radius).max())
    flat = float(np.abs((ring - middle) @ axes[2]).max())
    if radius <= 0 or off > 0.05 * radius or flat > 0.05 * radius:
        return _measure("diameter", None, "mm", "the edge here is not round", [point])
    center = middle + cu * axes[0] + cv * axes[1]
    turn = np.linspace(0, 2 * np.pi, 65)[:, None]
    circle = center + radius * (np.cos(turn) * axes[0] + np.sin(turn) * axes[1])
    return _measure("diameter", 2 * radius, "mm", f"⌀ {2 * radius:.2f} mm", list(circle))


def _smooth_chain(mesh: Mesh, edges: np.ndarray, start: int) -> np.ndarray:
    """Vertices of the crease through an edge, followed while it bends by less than 45°."""
    at: dict[int, list[int]] = {}
    for e, (a, b) in enumerate(edges.tolist()):
        at.setdefault(a, []).append(e)
        at.setdefault(b, []).append(e)
    found, seen = [int(edges[start, 0]), int(edges[start, 1])], {start}
    for forwards in (True, False):
        before, here = (found[-2], found[-1]) if forwards else (found[1], found[0])
        while True:
            way = mesh.vertices[here] - mesh.vertices[before]
            best, best_cos = None, math.cos(math.radians(45))
            for e in at[here]:
                if e in seen:
                    continue
                other = int(edges[e].sum() - here)
                on = mesh.vertices[other] - mesh.vertices[here]
                cos = float(way @ on) / max(float(np.linalg.norm(way) * np.linalg.norm(on)), 1e-300)
                if cos > best_cos:
                    best, best_cos, target = e, cos, other
            if best is None:
                break
            seen.add(best)
            before, here = here, target
            found.append(here) if forwards else found.insert(0, here)
            if here == found[0] and forwards and len(found) > 2:
                return np.array(found[:-1])
    return np.array(found)


def _measure(kind, value, unit, text, points) -> Measure:
    return Measure(kind, value, unit, text, tuple(tuple(float(c) for c in p) for p in points))
