"""What spreads a print on its plate: one raft under several feet, and brims of one layer."""

import math
from dataclasses import dataclass
from typing import ClassVar

import manifold3d
import numpy as np
from manifold3d import JoinType

from ..layers import outlines, section_at
from ..mesh import Mesh, mesh_of
from ..process import Process
from .graph import (
    Fit,
    Fitted,
    OnSupport,
    Support,
    SupportKind,
    World,
    registered_kind,
)
from .shape import Rod, Solid, united
from .sizes import Dimension, Size

__all__ = ["BrimSize", "RaftSize", "fit_brim", "fit_raft"]

_CIRCLE = 48
_LEAST_MM2 = 1e-6
# Corners of a first layer sharper than this lift (from memory).
_SHARP_DEG = 100.0


@dataclass(frozen=True)
class RaftSize(Size):
    """Dimensions of a raft, mm.

    ``margin_mm`` is how far it goes beyond the feet; feet nearer than ``link_mm`` are joined, and
    what is farther from any foot stays open. Its rim widens upwards by ``bevel_mm``, so that a
    knife finds its way under it. It keeps ``gap_mm`` from the model.
    """

    DIMENSIONS: ClassVar = {
        "margin_mm": Dimension("margin", 0.0, 50.0),
        "height_mm": Dimension("height", 0.1, 10.0),
        "bevel_mm": Dimension("bevel", 0.0, 10.0),
        "link_mm": Dimension("joins feet within", 0.0, 300.0),
        "gap_mm": Dimension("gap to the model", 0.0, 10.0),
    }

    margin_mm: float
    height_mm: float
    bevel_mm: float
    link_mm: float
    gap_mm: float


def raft_size_for(process: Process) -> RaftSize:
    """About 1 mm high (common practice, no source); the rest from memory."""
    margin = process["foot_mm"] / 4
    return RaftSize(round(margin, 2), 1.0, 0.6, round(3 * process["foot_mm"], 1), 1.0)


def fit_raft(world: World, support: Support, on: tuple[Fitted, ...]) -> Fitted:
    """Fit a raft under the feet of some supports, or of all that have any."""
    size = support.size
    feet = [disc for fitted in on for disc in _feet(fitted)]
    if not feet:
        return Fitted(support, Fit.NO_ROOM, "There is no foot on the plate to put it under.", ())
    discs = manifold3d.CrossSection.batch_boolean(
        [_disc(x, y, r + size.margin_mm) for x, y, r in feet], manifold3d.OpType.Add
    )
    half = size.link_mm / 2
    outline = _grown(_grown(discs, half), -half) if half else discs
    note = ""
    low = float(world.mesh.vertices[:, 2].min(initial=math.inf))
    if low < size.height_mm:
        own = _below(world.mesh, size.height_mm)
        if not own.is_empty():
            outline -= _grown(own, size.gap_mm + size.bevel_mm)
            note = f"It keeps {size.gap_mm:g} mm from the model."
    if outline.area() < _LEAST_MM2:
        return Fitted(support, Fit.NO_ROOM, "The model leaves no room for it.", ())
    bevel = min(size.bevel_mm, size.height_mm)
    solids = [outline.extrude(size.height_mm)]
    if bevel:
        # In steps of a tenth of a millimetre; the rim widens upwards at 45 degrees.
        steps = max(math.ceil(bevel / 0.1), 1)
        lift = size.height_mm - bevel
        for i in range(steps):
            wide = _grown(outline, bevel * (i + 1) / steps)
            start = lift + bevel * i / steps
            solids.append(wide.extrude(size.height_mm - start).translate((0, 0, start)))
    mesh = mesh_of(united(solids))
    x, y, _ = (float(v) for v in mesh.vertices.mean(axis=0))
    return Fitted(
        support, Fit.STANDS, note, (), (Solid(mesh),), None,
        ((x, y, size.height_mm), (x, y, 0.0)),
    )  # fmt: skip


def _feet(fitted: Fitted):
    """Discs (x, y, radius) by which a support touches the plate."""
    for member in fitted.members:
        if isinstance(member, Rod):
            for at, r in ((member.a_mm, member.r_a_mm), (member.b_mm, member.r_b_mm)):
                if abs(at[2]) < 1e-9:
                    yield at[0], at[1], r


@dataclass(frozen=True)
class BrimSize(Size):
    """Dimensions of a brim, mm; one layer thick unless typed otherwise.

    All around by ``width_mm``, or ``discs`` of ``disc_mm`` at the sharp corners.
    """

    DIMENSIONS: ClassVar = {
        "width_mm": Dimension("width", 0.2, 50.0),
        "thick_mm": Dimension("thickness", 0.01, 2.0),
        "disc_mm": Dimension("disc diameter", 1.0, 100.0),
        "lies": Dimension("place", choices=("around", "corners")),
    }

    width_mm: float
    thick_mm: float
    disc_mm: float
    lies: str = "around"


