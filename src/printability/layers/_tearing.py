"""Compiled: what is built so far as a net of ties down to the plate, and its least cut.

Regions that follow each other one by one are a chain, which bears what its weakest tie bears; where
chains part or meet there is a node. Node 0 is the plate. Edges lead from a node to older ones.
"""

import numpy as np

from ..compiled import compiled
from ..mesh._kernels import root_of

# Cuts are looked for until the ratio falls by less than this.
_NEARLY = 1e-9
# What is less than this part of all that pulls is rounding.
_TINY = 1e-12
_MOST_STEPS = 24
_MOST_CUTS = 200  # in one layer
EVERY = 2**62
# After so many steps along edges, of all flows together, only layers that pull harder by a tenth
# than any looked at before are looked at: by then very much is told.
_MOST_STEPS_ALONG = 200_000_000


@compiled
def least_cuts(layer, area, lower, upper, tie_n, plate_n, pull_n, safe, speck, enough):
    """Cuts to the plate, layer by layer, that hold less than ``safe`` times the pull.

    Of each layer the least one, then the least for what that one does not tear off, and so on.

    Parameters
    ----------
    layer : (r,) int
        Of every region, ascending.
    area : (r,) float
    lower, upper : (p,) int
        Regions that touch, ordered by the upper one.
    tie_n : (p,) float
        What each of those ties bears.
    plate_n, pull_n : float
        What a unit of area bears on the plate, and what pulls at it.
    safe : float
    speck : float
        Regions of less area than this do not pull.
    enough : int
        It ends after the layer in which so many cuts are known; `EVERY` for all.

    Returns
    -------
    cut_layer : (c,) int
    hold_n, force_n : (c,) float
        What the cut bears, and the pull at what it would tear off.
    start : (c + 1,) int
    weak : (w,) int
        The ties that are cut: pairs from 0, or -1 - region for one on the plate.
    torn_start : (c + 1,) int
    torn : (t,) int
        The regions of the layer that are torn off.
    """
    count = layer.shape[0]
    above = np.zeros(count, np.int64)
    for p in range(lower.shape[0]):
        above[lower[p]] += 1
    # What a region hangs on: a node, what the chain to it bears, and its weakest tie.
    node = np.full(count, -1, np.int64)
    bears = np.zeros(count)
    weakest = np.zeros(count, np.int64)
    most = count + lower.shape[0] + 1
    home = np.arange(count + 1)
    edge_start = np.zeros(count + 2, np.int64)
    edge_to = np.empty(most, np.int64)
    edge_n = np.empty(most)
    edge_weak = np.empty(most, np.int64)
    # The same as a net in which flows are sent, and how the pull of the last layer went down.
    head, came = np.full(count + 1, -1, np.int64), np.full(count + 1, -1, np.int64)
    to, after, cap = np.empty(2 * most, np.int64), np.empty(2 * most, np.int64), np.empty(2 * most)
    sent, lacks, queue = np.zeros(count + 1), np.zeros(count + 1), np.zeros(count + 1, np.int64)
    stays = np.zeros(count + 1, np.bool_)
    joined, known = 0, 1
    nodes, edges = 1, 0
    cut_layer, hold, force = [0], [0.0], [0.0]
    start, weak, torn_start, torn = [0], [0], [0], [0]
    cut_layer.clear()
    hold.clear()
    force.clear()
    weak.clear()
    torn.clear()
    # How much pulled at each chain when the net was last looked at as it is now.
    seen = np.full(count, -1.0)
    net_of, net = np.full(count, -1, np.int64), 0
    work, hardest = np.zeros(1, np.int64), 0.0
    r = p = 0
    while r < count:
        k, first = layer[r], r
        is_new = False
        while r < count and layer[r] == k:
            q = p
            while q < lower.shape[0] and upper[q] == r:
                q += 1
            if q == p and k == 0:
                node[r], bears[r], weakest[r] = 0, plate_n * area[r], -1 - r
                is_new = True
            elif q == p + 1 and above[lower[p]] == 1:
                s = lower[p]
                node[r], bears[r], weakest[r] = node[s], bears[s], weakest[s]
                seen[r], net_of[r] = seen[s], net_of[s]
                if tie_n[p] < bears[r] * (1 - _NEARLY):
                    bears[r], weakest[r] = tie_n[p], p
                    is_new = True
            else:
                is_new = True
                for i in range(p, q):
                    s = lower[i]
                    if above[s] > 1 and bears[s] < np.inf:
                        # Several stand on it: it becomes a node.
                        n = nodes
                        nodes += 1
                        edge_to[edges], edge_n[edges], edge_weak[edges] = (
                            node[s],
                            bears[s],
                            weakest[s],
                        )
                        edges += 1
                        edge_start[nodes] = edges
                        home[n] = root_of(home, node[s])
                        node[s], bears[s] = n, np.inf
                if q == p + 1:
                    node[r], bears[r], weakest[r] = node[lower[p]], tie_n[p], p
                else:
                    n = nodes
                    nodes += 1
                    for i in range(p, q):
                        s = lower[i]
                        if bears[s] < tie_n[i]:
                            edge_n[edges], edge_weak[edges] = bears[s], weakest[s]
                        else:
                            edge_n[edges], edge_weak[edges] = tie_n[i], i
                        edge_to[edges] = node[s]
                        edges += 1
                        a, b = root_of(home, n), root_of(home, node[s])
                        home[max(a, b)] = min(a, b)
                    edge_start[nodes] = edges
                    node[r], bears[r] = n, np.inf
            p = q
            r += 1
        net += is_new
        for i in range(first, r):
            if net_of[i] != net or area[i] > seen[i] * (1 + _NEARLY):
                is_new = True
        if not is_new:
            continue
        for i in range(first, r):
            seen[i], net_of[i] = area[i], net
        pulls = np.zeros(r - first)
        for i in range(first, r):
            # What hangs on nothing is an island, which is told as such.
            if area[i] >= speck and root_of(home, node[i]) == 0:
                pulls[i - first] = pull_n * area[i]
        whole = pulls.sum()
        if work[0] > _MOST_STEPS_ALONG and whole < 1.1 * hardest:
            continue
        for n in range(known, nodes):
            for e in range(edge_start[n], edge_start[n + 1]):
                joined = _join(head, to, after, cap, joined, n, edge_to[e], edge_n[e], edge_n[e])
        known = nodes
        hardest = max(hardest, whole)
        for _ in range(_MOST_CUTS):
            found, off, ratio, bearing, pulled = _least(
                first, r, pulls, safe, node, bears, weakest, edge_start, edge_to, edge_n, edge_weak,
                nodes, head, to, after, cap, sent, lacks, stays, queue, came, work,
            )  # fmt: skip
            if ratio >= safe:
                break
            cut_layer.append(k)
            hold.append(bearing)
            force.append(pulled)
            weak.extend(found)
            start.append(len(weak))
            torn.extend(off)
            torn_start.append(len(torn))
            for i in off:
                pulls[i - first] = 0.0
            if work[0] > 2 * _MOST_STEPS_ALONG:
                break
        if len(cut_layer) >= enough:
            break
    return (
        np.array(cut_layer, np.int64), np.array(hold), np.array(force), np.array(start, np.int64),
        np.array(weak, np.int64), np.array(torn_start, np.int64), np.array(torn, np.int64),
    )  # fmt: skip


