"""Supports modelled by hand: anchored to the surface, fitted to the part as it stands, checked."""

from .graph import (
    KINDS,
    Contact,
    End,
    Fit,
    Fitted,
    OnModel,
    OnPlate,
    OnSupport,
    Rod,
    Solid,
    Support,
    SupportKind,
    World,
    fit_all,
    registered_kind,
)
from .pillar import PillarSize, fit_pillar, pillar_on, resized, size_for

__all__ = [
    "KINDS",
    "Contact",
    "End",
    "Fit",
    "Fitted",
    "OnModel",
    "OnPlate",
    "OnSupport",
    "PillarSize",
    "Rod",
    "Solid",
    "Support",
    "SupportKind",
    "World",
    "fit_all",
    "fit_pillar",
    "pillar_on",
    "registered_kind",
    "resized",
    "size_for",
]
