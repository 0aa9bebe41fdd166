"""``fairstand inspect``: the facts of the screen as JSON or a table."""

import argparse
import json
import math
from pathlib import Path

import numpy as np

from printability.errors import MeshFileError
from printability.facts import facts_of
from printability.findings import find, place_told, told
from printability.inspection import inspect_model
from printability.layers import Hanging
from printability.mesh import (
    MM_PER_UNIT,
    Opened,
    ReadLimits,
    check_size,
    mesh_facts,
    open_mesh,
    same_and_mirrored,
    unit_doubt,
)
from printability.parts import Frame
from printability.stance import Placed, Setup, part_of, turned
from printability.turning import goals_of

from .arguments import of_model, turn_first
from .kept import process_named

__all__ = ["arguments", "inspect_file", "open_file", "report_of", "run", "table_of"]


def arguments(command: argparse.ArgumentParser) -> None:
    """What can be said to it."""
    of_model(command)
    turn_first(command)


def run(options: argparse.Namespace) -> int:
    """Print the inspection of ``options.file``."""
    report = inspect_file(
        Path(options.file), options.process, options.turn, options.unit, options.threshold
    )
    if options.json:
        print(json.dumps(report, indent=2, allow_nan=False))
    else:
        print(table_of(report))
    return 0


def inspect_file(
    path: Path,
    process_key: str = "fdm",
    turn_deg: tuple[float, float, float] = (0.0, 0.0, 0.0),
    unit: str | None = None,
    threshold_deg: float | None = None,
) -> dict:
    """Everything that ``fairstand inspect --json`` prints; docs/inspect-json.md describes it.

    Raises
    ------
    MeshFileError
        If the file cannot be read.
    """
    opened = open_file(path)
    setup = Setup(process=process_named(process_key), threshold_deg=threshold_deg)
    setup = setup.framed(Frame(unit or opened.unit or "mm"))
    part = part_of(opened.mesh, setup)
    placed = Placed(part, turned(part.mesh, turn_deg), np.eye(4), {})
    return report_of(path.name, opened, setup, placed)


