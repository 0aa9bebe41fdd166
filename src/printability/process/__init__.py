"""Ways to print and their rules: shipped ones, and the maker's copies with other numbers."""

from .own import (
    MACHINES,
    MATERIALS,
    STEPS,
    Machine,
    Material,
    OwnProcess,
    read_own,
    shipped_as_own,
    written_own,
)
from .rules import PROCESSES, Process, Rule, Standing, process_named

__all__ = [
    "MACHINES",
    "MATERIALS",
    "PROCESSES",
    "STEPS",
    "Machine",
    "Material",
    "OwnProcess",
    "Process",
    "Rule",
    "Standing",
    "process_named",
    "read_own",
    "shipped_as_own",
    "written_own",
]
