"""The bench: a stance of a piece, its edits, and what is seen of it."""
