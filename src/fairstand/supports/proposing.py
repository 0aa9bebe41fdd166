"""Supports proposed at the bench: worked out in the background, shown before they are taken."""

import math
from dataclasses import replace

import numpy as np

from fairstand.bench.telling import support_as_dict
from fairstand.memory import kept_object, remembered, stored_object
from fairstand.stances.current import Current, NeedsWork, digest
from fairstand.stances.editing import next_number
from fairstand.workshop.shelf import habits_of
from printability.edits import edit_from
from printability.edits.base import number
from printability.edits.props import plain_support
from printability.errors import EditError
from printability.findings import Ledger, Severity
from printability.proposing import Habits, Options, is_within_reach, propose, strengths_of
from printability.supports import Solid, fit_all
from printability.surface import SHOW, held_pieces

__all__ = [
    "found_supports",
    "held_triangles",
    "look_for_supports",
    "options_from",
    "plain_options",
    "proposal_name",
    "solid_triangles",
    "strength_of",
]

# Pieces of a patch for the picture of what is held, and of all patches together.
_PIECES, _ACROSS, _MOST_DRAWN = 2_500, 4.0, 60_000


def options_from(asked, user) -> Options:
    """What a request asks for; ``habits`` names a table of the user's workshop, or is one.

    Raises
    ------
    EditError
        If it makes no sense.
    """
    if not isinstance(asked, dict):
        raise EditError("What is to be proposed cannot be read.")
    known = {name: asked[name] for name in ("clear", "where", "profile") if name in asked}
    if not all(isinstance(value, str) for value in known.values()):
        raise EditError("What is to be proposed cannot be read.")
    refused = asked.get("refused", [])
    if not isinstance(refused, list) or len(refused) > 2_000:
        raise EditError("What was refused cannot be read.")
    places = []
    for place in refused:
        if not isinstance(place, list) or len(place) != 3:
            raise EditError("What was refused cannot be read.")
        places.append(tuple(number(v, "place", -1e6, 1e6, "mm") for v in place))
    habits = asked.get("habits") or None
    if isinstance(habits, dict):
        habits = Habits.from_plain(habits)
    elif habits is not None:
        if not isinstance(habits, str):
            raise EditError("The habits cannot be read.")
        habits = habits_of(user, habits)
    return Options(**known, habits=habits, refused=tuple(places))


def plain_options(options: Options) -> dict:
    """Options as plain data, the inverse of how they are read."""
    return {
        "clear": options.clear, "where": options.where, "profile": options.profile,
        "habits": options.habits.plain() if options.habits else None,
        "refused": [list(one) for one in options.refused],
    }  # fmt: skip


def proposal_name(now: Current, options: Options) -> str:
    """Names a proposal by all that it depends on."""
    return digest(now.view_key, repr(now.setup.accepted), repr(options))


def look_for_supports(now: Current, options: Options, report) -> None:
    """Propose supports; leaves them in the cache folder."""
    name = f"supports/{proposal_name(now, options)}"
    if stored_object(name) is not None:
        return
    report("Slicing", 0.02)
    bare = replace(now, setup=replace(now.setup, supports=()))
    own = bare.inspection()
    found = propose(
        now.part, now.setup, options, now.sides, report, base=bare.placed, own_layers=own.own_layers
    )
    kept_object(
        name,
        {
            "supports": [plain_support(s) for s in found.supports],
            "unreachable": [
                {"at_mm": list(one.at_mm), "why": one.why} for one in found.unreachable
            ],
            "before": _counts(found.before),
            "after": _counts(found.after),
            "volume_mm3": found.volume_mm3,
            "grid_support_mm3": found.grid_support_mm3,
            "contact_area_mm2": found.contact_area_mm2,
            "said": list(found.said),
        },
    )  # fmt: skip


def _counts(ledger: Ledger) -> dict:
    return {
        name: sum(f.severity == level and f.accepted is None for f in ledger.findings)
        for name, level in (("will_fail", Severity.WILL_FAIL), ("risky", Severity.RISKY))
    }


