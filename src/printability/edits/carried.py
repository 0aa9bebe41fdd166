"""Edits as they were kept before, as they are kept now."""

__all__ = ["carried_over"]


def carried_over(kind: str, parameters: dict) -> tuple[str, dict]:
    """Kind and parameters of today for those of an earlier day; others as they are.

    Places that were kept as a facet and weights are what is pointed out on the import: the edit's
    ``located`` makes them places.
    """
    if kind == "pillar" and {"facet", "weights"} <= set(parameters):
        rest = {k: v for k, v in parameters.items() if k not in ("facet", "weights")}
        at = {"facet": parameters["facet"], "weights": parameters["weights"]}
        return "support", rest | {"support": "pillar", "ends": [at, {"plate": None}]}
    if kind == "remove_pillar":
        return "remove_support", parameters
    if kind in ("fill", "face_down") and "facet" in parameters:
        rest = {k: v for k, v in parameters.items() if k != "facet"}
        middle = [1 / 3, 1 / 3, 1 / 3]
        return kind, rest | {"at": {"facet": parameters["facet"], "weights": middle}}
    return kind, parameters
