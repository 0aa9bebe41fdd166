"""Planes that offer themselves: mirrored, and along a loop of creases."""

import numpy as np

from fairstand.memory import remembered
from fairstand.stances.current import Current
from fairstand.stances.cutting import plane_from, plane_on_plate
from printability.edits.base import number
from printability.errors import EditError
from printability.mesh import facet_normals
from printability.splitting import crease_loops, loop_near, mirrored
from printability.supports.layout import plane_of_symmetry

__all__ = ["crease_plane", "mirrored_plane"]


def mirrored_plane(now: Current, body: dict) -> dict:
    """A plane on the other side of the plane of symmetry; both on the plate.

    Raises
    ------
    EditError
        If the part has none.
    """
    plane_from(now, body)  # whether it is one
    found = remembered(
        f"symmetry/{now.base_key}", lambda: (plane_of_symmetry(now.placed.mesh) or "none",)
    )[0]
    if isinstance(found, str):
        raise EditError("The part has no upright plane of symmetry, so there is no other side.")
    normal, point = mirrored(body["plate_normal"], body["plate_point"], *found)
    return {"normal": normal.tolist(), "point": point.tolist()}


def crease_plane(now: Current, body: dict) -> dict:
    """The plane of the loop of creases nearest to a place of the plate, with the loop.

    Raises
    ------
    EditError
        If there is none.
    """
    place = body.get("place_mm")
    if not isinstance(place, list) or len(place) != 3:
        raise EditError("A place has three numbers.")
    at = np.array([number(v, "place", -1e6, 1e6, "mm") for v in place])
    loops = remembered(f"loops/{now.part.digest}", lambda: crease_loops(now.part.mesh))
    own = np.array(now.placed.source_place(tuple(at))) * now.part.frame.factors
    facet, normals = body.get("facet"), facet_normals(now.part.mesh)
    if isinstance(facet, bool) or not isinstance(facet, int) or not 0 <= facet < len(normals):
        facet = None
    loop = loop_near(loops, own, None if facet is None else normals[facet])
    if loop is None:
        raise EditError("There is no closed loop of creases in one plane on this part.")
    matrix, factors = now.placed.matrix, now.part.frame.factors
    corners = (loop.corners / factors) @ matrix[:3, :3].T + matrix[:3, 3]
    return plane_on_plate(now, loop.plane) | {
        "loop": corners.ravel().tolist(), "length_mm": loop.length_mm, "off_mm": loop.off_mm,
    }  # fmt: skip
