"""Parts seen together: both sides of a joint, all on one plate, and how they are assembled."""

import numpy as np
from django.urls import reverse

from fairstand.memory import keep_bytes, stored_bytes
from fairstand.stances.current import Current, digest
from fairstand.stances.cutting import cut_face
from fairstand.stances.shapes import remembered_parts
from printability.drawing import drawing_png
from printability.errors import EditError
from printability.handover import part_named, side_by_side
from printability.mesh import facet_areas, joined, mesh_of
from printability.parts import WHOLE, build_parts, is_of
from printability.splitting import Cut, closed_sides, slide_of

__all__ = ["assembly", "assembly_name", "others_on_plate", "pair_corners", "pair_told"]

# Drawn apart by this part of the piece's size at the first cut, less at each further one.
_APART = 0.22


def pair_told(now: Current, key) -> dict:
    """Whether the sides of a cut slide together, and where both are to be had."""
    face = cut_face(now, key)
    slide = slide_of(face.part, face.cut, face.halves)
    rotation = now.placed.matrix[:3, :3] / now.part.frame.factors
    way = rotation @ np.array(slide.way)
    said = []
    snaps = [joint.key for joint in face.cut.joints if joint.kind == "snap"]
    if slide.meets_mm3 and snaps:
        said.append(
            f"The catch of {', '.join(snaps)} meets its slot on the way in by up to "
            f"{slide.meets_mm3:.2f} mm³: there the beam bends."
        )
    elif slide.meets_mm3:
        said.append(
            f"The sides meet {slide.meets_at_mm:.1f} mm before they are together, by "
            f"{slide.meets_mm3:.2f} mm³."
        )
    else:
        said.append("The sides slide together without meeting.")
    if slide.gap_mm is not None:
        said.append(f"Least gap between their walls {slide.gap_mm:.3f} mm, measured on the meshes.")
    url = reverse("splitting:pair_corners", args=[now.stance.pk])
    return {
        "cut": face.cut.key,
        "url": f"{url}?cut={face.cut.key}&v={now.key}",
        "way": way.tolist(),
        "reach_mm": slide.reach_mm,
        "meets_mm3": slide.meets_mm3,
        "gap_mm": slide.gap_mm,
        "said": said,
    }


def pair_corners(now: Current, key) -> tuple[np.ndarray, np.ndarray]:
    """Corners of the facets of side a, and of side b with loose pins, (k, 9) float32, on the plate.

    Side b is where the part on the bench is, as the whole would stand; the kerf is closed.
    """
    face = cut_face(now, key)
    a, b, pins = closed_sides(face.part, face.cut, face.halves)
    out = []
    for solids in (a, [*b, *pins]):
        meshes = [mesh_of(one) for one in solids]
        places = [(m.vertices @ face.halves.plane.axes)[m.facets].reshape(-1, 3) for m in meshes]
        flat = np.concatenate(places) if places else np.zeros((0, 3))
        own = flat / now.part.frame.factors
        on_plate = own @ now.placed.matrix[:3, :3].T + now.placed.matrix[:3, 3]
        corners = on_plate.reshape(-1, 9)
        if now.part.frame.is_mirrored:
            corners = corners.reshape(-1, 3, 3)[:, [0, 2, 1]].reshape(-1, 9)
        out.append(np.ascontiguousarray(corners, np.float32))
    return out[0], out[1]


def others_on_plate(now: Current) -> np.ndarray:
    """Corners of all other parts with their supports, beside the one on the bench, (k, 9)."""
    parts = [now.of_part(part.key) for part in now.parts]
    moves = side_by_side([one.placed for one in parts], now.setup.process)
    own = next(i for i, part in enumerate(now.parts) if part.key == now.part.key)
    out = [np.zeros((0, 9), np.float32)]
    for i, one in enumerate(parts):
        if i == own:
            continue
        for mesh in (one.placed.mesh, *(s.mesh for s in one.placed.standing)):
            corners = (mesh.vertices + (moves[i] - moves[own]))[mesh.facets]
            out.append(corners.reshape(-1, 9).astype(np.float32))
    return np.concatenate(out)


def assembly_name(now: Current) -> str:
    """Names the picture of how the parts go together."""
    whole = now.of_part(WHOLE)
    return digest(
        *(f"{p.digest}/{now.of_part(p.key).dyes_key}" for p in now.parts), repr(whole.setup.pose)
    )  # fmt: skip


def assembly(now: Current) -> bytes:
    """PNG of all parts drawn apart along their cuts, each with its name.

    Raises
    ------
    EditError
        If there is but one part.
    """
    if len(now.parts) < 2:
        raise EditError("There is one part only: nothing is put together.")
    name = f"drawings/assembly-{assembly_name(now)}.png"
    found = stored_bytes(name)
    if found is not None:
        return found
    turn = now.of_part(WHOLE).setup.rotation
    shifts = _shifts(now)
    meshes, labels, colours = [], [], []
    for part in now.parts:
        mesh = part.mesh.moved((part.mesh.vertices + shifts[part.key]) @ turn.T)
        meshes.append(mesh)
        area = facet_areas(mesh)
        middle = area @ mesh.vertices[mesh.facets].mean(axis=1) / max(area.sum(), 1e-12)
        labels.append((part_named(part.key).removeprefix("part "), middle))
        own = now.of_part(part.key).colours
        rgb = np.full((len(mesh.facets), 3), -1.0)
        if own is not None:
            table = np.array(
                [(-1.0, -1, -1)] + [tuple(bytes.fromhex(c[1:])) for _, c in own.palette]
            )
            rgb = table[own.of_facet]
        colours.append(rgb)
    drawn = drawing_png(
        joined(meshes), (900, 660), colours=np.concatenate(colours), labels=labels
    )  # fmt: skip
    return keep_bytes(name, drawn)


def _shifts(now: Current) -> dict[str, np.ndarray]:
    """How far each part is drawn from its place, mm, along the cuts that it was cut at."""
    size = float(np.linalg.norm(np.ptp(now.source.vertices * now.setup.frame.factors, axis=0)))
    shift = {part.key: np.zeros(3) for part in now.parts}
    steps = now.setup.shape
    for i, step in enumerate(steps):
        if not isinstance(step, Cut):
            continue
        before = {part.key for part in build_parts(now.source, steps[:i], remembered_parts)}
        after = {part.key for part in build_parts(now.source, steps[: i + 1], remembered_parts)}
        for key in before - after:
            normal = step.plane(now.part).normal
            far = _APART * size * 0.6 ** key.count(".")
            for part in shift:
                sides = {f"{key}.a": 0.5, f"{key}.b": -0.5}
                side = next((s for k, s in sides.items() if is_of(k, part)), 0.0)
                shift[part] = shift[part] + far * side * normal
    return shift
