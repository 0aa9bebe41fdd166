"""Make a raw heap of triangles fit for measuring, and name every repair."""

from dataclasses import dataclass

import manifold3d
import numpy as np

from . import _kernels
from .model import Mesh
from .solids import as_solid, bodies_of, body_boxes

__all__ = ["Repair", "repaired"]

# Open edges whose ends lie closer than this part of the model's diagonal are one edge that
# rounding tore apart (STL keeps seven digits).
HAIRLINE = 1e-5


@dataclass(frozen=True)
class Repair:
    """One kind of repair: a key for programs, how often, and a sentence for people."""

    kind: str
    count: int
    text: str


def repaired(points: np.ndarray, facets: np.ndarray) -> tuple[Mesh, tuple[Repair, ...]]:
    """Merge equal vertices, drop degenerate facets, close hairlines, fix winding.

    Parameters
    ----------
    points : (n, 3) float
        Finite positions; may repeat.
    facets : (m, 3) int
        Indices into ``points``.

    Returns
    -------
    mesh : Mesh
    repairs : tuple of Repair
        In the order in which they were made; empty when there was nothing to do. Merging the
        repeated corners of a file that stores triangles one by one is no repair and only
        named when the file had shared vertices to begin with.
    """
    repairs: list[Repair] = []
    points = np.ascontiguousarray(points, np.float64) + 0.0  # no negative zeros
    facets = np.ascontiguousarray(facets, np.int32)
    loose = len(points) == 3 * len(facets)
    label, first = _kernels.merge_equal_points(points)
    merged = len(points) - len(first)
    if merged and not loose:
        repairs.append(Repair("merged_vertices", merged, f"Merged {merged:,} repeated vertices."))
    vertices, facets = points[first], label[facets].astype(np.int32)

    facets = _without_degenerate(facets, repairs)
    mesh = Mesh(vertices, facets)
    if not mesh.is_watertight and len(facets):
        facets = _wound_alike(facets, len(vertices), repairs)
        mesh = Mesh(vertices, facets)
    if not mesh.is_watertight and len(facets):
        mesh = _hairlines_closed(mesh, repairs)
    mesh = _flat_facets_dropped(mesh, repairs)
    mesh = _outside_out(mesh, repairs)
    return _without_unused(mesh), tuple(repairs)


def _without_degenerate(facets, repairs):
    a, b, c = facets.T
    bad = (a == b) | (b == c) | (c == a)
    # Each facet turned so that its lowest index comes first: equal rows, equal facets.
    first = np.argmin(facets, axis=1)
    rows = np.take_along_axis(facets, (first[:, None] + np.arange(3)) % 3, axis=1)
    label, kept = _kernels.merge_equal_points(rows.astype(np.float64))
    twice = kept[label] != np.arange(len(facets))
    twice &= ~bad
    if twice.any():
        count = int(twice.sum())
        repairs.append(Repair("dropped_duplicates", count, f"Dropped {count:,} repeated facets."))
    if bad.any():
        count = int(bad.sum())
        repairs.append(
            Repair("dropped_degenerate", count, f"Dropped {count:,} facets without area.")
        )
    return np.ascontiguousarray(facets[~(bad | twice)])


def _wound_alike(facets, n_vertices, repairs):
    flip = _kernels.facets_to_flip(facets, n_vertices)
    if not flip.any():
        return facets
    count = int(flip.sum())
    repairs.append(
        Repair("flipped_facets", count, f"Turned {count:,} facets round to match their neighbours.")
    )
    facets = facets.copy()
    facets[flip] = facets[flip][:, ::-1]
    return facets


