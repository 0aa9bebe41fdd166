"""Compiled: what holds what stands above every cut, as it grows.

Regions of a layer hold together, at a time, what they are joined with by the layers printed
between. From the top down, the regions of each layer are joined by what joins those above them:
a tree of groups, each from the layer in which it comes about to the one in which it joins another.
"""

import numpy as np

from ..compiled import compiled
from ..mesh._kernels import root_of

__all__ = ["WAYS", "weak_cuts"]

# Level directions in which extents are kept; the second half are those of the first turned round.
WAYS = 24
_NEVER = 1 << 40


@compiled
def _extents(points, loop_start, loops, first, last, ways):
    """How far a region's outline reaches in each direction, from the origin."""
    out = np.full(ways.shape[0], -np.inf)
    for i in range(first, last):
        for p in range(loop_start[loops[i]], loop_start[loops[i] + 1]):
            for d in range(ways.shape[0]):
                out[d] = max(out[d], points[p, 0] * ways[d, 0] + points[p, 1] * ways[d, 1])
    return out


@compiled
def _reach_at(kept, now, since, until, top, layer, out):
    """Raise extents by those of a group at a layer, between its first and its last one."""
    if layer < since:
        return
    last = min(until - 1, top)
    part = 1.0 if layer >= last else (layer - since) / max(last - since, 1)
    for d in range(out.shape[0]):
        reach = now[d] if part >= 1 else kept[d] + part * (now[d] - kept[d])
        out[d] = max(out[d], reach)


