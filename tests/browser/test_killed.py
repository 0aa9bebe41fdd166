"""What is left when server or worker are killed: everything acknowledged, and nobody behind."""

import json
import os
import random
import signal
import sqlite3
import time
import urllib.error
import urllib.request

import pytest
import trimesh
from tools.running import Server

from depth import about
from printability.mesh import binary_stl
from solids import ours, table

pytestmark = pytest.mark.browser
# As many as fit the suite; set it to 50 for a long look.
MOMENTS = int(os.environ.get("FAIRSTAND_KILLS", about(1)))


class Asking:
    """A script that edits one stance over HTTP and remembers what was acknowledged."""

    def __init__(self, server):
        self.server, self.cookie, self.revision, self.bench = server, "", 0, ""

    def ask(self, path, body=None, kind="application/json"):
        data = (
            None if body is None else body if isinstance(body, bytes) else json.dumps(body).encode()
        )
        request = urllib.request.Request(self.server.url + path, data)
        request.add_header("Content-Type", kind)
        request.add_header("Accept", "application/json, text/html")
        token = self.cookie.split("csrftoken=")[-1].split(";")[0]
        request.add_header("Cookie", f"csrftoken={token}")
        request.add_header("X-CSRFToken", token)
        with urllib.request.urlopen(request, timeout=20) as answer:
            self.cookie = answer.headers.get("Set-Cookie") or self.cookie
            text, self.at = answer.read(), answer.url.removeprefix(self.server.url)
            return json.loads(text) if "json" in answer.headers["Content-Type"] else text

    def upload(self, data, name="t.stl"):
        """What a file gets at once; of one that is refused the sentence."""
        head = f'--x\r\nContent-Disposition: form-data; name="file"; filename="{name}"\r\n\r\n'
        body = head.encode() + data + b"\r\n--x--\r\n"
        try:
            return self.ask("/pieces/upload/", body, "multipart/form-data; boundary=x")
        except urllib.error.HTTPError as error:
            return json.load(error)

    def bring_in(self, mesh=None, name="t.stl"):
        self.ask("/")
        data = mesh if isinstance(mesh, bytes) else binary_stl(mesh or table(), "t")
        told = self.upload(data, name)
        while "url" not in told:
            work = self.ask(told["work"]["url"])
            assert work["open"] or work["state"] == "done", work
            told = {"work": work} if work["open"] else work["result"]
        self.ask(told["url"])
        self.bench = self.at
        return self

    def edit(self, kind, **parameters):
        """An edit, whether it is made at once or begun."""
        said = {"kind": kind, "parameters": parameters, "revision": self.revision}
        return self.ask(f"{self.bench}edits/", said)

    def change(self, name, **body):
        state = self.ask(f"{self.bench}{name}/", body | {"revision": self.revision})["state"]
        self.revision = state["revision"]
        return state

    def lift(self, mm):
        return self.change("edits", kind="lift", parameters={"lift_mm": mm})["lift_mm"]


def _workers(server_pid):
    """Processes that are workers of a server, by what they were started with."""
    found = []
    for pid in filter(str.isdecimal, os.listdir("/proc")):
        try:
            with open(f"/proc/{pid}/cmdline", "rb") as file:
                words = file.read().split(b"\0")
        except OSError:
            continue
        if b"fairstand.cli.worker" in words and str(server_pid).encode() in words:
            found.append(int(pid))
    return found


def _tokens(server_pid):
    """What the processes of a server call themselves, in records of work."""
    found = []
    for pid in _workers(server_pid):
        try:
            with open(f"/proc/{pid}/cmdline", "rb") as file:
                found.append(file.read().split(b"\0")[-3].decode())
        except (OSError, IndexError):
            continue
    return found


def _running(server):
    with sqlite3.connect(server.folder / "fairstand.sqlite3") as base:
        rows = base.execute("select worker from work_work where state='running'").fetchall()
    return {worker for (worker,) in rows}


def _count(server, name):
    with sqlite3.connect(server.folder / "fairstand.sqlite3") as base:
        return base.execute(f"select count(*) from {name}").fetchone()[0]


def _until(true, seconds=60):
    end = time.monotonic() + seconds
    while not true():
        assert time.monotonic() < end
        time.sleep(0.1)


@pytest.fixture(scope="module")
def killed(tmp_path_factory):
    running = Server(tmp_path_factory.mktemp("killed"), FAIRSTAND_BACKGROUND_FACETS="10",
                     FAIRSTAND_MAX_MB="1", FAIRSTAND_WARM_UP="off")  # fmt: skip
    yield running
    if running.process.poll() is None:
        running.stop()


