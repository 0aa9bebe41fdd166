"""Drawings of stances for cards and the strip, kept in the cache folder."""

import numpy as np

from fairstand.memory import keep_bytes, stored_bytes
from fairstand.stances.current import Current
from printability.drawing import drawing_png
from printability.mesh import joined

__all__ = ["stance_drawing"]


def stance_drawing(now: Current) -> bytes:
    """PNG of a placed model, overhanging facets in plum, pillars beside it."""
    name = f"drawings/{now.view_key}{now.dyes_key and '-'}{now.dyes_key}.png"
    found = stored_bytes(name)
    if found is not None:
        return found
    mesh = now.placed.mesh
    plum = now.overhang(now.setup.effective_threshold_deg).patch_of_facet > 0
    colours = now.colours.rgb if now.colours else None
    standing = now.placed.standing
    if standing:
        mesh = joined([mesh, *(support.mesh for support in standing)])
        teal = [False] * (len(mesh.facets) - len(plum))
        plum = [*plum, *teal]
        if colours is not None:
            none = np.full((len(teal), 3), -1.0)
            colours = np.concatenate([colours, none])
    return keep_bytes(name, drawing_png(mesh, plum=plum, colours=colours))
