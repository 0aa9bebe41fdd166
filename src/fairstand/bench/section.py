"""The cross-section of one layer as SVG, drawn to scale in millimetres."""

import math

import numpy as np
from django.utils.safestring import mark_safe

from printability.layers import LayerPicture, layer_picture

from .current import Current

__all__ = ["section_context"]

MARGIN = 0.05


def section_context(now: Current, k: int) -> dict:
    """What the section's template needs to draw layer ``k``."""
    facts = now.inspection()
    picture = layer_picture(facts.layers, k, now.setup.effective_threshold_deg)
    box = _box(now)
    x0, y0, width, height = box
    bar = _round_length(width * 0.3)
    islands = [i for i in facts.islands if i.layer == k]
    return {
        "picture": picture,
        "view_box": f"{x0:.4f} {-(y0 + height):.4f} {width:.4f} {height:.4f}",
        "outline": _path(picture.outline),
        "below": _path(picture.below),
        "unsupported": _path(picture.unsupported),
        "islands": [
            {"id": i.id, "x": i.center_mm[0], "y": -i.center_mm[1], "area": i.area_mm2}
            for i in islands
        ],
        "unit": max(width, height) / 100,
        "hatch": max(width, height) / 45,
        "text": max(width, height) / 26,
        "bar": {
            "mm": f"{bar:g}",
            "x0": x0 + width * 0.04,
            "x1": x0 + width * 0.04 + bar,
            "y": -y0 - height * 0.03,
        },
        "grip": None if k == 0 else _grip(picture),
        "last": facts.layers.count - 1,
    }


def _box(now: Current) -> tuple[float, float, float, float]:
    """The same box for every layer, so that a moving layer is seen to move."""
    points = [now.placed.mesh.vertices[:, :2]]
    for pillar in now.placed.standing:
        x, y, _ = pillar.contact_mm
        reach = float(pillar.profile_mm[:, 1].max())
        points.append(np.array([[x - reach, y - reach], [x + reach, y + reach]]))
    low = np.min([part.min(axis=0) for part in points], axis=0)
    high = np.max([part.max(axis=0) for part in points], axis=0)
    margin = MARGIN * float(np.max(high - low)) + 1e-6
    x0, y0 = low - margin
    width, height = high - low + 2 * margin
    # A bar of scale is drawn below the outline.
    extra = 0.08 * max(width, height)
    return float(x0), float(y0 - extra), float(width), float(height + extra)


def _path(loops: list[np.ndarray]) -> str:
    """SVG path data; Y points up on the plate and down on the screen."""
    parts = []
    for loop in loops:
        text = "L".join(f"{x:.3f} {y:.3f}" for x, y in (loop * (1, -1)).tolist())
        parts.append(f"M{text}Z")
    return mark_safe("".join(parts))  # digits only


def _grip(picture: LayerPicture) -> float | None:
    return None if picture.area_mm2 <= 0 else picture.held_mm2 / picture.area_mm2


def _round_length(length: float) -> float:
    """The largest of 1, 2, 5 times a power of ten that is no longer."""
    power = 10.0 ** math.floor(math.log10(length))
    return next(step * power for step in (5, 2, 1) if step * power <= length)
