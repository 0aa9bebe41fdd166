"""What leaves the workshop: files made of a placed model, checked before they are given out."""

import re
from dataclasses import dataclass, replace

import manifold3d
import numpy as np

from .errors import HandOverError
from .mesh import (
    FacetColours,
    Mesh,
    Part,
    as_solid,
    binary_stl,
    bodies_apart,
    crowded_edges,
    fewer_needles,
    mesh_facts,
    mesh_of,
    open_mesh,
    pieces_of,
    repaired,
    threemf,
    volume_mm3,
)
from .mesh import side_by_side as shells_together
from .parts import PLUG
from .process import Process
from .reshaping.joining import FILM_MM, cut_whole
from .splitting.solids import tracked
from .stance import Placed
from .supports import KINDS

__all__ = [
    "Check",
    "all_parts_3mf",
    "checks",
    "file_stem",
    "in_place",
    "one_body",
    "part_named",
    "side_by_side",
    "stl_of",
    "threemf_of",
    "title_of",
]

# A body no larger than this is a film of rounding, in mm³.
_FILM_MM3 = 1e-9
# A joined body may be off by so much where that keeps its edges apart in single precision: it is
# made coarser, and what touches is drawn apart.
_COARSER = ((1e-5, 0.0), (1e-4, 0.0), (5e-4, 0.0))
_APART = ((0.0, 2e-4), (0.0, 1e-3), (1e-4, 2e-3), (5e-4, 5e-3))
# More than this part of its volume it may not differ by, whatever was done to it.
_OFF_PART = 1e-3
# Where that does not do, a bead of this radius is laid along the edge.
_BEAD_MM = 0.01
# Closed room of less than this is filled.
_POCKET_MM3 = 0.01


@dataclass(frozen=True)
class Check:
    """One thing looked at before hand-over; ``is_doubtful`` where it holds, but not surely."""

    key: str
    label: str
    ok: bool
    text: str
    is_doubtful: bool = False


def title_of(piece: str, stance: str) -> str:
    """What a file says it holds."""
    return f"{piece} - {stance}"


def file_stem(piece: str, stance: str) -> str:
    """A safe file name, without its ending, from the names of piece and stance."""
    words = re.sub(r"[^a-z0-9]+", "-", f"{piece} {stance}".lower()).strip("-")
    return words[:80] or "piece"


def part_named(key: str) -> str:
    """What a part is called: "part a.b", "plug 3a", nothing for the whole piece."""
    root, _, own = key.partition(".")
    if root.startswith(PLUG):
        return f"plug {key.removeprefix(PLUG)}"
    return f"part {own}" if own else ""


def one_body(placed: Placed) -> Mesh:
    """Model and pillars as one watertight surface, by boolean union.

    Raises
    ------
    HandOverError
        If the model is not watertight, or the union fails.
    """
    if not placed.mesh.is_watertight:
        raise HandOverError(
            "The model is not watertight, so it cannot be made one body; close its open edges "
            "where it was made."
        )
    solids = [_solid(part) for part in bodies_apart(placed.mesh)]
    solids += [_solid(one) for support in placed.standing for one in support.solids]
    union = manifold3d.Manifold.batch_boolean(solids, manifold3d.OpType.Add)
    if union.status() != manifold3d.Error.NoError or union.is_empty():
        raise HandOverError("Model and pillars could not be joined into one body.")
    found = _in_single_precision(union, (*_APART[:2], *_COARSER, *_APART[2:]))
    if abs(volume_mm3(found) - union.volume()) > _OFF_PART * abs(union.volume()):
        raise HandOverError(
            "Joined, its surface touches itself so that a reader takes it for another body "
            f"({volume_mm3(found):,.0f} instead of {union.volume():,.0f} mm³). Leave out the last "
            "change of shape, or make it with other numbers."
        )
    return found


