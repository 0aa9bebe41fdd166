"""The model layer by layer: slices, areas, islands, what hangs, how it grows, what is thin."""

from .cavities import Cup, find_cups
from .growth import (
    Jump,
    Neck,
    Peak,
    find_jumps,
    find_necks,
    grip_of_layers,
    peak_layer,
    worst_grip,
)
from .islands import Island, find_islands, island_weight
from .plane import PlaneSection, plane_section
from .slicing import (
    Layers,
    layer_count,
    layers_together,
    outline_at,
    outlines,
    perimeters_mm,
    region_loops,
    slice_layers,
)
from .spans import Hanging, hanging_parts, opening_below
from .support import LayerPicture, layer_picture
from .thin import ThinWall, find_thin_walls, thin_places_of_layer

__all__ = [
    "Cup",
    "Hanging",
    "Island",
    "Jump",
    "LayerPicture",
    "Layers",
    "Neck",
    "Peak",
    "PlaneSection",
    "ThinWall",
    "find_cups",
    "find_islands",
    "find_jumps",
    "find_necks",
    "find_thin_walls",
    "grip_of_layers",
    "hanging_parts",
    "island_weight",
    "layer_count",
    "layer_picture",
    "layers_together",
    "opening_below",
    "outline_at",
    "outlines",
    "peak_layer",
    "perimeters_mm",
    "plane_section",
    "region_loops",
    "slice_layers",
    "thin_places_of_layer",
    "worst_grip",
]
