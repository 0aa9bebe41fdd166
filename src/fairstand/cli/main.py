"""Parse the command line and hand over to one function per command.

Django is only imported by the commands that need it, so ``inspect`` starts quickly.
"""

import argparse
import sys

from printability.errors import PrintabilityError
from printability.mesh import MM_PER_UNIT
from printability.process import PROCESSES
from printability.proposing import HABITS
from printability.turning import GOALS as GOAL_KEYS

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


def _lift(text: str) -> float:
    try:
        value = float(text)
    except ValueError:
        value = -1.0
    if not 0 <= value <= 500:
        raise argparse.ArgumentTypeError("the piece is lifted by 0 to 500 mm")
    return value


def _process(text: str) -> str:
    if text not in PROCESSES and not text.lower().endswith(".json"):
        known = ", ".join(sorted(PROCESSES))
        raise argparse.ArgumentTypeError(f"invalid choice: {known}, or a .json file of your own")
    return text


def _top(text: str) -> int:
    if not text.isdecimal() or not 1 <= int(text) <= 20:
        raise argparse.ArgumentTypeError("from 1 to 20 ways can be proposed")
    return int(text)


def _of_model(command: argparse.ArgumentParser) -> None:
    """What the commands that look at a model have in common."""
    command.add_argument("file", help="an STL, 3MF, OBJ, PLY or OFF file")
    command.add_argument(
        "--process", type=_process, default="fdm", metavar="NAME|FILE.json",
        help=f"{', '.join(sorted(PROCESSES))}, or a process of your own as the workshop writes it",
    )  # fmt: skip
    command.add_argument("--unit", choices=list(MM_PER_UNIT), help="unit of the file's numbers")
    command.add_argument(
        "--threshold", type=_threshold, metavar="DEG", help="self-supporting slope"
    )
    command.add_argument("--json", action="store_true", help="print JSON instead of a table")


def _parser() -> argparse.ArgumentParser:
    parser = _Parser(prog="fairstand", description="See what of a mesh will not print, and why.")
    commands = parser.add_subparsers(dest="command", required=True, parser_class=_Parser)
    inspect = commands.add_parser("inspect", help="say what of a model will not print")
    _of_model(inspect)
    inspect.add_argument(
        "--turn", type=_turn, default=(0.0, 0.0, 0.0), metavar="RX,RY,RZ",
        help="degrees about the fixed axes X, then Y, then Z",
    )  # fmt: skip
    turns = commands.add_parser("turns", help="propose ways to stand a model")
    _of_model(turns)
    turns.add_argument("--goal", choices=list(GOAL_KEYS), help="what alone counts")
    turns.add_argument(
        "--top", type=_top, default=5, metavar="N", help="how many to propose, 1 to 20"
    )
    prop = commands.add_parser("prop", help="propose supports for a model")
    _of_model(prop)
    prop.add_argument(
        "--turn", type=_turn, default=(0.0, 0.0, 0.0), metavar="RX,RY,RZ",
        help="degrees about the fixed axes X, then Y, then Z",
    )  # fmt: skip
    prop.add_argument(
        "--lift", type=_lift, default=0.0, metavar="MM", help="held so far above the plate"
    )
    prop.add_argument("--where", choices=("plate", "anywhere"), default="plate")
    prop.add_argument("--clear", choices=("failing", "risky"), default="risky")
    prop.add_argument("--profile", choices=("light", "medium", "heavy"), default="medium")
    prop.add_argument(
        "--habits", metavar="NAME|FILE.json",
        help=f"a table of habits decides first: {', '.join(sorted(HABITS))}, or your own",
    )  # fmt: skip
    prop.add_argument("--out", metavar="FILE", help="write model and supports, .stl or .3mf")
    prop.add_argument("--stance", metavar="OUT.json", help="write the stance")
    cuts = commands.add_parser("cuts", help="propose where to cut a model")
    _of_model(cuts)
    cuts.add_argument(
        "--turn", type=_turn, default=(0.0, 0.0, 0.0), metavar="RX,RY,RZ",
        help="as it stands now: degrees about the fixed axes X, then Y, then Z",
    )  # fmt: skip
    cuts.add_argument(
        "--top", type=_top, default=5, metavar="N", help="how many to propose, 1 to 20"
    )
    cuts.add_argument("--fit", action="store_true", help="cut it so that every part fits")
    cuts.add_argument("--stance", metavar="OUT.json", help="write the best cut as a stance")
    make = commands.add_parser("make", help="make the files of a stance")
    make.add_argument("file", help="the model that the stance was made for")
    make.add_argument("stance", help="a stance file, written by the bench")
    make.add_argument("--out", required=True, metavar="DIR", help="the folder to write into")
    make.add_argument("--json", action="store_true", help="print JSON instead of a table")
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
    if options.command in ("inspect", "turns", "prop", "cuts", "make"):
        if options.command == "inspect":
            from .inspect import run
        elif options.command == "turns":
            from .turns import run
        elif options.command == "prop":
            from .prop import run
        elif options.command == "cuts":
            from .cuts import run
        else:
            from .make import run

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
