"""Events of a pyglet window as Wendonic's own (extra `pyglet`)."""

import logging
from collections.abc import Callable
from functools import partial
from typing import Any

from wendonic.devices.adapters.pad_numbers import PadNumbers
from wendonic.devices.adapters.window_shape import WindowShape
from wendonic.devices.event import Event, Value
from wendonic.devices.keys import KEY_CODES
from wendonic.errors import WendonicError

KEYS: dict[str, str] = {
    **{code.removeprefix("Key"): code for code in KEY_CODES if code.startswith("Key")},
    **{f"_{number}": f"Digit{number}" for number in range(10)},
    **{f"NUM_{number}": f"Numpad{number}" for number in range(10)},
    **{f"F{number}": f"F{number}" for number in range(1, 25)},
    **{
        f"{side[0]}{name}": f"{code}{side}"
        for side in ("Left", "Right")
        for name, code in (
            ("SHIFT", "Shift"),
            ("CTRL", "Control"),
            ("ALT", "Alt"),
            ("OPTION", "Alt"),
            ("WINDOWS", "Meta"),
            ("COMMAND", "Meta"),
            ("META", "Meta"),
        )
    },
    **{side.upper(): f"Arrow{side}" for side in ("Left", "Right", "Up", "Down")},
    **{
        f"NUM_{code.upper()}": f"Numpad{code}"
        for code in ("Add", "Decimal", "Divide", "Enter", "Equal", "Multiply", "Subtract")
    },
    **{
        code.upper(): code
        for code in "Backslash Backspace BracketLeft BracketRight CapsLock Comma Delete End Enter Equal".split()
        + "Escape Home Insert Minus NumLock PageDown PageUp Pause Period ScrollLock Semicolon Slash Space Tab".split()
    },
    "RETURN": "Enter",
    "APOSTROPHE": "Quote",
    "GRAVE": "Backquote",
    "QUOTELEFT": "Backquote",
    "MENU": "ContextMenu",
    "PRINT": "PrintScreen",
}
"""By pyglet's names, which mean the letter on a key, not its place: on other layouts, W is where their W is."""

PAD_BUTTONS: dict[str, str] = {
    "a": "south",
    "b": "east",
    "x": "west",
    "y": "north",
    "leftshoulder": "left_bumper",
    "rightshoulder": "right_bumper",
    "back": "left_menu",
    "start": "right_menu",
    "guide": "home",
    "leftstick": "left_stick_press",
    "rightstick": "right_stick_press",
}
STICKS = {"leftstick": "left_stick", "rightstick": "right_stick"}
TRIGGERS = {"lefttrigger": "left_trigger", "righttrigger": "right_trigger"}
DPAD = (("dpad_left", 0, -1.0), ("dpad_right", 0, 1.0), ("dpad_down", 1, -1.0), ("dpad_up", 1, 1.0))

Apply = Callable[[Event], object]


