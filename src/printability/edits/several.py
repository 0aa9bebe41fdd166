"""Several edits that are one: made and undone at once."""

from dataclasses import dataclass, replace
from typing import ClassVar

from ..errors import EditError
from .base import Edit, edit_from, registered

__all__ = ["MOST_AT_ONCE", "Several"]

MOST_AT_ONCE = 60


@registered
@dataclass(frozen=True)
class Several(Edit):
    """Edits one after another, as ``{"kind", "parameters"}``; ``what`` is what they do together."""

    kind: ClassVar[str] = "several"
    edits: tuple = ()
    what: str = ""

    def __post_init__(self):
        if not isinstance(self.what, str) or len(self.what) > 60:
            raise EditError("What several edits do is said in up to 60 letters.")
        if not isinstance(self.edits, list | tuple) or not 0 < len(self.edits) <= MOST_AT_ONCE:
            raise EditError(f"From one to {MOST_AT_ONCE} edits can be made at once.")
        made = []
        for one in self.edits:
            if isinstance(one, Edit):
                made.append(one)
                continue
            if not isinstance(one, dict) or set(one) != {"kind", "parameters"}:
                raise EditError("One of the edits cannot be read.")
            if not isinstance(one["kind"], str) or one["kind"] == self.kind:
                raise EditError("One of the edits cannot be read.")
            made.append(edit_from(one["kind"], one["parameters"]))
        object.__setattr__(self, "edits", tuple(made))

    @property
    def names_facets(self):
        return any(one.names_facets for one in self.edits)

    def concerns(self, part):
        return any(one.concerns(part) for one in self.edits)

    def located(self, part):
        return replace(self, edits=tuple(one.located(part) for one in self.edits))

    def parameters(self):
        out = super().parameters()
        out["edits"] = [{"kind": one.kind, "parameters": one.parameters()} for one in self.edits]
        return out

    def applied(self, setup, source):
        for one in self.edits:
            if one.concerns(setup.part):
                setup = one.applied(setup, source)
        return setup

    def said(self):
        return self.what or self.edits[0].said()
