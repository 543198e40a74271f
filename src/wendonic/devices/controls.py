"""Every control by its dotted name: what it is, which device has it, what values it may take."""

import math
from typing import Literal, NamedTuple

from wendonic.devices.keys import KEY_CODES
from wendonic.errors import ControlError, did_you_mean

ControlKind = Literal["key", "button", "stick", "view", "loss", "mark"]
Device = Literal["keys", "pad"]

PAD_BUTTONS: tuple[str, ...] = tuple(
    """
    south east west north left_bumper right_bumper left_trigger right_trigger left_menu right_menu
    left_stick_press right_stick_press dpad_up dpad_down dpad_left dpad_right home
    """.split()
)
"""Buttons by place, in the order of the W3C Gamepad "standard" layout."""

PAD_STICKS: tuple[str, ...] = ("left_stick", "right_stick")
"""Sticks of the W3C Gamepad "standard" layout: x to the right, y towards the player, each -1..1."""


LETS_GO: dict[str, tuple[Device, ...]] = {"lost.focus": ("keys", "pad"), "lost.pad": ("pad",)}
"""Devices that are let go, by the loss that does it."""


class Control(NamedTuple):
    """One physical input, or a piece of context, and its `width` places in the held state from `slot` on."""

    name: str
    kind: ControlKind
    device: Device | None
    slot: int
    width: int
    low: float
    high: float


def _all_controls() -> dict[str, Control]:
    table: list[Control] = []

    def add(name: str, kind: ControlKind, device: Device | None, width: int, low: float, high: float) -> None:
        slot = table[-1].slot + table[-1].width if table else 0
        table.append(Control(name, kind, device, slot, width, low, high))

    for code in KEY_CODES:
        add(f"key.{code}", "key", "keys", 1, 0.0, 1.0)
    for button in PAD_BUTTONS:
        add(f"pad.{button}", "button", "pad", 1, 0.0, 1.0)
    for stick in PAD_STICKS:
        add(f"pad.{stick}", "stick", "pad", 2, -1.0, 1.0)
    add("view", "view", None, 2, -math.inf, math.inf)
    for loss in LETS_GO:
        add(loss, "loss", None, 0, 0.0, 1.0)
    add("mark", "mark", None, 0, 0.0, 0.0)
    named = {control.name: control for control in table}
    return named | {f"pad0{name[3:]}": control for name, control in named.items() if name.startswith("pad.")}


CONTROLS: dict[str, Control] = _all_controls()
"""Control by name; `pad0.` is another spelling of `pad.`."""

STATE_WIDTH = sum(control.width for control in set(CONTROLS.values()))
"""Numbers that the held state of all controls takes."""


def find_control(name: str) -> Control:
    """Return the control of that name; a `ControlError` gives the nearest right spelling.

    >>> find_control("pad0.left_stick").name
    'pad.left_stick'
    >>> find_control("key.KeyWW")
    Traceback (most recent call last):
    wendonic.errors.ControlError: unknown control "key.KeyWW"; did you mean "key.KeyW"?
    """
    control = CONTROLS.get(name)
    if control is None:
        guess = did_you_mean(name, CONTROLS)
        known = "" if guess else "; known: key.<W3C code>, pad.<button or stick>, view, lost.focus, lost.pad, mark"
        raise ControlError(f'unknown control "{name}"{guess}{known}')
    return control


def find_key(code: str) -> Control:
    """Return the control of a W3C key code such as `KeyW`; `key.KeyW` is taken too.

    >>> find_key("keyw")
    Traceback (most recent call last):
    wendonic.errors.ControlError: unknown key code "keyw"; did you mean "KeyW"?
    """
    control = CONTROLS.get(f"key.{code}") or CONTROLS.get(code)
    if control is None or control.kind != "key":
        hint = did_you_mean(code, KEY_CODES) or '; key codes are W3C places such as "KeyW" or "ArrowUp"'
        raise ControlError(f'unknown key code "{code}"{hint}')
    return control
