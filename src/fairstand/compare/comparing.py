"""Stances side by side: one table, the same camera and scale, towers over each other."""

import csv
import io

import numpy as np
from django.urls import reverse
from django.utils.safestring import mark_safe

from fairstand.memory import keep_bytes, kept_object, stored_bytes, stored_object
from fairstand.stances.current import Current, NeedsWork, current, digest
from printability.colours import COLOURS
from printability.drawing import drawing_png, span_to_show
from printability.errors import PrintabilityError
from printability.facts import FACTS, Fact, facts_of, facts_of_parts
from printability.handover import side_by_side
from printability.mesh import joined

__all__ = [
    "FACTS",
    "compared",
    "comparison_csv",
    "drawing_key",
    "numbers_of",
    "scaled_drawing",
]

# Line styles and inks of the towers, told apart without colour as well.
TOWERS = (
    ("ink", ""), ("accent", "7 3"), ("teal", "2 3"), ("plum", "10 3 2 3"),
    ("ochre", "4 4"), ("brick", "12 4"), ("faint", "1 3"), ("ink", "6 2 2 2 2 2"),
)  # fmt: skip
MOST_COMPARED = len(TOWERS)
DRAWING = (300, 240)


def numbers_of(now: Current) -> dict:
    """Everything that the comparison shows of a stance, kept once it is known.

    Raises
    ------
    NeedsWork
        If the layers are not worked out yet.
    """
    if len(now.parts) > 1:
        return _of_parts([_numbers_of_part(now.of_part(part.key)) for part in now.parts])
    return _numbers_of_part(now)


def _of_parts(parts: list[dict]) -> dict:
    """Sums and the worst of the parts; the layers of all together, as on one plate."""
    h = parts[0]["tower"][0]
    areas = np.zeros(max(len(part["tower"][1]) for part in parts))
    for part in parts:
        own = np.array(part["tower"][1])
        areas[: len(own)] += own
    return facts_of_parts(parts) | {"tower": (h, np.round(areas, 3).tolist())}


def _numbers_of_part(now: Current) -> dict:
    threshold = now.setup.effective_threshold_deg
    name = f"compared/{now.key}-{digest(repr(threshold), repr(now.setup.accepted))}"
    found = stored_object(name)
    if found is not None:
        return found
    look = now.inspection()
    found = facts_of(look, now.ledger(threshold), threshold, len(now.placed.supports))
    areas = np.round(look.layers.area_mm2, 3).tolist()
    found["tower"] = (look.layers.layer_height_mm, areas)
    kept_object(name, found)
    return found


def compared(stances) -> dict:
    """What the comparison's page shows of some stances of one piece."""
    columns, waiting = [], []
    for number, stance in enumerate(stances):
        now = current(stance)
        column = {
            "stance": stance,
            "process": now.setup.process.label,
            "parts": len(now.parts),
            "ink": COLOURS[TOWERS[number][0]],
            "dashes": TOWERS[number][1],
            "number": number + 1,
            "drawing": reverse("compare:drawing", args=[stance.pk]),
            "version": drawing_key(now),
        }
        try:
            column["numbers"] = numbers_of(now)
        except NeedsWork:
            column["numbers"] = None
            waiting.append(stance)
        except PrintabilityError as error:
            column["numbers"], column["error"] = None, str(error)
        column["span_mm"] = span_to_show(_drawn(now)[0], DRAWING)
        columns.append(column)
    span = max((column["span_mm"] for column in columns), default=1.0)
    for column in columns:
        column["drawing"] += f"?span={span:.3f}&v={column['version']}"
    rows = [_marked(row, columns) for row in FACTS]
    return {
        "columns": columns,
        "rows": [row for row in rows if row["any"]],
        "waiting": waiting,
        "towers": _towers([c for c in columns if c["numbers"]]),
        "span_mm": span,
    }


def _marked(row: Fact, columns: list[dict]) -> dict:
    """A row's cells, the best of them marked where they differ."""
    values = [c["numbers"][row.key] if c["numbers"] else None for c in columns]
    known = [round(v, row.digits) for v in values if v is not None]
    best = None
    if row.best and len(set(known)) > 1:
        best = min(known) if row.best == "least" else max(known)
    cells = [
        {
            "text": "–" if v is None else f"{v:,.{row.digits}f}",
            "best": v is not None and best is not None and round(v, row.digits) == best,
        }
        for v in values
    ]
    return {"row": row, "cells": cells, "any": bool(known)}