def _in_single_precision(solid: manifold3d.Manifold, attempts=_COARSER) -> Mesh:
    """A solid's surface as STL keeps it, so that what is checked is what is written.

    Corners that come together are one then, and facets that collapse are none. Where edges come
    together, too, a reader may take the surface for torn: then a little coarser.
    """
    shells = solid.decompose()
    thick = [one for one in shells if 2 * abs(one.volume()) > FILM_MM * one.surface_area()]
    if 0 < len(thick) < len(shells):
        solid = shells_together(thick)
    first = None
    for by_mm, apart_mm in ((0.0, 0.0), *attempts):
        rough = mesh_of(solid.simplify(by_mm) if by_mm else solid)
        if apart_mm:
            rough = _apart_where_they_touch(rough, apart_mm)
        found, _ = repaired(_singly(rough.vertices), rough.facets)
        if not crowded_edges(found):
            found = _without_pockets(found)
            stouter = fewer_needles(found)
            return found if crowded_edges(stouter) else stouter
        first = first or found
    rough = mesh_of(solid + _beads(first))
    found, _ = repaired(_singly(rough.vertices), rough.facets)
    return first if crowded_edges(found) else found


def _apart_where_they_touch(mesh: Mesh, by_mm: float) -> Mesh:
    """A surface of which corners that lie on each other are drawn into the material, each its own.

    What touches itself along an edge has two corners at each end of it, which a file that knows
    places alone makes one.
    """
    place, copies = np.unique(_singly(mesh.vertices), axis=0, return_inverse=True)
    count = np.bincount(copies.ravel(), minlength=len(place))
    edges = np.sort(copies.ravel()[mesh.facets][:, [0, 1, 1, 2, 2, 0]].reshape(-1, 2), axis=1)
    edges, facets = np.unique(edges, axis=0, return_counts=True)
    is_crowded = np.zeros(len(place), bool)
    is_crowded[edges[facets > 2]] = True
    touching = np.flatnonzero((is_crowded & (count > 1))[copies.ravel()])
    if not len(touching):
        return mesh
    a, b, c = mesh.vertices[mesh.facets].transpose(1, 0, 2)
    normal = np.cross(b - a, c - a)
    inward = np.zeros_like(mesh.vertices)
    for corner in mesh.facets.T:
        np.add.at(inward, corner, -normal)
    inward /= np.maximum(np.linalg.norm(inward, axis=1), 1e-300)[:, None]
    # One a little farther than the other, should both go the same way.
    order = touching[np.argsort(copies.ravel()[touching], kind="stable")]
    first = np.flatnonzero(np.diff(copies.ravel()[order], prepend=-1))
    nth = np.arange(len(order)) - np.repeat(first, np.diff(np.append(first, len(order))))
    vertices = mesh.vertices.copy()
    vertices[order] += (by_mm * (1 + 0.25 * nth))[:, None] * inward[order]
    return Mesh(vertices, mesh.facets)


def _without_pockets(mesh: Mesh) -> Mesh:
    """A surface without the walls of closed room that is hardly any, as between two tips."""
    body = mesh.body_of_facet
    if not body.any():
        return mesh
    a, b, c = mesh.vertices[mesh.facets].transpose(1, 0, 2)
    volume = np.bincount(body, (a * np.cross(b, c)).sum(axis=1) / 6)
    is_pocket = (volume < 0) & (volume > -_POCKET_MM3)
    if not is_pocket.any():
        return mesh
    used, facets = np.unique(mesh.facets[~is_pocket[body]], return_inverse=True)
    return Mesh(mesh.vertices[used], facets.reshape(-1, 3).astype(np.int32), mesh.grain_mm)


def _beads(mesh: Mesh) -> manifold3d.Manifold:
    """Thin rods along edges at which more than two facets meet."""
    edges = np.sort(mesh.facets[:, [0, 1, 1, 2, 2, 0]].reshape(-1, 2), axis=1)
    edges, count = np.unique(edges, axis=0, return_counts=True)
    knob = _BEAD_MM * np.concatenate([np.eye(3), -np.eye(3)])
    return manifold3d.Manifold.batch_boolean(
        [
            manifold3d.Manifold.hull_points((mesh.vertices[edge][:, None] + knob).reshape(-1, 3))
            for edge in edges[count > 2]
        ],
        manifold3d.OpType.Add,
    )


def _singly(places: np.ndarray) -> np.ndarray:
    """Places in single precision, no finer near zero, where no reader tells more apart."""
    grain = float(np.spacing(np.float32(np.abs(places).max())))
    return np.round(places / grain) * grain


def _written(parts: list[Part], title: str) -> bytes:
    """3MF of parts, those of which facets would collapse in single precision without these."""
    return threemf.write([replace(one, mesh=_uncollapsed(one)) for one in parts], title)


