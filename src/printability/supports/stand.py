"""A stand: the maker's own mesh set under the piece, moved and turned, joined where they meet."""

import base64
import binascii
import hashlib
import math
import zlib
from dataclasses import dataclass
from typing import ClassVar

import manifold3d
import numpy as np

from ..errors import EditError
from ..mesh import (
    Mesh,
    as_solid,
    facet_areas,
    facet_normals,
    first_hits,
    mesh_of,
    rotation_about_axes,
    spread_in,
)
from ..process import Process
from .graph import (
    Contact,
    Fit,
    Fitted,
    OnPlate,
    Support,
    SupportKind,
    World,
    registered_kind,
)
from .shape import Solid
from .sizes import Dimension, Size

__all__ = ["StandSize", "fit_stand", "shape_digest", "shape_from_text", "text_of_shape"]

MOST_FACETS = 60_000
_MOST_TEXT = 4_000_000
# Contacts of a stand are told apart by this, and are at most so many.
_APART_MM, _MOST_CONTACTS = 1.0, 600
_GONE_UNDER_MM3 = 1e-6


@dataclass(frozen=True)
class _Name(Dimension):
    """A dimension that is the name of a shape."""

    def check(self, value) -> None:
        if not isinstance(value, str) or len(value) > 64:
            raise EditError("The stand's shape has no name.")


@dataclass(frozen=True)
class StandSize(Size):
    """How a stand's shape is set up: scaled, turned about fixed X, Y, then Z, and lifted.

    ``shape`` names it by `shape_digest`.
    """

    DIMENSIONS: ClassVar = {
        "scale": Dimension("scale", 0.01, 100.0, ""),
        "turn_x_deg": Dimension("turn about X", -360.0, 360.0, "°"),
        "turn_y_deg": Dimension("turn about Y", -360.0, 360.0, "°"),
        "turn_z_deg": Dimension("turn about Z", -360.0, 360.0, "°"),
        "lift_mm": Dimension("height above the plate", -500.0, 1000.0),
        "shape": _Name("shape"),
    }

    scale: float = 1.0
    turn_x_deg: float = 0.0
    turn_y_deg: float = 0.0
    turn_z_deg: float = 0.0
    lift_mm: float = 0.0
    shape: str = ""


def stand_size_for(process: Process) -> StandSize:
    """As the shape was brought in."""
    return StandSize()


def shape_digest(mesh: Mesh) -> str:
    """Names a shape by its numbers, in single precision."""
    vertices = np.ascontiguousarray(mesh.vertices, np.float32)
    facets = np.ascontiguousarray(mesh.facets, np.int32)
    return hashlib.sha256(vertices.tobytes() + facets.tobytes()).hexdigest()[:24]


def text_of_shape(mesh: Mesh) -> str:
    """A shape as text, for an edit.

    Raises
    ------
    EditError
        If it is too large, or no closed body.
    """
    if not 4 <= len(mesh.facets) <= MOST_FACETS:
        raise EditError(f"A stand has up to {MOST_FACETS:,} facets; simplify it first.")
    head = np.array([len(mesh.vertices), len(mesh.facets)], "<u4").tobytes()
    body = mesh.vertices.astype("<f4").tobytes() + mesh.facets.astype("<u4").tobytes()
    text = base64.b64encode(zlib.compress(head + body, 6)).decode()
    shape_from_text(text)
    return text


def shape_from_text(text) -> Mesh:
    """The shape that a text says, checked.

    Raises
    ------
    EditError
    """
    if not isinstance(text, str) or len(text) > _MOST_TEXT:
        raise EditError("The stand's shape cannot be read.")
    most = 8 + 12 * (MOST_FACETS * 3) + 12 * MOST_FACETS
    try:
        unpack = zlib.decompressobj()
        data = unpack.decompress(base64.b64decode(text, validate=True), most)
    except (binascii.Error, zlib.error, ValueError) as error:
        raise EditError("The stand's shape cannot be read.") from error
    if len(data) < 8 or not unpack.eof or unpack.unused_data:
        raise EditError("The stand's shape cannot be read.")
    n, m = (int(v) for v in np.frombuffer(data[:8], "<u4"))
    if not 4 <= m <= MOST_FACETS or n > 3 * m or len(data) != 8 + 12 * n + 12 * m:
        raise EditError("The stand's shape cannot be read.")
    vertices = np.frombuffer(data[8 : 8 + 12 * n], "<f4").reshape(n, 3).astype(float)
    facets = np.frombuffer(data[8 + 12 * n :], "<u4").reshape(m, 3)
    if not np.isfinite(vertices).all() or np.abs(vertices).max() > 1e5 or facets.max() >= n:
        raise EditError("The stand's shape cannot be read.")
    mesh = Mesh(vertices, facets.astype(np.int32))
    solid = as_solid(mesh)
    if solid is None or solid.is_empty() or not solid.volume() > 0:
        raise EditError("The stand's mesh is not watertight, so it cannot be joined; repair it.")
    return mesh


