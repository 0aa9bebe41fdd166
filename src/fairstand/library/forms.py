"""Forms of the library."""

from django import forms

from .models import Piece

__all__ = ["RenameForm"]


class RenameForm(forms.ModelForm):
    """Give a piece another name."""

    class Meta:
        model = Piece
        fields = ("name",)
