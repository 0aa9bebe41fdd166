"""Supports carried from one body to another: the same, mirrored, scaled, or changed a little.

Where both come from one import, places are kept by that. Else the two are aligned by shape: by
their principal axes, then by the nearest places (iterative closest points: Besl & McKay 1992,
with Umeyama's closed form 1991, both from memory). Contacts then find their surface afresh.
"""

import math
from dataclasses import dataclass, replace
from itertools import permutations, product

import numpy as np

from ..errors import EditError
from ..mesh import Mesh, facet_areas, facet_normals, facets_by_area, spread_in
from ..mesh.nearest import nearest_facing
from ..parts import Anchor
from .graph import Fit, OnModel, OnPlate, OnSupport, Support, World, fit_all
from .layout import anchor_on

__all__ = ["Alignment", "Carried", "Report", "aligned", "carry", "keys_free"]

_SAMPLES, _DENSE, _STEPS, _REFINED = 1_500, 30_000, 40, 4
# To judge a start every so many of the dense places do.
_SPARSE = 20
# Principal moments nearer than this to each other say nothing about their axes.
_ALIKE_MOMENTS, _TURNS = 0.08, 24
# A place lies where it was within this part of the size; less than this share is another body.
_NEAR, _LEAST_SHARE = 5e-3, 0.35
# A contact that is this near to its place counts as there, mm; one farther than this part of
# the size has none.
_FITS_MM, _REACH = 0.05, 0.06
_FACING_COS = 0.5


@dataclass(frozen=True, eq=False)
class Alignment:
    """How one body lies on another.

    Attributes
    ----------
    matrix : (4, 4) float
        Takes places of the one, mm as imported, to the other's.
    share : float
        Part of its surface that lies on the other's, within 1/200 of the size.
    said : str
        In words.
    """

    matrix: np.ndarray
    share: float
    said: str


@dataclass(frozen=True)
class Report:
    """What became of one support: ``fits``, ``moved`` or ``lost``, and why."""

    key: str
    outcome: str
    text: str


@dataclass(frozen=True)
class Carried:
    """Supports as they are on the other body, and what became of each.

    Attributes
    ----------
    supports : tuple of Support
        With the keys that they had.
    reports : tuple of Report
        One for each that was to be carried.
    said : str
        How the two bodies were aligned.
    """

    supports: tuple[Support, ...]
    reports: tuple[Report, ...]
    said: str


def _spread(mesh: Mesh, count: int) -> tuple[np.ndarray, np.ndarray]:
    """Places evenly over a surface, the same every time, and the way that each faces."""
    area = facet_areas(mesh)
    if not len(area) or not area.sum() > 0:
        raise EditError("One of the two has no surface.")
    facet, number = facets_by_area(area, count)
    return spread_in(mesh.vertices[mesh.facets[facet]], number), facet_normals(mesh)[facet]


def _frame_of(mesh: Mesh) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """Centre, principal axes as columns (least first), and moments, weighted by area."""
    places, _ = _spread(mesh, _DENSE)
    centre = places.mean(axis=0)
    moments, axes = np.linalg.eigh((places - centre).T @ (places - centre) / len(places))
    return centre, axes, moments


