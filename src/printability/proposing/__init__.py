"""Supports that would hold what hangs: proposed, then made as few as will do."""

from .minimal import is_minimal
from .options import Options
from .proposal import Proposal, Unreachable, propose
from .reach import is_within_reach, ways_of_tool
from .strengths import Strength, strengths_of

__all__ = [
    "Options",
    "Proposal",
    "Strength",
    "Unreachable",
    "is_minimal",
    "is_within_reach",
    "propose",
    "strengths_of",
    "ways_of_tool",
]
