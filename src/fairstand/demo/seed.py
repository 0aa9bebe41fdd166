"""Put the demo pieces into the local maker's library, once."""

from fairstand.library.keeping import bring_in
from fairstand.library.models import Piece
from fairstand.owner import local_maker
from printability.mesh import Part, binary_stl, threemf

from .pieces import PIECES, DemoPiece

__all__ = ["file_of", "seed"]


def file_of(piece: DemoPiece) -> bytes:
    """A demo piece as the file that a maker would bring in."""
    mesh = piece.make()
    title = f"Reedmere {piece.name}"
    if piece.colours is None:
        return binary_stl(mesh, title)
    return threemf.write([Part(title, mesh, False, piece.colours(mesh))], title)


def seed() -> int:
    """Add the demo pieces to a library that has never held any; returns how many."""
    owner = local_maker()
    if Piece.objects.filter(owner=owner).exists():
        return 0
    for piece in reversed(PIECES):
        bring_in(owner, file_of(piece), piece.filename, name=piece.name, problem=piece.problem)
    return len(PIECES)
