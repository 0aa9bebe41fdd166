"""A stance as a file: everything that was done to a piece, and nothing that follows from it.

JSON as described by `SCHEMA` and docs/stance-file.md. The model itself stays in its own file; it
is named by the hash of its bytes.
"""

import json
from collections.abc import Iterable
from dataclasses import dataclass

from .edits import EDIT_KINDS, Edit, edit_from
from .errors import EditError, StanceFileError
from .mesh import MM_PER_UNIT

__all__ = ["SCHEMA", "StanceFile", "is_text", "read_stance", "written_stance"]

VERSION = 2
# Version 1 named places by facets of the import and weights of their corners.
READ = (1, 2)
MOST_BYTES = 100_000_000
MOST_EDITS = 100_000
_HEX = "0123456789abcdef"

SCHEMA = {
    "$schema": "https://json-schema.org/draft/2020-12/schema",
    "title": "Stance of a piece",
    "type": "object",
    "required": ["fair_stand_stance", "model", "edits"],
    "additionalProperties": False,
    "properties": {
        "fair_stand_stance": {"const": VERSION},
        "piece": {"type": "string", "maxLength": 120},
        "name": {"type": "string", "maxLength": 80},
        "model": {
            "type": "object",
            "required": ["sha256", "unit"],
            "additionalProperties": False,
            "properties": {
                "file": {"type": "string"},
                "sha256": {"type": "string", "pattern": "^[0-9a-f]{64}$"},
                "unit": {"enum": list(MM_PER_UNIT)},
            },
        },
        "edits": {
            "type": "array",
            "maxItems": MOST_EDITS,
            "items": {
                "type": "object",
                "required": ["kind", "parameters"],
                "additionalProperties": False,
                "properties": {
                    "kind": {"enum": sorted(EDIT_KINDS)},
                    "parameters": {"type": "object"},
                },
            },
        },
    },
}


@dataclass(frozen=True)
class StanceFile:
    """What a stance file says.

    Attributes
    ----------
    piece, name : str
        Names of piece and stance.
    file : str
        Name of the model's file.
    sha256 : str
        Of the bytes of that file.
    unit : str
        That the file's numbers are read in before any edit.
    edits : tuple of Edit
    """

    piece: str
    name: str
    file: str
    sha256: str
    unit: str
    edits: tuple[Edit, ...]

    def check_model(self, sha256: str) -> None:
        """Whether the edits can be made on a model's file.

        Raises
        ------
        StanceFileError
            If some name facets of another file, as edits of version 1 do.
        """
        if sha256 == self.sha256:
            return
        for edit in self.edits:
            if edit.names_facets:
                raise StanceFileError(
                    f"The stance was made for another file (“{self.file or 'unnamed'}”): its edit "
                    f"“{edit.said()}” belongs to a place on that."
                )


def written_stance(stance: StanceFile) -> str:
    """The file's text; the same stance gives the same bytes."""
    return json.dumps(
        {
            "fair_stand_stance": VERSION,
            "piece": stance.piece,
            "name": stance.name,
            "model": {"file": stance.file, "sha256": stance.sha256, "unit": stance.unit},
            "edits": [{"kind": e.kind, "parameters": e.parameters()} for e in stance.edits],
        },
        indent=1,
        ensure_ascii=False,
        allow_nan=False,
    ) + "\n"  # fmt: skip


def is_text(said, written: str | bytes) -> bool:
    """Whether what JSON says can be written again: half of a surrogate pair cannot.

    Parameters
    ----------
    said : object
        As it was read.
    written : str or bytes
        What it was read from; most has no such escape and is not looked through.
    """
    escape = b"\\ud" if isinstance(written, bytes) else "\\ud"
    if escape not in written.lower():
        return True
    try:
        json.dumps(said, ensure_ascii=False).encode()
    except UnicodeEncodeError:
        return False
    return True


def read_stance(text: str | bytes) -> StanceFile:
    """What a stance file says, checked.

    Raises
    ------
    StanceFileError
        With a sentence that says what is wrong.
    """
    if len(text) > MOST_BYTES:
        raise StanceFileError("The stance file is larger than any stance; it is refused.")
    try:
        said = json.loads(text)
    except (ValueError, RecursionError) as error:
        raise StanceFileError("That is no stance file: it cannot be read as JSON.") from error
    if not is_text(said, text):
        raise StanceFileError("That is no stance file: it has half of a character in it.")
    if not isinstance(said, dict) or "fair_stand_stance" not in said:
        raise StanceFileError("That is no stance file: “fair_stand_stance” is missing.")
    if said["fair_stand_stance"] not in READ:
        raise StanceFileError(
            f"The stance file has version {said['fair_stand_stance']}; up to {VERSION} is read."
        )
    _known(said, SCHEMA["properties"], "The stance file")
    model = said.get("model")
    if not isinstance(model, dict):
        raise StanceFileError("The stance file does not say which model it is for.")
    _known(model, SCHEMA["properties"]["model"]["properties"], "The model")
    sha256, unit = model.get("sha256"), model.get("unit")
    is_hash = isinstance(sha256, str) and len(sha256) == 64 and set(sha256) <= set(_HEX)
    if not is_hash or not isinstance(unit, str) or unit not in MM_PER_UNIT:
        raise StanceFileError("The stance file does not say which model it is for.")
    return StanceFile(
        _text(said, "piece", 120), _text(said, "name", 80), _text(model, "file", 255), sha256,
        unit, tuple(_edits(said.get("edits"))),
    )  # fmt: skip


def _edits(rows) -> Iterable[Edit]:
    if not isinstance(rows, list) or len(rows) > MOST_EDITS:
        raise StanceFileError("The edits of the stance file cannot be read.")
    for number, row in enumerate(rows, start=1):
        if not isinstance(row, dict) or set(row) != {"kind", "parameters"}:
            raise StanceFileError(f"Edit {number} of the stance file cannot be read.")
        if not isinstance(row["kind"], str):
            raise StanceFileError(f"Edit {number} of the stance file cannot be read.")
        try:
            yield edit_from(row["kind"], row["parameters"])
        except EditError as error:
            raise StanceFileError(f"Edit {number} of the stance file: {error}") from error


def _known(said: dict, names: dict, what: str) -> None:
    for name in said:
        if name not in names:
            raise StanceFileError(f"{what} has no “{name}”.")


def _text(said: dict, name: str, most: int) -> str:
    value = said.get(name, "")
    if not isinstance(value, str) or len(value) > most:
        raise StanceFileError(f"The {name} in the stance file is a text of up to {most} letters.")
    return value
