"""Axes of a stick that are bound to each other's direction."""

from collections.abc import Iterator

from wendonic.profile.schema.move_binds import AxesBind
from wendonic.study.finding import Case, Found, finding
from wendonic.study.settled import direction_word, settled_request


@finding(50, "fault", "Right and left are swapped with forward and back.")
def crossed_axes(case: Case) -> Iterator[Found]:
    """Axes of a stick that are bound to each other's direction."""
    for where, bind in case.entries("move"):
        if not isinstance(bind, AxesBind):
            continue
        for field, axis in (("x", bind.axes.x), ("y", bind.axes.y)):
            stick, _, letter = axis.rpartition(".")
            if letter not in ("x", "y"):
                continue
            tilt = (1.0, 0.0) if letter == "x" else (0.0, -1.0)
            request = settled_request(case.moving, "move", stick, tilt)
            along = 0 if letter == "x" else 1
            if abs(request[1 - along]) > abs(request[along]):
                to = "to the right" if letter == "x" else "forward"
                straight = {f"{where}.axes.x": f"{stick}.x", f"{where}.axes.y": f"{stick}.y"}
                exchanged = {f"{where}.axes.x": bind.axes.y, f"{where}.axes.y": bind.axes.x}
                yield Found(
                    f"{where}.axes.{field}",
                    f"{stick} tilted {to} goes {direction_word(*request)}",
                    [exchanged, straight],
                )
