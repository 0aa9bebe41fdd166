"""What was computed and may be needed again: in memory, and in the cache folder."""

import contextlib
import ctypes
import gc
import hashlib
import os
import tempfile
import threading
import time
from collections import OrderedDict, deque
from collections.abc import Callable
from pathlib import Path
from typing import TypeVar

import numpy as np
from django.conf import settings

import printability

from .plain import from_arrays, to_arrays

__all__ = [
    "CODE",
    "forget",
    "is_stored",
    "keep_bytes",
    "kept_arrays",
    "kept_object",
    "known_already",
    "remembered",
    "stored_arrays",
    "stored_bytes",
    "stored_object",
]

T = TypeVar("T")
# Entries are weighed when they come, roughly, and again now and then: what was worked out later
# counts too. No more than so often and for so long, since an edit may be waiting.
_WEIGHED_EVERY_S, _WEIGHING_S = 0.5, 0.005
_LOOKED_AT_AT_FIRST, _LOOKED_AT = 200, 4_000
_LIGHT = (str, int, float, bool, type(None), np.generic)
_OURS = ("printability.", "fairstand.")
# So many times the largest entry is kept in any case; so much that was freed is given back.
_AT_ONCE, _GIVEN_BACK_FROM = 4, 24_000_000
# However small: what has no arrays weighs nothing here.
_MOST_ENTRIES = 5_000
# The cache folder is looked through at most so often.
_SWEPT_EVERY_S = 60.0


def _code() -> str:
    """Names how the core computes: changes whenever any of its files does."""
    total = hashlib.sha256()
    root = Path(printability.__file__).parent
    for file in sorted(root.rglob("*.py")):
        total.update(f"{file.relative_to(root)}\n".encode() + file.read_bytes())
    return total.hexdigest()[:12]


CODE = _code()
_entries: OrderedDict[str, object] = OrderedDict()
_weights: dict[str, int] = {}
_making: dict[str, threading.Lock] = {}
_guard = threading.Lock()
_weighed = 0.0
_freed = 0
_swept = 0.0


