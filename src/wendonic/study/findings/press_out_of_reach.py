"""Presses that no control can begin, found by trying every control."""

import math
from collections.abc import Iterator
from typing import Any

from wendonic.profile.schema.press import PressTable
from wendonic.runtime.helm import Helm
from wendonic.study.finding import Case, Found, finding
from wendonic.study.probes.press_entry import entry_changes

TICK_S = 0.01
TIMES = ("tap_s", "long_s", "double_s")


@finding(160, "fault", "The player presses it and nothing happens.")
def press_out_of_reach(case: Case) -> Iterator[Found]:
    """Look for presses that no control can begin."""
    for name, press in case.table.press.items():
        if not any(_begins(case, name, press, entry) for entry in press.bind):
            where = f"{case.where}.press.{name}"
            times = [f"{where}.{field}" for field in TIMES]
            held = {**({f"{where}.style": "hold"} if press.style != "hold" else {}), **case.out(*times)}
            always = case.out(f"{where}.unless")
            fixes = [*(case.out(one) for one in times), always, held, {**held, **always}]
            yield Found(
                f"{where}.bind",
                f"{name} never began, whichever of its controls was used",
                list(filter(None, fixes)),
            )


def _begins(case: Case, name: str, press: PressTable, entry: Any) -> bool:
    """Use one control of a press as its style requires, and return whether the press begins."""
    down, up = entry_changes(case.profile, entry)
    helm = Helm(case.looking)
    helm.tick(TICK_S)
    for events, seconds in press.trial(down, up):
        for event in events:
            helm.apply(event)
        for _ in range(max(math.ceil(seconds / TICK_S), 1)):
            if helm.tick(TICK_S).press(name).began:
                return True
    return False
