"""Kernels compiled by Numba, and kept beside the code for as long as what they are made of stays.

Numba looks at a kernel's own file only when it decides whether to compile anew, not at the
kernels that it calls. So what is kept of a file goes into a folder that is named after its text
and after that of every file of kernels that it imports from, and so on; a change compiles what
it touches and nothing else.
"""

import ast
import hashlib
import json
import os
import shutil
from functools import cache
from pathlib import Path

import numba

from ._late import LateCache

__all__ = ["compiled", "everything_is_kept", "keep_that_everything_is"]

_ROOT = Path(__file__).parent
_KEPT = _ROOT / "__pycache__" / "compiled"
_KNOWN = _KEPT / "known.json"
# The sources of which every kernel was compiled once.
_WHOLE = _KEPT / "whole.txt"
_IS_OURS = not numba.config.CACHE_DIR and os.access(_ROOT, os.W_OK)


def compiled(function):
    """Compile a function when it is first called, without the interpreter's lock, and keep it."""
    if _IS_OURS:
        numba.config.CACHE_DIR = str(_folder_of(Path(function.__code__.co_filename)))
    kernel = numba.njit(nogil=True)(function)
    kernel._cache = LateCache(function)
    return kernel


def everything_is_kept() -> bool:
    """Whether everything was compiled, and kept, since a source last changed."""
    return _IS_OURS and _WHOLE.exists() and _WHOLE.read_text() == _known()[0]


def keep_that_everything_is() -> None:
    """Note that everything is compiled as the sources are now."""
    if _IS_OURS:
        _WHOLE.write_text(_known()[0])


@cache
def _folder_of(file: Path) -> Path:
    key = str(file.relative_to(_ROOT))
    stamp, names = _known()
    if key not in names:
        names[key] = _name_of(file)
        _KEPT.mkdir(parents=True, exist_ok=True)
        # Whole or not at all: another process may be reading it.
        fresh = _KNOWN.with_suffix(f".{os.getpid()}")
        fresh.write_text(json.dumps({"stamp": stamp, "names": names}))
        fresh.replace(_KNOWN)
    folder = _KEPT / names[key]
    if not folder.exists():
        for old in _KEPT.glob(f"{names[key].rpartition('-')[0]}-{16 * '[0-9a-f]'}"):
            shutil.rmtree(old, ignore_errors=True)
        folder.mkdir(parents=True, exist_ok=True)
    return folder


@cache
def _known() -> tuple[str, dict[str, str]]:
    """What names the files as they are on the disk now, and the folders' names known for that."""
    stamp = hashlib.sha256()
    for one in sorted(_ROOT.rglob("*.py")):
        state = one.stat()
        stamp.update(f"{one} {state.st_mtime_ns} {state.st_size}\n".encode())
    try:
        known = json.loads(_KNOWN.read_text())
        if known["stamp"] == stamp.hexdigest():
            return known["stamp"], dict(known["names"])
    except (OSError, ValueError, KeyError, TypeError):
        pass
    return stamp.hexdigest(), {}


def _name_of(file: Path) -> str:
    digest = hashlib.sha256()
    for one in sorted(_made_of(file)):
        digest.update(f"{one.relative_to(_ROOT)}\n".encode() + one.read_bytes())
    name = "-".join(file.relative_to(_ROOT).with_suffix("").parts)
    return f"{name}-{digest.hexdigest()[:16]}"


def _made_of(file: Path) -> set[Path]:
    """A file, all files of kernels that it imports from and so on, and those of constants."""
    found, ahead = {file}, [file]
    while ahead:
        for one, is_constant in _imported(ahead.pop()):
            has_kernels = b"@compiled" in one.read_bytes()
            if one not in found and (has_kernels or is_constant):
                found.add(one)
                if has_kernels:
                    ahead.append(one)
    return found


@cache
def _imported(file: Path) -> frozenset[tuple[Path, bool]]:
    """Files of the core that a file imports names from, and whether as constants."""
    found = set()
    for node in ast.walk(ast.parse(file.read_bytes())):
        if isinstance(node, ast.ImportFrom) and node.level:
            folder = file.parents[node.level - 1].joinpath(*(node.module or "").split("."))
            found.update((_holder(folder, one.name), one.name.isupper()) for one in node.names)
    return frozenset((one, constant) for one, constant in found if one is not None)


def _holder(module: Path, name: str) -> Path | None:
    """The file that a name imported from a module, or from a package of some, is written in."""
    if module.with_suffix(".py").exists():
        return module.with_suffix(".py")
    if (module / f"{name}.py").exists():
        return module / f"{name}.py"
    package = module / "__init__.py"
    if not package.exists():
        return None
    for node in ast.walk(ast.parse(package.read_bytes())):
        if isinstance(node, ast.ImportFrom) and node.level == 1 and node.module:
            if any(alias.name == name for alias in node.names):
                return _holder(module.joinpath(*node.module.split(".")), name)
    return None
