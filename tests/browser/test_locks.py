"""A slow change and long work beside a second maker who edits, renames and brings files in."""

import threading
import time

import pytest
import trimesh
from test_killed import Asking

from solids import DATA, ours

pytestmark = pytest.mark.browser


def _followed(asking, told):
    while told.get("work") and asking.ask(told["work"]["url"])["open"]:
        time.sleep(0.1)
    return asking.ask(told["work"]["url"]) if told.get("work") else told


def test_a_slow_change_keeps_nobody_waiting_and_kills_no_work(server):
    slow, job, quick = Asking(server), Asking(server), Asking(server)
    # A wall that is thin all over: to make it thicker takes tens of seconds.
    slow.bring_in(ours(trimesh.creation.annulus(19.6, 20.4, 60, sections=300)))
    job.bring_in((DATA / "bunny.ply").read_bytes(), "bunny.ply")
    quick.bring_in()
    began = slow.edit("reshape", change="thicken", size={"least_mm": 1.6})
    assert began["again"]
    working = job.ask(f"{job.bench}supports/propose/", {"clear": "failing"})
    ended = {}
    others = [
        threading.Thread(target=lambda: ended.update(slow=_followed(slow, began))),
        threading.Thread(target=lambda: ended.update(job=_followed(job, working))),
    ]
    for one in others:
        one.start()
    took, until, n = [], time.monotonic() + 4, 0
    piece = quick.ask(f"{quick.bench}state/")["mesh_url"].split("/")[2]
    assert piece
    while time.monotonic() < until:
        n += 1
        start = time.monotonic()
        assert quick.lift(n % 50) == n % 50
        took.append(time.monotonic() - start)
        if n % 5 == 0:
            start = time.monotonic()
            assert set(quick.upload(b"solid x\nendsolid x\n")) & {"work", "error"}
            took.append(time.monotonic() - start)
    # On processors that other tests share; alone all are under 0.3 s. Behind a lock or a lane it
    # would be the tens of seconds that the change takes.
    assert sorted(took)[len(took) // 2] < 2
    assert max(took) < 8
    slow.ask(began["work"]["cancel_url"], {})
    for one in others:
        one.join(120)
    assert ended["slow"]["state"] in ("cancelled", "done")
    assert ended["job"]["state"] == "done", ended["job"]
    assert not slow.ask(f"{slow.bench}state/")["changes"]  # it was never taken
