"""Compiled distances: in the plane to what holds an underside, and straight into walls."""

import numpy as np

from ..compiled import compiled
from ..mesh.index import first_hit
from ..mesh.nearest import _nearest


@compiled
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


@compiled
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


@compiled
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
        if near < t < best and -1e-6 <= k <= 1 + 1e-6:
            best = t
    return best


@compiled
def sees(ax, ay, bx, by, rim):
    """Whether nothing of a rim lies between two places."""
    ux, uy = bx - ax, by - ay
    far = np.hypot(ux, uy)
    if far <= 1e-12:
        return True
    return way_out(ax, ay, ux / far, uy / far, rim, 0.0) >= far


@compiled
def until_shorter(places, own, corners, far, which, held, rim):
    """Of places along a way, the first that is got to on a shorter one; their number for none.

    ``own`` is how long the way there is. A shorter one comes straight from what holds, or by way
    of another corner than ``which``; it counts where nothing of the rim lies on its last part.
    """
    n = places.shape[0]
    for k in range(n):
        px, py = places[k]
        best, at, on = np.inf, -1, 0.0
        for h in range(held.shape[0]):
            d2, t = _to_segment(px, py, held[h])
            if d2 < best:
                best, at, on = d2, h, t
        if at >= 0 and np.sqrt(best) < own[k]:
            ax, ay, bx, by = held[at]
            if sees(ax + on * (bx - ax), ay + on * (by - ay), px, py, rim):
                return k
        for j in range(corners.shape[0]):
            if j == which or not np.isfinite(far[j]):
                continue
            cx, cy = corners[j]
            if far[j] + np.hypot(px - cx, py - cy) < own[k] and sees(cx, cy, px, py, rim):
                return k
    return n


@compiled
def _is_nearest(px, py, far, held, turn, side, own, ridge):
    """Whether nothing else that holds is nearer to a place than what is so far away.

    Not counting what is seen from behind, on the left of segments, and of the side that ``own`` is
    of, which bends little by little, what is nearer only because of how it bends.
    """
    for s in range(held.shape[0]):
        d2, t = _to_segment(px, py, held[s])
        least = far
        if own >= 0 and side[s] == side[own]:
            bent = abs(turn[s] - turn[own])
            bent = min(bent, abs(2 * np.pi - bent))  # where it goes all round
            if bent < 1.39:
                least *= 0.999 * np.cos(bent + 0.175)  # ways lean by so much at most
        least -= ridge
        if least <= 0.0 or d2 >= least * least:
            continue
        ax, ay, bx, by = held[s]
        left = (bx - ax) * (py - ay) - (by - ay) * (px - ax)
        if left <= 1e-5 * np.hypot(bx - ax, by - ay) or t <= 0.0 or t >= 1.0:
            return False
    return True


@compiled
def last_crossing(px, py, ux, uy, segments):
    """How far along a ray it crosses the last of some segments; infinite where none."""
    last = -1.0
    for s in range(segments.shape[0]):
        t = way_out(px, py, ux, uy, segments[s : s + 1], 0.0)
        if t < np.inf:
            last = max(last, t)
    return last if last >= 0.0 else np.inf


@compiled
def reaches(feet, ways, own, held, turn, side, around, passed, near, ridge):
    """How far from each place that holds an underside that goes on, along a direction.

    Until the underside ends, or something else that holds it is nearer by more than ``ridge``:
    a wall that is bent a little by rounding is no other wall. What is passed ends it only where
    nothing else does. ``own`` is the segment that each begins on, -1 where that is not to be known;
    ``side`` says which segments are one side that bends little by little, ``turn`` how far it has
    turned there, in radians.
    """
    n = feet.shape[0]
    out = np.zeros(n)
    for i in range(n):
        px, py, ux, uy = feet[i, 0], feet[i, 1], ways[i, 0], ways[i, 1]
        end = way_out(px, py, ux, uy, around, 10 * near)
        if end == np.inf:
            end = last_crossing(px, py, ux, uy, passed)
        if end == np.inf or end <= 10 * near:
            continue
        if _is_nearest(px + ux * end, py + uy * end, end, held, turn, side, own[i], ridge):
            out[i] = end
            continue
        # Beyond the ridge something else is nearer; it stays so along the way.
        low, high = 0.0, end
        for _ in range(40):
            middle = 0.5 * (low + high)
            mx, my = px + ux * middle, py + uy * middle
            if _is_nearest(mx, my, middle, held, turn, side, own[i], ridge):
                low = middle
            else:
                high = middle
        out[i] = low
    return out


@compiled
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


@compiled
def measure_depths(vertices, facets, order, box, first_leaf, near, low, cell, deep, rows):
    """How deep some cells of a net are below a surface, written over what was thought so far.

    In some rows of the net along its first axis. What is outside is below nothing.
    """
    any_way = np.zeros(3)
    p = np.empty(3)
    for i in range(rows[0], rows[1]):
        p[0] = low[0] + cell * i
        for j in range(near.shape[1]):
            p[1] = low[1] + cell * j
            for k in range(near.shape[2]):
                if not near[i, j, k]:
                    continue
                p[2] = low[2] + cell * k
                # It is no farther than cells on the other side say.
                reach = abs(deep[i, j, k]) * 1.001 + 1e-9
                which, far = _nearest(
                    vertices, facets, order, box, first_leaf, p, any_way, -1.0, reach
                )
                if which >= 0:
                    deep[i, j, k] = far if deep[i, j, k] > 0 else -far
