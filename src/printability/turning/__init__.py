"""Which way to stand a model: goals, scores of directions, and a search among them."""

from .directions import Face, even_directions, faces_to_stand_on, ring_around
from .goals import GOALS, WEIGHTS, Goal, goals_of
from .scoring import Scorer
from .search import DIRECTIONS, Proposal, TurnMap, Yardstick, make_map, propose, turn_to

__all__ = [
    "DIRECTIONS",
    "GOALS",
    "WEIGHTS",
    "Face",
    "Goal",
    "Proposal",
    "Scorer",
    "TurnMap",
    "Yardstick",
    "even_directions",
    "faces_to_stand_on",
    "goals_of",
    "make_map",
    "propose",
    "ring_around",
    "turn_to",
]
