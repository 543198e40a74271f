"""The press that jumps: pressed early, late, and held."""

from collections.abc import Callable
from typing import NamedTuple

import numpy as np

from wendonic.batch import Engine
from wendonic.batch.trace import shaped
from wendonic.devices.event import Event
from wendonic.profile.schema.profile import Profile
from wendonic.recording.recording import Recording
from wendonic.runtime.helm import Helm
from wendonic.study.probes.press_entry import entry_changes

HZ = 1000.0
LONGEST_AIRTIME_S = 10.0
FINEST_S = 1e-3
LONGEST_WAIT_S = 10.0


def jump_press_name(profile: Profile, mode: str) -> str | None:
    """Return the press that jumps in a mode: that of its gait, else one called so, else the first that waits for the
    ground; None without.
    """
    presses = profile.mode[mode].press
    gait = profile.gait_of(mode)
    if gait.jump:
        return gait.jump.press
    waiting = [name for name, press in presses.items() if press.waits_for_ground]
    return "jump" if "jump" in waiting else waiting[0] if waiting else None


def _wait(helm: Helm, seconds: float) -> None:
    """Let time go by, a second at most a tick."""
    while seconds > 0.0:
        helm.tick(min(seconds, 1.0))
        seconds -= 1.0


class Flight(NamedTuple):
    """How high a jump goes (m) and how long it is off the ground (s)."""

    height_m: float
    airtime_s: float


class JumpPress(NamedTuple):
    """A press that jumps or waits for the ground, in a profile of one mode; `down` is what brings it down."""

    profile: Profile
    name: str
    down: list[Event]

    def flight(self, engine: Engine = "auto") -> Flight | None:
        """Return the flight of a jump whose press stays held; None where the gait has none, or it never lands."""
        if not self.profile.gait_of(self.profile.first_mode).jump:
            return None
        held = Recording([*self.down, Event(LONGEST_AIRTIME_S, "mark", "end")])
        jumped = shaped(held, self.profile, hz=HZ, engine=engine)
        t, height, rise = (jumped[name] for name in ("t", "pos_z", "vel_z"))
        in_air = ~jumped["grounded"]
        if not in_air.any() or in_air[-1]:
            return None
        last = int(np.flatnonzero(in_air)[-1])
        # Its speed at the last tick in the air carries it to the ground.
        to_ground_s = height[last] / -rise[last] if rise[last] < 0.0 else 0.0
        return Flight(float(height.max()), float(t[last] + to_ground_s - t[0] + 1.0 / HZ))

    def begins_early(self, wait_s: float) -> bool:
        """Return whether it begins when pressed so long (s) before the ground is there."""
        helm = self._helm_in_air(grounded_first=False)
        self._press(helm)
        helm.tick(FINEST_S / 10.0)
        if wait_s > 0.0:
            _wait(helm, wait_s)
        helm.ground(True)
        return helm.tick(FINEST_S / 10.0).press(self.name).began

    def begins_late(self, wait_s: float) -> bool:
        """Return whether it begins when pressed so long (s) after the ground is gone."""
        helm = self._helm_in_air(grounded_first=True)
        if wait_s > 0.0:
            _wait(helm, wait_s)
        self._press(helm)
        return helm.tick(FINEST_S / 10.0).press(self.name).began

    def _helm_in_air(self, grounded_first: bool) -> Helm:
        helm = Helm(self.profile)
        helm.ground(grounded_first)
        helm.tick(1.0)
        helm.ground(False)
        return helm

    def _press(self, helm: Helm) -> None:
        for event in self.down:
            helm.apply(event)


def jump_press(profile: Profile, mode: str) -> JumpPress | None:
    """Return what jumps in a profile of one mode; None without, and for one that has to be tapped or held long."""
    name = jump_press_name(profile, mode)
    press = profile.mode[mode].press.get(name) if name else None
    if name is None or press is None or press.style not in ("hold", "toggle"):
        return None
    down, _ = entry_changes(profile, press.bind[0])
    return JumpPress(profile, name, down)


def longest_s(begins: Callable[[float], bool]) -> float:
    """Return the longest wait (s) after which a press still begins, to FINEST_S; 0 where none does."""
    if not begins(FINEST_S):
        return 0.0
    low, high = FINEST_S, LONGEST_WAIT_S
    if begins(high):
        return high
    while high - low > FINEST_S / 20.0:
        middle = (low + high) / 2.0
        low, high = (middle, high) if begins(middle) else (low, middle)
    return low
