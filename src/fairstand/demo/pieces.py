"""Fittings and models of the invented Reedmere reserve workshop, each with a problem built in."""

from collections.abc import Callable
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from manifold3d import CrossSection, Manifold, OpType

from printability.mesh import NAMED, FacetColours, Mesh

__all__ = ["PIECES", "DemoPiece"]

FINE = 48


@dataclass(frozen=True)
class DemoPiece:
    """A demo piece: its name, file, what is wrong with it, and how it is made."""

    name: str
    filename: str
    problem: str
    make: Callable[[], Mesh]
    colours: Callable[[Mesh], FacetColours] | None = None


def _ball(x, y, z, r) -> Manifold:
    return Manifold.sphere(r, FINE).translate((x, y, z))


def _strand(*balls) -> Manifold:
    """A rounded rod through balls (x, y, z, r)."""
    solids = [_ball(*ball) for ball in balls]
    links = [Manifold.batch_hull([a, b]) for a, b in pairwise(solids)]
    return _union(*links)


def _box(x0, y0, z0, x1, y1, z1) -> Manifold:
    return Manifold.cube((x1 - x0, y1 - y0, z1 - z0)).translate((x0, y0, z0))


def _rod(x, y, z0, z1, r0, r1=None) -> Manifold:
    return Manifold.cylinder(z1 - z0, r0, r0 if r1 is None else r1, FINE).translate((x, y, z0))


def _union(*parts: Manifold) -> Manifold:
    return Manifold.batch_boolean(list(parts), OpType.Add)


def _mesh(solid: Manifold) -> Mesh:
    out = solid.to_mesh64()
    return Mesh(
        np.ascontiguousarray(out.vert_properties[:, :3]),
        np.ascontiguousarray(out.tri_verts, np.int32),
    )


def heron_finial() -> Mesh:
    """A heron for the weather vane: beak and wing tips begin on nothing, legs are slender."""
    body = Manifold.batch_hull(
        [
            Manifold.sphere(1, FINE).scale((19, 9, 10)).translate((0, 0, 52)),
            _ball(-30, 0, 44, 2),
        ]
    )
    neck = _strand(
        (13, 0, 56, 6), (22, 0, 63, 4.4), (21, 0, 72, 3.4), (16.5, 0, 80, 3.1), (20, 0, 89, 3.6)
    )
    head = Manifold.batch_hull([_ball(22, 0, 91, 4.6), _ball(15, 0, 93, 1.2)])
    beak = Manifold.batch_hull([_ball(25, 0, 90.5, 2.4), _ball(45, 0, 81.5, 0.5)])
    parts = [body, neck, head, beak]
    for side in (-1, 1):
        parts += [
            Manifold.batch_hull(
                [_ball(9, side * 7, 56, 3), _ball(-4, side * 21, 59, 1.8),
                 _ball(-18, side * 9, 53, 1.6)]
            ),
            Manifold.batch_hull(
                [_ball(-4, side * 21, 59, 1.8), _ball(-18, side * 9, 53, 1.6),
                 _ball(-25, side * 29, 35, 0.7)]
            ),
            _strand((2, side * 4, 48, 2.2), (-1, side * 4.5, 26, 1.4), (1, side * 5, 4, 1.4)),
            _ball(-1, side * 4.5, 26, 1.9),
        ]  # fmt: skip
    base = _union(_rod(0, 0, 0, 3, 17), _rod(0, 0, 3, 6, 17, 12))
    return _mesh(_union(*parts, base) - _rod(0, 0, -1, 2.2, 4))


