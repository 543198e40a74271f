"""What a tick reports in the plan frame, and where: the fields of state and result that a game may read."""

from typing import NamedTuple

from wendonic.batch.column_words import column_words
from wendonic.batch.columns import Column, columns_of
from wendonic.compiler.layout import Path
from wendonic.export.build import Made

ANGLES = ("degrees", "compass_deg")
"""Kinds of columns that are angles in radians."""

OTHERS: dict[Path, str] = {
    (
        "source",
    ): "number of the source in use, counted from 0 through move, rise, throttle, turn and look; -1 for none",
    ("heading",): "heading of the request (rad); 0 at rest",
    ("gait",): "number of the gait in use, counted from 0",
    ("frame", "goal", "there"): "whether there is a goal, 0 or 1",
    ("pointing", "landing", "there"): "whether there is a place to land where the hand points, 0 or 1",
    ("pointing", "landing", "after_s"): "how long the arc takes to get there (s)",
}
"""Numbers that are not columns of a trace by themselves."""

VECTORS: dict[Path, str] = {
    ("wanted", "direction"): "request laid onto the ground, {along}",
    ("wanted", "slide"): "speed at which the ground makes the body slide, {along} (m/s)",
    ("up",): "the body's own up on a slope, {along}",
    ("frame", "goal"): "goal, {along} (m)",
    ("comfort", "offset"): "offset of the head from the middle of the play space, {along} (m)",
    ("pointing", "landing", "place"): "place to land, {along} (m)",
    ("contact",): "normal of what stopped the body, {along}; zeros for nothing",
}
"""Vectors whose components are not columns of a trace by themselves."""

ALONG = {"x": "along the plan's x", "y": "along the plan's y", "z": "upwards"}

OF_A_PRESS = {
    "began_count": "how often the press began in this tick",
    "held_s": "how long the press has been held, or was when it ended (s)",
}


class Reported(NamedTuple):
    """One number that a tick reports: its struct, its name there, and its meaning."""

    struct: str
    name: str
    what: str


def reported_by(made: Made) -> list[Reported]:
    """Return what a mode's tick reports in the plan, presses first."""
    columns = {
        column.paths[0]: (name, column)
        for name, column in columns_of(made.tuning, made.profile.press_names).items()
        if len(column.paths) == 1 and column.kind != "missing"
    }
    found: dict[int, Reported] = {}
    for path, index in made.layout.indices.items():
        what = _what(path[1:], columns) if path[0] == "outcome" else ""
        if what and index in made.indices:
            if path[1] == "presses":
                what = what.replace("the press", f"press {made.profile.press_names[int(path[2])]}")
            struct = "state" if index < made.layout.state else "result"
            found.setdefault(index, Reported(struct, made.names[index], what))
    presses = [index for path, index in made.layout.indices.items() if path[:2] == ("outcome", "presses")]
    return [found[index] for index in dict.fromkeys([*presses, *found]) if index in found]


def _what(path: Path, columns: dict[Path, tuple[str, Column]]) -> str:
    if path[0] == "presses" and path[-1] in OF_A_PRESS:
        return OF_A_PRESS[path[-1]]
    if path in OTHERS:
        return OTHERS[path]
    if path[:-1] in VECTORS:
        return VECTORS[path[:-1]].format(along=ALONG[path[-1]])
    if path not in columns:
        return ""
    name, column = columns[path]
    words = column_words(name)
    if words is None:
        return ""
    unit = "rad" if column.kind in ANGLES else words.unit
    flag = ", 0 or 1" if column.kind == "flag" else ""
    return words.what + flag + (f" ({unit})" if unit else "")
