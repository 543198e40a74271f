"""Where each channel's numbers stand in a sample. Fixed, so that one compilation serves every profile."""

SOURCES = 4
"""Sources that `move` has room for."""

AXIS_SOURCES = 3
"""Sources that `rise`, `throttle` and `turn` have room for each."""

LOOK_SOURCES = 4
"""Sources that `look` has room for."""

RISE_PLACE = SOURCES
THROTTLE_PLACE = RISE_PLACE + AXIS_SOURCES
TURN_PLACE = THROTTLE_PLACE + AXIS_SOURCES
LOOK_PLACE = TURN_PLACE + AXIS_SOURCES
"""Places of the channels' first sources; those of `move` begin at 0."""

PLACES = LOOK_PLACE + LOOK_SOURCES

SOURCE_WIDTH = 4
"""Numbers of one source: right, left, ahead, back for keys; right, ahead for a stick or axes; the way that the hands
swung (m) for a swing."""

LOOK_SOURCE_WIDTH = 2
"""Numbers of one source of `look`: to the right, and up."""

MOVE_WIDTH = SOURCES * SOURCE_WIDTH
"""Numbers of `move`, with which a sample begins."""

LOOK_START = LOOK_PLACE * SOURCE_WIDTH
SAMPLE_WIDTH = LOOK_START + LOOK_SOURCES * LOOK_SOURCE_WIDTH
"""Numbers in a sample."""