def report_of(
    name: str, opened: Opened, setup: Setup, placed: Placed, sides: np.ndarray | None = None
) -> dict:
    """The facts of a placed model, as `inspect_file` gives them.

    Parameters
    ----------
    name : str
        Of the model's file.
    opened : Opened
    setup : Setup
        Its unit, process and threshold count.
    placed : Placed
        With the pillars that stand.
    sides : (m,) uint8, optional
        Painted sides.
    """
    mesh, unit_used, process = placed.mesh, setup.frame.unit, setup.process
    threshold = setup.effective_threshold_deg
    facts = mesh_facts(mesh)
    size = mesh.high_mm - mesh.low_mm
    h = process.layer_height_mm
    look = inspect_model(mesh, process, placed.standing, sides=sides)
    overhang = look.overhang(threshold)
    ledger = find(placed, look, threshold, overhang)
    cost = look.estimate(threshold)
    same, mirrored = same_and_mirrored(mesh)
    peak, stand, spans = look.peak, look.footing, look.spans
    doubt = unit_doubt(float(size.max()) / MM_PER_UNIT[unit_used], unit_used)
    return {
        "model": {
            "file": name,
            "unit": unit_used,
            "unit_doubt": doubt.text if doubt else None,
            "size_mm": _rounded(size),
            "facets": facts.facets,
            "volume_mm3": _rounded(facts.volume_mm3),
            "area_mm2": _rounded(facts.area_mm2),
            "watertight": facts.watertight,
            "open_edges": facts.open_edges,
            "bodies": facts.bodies,
            "repairs": [{"kind": r.kind, "count": r.count, "text": r.text} for r in opened.repairs],
            "notes": list(opened.notes),
        },
        "process": {"key": process.key, "layer_height_mm": h, "threshold_deg": threshold},
        "overhang": {
            "area_mm2": _rounded(overhang.area_mm2),
            "patches": [
                {
                    "id": p.id,
                    "area_mm2": _rounded(p.area_mm2),
                    "min_slope_deg": _rounded(p.min_slope_deg),
                    "lowest_z_mm": _rounded(p.lowest_z_mm),
                    "center_mm": _rounded(p.center_mm),
                }
                for p in overhang.patches
            ],
        },
        "layers": {
            "count": look.layers.count,
            "height_mm": h,
            "area_mm2": _rounded(look.layers.area_mm2),
        },
        "islands": [
            {
                "layer": i.layer,
                "z_mm": _rounded(i.z_mm),
                "center_mm": _rounded(i.center_mm),
                "area_mm2": _rounded(i.area_mm2),
                "absorbed_after_layers": i.absorbed_after_layers,
            }
            for i in look.islands
        ],
        "bridges": [_span(part, "span_mm") for part in spans if part.kind == "bridge"],
        "ledges": [_span(part, "reach_mm") for part in spans if part.kind == "ledge"],
        "jumps": [
            _fields(jump, "layer", "z_mm", "grip", "area_mm2", "hanging_mm2", "hold_n", "pull_n")
            for jump in look.jumps
        ],
        "tears": [
            _fields(t, "layer", "z_mm", "hold_n", "pull_n", "cut_mm2", "ties", "on_plate", "at_mm")
            for t in look.tears
        ],
        "peak": peak and _fields(peak, "layer", "z_mm", "area_mm2", "region_mm2", "region_layer"),
        "thin": [
            _fields(wall, "thickness_mm", "z_mm", "center_mm", "area_mm2", "is_link")
            for wall in look.thin
        ],
        "lost": [
            _fields(
                one, "what", "thickness_mm", "area_mm2", "parts_bodies", "z_mm", "center_mm"
            )
            for one in look.lost
        ],
        "weak_cuts": [
            _fields(
                cut, "layer", "z_mm", "reached_mm", "ratio", "hold_nmm", "push_nmm", "lever_mm",
                "area_mm2", "on_plate", "at_mm",
            )
            for cut in look.weak_cuts
        ],
        "necks": [
            _fields(neck, "layer", "z_mm", "center_mm", "area_mm2", "volume_above_mm3")
            for neck in look.necks
        ],
        "footing": stand
        and {
            **_fields(
                stand, "footprint_mm2", "center_of_mass_mm", "margin_mm", "tip_angle_deg",
                "slenderness",
            ),
            "starts_with": look.starts_with,
        },
        "finish": {
            "rough_mm2": _rounded(look.finish.rough_mm2),
            "bands_mm2": {key: _rounded(area) for key, area in look.finish.bands_mm2.items()},
        },
        "cups": [
            _fields(
                cup, "closed", "drain_mm", "volume_mm3", "mouth_mm2", "mouth_layer", "opens_z_mm",
                "has_small_vent",
            )
            for cup in look.cups
        ],
        "long_feet": [
            _fields(foot, "length_mm", "corners_mm", "area_mm2") for foot in look.corners
        ],
        "goals": {key: _plain(value) for key, value in goals_of(look, threshold).items()},
        "same_bodies": [list(group) for group in same],
        "mirror_bodies": [list(pair) for pair in mirrored],
        "estimate": _fields(cost, "grid_support_mm3", "mass_g", "time_s"),
        "facts": {k: _plain(v) for k, v in facts_of(look, ledger, threshold).items()},
        "findings": [{k: _plain(v) for k, v in told(f).items()} for f in ledger.findings],
        "places": [
            {k: v if k in ("findings", "patches") else _plain(v) for k, v in place_told(p).items()}
            for p in ledger.places
        ],
        "notes": list(ledger.notes),
    }  # fmt: skip


def open_file(path: Path) -> Opened:
    """Read a mesh from disk.

    Raises
    ------
    MeshFileError
        If the file cannot be read.
    """
    limits = ReadLimits()
    try:
        check_size(path.stat().st_size, limits)
        data = path.read_bytes()
    except OSError as error:
        reason = error.strerror or "it cannot be opened"
        raise MeshFileError(f"The file “{path}” cannot be read: {reason}.") from error
    return open_mesh(data, path.name, limits)


