"""Supports that would hold what hangs: proposed, then made as few as will do."""

from .minimal import is_minimal
from .options import Options
from .proposal import Proposal, Unreachable, propose
from .reach import is_within_reach, ways_of_tool

__all__ = [
    "Options",
    "Proposal",
    "Unreachable",
    "is_minimal",
    "is_within_reach",
    "propose",
    "ways_of_tool",
]
