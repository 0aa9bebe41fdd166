"""Shared by all tests: a data folder of their own, before Django reads its settings."""

import os
import tempfile
from pathlib import Path

os.environ["FAIRSTAND_DATA"] = tempfile.mkdtemp(prefix="fairstand-tests-")

import pytest

DATA = Path(__file__).parent / "data"


@pytest.fixture(scope="session")
def bunny():
    """An open mesh, watertight, standing on its feet."""
    from printability.mesh import open_mesh
    from printability.stance import turned

    opened = open_mesh((DATA / "bunny.ply").read_bytes(), "bunny.ply")
    return turned(opened.mesh, "mm", (90, 0, 0))
