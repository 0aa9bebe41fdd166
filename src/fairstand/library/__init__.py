"""Pieces: what a maker works on, and the files they came from."""
