"""What once failed in silence: links, hoods, small feet, what slicing loses, vents, small lines.

Each set is drawn at random with a known answer; the seed is printed by the fixture `draws`.
"""

import math
from itertools import pairwise

import manifold3d
import numpy as np
import pytest
import shapely
from scipy import ndimage

from constructions import block_with_opening, cuboid, mesh_of, thrown
from depth import about
from printability.findings import Severity, find
from printability.inspection import inspect_model
from printability.layers import (
    VENT_MM,
    find_cups,
    find_lost,
    find_thin_walls,
    outlines,
    slice_layers,
)
from printability.mesh import Mesh
from printability.process import PROCESSES
from printability.stance import Setup, place
from solids import blob

FDM, RESIN, METAL = (PROCESSES[key] for key in ("fdm", "resin", "metal"))
Solid = manifold3d.Manifold


def ledger_of(solid, process):
    mesh = solid if isinstance(solid, Mesh) else mesh_of(solid)
    placed = place(mesh, Setup(process=process))
    look = inspect_model(placed.mesh, process)
    return find(placed, look, process.threshold_deg)


def spun(solid, draws):
    return solid.rotate((0, 0, draws.uniform(0, 360)))


def on_plate(mesh):
    return Mesh(mesh.vertices - [0, 0, mesh.vertices[:, 2].min()], mesh.facets)


# ---- links -----------------------------------------------------------------------------------


def grooved(draws, left, thick):
    """A bar across which a V or a trough leaves so much of its thickness."""
    half = (thick - left) * math.tan(math.radians(draws.uniform(15, 50)))
    flat = draws.choice([0.0, draws.uniform(0.01, 0.5)])
    long = half + flat + draws.uniform(3, 10)
    profile = [(-long, 0), (long, 0), (long, thick), (half + flat, thick), (flat, left)]
    profile += [(-x, y) for x, y in reversed(profile[3:])][int(flat == 0) :]
    profile.append((-long, thick))
    return manifold3d.CrossSection([profile]).extrude(draws.uniform(2, 10))


def test_no_link_is_missed_and_its_width_is_told(draws):
    for _ in range(about(200)):
        left = draws.uniform(0.003, 0.8)
        mesh = on_plate(thrown(grooved(draws, left, draws.uniform(2.5, 6)), draws, "double"))
        found = find_thin_walls(slice_layers(mesh, 0.2), FDM["wall_mm"])
        assert found, left
        assert not found[0].is_small
        assert min(wall.thickness_mm for wall in found) == pytest.approx(left, abs=2e-4)


def test_what_is_wide_enough_everywhere_has_no_link(draws):
    for _ in range(about(100)):
        angles = np.sort(draws.uniform(0, 2 * np.pi, int(draws.integers(9, 27))))
        radius = draws.uniform(4, 10) * draws.uniform(0.6, 1, len(angles))
        star = shapely.Polygon(np.c_[np.cos(angles), np.sin(angles)] * radius[:, None]).buffer(0)
        opened = star.buffer(-0.45, quad_segs=8).buffer(0.45, quad_segs=32)
        if opened.geom_type != "Polygon" or opened.is_empty:
            continue
        solid = manifold3d.CrossSection([np.array(opened.exterior.coords)[:-1]]).extrude(3)
        assert find_thin_walls(slice_layers(mesh_of(solid), 0.2), 0.84) == ()


# ---- arches ----------------------------------------------------------------------------------


def hooded_tunnel(draws):
    """A block with a round tunnel whose roof goes on for 20 mm as a free hood, and the hood's area.

    Hood and roof share edges; the hood rises outwards by 15 to 30 degrees.
    """
    r, n = draws.uniform(8, 20), int(draws.integers(16, 80))
    up, deep = 20 * math.tan(math.radians(draws.uniform(15, 30))), draws.uniform(10, 60)
    arch = [(r * math.cos(t), 8 + r * math.sin(t)) for t in np.linspace(0, math.pi, n + 1)]
    tool = manifold3d.CrossSection([[(-r, -1), (r, -1), *arch]]).extrude(deep + 20)
    tool = tool.rotate((90, 0, 0)).translate((0, deep + 10, 0))
    block = cuboid(-r - 6, 0, 0, r + 6, deep, r + 16) - tool
    skip, parts, area = int(n * draws.uniform(0.2, 0.35)), [], 0.0
    for (x0, z0), (x1, z1) in list(pairwise(arch))[skip : n - skip]:
        points = [
            (x, y, z + rise + thick)
            for x, z in ((x0, z0), (x1, z1))
            for y, rise in ((0.5, 0), (0, 0), (-20, up)) for thick in (0, 3)
        ]  # fmt: skip
        parts.append(Solid.hull_points(np.array(points)))
        area += abs(x1 - x0) * 20
    hood = Solid.batch_boolean(parts, manifold3d.OpType.Add) - tool.trim_by_plane((0, 1, 0), 0)
    return block + hood, area


