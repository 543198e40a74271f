"""The channel `look`: how far the view turns in a tick."""

import math
from typing import NamedTuple

from wendonic.kernels.angles import wrapped_angle
from wendonic.kernels.look.displacement import (
    DISPLACEMENT_AT_REST,
    PLAIN_DISPLACEMENT,
    DisplacementState,
    DisplacementTuning,
    displacement_output,
)
from wendonic.kernels.look.gyro import GYRO_AT_REST, PLAIN_GYRO, GyroState, GyroTuning, gyro_rates
from wendonic.kernels.look.stick import (
    STICK_LOOK,
    STICK_LOOK_AT_REST,
    StickLookState,
    StickLookTuning,
    key_rates,
    snap_turn,
    stick_rates,
)
from wendonic.kernels.press.press import PressState
from wendonic.kernels.row import Row
from wendonic.kernels.source.opposites import opposed
from wendonic.kernels.vector import Vec3

LOOK_DISPLACEMENT = 0
LOOK_STICK = 1
LOOK_RATE = 2
LOOK_KEYS = 3


class LookSourceTuning(NamedTuple):
    """The numbers of one source of `look`; those of the other kinds are at their neutral value.

    `yaw` and `pitch` convert its numbers into angles: rad per count or window width for a displacement, rad/s at full
    tilt for a stick and for a held key, rad per rad for a rate. A turn slower than `least` (rad/s) counts, but not as
    use of the device: a pad trembles in the calmest hand. `opposites` is the rule for keys.
    """

    kind: int
    yaw: float
    pitch: float
    least: float
    opposites: int
    displacement: DisplacementTuning
    stick: StickLookTuning
    gyro: GyroTuning


class LookSourceState(NamedTuple):
    """What a source of `look` carries from tick to tick, by its kind."""

    displacement: DisplacementState
    stick: StickLookState
    gyro: GyroState


class LookTuning(NamedTuple):
    """The numbers of the channel `look`; its sources add up. Limits in radians.

    `zoom_scale` multiplies the turn while the press of number `zoom_press` (-1 for none) is held; snap turns are not
    scaled.
    """

    sources: tuple[LookSourceTuning, ...]
    pitch_low: float
    pitch_high: float
    zoom_press: int
    zoom_scale: float


class LookOutput(NamedTuple):
    """How far the view turned in a tick, and where it looks afterwards (rad).

    `source` is the number of the source that turned it furthest, -1 if none counts as used.
    """

    source: float
    look_yaw: float
    look_pitch: float
    view_yaw: float
    view_pitch: float


PLAIN_LOOK_SOURCE = LookSourceTuning(LOOK_DISPLACEMENT, 0.0, 0.0, 0.0, 0, PLAIN_DISPLACEMENT, STICK_LOOK, PLAIN_GYRO)
LOOK_SOURCE_AT_REST = LookSourceState(DISPLACEMENT_AT_REST, STICK_LOOK_AT_REST, GYRO_AT_REST)
NO_LOOK = LookTuning((), -0.5 * math.pi, 0.5 * math.pi, -1, 1.0)


class LookTurn(NamedTuple):
    """How far a source turns the view (rad), to the right and up."""

    yaw: float
    pitch: float


def look_turn(
    tuning: LookSourceTuning,
    tables: Row,
    state: LookSourceState,
    raw: Row,
    presses: tuple[PressState, ...],
    dt: float,
) -> tuple[LookSourceState, LookTurn]:
    """Return the new state of one source and how far it turns the view in `dt` seconds (rad, right and up positive).

    `raw` has how far to the right and up; of a rate sensor its three rates, then what its accelerometer feels on
    three axes; of keys right, left, up and down, see `opposed`. A displacement does not depend on the length of the
    tick, so `dt` only determines how much of it smoothing hands out; see `displacement_output`. A stick turns by its
    rate times `dt`, see `stick_rates`, and so do keys, see `key_rates`, and a rate sensor, see `gyro_rates`. A paused
    sensor does not turn the view, but continues to estimate its bias and where up is.

    >>> mouse = PLAIN_LOOK_SOURCE._replace(yaw=0.001, pitch=0.001)
    >>> look_turn(mouse, (), LOOK_SOURCE_AT_REST, [200.0, -100.0], (), 0.5)[1]
    LookTurn(yaw=0.2, pitch=-0.1)
    >>> stick = PLAIN_LOOK_SOURCE._replace(kind=LOOK_STICK, yaw=4.0, pitch=2.0)
    >>> look_turn(stick, (), LOOK_SOURCE_AT_REST, [0.5, 0.0], (), 0.25)[1]
    LookTurn(yaw=0.5, pitch=0.0)
    """
    displacement, stick, gyro = state
    yaw = pitch = 0.0
    if tuning.kind == LOOK_DISPLACEMENT:
        # Counts are a displacement, so dt is not used.
        yaw = raw[0] * tuning.yaw
        pitch = raw[1] * tuning.pitch
        if tuning.displacement.smooths > 0 or tuning.displacement.follows_hand > 0:
            waits = displacement.owed_yaw != 0.0 or displacement.owed_pitch != 0.0 or displacement.hand_cm_s != 0.0
            if waits or raw[0] != 0.0 or raw[1] != 0.0:
                counts = math.hypot(raw[0], raw[1])
                displacement, turn = displacement_output(tuning.displacement, displacement, yaw, pitch, counts, dt)
                yaw = turn.yaw
                pitch = turn.pitch
    elif tuning.kind in (LOOK_STICK, LOOK_KEYS):
        right, up = raw[0], raw[1]
        if tuning.kind == LOOK_KEYS:
            right, up = opposed(raw[0], raw[1], tuning.opposites), opposed(raw[2], raw[3], tuning.opposites)
        if tuning.stick.snaps > 0:
            stick, side = snap_turn(tuning.stick, tables, stick, right, up)
            yaw = side * tuning.yaw
        else:
            if tuning.kind == LOOK_KEYS:
                stick, rates = key_rates(tuning.stick, stick, right, up, dt)
            else:
                stick, rates = stick_rates(tuning.stick, tables, stick, right, up, dt)
            # A rate times dt.
            yaw = rates.right * tuning.yaw * dt
            pitch = rates.up * tuning.pitch * dt
    else:
        felt = Vec3(raw[3], raw[4], raw[5])
        gyro, turning = gyro_rates(tuning.gyro, gyro, Vec3(raw[0], raw[1], raw[2]), felt, dt)
        yaw = turning.yaw * tuning.yaw * dt
        pitch = turning.pitch * tuning.pitch * dt
        if tuning.gyro.while_press >= 0 and presses[tuning.gyro.while_press].held == 0.0:
            yaw = pitch = 0.0
        if tuning.gyro.pause_press >= 0 and presses[tuning.gyro.pause_press].held > 0.0:
            yaw = pitch = 0.0
    return LookSourceState(displacement, stick, gyro), LookTurn(yaw, pitch)


