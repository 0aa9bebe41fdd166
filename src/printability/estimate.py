"""What a stance costs: grid supports it would need, mass, time. Formulas in docs/inspect.md."""

from dataclasses import dataclass

import numpy as np

from .compiled import compiled
from .layers import Layers
from .mesh import Mesh
from .process import Process
from .surface import SLOPE_TOLERANCE_DEG

__all__ = ["Estimate", "column_volume", "estimate"]

# Columns are sampled at this many across the model's longer side.
_COLUMNS = 240


@dataclass(frozen=True)
class Estimate:
    """Cost of a stance.

    Attributes
    ----------
    grid_support_mm3 : float
        Volume of the columns under what overhangs, down to the plate or to the model below,
        times the density of plain grid supports. Sampled; see `estimate`.
    mass_g, time_s : float
        Of the print with its pillars, without grid supports.
    scar_mm2 : float
        Overhanging area on the show side, which such supports would mark; 0 where none is
        painted.
    """

    grid_support_mm3: float
    mass_g: float
    time_s: float
    scar_mm2: float


def estimate(
    mesh: Mesh,
    slopes_deg: np.ndarray,
    threshold_deg: float,
    layers: Layers,
    process: Process,
    areas_mm2: np.ndarray,
    shown: np.ndarray | None = None,
) -> Estimate:
    """Estimate grid supports, mass and time.

    Grid supports are sampled on upright lines through a square grid of about 240 across.
    Mass is (walls + fill x rest) x density, with walls two lines deep on the whole surface
    and never more than the volume; time is layers x time a layer + material / flow, the
    latter only where the process lays down material along a path.

    Parameters
    ----------
    mesh : Mesh
    slopes_deg : (m,) float
    threshold_deg : float
    layers : Layers
        Of the print, pillars included.
    process : Process
    areas_mm2 : (m,) float
        Of the mesh's facets.
    shown : (m,) bool, optional
        Facets of the show side.
    """  # fmt: skip
    hangs = slopes_deg < threshold_deg - SLOPE_TOLERANCE_DEG
    column = (
        column_volume(mesh.vertices, mesh.facets, len(hangs), hangs, _COLUMNS)
        if hangs.any()
        else 0.0
    )
    volume = float(layers.area_mm2.sum() * layers.layer_height_mm)
    walls = min(volume, float(areas_mm2.sum()) * 2 * process["line_mm"])
    material = walls + (volume - walls) * process["fill"]
    flow = process["flow_mm3_s"]
    return Estimate(
        grid_support_mm3=column * process["grid_density"],
        mass_g=material / 1000 * process["density_g_cm3"],
        scar_mm2=float(areas_mm2[hangs & shown].sum()) if shown is not None else 0.0,
        time_s=layers.count * process["layer_s"] + (material / flow if flow else 0.0),
    )


@compiled
def _left_of(ax, ay, bx, by, x, y, forwards):
    """Whether a point is inside an edge of a facet; on it, by the way the edge runs.

    Computed from the edge's lower end, so that both facets of an edge find the same number.
    """
    if not forwards:
        ax, ay, bx, by = bx, by, ax, ay
    if (ay, ax) <= (by, bx):
        side = (bx - ax) * (y - ay) - (by - ay) * (x - ax)
        return side >= 0
    side = (ax - bx) * (y - by) - (ay - by) * (x - bx)
    return side < 0


@compiled
def column_volume(vertices, facets, count, hangs, columns):
    """Volume between hanging facets and what is next below them, on sampled upright lines.

    The lines stand in the middles of the squares of a grid with so many along the longer side;
    the first ``count`` facets are looked at. mm and mm3.
    """
    x0, y0, x1, y1 = np.inf, np.inf, -np.inf, -np.inf
    for v in range(vertices.shape[0]):
        x0, x1 = min(x0, vertices[v, 0]), max(x1, vertices[v, 0])
        y0, y1 = min(y0, vertices[v, 1]), max(y1, vertices[v, 1])
    cell = max(max(x1 - x0, y1 - y0) / columns, 1e-6)
    nx, ny = int((x1 - x0) / cell) + 1, int((y1 - y0) / cell) + 1
    room = 4 * nx * ny + 64
    column = np.empty(room, np.int64)
    height = np.empty(room)
    up_facing = np.empty(room, np.bool_)
    hits = 0
    per_cell = 1.0 / cell
    gx, gy = np.empty(vertices.shape[0]), np.empty(vertices.shape[0])
    for v in range(vertices.shape[0]):
        gx[v] = (vertices[v, 0] - x0) * per_cell - 0.5
        gy[v] = (vertices[v, 1] - y0) * per_cell - 0.5
    for f in range(count):
        a, b, c = facets[f, 0], facets[f, 1], facets[f, 2]
        ax, bx, cx = gx[a], gx[b], gx[c]
        ay, by, cy = gy[a], gy[b], gy[c]
        i0, i1 = max(int(np.ceil(min(ax, bx, cx))), 0), min(int(max(ax, bx, cx)), nx - 1)
        j0, j1 = max(int(np.ceil(min(ay, by, cy))), 0), min(int(max(ay, by, cy)), ny - 1)
        if i0 > i1 or j0 > j1:
            continue
        twice = (bx - ax) * (cy - ay) - (by - ay) * (cx - ax)
        if twice == 0 or (twice < 0 and not hangs[f]):
            continue
        for i in range(i0, i1 + 1):
            for j in range(j0, j1 + 1):
                # Of two facets that share an edge, a line on the edge meets one.
                if not (
                    _left_of(ax, ay, bx, by, i, j, twice > 0)
                    and _left_of(bx, by, cx, cy, i, j, twice > 0)
                    and _left_of(cx, cy, ax, ay, i, j, twice > 0)
                ):
                    continue
                u = ((i - ax) * (cy - ay) - (j - ay) * (cx - ax)) / twice
                v = ((bx - ax) * (j - ay) - (by - ay) * (i - ax)) / twice
                if hits == room:
                    room *= 2
                    old_column, old_height, old_up = column, height, up_facing
                    column = np.empty(room, np.int64)
                    height = np.empty(room)
                    up_facing = np.empty(room, np.bool_)
                    for p in range(hits):
                        column[p], height[p] = old_column[p], old_height[p]
                        up_facing[p] = old_up[p]
                column[hits] = i * ny + j
                height[hits] = (
                    vertices[a, 2]
                    + u * (vertices[b, 2] - vertices[a, 2])
                    + v * (vertices[c, 2] - vertices[a, 2])
                )
                up_facing[hits] = twice > 0
                hits += 1
    start = np.zeros(nx * ny + 1, np.int64)
    for i in range(hits):
        start[column[i] + 1] += 1
    for c in range(nx * ny):
        start[c + 1] += start[c]
    order = np.empty(hits, np.int64)
    for i in range(hits):  # this moves the start of each column to its end
        order[start[column[i]]] = i
        start[column[i]] += 1
    total = 0.0
    for c in range(nx * ny):
        lo, hi = start[c - 1] if c else 0, start[c]
        for at in range(lo, hi):
            p = order[at]
            if up_facing[p]:
                continue
            floor = 0.0
            for other in range(lo, hi):
                q = order[other]
                if up_facing[q] and floor < height[q] < height[p]:
                    floor = height[q]
            total += height[p] - floor
    return total * cell * cell
