"""A change of shape that is only tried, and the part as it was before."""

import base64

import numpy as np
from django.conf import settings

from fairstand.learned import note_time, took_s
from fairstand.memory import kept_object, stored_object
from fairstand.stances.current import Current, NeedsWork, current, digest
from fairstand.stances.reshaping import before_change, reshape_completed, without_changes
from fairstand.stances.shapes import (
    change_told,
    is_quick,
    kept_parts,
    kind_of,
    made_anyway,
)
from printability.edits import edit_from
from printability.errors import EditError
from printability.mesh import Mesh
from printability.reshaping import (
    Reshape,
    low_points,
    reshaped,
    seems_long,
    sketched,
    watched,
)
from printability.stance import part_of, parts_of

__all__ = [
    "before_corners",
    "changed",
    "gained",
    "look_at_change",
    "low_told",
    "tried",
    "tried_key",
]

# Of parts with more facets than this a change is worked out in the background in any case.
_IN_REQUEST_TO = 60_000
# Facets of what is added or taken that are drawn at most.
_MOST_DRAWN = 60_000
# While the hand moves, what took longer than this the last time is only sketched.
_AT_ONCE_S = 0.1


def _edit(now: Current, body: dict):
    said = {k: v for k, v in body.items() if k in ("key", "change", "places", "size", "both")}
    return edit_from("reshape", reshape_completed(now, said)).located(now.part)


def tried(now: Current, body: dict) -> dict:
    """What a change would add and take away; nothing is changed.

    With ``is_moving`` of the body only about, where more takes longer than a hand moves on.

    Raises
    ------
    EditError
        If it cannot be made.
    NeedsWork
        If that takes long and is not known yet.
    """
    edit = _edit(now, body)
    is_large = len(now.part.mesh.facets) > _IN_REQUEST_TO
    part, step = _step(now, edit)
    if not is_large and body.get("is_moving") is True:
        return _about(now, edit)
    if not is_large and _is_quick_here(part, step):
        return _tried(now, edit)
    known = stored_object(f"tried/{tried_key(now, body)}")
    if known is None:
        raise NeedsWork
    if known.get("problem"):
        raise EditError(known["problem"])
    return known


def _is_quick_here(part, step: Reshape) -> bool:
    """Whether a change is made within the request: as far as can be told, and by what it took."""
    if is_quick(step, [part]):
        return True
    return not settings.FAIRSTAND_WORKERS and not seems_long(part, step)


def tried_key(now: Current, body: dict) -> str:
    """Names what is tried: the change on the part as it stands."""
    return digest(now.key, repr(_edit(now, body).parameters()))


def look_at_change(now: Current, body: dict, report) -> None:
    """Work a change out, and keep what it comes to: for the page, and for when it is taken."""
    report("Looking at the place", 0.05)
    edit = _edit(now, body)
    report("Making the change", 0.15)
    try:
        with watched(lambda done: report("Making the change", 0.15 + 0.65 * done)):
            told = _tried(now, edit)
        report("Keeping what it leaves", 0.8)
        parts_of(now.source, edit.applied(now.setup, now.source), kept_parts)
        report("Keeping what it leaves", 0.95)
    except EditError as error:
        told = {"problem": str(error)}
    kept_object(f"tried/{tried_key(now, body)}", told)


def _step(now: Current, edit):
    """The part that a change is made on, and the change as a step."""
    setup = edit.applied(now.setup, now.source)
    if any(isinstance(s, Reshape) and s.key == edit.key for s in now.setup.shape):
        part, _ = before_change(now, edit.key)
    else:
        part = now.part
    return part, next(s for s in setup.shape if isinstance(s, Reshape) and s.key == edit.key)


def _tried(now: Current, edit) -> dict:
    part, step = _step(now, edit)
    made = reshaped(part, step)
    note_time(kind_of(step, [part]), made.took_s)
    change_told(part, step, made.took_s)
    told = made.told() | {"is_about": False, "took_s": made.took_s}
    return told | _drawn(now, edit, step, made.mesh_of_difference)


def _about(now: Current, edit) -> dict:
    part, step = _step(now, edit)
    took = took_s(kind_of(step, [part]))
    if took is not None and took <= _AT_ONCE_S:
        return _tried(now, edit)
    added, taken = sketched(part, step)
    told = _drawn(now, edit, step, lambda is_added: added if is_added else taken)
    return told | {"said": [], "is_about": True}


def _drawn(now: Current, edit, step: Reshape, mesh_of_difference) -> dict:
    return {
        "key": edit.key,
        "size": dict(step.size),
        "places": [place.plain() for place in step.places],
        "added": _corners(now, mesh_of_difference(True)),
        "taken": _corners(now, mesh_of_difference(False)),
    }


def _corners(now: Current, mesh: Mesh) -> str:
    """Corners of facets on the plate, float32, as base64."""
    if len(mesh.facets) > _MOST_DRAWN:
        return ""
    corners = _on_plate(now, mesh)
    return base64.b64encode(np.ascontiguousarray(corners, np.float32).tobytes()).decode()


def _on_plate(now: Current, mesh: Mesh) -> np.ndarray:
    own = mesh.vertices / now.part.frame.factors
    places = own @ now.placed.matrix[:3, :3].T + now.placed.matrix[:3, 3]
    return places[mesh.facets].reshape(-1, 9)


def low_told(now: Current) -> dict:
    """Three low points as picks, and where they are.

    Raises
    ------
    EditError
        If it has none that a small turn would level.
    """
    mesh = now.placed.mesh
    anchors, places = [], []
    for vertex in low_points(mesh):
        facet, corner = (int(v) for v in np.argwhere(mesh.facets == vertex)[0])
        anchors.append({"facet": facet, "weights": [float(i == corner) for i in range(3)]})
        places.append([float(v) for v in mesh.vertices[vertex]])
    return {"anchors": anchors, "places_mm": places}


def before_corners(now: Current) -> np.ndarray:
    """Corners of the part's facets without any change of shape, (k, 9) float32, on the plate."""
    part = part_of(now.source, without_changes(now.setup), made_anyway)
    return _on_plate(now, part.mesh).astype(np.float32)


def gained(now: Current, body: dict) -> dict:
    """What the ledger would gain: problems by kind as it is, and with the change.

    Raises
    ------
    NeedsWork
        If that takes long.
    """
    return {"before": _problems(now), "after": _problems(changed(now, body))}


def changed(now: Current, body: dict) -> Current:
    """The stance as it would be with a change."""
    return current(now.stance, further=(_edit(now, body),))


def _problems(now: Current) -> dict:
    ledger = now.ledger(now.setup.effective_threshold_deg)
    kinds: dict[str, int] = {}
    for finding in ledger.findings:
        if finding.severity >= 2 and finding.accepted is None:
            kinds[finding.kind] = kinds.get(finding.kind, 0) + 1
    return {"problems": ledger.problems, "kinds": kinds}