def _hairlines_closed(mesh, repairs):
    from scipy.spatial import cKDTree  # takes a while to import, and few files need it

    edges = np.flatnonzero(mesh.twin < 0)
    ends = np.unique(
        np.concatenate(
            [mesh.facets[edges // 3, edges % 3], mesh.facets[edges // 3, (edges % 3 + 1) % 3]]
        )
    )
    diagonal = np.linalg.norm(mesh.size_mm)
    pairs = cKDTree(mesh.vertices[ends]).query_pairs(HAIRLINE * diagonal, output_type="ndarray")
    if not len(pairs):
        return mesh
    target = np.arange(len(mesh.vertices), dtype=np.int32)
    pairs = np.sort(ends[pairs], axis=1)
    for i, j in pairs[np.lexsort(pairs.T[::-1])]:
        target[j] = target[i]
    facets = target[mesh.facets]
    a, b, c = facets.T
    facets = np.ascontiguousarray(facets[(a != b) & (b != c) & (c != a)])
    closed = Mesh(mesh.vertices, facets)
    before, after = (int(np.count_nonzero(m.twin < 0)) for m in (mesh, closed))
    if after >= before:
        return mesh
    repairs.append(
        Repair(
            "closed_hairlines",
            before - after,
            f"Closed hairline gaps along {before - after:,} edges.",
        )
    )
    return closed


def _flat_facets_dropped(mesh, repairs):
    """Drop zero-area facets that hang loose; those that hold a closed surface stay."""
    a, b, c = (mesh.vertices[mesh.facets[:, i]] for i in range(3))
    flat = ~np.any(np.cross(b - a, c - a), axis=1)
    if not flat.any():
        return mesh
    loose = flat & np.all(mesh.twin.reshape(-1, 3) < 0, axis=1)
    if not loose.any():
        return mesh
    count = int(loose.sum())
    repairs.append(Repair("dropped_degenerate", count, f"Dropped {count:,} facets without area."))
    return Mesh(mesh.vertices, np.ascontiguousarray(mesh.facets[~loose]))


def _outside_out(mesh, repairs):
    """Turn bodies that are inside out; a cavity wholly inside another body is meant to be so."""
    if not len(mesh.facets):
        return mesh
    body = mesh.body_of_facet
    count = int(body.max()) + 1
    volumes = _kernels.signed_volumes(mesh.vertices, mesh.facets, body, count)
    inverted = np.flatnonzero(volumes < 0)
    if not len(inverted):
        return mesh
    # Where all of them together are, the whole file is inside out, cavities too.
    whole = volumes.sum() < 0
    wrong = np.arange(count) if whole else _not_cavities(mesh, volumes, inverted)
    if not len(wrong):
        return mesh
    facets = mesh.facets.copy()
    mask = np.isin(body, wrong)
    facets[mask] = facets[mask][:, ::-1]
    n = len(wrong)
    what = "the body" if count == 1 else f"{n} of {count} bodies"
    repairs.append(Repair("inverted_bodies", n, f"Turned {what} right side out."))
    return Mesh(mesh.vertices, facets)


def _not_cavities(mesh, volumes, inverted):
    """Of bodies turned inwards, those that no other body contains as a whole.

    One that only overlaps another is a body turned inside out: whether it is one must not hang
    on the place where its first facet happens to lie.
    """
    order, ends = bodies_of(mesh)
    low, high = body_boxes(mesh)
    left = list(inverted)
    for a in np.flatnonzero(volumes > 0):
        inner = [b for b in left if (low[a] <= low[b]).all() and (high[a] >= high[b]).all()]
        if inner:
            around = as_solid(_body(mesh, order[ends[a] : ends[a + 1]]))
            solids = {b: as_solid(_body(mesh, order[ends[b] : ends[b + 1]], -1)) for b in inner}
            inside = set(_contained(around, inner, solids, volumes))
            left = [b for b in left if b not in inside]
    return np.array(left, int)


def _body(mesh, facets, step=1) -> Mesh:
    return Mesh(mesh.vertices, np.ascontiguousarray(mesh.facets[facets][:, ::step]))


def _contained(around, inner, solids, volumes) -> list:
    """Which bodies lie wholly inside a solid, by the volume that they share, halving the list.

    Where a surface bounds no solid nothing tells, and a body turned inwards is left as it is.
    """
    known = [b for b in inner if solids[b] is not None]
    if around is None or len(known) < len(inner):
        doubtful = inner if around is None else [b for b in inner if solids[b] is None]
        rest = [] if around is None else _contained(around, known, solids, volumes)
        return [*doubtful, *rest]
    if not inner:
        return []
    together = manifold3d.Manifold.batch_boolean([solids[b] for b in inner], manifold3d.OpType.Add)
    if (around ^ together).volume() >= -volumes[inner].sum() * (1 - 1e-6):
        return inner
    if len(inner) == 1:
        return []
    half = len(inner) // 2
    return [
        *_contained(around, inner[:half], solids, volumes),
        *_contained(around, inner[half:], solids, volumes),
    ]


def _without_unused(mesh):
    used = np.zeros(len(mesh.vertices), bool)
    used[mesh.facets] = True
    if used.all():
        return mesh
    new_index = np.cumsum(used, dtype=np.int32) - 1
    clean = Mesh(mesh.vertices[used], np.ascontiguousarray(new_index[mesh.facets], dtype=np.int32))
    clean.__dict__.update(
        {k: v for k, v in mesh.__dict__.items() if k in ("twin", "body_of_facet")}
    )
    return clean
