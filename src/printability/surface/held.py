"""What of an overhang is held by contacts under it, by which, and how much is not.

A point of a patch is held when a contact is near enough along the patch, measured level: flat
parts within one distance, sloping ones further, growing evenly with the slope. What lies within
the ledge limit of where the patch rests on what is below it needs no contact.
"""

import math
from dataclasses import dataclass

import numpy as np
from numba import njit
from scipy.sparse import coo_matrix
from scipy.sparse.csgraph import dijkstra

from ..layers._grid import build_grid, nearest, ray
from ..mesh import Mesh, facet_areas
from ..process import Process

__all__ = ["Held", "HeldPieces", "held_by_contacts", "held_pieces"]

# Pieces of a patch that it is taken apart into at most, and their size for a flat one.
_MOST_PIECES = 60_000
_PIECES_ACROSS = 10.0
# Ways along edges of pieces are longer than straight ones by at most this (worked out for a net
# of right angles, diagonals one way).
_WAY = 1.5
# Contacts whose ways are looked for at once.
_AT_ONCE = 32


@dataclass(frozen=True)
class Held:
    """How much of a patch is held.

    Attributes
    ----------
    area_mm2, unheld_mm2 : float
        Of the patch on its surface, and of what nothing holds; estimates by small pieces.
    by_contact_mm2 : tuple of float
        What each contact holds; a piece counts for the contact nearest along the patch.
    """

    area_mm2: float
    unheld_mm2: float
    by_contact_mm2: tuple[float, ...]


def held_by_contacts(
    mesh: Mesh,
    facets: np.ndarray,
    slopes_deg: np.ndarray,
    contacts_mm: np.ndarray,
    contact_facets: np.ndarray,
    process: Process,
    threshold_deg: float,
) -> Held:
    """What contacts hold of a patch.

    Parameters
    ----------
    mesh : Mesh
    facets : (k,) int
        The patch.
    slopes_deg : (m,) float
        Of all facets.
    contacts_mm : (c, 3) float
        Contacts that stand.
    contact_facets : (c,) int
        The facet that each sits under; those under no facet of the patch do not count.
    process : Process
    threshold_deg : float
    """
    total = float(facet_areas(mesh)[facets].sum())
    by_contact = np.zeros(len(contacts_mm))
    if not np.isin(contact_facets, facets).any():
        return Held(total, total, tuple(by_contact))
    found = held_pieces(
        mesh, facets, slopes_deg, contacts_mm, contact_facets, process, threshold_deg
    )
    held = found.area_mm2 * _part_below(found.over_mm)
    by = found.contact
    np.add.at(by_contact, by[by >= 0], held[by >= 0])
    return Held(total, max(float(total - held.sum()), 0.0), tuple(float(v) for v in by_contact))


@dataclass(frozen=True, eq=False)
class HeldPieces:
    """A patch in small pieces, and how far each is from being held.

    Attributes
    ----------
    corners_mm : (p, 3, 3) float
    facet : (p,) int
        Of the mesh.
    reach_mm : (p,) float
        How far a contact holds it.
    over_mm : (p, 3) float
        At each corner, how much farther it is than what holds; below 0 where it is held.
    contact : (p,) int
        The contact that holds it, -1 for none.
    """

    corners_mm: np.ndarray
    facet: np.ndarray
    reach_mm: np.ndarray
    over_mm: np.ndarray
    contact: np.ndarray

    @property
    def area_mm2(self) -> np.ndarray:
        """(p,) float: area of each."""
        a, b, c = self.corners_mm.transpose(1, 0, 2)
        return 0.5 * np.linalg.norm(np.cross(b - a, c - a), axis=1)


