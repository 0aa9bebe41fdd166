"""Overhanging facets and the patches they make.

A facet overhangs when its outward normal points down and its slope, the angle to the plate,
is below the threshold; a slope at the threshold prints. Facets resting on the plate do not
overhang.
"""

from dataclasses import dataclass

import numpy as np

from ..layers import hair_mm
from ..mesh import Mesh, facet_areas
from . import _kernels

__all__ = [
    "SLOPE_TOLERANCE_DEG",
    "Overhang",
    "Patch",
    "find_overhang",
    "joined_patches",
    "underside_slopes",
]

# A slope this little below the threshold still counts as at it (rounding of coordinates).
SLOPE_TOLERANCE_DEG = 0.01


@dataclass(frozen=True)
class Patch:
    """Overhanging facets joined along edges; ``id`` counts from 1, largest area first.

    A flight of steps is one patch; ``steps`` counts its treads, 1 for all others.
    """

    id: int
    area_mm2: float
    min_slope_deg: float
    lowest_z_mm: float
    center_mm: tuple[float, float, float]
    steps: int = 1


@dataclass(frozen=True, eq=False)
class Overhang:
    """All overhang of a placed model at one threshold.

    Attributes
    ----------
    area_mm2 : float
        Sum of the patches' areas, measured on the surface.
    patches : tuple of Patch
    patch_of_facet : (m,) int32
        The id of each facet's patch, 0 for facets that do not overhang.
    """

    area_mm2: float
    patches: tuple[Patch, ...]
    patch_of_facet: np.ndarray


def underside_slopes(mesh: Mesh, layer_height_mm: float) -> np.ndarray:
    """Slope of every facet that faces down and does not rest on the plate.

    Parameters
    ----------
    mesh : Mesh
        Placed, the plate at z = 0.
    layer_height_mm : float
        A facet whose vertices all lie below the first layer's cut rests on the plate.

    Returns
    -------
    (m,) float64
        Degrees from the plate, 0 for a flat underside; infinite for facets that face
        sideways or up, rest on the plate, or have no area.
    """
    hair = hair_mm(layer_height_mm, float(mesh.vertices[:, 2].max(initial=0.0)), mesh.grain_mm)
    return _kernels.slopes_of_undersides(mesh.vertices, mesh.facets, layer_height_mm, hair)


def find_overhang(
    mesh: Mesh, slopes_deg: np.ndarray, threshold_deg: float, areas_mm2: np.ndarray | None = None
) -> Overhang:
    """Overhang patches for a threshold.

    Parameters
    ----------
    mesh : Mesh
    slopes_deg : (m,) float
        From `underside_slopes`, so that a changed threshold costs little.
    threshold_deg : float
    areas_mm2 : (m,) float, optional
        Facet areas where they are known already.
    """
    if areas_mm2 is None:
        areas_mm2 = facet_areas(mesh)
    limit = threshold_deg - SLOPE_TOLERANCE_DEG
    label, rows = _kernels.flood_patches(
        mesh.vertices, mesh.facets, mesh.twin, slopes_deg, limit, areas_mm2
    )
    return _numbered(label, np.c_[rows, np.ones(len(rows))])


def joined_patches(overhang: Overhang, group: np.ndarray) -> Overhang:
    """The same overhang with patches of one group joined.

    Parameters
    ----------
    overhang : Overhang
    group : (p,) int
        The group of each patch, numbered from 0 without gaps.
    """
    count = int(group.max(initial=-1)) + 1
    rows = np.zeros((count, 7))
    rows[:, 1:3] = np.inf
    for patch, g in zip(overhang.patches, group.tolist(), strict=True):
        row = rows[g]
        row[0] += patch.area_mm2
        row[1] = min(row[1], patch.min_slope_deg)
        row[2] = min(row[2], patch.lowest_z_mm)
        row[3:6] += patch.area_mm2 * np.array(patch.center_mm)
        row[6] += patch.steps
    return _numbered(np.append(-1, group)[overhang.patch_of_facet], rows)


def _numbered(label: np.ndarray, rows: np.ndarray) -> Overhang:
    """Patches numbered by area, from rows of area, least slope, lowest height, moments, steps."""
    order = np.argsort(-rows[:, 0], kind="stable")
    id_of_label = np.zeros(len(rows) + 1, np.int32)  # the last entry serves label -1
    id_of_label[order] = np.arange(1, len(rows) + 1)
    patches = tuple(
        Patch(
            id=number,
            area_mm2=float(area),
            min_slope_deg=float(slope),
            lowest_z_mm=float(lowest),
            center_mm=tuple(float(c / max(area, 1e-300)) for c in moment),
            steps=int(steps),
        )
        for number, (area, slope, lowest, *moment, steps) in enumerate(rows[order], start=1)
    )
    return Overhang(float(rows[:, 0].sum()), patches, id_of_label[label])