def _uncollapsed(part: Part) -> Mesh:
    corners = _singly(part.mesh.vertices)[part.mesh.facets]
    if part.colours is not None or (corners != np.roll(corners, 1, axis=1)).any(axis=2).all():
        return part.mesh
    solid = as_solid(part.mesh)
    return part.mesh if solid is None else _in_single_precision(solid)


def _solid(mesh: Mesh) -> manifold3d.Manifold:
    solid = as_solid(mesh)
    if solid is None:
        raise HandOverError(
            "The model's surface meets itself along edges, so it cannot be made one body; "
            "repair it where it was made."
        )
    return solid


def stl_of(placed: Placed, title: str) -> bytes:
    """Binary STL of model and pillars as one watertight body."""
    return binary_stl(one_body(placed), title)


def threemf_of(placed: Placed, title: str, colours: FacetColours | None = None) -> bytes:
    """3MF with the model as one object and every pillar as an object of type support."""
    parts = _apart(placed.part, placed.mesh, placed.matrix, title, colours)
    parts += [
        Part(f"{KINDS[s.support.kind].label.capitalize()} {s.support.key}", s.whole, True)
        for s in placed.standing
    ]
    return _written(parts, title)


def _apart(
    part, mesh: Mesh, matrix: np.ndarray, title: str, colours: FacetColours | None
) -> list[Part]:
    """A part's surface, and what is to be broken off it as a support.

    ``matrix`` (4, 4) takes the import's own numbers to where the surface is.
    """
    whole = Part(title, mesh, False, colours)
    if not part.breaks_off:
        return [whole]
    facets = np.arange(len(mesh.facets), dtype=np.int32)
    found = tracked(replace(part, mesh=mesh, facet_from=facets), np.eye(3), (), 0.0)
    off = [as_solid(_moved_by(matrix, one)) for one in part.breaks_off]
    if found is None or None in off:  # what cannot be told apart is written as one
        return [whole]
    model, held = found.solids, []
    for one in off:
        held += [left for solid in model if not (left := solid ^ one).is_empty()]
        model = [rest for solid in model for rest in pieces_of(cut_whole(solid, one))]
        model = [rest for rest in model if rest.volume() > _FILM_MM3]
    if not held or not model:
        return [whole]
    mesh, facet = found.back(model)
    if colours is not None:
        own = np.where(facet >= 0, colours.of_facet[facet], 0).astype(np.uint8)
        colours = FacetColours(colours.palette, own)
    support = mesh_of(manifold3d.Manifold.batch_boolean(held, manifold3d.OpType.Add))
    return [Part(title, mesh, False, colours), Part(f"Breaks off {title}", support, True)]


def _moved_by(matrix: np.ndarray, mesh: Mesh) -> Mesh:
    """A surface turned, mirrored and moved."""
    turn = matrix[:3, :3]
    facets = mesh.facets[:, ::-1] if np.linalg.det(turn) < 0 else mesh.facets
    return Mesh(
        np.ascontiguousarray(mesh.vertices @ turn.T + matrix[:3, 3]),
        np.ascontiguousarray(facets), mesh.grain_mm,
    )  # fmt: skip


def side_by_side(placed: list[Placed], process: Process, gap_mm: float = 5.0) -> list[np.ndarray]:
    """Moves that lay parts beside each other on one plate, in rows from the middle, (p, 3) each."""
    boxes = []
    for one in placed:
        meshes = [one.mesh.vertices, *(s.mesh.vertices for s in one.standing)]
        low = np.min([m.min(axis=0) for m in meshes], axis=0)[:2]
        high = np.max([m.max(axis=0) for m in meshes], axis=0)[:2]
        boxes.append((low, high))
    width = process.build_volume_mm[0]
    order = sorted(range(len(boxes)), key=lambda i: -(boxes[i][1] - boxes[i][0])[1])
    corner = np.zeros((len(boxes), 2))
    x = y = deep = 0.0
    for i in order:
        size = boxes[i][1] - boxes[i][0]
        if x > 0 and x + size[0] > width:
            x, y, deep = 0.0, y + deep + gap_mm, 0.0
        corner[i] = x, y
        x, deep = x + size[0] + gap_mm, max(deep, float(size[1]))
    ends = np.array([corner[i] + boxes[i][1] - boxes[i][0] for i in range(len(boxes))])
    middle = ends.max(axis=0) / 2
    return [np.array([*(corner[i] - middle - boxes[i][0]), 0.0]) for i in range(len(boxes))]


