"""The tremor of a hand that holds something."""

import math
import random

TREMOR_HZ = 9.0
"""Physiological tremor lies between 8 and 12 Hz (Elble and Koller, Tremor, 1990)."""

TREMOR_DAMPING = 0.15


class Tremor:
    """Noise that swings about `TREMOR_HZ`, with a standard deviation of `size` in whatever unit that is.

    A resonator of second order, driven by white noise: x' = a x + b x_before + e, with a = 2 r cos w, b = -r²,
    w the angle of `TREMOR_HZ` a step and r its decay (Box and Jenkins, Time Series Analysis, 1970, AR(2)). The
    variance of such a process is s² (1 - b) / ((1 + b) ((1 - b)² - a²)), s that of its noise.

    >>> tremor = Tremor(size=0.5, step_s=0.001, random_numbers=random.Random(1))
    >>> values = [tremor.step() for _ in range(50_000)]
    >>> 0.4 < (sum(value * value for value in values) / len(values)) ** 0.5 < 0.6
    True
    """

    def __init__(self, size: float, step_s: float, random_numbers: random.Random) -> None:
        """Begin at rest."""
        angle = math.tau * TREMOR_HZ * step_s
        decay = math.exp(-TREMOR_DAMPING * angle)
        self._first = 2.0 * decay * math.cos(angle)
        self._second = -decay * decay
        a, b = self._first, self._second
        variance = (1.0 - b) / ((1.0 + b) * ((1.0 - b) ** 2 - a * a))
        self._noise = size / math.sqrt(variance)
        self._random = random_numbers
        self._value = self._before = 0.0

    def step(self) -> float:
        """Return the next value."""
        driven = self._random.gauss(0.0, self._noise)
        value = self._first * self._value + self._second * self._before + driven
        self._before, self._value = self._value, value
        return value
