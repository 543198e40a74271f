"""A player's place among several: a pad, and a share of the keyboard."""

from collections.abc import Iterable, Mapping
from typing import Annotated

from pydantic import Field

from wendonic.devices.controls import PADS, Control
from wendonic.devices.sources.names import find_switch
from wendonic.errors import ControlError, did_you_mean
from wendonic.profile.schema.names import KeyList, PadName
from wendonic.profile.schema.table import Table, entry


class SeatTable(Table):
    """The controls of one player. Keys of a seat count for that player only; keys of no seat count for everybody."""

    keys: KeyList = entry("Keys that count for this player only.", (), example=["KeyW", "KeyA", "KeyS", "KeyD"])
    pad: PadName | None = entry(
        "Pad that this player holds.",
        None,
        example="pad1",
        otherwise="the first that no seat names, in their order",
    )


def seat_faults(seats: Mapping[str, SeatTable]) -> list[tuple[str, str]]:
    """Return (field path, what is wrong) for keys and pads that two players have."""
    wrong: list[tuple[str, str]] = []
    owner: dict[str, str] = {}
    for name, table in seats.items():
        if name in PADS or name == "pad0":
            wrong.append((f"seat.{name}", "is the name of a pad; give the player another name"))
        for control in (*table.keys, pad_of(name, seats)):
            other = owner.setdefault(control, name)
            if other != name:
                where = f"seat.{name}.{'pad' if control in PADS else 'keys'}"
                wrong.append((where, f"{control} already belongs to seat {other}"))
    return wrong


def seat_sentences(seats: Mapping[str, SeatTable]) -> list[tuple[str, str]]:
    """Describe the controls of each player."""
    return [(name, ", ".join([pad_of(name, seats), *table.keys])) for name, table in seats.items()]


def pad_of(seat: str, seats: Mapping[str, SeatTable]) -> str:
    """Return the pad of a player: the named one; players without one get the pads that nobody names, in order.

    >>> seats = {"one": SeatTable(keys=("KeyW",)), "two": SeatTable(pad="pad"), "three": SeatTable()}
    >>> [pad_of(seat, seats) for seat in seats]
    ['pad1', 'pad', 'pad2']
    """
    named = seats[seat].pad
    if named:
        return named
    taken = {table.pad for table in seats.values()}
    others = [name for name, table in seats.items() if not table.pad]
    return [pad for pad in PADS if pad not in taken][others.index(seat)]


Seats = Annotated[dict[str, SeatTable], Field(max_length=len(PADS))]


class Seat:
    """Where a profile says `pad`, this player has another pad, and keys of other players do not count.

    A seat is one of the profile's `seats`, or the name of a pad; None or "pad0" is the first pad. Raises
    `ControlError` for one that does not exist.

    >>> Seat("pad1").own("pad.left_stick"), Seat("pad1").own("key.KeyW")
    ('pad1.left_stick', 'key.KeyW')
    >>> seats = {"one": SeatTable(keys=("KeyW", "KeyS")), "two": SeatTable(keys=("ArrowUp", "ArrowDown"))}
    >>> Seat("two", seats).all_own(["KeyW", "ArrowUp", "Escape", "pad.south"])
    ('ArrowUp', 'Escape', 'pad1.south')
    """

    def __init__(self, seat: str | None = None, seats: Mapping[str, SeatTable] | None = None) -> None:
        """Take the name of a seat or a pad."""
        seats = seats or {}
        self.name = seat if seat in seats else None
        """Name of a seat of the profile; None in a pad's."""
        pad = "pad" if seat in (None, "pad0") else str(seat)
        others: set[str] = set()
        if seat in seats:
            own = seats[str(seat)]
            pad = pad_of(str(seat), seats)
            others = {code for table in seats.values() for code in table.keys} - set(own.keys)
        elif pad not in PADS:
            known = [*seats, *PADS]
            raise ControlError(f'unknown seat "{seat}"{did_you_mean(pad, known) or ";"} seats: {", ".join(known)}')
        self._others = frozenset(f"key.{code}" for code in others)
        self._prefix = f"{pad}."

    def own(self, name: str | None) -> str:
        """Return the control that `name` means in this seat, "" for a key of another one."""
        if not name or (self._others and find_switch_name(name) in self._others):
            return ""
        return self._prefix + name[4:] if name.startswith("pad.") else name

    def all_own(self, names: Iterable[str]) -> tuple[str, ...]:
        """Return the controls that `names` mean, without keys of other seats."""
        return tuple(own for name in names if (own := self.own(name)))

    def has(self, control: Control) -> bool:
        """Return whether a control belongs to this player: it is neither another player's key nor on another pad.

        >>> from wendonic.devices.controls import CONTROLS
        >>> seats = {"one": SeatTable(keys=("KeyW",)), "two": SeatTable(keys=("ArrowUp",))}
        >>> names = ("key.KeyW", "key.ArrowUp", "key.Escape", "pad.south", "pad1.south")
        >>> [name for name in names if Seat("two", seats).has(CONTROLS[name])]
        ['key.ArrowUp', 'key.Escape', 'pad1.south']
        """
        return control.name not in self._others and (control.unit not in PADS or f"{control.unit}." == self._prefix)

    def sits(self, seat: str | None) -> bool:
        """Return whether an entry for a `seat` counts here; an entry without a seat counts for everybody."""
        return seat is None or self.name in (None, seat)


def find_switch_name(name: str) -> str:
    """Return the full name of a key or button, or the name itself for another kind of control.

    >>> find_switch_name("KeyW"), find_switch_name("pad.left_stick")
    ('key.KeyW', 'pad.left_stick')
    """
    try:
        return find_switch(name).name
    except ControlError:
        return name
