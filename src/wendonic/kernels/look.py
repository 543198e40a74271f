"""The channel `look`: how far the view turns in a tick."""

from typing import NamedTuple

from wendonic.kernels.kernel import Row, kernel
from wendonic.kernels.places import LOOK_PLACE, LOOK_SOURCE_WIDTH, LOOK_START
from wendonic.kernels.stick import USUAL_FORM, StickForm, formed

LOOK_DISPLACEMENT = 0
LOOK_STICK = 1
LOOK_RATE = 2


class LookSourceTuning(NamedTuple):
    """The numbers of one source of `look`.

    `yaw` and `pitch` turn its numbers into angles: rad per count or window width for a displacement, rad/s at
    full tilt for a stick, rad per rad for a rate.
    """

    kind: int
    yaw: float
    pitch: float
    inner: float
    outer: float
    curve_form: int
    curve_exponent: float
    form: StickForm


class LookTuning(NamedTuple):
    """The numbers of the channel `look`; its sources add up. Limits in radians."""

    source_count: int
    sources: tuple[LookSourceTuning, LookSourceTuning, LookSourceTuning, LookSourceTuning]
    pitch_low: float
    pitch_high: float


class LookOutcome(NamedTuple):
    """How far the view turned in a tick, and where it looks then (rad).

    `source` is the place in the sample of the source that turned it furthest, -1 for none.
    """

    source: float
    look_yaw: float
    look_pitch: float
    view_yaw: float
    view_pitch: float


SILENT_LOOK_SOURCE = LookSourceTuning(LOOK_DISPLACEMENT, 0.0, 0.0, 0.0, 1.0, 0, 1.0, USUAL_FORM)


@kernel
def look_turn(tuning: LookSourceTuning, right: float, up: float, dt: float) -> tuple[float, float]:
    """Return how far one source turns the view in `dt` seconds: yaw and pitch (rad), right and up positive.

    A displacement has covered its way however long the tick was, so `dt` plays no part in it. A stick gives its
    rate, dead zone and curve taken on the length of the tilt, times `dt`; a rate sensor gives its rate times `dt`.

    >>> mouse = SILENT_LOOK_SOURCE._replace(yaw=0.001, pitch=0.001)
    >>> look_turn(mouse, 200.0, -100.0, 0.5)
    (0.2, -0.1)
    >>> stick = SILENT_LOOK_SOURCE._replace(kind=LOOK_STICK, yaw=4.0, pitch=2.0)
    >>> look_turn(stick, 0.5, 0.0, 0.25)
    (0.5, 0.0)
    """
    kind, yaw, pitch, inner, outer, curve_form, curve_exponent, form = tuning
    if kind == LOOK_DISPLACEMENT:
        return right * yaw, up * pitch
    if kind == LOOK_RATE:
        return right * yaw * dt, up * pitch * dt
    right, up = formed(right, up, inner, outer, curve_form, curve_exponent, form, 0)
    return right * yaw * dt, up * pitch * dt


@kernel
def limited_pitch(pitch: float, turn: float, low: float, high: float) -> float:
    """Return the pitch (rad) after `turn`, kept within its limits.

    A pitch that is outside already, because the game looks there, may turn towards the limits and no further out.

    >>> limited_pitch(1.25, 0.5, -1.5, 1.5), limited_pitch(1.5, -0.25, -1.5, 1.5), limited_pitch(2.0, 0.1, -1.5, 1.5)
    (1.5, 1.25, 2.0)
    """
    if turn > 0.0:
        return max(pitch, min(pitch + turn, high))
    return min(pitch, max(pitch + turn, low))


@kernel
def looked(tuning: LookTuning, view_yaw: float, view_pitch: float, sample: Row, dt: float) -> LookOutcome:
    """Return the view after `dt` seconds, and how far it turned: all sources together, the pitch within its limits.

    The sources' numbers begin at LOOK_START of the sample; see `look_turn`. They stand for the whole tick, so a hitch
    need not be cut.

    >>> mouse = SILENT_LOOK_SOURCE._replace(yaw=0.001, pitch=0.001)
    >>> tuning = LookTuning(1, (mouse, mouse, mouse, mouse), -1.5, 1.5)
    >>> looked(tuning, 0.25, 0.0, [0.0] * LOOK_START + [250.0, 0.0], 0.01).view_yaw
    0.5
    """
    yaw = pitch = most = 0.0
    source = -1.0
    for k in range(tuning.source_count):
        place = LOOK_START + k * LOOK_SOURCE_WIDTH
        right = sample[place]
        up = sample[place + 1]
        if right == 0.0 and up == 0.0:
            continue
        more_yaw, more_pitch = look_turn(tuning.sources[k], right, up, dt)
        way = abs(more_yaw) + abs(more_pitch)
        if way > most:
            most = way
            source = float(LOOK_PLACE + k)
        yaw += more_yaw
        pitch += more_pitch
    if source < 0.0:
        return LookOutcome(source, 0.0, 0.0, view_yaw, view_pitch)
    new_pitch = limited_pitch(view_pitch, pitch, tuning.pitch_low, tuning.pitch_high)
    return LookOutcome(source, yaw, new_pitch - view_pitch, view_yaw + yaw, new_pitch)
