"""How much the server grows while one maker makes a thousand changes."""

import json
import random
import tempfile
import urllib.request
from pathlib import Path

from tools.running import Server

from .ratios import HERE
from .timing import line

__all__ = ["run"]

_ANIMAL = HERE.parent / "tests" / "data" / "bunny.ply"
_STEPS, _FROM = 1000, 100


def _asked(url: str, body: dict | None = None) -> dict:
    token = "0" * 32
    headers = {
        "Accept": "application/json", "Content-Type": "application/json",
        "Cookie": f"csrftoken={token}", "X-CSRFToken": token,
    }  # fmt: skip
    data = None if body is None else json.dumps(body).encode()
    with urllib.request.urlopen(urllib.request.Request(url, data, headers), timeout=60) as answer:
        return json.load(answer)


def _held_mb(pid: int) -> float:
    return int(Path(f"/proc/{pid}/statm").read_text().split()[1]) * 4096 / 1e6


def run() -> None:
    """Turn, lift and undo an animal; print the server's memory as it goes."""
    print("\nMemory of the server, one maker, 3,674 facets")
    draws = random.Random(1)
    with tempfile.TemporaryDirectory() as folder:
        server = Server(Path(folder))
        try:
            bench = server.bring_in(_ANIMAL)
            bench = urllib.request.urlopen(bench, timeout=60).url
            revision, first = _asked(f"{bench}state/")["revision"], 0.0
            for step in range(1, _STEPS + 1):
                kind, values = "lift", {"lift_mm": draws.uniform(0, 20)}
                if draws.random() < 0.6:
                    axes = ("x_deg", "y_deg", "z_deg")
                    kind, values = "turn", {axis: draws.uniform(-180, 180) for axis in axes}
                said = {"kind": kind, "parameters": values, "revision": revision}
                revision = _asked(f"{bench}edits/", said)["state"]["revision"]
                if step % 3 == 0:
                    _asked(f"{bench}findings/")
                if step == _FROM:
                    first = _held_mb(server.process.pid)
            grown = _held_mb(server.process.pid) - first
            line(f"{_STEPS} steps: above step {_FROM} ({first:.0f} MB)", f"{grown:.0f} MB", "150")
            line("a step", f"{1000 * grown / (_STEPS - _FROM):.0f} kB")
        finally:
            server.stop()
