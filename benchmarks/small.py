"""All changes of shape that are small, as a ratio to one inspection."""

from printability.mesh import open_mesh
from printability.process import PROCESSES
from printability.stance import Setup, part_of
from printability.ways_out import Limits, predict, small_changes

from .ratios import HERE
from .timing import best_of, line

__all__ = ["run", "searched"]

_ANIMAL = HERE.parent / "tests" / "data" / "bunny.ply"


def searched(process: str) -> tuple[float, float, object]:
    """Seconds of one inspection and of a whole search on an open mesh of 3,674 facets."""
    mesh = open_mesh(_ANIMAL.read_bytes(), _ANIMAL.name).mesh
    setup = Setup(process=PROCESSES[process]).turned((90.0, 0.0, 0.0))
    part = part_of(mesh, setup)

    def looked():
        found = predict(part, setup)
        found.ledger  # noqa: B018 - that is what takes the time
        return found

    one_s, now = best_of(3, looked)
    all_s, found = best_of(1, lambda: small_changes(part, setup, now, Limits(2000, 20)))
    return one_s, all_s, found


def run() -> None:
    """Print what a search takes."""
    print("\nAll that is small, 3,674 facets")
    for process in ("fdm", "resin"):
        one_s, all_s, found = searched(process)
        line(f"{process}: whole search ({found.steps:,} steps)", f"{all_s:.1f} s", "about 20 s")
        line(f"{process}: beside one inspection", f"{all_s / one_s:.0f} times")
