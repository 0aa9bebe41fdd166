"""What pulls at each contact where the process pulls at every layer."""

import math

import numpy as np

from ..inspection import Inspection
from ..surface import Overhang
from ._load_kernels import worst_shares
from .net import region_at

__all__ = ["pulls_n"]


def pulls_n(look: Inspection, threshold_deg: float, overhang: Overhang) -> list[float]:
    """The most that the film pulls at each contact in any layer, N.

    An estimate: what hangs together when a layer is made, of the model up to it, counts as stiff,
    so that all contacts that hold it, and the plate under it, share the pull at the layer by what
    they bear. What a layer adds of one underside is shared in the same way by the contacts that
    hold that; the larger of the two counts.

    Parameters
    ----------
    look : Inspection
        With its supports.
    threshold_deg : float
    overhang : Overhang
        At that threshold.

    Returns
    -------
    list of float
        As long as `Inspection.contacts`.
    """
    pull, green = look.process["pull_n_mm2"], look.process["green_n_mm2"]
    contacts, layers = look.contacts, look.own_layers
    # Where nothing is said of what they bear, they share by their areas.
    bears = np.array([math.pi / 4 * c.diameter_mm**2 for c in contacts]) * (green or 1.0)
    share = np.zeros(len(contacts))
    region = np.array([
        region_at(layers, *c.at_mm[:2], look.level(c.at_mm[2])) if c.facet >= 0 else -1
        for c in contacts
    ], int)  # fmt: skip
    some = np.flatnonzero(region >= 0)
    area = np.ascontiguousarray(layers.region_area_mm2)
    borne = np.where(layers.region_layer == 0, area * look.process["plate_n_mm2"], 0.0)
    np.add.at(borne, region[some], bears[some])
    lower, upper = (np.ascontiguousarray(side, np.int64) for side in layers.touching)
    share[some] = worst_shares(
        np.ascontiguousarray(layers.region_layer, np.int64), area, lower, upper, borne, region[some]
    )
    for patch in {int(overhang.patch_of_facet[c.facet]) for c in contacts if c.facet >= 0} - {0}:
        _share_of_undersides(look, look.pieces_held(patch, overhang, threshold_deg), bears, share)
    return (pull * share * bears).tolist()


def _share_of_undersides(look: Inspection, pieces, bears: np.ndarray, share: np.ndarray) -> None:
    """Raise the shares of contacts to those of what a layer adds of one patch."""
    held = np.flatnonzero(pieces.contact >= 0)
    a, b, c = pieces.corners_mm[held].transpose(1, 0, 2)
    u, v = b - a, c - a
    level = np.abs(u[:, 0] * v[:, 1] - u[:, 1] * v[:, 0]) / 2 * pieces.part_held[held]
    layer = look.levels_of(pieces.corners_mm[held, :, 2].mean(axis=1))
    by, own = pieces.contact[held], np.argsort(layer, kind="stable")
    for group in np.split(own, np.flatnonzero(np.diff(layer[own])) + 1):
        holding = np.unique(by[group])
        if len(holding):
            ratio = level[group].sum() / bears[holding].sum()
            share[holding] = np.maximum(share[holding], ratio)
