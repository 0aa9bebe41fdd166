"""Whose turn it is: which waiting work a process takes next."""

from django.db import transaction
from django.db.models import Count, Max, Q
from django.utils import timezone

from .models import LONG, QUICK, Work
from .progress import INTERRUPTED, end

__all__ = ["LANES", "take_next"]

# What a process takes: quick work first.
LANES = {"quick": (QUICK,), "any": (QUICK, LONG)}


def take_next(worker: str, lanes: tuple[str, ...]) -> Work | None:
    """Claim the work whose turn it is; None where nothing waits.

    Quick work comes before long. Then comes the maker, and of theirs the piece, with the least
    under way in the lane, and of these the one that was served longest ago.

    Parameters
    ----------
    worker : str
        Names the process; whatever else is still noted as its own has been dropped.
    lanes : tuple of str
        In the order in which they are looked through.
    """
    left = Work.objects.filter(worker=worker, state=Work.State.RUNNING)
    waiting = Work.objects.filter(state=Work.State.WAITING, lane__in=lanes)
    if left.exists():
        end(left, state=Work.State.FAILED, error=INTERRUPTED)
    if not waiting.exists():
        return None
    with transaction.atomic():
        for lane in lanes:
            rows = list(waiting.filter(lane=lane).values("pk", "owner", "piece", "created"))
            if not rows:
                continue
            turn = min(rows, key=_turns(lane))
            Work.objects.filter(pk=turn["pk"]).update(
                state=Work.State.RUNNING, worker=worker, started=timezone.now(), stage="Starting"
            )
            return Work.objects.get(pk=turn["pk"])
    return None


def _turns(lane: str):
    """A key by which what waits in a lane is served: smallest first."""
    running = Count("pk", filter=Q(state=Work.State.RUNNING))
    own = Work.objects.filter(lane=lane, started__isnull=False)
    makers = {r["owner"]: r for r in own.values("owner").annotate(n=running, last=Max("started"))}
    pieces = {
        (r["owner"], r["piece"]): r
        for r in own.values("owner", "piece").annotate(n=running, last=Max("started"))
    }

    def key(row: dict) -> tuple:
        out = []
        for known in (makers.get(row["owner"]), pieces.get((row["owner"], row["piece"]))):
            last = known["last"].timestamp() if known else 0.0
            out += [known["n"] if known else 0, last]
        return (*out, row["created"])

    return key
