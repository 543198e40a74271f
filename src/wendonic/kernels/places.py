"""Where each channel's numbers stand in a sample. Fixed, so that one compilation serves every profile."""

SOURCES = 4
"""Sources that `move` has room for."""

AXIS_SOURCES = 3
"""Sources that `rise`, `throttle` and `turn` have room for each."""

LOOK_SOURCES = 4
"""Sources that `look` has room for."""

RISE_PLACE = SOURCES + 1
THROTTLE_PLACE = RISE_PLACE + AXIS_SOURCES
TURN_PLACE = THROTTLE_PLACE + AXIS_SOURCES
LOOK_PLACE = TURN_PLACE + AXIS_SOURCES
"""Places of the channels' first sources; those of `move` begin at 0, and behind them stands `TAKEN_OFF`."""

PLACES = LOOK_PLACE + LOOK_SOURCES

SOURCE_WIDTH = 4
"""Numbers of one source: right, left, ahead, back for keys; else right and ahead, shaped, and from `RAW` on raw."""

RAW = 2
"""Where the raw numbers of a source begin among its own: right and ahead."""

LOOK_SOURCE_WIDTH = 7
"""Numbers of one source of `look`: to the right, and up; for a rate sensor its three rates, what its accelerometer
feels on three axes, and whether it is paused.
"""

LOOK_PAUSED = 6
"""Where the last of them stands among its own."""

TAKEN_OFF = SOURCES * SOURCE_WIDTH
"""Where a sample has the share (0..1) of `move` that held presses take off."""

MOVE_WIDTH = TAKEN_OFF + 1
"""Numbers of `move`, with which a sample begins."""

LOOK_START = LOOK_PLACE * SOURCE_WIDTH
ZOOMED = LOOK_START + LOOK_SOURCES * LOOK_SOURCE_WIDTH
"""Where a sample has 1 while the view is zoomed, else 0."""

SWING_START = ZOOMED + 1
"""Where a sample has the left and the right hand that swing: the way of each (m: three axes), and whether it counts
(2: with a new pose).
"""

GOAL_START = SWING_START + 8
"""Where it has 1 if a goal was given this tick, and its place on the plan (m)."""

AIM_START = GOAL_START + 3
"""The same, for the point that is aimed at; once given, it is given for good."""

AHEAD_START = AIM_START + 3
"""Where it has the level directions that are ahead for the head, the left and the right hand: right and ahead each.
"""

HEAD_START = AHEAD_START + 6
"""Where it has where the head is in the play space: right and ahead of its middle (m)."""

POINT_START = HEAD_START + 2
"""Where it has 1 while a hand points at a place to be at, then where it is in the play space and which way it points:
right, ahead and up each.
"""

GAIT = POINT_START + 7
"""Where it has the number of the gait that held presses switch to, 0 for the mode's own."""

GAITS = 4
"""Gaits that a mode has room for."""

SAMPLE_WIDTH = GAIT + 1
"""Numbers in a sample."""
