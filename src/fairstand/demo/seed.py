"""Put the demo pieces into the local maker's library, once."""

from fairstand.library.keeping import bring_in
from fairstand.library.models import Piece
from fairstand.owner import local_maker
from printability.mesh import binary_stl

from .pieces import PIECES

__all__ = ["seed"]


def seed() -> int:
    """Add the demo pieces to a library that has never held any; returns how many."""
    owner = local_maker()
    if Piece.objects.filter(owner=owner).exists():
        return 0
    for piece in reversed(PIECES):
        data = binary_stl(piece.make(), f"Reedmere {piece.name}")
        bring_in(owner, data, piece.filename, name=piece.name, problem=piece.problem)
    return len(PIECES)