def all_parts_3mf(
    placed: list[Placed], moves: list[np.ndarray], title: str, colours: list | None = None
) -> bytes:
    """3MF with every part, and its supports, as objects of their own."""
    parts = []
    colours = colours or [None] * len(placed)
    for one, move, own in zip(placed, moves, colours, strict=True):
        name = f"{title}, {part_named(one.part.key)}".rstrip(", ")
        for body in _apart(one.part, one.mesh, one.matrix, name, own):
            parts.append(replace(body, mesh=body.mesh.moved(body.mesh.vertices + move)))
        for s in one.standing:
            label = f"{KINDS[s.support.kind].label.capitalize()} {s.support.key}, {name}"
            parts.append(Part(label, s.whole.moved(s.whole.vertices + move), True))
    return _written(parts, title)


def in_place(parts, title: str, colours: list | None = None) -> bytes:
    """3MF with every part where it is in the whole, as imported: to see how they go together."""
    found = []
    for one, own in zip(parts, colours or [None] * len(parts), strict=True):
        name = f"{title}, {part_named(one.key)}".rstrip(", ")
        frame = np.eye(4)
        frame[:3, :3] = one.frame.matrix
        found += _apart(one, one.mesh, frame, name, own)
    return _written(found, title)


def checks(placed: Placed, process: Process) -> list[Check]:
    """What must hold before the files are used, each looked at afresh on what is written."""
    found = [_check_pillars(placed), _check_volume_fits(placed, process)]
    through = [s for s in placed.standing if s.support.insist and s.blocked_at_mm]
    if through:
        names = ", ".join(f"{KINDS[s.support.kind].label} {s.support.key}" for s in through)
        text = f"You insisted on what runs through the model: {names}."
        found.append(Check("insisted", "Clear of the model", False, text))
    try:
        body = one_body(placed)
    except HandOverError as error:
        return [Check("one_body", "Watertight", False, str(error)), *found]
    read_back = open_mesh(binary_stl(body, "check"), "check.stl").mesh
    facts = mesh_facts(read_back)
    text = f"Watertight, one body, {facts.volume_mm3:,.0f} mm³ when read back."
    if not facts.watertight:
        text = f"The joined body has {facts.open_edges} open edges when read back."
    elif facts.bodies > 1:
        text = f"Watertight, {facts.volume_mm3:,.0f} mm³ when read back."
        apart = f"{facts.bodies} separate bodies that nothing joins."
        found.insert(0, Check("bodies", "In one piece", False, apart))
    return [Check("one_body", "Watertight", facts.watertight, text), *found]


def _check_pillars(placed: Placed) -> Check:
    total, unfit = len(placed.supports), len(placed.supports) - len(placed.standing)
    only_pillars = all(s.support.kind == "pillar" for s in placed.supports.values())
    what = "pillars" if only_pillars else "supports"
    if unfit:
        text = f"{unfit} of {total} {what} cannot stand and are left out; see Prop."
    elif total:
        text = f"All of the {total} {what} stand." if total > 1 else f"The {what[:-1]} stands."
    else:
        text = f"There are no {what}."
    return Check("pillars", f"{what.capitalize()} stand", not unfit, text)


def _check_volume_fits(placed: Placed, process: Process) -> Check:
    parts = [placed.mesh.vertices] + [support.mesh.vertices for support in placed.standing]
    low = np.min([part.min(axis=0) for part in parts], axis=0)
    high = np.max([part.max(axis=0) for part in parts], axis=0)
    room = np.array(process.build_volume_mm)
    least, most = (
        np.array([-room[0] / 2, -room[1] / 2, 0]),
        np.array([room[0] / 2, room[1] / 2, room[2]]),
    )
    out = [
        f"{excess:.1f} mm along {axis}"
        for axis, excess in zip("XYZ", np.maximum(least - low, high - most), strict=True)
        if excess > 1e-6
    ]
    size = " × ".join(f"{v:.1f}" for v in high - low)
    limit = " × ".join(f"{v:g}" for v in room)
    if out:
        return Check(
            "build_volume", "Inside the build volume", False,
            f"Sticks out by {', '.join(out)}; the machine has {limit} mm.",
        )  # fmt: skip
    return Check("build_volume", "Inside the build volume", True, f"{size} mm in {limit} mm.")
