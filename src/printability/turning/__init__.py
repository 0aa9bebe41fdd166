"""Which way to stand a model: goals, scores of directions, and a search among them."""

from .checking import measured_errors
from .directions import Face, even_directions, faces_to_stand_on, rings_around
from .goals import GOALS, Goal, goals_of, row_of
from .scoring import Scorer
from .search import (
    DIRECTIONS,
    Proposal,
    TurnMap,
    Yardstick,
    make_map,
    propose,
    turn_to,
    weights_for,
)
from .words import gains_and_losses, lean_of, said_of_turn

__all__ = [
    "DIRECTIONS",
    "GOALS",
    "Face",
    "Goal",
    "Proposal",
    "Scorer",
    "TurnMap",
    "Yardstick",
    "even_directions",
    "faces_to_stand_on",
    "gains_and_losses",
    "goals_of",
    "lean_of",
    "make_map",
    "measured_errors",
    "propose",
    "rings_around",
    "row_of",
    "said_of_turn",
    "turn_to",
    "weights_for",
]