def test_killed_at_random_nothing_acknowledged_is_lost_and_nobody_stays(killed):
    seed = int(os.environ.get("FAIRSTAND_SEED", time.time_ns() % 10_000))
    print(f"FAIRSTAND_SEED={seed}")
    draws = random.Random(seed)
    asking, slow = Asking(killed), Asking(killed)
    asking.bring_in()
    # Its walls are made thicker for half a minute: whoever is killed, it ends.
    slow.bring_in(ours(trimesh.creation.annulus(19.6, 20.4, 60, sections=400)))
    acknowledged = 0.0
    for turn in range(MOMENTS):
        end, n = time.monotonic() + draws.uniform(0.0, 1.2), 0
        while time.monotonic() < end:
            n += 1
            acknowledged = asking.lift(turn % 9 * 100 + n % 900 / 10)
            if n == 2:  # long work is under way, and a long change
                asking.ask(asking.bench + "slice/", {})
                size = {"least_mm": 1.0 + draws.uniform(0, 1)}
                slow.edit("reshape", change="thicken", size=size)
        pid = killed.process.pid
        victim = draws.choice(["server", "worker", "both"])
        for worker in _workers(pid) if victim != "server" else ():
            os.kill(worker, signal.SIGKILL)
        if victim != "worker":
            os.kill(pid, signal.SIGKILL)
            killed.process.wait()
            _until(lambda pid=pid: not _workers(pid))
            killed.start()
        _until(lambda: _workers(killed.process.pid))
        state = asking.ask(asking.bench + "state/")
        assert state["lift_mm"] == pytest.approx(acknowledged)
        asking.revision = state["revision"]
        # What waited may go on with the new processes; nothing else is said to run.
        _until(lambda: _running(killed) <= set(_tokens(killed.process.pid)), 20)
        for table_name in ("stances_stance", "stances_editrecord", "library_piece"):
            assert _count(killed, table_name) > 0
        state = slow.ask(slow.bench + "state/")
        assert len(state["changes"]) == state["revision"]  # whole edits or none
        slow.revision = state["revision"]
    # Whatever still runs is heard to stop, also in the midst of a boolean.
    for work in asking.ask("/work/")["open"]:
        asking.ask(work["cancel_url"], {})
    _until(lambda: not _running(killed), 4)
    with sqlite3.connect(killed.folder / "fairstand.sqlite3") as base:
        assert base.execute("pragma integrity_check").fetchone() == ("ok",)


def test_a_killed_worker_is_started_again_and_its_work_can_be_had(killed):
    asking = Asking(killed)
    asking.bring_in()
    _until(lambda: _workers(killed.process.pid))
    for _ in range(2):
        old = _workers(killed.process.pid)
        assert len(old) >= 2
        for worker in old:
            os.kill(worker, signal.SIGKILL)
        _until(lambda old=old: len(set(_workers(killed.process.pid)) - set(old)) >= 2)
    asking.lift(1)
    work = asking.ask(asking.bench + "slice/", {})["work"]["id"]
    _until(lambda: not asking.ask(f"/work/{work}/")["open"], 60)
    assert asking.ask(f"/work/{work}/")["state"] == "done"
    assert asking.ask(asking.bench + "findings/")["ready"]


def test_everything_is_kept_when_it_is_ended_and_started_again(killed):
    asking = Asking(killed)
    asking.bring_in()
    asking.change("edits", kind="turn", parameters={"x_deg": 0, "y_deg": 15, "z_deg": 0})
    before = asking.change("edits", kind="threshold", parameters={"threshold_deg": 50})
    killed.stop()
    assert "your pieces are kept" in "".join(killed.log)
    killed.start()
    state = asking.ask(asking.bench + "state/")
    assert state == before
    asking.revision = state["revision"]
    assert asking.change("undo")["threshold_deg"] == 45
    assert asking.change("undo")["angles_deg"] == [0, 0, 0]
    asking.change("redo")
    again = asking.change("redo")
    assert again | {"revision": 0} == before | {"revision": 0}


def test_a_second_server_on_the_same_data_is_refused(killed):
    with pytest.raises(AssertionError, match="another Fair Stand is serving this data folder"):
        Server(killed.folder)


def test_a_body_over_the_limit_is_refused(killed):
    asking = Asking(killed)
    asking.ask("/")
    with pytest.raises((urllib.error.HTTPError, urllib.error.URLError, ConnectionError)) as refused:
        asking.ask("/pieces/upload/", b"x" * 4_000_000, "multipart/form-data; boundary=x")
    assert getattr(refused.value, "code", 413) == 413
