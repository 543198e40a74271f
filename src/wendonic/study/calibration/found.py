"""The results of a calibration, as numbers and in words."""

import math
from collections.abc import Iterator
from typing import NamedTuple

from wendonic.counted import counted
from wendonic.study.calibration.estimate import Estimate
from wendonic.study.calibration.stick_rest import StickRest
from wendonic.study.calibration.stick_returns import LEAST_RETURNS
from wendonic.study.calibration.stick_rim import StickRim
from wendonic.study.calibration.stick_samples import StickSamples

LEAST_INNER = 0.01


class StickCalibration(NamedTuple):
    """A stick's numbers; None where there is too little data, with the reason in `missing`.

    `inner` and `outer` are for a profile whose `centre` is the rest point and whose gate is that of the rim.
    """

    control: str
    samples: StickSamples
    rest: StickRest | None
    rim: StickRim | None
    inner: Estimate | None
    outer: Estimate | None
    missing: tuple[str, ...]


class MouseCalibration(NamedTuple):
    """A mouse's counts per inch, from swipes of known length."""

    dpi: Estimate | None
    swipes: tuple[float, ...]
    missing: tuple[str, ...]


class GyroCalibration(NamedTuple):
    """A gyro at rest: its bias (deg/s, right-hand rule about x, y, z), its noise per axis (the noisiest one if they
    differ), and the spread (deg/s) over a second below which it counts as lying still.
    """

    control: str
    bias_deg_s: tuple[Estimate, Estimate, Estimate] | None
    noise_deg_s: Estimate | None
    still_deg_s: float | None
    missing: tuple[str, ...]


class Calibration(NamedTuple):
    """The calibration of each stick, the mouse (None without one) and each gyro; printing it gives it in words.

    >>> from wendonic.demo import demo_recording
    >>> from wendonic.study import calibrate
    >>> found = calibrate(demo_recording("lookout_devices"))
    >>> [stick.control for stick in found.sticks], found.sticks[0].rim.gate, len(found.gyros)
    (['pad.left_stick', 'pad.right_stick'], 'measured', 1)
    """

    sticks: tuple[StickCalibration, ...]
    mouse: MouseCalibration | None
    gyros: tuple[GyroCalibration, ...]

    def __str__(self) -> str:
        """Return what was found, line by line, as `wendonic calibrate` prints it."""
        return "\n".join(calibration_lines(self))


def calibration_lines(found: Calibration) -> list[str]:
    """Return what was found, line by line, each number with its 95 % interval and the data behind it.

    >>> from wendonic.demo import demo_recording
    >>> from wendonic.study.calibration.calibrate import calibrate
    >>> print(calibration_lines(calibrate(demo_recording("beekeeper_pad")))[0])
    pad.left_stick
    """
    lines: list[str] = []
    for stick in found.sticks:
        lines += [stick.control, *(f"  {line}" for line in _stick_lines(stick))]
    if found.mouse is not None:
        lines.append("mouse.move")
        if found.mouse.dpi:
            lines.append(f"  dpi {_words(found.mouse.dpi, 1)} from {found.mouse.dpi.samples} swipes")
        lines += [f"  {words}" for words in found.mouse.missing]
    for gyro in found.gyros:
        lines.append(gyro.control)
        if gyro.bias_deg_s and gyro.noise_deg_s and gyro.still_deg_s:
            axes = ", ".join(f"{name} {_words(bias, 3)}" for name, bias in zip("xyz", gyro.bias_deg_s, strict=True))
            lines.append(f"  bias (deg/s): {axes}, {gyro.noise_deg_s.samples} samples")
            lines.append(f"  noise {_words(gyro.noise_deg_s, 3)} deg/s; still_deg_s = {gyro.still_deg_s:.2f}")
        lines += [f"  {words}" for words in gyro.missing]
    return lines


def _words(found: Estimate, digits: int) -> str:
    return f"{found.value:z.{digits}f} ({found.low:z.{digits}f} to {found.high:z.{digits}f})"


def _stick_lines(stick: StickCalibration) -> Iterator[str]:
    rest, rim = stick.rest, stick.rim
    if rest:
        hands_off = f"{int(rest.used.sum())} samples, {rest.seconds:.1f} s hands off"
        hands_off += f", {counted(rest.left_out, 'reading')} left out" if rest.left_out else ""
        yield f"rests at x {_words(rest.x, 4)}, y {_words(rest.y, 4)}; {hands_off}"
        yield f"noise {_words(rest.noise, 4)} on each axis"
        if rest.returns.scatter:
            scatter = _words(rest.returns.scatter, 4)
            yield f"came to rest {rest.returns.times} times, in places that scatter by {scatter} on each axis"
        elif rest.returns.times >= LEAST_RETURNS:
            yield f"came to rest {rest.returns.times} times, in the same place each time"
        if rest.held_times:
            yield f"held still elsewhere {counted(rest.held_times, 'time')}, which is left out"
        if rest.drift_per_min:
            yield f"drifts slowly: {_words(rest.drift_per_min, 4)} a minute, which is not in the noise"
        if stick.inner:
            yield f"inner {_words(stick.inner, 4)}; use {inner_to_write(stick.inner):.3f} to be safe"
    if rim and stick.outer:
        shortest = min(rim.lengths, key=lambda length: length.value)
        longest = max(rim.lengths, key=lambda length: length.value)
        shape = "a circle" if rim.gate == "circle" else "not a circle, so it is measured"
        yield (
            f"rim: {shape}, from {_words(shortest, 3)} to {_words(longest, 3)}; "
            f"{rim.turns:.1f} turns, {int(rim.used.sum())} samples"
        )
        yield (
            f"outer {stick.outer.value:.3f} of the rim"
            if rim.gate == "measured"
            else f"outer {_words(stick.outer, 3)}"
        )
    yield from stick.missing


def inner_to_write(inner: Estimate) -> float:
    """Return the dead zone for a profile: the upper end of the interval, so that it certainly covers the share.

    >>> inner_to_write(Estimate(0.021, 0.018, 0.0262, 300))
    0.027
    """
    return max(math.ceil(inner.high * 1000.0) / 1000.0, LEAST_INNER)
