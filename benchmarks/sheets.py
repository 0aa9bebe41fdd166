"""A second plate of fourteen invented parts, for resin: thin ones that stand leaning and high.

Like `fourteen` made before any supports were proposed for them. Those parts are compact: their
plain grid supports weigh a third of them. These are sheets, bows and shells of the Reedmere
workshop, under which grid supports weigh about as much as they do.
"""

import numpy as np
from manifold3d import CrossSection, Manifold, OpType

from printability.mesh import Mesh, mesh_of

__all__ = ["PARTS"]

_ADD = OpType.Add


def _plate(x, y, thick, round_by=2.0):
    inner = CrossSection.square((x - 2 * round_by, y - 2 * round_by), True)
    return inner.offset(round_by).extrude(thick)


def _sign():
    return _plate(40, 24, 2) - Manifold.cylinder(6, 1.5, 1.5, 32).translate((16, 0, -1))


def _shingle():
    return _plate(30, 30, 1.6, 4)


def _frame():
    return _plate(36, 28, 2.4) - _plate(28, 20, 6, 1).translate((0, 0, -1))


def _dish():
    shell = Manifold.sphere(26, 96) - Manifold.sphere(24.4, 96)
    return shell.trim_by_plane((0, 0, -1), 17)


def _feather():
    blade = Manifold.sphere(1, 64).scale((20, 6, 0.9))
    return blade + Manifold.cylinder(12, 0.9, 0.9, 24).rotate((0, 90, 0)).translate((17, 0, 0))


def _hoop():
    return CrossSection.circle(1.4, 24).translate((14, 0)).revolve(96)


def _louvre():
    slats = [Manifold.cube((30, 6, 1.2), True).translate((0, y, 0)) for y in (-9, 0, 9)]
    bars = [Manifold.cube((2, 24, 1.6), True).translate((x, 0, 0)) for x in (-14, 14)]
    return Manifold.batch_boolean([*slats, *bars], _ADD)


def _tray():
    return _plate(34, 26, 8) - _plate(31.6, 23.6, 8).translate((0, 0, 1.2))


def _scoop():
    tube = Manifold.cylinder(30, 10, 10, 64) - Manifold.cylinder(32, 8.6, 8.6, 64).translate(
        (0, 0, -1)
    )
    return tube.trim_by_plane((1, 0, 0), 0).rotate((0, 90, 0))


def _fan():
    return Manifold.cylinder(1.8, 20, 20, 96).trim_by_plane((0, 1, 0), 0)


def _comb():
    teeth = [Manifold.cube((1.6, 16, 1.8)).translate((4 * k, 5, 0)) for k in range(9)]
    return Manifold.batch_boolean([Manifold.cube((33.6, 6, 1.8)), *teeth], _ADD)


def _lid():
    rim = Manifold.cylinder(4, 17, 17, 96) - Manifold.cylinder(6, 15.6, 15.6, 96).translate(
        (0, 0, -1)
    )
    return Manifold.cylinder(1.6, 17, 17, 96) + rim


def _star():
    arms = [Manifold.cube((36, 5, 2), True).rotate((0, 0, a)) for a in (0, 60, 120)]
    return Manifold.batch_boolean(arms, _ADD)


def _strap():
    holes = [Manifold.cylinder(6, 1.6, 1.6, 24).translate((x, 0, -1)) for x in range(-18, 19, 9)]
    return _plate(50, 8, 1.6) - Manifold.batch_boolean(holes, _ADD)


_SHAPES = (
    ("sign", _sign, (30, 15, 0)), ("shingle", _shingle, (25, 10, 0)),
    ("frame", _frame, (30, 20, 0)), ("dish", _dish, (35, 0, 0)),
    ("feather", _feather, (25, 20, 0)), ("hoop", _hoop, (30, 10, 0)),
    ("louvre", _louvre, (30, 0, 0)), ("tray", _tray, (35, 15, 0)),
    ("scoop", _scoop, (20, 30, 0)), ("fan", _fan, (30, 20, 0)), ("comb", _comb, (30, 10, 0)),
    ("lid", _lid, (25, 15, 0)), ("star", _star, (30, 25, 0)), ("strap", _strap, (30, 10, 0)),
)  # fmt: skip

# Name, mesh, and the turn that it is printed at.
PARTS: tuple[tuple[str, Mesh, tuple[float, float, float]], ...] = tuple(
    (name, mesh_of(make()), tuple(np.array(turn, float))) for name, make, turn in _SHAPES
)
