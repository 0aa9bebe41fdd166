"""What was computed and may be needed again: in memory, and in the cache folder."""

import os
import pickle
import tempfile
import threading
from collections import OrderedDict
from collections.abc import Callable
from pathlib import Path
from typing import TypeVar

import numpy as np
from django.conf import settings

__all__ = [
    "CODE",
    "keep_bytes",
    "kept_arrays",
    "kept_object",
    "remembered",
    "stored_arrays",
    "stored_bytes",
    "stored_object",
]

T = TypeVar("T")
# Raised whenever the core computes something differently, so that old caches are left alone.
CODE = "4"
MAX_ENTRIES = 160

_entries: OrderedDict[str, object] = OrderedDict()
_making: dict[str, threading.Lock] = {}
_guard = threading.Lock()


def remembered(key: str, make: Callable[[], T], keep: Callable[[T], bool] = lambda _: True) -> T:
    """The value under a key; made once, also when several requests ask at the same time.

    A value that ``keep`` turns down is given back but not remembered.
    """
    with _guard:
        if key in _entries:
            _entries.move_to_end(key)
            return _entries[key]
        lock = _making.setdefault(key, threading.Lock())
    with lock:
        with _guard:
            if key in _entries:
                return _entries[key]
        value = make()
        with _guard:
            if keep(value):
                _entries[key] = value
            _making.pop(key, None)
            while len(_entries) > MAX_ENTRIES:
                _entries.popitem(last=False)
        return value


def stored_arrays(name: str) -> dict[str, np.ndarray] | None:
    """Arrays from the cache folder, or None where there are none that can be read."""
    try:
        with np.load(_path(f"{name}.npz"), allow_pickle=False) as found:
            return {key: found[key] for key in found.files}
    except (OSError, ValueError, EOFError, KeyError):
        return None


def kept_arrays(name: str, **arrays: np.ndarray) -> None:
    """Put arrays into the cache folder, whole or not at all."""
    _write(_path(f"{name}.npz"), lambda file: np.savez(file, **arrays))


def stored_object(name: str) -> object | None:
    """What `kept_object` kept, or None. Only this program writes to the cache folder."""
    try:
        with _path(f"{name}.pickle").open("rb") as file:
            return pickle.load(file)
    except (OSError, EOFError, pickle.UnpicklingError, AttributeError, ImportError, TypeError):
        return None


def kept_object(name: str, value: object) -> None:
    """Put plain results into the cache folder, whole or not at all."""
    _write(_path(f"{name}.pickle"), lambda file: pickle.dump(value, file))


def stored_bytes(name: str) -> bytes | None:
    """A file from the cache folder, or None."""
    try:
        return _path(name).read_bytes()
    except OSError:
        return None


def keep_bytes(name: str, data: bytes) -> bytes:
    """Put a file into the cache folder, and return it."""
    _write(_path(name), lambda file: file.write(data))
    return data


def _path(name: str) -> Path:
    return settings.CACHE_DIR / f"v{CODE}" / name


def _write(path: Path, fill: Callable) -> None:
    path.parent.mkdir(parents=True, exist_ok=True)
    handle, temporary = tempfile.mkstemp(dir=path.parent)
    try:
        with os.fdopen(handle, "wb") as file:
            fill(file)
        os.replace(temporary, path)
    except BaseException:
        Path(temporary).unlink(missing_ok=True)
        raise