def _towers(columns: list[dict]) -> dict | None:
    """Area against height of every stance, in one drawing."""
    if not columns:
        return None
    top = max(h * len(areas) for h, areas in (c["numbers"]["tower"] for c in columns))
    most = max((max(areas, default=0.0) for _, areas in (c["numbers"]["tower"] for c in columns)))
    width, height, left, below = 560.0, 300.0, 46.0, 34.0
    across, up = (width - left - 12) / max(most, 1e-9), (height - below - 26) / max(top, 1e-9)
    lines = []
    for column in columns:
        h, areas = column["numbers"]["tower"]
        step = max(len(areas) // 600, 1)  # finer than the drawing can show
        points = [f"M{left:.1f} {height - below:.1f}"]
        for k in range(0, len(areas), step):
            x = left + max(areas[k : k + step]) * across
            points.append(f"L{x:.1f} {height - below - k * h * up:.1f}")
            points.append(f"V{height - below - min(k + step, len(areas)) * h * up:.1f}")
        points.append(f"H{left:.1f}")
        lines.append(
            {"path": mark_safe("".join(points)), "ink": column["ink"], "dashes": column["dashes"],
             "number": column["number"], "name": column["stance"].name}
        )  # fmt: skip
    return {
        "width": width,
        "height": height,
        "left": left,
        "base": height - below,
        "lines": lines,
        "ups": [
            {"y": height - below - z * up, "text": f"{z:g}"}
            for z in _round_steps(top)
        ],
        "acrosses": [{"x": left + a * across, "text": f"{a:,.0f}"} for a in _round_steps(most)],
    }  # fmt: skip


def _round_steps(most: float) -> list[float]:
    """Round numbers from 0 up to a value, four or five of them."""
    if most <= 0:
        return [0.0]
    raw = most / 5
    power = 10.0 ** np.floor(np.log10(raw))
    step = float(next(s * power for s in (1, 2, 5, 10) if s * power >= raw))
    return [round(i * step, 9) for i in range(int(most / step) + 1)]


def drawing_key(now: Current) -> str:
    """Names what is drawn of a stance: all of its parts."""
    if len(now.parts) == 1:
        return now.view_key
    return digest(*(now.of_part(part.key).view_key for part in now.parts))


def _drawn(now: Current):
    """All parts with their pillars in one mesh, and which of its facets overhang."""
    if len(now.parts) == 1:
        return _part_drawn(now)
    every = [now.of_part(part.key) for part in now.parts]
    drawn = [_part_drawn(one) for one in every]
    moves = side_by_side([one.placed for one in every], now.setup.process)
    x = [(*one.setup.move_mm, 0.0) for one in every]
    meshes = [
        mesh.moved(mesh.vertices + move + own)
        for (mesh, _), move, own in zip(drawn, moves, x, strict=True)
    ]
    return joined(meshes), np.concatenate([plum for _, plum in drawn])


def _part_drawn(now: Current):
    mesh = now.placed.mesh
    plum = now.overhang(now.setup.effective_threshold_deg).patch_of_facet > 0
    if now.placed.standing:
        mesh = joined([mesh, *(support.mesh for support in now.placed.standing)])
        plum = np.concatenate([plum, np.zeros(len(mesh.facets) - len(plum), bool)])
    x, y = now.setup.move_mm
    return mesh.moved(mesh.vertices - (x, y, 0.0)), plum


def scaled_drawing(now: Current, span_mm: float) -> bytes:
    """PNG of a stance from the usual side, at a given width in mm; the plate is level in all."""
    name = f"drawings/{drawing_key(now)}-{span_mm:.3f}.png"
    found = stored_bytes(name)
    if found is not None:
        return found
    mesh, plum = _drawn(now)
    return keep_bytes(name, drawing_png(mesh, DRAWING, plum=plum, span_mm=span_mm))


def comparison_csv(stances) -> str:
    """The table as CSV, numbers in full."""
    table = compared(stances)
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(["what", "unit", *(_plain(c["stance"].name) for c in table["columns"])])
    writer.writerow(["process", "", *(c["process"] for c in table["columns"])])
    for row in FACTS:
        values = [c["numbers"][row.key] if c["numbers"] else None for c in table["columns"]]
        writer.writerow([row.label, row.unit, *("" if v is None else f"{v:.6g}" for v in values)])
    return out.getvalue()


def _plain(text: str) -> str:
    """A name that no spreadsheet takes for a formula."""
    return f"'{text}" if text[:1] in "=+-@" else text