def found_supports(now: Current, options: Options) -> dict:
    """The proposal, each support with what it comes to as the stance is.

    Raises
    ------
    NeedsWork
        If it is not worked out yet.
    """
    found = stored_object(f"supports/{proposal_name(now, options)}")
    if found is None:
        raise NeedsWork
    first = next_number(now)
    # Keys that the stance has not given out: those of the proposal were made without records.
    name = {one["key"]: str(first + i) for i, one in enumerate(found["supports"])}
    supports = []
    for one in found["supports"]:
        ends = [
            end | {"support": name[end["support"]]} if end.get("support") in name else end
            for end in one["ends"]
        ]
        supports.append(one | {"key": name[one["key"]], "ends": ends})
    if not supports:
        return found | {"supports": [], "drawn": []}
    edit = edit_from("supports", {"supports": supports})
    setup = edit.applied(now.setup, now.source)
    fits = fit_all(now.placed.world, setup.supports)
    drawn = [
        support_as_dict(fits[one["key"]]) | {"volume_mm3": fits[one["key"]].volume_mm3}
        for one in supports
    ]
    return found | {"supports": supports, "drawn": drawn}


def strength_of(now: Current) -> dict:
    """Load, bending, reach for the tool and scar of every support that stands."""

    def make() -> dict:
        look, threshold = now.inspection(), now.setup.effective_threshold_deg
        found = strengths_of(now.placed, look, threshold, now.overhang(threshold))
        sides, out = now.sides, {}
        for fitted in now.placed.standing:
            key, own = fitted.support.key, found.get(fitted.support.key)
            contacts = [c for c in fitted.contacts if c.facet >= 0]
            out[key] = {
                "load_n": own.load_n if own else 0.0,
                "text": own.text if own else "",
                "cure": own.cure if own else "",
                "shaft_mm": own.shaft_mm if own else 0.0,
                "moves_mm": own.bending.sideways_mm if own else 0.0,
                "bends": bool(own and own.bending.bends),
                "reached": all(
                    is_within_reach(now.placed.world, c.at_mm, _facing(now, c.facet))
                    for c in contacts
                ),
                "scar_mm2": sum(math.pi / 4 * c.diameter_mm**2 for c in contacts),
                "on_show": any(sides is not None and sides[c.facet] == SHOW for c in contacts),
                "volume_mm3": fitted.volume_mm3,
            }
        return out

    return remembered(f"strength/{now.view_key}", make)


def _facing(now: Current, facet: int) -> np.ndarray:
    a, b, c = now.placed.mesh.vertices[now.placed.mesh.facets[facet]]
    normal = np.cross(b - a, c - a)
    return normal / max(float(np.linalg.norm(normal)), 1e-300)


def held_triangles(now: Current) -> np.ndarray:
    """Pieces of undersides that contacts hold, (t, 9) float32, on the plate."""
    threshold = now.setup.effective_threshold_deg
    overhang, mesh = now.overhang(threshold), now.placed.mesh
    contacts = [c for f in now.placed.standing for c in f.contacts if c.facet >= 0]
    if not contacts:
        return np.zeros((0, 9), np.float32)
    at = np.array([c.at_mm for c in contacts])
    facets = np.array([c.facet for c in contacts])
    drawn, count = [], 0
    for patch in np.unique(overhang.patch_of_facet[facets]):
        if patch == 0 or count > _MOST_DRAWN:
            continue
        pieces = held_pieces(
            mesh, np.flatnonzero(overhang.patch_of_facet == patch), now.slopes_deg, at, facets,
            now.setup.process, threshold, _PIECES, _ACROSS,
        )  # fmt: skip
        held = pieces.contact >= 0
        drawn.append(pieces.corners_mm[held].reshape(-1, 9))
        count += int(held.sum())
    return np.concatenate(drawn).astype(np.float32) if drawn else np.zeros((0, 9), np.float32)


def solid_triangles(now: Current) -> np.ndarray:
    """Facets of members that are no rods, (t, 9) float32, on the plate."""
    found = [
        m.mesh.vertices[m.mesh.facets].reshape(-1, 9)
        for f in now.placed.standing for m in f.members if isinstance(m, Solid)
    ]  # fmt: skip
    return np.concatenate(found).astype(np.float32) if found else np.zeros((0, 9), np.float32)
