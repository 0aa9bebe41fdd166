"""What leaves the machine's build volume."""

from collections.abc import Iterator

import numpy as np

from .base import Case, Finding, Severity, kind


@kind("off_plate", "Off the plate", 0, "whole")
def off_plate(case: Case) -> Iterator[Finding]:
    """Model and pillars outside the build volume."""
    room = np.array(case.look.process.build_volume_mm)
    least, most = np.array([-room[0] / 2, -room[1] / 2, 0.0]), room * (0.5, 0.5, 1.0)
    low, high = case.look.printed.low_mm, case.look.printed.high_mm
    out = np.maximum(least - low, high - most)
    if out.max() <= 1e-6:
        return
    named = ", ".join(f"{v:.1f} mm along {a}" for v, a in zip(out, "XYZ", strict=True) if v > 1e-6)
    vertices = case.look.printed.vertices
    far = vertices[np.argmax(np.maximum(least - vertices, vertices - most).max(axis=1))]
    yield Finding(
        id="off_plate-1", kind="off_plate", severity=Severity.WILL_FAIL, title="Off the plate",
        short=f"sticks out by {out.max():.1f} mm", measure=float(out.max()), limit=0.0, unit="mm",
        layer=case.look.layer_at(float(far[2])), z_mm=float(far[2]),
        center_mm=tuple(float(v) for v in far),
        text=f"Sticks out of the build volume by {named}.", why="What is outside is not printed.",
        burden=float(out.max()),
    )  # fmt: skip
