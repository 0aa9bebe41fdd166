"""Supports set out together: rows, checkerboards, rings, the other side, from another stance."""

from dataclasses import asdict

import numpy as np

from fairstand.stances.current import Current, current
from fairstand.stances.models import Stance
from printability.edits.base import number
from printability.edits.props import plain_end, plain_support
from printability.errors import EditError, PrintabilityError
from printability.proposing import strengths_of
from printability.supports import (
    anchor_on,
    braces_for,
    carry,
    checkerboard,
    mirrored_place,
    pillar_on,
    plane_of_symmetry,
    rim,
    row_between,
    size_for,
)
from printability.supports.strength import bent_line, held_at_mm
from printability.surface import round_hole

__all__ = ["placed_out", "with_supports"]

_MOST_OTHERS = 60


def placed_out(now: Current, asked: dict, user) -> dict:
    """Supports set out together; nothing is changed.

    Raises
    ------
    EditError
        If it cannot be done.
    """
    if not isinstance(asked, dict):
        raise EditError("What is to be set out cannot be read.")
    how = asked.get("how")
    if not isinstance(how, str) or how not in _WAYS:
        raise EditError(f"Supports are set out in one of these ways: {', '.join(_WAYS)}.")
    return _WAYS[how](now, asked, user)


def _row(now: Current, asked: dict, user) -> dict:
    chosen = _chosen(now, asked)
    if len(chosen) != 2:
        raise EditError("Choose the two supports that the row runs between.")
    world = now.placed.world
    anchors = row_between(world, *(s.ends[0].anchor for s in chosen), asked.get("count"))
    return _like(world, chosen[0], anchors)


def _number(asked: dict, name: str, default: float | None = None) -> float:
    return number(asked.get(name, default), name.rpartition("_")[0], -1e6, 1e6, "")


def _facet(asked: dict, count: int) -> int:
    facet = asked.get("facet")
    if isinstance(facet, bool) or not isinstance(facet, int) or not 0 <= facet < count:
        raise EditError("Point at the underside that is meant.")
    return facet


def _checkerboard(now: Current, asked: dict, user) -> dict:
    """A checkerboard over a patch; with ``rim``, its free rim first."""
    patches = now.overhang(now.setup.effective_threshold_deg).patch_of_facet
    facet = _facet(asked, len(patches))
    if not patches[facet]:
        raise EditError("That does not overhang: it needs no contacts.")
    spacing, turn = _number(asked, "spacing_mm"), _number(asked, "turn_deg", 0.0)
    world, facets = now.placed.world, np.flatnonzero(patches == patches[facet])
    anchors = checkerboard(world, facets, spacing, turn)
    if asked.get("rim") is True:
        first = rim(world, facets, spacing, now.setup.process["contact_mm"] / 2)
        taken = np.array([world.place_of(a) for a in first]).reshape(-1, 3)
        inner = [
            a for a in anchors
            if not len(taken)
            or np.linalg.norm(taken - world.place_of(a), axis=1).min() >= 0.7 * spacing
        ]  # fmt: skip
        anchors = [*first, *inner]
    return _like(world, None, anchors)


def _ring(now: Current, asked: dict, user) -> dict:
    """One light contact at the top of a round hole."""
    mesh = now.placed.mesh
    hole = round_hole(mesh, _facet(asked, len(mesh.facets)))
    if hole is None:
        raise EditError("That is not the wall of a round hole that lies on its side.")
    world = now.placed.world
    anchor = anchor_on(world, hole.top_facet, hole.top_mm)
    size = size_for(now.setup.process, "light")
    made = pillar_on("ring", anchor, size, below=True, why="Top of a round hole")
    plain = plain_support(made)
    del plain["key"]
    return {"supports": [plain], "places": [list(world.place_of(anchor))], "alone": []}


def _other_side(now: Current, asked: dict, user) -> dict:
    """The same on the other side of the piece's own plane of symmetry, or of one that is typed."""
    chosen, world = _chosen(now, asked), now.placed.world
    if asked.get("about_deg") is None:
        plane = plane_of_symmetry(now.placed.mesh)
        if plane is None:
            raise EditError(
                "The piece as it stands is not its own mirror image about any plane; type one."
            )
    else:
        a = np.radians(_number(asked, "about_deg"))
        vertices = now.placed.mesh.vertices
        middle = (vertices.min(axis=0) + vertices.max(axis=0)) / 2
        plane = middle, np.array([-np.sin(a), np.cos(a), 0.0])
    made, alone = [], []
    for one in chosen:
        anchor = mirrored_place(world, one.ends[0].anchor, plane)
        if anchor is None or one.kind != "pillar":
            alone.append(one.key)
        else:
            made.append((one, anchor))
    if not made:
        raise EditError(f"Nothing on the other side matches {', '.join(alone)}.")
    along = np.array([plane[1][1], -plane[1][0], 0.0])
    reach = float(np.linalg.norm(now.placed.mesh.size_mm)) / 2
    line = [[*(plane[0] + along * t)[:2].tolist(), 0.1] for t in np.linspace(-reach, reach, 41)]
    return {
        "supports": [
            {"support": one.kind, "size": asdict(one.size),
             "ends": [plain_end(end) for end in (anchor, *one.ends[1:])]}
            for one, anchor in made
        ],
        "places": [list(world.place_of(anchor)) for _, anchor in made],
        "alone": alone,
        "line": line,
    }  # fmt: skip


