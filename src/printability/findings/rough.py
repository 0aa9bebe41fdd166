"""Faces on which layers show most."""

from collections.abc import Iterator

import numpy as np

from ..surface import cusp_height_mm, step_run_mm
from .base import Case, Finding, Severity, kind

# Rough faces below this area are not listed, mm² (from memory).
ROUGH_LISTED_MM2 = 20.0


@kind("rough", "Rough faces", 120, "whole")
def rough_faces(case: Case) -> Iterator[Finding]:
    """The rough faces of the show side, or of all where none is painted."""
    finish = case.look.finish
    if finish.rough_mm2 < ROUGH_LISTED_MM2:
        return
    rough = np.flatnonzero(finish.is_rough)
    mesh = case.look.mesh
    area = case.look.areas_mm2[rough]
    middle = mesh.vertices[mesh.facets[rough]].mean(axis=1)
    center = tuple(float(v) for v in area @ middle / area.sum())
    low, high = case.rule["rough_from_deg"], case.rule["rough_to_deg"]
    shown = case.look.shown is not None
    slope = float(area @ finish.slope_deg[rough] / area.sum())
    h = case.look.process.layer_height_mm
    run = step_run_mm(slope, h, case.rule["pixel_mm"])
    yield Finding(
        id="rough-1", kind="rough", severity=Severity.MARKS if shown else Severity.NOTE,
        title="Rough show side" if shown else "Rough faces",
        short=f"{finish.rough_mm2:,.0f} mm² rough",
        measure=finish.rough_mm2, limit=ROUGH_LISTED_MM2, unit="mm²",
        layer=case.look.layer_at(center[2]), z_mm=center[2], center_mm=center,
        text=f"{finish.rough_mm2:,.0f} mm²{' of the show side' if shown else ''} slope between "
        f"{low:g}° and {high:g}°; at their mean of {slope:.0f}°, steps are {run:.1f} mm long and "
        f"{cusp_height_mm(slope, h):.2f} mm deep.",
        why="Layers show most on such faces; 30° to 60° looks best, and flat is fine.",
        burden=finish.rough_mm2, area_mm2=finish.rough_mm2,
    )  # fmt: skip
