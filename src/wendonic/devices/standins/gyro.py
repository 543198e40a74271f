"""A simulated pad that is turned in the hands: its rate sensor and accelerometer."""

import math
import random

from wendonic.devices.controls import find_kind
from wendonic.devices.event import Event
from wendonic.devices.standins.hand import HandPath
from wendonic.devices.standins.limits import above_zero, no_less

GRAVITY_M_S2 = 9.80665


class GyroStandIn:
    """A pad with the faults of real sensors: a bias, noise, and a bias that changes as it warms up.

    `bias` (rad/s, each axis) is there from the start; `drift` (rad/s) comes on top of it, by the share
    1 - exp(-t / warm_up_s) of it at time t. `noise` (rad/s) and `accel_noise` (m/s²) are standard deviations of a
    reading. `roll_deg` is how far the pad is held tilted, its right side down. Axes are the pad's own: x right, y
    up, z towards the player, turning by the right-hand rule. Same seed, same events.

    >>> pad = GyroStandIn(bias=(0.01, 0.0, 0.0), seed=4)
    >>> still = pad.events(lambda t: (0.0, 0.0), 0.0, 0.02)
    >>> [event.control for event in still[:2]], still[0].value
    (['pad.gyro', 'pad.accel'], (0.01, 0.0, 0.0))
    """

    def __init__(
        self,
        pad: str = "pad",
        bias: tuple[float, float, float] = (0.0, 0.0, 0.0),
        noise: float = 0.0,
        drift: tuple[float, float, float] = (0.0, 0.0, 0.0),
        warm_up_s: float = 300.0,
        accel_noise: float = 0.0,
        roll_deg: float = 0.0,
        poll_hz: float = 250.0,
        seed: int = 0,
    ) -> None:
        """Take the sensors' faults; raises `DeviceError` for a number that no sensor can have."""
        no_less(0.0, noise=noise, accel_noise=accel_noise)
        above_zero(warm_up_s=warm_up_s, poll_hz=poll_hz)
        self.gyro = find_kind(f"{pad}.gyro", "rates").name
        self.accel = find_kind(f"{pad}.accel", "rates").name
        self.bias = bias
        self.noise = noise
        self.drift = drift
        self.warm_up_s = warm_up_s
        self.accel_noise = accel_noise
        self.roll_deg = roll_deg
        self.poll_hz = poll_hz
        self._random = random.Random(seed)

    def bias_at(self, t: float) -> tuple[float, float, float]:
        """Return the true bias (rad/s) at a time: what a calibration should find."""
        warm = 1.0 - math.exp(-max(t, 0.0) / self.warm_up_s)
        x, y, z = (first + warm * more for first, more in zip(self.bias, self.drift, strict=True))
        return x, y, z

    def _rolled(self, x: float, y: float, z: float) -> tuple[float, float, float]:
        """Return a vector in the axes of the tilted pad that is (x, y, z) in those of a level pad."""
        cosine, sine = math.cos(math.radians(self.roll_deg)), math.sin(math.radians(self.roll_deg))
        return x * cosine - y * sine, x * sine + y * cosine, z

    def _noisy(self, value: float, noise: float) -> float:
        return round(value + self._random.gauss(0.0, noise), 6)

    def events(self, turned_deg: HandPath, start_s: float, end_s: float) -> list[Event]:
        """Return the events of both sensors while the hands turn the pad along `turned_deg`: yaw (right) and pitch
        (up).
        """
        events: list[Event] = []
        step_s = 1.0 / self.poll_hz
        for poll in range(math.ceil((end_s - start_s) * self.poll_hz)):
            t = round(start_s + poll * step_s, 6)
            (yaw_before, pitch_before), (yaw, pitch) = turned_deg(t - step_s), turned_deg(t)
            # A turn to the right goes against the right-hand rule about up.
            rates = self._rolled(
                math.radians(pitch - pitch_before) / step_s, -math.radians(yaw - yaw_before) / step_s, 0.0
            )
            x, y, z = (
                self._noisy(rate + bias, self.noise) for rate, bias in zip(rates, self.bias_at(t), strict=True)
            )
            events.append(Event(t, self.gyro, (x, y, z)))
            nose = math.radians(pitch)
            felt = self._rolled(0.0, GRAVITY_M_S2 * math.cos(nose), -GRAVITY_M_S2 * math.sin(nose))
            x, y, z = (self._noisy(axis, self.accel_noise) for axis in felt)
            events.append(Event(t, self.accel, (x, y, z)))
        return events
