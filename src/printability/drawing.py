"""A drawing of a mesh: matt surface, ink creases and outline, by a small z-buffer.

Used where a picture has to exist without a browser: library cards and stance strips.
"""

import io

import numpy as np
from numba import njit
from PIL import Image

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
    eye = _seen(mesh, azimuth_deg, elevation_deg)
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
    depth, facet = _rasterize(screen, mesh.facets, width, height)

    normal = facet_normals(mesh)
    light = np.array([-0.35, -0.75, 0.85])
    light = light / np.linalg.norm(light)
    shade = 0.72 + 0.28 * np.clip(normal @ light, -0.6, 1)
    colour = np.clip(shade[:, None] * np.array(_CHALK), 0, 255)
    if plum is not None:
        colour[plum] = 0.35 * colour[plum] + 0.65 * np.array(_PLUM)
    image = np.empty((height, width, 3), np.float32)
    image[:] = background
    hit = facet >= 0
    image[hit] = colour[facet[hit]]
    edges = crease_edges(mesh)
    ink = np.zeros((height, width), np.bool_)
    _draw_lines(screen, edges, depth, ink)
    rim = np.zeros_like(hit)
    rim[:, 1:] |= hit[:, 1:] != hit[:, :-1]
    rim[1:] |= hit[1:] != hit[:-1]
    step = np.zeros_like(hit)
    jump = 0.02 * max(width, height)
    with np.errstate(invalid="ignore"):
        step[:, 1:] |= np.abs(np.diff(depth, axis=1)) > jump
        step[1:] |= np.abs(np.diff(depth, axis=0)) > jump
    ink |= rim | (step & hit)
    image[ink] = _INK
    corners = [image[i::scale_up, j::scale_up] for i in range(scale_up) for j in range(scale_up)]
    small = sum(corners) / len(corners)
    out = io.BytesIO()
    Image.fromarray(small.astype(np.uint8)).save(out, "PNG", compress_level=4)
    return out.getvalue()


def span_to_show(
    mesh: Mesh,
    size: tuple[int, int],
    azimuth_deg: float = -35.0,
    elevation_deg: float = 18.0,
) -> float:
    """The least ``span_mm`` by which `drawing_png` shows a mesh whole."""
    eye = _seen(mesh, azimuth_deg, elevation_deg)
    low, high = eye.min(axis=0), eye.max(axis=0)
    tall = max(high[1] / _PLATE, -low[1] / (1 - _PLATE), 1e-6)
    return 1.06 * max(float(high[0] - low[0]), float(tall) * size[0] / size[1])


def _seen(mesh: Mesh, azimuth_deg: float, elevation_deg: float) -> np.ndarray:
    """Vertices from where the eye is: to the right, up, and away from it."""
    az, el = np.radians(azimuth_deg), np.radians(elevation_deg)
    right = np.array([np.cos(az), np.sin(az), 0])
    back = np.array([-np.sin(az) * np.cos(el), np.cos(az) * np.cos(el), -np.sin(el)])
    return mesh.vertices @ np.stack([right, np.cross(right, back), back], axis=1)


@njit(cache=True, nogil=True)
def _rasterize(screen, facets, width, height):
    """Depth (infinite where empty) and facet (-1) of every pixel."""
    depth = np.full((height, width), np.inf)
    which = np.full((height, width), -1, np.int64)
    for f in range(facets.shape[0]):
        ax, ay, az = screen[facets[f, 0]]
        bx, by, bz = screen[facets[f, 1]]
        cx, cy, cz = screen[facets[f, 2]]
        area = (bx - ax) * (cy - ay) - (by - ay) * (cx - ax)
        if area == 0.0:
            continue
        x0 = max(int(np.floor(min(ax, bx, cx))), 0)
        x1 = min(int(np.ceil(max(ax, bx, cx))), width - 1)
        y0 = max(int(np.floor(min(ay, by, cy))), 0)
        y1 = min(int(np.ceil(max(ay, by, cy))), height - 1)
        for py in range(y0, y1 + 1):
            for px in range(x0, x1 + 1):
                u = ((px - ax) * (cy - ay) - (py - ay) * (cx - ax)) / area
                v = ((bx - ax) * (py - ay) - (by - ay) * (px - ax)) / area
                if u < 0 or v < 0 or u + v > 1:
                    continue
                d = az + u * (bz - az) + v * (cz - az)
                if d < depth[py, px]:
                    depth[py, px] = d
                    which[py, px] = f
    return depth, which


@njit(cache=True, nogil=True)
def _draw_lines(screen, edges, depth, ink):
    """Mark pixels of edges that lie on or in front of the surface."""
    height, width = ink.shape
    for e in range(edges.shape[0]):
        ax, ay, az = screen[edges[e, 0]]
        bx, by, bz = screen[edges[e, 1]]
        steps = int(max(abs(bx - ax), abs(by - ay))) + 1
        for i in range(steps + 1):
            t = i / steps
            x, y = int(np.rint(ax + t * (bx - ax))), int(np.rint(ay + t * (by - ay)))
            if 0 <= x < width and 0 <= y < height:
                if az + t * (bz - az) <= depth[y, x] + 3.0:
                    ink[y, x] = True
