"""Every control by device: its name, what it reports, and its range."""

from functools import cache
from typing import NamedTuple

from wendonic.devices.controls import (
    CONTROLS,
    HAND_BUTTONS,
    MOUSE_BUTTONS,
    PAD_BUTTONS,
    PADS,
    RELEASES,
    REPORTED,
    TOUCHES,
)
from wendonic.devices.keys import KEY_CODES
from wendonic.devices.other_names import control_meant, key_meant
from wendonic.errors import WendonicError, did_you_mean

ON = "0 or 1"
TRAVEL = "0 to 1"


class ControlLine(NamedTuple):
    """One control, or several of a kind: names, description, and the values that they report."""

    names: tuple[str, ...]
    what: str
    values: str


class ControlGroup(NamedTuple):
    """The controls of one device, and a description of all of them."""

    device: str
    about: str
    lines: tuple[ControlLine, ...]


_PAD_WHAT = {
    "south": "lower button of the right-hand four",
    "east": "right button of those four",
    "west": "left button of those four",
    "north": "upper button of those four",
    "left_bumper": "upper button at the left forefinger",
    "right_bumper": "upper button at the right forefinger",
    "left_trigger": "lower button at the left forefinger, with its travel",
    "right_trigger": "lower button at the right forefinger, with its travel",
    "left_menu": "small button left of the middle",
    "right_menu": "small button right of the middle",
    "left_stick_press": "the left stick, pressed in",
    "right_stick_press": "the right stick, pressed in",
    "dpad_up": "d-pad up",
    "dpad_down": "d-pad down",
    "dpad_left": "d-pad left",
    "dpad_right": "d-pad right",
    "home": "the button in the middle",
}
_MOUSE_WHAT = {
    "left": "left button",
    "middle": "middle button, or the wheel pressed in",
    "right": "right button",
    "back": "thumb button, back",
    "forward": "thumb button, forward",
}
_HAND_WHAT = {
    "trigger": "trigger, with its travel",
    "squeeze": "grip, with its travel",
    "stick_press": "the stick, pressed in",
    "lower": "lower of the two buttons on the face",
    "upper": "upper of the two buttons on the face",
    "menu": "menu button",
}
_REPORTED_WHAT = {
    "body.place": "where the body is",
    "body.velocity": "how fast it is",
    "body.facing": "where it faces",
    "body.push": "a speed that is added",
    "body.contact": "the normal of a wall that it touches",
    "body.ground": "whether there is ground, and its normal",
    "body.restart": "a new life begins",
    "square": "a square, and whether it is blocked",
    "discard": "mouse counts are discarded",
}


def _keys() -> ControlGroup:
    families: dict[str, list[str]] = {}
    for code in KEY_CODES:
        stem = code.rstrip("0123456789")
        for start in ("Key", "Digit", "Arrow", "Numpad"):
            stem = start if code.startswith(start) else stem
        families.setdefault(stem if stem in ("Key", "Digit", "Arrow", "Numpad", "F") else "other", []).append(code)
    what = {
        "Key": "letter keys",
        "Digit": "digits above the letters",
        "Arrow": "arrow keys",
        "Numpad": "number pad",
        "F": "function keys",
        "other": "all other keys",
    }
    lines = (ControlLine(tuple(families[stem]), words, ON) for stem, words in what.items() if stem in families)
    return ControlGroup(
        "keys",
        "Keys by their W3C UI Events code: the place on the keyboard, whatever is printed there. In a profile KeyW "
        "and key.KeyW are the same; recordings have key.KeyW.",
        tuple(lines),
    )


def _pad() -> ControlGroup:
    lines = [ControlLine((f"pad.{button}",), _PAD_WHAT[button], TRAVEL) for button in PAD_BUTTONS]
    stick = "x to the right, y towards the player, -1 to 1 each"
    lines += [ControlLine((f"pad.{side}_stick",), f"{side} stick", stick) for side in ("left", "right")]
    axes = tuple(f"pad.{side}_stick.{axis}" for side in ("left", "right") for axis in "xy")
    lines.append(ControlLine(axes, "one axis of a stick, in a profile: x to the right, y forward", "-1 to 1"))
    lines.append(ControlLine(("pad.dpad",), "the whole d-pad, in a profile", "four buttons"))
    lines.append(ControlLine(("pad.gyro",), "rate sensor", "rad/s about 3 axes"))
    lines.append(ControlLine(("pad.accel",), "accelerometer", "m/s² along 3 axes"))
    about = (
        'Pads in the W3C Gamepad "standard" layout, buttons by their place. '
        f"Further pads are {PADS[1]} to {PADS[-1]}; pad0 is pad."
    )
    return ControlGroup("pad", about, tuple(lines))


def _mouse() -> ControlGroup:
    lines = [
        ControlLine(("mouse.move",), "motion since the last event", "counts to the right, and towards the user"),
        ControlLine(("mouse.wheel",), "wheel", "notches, positive towards the user"),
        *(ControlLine((f"mouse.{button}",), _MOUSE_WHAT[button], ON) for button in MOUSE_BUTTONS),
        ControlLine(("pointer.at",), "place of the pointer", "window fractions, 0 to 1 each, y down"),
    ]
    about = "The mouse. Its motion is a displacement in counts: it is never multiplied by the time of a tick."
    return ControlGroup("mouse", about, tuple(lines))


