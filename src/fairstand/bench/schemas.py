"""What the bench's reading views answer, as JSON schemas."""

from fairstand.reading import FLAG, NUMBER, TEXT, WHOLE, items, maybe, numbers, record

__all__ = ["BODIES", "FINDINGS", "PLANE", "STATE"]

_SUPPORT = record(
    key=TEXT, kind=TEXT, label=TEXT, why=TEXT, insist=FLAG, has_contact=FLAG, fit=TEXT, text=TEXT,
    contact_mm=numbers(3), contact_slope_deg=NUMBER,
    blocked_at_mm=maybe(numbers(3)), rods=items(numbers(8)), ends=items({"type": "object"}),
    size={"type": "object"},
)  # fmt: skip
_MEASURE = record(
    key=TEXT, kind=TEXT, value=maybe(NUMBER), unit=TEXT, text=TEXT, line_mm=items(numbers(3))
)
_DOUBT = record(kind=TEXT, text=TEXT, choices=items(record(unit=TEXT, mm=NUMBER)))

STATE = record(
    key=TEXT, revision=WHOLE, view_key=TEXT, part=TEXT,
    parts=items(record(key=TEXT, label=TEXT, volume_mm3=NUMBER)),
    cuts=items(record(key=TEXT, part=TEXT, of=TEXT, kerf_mm=NUMBER, keep=TEXT, loose=TEXT,
                      joints=WHOLE, dovetail=FLAG, seam=TEXT,
                      plane=record(normal=numbers(3), point=numbers(3)))),
    changes=items(record(
        key=TEXT, change=TEXT, label=TEXT, on=FLAG, part=TEXT, size={"type": "object"}, insist=FLAG,
        places_mm=items(numbers(3)),
        told=record(added_mm3=NUMBER, taken_mm3=NUMBER, farthest_mm=NUMBER, said=items(TEXT),
                    problem=TEXT),
    )),
    usual_sizes={"type": "object"}, unit=TEXT, process=TEXT, process_label=TEXT,
    layer_height_mm=NUMBER, threshold_deg=NUMBER, process_threshold_deg=NUMBER,
    build_volume_mm=numbers(3), angles_deg=numbers(3), lift_mm=NUMBER, move_mm=numbers(2),
    scale=numbers(3), mirrored=items(FLAG, 3), own_size_mm=numbers(3), outside=items(TEXT),
    matrix=numbers(16), size_mm=numbers(3), top_mm=NUMBER, facets=WHOLE, is_closed=FLAG,
    mesh_url=TEXT, creases_url=TEXT, body_of_facet_url=TEXT, slopes_url=TEXT,
    drawing_url=TEXT, sides_url=TEXT, colours_url=TEXT, palette=items(record(name=TEXT, rgb=TEXT)),
    solids_url=TEXT, held_url=TEXT, note=TEXT,
    pillars=items(_SUPPORT), measures=items(_MEASURE),
    layers_of_pillars={"type": "object", "additionalProperties": WHOLE}, doubts=items(_DOUBT),
    undo=maybe(TEXT), redo=maybe(TEXT),
)  # fmt: skip

_FINDING = record(
    id=TEXT, kind=TEXT, severity=TEXT, title=TEXT, short=TEXT, burden=NUMBER, layer=WHOLE,
    z_mm=NUMBER, center_mm=numbers(3), place=numbers(3), patch=maybe(WHOLE), from_below=FLAG,
    accepted=maybe(TEXT),
)  # fmt: skip
_PLACE = record(
    id=TEXT, number=WHOLE, title=TEXT, kind=TEXT, severity=TEXT, accepted=FLAG, z_mm=NUMBER,
    center_mm=numbers(3), findings=items(TEXT), patches=items(WHOLE),
)  # fmt: skip

FINDINGS = record(
    {
        "ledger_html": TEXT, "problems": WHOLE, "findings": items(_FINDING),
        "places": items(_PLACE), "estimate": {"type": "object"},
        "tower": record(
            layer_height_mm=NUMBER, count=WHOLE, area_mm2=numbers(), grip=numbers(),
            perimeter_mm=numbers(),
        ),
    },
    key=TEXT, threshold_deg=NUMBER, overhang=record(area_mm2=NUMBER, patches=WHOLE), ready=FLAG,
    error=TEXT,
)  # fmt: skip

BODIES = record(
    bodies=items(record(number=WHOLE, volume_mm3=NUMBER, size_mm=numbers(3))),
    same=items(items(WHOLE)), mirrored=items(items(WHOLE, 2)),
)  # fmt: skip

PLANE = record(
    html=TEXT, area=NUMBER, lines=items(numbers()), reach=NUMBER, normal=numbers(3),
    origin=numbers(3),
)  # fmt: skip
