"""Events of pygame as Wendonic's own (extra `live`): a game that has a pygame window feeds its helm with it."""

from typing import Any

try:
    import pygame
    from pygame._sdl2 import controller
except ImportError:
    from wendonic.errors import WendonicError

    raise WendonicError("pygame events need pygame-ce: pip install 'wendonic[live]'") from None

from wendonic.devices.adapters.pad_numbers import PadNumbers
from wendonic.devices.controls import TOUCHES
from wendonic.devices.event import Event, Value
from wendonic.devices.keys import KEY_CODES
from wendonic.devices.usb_keys import USB_KEYS

MOUSE_BUTTONS = {1: "left", 2: "middle", 3: "right", 6: "back", 7: "forward"}
"""By pygame's number; 4 and 5 are the wheel, which has events of its own."""

PAD_BUTTONS: dict[int, str] = {
    pygame.CONTROLLER_BUTTON_A: "south",
    pygame.CONTROLLER_BUTTON_B: "east",
    pygame.CONTROLLER_BUTTON_X: "west",
    pygame.CONTROLLER_BUTTON_Y: "north",
    pygame.CONTROLLER_BUTTON_BACK: "left_menu",
    pygame.CONTROLLER_BUTTON_GUIDE: "home",
    pygame.CONTROLLER_BUTTON_START: "right_menu",
    pygame.CONTROLLER_BUTTON_LEFTSTICK: "left_stick_press",
    pygame.CONTROLLER_BUTTON_RIGHTSTICK: "right_stick_press",
    pygame.CONTROLLER_BUTTON_LEFTSHOULDER: "left_bumper",
    pygame.CONTROLLER_BUTTON_RIGHTSHOULDER: "right_bumper",
    pygame.CONTROLLER_BUTTON_DPAD_UP: "dpad_up",
    pygame.CONTROLLER_BUTTON_DPAD_DOWN: "dpad_down",
    pygame.CONTROLLER_BUTTON_DPAD_LEFT: "dpad_left",
    pygame.CONTROLLER_BUTTON_DPAD_RIGHT: "dpad_right",
}

STICK_AXES: dict[int, tuple[str, int]] = {
    pygame.CONTROLLER_AXIS_LEFTX: ("left_stick", 0),
    pygame.CONTROLLER_AXIS_LEFTY: ("left_stick", 1),
    pygame.CONTROLLER_AXIS_RIGHTX: ("right_stick", 0),
    pygame.CONTROLLER_AXIS_RIGHTY: ("right_stick", 1),
}

TRIGGER_AXES: dict[int, str] = {
    pygame.CONTROLLER_AXIS_TRIGGERLEFT: "left_trigger",
    pygame.CONTROLLER_AXIS_TRIGGERRIGHT: "right_trigger",
}

FULL_AXIS = 32767.0

_MODIFIERS = (("shift", "Shift"), ("ctrl", "Control"), ("alt", "Alt"), ("meta", "Meta"))