@compiled
def weak_cuts(
    points, loop_start, loops, region_loops, layer_regions, pair_start, pair_upper, stands, sums,
    ways, h, bond, plate, drag, absorbed, most_ratio,
):  # fmt: skip
    """Groups that hold less than so many times what the drag asks of them.

    ``pair_start`` (r + 1,) and ``pair_upper`` give the regions that touch each from above;
    ``stands`` which regions stand; ``sums`` (r, 6) area and moments x, y, xx, yy, xy of each.
    Rows of the ratio, what it holds and what pushes in N mm, the cut's layer, the last layer above
    it, x, y, area, whether the plate holds, the lever in mm, and one region of the group.
    """
    n_layers = layer_regions.shape[0] - 1
    half = ways.shape[0] // 2
    rows = [(0.0,) * 11]
    rows.clear()
    # Of the groups of the layer above: first and end layer, top, extents at first and at last.
    u_since, u_until = np.empty(0, np.int64), np.empty(0, np.int64)
    u_top = np.empty(0, np.int64)
    u_from, u_to = np.empty((0, ways.shape[0])), np.empty((0, ways.shape[0]))
    # Joins of the layer above: two of its regions, the layer, groups before and after.
    joins = np.empty((0, 6), np.int64)
    upper_of = np.full(layer_regions[n_layers], -1, np.int64)
    n1 = 0
    for k in range(n_layers - 1, -1, -1):
        lo, hi = layer_regions[k], layer_regions[k + 1]
        own = np.empty(hi - lo, np.int64)
        n0 = 0
        for r in range(lo, hi):
            if stands[r]:
                own[n0] = r
                n0 += 1
        count = 2 * max(n0, 1)
        since, until = np.full(count, k, np.int64), np.full(count, _NEVER, np.int64)
        top = np.full(count, k, np.int64)
        start, end = (
            np.full((count, ways.shape[0]), -np.inf),
            np.full((count, ways.shape[0]), -np.inf),
        )
        section = np.full((count, ways.shape[0]), -np.inf)
        total = np.zeros((count, 6))
        of_region = np.full(count, -1, np.int64)
        for i in range(n0):
            r = own[i]
            section[i] = _extents(
                points, loop_start, loops, region_loops[r], region_loops[r + 1], ways
            )
            start[i] = section[i]
            total[i] = sums[r]
            of_region[i] = r
        made = n0
        # Elements: this layer's regions, then those above; of each joined set the group below,
        # a region of this layer, and the groups above that are there at the time.
        parent = np.arange(n0 + n1)
        group = np.full(n0 + n1, -1, np.int64)
        leaf = np.full(n0 + n1, -1, np.int64)
        head = np.full(n0 + n1, -1, np.int64)
        tail = np.full(n0 + n1, -1, np.int64)
        after = np.full(u_since.shape[0], -1, np.int64)
        gone = np.zeros(u_since.shape[0], np.bool_)
        for i in range(n0):
            group[i], leaf[i] = i, i
        for u in range(n1):
            head[n0 + u] = tail[n0 + u] = u
        new_joins = np.empty((max(n0, 1), 6), np.int64)
        n_joins = 0
        pairs = 0
        for i in range(n0):
            pairs += pair_start[own[i] + 1] - pair_start[own[i]]
        steps = pairs + joins.shape[0]
        at_i, at_p = 0, pair_start[own[0]] if n0 else 0
        for s in range(steps + 1):
            before_a, before_b, made_above = -1, -1, -1
            if s < pairs:
                while at_p >= pair_start[own[at_i] + 1]:
                    at_i += 1
                    at_p = pair_start[own[at_i]]
                above = upper_of[pair_upper[at_p]]
                at_p += 1
                if above < 0:
                    continue
                x, y, t = at_i, n0 + above, k + 1
            elif s < steps:
                j = s - pairs
                x, y, t = n0 + joins[j, 0], n0 + joins[j, 1], joins[j, 2]
                before_a, before_b, made_above = joins[j, 3], joins[j, 4], joins[j, 5]
            else:
                break
            a, b = root_of(parent, x), root_of(parent, y)
            if a != b:
                if group[a] >= 0 and group[b] >= 0:
                    for c in (a, b):
                        g = group[c]
                        until[g] = t
                        end[g] = section[g]
                        u = head[c]
                        while u >= 0:
                            if not gone[u]:
                                _reach_at(u_from[u], u_to[u], u_since[u], u_until[u], u_top[u],
                                          t - 1, end[g])  # fmt: skip
                                top[g] = max(top[g], min(u_top[u], t - 1))
                            u = after[u]
                    g = made
                    made += 1
                    since[g] = t
                    for d in range(ways.shape[0]):
                        section[g, d] = max(section[group[a], d], section[group[b], d])
                        start[g, d] = max(end[group[a], d], end[group[b], d])
                    total[g] = total[group[a]] + total[group[b]]
                    of_region[g] = of_region[group[a]]
                    new_joins[n_joins, 0], new_joins[n_joins, 1] = leaf[a], leaf[b]
                    new_joins[n_joins, 2], new_joins[n_joins, 3] = t, group[a]
                    new_joins[n_joins, 4], new_joins[n_joins, 5] = group[b], g
                    n_joins += 1
                    group[a] = g
                elif group[a] < 0:
                    group[a], leaf[a] = group[b], leaf[b]
                parent[b] = a
                if head[b] >= 0:
                    if head[a] < 0:
                        head[a] = head[b]
                    else:
                        after[tail[a]] = head[b]
                    tail[a] = tail[b]
            if made_above >= 0:
                gone[before_a] = gone[before_b] = True
                # Groups that are no more are dropped, so that none is passed over again and again.
                first, last, u = made_above, made_above, head[a]
                while u >= 0:
                    following = after[u]
                    if not gone[u]:
                        after[u] = first
                        first = u
                    u = following
                after[made_above] = -1
                head[a], tail[a] = first, last
        for i in range(n0 + n1):
            if parent[i] != i or group[i] < 0:
                continue
            g = group[i]
            end[g] = section[g]
            u = head[i]
            while u >= 0:
                if not gone[u]:
                    for d in range(ways.shape[0]):
                        end[g, d] = max(end[g, d], u_to[u, d])
                    top[g] = max(top[g], u_top[u])
                u = after[u]
        for g in range(made):
            # What joins another soon, and what has next to nothing above it, is not asked.
            if top[g] - k <= absorbed:
                continue
            if until[g] < _NEVER and until[g] - max(since[g], k) <= absorbed:
                continue
            area = total[g, 0]
            if area <= 0:
                continue
            cx, cy = total[g, 1] / area, total[g, 2] / area
            ixx = total[g, 3] - area * cx * cx
            iyy = total[g, 4] - area * cy * cy
            ixy = total[g, 5] - area * cx * cy
            for on_plate in range(2 if k == 0 else 1):
                strength = plate if on_plate else bond
                if strength <= 0:
                    continue
                tall = (top[g] - k + (1.0 if on_plate else 0.5)) * h
                best, hold, push, lever = np.inf, 0.0, 0.0, 0.0
                for d in range(half):
                    ux, uy = ways[d, 0], ways[d, 1]
                    middle = cx * ux + cy * uy
                    second = ixx * ux * ux + 2 * ixy * ux * uy + iyy * uy * uy
                    reach = max(section[g, d] - middle, section[g, d + half] + middle, 1e-12)
                    far = max(tall, end[g, d] - middle, end[g, d + half] + middle)
                    own_hold = strength * max(second, 0.0) / reach
                    if own_hold < best * drag * far:
                        best, hold, push, lever = own_hold / (drag * far), own_hold, drag * far, far
                if best < most_ratio:
                    rows.append((best, hold, push, float(k), float(top[g]), cx, cy, area,
                                 float(on_plate), lever, float(of_region[g])))  # fmt: skip
        for r in range(lo, hi):
            upper_of[r] = -1
        for i in range(n0):
            upper_of[own[i]] = i
        u_since, u_until, u_top = since[:made], until[:made], top[:made]
        u_from, u_to, n1 = start[:made], end[:made], n0
        joins = new_joins[:n_joins]
        # In the order of time, as they came about; stars of this layer come first.
    out = np.empty((len(rows), 11))
    for i in range(len(rows)):
        for c in range(11):
            out[i, c] = rows[i][c]
    return out
