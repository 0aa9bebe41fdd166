"""Ways out of findings at the bench: worked out in the background, told with pictures."""

from django.template.loader import render_to_string

from fairstand.bench.section import close_up, section_context
from fairstand.memory import kept_object, stored_object
from fairstand.stances.current import Current, NeedsWork, current, digest
from fairstand.stances.cutting import plane_on_plate
from printability.cutting import cuts_out
from printability.edits import edit_from
from printability.edits.props import plain_support
from printability.errors import EditError
from printability.findings import Finding
from printability.ways_out import predict, props_out, reshapes_out, turns_out

from .turning import scorer_of

__all__ = ["finding_named", "look_for_ways_out", "ways_key", "ways_out_told"]


def finding_named(now: Current, finding_id: str) -> Finding:
    """A finding of the stance's ledger.

    Raises
    ------
    EditError
        If it is not there any more.
    """
    ledger = now.ledger(now.setup.effective_threshold_deg)
    for finding in ledger.findings:
        if finding.id == finding_id:
            return finding
    raise EditError("That finding is not there any more.")


def ways_key(now: Current, finding_id: str) -> str:
    """Names the ways out of a finding: what is accepted is not counted among what is left."""
    return digest(now.view_key, repr(now.setup.accepted), finding_id)


def _name(now: Current, finding_id: str) -> str:
    return f"ways/{ways_key(now, finding_id)}"


def look_for_ways_out(now: Current, finding_id: str, report) -> None:
    """Look for supports and turns that clear a finding; leaves them in the cache folder."""
    if stored_object(_name(now, finding_id)) is not None:
        return
    report("Inspecting the stance", 0.02)
    now.inspection(report)
    finding = finding_named(now, finding_id)
    before = predict(now.part, now.setup, now.sides)

    def in_first_part(stage: str, done: float) -> None:
        report(stage, 0.05 + 0.45 * done)

    def in_second_part(stage: str, done: float) -> None:
        report(stage, 0.5 + 0.3 * done)

    def in_third_part(stage: str, done: float) -> None:
        report(stage, 0.8 + 0.1 * done)

    def in_fourth_part(stage: str, done: float) -> None:
        report(stage, 0.9 + 0.1 * done)

    props = [
        {"text": way.text, "volume_mm3": way.volume_mm3, "scar_mm2": way.scar_mm2,
         "on_part": way.on_part, "gone": way.gone, "left": way.left, "new": way.new,
         "also": list(way.also), "supports": [plain_support(s) for s in way.supports]}
        for way in props_out(now.part, now.setup, finding, before, now.sides, in_first_part)
    ]  # fmt: skip
    found = turns_out(
        now.part, now.setup, finding, before, scorer_of(now), now.sides, in_second_part
    )
    kept = []
    for way in found:
        row = {
            "text": way.text, "angles_deg": way.angles_deg, "gone": way.gone, "left": way.left,
            "new": way.new, "better": way.better, "worse": way.worse, "island": way.island,
        }  # fmt: skip
        if finding.kind == "island":
            row["pictures"] = _pictures(now, finding, way)
        kept.append(row)
    cuts = [
        {
            "text": way.text, "plane": plane_on_plate(now, way.plane), "gone": way.gone,
            "left": way.left, "new": way.new, "seam_mm": way.seam_mm,
            "section_mm2": way.section_mm2,
            "parts": [{"side": p.side, "turn_deg": list(p.turn_deg)} for p in way.parts],
        }
        for way in cuts_out(now.part, now.setup, finding, before, in_third_part)
    ]  # fmt: skip
    shapes = [
        {
            "text": way.text, "change": way.change, "size": dict(way.size),
            "places": [place.plain() for place in way.places], "gone": way.gone, "left": way.left,
            "new": way.new, "farthest_mm": way.farthest_mm, "touches_show": way.touches_show,
        }
        for way in reshapes_out(now.part, now.setup, finding, before, in_fourth_part)
    ]  # fmt: skip
    found = {"turns": kept, "props": props, "cuts": cuts, "shapes": shapes}
    kept_object(_name(now, finding_id), found)


def _pictures(now: Current, finding: Finding, way) -> list[dict]:
    """The island's layer as it is, and its place in the turned stance, from equally near."""
    x, y, z = way.angles_deg
    turn = edit_from("turn", {"x_deg": x, "y_deg": y, "z_deg": z})
    turned = current(now.stance, now.edits, (turn,), part=now.setup.part)
    side = max(12.0, 0.3 * max(now.placed.size_mm))
    was, will_be = way.island
    pictures = []
    for stance, layer, place, lasts, label in (
        (now, finding.layer, finding.center_mm, was, "now"),
        (turned, way.layer, way.place_mm, will_be, "then"),
    ):
        # The last layer before it joins shows best what has grown by itself.
        shown = layer + max((lasts or 1) - 1, 0)
        shown = min(shown, stance.inspection().layers.count - 1)
        svg = render_to_string(
            "bench/_section_svg.html", close_up(section_context(stance, shown), place, side)
        )
        alone = "still apart" if lasts else "never joins" if lasts is None else "held"
        pictures.append({"label": f"{label}: {alone}", "layer": shown, "svg": str(svg)})
    return pictures


def ways_out_told(now: Current, finding_id: str) -> dict:
    """The ways out as the ledger shows them, and the supports of those by propping.

    Raises
    ------
    NeedsWork
        If they are not worked out yet.
    """
    found = stored_object(_name(now, finding_id))
    if found is None:
        raise NeedsWork
    finding = finding_named(now, finding_id)
    ways = [_shown(way) for way in found["turns"]]
    props = [way | {"others": max(way["gone"] - 1, 0)} for way in found["props"]]
    cuts = [way | {"others": max(way["gone"] - 1, 0)} for way in found["cuts"]]
    shapes = [way | {"others": max(way["gone"] - 1, 0)} for way in found["shapes"]]
    html = render_to_string(
        "turning/_ways_out.html",
        {"finding": finding, "ways": ways, "props": props, "cuts": cuts, "shapes": shapes},
    )
    told = [{"planes": [way["plane"]], "parts": way["parts"]} for way in cuts]
    changes = [{k: way[k] for k in ("change", "places", "size")} for way in shapes]
    return {
        "html": html, "props": [way["supports"] for way in props], "cuts": told,
        "shapes": changes,
    }  # fmt: skip


def _shown(way: dict) -> dict:
    out = way | {"others": max(way["gone"] - 1, 0)}
    if way["island"]:
        out["was"], out["will_be"] = way["island"]
    return out
