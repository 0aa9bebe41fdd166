"""``fairstand manage``: Django's own commands."""

import os

__all__ = ["run"]


def run(arguments: list[str]) -> int:
    """Run a management command by its words."""
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "fairstand.settings")
    from django.core.management import execute_from_command_line

    execute_from_command_line(["fairstand manage", *arguments])
    return 0
