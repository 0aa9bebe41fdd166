"""Stances: records of edits, undo, and what a stance is right now."""
