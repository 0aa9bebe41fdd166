"""Where to cut: planes proposed and judged by what their parts would need."""

from .candidates import candidate_planes, planes_that_fit
from .edits import edits_of
from .ways import CutOut, cuts_out
from .where import CutProposal, PartAsItStands, propose_cuts

__all__ = [
    "CutOut",
    "CutProposal",
    "PartAsItStands",
    "candidate_planes",
    "cuts_out",
    "edits_of",
    "planes_that_fit",
    "propose_cuts",
]
