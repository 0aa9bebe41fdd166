"""What the page needs to know of a stance, as plain data."""

from dataclasses import asdict

import numpy as np
from django.template.loader import render_to_string
from django.urls import reverse

from fairstand.stances.current import Current, NeedsWork
from fairstand.stances.cutting import plane_on_plate
from fairstand.stances.reshaping import changes_told
from fairstand.stances.strip import keep_figures
from printability.edits import edit_from
from printability.edits.props import plain_end
from printability.errors import PrintabilityError
from printability.findings import KINDS, place_told, told
from printability.handover import part_named
from printability.layers import hair_mm, levels
from printability.measuring import measure_at
from printability.mesh import unit_doubt, volume_mm3
from printability.reshaping import CHANGES, usual_size
from printability.splitting import Cut
from printability.supports import KINDS as SUPPORTS
from printability.supports import Fitted, Rod, Solid

__all__ = [
    "CHANGE_KINDS",
    "SUPPORT_KINDS",
    "findings_of",
    "measures_of",
    "state_of",
    "support_as_dict",
]

# Overhang patches shown while the layers are still being worked out.
MOST_FIRST = 30
SUPPORT_KINDS = [
    {
        "key": kind.key,
        "label": kind.label,
        "plural": kind.plural,
        "dimensions": [
            {"key": name, "label": d.label, "unit": d.unit, "choices": list(d.choices)}
            for name, d in kind.size.DIMENSIONS.items()
            if name != "shape"
        ],
    }
    for kind in SUPPORTS.values()
]

CHANGE_KINDS = [
    {
        "key": change.key,
        "label": change.label,
        "about": change.about,
        "needs_place": change.needs_place,
        "dimensions": [
            {"key": name, "label": d.label, "unit": d.unit, "low": d.low, "high": d.high,
             "choices": list(d.choices), "only_with": list(d.only_with or ())}
            for name, d in change.dimensions.items()
        ],
    }
    for change in CHANGES.values()
]  # fmt: skip


def state_of(now: Current) -> dict:
    """The stance without its layers: placing, pillars, doubts, undo and redo."""
    stance, setup, placed = now.stance, now.setup, now.placed
    process = setup.process
    beside = stance.edits.filter(position__in=(stance.in_force - 1, stance.in_force))
    said = {record.position: _said(record) for record in beside}
    url, source = {"args": [stance.pk]}, f"?v={now.source_key}"
    return {
        "key": now.key,
        "note": now.note,
        "revision": stance.revision,
        "view_key": now.view_key,
        "part": setup.part,
        "parts": _parts(now),
        "cuts": _cuts(now),
        "changes": changes_told(now),
        "usual_sizes": {
            key: usual_size(key, process, setup.effective_threshold_deg) for key in CHANGES
        },
        "unit": setup.frame.unit,
        "process": process.key,
        "process_label": process.label,
        "profiles": {name: list(sizes) for name, sizes in process.profiles.items()},
        "layer_height_mm": process.layer_height_mm,
        "threshold_deg": setup.effective_threshold_deg,
        "process_threshold_deg": process.threshold_deg,
        "build_volume_mm": process.build_volume_mm,
        "angles_deg": setup.angles_deg,
        "lift_mm": setup.lift_mm,
        "move_mm": setup.move_mm,
        "scale": setup.frame.scale,
        "mirrored": setup.frame.mirrored,
        "own_size_mm": _own_size(now),
        "outside": _outside(now),
        "matrix": placed.matrix.T.ravel().tolist(),
        "size_mm": placed.size_mm,
        "top_mm": float(placed.mesh.high_mm[2]),
        "facets": len(placed.mesh.facets),
        "is_closed": stance.piece.facts["watertight"],
        "mesh_url": reverse("bench:mesh", **url) + source,
        "creases_url": reverse("bench:creases", **url) + source,
        "body_of_facet_url": reverse("bench:body_of_facet", **url) + source,
        "slopes_url": reverse("bench:slopes", **url) + f"?v={now.slopes_key}",
        "drawing_url": reverse("bench:drawing", **url) + f"?v={now.view_key}{now.dyes_key}",
        "solids_url": _solids_url(now, url),
        "held_url": reverse("supports:held", **url) + f"?v={now.view_key}",
        "pillars": [support_as_dict(support) for support in placed.supports.values()],
        "measures": measures_of(now),
        "sides_url": reverse("bench:sides", **url) + f"?v={now.paint_key}" if now.paint_key else "",
        "colours_url": reverse("bench:colours", **url) + f"?v={now.dyes_key}"
        if now.dyes_key
        else "",
        "palette": [{"name": name, "rgb": rgb} for name, rgb in setup.dyes.palette],
        "layers_of_pillars": {
            key: _layer_of(now, fitted.contact_mm[2]) for key, fitted in placed.supports.items()
        },
        "doubts": _doubts(now),
        "undo": said.get(stance.in_force - 1),
        "redo": said.get(stance.in_force),
    }


