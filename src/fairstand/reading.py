"""What a reading view answers, said beside it, for the interface's description."""

from collections.abc import Callable
from dataclasses import dataclass

__all__ = [
    "BYTES",
    "FLAG",
    "NUMBER",
    "TEXT",
    "WHOLE",
    "Reading",
    "described",
    "items",
    "maybe",
    "numbers",
    "record",
]

# Pieces of JSON schemas (draft 2020-12).
NUMBER, TEXT, FLAG = {"type": "number"}, {"type": "string"}, {"type": "boolean"}
WHOLE = {"type": "integer"}
BYTES = "application/octet-stream"


def items(of: dict, count: int | None = None) -> dict:
    """A list of things of one schema."""
    exact = {} if count is None else {"minItems": count, "maxItems": count}
    return {"type": "array", "items": of, **exact}


def numbers(count: int | None = None) -> dict:
    """A list of numbers."""
    return items(NUMBER, count)


def maybe(of: dict) -> dict:
    """A thing of a schema, or null."""
    return {"anyOf": [of, {"type": "null"}]}


def record(optional: dict | None = None, /, **fields: dict) -> dict:
    """An object with those fields; further ones may come."""
    return {
        "type": "object",
        "required": list(fields),
        "properties": fields | (optional or {}),
    }


@dataclass(frozen=True)
class Reading:
    """A reading view.

    Attributes
    ----------
    summary : str
    kind : str
        Media type of the answer.
    schema : dict or None
        JSON schema of the answer, for JSON.
    query : dict
        Name to description of what may be asked for in the address.
    """

    summary: str
    kind: str
    schema: dict | None
    query: dict[str, str]


def described(
    kind: str = "application/json", schema: dict | None = None, query: dict[str, str] | None = None
) -> Callable:
    """Decorator: notes what a reading view answers; its docstring is the summary."""

    def note(view: Callable) -> Callable:
        view.reading = Reading(view.__doc__ or "", kind, schema, query or {})
        return view

    return note
