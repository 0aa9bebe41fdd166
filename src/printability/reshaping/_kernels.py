"""Compiled distances: in the plane to what holds an underside, and straight into walls."""

import numpy as np
from numba import njit

from ..mesh.index import first_hit


@njit(cache=True, nogil=True)
def _to_segment(px, py, segment):
    """Squared distance to a segment of the plane, and how far along it the nearest point is."""
    ax, ay, bx, by = segment
    ux, uy = bx - ax, by - ay
    long = ux * ux + uy * uy
    t = 0.0
    if long > 0.0:
        t = min(max(((px - ax) * ux + (py - ay) * uy) / long, 0.0), 1.0)
    dx, dy = px - ax - t * ux, py - ay - t * uy
    return dx * dx + dy * dy, t


@njit(cache=True, nogil=True)
def sees(px, py, qx, qy, rim):
    """Whether the straight way between two places stays inside a rim of segments."""
    vx, vy = qx - px, qy - py
    mx, my = px + 0.5 * vx, py + 0.5 * vy
    if abs(vx) + abs(vy) == 0.0:
        return True
    inside = False
    for s in range(rim.shape[0]):
        ax, ay, bx, by = rim[s]
        ux, uy = bx - ax, by - ay
        det = vx * uy - vy * ux
        wx, wy = ax - px, ay - py
        if abs(det) > 1e-14 * (abs(vx) + abs(vy)) * (abs(ux) + abs(uy)):
            t = (wx * uy - wy * ux) / det
            k = (wx * vy - wy * vx) / det
            if 1e-6 < t < 1 - 1e-6 and 1e-7 < k < 1 - 1e-7:
                return False
        if (ay > my) != (by > my) and mx < ax + (my - ay) / (by - ay) * ux:
            inside = not inside
    if inside:
        return True
    # Along the rim itself it is inside, too.
    for s in range(rim.shape[0]):
        d2, _ = _to_segment(mx, my, rim[s])
        if d2 < 1e-12 * (vx * vx + vy * vy):
            return True
    return False


@njit(cache=True, nogil=True)
def held_from(px, py, held, nodes, node_far, rim):
    """The shortest way to what holds a place: how long, and where the last of it begins.

    Straight to one of the ``held`` segments, or by way of a node (a corner of the rim that the
    way bends round, ``node_far`` from what holds it). Where nothing is seen, straight all the same.

    Returns distance, place (x, y), segment (-1 by way of a node), and how far along that.
    """
    best, fx, fy, which, along = np.inf, 0.0, 0.0, -1, 0.0
    plain, sx, sy, s_which, s_along = np.inf, 0.0, 0.0, -1, 0.0
    for s in range(held.shape[0]):
        d2, t = _to_segment(px, py, held[s])
        d = np.sqrt(d2)
        if d >= best and d >= plain:
            continue
        qx = held[s, 0] + t * (held[s, 2] - held[s, 0])
        qy = held[s, 1] + t * (held[s, 3] - held[s, 1])
        if d < plain:
            plain, sx, sy, s_which, s_along = d, qx, qy, s, t
        if d < best and (nodes.shape[0] == 0 or sees(px, py, qx, qy, rim)):
            best, fx, fy, which, along = d, qx, qy, s, t
    for v in range(nodes.shape[0]):
        d = np.sqrt((px - nodes[v, 0]) ** 2 + (py - nodes[v, 1]) ** 2) + node_far[v]
        if d < best - 1e-12 and sees(px, py, nodes[v, 0], nodes[v, 1], rim):
            best, fx, fy, which, along = d, nodes[v, 0], nodes[v, 1], -1, float(v)
    if best == np.inf:
        return plain, sx, sy, s_which, s_along
    return best, fx, fy, which, along


@njit(cache=True, nogil=True)
def nodes_held(nodes, held, rim):
    """How far each node is from what holds it, along shortest ways round the others."""
    n = nodes.shape[0]
    far = np.full(n, np.inf)
    for i in range(n):
        for s in range(held.shape[0]):
            d2, t = _to_segment(nodes[i, 0], nodes[i, 1], held[s])
            d = np.sqrt(d2)
            if d < far[i]:
                qx = held[s, 0] + t * (held[s, 2] - held[s, 0])
                qy = held[s, 1] + t * (held[s, 3] - held[s, 1])
                if sees(nodes[i, 0], nodes[i, 1], qx, qy, rim):
                    far[i] = d
    done = np.zeros(n, np.bool_)
    for _ in range(n):
        k, least = -1, np.inf
        for i in range(n):
            if not done[i] and far[i] < least:
                k, least = i, far[i]
        if k < 0:
            break
        done[k] = True
        for i in range(n):
            if not done[i]:
                d = least + np.sqrt(
                    (nodes[i, 0] - nodes[k, 0]) ** 2 + (nodes[i, 1] - nodes[k, 1]) ** 2
                )
                if d < far[i] and sees(nodes[i, 0], nodes[i, 1], nodes[k, 0], nodes[k, 1], rim):
                    far[i] = d
    return far


