"""Write STL."""

import numpy as np

from .model import Mesh

__all__ = ["binary_stl"]


def binary_stl(mesh: Mesh, title: str) -> bytes:
    """Binary STL of a mesh in millimetres; the title goes into the header (ASCII, 79 bytes).

    The header never begins with "solid", which some readers take for text.
    """
    corners = mesh.vertices[mesh.facets].astype("<f4")
    edge1, edge2 = corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0]
    normal = np.cross(edge1.astype(np.float64), edge2.astype(np.float64))
    length = np.linalg.norm(normal, axis=1, keepdims=True)
    record = np.dtype([("normal", "<f4", 3), ("corners", "<f4", (3, 3)), ("attribute", "<u2")])
    rows = np.zeros(len(corners), record)
    rows["normal"] = np.divide(normal, length, out=np.zeros_like(normal), where=length > 0)
    rows["corners"] = corners
    header = ("mm " + title).encode("ascii", "replace")[:79].ljust(80, b" ")
    return header + len(rows).to_bytes(4, "little") + rows.tobytes()
