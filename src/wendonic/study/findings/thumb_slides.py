"""A thumb on the touch screen that reaches the full amount at once, or only with a stretch."""

from collections.abc import Iterator

from wendonic.profile.schema.move_binds import TouchStickBind
from wendonic.study.finding import Case, Found, finding

LEAST, MOST = 0.03, 0.35
"""Radius of a stick on the touch screen, in window heights."""


@finding(147, "notice", "A shorter slide is all or nothing to a thumb, and a longer one is out of its reach.")
def thumb_slides(case: Case) -> Iterator[Found]:
    """A thumb on the touch screen that reaches the full amount at once, or only with a stretch."""
    for where, bind in case.entries("move", "throttle", "turn", "rise", "look"):
        if isinstance(bind, TouchStickBind) and not LEAST <= bind.radius <= MOST:
            yield Found(
                f"{where}.radius",
                f"full amount takes a slide of {bind.radius:g} of the window's height",
                [{f"{where}.radius": 0.14}],
            )
