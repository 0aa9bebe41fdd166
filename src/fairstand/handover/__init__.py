"""Hand-over: checked files of a stance."""
