"""Opposite keys that do not cancel when both are held."""

from collections.abc import Iterator
from typing import Any

from wendonic.devices.event import Event
from wendonic.devices.push import Pushes, changes_between
from wendonic.profile.schema.keyed import Opposed
from wendonic.runtime.helm import Helm
from wendonic.study.finding import Case, Found, finding

SETTLE_S, TICK_S = 2.0, 0.05
WINS = 0.5
"""Share of the request of one key alone from which that key counts as the winner."""

SIDES = {"move": ((1.0, 0.0), (0.0, 1.0)), "throttle": ((1.0, 0.0),), "turn": ((1.0, 0.0),), "rise": ((1.0, 0.0),)}


@finding(80, "notice", "One of two opposite keys wins, which some competition rules forbid.")
def opposites_do_not_cancel(case: Case) -> Iterator[Found]:
    """Opposite keys that do not cancel when both are held."""
    for channel, sides in SIDES.items():
        for where, bind in case.entries(channel):
            if isinstance(bind, Opposed):
                yield from _of_entry(case, channel, bind, where, sides)


def _of_entry(
    case: Case, channel: str, bind: Any, where: str, sides: tuple[tuple[float, float], ...]
) -> Iterator[Found]:
    window = case.profile.window
    for x, y in sides:
        first, second = bind.pushes(0.0 - x, 0.0 - y, window), bind.pushes(x, y, window)
        if first is None or second is None:
            continue
        both = _requested(case, channel, first, second)
        # Smoothing may still be settling from the first key.
        if both > 0.0 and both > WINS * _requested(case, channel, second):
            names = [pushes[0].control.removeprefix("key.") for pushes in (first, second)]
            yield Found(
                f"{where}.opposites",
                f"{names[0]} and {names[1]} together give {both:.2f}",
                [{f"{where}.opposites": "cancel"}],
                "",
                f'Under "{bind.opposites}" one of them wins, which some competition rules forbid.',
            )
            return


def _requested(case: Case, channel: str, *held: Pushes) -> float:
    """Return the request after all keys have been held for a while, pressed a tick apart."""
    helm = Helm(case.moving)
    for pushes in held:
        for control, value in changes_between((), pushes):
            helm.apply(Event(0.0, control, value))
        helm.tick(TICK_S)
    for _ in range(round(SETTLE_S / TICK_S)):
        intent = helm.tick(TICK_S)
    if channel == "move":
        return max(abs(intent.local.right), abs(intent.local.forward))
    amount: float = abs(getattr(intent, channel))
    return amount
