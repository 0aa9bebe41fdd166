"""Islands: what begins on nothing."""

import math
from collections.abc import Iterator

import numpy as np

from ..layers import region_loops
from .base import Case, Finding, Severity, area_said, kind


@kind("island", "Island", 20, "underside")
def islands(case: Case) -> Iterator[Finding]:
    """Every island; those that last are bound to fail, specks and short ones are notes."""
    limit, line = case.rule["absorbed_layers"], case.rule["line_mm"]
    for island in case.look.islands:
        after, lasts = island.absorbed_after_layers, island.lasts_layers
        layers = f"{lasts} layer{'s' if lasts != 1 else ''}"
        speck = after is None and lasts <= 1 and island.area_mm2 < line * line
        lasting = lasts > limit or (after is None and not speck)
        if after is not None:
            joins = f"joins the rest after {layers}"
            short = f"island, {layers}"
        elif island.layer + lasts < case.look.layers.count:
            joins = f"ends after {layers} without joining what stands on the plate"
            short = f"island, ends after {layers}"
        else:
            joins = "never joins what stands on the plate"
            short = "island, never joins"
        yield Finding(
            id=f"island-{island.id}",
            kind="island",
            severity=Severity.WILL_FAIL if lasting else Severity.NOTE,
            title=f"Island {island.id}",
            short=short,
            measure=math.inf if after is None else float(after),
            limit=limit,
            unit="layers",
            layer=island.layer,
            z_mm=island.z_mm,
            center_mm=island.center_mm,
            text=f"Begins at z = {island.z_mm:.2f} mm with {area_said(island.area_mm2)} and "
            f"{joins}.",
            why="It begins on nothing: the print fails or a stray piece floats off."
            if lasting
            else "Smaller than the process can print."
            if speck
            else f"Joined within about {limit:g} layers it is usually harmless.",
            burden=lasts * max(island.area_mm2, 1e-3) * (1.0 if after is not None else 1e3),
            area_mm2=island.area_mm2,
            under_mm=_inside(case, island),
        )


def _inside(case: Case, island) -> tuple[tuple[float, float], ...]:
    """The middle of the region, and a point beside its outline's longest edge."""
    outline = region_loops(case.look.layers, island.region)[0]
    along = np.roll(outline, -1, axis=0) - outline
    length = np.hypot(along[:, 0], along[:, 1])
    e = int(np.argmax(length))
    area = np.sum(outline[:, 0] * np.roll(outline[:, 1], -1) - outline[:, 1] * np.roll(
        outline[:, 0], -1))  # fmt: skip
    inward = np.array([-along[e, 1], along[e, 0]]) / max(length[e], 1e-300)
    beside = outline[e] + along[e] / 2 + np.sign(area) * min(1e-3, 0.05 * length[e]) * inward
    return (island.center_mm[:2], (float(beside[0]), float(beside[1])))
