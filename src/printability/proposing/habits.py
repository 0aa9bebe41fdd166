"""Habits: a workshop's own table of which support goes under which kind of place.

The first line that fits a place decides. What a line says is the maker's: its supports are made as
it says and not made fewer; a line may also leave a place to the search, or alone.
"""

from dataclasses import asdict, dataclass, fields
from typing import TYPE_CHECKING, ClassVar

import numpy as np

from ..errors import EditError, ProcessError
from ..findings import Finding
from ..inspection import Inspection
from ..numbers import is_number
from ..process import read_own
from ..stance import Placed
from ..supports import Fitted, checkerboard, rim
from ..surface import BACK, NEITHER, SHOW, round_hole
from .spots import Round, Wanted
from .stands import Spot, Stands

if TYPE_CHECKING:
    from .proposal import Search, Unreachable

__all__ = ["HABITS", "HabitLine", "Habits", "apply_habits", "read_habits"]

PLACES = {
    "any": "any place", "lowest": "the lowest point", "island": "an island",
    "point": "an overhanging point", "edge": "an overhanging edge", "area": "an overhanging area",
    "hole": "the top of a round hole", "bridge": "a bridge", "ledge": "a ledge",
}  # fmt: skip
STANDS = {
    "one": "one pillar", "row": "a row along the edge", "board": "a checkerboard",
    "search": "as few as the search finds", "none": "nothing",
}  # fmt: skip
SIDES = {"any": None, "show": SHOW, "back": BACK, "plain": NEITHER}
_MOST_LINES, _MOST_ROUNDS, _MOST_A_LINE = 60, 6, 600
_LIMITS = {
    "size_mm2": (0.0, 1e9, "mm²"), "slope_deg": (0.0, 90.0, "°"), "height_mm": (0.0, 1e5, "mm"),
}  # fmt: skip


@dataclass(frozen=True)
class HabitLine:
    """One line: which places, and what is stood under them.

    Attributes
    ----------
    place, side : str
        Keys of `PLACES` and `SIDES`.
    size_mm2, slope_deg, height_mm : tuple of (float, float)
        From, to: of the unheld area, the flattest slope, and how high the place lies.
    stand : str
        A key of `STANDS`.
    profile : str
        Of the process: how heavy.
    spacing_mm : float
        Between contacts of a row or checkerboard.
    contact_mm : float
        Diameter, 0 for that of the profile.
    """

    place: str = "any"
    side: str = "any"
    size_mm2: tuple[float, float] = (0.0, 1e9)
    slope_deg: tuple[float, float] = (0.0, 90.0)
    height_mm: tuple[float, float] = (0.0, 1e5)
    stand: str = "one"
    profile: str = "medium"
    spacing_mm: float = 5.0
    contact_mm: float = 0.0

    def __post_init__(self):
        for name, choices in (("place", PLACES), ("side", SIDES), ("stand", STANDS)):
            if not isinstance(getattr(self, name), str) or getattr(self, name) not in choices:
                raise ProcessError(f"The {name} of a line is one of: {', '.join(choices)}.")
        if not isinstance(self.profile, str) or not 0 < len(self.profile) <= 80:
            raise ProcessError("A line names a profile of the process.")
        for name, (low, high, unit) in _LIMITS.items():
            pair = getattr(self, name)
            if not isinstance(pair, list | tuple) or len(pair) != 2:
                raise ProcessError(f"The {name} of a line is from and to.")
            a, b = (_number(v, name, low, high, unit) for v in pair)
            if a > b:
                raise ProcessError(f"The {name} of a line is the wrong way round.")
            object.__setattr__(self, name, (a, b))
        spacing = _number(self.spacing_mm, "spacing", 0.3, 500.0, "mm")
        object.__setattr__(self, "spacing_mm", spacing)
        contact = _number(self.contact_mm, "contact", 0.0, 10.0, "mm")
        object.__setattr__(self, "contact_mm", contact)

    def fits(self, place: str, side: int, finding: Finding, slope_deg: float) -> bool:
        """Whether it is for a place."""
        if self.place not in ("any", place):
            return False
        if SIDES[self.side] is not None and SIDES[self.side] != side:
            return False
        measures = (
            (self.size_mm2, finding.area_mm2), (self.slope_deg, slope_deg),
            (self.height_mm, finding.z_mm),
        )  # fmt: skip
        return all(low <= value <= high for (low, high), value in measures)


def _number(value, name: str, low: float, high: float, unit: str) -> float:
    if not is_number(value):
        raise ProcessError(f"The {name} of a line must be a number.")
    if not low <= value <= high:
        raise ProcessError(f"The {name} of a line must be between {low:g} and {high:g} {unit}.")
    return float(value)


