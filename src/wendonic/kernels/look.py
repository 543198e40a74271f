"""The channel `look`: how far the view turns in a tick."""

import math
from typing import NamedTuple, TypeAlias

from wendonic.kernels.angles import wrapped_angle
from wendonic.kernels.drag_look import DRAG_AT_REST, PLAIN_DRAG, DragState, DragTuning, dragged
from wendonic.kernels.gyro_look import GYRO_AT_REST, PLAIN_GYRO, GyroState, GyroTuning, gyro_rates
from wendonic.kernels.kernel import Row, called_kernel, kernel
from wendonic.kernels.places import LOOK_PAUSED, LOOK_PLACE, LOOK_SOURCE_WIDTH, LOOK_START, ZOOMED
from wendonic.kernels.stick_look import (
    STICK_LOOK,
    STICK_LOOK_AT_REST,
    StickLookState,
    StickLookTuning,
    snapped,
    tilted,
)

LOOK_DISPLACEMENT = 0
LOOK_STICK = 1
LOOK_RATE = 2


class LookSourceTuning(NamedTuple):
    """The numbers of one source of `look`; those of the other kinds stand at their neutral value.

    `yaw` and `pitch` turn its numbers into angles: rad per count or window width for a displacement, rad/s at
    full tilt for a stick, rad per rad for a rate. What turns more slowly than `least` (rad/s) turns, but does not
    count as being used: a pad trembles in the calmest hand.
    """

    kind: int
    yaw: float
    pitch: float
    least: float
    drag: DragTuning
    stick: StickLookTuning
    gyro: GyroTuning


class LookSourceState(NamedTuple):
    """What a source of `look` carries from tick to tick, by its kind."""

    drag: DragState
    stick: StickLookState
    gyro: GyroState


LookStates: TypeAlias = tuple[LookSourceState, LookSourceState, LookSourceState, LookSourceState]


class LookTuning(NamedTuple):
    """The numbers of the channel `look`; its sources add up. Limits in radians.

    `zoom_scale` multiplies the turn while the sample says that the view is zoomed.
    """

    source_count: int
    sources: tuple[LookSourceTuning, LookSourceTuning, LookSourceTuning, LookSourceTuning]
    pitch_low: float
    pitch_high: float
    zoom_scale: float = 1.0


class LookOutcome(NamedTuple):
    """How far the view turned in a tick, and where it looks then (rad).

    `source` is the place in the sample of the source that turned it furthest, -1 for none that counts as being used.
    """

    source: float
    look_yaw: float
    look_pitch: float
    view_yaw: float
    view_pitch: float


SILENT_LOOK_SOURCE = LookSourceTuning(LOOK_DISPLACEMENT, 0.0, 0.0, 0.0, PLAIN_DRAG, STICK_LOOK, PLAIN_GYRO)
LOOK_SOURCE_AT_REST = LookSourceState(DRAG_AT_REST, STICK_LOOK_AT_REST, GYRO_AT_REST)
LOOK_AT_REST: LookStates = (LOOK_SOURCE_AT_REST, LOOK_SOURCE_AT_REST, LOOK_SOURCE_AT_REST, LOOK_SOURCE_AT_REST)


@called_kernel
def look_turn(
    tuning: LookSourceTuning, tables: Row, state: LookSourceState, sample: Row, place: int, dt: float
) -> tuple[LookSourceState, float, float]:
    """Return the new state of one source and how far it turns the view in `dt` seconds (rad, right and up positive).

    Its numbers begin at `place` of the sample. A displacement has covered its way however long the tick was, so `dt`
    only says how much of it smoothing hands out; see `dragged`. A stick gives its rate times `dt`, see `tilted`; a
    rate sensor too, see `gyro_rates`. While it is paused it gives nothing, but goes on to find its bias and where
    up is.

    >>> mouse = SILENT_LOOK_SOURCE._replace(yaw=0.001, pitch=0.001)
    >>> look_turn(mouse, (), LOOK_SOURCE_AT_REST, [200.0, -100.0], 0, 0.5)[1:]
    (0.2, -0.1)
    >>> stick = SILENT_LOOK_SOURCE._replace(kind=LOOK_STICK, yaw=4.0, pitch=2.0)
    >>> look_turn(stick, (), LOOK_SOURCE_AT_REST, [0.5, 0.0], 0, 0.25)[1:]
    (0.5, 0.0)
    """
    kind, yaw, pitch, _, drag, stick, gyro = tuning
    right = sample[place]
    up = sample[place + 1]
    if kind == LOOK_DISPLACEMENT:
        if drag.half_life_s == 0.0 and drag.cm_per_count == 0.0:
            return state, right * yaw, up * pitch
        owed_yaw, owed_pitch, hand_cm_s = state.drag
        if right == up == owed_yaw == owed_pitch == hand_cm_s == 0.0:
            return state, 0.0, 0.0
        drag_state, yaw, pitch = dragged(
            drag, state.drag, right * yaw, up * pitch, math.sqrt(right * right + up * up), dt
        )
        return LookSourceState(drag_state, state.stick, state.gyro), yaw, pitch
    if kind == LOOK_STICK and stick.snap_at > 0.0:
        snap_state, way = snapped(stick, tables, state.stick, right, up)
        return LookSourceState(state.drag, snap_state, state.gyro), way * yaw, 0.0
    if kind == LOOK_STICK:
        stick_state, right, up = tilted(stick, tables, state.stick, right, up, dt)
        return LookSourceState(state.drag, stick_state, state.gyro), right * yaw * dt, up * pitch * dt
    rates = (right, up, sample[place + 2])
    felt = (sample[place + 3], sample[place + 4], sample[place + 5])
    gyro_state, right, up = gyro_rates(gyro, state.gyro, rates, felt, dt)
    after = LookSourceState(state.drag, state.stick, gyro_state)
    if sample[place + LOOK_PAUSED] > 0.0:
        return after, 0.0, 0.0
    return after, right * yaw * dt, up * pitch * dt


