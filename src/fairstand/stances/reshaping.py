"""Edits that change the shape: what the page leaves out, and whether they can be made."""

from dataclasses import replace

import numpy as np

from fairstand.memory import remembered
from printability.edits.base import Pick, place_from
from printability.edits.reshaping import reshape_of
from printability.errors import EditError
from printability.judging import Fault, faults_of_changes
from printability.parts import Anchor, Part, anchor_at, build_parts, is_of
from printability.reshaping import CHANGES, Reshape, down_of, touches_show, usual_size
from printability.stance import Setup, part_of, stand
from printability.supports.layout import mirrored_place, planes_of_symmetry

from .current import Current
from .shapes import change_told, made_anyway, remembered_parts

__all__ = [
    "before_change",
    "change_faults",
    "changes_told",
    "check_reshape",
    "reshape_completed",
    "without_changes",
]


def without_changes(setup: Setup) -> Setup:
    """The setup as if nothing had changed its shape but cuts and its frame."""
    return replace(setup, shape=tuple(s for s in setup.shape if not isinstance(s, Reshape)))


def before_change(now: Current, key) -> tuple[Part, Reshape]:
    """The part that a change is made on, and the change.

    Raises
    ------
    EditError
        If there is no such change.
    """
    step = reshape_of(now.setup, key)
    if step is None:
        raise EditError("That change is not there any more.")
    steps = now.setup.shape
    parts = build_parts(now.source, steps[: steps.index(step)], remembered_parts)
    own = [part for part in parts if is_of(step.part, part.key)]
    near = [part for part in own if is_of(part.key, now.part.key)]
    if not own:
        raise EditError("What that change was made on is not there any more.")
    return (near or own)[0], step


def reshape_completed(now: Current, parameters: dict, taken: tuple[str, ...] = ()) -> dict:
    """A change's edit with its key, what is down, and what was not said of it.

    With ``both`` the other side's place is added. ``taken`` are keys that are given out already.

    Raises
    ------
    EditError
        If there is no counterpart.
    """
    if not isinstance(parameters, dict):
        raise EditError("The edit's parameters cannot be read.")
    parameters = dict(parameters)
    both = parameters.pop("both", False)
    key = parameters.get("key")
    known = reshape_of(now.setup, key) if isinstance(key, str) else None
    if known is not None:
        kept = {
            "change": known.change, "down": list(known.down), "on": known.on,
            "places": [place.plain() for place in known.places], "insist": known.insist,
        }  # fmt: skip
        size = dict(known.size)
    else:
        change = parameters.get("change")
        if not isinstance(change, str) or change not in CHANGES:
            raise EditError("There is no such change of shape.")
        kept = {
            "key": _next_change(now, taken),
            "change": change,
            "down": list(down_of(now.part, now.setup.rotation)),
        }
        size = usual_size(change, now.setup.process, now.setup.effective_threshold_deg)
    said = parameters.get("size", {})
    if not isinstance(said, dict):
        raise EditError("The change's dimensions cannot be read.")
    out = {"part": now.setup.part} | kept | parameters | {"size": size | said}
    if known is not None and "change" in parameters and parameters["change"] != known.change:
        raise EditError("A change cannot become one of another kind.")
    if both and isinstance(out.get("places"), list) and len(out["places"]) == 1:
        out["places"] = [out["places"][0], _other_side(now, out["places"][0]).plain()]
    return out


def _other_side(now: Current, said) -> Anchor:
    place = place_from(said)
    if isinstance(place, Pick):
        if not 0 <= place.facet < len(now.part.mesh.facets):
            raise EditError("That is not a facet of the model.")
        place = anchor_at(now.part, place.facet, place.weights)
    # Changes made on one side so far do not hide that both were alike.
    bare = without_changes(now.setup)
    part = part_of(now.source, bare, made_anyway)
    planes = remembered(
        f"symmetries/{part.digest}/{now.setup.pose!r}",
        lambda: planes_of_symmetry(stand(part, replace(bare, supports=())).mesh),
    )
    if not planes:
        raise EditError(
            "The part as it stands is not its own mirror image, so there is no other side."
        )
    world = now.placed.world
    here = np.array(world.place_of(place))
    # Of several planes the one that it is farthest from: about another it may be its own image.
    planes = sorted(planes, key=lambda plane: -abs(float((here - plane[0]) @ plane[1])))
    other = mirrored_place(world, place, planes[0])
    if other is None:
        raise EditError("On the other side there is no surface like that one any more.")
    return other


def _next_change(now: Current, taken: tuple[str, ...]) -> str:
    """The next free number; none is given out twice within a stance."""
    used = list(taken)
    kinds = ("reshape", "several")
    for kind, own in now.stance.edits.filter(kind__in=kinds).values_list("kind", "parameters"):
        if kind == "reshape":
            used.append(own.get("key"))
        else:
            used += [
                e["parameters"].get("key") for e in own.get("edits", ()) if e["kind"] == "reshape"
            ]
    return str(max((int(k) for k in used if str(k).isdigit()), default=0) + 1)


def check_reshape(before: Current, now: Current, edit) -> None:
    """Whether a change can be made, and leaves alone what is kept clean.

    Raises
    ------
    EditError
        If not, with the reason.
    """
    part, step = before_change(now, edit.key)
    if not step.on:
        return
    told = change_told(part, step)
    if told["problem"]:
        raise EditError(f"{told['problem']} Nothing was changed.")
    if edit.insist or not any(stroke.side == "show" for stroke in now.setup.strokes):
        return
    steps = now.setup.shape
    then = build_parts(now.source, steps[: steps.index(step) + 1], remembered_parts)
    after = next((p for p in then if p.key == part.key), None)
    if after is not None and touches_show(part, after, now.setup.strokes):
        raise EditError(
            "It would touch a side that is kept clean. Nothing was changed; insist if it may."
        )


def change_faults(now: Current) -> list[Fault]:
    """Changes of a stance that cannot be made any more."""
    return faults_of_changes(now.source, now.setup.shape, remembered_parts, change_told)


def changes_told(now: Current) -> list[dict]:
    """The changes of the stance, in order, with what each comes to."""
    out = []
    for step in now.setup.shape:
        if not isinstance(step, Reshape):
            continue
        change = CHANGES[step.change]
        told = {"added_mm3": 0.0, "taken_mm3": 0.0, "farthest_mm": 0.0, "said": [], "problem": ""}
        if step.on:
            try:
                part, _ = before_change(now, step.key)
                told = change_told(part, step)
            except EditError as error:
                told = told | {"problem": str(error)}
        matrix = now.placed.matrix
        places = [matrix[:3, :3] @ np.array(p.point) + matrix[:3, 3] for p in step.places]
        out.append(
            {
                "key": step.key, "change": step.change, "label": change.label, "on": step.on,
                "part": step.part, "size": dict(step.size), "insist": step.insist,
                "places_mm": [[float(v) for v in p] for p in places],
                "told": told,
            }
        )  # fmt: skip
    return out
