"""Shared by all tests: a data folder of their own, before Django reads its settings."""

import os
import tempfile

os.environ["FAIRSTAND_DATA"] = tempfile.mkdtemp(prefix="fairstand-tests-")

import pytest


@pytest.fixture(scope="session")
def bunny():
    """An open mesh, watertight, standing on its feet."""
    from printability.mesh import open_mesh
    from printability.stance import turned
    from solids import DATA

    opened = open_mesh((DATA / "bunny.ply").read_bytes(), "bunny.ply")
    return turned(opened.mesh, "mm", (90, 0, 0))
