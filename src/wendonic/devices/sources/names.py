"""Keys, buttons and axes by the names that bindings have for them."""

from wendonic.devices.controls import CONTROLS, Control, find_control, find_key, find_kind, where_listed
from wendonic.errors import ControlError, did_you_mean


def find_switch(name: str) -> Control:
    """Return the key or button of that name; a key's W3C code alone will do.

    >>> find_switch("KeyW").name, find_switch("pad.south").name
    ('key.KeyW', 'pad.south')
    """
    if "." not in name:
        return find_key(name)
    control = find_control(name)
    if control.kind == "wheel":
        raise ControlError(f'{control.name} is not a button; a notch presses as {{ wheel = "towards" }}')
    if control.kind == "stick":
        raise ControlError(
            f'{control.name} is not a button; it presses as {{ stick = "{control.name}", towards = "up" }}'
        )
    return find_kind(name, "button", "key")


AXES = "axes are such as pad.left_stick.x, pad.right_stick.y, pad.left_trigger"


def find_axis(name: str) -> tuple[Control, int, float]:
    """Return an axis by its name: its control, its place in the held state, and the sign that turns it.

    `pad.left_stick.x` is to the right, `pad.left_stick.y` forward, however the device itself counts; a trigger is 0
    to 1.

    >>> control, slot, sign = find_axis("pad.left_stick.y")
    >>> control.name, slot - control.slot, sign
    ('pad.left_stick', 1, -1.0)
    """
    stem, _, axis = name.rpartition(".")
    stick = CONTROLS.get(stem)
    if stick is not None and stick.kind == "stick" and axis in ("x", "y"):
        return (stick, stick.slot, 1.0) if axis == "x" else (stick, stick.slot + 1, -1.0)
    control = CONTROLS.get(name)
    if control is not None and control.kind == "button":
        return control, control.slot, 1.0
    axes = [f"{other}.{letter}" for other, known in CONTROLS.items() if known.kind == "stick" for letter in "xy"]
    if stick is None and name in CONTROLS and CONTROLS[name].kind == "stick":
        guess = f"; allowed: {name}.x to the right, {name}.y forward"
        raise ControlError(f"{name} is a stick and has two axes{guess}")
    guess = did_you_mean(name, axes) or where_listed(name, AXES)
    raise ControlError(f'unknown axis "{name}"{guess}')
