"""The OpenAPI description (3.1), put together from what the views say of themselves."""

import re
from collections.abc import Callable, Iterator

from django.urls import URLPattern, URLResolver, get_resolver

from fairstand.reading import TEXT, Reading, record

__all__ = ["addresses", "description"]

_PART = re.compile(r"<(?:(?P<kind>\w+):)?(?P<name>\w+)>")
_KINDS = {
    "int": {"type": "integer", "minimum": 0},
    "uuid": {"type": "string", "format": "uuid"},
    "str": TEXT,
}
_REFUSED = record({"state": {"type": "object"}, "strip": {"type": "object"}}, error=TEXT)


def addresses(resolver: URLResolver | None = None, before: str = "/") -> Iterator[tuple]:
    """Every address as ``(pattern, view)``."""
    for entry in (resolver or get_resolver()).url_patterns:
        text = before + str(entry.pattern)
        if isinstance(entry, URLResolver):
            yield from addresses(entry, text)
        elif isinstance(entry, URLPattern):
            yield text, entry.callback


def description() -> dict:
    """The OpenAPI description of everything that can be read."""
    paths = {}
    for pattern, view in addresses():
        reading = getattr(view, "reading", None)
        if reading is not None:
            paths[_PART.sub(r"{\g<name>}", pattern)] = {"get": _operation(pattern, view, reading)}
    return {
        "openapi": "3.1.0",
        "info": {
            "title": "Fair Stand, what can be read",
            "version": "1",
            "description": "Lengths in mm, angles in degrees, volumes in mm³; the build plate is "
            "z = 0. Addresses with `v` name the state that they belong to and may be kept for "
            "ever; without it, the answer is of the present state.",
        },
        "paths": dict(sorted(paths.items())),
        "components": {"schemas": {"Refused": _REFUSED}},
    }


def _operation(pattern: str, view: Callable, reading: Reading) -> dict:
    said = reading.summary.split("\n\n")[0].replace("\n    ", " ").strip()
    media = {"schema": reading.schema or ({"type": "object"} if "json" in reading.kind else TEXT)}
    if reading.kind.startswith(("application/octet", "image/png", "application/zip")):
        media = {}
    refused = {"application/json": {"schema": {"$ref": "#/components/schemas/Refused"}}}
    return {
        "operationId": f"{view.__module__.split('.')[1]}_{view.__name__}",
        "summary": said,
        "parameters": [
            *(
                {"name": part["name"], "in": "path", "required": True,
                 "schema": _KINDS[part["kind"] or "str"]}
                for part in _PART.finditer(pattern)
            ),
            *(
                {"name": name, "in": "query", "description": text, "schema": TEXT}
                for name, text in reading.query.items()
            ),
        ],
        "responses": {
            "200": {"description": said, "content": {reading.kind: media}},
            "400": {"description": "It cannot be read so: says why.", "content": refused},
            "404": {"description": "There is no such thing, or it is somebody else's."},
            "409": {"description": "It belongs to another state than the present one, or the "
                    "layers are not worked out yet.", "content": refused},
        },
    }  # fmt: skip
