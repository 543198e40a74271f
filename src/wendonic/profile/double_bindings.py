"""The controls that a mode binds, and those that it binds to two things at once."""

import re
from collections.abc import Iterator, Mapping, Sequence
from itertools import combinations
from typing import NamedTuple

from wendonic.profile.schema.bind import Bind
from wendonic.profile.schema.press import PressTable, entry_controls


def shown_path(where: str) -> str:
    """Return a dotted path as it is shown, with indices in brackets.

    >>> shown_path("move.bind.0.keys.forward.1")
    'move.bind[0].keys.forward[1]'
    """
    return re.sub(r"\.(\d+)(?=\.|$)", r"[\1]", where)


class BoundControl(NamedTuple):
    """`controls` are down together for `owner`, a channel or press, unless one of `unless` is; `where` is the field
    path within the mode, `seat` the player for whom it counts.
    """

    controls: frozenset[str]
    owner: str
    where: str
    shared: bool
    unless: frozenset[str] = frozenset()
    seat: str | None = None

    def meets(self, other: "BoundControl") -> bool:
        """Return whether one player could trigger both by accident: neither is shared, both belong to one player."""
        apart = self.seat is not None and other.seat is not None and self.seat != other.seat
        return not (self.shared or other.shared or apart)


def bound_controls(
    channels: Mapping[str, Sequence[Bind]], presses: Mapping[str, PressTable]
) -> Iterator[BoundControl]:
    """Yield everything that a mode binds."""
    for channel, binds in channels.items():
        for index, bind in enumerate(binds):
            for name in bind.controls():
                yield BoundControl(frozenset({name}), channel, f"{channel}.bind.{index}", bind.shared, seat=bind.seat)
    for name, press in presses.items():
        for index, entry in enumerate(press.bind):
            where = f"press.{name}.bind.{index}"
            unless = frozenset(press.unless)
            yield BoundControl(entry_controls(entry), f"press {name}", where, press.shared, unless, press.seat)


def double_bindings(
    channels: Mapping[str, Sequence[Bind]], presses: Mapping[str, PressTable]
) -> list[tuple[str, str]]:
    """Return (field path, what is wrong) for each control that two channels or presses of a mode, or two entries of a
    channel, use without sharing it.

    A chord clashes only with one that it contains: "ControlLeft+KeyC" with "KeyC", but not with "ShiftLeft+KeyC", nor
    with "KeyC" unless "ControlLeft" is held.
    """
    wrong: dict[tuple[str, str, str], str] = {}
    for first, second in combinations(bound_controls(channels, presses), 2):
        same = first.owner == second.owner and (first.owner.startswith("press ") or first.where == second.where)
        if same or not first.meets(second):
            continue
        if first.unless & second.controls or second.unless & first.controls:
            continue
        if first.controls <= second.controls or second.controls <= first.controls:
            names = " and ".join(sorted(first.controls & second.controls))
            wrong.setdefault(
                (second.where, first.owner, names),
                f"{names} is also bound to {first.owner} ({shown_path(first.where)}); "
                "allowed: one of them, or shared = true",
            )
    return [(where, words) for (where, _, _), words in wrong.items()]
