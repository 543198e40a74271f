"""A fixed step: frames bring time, steps take it."""

import math

from wendonic.errors import WendonicError

ROUNDING = 1e-9
"""A step that rounding alone keeps from fitting fits."""


class FixedStep:
    """The time (s) that frames have brought and no step has taken yet.

    >>> step = FixedStep()
    >>> step.bring(1 / 60, 1 / 100)
    >>> step.take(1 / 100), step.take(1 / 100)
    (True, False)
    """

    __slots__ = ("left_s",)

    def __init__(self) -> None:
        """Begin with none."""
        self.left_s = 0.0

    def bring(self, frame_dt: float, step_s: float) -> None:
        """Add the time of a frame; raises `WendonicError` for one that is negative or not finite, or a step that is
        not above 0.
        """
        if not 0.0 <= frame_dt < math.inf or not 0.0 < step_s < math.inf:
            raise WendonicError(f"frame_dt {frame_dt!r}, step_s {step_s!r}; allowed: finite, the step above 0")
        self.left_s += frame_dt

    def take(self, step_s: float) -> bool:
        """Take a step if one fits."""
        if self.left_s < step_s * (1.0 - ROUNDING):
            return False
        self.left_s -= step_s
        return True
