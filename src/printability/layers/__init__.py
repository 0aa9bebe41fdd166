"""The model layer by layer: slices, areas, islands, what hangs, how it grows, what is thin."""

from ._tearing import EVERY, least_cuts
from ._united import union_of_loops
from .cavities import VENT_MM, Cup, find_cups
from .dots import find_dots
from .growth import (
    Jump,
    Neck,
    Peak,
    find_jumps,
    find_necks,
    grip_of_layers,
    peak_layer,
    underside_areas,
    worst_grip,
)
from .islands import Island, find_islands, island_weight
from .levels import hair_mm, layer_count, levels
from .lost import Lost, find_lost
from .openings import FLAT_DEG, STEP, Opening, look_at_openings, openings_above
from .plane import PlaneSection, plane_section
from .slicing import (
    THREADS,
    Layers,
    coarser,
    goes_beyond,
    layers_together,
    outline_at,
    outlines,
    region_loops,
    section_at,
    slice_layers,
    without_straight,
)
from .spans import Hanging, edges_of_loops, hanging_parts, layers_that_reach
from .support import LayerPicture, layer_picture
from .tearing import SAFE, SPECK_MM2, Tear, find_tears, ties_mm2, torn_regions
from .thin import ThinWall, find_thin_walls, thin_places_of_layer
from .tug import Tug, tug_of_war

__all__ = [
    "EVERY",
    "FLAT_DEG",
    "SAFE",
    "SPECK_MM2",
    "STEP",
    "THREADS",
    "VENT_MM",
    "Cup",
    "Hanging",
    "Island",
    "Jump",
    "LayerPicture",
    "Layers",
    "Lost",
    "Neck",
    "Opening",
    "Peak",
    "PlaneSection",
    "Tear",
    "ThinWall",
    "Tug",
    "coarser",
    "edges_of_loops",
    "find_cups",
    "find_dots",
    "find_islands",
    "find_jumps",
    "find_lost",
    "find_necks",
    "find_tears",
    "find_thin_walls",
    "goes_beyond",
    "grip_of_layers",
    "hair_mm",
    "hanging_parts",
    "island_weight",
    "layer_count",
    "layer_picture",
    "layers_that_reach",
    "layers_together",
    "least_cuts",
    "levels",
    "look_at_openings",
    "openings_above",
    "outline_at",
    "outlines",
    "peak_layer",
    "plane_section",
    "region_loops",
    "section_at",
    "slice_layers",
    "thin_places_of_layer",
    "ties_mm2",
    "torn_regions",
    "tug_of_war",
    "underside_areas",
    "union_of_loops",
    "without_straight",
    "worst_grip",
]
