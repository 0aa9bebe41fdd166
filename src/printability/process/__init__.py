"""Ways to print and their rules."""

from .rules import PROCESSES, Process, Rule, Standing, process_named

__all__ = ["PROCESSES", "Process", "Rule", "Standing", "process_named"]
