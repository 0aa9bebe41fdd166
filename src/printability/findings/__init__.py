"""The ledger: every problem with its place, its measure, the rule it breaks, and why it matters.

One file a kind, registered in `KINDS`; a new kind is one such file, imported here.
"""

from .alone import alone
from .base import FAR_OVER, HANGING, KINDS, Case, Finding, Kind, Severity, case_of
from .buckle import buckles
from .cup import cups
from .fault import faults
from .footing import corner_lift, footing, wobble
from .hold import dragged, holds
from .island import islands
from .jump import jumps
from .ledger import Ledger, find
from .lost import lost
from .machine import off_plate
from .neck import necks
from .overhang import patch_unheld, patches
from .places import Place
from .rough import ROUGH_LISTED_MM2, rough_faces
from .small import small_undersides
from .spans import (
    beside,
    bridges,
    ledges,
    part_unheld,
    places_in,
    places_unheld,
    unheld_along,
)
from .sway import sways
from .telling import place_told, told
from .thin import thin_walls

__all__ = [
    "FAR_OVER",
    "HANGING",
    "KINDS",
    "ROUGH_LISTED_MM2",
    "Case",
    "Finding",
    "Kind",
    "Ledger",
    "Place",
    "Severity",
    "alone",
    "beside",
    "bridges",
    "buckles",
    "case_of",
    "corner_lift",
    "cups",
    "dragged",
    "faults",
    "find",
    "footing",
    "holds",
    "islands",
    "jumps",
    "ledges",
    "lost",
    "necks",
    "off_plate",
    "part_unheld",
    "patch_unheld",
    "patches",
    "place_told",
    "places_in",
    "places_unheld",
    "rough_faces",
    "small_undersides",
    "sways",
    "thin_walls",
    "told",
    "unheld_along",
    "wobble",
]
