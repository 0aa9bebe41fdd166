"""The kinds of edit that a stance is made of.

Each kind is one frozen dataclass, registered under its key; its fields are its parameters,
validated on construction, and ``applied`` takes a `Setup` to the next one. A new kind is one
such class in the module of its subject.
"""

from . import colours, cuts, marks, process, props, reshaping, several, size, turns
from .base import EDIT_KINDS, Edit, edit_from
from .by_place import kept_by_place
from .carried import carried_over

__all__ = [
    "EDIT_KINDS",
    "Edit",
    "carried_over",
    "colours",
    "cuts",
    "edit_from",
    "kept_by_place",
    "marks",
    "process",
    "props",
    "reshaping",
    "several",
    "size",
    "turns",
]