@dataclass(frozen=True)
class Habits:
    """A table of habits.

    Attributes
    ----------
    label : str
    lines : tuple of HabitLine
        The first one that fits decides.
    """

    noun: ClassVar[str] = "habits"
    label: str
    lines: tuple[HabitLine, ...]

    @classmethod
    def from_plain(cls, said) -> "Habits":
        """The table that plain data say.

        Raises
        ------
        ProcessError
        """
        if not isinstance(said, dict) or not set(said) <= {"label", "lines"}:
            raise ProcessError("The table of habits cannot be read.")
        label, lines = said.get("label"), said.get("lines")
        if not isinstance(label, str) or not 0 < len(label.strip()) <= 80:
            raise ProcessError("The name has 1 to 80 letters.")
        if not isinstance(lines, list | tuple) or not 0 < len(lines) <= _MOST_LINES:
            raise ProcessError(f"A table of habits has 1 to {_MOST_LINES} lines.")
        names = {field.name for field in fields(HabitLine)}
        for line in lines:
            if not isinstance(line, dict) or not set(line) <= names:
                raise ProcessError("A line of the table cannot be read.")
        return cls(label.strip(), tuple(HabitLine(**line) for line in lines))

    def plain(self) -> dict:
        """It as plain data."""
        lines = [
            {k: list(v) if isinstance(v, tuple) else v for k, v in asdict(line).items()}
            for line in self.lines
        ]
        return {"label": self.label, "lines": lines}

    def line_for(self, place: str, side: int, finding: Finding, slope_deg: float) -> int:
        """Index of the line that decides about a place, -1 where none does."""
        for i, line in enumerate(self.lines):
            if line.fits(place, side, finding, slope_deg):
                return i
        return -1


# The order is the trade's, the numbers from memory.
HABITS: dict[str, Habits] = {
    "fdm": Habits(
        "Filament",
        (
            HabitLine("lowest", stand="one", profile="heavy"),
            HabitLine("island", stand="one", profile="medium"),
            HabitLine("hole", stand="one", profile="light"),
            HabitLine("any", side="show", stand="search", profile="light"),
            HabitLine("edge", stand="row", profile="light", spacing_mm=8.0),
            HabitLine("any", stand="search"),
        ),
    ),
    "resin": Habits(
        "Resin",
        (
            HabitLine("lowest", stand="one", profile="heavy"),
            HabitLine("island", stand="one", profile="medium"),
            HabitLine("hole", stand="one", profile="light"),
            HabitLine("edge", stand="row", profile="light", spacing_mm=2.5),
            HabitLine("area", slope_deg=(0.0, 15.0), stand="board", profile="light",
                      spacing_mm=2.5),
            HabitLine("any", stand="search"),
        ),
    ),
    "metal": Habits(
        "Metal powder bed",
        (
            HabitLine("lowest", stand="one", profile="heavy"),
            # An edge over powder curls up: a close row ties it down.
            HabitLine("edge", stand="row", profile="light", spacing_mm=1.2),
            HabitLine("area", stand="board", profile="light", spacing_mm=1.4),
            HabitLine("any", stand="search"),
        ),
    ),
}  # fmt: skip


def read_habits(text: str | bytes) -> Habits:
    """What a JSON text says.

    Raises
    ------
    ProcessError
    """
    found = read_own(text, {Habits.noun: Habits})
    if not isinstance(found, Habits):
        raise ProcessError("That is no table of habits.")
    return found


@dataclass
class Applied:
    """What a table of habits came to.

    Attributes
    ----------
    made : list of Fitted
    missed : list of Unreachable
    left_alone : set of tuple
        Findings, by kind and place, that no line is for or that a line leaves alone.
    said : list of str
    """

    made: list[Fitted]
    missed: list["Unreachable"]
    left_alone: set[tuple]
    said: list[str]


def key_of(finding: Finding) -> tuple:
    """A finding by kind and place, however it is numbered."""
    return (finding.kind, *(round(v, 1) for v in finding.center_mm))


def apply_habits(
    search: "Search", stands: Stands, habits: Habits, look: Inspection, placed: Placed,
    findings: list[Finding],
) -> Applied:  # fmt: skip
    """Stand what a table of habits says under what is open, as far as there is room.

    Parameters
    ----------
    search : Search
    stands : Stands
    habits : Habits
    look : Inspection
        Without the supports that are to come.
    placed : Placed
    findings : list of Finding
        What is to be cleared.
    """
    job = _Applying(search, stands, habits)
    for _ in range(_MOST_ROUNDS):
        before = len(job.out.made)
        job.round(look, findings)
        if len(job.out.made) == before:
            break
        placed, look = search.look(tuple(f.support for f in job.out.made))
        findings = search.open(search.ledger(placed, look))
    count = len(job.out.left_alone)
    if count:
        job.out.said.append(
            f"{count} finding{'s are' if count > 1 else ' is'} left alone: no line of "
            f"“{habits.label}” is for {'them' if count > 1 else 'it'}, or one says so."
        )
    return job.out