def held_pieces(
    mesh: Mesh,
    facets: np.ndarray,
    slopes_deg: np.ndarray,
    contacts_mm: np.ndarray,
    contact_facets: np.ndarray,
    process: Process,
    threshold_deg: float,
    most: int = _MOST_PIECES,
) -> HeldPieces:
    """Where a patch is held by contacts and where it is not; see `held_by_contacts`.

    ``most`` is the number of pieces that it is taken apart into, about.
    """
    total = float(facet_areas(mesh)[facets].sum())
    under = np.isin(contact_facets, facets)
    reach = _reaches(slopes_deg[facets], process, threshold_deg)
    size = float(reach.min()) / _PIECES_ACROSS
    size = max(size, math.sqrt(total / most))
    corners, of = _pieces(mesh, facets, size)
    scale = max(float(np.ptp(corners.reshape(-1, 3), axis=0).max()), 1e-9)
    # Places are told apart to a millionth of the patch.
    keys = np.round((corners.reshape(-1, 3) - corners.reshape(-1, 3).min(axis=0)) / scale * 1e6)
    _, first, vertex = np.unique(keys, axis=0, return_index=True, return_inverse=True)
    places = corners.reshape(-1, 3)[first]
    vertex = vertex.reshape(-1, 3)
    n = len(places)
    way, owner = np.full(n, np.inf), np.full(n, -1)
    if under.any():
        a, b = vertex[:, [0, 1, 2]].ravel(), vertex[:, [1, 2, 0]].ravel()
        level = np.hypot(*(places[a] - places[b])[:, :2].T)
        graph = coo_matrix((np.maximum(level, 1e-9), (a, b)), (n, n)).tocsr()
        graph = graph.maximum(graph.T)
        way, owner = _ways(
            places, graph, contacts_mm, np.flatnonzero(under),
            _start_of(contacts_mm[under], contact_facets[under], facets, corners, of, vertex),
            _border(mesh, facets), float(reach.max()), size,
        )  # fmt: skip
    ledge = process["ledge_mm"]
    # Beyond a few pieces more than the limit it does not matter how far.
    rim = _hinge_distance(mesh, facets, places, ledge + 4 * size)
    # Below 0 is held; the largest such depth of contact or hinge counts.
    over = np.minimum(way[vertex] - reach[of][:, None], (rim - ledge)[vertex])
    by = np.where(way[vertex].min(axis=1) <= reach[of], owner[vertex].max(axis=1), -1)
    return HeldPieces(corners, facets[of], reach[of], over, by)


def _reaches(slopes_deg: np.ndarray, process: Process, threshold_deg: float) -> np.ndarray:
    """How far a contact holds facets of some slopes."""
    flat = math.degrees(math.atan(process.layer_height_mm / process["ledge_mm"]))
    near, far = process["hold_flat_mm"], process["hold_steep_mm"]
    part = (slopes_deg - flat) / max(threshold_deg - flat, 1e-9)
    return near + (far - near) * np.clip(part, 0.0, 1.0)


def _pieces(mesh: Mesh, facets: np.ndarray, size: float) -> tuple[np.ndarray, np.ndarray]:
    """Facets halved edge by edge until they are small, (p, 3, 3), and the facet of each."""
    corners = mesh.vertices[mesh.facets[facets]]
    of = np.arange(len(facets))
    done, done_of = [], []
    for _ in range(24):
        side = np.hypot(*(corners - np.roll(corners, -1, axis=1))[:, :, :2].transpose(2, 0, 1))
        large = side.max(axis=1) > size
        done.append(corners[~large])
        done_of.append(of[~large])
        if not large.any():
            break
        a, b, c = corners[large].transpose(1, 0, 2)
        ab, bc, ca = (a + b) / 2, (b + c) / 2, (c + a) / 2
        corners = np.concatenate(
            [np.stack(t, axis=1) for t in ((a, ab, ca), (ab, b, bc), (ca, bc, c), (ab, bc, ca))]
        )
        of = np.tile(of[large], 4)
    return np.concatenate(done), np.concatenate(done_of)


