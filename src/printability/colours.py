"""The colours of drawings, said once: pictures, pages and the style sheet take them from here."""

import json
from pathlib import Path

__all__ = ["COLOURS", "rgb"]

# Name to #rrggbb.
COLOURS: dict[str, str] = json.loads(
    Path(__file__).with_name("colours.json").read_text(encoding="utf-8")
)


def rgb(name: str) -> tuple[int, int, int]:
    """A colour as three numbers from 0 to 255."""
    text = COLOURS[name]
    return tuple(int(text[i : i + 2], 16) for i in (1, 3, 5))
