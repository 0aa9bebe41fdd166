"""Where contacts go: in the trade's order, the points first, then what spans, then faces."""

import math
from dataclasses import dataclass, field
from typing import TYPE_CHECKING

import numpy as np
from scipy.sparse import csr_array
from scipy.spatial import cKDTree

from ..findings import FAR_OVER, Finding, beside, places_unheld, unheld_along
from ..footing import margin_in
from ..inspection import Inspection
from ..layers import Hanging, outlines, region_loops, tug_of_war
from ..mesh import facets_by_area, spread_in
from ..patches import SPECK_MM2
from ..stance import Placed
from ..supports import KINDS, Contact, Fitted, Support
from ..surface import held_pieces
from ._local_kernels import sum_within
from .local import hanging_between
from .stands import Spot, Stands

if TYPE_CHECKING:
    from .proposal import Search, Unreachable

__all__ = ["BUNCHED", "LOWEST", "Round", "Wanted", "spots_for"]

# What is judged by itself here is kept this far within its limit, so that the whole agrees.
_WITHIN = 0.96
_SAFE_RATIO = {"risky": 2.06, "failing": 1.03}
_MOST_IN_LAYER = 600
# Where a contact finds no room: so far aside it is tried again, in times the contact, around.
_ASIDE_MM, _AROUND = (0.6, 1.2, 2.4, 4.0), 8
_MOST_PIECES, _MOST_CANDIDATES = 16_000, 700
# Of a patch, what may stay unheld, and how much nearer than it need be a contact is taken for.
_LEFT, _NEARER = 0.01, 0.94
# So many places are tried for one that steadies it, where it does so by more than this.
_MOST_STEADY, _BETTER_MM = 24, 0.2
# Where what a contact should hold is not what it holds, so many are tried out, so far apart.
_MOST_TRIED, _TRIED_APART_MM, _NO_BETTER = 40, 0.5, 0.95
# How contacts at the single lowest point are told, and one that makes it stand.
LOWEST, BUNCHED, STEADIES = "Lowest point", "Bunched at the lowest point", "Steadies it"


@dataclass
class Wanted:
    """What a search remembers from one round to the next: where contacts were given up."""

    given_up: list[tuple[float, float, float]] = field(default_factory=list)
    # Of each overhang patch, what was unheld when contacts were last stood under it.
    unheld_mm2: dict[int, float] = field(default_factory=dict)

    def knows(self, place, near: float = 0.8) -> bool:
        """Whether a contact was given up there."""
        return any(math.dist(place, one) < near for one in self.given_up)


def spots_for(
    search: "Search", stands: Stands, look: Inspection, placed: Placed,
    findings: list[Finding], wanted: Wanted,
) -> tuple[list[Fitted], list["Unreachable"]]:  # fmt: skip
    """Supports for some findings, and the places that get none.

    Parameters
    ----------
    search : Search
    stands : Stands
    look : Inspection
        With the supports that stand so far.
    placed : Placed
    findings : list of Finding
    wanted : Wanted
    """
    job = Round(search, stands, look, wanted)
    for finding in findings:
        if finding.kind == "island":
            job.island(finding)
    # A face held as a whole holds its layers too.
    for finding in findings:
        if finding.kind == "overhang":
            job.patch(finding)
    layers: dict[int, list[Finding]] = {}
    for finding in findings:
        if finding.kind in ("bridge", "ledge", "jump"):
            layers.setdefault(finding.layer, []).append(finding)
    for layer, own in sorted(layers.items()):
        job.layer(layer, own)
    if not job.made:
        for finding in findings:
            if finding.kind in ("footing", "wobble"):
                job.steady(finding)
                break
    return job.made, job.missed


