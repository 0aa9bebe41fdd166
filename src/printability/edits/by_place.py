"""Edits that name facets of a mesh as edits that name places."""

from collections.abc import Iterable

from ..mesh import Mesh
from ..stance import Setup, part_of
from .base import Edit

__all__ = ["kept_by_place"]


def kept_by_place(source: Mesh, edits: Iterable[Edit], start: Setup | None = None) -> list[Edit]:
    """The same edits with everything that was pointed out kept by place.

    Each is located on the part as the edits before it left that.

    Raises
    ------
    EditError
        If something was pointed out that is not on the piece.
    """
    setup, kept = start or Setup(), []
    for edit in edits:
        edit.check_part((setup.part,))
        if edit.names_facets:
            edit = edit.located(part_of(source, setup))
        setup = edit.applied(setup, source)
        kept.append(edit)
    return kept
