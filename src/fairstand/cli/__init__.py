"""The ``fairstand`` command."""

from .main import main

__all__ = ["main"]
