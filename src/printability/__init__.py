"""Fair Stand's core: whether, where and why a mesh will not print as it lies.

NumPy arrays go in, frozen dataclasses come out. Lengths are millimetres, angles
degrees, Z is up and the build plate is z = 0. Nothing here knows of a web server,
of settings or of the clock.

Kernels are compiled by Numba and kept beside the code. Numba looks at a kernel's own file only
when it decides whether to compile anew, not at the kernels that it calls, so what is kept goes
into a folder named after all of the code.
"""

import hashlib
import os
import shutil
from pathlib import Path

import numba


def _keep_compiled_code_apart() -> None:
    here = Path(__file__).parent
    if numba.config.CACHE_DIR or not os.access(here, os.W_OK):
        return
    code = hashlib.sha256()
    for file in sorted(here.rglob("*.py")):
        text = file.read_bytes()
        if b"njit" in text:
            code.update(text)
    folder = here / "__pycache__" / f"compiled-{code.hexdigest()[:16]}"
    if not folder.exists():
        for old in folder.parent.glob("compiled-*"):
            shutil.rmtree(old, ignore_errors=True)
        folder.mkdir(parents=True, exist_ok=True)
    numba.config.CACHE_DIR = str(folder)


_keep_compiled_code_apart()
