"""The cross-section of one layer as SVG, drawn to scale in millimetres."""

import io
import math
import zipfile

import numpy as np
from django.utils.safestring import mark_safe

from fairstand.stances.current import Current
from printability.layers import (
    Hanging,
    LayerPicture,
    layer_picture,
    outlines,
    plane_section,
    region_loops,
    thin_places_of_layer,
)

__all__ = ["all_layers_zip", "close_up", "plane_context", "section_context"]

MARGIN = 0.05


# More thin places than this are thinned out in the drawing, which cannot show them apart.
MOST_THIN_SHOWN = 400


def section_context(now: Current, k: int) -> dict:
    """What the section's template needs to draw layer ``k``."""
    look = now.inspection()
    picture = layer_picture(look.layers, k, now.setup.effective_threshold_deg)
    x0, y0, width, height = _box(now)
    size = max(width, height)
    bar = _round_length(width * 0.3)
    thin = thin_places_of_layer(look.own_layers, k, now.setup.process["wall_mm"])
    thin = thin[:: max(len(thin) // MOST_THIN_SHOWN, 1)]
    return {
        "picture": picture,
        "view_box": f"{x0:.4f} {-(y0 + height):.4f} {width:.4f} {height:.4f}",
        "width_mm": width,
        "height_mm": height,
        "outline": _path(picture.outline),
        "below": _path(picture.below),
        "unsupported": _path(picture.unsupported),
        "islands": [
            {
                "id": i.id,
                "x": i.center_mm[0],
                "y": -i.center_mm[1],
                "path": _path(region_loops(look.layers, i.region)),
                "area": i.area_mm2,
            }
            for i in look.islands
            if i.layer == k
        ],
        "hanging": [_hanging(part) for part in (look.hanging(k) if k else [])],
        "thin": [{"x": x, "y": -y, "r": t / 2, "t": t} for x, y, t in thin.tolist()],
        "unit": size / 100,
        "hatch": size / 45,
        "text": size / 26,
        "bar": {
            "mm": f"{bar:g}",
            "x0": x0 + width * 0.04,
            "x1": x0 + width * 0.04 + bar,
            "y": -y0 - height * 0.03,
        },
        "grip": None if k == 0 else _grip(picture),
        "last": look.layers.count - 1,
    }


def close_up(context: dict, place_mm: tuple[float, float, float], side_mm: float) -> dict:
    """The same drawing with only a square around a place in view."""
    x0, y0 = place_mm[0] - side_mm / 2, -place_mm[1] - side_mm / 2
    bar = _round_length(side_mm * 0.3)
    return context | {
        "view_box": f"{x0:.4f} {y0:.4f} {side_mm:.4f} {side_mm:.4f}",
        "unit": side_mm / 100,
        "hatch": side_mm / 30,
        "text": side_mm / 10,
        "bar": {
            "mm": f"{bar:g}",
            "x0": x0 + side_mm * 0.05,
            "x1": x0 + side_mm * 0.05 + bar,
            "y": y0 + side_mm * 0.95,
        },
    }


def plane_context(now: Current, turn_deg: float, tilt_deg: float, offset_mm: float) -> dict:
    """What the template needs to draw a free cut, and its outlines in space.

    The plane is that of the layers turned up by ``tilt_deg`` and about Z by ``turn_deg``, and
    then moved along its normal from the middle of the model.
    """
    turn, tilt = math.radians(turn_deg), math.radians(tilt_deg)
    normal = np.array(
        [math.sin(tilt) * math.sin(turn), -math.sin(tilt) * math.cos(turn), math.cos(tilt)]
    )
    mesh = now.inspection().printed
    low, high = mesh.low_mm, mesh.high_mm
    middle = (low + high) / 2
    cut = plane_section(mesh, middle + offset_mm * normal, normal)
    reach = float(np.linalg.norm(high - low)) / 2
    size = 2 * reach * (1 + MARGIN)
    bar = _round_length(size * 0.3)
    return {
        "view_box": f"{-size / 2:.4f} {-size / 2:.4f} {size:.4f} {size:.4f}",
        "path": _path(cut.loops),
        "area": cut.area_mm2,
        "bar": {"mm": f"{bar:g}", "x0": -size * 0.46, "x1": -size * 0.46 + bar, "y": size * 0.46},
        "text": size / 26,
        "unit": size / 100,
        "lines": [np.round(cut.in_space(loop), 4).ravel().tolist() for loop in cut.loops],
        "reach": reach,
        "normal": normal.tolist(),
        "origin": cut.origin_mm.tolist(),
    }


def all_layers_zip(now: Current) -> bytes:
    """Every layer as an SVG file in millimetres, in one zip, the same bytes every time."""
    layers = now.inspection().layers
    x0, y0, width, height = _box(now)
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as target:
        for k in range(layers.count):
            svg = (
                f'<svg xmlns="http://www.w3.org/2000/svg" width="{width:.4f}mm" '
                f'height="{height:.4f}mm" viewBox="{x0:.4f} {-(y0 + height):.4f} {width:.4f} '
                f'{height:.4f}"><title>Layer {k}, z {(k + 0.5) * layers.layer_height_mm:.4f} mm'
                f'</title><path d="{_path(outlines(layers, k))}" fill="black"/></svg>\n'
            )
            entry = zipfile.ZipInfo(f"layer-{k:05d}.svg", (1980, 1, 1, 0, 0, 0))
            entry.compress_type = zipfile.ZIP_DEFLATED
            target.writestr(entry, svg)
    return out.getvalue()


def _hanging(part: Hanging) -> dict:
    """A bridge or ledge with its dimension line through the worst point."""
    x, y = part.worst_mm
    dx, dy = part.direction
    if part.kind == "bridge":
        back = _reach(part, -1.0)
        x, y = x - dx * back, y - dy * back
    return {
        "kind": part.kind,
        "path": _path(list(part.loops)),
        "length": part.length_mm,
        "x0": x,
        "y0": -y,
        "x1": x + dx * part.length_mm,
        "y1": -(y + dy * part.length_mm),
        "mx": x + dx * part.length_mm / 2,
        "my": -(y + dy * part.length_mm / 2),
    }


def _reach(part: Hanging, sign: float) -> float:
    """How far the span goes from its worst point in one direction."""
    origin, way = np.array(part.worst_mm), sign * np.array(part.direction)
    hits = []
    for loop in part.loops:
        a, b = loop - origin, np.roll(loop, -1, axis=0) - origin
        sa, sb = way[0] * a[:, 1] - way[1] * a[:, 0], way[0] * b[:, 1] - way[1] * b[:, 0]
        crossed = (sa > 0) != (sb > 0)
        t = sa[crossed] / (sa[crossed] - sb[crossed])
        along = (a[crossed] + t[:, None] * (b[crossed] - a[crossed])) @ way
        hits += along[along >= 0].tolist()
    return min(hits, default=part.length_mm / 2)


def _box(now: Current) -> tuple[float, float, float, float]:
    """The same box for every layer, so that a moving layer is seen to move."""
    points = [now.placed.mesh.vertices[:, :2]]
    points += [support.mesh.vertices[:, :2] for support in now.placed.standing]
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