class PygletEvents:
    """Passes the events of a window to `apply`, such as a helm's; the game's own handlers stay in place.

    `open_pads()` adds pads. For a mouse that can turn without limit, a game calls `window.set_exclusive_mouse(True)`.
    `now` returns the time of an event (s), for a recording. Pads are ignored while another window has the focus; when
    it returns, sticks count as they are, and buttons after they are pressed again. Raises `WendonicError` without
    pyglet.
    """

    def __init__(self, window: Any, apply: Apply, now: Callable[[], float] = lambda: 0.0) -> None:
        """Follow a window."""
        try:
            import pyglet
        except ImportError:
            raise WendonicError("events of pyglet need pyglet: pip install 'wendonic[pyglet]'") from None
        self._pyglet: Any = pyglet
        self._window = window
        self._apply = apply
        self._now = now
        key, mouse = pyglet.window.key, pyglet.window.mouse
        self._codes = {getattr(key, name): code for name, code in KEYS.items()}
        self._buttons = {
            mouse.LEFT: "left",
            mouse.MIDDLE: "middle",
            mouse.RIGHT: "right",
            mouse.MOUSE4: "back",
            mouse.MOUSE5: "forward",
        }
        self._unknown: set[int] = set()
        self._shape = WindowShape()
        self._pads = PadNumbers()
        self._dpads: dict[str, dict[str, float]] = {}
        self._levels: dict[str, Value] = {}
        self._is_away = False
        self._manager: Any = None
        names = "key_press key_release mouse_motion mouse_drag mouse_press mouse_release mouse_scroll"
        names += " activate deactivate hide"
        # pyglet holds methods weakly, but keeps a partial.
        window.push_handlers(**{f"on_{name}": partial(getattr(self, f"_{name}")) for name in names.split()})

    def open_pads(self) -> None:
        """Follow the pads that are plugged in, now and later. If the machine has none, that is logged.

        For a pad that the system has no mapping for, first pass its line of SDL's database to
        `pyglet.input.controller.add_mappings_from_string`.
        """
        try:
            self._manager = self._pyglet.input.ControllerManager()
        except OSError as fault:
            logging.getLogger("wendonic").warning("pads cannot be read on this machine: %s", fault)
            return
        self._manager.push_handlers(on_connect=partial(self.add_pad), on_disconnect=partial(self.remove_pad))
        for controller in self._manager.get_controllers():
            self.add_pad(controller)

    def add_pad(self, controller: Any) -> None:
        """Follow one controller of pyglet."""
        self._pads.plug_in(id(controller), str(controller.guid))
        controller.push_handlers(
            on_button_press=lambda of, name: self._button(of, name, 1.0),
            on_button_release=lambda of, name: self._button(of, name, 0.0),
            on_stick_motion=partial(self._stick),
            on_dpad_motion=partial(self._dpad),
            on_trigger_motion=partial(self._trigger),
        )
        controller.open()

    def remove_pad(self, controller: Any) -> None:
        """Release what an unplugged controller held."""
        pad = self._pads.unplug(id(controller))
        if pad is not None:
            self._dpads.pop(pad, None)
            self._levels = {name: level for name, level in self._levels.items() if not name.startswith(f"{pad}.")}
            self._tell(f"lost.{pad}", 1.0)

    def _tell(self, control: str, value: Value) -> None:
        self._apply(Event(self._now(), control, value))

    def _switched(self, symbol: int, down: float) -> None:
        code = self._codes.get(symbol)
        if code:
            self._tell(f"key.{code}", down)
        elif symbol not in self._unknown:
            self._unknown.add(symbol)
            name = self._pyglet.window.key.symbol_string(symbol)
            logging.getLogger("wendonic").info("key %s of pyglet has no W3C code here and is ignored", name)

    def _key_press(self, symbol: int, modifiers: int) -> None:  # noqa: ARG002
        self._switched(symbol, 1.0)

    def _key_release(self, symbol: int, modifiers: int) -> None:  # noqa: ARG002
        self._switched(symbol, 0.0)

    def _mouse_motion(self, x: float, y: float, right: float, up: float) -> None:
        if right or up:
            self._tell("mouse.move", (float(right), 0.0 - float(up)))
        # A captured mouse has no position in the window.
        width, height = self._window.get_size()
        if not getattr(self._window, "_mouse_exclusive", False) and width > 0 and height > 0:
            ratio = self._shape.news(width, height)
            if ratio is not None:
                self._tell("window", ratio)
            self._tell("pointer.at", (min(max(x / width, 0.0), 1.0), min(max(1.0 - y / height, 0.0), 1.0)))

    def _mouse_drag(self, x: float, y: float, right: float, up: float, buttons: int, modifiers: int) -> None:  # noqa: ARG002
        self._mouse_motion(x, y, right, up)

    def _mouse_press(self, x: float, y: float, button: int, modifiers: int) -> None:  # noqa: ARG002
        if button in self._buttons:
            self._tell(f"mouse.{self._buttons[button]}", 1.0)

    def _mouse_release(self, x: float, y: float, button: int, modifiers: int) -> None:  # noqa: ARG002
        if button in self._buttons:
            self._tell(f"mouse.{self._buttons[button]}", 0.0)

    def _mouse_scroll(self, x: float, y: float, right: float, up: float) -> None:  # noqa: ARG002
        if up:
            self._tell("mouse.wheel", -float(up))

    def _deactivate(self) -> None:
        self._is_away = True
        self._dpads.clear()
        self._tell("lost.focus", 1.0)

    def _activate(self) -> None:
        if self._is_away:
            self._is_away = False
            for name, level in self._levels.items():
                self._tell(name, level)

    def _hide(self) -> None:
        self._tell("lost.focus", 1.0)

    def _of_pad(self, controller: Any, control: str, value: Value) -> None:
        pad = self._pads.name(id(controller))
        if pad is not None and not self._is_away:
            self._tell(f"{pad}.{control}", value)

    def _level(self, controller: Any, control: str, value: Value) -> None:
        """Report a level, and keep it for when the focus returns."""
        self._levels[f"{self._pads.name(id(controller))}.{control}"] = value
        self._of_pad(controller, control, value)

    def _button(self, controller: Any, name: str, down: float) -> None:
        if name in PAD_BUTTONS:
            self._of_pad(controller, PAD_BUTTONS[name], down)

    def _stick(self, controller: Any, name: str, tilt: Any) -> None:
        if name in STICKS:
            # There y is positive away from the player.
            self._level(controller, STICKS[name], (float(tilt[0]), 0.0 - float(tilt[1])))

    def _trigger(self, controller: Any, name: str, value: float) -> None:
        if name in TRIGGERS:
            self._level(controller, TRIGGERS[name], float(value))

    def _dpad(self, controller: Any, tilt: Any) -> None:
        pad = self._pads.name(id(controller))
        if self._is_away:
            return
        held = self._dpads.setdefault(pad or "", {})
        for control, axis, sign in DPAD:
            down = float(tilt[axis] * sign > 0.5)
            if held.get(control, 0.0) != down:
                held[control] = down
                self._of_pad(controller, control, down)
