"""Converts events of pygame (extra `live`) for the helm of a game with a pygame window."""

import logging
from collections.abc import Sequence
from typing import Any

try:
    import pygame
    from pygame._sdl2 import controller
except ImportError:
    from wendonic.errors import WendonicError

    raise WendonicError("pygame events need pygame-ce: pip install 'wendonic[live]'") from None

from wendonic.devices.adapters.pad_numbers import PadNumbers
from wendonic.devices.adapters.window_shape import WindowShape
from wendonic.devices.controls import TOUCHES
from wendonic.devices.event import Event, Value
from wendonic.devices.joystick import HAT_SIDES, NUMBERS_ONLY, JoystickMapping, MappedJoystick
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

HALF = 0.5
"""An axis moved this far was moved on purpose."""

_MODIFIERS = (("shift", "Shift"), ("ctrl", "Control"), ("alt", "Alt"), ("meta", "Meta"))


class PygameEvents:
    """Converts one event of pygame into zero or more of Wendonic's.

    It keeps the numbers of pads and fingers, and the value of each stick's other axis. Pads get the lowest free
    number, in the order in which they are plugged in, and are reported when they are unplugged (`lost.pad1`); a pad
    that returns gets its old number if that is still free. The pointer is measured by `window_size` in pixels;
    without it, by the present size of the window, or with `pygame.SCALED` by that of its surface. `joysticks` are
    mappings of joysticks whose axes and buttons have only numbers, such as a profile's: `profile.joysticks`. A
    joystick without a mapping is ignored, which is logged once. For a mouse that can turn without limit, a game calls
    `pygame.mouse.set_relative_mode(True)`: it hides the pointer, keeps it in the window and reports raw motion.

    >>> adapter = PygameEvents(window_size=(1280, 800))
    >>> adapter.events(pygame.event.Event(pygame.KEYDOWN, scancode=pygame.KSCAN_W), t=0.5)
    [Event(t=0.5, control='key.KeyW', value=1.0)]
    """

    def __init__(self, window_size: tuple[int, int] | None = None, joysticks: Sequence[JoystickMapping] = ()) -> None:
        """Begin with no pad and no finger."""
        self._window_size = window_size
        self._mappings = tuple(joysticks)
        self._joysticks: dict[int, MappedJoystick] = {}
        self._pads = PadNumbers()
        self._opened: dict[int, Any] = {}
        self._tilts: dict[str, list[float]] = {}
        self._fingers: dict[tuple[int, int], int] = {}
        self._shape = WindowShape()

    def open_pads(self) -> None:
        """Open the pads that are plugged in, now and later; their events come through `events`.

        Call it once, after `pygame.init()`.
        """
        controller.init()
        pygame.joystick.init()

    def events(self, raw: pygame.Event, t: float = 0.0) -> list[Event]:
        """Return the events that a pygame event stands for, at time `t` (s); a game that applies them at once may
        leave `t` out.
        """
        kind = raw.type
        if kind in (pygame.KEYDOWN, pygame.KEYUP):
            # An event built by hand may have a key but no scancode.
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
            # A finger that is lifted over another window is never reported.
            self._fingers.clear()
            return [Event(t, "lost.focus", 1.0)]
        return self._pad(raw, t)

    def _mouse_moved(self, raw: pygame.Event, t: float) -> list[Event]:
        # SDL also synthesises mouse events from fingers, which are reported as fingers.
        if getattr(raw, "touch", False):
            return []
        (width, height), scale = self._size(raw)
        right, down = (moved * scale for moved in raw.rel)
        made = [Event(t, "mouse.move", (right, down))] if right or down else []
        if width <= 0 or height <= 0 or (pygame.display.get_init() and pygame.mouse.get_relative_mode()):
            # A captured mouse has no position in the window.
            return made
        x, y = (min(max(place / size, 0.0), 1.0) for place, size in zip(raw.pos, (width, height), strict=True))
        return [*made, *self._reshaped(t, width, height), Event(t, "pointer.at", (x, y))]

    def _size(self, raw: pygame.Event) -> tuple[tuple[int, int], float]:
        """Return the size by which positions are measured, and the number of mouse counts per unit of motion."""
        if self._window_size is not None:
            return self._window_size, 1.0
        surface = pygame.display.get_surface() if pygame.display.get_init() else None
        if surface is None:
            # A game may create its windows without `set_mode`.
            window = getattr(raw, "window", None)
            return ((0, 0) if window is None else window.size), 1.0
        size, drawn = pygame.display.get_window_size(), surface.get_size()
        if size == drawn or not _is_scaled():
            return size, 1.0
        # Positions and motions are scaled with the surface, but the hand moved as far as before.
        return drawn, min(size[0] / drawn[0], size[1] / drawn[1])

    def _reshaped(self, t: float, width: int, height: int) -> list[Event]:
        """Report the shape of the window if it has changed."""
        ratio = self._shape.news(width, height)
        return [] if ratio is None else [Event(t, "window", ratio)]

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
        return [*self._reshaped(t, *self._size(raw)[0]), Event(t, f"touch.{number}", (x, y, pressure))]

    def _pad(self, raw: pygame.Event, t: float) -> list[Event]:
        kind = raw.type
        if kind == pygame.JOYDEVICEADDED:
            self._joystick_added(raw.device_index)
            return []
        instance_id = getattr(raw, "instance_id", None)
        if instance_id in self._joysticks:
            return self._joystick(raw, t)
        if kind == pygame.CONTROLLERDEVICEADDED:
            if self._mapping_of(raw.device_index):
                # The profile's own mapping takes precedence.
                return []
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

    def unmapped(self, raw: pygame.Event) -> str | None:
        """Return the name of the joystick that an event comes from, if it has no mapping."""
        opened = self._opened.get(getattr(raw, "instance_id", -1))
        is_bare = isinstance(opened, pygame.joystick.JoystickType) and raw.instance_id not in self._joysticks
        return str(opened.get_name()) if opened and is_bare else None

    def _mapping_of(self, device_index: int) -> JoystickMapping | None:
        if not self._mappings:
            return None
        joystick = pygame.joystick.Joystick(device_index)
        found = (mapping for mapping in self._mappings if mapping.fits(joystick.get_guid(), joystick.get_name()))
        return next(found, None)

    def _joystick_added(self, device_index: int) -> None:
        mapping = self._mapping_of(device_index)
        if mapping is None and controller.is_controller(device_index):
            return
        opened = pygame.joystick.Joystick(device_index)
        number, guid, name = opened.get_instance_id(), opened.get_guid(), opened.get_name()
        self._opened[number] = opened
        if mapping is None:
            logging.getLogger("wendonic").warning(NUMBERS_ONLY, name, guid)
        else:
            self._joysticks[number] = MappedJoystick(mapping)
            self._pads.plug_in(number, guid)

    def _joystick(self, raw: pygame.Event, t: float) -> list[Event]:
        """Return the changes on a joystick with a mapping."""
        kind, joystick = raw.type, self._joysticks[raw.instance_id]
        pad = self._pads.name(raw.instance_id)
        if kind == pygame.JOYDEVICEREMOVED:
            del self._joysticks[raw.instance_id]
            self._opened.pop(raw.instance_id, None)
            self._pads.unplug(raw.instance_id)
            return [Event(t, f"lost.{pad}", 1.0)] if pad else []
        state = joystick.state
        if kind == pygame.JOYAXISMOTION:
            # pygame divides by the code of the negative end, which is larger by one than that of the positive end.
            state.axes[raw.axis] = max(raw.value * 32768.0 / FULL_AXIS, -1.0)
        elif kind in (pygame.JOYBUTTONDOWN, pygame.JOYBUTTONUP):
            state.buttons[raw.button] = float(kind == pygame.JOYBUTTONDOWN)
        elif kind == pygame.JOYHATMOTION:
            state.hats[raw.hat] = (float(raw.value[0]), float(raw.value[1]))
        return [Event(t, f"{pad}.{control}", value) for control, value in joystick.changes()] if pad else []

    def _of_pad(self, raw: pygame.Event, control: str, value: Value, t: float) -> list[Event]:
        pad = self._pads.name(raw.instance_id)
        return [Event(t, f"{pad}.{control}", value)] if pad else []

    def _tilted(self, raw: pygame.Event, t: float) -> list[Event]:
        pad = self._pads.name(raw.instance_id)
        if pad is None:
            return []
        stick, axis = STICK_AXES[raw.axis]
        tilt = self._tilts.setdefault(f"{pad}.{stick}", [0.0, 0.0])
        # The negative end has one more code than the positive one.
        tilt[axis] = max(raw.value / FULL_AXIS, -1.0)
        return [Event(t, f"{pad}.{stick}", (tilt[0], tilt[1]))]


def _is_scaled() -> bool:
    """Return whether pygame scales the surface to the window (`pygame.SCALED`): only then is there a renderer. A
    resized OpenGL window may also differ in size from its surface.
    """
    renderer = getattr(pygame.display, "_get_renderer_info", None)
    return renderer is not None and renderer() is not None


def moved_element(raw: pygame.Event) -> str | None:
    """Return the element of a joystick that an event moved far, as a profile's [joystick] names it; otherwise None.

    >>> moved_element(pygame.event.Event(pygame.JOYAXISMOTION, instance_id=3, axis=1, value=-0.9))
    '-a1'
    """
    kind = raw.type
    if kind == pygame.JOYBUTTONDOWN:
        return f"b{raw.button}"
    if kind == pygame.JOYAXISMOTION and abs(raw.value) > HALF:
        return f"{'+' if raw.value > 0.0 else '-'}a{raw.axis}"
    if kind == pygame.JOYHATMOTION:
        sides = (side for side, (place, sign) in HAT_SIDES.items() if raw.value[place] == sign)
        return next((f"h{raw.hat}.{side}" for side in sides), None)
    return None


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
