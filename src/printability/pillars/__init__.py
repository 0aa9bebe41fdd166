"""Pillars modelled by hand: anchored to the surface, fitted to the plate, checked."""

from .pillar import (
    Fit,
    FittedPillar,
    PillarSize,
    PillarSpec,
    fit_pillar,
    pillar_mesh,
    resized,
    size_for,
)

__all__ = [
    "Fit",
    "FittedPillar",
    "PillarSize",
    "PillarSpec",
    "fit_pillar",
    "pillar_mesh",
    "resized",
    "size_for",
]
