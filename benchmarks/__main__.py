"""``make bench``: print how fast the core is beside general-purpose libraries."""

from . import adding_pillars, frames, many, slicing, turning


def main() -> None:
    """Run every comparison."""
    slicing.run()
    many.run()
    turning.run()
    adding_pillars.run()
    frames.run()


if __name__ == "__main__":
    main()
