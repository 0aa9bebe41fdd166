"""What a closer look at overhang patches tells, and the dots that hold them from below."""

import math
from dataclasses import dataclass, field, replace

import numpy as np

from .arches import Arches
from .layers import FLAT_DEG, levels
from .mesh import Mesh, facet_boxes, first_hits
from .process import Process
from .supports import Contact
from .surface import Overhang, Patch, level_run_mm, patch_form

__all__ = ["SPECK_MM2", "PatchLook", "dots_under", "look_at_patches"]

# Patches smaller than this are not looked at one by one, mm2 (from memory).
SPECK_MM2 = 0.5
# An edge curls by a layer for each so many degrees below the threshold (from memory).
_CURL_DEG = 15.0
# Around a dot undersides are looked for in so many ways, so far beside it, mm.
_AROUND, _BESIDE_DOT_MM = 8, 0.5


@dataclass(frozen=True)
class PatchLook:
    """What a closer look at an overhang patch tells.

    Attributes
    ----------
    patch : Patch
    form : str
        ``area``, ``edge`` or ``point``.
    prints : str
        Why nothing has to be done, empty where something has: ``arch`` (closes gradually),
        ``step`` (a flat step, judged by its span or reach instead), ``speck``, ``small`` (within
        the ledge limit of what holds it).
    run_mm : float
        How far it reaches, level, from what holds it; infinite over the ledge limit.
    strikes : bool
        Whether its edge curls up by more than a layer, where the process minds.
    span_mm : float
        Of an arch that is too wide, of which this is the crown; 0 where it is none.
    facets : (k,) int
        Those that hang: roofs that close an opening gradually are left out, and ``patch`` measures
        the others.
    """

    patch: Patch
    form: str
    prints: str
    run_mm: float
    strikes: bool
    span_mm: float
    facets: np.ndarray = field(repr=False)


def look_at_patches(
    mesh: Mesh, overhang: Overhang, threshold_deg: float, process: Process,
    slopes_deg: np.ndarray, areas_mm2: np.ndarray, hair_mm: float, arches: Arches,
) -> list[PatchLook]:  # fmt: skip
    """A closer look at each patch, in their order.

    Parameters
    ----------
    mesh : Mesh
    overhang : Overhang
        At the threshold.
    threshold_deg : float
    process : Process
    slopes_deg, areas_mm2 : (m,) float
        Of all facets.
    hair_mm : float
        See `layers.levels`.
    arches : Arches
        Of the same mesh.
    """
    order = np.argsort(overhang.patch_of_facet, kind="stable")
    ends = np.searchsorted(overhang.patch_of_facet[order], np.arange(len(overhang.patches) + 2))
    level = levels(mesh.vertices[:, 2], process.layer_height_mm, hair_mm)[:, None]
    low, high = (of[:, 0] for of in facet_boxes(level, mesh.facets))
    found: dict[int, str] = {}
    asked: dict[int, np.ndarray] = {}
    for patch in overhang.patches:
        facets = order[ends[patch.id] : ends[patch.id + 1]]
        if patch.area_mm2 < SPECK_MM2:
            found[patch.id] = "speck"
        elif patch.steps == 1 and high[facets].max() - low[facets].min() <= int(
            slopes_deg[facets].max() < FLAT_DEG  # a flat one may straddle a cut
        ):
            found[patch.id] = "step"
        else:
            asked[patch.id] = facets
    roofs = arches.of_patches(asked, threshold_deg)
    found |= {number: "arch" for number, (is_roof, _) in roofs.items() if is_roof.all()}
    looks = []
    for patch in overhang.patches:
        facets = order[ends[patch.id] : ends[patch.id + 1]]
        why, span, own = found.get(patch.id, ""), 0.0, patch
        if patch.id in roofs and not why:  # what is no roof hangs by itself
            is_roof, span = roofs[patch.id]
            facets = facets[~is_roof]
            own = _part_of(patch, mesh, facets, slopes_deg, areas_mm2)
            why = "arch" if own.area_mm2 < SPECK_MM2 else why
        form, run = ("point" if why == "speck" else "area"), math.inf
        if why != "speck" and own.steps == 1:
            form = patch_form(mesh, facets, process["line_mm"])
            run = level_run_mm(mesh, facets, process["ledge_mm"])
        strikes = form == "edge" and _strikes(process, own, run, threshold_deg)
        if not why and run < math.inf and not strikes:
            why = "small"
        looks.append(PatchLook(own, form, why, run, strikes, span, facets))
    return looks


def _strikes(process: Process, patch: Patch, run_mm: float, threshold_deg: float) -> bool:
    """Whether an edge curls up by more than a layer, where the process minds.

    By a layer for each so many degrees below the threshold, less where it is short (from memory).
    """
    if not process.words.get("edge"):
        return False
    run = min(1.0, run_mm / process["ledge_mm"])
    return max(threshold_deg - patch.min_slope_deg, 0.0) / _CURL_DEG * run > 1


def _part_of(patch: Patch, mesh: Mesh, facets, slopes_deg, areas_mm2) -> Patch:
    """What some facets of a patch come to, as a patch of its number."""
    areas, corners = areas_mm2[facets], mesh.vertices[mesh.facets[facets]]
    middle = areas @ corners.mean(axis=1) / max(areas.sum(), 1e-300)
    return replace(
        patch, area_mm2=float(areas.sum()),
        min_slope_deg=float(slopes_deg[facets].min(initial=90.0)),
        lowest_z_mm=float(corners[:, :, 2].min(initial=math.inf)),
        center_mm=tuple(float(v) for v in middle),
    )  # fmt: skip


def dots_under(
    mesh: Mesh, overhang: Overhang, slopes_deg: np.ndarray, layer_height_mm: float,
    layer: np.ndarray, center_mm: np.ndarray, area_mm2: np.ndarray,
) -> list[Contact]:  # fmt: skip
    """Dots, as `layers.find_dots` gives them, as contacts: one for each patch around."""
    if not len(layer):
        return []
    h, radius = layer_height_mm, np.sqrt(area_mm2 / np.pi)
    angles = 2 * np.pi * np.arange(_AROUND) / _AROUND
    ways = np.stack([np.cos(angles), np.sin(angles)], axis=1)
    places = center_mm[:, None] + (radius + _BESIDE_DOT_MM)[:, None, None] * ways
    # From where the tip is no wider yet than it is told apart from what lies around it.
    z = np.repeat((layer - 1.5) * h, _AROUND)
    facets = first_hits(mesh.index, np.c_[places.reshape(-1, 2), z], (0.0, 0.0, 1.0), 0.0)
    found: dict[tuple[int, int], Contact] = {}
    for i, facet in enumerate(facets.tolist()):
        patch, dot = int(overhang.patch_of_facet[facet]) if facet >= 0 else 0, i // _AROUND
        if not patch or (dot, patch) in found:
            continue
        if mesh.vertices[mesh.facets[facet], 2].min() <= layer[dot] * h + _BESIDE_DOT_MM:
            found[dot, patch] = Contact(
                (float(center_mm[dot, 0]), float(center_mm[dot, 1]), float(layer[dot] * h)),
                float(2 * radius[dot]), float(slopes_deg[facet]), int(facet),
            )  # fmt: skip
    return list(found.values())
