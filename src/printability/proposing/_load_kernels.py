"""Compiled: what pulls at contacts while a model is built layer by layer."""

import numpy as np

from ..compiled import compiled
from ..mesh._kernels import root_of


@compiled
def worst_shares(region_layer, area, lower, upper, borne, at):
    """The most that pulls at what hangs together, over what bears it, for each of some regions.

    Parameters
    ----------
    region_layer : (r,) int
        Ascending.
    area : (r,) float
    lower, upper : (p,) int
        Pairs of regions that touch, ordered by the upper one.
    borne : (r,) float
        What the plate and the contacts under a region bear.
    at : (c,) int
        Regions from whose layer on it is asked.

    Returns
    -------
    (c,) float
        The largest sum of areas in a layer, over the sum of what bears all that hangs together
        with it by then.
    """
    parent = np.arange(region_layer.shape[0])
    bears, pulls = borne.copy(), np.zeros(region_layer.shape[0])
    worst = np.zeros(at.shape[0])
    first, p = 0, 0
    while first < region_layer.shape[0]:
        end = first
        while end < region_layer.shape[0] and region_layer[end] == region_layer[first]:
            while p < upper.shape[0] and upper[p] == end:
                a, b = root_of(parent, lower[p]), root_of(parent, end)
                if a != b:
                    parent[a] = b
                    bears[b] += bears[a]
                p += 1
            end += 1
        for r in range(first, end):
            pulls[root_of(parent, r)] = 0.0
        for r in range(first, end):
            pulls[root_of(parent, r)] += area[r]
        for c in range(at.shape[0]):
            if at[c] >= end:
                continue
            root = root_of(parent, at[c])
            # A root that is not of this layer has nothing in it.
            if root >= first and bears[root] > 0:
                worst[c] = max(worst[c], pulls[root] / bears[root])
        first = end
    return worst
