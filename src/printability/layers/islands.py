"""Islands: parts of a layer that begin on nothing, and when they join what stands."""

from dataclasses import dataclass

from . import _joining
from .slicing import Layers

__all__ = ["Island", "find_islands", "island_weight"]


@dataclass(frozen=True)
class Island:
    """A connected region of layer ``layer`` >= 1 that does not touch the layer below.

    ``absorbed_after_layers`` counts from its own layer to the one in which it is joined with
    something that stands on the plate; None if it never is. ``lasts_layers`` is the same, or
    how many layers it has where it ends without joining. ``region`` is its number among the
    regions of the layers.
    """

    id: int
    layer: int
    z_mm: float
    center_mm: tuple[float, float, float]
    area_mm2: float
    absorbed_after_layers: int | None
    lasts_layers: int
    region: int


def island_weight(islands: tuple[Island, ...], half_layers: float) -> float:
    """Islands, each counted by how long it lasts.

    One that lasts n layers counts n / (n + ``half_layers``): half where it lasts as long as is
    usually harmless, nearly one where it lasts long.
    """
    return sum(i.lasts_layers / (i.lasts_layers + half_layers) for i in islands)


def find_islands(layers: Layers) -> tuple[Island, ...]:
    """All islands, from the bottom up; regions that only touch along an outline count as held."""
    which, after, _, lasts, _, _ = _joining.trace_floating(
        *layers.touching, layers.layer_regions, layers.region_area_mm2
    )
    found = []
    for number, (region, absorbed, last) in enumerate(
        zip(which, after, lasts, strict=True), start=1
    ):
        k = int(layers.region_layer[region])
        z = (k + 0.5) * layers.layer_height_mm
        x, y = (float(c) for c in layers.region_center_mm[region])
        found.append(
            Island(
                id=number,
                layer=k,
                z_mm=z,
                center_mm=(x, y, z),
                area_mm2=float(layers.region_area_mm2[region]),
                absorbed_after_layers=None if absorbed < 0 else int(absorbed),
                lasts_layers=int(last),
                region=int(region),
            )
        )
    return tuple(found)
