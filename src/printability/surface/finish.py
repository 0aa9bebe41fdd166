"""How rough each face will be: steps between layers."""

import math
from dataclasses import dataclass

import numpy as np

from ..mesh import Mesh
from ..process import Process
from . import _kernels

__all__ = ["Finish", "cusp_height_mm", "find_finish", "step_run_mm"]


@dataclass(frozen=True, eq=False)
class Finish:
    """Area by band of slope.

    Attributes
    ----------
    rough_mm2 : float
        In the band where steps show most.
    bands_mm2 : dict
        ``flat`` (below the rough band), ``rough``, ``best``, ``steep``.
    is_rough : (m,) bool
    slope_deg : (m,) float
        Of every facet, 0 to 90 whichever way it faces.
    """

    rough_mm2: float
    bands_mm2: dict[str, float]
    is_rough: np.ndarray
    slope_deg: np.ndarray


def step_run_mm(slope_deg: float, layer_height_mm: float, pixel_mm: float = 0.0) -> float:
    """Length of a step along the plate on a face of some slope.

    h / tan s; where the process draws pixels, the pixel's own steps p tan s count too.
    """
    tan = math.tan(math.radians(slope_deg))
    run = layer_height_mm / tan if tan else math.inf
    return max(run, pixel_mm * tan)


def cusp_height_mm(slope_deg: float, layer_height_mm: float) -> float:
    """Depth of the steps below the face: h cos s (Dolenc and Mäkelä 1994, from memory)."""
    return layer_height_mm * math.cos(math.radians(slope_deg))


def find_finish(mesh: Mesh, process: Process, counted: np.ndarray | None = None) -> Finish:
    """Areas by slope, of faces that face up or down alike.

    Parameters
    ----------
    mesh : Mesh
        Placed.
    process : Process
    counted : (m,) bool, optional
        Facets to count, such as those of the show side.
    """
    slope, area = _kernels.slopes_and_areas(mesh.vertices, mesh.facets)
    if counted is not None:
        area = np.where(counted, area, 0.0)
    low, high = process["rough_from_deg"], process["rough_to_deg"]
    is_rough = (slope >= low) & (slope <= high) & (area > 0)
    bands = {
        "flat": float(area[slope < low].sum()),
        "rough": float(area[is_rough].sum()),
        "best": float(area[(slope > high) & (slope <= 60)].sum()),
        "steep": float(area[slope > 60].sum()),
    }
    return Finish(bands["rough"], bands, is_rough, slope)
