"""The whole look at a placed model: overhang, layers, islands."""

from collections.abc import Callable
from dataclasses import dataclass

from .layers import Island, Layers, find_islands, layers_together, slice_layers
from .mesh import Mesh, joined
from .pillars import FittedPillar, pillar_mesh

__all__ = ["LayerFacts", "layer_facts", "pillar_layers"]


@dataclass(frozen=True, eq=False)
class LayerFacts:
    """What slicing a placed model tells; pillars that stand are part of the layers."""

    layers: Layers
    islands: tuple[Island, ...]


def layer_facts(
    mesh: Mesh,
    layer_height_mm: float,
    pillars: list[FittedPillar] = (),
    model_layers: Layers | None = None,
    progress: Callable[[str, float], None] | None = None,
) -> LayerFacts:
    """Slice a placed model with its pillars and find the islands.

    Parameters
    ----------
    mesh : Mesh
    layer_height_mm : float
    pillars : list of FittedPillar
        Those that stand.
    model_layers : Layers, optional
        The model's own layers where they are known already.
    progress : callable, optional
        Called with the stage's name and the part done; may raise to stop.
    """
    say = progress or (lambda stage, done: None)
    if model_layers is None:
        model_layers = slice_layers(mesh, layer_height_mm, progress)
    layers = model_layers
    if pillars:
        say("Slicing the pillars", 0.75)
        layers = layers_together(model_layers, pillar_layers(pillars, layer_height_mm))
    say("Looking for islands", 0.8)
    return LayerFacts(layers, find_islands(layers))


def pillar_layers(pillars: list[FittedPillar], layer_height_mm: float) -> Layers:
    """The layers of pillars alone, overlaps counted once."""
    return slice_layers(joined([pillar_mesh(pillar) for pillar in pillars]), layer_height_mm)