class PygameEvents:
    """Turns one event of pygame into zero or more of ours.

    It remembers which pad is which, where each stick's other axis stands and which finger is which. Pads get the
    lowest number that is free, in the order in which they are plugged in, and say so when they go (`lost.pad1`); one
    that comes back gets the number that it had, if that is still free.
    `window_size` in pixels is what the pointer is measured by; without it, the window's size when asked.

    >>> adapter = PygameEvents(window_size=(1280, 800))
    >>> adapter.events(pygame.event.Event(pygame.KEYDOWN, scancode=pygame.KSCAN_W), t=0.5)
    [Event(t=0.5, control='key.KeyW', value=1.0)]
    """

    def __init__(self, window_size: tuple[int, int] | None = None) -> None:
        """Begin with no pad and no finger."""
        self._window_size = window_size
        self._pads = PadNumbers()
        self._opened: dict[int, Any] = {}
        self._tilts: dict[str, list[float]] = {}
        self._fingers: dict[tuple[int, int], int] = {}

    def open_pads(self) -> None:
        """Ask pygame for the pads that are plugged in, now and later; their events come through `events`.

        Call it once, after `pygame.init()`.
        """
        controller.init()

    def events(self, raw: pygame.Event, t: float = 0.0) -> list[Event]:
        """Return what the event means, at time `t` (s); a game that applies it at once may leave `t` out."""
        kind = raw.type
        if kind in (pygame.KEYDOWN, pygame.KEYUP):
            # An event that was made by hand may say which key it is, and not where it lies.
            code = USB_KEYS.get(getattr(raw, "scancode", 0)) or _code_of_key(getattr(raw, "key", 0))
            return [Event(t, f"key.{code}", float(kind == pygame.KEYDOWN))] if code else []
        if kind == pygame.MOUSEMOTION:
            return self._mouse_moved(raw, t)
        if kind in (pygame.MOUSEBUTTONDOWN, pygame.MOUSEBUTTONUP):
            button = MOUSE_BUTTONS.get(raw.button)
            if button is None or getattr(raw, "touch", False):
                return []
            return [Event(t, f"mouse.{button}", float(kind == pygame.MOUSEBUTTONDOWN))]
        if kind == pygame.MOUSEWHEEL:
            away = float(getattr(raw, "precise_y", raw.y))
            notches = away if getattr(raw, "flipped", False) else -away
            return [Event(t, "mouse.wheel", notches)] if notches else []
        if kind in (pygame.FINGERDOWN, pygame.FINGERMOTION, pygame.FINGERUP):
            return self._finger(raw, t)
        if kind in (pygame.WINDOWFOCUSLOST, pygame.WINDOWMINIMIZED):
            return [Event(t, "lost.focus", 1.0)]
        return self._pad(raw, t)

    def _mouse_moved(self, raw: pygame.Event, t: float) -> list[Event]:
        # What SDL makes up from a finger is reported by the finger itself.
        if getattr(raw, "touch", False):
            return []
        width, height = self._window_size or pygame.display.get_window_size()
        right, down = raw.rel
        made = [Event(t, "mouse.move", (float(right), float(down)))] if right or down else []
        x, y = (min(max(place / size, 0.0), 1.0) for place, size in zip(raw.pos, (width, height), strict=True))
        return [*made, Event(t, "pointer.at", (x, y))]

    def _finger(self, raw: pygame.Event, t: float) -> list[Event]:
        finger = (raw.touch_id, raw.finger_id)
        if finger not in self._fingers:
            free = sorted(set(range(TOUCHES)) - set(self._fingers.values()))
            if not free or raw.type != pygame.FINGERDOWN:
                return []
            self._fingers[finger] = free[0]
        number = self._fingers[finger]
        lifted = raw.type == pygame.FINGERUP
        if lifted:
            del self._fingers[finger]
        pressure = 0.0 if lifted else min(max(float(getattr(raw, "pressure", 1.0)), 0.0), 1.0) or 1.0
        x, y = (min(max(float(place), 0.0), 1.0) for place in (raw.x, raw.y))
        return [Event(t, f"touch.{number}", (x, y, pressure))]

    def _pad(self, raw: pygame.Event, t: float) -> list[Event]:
        kind = raw.type
        if kind == pygame.CONTROLLERDEVICEADDED:
            opened = controller.Controller(raw.device_index)
            joystick = opened.as_joystick()
            self._opened[joystick.get_instance_id()] = opened
            self._pads.plug_in(joystick.get_instance_id(), joystick.get_guid())
            return []
        if kind == pygame.CONTROLLERDEVICEREMOVED:
            self._opened.pop(raw.instance_id, None)
            pad = self._pads.unplug(raw.instance_id)
            if pad is None:
                return []
            self._tilts = {stick: tilt for stick, tilt in self._tilts.items() if not stick.startswith(f"{pad}.")}
            return [Event(t, f"lost.{pad}", 1.0)]
        if kind in (pygame.CONTROLLERBUTTONDOWN, pygame.CONTROLLERBUTTONUP):
            button = PAD_BUTTONS.get(raw.button)
            down = float(kind == pygame.CONTROLLERBUTTONDOWN)
            return self._of_pad(raw, button, down, t) if button else []
        if kind == pygame.CONTROLLERAXISMOTION:
            if raw.axis in TRIGGER_AXES:
                return self._of_pad(raw, TRIGGER_AXES[raw.axis], max(raw.value / FULL_AXIS, 0.0), t)
            if raw.axis in STICK_AXES:
                return self._tilted(raw, t)
        return []

    def _of_pad(self, raw: pygame.Event, control: str, value: Value, t: float) -> list[Event]:
        pad = self._pads.name(raw.instance_id)
        return [Event(t, f"{pad}.{control}", value)] if pad else []

    def _tilted(self, raw: pygame.Event, t: float) -> list[Event]:
        pad = self._pads.name(raw.instance_id)
        if pad is None:
            return []
        stick, axis = STICK_AXES[raw.axis]
        tilt = self._tilts.setdefault(f"{pad}.{stick}", [0.0, 0.0])
        # The negative end has one code more than the positive one.
        tilt[axis] = max(raw.value / FULL_AXIS, -1.0)
        return [Event(t, f"{pad}.{stick}", (tilt[0], tilt[1]))]


_KEY_NAMES = {
    **{name: f"Arrow{name.title()}" for name in ("left", "right", "up", "down")},
    **{f"{side} {key}": f"{code}{side.title()}" for side in ("left", "right") for key, code in _MODIFIERS},
    "return": "Enter",
    "page up": "PageUp",
    "page down": "PageDown",
}


def _code_of_key(key: int) -> str | None:
    """Return the code of a key of pygame (`K_w`), as on a US keyboard."""
    name = pygame.key.name(key, use_compat=True) if key else ""
    if len(name) == 1 and name.isalnum() and name.isascii():
        return f"{'Digit' if name.isdigit() else 'Key'}{name.upper()}"
    code = _KEY_NAMES.get(name, name.title())
    return code if code in KEY_CODES else None
