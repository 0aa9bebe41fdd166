"""The errors of the core. Each carries one sentence meant for the maker."""

__all__ = ["Cancelled", "EditError", "HandOverError", "MeshFileError", "PrintabilityError",
           "ProcessError", "StanceFileError"]  # fmt: skip


class PrintabilityError(Exception):
    """Base of all errors that the core raises on purpose; ``str(error)`` can be shown."""


class MeshFileError(PrintabilityError):
    """A file that cannot be read as a mesh."""


class EditError(PrintabilityError):
    """An edit whose parameters make no sense for this piece."""


class HandOverError(PrintabilityError):
    """A stance that cannot be written as asked."""


class ProcessError(EditError):
    """A machine, material, process or table of habits that cannot be read."""


class StanceFileError(PrintabilityError):
    """A stance file that cannot be read, or that is for another model."""


class Cancelled(PrintabilityError):
    """The maker stopped long work; nothing of it is kept."""