@compiled
def _send_down(first, end, pulls, ratio, node, bears, nodes, head, to, after, cap, sent, lacks,
               stays, queue, came, work):  # fmt: skip
    """Send as much of the pull at a layer down to the plate as finds its way; whether all does.

    What was sent down before stays as it is in ``cap``; what pulls more now is sent along shortest
    ways (max-flow, min-cut: Ford and Fulkerson 1956; Edmonds and Karp 1972; from memory) to the
    plate, or to a node at which less pulls now. ``stays`` says which nodes are above the least cut.
    """
    stays[:nodes] = False
    for n in range(1, nodes):
        lacks[n] = -sent[n]
    whole = 0.0
    for r in range(first, end):
        if node[r]:
            goes = min(ratio * pulls[r - first], bears[r])
            lacks[node[r]] += goes
            whole += goes
    tiny = _TINY * whole
    goes_down = True
    for n in range(1, nodes):
        while lacks[n] > tiny and not stays[n]:
            queue[0], done, known, last = n, 0, 1, -1
            came[n] = -2
            while done < known and last < 0:
                e = head[queue[done]]
                done += 1
                while e >= 0:
                    work[0] += 1
                    t = to[e]
                    if cap[e] > tiny and came[t] == -1 and not stays[t]:
                        came[t] = e
                        queue[known] = t
                        known += 1
                        if t == 0 or lacks[t] < -tiny:
                            last = t
                            break
                    e = after[e]
            if last >= 0:
                goes = lacks[n] if last == 0 else min(lacks[n], -lacks[last])
                t = last
                while t != n:
                    goes = min(goes, cap[came[t]])
                    t = to[came[t] ^ 1]
                t = last
                while t != n:
                    e = came[t]
                    cap[e] -= goes
                    cap[e ^ 1] += goes
                    t = to[e ^ 1]
                sent[n] += goes
                lacks[n] -= goes
                sent[last] -= goes
                lacks[last] += goes
            for i in range(known):
                came[queue[i]] = -1
                if last < 0:  # nothing leads from these to the plate any more
                    stays[queue[i]] = True
        goes_down &= not stays[n]
    return goes_down


