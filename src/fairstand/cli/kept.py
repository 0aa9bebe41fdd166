"""What is named on the command line and shipped, or is a file of the maker's own."""

from pathlib import Path
from typing import TYPE_CHECKING

from printability.errors import ProcessError
from printability.process import PROCESSES, OwnProcess, Process, read_own

if TYPE_CHECKING:
    from printability.edits import Edit
    from printability.proposing import Habits

__all__ = ["habits_named", "own_process_named", "process_named", "start_edits"]


def _text(name: str, shipped: dict, what: str) -> bytes:
    if not name.lower().endswith(".json"):
        raise ProcessError(
            f"There is no {what} “{name}”: {', '.join(sorted(shipped))}, or a .json file."
        )
    try:
        return Path(name).read_bytes()
    except OSError as error:
        raise ProcessError(f"“{name}” cannot be read: {error.strerror}.") from error


def own_process_named(name: str) -> OwnProcess | None:
    """A process of the maker's own; None for a shipped one.

    Raises
    ------
    ProcessError
        If there is none of that name, or its file cannot be read.
    """
    if name in PROCESSES:
        return None
    own = read_own(_text(name, PROCESSES, "process"))
    if not isinstance(own, OwnProcess):
        raise ProcessError(f"“{name}” is no process but a {own.noun}.")
    return own


def process_named(name: str) -> Process:
    """A process, shipped or from a file."""
    own = own_process_named(name)
    return own.process("own") if own else PROCESSES[name]


def start_edits(
    process: str,
    turn_deg: tuple[float, float, float],
    lift_mm: float = 0.0,
    threshold_deg: float | None = None,
) -> list["Edit"]:
    """The edits that say by what a model is printed and how it stands, as a stance begins."""
    from printability.edits import edit_from

    own = own_process_named(process)
    chosen = {"process": "own", "own": own.plain()} if own else {"process": process}
    edits = [edit_from("process", chosen)]
    if any(turn_deg):
        angles = dict(zip(("x_deg", "y_deg", "z_deg"), turn_deg, strict=True))
        edits.append(edit_from("turn", angles))
    if lift_mm:
        edits.append(edit_from("lift", {"lift_mm": lift_mm}))
    if threshold_deg is not None:
        edits.append(edit_from("threshold", {"threshold_deg": threshold_deg}))
    return edits


def habits_named(name: str) -> "Habits":
    """A table of habits, shipped or from a file."""
    from printability.proposing import HABITS, read_habits  # only some commands have habits

    if name in HABITS:
        return HABITS[name]
    return read_habits(_text(name, HABITS, "table of habits"))
