"""What the workshop's pages send, as plain data for the core."""

import math

from printability.errors import ProcessError
from printability.process import PROCESSES, OwnProcess, Process, Rule
from printability.proposing import HabitLine

from .shelf import Shelved, choices, filled

__all__ = ["fields_of", "lines_of", "profiles_of", "said_by"]

GROUPS = (
    ("Layers and machine", ("layer_height_mm", "line_mm", "pixel_mm", "build_x_mm", "build_y_mm",
                            "build_z_mm", "spacing_mm", "flow_mm3_s", "layer_s")),
    ("Material and forces", ("density_g_cm3", "young_gpa", "green_n_mm2", "plate_n_mm2",
                             "bond_n_mm2", "pull_n_mm2", "drag_n", "fill")),
    ("What prints by itself", ("threshold_deg", "bridge_mm", "ledge_mm", "notable_mm", "wall_mm",
                               "absorbed_layers", "hold_flat_mm", "hold_steep_mm", "cup_mm3",
                               "cup_open", "corner_mm", "neck_ratio")),
    ("How it stands", ("margin_mm", "tip_deg", "slender", "rough_from_deg", "rough_to_deg")),
    ("Supports", ("contact_mm", "embed_mm", "tip_mm", "lean_deg", "shaft_mm", "foot_mm",
                  "foot_height_mm", "pad_mm", "pad_height_mm", "grid_density")),
)  # fmt: skip
PARTS = ("contact", "shaft", "foot")
_LINE_PAIRS = ("size_mm2", "slope_deg", "height_mm")


def number(text, label: str) -> float:
    """A number as it was typed; a comma will do for a point."""
    try:
        value = float(str(text).strip().replace(",", "."))
    except ValueError:
        value = math.nan
    if not math.isfinite(value):
        raise ProcessError(f"The {label} must be a number.")
    return value


def made(user, thing: Shelved) -> Process:
    """The process that a shelved one comes to."""
    return OwnProcess.from_plain(filled(user, thing)).process(thing.key)


def fields_of(user, thing: Shelved) -> list[dict]:
    """Groups of numbers as the page shows them, with what they would be without the copy."""
    shipped = PROCESSES[thing.like]
    if thing.noun.key == "process":
        own = made(user, thing)
        values = {rule.key: rule.value for rule in own.rules}
        bare = _bare(user, thing)
    else:
        values = dict(thing.said.get("values", {}))
        bare = {key: shipped[key] for key in values}
    rules = {rule.key: rule for rule in shipped.rules}
    out = []
    for title, keys in GROUPS:
        rows = [_row(rules[key], values[key], bare[key]) for key in keys if key in values]
        if rows:
            out.append({"title": title, "rows": rows})
    return out


def _row(rule: Rule, value: float, bare: float) -> dict:
    return {
        "name": f"rule-{rule.key}", "label": rule.label, "unit": rule.unit, "value": f"{value:g}",
        "differs": value != bare, "bare": f"{bare:g}", "standing": rule.standing.value,
        "low": f"{rule.low:g}", "high": f"{rule.high:g}",
    }  # fmt: skip


def _bare(user, thing: Shelved) -> dict[str, float]:
    """Its numbers by machine and material alone."""
    said = filled(user, thing) | {"rules": {}, "profiles": {}}
    return {r.key: r.value for r in OwnProcess.from_plain(said).process("").rules}


def profiles_of(user, thing: Shelved) -> list[dict]:
    """Profiles with their dimensions and drawings, all to one scale."""
    process = made(user, thing)
    widest = max(size for sizes in process.profiles.values() for size in sizes)
    out = []
    for name, sizes in process.profiles.items():
        contact, shaft, foot = (50 * size / widest for size in sizes)
        right = [(contact / 2, 4), (contact / 2, 10), (shaft / 2, 26), (shaft / 2, 96),
                 (foot / 2, 108), (foot / 2, 116)]  # fmt: skip
        points = [(32 + x, y) for x, y in right] + [(32 - x, y) for x, y in reversed(right)]
        out.append(
            {
                "name": name,
                "sizes": [
                    {"name": f"profile-{name}-{part}", "label": part, "value": f"{size:g}"}
                    for part, size in zip(PARTS, sizes, strict=True)
                ],
                "points": " ".join(f"{x:.1f},{y:.1f}" for x, y in points),
                "is_own": name not in PROCESSES[thing.like].profiles,
            }
        )
    return out