def _parts(now: Current) -> list[dict]:
    """All parts there are, with what they are called."""
    return [
        {
            "key": part.key,
            "label": part_named(part.key) or "whole piece",
            "volume_mm3": round(volume_mm3(part.mesh), 3),
        }
        for part in now.parts
    ]


def _cuts(now: Current) -> list[dict]:
    """The cuts in force, in order."""
    return [
        {
            "key": cut.key, "part": cut.part, "of": part_named(cut.part) or "whole piece",
            "kerf_mm": cut.kerf_mm, "keep": cut.keep, "loose": cut.loose,
            "joints": len(cut.joints), "dovetail": cut.dovetail is not None,
            "seam": cut.seam, "plane": plane_on_plate(now, cut.plane(now.part)),
        }
        for cut in now.setup.shape if isinstance(cut, Cut)
    ]  # fmt: skip


def _solids_url(now: Current, url: dict) -> str:
    """Where the members are that are no rods; empty where there are none."""
    if any(isinstance(m, Solid) for f in now.placed.standing for m in f.members):
        return reverse("supports:solids", **url) + f"?v={now.view_key}"
    return ""


def _layer_of(now: Current, z_mm: float) -> int:
    """The layer below the one in which what begins at a height shows first."""
    hair = hair_mm(now.layer_height_mm, now.placed.size_mm[2], now.placed.mesh.grain_mm)
    return max(int(levels(np.array([z_mm]), now.layer_height_mm, hair)[0]) - 1, 0)


def _own_size(now: Current) -> list[float]:
    """Extent along the piece's own axes, scaled, mm."""
    return now.part.mesh.size_mm.tolist()


def _outside(now: Current) -> list[str]:
    """What leaves the build volume, in words; model and pillars together."""
    x, y, z = now.setup.process.build_volume_mm
    parts = [now.placed.mesh, *(s.mesh for s in now.placed.standing)]
    low = np.min([part.low_mm for part in parts], axis=0)
    high = np.max([part.high_mm for part in parts], axis=0)
    over = {
        "left": -x / 2 - low[0], "right": high[0] - x / 2, "front": -y / 2 - low[1],
        "back": high[1] - y / 2, "top": high[2] - z,
    }  # fmt: skip
    return [f"{mm:.1f} mm at the {side}" for side, mm in over.items() if mm > 1e-6]


def _said(record) -> str:
    return edit_from(record.kind, record.parameters).said()


def _doubts(now: Current) -> list[dict]:
    """What to know before trusting the numbers."""
    facts, doubts = now.stance.piece.facts, []
    frame = now.setup.frame
    longest = max(s * f for s, f in zip(facts["size"], frame.scale, strict=True))
    doubt = unit_doubt(longest, frame.unit)
    if doubt:
        doubts.append(
            {
                "kind": "unit",
                "text": doubt.text,
                "choices": [{"unit": unit, "mm": round(mm, 1)} for unit, mm in doubt.choices],
            }
        )
    if not facts["watertight"]:
        count = facts["open_edges"]
        doubts.append(
            {
                "kind": "open",
                "text": f"The surface is open along {count:,} edges: volume, layers and islands "
                "are in doubt, and it cannot be handed over as one body.",
                "choices": [],
            }
        )
    return doubts


