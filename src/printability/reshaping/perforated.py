"""What is added to hold something and broken off again: a gap all along, and points across it."""

import manifold3d
import numpy as np

from ..errors import EditError
from ..mesh import facet_boxes, facet_normals, pieces_of
from .changes import Ground
from .watching import going_on

__all__ = ["breaking_off"]

# How far points are rooted on both sides of the gap (ours).
_ROOT_MM = 0.3
# More facets than this along the gap, or points across it, are refused (ours).
_MOST_FACETS, _MOST_POINTS = 4_000, 3_000


def breaking_off(
    ground: Ground, solid: manifold3d.Manifold, gap_mm: float, every_mm: float, point_mm: float
) -> tuple[manifold3d.Manifold, int]:
    """A solid that touches the part, set off from it by a gap but for rows of points.

    Parameters
    ----------
    ground : Ground
    solid : Manifold
        What is added; it reaches into the part.
    gap_mm, every_mm, point_mm : float
        Width of the gap, distance of the points from each other, and how wide they are.

    Returns
    -------
    Manifold
        Pieces that hang on too little to hang on a point are left out.
    int
        How many points it hangs on.

    Raises
    ------
    EditError
        If there are too many facets or points, or nothing is left between the gaps.
    """
    mesh = ground.mesh
    box = solid.bounding_box()
    low, high = facet_boxes(mesh.vertices, mesh.facets)
    near = ((low <= np.array(box[3:]) + gap_mm) & (high >= np.array(box[:3]) - gap_mm)).all(axis=1)
    facets = np.flatnonzero(near)
    if len(facets) > _MOST_FACETS:
        raise EditError(
            f"{len(facets):,} facets lie beside it, too many for a row of points; let it stay."
        )
    normals = facet_normals(mesh)[facets]
    corners = mesh.vertices[mesh.facets[facets]]
    beside = [
        manifold3d.Manifold.hull_points(np.concatenate([c, c + gap_mm * n]))
        for c, n in zip(corners, normals, strict=True)
    ]
    whole = manifold3d.Manifold.batch_boolean(
        [*(one for one in beside if one.volume() > 0), *ground.tracked.solids],
        manifold3d.OpType.Add,
    )
    apart = solid - whole
    bars = _bars(corners, normals, gap_mm, every_mm, point_mm, solid)
    if not bars or apart.is_empty():
        raise EditError("Nothing would hold it between the gaps; choose smaller ones.")
    crossing = manifold3d.Manifold.batch_boolean(bars, manifold3d.OpType.Add) ^ solid
    pieces = pieces_of(apart + crossing)

    # A piece must hang on the part; one between two gaps that no point meets would fall.
    def meets(one, others) -> bool:
        going_on(0.6)
        return any((one ^ other).volume() > 0 for other in others)

    hanging = [one for one in pieces if meets(one, ground.tracked.solids)]
    apart_of = [one for one in hanging if meets(one, [apart])]
    if not apart_of:
        raise EditError("No point meets it; choose a smaller distance between the points.")
    return manifold3d.Manifold.batch_boolean(apart_of, manifold3d.OpType.Add), len(bars)


def _bars(corners, normals, gap_mm, every_mm, point_mm, solid) -> list[manifold3d.Manifold]:
    """Square bars across the gap, on a net of places every so far, where the solid is."""
    out = []
    half = point_mm / 2
    for k, ((a, b, c), n) in enumerate(zip(corners, normals, strict=True)):
        going_on(0.4 + 0.2 * k / len(corners))
        axis = int(np.argmax(np.abs(n)))
        u, v = [i for i in range(3) if i != axis]
        flat = np.array([a, b, c])[:, [u, v]]
        first = np.ceil(flat.min(axis=0) / every_mm - 0.5)
        last = np.floor(flat.max(axis=0) / every_mm - 0.5)
        for i in np.arange(first[0], last[0] + 1):
            for j in np.arange(first[1], last[1] + 1):
                at = (np.array([i, j]) + 0.5) * every_mm
                if not _within(at, flat):
                    continue
                p = np.zeros(3)
                p[[u, v]] = at
                p[axis] = a[axis] - (n[[u, v]] @ (at - a[[u, v]])) / n[axis]
                bar = _bar(p, n, half, gap_mm)
                # Through the whole gap and into what lies behind it.
                if (_bar(p, n, half, gap_mm) ^ solid).volume() > half**2 * gap_mm:
                    out.append(bar)
                if len(out) > _MOST_POINTS:
                    raise EditError("There would be too many points; choose a larger distance.")
    return out


def _bar(at, n, half: float, gap_mm: float) -> manifold3d.Manifold:
    side = np.array([1.0, 0, 0]) if abs(n[0]) < 0.9 else np.array([0, 1.0, 0])
    u = np.cross(side, n)
    u /= np.linalg.norm(u)
    v = np.cross(n, u)
    places = [
        at + x * half * u + y * half * v + z * n
        for x in (-1, 1) for y in (-1, 1) for z in (-_ROOT_MM, gap_mm + _ROOT_MM)
    ]  # fmt: skip
    return manifold3d.Manifold.hull_points(np.array(places))


def _within(p: np.ndarray, flat: np.ndarray) -> bool:
    """Whether a place is inside a triangle of the plane."""
    a, b, c = flat
    turns = [
        (q[0] - o[0]) * (p[1] - o[1]) - (q[1] - o[1]) * (p[0] - o[0])
        for o, q in ((a, b), (b, c), (c, a))
    ]
    return all(t >= 0 for t in turns) or all(t <= 0 for t in turns)