def _carried(now: Current, asked: dict, user) -> dict:
    """Supports of another stance, of this piece or another one, found again on this."""
    pk = asked.get("from")
    if isinstance(pk, bool) or not isinstance(pk, int) or pk == now.stance.pk:
        raise EditError("Choose the stance that they are to come from.")
    stance = Stance.objects.of(user).select_related("piece").filter(pk=pk).first()
    if stance is None:
        raise EditError("That stance is not there any more.")
    other = current(stance)
    if not other.setup.supports:
        raise EditError("That stance has no supports.")
    other.placed  # noqa: B018 - its world knows the shapes of its stands from then on
    found = carry(
        other.placed.world, other.setup.supports, now.placed.world,
        by_import=other.source.digest == now.source.digest,
    )  # fmt: skip
    supports = [
        {"name": s.key, **{k: v for k, v in plain_support(s).items() if k != "key"}}
        for s in found.supports if s.kind != "stand"
    ]  # fmt: skip
    world = now.placed.world
    places = [
        list(world.place_of(s.ends[0].anchor))
        for s in found.supports if s.ends and hasattr(s.ends[0], "anchor")
    ]  # fmt: skip
    reports = [asdict(r) for r in found.reports]
    for one in found.supports:
        if one.kind == "stand":
            reports = [r for r in reports if r["key"] != one.key]
            text = "A stand is brought in from its own file."
            reports.append({"key": one.key, "outcome": "lost", "text": text})
    return {"supports": supports, "places": places, "alone": [], "said": found.said,
            "reports": reports}  # fmt: skip


def with_supports(now: Current, user) -> list[dict]:
    """Other stances that have supports, those of this piece first."""
    stances = Stance.objects.of(user).select_related("piece").exclude(pk=now.stance.pk)
    stances = stances.filter(edits__kind__in=("support", "supports", "pillar")).distinct()
    rows = []
    for stance in stances.order_by("-piece__created", "position")[:_MOST_OTHERS]:
        try:
            count = len(current(stance).setup.supports)
        except PrintabilityError:
            continue
        if count:
            own = stance.piece_id == now.stance.piece_id
            name = stance.name if own else f"{stance.piece.name}, {stance.name}"
            rows.append({"id": stance.pk, "name": name, "count": count, "own": own})
    return sorted(rows, key=lambda row: not row["own"])


def _braces(now: Current, asked: dict, user) -> dict:
    """Braces for the chosen supports that bend, or for all that do."""
    weak = _bending(now)
    keys = asked.get("keys")
    if isinstance(keys, list) and keys:
        weak = {key: one for key, one in weak.items() if key in keys}
    if not any(one.bends for one in weak.values()):
        raise EditError("None of them bends too far.")
    made, alone = braces_for(now.placed.standing, weak, now.setup.process)
    if not made:
        raise EditError("No other support is near enough to brace them with; thicken them.")
    return {
        "supports": [{k: v for k, v in plain_support(s).items() if k != "key"} for s in made],
        "places": [], "alone": alone,
    }  # fmt: skip


def _bending(now: Current) -> dict:
    look, threshold = now.inspection(), now.setup.effective_threshold_deg
    found = strengths_of(now.placed, look, threshold, now.overhang(threshold))
    return {key: one.bending for key, one in found.items()}


def _bent(now: Current, asked: dict, user) -> dict:
    """The bent line of one support, exaggerated."""
    key = asked.get("key")
    fitted = now.placed.supports.get(key) if isinstance(key, str) else None
    if fitted is None or not fitted.stands or fitted.support.kind not in ("pillar", "strut"):
        raise EditError("That is no pillar or strut that stands.")
    others = [f for f in now.placed.standing if f.support.kind in ("brace", "strut")]
    line, times = bent_line(fitted, now.setup.process, held_at_mm(fitted, others))
    return {"supports": [], "places": line.tolist(), "alone": [], "times": times}


_WAYS = {
    "braces": _braces,
    "bent": _bent,
    "row": _row,
    "checkerboard": _checkerboard,
    "ring": _ring,
    "other_side": _other_side,
    "carry": _carried,
}


def _chosen(now: Current, asked: dict) -> list:
    keys, known = asked.get("keys"), {s.key: s for s in now.setup.supports}
    if not isinstance(keys, list) or not keys or not all(isinstance(k, str) for k in keys):
        raise EditError("Choose the supports first.")
    if any(key not in known for key in keys):
        raise EditError("One of those supports is not there any more.")
    chosen = [known[key] for key in keys]
    if any(not hasattr(s.ends[0], "anchor") if s.ends else True for s in chosen):
        raise EditError("Choose supports with a contact on the model.")
    return chosen


def _like(world, one, anchors) -> dict:
    """Pillars at some places, with the dimensions of one where that is a pillar."""
    size = {"size": asdict(one.size)} if one is not None and one.kind == "pillar" else {}
    return {
        "supports": [
            {"support": "pillar", "ends": [a.plain(), {"plate": None}]} | size for a in anchors
        ],
        "places": [list(world.place_of(a)) for a in anchors],
        "alone": [],
    }
