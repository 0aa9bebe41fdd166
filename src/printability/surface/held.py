"""What of an overhang is held by contacts under it, by which, and how much is not.

A point of a patch is held when a contact is near enough along the patch, measured level: flat
parts within one distance, sloping ones further, growing evenly with the slope. What lies within
the ledge limit of where the patch rests on what is below it needs no contact.
"""

import hashlib
import math
from dataclasses import dataclass
from threading import Lock
from weakref import WeakKeyDictionary

import numpy as np

from ..layers import union_of_loops
from ..mesh import Mesh, facet_areas
from ..mesh.linking import linked
from ..process import Process
from ._held_kernels import distances, in_sight, over_of_pieces, take_nearer
from .hinges import edge_ends, hinges

__all__ = ["Held", "HeldPieces", "PatchUnheld", "held_in_sum", "held_pieces"]

# Pieces of a patch that it is taken apart into at most, and their size for a flat one.
_MOST_PIECES = 40_000
_PIECES_ACROSS = 8.0
# Ways along edges of pieces are longer than straight ones by at most this (worked out for a net
# of right angles, diagonals one way).
_WAY = 1.5
# A patch of which no more than this part lies above itself does not count as such.
_ABOVE_ITSELF = 1e-6
# Contacts whose ways are looked for at once.
_AT_ONCE = 32
# Contacts whose ways are remembered for a patch, and pieces of patches for a mesh.
_MOST_KNOWN = 4_000
_MOST_KEPT = 1_000_000


@dataclass(frozen=True)
class Held:
    """How much of a patch is held.

    Attributes
    ----------
    area_mm2, unheld_mm2 : float
        Of the patch on its surface, and of what nothing holds; estimates by small pieces.
    by_contact_mm2 : tuple of float
        What each of `Inspection.holds` holds; a piece counts for the nearest along the patch.
    over_mm : float
        How much farther than what holds it the farthest piece lies that is not held.
    """

    area_mm2: float
    unheld_mm2: float
    by_contact_mm2: tuple[float, ...]
    over_mm: float = math.inf


def held_in_sum(found: "HeldPieces", total_mm2: float, under: np.ndarray, contacts: int) -> Held:
    """What pieces of a patch come to, for so many contacts of which some are under it (c,)."""
    held, by = found.area_mm2 * found.part_held, found.contact
    by_contact = np.bincount(under[by[by >= 0]], held[by >= 0], contacts)[:contacts]
    left = max(float(total_mm2 - held.sum()), 0.0)
    return Held(total_mm2, left, tuple(float(v) for v in by_contact), found.farthest_mm())


@dataclass(frozen=True, eq=False)
class HeldPieces:
    """A patch in small pieces, and how far each is from being held.

    Attributes
    ----------
    corners_mm : (p, 3, 3) float
    middle_mm : (p, 2) float
        The middle of each, seen from above.
    heights_mm : (p, 2) float
        The least and the greatest height of each.
    area_mm2 : (p,) float
    facet : (p,) int
        Of the mesh.
    reach_mm : (p,) float
        How far a contact holds it.
    over_mm : (p, 3) float
        At each corner, how much farther it is than what holds; below 0 where it is held.
    contact : (p,) int
        The contact that holds it, -1 for none.
    is_open : (p,) bool
        Whether all of it is unheld.
    part_held : (p,) float
    """

    corners_mm: np.ndarray
    middle_mm: np.ndarray
    heights_mm: np.ndarray
    area_mm2: np.ndarray
    facet: np.ndarray
    reach_mm: np.ndarray
    over_mm: np.ndarray
    contact: np.ndarray
    is_open: np.ndarray
    part_held: np.ndarray

    def farthest_mm(self) -> float:
        """How much farther than what holds it the farthest open piece lies, 0 for none."""
        return float(self.over_mm[self.is_open].min(axis=1).max(initial=0.0))


def held_pieces(
    mesh: Mesh,
    facets: np.ndarray,
    slopes_deg: np.ndarray,
    contacts_mm: np.ndarray,
    contact_facets: np.ndarray,
    process: Process,
    threshold_deg: float,
    most: int = _MOST_PIECES,
    across: float = _PIECES_ACROSS,
) -> HeldPieces:
    """Where a patch is held by contacts and where it is not.

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
    most : int
        About how many pieces it is taken apart into.
    across : float
        How many there are in the distance that a contact holds.
    """
    field = _field_of(mesh, facets, slopes_deg, process, threshold_deg, most, across)
    under = np.flatnonzero(np.isin(contact_facets, facets))
    return _held_by(field, contacts_mm, contact_facets, under)


