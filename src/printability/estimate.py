"""What a stance costs: grid supports it would need, mass, time. Formulas in docs/inspect.md."""

from dataclasses import dataclass

import numpy as np
from numba import njit

from .layers import Layers
from .mesh import Mesh
from .process import Process
from .surface import SLOPE_TOLERANCE_DEG

__all__ = ["Estimate", "estimate"]

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
    span = np.ptp(mesh.vertices[:, :2], axis=0)
    cell = max(float(span.max()) / _COLUMNS, 1e-6)
    hangs = slopes_deg < threshold_deg - SLOPE_TOLERANCE_DEG
    column = _column_volume(mesh.vertices, mesh.facets, hangs, cell) if hangs.any() else 0.0
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


@njit(cache=True, nogil=True)
def _column_volume(vertices, facets, hangs, cell):
    """Volume between hanging facets and what is next below them, on sampled upright lines."""
    x0, y0 = vertices[:, 0].min(), vertices[:, 1].min()
    nx = int((vertices[:, 0].max() - x0) / cell) + 1
    ny = int((vertices[:, 1].max() - y0) / cell) + 1
    count = np.zeros(nx * ny + 1, np.int64)
    where = np.empty(0, np.int64)
    height = np.empty(0)
    kind = np.empty(0, np.int8)
    for round_ in range(2):
        if round_ == 1:
            for c in range(nx * ny):
                count[c + 1] += count[c]
            where = count[:-1].copy()
            height = np.empty(count[nx * ny])
            kind = np.empty(count[nx * ny], np.int8)
        for f in range(facets.shape[0]):
            a, b, c = facets[f, 0], facets[f, 1], facets[f, 2]
            ax, ay = (vertices[a, 0] - x0) / cell - 0.5, (vertices[a, 1] - y0) / cell - 0.5
            bx, by = (vertices[b, 0] - x0) / cell - 0.5, (vertices[b, 1] - y0) / cell - 0.5
            cx, cy = (vertices[c, 0] - x0) / cell - 0.5, (vertices[c, 1] - y0) / cell - 0.5
            twice = (bx - ax) * (cy - ay) - (by - ay) * (cx - ax)
            if twice == 0:
                continue
            up = twice > 0
            if not up and not hangs[f]:
                continue
            i0, i1 = (
                max(int(np.ceil(min(ax, bx, cx))), 0),
                min(int(np.floor(max(ax, bx, cx))), nx - 1),
            )
            j0, j1 = (
                max(int(np.ceil(min(ay, by, cy))), 0),
                min(int(np.floor(max(ay, by, cy))), ny - 1),
            )
            for i in range(i0, i1 + 1):
                for j in range(j0, j1 + 1):
                    u = ((i - ax) * (cy - ay) - (j - ay) * (cx - ax)) / twice
                    v = ((bx - ax) * (j - ay) - (by - ay) * (i - ax)) / twice
                    if u < 0 or v < 0 or u + v > 1:
                        continue
                    if round_ == 0:
                        count[i * ny + j + 1] += 1
                    else:
                        at = where[i * ny + j]
                        height[at] = (
                            vertices[a, 2]
                            + u * (vertices[b, 2] - vertices[a, 2])
                            + v * (vertices[c, 2] - vertices[a, 2])
                        )
                        kind[at] = 1 if up else 0
                        where[i * ny + j] = at + 1
    total = 0.0
    for c in range(nx * ny):
        lo, hi = count[c], count[c + 1]
        for p in range(lo, hi):
            if kind[p] == 1:
                continue
            floor = 0.0
            for q in range(lo, hi):
                if kind[q] == 1 and floor < height[q] < height[p]:
                    floor = height[q]
            total += height[p] - floor
    return total * cell * cell
