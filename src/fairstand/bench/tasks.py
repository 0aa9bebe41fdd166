"""Background tasks of the bench."""

import numpy as np
from django.urls import reverse

from fairstand.library.keeping import kept_as_pieces, read_file, source_mesh
from fairstand.library.models import Piece
from fairstand.stances.current import as_asked
from fairstand.work.models import QUICK
from fairstand.work.tasks import task
from printability.errors import EditError
from printability.mesh import Mesh, binary_stl

__all__ = ["separate_bodies", "slice_stance"]


@task()
def slice_stance(work, report, stance_id: int, recipe: list, every_part: bool = False) -> dict:
    """Work out layers and islands of the part on the bench, or of all parts, and keep them."""
    report("Turning the model", 0.05)
    now = as_asked(work, stance_id, recipe)
    look = now.inspection(report)
    for part in now.parts if every_part else ():
        now.of_part(part.key).inspection(report)
    return {"key": now.key, "layers": look.layers.count}


@task(QUICK)
def separate_bodies(work, report, piece_id: int, unit: str) -> dict:
    """Make every body of a piece's source a piece of its own: all of them or none."""
    piece = Piece.objects.of(work.owner).filter(pk=piece_id).first()
    if piece is None:
        raise EditError("The piece was deleted meanwhile.")
    source = source_mesh(piece)
    count = int(source.body_of_facet.max()) + 1
    files, names = [], []
    for number in range(count):
        report(f"Body {number + 1} of {count}", number / count)
        facets = source.facets[source.body_of_facet == number]
        names.append(f"{piece.name[:100]}, body {number + 1}")
        own = binary_stl(Mesh(source.vertices, np.ascontiguousarray(facets)), names[-1])
        files.append(read_file(own, f"{piece.filename[:200]}-{number + 1}.stl"))
    made = kept_as_pieces(work.owner, files, names, file_unit=unit)
    query = ",".join(str(one.pk) for one in made)
    return {"made": count, "url": f"{reverse('library:index')}?made={query}"}
