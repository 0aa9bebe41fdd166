"""Read, check, repair, move and write meshes."""

from .facet_colours import MOST_COLOURS, NAMED, FacetColours, name_of, rgb_of
from .faults import Fault, find_faults
from .identity import same_and_mirrored
from .index import FacetIndex, facet_boxes, first_hits
from .model import (
    Mesh,
    MeshFacts,
    crease_edges,
    crowded_edges,
    facet_areas,
    facet_normals,
    joined,
    mesh_facts,
    volume_mm3,
)
from .needles import fewer_needles, needles
from .part import Part
from .read import FORMATS, Opened, ReadLimits, check_size, in_mm, open_mesh
from .repair import Repair, repaired
from .simplify import coarser
from .solids import as_solid, bodies_apart, mesh_of, pieces_of, side_by_side, union_of_bodies
from .spreading import facets_by_area, spread_in
from .transforms import angles_of_rotation, rotation_about_axes, rotation_taking_down
from .units import MM_PER_UNIT, UnitDoubt, unit_doubt
from .write import binary_stl

__all__ = [
    "FORMATS",
    "MM_PER_UNIT",
    "MOST_COLOURS",
    "NAMED",
    "FacetColours",
    "FacetIndex",
    "Fault",
    "Mesh",
    "MeshFacts",
    "Opened",
    "Part",
    "ReadLimits",
    "Repair",
    "UnitDoubt",
    "angles_of_rotation",
    "as_solid",
    "binary_stl",
    "bodies_apart",
    "check_size",
    "coarser",
    "crease_edges",
    "crowded_edges",
    "facet_areas",
    "facet_boxes",
    "facet_normals",
    "facets_by_area",
    "fewer_needles",
    "find_faults",
    "first_hits",
    "in_mm",
    "joined",
    "mesh_facts",
    "mesh_of",
    "name_of",
    "needles",
    "open_mesh",
    "pieces_of",
    "repaired",
    "rgb_of",
    "rotation_about_axes",
    "rotation_taking_down",
    "same_and_mirrored",
    "side_by_side",
    "spread_in",
    "union_of_bodies",
    "unit_doubt",
    "volume_mm3",
]