def hide_model() -> Mesh:
    """A model of the hide: arches that print, a lintel and a window too wide to bridge."""
    shell = _box(-40, -26, 0, 40, 26, 44) - _box(-37, -23, 2.5, 37, 23, 60)
    floor = _box(-43, -29, 0, 43, 29, 2.5)
    slot = _box(-26, -40, 24, 26, -10, 34)
    shutter = _box(-34, 10, 24, -28, 40, 33)
    door = _union(
        _box(-7, 10, 2.5, 7, 40, 18),
        _rod(0, 0, -30, 0, 7).rotate((90, 0, 0)).translate((0, 10, 18)),
    )
    pointed = CrossSection([[(-6, 0), (6, 0), (6, 14), (0, 26), (-6, 14)]]).extrude(30)
    pointed = pointed.rotate((90, 0, 0)).rotate((0, 0, 90)).translate((20, 0, 4))
    gable = CrossSection([[(-31, 44), (31, 44), (0, 62)]]).extrude(90)
    gable = gable.rotate((90, 0, 0)).rotate((0, 0, 90)).translate((-45, 0, 0))
    attic = CrossSection([[(-22, 43), (22, 43), (0, 56)]]).extrude(72)
    attic = attic.rotate((90, 0, 0)).rotate((0, 0, 90)).translate((-36, 0, 0))
    return _mesh(_union(shell, floor, gable) - _union(slot, shutter, door, pointed, attic))


def gauge_board_bracket() -> Mesh:
    """The bracket of the gauge board: a long, shallow ledge on a wall plate."""
    side = CrossSection([[(0, 0), (8, 0), (8, 66), (62, 72), (62, 80), (0, 80)]])
    body = side.extrude(46).rotate((90, 0, 0)).translate((0, 23, 0))
    lip = _box(56, -23, 80, 62, 23, 86)
    rib = CrossSection([[(7, 40), (26, 70), (7, 70)]]).extrude(6).rotate((90, 0, 0))
    cuts = [_rod(0, 0, -20, 30, 2.6).rotate((0, 90, 0)).translate((0, y, z)) for y in (-14, 14)
            for z in (12, 52)]  # fmt: skip
    slot = _union(*(_rod(x, 0, 60, 90, 3.2) for x in (30, 34, 38, 42, 46)))
    return _mesh(_union(body, lip, rib.translate((0, 3, 0))) - _union(*cuts, slot))


def trail_marker_plate() -> Mesh:
    """A marker for the trail: a flat slab with relief lettering of simple bars."""
    outline = CrossSection.square((84, 50), True).offset(3, circular_segments=FINE)
    plate = outline.extrude(4)
    # H, I, D and E, each of upright and level bars: (x0, y0, x1, y1).
    bars = [(-34, -11, -30, 11), (-24, -11, -20, 11), (-30, -2, -24, 2), (-13, -11, -9, 11),
            (-2, -11, 2, 11), (2, 7, 10, 11), (2, -11, 10, -7), (10, -9, 14, 9),
            (21, -11, 25, 11), (25, 7, 34, 11), (25, -2, 31, 2), (25, -11, 34, -7)]  # fmt: skip
    relief = [_box(x0, y0, 3.5, x1, y1, 5.2) for x0, y0, x1, y1 in bars]
    holes = [_rod(x, y, -1, 9, 2.1) for x in (-40, 40) for y in (-22, 22)]
    flat = _union(plate, *relief) - _union(*holes)
    return _mesh(flat)


def rain_gauge_funnel() -> Mesh:
    """The funnel of the rain gauge: a thin wall, and a cup when it stands on its rim."""
    profile = [(2.6, 0), (4, 0), (4, 22), (34, 52), (36, 52), (36, 70), (35.1, 70), (35.1, 53),
               (33.5, 52.9), (2.6, 22.4)]  # fmt: skip
    return _mesh(Manifold.revolve(CrossSection([profile]), 96))


def nest_box_yoke() -> Mesh:
    """The yoke of a nest-box hinge: a horseshoe whose ends spread."""
    ring = CrossSection([[(18, -5), (25, -5), (25, 5), (18, 5)]])
    arc = Manifold.revolve(ring, 96, 180).rotate((90, 0, 0)).translate((0, 0, 30))
    legs = [_box(s - 3.5, -5, 0, s + 3.5, 5, 31) for s in (-21.5, 21.5)]
    eyes = [_rod(0, 0, -40, 40, 2.4).rotate((0, 90, 0)).translate((0, 0, 6))]
    return _mesh(_union(arc, *legs) - _union(*eyes))


