"""Units a model may be in, and which one its size suggests."""

from dataclasses import dataclass

__all__ = ["MM_PER_UNIT", "UnitDoubt", "unit_doubt"]

MM_PER_UNIT = {"mm": 1.0, "cm": 10.0, "m": 1000.0, "inch": 25.4, "um": 0.001}

# Most printed things are between these sizes along their longest side (common practice,
# no source): below, the file is likely in metres or inches; above, in micrometres or a
# drawing at full scale.
LEAST_USUAL_MM = 3.0
MOST_USUAL_MM = 1000.0
# A conversion is worth offering when it leads to this size or more.
LEAST_OFFERED_MM = 1.0


@dataclass(frozen=True)
class UnitDoubt:
    """Why the unit is doubted, and what could be meant: ``(unit, longest side in mm)``."""

    text: str
    choices: tuple[tuple[str, float], ...]


def unit_doubt(longest: float, unit: str = "mm") -> UnitDoubt | None:
    """Doubt about the unit of a model whose longest side measures ``longest`` of its units.

    Returns None where the size read in ``unit`` is usual for a printed thing.
    """
    longest_mm = longest * MM_PER_UNIT[unit]
    if LEAST_USUAL_MM <= longest_mm <= MOST_USUAL_MM:
        return None
    choices = tuple(
        (name, longest * factor)
        for name, factor in MM_PER_UNIT.items()
        if name != unit and LEAST_OFFERED_MM <= longest * factor <= MOST_USUAL_MM
    )
    size = f"{longest_mm:.3g} mm" if longest_mm < 10 else f"{longest_mm:,.0f} mm"
    text = f"Read in {unit}, the longest side is {size}."
    if choices:
        likely = " or ".join(f"{mm:,.1f} mm if it is in {name}" for name, mm in choices)
        text += f" It would be {likely}."
    else:
        text += " No usual unit gives a printable size: check the model's scale where it was made."
    return UnitDoubt(text, choices)