def _touch() -> ControlGroup:
    fingers = tuple(f"touch.{finger}" for finger in range(TOUCHES))
    line = ControlLine(
        fingers, "a finger", "its place in window fractions, y down, and pressure; 0 once it is lifted"
    )
    about = "Fingers on a touch screen, numbered as they land. A profile names zones of the window instead."
    return ControlGroup("touch", about, (line,))


def _hands() -> ControlGroup:
    lines = []
    for side in ("left", "right"):
        hand = f"hand.{side}"
        pose = "position (m), then quaternion x, y, z, w"
        lines.append(ControlLine((f"{hand}.pose",), f"place and orientation of the {side} hand", pose))
        lines.append(
            ControlLine((f"{hand}.stick",), "its stick", "x to the right, y towards the player, -1 to 1 each")
        )
        lines += [ControlLine((f"{hand}.{button}",), _HAND_WHAT[button], TRAVEL) for button in HAND_BUTTONS]
    lines.append(ControlLine(("head.pose",), "place and orientation of the head", pose))
    about = "Motion controllers as WebXR reports them: right-handed, y up, -z ahead."
    return ControlGroup("hands", about, tuple(lines))


def _context() -> ControlGroup:
    lines = [
        ControlLine(("view",), "where the camera looks", "yaw and pitch, deg"),
        ControlLine(("window",), "shape of the window", "its width over its height; 0 is as the profile says"),
        ControlLine(("goal",), "a place to walk to", "m on the plan"),
        ControlLine(("aim",), "a place to face", "m on the plan"),
        ControlLine(("plan",), "how far the window has scrolled over the plan", "m to the right and forward"),
        ControlLine(("mode",), "the mode that is entered", "its name"),
        ControlLine(("mark",), "a note by the player", "text"),
        *(ControlLine((name,), _REPORTED_WHAT[name], ", ".join(words)) for name, words in REPORTED.items()),
        ControlLine(tuple(RELEASES), "everything that the device held is released", "1"),
    ]
    about = "What the game reports, and what happens to devices. In recordings; a profile binds none of it."
    return ControlGroup("context", about, tuple(lines))


_ALSO_CALLED = {
    "keyboard": "keys",
    "gamepad": "pad",
    "controller": "pad",
    "joystick": "pad",
    "fingers": "touch",
    "headset": "hands",
    "game": "context",
}


def _meant(name: str) -> str | None:
    """Return the control of the first pad for a name of another pad."""
    meant = control_meant(name)
    if meant is None:
        return key_meant(name)
    unit, dot, part = meant.partition(".")
    return f"pad{dot}{part}" if unit in PADS else meant


def _beginning(group: ControlGroup, start: str) -> ControlGroup:
    """Return the part of a group whose names begin with a text."""
    lines = (
        line._replace(names=tuple(name for name in line.names if name.startswith(start))) for line in group.lines
    )
    return group._replace(lines=tuple(line for line in lines if line.names))


@cache
def control_groups(device: str | None = None) -> tuple[ControlGroup, ...]:
    """Return every control by device, or those of one device, or those whose names begin with a text such as
    "hand.left". Raises `WendonicError` where there are none.

    >>> [group.device for group in control_groups()]
    ['keys', 'pad', 'mouse', 'touch', 'hands', 'context']
    >>> control_groups("pad")[0].lines[0]
    ControlLine(names=('pad.south',), what='lower button of the right-hand four', values='0 to 1')
    >>> control_groups("gamepad") == control_groups("pad1") == control_groups("pad")
    True
    >>> [line.names for line in control_groups("pad.left_stick.")[0].lines]
    [('pad.left_stick.x', 'pad.left_stick.y')]
    >>> control_groups("key.Arrow")[0].lines[0].names
    ('ArrowDown', 'ArrowLeft', 'ArrowRight', 'ArrowUp')
    """
    groups = (_keys(), _pad(), _mouse(), _touch(), _hands(), _context())
    if device is None:
        return groups
    unit, dot, part = device.partition(".")
    start = f"pad{dot}{part}" if unit in PADS else device.removeprefix("key.")
    wanted = _ALSO_CALLED.get(device.lower(), start)
    found = tuple(group for group in groups if group.device == wanted)
    if not found and start:
        found = tuple(group for group in (_beginning(group, start) for group in groups) if group.lines)
    if not found:
        names = [group.device for group in groups]
        controls = [name for group in groups for line in group.lines for name in line.names]
        guess = did_you_mean(device, [*names, *_ALSO_CALLED], alike=0.8) or did_you_mean(
            device, controls, _meant(device)
        )
        raise WendonicError(f'no device or control "{device}"{guess or ";"} devices: {", ".join(names)}')
    return found


def control_line(name: str) -> tuple[ControlGroup, ControlLine] | None:
    """Return the line of a control, by its name or a key's code; None for an unknown name.

    >>> control_line("pad1.south")[1].what, control_line("KeyW")[1].what
    ('lower button of the right-hand four', 'letter keys')
    """
    found = CONTROLS.get(name) or CONTROLS.get(f"key.{name}")
    plain = found.name if found else name
    unit, dot, part = plain.partition(".")
    if unit in PADS:
        plain = f"pad{dot}{part}"
    wanted = plain.removeprefix("key.")
    for group in control_groups():
        for line in group.lines:
            if wanted in line.names:
                return group, line
    return None
