"""Shared by all tests."""

import os
import tempfile
from itertools import islice

import numpy as np
import pytest
from django.conf import settings


def pytest_configure():
    """Refuse to run on anybody's own data."""
    assert str(settings.DATA_DIR).startswith(str(tempfile.gettempdir()))


def pytest_collection_modifyitems(config, items):
    """Each of the processes that share the tests begins with its part of the slow ones.

    They are handed out in as many stretches as there are processes; whoever is done takes from
    the end of the others'. Tests of one file in the browser stay together.
    """
    sharers = getattr(config, "workerinput", {}).get("workercount", 1)
    files: dict = {}
    others = []
    for item in items:
        in_browser = item.get_closest_marker("browser")
        files.setdefault(item.path, []).append(item) if in_browser else others.append(item)
    stretches = [[] for _ in range(sharers)]
    for own in sorted(files.values(), key=len, reverse=True):
        min(stretches, key=len).extend(own)
    each, rest = len(items) // sharers, iter(others)
    items[:] = [
        item for own in stretches for item in [*own, *islice(rest, max(each - len(own), 0))]
    ]
    items += rest


@pytest.fixture(scope="session")
def django_db_setup(django_db_setup):
    """The database; permissions, which nobody asks for, are not written anew after each test."""
    from django.contrib.contenttypes.management import create_contenttypes
    from django.db.models.signals import post_migrate

    post_migrate.disconnect(dispatch_uid="django.contrib.auth.management.create_permissions")
    post_migrate.disconnect(create_contenttypes)


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