class PatchUnheld:
    """What contacts leave of one patch unheld, asked again and again for some more or less.

    Parameters
    ----------
    mesh : Mesh
    facets : (k,) int
        The patch.
    slopes_deg, areas_mm2 : (m,) float
        Of all facets.
    process : Process
    threshold_deg : float
    """

    def __init__(self, mesh, facets, slopes_deg, areas_mm2, process, threshold_deg):
        self._area_mm2 = float(areas_mm2[facets].sum())
        self._field = _field_of(
            mesh, facets, slopes_deg, process, threshold_deg, _MOST_PIECES, _PIECES_ACROSS
        )

    def unheld_mm2(self, contacts_mm: np.ndarray, contact_facets: np.ndarray) -> float:
        """What contacts (c, 3) under facets (c,) of the patch leave of it."""
        every = np.arange(len(contacts_mm))
        found = _held_by(self._field, contacts_mm, contact_facets, every)
        return max(self._area_mm2 - float((found.area_mm2 * found.part_held).sum()), 0.0)


def _held_by(field: "_Field", contacts_mm, contact_facets, under) -> HeldPieces:
    n = len(field.places)
    way, owner = np.full(n, np.inf), np.full(n, -1)
    for c, (near, along) in zip(under, field.ways(contacts_mm, contact_facets, under), strict=True):
        take_nearer(near, along, c, way, owner)
    return HeldPieces(
        field.corners, field.middle_mm, field.heights_mm, field.area_mm2, field.facet, field.reach,
        *over_of_pieces(field.vertex, field.reach, way, owner, field.rim_over),
    )  # fmt: skip


class _Field:
    """A patch in small pieces, with what contacts there have been hold of it."""

    def __init__(self, mesh, facets, reach, ledge, before_mm, most, across):
        self.before_mm = before_mm
        total = float(facet_areas(mesh)[facets].sum())
        size = float(reach.min()) / across
        # Halving edges makes about four triangles of a square of that size.
        self.size = size = max(size, 2.0 * math.sqrt(total / most))
        self.facets = facets
        self.corners, self.of = pieces_of(mesh, facets, size)
        flat = self.corners.reshape(-1, 3)
        low = flat.min(axis=0)
        scale = max(float(np.ptp(flat, axis=0).max()), 1e-9)
        # Places are told apart to a millionth of the patch.
        x, y, z = np.round((flat - low) / scale * 1e6).astype(np.int64).T
        _, first, vertex = np.unique(
            (x << 42) | (y << 21) | z, return_index=True, return_inverse=True
        )
        self.places = flat[first]
        self.from_left = np.argsort(self.places[:, 0], kind="stable")
        self.from_left_mm = self.places[self.from_left, 0]
        self.vertex = vertex.reshape(-1, 3)
        self.middle_mm = np.ascontiguousarray(self.corners.mean(axis=1)[:, :2])
        z = self.corners[:, :, 2]
        self.heights_mm = np.stack([z.min(axis=1), z.max(axis=1)], axis=1)
        a, b, c = self.corners.transpose(1, 0, 2)
        self.area_mm2 = 0.5 * np.linalg.norm(np.cross(b - a, c - a), axis=1)
        self.reach = reach[self.of]
        self.facet = facets[self.of]
        # Beyond a few pieces more than the limit it does not matter how far.
        self.rim_over = _hinge_distance(mesh, facets, self.places, ledge + 4 * size) - ledge
        self.most_mm = float(reach.max())
        half, self.border = _border(mesh, facets, 2 * ledge)
        self.is_spread = _is_spread(mesh, facets, half)
        self.known: dict[tuple, tuple[np.ndarray, np.ndarray]] = {}
        order = np.argsort(self.of, kind="stable")
        self.order = order
        self.ends = np.searchsorted(self.of[order], np.arange(len(facets) + 1))
        self.position = {int(f): i for i, f in enumerate(facets)}
        self._graph = None

    @property
    def graph(self):
        if self._graph is None:
            from scipy.sparse import coo_matrix  # takes a while to load

            n, vertex, places = len(self.places), self.vertex, self.places
            a, b = vertex[:, [0, 1, 2]].ravel(), vertex[:, [1, 2, 0]].ravel()
            level = np.hypot(*(places[a] - places[b])[:, :2].T)
            graph = coo_matrix((np.maximum(level, 1e-9), (a, b)), (n, n)).tocsr()
            self._graph = graph.maximum(graph.T)
        return self._graph

    def ways(self, contacts, contact_facets, which):
        """For each of some contacts, the places that it reaches and their level distance."""
        from scipy.sparse.csgraph import dijkstra  # takes a while to load

        which = np.asarray(which, int)
        places, facets = np.asarray(contacts)[which], np.asarray(contact_facets)[which]
        names = [(*at, f) for at, f in zip(places.tolist(), facets.tolist(), strict=True)]
        fresh = [i for i, name in enumerate(names) if name not in self.known]
        fresh = list({names[i]: i for i in fresh}.values())
        for at in range(0, len(fresh), _AT_ONCE):
            block = fresh[at : at + _AT_ONCE]
            starts = [self._start(places[i], int(facets[i])) for i in block]
            along = dijkstra(
                self.graph, directed=False, indices=starts,
                limit=_WAY * (self.most_mm + 3 * self.size) + 4 * self.size,
            )  # fmt: skip
            for row, i in enumerate(block):
                self.known[names[i]] = self._way(places[i], along[row])
        found = [self.known[name] for name in names]
        while len(self.known) > _MOST_KNOWN:
            self.known.pop(next(iter(self.known)))
        return found

    def _way(self, contact, along):
        """Level distance of the places around a contact along the patch.

        Straight where nothing of the patch's border is between, seen from above; else the way
        along the pieces' edges, which is never too short. Where the patch lies above itself, what
        is straight above may be far along it: that way must not be much longer then.
        """
        # A little beyond, so that rims are drawn evenly.
        far = self.most_mm + 3 * self.size
        first, end = np.searchsorted(self.from_left_mm, [contact[0] - far, contact[0] + far])
        near = np.sort(self.from_left[first:end])
        straight = np.hypot(*(self.places[near, :2] - contact[:2]).T)
        near, straight = near[straight <= far], straight[straight <= far]
        along = along[near]
        clear = in_sight(self.border, contact[:2].copy(), self.places[near, :2].copy())
        if not self.is_spread:
            clear &= along <= _WAY * straight + 4 * self.size
        way = np.where(clear, straight, along)
        # What was printed before it does, it did not hold.
        reached = np.isfinite(way) & (self.places[near, 2] >= contact[2] - self.before_mm)
        return near[reached], way[reached]

    def _start(self, place, facet: int) -> int:
        """The corner of a piece nearest to a contact, within its own facet."""
        i = self.position[facet]
        own = self.order[self.ends[i] : self.ends[i + 1]]
        apart = np.linalg.norm(self.corners[own] - place, axis=2)
        row, col = np.unravel_index(int(np.argmin(apart)), apart.shape)
        return int(self.vertex[own[row], col])