def _fields(thing, *names: str) -> dict:
    """Some attributes of a result under their own names; null for what is infinite."""
    return {name: _plain(getattr(thing, name)) for name in names}


def _plain(value):
    if isinstance(value, tuple) and value and isinstance(value[0], tuple):
        return [_plain(row) for row in value]
    if value is None or isinstance(value, bool | int | str):
        return value
    if isinstance(value, float) and not math.isfinite(value):
        return None
    return _rounded(value)


def _span(part: Hanging, name: str) -> dict:
    return {
        name: _rounded(part.length_mm),
        "z_mm": _rounded(part.center_mm[2]),
        **_fields(part, "layer", "center_mm", "area_mm2"),
    }


def _rounded(value):
    """Numbers to a millionth, which is finer than any file's coordinates."""
    if hasattr(value, "__len__"):
        return [_rounded(v) for v in value]
    return round(float(value), 6) + 0.0


def table_of(report: dict) -> str:
    model, process, overhang = report["model"], report["process"], report["overhang"]
    size = " × ".join(f"{v:.2f}" for v in model["size_mm"])
    state = "watertight" if model["watertight"] else f"{model['open_edges']:,} open edges"
    bodies = f"{model['bodies']} bod{'y' if model['bodies'] == 1 else 'ies'}"
    lines = [
        f"{model['file']} ({model['unit']})",
        f"  size       {size} mm",
        f"  facets     {model['facets']:,}, {bodies}, {state}",
        f"  volume     {model['volume_mm3']:,.2f} mm³",
        f"  surface    {model['area_mm2']:,.2f} mm²",
    ]
    lines += [f"  repaired   {repair['text']}" for repair in model["repairs"]]
    lines += [f"  note       {note}" for note in model["notes"]]
    if model["unit_doubt"]:
        lines.append(f"  unit       {model['unit_doubt']}")
    if not model["watertight"]:
        lines.append("  in doubt   volume, layers and islands: the surface is open")
    layers = report["layers"]
    lines += [
        "",
        f"{process['key']}, {layers['count']} layers of {layers['height_mm']:g} mm, "
        f"self-supporting from {process['threshold_deg']:g}°",
        "",
        f"Overhang: {overhang['area_mm2']:,.2f} mm² in {len(overhang['patches'])} "
        f"patch{'' if len(overhang['patches']) == 1 else 'es'}",
    ]
    if overhang["patches"]:
        lines.append("     id    area mm²  flattest °  lowest z mm   middle x, y, z mm")
        lines += [
            f"  {p['id']:>5} {p['area_mm2']:>11,.2f} {p['min_slope_deg']:>11.1f} "
            f"{p['lowest_z_mm']:>12.2f}   {', '.join(f'{c:.1f}' for c in p['center_mm'])}"
            for p in overhang["patches"][:20]
        ]
        if len(overhang["patches"]) > 20:
            lines.append(f"        and {len(overhang['patches']) - 20} smaller ones")
    lines += [f"Islands: {len(report['islands'])}", "", f"Places: {len(report['places'])}"]
    by_id = {found["id"]: found for found in report["findings"]}
    in_places = [(place["id"], [by_id[i] for i in place["findings"]]) for place in report["places"]]
    listed = {found["id"] for _, own in in_places for found in own}
    whole = [found for found in report["findings"] if found["id"] not in listed]
    for name, own in [*in_places, ("the whole", whole)]:
        if own:
            lines.append(f"  {name}")
        for found in own:
            x, y, _ = found["center_mm"]
            lines.append(f"    {found['severity']:<9} {found['id']:<12} {found['text']}")
            lines.append(f"              {'':<12} at x {x:.1f}, y {y:.1f}")
    lines += [f"  note      {note}" for note in report["notes"]]
    cost = report["estimate"]
    lines += [
        "",
        f"Estimate: {cost['mass_g']:.1f} g, {cost['time_s'] / 60:.0f} min, "
        f"grid supports {cost['grid_support_mm3']:,.0f} mm³",
    ]
    return "\n".join(lines)
