"""Joysticks: devices with numbered axes, buttons and hats, and mappings of a pad's controls to them."""

import re
from collections.abc import Mapping, Sequence
from typing import Any, NamedTuple

from wendonic.devices.controls import PAD_BUTTONS, PAD_STICKS
from wendonic.errors import ControlError, none_such

HAT_SIDES = {1: (1, 1), 2: (0, 1), 4: (1, -1), 8: (0, -1)}
"""For each direction of a hat, by its bit: the index of its number (right, up), and its sign."""

NUMBERS_ONLY = (
    'joystick "%s" (GUID %s) reports numbers only; to use it, give the profile a [joystick.…] table with its controls'
)
"""Log message for a joystick without a mapping, with its name and its GUID."""

_ELEMENT = re.compile(r"(?P<half>[+-]?)(?P<kind>[abh])(?P<number>\d{1,3})(?:\.(?P<side>[1248]))?(?P<inverted>~?)")
_FULL, _POSITIVE, _NEGATIVE = "", "+", "-"

_DATABASE_NAMES = {
    "a": "south",
    "b": "east",
    "x": "west",
    "y": "north",
    "leftshoulder": "left_bumper",
    "rightshoulder": "right_bumper",
    "lefttrigger": "left_trigger",
    "righttrigger": "right_trigger",
    "back": "left_menu",
    "start": "right_menu",
    "guide": "home",
    "leftstick": "left_stick_press",
    "rightstick": "right_stick_press",
    "dpup": "dpad_up",
    "dpdown": "dpad_down",
    "dpleft": "dpad_left",
    "dpright": "dpad_right",
}
_DATABASE_AXES = {
    "leftx": ("left_stick", 0),
    "lefty": ("left_stick", 1),
    "rightx": ("right_stick", 0),
    "righty": ("right_stick", 1),
}


class Element(NamedTuple):
    """One numbered thing of a joystick: an axis "a2" (inverted "a2~", one half of it "+a2" or "-a2"), a button "b3",
    or one direction of a hat "h0.1" (1 up, 2 right, 4 down, 8 left).
    """

    kind: str
    number: int
    half: str = _FULL
    side: int = 0
    inverted: bool = False


def element_of(text: str) -> Element:
    """Return the element that a text names; raises `ControlError` for any other text.

    >>> element_of("h0.4")
    Element(kind='h', number=0, half='', side=4, inverted=False)
    """
    found = _ELEMENT.fullmatch(text)
    if found is None or (found["kind"] == "h") != bool(found["side"]) or (found["half"] and found["kind"] != "a"):
        allowed = 'an axis "a0", inverted "a0~" or half of it "+a0", a button "b0", or a hat\'s direction "h0.1"'
        raise ControlError(f'found "{text}"; allowed: {allowed}')
    return Element(
        found["kind"], int(found["number"]), found["half"], int(found["side"] or 0), bool(found["inverted"])
    )


class JoystickState:
    """The present values of a joystick's axes (-1..1), buttons and hats (right, up: -1, 0 or 1 each)."""

    __slots__ = ("axes", "buttons", "hats")

    def __init__(self) -> None:
        """Begin with nothing known."""
        self.axes: dict[int, float] = {}
        self.buttons: dict[int, float] = {}
        self.hats: dict[int, tuple[float, float]] = {}

    def signed(self, element: Element) -> float:
        """Return the value of an element: -1..1 for an axis, 0..1 for anything else."""
        if element.kind == "b":
            return self.buttons.get(element.number, 0.0)
        if element.kind == "h":
            place, sign = HAT_SIDES[element.side]
            return max(sign * self.hats.get(element.number, (0.0, 0.0))[place], 0.0)
        value = self.axes.get(element.number, 0.0)
        value = -value if element.inverted else value
        if element.half == _FULL:
            return value
        return max(value if element.half == _POSITIVE else -value, 0.0)

    def pressed(self, element: Element) -> float:
        """Return how far an element is pressed, 0..1. A whole axis counts from one end to the other once it has
        reported: a trigger that has not reported yet is not half-way down.
        """
        if element.kind == "a" and element.half == _FULL:
            return (self.signed(element) + 1.0) / 2.0 if self.axes.get(element.number, 0.0) != 0.0 else 0.0
        return self.signed(element)


class _Part(NamedTuple):
    """One element of a stick: the index of the number that it adds to, and its sign."""

    axis: int
    sign: float
    element: Element


