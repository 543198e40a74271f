"""How to move a control so that a source requests something, and how to return it to rest."""

from collections.abc import Iterable, Sequence
from typing import NamedTuple

from wendonic.devices.event import Value
from wendonic.devices.sources.names import find_axis


class Push(NamedTuple):
    """A control that is moved to `value` and back to `rest`; `axis` is the axis of a stick that both belong to, None
    for a whole control.
    """

    control: str
    value: Value
    rest: Value = 0.0
    axis: int | None = None


Pushes = Sequence[Push]
Changes = list[tuple[str, Value]]
"""Controls and their new values, in order, at one moment."""


def pressed(names: Iterable[str]) -> list[Push]:
    """Return the pushes that press keys or buttons fully.

    >>> pressed(["key.KeyW"])
    [Push(control='key.KeyW', value=1.0, rest=0.0, axis=None)]
    """
    return [Push(name, 1.0) for name in names]


def axis_push(name: str, value: float) -> Push | None:
    """Return the push that moves an axis to a value, as `find_axis` counts it; None if it has no such side.

    >>> axis_push("pad.left_stick.y", 1.0)
    Push(control='pad.left_stick', value=-1.0, rest=0.0, axis=1)
    >>> axis_push("pad.left_trigger", -1.0) is None
    True
    """
    control, slot, sign = find_axis(name)
    if control.kind == "button":
        return Push(control.name, value) if value >= 0.0 else None
    return Push(control.name, value * sign, 0.0, slot - control.slot)


def changes_between(before: Pushes, after: Pushes) -> Changes:
    """Return the changes from `before` to `after`: controls that are only in `before` go to rest first, and the axes
    of one stick move together.

    >>> keys = pressed(["key.KeyW"]), pressed(["key.KeyW", "key.KeyD"])
    >>> changes_between(*keys), changes_between(keys[1], keys[0])
    ([('key.KeyW', 1.0), ('key.KeyD', 1.0)], [('key.KeyD', 0.0), ('key.KeyW', 1.0)])
    >>> changes_between((), [axis_push("pad.left_stick.x", 1.0), axis_push("pad.left_stick.y", 1.0)])
    [('pad.left_stick', (1.0, -1.0))]
    """
    stay = {push.control for push in after}
    left = {push.control: push._replace(value=push.rest) for push in before if push.control not in stay}
    changes: Changes = []
    axes: dict[str, list[float]] = {}
    for push in (*left.values(), *after):
        if push.axis is None:
            changes.append((push.control, push.value))
        elif isinstance(push.value, float):
            pair = axes.setdefault(push.control, [0.0, 0.0])
            pair[push.axis] = push.value
    return [*changes, *((control, (x, y)) for control, (x, y) in axes.items())]
