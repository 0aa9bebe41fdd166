"""What can be said on the command line to more than one command."""

import argparse

from printability.mesh import MM_PER_UNIT
from printability.process import PROCESSES

__all__ = ["of_model", "turn_first", "up_to_twenty"]


def _turn(text: str) -> tuple[float, float, float]:
    try:
        angles = tuple(float(part) for part in text.split(","))
    except ValueError:
        angles = ()
    if len(angles) != 3 or not all(abs(angle) <= 3600 for angle in angles):
        raise argparse.ArgumentTypeError(
            "a turn is three angles in degrees with commas between, such as 90,0,-15"
        )
    return angles


def _threshold(text: str) -> float:
    try:
        value = float(text)
    except ValueError:
        value = -1.0
    if not 1 <= value <= 89:
        raise argparse.ArgumentTypeError("the threshold is an angle from 1 to 89 degrees")
    return value


def _process(text: str) -> str:
    if text not in PROCESSES and not text.lower().endswith(".json"):
        known = ", ".join(sorted(PROCESSES))
        raise argparse.ArgumentTypeError(f"invalid choice: {known}, or a .json file of your own")
    return text


def _top(text: str) -> int:
    if not text.isdecimal() or not 1 <= int(text) <= 20:
        raise argparse.ArgumentTypeError("from 1 to 20 ways can be proposed")
    return int(text)


def of_model(command: argparse.ArgumentParser) -> None:
    """What the commands that look at a model have in common."""
    command.add_argument("file", help="an STL, 3MF, OBJ, PLY or OFF file")
    command.add_argument(
        "--process", type=_process, default="fdm", metavar="NAME|FILE.json",
        help=f"{', '.join(sorted(PROCESSES))}, or a process of your own as the workshop writes it",
    )  # fmt: skip
    command.add_argument("--unit", choices=list(MM_PER_UNIT), help="unit of the file's numbers")
    command.add_argument(
        "--threshold", type=_threshold, metavar="DEG", help="self-supporting slope"
    )
    command.add_argument("--json", action="store_true", help="print JSON instead of a table")


def turn_first(command: argparse.ArgumentParser) -> None:
    """How the model is turned before it is looked at."""
    command.add_argument(
        "--turn", type=_turn, default=(0.0, 0.0, 0.0), metavar="RX,RY,RZ",
        help="degrees about the fixed axes X, then Y, then Z",
    )  # fmt: skip


def up_to_twenty(command: argparse.ArgumentParser) -> None:
    """How many proposals are wanted."""
    command.add_argument(
        "--top", type=_top, default=5, metavar="N", help="how many to propose, 1 to 20"
    )
