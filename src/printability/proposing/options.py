"""What a maker asks for when supports are proposed."""

from dataclasses import dataclass
from typing import TYPE_CHECKING

from ..errors import EditError
from ..findings import Severity

if TYPE_CHECKING:
    from .habits import Habits

__all__ = [
    "ASKED",
    "BUT_FOR_HOLD",
    "CURABLE",
    "HELD_DOWN",
    "JUDGED",
    "MOST_CONTACTS",
    "PROFILES",
    "ROOM",
    "Options",
]

# No more contacts than these are proposed at once.
MOST_CONTACTS = 2_000
# Kinds of finding that a contact can cure.
CURABLE = ("island", "jump", "bridge", "ledge", "overhang", "footing", "wobble", "hold")
# Whether a proposal does all that it should is judged by these: what stands alone falls though its
# cut on the plate is told there and not again as a weak one.
JUDGED = (*CURABLE, "alone")
# Those that pull and drag have a say in, and the others, which come first.
HELD_DOWN = ("hold", "alone")
BUT_FOR_HOLD = tuple(kind for kind in CURABLE if kind not in HELD_DOWN)
# Held a little better than asked, so that the whole agrees.
ASKED = {"risky": 2.06, "failing": 1.03}
# As near as this to another contact there is no room for one, in times its diameter.
ROOM = 2.5
PROFILES = ("light", "medium", "heavy")


@dataclass(frozen=True)
class Options:
    """How supports are to be proposed.

    Attributes
    ----------
    clear : str
        ``failing`` for what will fail, ``risky`` for what is risky too.
    where : str
        ``plate``, or ``anywhere``: on the part below where the plate cannot be reached.
    profile : str
        Of ordinary contacts; the lowest point gets a heavier one, faces a lighter one.
    habits : Habits, optional
        The workshop's own table, which decides first.
    refused : tuple of (3,) tuple of float
        Contacts that the maker refused before, on the plate, mm; none is proposed within a
        millimetre of them.
    """

    clear: str = "risky"
    where: str = "plate"
    profile: str = "medium"
    habits: "Habits | None" = None
    refused: tuple[tuple[float, float, float], ...] = ()

    def __post_init__(self):
        for name, choices in (
            ("clear", ("failing", "risky")), ("where", ("plate", "anywhere")),
            ("profile", PROFILES),
        ):  # fmt: skip
            if getattr(self, name) not in choices:
                raise EditError(f"“{name}” is one of: {', '.join(choices)}.")

    @property
    def least(self) -> Severity:
        """From which severity on a finding is to be cleared."""
        return Severity.WILL_FAIL if self.clear == "failing" else Severity.RISKY

    def weight(self, steps: int) -> str:
        """The profile so many steps heavier than the ordinary one."""
        at = PROFILES.index(self.profile) + steps
        return PROFILES[min(max(at, 0), len(PROFILES) - 1)]
