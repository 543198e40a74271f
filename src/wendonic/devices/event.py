"""Events: a control has a value at a time."""

import math
from collections.abc import Sequence
from typing import NamedTuple, SupportsFloat, cast

from wendonic.devices.controls import TEXTS, Control, find_control
from wendonic.errors import ControlError

Value = float | tuple[float, ...] | str

COUNT_WORDS = {0: "no", 1: "one", 2: "two", 3: "three", 4: "four", 7: "seven"}
"""Words for the numbers of a control's value, by its width."""


class Event(NamedTuple):
    """At `t` seconds, `control` has `value`.

    A key or button has a number (0 up, 1 down); a stick (x, y) in its own standard, y towards the player; a sensor of
    a pad (x, y, z). `mouse.move` has (x, y) in counts, y towards the user; `mouse.wheel` a number of notches,
    positive towards the user; `pointer.at` (x, y) in window fractions; a touch (x, y, pressure), pressure 0 when it
    is lifted. A pose has (x, y, z) in metres and the quaternion (x, y, z, w). `view` has (yaw_deg, pitch_deg),
    `window` the window's width over its height, `goal` and `aim` a place on the plan (x, y) in metres, `plan` how far
    the window has scrolled over it, `mark` a string, a loss such as `lost.focus` the number 1.

    Reports of a game to its helm are events as well, in the plan frame: `mode` has the name of the mode that is
    entered; `body.place` (m), `body.velocity` and `body.push` (m/s) and `body.contact` (the normal of a wall, of
    length 1) have (x, y, z), `body.facing` a heading in degrees, `body.ground` (there, x, y, z) with the ground's
    normal, `body.restart` and `discard` (of counts) the number 1, `square` (x, y, 1 or 0) a square and whether it is
    blocked. `checked_event` checks an event before it is used.

    >>> Event(0.5, "pad.left_stick", (0.12, -0.94)).control
    'pad.left_stick'
    """

    t: float
    control: str
    value: Value


def control_and_value(event: Event) -> tuple[Control, Value]:
    """Return the control of an event, and its value; raises `ControlError` for an unknown control and for anything
    that is not an event.

    >>> control_and_value(("key.KeyW", 1))
    Traceback (most recent call last):
    wendonic.errors.ControlError: found ('key.KeyW', 1); allowed: an Event(t, control, value), its control a name
    """
    try:
        return find_control(event.control), event.value
    except (AttributeError, TypeError):
        raise ControlError(f"found {event!r}; allowed: an Event(t, control, value), its control a name") from None


def finite(value: object) -> float | None:
    """Return a finite number as a float, and None for anything else. Number types of other libraries are accepted.

    >>> finite(3), finite(float("nan")), finite(10**400), finite("3")
    (3.0, None, None, None)
    """
    if not isinstance(value, int | float) and (not isinstance(value, SupportsFloat) or hasattr(value, "__len__")):
        return None
    try:
        number = float(value)
    except (OverflowError, TypeError, ValueError):
        return None
    return number if math.isfinite(number) else None


def fitting_value(control: Control, value: object) -> Value:
    """Return `value` in the form in which `control` holds it, or raise a `ControlError` that says what is allowed.

    >>> fitting_value(find_control("pad.left_stick"), [0, -1])
    (0.0, -1.0)
    >>> fitting_value(find_control("key.KeyW"), [1])
    Traceback (most recent call last):
    wendonic.errors.ControlError: key.KeyW: found [1]; allowed: a finite number
    """
    if control.kind in TEXTS:
        if isinstance(value, str):
            return value
        raise ControlError(f"{control.name}: found {value!r}; allowed: a string")
    if control.width > 1:
        parts = value.tolist() if hasattr(value, "tolist") else value
        if isinstance(parts, Sequence) and len(parts) == control.width:
            numbers = tuple(map(finite, parts))
            if None not in numbers:
                return cast("tuple[float, ...]", numbers)
        count = COUNT_WORDS[control.width]
        raise ControlError(f"{control.name}: found {value!r}; allowed: {count} finite numbers")
    number = finite(value)
    if number is None:
        raise ControlError(f"{control.name}: found {value!r}; allowed: a finite number")
    return number


def checked_event(t: object, control: object, value: object) -> Event:
    """Return the event with the canonical name of its control and form of its value, or raise a `ControlError`.

    >>> checked_event(1, "pad0.south", True)
    Event(t=1.0, control='pad.south', value=1.0)
    """
    time_s = None if isinstance(t, bool) else finite(t)
    if time_s is None:
        raise ControlError(f"t: found {t!r}; allowed: a finite number of seconds")
    if not isinstance(control, str):
        raise ControlError(f"control: found {control!r}; allowed: a name such as key.KeyW")
    known = find_control(control)
    return Event(time_s, known.name, fitting_value(known, value))


def at_rest(event: Event) -> bool:
    """Return whether an event leaves nothing held: a key that is up, a finger that is lifted, a stick in the
    middle, a square that is free.

    >>> at_rest(Event(0.0, "touch.0", (0.5, 0.5, 0.0))), at_rest(Event(0.0, "pad.left_stick", (0.1, 0.0)))
    (True, False)
    """
    control = find_control(event.control)
    if control.kind == "touch" or control.name == "square":
        return isinstance(event.value, tuple) and event.value[2] == 0.0
    if control.kind in TEXTS:
        return False
    numbers = event.value if isinstance(event.value, tuple) else (event.value,)
    return all(number == control.rest for number in numbers)
