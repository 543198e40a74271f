"""Every control by its dotted name, with its kind, its device and its range of values."""

from typing import Literal, NamedTuple

from wendonic.devices.keys import KEY_CODES
from wendonic.devices.other_names import control_meant, key_meant
from wendonic.errors import ControlError, did_you_mean, first_of

ControlKind = Literal[
    "key",
    "button",
    "stick",
    "counts",
    "wheel",
    "pointer",
    "touch",
    "pose",
    "rates",
    "view",
    "window",
    "place",
    "loss",
    "mode",
    "reported",
    "mark",
]
Device = Literal["keys", "pad", "mouse", "touch", "hands"]

DEVICES: tuple[Device, ...] = ("keys", "pad", "mouse", "touch", "hands")

PADS: tuple[str, ...] = ("pad", *(f"pad{number}" for number in range(1, 8)))
"""Eight pads; `pad0` is another spelling of the first."""

PAD_BUTTONS: tuple[str, ...] = tuple(
    """
    south east west north left_bumper right_bumper left_trigger right_trigger left_menu right_menu
    left_stick_press right_stick_press dpad_up dpad_down dpad_left dpad_right home
    """.split()
)
"""Buttons by place, in the order of the W3C Gamepad "standard" layout."""

PAD_STICKS: tuple[str, ...] = ("left_stick", "right_stick")
"""Sticks of the W3C Gamepad "standard" layout: x to the right, y towards the player, each -1..1."""

MOUSE_BUTTONS: tuple[str, ...] = ("left", "middle", "right", "back", "forward")
"""Buttons of a mouse, in the order of the W3C UI Events `button` values."""

TOUCHES = 10

HAND_BUTTONS: tuple[str, ...] = ("trigger", "squeeze", "stick_press", "lower", "upper", "menu")
"""Buttons of a motion controller: those of the WebXR "xr-standard" mapping, then the face's two by place."""


REPORTED: dict[str, tuple[str, ...]] = {
    "body.place": ("right", "forward", "up"),
    "body.velocity": ("right", "forward", "up"),
    "body.facing": ("heading",),
    "body.push": ("right", "forward", "up"),
    "body.contact": ("right", "forward", "up"),
    "body.ground": ("there", "right", "forward", "up"),
    "body.restart": ("restarts",),
    "square": ("right", "forward", "blocked"),
    "discard": ("counts",),
}
"""Reports of a game about the body and its surroundings, in the plan frame, with the names of their numbers."""


REPORTED_UNITS = {"body.place": " m", "body.velocity": " m/s", "body.facing": " deg", "body.push": " m/s"}
"""Units of a game's reports; those not listed have none."""


class Control(NamedTuple):
    """One physical input, or a piece of context, and its `width` slots of the held state from `slot` on.

    `unit` is the thing that can be unplugged, such as `pad1` or `hand.left`; `device` is its kind.
    """

    name: str
    kind: ControlKind
    device: Device | None
    unit: str
    slot: int
    width: int
    low: float
    high: float

    @property
    def rest(self) -> float:
        """Each of its numbers at rest: a pointer rests in the middle of the window."""
        return 0.5 if self.kind == "pointer" else 0.0


UNITS: tuple[str, ...] = ("keys", *PADS, "mouse", "touch", "hand.left", "hand.right", "head")

RELEASES: dict[str, tuple[str, ...]] = {"lost.focus": UNITS} | {f"lost.{unit}": (unit,) for unit in UNITS}
"""The units that each loss releases."""


def _all_controls() -> dict[str, Control]:
    table: list[Control] = []

    def add(
        name: str, kind: ControlKind, device: Device | None, unit: str, width: int, low: float, high: float
    ) -> None:
        slot = table[-1].slot + table[-1].width if table else 0
        table.append(Control(name, kind, device, unit, slot, width, low, high))

    # Beyond any hand's motion, and small enough that no sum overflows.
    endless = (-1e9, 1e9)
    for code in KEY_CODES:
        add(f"key.{code}", "key", "keys", "keys", 1, 0.0, 1.0)
    for pad in PADS:
        for button in PAD_BUTTONS:
            add(f"{pad}.{button}", "button", "pad", pad, 1, 0.0, 1.0)
        for stick in PAD_STICKS:
            add(f"{pad}.{stick}", "stick", "pad", pad, 2, -1.0, 1.0)
        for sensor in ("gyro", "accel"):
            add(f"{pad}.{sensor}", "rates", "pad", pad, 3, *endless)
    add("mouse.move", "counts", "mouse", "mouse", 2, *endless)
    # A free-spinning wheel reports this many notches at once; no hand causes more.
    add("mouse.wheel", "wheel", "mouse", "mouse", 1, -1000.0, 1000.0)
    for button in MOUSE_BUTTONS:
        add(f"mouse.{button}", "button", "mouse", "mouse", 1, 0.0, 1.0)
    # 0 means that of the profile. It comes before everything that is measured by it.
    add("window", "window", None, "", 1, 0.0, 100.0)
    add("pointer.at", "pointer", "mouse", "mouse", 2, 0.0, 1.0)
    for finger in range(TOUCHES):
        add(f"touch.{finger}", "touch", "touch", "touch", 3, 0.0, 1.0)
    for hand in ("hand.left", "hand.right"):
        add(f"{hand}.pose", "pose", "hands", hand, 7, *endless)
        add(f"{hand}.stick", "stick", "hands", hand, 2, -1.0, 1.0)
        for button in HAND_BUTTONS:
            add(f"{hand}.{button}", "button", "hands", hand, 1, 0.0, 1.0)
    add("head.pose", "pose", "hands", "head", 7, *endless)
    add("view", "view", None, "", 2, *endless)
    for place in ("goal", "aim", "plan"):
        add(place, "place", None, "", 2, *endless)
    for name, words in REPORTED.items():
        add(name, "reported", None, "", len(words), *endless)
    for loss in RELEASES:
        add(loss, "loss", None, "", 0, 0.0, 1.0)
    add("mode", "mode", None, "", 0, 0.0, 0.0)
    add("mark", "mark", None, "", 0, 0.0, 0.0)
    return {control.name: control for control in table}


