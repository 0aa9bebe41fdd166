"""``make bench``: print how fast the core is beside general-purpose libraries.

``--ratios`` measures only what is kept and told in docs/speed.md, ``--check`` names what became
slower than that.
"""

import sys

from . import (
    adding_pillars,
    frames,
    live,
    many,
    memory,
    opening,
    ratios,
    slicing,
    small,
    turning,
)


def main(words: list[str]) -> int:
    """Run every comparison, or what was asked for."""
    if "--check" in words:
        return ratios.check()
    ratios.run()
    if "--ratios" not in words:
        slicing.run()
        many.run()
        turning.run()
        adding_pillars.run()
        opening.run()
        frames.run()
        live.run()
        small.run()
        memory.run()
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
