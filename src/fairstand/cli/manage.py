"""``fairstand manage``: Django's own commands."""

import argparse
import os

__all__ = ["arguments", "run"]


def arguments(command: argparse.ArgumentParser) -> None:
    """Whatever Django's command takes."""
    command.add_argument("arguments", nargs=argparse.REMAINDER)


def run(options: argparse.Namespace) -> int:
    """Run a management command by its words."""
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "fairstand.settings")
    from django.core.management import execute_from_command_line

    execute_from_command_line(["fairstand manage", *options.arguments])
    return 0
