"""Shared by all tests."""

import os
import tempfile

import numpy as np
import pytest
from django.conf import settings


def pytest_configure():
    """Refuse to run on anybody's own data."""
    assert str(settings.DATA_DIR).startswith(str(tempfile.gettempdir()))


@pytest.fixture(scope="session")
def bunny():
    """An open mesh, watertight, standing on its feet."""
    from printability.mesh import open_mesh
    from printability.stance import turned
    from solids import DATA

    opened = open_mesh((DATA / "bunny.ply").read_bytes(), "bunny.ply")
    return turned(opened.mesh, (90, 0, 0))


@pytest.fixture
def draws(request):
    """A generator of random numbers, its seed printed; FAIRSTAND_SEED draws the same again.

    Cases of one test by number draw differently.
    """
    seed = int(os.environ.get("FAIRSTAND_SEED", int.from_bytes(os.urandom(4), "little")))
    print(f"FAIRSTAND_SEED={seed}")
    case = getattr(request.node, "callspec", None) and request.node.callspec.params.get("case")
    return np.random.default_rng(seed if case is None else (seed, case))