def _other_spelling(name: str) -> str | None:
    if name.startswith("pad."):
        return f"pad0{name[3:]}"
    return "lost.pad0" if name == "lost.pad" else None


_NAMED = _all_controls()

TEXTS: frozenset[ControlKind] = frozenset({"mode", "mark"})
"""Kinds of control whose value is a text."""

CONTROLS: dict[str, Control] = _NAMED | {
    other: control for name, control in _NAMED.items() if (other := _other_spelling(name))
}
"""Control by name; `pad0.` is another spelling of `pad.`."""

BY_SLOT: dict[int, Control] = {control.slot: control for control in _NAMED.values() if control.width}
"""Control by its first place in the held state."""

JOYSTICK = "joystick"
"""The name under which people look for devices that are not pads."""

SHOWN = 2
"""Number of controls of a kind that a message names."""

STATE_WIDTH = sum(control.width for control in _NAMED.values())
"""Number of values in the held state of all controls."""


def where_listed(name: str, otherwise: str = 'all of them: "wendonic controls"') -> str:
    """Return where an unknown name is explained: a joystick feeds the controls of a pad.

    >>> where_listed("key.Zoom"), where_listed("joystick.axis.0")
    ('; all of them: "wendonic controls"', '; a joystick feeds the controls of a pad, see: wendonic explain joystick')
    """
    if name.lower().startswith(JOYSTICK):
        return "; a joystick feeds the controls of a pad, see: wendonic explain joystick"
    return f"; {otherwise}"


def _check_is_name(name: object) -> None:
    """Reject a value that is not a name, such as None for a key that a game does not know."""
    if not isinstance(name, str):
        raise ControlError(f'found {name!r}; allowed: the name of a control, such as "KeyW" or "pad.left_stick"')


def find_control(name: str) -> Control:
    """Return the control of that name; a `ControlError` has the nearest right spelling.

    >>> find_control("pad0.left_stick").name
    'pad.left_stick'
    >>> find_control("key.KeyWW")
    Traceback (most recent call last):
    wendonic.errors.ControlError: unknown control "key.KeyWW"; did you mean "key.KeyW"?
    """
    control = CONTROLS.get(name)
    if control is None:
        _check_is_name(name)
        guess = did_you_mean(name, CONTROLS, control_meant(name))
        raise ControlError(f'unknown control "{name}"{guess or where_listed(name)}')
    return control


def find_key(code: str) -> Control:
    """Return the control of a W3C key code such as `KeyW`; `key.KeyW` is taken too.

    >>> find_key("keyw")
    Traceback (most recent call last):
    wendonic.errors.ControlError: unknown key code "keyw"; did you mean "KeyW"?
    """
    control = CONTROLS.get(f"key.{code}") or CONTROLS.get(code)
    if control is None or control.kind != "key":
        _check_is_name(code)
        hint = did_you_mean(code.removeprefix("key."), KEY_CODES, key_meant(code))
        hint = hint or '; key codes are W3C places such as "KeyW" or "ArrowUp"'
        raise ControlError(f'unknown key code "{code}"{hint}')
    return control


def find_kind(name: str, *kinds: ControlKind) -> Control:
    """Return the control of that name if it is of one of the `kinds`; raises `ControlError` otherwise.

    >>> find_kind("pad.south", "stick")
    Traceback (most recent call last):
    wendonic.errors.ControlError: pad.south is not a stick; sticks: pad.left_stick, pad.right_stick and 2 more
    >>> find_kind("pad.lb", "stick")
    Traceback (most recent call last):
    wendonic.errors.ControlError: "pad.lb" is pad.left_bumper, which is not a stick; sticks: pad.left_stick, \
pad.right_stick and 2 more
    """
    control = CONTROLS.get(name)
    if control is not None and control.kind in kinds:
        return control
    _check_is_name(name)
    meant = control or CONTROLS.get(control_meant(name) or f"key.{name}")
    if meant is None or meant.kind in kinds:
        of_kind = [known for known, one in CONTROLS.items() if one.kind in kinds]
        guess = did_you_mean(name, of_kind, meant.name if meant else None)
        raise ControlError(f'unknown control "{name}"{guess or where_listed(name)}')
    # Each further pad has what the first one has.
    shown = [c.name for c in _NAMED.values() if c.kind in kinds and c.unit not in PADS[1:] and c.kind != "key"]
    called = meant.name if control else f'"{name}" is {meant.name}, which'
    raise ControlError(f"{called} is not a {kinds[0]}; {kinds[0]}s: {first_of(shown, SHOWN)}")
