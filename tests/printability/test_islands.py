"""Islands against brute force: a 2D geometry library over the reference library's sections."""

import networkx as nx
import numpy as np
import pytest
from shapely import intersects
from shapely.affinity import affine_transform
from shapely.geometry import MultiPolygon
from shapely.ops import unary_union

from printability.layers import find_islands, slice_layers
from printability.mesh import Mesh
from printability.stance import turned
from solids import box, reference, together


def _brute_force(mesh, h):
    """(layer, area, absorbed after) of every island, from the definition alone."""
    count = int(np.ceil(mesh.vertices[:, 2].max() / h - 1e-6))
    heights = (np.arange(count) + 0.5) * h
    regions = []
    for part in reference(mesh).section_multiplane([0, 0, 0], [0, 0, 1], heights):
        if part is None:
            regions.append([])
            continue
        # Sections come in frames of their own; bring them back to the plate's.
        to_plate = part.metadata["to_3D"]
        matrix = [to_plate[0, 0], to_plate[0, 1], to_plate[1, 0], to_plate[1, 1],
                  to_plate[0, 3], to_plate[1, 3]]  # fmt: skip
        shapes = [affine_transform(polygon, matrix) for polygon in part.polygons_full]
        joined = unary_union(shapes)
        regions.append(list(joined.geoms) if isinstance(joined, MultiPolygon) else [joined])
    graph = nx.Graph()
    islands = []
    for k, layer in enumerate(regions):
        for i, region in enumerate(layer):
            graph.add_node((k, i))
            below = [j for j, other in enumerate(regions[k - 1]) if k and intersects(region, other)]
            graph.add_edges_from(((k, i), (k - 1, j)) for j in below)
            if k and not below:
                islands.append((k, i))
    found = []
    for k, i in islands:
        after = None
        for top in range(k, count):
            seen = graph.subgraph(n for n in graph if n[0] <= top)
            if any(n[0] == 0 for n in nx.node_connected_component(seen, (k, i))):
                after = top - k
                break
        found.append((k, round(regions[k][i].area, 3), after))
    return found


@pytest.mark.parametrize(
    "angles", [(0, 0, 0), (180, 0, 0), (90, 0, 0), (0, 90, 0), (40, 25, 0), (-130, 15, 0)]
)
def test_islands_of_an_open_mesh(bunny, angles):
    mesh = turned(bunny, angles)
    found = find_islands(slice_layers(mesh, 1.0))
    ours = [(i.layer, round(i.area_mm2, 3), i.absorbed_after_layers) for i in found]
    assert sorted(ours, key=str) == sorted(_brute_force(mesh, 1.0), key=str)


def test_a_hanging_lug_is_an_island_until_it_joins():
    # An arm at z 10-12 from a post, with a lug hanging from its end down to z = 6.
    post, arm, lug = box(4, 4, 12), box(20, 4, 2, (0, 0, 10)), box(2, 4, 5, (18, 0, 6))
    (island,) = find_islands(slice_layers(together(post, arm, lug), 0.5))
    assert island.layer == 12
    assert island.z_mm == pytest.approx(6.25)
    assert island.area_mm2 == pytest.approx(8)
    assert island.center_mm == pytest.approx((19, 2, 6.25))
    assert island.absorbed_after_layers == 8


def test_what_never_joins_is_said_so_and_islands_may_join_each_other_first():
    floating = box(3, 3, 2, (20, 0, 5))
    legs = [box(2, 2, 4, (x, 20, 6)) for x in (0, 8)]
    yoke = box(10, 2, 2, (0, 20, 10))
    beam = box(2, 24, 2, (0, 0, 12))
    mesh = together(box(4, 4, 14), floating, *legs, yoke, beam)
    found = {i.layer: [] for i in find_islands(slice_layers(mesh, 0.5))}
    for island in find_islands(slice_layers(mesh, 0.5)):
        found[island.layer].append(island.absorbed_after_layers)
    # The floating block never joins; both legs join only through yoke and beam, at layer 24.
    assert found == {10: [None], 12: [12, 12]}


def test_a_model_in_the_air_is_an_island_and_walls_straight_up_are_not():
    slab = together(box(5, 5, 3))
    assert find_islands(slice_layers(slab, 0.2)) == ()
    lifted = Mesh(slab.vertices + (0, 0, 2), slab.facets)
    (island,) = find_islands(slice_layers(lifted, 0.2))
    assert (island.layer, island.absorbed_after_layers) == (10, None)


def test_a_region_in_a_hole_does_not_touch_the_ring_around_it():
    ring = [box(20, 4, 4), box(20, 4, 4, (0, 16, 0)), box(4, 20, 4), box(4, 20, 4, (16, 0, 0))]
    plug = box(4, 4, 6, (8, 8, 2))
    (island,) = find_islands(slice_layers(together(*ring, plug), 0.5))
    assert (island.layer, island.absorbed_after_layers) == (4, None)