def test_a_hood_that_goes_on_from_a_tunnels_roof_is_listed_by_itself(draws):
    for _ in range(about(27)):
        solid, level_mm2 = hooded_tunnel(draws)
        found = [f for f in ledger_of(spun(solid, draws), FDM).findings if f.kind == "overhang"]
        area = sum(f.area_mm2 for f in found)
        # The hood, seen from above, is no larger than it is, and the tunnel's roof is not in it.
        assert 0.6 * level_mm2 <= area <= 2.0 * level_mm2, (area, level_mm2)


@pytest.mark.parametrize(
    ("process", "radius", "spans"),
    [(FDM, 30, False), (FDM, 36, False), (FDM, 46, True), (FDM, 100, True), (RESIN, 46, False)],
)
def test_a_round_arch_is_listed_by_its_span_where_that_is_too_wide(process, radius, spans):
    angles = np.linspace(0, math.pi, 121)
    profile = [(-radius, -1), (radius, -1)]
    profile += [(radius * math.cos(t), radius * math.sin(t) + 2) for t in angles]
    found = ledger_of(block_with_opening(profile, 20), process)
    over = [f for f in found.findings if f.kind in ("overhang", "bridge", "ledge")]
    assert bool(over) == spans
    if spans:
        h, ledge = process.layer_height_mm, process["ledge_mm"]
        chord = 2 * radius * math.sin(math.atan(h / ledge))  # TRADE: where its roof turns flatter
        (crown,) = over
        assert crown.severity == Severity.RISKY
        said = float(crown.text.split(" mm where")[0].split()[-1])
        assert said == pytest.approx(chord, rel=0.15)


# ---- feet ------------------------------------------------------------------------------------


@pytest.mark.parametrize("process", [FDM, METAL], ids=["fdm", "metal"])
def test_small_feet_that_widen_at_once_are_a_neck(process):
    block = cuboid(-20, -20, 6, 20, 20, 46)
    for x in (-14, 14):
        for y in (-14, 14):
            foot = manifold3d.CrossSection.square((1, 1), True).extrude(6, scale_top=(13, 13))
            block += foot.translate((x, y, 0))
    (neck,) = [f for f in ledger_of(block, process).findings if f.kind == "neck"]
    assert neck.layer == 0
    h = process.layer_height_mm
    side = 1 + 2 * (h / 2)  # at the first cut each widens by half a layer a side
    assert neck.area_mm2 == pytest.approx(4 * side**2, rel=1e-6)


def test_what_stands_well_has_no_neck(draws):
    for solid in (cuboid(0, 0, 0, 20, 20, 20), cuboid(0, 0, 0, 10, 10, 100)):
        assert ledger_of(spun(solid, draws), FDM).problems == 0
    vase = Solid.cylinder(150, 40, 40, 96) - Solid.cylinder(150, 39.16, 39.16, 96).translate(
        (0, 0, 0.84)
    )
    assert ledger_of(vase, FDM).problems == 0


# ---- lost in slicing -------------------------------------------------------------------------


def lost_of(solid, draws):
    mesh = mesh_of(spun(solid, draws))
    if draws.random() < 0.5:
        mesh = Mesh(mesh.vertices.astype(np.float32).astype(float), mesh.facets)
    return find_lost(mesh, slice_layers(mesh, 0.2), 0.84, 0.15)


def between_cuts(draws):
    """A height a little above a cut, and a thickness with which the next is not reached."""
    k = int(draws.integers(5, 30))
    return (k + 0.5) * 0.2 + draws.uniform(0.005, 0.06), draws.uniform(0.03, 0.12)


def plate(draws):
    z, t = between_cuts(draws)
    return cuboid(0, 0, 0, 20, 20, 3) + cuboid(30, 0, z, 50, 20, z + t)


def roof(draws):
    z, t = between_cuts(draws)
    return cuboid(-10, -10, 0, 10, 10, z + t) - cuboid(-8, -8, 1, 8, 8, z)