class JoystickMapping:
    """Where the controls of a pad are on a joystick.

    `controls` has for each button or trigger of the W3C standard layout the element that presses it, and for each
    stick two axes: to the right, and towards the player. `guid` or `name`, as the system reports them, select the
    joysticks. Raises `ControlError` for a control or an element that does not exist.

    >>> mapping = JoystickMapping({"left_stick": ("a0", "a1"), "south": "b2", "left_trigger": "a4"}, name="Barrow")
    >>> state = JoystickState()
    >>> state.axes |= {0: 0.5, 1: -1.0, 4: -1.0}
    >>> dict(mapping.values(state))
    {'left_stick': (0.5, -1.0), 'south': 0.0, 'left_trigger': 0.0}
    >>> mapping.fits("03000000", "barrow")
    True
    """

    def __init__(self, controls: Mapping[str, str | Sequence[str]], guid: str = "", name: str = "") -> None:
        """Resolve the elements."""
        self.guid, self.name = guid.lower(), name
        self._buttons: dict[str, Element] = {}
        self._sticks: dict[str, list[_Part]] = {}
        for control, elements in controls.items():
            if control in PAD_STICKS:
                if isinstance(elements, str) or len(elements) != 2:
                    raise ControlError(f'{control}: found {elements!r}; allowed: two axes such as ["a0", "a1"]')
                parts = [element_of(element) for element in elements]
                self._sticks[control] = [_Part(axis, 1.0, element) for axis, element in enumerate(parts)]
            elif control not in PAD_BUTTONS:
                raise ControlError(none_such("control of a pad", control, [*PAD_STICKS, *PAD_BUTTONS]))
            elif not isinstance(elements, str):
                raise ControlError(f'{control}: found {elements!r}; allowed: one element such as "b0"')
            else:
                self._buttons[control] = element_of(elements)

    @classmethod
    def from_database(cls, line: str) -> "JoystickMapping":
        """Read a line of SDL's game controller database: GUID, name, then pairs of control and element.

        Controls that the standard layout does not have are left out. Raises `ControlError` for any other text.

        >>> line = "03000000790000000600000010010000,Barrow stick,a:b2,leftx:a0,lefty:a1,-rightx:b4,platform:Linux,"
        >>> mapping = JoystickMapping.from_database(line)
        >>> mapping.name, mapping.control_names
        ('Barrow stick', ['left_stick', 'right_stick', 'south'])
        """
        guid, _, rest = line.strip().partition(",")
        name, _, entries = rest.partition(",")
        if not re.fullmatch(r"[0-9a-fA-F]{32}|xinput", guid) or not entries:
            raise ControlError(
                f'found "{line.strip()[:60]}"; allowed: a line of SDL\'s database: "GUID,name,a:b0,leftx:a0,…"'
            )
        mapping = cls({}, guid, name)
        for entry in filter(None, entries.split(",")):
            target, _, element = entry.partition(":")
            sign = {"+": 1.0, "-": -1.0}.get(target[:1], 0.0)
            target = target[1:] if sign else target
            if target in _DATABASE_AXES:
                stick, axis = _DATABASE_AXES[target]
                mapping._sticks.setdefault(stick, []).append(_Part(axis, sign or 1.0, element_of(element)))
            elif target in _DATABASE_NAMES:
                mapping._buttons[_DATABASE_NAMES[target]] = element_of(element)
        return mapping

    def fits(self, guid: str, name: str) -> bool:
        """Return whether it is for joysticks with this GUID and name. A GUID without a checksum fits any."""
        if self.guid:
            given = guid.lower()
            return self.guid == given or (self.guid[4:8] == "0000" and self.guid == f"{given[:4]}0000{given[8:]}")
        return bool(self.name) and self.name.lower() == name.lower()

    @property
    def control_names(self) -> list[str]:
        """The controls that it has."""
        return [*self._sticks, *self._buttons]

    def values(self, state: JoystickState) -> list[tuple[str, Any]]:
        """Return the present value of each control, in a pad's own standard."""
        sticks: list[tuple[str, Any]] = []
        for stick, parts in self._sticks.items():
            tilt = [0.0, 0.0]
            for axis, sign, element in parts:
                tilt[axis] += sign * state.signed(element)
            sticks.append((stick, (min(max(tilt[0], -1.0), 1.0), min(max(tilt[1], -1.0), 1.0))))
        return [*sticks, *((control, state.pressed(element)) for control, element in self._buttons.items())]


class MappedJoystick:
    """A joystick with a mapping: `state` takes its reports, `changes` returns them as changes of a pad.

    >>> joystick = MappedJoystick(JoystickMapping({"south": "b2", "dpad_up": "h0.1"}, name="Barrow"))
    >>> joystick.state.buttons[2] = 1.0
    >>> joystick.changes(), joystick.changes()
    ([('south', 1.0)], [])
    """

    def __init__(self, mapping: JoystickMapping) -> None:
        """Begin at rest."""
        self.state = JoystickState()
        self._mapping = mapping
        self._known = dict(mapping.values(self.state))

    def values(self) -> list[tuple[str, Any]]:
        """Return the present value of each control."""
        return self._mapping.values(self.state)

    def changes(self) -> list[tuple[str, Any]]:
        """Return the controls that have changed since the last call, with their present values."""
        changed = [(name, value) for name, value in self.values() if self._known[name] != value]
        self._known.update(changed)
        return changed
