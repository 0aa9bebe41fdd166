"""A section by a plane at any angle."""

from dataclasses import dataclass

import numpy as np

from ..mesh import Mesh
from .slicing import outlines, section_at

__all__ = ["PlaneSection", "plane_section"]


@dataclass(frozen=True, eq=False)
class PlaneSection:
    """What a plane cuts out of a model.

    Attributes
    ----------
    loops : list of (n, 2) float
        Outlines counter-clockwise, holes clockwise, in the plane's own axes, mm.
    area_mm2 : float
    origin_mm : (3,) float
        The point of the plane where its axes are 0, 0.
    axes : (2, 3) float
        The plane's axes: the first lies level, the second points up along the plane.
    """

    loops: list[np.ndarray]
    area_mm2: float
    origin_mm: np.ndarray
    axes: np.ndarray

    def in_space(self, loop: np.ndarray) -> np.ndarray:
        """A loop's points on the plate, (n, 3) mm."""
        return self.origin_mm + loop @ self.axes


def plane_section(mesh: Mesh, origin_mm: np.ndarray, normal: np.ndarray) -> PlaneSection:
    """Cut a placed model by the plane through a point.

    Parameters
    ----------
    mesh : Mesh
    origin_mm : (3,) float
    normal : (3,) float
        Of any length but zero; the section is seen from where it points.
    """
    n = np.asarray(normal, float) / np.linalg.norm(normal)
    level = np.cross((0.0, 0.0, 1.0), n)
    u = level / np.linalg.norm(level) if np.linalg.norm(level) > 1e-9 else np.array([1.0, 0, 0])
    v = np.cross(n, u)
    moved = np.ascontiguousarray((mesh.vertices - origin_mm) @ np.stack([u, v, n]).T)
    layers = section_at(mesh.moved(moved), 0.0)
    return PlaneSection(
        outlines(layers, 0), float(layers.area_mm2[0]), np.asarray(origin_mm, float),
        np.stack([u, v]),
    )  # fmt: skip
