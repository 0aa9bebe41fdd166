"""Supports that would hold what hangs: proposed, then made as few as will do."""

from .habits import HABITS, HabitLine, Habits, read_habits
from .loads import pulls_n
from .minimal import is_minimal
from .options import Options
from .proposal import CURABLE, Proposal, Unreachable, propose
from .reach import is_within_reach, ways_of_tool
from .strengths import Strength, strengths_of

__all__ = [
    "CURABLE",
    "HABITS",
    "HabitLine",
    "Habits",
    "Options",
    "Proposal",
    "Strength",
    "Unreachable",
    "is_minimal",
    "is_within_reach",
    "propose",
    "pulls_n",
    "read_habits",
    "strengths_of",
    "ways_of_tool",
]