def _border(mesh: Mesh, facets: np.ndarray) -> np.ndarray:
    """Edges (s, 4) around a patch, seen from above."""
    inside = np.zeros(len(mesh.facets), bool)
    inside[facets] = True
    half = (3 * facets[:, None] + np.arange(3)).ravel()
    twin = mesh.twin[half]
    half = half[(twin < 0) | ~inside[np.maximum(twin, 0) // 3]]
    a, b = mesh.facets[half // 3, half % 3], mesh.facets[half // 3, (half % 3 + 1) % 3]
    return np.ascontiguousarray(np.hstack([mesh.vertices[a, :2], mesh.vertices[b, :2]]))


def _ways(places, graph, contacts, which, starts, border, most, size):
    """Level distance of places from the nearest contact along the patch, and which that is.

    Straight where nothing of the patch's border is between, seen from above, and the way along
    the pieces' edges is not much longer; else that way, which is never too short.
    """
    best, owner = np.full(len(places), np.inf), np.full(len(places), -1)
    grid_border = np.ascontiguousarray(border)
    for at in range(0, len(which), _AT_ONCE):
        block = which[at : at + _AT_ONCE]
        along = dijkstra(
            graph, directed=False, indices=starts[at : at + _AT_ONCE],
            limit=_WAY * (most + 3 * size) + 4 * size,
        )  # fmt: skip
        for row, c in enumerate(block):
            near = np.flatnonzero(np.isfinite(along[row]))
            straight = np.hypot(*(places[near] - contacts[c])[:, :2].T)
            within = straight <= most + 3 * size  # a little beyond, so that rims are drawn evenly
            near, straight = near[within], straight[within]
            clear = _in_sight(grid_border, contacts[c, :2].copy(), places[near, :2].copy())
            clear &= along[row, near] <= _WAY * straight + 4 * size
            way = np.where(clear, straight, along[row, near])
            better = way < best[near]
            best[near[better]] = way[better]
            owner[near[better]] = c
    return best, owner


@njit(cache=True, nogil=True)
def _in_sight(border, origin, places):
    """Which places are seen from one without a border between; ends do not count."""
    grid = build_grid(border)
    out = np.zeros(places.shape[0], np.bool_)
    for p in range(places.shape[0]):
        dx, dy = places[p, 0] - origin[0], places[p, 1] - origin[1]
        length = np.hypot(dx, dy)
        if length < 1e-9:
            out[p] = True
            continue
        hit = ray(grid, border, origin[0], origin[1], dx / length, dy / length)
        out[p] = hit >= length * (1 - 1e-6) - 1e-6
    return out


def _start_of(contacts, contact_facets, facets, corners, of, vertex) -> np.ndarray:
    """The corner of a piece nearest to each contact, within its own facet."""
    starts = np.empty(len(contacts), np.int64)
    order = np.argsort(of, kind="stable")
    ends = np.searchsorted(of[order], np.arange(len(facets) + 1))
    position = {int(f): i for i, f in enumerate(facets)}
    for c, (place, facet) in enumerate(zip(contacts, contact_facets, strict=True)):
        i = position[int(facet)]
        own = order[ends[i] : ends[i + 1]]
        apart = np.linalg.norm(corners[own] - place, axis=2)
        row, col = np.unravel_index(int(np.argmin(apart)), apart.shape)
        starts[c] = vertex[own[row], col]
    return starts


def _hinge_distance(mesh: Mesh, facets: np.ndarray, places: np.ndarray, most: float) -> np.ndarray:
    """Level distance of places from the edges where a patch rests on what is below it.

    Such an edge has a facet beside the patch that lies below it, or level with it on the plate.
    """
    inside = np.zeros(len(mesh.facets), bool)
    inside[facets] = True
    half = (3 * facets[:, None] + np.arange(3)).ravel()
    twin = mesh.twin[half]
    border = (twin >= 0) & ~inside[np.maximum(twin, 0) // 3]
    half, twin = half[border], twin[border]
    a, b = mesh.facets[half // 3, half % 3], mesh.facets[half // 3, (half % 3 + 1) % 3]
    third = mesh.facets[twin // 3, (twin % 3 + 2) % 3]
    z = mesh.vertices[:, 2]
    edge_z = (z[a] + z[b]) / 2
    rests = (z[third] < edge_z - 1e-9) | (np.abs(edge_z) < 1e-6)
    segs = np.hstack([mesh.vertices[a[rests], :2], mesh.vertices[b[rests], :2]])
    if not len(segs):
        return np.full(len(places), np.inf)
    return _distances(np.ascontiguousarray(places[:, :2]), np.ascontiguousarray(segs), most)


@njit(cache=True, nogil=True)
def _distances(points, segs, most):
    """Distance of points from the nearest segment, ``most`` where none is nearer."""
    grid = build_grid(segs)
    out = np.empty(points.shape[0])
    for p in range(points.shape[0]):
        out[p], _ = nearest(grid, segs, points[p, 0], points[p, 1], most)
    return out


def _part_below(values: np.ndarray) -> np.ndarray:
    """Part of each triangle where a value given at its corners is below 0, taken as linear."""
    values = np.where(np.isfinite(values), values, 1e9)
    low, middle, high = np.sort(values, axis=1).T
    with np.errstate(divide="ignore", invalid="ignore"):
        one = low**2 / ((middle - low) * (high - low))
        two = 1 - high**2 / ((high - low) * (high - middle))
    return np.select([high <= 0, low >= 0, middle >= 0], [1.0, 0.0, np.nan_to_num(one)],
                     np.nan_to_num(two))  # fmt: skip
