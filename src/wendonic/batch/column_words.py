"""The unit and description of each column of a trace."""

from typing import NamedTuple


class ColumnWords(NamedTuple):
    """The unit of a column ("" for none), its description, and, for a column that only some traces have, when."""

    unit: str
    what: str
    when: str = ""


COLUMNS: dict[str, ColumnWords] = {
    "tick": ColumnWords("", "number of the tick, from 1"),
    "t": ColumnWords("s", "time at the end of the tick, in the recording's own time"),
    "dt": ColumnWords("s", "length of the tick"),
    "mode": ColumnWords("", "name of the mode"),
    "device": ColumnWords("", "device used last: keys, pad, mouse, touch or hands; none before the first input"),
    "raw_x": ColumnWords("", "raw input to the right, before any shaping"),
    "raw_y": ColumnWords("", "raw input forward, before any shaping"),
    "local_x": ColumnWords("", "request to the right after shaping, before steering"),
    "local_y": ColumnWords("", "request forward after shaping, before steering"),
    "move_x": ColumnWords("", "request along the plan's x (right, east), after steering"),
    "move_y": ColumnWords("", "request along the plan's y (forward, north), after steering"),
    "amount": ColumnWords("", "length of the request, in shares of top speed"),
    "heading_deg": ColumnWords("deg", "compass heading of the request, clockwise from the plan's y; missing at rest"),
    "rise": ColumnWords("", "channel rise, -1 down to 1 up"),
    "turn": ColumnWords("", "channel turn, -1 left to 1 right"),
    "throttle": ColumnWords("", "channel throttle, -1 back to 1 forward"),
    "look_yaw_deg": ColumnWords("deg", "turn of the view to the right in this tick"),
    "look_pitch_deg": ColumnWords("deg", "turn of the view upwards in this tick"),
    "view_yaw_deg": ColumnWords("deg", "yaw of the view"),
    "view_pitch_deg": ColumnWords("deg", "pitch of the view"),
    "face_deg": ColumnWords("deg", "compass heading that the body faces"),
    "sector": ColumnWords("", "facing that a sprite shows, 0 forward, then clockwise; missing without sectors"),
    "pos_x": ColumnWords("m", "place of the body along the plan's x"),
    "pos_y": ColumnWords("m", "place of the body along the plan's y"),
    "pos_z": ColumnWords("m", "height of the body"),
    "vel_x": ColumnWords("m/s", "velocity of the body along the plan's x"),
    "vel_y": ColumnWords("m/s", "velocity of the body along the plan's y"),
    "vel_z": ColumnWords("m/s", "velocity of the body upwards"),
    "grounded": ColumnWords("", "whether the body is on the ground"),
    "PRESS_held": ColumnWords("", "whether the press is on", "a press"),
    "PRESS_began": ColumnWords("", "whether the press began in this tick", "a press"),
    "PRESS_ended": ColumnWords("", "whether the press ended in this tick", "a press"),
    "step_x": ColumnWords("squares", "square that the body is on or stepping to, to the right", 'frame "grid"'),
    "step_y": ColumnWords("squares", "square that the body is on or stepping to, forward", 'frame "grid"'),
    "refused_x": ColumnWords(
        "squares", "square that refused a step, to the right; missing otherwise", 'frame "grid"'
    ),
    "refused_y": ColumnWords("squares", "square that refused a step, forward; missing otherwise", 'frame "grid"'),
    "step_began": ColumnWords("", "whether a step began in this tick", 'frame "grid"'),
    "step_ended": ColumnWords("", "whether a step ended in this tick", 'frame "grid"'),
    "refused": ColumnWords("", "whether ground that is too steep refused the request", "slopes"),
    "goal_x": ColumnWords("m", "goal along the plan's x; missing without a goal", 'frame "goto"'),
    "goal_y": ColumnWords("m", "goal along the plan's y; missing without a goal", 'frame "goto"'),
    "arrived": ColumnWords("", "whether the body arrived in this tick", 'frame "goto"'),
    "vignette": ColumnWords("", "how far the view is narrowed, 0 to 1", "comfort"),
    "returned": ColumnWords("", "whether the player was moved back out of a wall in this tick", "comfort"),
    "teleported": ColumnWords("", "whether the body was teleported in this tick", "a teleport"),
}
"""Columns by name, in order; PRESS stands for the name of each press."""


def column_words(name: str) -> ColumnWords | None:
    """Return the unit and description of a column, None for an unknown name.

    >>> column_words("vel_z").unit, column_words("jump_began").what
    ('m/s', 'whether the press began in this tick')
    """
    press, _, flag = name.rpartition("_")
    return COLUMNS.get(name) or (COLUMNS.get(f"PRESS_{flag}") if press else None)
