"""Where an underside touches the plate in points and lines: from there it is held."""

from dataclasses import replace

import manifold3d
import numpy as np
import shapely

from ..errors import EditError
from ..mesh import Mesh
from .underside import Underside

__all__ = ["held_where_it_touches"]

# Half the width of the post that stands in for a point or a line, as a part of the size and in mm;
# what lies no higher than this touches (ours).
_HALF_PART, _HALF_MM, _TOUCHES_MM = 1e-3, 0.01, 1e-6
# Of more places than this, each would be a hinge of its own, and ways without end (ours).
_MOST_PLACES = 150


def held_where_it_touches(
    under: Underside, lowest_mm: float, over_mm: float
) -> tuple[Underside, list[manifold3d.Manifold]]:
    """An underside held also by posts as thin as a hair where it comes down to the plate.

    Returns
    -------
    under : Underside
        The same where it comes down nowhere, or there is held by what stands on the plate.
    posts : list of Manifold

    Raises
    ------
    EditError
        If nothing else holds it and it touches in too many places.
    """
    vertices, facets = under.mesh.vertices, under.own.facets
    low = vertices[:, 2] <= lowest_mm + _TOUCHES_MM
    low[under.held.ravel()] = False  # it is held there
    if not low[facets].any():
        return under, []
    if len(np.unique(facets[low[facets]])) > _MOST_PLACES:
        if len(under.held):
            return under, []  # by what holds it besides
        raise EditError(
            "This underside touches the plate in too many places; flatten the foot, or reduce the "
            "model’s facets there."
        )
    size = float(np.ptp(vertices[np.unique(facets), :2], axis=0).max())
    half = min(_HALF_PART * size, _HALF_MM)
    around = shapely.union_all(shapely.polygons(vertices[facets][:, :, :2]))
    posts = shapely.intersection(_outline(vertices, facets, low, half), around)
    solids, more, held = [], [], []
    for post in map(shapely.geometry.polygon.orient, shapely.get_parts(posts)):
        if post.geom_type != "Polygon" or post.area < 0.01 * half * half:
            continue
        # Round outside, against the clock in a ring of it: what is beside them is on the right.
        rings = [np.array(ring.coords)[:-1] for ring in (post.exterior, *post.interiors)]
        high = lowest_mm
        for ring in rings:
            height, _ = under.heights(ring)
            z = np.where(np.isfinite(height), height, lowest_mm)
            at = len(vertices) + len(more) + np.arange(len(ring))
            held += np.stack([at, np.roll(at, -1)], axis=1).tolist()
            more += np.column_stack([ring, z]).tolist()
            high = max(high, float(z.max()))
        solids.append(
            manifold3d.CrossSection(rings).extrude(high - lowest_mm + over_mm)
            .translate((0, 0, lowest_mm))
        )  # fmt: skip
    if not solids:
        return under, []
    mesh = Mesh(np.concatenate([vertices, more]), under.mesh.facets)
    held = np.concatenate([under.held, np.array(held, int)])
    found = replace(under, mesh=mesh, held=held)
    for name in ("own", "kinks", "openings"):  # its facets and free edges are the same
        found.__dict__[name] = getattr(under, name)
    return found, solids


def _outline(vertices: np.ndarray, facets: np.ndarray, low: np.ndarray, half: float):
    """A polygon round all points and edges that lie low."""
    edges = np.concatenate([facets[:, [0, 1]], facets[:, [1, 2]], facets[:, [2, 0]]])
    lines = np.unique(np.sort(edges[low[edges].all(axis=1)], axis=1), axis=0)
    points = np.setdiff1d(facets[low[facets]], lines)
    chains = shapely.line_merge(shapely.multilinestrings(shapely.linestrings(
        vertices[lines][:, :, :2])))  # fmt: skip
    return shapely.union_all(
        [
            shapely.buffer(chains, half, cap_style="flat", join_style="mitre"),
            *shapely.box(*(vertices[points, :2] - half).T, *(vertices[points, :2] + half).T),
        ]
    )
