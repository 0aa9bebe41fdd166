"""Judge cuts by what their parts would need as they would best stand."""

import math
from collections.abc import Callable
from dataclasses import dataclass, field, replace

import manifold3d
import numpy as np

from ..errors import PrintabilityError
from ..mesh import (
    Mesh,
    as_solid,
    crease_edges,
    facet_areas,
    facet_normals,
    mesh_of,
    volume_mm3,
)
from ..mesh.nearest import facets_of_places
from ..parts import Part
from ..splitting import Cut, Halves, Plane, halves_of
from ..stance import Setup
from ..surface import SHOW
from ..turning import GOALS, Scorer, even_directions, turn_to
from ..ways_out import predict
from .candidates import Candidate, candidate_planes, planes_that_fit

__all__ = [
    "MOST_LAYERS",
    "Best",
    "CutProposal",
    "PartAsItStands",
    "cut_along",
    "flats_of",
    "length_of",
    "propose_cuts",
    "sides_of",
    "simplified",
    "standing",
    "touching",
]

# Copies for ranking have at most so many facets.
_MOST_FACETS, _MOST_COARSER = 15_000, 9
# Proposals whose parts are inspected in full.
_MOST_EXACT = 3
# Directions a part is tried in: at first, and those that are looked at again.
_FEW, _MANY, _AGAIN = 12, 200, 6
# What counts how much (from memory): support left, overhang left, seam on a show side, seam beside
# a crease, glued area, pieces too many, a part that falls, one that is turned,
# or turned onto its cut, and the height of the tallest.
_SUPPORT, _AREA, _SEAM, _OPEN_SEAM, _SECTION = 1.0, 0.25, 0.3, 0.25, 0.25
_LOOSE, _FALLS, _OFF_CUT, _ON_CUT, _HEIGHT = 0.1, 0.5, 0.25, 0.08, 0.4
_SAME = 0.12
# Parts with more layers than this are not inspected in full.
MOST_LAYERS = 5_000
# What turning a part must win against leaving it, as mm³ of support (from memory).
_TURNED = 15.0


@dataclass(frozen=True)
class PartAsItStands:
    """One side of a cut as it would best stand."""

    side: str
    volume_mm3: float
    down: tuple[float, float, float]
    turn_deg: tuple[float, float, float]
    on_cut: bool
    goals: dict[str, float]
    fits: bool


@dataclass(frozen=True)
class CutProposal:
    """A cut, and what its parts would need.

    Attributes
    ----------
    normal : (3,) tuple of float
    offset_mm : float
        Of the part in mm, not turned.
    planes : tuple of Plane
        This one, and further ones where it takes more to fit the machine.
    parts : tuple of PartAsItStands
    seam_mm : float
        Length of the seam; ``show_seam_mm`` of it lies on show sides.
    section_mm2 : float
    why : str
        What suggested the plane.
    better, worse : tuple of str
        Against the uncut piece as it stands, in words.
    badness : float
    is_exact : bool
        Whether the goals are those of a full inspection; else scores of a simplified copy.
    """

    normal: tuple[float, float, float]
    offset_mm: float
    planes: tuple[Plane, ...] = field(repr=False)
    parts: tuple[PartAsItStands, ...] = ()
    seam_mm: float = 0.0
    show_seam_mm: float = 0.0
    section_mm2: float = 0.0
    why: str = ""
    better: tuple[str, ...] = ()
    worse: tuple[str, ...] = ()
    badness: float = 0.0
    is_exact: bool = False

    @property
    def needs_more(self) -> bool:
        """Whether other turns of its parts could do better."""
        return any(one.goals["volume"] > 1 or one.goals["area"] > 1 for one in self.parts)

    @property
    def text(self) -> str:
        """It in words."""
        down = sum(one.on_cut for one in self.parts)
        lies = {0: "", 1: "; one part lies on its cut face", 2: "; both parts lie on the cut"}
        return f"Cut {self.why}, {len(self.parts)} parts{lies.get(down, lies[2])}."


