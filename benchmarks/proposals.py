"""What proposed supports weigh against plain grid supports; writes docs/proposals.md.

Run as ``.venv/bin/python -m benchmarks.proposals [MINUTES]``; all of it takes half an hour.
"""

import math
import statistics
import sys
import time
from pathlib import Path

from fairstand.demo.pieces import PIECES
from printability.findings import Severity
from printability.mesh import Mesh, open_mesh
from printability.process import PROCESSES
from printability.proposing import CURABLE, Options, propose
from printability.stance import Pose, Setup, part_of, turned

from . import fourteen, sheets
from .ratios import _ball
from .slicing import blob

OUT = Path(__file__).parents[1] / "docs/proposals.md"
BUNNY = Path(__file__).parents[1] / "tests/data/bunny.ply"
# The second stance of each demo piece.
TURN, LIFT_MM = (35.0, 0.0, 20.0), 3.0
LEAST_GRID_MM3 = 1000.0


def look(mesh, process: str, turn, lift: float, clear: str) -> dict:
    """One proposal and what it came to."""
    setup = Setup(process=PROCESSES[process], pose=Pose(turn, lift))
    part = part_of(mesh, setup)
    start = time.perf_counter()
    found = propose(part, setup, Options(clear=clear))
    least = Severity.WILL_FAIL if clear == "failing" else Severity.RISKY
    left = sum(f.kind in CURABLE and f.severity >= least for f in found.after.findings)
    grid = found.grid_support_mm3
    return {
        "count": len(found.supports), "volume": found.volume_mm3, "grid": grid, "left": left,
        "unreachable": len(found.unreachable), "seconds": time.perf_counter() - start,
        "share": found.volume_mm3 / grid if grid > LEAST_GRID_MM3 else None,
        "part": float(found.look.own_layers.area_mm2.sum()) * setup.process.layer_height_mm,
    }  # fmt: skip


def main(minutes: float = math.inf) -> None:
    """Make all proposals, as far as there is time, and write the table."""
    ends = time.perf_counter() + 60 * minutes
    head = ["piece", "stance", "process", "clear", "supports", "mm³", "grid mm³", "share",
            "left", "no contact", "s"]  # fmt: skip
    lines = [
        "# Proposed supports against plain grid supports",
        "",
        "Made by `python -m benchmarks.proposals`. *As it lies*, and turned by 35° about X and 20° "
        "about Z, held 3 mm above the plate. *Left* counts findings of the kinds that a contact "
        "cures, of the severity that was to be cleared; *no contact* the places listed as such. "
        "Shares where plain grid supports exceed 1,000 mm³. Times on two cores.",
        "",
        "| " + " | ".join(head) + " |",
        "|" + "---|" * len(head),
    ]
    shares: dict[tuple, list] = {}
    not_run = []
    meshes = {p.name: p.make() for p in sorted(PIECES, key=lambda p: p.name.startswith("Hide"))}
    bunny = open_mesh(BUNNY.read_bytes(), BUNNY.name).mesh
    meshes["Bunny (open mesh)"] = turned(bunny, (90, 0, 0))
    rows = [
        (piece, name, process, clear)
        for process, clear in (("fdm", "failing"), ("fdm", "risky"), ("resin", "failing"),
                               ("resin", "risky"))
        for piece in meshes
        for name in ("as it lies", "turned")
    ]  # fmt: skip
    plates = [*_plates(), "", *_fine()]
    for piece, name, process, clear in rows:
        if time.perf_counter() > ends:
            not_run.append(f"{piece} {name}, {process}, {clear}")
            continue
        turn, lift = ((0.0, 0.0, 0.0), 0.0) if name == "as it lies" else (TURN, LIFT_MM)
        row = look(meshes[piece], process, turn, lift, clear)
        if row["share"] is not None:
            shares.setdefault((process, clear), []).append(row["share"])
        share = "" if row["share"] is None else f"{row['share']:.2f}"
        told = [
            piece, name, process, clear, row["count"], f"{row['volume']:,.0f}",
            f"{row['grid']:,.0f}", share, row["left"], row["unreachable"], f"{row['seconds']:.0f}",
        ]  # fmt: skip
        lines.append("| " + " | ".join(map(str, told)) + " |")
        print(lines[-1], flush=True)
    medians = "; ".join(
        f"{p}, {c}: {statistics.median(s):.2f} of {len(s)}" for (p, c), s in shares.items()
    )
    lines += ["", f"Medians of the shares: {medians}.", ""]
    if not_run:
        lines += [f"Not run this time ({len(not_run)}): {'; '.join(not_run)}.", ""]
    OUT.write_text("\n".join([*lines, *plates]) + "\n")


def _plates() -> list[str]:
    """The plates of fourteen parts."""
    told = ["## Plates of fourteen parts", ""]
    for name, parts in (("fourteen", fourteen.PARTS), ("sheets", sheets.PARTS)):
        total, ours, grids, left = 0.0, 0.0, 0.0, 0
        for _, mesh, turn in parts:
            row = look(mesh, "resin", turn, 5.0, "risky")
            total, ours, grids = total + row["part"], ours + row["volume"], grids + row["grid"]
            left += row["left"]
        told += [
            "Resin, each part at its own turn, 5 mm above the plate "
            f"(`benchmarks/{name}.py`): parts {total:,.0f} mm³, with proposed supports "
            f"{total + ours:,.0f} mm³, with plain grid supports {total + grids:,.0f} mm³: "
            f"{(total + ours) / (total + grids):.2f} of it. {left} findings that a contact cures "
            "are left.",
            "",
        ]
        print(told[-2], flush=True)
    return told[:-1]


def _fine() -> list[str]:
    """A model of very many facets, as a running server does it: kernels are loaded."""
    told = [
        "## A model of 327,680 facets",
        "",
        "The lumpy ball of the other benchmarks, as it lies.",
        "",
    ]
    small, mesh = _ball(4), blob()
    for process in ("fdm", "resin"):
        look(small, process, (0.0, 0.0, 0.0), 0.0, "risky")
        row = look(Mesh(mesh.vertices, mesh.facets), process, (0.0, 0.0, 0.0), 0.0, "risky")
        told.append(
            f"- {process}, risky: {row['count']} supports of {row['volume']:,.0f} mm³ (plain "
            f"grid supports {row['grid']:,.0f} mm³), {row['left']} findings left, "
            f"{row['seconds']:.1f} s."
        )
        print(told[-1], flush=True)
    return told


if __name__ == "__main__":
    main(float(sys.argv[1]) if len(sys.argv) > 1 else math.inf)