def lines_of(thing: Shelved) -> list[dict]:
    """Lines of a table of habits, numbered as the maker reads them; open ends are empty."""
    out = []
    for i, line in enumerate(thing.said["lines"]):
        row = dict(line) | {"number": i + 1, "index": i, "spacing": f"{line['spacing_mm']:g}"}
        row["contact"] = f"{line['contact_mm']:g}" if line["contact_mm"] else ""
        whole = HabitLine()
        for name in _LINE_PAIRS:
            low, high = line[name]
            row[name] = {
                "low": f"{low:g}" if low else "",
                "high": "" if high >= getattr(whole, name)[1] else f"{high:g}",
            }
        out.append(row)
    return out


def said_by(user, thing: Shelved, posted) -> dict:
    """What a thing is to say by its form.

    Raises
    ------
    ProcessError
        If something typed is no number.
    """
    read = {"process": _process, "habits": _habits}.get(thing.noun.key, _values)
    return read(user, thing, posted) | {"label": posted.get("label", thing.label)}


def _values(user, thing: Shelved, posted) -> dict:
    said = dict(thing.said)
    labels = {rule.key: rule.label for rule in PROCESSES[thing.like].rules}
    said["values"] = {
        key: number(posted[f"rule-{key}"], labels[key]) if f"rule-{key}" in posted else value
        for key, value in said["values"].items()
    }
    if "heights" in posted:
        texts = [part for part in posted["heights"].replace(";", " ").split() if part]
        said["layer_heights_mm"] = [number(part.strip(","), "layer height") for part in texts]
    if "step" in posted:
        said["step"] = posted["step"]
    return said


def _process(user, thing: Shelved, posted) -> dict:
    said = dict(thing.said)
    for noun in ("machine", "material"):
        key = posted.get(noun)
        if key:
            if all(key != one.key for one in choices(user, noun, thing.like)) and key != said[noun]:
                raise ProcessError(f"That {noun} is not in the workshop any more.")
            said[noun] = key
    was = {row["name"]: row["value"] for g in fields_of(user, thing) for row in g["rows"]}
    bare = _bare(user, Shelved(thing.noun, thing.key, thing.label, thing.like, said))
    rules = dict(said.get("rules", {}))
    for rule in PROCESSES[thing.like].rules:
        name = f"rule-{rule.key}"
        if name not in posted:
            continue
        # A number left as it was follows another machine or material.
        if posted[name].strip() == was.get(name) and rule.key not in rules:
            continue
        value = number(posted[name], rule.label)
        if value == bare[rule.key]:
            rules.pop(rule.key, None)
        else:
            rules[rule.key] = value
    said["rules"] = rules
    said["profiles"] = _profiles(user, thing, posted)
    return said


def _profiles(user, thing: Shelved, posted) -> dict:
    profiles = dict(thing.said.get("profiles", {}))
    gone = posted.get("do", "")
    for row in profiles_of(user, thing):
        name = row["name"]
        if gone == f"drop-profile-{name}":
            profiles.pop(name, None)
            continue
        typed = [posted.get(one["name"], one["value"]) for one in row["sizes"]]
        if [one["value"] for one in row["sizes"]] != [text.strip() for text in typed]:
            profiles[name] = [
                number(text, f"{part} of “{name}”") for text, part in zip(typed, PARTS, strict=True)
            ]
    if posted.get("do") == "add-profile":
        name = posted.get("new-profile", "").strip()
        sizes = made(user, thing).profiles
        if not name or name in sizes:
            raise ProcessError("The new profile needs a name that no other has.")
        profiles[name] = list(sizes["medium"])
    return profiles


def _habits(user, thing: Shelved, posted) -> dict:
    lines = []
    whole = HabitLine()
    for i, old in enumerate(thing.said["lines"]):
        line = dict(old)
        for name in ("place", "side", "stand", "profile"):
            line[name] = posted.get(f"line-{i}-{name}", line[name])
        for name in _LINE_PAIRS:
            pair = []
            for end, open_end in zip(("low", "high"), getattr(whole, name), strict=True):
                text = posted.get(f"line-{i}-{name}-{end}")
                at = line[name][0 if end == "low" else 1]
                pair.append(
                    at if text is None else number(text, name) if text.strip() else open_end
                )
            line[name] = pair
        for name, empty in (("spacing_mm", 5.0), ("contact_mm", 0.0)):
            text = posted.get(f"line-{i}-{name}")
            if text is not None:
                line[name] = number(text, name) if text.strip() else empty
        lines.append(line)
    what, _, at = posted.get("do", "").partition("-line-")
    n = int(at) if at.isascii() and at.isdigit() and len(at) < 4 else -1
    if what == "add":
        lines.insert(len(lines), {"place": "any", "stand": "one"})
    elif 0 <= n < len(lines):
        if what == "drop":
            del lines[n]
        elif what == "up" and n:
            lines[n - 1], lines[n] = lines[n], lines[n - 1]
    return {"lines": lines}