@compiled
def _least(first, end, pulls, safe, node, bears, weakest, edge_start, edge_to, edge_n, edge_weak,
           nodes, head, to, after, cap, sent, lacks, stays, queue, came, work):  # fmt: skip
    """The cut of least hold over pull: by maximum flows, each with the ratio of the last cut.

    The ratio falls step by step to the least one (Dinkelbach 1967, from memory).
    """
    ratio = safe
    found, off = [0], [0]
    found.clear()
    off.clear()
    bearing, pulled = 0.0, 0.0
    for _ in range(_MOST_STEPS):
        _send_down(first, end, pulls, ratio, node, bears, nodes, head, to, after, cap, sent, lacks,
                   stays, queue, came, work)  # fmt: skip
        bears_now, pulls_now = 0.0, 0.0
        ties, goes = [0], [0]
        ties.clear()
        goes.clear()
        for n in range(1, nodes):
            for e in range(edge_start[n], edge_start[n + 1]):
                if stays[n] != stays[edge_to[e]]:
                    bears_now += edge_n[e]
                    ties.append(edge_weak[e])
        for r in range(first, end):
            pull = pulls[r - first]
            if pull <= 0:
                continue
            is_cut = not stays[node[r]] and bears[r] < ratio * pull * (1 - _TINY)
            if stays[node[r]] or is_cut:
                pulls_now += pull
                goes.append(r)
            if is_cut:
                bears_now += bears[r]
                ties.append(weakest[r])
        if pulls_now <= 0 or bears_now >= ratio * pulls_now * (1 - _NEARLY):
            break
        ratio = bears_now / pulls_now
        bearing, pulled = bears_now, pulls_now
        found, off = ties, goes
    return found, off, ratio, bearing, pulled


@compiled
def _join(head, to, after, cap, used, a, b, forth, back):
    """Put an edge and its reverse into a net; gives how many there are then."""
    to[used], cap[used], after[used], head[a] = b, forth, head[a], used
    to[used + 1], cap[used + 1], after[used + 1], head[b] = a, back, head[b], used + 1
    return used + 2