def remembered(key: str, make: Callable[[], T], keep: Callable[[T], bool] = lambda _: True) -> T:
    """The value under a key; made once, also when several requests ask at the same time.

    A value that ``keep`` turns down is given back but not remembered. What was not used for
    longest is forgotten where all together take more bytes than the settings say.
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
        try:
            value = make()
        except BaseException:
            with _guard:
                _making.pop(key, None)
            raise
        with _guard:
            _making.pop(key, None)
            if keep(value):
                _entries[key] = value
                _make_room(key)
        return value


def known_already(key: str):
    """The value under a key where it is remembered, else None."""
    with _guard:
        return _entries.get(key)


def forget() -> None:
    """Forget what is in memory."""
    with _guard:
        _entries.clear()
        _weights.clear()


def _make_room(newest: str) -> None:
    _weights[newest] = _bytes_of(_entries[newest], _LOOKED_AT_AT_FIRST)
    _weigh_anew()
    global _freed
    total = sum(_weights.values())
    # What a large piece needs at once is not thrown out by itself.
    most = max(settings.FAIRSTAND_KEPT_BYTES, _AT_ONCE * max(_weights.values()))
    while len(_entries) > 1 and (total > most or len(_entries) > _MOST_ENTRIES):
        gone, _ = _entries.popitem(last=False)
        weight = _weights.pop(gone, 0)
        total -= weight
        _freed += weight
    if _freed > _GIVEN_BACK_FROM:
        _freed = 0
        threading.Thread(target=_give_back, daemon=True).start()


def _give_back() -> None:
    """Give freed memory back to the system: the allocator keeps it for itself otherwise."""
    gc.collect()
    with contextlib.suppress(OSError, AttributeError):  # another C library than Debian's
        ctypes.CDLL("libc.so.6").malloc_trim(0)


def _weigh_anew() -> None:
    """Weigh some entries again, those weighed longest ago first: results hang more on them."""
    global _weighed
    start = time.perf_counter()
    if start - _weighed < _WEIGHED_EVERY_S:
        return
    for key in list(_weights):
        # Taken out and put in again: at the end of the row.
        del _weights[key]
        if key in _entries:
            _weights[key] = _bytes_of(_entries[key], _LOOKED_AT)
        if time.perf_counter() - start > _WEIGHING_S:
            break
    _weighed = time.perf_counter()


def _bytes_of(value: object, most: int) -> int:
    """Bytes of the arrays that hang on a value, each counted once; the rest is small.

    Looks at what is nearest first, and at so many things at most.
    """
    seen: set[int] = set()
    ahead = deque([value])
    total = 0
    while ahead and most > 0:
        one = ahead.popleft()
        most -= 1
        if id(one) in seen:
            continue
        seen.add(id(one))
        if isinstance(one, np.ndarray):
            base = one
            while isinstance(base.base, np.ndarray):
                base = base.base
            if base is one or id(base) not in seen:
                seen.add(id(base))
                total += base.nbytes
        elif isinstance(one, bytes):
            total += len(one)
        elif isinstance(one, dict):
            ahead.extend(_heavy(one.values()))
        elif isinstance(one, list | tuple):
            ahead.extend(_heavy(one))
        elif type(one).__module__.startswith(_OURS):
            ahead.extend(_heavy(getattr(one, "__dict__", {}).values()))
    return total


def _heavy(values) -> list:
    """Those of some values that can have arrays on them."""
    return [one for one in list(values) if not isinstance(one, _LIGHT)]


def stored_arrays(name: str) -> dict[str, np.ndarray] | None:
    """Arrays from the cache folder, or None where there are none that can be read."""
    try:
        with np.load(_found(f"{name}.npz"), allow_pickle=False) as found:
            return {key: found[key] for key in found.files}
    except Exception:  # whatever is wrong with the file, it is made anew
        return None


def kept_arrays(name: str, **arrays: np.ndarray) -> None:
    """Put arrays into the cache folder, whole or not at all."""
    _write(_path(f"{name}.npz"), lambda file: np.savez(file, **arrays))


def stored_object(name: str) -> object | None:
    """What `kept_object` kept, or None."""
    arrays = stored_arrays(name)
    try:
        return None if arrays is None else from_arrays(arrays)
    except ValueError:
        return None


def kept_object(name: str, value: object) -> None:
    """Put results into the cache folder, whole or not at all; see `to_arrays`."""
    kept_arrays(name, **to_arrays(value))


def is_stored(name: str) -> bool:
    """Whether there are arrays or an object of that name in the cache folder."""
    return _path(f"{name}.npz").exists()


def stored_bytes(name: str) -> bytes | None:
    """A file from the cache folder, or None."""
    try:
        return _found(name).read_bytes()
    except OSError:
        return None


def keep_bytes(name: str, data: bytes) -> bytes:
    """Put a file into the cache folder, and return it."""
    _write(_path(name), lambda file: file.write(data))
    return data


def _path(name: str) -> Path:
    return settings.CACHE_DIR / CODE / name


def _found(name: str) -> Path:
    """Where a file is, marked as used now."""
    path = _path(name)
    os.utime(path)
    return path


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
    _sweep()


def _sweep() -> None:
    """Take away what was not used for longest where the folder is larger than it may be."""
    global _swept
    if time.monotonic() - _swept < _SWEPT_EVERY_S:
        return
    _swept = time.monotonic()
    files = []
    for file in settings.CACHE_DIR.rglob("*"):
        try:
            if file.is_file():
                state = file.stat()
                files.append((state.st_mtime, state.st_size, file))
        except OSError:
            continue
    total = sum(size for _, size, _ in files)
    for _, size, file in sorted(files, key=lambda row: row[0]):
        if total <= settings.FAIRSTAND_CACHE_BYTES:
            break
        file.unlink(missing_ok=True)
        total -= size