def propose_cuts(
    part: Part,
    setup: Setup,
    top: int = 5,
    sides: np.ndarray | None = None,
    fit: bool = False,
    progress: Callable[[str, float], None] | None = None,
) -> list[CutProposal]:
    """A few different cuts, the best first.

    Parameters
    ----------
    part : Part
    setup : Setup
        Process, threshold, and how it stands now.
    top : int
    sides : (m,) uint8, optional
        Painted sides; a seam on a show side costs.
    fit : bool
        Whether what counts is that every part fits the machine, with as many cuts as it takes.
    progress : callable, optional
        Called with the stage and the part done; may raise to stop.

    Raises
    ------
    PrintabilityError
        If the part's surface bounds no solid.
    """
    told = progress or (lambda *_: None)
    told("Making the model ready", 0.02)
    whole = as_solid(part.mesh) if part.mesh.is_watertight else None
    if whole is None:
        raise PrintabilityError(
            "The model’s surface is open or meets itself, so a cut has no inside to close; repair "
            "it where it was made."
        )
    if fit:
        return _that_fit(part, setup, told)
    rough = simplified(whole)
    coarse = Part(part.key, mesh_of(rough), np.zeros(rough.num_tri(), np.int32), part.frame, "")
    up = setup.rotation.T @ np.array([0.0, 0.0, 1.0])
    candidates = candidate_planes(part.mesh, rough, up)
    uncut = Best(coarse.mesh, setup).of([-up, *flats_of(coarse.mesh, _FEW)])
    now = Best(coarse.mesh, setup).of([-up])
    scale = _Scale(part, uncut, now)
    creases = crease_edges(part.mesh)
    tried: list[tuple[CutProposal, Candidate]] = []
    for i, one in enumerate(candidates):
        told("Trying planes", 0.05 + 0.55 * i / len(candidates))
        judged = _judged(coarse, setup, one, up, _FEW, scale, sides, part.mesh, creases)
        if judged is not None:
            tried.append((judged, one))
    tried.sort(key=lambda pair: pair[0].badness)
    # The best are looked at in many more directions; that can only make them better.
    best = tried[:_AGAIN]
    for i, (first, one) in enumerate(best):
        told("Standing their parts", 0.6 + 0.2 * i / _AGAIN)
        if first.needs_more:
            again = _judged(coarse, setup, one, up, _MANY, scale, sides, part.mesh, creases)
            tried[i] = (again or first, one)
    chosen: list[CutProposal] = []
    for one, _ in sorted(tried, key=lambda pair: pair[0].badness):
        if len(chosen) == top:
            break
        if all(_are_different(one, other, part.mesh) for other in chosen):
            chosen.append(one)
    told("Looking at the uncut piece", 0.8)
    uncut_exactly = _uncut_exactly(part, setup, now)
    out = []
    for i, one in enumerate(chosen):
        told("Looking at the best in full", 0.8 + 0.2 * i / max(len(chosen), 1))
        exact = _exact(part, setup, one, scale) if i < _MOST_EXACT else None
        # Like is compared with like: inspected with inspected, scored with scored.
        before = uncut_exactly if exact and uncut_exactly else now["goals"]
        out.append(_with_words(exact or one, before))
    return sorted(out, key=lambda p: p.badness)


def simplified(solid: manifold3d.Manifold) -> manifold3d.Manifold:
    """A copy of at most so many facets, coarser step by step."""
    box = solid.bounding_box()
    within = 2e-4 * max(box[3] - box[0], box[4] - box[1], box[5] - box[2])
    # Many small bodies may stay more than that, however coarse.
    for _ in range(_MOST_COARSER):
        if solid.num_tri() <= _MOST_FACETS:
            break
        solid = solid.simplify(within)
        within *= 1.7
    return solid


def flats_of(mesh: Mesh, count: int) -> list[np.ndarray]:
    """Directions in which the largest flats face: to stand on, where they are outermost."""
    normals, areas = facet_normals(mesh), facet_areas(mesh)
    _, first, group = np.unique(
        np.round(normals * 200), axis=0, return_index=True, return_inverse=True
    )
    total = np.bincount(group.ravel(), areas)
    order = np.argsort(-total, kind="stable")[:count]
    return [normals[first[i]] for i in order if total[i] > 0.01 * areas.sum()]


