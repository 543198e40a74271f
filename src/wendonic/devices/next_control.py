"""Finds the control that a player has just used in a settings menu."""

from wendonic.devices.event import Event, control_and_value

PUSHED = 0.6
"""A trigger pressed this far, or a stick tilted this far, counts as used."""


def next_control(event: Event) -> str | None:
    """Return the name of the control that an event presses or tilts, to bind it; None for an event that does neither:
    a release, a small tilt, a motion of the mouse. Raises `ControlError` for an unknown control, and for anything
    that is not an event.

    >>> next_control(Event(0.0, "key.KeyI", 1)), next_control(Event(0.0, "key.KeyI", 0))
    ('key.KeyI', None)
    >>> next_control(Event(0.0, "pad.left_stick", (0.1, -0.9))), next_control(Event(0.0, "mouse.move", (9, 0)))
    ('pad.left_stick', None)
    """
    control, value = control_and_value(event)
    if control.kind in ("key", "button") and isinstance(value, int | float):
        return control.name if value >= PUSHED else None
    if control.kind == "stick" and isinstance(value, tuple):
        return control.name if max(map(abs, value)) >= PUSHED else None
    return None
