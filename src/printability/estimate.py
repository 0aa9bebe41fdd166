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
def _edge(ax, ay, bx, by, forwards):
    """An edge of a facet from its lower end, and whether what is inside lies to its right.

    From the lower end, so that both facets of an edge find the same number for a point; a point
    on it is inside of one of them.
    """
    if not forwards:
        ax, ay, bx, by = bx, by, ax, ay
    if ay < by or (ay == by and ax <= bx):
        return ax, ay, bx - ax, by - ay, False
    return bx, by, ax - bx, ay - by, True


@compiled
def _inside(edge, across, y):
    """Whether a point is inside of an edge; ``across`` is the share of its x."""
    _, ay, dx, _, right = edge
    return (dx * (y - ay) - across >= 0) != right


@compiled
def _edge_at(x, ax, ay, bx, by, low, high):
    """A span of y widened by where an edge passes a line of that x, if it does."""
    if min(ax, bx) > x or max(ax, bx) < x:
        return low, high
    if abs(bx - ax) < 1e-6:  # along the line: where it passes is not known well
        return min(low, ay, by), max(high, ay, by)
    y = ay + (x - ax) / (bx - ax) * (by - ay)
    return min(low, y), max(high, y)


@compiled
def _span_at(x, ax, ay, bx, by, cx, cy):
    """Least and greatest y of a facet on a line of that x."""
    low, high = _edge_at(x, ax, ay, bx, by, np.inf, -np.inf)
    low, high = _edge_at(x, bx, by, cx, cy, low, high)
    return _edge_at(x, cx, cy, ax, ay, low, high)


@compiled
def _meet(facets, count, hangs, gx, gy, z, ny, last, up, f, column, height, after, hits):
    """Note where upright lines meet facets, from facet ``f`` on, as long as there is room.

    Those that hang, or those that face up where something hangs. Where lines of a square of the
    grid met before is chained: ``last`` of a square, ``after`` of a meeting; -2 where nothing
    hangs, -1 at the end. Returns the facet that found no room, and how many meetings there are.
    """
    nx = len(last) // ny
    while f < count:
        if not (up or hangs[f]):
            f += 1
            continue
        a, b, c = facets[f, 0], facets[f, 1], facets[f, 2]
        ax, bx, cx = gx[a], gx[b], gx[c]
        ay, by, cy = gy[a], gy[b], gy[c]
        twice = (bx - ax) * (cy - ay) - (by - ay) * (cx - ax)
        i0, i1 = max(int(np.ceil(min(ax, bx, cx))), 0), min(int(np.floor(max(ax, bx, cx))), nx - 1)
        j0, j1 = max(int(np.ceil(min(ay, by, cy))), 0), min(int(np.floor(max(ay, by, cy))), ny - 1)
        if i0 > i1 or j0 > j1 or twice == 0 or (twice > 0) != up:
            f += 1
            continue
        if hits + (i1 - i0 + 1) * (j1 - j0 + 1) > len(column):
            break
        ab, bc = _edge(ax, ay, bx, by, up), _edge(bx, by, cx, cy, up)
        ca = _edge(cx, cy, ax, ay, up)
        rise_b, rise_c = (z[b] - z[a]) / twice, (z[c] - z[a]) / twice
        along_x = rise_b * (cy - ay) - rise_c * (by - ay)
        along_y = rise_c * (bx - ax) - rise_b * (cx - ax)
        for i in range(i0, i1 + 1):
            first, to = j0, j1
            if j1 > j0 + 1:
                low, high = _span_at(i, ax, ay, bx, by, cx, cy)
                first, to = max(int(low), j0), min(int(high) + 1, j1)
            of_ab, of_bc = ab[3] * (i - ab[0]), bc[3] * (i - bc[0])
            of_ca = ca[3] * (i - ca[0])
            for j in range(first, to + 1):
                here = i * ny + j
                if up and last[here] == -2:
                    continue
                # Of two facets that share an edge, a line on the edge meets one.
                if not (_inside(ab, of_ab, j) and _inside(bc, of_bc, j) and _inside(ca, of_ca, j)):
                    continue
                column[hits] = here
                height[hits] = z[a] + along_x * (i - ax) + along_y * (j - ay)
                if up:
                    after[hits] = last[here]
                    last[here] = hits
                else:
                    last[here] = -1
                hits += 1
        f += 1
    return f, hits


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
    per_cell = 1.0 / cell
    gx, gy = np.empty(vertices.shape[0]), np.empty(vertices.shape[0])
    z = np.empty(vertices.shape[0])
    for v in range(vertices.shape[0]):
        gx[v] = (vertices[v, 0] - x0) * per_cell - 0.5
        gy[v] = (vertices[v, 1] - y0) * per_cell - 0.5
        z[v] = vertices[v, 2]
    room = 4 * nx * ny + 64
    column, height = np.empty(room, np.int64), np.empty(room)
    after = np.empty(room, np.int64)
    last = np.full(nx * ny, -2, np.int64)
    hits = hanging = 0
    # What hangs first, then what faces up below it.
    for up in (False, True):
        f = 0
        while True:
            f, hits = _meet(
                facets, count, hangs, gx, gy, z, ny, last, up, f, column, height, after, hits
            )
            if f == count:
                break
            more = room + nx * ny
            column = np.append(column, np.empty(more, np.int64))
            height = np.append(height, np.empty(more))
            after = np.append(after, np.empty(more, np.int64))
            room += more
        if not up:
            hanging = hits
    total = 0.0
    for p in range(hanging):
        floor, at = 0.0, last[column[p]]
        while at >= 0:
            if floor < height[at] < height[p]:
                floor = height[at]
            at = after[at]
        total += height[p] - floor
    return total * cell * cell
