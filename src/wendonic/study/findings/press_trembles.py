"""Presses on a tilt that begin over and over while a trembling thumb holds it at the border."""

import random
from collections.abc import Iterator
from typing import Any

from wendonic.profile.schema.press import StickEntry, TriggerEntry
from wendonic.runtime.helm import Helm
from wendonic.study.finding import Case, Found, finding
from wendonic.study.probes.press_entry import entry_changes
from wendonic.study.thresholds import THRESHOLDS

HELD_S, HZ = 4.0, 60.0
TIMES = 3
SPARE = 0.15


@finding(165, "notice", "Held halfway, it triggers again and again.")
def press_trembles(case: Case) -> Iterator[Found]:
    """Hold every trigger and stick that presses at its border, with the usual tremor."""
    for name, press in case.table.press.items():
        for index, entry in enumerate(press.bind):
            if not isinstance(entry, TriggerEntry | StickEntry) or press.style == "repeat":
                continue
            times = _begins(case, name, entry)
            if times >= TIMES:
                release = f"{case.where}.press.{name}.bind[{index}].release"
                yield Found(
                    release,
                    f"held at {entry.above:g} it begins {times} times in {HELD_S:g} s",
                    [{release: round(max(entry.above - SPARE, 0.0), 3)}, {release: 0.0}],
                )


def _begins(case: Case, name: str, entry: Any) -> int:
    down, _ = entry_changes(case.profile, entry)
    trembles = random.Random(1)
    helm = Helm(case.looking)
    times = 0
    for _ in range(round(HELD_S * HZ)):
        for event in down:
            noise = trembles.gauss(0.0, THRESHOLDS.noise)
            value: Any = event.value
            if isinstance(value, tuple):
                value = tuple(part * (entry.above + noise) for part in value)
            else:
                value = entry.above + noise
            helm.apply(event._replace(value=value))
        times += helm.tick(1.0 / HZ).press(name).began
    return times
