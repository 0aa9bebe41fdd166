"""The application's settings on a data folder of the tests' own.

pytest-django reads the settings before any conftest.py, so the folder is chosen here: tests
must never touch a maker's pieces.
"""

import os
import tempfile

os.environ["FAIRSTAND_DATA"] = tempfile.mkdtemp(prefix="fairstand-tests-")
# Every way to stand it by fewer ways: also for the servers that browser tests start.
os.environ["FAIRSTAND_DIRECTIONS"] = "120"
# Several servers share the processors with what tests them: nobody is to wait for all others.
os.environ["FAIRSTAND_WORKER_NICE"] = "0"
# The browser of other tests keeps a loop running in the same process.
os.environ["DJANGO_ALLOW_ASYNC_UNSAFE"] = "1"

from fairstand.settings import *  # noqa: F403
