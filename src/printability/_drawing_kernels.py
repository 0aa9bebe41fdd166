"""Compiled parts of `drawing`: a small z-buffer."""

import numpy as np

from .compiled import compiled

# Pixels by which neighbouring facets may overlap, so that rounding leaves no gap between them.
_HAIR = 1e-6


@compiled
def rasterize(screen, facets, width, height):
    """Depth (infinite where empty) and facet (-1) of every pixel."""
    depth = np.full((height, width), np.inf, np.float32)
    which = np.full((height, width), -1, np.int32)
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
        # Along a row the weights of the second and third corner change by as much each pixel.
        du, dv = (cy - ay) / area, (ay - by) / area
        dd = du * (bz - az) + dv * (cz - az)
        for py in range(y0, y1 + 1):
            u = (-ax * (cy - ay) - (py - ay) * (cx - ax)) / area
            v = ((bx - ax) * (py - ay) + ax * (by - ay)) / area
            low, high = _where_positive(u, du, x0, x1)
            low, high = _where_positive(v, dv, low, high)
            low, high = _where_positive(1 - u - v, -du - dv, low, high)
            if not low <= high:  # nor where a facet is so thin that it has no weights
                continue
            d = az + u * (bz - az) + v * (cz - az)
            for px in range(int(np.ceil(low)), int(np.floor(high)) + 1):
                if d + px * dd < depth[py, px]:
                    depth[py, px] = d + px * dd
                    which[py, px] = f
    return depth, which


@compiled
def _where_positive(at_zero, by_step, low, high):
    """The range of a row, within another, in which what begins as that and grows so is not < 0."""
    if by_step == 0.0:
        return (low, high) if at_zero >= 0 else (1.0, 0.0)
    zero = -at_zero / by_step
    if by_step > 0:
        return max(low, zero - _HAIR), high
    return low, min(high, zero + _HAIR)


@compiled
def draw_lines(screen, edges, depth, ink):
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


@compiled
def paint(depth, facet, colour, ink, background, of_ink, jump, scale):
    """Pixels (h, w, 3), each the mean of scale x scale finer ones; inked at outlines and steps.

    A step is where the depth jumps between a pixel and the one to the left of it or above.
    """
    height, width = depth.shape
    out = np.empty((height // scale, width // scale, 3), np.uint8)
    of = np.empty(3)
    for y in range(height // scale):
        for x in range(width // scale):
            of[:] = 0.0
            if _is_empty(facet, ink, y * scale, x * scale, scale):
                for c in range(3):
                    out[y, x, c] = np.uint8(background[c])
                continue
            for py in range(y * scale, (y + 1) * scale):
                for px in range(x * scale, (x + 1) * scale):
                    f = facet[py, px]
                    inked = ink[py, px]
                    for back in range(2):
                        qy, qx = (py, px - 1) if back == 0 else (py - 1, px)
                        if qy < 0 or qx < 0:
                            continue
                        beside = facet[qy, qx]
                        steps = abs(depth[py, px] - depth[qy, qx]) > jump
                        inked |= (f >= 0) != (beside >= 0) or (f >= 0 and steps)
                    for c in range(3):
                        if inked:
                            of[c] += of_ink[c]
                        elif f >= 0:
                            of[c] += colour[f, c]
                        else:
                            of[c] += background[c]
            for c in range(3):
                out[y, x, c] = np.uint8(of[c] / (scale * scale))
    return out


@compiled
def _is_empty(facet, ink, y, x, scale):
    """Whether nothing is in some finer pixels, nor to the left of them or above."""
    for py in range(max(y - 1, 0), y + scale):
        for px in range(max(x - 1, 0), x + scale):
            if facet[py, px] >= 0 or ink[py, px]:
                return False
    return True