def fit_stand(world: World, support: Support, on: tuple[Fitted, ...] = ()) -> Fitted:
    """Set a stand up, cut off what is under the plate, and see where it meets the model.

    Parameters
    ----------
    world : World
        With the stand's shape among its shapes.
    support : Support
    on : tuple of Fitted
        Nothing: it rests on the plate.
    """
    size = support.size
    shape = world.shapes.get(size.shape)
    if shape is None:
        return Fitted(support, Fit.LOST, "The stand's own mesh is not there any more.", ())
    turn = rotation_about_axes(size.turn_x_deg, size.turn_y_deg, size.turn_z_deg)
    at = shape.vertices @ turn.T * size.scale
    low, high = at.min(axis=0), at.max(axis=0)
    x, y = support.ends[0].at_mm or (0.0, 0.0)
    shift = np.array([x, y, size.lift_mm]) - [*(low + high)[:2] / 2, low[2]]
    solid = as_solid(Mesh(at + shift, shape.facets))
    if solid is None:
        return Fitted(support, Fit.NO_ROOM, "At that size its mesh is not watertight.", ())
    # What is left when all below is split off: free of films where a flat lies on the plate.
    solid = solid.split_by_plane((0.0, 0.0, -1.0), 0.0)[1]
    if solid.is_empty():
        return Fitted(support, Fit.NO_ROOM, "All of it is under the plate.", ())
    mesh = mesh_of(solid)
    contacts, notes = _contacts(world, solid), []
    if not contacts:
        notes.append("It does not touch the model.")
    if float(mesh.low_mm[2]) > 1e-6:
        notes.append("It does not stand on the plate.")
    (cx, cy, _), top = mesh.vertices.mean(axis=0), float(mesh.high_mm[2])
    spine = ((float(cx), float(cy), top), (float(cx), float(cy), 0.0))
    return Fitted(
        support, Fit.STANDS, " ".join(notes), contacts, (Solid(mesh),), None, spine,
    )  # fmt: skip


def _contacts(world: World, stand: manifold3d.Manifold) -> tuple[Contact, ...]:
    """Where undersides of the model lie in a stand, spread over what they touch.

    Their diameters add up to the area that is touched.
    """
    box = np.array(stand.bounding_box())
    mesh = world.mesh
    corners = mesh.vertices[mesh.facets]
    normals = facet_normals(mesh)
    near = (corners.max(axis=1) >= box[:3] - 1e-9) & (corners.min(axis=1) <= box[3:] + 1e-9)
    facets = np.flatnonzero(near.all(axis=1) & (normals[:, 2] < -1e-3))
    if not len(facets):
        return ()
    places, of, area = _spread(corners[facets], facet_areas(mesh)[facets], facets)
    # What lies on the plate is held by that.
    inside = _inside(mesh_of(stand), places) & (places[:, 2] > 1e-6)
    places, of, area = places[inside], of[inside], area[inside]
    if not len(places):
        return ()
    cells, which = np.unique(np.floor(places / _APART_MM), axis=0, return_inverse=True)
    found = []
    for cell in range(len(cells)):
        own = np.flatnonzero(which.ravel() == cell)
        total = float(area[own].sum())
        one = own[int(np.argmin(np.linalg.norm(places[own] - places[own].mean(axis=0), axis=1)))]
        slope = math.degrees(math.acos(min(abs(float(normals[of[one]][2])), 1.0)))
        found.append(
            Contact(
                tuple(float(v) for v in places[one]), 2 * math.sqrt(total / math.pi), slope,
                int(of[one]),
            )
        )  # fmt: skip
    found.sort(key=lambda c: c.at_mm[2])
    step = max(math.ceil(len(found) / _MOST_CONTACTS), 1)
    return tuple(found[::step])


def _spread(corners, areas, facets):
    """Places spread over facets, a third of the cell apart, with the facet and area of each."""
    count = np.clip(np.ceil(areas / (_APART_MM / 3) ** 2 / 2).astype(int), 1, 4_000)
    if count.sum() > 200_000:
        count = np.maximum((count * (200_000 / count.sum())).astype(int), 1)
    row = np.repeat(np.arange(len(facets)), count)
    places = spread_in(corners[row], np.concatenate([np.arange(n) for n in count]) + 0.5)
    return places, facets[row], (areas / count)[row]


def _inside(mesh: Mesh, places: np.ndarray) -> np.ndarray:
    """Whether places are in a closed mesh or on it, (p,) bool: a line up leaves it.

    Taken a little below each place too, so that what only lies on the stand counts as met.
    """
    normals = facet_normals(mesh)
    found = np.zeros(len(places), bool)
    for down in (1e-4, -1e-4):
        hits = first_hits(mesh.index, places - (0, 0, down), (0.0, 0.0, 1.0), 0.0)
        found |= (hits >= 0) & (normals[np.maximum(hits, 0)][:, 2] > 0)
    return found


STAND = registered_kind(
    SupportKind(
        "stand", "stand", ((OnPlate,),), StandSize, stand_size_for, fit_stand, "stands",
    )
)  # fmt: skip
