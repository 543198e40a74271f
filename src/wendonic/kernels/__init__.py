"""The maths of one tick: plain functions of floats, one file for each step, `tick.py` on top.

Nothing here imports anything but `math` and its neighbours. There are no exceptions, no strings and no
dicts: ranges are checked when a profile is loaded, and names have become small integers by then.
Angles are radians, lengths metres, times seconds; x is right (east) and y is forward (north).
"""
