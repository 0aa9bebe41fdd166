"""Compiled: stacks of regions while they grow, on their own feet and as beams."""

import numpy as np

from ..compiled import compiled
from ..mesh._kernels import root_of
from ._kernels import hull_of, margin_of

__all__ = ["least_held", "sway"]

_GRAVITY_N_G = 9.81e-3
_NO_WIDTH_MM4 = 1e-9


@compiled
def _section(sums, hull, ways):
    """Least section modulus of some regions together, their corners given."""
    area = sums[0]
    if area <= 0:
        return 0.0
    cx, cy = sums[1] / area, sums[2] / area
    ixx, iyy = sums[3] - area * cx * cx, sums[4] - area * cy * cy
    ixy = sums[5] - area * cx * cy
    best = np.inf
    for d in range(ways.shape[0]):
        ux, uy = ways[d, 0], ways[d, 1]
        reach = 1e-12
        for p in range(hull.shape[0]):
            reach = max(reach, abs((hull[p, 0] - cx) * ux + (hull[p, 1] - cy) * uy))
        second = ixx * ux * ux + 2 * ixy * ux * uy + iyy * uy * uy
        best = min(best, second / reach)
    return best


@compiled
def least_held(
    points, loop_start, loops, region_loops, layer_regions, lower, upper, volume, center, sums,
    ways, h, density, drag, plate, absorbed,
):  # fmt: skip
    """Stacks on the plate where their feet hold them least, once for each while it stands alone.

    ``lower``, ``upper`` ordered by the upper one; ``sums`` (f, 6) of the first layer's regions as
    in `weak_cuts`. Rows of what pushes, what holds, the least margin inside the foot, the foot's
    area, the middle x, y, z, the height reached, and whether nothing else stood then.
    """
    count, feet = volume.shape[0], layer_regions[1]
    parent = np.arange(count)
    mass, first = volume.copy(), np.empty((count, 3))
    foot = np.full(count, -1, np.int64)
    hulls = [np.empty((1, 2))]
    hulls.clear()
    of_foot, section = sums.copy(), np.zeros(feet)
    for r in range(feet):
        n = 0
        for i in range(region_loops[r], region_loops[r + 1]):
            n += loop_start[loops[i] + 1] - loop_start[loops[i]]
        own, at = np.empty((n, 2)), 0
        for i in range(region_loops[r], region_loops[r + 1]):
            for p in range(loop_start[loops[i]], loop_start[loops[i] + 1]):
                own[at, 0], own[at, 1] = points[p, 0], points[p, 1]
                at += 1
        hulls.append(hull_of(own))
        section[r] = _section(of_foot[r], hulls[r], ways)
        foot[r] = r
    kept = max(absorbed, 1)
    looks = np.full((feet, kept, 8), np.nan)
    worst = np.full((feet, 8), np.nan)
    margin = np.full(feet, np.inf)
    standing = np.arange(feet)
    rows = [(0.0,) * 9]
    rows.clear()
    at = 0
    n_layers = layer_regions.shape[0] - 1
    for k in range(n_layers):
        for r in range(layer_regions[k], layer_regions[k + 1]):
            first[r, 0], first[r, 1] = volume[r] * center[r, 0], volume[r] * center[r, 1]
            first[r, 2] = volume[r] * (k + 0.5) * h
        while at < upper.shape[0] and upper[at] < layer_regions[k + 1]:
            a, b = root_of(parent, lower[at]), root_of(parent, upper[at])
            at += 1
            if a == b:
                continue
            fa, fb = foot[a], foot[b]
            if fa >= 0 and fb >= 0:
                for f in (fa, fb):
                    if not np.isnan(worst[f, 0]):
                        rows.append((worst[f, 0], worst[f, 1], margin[f], of_foot[f, 0],
                                     worst[f, 3], worst[f, 4], worst[f, 5], worst[f, 6],
                                     worst[f, 7]))  # fmt: skip
                    looks[f] = np.nan
                    worst[f] = np.nan
                    margin[f] = np.inf
                of_foot[fa] += of_foot[fb]
                hulls[fa] = hull_of(np.concatenate((hulls[fa], hulls[fb])))
                hulls[fb] = hulls[fb][:1]
                section[fa] = -1.0
            elif fa < 0:
                foot[a] = fb
            parent[b] = a
            mass[a] += mass[b]
            first[a] += first[b]
        n = 0
        for i in range(standing.shape[0]):
            f = standing[i]
            if foot[root_of(parent, f)] == f:
                standing[n] = f
                n += 1
        standing = standing[:n]
        slot, alone = k % kept, 1.0 if n == 1 else 0.0
        for i in range(n):
            f = standing[i]
            root = root_of(parent, f)
            if section[f] < 0:
                section[f] = _section(of_foot[f], hulls[f], ways)
            _count(looks[f, slot], worst[f], margin, f)
            whole = max(mass[root], 1e-300)
            x, y, z = first[root, 0] / whole, first[root, 1] / whole, first[root, 2] / whole
            inside = margin_of(hulls[f], x, y)
            push = mass[root] * 1e-3 * density * _GRAVITY_N_G * max(-inside, 0.0)
            look = looks[f, slot]
            look[0], look[1], look[2] = push + drag * (k + 1) * h, plate * section[f], inside
            look[3], look[4], look[5], look[6], look[7] = x, y, z, (k + 1) * h, alone
    for i in range(standing.shape[0]):
        f = standing[i]
        for slot in range(kept):
            _count(looks[f, slot], worst[f], margin, f)
        if not np.isnan(worst[f, 0]):
            rows.append((worst[f, 0], worst[f, 1], margin[f], of_foot[f, 0], worst[f, 3],
                         worst[f, 4], worst[f, 5], worst[f, 6], worst[f, 7]))  # fmt: skip
    out = np.empty((len(rows), 9))
    for i in range(len(rows)):
        for c in range(9):
            out[i, c] = rows[i][c]
    return out


