"""Axes of a stick that are bound to each other's direction."""

from collections.abc import Iterator

from wendonic.profile.schema.move_binds import AxesBind
from wendonic.study.finding import Case, Found, finding
from wendonic.study.settled import direction_word, settled_request


@finding(50, "fault", "Right and left are swapped with forward and back.")
def crossed_axes(case: Case) -> Iterator[Found]:
    """Axes of a stick that are bound to each other's direction."""
    for index, bind in enumerate(case.table.move.bind if case.table.move else ()):
        if not isinstance(bind, AxesBind):
            continue
        for field, axis in (("x", bind.axes.x), ("y", bind.axes.y)):
            stick, _, letter = axis.rpartition(".")
            if letter not in ("x", "y"):
                continue
            tilt = (1.0, 0.0) if letter == "x" else (0.0, -1.0)
            request = settled_request(case.one_mode, "move", stick, tilt)
            along = 0 if letter == "x" else 1
            if abs(request[1 - along]) > abs(request[along]):
                to = "to the right" if letter == "x" else "forward"
                yield Found(
                    f"{case.where}.move.bind[{index}].axes.{field}",
                    f"{stick} tilted {to} goes {direction_word(*request)}",
                    f'axes = {{ x = "{stick}.x", y = "{stick}.y" }}',
                )