def brim_size_for(process: Process) -> BrimSize:
    """One layer, 4 mm wide or discs of 15 mm (from memory)."""
    return BrimSize(4.0, process.layer_height_mm, 15.0)


def fit_brim(world: World, support: Support, on: tuple[Fitted, ...] = ()) -> Fitted:
    """Fit a brim around what of the part lies on the plate."""
    size = support.size
    own = _section(world.mesh, size.thick_mm / 2)
    if own.is_empty():
        return Fitted(support, Fit.NO_ROOM, "Nothing of the model lies on the plate.", ())
    # A trace of it lies under the model's rim, so that the two are one.
    inside = _grown(own, -min(0.2, 0.2 * size.width_mm))
    note = ""
    if size.lies == "around":
        wanted = _grown(own, size.width_mm)
        # Only outside: holes of the model are not closed.
        wanted = manifold3d.CrossSection(
            [p for p in wanted.to_polygons() if _area(p) > 0], manifold3d.FillRule.Positive
        )
        filled = manifold3d.CrossSection(
            [p for p in own.to_polygons() if _area(p) > 0], manifold3d.FillRule.Positive
        )
        brim = wanted - _grown(filled, -min(0.2, 0.2 * size.width_mm))
    else:
        corners = _sharp_corners(own)
        if not len(corners):
            return Fitted(support, Fit.NO_ROOM, "Its first layer has no sharp corners.", ())
        brim = manifold3d.CrossSection.batch_boolean(
            [_disc(x, y, size.disc_mm / 2) for x, y in corners], manifold3d.OpType.Add
        )
        brim -= inside
        note = f"{len(corners)} corner{'s' if len(corners) > 1 else ''}."
    if brim.area() < _LEAST_MM2:
        return Fitted(support, Fit.NO_ROOM, "There is no room for it.", ())
    mesh = mesh_of(brim.extrude(size.thick_mm))
    x, y, z = (float(v) for v in mesh.vertices[0])
    return Fitted(support, Fit.STANDS, note, (), (Solid(mesh),), None, ((x, y, z), (x, y, 0.0)))


def _section(mesh: Mesh, z: float) -> manifold3d.CrossSection:
    """The model's own outline at a height."""
    if float(mesh.vertices[:, 2].min(initial=math.inf)) >= z:
        return manifold3d.CrossSection()
    loops = outlines(section_at(mesh, z), 0)
    return manifold3d.CrossSection(loops, manifold3d.FillRule.Positive)


def _below(mesh: Mesh, z: float) -> manifold3d.CrossSection:
    """All that the model takes up below a height, looked at from above, by a few sections."""
    found = [_section(mesh, z * part) for part in (0.01, 0.25, 0.5, 0.75, 1.0)]
    found = [section for section in found if not section.is_empty()]
    if not found:
        return manifold3d.CrossSection()
    return manifold3d.CrossSection.batch_boolean(found, manifold3d.OpType.Add)


def _grown(section: manifold3d.CrossSection, by: float) -> manifold3d.CrossSection:
    return section.offset(by, JoinType.Round, circular_segments=_CIRCLE)


def _disc(x: float, y: float, r: float) -> manifold3d.CrossSection:
    return manifold3d.CrossSection.circle(r, _CIRCLE).translate((x, y))


def _area(loop) -> float:
    x, y = np.asarray(loop, float).T
    return float(np.sum(x * np.roll(y, -1) - y * np.roll(x, -1))) / 2


def _sharp_corners(section: manifold3d.CrossSection) -> np.ndarray:
    """(c, 2) float: outward corners of the outlines that are sharp."""
    found = []
    for loop in section.simplify(0.05).to_polygons():
        points = np.asarray(loop, float)
        if _area(points) <= 0 or len(points) < 3:
            continue
        before, after = points - np.roll(points, 1, axis=0), np.roll(points, -1, axis=0) - points
        turn = np.degrees(
            np.arctan2(
                before[:, 0] * after[:, 1] - before[:, 1] * after[:, 0],
                (before * after).sum(axis=1),
            )
        )
        found.append(points[180 - turn <= _SHARP_DEG])
    return np.concatenate(found) if found else np.zeros((0, 2))


RAFT = registered_kind(
    SupportKind(
        "raft",
        "raft",
        ((OnSupport,),),
        RaftSize,
        raft_size_for,
        fit_raft,
        "rafts",
        least_ends=0,
        under_all=True,
    )
)
BRIM = registered_kind(SupportKind("brim", "brim", (), BrimSize, brim_size_for, fit_brim, "brims"))