class Best:
    """The best of some directions for a part by itself: least support, and standing."""

    def __init__(self, mesh: Mesh, setup: Setup):
        self.scorer = Scorer(mesh, setup.process, setup.effective_threshold_deg)

    def of(self, downs, as_they_are: int = 2) -> dict:
        """The best; the first few need no turning, which is worth something."""
        downs = np.array(downs, float).reshape(-1, 3)
        rows = self.scorer.score(downs)

        def column(key):
            return rows[:, GOALS[key].column]

        falls = column("footing") < 3.0
        unfit = column("copies") < 1
        bad = (
            np.nan_to_num(column("volume")) + 0.3 * column("area") + 0.2 * column("height")
            + 60.0 * column("islands") + 1e4 * falls + 1e6 * unfit
            + _TURNED * (np.arange(len(downs)) >= as_they_are)
        )  # fmt: skip
        best = int(np.argmin(bad))
        goals = {key: float(rows[best, goal.column]) for key, goal in GOALS.items()}
        return {"down": downs[best], "goals": goals, "falls": bool(falls[best]),
                "fits": not bool(unfit[best]), "scorer": self.scorer}  # fmt: skip


class _Scale:
    """What badness is measured against."""

    def __init__(self, part: Part, uncut: dict, now: dict):
        box = part.mesh.size_mm
        self.support = max(uncut["goals"]["volume"], now["goals"]["volume"], 50.0)
        self.area = max(uncut["goals"]["area"], now["goals"]["area"], 20.0)
        self.seam = 2.0 * float(box.sum())
        self.height = max(float(now["goals"]["height"]), 1.0)
        self.section = float(max(box[0] * box[1], box[1] * box[2], box[0] * box[2]))


def cut_along(part: Part, plane: Plane, key: str = "cut") -> Cut:
    """A cut of a part along a plane in mm."""
    own = plane.normal * part.frame.factors  # the plane in the import's own numbers
    point = plane.normal * plane.offset_mm / part.frame.factors
    return Cut(key, part.key, tuple(map(float, own)), tuple(map(float, point)))


def sides_of(part: Part, plane: Plane) -> Halves | None:
    """Both sides of a plane; None where the part is no solid."""
    return halves_of(part, cut_along(part, plane))


def _judged(
    coarse, setup, candidate, up, directions, scale, sides, mesh, creases
) -> CutProposal | None:
    plane = candidate.plane
    halves = sides_of(coarse, plane)
    if halves is None or not halves.a or not halves.b:
        return None
    hair = 1e-6 * max(1.0, abs(plane.offset_mm))
    area, loops = touching(halves, plane.offset_mm, hair)
    seam, shown = _seam(loops, plane, mesh, sides)
    hidden = _along_creases(plane, mesh, creases)
    parts, support, hangs, falls, turned = [], 0.0, 0.0, 0, 0.0
    for side, solids, cut_down in (("a", halves.a, -plane.normal), ("b", halves.b, plane.normal)):
        own, _ = halves.tracked.back(solids)
        best = Best(own, setup)
        downs = [-up, cut_down]
        downs += flats_of(own, directions)
        if directions > _FEW:
            downs += list(even_directions(directions))
        found = best.of(downs)
        support += found["goals"]["volume"]
        hangs += found["goals"]["area"]
        falls += found["falls"]
        if found["down"] @ -up < 0.99999:
            turned += _ON_CUT if found["down"] @ cut_down > 0.99999 else _OFF_CUT
        parts.append(standing(side, own, found, cut_down, setup))
    badness = (
        _SUPPORT * support / scale.support + _AREA * hangs / scale.area
        + _SEAM * shown / scale.seam + _OPEN_SEAM * max(seam - hidden, 0.0) / scale.seam
        + _SECTION * area / scale.section + _FALLS * falls
        + turned + _HEIGHT * max(one.goals["height"] for one in parts) / scale.height
        + _LOOSE * (len(halves.a) + len(halves.b) - 2)
        + sum(10.0 for one in parts if not one.fits)
    )  # fmt: skip
    return CutProposal(
        tuple(map(float, plane.normal)), plane.offset_mm, (plane,), tuple(parts), seam, shown,
        float(area), candidate.why, badness=float(badness),
    )  # fmt: skip


