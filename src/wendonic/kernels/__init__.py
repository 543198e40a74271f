"""The maths of one tick: plain functions of floats, one file for each step, `tick.py` on top.

Kernels import only `math` and each other. They use no exceptions, strings or dicts: ranges are checked when a profile
is loaded, and names have been replaced by small integers by then. Angles are radians, lengths metres, times seconds;
x is right (east) and y is forward (north).
"""
