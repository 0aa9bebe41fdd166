"""``fairstand inspect``: the facts of the screen as JSON or a table."""

import argparse
import json
from pathlib import Path

from printability.errors import MeshFileError
from printability.inspection import layer_facts
from printability.mesh import (
    MM_PER_UNIT,
    ReadLimits,
    check_size,
    mesh_facts,
    open_mesh,
    unit_doubt,
)
from printability.process import process_named
from printability.stance import turned
from printability.surface import find_overhang, underside_slopes

__all__ = ["inspect_file", "run"]


def run(options: argparse.Namespace) -> int:
    """Print the inspection of ``options.file``."""
    report = inspect_file(
        Path(options.file), options.process, options.turn, options.unit, options.threshold
    )
    if options.json:
        print(json.dumps(report, indent=2, allow_nan=False))
    else:
        print(_table(report))
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
    limits = ReadLimits()
    try:
        check_size(path.stat().st_size, limits)
        data = path.read_bytes()
    except OSError as error:
        reason = error.strerror or "it cannot be opened"
        raise MeshFileError(f"The file “{path}” cannot be read: {reason}.") from error
    opened = open_mesh(data, path.name, limits)
    unit_used = unit or opened.unit or "mm"
    process = process_named(process_key)
    threshold = process.threshold_deg if threshold_deg is None else threshold_deg
    mesh = turned(opened.mesh, unit_used, turn_deg)
    facts = mesh_facts(mesh)
    size = mesh.vertices.max(axis=0) - mesh.vertices.min(axis=0)
    h = process.layer_height_mm
    overhang = find_overhang(mesh, underside_slopes(mesh, h), threshold)
    found = layer_facts(mesh, h)
    doubt = unit_doubt(float(size.max()) / MM_PER_UNIT[unit_used], unit_used)
    return {
        "model": {
            "file": path.name,
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
            "count": found.layers.count,
            "height_mm": h,
            "area_mm2": _rounded(found.layers.area_mm2),
        },
        "islands": [
            {
                "layer": i.layer,
                "z_mm": _rounded(i.z_mm),
                "center_mm": _rounded(i.center_mm),
                "area_mm2": _rounded(i.area_mm2),
                "absorbed_after_layers": i.absorbed_after_layers,
            }
            for i in found.islands
        ],
    }


def _rounded(value):
    """Numbers to a millionth, which is finer than any file's coordinates."""
    if hasattr(value, "__len__"):
        return [_rounded(v) for v in value]
    return round(float(value), 6) + 0.0


def _table(report: dict) -> str:
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
        f"Overhang: {overhang['area_mm2']:,.2f} mm² in {len(overhang['patches'])} patches",
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
    lines += ["", f"Islands: {len(report['islands'])}"]
    if report["islands"]:
        lines.append("  layer        z mm    area mm²   absorbed after   middle x, y mm")
        for island in report["islands"][:20]:
            after = island["absorbed_after_layers"]
            joins = "never" if after is None else f"{after} layer{'s' if after != 1 else ''}"
            x, y, _ = island["center_mm"]
            lines.append(
                f"  {island['layer']:>5} {island['z_mm']:>11.2f} {island['area_mm2']:>11,.3f} "
                f"{joins:>16}   {x:.1f}, {y:.1f}"
            )
        if len(report["islands"]) > 20:
            lines.append(f"        and {len(report['islands']) - 20} more")
    peak = max(range(layers["count"]), key=lambda k: layers["area_mm2"][k], default=None)
    if peak is not None:
        z = (peak + 0.5) * layers["height_mm"]
        lines += [
            "",
            f"Largest layer: {peak} at z = {z:.2f} mm, {layers['area_mm2'][peak]:,.2f} mm²",
        ]
    return "\n".join(lines)
