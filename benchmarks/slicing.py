"""All layers of a fine blob, overhang for a changed threshold, and the complete inspection."""

import manifold3d
import numpy as np
import trimesh

from printability.findings import find
from printability.inspection import inspect_model
from printability.layers import find_islands, slice_layers
from printability.mesh import Mesh, facet_areas
from printability.process import PROCESSES
from printability.stance import Placed, Setup, part_of
from printability.surface import find_overhang, underside_slopes

from .timing import best_of, line

LAYER_MM = 0.05
REFERENCE_EVERY, MANIFOLD_EVERY = 40, 8


def blob() -> Mesh:
    """A lumpy ball of 327,680 facets, 83.35 mm tall."""
    ball = trimesh.creation.icosphere(subdivisions=7, radius=1.0)
    v = np.array(ball.vertices)
    v *= (
        1
        + 0.15 * np.sin(5 * v[:, :1] + 1) * np.cos(4 * v[:, 1:2])
        + 0.1 * np.sin(7 * v[:, 2:] + 2 * v[:, :1])
    )
    v *= 83.35 / np.ptp(v[:, 2])
    v[:, 2] -= v[:, 2].min()
    return Mesh(np.ascontiguousarray(v), np.ascontiguousarray(ball.faces, np.int32))


def run() -> None:
    """Print the ratios."""
    mesh = blob()
    slice_layers(mesh, 1.0).area_mm2  # noqa: B018 - compiles

    def ours():
        fresh = Mesh(mesh.vertices, mesh.facets)  # without the topology found before
        layers = slice_layers(fresh, LAYER_MM)
        return layers, layers.area_mm2

    own, (layers, areas) = best_of(3, ours)
    print(f"{len(mesh.facets):,} facets, {layers.count:,} layers of {LAYER_MM} mm")
    line("topology, closed loops and areas of all layers", f"{own * 1e3:.0f} ms")

    some = layers.heights_mm[::REFERENCE_EVERY]
    other = trimesh.Trimesh(mesh.vertices, mesh.facets, process=False)
    took, parts = best_of(1, lambda: other.section_multiplane([0, 0, 0], [0, 0, 1], some))
    whole = took * layers.count / len(some)
    worst = max(
        abs((part.area if part else 0) - area)
        for part, area in zip(parts, areas[::REFERENCE_EVERY], strict=True)
    )
    line(f"trimesh section_multiplane (every {REFERENCE_EVERY}th layer, scaled)", f"{whole:.1f} s")
    line("  times as fast", f"{whole / own:.0f}", "at least 60")
    line("  largest difference of a layer's area", f"{worst:.1e} mm²")

    def build():
        return manifold3d.Manifold(manifold3d.Mesh64(mesh.vertices, mesh.facets.astype(np.uint64)))

    built, solid = best_of(2, build)
    some = layers.heights_mm[::MANIFOLD_EVERY]
    took, found = best_of(1, lambda: [solid.slice(z).area() for z in some])
    sliced = took * layers.count / len(some)
    worst = float(np.abs(np.array(found) - areas[::MANIFOLD_EVERY]).max())
    line(f"manifold3d slice a layer (every {MANIFOLD_EVERY}th, scaled)", f"{sliced * 1e3:.0f} ms")
    line("  and building its topology", f"{built * 1e3:.0f} ms")
    line("  times as fast, topology on both sides", f"{(built + sliced) / own:.1f}", "at least 4")
    line("  times as fast, topology on ours only", f"{sliced / own:.1f}")
    line("  largest difference of a layer's area", f"{worst:.1e} mm²")

    took, islands = best_of(3, lambda: find_islands(layers))
    line(f"islands of all layers ({len(islands)})", f"{took * 1e3:.0f} ms")
    slopes, face_areas = underside_slopes(mesh, LAYER_MM), facet_areas(mesh)
    find_overhang(mesh, slopes, 45.0, face_areas)
    took = max(
        best_of(5, lambda t=t: find_overhang(mesh, slopes, t, face_areas))[0] for t in (30, 45, 60)
    )
    _complete(mesh)
    line(
        "overhang for a changed threshold (slowest of 30°, 45°, 60°)",
        f"{took * 1e3:.1f} ms",
        "under 10 ms",
    )


def _complete(mesh: Mesh) -> None:
    """The complete inspection by filament, beside the reference's sections alone."""
    fdm = PROCESSES["fdm"]

    def ours():
        fresh = Mesh(mesh.vertices, mesh.facets)
        look = inspect_model(fresh, fdm)
        return (
            look,
            find(Placed(part_of(fresh, Setup()), fresh, np.eye(4), {}), look, 45.0),
            look.estimate(45.0),
        )

    own, (look, ledger, _) = best_of(4, ours)
    heights = look.layers.heights_mm
    some = heights[::REFERENCE_EVERY]
    other = trimesh.Trimesh(mesh.vertices, mesh.facets, process=False)
    took, _ = best_of(1, lambda: other.section_multiplane([0, 0, 0], [0, 0, 1], some))
    whole = took * len(heights) / len(some)
    line(f"complete inspection, {len(heights)} layers of 0.2 mm", f"{own * 1e3:.0f} ms")
    line("  trimesh section_multiplane alone (scaled)", f"{whole:.1f} s")
    line("  times as fast", f"{whole / own:.1f}", "at least 10")
    line("  findings", f"{len(ledger.findings)}")
