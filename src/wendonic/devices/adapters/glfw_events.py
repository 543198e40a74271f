"""Events of a GLFW window as Wendonic's own (extra `glfw`)."""

import logging
from collections.abc import Callable, Sequence
from typing import Any

from wendonic.devices.adapters.pad_numbers import PadNumbers
from wendonic.devices.adapters.window_shape import WindowShape
from wendonic.devices.event import Event, Value
from wendonic.devices.joystick import HAT_SIDES, NUMBERS_ONLY, JoystickMapping, MappedJoystick
from wendonic.devices.keys import KEY_CODES
from wendonic.errors import WendonicError

KEYS: dict[str, str] = {
    **{f"KEY_{code.removeprefix('Key')}": code for code in KEY_CODES if code.startswith("Key")},
    **{f"KEY_{number}": f"Digit{number}" for number in range(10)},
    **{f"KEY_KP_{number}": f"Numpad{number}" for number in range(10)},
    **{f"KEY_F{number}": f"F{number}" for number in range(1, 25)},
    **{
        f"KEY_{side.upper()}_{name}": f"{code}{side}"
        for side in ("Left", "Right")
        for name, code in (("SHIFT", "Shift"), ("CONTROL", "Control"), ("ALT", "Alt"), ("SUPER", "Meta"))
    },
    **{f"KEY_{side.upper()}": f"Arrow{side}" for side in ("Left", "Right", "Up", "Down")},
    **{
        f"KEY_KP_{code.upper()}": f"Numpad{code}"
        for code in ("Add", "Decimal", "Divide", "Enter", "Equal", "Multiply", "Subtract")
    },
    **{
        f"KEY_{code.upper()}": code
        for code in "Backslash Backspace Comma Delete End Enter Equal Escape Home Insert".split()
        + "Minus Pause Period Semicolon Slash Space Tab".split()
    },
    "KEY_APOSTROPHE": "Quote",
    "KEY_GRAVE_ACCENT": "Backquote",
    "KEY_LEFT_BRACKET": "BracketLeft",
    "KEY_RIGHT_BRACKET": "BracketRight",
    "KEY_CAPS_LOCK": "CapsLock",
    "KEY_NUM_LOCK": "NumLock",
    "KEY_SCROLL_LOCK": "ScrollLock",
    "KEY_PRINT_SCREEN": "PrintScreen",
    "KEY_PAGE_UP": "PageUp",
    "KEY_PAGE_DOWN": "PageDown",
    "KEY_MENU": "ContextMenu",
    "KEY_WORLD_1": "IntlBackslash",
}
"""GLFW names keys by their place as well: W is the key with a W on a US keyboard."""

MOUSE_BUTTONS = ("left", "right", "middle", "back", "forward")
PAD_BUTTONS = (
    "south east west north left_bumper right_bumper left_menu right_menu home left_stick_press right_stick_press "
    "dpad_up dpad_right dpad_down dpad_left"
).split()
"""In the order of GLFW's numbers."""

Apply = Callable[[Event], object]


