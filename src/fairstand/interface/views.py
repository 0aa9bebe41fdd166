"""The description, and a page that shows it without anything from elsewhere."""

from django.http import JsonResponse
from django.shortcuts import render
from django.views.decorators.http import require_GET

from fairstand.reading import described

from .openapi import description

__all__ = ["openapi", "page"]


@require_GET
@described()
def openapi(request):
    """This description, as OpenAPI 3.1."""
    return JsonResponse(description(), json_dumps_params={"ensure_ascii": False})


@require_GET
def page(request):
    """What can be read, for people."""
    told = description()
    rows = [{"path": path, **methods["get"]} for path, methods in told["paths"].items()]
    for row in rows:
        ((row["media"], content),) = row["responses"]["200"]["content"].items()
        row["fields"] = list(_fields(content.get("schema", {})))
    return render(request, "interface/page.html", {"info": told["info"], "rows": rows})


def _fields(schema: dict, before: str = ""):
    """Name and kind of every field of a schema, nested ones with a dot."""
    for name, own in schema.get("properties", {}).items():
        full, kind, inner = f"{before}{name}", _kind(own), own
        while inner.get("type") == "array" or "anyOf" in inner:
            inner = inner["items"] if inner.get("type") == "array" else inner["anyOf"][0]
        yield {"name": full, "kind": kind, "optional": name not in schema.get("required", ())}
        yield from _fields(inner, f"{full}.")


def _kind(schema: dict) -> str:
    if "anyOf" in schema:
        return f"{_kind(schema['anyOf'][0])} or null"
    if schema.get("type") == "array":
        count = f" of {schema['minItems']}" if "minItems" in schema else ""
        return f"list{count}: {_kind(schema['items'])}"
    return schema.get("type", "anything")