# Patches looked at lately, for each mesh that is still there; the last ones are kept.
_FIELDS: "WeakKeyDictionary[Mesh, dict[tuple, _Field]]" = WeakKeyDictionary()
_LOCK = Lock()


def _field_of(mesh, facets, slopes_deg, process, threshold_deg, most, across) -> _Field:
    reach = _reaches(slopes_deg[facets], process, threshold_deg)
    name = (
        hashlib.sha256(np.ascontiguousarray(facets)).digest(),
        hashlib.sha256(np.ascontiguousarray(reach)).digest(), process["ledge_mm"],
        process.layer_height_mm, most, across,
    )  # fmt: skip
    with _LOCK:
        known = _FIELDS.setdefault(mesh, {})
        field = known.pop(name, None)
    if field is None:
        # A contact's own layer begins up to a layer lower.
        before = process.layer_height_mm * (1 + 1e-6)
        field = _Field(mesh, facets, reach, process["ledge_mm"], before, most, across)
    with _LOCK:
        known[name] = field
        while sum(len(f.of) for f in known.values()) > _MOST_KEPT and len(known) > 1:
            known.pop(next(iter(known)))
    return field


def _reaches(slopes_deg: np.ndarray, process: Process, threshold_deg: float) -> np.ndarray:
    """How far a contact holds facets of some slopes."""
    flat = math.degrees(math.atan(process.layer_height_mm / process["ledge_mm"]))
    near, far = process["hold_flat_mm"], process["hold_steep_mm"]
    part = (slopes_deg - flat) / max(threshold_deg - flat, 1e-9)
    return near + (far - near) * np.clip(part, 0.0, 1.0)


