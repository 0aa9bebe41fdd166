"""A plate of fourteen invented parts of the Reedmere workshop, for resin, each as it would stand.

Made before any supports were proposed for them: what supports weigh on it is compared with plain
grid supports.
"""

from manifold3d import CrossSection, Manifold

from printability.mesh import Mesh, mesh_of

__all__ = ["PARTS"]


def _cyl(h, r0, r1=None, n=48):
    return Manifold.cylinder(h, r0, r0 if r1 is None else r1, n)


def _ball(r):
    return Manifold.sphere(r, 48)


def _ring(big, small):
    return CrossSection.circle(small, 32).translate((big, 0)).revolve(64)


def _hook():
    bow = _ring(7, 1.8).trim_by_plane((0, 1, 0), 0).rotate((90, 0, 0))
    return bow + _cyl(14, 1.8).translate((7, 0, 0)) + _ball(2.4).translate((-7, 0, 0))


def _peg():
    return _cyl(18, 2.5) + _cyl(4, 6).translate((0, 0, 16)) + _ball(3).translate((0, 0, 22))


def _clip():
    bow = CrossSection.square((16, 12)).translate((-8, 0)) - CrossSection.square(
        (12, 14)
    ).translate((-6, 2))
    return bow.extrude(5)


def _perch():
    return _cyl(24, 2).rotate((0, 70, 0)) + Manifold.cube((3, 14, 14), True)


def _funnel():
    return _cyl(14, 3, 10) - _cyl(14.2, 2, 9).translate((0, 0, 0.1))


def _eye():
    return _ring(6, 1.6).rotate((90, 0, 0)) + _cyl(10, 1.6).translate((0, 0, -15))


def _tag():
    plate = CrossSection.square((26, 12), True).offset(2).extrude(2)
    return plate - _cyl(4, 2).translate((11, 0, -1))


def _bird():
    body = _ball(6).scale((1.6, 1, 0.9))
    return (
        body
        + _ball(3.4).translate((9, 0, 5))
        + _cyl(5, 1.4, 0.3).rotate((0, 90, 0)).translate((11.5, 0, 5))
    )


def _fork():
    tines = sum(
        (_cyl(14, 1.3).translate((x, 0, 6)) for x in (-5, 0)), _cyl(14, 1.3).translate((5, 0, 6))
    )
    return (
        tines
        + Manifold.cube((14, 3, 3), True).translate((0, 0, 6))
        + _cyl(8, 1.8).translate((0, 0, -1))
    )


def _bridge():
    arch = Manifold.cube((26, 8, 12)) - _cyl(10, 8).rotate((-90, 0, 0)).translate((13, -1, 0))
    return arch


def _knob():
    return _cyl(10, 3) + _ball(7).translate((0, 0, 14))


def _shelf():
    return Manifold.cube((3, 20, 16)) + Manifold.cube((14, 20, 2)).translate((0, 0, 12))


def _spool():
    return _cyl(3, 8) + _cyl(14, 3) + _cyl(3, 8).translate((0, 0, 13))


def _leaf():
    leaf = _ball(12).scale((1.4, 0.7, 0.12))
    return leaf + _cyl(10, 1.2).rotate((0, 90, 0)).translate((14, 0, 0))


_SHAPES = (
    ("hook", _hook, (20, 15, 0)), ("peg", _peg, (0, 0, 0)), ("clip", _clip, (35, 10, 0)),
    ("perch", _perch, (0, 0, 0)), ("funnel", _funnel, (25, 0, 0)), ("eye", _eye, (15, 20, 0)),
    ("tag", _tag, (30, 20, 0)), ("bird", _bird, (0, -20, 0)), ("fork", _fork, (20, 0, 0)),
    ("little bridge", _bridge, (30, 15, 0)), ("knob", _knob, (0, 0, 0)),
    ("shelf", _shelf, (20, -25, 0)), ("spool", _spool, (35, 0, 0)), ("leaf", _leaf, (30, 20, 0)),
)  # fmt: skip

# Name, mesh, and the turn that it is printed at.
PARTS: tuple[tuple[str, Mesh, tuple[float, float, float]], ...] = tuple(
    (name, mesh_of(make()), tuple(map(float, turn))) for name, make, turn in _SHAPES
)