@compiled
def _count(look, worst, margin, f):
    """Keep the worse of a look and what was the worst."""
    if np.isnan(look[0]):
        return
    margin[f] = min(margin[f], look[2])
    if np.isnan(worst[0]) or look[0] * max(worst[1], 1e-12) > worst[0] * max(look[1], 1e-12):
        worst[:] = look


@compiled
def _gives(lump, s0, s1, s2, z):
    return lump + z * z * s0 - 2 * z * s1 + s2


@compiled
def sway(region_layer, below_start, below, children, least_mm4, h):
    """What a unit load moves the top of each region, by a unit modulus; -1 where nothing stands.

    ``below`` lists the regions that each touches from above, ``children`` is how many each carries.
    Returns that, (r,) float; the length of what gives way, (r,) float, that of a uniform upright
    beam where nothing meets; and (r,) bool, which regions end or meet others.
    """
    n = region_layer.shape[0]
    known = np.zeros(n, np.bool_)
    lump, s0, s1, s2 = np.zeros(n), np.zeros(n), np.zeros(n), np.zeros(n)
    s3, length_of = np.zeros(n), np.zeros(n)
    parted, since = np.zeros(n), np.zeros(n)
    before = np.full(n, -1, np.int64)
    meets = np.zeros(n, np.bool_)
    for r in range(n):
        if below_start[r + 1] - below_start[r] > 1:
            for i in range(below_start[r], below_start[r + 1]):
                meets[below[i]] = True
    out, long, ends = np.full(n, -1.0), np.zeros(n), np.zeros(n, np.bool_)
    for r in range(n):
        k = region_layer[r]
        z = k * h
        if k > 0:
            own, only, under = 0, -1, -1
            for i in range(below_start[r], below_start[r + 1]):
                b = below[i]
                if not known[b]:
                    continue
                own += 1
                only = b
                if (
                    under < 0
                    or parted[b] < parted[under]
                    or (
                        parted[b] == parted[under]
                        and _gives(lump[b], s0[b], s1[b], s2[b], z)
                        < _gives(lump[under], s0[under], s1[under], s2[under], z)
                    )
                ):
                    under = b
            if own == 0:
                continue  # begins on nothing: told as an island
            if own == 1:
                b = only
                lump[r], s0[r], s1[r], s2[r], s3[r] = lump[b], s0[b], s1[b], s2[b], s3[b]
                parted[r], since[r], before[r] = parted[b], since[b], before[b]
                length_of[r] = length_of[b]
                if children[b] > 1:
                    parted[r], since[r], before[r] = z, 0.0, b
            else:
                # Apart since they parted, they do not turn at their ends: columns side by side.
                length = max(z - parted[under], 1e-9)
                together = 0.0
                for i in range(below_start[r], below_start[r + 1]):
                    b = below[i]
                    if known[b] and since[b] > 0:
                        together += (z - parted[b]) / since[b]
                more = length**3 / (12 * max(together, _NO_WIDTH_MM4))
                gives = _gives(lump[under], s0[under], s1[under], s2[under], z)
                length_of[r] = length
                b = before[under]
                if b < 0:
                    lump[r], parted[r] = min(more, gives), z
                else:
                    rest = _gives(lump[b], s0[b], s1[b], s2[b], z)
                    lump[r] = lump[b] + min(more, gives - rest)
                    s0[r], s1[r], s2[r], s3[r] = s0[b], s1[b], s2[b], s3[b]
                    parted[r], since[r], before[r] = parted[b], since[b], before[b]
        soft, middle = h / least_mm4[r], z + h / 2
        s0[r] += soft
        s1[r] += soft * middle
        s2[r] += soft * middle * middle
        s3[r] += soft * middle**3
        since[r] += soft
        known[r] = True
        ends[r] = children[r] == 0 or meets[r]
        top = z + h
        out[r] = _gives(lump[r], s0[r], s1[r], s2[r], top)
        bent = _gives(0.0, s0[r], s1[r], s2[r], top)
        cubed = top**3 * s0[r] - 3 * top**2 * s1[r] + 3 * top * s2[r] - s3[r]
        own = 4.0 / 3.0 * cubed / bent if bent > 0 else 0.0
        if out[r] > 0:  # of columns side by side and of what bends above, as each gives way
            long[r] = (lump[r] * length_of[r] + bent * own) / out[r]
    return out, long, ends