def pieces_of(mesh: Mesh, facets: np.ndarray, size: float) -> tuple[np.ndarray, np.ndarray]:
    """Facets cut until their edges are short, (p, 3, 3), and the facet of each.

    Every edge longer than ``size``, seen from above, is halved, in both facets that share it: so
    pieces meet at their corners, and a long thin facet makes no more of them than it is long.
    """
    corners = mesh.vertices[mesh.facets[facets]]
    of = np.arange(len(facets))
    done, done_of = [], []
    for _ in range(24):
        side = np.hypot(*(np.roll(corners, -1, axis=1) - corners)[:, :, :2].transpose(2, 0, 1))
        long = side > size
        count = long.sum(axis=1)
        done.append(corners[count == 0])
        done_of.append(of[count == 0])
        if not count.any():
            break
        parts, parts_of = [], []
        for n in (1, 2, 3):
            which = np.flatnonzero(count == n)
            if not len(which):
                continue
            # Turned so that the first edge is long, and of two the last one is short.
            own = long[which]
            first = np.argmax(own, axis=1) if n == 1 else (np.argmin(own, axis=1) + 1) % 3
            turned = (first[:, None] + np.arange(3)) % 3
            a, b, c = np.take_along_axis(corners[which], turned[:, :, None], 1).transpose(1, 0, 2)
            ab, bc, ca = (a + b) / 2, (b + c) / 2, (c + a) / 2
            made = {
                1: ((a, ab, c), (ab, b, c)),
                2: ((ab, b, bc), (a, ab, bc), (a, bc, c)),
                3: ((a, ab, ca), (ab, b, bc), (ca, bc, c), (ab, bc, ca)),
            }[n]
            parts += [np.stack(t, axis=1) for t in made]
            parts_of += [of[which]] * len(made)
        corners, of = np.concatenate(parts), np.concatenate(parts_of)
    return np.concatenate(done), np.concatenate(done_of)


def _border(mesh: Mesh, facets: np.ndarray, small_mm: float) -> tuple[np.ndarray, np.ndarray]:
    """Half-edges around a patch, and those edges (s, 4) seen from above.

    Of the edges those of small holes are left out: the tip of a support that ends there is seen
    across.
    """
    inside = np.zeros(len(mesh.facets), bool)
    inside[facets] = True
    half = (3 * facets[:, None] + np.arange(3)).ravel()
    twin = mesh.twin[half]
    half = half[(twin < 0) | ~inside[np.maximum(twin, 0) // 3]]
    a, b = edge_ends(mesh, half)
    ends, index = np.unique(np.concatenate([a, b]), return_inverse=True)
    loop = linked(len(ends), *np.split(index, 2))
    xy = mesh.vertices[ends, :2]
    low, high = np.full((loop.max() + 1, 2), np.inf), np.full((loop.max() + 1, 2), -np.inf)
    np.minimum.at(low, loop, xy)
    np.maximum.at(high, loop, xy)
    wide = np.hypot(*(high - low).T)
    is_hole = (wide <= small_mm) & (wide < wide.max() / 2)
    seen = ~is_hole[loop[index[: len(a)]]]
    edges = np.hstack([mesh.vertices[a[seen], :2], mesh.vertices[b[seen], :2]])
    return half, np.ascontiguousarray(edges)


def _is_spread(mesh: Mesh, facets: np.ndarray, half: np.ndarray) -> bool:
    """Whether a patch nowhere lies above itself: its border encloses as much as its facets cover.

    How the half-edges of the border are made into loops does not change what these enclose.
    """
    after: dict[int, list[int]] = {}
    for a, b in zip(*(end.tolist() for end in edge_ends(mesh, half)), strict=True):
        after.setdefault(a, []).append(b)
    loops = []
    while after:
        first, nexts = next(iter(after.items()))
        loop, at = [], first
        while at in after:
            loop.append(at)
            nexts = after[at]
            to = nexts.pop()
            if not nexts:
                del after[at]
            at = to
        loops.append(mesh.vertices[loop, :2])
    a, b, c = mesh.vertices[mesh.facets[facets], :2].transpose(1, 0, 2)
    u, v = b - a, c - a
    covered = float(np.abs(u[:, 0] * v[:, 1] - u[:, 1] * v[:, 0]).sum()) / 2
    return union_of_loops(loops).area() >= covered * (1 - _ABOVE_ITSELF)


def _hinge_distance(mesh: Mesh, facets: np.ndarray, places: np.ndarray, most: float) -> np.ndarray:
    """Level distance of places from `hinges` of a patch."""
    segs = hinges(mesh, facets)
    if not len(segs):
        return np.full(len(places), np.inf)
    return distances(np.ascontiguousarray(places[:, :2]), segs, most)
