"""``fairstand cuts``: where to cut a model, as JSON or a table."""

import argparse
import hashlib
import json
import math
from pathlib import Path

from printability.cutting import CutProposal, edits_of, propose_cuts
from printability.errors import HandOverError
from printability.parts import Frame, Part
from printability.splitting import Plane
from printability.stance import Setup, part_of
from printability.stance_file import StanceFile, written_stance

from .arguments import of_model, turn_first, up_to_twenty
from .inspect import open_file
from .kept import process_named, start_edits

__all__ = ["arguments", "cuts_of_file", "run"]


def arguments(command: argparse.ArgumentParser) -> None:
    """What can be said to it."""
    of_model(command)
    turn_first(command)
    up_to_twenty(command)
    command.add_argument("--fit", action="store_true", help="cut it so that every part fits")
    command.add_argument("--stance", metavar="OUT.json", help="write the best cut as a stance")


def run(options: argparse.Namespace) -> int:
    """Print the proposals for ``options.file``."""
    report = cuts_of_file(
        Path(options.file), options.process, options.top, options.fit, options.turn, options.unit,
        options.threshold, options.stance,
    )  # fmt: skip
    print(json.dumps(report, indent=2, allow_nan=False) if options.json else _table(report))
    return 0


def cuts_of_file(
    path: Path,
    process_key: str = "fdm",
    top: int = 5,
    fit: bool = False,
    turn_deg: tuple[float, float, float] = (0.0, 0.0, 0.0),
    unit: str | None = None,
    threshold_deg: float | None = None,
    stance: str | None = None,
) -> dict:
    """Everything that ``fairstand cuts --json`` prints; docs/cuts-json.md describes it.

    Raises
    ------
    PrintabilityError
        If the file cannot be read, or its surface bounds no solid.
    """
    opened = open_file(path)
    process = process_named(process_key)
    setup = Setup(process=process, threshold_deg=threshold_deg).turned(turn_deg)
    setup = setup.framed(Frame(unit or opened.unit or "mm"))
    part = part_of(opened.mesh, setup)
    found = propose_cuts(part, setup, top, fit=fit)
    if stance and found:
        edits = [*start_edits(process_key, turn_deg, threshold_deg=threshold_deg),
                 *edits_of(part, found[0], turn_deg)]  # fmt: skip
        recipe = StanceFile(
            path.stem[:120], "Cut", path.name, hashlib.sha256(path.read_bytes()).hexdigest(),
            setup.frame.unit, tuple(edits),
        )  # fmt: skip
        try:
            Path(stance).write_text(written_stance(recipe), "utf-8")
        except OSError as error:
            raise HandOverError(f"“{stance}” cannot be written: {error.strerror}.") from error
    return {
        "model": {"file": path.name, "unit": setup.frame.unit},
        "process": {
            "key": process.key,
            "layer_height_mm": process.layer_height_mm,
            "threshold_deg": setup.effective_threshold_deg,
            "build_volume_mm": list(process.build_volume_mm),
        },
        "turn_deg": list(turn_deg),
        "fits_uncut": _fits(part, setup),
        "proposals": [_told(one) for one in found],
    }


def _fits(part: Part, setup: Setup) -> bool:
    from printability.cutting import planes_that_fit

    return not planes_that_fit(part.mesh, setup.process, setup.lift_mm)


def _told(one: CutProposal) -> dict:
    return {
        "plane": _plane(one.planes[0]),
        "planes": [_plane(plane) for plane in one.planes],
        "parts": [
            {
                "side": part.side,
                "volume_mm3": round(part.volume_mm3, 4),
                "turn_deg": [round(angle, 7) + 0.0 for angle in part.turn_deg],
                "on_cut": part.on_cut,
                "fits": part.fits,
                "goals": {
                    key: round(float(value), 6) + 0.0 if math.isfinite(value) else None
                    for key, value in part.goals.items()
                },
            }
            for part in one.parts
        ],
        "seam_mm": round(one.seam_mm, 3),
        "show_seam_mm": round(one.show_seam_mm, 3),
        "section_mm2": round(one.section_mm2, 3),
        "text": one.text,
        "better": list(one.better),
        "worse": list(one.worse),
        "badness": round(one.badness, 6),
        "exact": one.is_exact,
    }


def _plane(plane: Plane) -> dict:
    return {
        "normal": [round(float(v), 9) + 0.0 for v in plane.normal],
        "offset_mm": round(plane.offset_mm, 6) + 0.0,
    }


def _table(report: dict) -> str:
    lines = [f"{report['model']['file']}, {report['process']['key']}"]
    if not report["proposals"]:
        lines.append("It fits the machine as it is." if report["fits_uncut"] else "No cut helps.")
    for number, one in enumerate(report["proposals"], start=1):
        plane = one["plane"]
        normal = ", ".join(f"{v:.4g}" for v in plane["normal"])
        volumes = " and ".join(f"{part['volume_mm3']:,.0f} mm³" for part in one["parts"])
        lines += ["", f"{number}. {one['text']}  across ({normal}) at {plane['offset_mm']:.3f} mm"]
        lines += [f"     parts:  {volumes}"]
        lines += [f"     better: {'; '.join(one['better']) or 'nothing'}"]
        lines += [f"     worse:  {'; '.join(one['worse']) or 'nothing'}"]
    return "\n".join(lines)
