"""Jumps whose press is early, late, held or tapped."""

from collections.abc import Callable, Sequence
from typing import NamedTuple

import numpy as np

from wendonic.batch import Engine
from wendonic.batch.trace import shaped
from wendonic.devices.event import Event
from wendonic.devices.push import Changes
from wendonic.profile.schema.profile import Profile
from wendonic.recording.recording import Recording
from wendonic.runtime.helm import Helm
from wendonic.study.probes.press_entry import entry_changes
from wendonic.study.probes.walker import AFTER_S
from wendonic.study.thresholds import THRESHOLDS
from wendonic.study.unmeasured import NotHere, Unmeasured

HZ = 1000.0
LONGEST_AIRTIME_S = 1.5
"""How long a jump is watched at first; one that has not landed by then is watched for longer."""
FINEST_S = 1e-3
LONGEST_WAIT_S = 10.0


def jump_press_name(profile: Profile, mode: str) -> str | None:
    """Return the press that jumps in a mode: that of its gait, otherwise one named "jump", otherwise the first that
    waits for the ground; None if there is none, or if no control makes it.
    """
    presses = {name: press for name, press in profile.mode[mode].press.items() if press.bind}
    gait = profile.gait_of(mode)
    if gait.jump:
        return gait.jump.press if gait.jump.press in presses else None
    waiting = [name for name, press in presses.items() if press.waits_for_ground]
    return "jump" if "jump" in waiting else waiting[0] if waiting else None


def _wait(helm: Helm, seconds: float) -> None:
    """Tick for some time, at most a second per tick."""
    while seconds > 0.0:
        helm.tick(min(seconds, 1.0))
        seconds -= 1.0


class Flight(NamedTuple):
    """How high a jump goes (m), how long it is off the ground (s), and how long it rises."""

    height_m: float
    airtime_s: float
    apex_s: float


Trial = Sequence[tuple[Changes, float]]


class JumpPress(NamedTuple):
    """A press that jumps or waits for the ground, in a profile of one mode: the changes that begin it, those that
    must come before, each with how long (s) to wait after it, and the changes that release it.
    """

    profile: Profile
    name: str
    trial: Trial
    up: Changes
    lead: Trial = ()

    def tapped(self, tap_s: float) -> "JumpPress":
        """Return the same press, released `tap_s` after it begins, unless a release is what begins it."""
        *before, (last, wait_s) = self.trial
        if last == self.up:
            return self
        (mode,) = self.profile.mode.values()
        begins_s = mode.press[self.name].limit_s if wait_s > 0.0 else 0.0
        return self._replace(trial=[*before, (last, begins_s + tap_s + AFTER_S), (self.up, 0.0)])

    def flight(self, engine: Engine = "auto", longest_s: float = LONGEST_AIRTIME_S) -> Flight:
        """Return the flight of a jump whose press is held, or as short as its style requires; raises `NotHere` if
        nothing jumps, and `Unmeasured` if the body never lands.
        """
        events: list[Event] = []
        at_s = 0.0
        for changes, wait_s in (*self.lead, *self.trial):
            events += [Event(at_s, control, value) for control, value in changes]
            at_s += wait_s
        ends = Event(at_s + longest_s, "mark", "end")
        jumped = shaped(Recording([*events, ends]), self.profile, hz=HZ, engine=engine)
        t, height, rise = (jumped[name] for name in ("t", "pos_z", "vel_z"))
        in_air = ~jumped["grounded"]
        if not in_air.any():
            raise NotHere("no gait of this mode jumps")
        if in_air[-1]:
            if longest_s < THRESHOLDS.longest_s / 5.0:
                return self.flight(engine, longest_s * 4.0)
            raise Unmeasured(f"the jump has not landed after {longest_s:g} s")
        first, last = np.flatnonzero(in_air)[[0, -1]]
        # The speed at the last tick in the air gives the time to the ground.
        to_ground_s = height[last] / -rise[last] if rise[last] < 0.0 else 0.0
        left_s = float(t[first]) - 1.0 / HZ
        top = int(np.argmax(height))
        # Between two ticks, it stops rising when its speed is zero.
        over_s = rise[top] / (rise[top] - rise[top + 1]) / HZ if rise[top + 1] < rise[top] else 0.0
        apex_s = float(t[top]) + max(float(over_s), -1.0 / HZ) - left_s
        return Flight(float(height.max()), float(t[last]) + float(to_ground_s) - left_s, apex_s)

    def longest_early_s(self) -> float:
        """Return how long (s) before landing a press still counts."""
        helm = self._helm_in_air(grounded_first=False)
        self._press(helm)
        helm.tick(FINEST_S / 10.0)
        return self._longest_s(helm, lambda: helm.ground(True))

    def longest_late_s(self) -> float:
        """Return how long (s) after the body has left the ground a press still counts."""
        helm = self._helm_in_air(grounded_first=True)
        return self._longest_s(helm, lambda: self._press(helm))

    def _longest_s(self, helm: Helm, then: Callable[[], object]) -> float:
        """Return the longest wait (s) before `then` with which the press still begins."""
        start = helm.snapshot()

        def begins(wait_s: float) -> bool:
            helm.restore(start)
            _wait(helm, wait_s)
            then()
            return helm.tick(FINEST_S / 10.0).press(self.name).began

        return longest_s(begins)

    def _helm_in_air(self, grounded_first: bool) -> Helm:
        helm = Helm(_without_air_jumps(self.profile, self.name))
        for changes, wait_s in self.lead:
            for control, value in changes:
                helm.apply(Event(0.0, control, value))
            _wait(helm, wait_s)
        helm.ground(grounded_first)
        helm.tick(1.0)
        helm.ground(False)
        return helm

    def _press(self, helm: Helm) -> None:
        for number, (changes, wait_s) in enumerate(self.trial):
            for control, value in changes:
                helm.apply(Event(0.0, control, value))
            if number + 1 < len(self.trial):
                _wait(helm, wait_s)


def _without_air_jumps(profile: Profile, name: str) -> Profile:
    """Return a profile of one mode in which a press can begin only on the ground: an air jump is neither early nor
    late.
    """
    (mode,) = profile.mode
    table = profile.mode[mode]
    press = table.press[name]
    if press.air_jumps == 0:
        return profile
    waits = {"air_jumps": 0, "buffer_s": press.buffer_s or 0.0, "grace_s": press.grace_s or 0.0}
    table = table.model_copy(update={"press": {**table.press, name: press.model_copy(update=waits)}})
    return profile.model_copy(update={"mode": {mode: table}})


def jump_press(profile: Profile, mode: str, lead: Trial = ()) -> JumpPress:
    """Return the press that jumps in a profile of one mode, with what must be held before; raises `NotHere` without
    one.
    """
    name = jump_press_name(profile, mode)
    if name is None:
        raise NotHere("no press jumps or waits for the ground")
    press = profile.mode[mode].press[name]
    down, up = (
        [(event.control, event.value) for event in events] for events in entry_changes(profile, press.bind[0])
    )
    return JumpPress(profile, name, press.trial(down, up), up, lead)


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