class LookTurn(NamedTuple):
    """What several sources turn together; `source` is the one that turns furthest (-1 for none), by `most`."""

    source: float
    most: float
    yaw: float
    pitch: float


NO_TURN = LookTurn(-1.0, 0.0, 0.0, 0.0)


@kernel
def turn_added(turn: LookTurn, source: float, yaw: float, pitch: float, least: float) -> LookTurn:
    """Return the turn with that of one source more; one that turns no more than `least` is not the one that is used.

    >>> turn_added(turn_added(NO_TURN, 0.0, 0.5, 0.0, 0.0), 1.0, -0.25, 0.25, 0.0)
    LookTurn(source=0.0, most=0.5, yaw=0.25, pitch=0.25)
    >>> turn_added(NO_TURN, 0.0, 0.25, 0.0, 0.5)
    LookTurn(source=-1.0, most=0.0, yaw=0.25, pitch=0.0)
    """
    way = abs(yaw) + abs(pitch)
    if way > turn.most and way > least:
        return LookTurn(source, way, turn.yaw + yaw, turn.pitch + pitch)
    return LookTurn(turn.source, turn.most, turn.yaw + yaw, turn.pitch + pitch)


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


@called_kernel
def forgiven_pitch(state: LookSourceState, turn: float) -> LookSourceState:
    """Return a source's state without what it still owes in the direction of `turn`.

    Past a limit it would come out later, and hold up the way back.

    >>> state = LOOK_SOURCE_AT_REST._replace(drag=DragState(0.1, 0.2, 3.0))
    >>> forgiven_pitch(state, 1.0).drag, forgiven_pitch(state, -1.0) is state
    (DragState(owed_yaw=0.1, owed_pitch=0.0, hand_cm_s=3.0), True)
    """
    drag = state.drag
    if drag.owed_pitch * turn <= 0.0:
        return state
    return LookSourceState(DragState(drag.owed_yaw, 0.0, drag.hand_cm_s), state.stick, state.gyro)


@kernel
def looked(
    tuning: LookTuning, tables: Row, states: LookStates, view_yaw: float, view_pitch: float, sample: Row, dt: float
) -> tuple[LookStates, LookOutcome]:
    """Return the sources' new states, and the view after `dt` seconds with how far it turned: all sources together.

    The pitch stays within its limits; the yaw is kept to -pi..pi, so that it is as exact after a day as at first. The
    sources' numbers begin at LOOK_START of the sample; see `look_turn`. They stand for the whole tick, so a hitch
    need not be cut.

    >>> mouse = SILENT_LOOK_SOURCE._replace(yaw=0.001, pitch=0.001)
    >>> tuning = LookTuning(1, (mouse, mouse, mouse, mouse), -1.5, 1.5)
    >>> looked(tuning, (), LOOK_AT_REST, 0.25, 0.0, [0.0] * LOOK_START + [250.0] + [0.0] * 28, 0.01)[1].view_yaw
    0.5
    """
    first, second, third, fourth = states
    count = tuning.source_count
    sources = tuning.sources
    first, yaw, pitch = look_turn(sources[0], tables, first, sample, LOOK_START, dt)
    turn = turn_added(NO_TURN, 0.0, yaw, pitch, sources[0].least * dt)
    if count > 1:
        second, yaw, pitch = look_turn(sources[1], tables, second, sample, LOOK_START + LOOK_SOURCE_WIDTH, dt)
        turn = turn_added(turn, 1.0, yaw, pitch, sources[1].least * dt)
    if count > 2:
        third, yaw, pitch = look_turn(sources[2], tables, third, sample, LOOK_START + 2 * LOOK_SOURCE_WIDTH, dt)
        turn = turn_added(turn, 2.0, yaw, pitch, sources[2].least * dt)
    if count > 3:
        fourth, yaw, pitch = look_turn(sources[3], tables, fourth, sample, LOOK_START + 3 * LOOK_SOURCE_WIDTH, dt)
        turn = turn_added(turn, 3.0, yaw, pitch, sources[3].least * dt)
    source, _, yaw, pitch = turn
    if yaw == 0.0 and pitch == 0.0:
        return (first, second, third, fourth), LookOutcome(-1.0, 0.0, 0.0, view_yaw, view_pitch)
    if sample[ZOOMED] > 0.0:
        yaw *= tuning.zoom_scale
        pitch *= tuning.zoom_scale
    new_pitch = limited_pitch(view_pitch, pitch, tuning.pitch_low, tuning.pitch_high)
    at_limit = new_pitch in (tuning.pitch_low, tuning.pitch_high) or new_pitch == view_pitch
    if at_limit and pitch != 0.0:
        first = forgiven_pitch(first, pitch)
        second = forgiven_pitch(second, pitch)
        third = forgiven_pitch(third, pitch)
        fourth = forgiven_pitch(fourth, pitch)
    place = LOOK_PLACE + source if source >= 0.0 else -1.0
    outcome = LookOutcome(place, yaw, new_pitch - view_pitch, wrapped_angle(view_yaw + yaw), new_pitch)
    return (first, second, third, fourth), outcome
