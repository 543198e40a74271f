"""Presses that nothing makes begin, found by trying every control of theirs."""

from collections.abc import Iterator
from typing import Any

from wendonic.devices.event import Event
from wendonic.profile.press_binds import PressTable
from wendonic.profile.schema import Profile
from wendonic.profile.tuning import DOUBLE_S, LONG_S, TAP_S
from wendonic.runtime.helm import Helm
from wendonic.study.alone import alone
from wendonic.study.finding import Finding
from wendonic.study.press_entry import entry_changes

TICK_S = 0.01


def press_findings(profile: Profile, mode: str) -> Iterator[Finding]:
    """Give each press of a mode that none of its controls reaches."""
    for name, press in profile.mode[mode].press.items():
        if not any(_begins(profile, mode, name, press, entry) for entry in press.bind):
            yield Finding(
                "press-out-of-reach",
                "fault",
                f"mode.{mode}.press.{name}.bind",
                f"{name} never began, whatever of its controls was used",
                "The player presses it and nothing happens.",
                f'{name} = {{ bind = ["key.KeyE"] }}',
            )


def _begins(profile: Profile, mode: str, name: str, press: PressTable, entry: Any) -> bool:
    """Use one control of a press as its style wants it, and return whether it begins."""
    helm = Helm(alone(profile, mode))
    helm.tick(TICK_S)
    down, up = entry_changes(profile, entry)
    begun = False

    def do(events: list[Event], seconds: float) -> None:
        nonlocal begun
        for event in events:
            helm.apply(event)
        for _ in range(max(round(seconds / TICK_S), 1)):
            begun = helm.tick(TICK_S).press(name).began or begun

    tap_s = TAP_S if press.tap_s is None else press.tap_s
    long_s = LONG_S if press.long_s is None else press.long_s
    double_s = DOUBLE_S if press.double_s is None else press.double_s
    match press.style:
        case "tap":
            do(down, tap_s / 4.0)
            do(up, TICK_S)
        case "long":
            do(down, long_s + 5.0 * TICK_S)
        case "double":
            do(down, double_s / 4.0)
            do(up, double_s / 4.0)
            do(down, TICK_S)
        case _:
            do(down, TICK_S)
    return begun
