"""Random constructions with known answers: openings, ledges, grooves, caps, vases.

Tests that draw at random take their generator from the fixture `draws`, which prints its seed.
"""

import math

import manifold3d
import numpy as np

from printability.mesh import Mesh, binary_stl, open_mesh


def mesh_of(solid: manifold3d.Manifold) -> Mesh:
    out = solid.to_mesh64()
    return Mesh(
        np.ascontiguousarray(out.vert_properties[:, :3]),
        np.ascontiguousarray(out.tri_verts, np.int32),
    )


def cuboid(x0, y0, z0, x1, y1, z1) -> manifold3d.Manifold:
    return manifold3d.Manifold.cube((x1 - x0, y1 - y0, z1 - z0)).translate((x0, y0, z0))


def upright(profile, depth) -> manifold3d.Manifold:
    """A profile in x and z, drawn out along y about the middle."""
    area = sum(
        a[0] * b[1] - b[0] * a[1] for a, b in zip(profile, [*profile[1:], profile[0]], strict=True)
    )
    section = manifold3d.CrossSection([profile if area > 0 else profile[::-1]])
    return section.extrude(depth).rotate((90, 0, 0)).translate((0, depth / 2, 0))


def block_with_opening(profile, depth, wall=6.0, top=6.0) -> manifold3d.Manifold:
    """A block on the plate with an opening of that profile right through it."""
    half = max(abs(x) for x, _ in profile) + wall
    height = max(z for _, z in profile) + top
    return cuboid(-half, -depth / 2, 0, half, depth / 2, height) - upright(profile, depth + 10)


def thrown(solid, draws, precision=None) -> Mesh:
    """A solid turned about Z, moved far away perhaps, in single or double precision."""
    mesh = solid if isinstance(solid, Mesh) else mesh_of(solid)
    turn = draws.uniform(0, 2 * math.pi)
    c, s = math.cos(turn), math.sin(turn)
    vertices = mesh.vertices @ np.array([[c, s, 0], [-s, c, 0], [0, 0, 1]])
    far = draws.choice([0.0, 1.0, 100.0, 1e4, 1e5])
    vertices += draws.uniform(-1, 1, 3) * (far, far, far / 3)
    moved = Mesh(np.ascontiguousarray(vertices), mesh.facets)
    single = draws.random() < 0.5 if precision is None else precision == "single"
    if single:
        return open_mesh(binary_stl(moved, "thrown"), "thrown.stl").mesh
    return moved


def height_near_a_cut(draws, h, low, high) -> float:
    """A height on a cut, a hair beside one, on a whole layer, or anywhere."""
    k = int(draws.integers(math.ceil(low / h), math.floor(high / h)))
    return float(
        draws.choice(
            [
                (k + 0.5) * h,
                (k + 0.5) * h + draws.uniform(-1, 1) * 1e-6,
                (k + 0.5) * h * (1 + 2**-24),
                (k + 0.5) * h - draws.uniform(0, 0.005) * h,
                k * h,
                draws.uniform(k, k + 1) * h,
            ]
        )
    )


def arch(draws, radius, springs):
    """A profile of an opening that closes gradually: round, elongated, pointed or gothic."""
    kind = draws.choice(["round", "long", "pointed", "gothic"])
    sides = int(draws.integers(24, 120))
    turn = np.linspace(0, math.pi, sides + 1)
    if draws.random() < 0.5:  # the crown is no corner, or lies to one side of one
        turn = np.clip(turn + math.pi / sides * draws.random(), 0, math.pi)
    if kind in ("round", "long"):
        tall = 1.0 if kind == "round" else draws.uniform(1, 2.5)
        roof = [(radius * math.cos(t), springs + tall * radius * math.sin(t)) for t in turn]
    elif kind == "pointed":
        roof = [(radius, springs), (0, springs + draws.uniform(0.95, 2) * radius),
                (-radius, springs)]  # fmt: skip
    else:
        big = radius * draws.uniform(1.2, 2.5)
        off = big - radius
        side = [(big * math.cos(t) - off, springs + big * math.sin(t))
                for t in np.linspace(0, math.acos(off / big), sides // 2)]  # fmt: skip
        roof = side + [(-x, z) for x, z in side[-2::-1]]
    splay = math.tan(math.radians(draws.choice([0, 0, draws.uniform(0, 3)]))) * (springs + 1)
    return kind, [(-radius - splay, -1), (radius + splay, -1), *roof]
