"""Turning: what follows the hand, the map of every direction, proposals, ways out."""