def touching(halves: Halves, offset: float, hair: float) -> tuple[float, list[np.ndarray]]:
    """Area in which both sides of a cut touch, and its outlines in the plane."""
    whole = manifold3d.CrossSection
    above = whole.batch_boolean([s.slice(offset + hair) for s in halves.a], manifold3d.OpType.Add)
    below = whole.batch_boolean([s.slice(offset - hair) for s in halves.b], manifold3d.OpType.Add)
    both = above ^ below
    return both.area(), [np.asarray(loop) for loop in both.to_polygons()]


def standing(side, mesh, found, cut_down, setup) -> PartAsItStands:
    """A side as it best stands, from what `Best.of` found."""
    down = found["down"]
    return PartAsItStands(
        side, volume_mm3(mesh), tuple(map(float, down)),
        turn_to(down, found["scorer"], setup.rotation), bool(down @ cut_down > 0.99999),
        found["goals"], found["fits"],
    )  # fmt: skip


def length_of(loops: list[np.ndarray]) -> float:
    """Length of closed outlines."""
    return sum(float(np.hypot(*(np.roll(p, -1, axis=0) - p).T).sum()) for p in loops)


def _seam(loops, plane: Plane, mesh: Mesh, sides) -> tuple[float, float]:
    """Length of the outlines of a cut, and of what lies on show sides."""
    total = length_of(loops)
    if sides is None or not (sides == SHOW).any() or not loops:
        return total, 0.0
    shown = 0.0
    for loop in loops:
        ends = np.roll(loop, -1, axis=0)
        length = np.hypot(*(ends - loop).T)
        flat = np.column_stack([(loop + ends) / 2, np.full(len(loop), plane.offset_mm)])
        facet = facets_of_places(
            mesh.index, plane.outside(flat), np.zeros((len(flat), 3)), np.full(len(flat), -1), -2.0,
            0.0, np.inf,
        )  # fmt: skip
        shown += float(length[(facet >= 0) & (sides[facet] == SHOW)].sum())
    return total, shown


def _along_creases(plane: Plane, mesh: Mesh, creases: np.ndarray) -> float:
    """Length of the creases that lie in a plane: there a seam shows least."""
    ends = mesh.vertices[creases]
    within = 1e-6 * max(float(mesh.size_mm.max()), 1.0) + mesh.grain_mm
    on = (np.abs(ends @ plane.normal - plane.offset_mm) <= within).all(axis=1)
    return float(np.linalg.norm(ends[on, 1] - ends[on, 0], axis=1).sum())


def _are_different(a: CutProposal, b: CutProposal, mesh: Mesh) -> bool:
    """Whether two cuts are worth telling apart: by their plane, or by their numbers."""
    extent = float(mesh.size_mm.max())
    n, m = np.array(a.normal), np.array(b.normal)
    cos = float(n @ m)
    if abs(cos) > math.cos(math.radians(15.0)):
        apart = abs(float(n @ (m * b.offset_mm)) - a.offset_mm)
        return apart > _SAME * extent

    # A cut of a round thing through its middle is the same whichever way.
    def numbers(p):
        volumes = sorted(one.volume_mm3 for one in p.parts)
        return np.array([p.section_mm2, *volumes])

    x, y = numbers(a), numbers(b)
    return len(x) != len(y) or bool(np.abs(x - y).max() > 0.02 * max(np.abs(x).max(), 1e-9))


def _is_tall(heights, setup: Setup) -> bool:
    return max(heights) > MOST_LAYERS * setup.process.layer_height_mm


def _uncut_exactly(part: Part, setup: Setup, now: dict) -> dict[str, float] | None:
    """Goals of the uncut piece as it stands, without supports; None where it is too tall."""
    if _is_tall([now["goals"]["height"]], setup):
        return None
    return predict(part, replace(setup, supports=(), accepted=(), measures=())).goals


