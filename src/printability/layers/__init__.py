"""The model layer by layer: slices, areas, islands, what is unsupported."""

from .islands import Island, find_islands
from .slicing import Layers, layer_count, layers_together, outlines, slice_layers
from .support import LayerPicture, layer_picture

__all__ = [
    "Island",
    "LayerPicture",
    "Layers",
    "find_islands",
    "layer_count",
    "layer_picture",
    "layers_together",
    "outlines",
    "slice_layers",
]
