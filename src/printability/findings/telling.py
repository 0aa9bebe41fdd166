"""A finding and a place as plain data: the one description for the page and for scripts."""

import math

from .base import Finding
from .places import Place

__all__ = ["place_told", "told"]


def told(finding: Finding) -> dict:
    """What is said of a finding; ``measure`` is None where it is infinite."""
    return {
        "id": finding.id,
        "kind": finding.kind,
        "severity": finding.severity.label,
        "title": finding.title,
        "short": finding.short,
        "measure": finding.measure if math.isfinite(finding.measure) else None,
        "limit": finding.limit,
        "unit": finding.unit,
        "layer": finding.layer,
        "z_mm": finding.z_mm,
        "center_mm": finding.center_mm,
        "area_mm2": finding.area_mm2,
        "pillars": finding.pillars,
        "text": finding.text,
        "why": finding.why,
        "burden": finding.burden,
        "patch": finding.patch,
        "accepted": finding.accepted,
    }


def place_told(place: Place) -> dict:
    """What is said of a place."""
    return {
        "id": place.id,
        "number": place.number,
        "title": place.worst.short,
        "kind": place.worst.kind,
        "severity": place.severity.label,
        "accepted": place.is_accepted,
        "z_mm": place.z_mm,
        "center_mm": place.center_mm,
        "area_mm2": place.area_mm2,
        "findings": [finding.id for finding in place.findings],
        "patches": place.patches,
    }
