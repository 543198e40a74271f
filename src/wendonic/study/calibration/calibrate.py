"""Calibrates the devices of a recording: rest, noise and rim of sticks, the dpi of a mouse, the bias of a gyro."""

from wendonic.counted import counted
from wendonic.errors import WendonicError
from wendonic.look_units import CM_PER_INCH
from wendonic.recording.recording import Recording, known_recording
from wendonic.study.calibration.estimate import Estimate, mean_estimate
from wendonic.study.calibration.found import Calibration, GyroCalibration, MouseCalibration, StickCalibration
from wendonic.study.calibration.gyro_rest import gyro_rest
from wendonic.study.calibration.mouse_swipes import swipe_lengths
from wendonic.study.calibration.stick_rest import LEAST_S, MOST_GLITCHES, StickRest, stick_rest
from wendonic.study.calibration.stick_returns import LEAST_RETURNS
from wendonic.study.calibration.stick_rim import LEAST_TURNS, rim_samples, stick_rim
from wendonic.study.calibration.stick_samples import stick_samples

SHARE = 0.999
"""Share of the samples at rest that a dead zone should cover."""

OUTER_SHARE = 0.97
"""Input is full from this share of the rim on, so that no player has to press harder."""

PUSHES = "push it aside and let it go ten times, a second apart"
VAGUE, VAGUE_INNER = 4.0, 0.1
"""An estimate of a dead zone whose interval reaches beyond this factor, and beyond this size, is only a guess."""

MOST_SCATTER = 0.1
"""A stick's springs return it to within this (raw, on each axis) of its usual rest point."""

MOST_UNLIKE = 1.2
"""If the longest swipe exceeds the shortest by more than this factor, they did not all have the given length."""


def calibrate(recording: Recording, share: float = SHARE, swipe_cm: float | None = None) -> Calibration:
    """Return the calibration of the sticks, the mouse and the gyros in a recording.

    The dead zone covers a `share` (0..1) of the samples at rest; `swipe_cm` is the length of each mouse swipe. Raises
    `WendonicError` for an impossible share or length, and for a recording without any of these devices.

    >>> from wendonic.demo import demo_recording
    >>> left, *_ = calibrate(demo_recording("beekeeper_pad")).sticks
    >>> left.control, round(left.rest.x.value, 2), left.missing[0].split(":")[0]
    ('pad.left_stick', 0.03, 'rim')
    """
    if not 0.5 <= share < 1.0:
        raise WendonicError(f"share: found {share:g}; allowed: 0.5 up to, not including, 1")
    if swipe_cm is not None and not 0.0 < swipe_cm <= 1000.0:
        raise WendonicError(f"swipe: found {swipe_cm:g} cm; allowed: above 0, up to 1000")
    names = dict.fromkeys(event.control for event in known_recording(recording))
    sticks = tuple(_stick(recording, name, share) for name in names if name.endswith("_stick"))
    mouse = _mouse(recording, swipe_cm) if "mouse.move" in names else None
    gyros = tuple(_gyro(recording, name) for name in names if name.endswith(".gyro"))
    if not sticks and mouse is None and not gyros:
        raise WendonicError("the recording has no stick, mouse or gyro; there is nothing to calibrate")
    return Calibration(sticks, mouse, gyros)


def _stick(recording: Recording, control: str, share: float) -> StickCalibration:
    samples = stick_samples(recording, control)
    rest = stick_rest(samples)
    missing: list[str] = []
    if rest is None:
        missing.append(f"rest: less than {LEAST_S:g} s hands off; let the stick lie for five seconds")
    if rest and rest.returns.scatter and rest.returns.scatter.value > MOST_SCATTER:
        words = (
            f"it lay still {rest.returns.times} times, in places {rest.returns.scatter.value:.2f} apart on each axis"
        )
        missing.append(f"rest: {words}, so it was held at some of them; let it lie for five seconds, then {PUSHES}")
        rest = None
    x, y = (rest.x.value, rest.y.value) if rest else (0.0, 0.0)
    rim = stick_rim(samples, x, y, *(rest.memory, rest.step) if rest else ())
    if rim is None:
        _, turns = rim_samples(samples, x, y)
        words = f"{turns:.1f} turns round the rim, {LEAST_TURNS:g} at least; go round it slowly three times"
        if turns >= LEAST_TURNS:
            words = f"{turns:.1f} turns round the rim, but too few samples of some headings; go round it more slowly"
        missing.append(f"rim: {words}")
    inner = rest.inner(share) if rest else None
    if rest and inner is None:
        missing.append(f"inner: {_no_inner(rest)}")
    if rest and inner and inner.high > max(VAGUE * inner.value, VAGUE_INNER):
        ends = f"anything from {inner.low:.4f} to {inner.high:.4f}"
        missing.append(f"inner: after {rest.seconds:.1f} s hands off it may be {ends}; let it lie for longer")
        inner = None
    if inner and rest and rest.returns.times < LEAST_RETURNS:
        missing.append(
            f"returns: sticks come to rest in a different place each time, and `inner` does not cover that; {PUSHES}"
        )
    outer = rim.reach.scaled(OUTER_SHARE) if rim and rim.gate == "circle" else None
    if rim and rim.gate == "measured":
        outer = Estimate(OUTER_SHARE, OUTER_SHARE, OUTER_SHARE, rim.reach.samples)
    return StickCalibration(control, samples, rest, rim, inner, outer, tuple(missing))


def _no_inner(rest: StickRest) -> str:
    """Say why there is no dead zone."""
    if rest.glitches >= MOST_GLITCHES:
        return f"{rest.glitches} single readings lie far off; the cable or the pad makes them, and no dead zone helps"
    if rest.returns.scatter is not None and rest.returns.times < LEAST_RETURNS:
        return f"it came to rest {rest.returns.times} times, in different places; {PUSHES}, to see how different"
    return f"{rest.seconds:.1f} s hands off are too little for noise that changes so slowly; let it lie for longer"


def _mouse(recording: Recording, swipe_cm: float | None) -> MouseCalibration:
    lengths = swipe_lengths(recording)
    if swipe_cm is None:
        return MouseCalibration(None, lengths, ("dpi: say how far each swipe went: --swipe-cm 20",))
    if len(lengths) < 3:
        return MouseCalibration(
            None, lengths, (f"dpi: {counted(len(lengths), 'swipe')}, 3 at least, with a pause between two",)
        )
    if max(lengths) > MOST_UNLIKE * min(lengths):
        unlike = ", ".join(f"{length:.0f}" for length in lengths)
        words = f"dpi: the swipes are {unlike} counts long, too unlike to be one distance; swipe that distance only"
        return MouseCalibration(None, lengths, (words,))
    import numpy as np

    found = mean_estimate(np.array(lengths) * CM_PER_INCH / swipe_cm)
    # A swipe's length is known to one count at best.
    count = found.value / min(lengths)
    return MouseCalibration(found._replace(low=found.low - count, high=found.high + count), lengths, ())


def _gyro(recording: Recording, control: str) -> GyroCalibration:
    rest = gyro_rest(recording, control)
    missing: tuple[str, ...] = ()
    if rest.bias_deg_s is None:
        why = "it is in somebody's hands" if rest.swayed else "less than 2 s at rest"
        missing = (f"bias: {why}; lay the pad on the table",)
    return GyroCalibration(control, rest.bias_deg_s, rest.noise_deg_s, rest.still_deg_s, missing)
