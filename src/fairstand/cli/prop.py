"""``fairstand prop``: supports proposed for a model, as JSON or a table, and its files."""

import argparse
import hashlib
import json
from pathlib import Path

from printability.edits import edit_from
from printability.edits.props import plain_support
from printability.errors import HandOverError
from printability.findings import Ledger, Severity
from printability.handover import stl_of, threemf_of
from printability.parts import Frame
from printability.proposing import HABITS, Options, Proposal, propose, strengths_of
from printability.stance import Pose, Setup, part_of, stand
from printability.stance_file import StanceFile, written_stance

from .arguments import of_model, turn_first
from .inspect import open_file
from .kept import habits_named, process_named, start_edits

__all__ = ["arguments", "prop_file", "run"]


def arguments(command: argparse.ArgumentParser) -> None:
    """What can be said to it."""
    of_model(command)
    turn_first(command)
    command.add_argument(
        "--lift", type=_lift, default=0.0, metavar="MM", help="held so far above the plate"
    )
    command.add_argument("--where", choices=("plate", "anywhere"), default="plate")
    command.add_argument("--clear", choices=("failing", "risky"), default="risky")
    command.add_argument("--profile", choices=("light", "medium", "heavy"), default="medium")
    command.add_argument(
        "--habits", metavar="NAME|FILE.json",
        help=f"a table of habits decides first: {', '.join(sorted(HABITS))}, or your own",
    )  # fmt: skip
    command.add_argument("--out", metavar="FILE", help="write model and supports, .stl or .3mf")
    command.add_argument("--stance", metavar="OUT.json", help="write the stance")


def _lift(text: str) -> float:
    try:
        value = float(text)
    except ValueError:
        value = -1.0
    if not 0 <= value <= 500:
        raise argparse.ArgumentTypeError("the piece is lifted by 0 to 500 mm")
    return value


def run(options: argparse.Namespace) -> int:
    """Print the supports proposed for ``options.file``; write what was asked for."""
    report = prop_file(options)
    print(json.dumps(report, indent=2, allow_nan=False) if options.json else _table(report))
    return 0


def prop_file(options: argparse.Namespace) -> dict:
    """Everything that ``fairstand prop --json`` prints; docs/prop-json.md describes it.

    Raises
    ------
    PrintabilityError
        If the file cannot be read, or what was asked for cannot be written.
    """
    path = Path(options.file)
    out = Path(options.out) if options.out else None
    if out is not None and out.suffix.lower() not in (".stl", ".3mf"):
        raise HandOverError("The file to write ends in .stl or .3mf.")
    opened = open_file(path)
    process = process_named(options.process)
    unit = options.unit or opened.unit or "mm"
    setup = Setup(process=process, threshold_deg=options.threshold)
    setup = setup.framed(Frame(unit))
    setup = Setup(
        process=process, threshold_deg=options.threshold, shape=setup.shape,
        pose=Pose(options.turn, options.lift),
    )  # fmt: skip
    part = part_of(opened.mesh, setup)
    habits = habits_named(options.habits) if options.habits else None
    asked = Options(
        clear=options.clear, where=options.where, profile=options.profile, habits=habits
    )
    found = propose(part, setup, asked)
    setup = Setup(
        process=process, threshold_deg=options.threshold, shape=setup.shape, pose=setup.pose,
        supports=found.supports,
    )  # fmt: skip
    placed = stand(part, setup)
    if out is not None:
        _write(out, (stl_of if out.suffix.lower() == ".stl" else threemf_of)(placed, path.stem))
    if options.stance:
        edits = start_edits(options.process, options.turn, options.lift, options.threshold)
        if found.supports:
            edits.append(edit_from("supports", _as_edit(found)))
        sha256 = hashlib.sha256(path.read_bytes()).hexdigest()
        recipe = StanceFile(path.stem[:120], "proposed", path.name, sha256, unit, tuple(edits))
        _write(Path(options.stance), written_stance(recipe))
    return _report(path, found, setup, placed, asked)


def _as_edit(found: Proposal) -> dict:
    made = [plain_support(s) for s in found.supports]
    return {"supports": made, "remove": [], "what": "proposed supports"}


def _report(path: Path, found: Proposal, setup: Setup, placed, asked: Options) -> dict:
    threshold = setup.effective_threshold_deg
    overhang = found.look.overhang(threshold)
    strength = strengths_of(placed, found.look, threshold, overhang)
    supports = []
    for s in found.supports:
        fitted = found.fitted[s.key]
        own = strength.get(s.key)
        supports.append(
            {
                "key": s.key,
                "kind": s.kind,
                "contacts": [
                    {"at_mm": [round(v, 4) for v in c.at_mm], "diameter_mm": c.diameter_mm}
                    for c in fitted.contacts
                ],
                "height_mm": round(fitted.contact_mm[2], 4),
                "volume_mm3": round(fitted.volume_mm3, 4),
                "load": round(own.load_n, 5) if own else 0.0,
                "reason": s.why,
                "warning": own.text if own else "",
            }
        )
    return {
        "model": {"file": path.name, "unit": setup.frame.unit},
        "process": {"key": setup.process.key, "threshold_deg": threshold},
        "asked": {
            "clear": asked.clear,
            "where": asked.where,
            "profile": asked.profile,
            "habits": asked.habits.label if asked.habits else None,
        },
        "supports": supports,
        "unreachable": [
            {"at_mm": [round(v, 4) for v in one.at_mm], "why": one.why} for one in found.unreachable
        ],
        "before": _counts(found.before),
        "after": _counts(found.after),
        "volume_mm3": round(found.volume_mm3, 4),
        "grid_support_mm3": round(found.grid_support_mm3, 4),
        "contact_area_mm2": round(found.contact_area_mm2, 5),
        "said": list(found.said),
    }


def _counts(ledger: Ledger) -> dict:
    names = {"will_fail": 3, "risky": 2, "marks": 1, "note": 0}
    return {
        "places": len(ledger.places),
        "findings": {
            name: sum(f.severity == Severity(level) for f in ledger.findings)
            for name, level in names.items()
        },
    }


def _write(path: Path, data: bytes | str) -> None:
    try:
        path.write_bytes(data if isinstance(data, bytes) else data.encode())
    except OSError as error:
        raise HandOverError(f"“{path}” cannot be written: {error.strerror}.") from error


def _table(report: dict) -> str:
    before, after = report["before"]["findings"], report["after"]["findings"]
    lines = [
        f"{report['model']['file']}, {report['process']['key']}: {len(report['supports'])} "
        f"supports, {report['volume_mm3']:,.0f} mm³ (plain grid "
        f"supports {report['grid_support_mm3']:,.0f})",
        f"will fail {before['will_fail']} -> {after['will_fail']}, "
        f"risky {before['risky']} -> {after['risky']}",
    ]
    for one in report["supports"]:
        at = "on the plate".ljust(29)
        if one["contacts"]:
            x, y, z = one["contacts"][0]["at_mm"]
            at = f"at {x:8.2f} {y:8.2f} {z:8.2f}"
        lines.append(
            f"{one['key']:>4}  {one['kind']:8} {at}  {one['volume_mm3']:8.1f} mm³  {one['reason']}"
        )
        if one["warning"]:
            lines.append(f"      {one['warning']}")
    for one in report["unreachable"]:
        x, y, z = one["at_mm"]
        lines.append(f"No contact at {x:.2f} {y:.2f} {z:.2f}: {one['why']}")
    return "\n".join([*lines, *report["said"]])