@njit(cache=True, nogil=True)
def distances(points, segments):
    """Of many points: distance to the nearest segment, which, and how far along it."""
    n = points.shape[0]
    far, which, along = np.empty(n), np.empty(n, np.int64), np.empty(n)
    for i in range(n):
        best, which[i], along[i] = np.inf, -1, 0.0
        for s in range(segments.shape[0]):
            d2, t = _to_segment(points[i, 0], points[i, 1], segments[s])
            if d2 < best:
                best, which[i], along[i] = d2, s, t
        far[i] = np.sqrt(best)
    return far, which, along


@njit(cache=True, nogil=True)
def ways_held(points, held, nodes, node_far, rim):
    """Of many points what `held_from` says of each."""
    n = points.shape[0]
    far, foot = np.empty(n), np.empty((n, 2))
    which, along = np.empty(n, np.int64), np.empty(n)
    for i in range(n):
        far[i], foot[i, 0], foot[i, 1], which[i], along[i] = held_from(
            points[i, 0], points[i, 1], held, nodes, node_far, rim
        )
    return far, foot, which, along


@njit(cache=True, nogil=True)
def way_out(px, py, ux, uy, segments, near):
    """How far a ray goes before it crosses one of some segments, beyond a distance."""
    best = np.inf
    for s in range(segments.shape[0]):
        ax, ay, bx, by = segments[s]
        vx, vy = bx - ax, by - ay
        det = ux * vy - uy * vx
        if abs(det) <= 1e-14 * (abs(vx) + abs(vy)):
            continue
        wx, wy = ax - px, ay - py
        t = (wx * vy - wy * vx) / det
        k = (wx * uy - wy * ux) / det
        if near < t < best and -1e-9 <= k <= 1 + 1e-9:
            best = t
    return best


@njit(cache=True, nogil=True)
def reaches(points, ways, far, held, nodes, node_far, around, near):
    """How far from each point the underside goes on, away from what holds it.

    Along a ray from what holds the point, until the underside ends or something else is nearer.
    """
    n = points.shape[0]
    out = np.zeros(n)
    for i in range(n):
        px, py, ux, uy = points[i, 0], points[i, 1], ways[i, 0], ways[i, 1]
        end = way_out(px, py, ux, uy, around, near)
        if end == np.inf:
            continue
        # Beyond the ridge something else is nearer; it stays so along the ray.
        low, high = 0.0, end
        last = end - near
        d = held_from(px + ux * last, py + uy * last, held, nodes, node_far, around)[0]
        if d >= far[i] + last - near:
            out[i] = end
            continue
        for _ in range(32):
            middle = 0.5 * (low + high)
            d = held_from(px + ux * middle, py + uy * middle, held, nodes, node_far, around)[0]
            if d >= far[i] + middle - near:
                low = middle
            else:
                high = middle
        out[i] = low
    return out


@njit(cache=True, nogil=True)
def inward_thickness(vertices, facets, order, box, first_leaf, normals, places, facing):
    """From places on the surface straight inwards to where it is left; infinite for nowhere."""
    out = np.full(places.shape[0], np.inf)
    for i in range(places.shape[0]):
        n = facing[i]
        if n[0] == 0.0 and n[1] == 0.0 and n[2] == 0.0:
            continue
        way = -n
        least = 1e-7
        for _ in range(8):
            f, t = first_hit(
                vertices, facets, order, box, first_leaf, places[i], way, least
            )  # fmt: skip
            if f < 0:
                break
            # Left where the surface faces along the way; what faces against it is its own rim.
            if normals[f, 0] * way[0] + normals[f, 1] * way[1] + normals[f, 2] * way[2] > 0:
                out[i] = t
                break
            least = t + 1e-7
    return out


@njit(cache=True, nogil=True)
def between_cells(values, x, y, z):
    """A value between the cells of a net, linear along each axis."""
    nx, ny, nz = values.shape
    i = min(max(int(np.floor(x)), 0), nx - 2)
    j = min(max(int(np.floor(y)), 0), ny - 2)
    k = min(max(int(np.floor(z)), 0), nz - 2)
    fx, fy, fz = x - i, y - j, z - k
    low = (values[i, j, k] * (1 - fx) + values[i + 1, j, k] * fx) * (1 - fy) + (
        values[i, j + 1, k] * (1 - fx) + values[i + 1, j + 1, k] * fx
    ) * fy
    high = (values[i, j, k + 1] * (1 - fx) + values[i + 1, j, k + 1] * fx) * (1 - fy) + (
        values[i, j + 1, k + 1] * (1 - fx) + values[i + 1, j + 1, k + 1] * fx
    ) * fy
    return low * (1 - fz) + high * fz