def _exact(part, setup, one: CutProposal, scale) -> CutProposal | None:
    """The same by full inspections of the parts themselves; None where they are too tall."""
    halves = sides_of(part, one.planes[0])
    is_tall = _is_tall([p.goals["height"] for p in one.parts], setup)
    if halves is None or not halves.a or not halves.b or is_tall:
        return None
    parts = []
    for told in one.parts:
        mesh, origin = halves.tracked.back(halves.a if told.side == "a" else halves.b)
        own = Part(f"{part.key}.{told.side}", mesh, origin, part.frame, f"try {told.side}")
        stands = replace(
            setup, part=own.key, shape=(), supports=(), accepted=(), measures=(), strokes=(),
        ).turned(told.turn_deg)  # fmt: skip
        goals = predict(own, stands).goals
        parts.append(replace(told, volume_mm3=volume_mm3(mesh), goals=goals))
    changed = sum(p.goals["volume"] for p in parts) - sum(p.goals["volume"] for p in one.parts)
    hangs = sum(p.goals["area"] for p in parts) - sum(p.goals["area"] for p in one.parts)
    badness = one.badness + _SUPPORT * changed / scale.support + _AREA * hangs / scale.area
    return replace(one, parts=tuple(parts), badness=badness, is_exact=True)


def _with_words(one: CutProposal, before: dict[str, float]) -> CutProposal:
    """What it wins and loses against the goals of the uncut piece as it stands."""
    better, worse = [], []
    for key, how in (("volume", sum), ("area", sum), ("islands", sum), ("height", max)):
        goal = GOALS[key]
        old, new = before[key], how(p.goals[key] for p in one.parts)
        if abs(new - old) < max(goal.notable, 0.05 * max(abs(old), abs(new))):
            continue
        unit = f" {goal.unit}" if goal.unit else ""
        said = f"{goal.measure} {new:,.0f} instead of {old:,.0f}{unit}"
        (better if new < old else worse).append(said)
    worse.append(f"a seam of {one.seam_mm:.0f} mm, {one.section_mm2:.0f} mm² to glue")
    if one.show_seam_mm > 0.5:
        worse.append(f"{one.show_seam_mm:.0f} mm of the seam on a show side")
    if not all(p.fits for p in one.parts):
        worse.append("a part does not fit the machine")
    return replace(one, better=tuple(better), worse=tuple(worse))


def _that_fit(part: Part, setup: Setup, told) -> list[CutProposal]:
    """The even cuts after which every part fits the machine; none where it fits as it is."""
    planes = planes_that_fit(part.mesh, setup.process, setup.lift_mm)
    if not planes:
        return []
    pieces, area, seam = [part], 0.0, 0.0
    for i, plane in enumerate(planes):
        told("Cutting it to fit", 0.1 + 0.6 * i / len(planes))
        after = []
        for piece in pieces:
            halves = sides_of(piece, plane)
            if halves is None or not halves.a or not halves.b:
                after.append(piece)
                continue
            hair = 1e-6 * max(1.0, abs(plane.offset_mm))
            own_area, loops = touching(halves, plane.offset_mm, hair)
            area += own_area
            seam += length_of(loops)
            for letter, solids in (("a", halves.a), ("b", halves.b)):
                mesh, origin = halves.tracked.back(solids)
                after.append(Part(f"{piece.key}.{letter}", mesh, origin, part.frame, letter))
        pieces = after
    stood = []
    for i, piece in enumerate(pieces):
        told("Standing the parts", 0.7 + 0.3 * i / len(pieces))
        best = Best(piece.mesh, setup)
        found = best.of([-np.eye(3)[2], *flats_of(piece.mesh, _FEW)])
        stood.append(standing(piece.key, piece.mesh, found, np.zeros(3), setup))
    first = planes[0]
    out = CutProposal(
        tuple(map(float, first.normal)), first.offset_mm, tuple(planes), tuple(stood), seam, 0.0,
        area, "so that it fits the machine",
    )  # fmt: skip
    return [_with_words(out, Best(part.mesh, setup).of([-np.eye(3)[2]])["goals"])]
