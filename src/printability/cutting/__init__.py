"""Where to cut: planes proposed and judged by what their parts would need."""

from .candidates import candidate_planes, planes_that_fit
from .where import CutProposal, PartAsItStands, propose_cuts

__all__ = [
    "CutProposal",
    "PartAsItStands",
    "candidate_planes",
    "planes_that_fit",
    "propose_cuts",
]
