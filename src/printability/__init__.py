"""Fair Stand's core: whether, where and why a mesh will not print as it lies.

NumPy arrays go in, frozen dataclasses come out. Lengths are millimetres, angles
degrees, Z is up and the build plate is z = 0. Nothing here knows of a web server,
of settings or of the clock.
"""
