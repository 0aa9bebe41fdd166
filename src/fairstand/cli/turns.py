"""``fairstand turns``: ways to stand a model, as JSON or a table."""

import argparse
import json
import math
from pathlib import Path

from printability.mesh import rotation_about_axes
from printability.parts import Frame
from printability.stance import Setup, part_of
from printability.turning import (
    GOALS,
    Scorer,
    gains_and_losses,
    make_map,
    measured_errors,
    propose,
    said_of_turn,
    weights_for,
)
from printability.ways_out import predict

from .arguments import of_model, up_to_twenty
from .inspect import open_file
from .kept import process_named

__all__ = ["arguments", "run", "turns_of_file"]

# Directions on which the error of estimates is measured.
CHECKED = 6


def arguments(command: argparse.ArgumentParser) -> None:
    """What can be said to it."""
    of_model(command)
    command.add_argument("--goal", choices=list(GOALS), help="what alone counts")
    up_to_twenty(command)


def run(options: argparse.Namespace) -> int:
    """Print the proposals for ``options.file``."""
    report = turns_of_file(
        Path(options.file), options.process, options.goal, options.top, options.unit,
        options.threshold,
    )  # fmt: skip
    print(json.dumps(report, indent=2, allow_nan=False) if options.json else _table(report))
    return 0


def turns_of_file(
    path: Path,
    process_key: str = "fdm",
    goal: str | None = None,
    top: int = 5,
    unit: str | None = None,
    threshold_deg: float | None = None,
) -> dict:
    """Everything that ``fairstand turns --json`` prints; docs/turns-json.md describes it.

    Raises
    ------
    MeshFileError
        If the file cannot be read.
    """
    opened = open_file(path)
    process = process_named(process_key)
    setup = Setup(process=process, threshold_deg=threshold_deg)
    setup = setup.framed(Frame(unit or opened.unit or "mm"))
    part = part_of(opened.mesh, setup)
    scorer = Scorer(part.mesh, process, setup.effective_threshold_deg)
    found = make_map(scorer)
    weights = weights_for(process, goal)
    proposals = propose(scorer, found, weights, top)
    every = len(found.downs) // CHECKED
    errors = measured_errors(scorer, found.downs[::every], found.rows[::every])
    now = predict(part, setup)
    listed = []
    for proposal in proposals:
        turned = setup.turned(proposal.angles_deg)
        after = predict(part, turned)
        islands = (len(now.look.islands), len(after.look.islands))
        better, worse = gains_and_losses(now.goals, after.goals, islands, weights)
        listed.append(
            {
                "turn_deg": [round(angle, 7) + 0.0 for angle in proposal.angles_deg],
                "text": said_of_turn(rotation_about_axes(0, 0, 0), turned.rotation),
                "on_face": proposal.on_face,
                "badness": round(proposal.badness, 6),
                "goals": _rounded(after.goals),
                "scores": _rounded(proposal.scores),
                "better": better,
                "worse": worse,
            }
        )
    return {
        "model": {"file": path.name, "unit": setup.frame.unit},
        "process": {
            "key": process.key,
            "layer_height_mm": process.layer_height_mm,
            "threshold_deg": setup.effective_threshold_deg,
        },
        "goal": goal,
        "weights": {key: weight for key, weight in weights.items() if weight},
        "directions": len(found.downs),
        "as_imported": _rounded(now.goals),
        "estimates": {key: round(errors[key], 4) for key in sorted(scorer.map_estimated)},
        "proposals": listed,
    }


def _rounded(goals: dict[str, float]) -> dict:
    return {
        key: round(float(value), 6) + 0.0 if math.isfinite(value) else None
        for key, value in goals.items()
    }


def _table(report: dict) -> str:
    process = report["process"]
    lines = [
        f"{report['model']['file']}, {process['key']}, {report['directions']:,} directions looked "
        f"at for {GOALS[report['goal']].label.lower() if report['goal'] else 'all goals, weighed'}",
    ]
    for number, proposal in enumerate(report["proposals"], start=1):
        turn = ",".join(f"{angle:.7g}" for angle in proposal["turn_deg"])
        rests = ", on a face" if proposal["on_face"] else ""
        lines += ["", f"{number}. --turn {turn}   {proposal['text']}{rests}"]
        lines += [f"     better: {'; '.join(proposal['better']) or 'nothing'}"]
        lines += [f"     worse:  {'; '.join(proposal['worse']) or 'nothing'}"]
    return "\n".join(lines)
