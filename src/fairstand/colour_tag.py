"""The tag that names a colour in templates, ``{% colour "ink" %}``."""

from django import template

from printability.colours import COLOURS

__all__ = ["register"]

register = template.Library()


@register.simple_tag
def colour(name: str) -> str:
    """A colour of drawings as #rrggbb."""
    return COLOURS[name]