def perch_brackets() -> Mesh:
    """A left and a right perch bracket, mirror images of each other, side by side."""
    side = CrossSection([[(0, 0), (5, 0), (5, 34), (26, 46), (26, 52), (0, 52)]])
    one = side.extrude(14).rotate((90, 0, 0)).translate((6, 14, 0))
    notch = _rod(26, 4, 44, 60, 5)
    hook = _box(6, 0, 20, 11, 20, 26)
    right = _union(one, hook) - notch
    return _mesh(Manifold.compose([right, right.mirror((1, 0, 0))]))


def otter() -> Mesh:
    """An otter on its haunches: a chin, paws and a belly that hang, in two colours."""
    body = Manifold.batch_hull([
        Manifold.sphere(1, FINE).scale((15, 14, 16)).translate((0, 0, 16)),
        _ball(2, 0, 44, 9.5),
    ])  # fmt: skip
    neck = Manifold.batch_hull([_ball(2, 0, 44, 9.5), _ball(5, 0, 58, 8)])
    head = Manifold.batch_hull([_ball(5, 0, 60, 9), _ball(13, 0, 58, 5.5)])
    snout = Manifold.batch_hull([_ball(13, 0, 58, 5.5), _ball(18, 0, 56.5, 3)])
    parts = [body, neck, head, snout]
    for side in (-1, 1):
        parts += [
            _ball(1, side * 8, 66, 2.6),
            _strand((4, side * 9, 40, 4), (13, side * 8, 33, 3), (18, side * 4, 35, 2.4)),
            Manifold.batch_hull([_ball(4, side * 13, 8, 6), _ball(14, side * 14, 3.2, 3.2)]),
        ]  # fmt: skip
    tail = _strand((-11, 0, 7, 6.5), (-26, 3, 5, 5), (-40, 12, 3.5, 3.2))
    foot = _rod(0, 0, 0, 2, 17)
    whole = _union(*parts, tail, foot)
    # Fine enough that the colours' edge is smooth.
    return _mesh(whole.trim_by_plane((0, 0, 1), 0).refine_to_length(1.7))


def _otters_colours(mesh: Mesh) -> FacetColours:
    """Bark all over, straw on throat and belly."""
    middle = mesh.vertices[mesh.facets].mean(axis=1)
    x, y, z = middle.T
    front = (x > 6 - 0.1 * np.abs(z - 36)) & (np.abs(y) < 8.5 - 0.004 * (z - 34) ** 2)
    pale = front & (z > 14) & (z < 58) & (x < 17.5)
    palette = (("bark", NAMED["bark"]), ("straw", NAMED["straw"]))
    return FacetColours(palette, np.where(pale, 2, 1).astype(np.uint8))


PIECES = (
    DemoPiece("Heron finial", "heron-finial.stl",
              "Beak and wing tips begin on nothing; slender legs.", heron_finial),
    DemoPiece("Hide model", "hide-model.stl",
              "A flat lintel and a viewing slot too wide to bridge.", hide_model),
    DemoPiece("Gauge-board bracket", "gauge-board-bracket.stl",
              "A long, shallow ledge.", gauge_board_bracket),
    DemoPiece("Trail marker plate", "trail-marker-plate.stl",
              "A flat slab with relief lettering.", trail_marker_plate),
    DemoPiece("Rain-gauge funnel", "rain-gauge-funnel.stl",
              "A thin wall, and a cup when stood on its rim.", rain_gauge_funnel),
    DemoPiece("Nest-box yoke", "nest-box-yoke.stl",
              "A horseshoe whose ends spread.", nest_box_yoke),
    DemoPiece("Perch brackets, left and right", "perch-brackets.stl",
              "Two bodies that are mirror images.", perch_brackets),
    DemoPiece("Otter in two colours", "otter.3mf",
              "Chin and paws hang; a seam to hide where the colours meet.", otter, _otters_colours),
)  # fmt: skip