def relief(draws):
    z, t = between_cuts(draws)
    dot = Solid.cylinder(t, draws.uniform(1, 5), -1, 24).translate((draws.uniform(-5, 5), 0, z))
    return cuboid(-15, -15, 0, 15, 15, z) + dot


def recess(draws):
    z, t = between_cuts(draws)
    return cuboid(-15, -15, 0, 15, 15, z + t) - Solid.cylinder(9, 3, 3, 24).translate((0, 0, z))


def slit(draws):
    width, z = draws.uniform(0.01, 0.14), draws.uniform(0, 6)
    return cuboid(-15, -8, 0, 15, 8, 8) - cuboid(0, draws.uniform(-20, 2), z, width, 20, 20)


def level_gap(draws):
    z, t = between_cuts(draws)
    return cuboid(-15, -8, 0, 15, 8, 20) - cuboid(-10, -20, z, 30, 20, z + t)


@pytest.mark.parametrize(
    ("make", "what"),
    [(plate, "body"), (roof, "sheet"), (relief, "step"), (recess, "step"), (slit, "slit"),
     (level_gap, "gap")],
)  # fmt: skip
def test_nothing_is_lost_in_slicing_unsaid(make, what, draws):
    for _ in range(about(40)):
        assert [one.what for one in lost_of(make(draws), draws)] == [what]


def test_crowns_and_what_every_layer_shows_are_not_lost(draws):
    for _ in range(about(40)):
        crown = Solid.sphere(draws.uniform(4, 12), int(draws.integers(12, 80)))
        post = Solid.cylinder(
            draws.uniform(5, 20), draws.uniform(2, 5), draws.uniform(0, 5),
            int(draws.integers(3, 64)),
        ).refine(int(draws.integers(1, 8)))  # fmt: skip
        both = crown.translate((0, 0, draws.uniform(3, 10))) + post.rotate(
            (draws.uniform(0, 40), 0, 0)
        ).translate((30, 0, 0))
        assert lost_of(both.trim_by_plane((0, 0, 1), 0), draws) == ()
    assert lost_of(mesh_to_solid(blob(draws)), draws) == ()


def mesh_to_solid(mesh):
    return Solid(manifold3d.Mesh64(mesh.vertices, mesh.facets.astype(np.uint64)))


def test_a_relief_that_a_cut_meets_is_not_lost(draws):
    for _ in range(about(40)):
        z = (int(draws.integers(5, 30)) + 0.5) * 0.2 - draws.uniform(0.01, 0.08)
        dot = Solid.cylinder(0.1, 3, 3, 24).translate((0, 0, z))
        assert lost_of(cuboid(-15, -15, 0, 15, 15, z) + dot, draws) == ()


# ---- vents -----------------------------------------------------------------------------------


def vented_cup(draws, is_small):
    """A cup, open or closed, with one opening, and how much it holds."""
    r, tall, wall = draws.uniform(6, 12), draws.uniform(6, 14), draws.uniform(1, 2.5)
    wide = draws.uniform(0.02, 1.4) if is_small else draws.uniform(2.05, 4)
    closed = draws.random() < 0.3
    if closed:  # room lower than a ball of that width is not looked at with one
        tall = max(tall, 2 * wall + VENT_MM)
    room = Solid.cylinder(tall - 2 * wall if closed else 3 * tall, r - wall, r - wall, 48)
    cup = Solid.cylinder(tall, r, r, 48) - room.translate((0, 0, wall))
    kind = draws.choice(["slot", "hole", "floor", "window"])
    if kind == "slot":
        tool = Solid.cube((2 * r, wide, 3 * tall)).translate((0, -wide / 2, wall))
        if closed:
            tool ^= Solid.cube((4 * r, 4 * r, tall - 2 * wall)).translate((0, -2 * r, wall))
    elif kind == "hole":
        at = wall + max(wide / 2, 1.05)
        tool = Solid.cylinder(2 * r, wide / 2, wide / 2, 32).rotate((0, 90, 0))
        tool = tool.translate((0, 0, at))
    elif kind == "floor":
        inner = wide / 2 / math.cos(math.pi / 32)
        tool = Solid.cylinder(tall, inner, inner, 32).translate((0, 0, -tall / 2))
    else:
        tool = Solid.cube((2 * r, 6, wide)).translate((0, -3, wall))
    holds = math.pi * (r - wall) ** 2 * (tall - (2 if closed else 1) * wall)
    # Off the plate, so that nothing but its own openings counts.
    return (cup - tool).translate((0, 0, 5)), holds


