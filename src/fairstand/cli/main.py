"""Parse the command line and hand over to one function per command.

Django is only imported by the commands that need it, so ``inspect`` starts quickly.
"""

import argparse
import sys

from printability.errors import PrintabilityError
from printability.mesh import MM_PER_UNIT
from printability.process import PROCESSES

__all__ = ["main"]


class _Parser(argparse.ArgumentParser):
    """Says what is wrong in one line on standard error, and exits with 2."""

    def error(self, message):
        self.exit(2, f"fairstand: {message}. See fairstand --help.\n")


def _turn(text: str) -> tuple[float, float, float]:
    try:
        angles = tuple(float(part) for part in text.split(","))
    except ValueError:
        angles = ()
    if len(angles) != 3 or not all(abs(angle) <= 3600 for angle in angles):
        raise argparse.ArgumentTypeError(
            "a turn is three angles in degrees with commas between, such as 90,0,-15"
        )
    return angles


def _threshold(text: str) -> float:
    try:
        value = float(text)
    except ValueError:
        value = -1.0
    if not 1 <= value <= 89:
        raise argparse.ArgumentTypeError("the threshold is an angle from 1 to 89 degrees")
    return value


def _parser() -> argparse.ArgumentParser:
    parser = _Parser(prog="fairstand", description="See what of a mesh will not print, and why.")
    commands = parser.add_subparsers(dest="command", required=True, parser_class=_Parser)
    inspect = commands.add_parser("inspect", help="say what of a model will not print")
    inspect.add_argument("file", help="an STL, 3MF, OBJ, PLY or OFF file")
    inspect.add_argument("--process", choices=sorted(PROCESSES), default="fdm")
    inspect.add_argument(
        "--turn", type=_turn, default=(0.0, 0.0, 0.0), metavar="RX,RY,RZ",
        help="degrees about the fixed axes X, then Y, then Z",
    )  # fmt: skip
    inspect.add_argument("--unit", choices=list(MM_PER_UNIT), help="unit of the file's numbers")
    inspect.add_argument(
        "--threshold", type=_threshold, metavar="DEG", help="self-supporting slope"
    )
    inspect.add_argument("--json", action="store_true", help="print JSON instead of a table")
    serve = commands.add_parser("serve", help="run the web server and the task worker")
    serve.add_argument("--port", type=int, default=8000)
    serve.add_argument("--demo", action="store_true", help="add the demo pieces first, once")
    manage = commands.add_parser("manage", help="run a Django management command")
    manage.add_argument("arguments", nargs=argparse.REMAINDER)
    return parser


def _with_joined_turn(arguments: list[str]) -> list[str]:
    """``--turn -90,0,0`` as one word, since argparse takes "-90,0,0" for an option."""
    joined = []
    for word in arguments:
        if joined and joined[-1] == "--turn":
            joined[-1] = f"--turn={word}"
        else:
            joined.append(word)
    return joined


def main(arguments: list[str] | None = None) -> int:
    """Run the command; returns the exit code."""
    words = _with_joined_turn(sys.argv[1:] if arguments is None else arguments)
    options = _parser().parse_args(words)
    if options.command == "inspect":
        from .inspect import run

        try:
            return run(options)
        except PrintabilityError as error:
            print(f"fairstand: {error}", file=sys.stderr)
            return 2
        except BrokenPipeError:
            sys.stderr.close()
            return 0
    if options.command == "serve":
        from .serve import run

        return run(options.port, options.demo)
    from .manage import run

    return run(options.arguments)