def aligned(one: Mesh, other: Mesh) -> Alignment | None:
    """How a body lies best on another: turned, mirrored or scaled; None where none is alike.

    Parameters
    ----------
    one, other : Mesh
        In mm.
    """
    places, facing = _spread(one, _SAMPLES)
    there, there_facing = _spread(other, _DENSE)
    from scipy.spatial import cKDTree  # takes a while to load

    tree = cKDTree(there)
    (c1, a1, m1), (c2, a2, m2) = _frame_of(one), _frame_of(other)
    size = float(np.linalg.norm(other.size_mm))
    ratio = math.sqrt(float(m2.sum() / m1.sum()))
    starts = [(np.eye(3), 1.0, np.zeros(3))]
    for scale in (1.0, ratio):
        for turn in _turns(a1, a2, m1):
            starts.append((turn, scale, c2 - scale * turn @ c1))
    # There are thousands of starts where the body is round: judged by few places of both.
    few, few_facing = there[::_SPARSE], there_facing[::_SPARSE]
    rough = cKDTree(few)
    judged = []
    for turn, scale, shift in starts:
        moved = scale * places[::8] @ turn.T + shift
        far, at = rough.query(moved)
        wrong = ((facing[::8] @ turn.T) * few_facing[at]).sum(axis=1) < _FACING_COS
        judged.append(float(np.mean(np.minimum(far / size, 0.1)) + 0.03 * wrong.mean()))
    best = None
    for i in np.argsort(judged, kind="stable")[: _REFINED * 2]:
        # Nearly there on few places, which are quicker to look for, then on all.
        start, share = _refined(starts[i], places[::4], facing[::4], few, few_facing, rough, size)
        if share < _LEAST_SHARE / 2:
            continue
        found = _refined(start, places, facing, there, there_facing, tree, size)
        if best is None or found[1] > best[1] + 1e-9:
            best = found
        if best[1] > 0.999:
            break
    if best is None:
        return None
    (turn, scale, shift), share = best
    # And back: a body that lies on a sliver of the other is not alike.
    dense, _ = _spread(one, _DENSE)
    back, _ = cKDTree(scale * dense @ turn.T + shift).query(there[:: _DENSE // _SAMPLES])
    spacing = 3 * math.sqrt(size**2 / _DENSE)
    share = min(share, float((back <= _NEAR * size + spacing).mean()))
    if share < _LEAST_SHARE:
        return None
    matrix = np.eye(4)
    matrix[:3, :3], matrix[:3, 3] = scale * turn, shift
    return Alignment(matrix, share, _words(turn, scale, share))


def _turns(a1: np.ndarray, a2: np.ndarray, moments: np.ndarray):
    """Turns and mirrored turns that lay principal axes on each other."""
    swaps = [(0, 1, 2)]
    alike = np.abs(np.diff(moments)) < _ALIKE_MOMENTS * moments[2]
    if alike.any():
        swaps = list(permutations(range(3)))
    spins = [np.eye(3)]
    # About an axis that two equal moments lie around, every turn is as good.
    axes = [k for k, same in ((2, alike[0]), (0, alike[1])) if same]
    for axis in axes:
        for k in range(1, _TURNS):
            a = 2 * math.pi * k / _TURNS
            spin = np.eye(3)
            i, j = (axis + 1) % 3, (axis + 2) % 3
            spin[i, i] = spin[j, j] = math.cos(a)
            spin[i, j], spin[j, i] = -math.sin(a), math.sin(a)
            spins.append(spin)
    lays = [
        spin @ np.diag(signs) @ np.eye(3)[list(swap)]
        for swap in swaps for signs in product((1.0, -1.0), repeat=3) for spin in spins
    ]  # fmt: skip
    # A spin by a half turn, say, is two signs: most of a round body's are there many times.
    for lay in np.unique(np.round(lays, 9) + 0.0, axis=0):
        yield a2 @ lay @ a1.T


def _refined(start, places, facing, there, there_facing, tree, size):
    """A start made better by the nearest places that face the same way, and its share."""
    turn, scale, shift = start
    keep_scale = abs(scale - 1) < 1e-12
    for step in range(_STEPS):
        moved = scale * places @ turn.T + shift
        far, at = tree.query(moved)
        same = ((facing @ turn.T) * there_facing[at]).sum(axis=1) > _FACING_COS
        limit = max(np.quantile(far[same], 0.8) if same.any() else 0.0, 1e-9)
        use = same & (far <= limit)
        if use.sum() < 12:
            break
        # Onto the plane of the nearest place: sliding along the surface costs nothing.
        gap = ((there[at] - moved) * there_facing[at]).sum(axis=1)[:, None] * there_facing[at]
        fresh = _rigid(places[use], (moved + gap)[use], np.linalg.det(turn) < 0, keep_scale)
        change = np.abs(fresh[1] * fresh[0] - scale * turn).max() + np.abs(fresh[2] - shift).max()
        turn, scale, shift = fresh
        if step > 3 and change < 1e-9 * size:
            break
    moved = scale * places @ turn.T + shift
    far, at = tree.query(moved)
    off = np.abs(((there[at] - moved) * there_facing[at]).sum(axis=1))
    spacing = math.sqrt(size**2 / len(there))
    on = (off <= _NEAR * size) & (far <= _NEAR * size + 3 * spacing)
    return (turn, scale, shift), float(on.mean())


def _rigid(places, targets, mirrored: bool, keep_scale: bool):
    """The turn, scale and shift that take places nearest to their targets (Umeyama 1991)."""
    p, q = places.mean(axis=0), targets.mean(axis=0)
    u, s, vt = np.linalg.svd((targets - q).T @ (places - p))
    d = np.ones(3)
    if (np.linalg.det(u @ vt) < 0) != mirrored:
        d[2] = -1.0
    turn = (u * d) @ vt
    scale = 1.0 if keep_scale else float((s * d).sum() / ((places - p) ** 2).sum())
    scale = max(scale, 1e-9)
    return turn, scale, q - scale * turn @ p


def _words(turn, scale: float, share: float) -> str:
    parts = []
    if np.linalg.det(turn) < 0:
        parts.append("mirrored")
    if abs(scale - 1) > 2e-3:
        parts.append(f"scaled by {scale:.3f}")
    if share < 0.98:
        parts.append(f"changed: {100 * share:.0f} % of its surface is where it was")
    return ("The same body, " + ", ".join(parts)) if parts else "The same body"


def carry(
    here: World, supports: tuple[Support, ...], there: World, by_import: bool = False
) -> Carried:
    """Carry supports from a placed part to another one.

    Parameters
    ----------
    here : World
        Where they stand.
    supports : tuple of Support
    there : World
        Where they are to stand.
    by_import : bool
        Whether both come from one import: then places are kept by that.

    Raises
    ------
    EditError
        If the two bodies are not alike.
    """
    if by_import:
        way = Alignment(np.eye(4), 1.0, "The same piece")
        onto = there.matrix @ np.linalg.inv(here.matrix)
    else:
        way = aligned(here.part.mesh, there.part.mesh)
        if way is None:
            raise EditError("The two pieces are not alike: no turn lays one on the other.")
        onto = _to_plate(there) @ way.matrix @ np.linalg.inv(_to_plate(here))
    size = float(np.linalg.norm(there.mesh.size_mm))
    normals = facet_normals(there.mesh)
    turned = np.linalg.inv(onto[:3, :3]).T  # normals go by the inverse transposed
    fits = fit_all(here, supports)
    made: dict[str, Support] = {}
    reports: dict[str, Report] = {}
    for one in supports:
        lost = next((k for k in one.rests_on if k not in made), None)
        if lost is not None and lost in reports:
            reports[one.key] = Report(one.key, "lost", f"Support {lost} that it stood on is lost.")
            continue
        ends, far = [], 0.0
        base = None
        for end in one.ends:
            if isinstance(end, OnModel):
                found, apart = _there(here, there, end.anchor, onto, turned, size, normals)
                if found is None:
                    ends = None
                    break
                far = max(far, apart)
                base = (here.place_of(end.anchor), there.place_of(found)) if base is None else base
                ends.append(OnModel(found))
            elif isinstance(end, OnPlate) and end.at_mm is not None:
                x, y = end.at_mm
                if base is not None:  # as it stood from its contact
                    (ox, oy, _), (nx, ny, _) = base
                    ends.append(OnPlate((x - ox + nx, y - oy + ny)))
                else:
                    at = onto @ np.array([x, y, 0.0, 1.0])
                    ends.append(OnPlate((float(at[0]), float(at[1]))))
            else:
                ends.append(end)
        if ends is None:
            reports[one.key] = Report(one.key, "lost", "There is no such surface.")
            continue
        made[one.key] = replace(one, ends=tuple(ends))
        outcome = "fits" if far <= _FITS_MM else "moved"
        text = "" if outcome == "fits" else f"Its contact moved by {far:.2f} mm."
        reports[one.key] = Report(one.key, outcome, text)
    there.shapes.update(here.shapes)
    for key, fitted in fit_all(there, made.values()).items():
        stood = fits[key].stands
        if not fitted.stands and (stood or fitted.fit in (Fit.LOST, Fit.NO_CONTACT)):
            reports[key] = Report(key, "lost", fitted.text)
            del made[key]
    # What rested on one that found no room is lost with it.
    while True:
        hanging = [k for k, s in made.items() if any(o not in made for o in s.rests_on)]
        if not hanging:
            break
        for key in hanging:
            reports[key] = Report(key, "lost", "What it stood on is lost.")
            del made[key]
    return Carried(tuple(made.values()), tuple(reports[s.key] for s in supports), way.said)


def _to_plate(world: World) -> np.ndarray:
    """(4, 4) float: takes the part's own mm to the plate."""
    frame = np.eye(4)
    frame[:3, :3] = world.part.frame.matrix
    return world.matrix @ np.linalg.inv(frame)


def _there(here, there, anchor: Anchor, onto, turned, size, normals):
    """The place on the other body, and how far it is from where it would be; None without one."""
    at = here.surface_at(anchor)
    if at is None:
        return None, 0.0
    place = np.r_[at.on(here.mesh), 1.0]
    a, b, c = here.mesh.vertices[here.mesh.facets[at.facet]]
    facing = np.cross(b - a, c - a)
    target = (onto @ place)[:3]
    way = turned @ (facing / max(float(np.linalg.norm(facing)), 1e-300))
    way = way / max(float(np.linalg.norm(way)), 1e-300)
    facet, _ = nearest_facing(there.mesh.index, target, way, _FACING_COS, _REACH * size)
    if facet < 0:
        return None, 0.0
    found = anchor_on(there, facet, target)
    return found, math.dist(there.place_of(found), target)


def keys_free(supports: tuple[Support, ...], first: int) -> tuple[Support, ...]:
    """Supports under free numbers from one on, resting on each other as before."""
    name = {s.key: str(first + i) for i, s in enumerate(supports)}
    return tuple(
        replace(
            s, key=name[s.key],
            ends=tuple(replace(e, key=name.get(e.key, e.key)) if isinstance(e, OnSupport) else e
                       for e in s.ends),
        )
        for s in supports
    )  # fmt: skip
