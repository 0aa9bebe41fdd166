"""Stances of a piece side by side."""