def limited_pitch(pitch: float, turn: float, low: float, high: float) -> float:
    """Return the pitch (rad) after `turn`, within its limits.

    A pitch that is outside already, because the game set it, may turn towards the limits but no further out. A pitch
    counted from 0 to 360 degrees has the limits of the same direction.

    >>> limited_pitch(1.25, 0.5, -1.5, 1.5), limited_pitch(1.5, -0.25, -1.5, 1.5), limited_pitch(2.0, 0.1, -1.5, 1.5)
    (1.5, 1.25, 2.0)
    >>> round(limited_pitch(math.tau - 0.25, 2.0, -1.5, 1.5) - math.tau, 12)
    1.5
    """
    if math.fabs(pitch) > math.pi:
        whole = pitch - wrapped_angle(pitch)
        low += whole
        high += whole
    if turn > 0.0:
        return max(pitch, min(pitch + turn, high))
    return min(pitch, max(pitch + turn, low))


def without_owed_pitch(tuning: LookSourceTuning, state: LookSourceState, turn: float) -> LookSourceState:
    """Return a source's state without the remainder that smoothing would still hand out in the direction of `turn`:
    past a limit it would delay the way back.

    >>> smooth = PLAIN_LOOK_SOURCE._replace(displacement=PLAIN_DISPLACEMENT._replace(smooths=1))
    >>> state = LOOK_SOURCE_AT_REST._replace(displacement=DisplacementState(0.1, 0.2, 3.0))
    >>> without_owed_pitch(smooth, state, 1.0).displacement.owed_pitch
    0.0
    >>> without_owed_pitch(smooth, state, -1.0).displacement.owed_pitch
    0.2
    """
    if tuning.displacement.smooths > 0 and state.displacement.owed_pitch * turn > 0.0:
        return state._replace(displacement=state.displacement._replace(owed_pitch=0.0))
    return state


def look_output(
    tuning: LookTuning,
    tables: Row,
    states: tuple[LookSourceState, ...],
    view_yaw: float,
    view_pitch: float,
    raw: tuple[Row, ...],
    presses: tuple[PressState, ...],
    dt: float,
) -> tuple[tuple[LookSourceState, ...], LookOutput]:
    """Return the sources' new states, and the view after `dt` seconds with its turn by all sources together.

    The pitch stays within its limits; the yaw is wrapped to -pi..pi, so that it is as precise after a day as at
    first.

    >>> tuning = NO_LOOK._replace(sources=(PLAIN_LOOK_SOURCE._replace(yaw=0.001, pitch=0.001),))
    >>> look_output(tuning, (), (LOOK_SOURCE_AT_REST,), 0.25, 0.0, ((250.0, 0.0),), (), 0.01)[1].view_yaw
    0.5
    """
    source = -1.0
    most = yaw = pitch = 0.0
    zoom = 1.0
    if tuning.zoom_press >= 0 and presses[tuning.zoom_press].held > 0.0:
        zoom = tuning.zoom_scale
    after: tuple[LookSourceState, ...] = ()
    for k in range(len(tuning.sources)):
        state, turn = look_turn(tuning.sources[k], tables, states[k], raw[k], presses, dt)
        after = (*after, state)
        if turn.yaw != 0.0 or turn.pitch != 0.0:
            yaw += turn.yaw if tuning.sources[k].stick.snaps > 0 else turn.yaw * zoom
            pitch += turn.pitch * zoom
            amount = abs(turn.yaw) + abs(turn.pitch)
            felt = tuning.sources[k].kind != LOOK_RATE or amount >= tuning.sources[k].least * dt
            if (k == 0 or amount > most) and felt:
                most = amount
                source = k + 0.0
    new_pitch = view_pitch
    if yaw != 0.0 or pitch != 0.0:
        new_pitch = limited_pitch(view_pitch, pitch, tuning.pitch_low, tuning.pitch_high)
        stopped = new_pitch in (tuning.pitch_low, tuning.pitch_high) or new_pitch == view_pitch
        if pitch != 0.0 and stopped:
            forgiven: tuple[LookSourceState, ...] = ()
            for k in range(len(tuning.sources)):
                forgiven = (*forgiven, without_owed_pitch(tuning.sources[k], after[k], pitch))
            after = forgiven
        view_yaw = wrapped_angle(view_yaw + yaw)
    else:
        source = -1.0
    return after, LookOutput(source, yaw, new_pitch - view_pitch, view_yaw, new_pitch)