class GlfwEvents:
    """Passes the events of a window to `apply`, such as a helm's; callbacks set by the game are still called.

    GLFW has no callbacks for pads: call `poll()` once a frame, before the tick. `now` returns the time of an event
    (s), for a recording. `joysticks` are mappings of joysticks whose layout GLFW does not know, such as a profile's:
    `profile.joysticks`. For a mouse that can turn without limit, a game sets the input mode `CURSOR` of its window to
    `CURSOR_DISABLED`, and `RAW_MOUSE_MOTION` where `raw_mouse_motion_supported()`. Pads are ignored while another
    window has the focus; when it returns, sticks count as they are, and buttons after they are pressed again. Keep a
    reference to the adapter as long as the window exists. Raises `WendonicError` without the package glfw.
    """

    def __init__(
        self,
        window: Any,
        apply: Apply,
        now: Callable[[], float] = lambda: 0.0,
        joysticks: Sequence[JoystickMapping] = (),
    ) -> None:
        """Follow a window."""
        try:
            import glfw
        except ImportError:
            raise WendonicError("events of GLFW need the package glfw: pip install 'wendonic[glfw]'") from None
        self._glfw: Any = glfw
        self._window = window
        self._apply = apply
        self._now = now
        self._codes = {getattr(glfw, name): code for name, code in KEYS.items()}
        self._at: tuple[float, float] | None = None
        self._cursor_mode = glfw.get_input_mode(window, glfw.CURSOR)
        self._is_away = self._is_back = False
        self._shape = WindowShape()
        self._numbers = PadNumbers()
        self._pads: dict[int, dict[str, Value]] = {}
        self._mappings = tuple(joysticks)
        self._mapped: dict[int, MappedJoystick] = {}
        self._unmapped: set[int] = set()
        for name in ("key", "cursor_pos", "mouse_button", "scroll", "window_focus", "window_iconify", "cursor_enter"):
            self._follow(window, name)

    def _follow(self, window: Any, name: str) -> None:
        own: Callable[..., None] = getattr(self, f"_{name}")
        had: list[Any] = []

        def called(*given: Any) -> None:
            self._follow_cursor()
            own(*given)
            if had[0] is not None:
                had[0](*given)

        had.append(getattr(self._glfw, f"set_{name}_callback")(window, called))

    def _follow_cursor(self) -> None:
        mode = self._glfw.get_input_mode(self._window, self._glfw.CURSOR)
        if mode == self._cursor_mode:
            return
        self._cursor_mode = mode
        if mode != self._glfw.CURSOR_DISABLED:
            # A released mouse returns to where it was captured, which is not a motion.
            self._at = self._glfw.get_cursor_pos(self._window)

    def _tell(self, control: str, value: Value) -> None:
        self._apply(Event(self._now(), control, value))

    def _key(self, window: Any, key: int, scancode: int, action: int, mods: int) -> None:  # noqa: ARG002
        code = self._codes.get(key)
        # Key repeat is not an event here.
        if code and action != self._glfw.REPEAT:
            self._tell(f"key.{code}", float(action == self._glfw.PRESS))

    def _cursor_pos(self, window: Any, x: float, y: float) -> None:
        if self._at is not None and (x, y) != self._at:
            self._tell("mouse.move", (x - self._at[0], y - self._at[1]))
        self._at = (x, y)
        # A captured cursor has no position in the window.
        width, height = self._glfw.get_window_size(window)
        if self._cursor_mode != self._glfw.CURSOR_DISABLED and width > 0 and height > 0:
            ratio = self._shape.news(width, height)
            if ratio is not None:
                self._tell("window", ratio)
            self._tell("pointer.at", (min(max(x / width, 0.0), 1.0), min(max(y / height, 0.0), 1.0)))

    def _cursor_enter(self, window: Any, entered: int) -> None:  # noqa: ARG002
        if not entered:
            # Its return is not a motion.
            self._at = None

    def _mouse_button(self, window: Any, button: int, action: int, mods: int) -> None:  # noqa: ARG002
        if button < len(MOUSE_BUTTONS):
            self._tell(f"mouse.{MOUSE_BUTTONS[button]}", float(action == self._glfw.PRESS))

    def _scroll(self, window: Any, x: float, y: float) -> None:  # noqa: ARG002
        if y:
            self._tell("mouse.wheel", -y)

    def _window_focus(self, window: Any, focused: int) -> None:  # noqa: ARG002
        if focused:
            self._is_back = self._is_back or self._is_away
            self._is_away = False
            return
        self._is_away, self._at = True, None
        for known in self._pads.values():
            known.clear()
        self._tell("lost.focus", 1.0)

    def _window_iconify(self, window: Any, iconified: int) -> None:
        self._window_focus(window, not iconified)

    def poll(self) -> None:
        """Read every pad, and report changes since the last call."""
        glfw = self._glfw
        self._follow_cursor()
        if self._is_away:
            return
        is_back, self._is_back = self._is_back, False
        for number in range(glfw.JOYSTICK_LAST + 1):
            values = self._values(number)
            if values is None:
                if number in self._pads:
                    del self._pads[number]
                    self._mapped.pop(number, None)
                    self._tell(f"lost.{self._numbers.unplug(number)}", 1.0)
                continue
            pad = self._numbers.plug_in(number, str(glfw.get_joystick_guid(number)))
            known = self._pads.setdefault(number, {})
            for control, value in values:
                # A control that is at rest at first changes nothing.
                rest: Value = (0.0, 0.0) if isinstance(value, tuple) else 0.0
                if pad is not None and known.get(control, rest) != value:
                    known[control] = value
                    if not (is_back and control in PAD_BUTTONS):
                        self._tell(f"{pad}.{control}", value)

    def _values(self, number: int) -> list[tuple[str, Value]] | None:
        """Return the present value of each control of a pad, None for a joystick with an unknown layout."""
        glfw = self._glfw
        joystick = self._mapped_joystick(number) if self._mappings and glfw.joystick_present(number) else None
        if joystick is not None:
            joystick.state.axes.update(enumerate(_numbers(glfw.get_joystick_axes(number))))
            joystick.state.buttons.update(enumerate(_numbers(glfw.get_joystick_buttons(number))))
            for hat, bits in enumerate(_numbers(glfw.get_joystick_hats(number))):
                sides = [HAT_SIDES[side] for side in HAT_SIDES if int(bits) & side]
                right, up = (sum(sign for place, sign in sides if place == axis) for axis in (0, 1))
                joystick.state.hats[hat] = (float(right), float(up))
            return joystick.values()
        if not glfw.joystick_is_gamepad(number):
            if number not in self._unmapped and glfw.joystick_present(number):
                self._unmapped.add(number)
                guid, name = self._named(number)
                logging.getLogger("wendonic").warning(NUMBERS_ONLY, name, guid)
            return None
        state = glfw.get_gamepad_state(number)
        return None if state is None else _pad_values(state)

    def _named(self, number: int) -> tuple[str, str]:
        return _text(self._glfw.get_joystick_guid(number)), _text(self._glfw.get_joystick_name(number))

    def _mapped_joystick(self, number: int) -> MappedJoystick | None:
        if number not in self._mapped:
            guid, name = self._named(number)
            mapping = next((mapping for mapping in self._mappings if mapping.fits(guid, name)), None)
            if mapping is None:
                return None
            self._mapped[number] = MappedJoystick(mapping)
        return self._mapped[number]


def _text(name: Any) -> str:
    return name.decode("utf-8", "replace") if isinstance(name, bytes) else str(name)


def _numbers(found: Any) -> list[float]:
    """Return the numbers behind a pointer and a count, as GLFW returns them."""
    pointer, count = found
    return [float(pointer[place]) for place in range(count)]


def _pad_values(state: Any) -> list[tuple[str, Value]]:
    left_x, left_y, right_x, right_y, left, right = (float(state.axes[number]) for number in range(6))
    buttons = [(name, float(state.buttons[number])) for number, name in enumerate(PAD_BUTTONS)]
    # A trigger rests at -1 there.
    return [
        ("left_stick", (left_x, left_y)),
        ("right_stick", (right_x, right_y)),
        ("left_trigger", (left + 1.0) / 2.0),
        ("right_trigger", (right + 1.0) / 2.0),
        *buttons,
    ]