class _Applying:
    def __init__(self, search: "Search", stands: Stands, habits: Habits):
        self.search, self.stands, self.habits = search, stands, habits
        self.out = Applied([], [], set(), [])
        self.mesh = search.base.mesh
        self.done: set[tuple] = set()
        self.set_out: set[int] = set()  # patches that a row or a checkerboard is under
        profiles = search.process.profiles
        for line in habits.lines:
            if line.profile not in profiles:
                raise EditError(
                    f"The process has no profile “{line.profile}”: {', '.join(profiles)}."
                )

    def round(self, look: Inspection, findings: list[Finding]) -> None:
        """One kind of place a round, in the trade's order, so that none is propped twice."""
        for kinds in (("island",), ("overhang",), ("bridge", "ledge", "jump")):
            own = [f for f in findings if f.kind in kinds and key_of(f) not in self.done]
            made = len(self.out.made)
            for finding in own:
                self.done.add(key_of(finding))
                self._one(look, finding)
            if len(self.out.made) > made:
                return

    def _one(self, look: Inspection, finding: Finding) -> None:
        job = Round(self.search, self.stands, look, Wanted())
        place, slope, spots = self._place(job, finding)
        facet = spots[0][0] if spots else -1
        sides = self.search.sides
        side = int(sides[facet]) if sides is not None and facet >= 0 else NEITHER
        at = self.habits.line_for(place, side, finding, slope)
        if at < 0 or self.habits.lines[at].stand == "none":
            self.out.left_alone.add(key_of(finding))
            return
        line = self.habits.lines[at]
        if line.stand == "search":
            return
        if line.stand in ("row", "board"):
            around = self._around(finding, spots)
            patch = int(self.search.overhang.patch_of_facet[around[0]]) if len(around) else 0
            if patch and patch in self.set_out:  # it is set out already, and more is not said
                return self._miss(finding.center_mm, f"Line {at + 1} does not hold all of it.")
            self.set_out.add(patch)
            make = self._row if line.stand == "row" else self._board
            spots = make(around, line, spots) if len(around) else spots
        why = f"{self.habits.label}, line {at + 1}: {finding.short}"
        stood, reason = 0, "Nothing faces down here."
        for facet, at_mm in spots[:_MOST_A_LINE]:
            spot = Spot(int(facet), tuple(map(float, at_mm)), line.profile, why, line.contact_mm)
            found, reason = self.stands.support(spot)
            if found is None:
                continue
            self.out.made.append(found)
            stood += 1
            if line.stand == "one":
                return
        if not stood:
            self._miss(spots[0][1] if spots else finding.center_mm, f"{why}: {reason}")

    def _miss(self, at_mm, why: str) -> None:
        from .proposal import Unreachable

        self.out.missed.append(Unreachable(tuple(map(float, at_mm)), why))

    def _place(self, job: Round, finding: Finding):
        """What kind of place it is, its slope, and where one contact would go, the best first."""
        if finding.kind == "island":
            island = job.look.islands[int(finding.id.split("-")[1]) - 1]
            return job.place_of_island(island)
        if finding.kind == "overhang":
            facets = self._patch(finding)
            middle = self.mesh.vertices[self.mesh.facets[facets]].mean(axis=1)
            for facet in facets[:: max(len(facets) // 4, 1)]:
                hole = round_hole(self.mesh, int(facet), self.stands.normals)
                if hole is not None:
                    return "hole", finding.measure, [(hole.top_facet, hole.top_mm)]
            order = np.argsort(middle[:, 2], kind="stable")
            spots = [(facets[i], middle[i]) for i in order[:12]]
            look = next(
                one for one in job.look.look_at_patches(self.search.overhang, self.search.threshold)
                if one.patch.id == finding.patch
            )  # fmt: skip
            return look.form, finding.measure, spots
        points = np.array(finding.under_mm or (finding.center_mm[:2],), float)
        facets, places = job.under(points, finding.layer)
        spots = [(f, p) for f, p in zip(facets, places, strict=True) if f >= 0]
        return (finding.kind if finding.kind != "jump" else "area"), 0.0, spots

    def _patch(self, finding: Finding) -> np.ndarray:
        return np.flatnonzero(self.search.overhang.patch_of_facet == finding.patch)

    def _around(self, finding: Finding, spots) -> np.ndarray:
        """The patch that a finding belongs to: its own, or that of its place."""
        if finding.patch:
            return self._patch(finding)
        patches = self.search.overhang.patch_of_facet
        number = patches[spots[0][0]] if spots else 0
        return np.flatnonzero(patches == number) if number else np.zeros(0, int)

    def _board(self, facets: np.ndarray, line: HabitLine, spots):
        try:
            anchors = checkerboard(self.search.base.world, facets, line.spacing_mm)
        except EditError:
            return spots
        return self._as_spots(anchors) or spots

    def _as_spots(self, anchors) -> list:
        world = self.search.base.world
        found = ((world.surface_at(a), world.place_of(a)) for a in anchors)
        return [(at.facet, place) for at, place in found if at is not None]

    def _row(self, facets: np.ndarray, line: HabitLine, spots):
        """Places along the rim of a patch that nothing holds, so far apart."""
        profile = self.search.process.profiles[line.profile]
        inset = (line.contact_mm or profile[0]) / 2
        try:
            return (
                self._as_spots(rim(self.search.base.world, facets, line.spacing_mm, inset)) or spots
            )
        except EditError:
            return spots
