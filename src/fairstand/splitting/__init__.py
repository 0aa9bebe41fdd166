"""Split: cuts, joints and where to cut."""