def measures_of(now: Current) -> list[dict]:
    """The measures taken, as they are in this stance."""
    return [
        {"key": key} | asdict(measure_at(now.part, now.placed.mesh, what, anchors))
        for key, what, anchors in now.setup.measures
    ]


def support_as_dict(fitted: Fitted) -> dict:
    """A fitted support for the page to draw and list; rods are seven numbers and a radius more."""
    rods = [m for m in fitted.members if isinstance(m, Rod)]
    return {
        "key": fitted.support.key,
        "kind": fitted.support.kind,
        "label": SUPPORTS[fitted.support.kind].label,
        "why": fitted.support.why,
        "insist": fitted.support.insist,
        "has_contact": bool(fitted.contacts),
        "fit": fitted.fit.value,
        "text": fitted.text,
        "contact_mm": fitted.contact_mm,
        "contact_slope_deg": fitted.contacts[0].slope_deg if fitted.contacts else 0.0,
        "blocked_at_mm": fitted.blocked_at_mm,
        "rods": [[*rod.a_mm, *rod.b_mm, rod.r_a_mm, rod.r_b_mm] for rod in rods],
        "ends": [plain_end(end) for end in fitted.support.ends],
        "size": asdict(fitted.support.size),
    }


def findings_of(now: Current, threshold_deg: float | None = None) -> dict:
    """Ledger, tower and figures; says so where the layers have to be worked out first."""
    threshold = now.setup.effective_threshold_deg if threshold_deg is None else threshold_deg
    overhang = now.overhang(threshold)
    out = {
        "key": now.key,
        "threshold_deg": threshold,
        "overhang": {"area_mm2": overhang.area_mm2, "patches": len(overhang.patches)},
        "ready": False,
        "error": "",
    }
    try:
        look = now.inspection()
        ledger = now.ledger(threshold)
    except NeedsWork:
        first = {"patches": overhang.patches[:MOST_FIRST]}
        return out | {"ledger_html": render_to_string("bench/_ledger_first.html", first)}
    except PrintabilityError as error:
        return out | {"error": str(error)}
    layers = look.layers
    cost = look.estimate(threshold)
    if threshold == now.setup.effective_threshold_deg:
        keep_figures(now, ledger)
    return out | {
        "ready": True,
        "tower": {
            "layer_height_mm": layers.layer_height_mm,
            "count": layers.count,
            "area_mm2": np.round(layers.area_mm2, 3).tolist(),
            "grip": np.round(look.grip, 4).tolist(),
            "perimeter_mm": np.round(layers.perimeters_mm, 2).tolist(),
        },
        "estimate": asdict(cost),
        "findings": [
            told(f)
            | {
                "layer": min(f.layer, max(layers.count - 1, 0)),
                "place": now.placed.source_place(f.center_mm),
                "from_below": KINDS[f.kind].about == "underside",
            }
            for f in ledger.findings
        ],
        "places": [place_told(p) for p in ledger.places],
        "problems": ledger.problems,
        "ledger_html": render_to_string(
            "bench/_ledger.html",
            {
                "places": ledger.places,
                "whole": ledger.whole,
                "notes": ledger.notes,
                "overhang": overhang,
                "threshold": threshold,
                "estimate": {
                    "grid": cost.grid_support_mm3,
                    "mass_g": cost.mass_g,
                    "minutes": cost.time_s / 60,
                    "scar": cost.scar_mm2,
                },
                "islands": look.islands,
                "open_chains": layers.open_chains,
            },
        ),
    }
