"""A drawing of a mesh: matt surface, ink creases and outline, by a small z-buffer.

Used where a picture has to exist without a browser: library cards and stance strips.
"""

import io

import numpy as np
from PIL import Image, ImageDraw, ImageFont

from ._drawing_kernels import draw_lines, paint, rasterize
from .colours import rgb
from .mesh import Mesh, crease_edges, facet_normals

__all__ = ["drawing_png", "span_to_show"]

# Where z = 0 lies in drawings of one scale, from the top.
_PLATE = 0.82
_CHALK, _INK, _PLUM = (232, 226, 214), rgb("ink"), (122, 62, 110)


def drawing_png(
    mesh: Mesh,
    size: tuple[int, int] = (480, 360),
    azimuth_deg: float = -35.0,
    elevation_deg: float = 18.0,
    plum: np.ndarray | None = None,
    background: tuple[int, int, int] = (250, 246, 238),
    span_mm: float | None = None,
    colours: np.ndarray | None = None,
    labels: list[tuple[str, np.ndarray]] | None = None,
) -> bytes:
    """PNG of a mesh seen in parallel projection.

    Parameters
    ----------
    mesh : Mesh
    size : (width, height)
    azimuth_deg, elevation_deg : float
        Where the eye is: about Z from the front (-Y), and above the plate.
    plum : (m,) bool, optional
        Facets to colour as overhanging.
    background : RGB
    span_mm : float, optional
        Width of the drawing in mm, so that several have one scale; then z = 0 lies at the
        same height in each. Without it the mesh fills the drawing. See `span_to_show`.
    """
    scale_up = 2
    width, height = size[0] * scale_up, size[1] * scale_up
    eye = _seen(mesh.vertices, azimuth_deg, elevation_deg)
    low, high = eye.min(axis=0), eye.max(axis=0)
    margin = 0.06 * min(width, height)
    span = np.maximum(high - low, 1e-9)
    zoom = min((width - 2 * margin) / span[0], (height - 2 * margin) / span[1])
    middle = (low + high) / 2
    x = (eye[:, 0] - middle[0]) * zoom + width / 2
    y = height / 2 - (eye[:, 1] - middle[1]) * zoom
    if span_mm is not None:
        zoom = width / span_mm
        x = (eye[:, 0] - middle[0]) * zoom + width / 2
        y = height * _PLATE - eye[:, 1] * zoom
    screen = np.stack([x, y, eye[:, 2] * zoom], axis=1)
    depth, facet = rasterize(screen, mesh.facets, width, height)

    normal = facet_normals(mesh)
    light = np.array([-0.35, -0.75, 0.85])
    light = light / np.linalg.norm(light)
    shade = 0.72 + 0.28 * np.clip(normal @ light, -0.6, 1)
    base = np.broadcast_to(np.array(_CHALK, float), (len(shade), 3))
    if colours is not None:
        base = np.where(colours[:, :1] >= 0, colours, base)
    colour = np.clip(shade[:, None] * base, 0, 255)
    if plum is not None:
        colour[plum] = 0.35 * colour[plum] + 0.65 * np.array(_PLUM)
    ink = np.zeros((height, width), np.bool_)
    draw_lines(screen, crease_edges(mesh), depth, ink)
    pixels = paint(
        depth, facet, colour, ink, np.array(background, float), np.array(_INK, float),
        0.02 * max(width, height), scale_up,
    )  # fmt: skip
    out = io.BytesIO()
    picture = Image.fromarray(pixels)
    if labels:
        where = _seen(np.array([place for _, place in labels]), azimuth_deg, elevation_deg)
        across = (where[:, 0] - middle[0]) * zoom + width / 2
        down = height / 2 - (where[:, 1] - middle[1]) * zoom
        _write(picture, [text for text, _ in labels], across / scale_up, down / scale_up)
    picture.save(out, "PNG", compress_level=2)
    return out.getvalue()


def span_to_show(
    mesh: Mesh,
    size: tuple[int, int],
    azimuth_deg: float = -35.0,
    elevation_deg: float = 18.0,
) -> float:
    """The least ``span_mm`` by which `drawing_png` shows a mesh whole."""
    eye = _seen(mesh.vertices, azimuth_deg, elevation_deg)
    low, high = eye.min(axis=0), eye.max(axis=0)
    tall = max(high[1] / _PLATE, -low[1] / (1 - _PLATE), 1e-6)
    return 1.06 * max(float(high[0] - low[0]), float(tall) * size[0] / size[1])


def _write(picture: Image.Image, texts: list[str], x, y) -> None:
    """Words on a sheet of their own, so that they are read on any ground."""
    draw = ImageDraw.Draw(picture)
    font = ImageFont.load_default(size=0.055 * picture.height)
    for text, px, py in zip(texts, x, y, strict=True):
        box = draw.textbbox((px, py), text, font=font, anchor="mm")
        draw.rectangle((box[0] - 4, box[1] - 3, box[2] + 4, box[3] + 3), fill=(255, 253, 248),
                       outline=_INK)  # fmt: skip
        draw.text((px, py), text, font=font, anchor="mm", fill=_INK)


def _seen(places: np.ndarray, azimuth_deg: float, elevation_deg: float) -> np.ndarray:
    """Places from where the eye is: to the right, up, and away from it."""
    az, el = np.radians(azimuth_deg), np.radians(elevation_deg)
    right = np.array([np.cos(az), np.sin(az), 0])
    back = np.array([-np.sin(az) * np.cos(el), np.cos(az) * np.cos(el), -np.sin(el)])
    return places @ np.stack([right, np.cross(right, back), back], axis=1)
