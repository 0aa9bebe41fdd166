"""How long things take here, learned from the last ones of their kind and size."""

from .memory import kept_object, stored_object

__all__ = ["note_time", "took_s"]

_TOOK_S: dict[str, float] = {}
# By so much the longest known gives way to what is shorter.
_FADES = 0.8


def took_s(kind: str) -> float | None:
    """Seconds that things of a kind take; None where none was done yet."""
    if kind not in _TOOK_S:
        kept = stored_object(f"took/{kind}")
        if kept is None:
            return None
        _TOOK_S[kind] = float(kept["s"])
    return _TOOK_S[kind]


def note_time(kind: str, seconds: float) -> None:
    """Learn how long one took: the longest of the last ones counts."""
    known = took_s(kind)
    _TOOK_S[kind] = seconds if known is None else max(seconds, _FADES * known)
    if known is None or not _FADES < _TOOK_S[kind] / max(known, 1e-9) < 1 / _FADES:
        kept_object(f"took/{kind}", {"s": _TOOK_S[kind]})
