"""Parse the command line and hand over to one module per command.

Only the module of the command that was asked for is imported: help and a small model's
inspection do not wait for what the others need.
"""

import argparse
import atexit
import gc
import io
import sys
from importlib import import_module

__all__ = ["COMMANDS", "main"]

# Each has a module of its name beside this one, with ``arguments(command)`` and ``run(options)``.
COMMANDS = {
    "inspect": "say what of a model will not print",
    "turns": "propose ways to stand a model",
    "prop": "propose supports for a model",
    "cuts": "propose where to cut a model",
    "make": "make the files of a stance",
    "serve": "run the web server and what works for it",
    "manage": "run a Django management command",
}


class _Parser(argparse.ArgumentParser):
    """Says what is wrong in one line on standard error, and exits with 2."""

    def error(self, message):
        self.exit(2, f"fairstand: {message}. See fairstand --help.\n")


def _parser(asked: str) -> argparse.ArgumentParser:
    parser = _Parser(prog="fairstand", description="See what of a mesh will not print, and why.")
    commands = parser.add_subparsers(dest="command", required=True, parser_class=_Parser)
    for name, help_text in COMMANDS.items():
        command = commands.add_parser(name, help=help_text)
        if name == asked:
            _module(name).arguments(command)
    return parser


def _module(name: str):
    # All that is loaded stays, so it is not looked through for what can go: a tenth of the time
    # that a small model takes.
    gc.disable()
    try:
        return import_module(f".{name}", __package__)
    finally:
        gc.freeze()
        atexit.register(gc.unfreeze)
        gc.enable()


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
    for stream in (sys.stdout, sys.stderr):
        if isinstance(stream, io.TextIOWrapper):
            stream.reconfigure(errors="replace")  # "×" is "?" where the terminal has none
    words = _with_joined_turn(sys.argv[1:] if arguments is None else arguments)
    # The first word that is no option is the command, as argparse takes it.
    asked = next((word for word in words if not word.startswith("-")), "")
    options = _parser(asked).parse_args(words)
    from printability.errors import PrintabilityError

    try:
        return _module(options.command).run(options)
    except PrintabilityError as error:
        print(f"fairstand: {error}", file=sys.stderr)
        return 2
    except BrokenPipeError:
        sys.stderr.close()
        return 0
