"""Cuts proposed for the part on the bench."""

import numpy as np
from django.urls import reverse

from fairstand.memory import kept_object, stored_object
from fairstand.stances.current import Current, NeedsWork, digest
from fairstand.stances.cutting import plane_on_plate
from printability.cutting import CutProposal, edits_of, propose_cuts
from printability.drawing import drawing_png
from printability.errors import EditError
from printability.splitting import Cut
from printability.stance import turned

__all__ = ["cuts_name", "found_cuts", "look_for_cuts", "part_drawing"]

TOP = 5


def cuts_name(now: Current, fit: bool) -> str:
    """Names what is proposed for the part as it stands."""
    return digest(
        now.base_key, now.setup.process.digest, f"{now.setup.effective_threshold_deg:g}",
        now.paint_key, f"fit={fit}",
    )  # fmt: skip


def look_for_cuts(now: Current, fit: bool, progress) -> None:
    """Work the proposals out and keep them."""
    found = propose_cuts(now.part, now.setup, TOP, now.sides, fit, progress)
    kept_object(f"cuts/{cuts_name(now, fit)}", {"cuts": [_plain(now, one) for one in found]})


def found_cuts(now: Current, fit: bool) -> dict:
    """The proposals for the page.

    Raises
    ------
    NeedsWork
        If they are not worked out yet.
    """
    name = cuts_name(now, fit)
    found = stored_object(f"cuts/{name}")
    if found is None:
        raise NeedsWork
    url = reverse("splitting:drawing", args=[now.stance.pk])
    cuts = []
    for number, one in enumerate(found["cuts"]):
        parts = [
            part | {"drawing": f"{url}?fit={int(fit)}&cut={number}&part={i}&v={name}"}
            for i, part in enumerate(one["parts"])
        ]
        cuts.append(one | {"parts": parts})
    return {"cuts": cuts, "key": name}


def _plain(now: Current, one: CutProposal) -> dict:
    return {
        "text": one.text,
        "planes": [plane_on_plate(now, plane) for plane in one.planes],
        "own": [[*map(float, p.normal), float(p.offset_mm)] for p in one.planes],
        "better": list(one.better),
        "worse": list(one.worse),
        "seam_mm": one.seam_mm,
        "section_mm2": one.section_mm2,
        "exact": one.is_exact,
        "edits": [
            {"kind": e.kind, "parameters": {k: v for k, v in e.parameters().items() if k != "key"}}
            for e in edits_of(now.part, one, now.setup.angles_deg)
        ],
        "parts": [
            {
                "side": part.side,
                "volume_mm3": part.volume_mm3,
                "turn_deg": list(part.turn_deg),
                "on_cut": part.on_cut,
                "fits": part.fits,
                "support_mm3": part.goals["volume"],
                "overhang_mm2": part.goals["area"],
                "height_mm": part.goals["height"],
            }
            for part in one.parts
        ],
    }


def part_drawing(now: Current, fit: bool, number: int, part: int) -> bytes:
    """A part of a proposal as it would stand.

    Raises
    ------
    EditError
        If there is none.
    NeedsWork
    """
    cuts = found_cuts(now, fit)["cuts"]
    if not (0 <= number < len(cuts) and 0 <= part < len(cuts[number]["parts"])):
        raise EditError("There is no such drawing.")
    one = cuts[number]
    told, pieces, key = one["parts"][part], [now.part], now.part.key
    for *normal, offset in one["own"]:
        plane = np.array(normal)
        factors = now.part.frame.factors
        cut = Cut("try", key, tuple(plane * factors), tuple(plane * offset / factors))
        pieces = [p for piece in pieces for p in (cut.applied((piece,)) or (piece,))]
    sides = {piece.key.removeprefix(f"{key}."): piece for piece in pieces}
    own = sides.get(told["side"].removeprefix(f"{key}."))
    if own is None:
        raise EditError("There is no such drawing.")
    return drawing_png(turned(own.mesh, tuple(told["turn_deg"])), (220, 160))
