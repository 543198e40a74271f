"""Which controls a mode binds, and which of them to two things at once."""

from collections.abc import Iterator, Mapping, Sequence
from itertools import combinations
from typing import NamedTuple

from wendonic.profile.schema.bind import Bind
from wendonic.profile.schema.press import PressTable, entry_controls


class BoundControl(NamedTuple):
    """`controls` are down together for `owner`, a channel or press, unless one of `unless` is; `where` is the field
    path within the mode.
    """

    controls: frozenset[str]
    owner: str
    where: str
    shared: bool
    unless: frozenset[str] = frozenset()


def _bound_controls(
    channels: Mapping[str, Sequence[Bind]], presses: Mapping[str, PressTable]
) -> Iterator[BoundControl]:
    for channel, binds in channels.items():
        for index, bind in enumerate(binds):
            for name in bind.controls():
                yield BoundControl(frozenset({name}), channel, f"{channel}.bind.{index}", bind.shared)
    for name, press in presses.items():
        for index, entry in enumerate(press.bind):
            where = f"press.{name}.bind.{index}"
            yield BoundControl(entry_controls(entry), f"press {name}", where, press.shared, frozenset(press.unless))


def double_bindings(
    channels: Mapping[str, Sequence[Bind]], presses: Mapping[str, PressTable]
) -> list[tuple[str, str]]:
    """Return (field path, what is wrong) for each control that two channels or presses of a mode have, unshared.

    Chords clash only with what one of them holds down entirely: "ControlLeft+KeyC" with "KeyC", but not with
    "ShiftLeft+KeyC", nor with "KeyC" unless "ControlLeft" is held.
    """
    wrong: dict[tuple[str, str, str], str] = {}
    for first, second in combinations(_bound_controls(channels, presses), 2):
        if first.owner == second.owner or first.shared or second.shared:
            continue
        if first.unless & second.controls or second.unless & first.controls:
            continue
        if first.controls <= second.controls or second.controls <= first.controls:
            names = " and ".join(sorted(first.controls & second.controls))
            wrong.setdefault(
                (second.where, first.owner, names),
                f"{names} steers {first.owner} too ({first.where}); allowed: one of them, or shared = true",
            )
    return [(where, words) for (where, _, _), words in wrong.items()]