@pytest.mark.parametrize("is_small", [True, False], ids=["too small", "wide enough"])
def test_an_opening_lets_room_out_from_two_millimetres_on(is_small, draws):
    for _ in range(about(60)):
        cup, holds = vented_cup(draws, is_small)
        found = find_cups(slice_layers(mesh_of(spun(cup, draws)), 0.05), 30.0)
        large = [one for one in found if one.volume_mm3 > 0.5 * holds]
        assert bool(large) == is_small
        if is_small:
            assert large[0].volume_mm3 == pytest.approx(holds, rel=0.5)


def test_room_under_a_blob_is_walled_in_where_no_ball_gets_out(draws):
    """Against a raster of balls' middles, by a general library."""
    for _ in range(about(2)):
        mesh = on_plate(blob(draws, 30.0))
        bowl = mesh_to_solid(mesh) - Solid.sphere(9, 48).translate((0, 0, 2))
        solid = bowl.trim_by_plane((0, 0, 1), 0)
        layers = slice_layers(mesh_of(solid), 0.05)
        found = sum(c.volume_mm3 for c in find_cups(layers, 60.0))
        less, more = (_walled_in_mm3(mesh_of(solid), radius) for radius in (0.7, 1.2))
        assert (found > 0) or less < 60.0
        assert (found == 0) or more > 0.0


def _walled_in_mm3(mesh, radius, step=0.3):
    layers = slice_layers(mesh, step)
    low, high = mesh.vertices.min(axis=0)[:2] - 4, mesh.vertices.max(axis=0)[:2] + 4
    xs, ys = np.meshgrid(*(np.arange(a, b, step) for a, b in zip(low, high, strict=True)),
                         indexing="ij")  # fmt: skip
    solid = [np.ones(xs.shape, bool)]
    for k in range(layers.count):
        inside = np.zeros(xs.shape, bool)
        for loop in outlines(layers, k):
            inside ^= shapely.contains_xy(shapely.Polygon(loop), xs, ys)
        solid.append(inside)
    solid += [np.zeros(xs.shape, bool)] * 8
    free = ndimage.distance_transform_edt(~np.stack(solid, -1), sampling=step) > radius
    label, count = ndimage.label(free)
    outside = set(np.unique(label[:, :, -1]).tolist()) | {0}
    closed = [i for i in range(1, count + 1) if i not in outside]
    return float(np.isin(label, closed).sum() * step**3)


def test_too_small_a_vent_is_named():
    cup = Solid.cylinder(10, 10, 10, 64) - Solid.cylinder(10, 8, 8, 64).translate((0, 0, 2))
    cup -= Solid.cube((20, 0.06, 20)).translate((0, -0.03, 2))
    (found,) = [f for f in ledger_of(cup, RESIN).findings if f.kind == "cup"]
    assert f"less than {VENT_MM:g} mm across" in found.text
    assert found.short.startswith("cup of about")


# ---- small undersides ------------------------------------------------------------------------


def stepped(reaches):
    """A tall block with sloping ledges, 12 mm apart, that reach so far at 30 degrees."""
    solid = cuboid(0, 0, 0, 12, 30, 20 + 14 * len(reaches))
    for i, reach in enumerate(reaches):
        z, up = 10 + 14 * i, reach * math.tan(math.radians(30))
        profile = [(11, z), (12, z), (12 + reach, z + up), (12 + reach, z + up + 2), (11, z + 12)]
        rib = manifold3d.CrossSection([profile]).extrude(8).rotate((90, 0, 0))
        solid += rib.translate((0, 20, 0))
    return solid


def test_small_undersides_are_one_line_and_no_places(draws):
    for _ in range(about(20)):
        small = draws.uniform(0.6, 1.4, int(draws.integers(1, 6))).tolist()
        large = draws.uniform(1.7, 4, int(draws.integers(0, 4))).tolist()
        every = [*small, *large]
        draws.shuffle(every)
        found = ledger_of(spun(stepped(every), draws), FDM)
        (line,) = [f for f in found.findings if f.kind == "small"]
        assert line.severity == Severity.NOTE
        assert int(line.short.split()[0]) == len(small)
        level = sum(small) * 8
        assert line.area_mm2 == pytest.approx(level / math.cos(math.radians(30)), rel=1e-6)
        over = [f for f in found.findings if f.kind == "overhang"]
        assert len(over) == len(large) == len(found.places)
        assert found.problems == len(large)
