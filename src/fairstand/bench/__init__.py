"""The bench: the page, and what is seen of a stance on it."""
