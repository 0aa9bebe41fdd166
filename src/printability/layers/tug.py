"""The tug-of-war of a resin layer: what hangs is torn at by the film and held by its rim."""

from dataclasses import dataclass

__all__ = ["Tug", "tug_of_war"]


@dataclass(frozen=True)
class Tug:
    """Hold against pull, N."""

    hold_n: float
    pull_n: float

    @property
    def ratio(self) -> float:
        """Hold over pull: below 1 it tears, below 2 it is at risk."""
        return self.hold_n / self.pull_n if self.pull_n > 0 else float("inf")


def tug_of_war(
    area_mm2: float,
    rim_mm: float,
    layer_height_mm: float,
    length_mm: float,
    limit_mm: float,
    green_n_mm2: float,
    pull_n_mm2: float,
) -> Tug:
    """What holds a hanging part of a layer against what pulls at it.

    Hold is rim x layer height x green strength x min(1, limit / length), pull is the film's
    pull x area (both from memory).

    Parameters
    ----------
    area_mm2 : float
        Of the part that hangs, with what it is one with over nothing.
    rim_mm : float
        Length along which it is tied to the rest, contacts included.
    layer_height_mm : float
    length_mm, limit_mm : float
        Its reach or span, and the process's limit for it.
    green_n_mm2, pull_n_mm2 : float
        Strength of what has just set, and the film's pull.
    """
    lever = min(1.0, limit_mm / length_mm) if length_mm > 0 else 1.0
    return Tug(rim_mm * layer_height_mm * green_n_mm2 * lever, pull_n_mm2 * area_mm2)
