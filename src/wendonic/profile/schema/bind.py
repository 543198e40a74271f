"""The common part of the `bind` entries of all channels.

The key that names its controls identifies an entry: `keys`, `stick`, `mouse`, and so on.
"""

from collections.abc import Callable, Mapping
from typing import Annotated, Any, Self

from pydantic import Field, model_validator

from wendonic.devices.push import Pushes
from wendonic.profile.schema.names import SeatName, ZoneName
from wendonic.profile.schema.table import Table, entry, own_fault
from wendonic.profile.schema.window import Window

ZoneNames = Annotated[tuple[ZoneName, ...], Field(strict=False)]
Degrees = Annotated[float, Field(gt=0.0, le=100_000.0)]


class Bind(Table):
    """What all entries have: `shared` allows a control that is bound to something else of the mode, too; `seat` says
    for whom it counts.
    """

    shared: bool = entry("Whether its controls may also be bound to another channel or press of the mode.", False)
    seat: SeatName | None = entry("Player it belongs to, one of [seat].", None, example="one", otherwise="everybody")

    def controls(self) -> list[str]:
        """Return the controls that it names, axis by axis; zones of the touch screen count as controls."""
        raise NotImplementedError

    def sentence(self) -> str:
        """Describe it: its controls, then its numbers."""
        raise NotImplementedError

    def seated_sentence(self) -> str:
        """Describe it, with the player unless it is for everybody."""
        return f"{self.sentence()}{seat_words(self.seat)}"

    def called(self) -> str:
        """Return its name when a mode is measured with it: its control, or what kind it is."""
        raise NotImplementedError

    def pushes(self, x: float, y: float, window: Window, amount: float = 1.0) -> Pushes | None:
        """Return the pushes for a request of `amount` of full input in a direction: to the right or the channel's own
        positive side with `x` 1, forward with `y` 1, back with -1, diagonally with both; None if that is impossible.
        """
        raise NotImplementedError


def seat_words(seat: str | None) -> str:
    """Return the player of an entry as an addition to its description, "" if it is for everybody.

    >>> seat_words("one"), seat_words(None)
    ('; seat one only', '')
    """
    return f"; seat {seat} only" if seat else ""


class NameLists(Table):
    """Lists of names, one for each direction; at least one is not empty, and no name is in two of them."""

    @model_validator(mode="after")
    def _each_once(self) -> Self:
        lists = self.lists()
        if not any(lists.values()):
            raise own_fault(f"nothing in any list; give at least one of {', '.join(lists)}")
        seen: dict[str, str] = {}
        for direction, names in lists.items():
            for name in names:
                if name in seen:
                    words = (
                        f'"{name}" is listed under {seen[name]} and again under {direction}; a key has one direction'
                    )
                    raise own_fault(words)
                seen[name] = direction
        return self

    def lists(self) -> dict[str, tuple[str, ...]]:
        """Return the lists by their direction."""
        return {direction: getattr(self, direction) for direction in type(self).model_fields}

    def on_one_axis(self) -> bool:
        """Return whether only one axis has controls, so that there are no diagonals."""
        used = {direction for direction, names in self.lists().items() if names}
        return not used & {"right", "left"} or not used & {"forward", "back"}

    def sentence(self) -> str:
        """Describe the lists by direction."""
        return listed(self.lists())


def listed(lists: Mapping[str, tuple[str, ...]]) -> str:
    """Return lists of names in words.

    >>> listed({"up": ("KeyE", "KeyR"), "down": ()})
    'up KeyE KeyR'
    """
    return ", ".join(f"{direction} {' '.join(names)}" for direction, names in lists.items() if names)


def wanted_lists(lists: Mapping[str, tuple[str, ...]], x: float, y: float) -> list[tuple[str, ...]]:
    """Return the lists of the directions in which `x` (right) and `y` (forward) point.

    >>> wanted_lists({"forward": ("KeyW",), "back": ("KeyS",), "left": (), "right": ("KeyD",)}, -1.0, 1.0)
    [('KeyW',), ()]
    """
    sides = (("forward", y > 0.0), ("back", y < 0.0), ("right", x > 0.0), ("left", x < 0.0))
    return [lists[side] for side, wanted in sides if wanted]


def zone_control(name: str) -> str:
    """Return the name of a touch zone among controls."""
    return f'zone "{name}"'


def by_key(*keys: str) -> Callable[[Any], str | None]:
    """Return a function that returns which of `keys` an entry has."""

    def kind(entry_found: Any) -> str | None:
        found: Any = ()
        if isinstance(entry_found, dict):
            found = entry_found
        elif isinstance(entry_found, Table):
            found = type(entry_found).model_fields
        return next((key for key in keys if key in found), None)

    return kind