class Round:
    """One round of standing contacts, by what an inspection found."""

    def __init__(self, search, stands, look, wanted):
        self.search, self.stands, self.look, self.wanted = search, stands, look, wanted
        self.options, self.process = search.options, search.process
        self.h = self.process.layer_height_mm
        self.made: list[Fitted] = []
        self.missed: list = []
        self.pseudo: list = []  # where a contact was wanted and given up
        far = FAR_OVER if self.options.clear == "failing" else 1.0
        self.limits = tuple(limit * far for limit in look.limits_mm)
        faces = -1 if not self.process["pull_n_mm2"] else 0
        self.light, self.ordinary = self.options.weight(faces), self.options.weight(0)
        self.heavy = self.options.weight(1)
        # A place given up counts as held, so that what is beside it is looked at too.
        self._given_up_mm = max(stands.sizes[self.light].contact_mm / 2, 0.4)

    # ---- one contact ----------------------------------------------------------------------

    def stand(self, facet: int, place, weight: str, why: str) -> tuple[Fitted | None, str]:
        self.search.tried()
        found, reason = self.stands.support(Spot(int(facet), tuple(map(float, place)), weight, why))
        if found is not None:
            self.made.append(found)
        return found, reason

    def under(self, points: np.ndarray, layer: int) -> tuple[np.ndarray, np.ndarray]:
        """Facets with which a layer begins above some points, -1 for none, and the places."""
        points = np.asarray(points, float).reshape(-1, 2)
        facets = self.look.facets_above(points, np.full(len(points), layer))
        places = np.full((len(points), 3), np.nan)
        mesh = self.look.mesh
        for i, f in enumerate(facets):
            if not 0 <= f < len(mesh.facets):
                facets[i] = -1
                continue
            a, b, c = mesh.vertices[mesh.facets[f]]
            n = np.cross(b - a, c - a)
            if n[2] >= 0:
                facets[i] = -1
                continue
            z = a[2] - (n[0] * (points[i, 0] - a[0]) + n[1] * (points[i, 1] - a[1])) / n[2]
            places[i] = (*points[i], z)
        return facets, places

    def give_up(self, place, why: str) -> None:
        from .proposal import Unreachable

        place = tuple(map(float, place))
        self.wanted.given_up.append(place)
        self.missed.append(Unreachable(place, why))

    # ---- what begins on nothing -----------------------------------------------------------

    def island(self, finding: Finding) -> None:
        """One contact under the lowest place of an island."""
        island = self.look.islands[int(finding.id.split("-")[1]) - 1]
        loops = region_loops(self.look.layers, island.region)
        lasts = "never joins" if island.absorbed_after_layers is None else (
            f"joins after {island.lasts_layers} layers"
        )  # fmt: skip
        tall = island.lasts_layers * self.h
        first = self._is_lowest(island)
        weight = self.heavy if first else self.ordinary
        why = f"{LOWEST if first else 'Island'}, {lasts}"
        places = self._lowest(loops, island)
        reason = "Nothing faces down here."
        for facet, place in places:
            if self.wanted.knows(place):
                return
            found, reason = self.stand(facet, place, weight, why)
            if found is not None:
                return
        at = places[0][1] if places else island.center_mm
        self.give_up(at, f"{why} ({tall:.1f} mm): {reason}")

    def place_of_island(self, island) -> tuple[str, float, list]:
        """Whether it is the lowest point, its slope, and places for a contact, best first."""
        spots = self._lowest(region_loops(self.look.layers, island.region), island)
        facet = spots[0][0] if spots else -1
        slope = float(self.look.slopes_deg[facet]) if facet >= 0 else 0.0
        slope = slope if math.isfinite(slope) else 90.0
        return ("lowest" if self._is_lowest(island) else "island"), slope, spots

    def _is_lowest(self, island) -> bool:
        some = np.flatnonzero(self.look.own_layers.area_mm2 > 0)
        return bool(len(some)) and island.layer <= int(some[0]) + 1

    def _lowest(self, loops, island) -> list[tuple[int, tuple]]:
        """Places of an island's underside: its lowest, its middle, and some around."""
        mesh, k = self.look.mesh, island.layer
        low = np.min([loop.min(axis=0) for loop in loops], axis=0) - 0.2
        high = np.max([loop.max(axis=0) for loop in loops], axis=0) + 0.2
        v = mesh.vertices
        top, floor = (k + 0.5) * self.h, (k - 0.5) * self.h - 2 * self.look.hair_mm
        near = np.flatnonzero(
            (v[:, 2] >= floor) & (v[:, 2] <= top + self.look.hair_mm)
            & (v[:, :2] >= low).all(axis=1) & (v[:, :2] <= high).all(axis=1)
        )  # fmt: skip
        found = []
        if len(near):
            lowest = near[v[near, 2] <= v[near, 2].min() + 1e-3 * self.h]
            middle = v[lowest, :2].mean(axis=0)
            vertex = int(lowest[np.argmin(np.hypot(*(v[lowest, :2] - middle).T))])
            if len(lowest) <= 2 or np.ptp(v[lowest, :2], axis=0).max() < 1.0:
                facets = np.flatnonzero((mesh.facets == vertex).any(axis=1))
                facet = int(facets[np.argmin(self.stands.normals[facets, 2])])
                inward = mesh.vertices[mesh.facets[facet]].mean(axis=0)
                place = v[vertex] + 0.01 * (inward - v[vertex])
                found.append((facet, tuple(place)))
        points = [island.center_mm[:2]]
        outline = loops[0]
        centre = np.asarray(island.center_mm[:2])
        for part in (0.5, 0.8):
            step = max(len(outline) // 8, 1)
            points += [tuple(centre + part * (p - centre)) for p in outline[::step][:8]]
        facets, places = self.under(np.array(points), k)
        found += [(int(f), tuple(p)) for f, p in zip(facets, places, strict=True) if f >= 0]
        return found

    # ---- what spans or reaches too far, or is pulled off ----------------------------------

    def layer(self, k: int, findings: list[Finding]) -> None:
        """Contacts under what hangs in a layer, the worst point first, until it is held."""
        own = outlines(self.look.layers, k)
        below = outlines(self.look.layers, k - 1)
        bare = outlines(self.look.own_layers, k - 1)
        # Contacts under this layer, those made in this round included.
        contacts = [*self.look.contacts, *(c for f in self.made for c in f.contacts[:1])]
        discs = [
            (*c.at_mm[:2], c.diameter_mm / 2)
            for c in contacts if abs(self.look.level(c.at_mm[2]) - k) <= 1
        ]  # fmt: skip
        # What was given up in an earlier round is not asked for again.
        discs += [
            (x, y, self._given_up_mm) for x, y, z in self.wanted.given_up
            if abs(self.look.level(z) - k) <= 1
        ]  # fmt: skip
        flagged = [
            part for part in self.look.hanging(k)
            if any(part.near(np.array(f.under_mm[:1], float), np.array([0.2])).any()
                   for f in findings if f.under_mm)
        ]  # fmt: skip
        kinds = {f.kind for f in findings}
        seeded, made = False, len(self.made)
        for _ in range(_MOST_IN_LAYER):
            self.search.may_stop()
            if not self.search.may_go_on():
                return
            now = hanging_between(below, own, discs, k, self.process, flagged)
            bad = [p for p in now if self._is_bad(p, flagged, bare)]
            if not bad:
                if len(self.made) == made:
                    self._along(findings, flagged)
                return
            if not seeded and self.process["pull_n_mm2"]:
                seeded = True
                for part in {p.part: p for p in bad}.values():
                    self._lattice(part, k, discs)
                if len(discs) > 40:
                    continue
            before = len(discs)
            for part in bad:
                if self.process["pull_n_mm2"] or part.kind == "bridge":
                    self._one_more(part, k, discs, kinds)
                else:
                    self._cover(part, k, discs, bare)
            if len(discs) == before:
                return

    def _along(self, findings: list[Finding], flagged: list[Hanging]) -> None:
        """One contact each for what is near enough to contacts, but not along its underside."""
        for finding in findings:
            at = np.array(finding.under_mm[:1], float).reshape(-1, 2)
            parts = [
                p for p in flagged
                if p.kind == finding.kind and len(at) and p.near(at, np.array([0.2]))[0]
            ]  # fmt: skip
            part = max(parts, key=lambda p: p.length_mm, default=None)
            if part is None:
                continue
            middle, facets, area = unheld_along(
                self.look, self.search.overhang, self.search.threshold, part
            )
            if not len(middle):  # it begins on what is no overhang
                self._one_more(part, part.layer, [], set())
                continue
            pool = np.linspace(0, len(middle) - 1, min(len(middle), _MOST_CANDIDATES)).astype(int)
            reason = "Nothing faces down here."
            gain = sum_within(_flat(middle[pool]), _flat(middle), area, self._holds()[1])
            why = f"A {part.kind} of {part.length_mm:.1f} mm, along its underside"
            found = None
            low = middle[pool, 2] < self.stands.least_mm
            if low.all():  # one says so
                low[np.argmax(gain)] = False
            gain[low] = 0.0
            while found is None and gain.any():
                best = int(np.argmax(gain))
                place = middle[pool[best]]
                if not self.wanted.knows(place, 0.3):
                    found, reason = self.stand(facets[pool[best]], place, self.light, why)
                gain[~_far_from(middle[pool], place, 0.6)] = 0.0
            if found is None:
                self.give_up(middle[0], f"{why}: {reason}")

    def _cover(self, part: Hanging, k: int, discs: list, bare: list) -> None:
        """Contacts under a ledge, by what each would hold more of it, the rim first."""
        ledge, hold = self._holds()
        left = places_unheld(part, self._beside(part), bare, ledge, hold)
        reach = "reaches" if part.kind == "ledge" else "spans"
        why = f"A {part.kind} that {reach} {part.length_mm:.1f} mm"
        if not len(left):
            return self._one_more(part, k, discs, set())
        pool = left[np.linspace(0, len(left) - 1, min(len(left), _MOST_CANDIDATES)).astype(int)]
        radius = self.stands.sizes[self.light].contact_mm / 2
        inside = pool[_deep_in(part, pool, radius)]
        pool = inside if len(inside) else pool
        usable = np.ones(len(pool), bool)
        reason, tried = "Nothing faces down here.", 0
        # How many each would hold.
        held = sum_within(_flat(pool), _flat(left), np.ones(len(left)), hold)
        while len(left) and usable.any() and tried < _MOST_IN_LAYER:
            self.search.may_stop()
            tried += 1
            gain = held * usable
            best = int(np.argmax(gain))
            if gain[best] <= 0:
                break
            facets, places = self.under(pool[best : best + 1], k)
            found = None
            if facets[0] >= 0 and not self.wanted.knows(places[0], 0.3):
                found, reason = self.stand(facets[0], places[0], self.light, why)
            if found is None:
                usable &= np.hypot(*(pool - pool[best]).T) > 0.6
                continue
            discs.append((*pool[best], found.contacts[0].diameter_mm / 2))
            gone = np.hypot(*(left - pool[best]).T) <= hold
            held -= sum_within(_flat(pool), _flat(left[gone]), np.ones(int(gone.sum())), hold)
            left = left[~gone]
        if len(left):
            at = (*left[len(left) // 2], k * self.h)
            self.give_up(at, f"{why}: {reason}")
            discs += [(*p, radius) for p in left[:: max(len(left) // 50, 1)]]
            self.pseudo += [(*p, part.center_mm[2]) for p in left[:: max(len(left) // 50, 1)]]

    def _beside(self, part: Hanging) -> np.ndarray:
        """(c, 2) float: contacts that may hold some of a part."""
        places = [c.at_mm for c in self.look.contacts]
        places += [c.at_mm for f in self.made for c in f.contacts[:1]] + self.pseudo
        at = np.array(places).reshape(-1, 3)
        return at[beside(at[:, 2], part, self._holds()[1], self.process), :2]

    def _holds(self) -> tuple[float, float]:
        """How far from the model, and from a contact, a flat underside may be."""
        far = FAR_OVER if self.options.clear == "failing" else 1.0
        return _WITHIN * self.limits[1], _WITHIN * far * self.process["hold_flat_mm"]

    def _is_bad(self, part: Hanging, flagged: list[Hanging], bare: list) -> bool:
        worst = np.array([part.worst_mm])
        if not any(f.near(worst, np.array([0.05])).any() for f in flagged):
            return False
        if part.length_mm > _WITHIN * self.limits[part.kind == "ledge"]:
            at = self._beside(part)
            if not len(at):
                return True
            if len(places_unheld(part, at, bare, *self._holds())):
                return True
        pull = self.process["pull_n_mm2"]
        if not pull:
            return False
        tug = tug_of_war(
            part.area_mm2, part.rim_mm, self.h, part.length_mm,
            self.look.limits_mm[part.kind == "ledge"], self.process["green_n_mm2"], pull,
        )  # fmt: skip
        return tug.ratio < _SAFE_RATIO[self.options.clear]

    def _lattice(self, part: Hanging, k: int, discs: list) -> None:
        """A checkerboard under a wide part, as far apart as its spans and the pull allow."""
        radius = self.stands.sizes[self.light].contact_mm / 2
        bridge = _WITHIN * self.limits[0]
        apart = (bridge + 2 * radius) / math.sqrt(2)
        if self.process["pull_n_mm2"]:
            rim = 2 * math.pi * radius * self.h * self.process["green_n_mm2"]
            each = rim / (_SAFE_RATIO[self.options.clear] * self.process["pull_n_mm2"])
            if each <= 0:  # what has just set holds nothing: no number of contacts will do
                return
            apart = min(apart, math.sqrt(each))
        if part.area_mm2 < 12 * apart**2:
            return
        points = np.concatenate(part.loops)
        (x0, y0), (x1, y1) = points.min(axis=0), points.max(axis=0)
        nx, ny = max(math.ceil((x1 - x0) / apart), 1), max(math.ceil((y1 - y0) / apart), 1)
        if nx * ny > 20_000:
            return
        xs = x0 + (np.arange(nx) + 0.5) * (x1 - x0) / nx
        ys = y0 + (np.arange(ny) + 0.5) * (y1 - y0) / ny
        grid = np.stack(np.meshgrid(xs, ys), axis=-1).reshape(-1, 2)
        grid = grid[part.near(grid, np.zeros(len(grid)))]
        facets, places = self.under(grid, k)
        for facet, place in zip(facets, places, strict=True):
            taken = any(math.hypot(x - place[0], y - place[1]) < 0.6 * apart for x, y, _ in discs)
            if facet < 0 or taken:
                continue
            found, _ = self.stand(facet, place, self.light, "One of many under a face")
            if found is not None:
                discs.append((place[0], place[1], found.contacts[0].diameter_mm / 2))

    def _one_more(self, part: Hanging, k: int, discs: list, kinds: set) -> None:
        """One contact at a part's worst point, or near it."""
        radius = self.stands.sizes[self.light].contact_mm / 2
        worst, way = np.array(part.worst_mm), np.array(part.direction)
        if part.kind == "ledge":  # the rim needs the whole end under it
            limit = self.limits[1]
            inset = min(radius + 0.1, 0.3 * part.length_mm)
            # As far in as what lies beyond still holds.
            deeper = min(0.45 * limit, max(part.length_mm - limit, 0.0) + inset)
            tries = [worst + way * max(inset, deeper), worst + way * inset]
        else:
            tries = [worst]
        tries += [
            tries[0] + r * np.array([math.cos(a), math.sin(a)])
            for r in _ASIDE_MM for a in 2 * np.pi * np.arange(_AROUND) / _AROUND
        ]  # fmt: skip
        tries = np.array(tries)
        inside = part.near(tries, np.zeros(len(tries)))
        inside[0] |= not inside.any()
        facets, places = self.under(tries[inside], k)
        reach = "reaches" if part.kind == "ledge" else "spans"
        why = f"A {part.kind} that {reach} {part.length_mm:.1f} mm"
        if kinds == {"jump"}:
            why = "Held by too little against the pull of the film"
        reason, first = "Nothing faces down here.", None
        for facet, place in zip(facets, places, strict=True):
            if facet < 0:
                continue
            first = place if first is None else first
            if self.wanted.knows(place, 0.3):
                continue
            found, reason = self.stand(facet, place, self.light, why)
            if found is not None:
                discs.append((place[0], place[1], found.contacts[0].diameter_mm / 2))
                return
        at = first if first is not None else (*worst, k * self.h)
        self.give_up(at, f"{why}: {reason}")
        discs.append((float(at[0]), float(at[1]), self._given_up_mm))

    # ---- faces ----------------------------------------------------------------------------

    def patch(self, finding: Finding) -> None:
        """The fewest contacts that hold a patch, by what each would hold more."""
        mesh = self.look.mesh
        facets = self.look.facets_that_hang(
            finding.patch, self.search.overhang, self.search.threshold
        )
        contacts = [*self.look.contacts, *(c for f in self.made for c in f.contacts)]
        if self.options.clear == "failing" and finding.severity < self.options.least:
            return
        pieces = held_pieces(
            mesh, facets, self.look.slopes_deg,
            np.array([c.at_mm for c in contacts]).reshape(-1, 3),
            np.array([c.facet for c in contacts], int), self.process, self.search.threshold,
            _MOST_PIECES, 3.0,
        )  # fmt: skip
        area = pieces.area_mm2
        middle = pieces.corners_mm.mean(axis=1)
        open_ = np.clip(pieces.over_mm.max(axis=1), 0, None) > 0
        allowed = max(0.5 * SPECK_MM2, _LEFT * float(area.sum()))
        # What little is left may not lie all in one corner.
        is_far = pieces.over_mm.min(axis=1) > self.process["ledge_mm"]
        # What is held by its own rim alone asks for one contact all the same.
        is_one = float(area[open_].sum()) <= allowed and not (is_far & open_).any()
        has_some = bool(np.isin([c.facet for c in contacts], facets).any())
        before = self.wanted.unheld_mm2.get(finding.patch, math.inf)
        self.wanted.unheld_mm2[finding.patch] = finding.area_mm2
        if (
            math.isfinite(before)
            and has_some
            and (is_one or finding.area_mm2 > _NO_BETTER * before)
        ):
            return self._tried_out(finding, contacts, pieces)
        if is_one and has_some:
            return
        open_ |= is_one
        order = np.argsort(-area, kind="stable")[:_MOST_CANDIDATES]
        where = np.flatnonzero(open_)
        if len(where) > _MOST_CANDIDATES:
            where = where[np.linspace(0, len(where) - 1, _MOST_CANDIDATES).astype(int)]
        pool = np.unique(np.concatenate([where, order[: _MOST_CANDIDATES // 4]]))
        far = _NEARER * pieces.reach_mm
        near = cKDTree(middle[pool, :2]).sparse_distance_matrix(
            cKDTree(middle[:, :2]), float(far.max()), output_type="ndarray"
        )
        # What lies above or below it, like the next turn of a coil, it does not hold.
        high = np.abs(middle[pool[near["i"]], 2] - middle[near["j"], 2])
        steep = 1.2 * math.tan(math.radians(min(self.search.threshold, 80.0)))
        near = near[(near["v"] <= far[near["j"]]) & (high <= steep * far[near["j"]])]
        # Nor what was printed before.
        near = near[middle[near["j"], 2] >= middle[pool[near["i"]], 2] - self.h]
        holds = csr_array(
            (np.ones(len(near), bool), (near["i"], near["j"])), (len(pool), len(middle))
        )
        usable = np.ones(len(pool), bool)
        tall = 1 + 0.5 * middle[pool, 2] / max(float(middle[:, 2].max()), 1e-9)
        reason, whole = "", float(area.sum())
        would = holds @ (area * open_)
        held_from = holds.tocsc()
        for _ in range(_MOST_IN_LAYER):
            if float(area[open_].sum()) <= allowed and not (is_far & open_).any():
                return
            gain = np.where(usable, would / tall, 0.0)
            best = int(np.argmax(gain))
            if gain[best] <= 1e-9 * whole:
                break
            place = middle[pool[best]]
            found = None
            if not self.wanted.knows(place, 0.3):
                found, why = self.stand(
                    pieces.facet[pool[best]], place, self.light,
                    f"Overhang of {finding.area_mm2:,.0f} mm², as flat as {finding.measure:.0f}°",
                )  # fmt: skip
                reason = why or reason
            if found is None:
                usable &= _far_from(middle[pool], place, 0.8)
                continue
            own = holds.indices[holds.indptr[best] : holds.indptr[best + 1]]
            fresh = own[open_[own]]
            would -= held_from[:, fresh] @ area[fresh]
            open_[own] = False
            usable[best] = False
            if is_one:
                return
        rest = np.flatnonzero(open_)
        if len(rest) and (float(area[rest].sum()) > allowed or is_far[rest].any()):
            at = middle[rest[np.argmax(area[rest])]]
            self.give_up(at, f"Overhang of {finding.area_mm2:,.0f} mm²: {reason}")

    def _tried_out(self, finding: Finding, contacts: list, pieces) -> None:
        """One contact more under a patch, by what is unheld with it along the underside.

        Seen from above another side of a gap is as near, and none of it is held from there.
        """
        overhang = self.search.overhang
        patch = overhang.patches[finding.patch - 1]
        contacts = [c for c in contacts if overhang.patch_of_facet[c.facet] == finding.patch]
        middle = pieces.corners_mm.mean(axis=1)
        most = _NO_BETTER * self.search.unheld_mm2(patch, contacts)
        tried: list[tuple[float, int]] = []
        # What hangs farthest beyond what is held first.
        order = np.argsort(-pieces.over_mm.max(axis=1), kind="stable")
        free = middle[order, 2] >= self.stands.least_mm
        for _ in range(_MOST_TRIED):
            if not free.any():
                break
            i = int(order[np.argmax(free)])
            free &= _far_from(middle[order], middle[i], _TRIED_APART_MM)
            if self.wanted.knows(middle[i], 0.3):
                continue
            self.search.may_stop()
            contact = Contact(tuple(middle[i].tolist()), 0.0, 0.0, int(pieces.facet[i]))
            tried.append((self.search.unheld_mm2(patch, [*contacts, contact]), i))
        what, reason = f"Overhang of {finding.area_mm2:,.0f} mm²", "no contact holds more of it."
        for left, i in sorted(tried):
            if left >= most:
                break
            found, reason = self.stand(
                pieces.facet[i], middle[i], self.light, f"{what}, along its underside"
            )
            if found is not None:
                return
        self.give_up(middle[order[0]], f"{what}: {reason}")

    # ---- what wobbles ---------------------------------------------------------------------

    def steady(self, finding: Finding) -> None:
        """A contact beyond the footing, on the side to which the mass leans."""
        stand = self.look.footing
        if stand is None:
            return
        mesh = self.look.mesh
        down = np.flatnonzero(
            (self.stands.normals[:, 2] < -0.2) & np.isfinite(self.look.slopes_deg)
        )
        if not len(down):
            return
        middle = mesh.vertices[mesh.facets[down]].mean(axis=1)
        com = np.array(stand.center_of_mass_mm[:2])
        points = np.concatenate(
            [np.concatenate(outlines(self.look.layers, 0)) if outlines(self.look.layers, 0)
             else com[None]]
        )  # fmt: skip
        way = com - points.mean(axis=0)
        if np.linalg.norm(way) < 1e-6:
            way = np.array([1.0, 0.0])
        way = way / np.linalg.norm(way)
        if any(one.support.why == STEADIES for one in self.look.supports):
            made = self._farther_out(down, com, points)
        else:
            made = self._around(down, middle, com, way, finding.kind == "wobble")
        if made:
            return
        if finding.kind == "footing" and not self.wanted.knows(finding.center_mm):
            brim = KINDS["brim"]
            size = brim.size_for(self.process)
            found = brim.fitted(
                self.stands.world, Support("brim", "brim", (), size, why=f"{STEADIES}: a brim"), ()
            )
            if found.stands:
                self.wanted.given_up.append(tuple(finding.center_mm))
                self.made.append(found)
                return
        self.give_up(finding.center_mm, f"{finding.title}: no contact steadies it.")

    def _around(self, down, middle, com, way, is_one: bool) -> int:
        """Stand a contact on the side it leans to, then around, so that three are about the middle.

        Gives how many; with ``is_one`` the first will do.
        """
        made = 0
        for turn in (0, 120, 240):
            a = math.radians(turn)
            to = np.array([way[0] * math.cos(a) - way[1] * math.sin(a),
                           way[0] * math.sin(a) + way[1] * math.cos(a)])  # fmt: skip
            out = (middle[:, :2] - com) @ to
            side = np.abs((middle[:, :2] - com) @ np.array([-to[1], to[0]]))
            good = np.argsort(-(out - 0.7 * side - 0.3 * middle[:, 2]), kind="stable")
            for i in good[:_MOST_STEADY]:
                there = any(math.dist(one.contact_mm, middle[i]) < 1.0 for one in self.made)
                if out[i] <= 0 or there or self.wanted.knows(middle[i], 2.0):
                    continue
                found, _ = self.stand(down[i], middle[i], self.ordinary, STEADIES)
                if found is not None:
                    made += 1
                    break
            if turn == 0 and made and is_one:
                break
        return made

    def _farther_out(self, down, com, points) -> int:
        """Stand a contact more where the footing's hull then holds the middle best; gives how many.

        Only where that is better than it is.
        """
        mesh, now = self.look.mesh, margin_in(points, com)
        facet, number = facets_by_area(self.look.areas_mm2[down], _MOST_CANDIDATES)
        facet = down[facet]
        places = spread_in(mesh.vertices[mesh.facets[facet]], number)
        there = np.array([c.at_mm for c in self.look.contacts]).reshape(-1, 3)
        then = np.array([margin_in(np.vstack([points, place[:2]]), com) for place in places])
        tried = 0
        for k in np.argsort(-(then - 0.02 * places[:, 2]), kind="stable"):
            if tried >= _MOST_STEADY:
                break
            near = len(there) and np.linalg.norm(there - places[k], axis=1).min() < 1.0
            if then[k] <= now + _BETTER_MM or near or self.wanted.knows(places[k], 2.0):
                continue
            tried += 1
            if self.stand(facet[k], places[k], self.ordinary, STEADIES)[0] is not None:
                return 1
        return 0


def _far_from(points: np.ndarray, place: np.ndarray, far_mm: float) -> np.ndarray:
    """Which points (p, 3) are no nearer to a place than that."""
    x, y, z = (points - place).T
    return x * x + y * y + z * z >= far_mm**2


def _flat(points: np.ndarray) -> np.ndarray:
    return np.ascontiguousarray(points[:, :2], np.float64)


def _deep_in(part: Hanging, points: np.ndarray, by: float) -> np.ndarray:
    """Which points lie in a part with some room around, (p,) bool."""
    ring = np.array([[0, 0], [1, 0], [0, 1], [-1, 0], [0, -1]]) * by
    ok = [part.near(np.ascontiguousarray(points + r), np.zeros(len(points))) for r in ring]
    return np.all(ok, axis=0)
