"""A fixed step: frames add time, steps consume it, and time that cannot be caught up is dropped and counted."""

import math

from wendonic.errors import WendonicError
from wendonic.runtime.seconds import seconds_of

ROUNDING = 1e-9
"""A step that misses only by rounding still fits."""


class FixedStep:
    """The time (s) of frames that no step has consumed yet, the time that was dropped, and the share of a step that
    is left.

    >>> step = FixedStep()
    >>> step.bring(1.0, 0.25, max_catch_up_s=0.6)
    >>> step.take(), step.take(), step.take(), round(step.leftover_ratio, 9), round(step.dropped_s, 9)
    (True, True, False, 0.4, 0.4)
    """

    __slots__ = ("dropped_s", "left_s", "step_s")

    def __init__(self) -> None:
        """Begin without any time."""
        self.left_s = 0.0
        self.dropped_s = 0.0
        self.step_s = 1.0

    def bring(self, frame_dt: float, step_s: float, max_catch_up_s: float) -> None:
        """Add the time of a frame, for steps of `step_s`. At most `max_catch_up_s` of the remaining time is kept, but
        at least a step.

        Raises `WendonicError` for a frame that is negative or not finite, a step that is not above 0 and finite, and
        a `max_catch_up_s` that is not above 0.
        """
        frame_dt, step_s = seconds_of("frame_dt", frame_dt), seconds_of("step_s", step_s)
        if not 0.0 <= frame_dt < math.inf or not 0.0 < step_s < math.inf or not max_catch_up_s > 0.0:
            found = f"frame_dt {frame_dt!r}, step_s {step_s!r}, max_catch_up_s {max_catch_up_s!r}"
            raise WendonicError(f"{found}; allowed: a finite frame of 0 or more, a step and a catch-up above 0")
        self.step_s = step_s
        self.left_s += frame_dt
        dropped = self.left_s - float(max(max_catch_up_s, step_s))
        if dropped > 0.0:
            self.left_s -= dropped
            self.dropped_s += dropped

    def take(self) -> bool:
        """Take a step if one fits."""
        if self.left_s < self.step_s * (1.0 - ROUNDING):
            return False
        self.left_s = max(self.left_s - self.step_s, 0.0)
        return True

    @property
    def leftover_ratio(self) -> float:
        """The share of a step that is left: 0 up to 1 after every step that fits has been taken."""
        return min(self.left_s / self.step_s, 1.0)
