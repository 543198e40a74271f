"""Drops the part of a request that points into a wall but is no longer held."""

import math

from wendonic.kernels.move.move import SMOOTHING_NONE, MoveState, MoveTuning
from wendonic.kernels.row import Row
from wendonic.kernels.source.keys import KeysState
from wendonic.kernels.source.opposites import opposed
from wendonic.kernels.source.source import SOURCE_KEYS, SOURCE_SWING, SourceState, SourceTuning
from wendonic.kernels.vector import Vec2

FACES_WALL = 0.5
"""An axis runs into a wall whose normal is within 60 deg of it; along any other wall most of the speed is kept."""


def lags(tuning: SourceTuning) -> bool:
    """Return whether a source can lag behind what is held.

    >>> from wendonic.kernels.source.source import PLAIN_SOURCE
    >>> lags(PLAIN_SOURCE)
    False
    """
    return tuning.kind == SOURCE_KEYS and tuning.keys.ramps > 0


def lagging(sources: tuple[SourceTuning, ...]) -> bool:
    """Return whether any of the sources can lag behind what is held.

    >>> lagging(())
    False
    """
    found = False
    for k in range(len(sources)):
        found = found or lags(sources[k])
    return found


def remembers(tuning: MoveTuning) -> bool:
    """Return whether the channel can lag behind what is held.

    >>> from wendonic.kernels.move.move import NO_MOVE, SMOOTHING_HALF_LIFE
    >>> remembers(NO_MOVE), remembers(NO_MOVE._replace(smoothing=SMOOTHING_HALF_LIFE))
    (False, True)
    """
    return tuning.smoothing != SMOOTHING_NONE or lagging(tuning.sources)


def off_axis(value: float, requested: float, away: float) -> float:
    """Return a value along an axis with the wall's normal `away`, or 0 if it points into the wall and is no longer
    requested.

    >>> off_axis(0.8, -1.0, -1.0), off_axis(0.8, 1.0, -1.0), off_axis(0.8, -1.0, -0.2), off_axis(-0.8, 0.0, -1.0)
    (0.0, 0.8, 0.8, -0.8)
    """
    if math.fabs(away) >= FACES_WALL and value * away < 0.0 and requested * away >= 0.0:
        return 0.0
    return value


def unshaped_request(tuning: SourceTuning, state: SourceState, raw: Row) -> Vec2:
    """Return the unshaped request of a source; a stick within its dead zone requests nothing.

    >>> from wendonic.kernels.source.source import PLAIN_SOURCE, SOURCE_AT_REST
    >>> unshaped_request(PLAIN_SOURCE, SOURCE_AT_REST, (0.5, -0.25))
    Vec2(x=0.5, y=-0.25)
    """
    if tuning.kind == SOURCE_SWING:
        return state.output
    if tuning.kind == SOURCE_KEYS:
        opposites = tuning.keys.opposites
        return Vec2(opposed(raw[0], raw[1], opposites), opposed(raw[2], raw[3], opposites))
    inner = tuning.stick.dead_zone.inner
    x = raw[0] if math.fabs(raw[0]) > inner else 0.0
    y = raw[1] if math.fabs(raw[1]) > inner else 0.0
    return Vec2(x, y)


def keys_off_wall(tuning: SourceTuning, state: SourceState, raw: Row, away: Vec2) -> SourceState:
    """Return a source's state without the ramps that point into a wall and are no longer requested.

    >>> from wendonic.kernels.source.keys import NO_KEYS
    >>> from wendonic.kernels.source.source import PLAIN_SOURCE, SOURCE_AT_REST
    >>> ramps = PLAIN_SOURCE._replace(kind=SOURCE_KEYS, keys=NO_KEYS._replace(ramps=1))
    >>> ahead = SOURCE_AT_REST._replace(keys=KeysState(0.5, 1.0))
    >>> keys_off_wall(ramps, ahead, (1.0, 0.0, 0.0, 1.0), Vec2(0.0, -1.0)).keys
    KeysState(x=0.5, y=0.0)
    """
    if not lags(tuning):
        return state
    requested, keys = unshaped_request(tuning, state, raw), state.keys
    return state._replace(
        keys=KeysState(off_axis(keys.x, requested.x, away.x), off_axis(keys.y, requested.y, away.y))
    )


def axis_off_wall(
    tuning: tuple[SourceTuning, ...], states: tuple[SourceState, ...], raw: tuple[Row, ...], away: float
) -> tuple[SourceState, ...]:
    """Return the states of an axis channel's sources likewise; `away` is the component of the wall's normal along the
    channel.

    >>> axis_off_wall((), (), (), -1.0)
    ()
    """
    after: tuple[SourceState, ...] = ()
    for k in range(len(tuning)):
        after = (*after, keys_off_wall(tuning[k], states[k], raw[k], Vec2(away, 0.0)))
    return after


def move_off_wall(tuning: MoveTuning, state: MoveState, raw: tuple[Row, ...], away: Vec2) -> MoveState:
    """Return the channel's state without the components that point into a wall and are no longer requested, for each
    axis; `away` is the wall's normal, right and forward. So moving away from a wall is like starting from a
    standstill, while input held against the wall stays a request.

    >>> from wendonic.kernels.move.move import MOVE_AT_REST, NO_MOVE, SMOOTHING_HALF_LIFE
    >>> smooth = NO_MOVE._replace(smoothing=SMOOTHING_HALF_LIFE)
    >>> after = move_off_wall(smooth, MOVE_AT_REST._replace(right=0.6, forward=0.8), (), Vec2(0.0, -1.0))
    >>> after.right, after.forward
    (0.6, 0.0)
    """
    sources: tuple[SourceState, ...] = ()
    into_x = into_y = 0.0
    for k in range(len(tuning.sources)):
        sources = (*sources, keys_off_wall(tuning.sources[k], state.sources[k], raw[k], away))
        if tuning.smoothing != SMOOTHING_NONE:
            requested = unshaped_request(tuning.sources[k], state.sources[k], raw[k])
            into_x = min(into_x, requested.x * away.x)
            into_y = min(into_y, requested.y * away.y)
    right, forward, filtered = state.right, state.forward, state.filter
    if tuning.smoothing != SMOOTHING_NONE:
        right = off_axis(right, into_x * away.x, away.x)
        forward = off_axis(forward, into_y * away.y, away.y)
        if right != state.right:
            filtered = filtered._replace(was_x=0.0, speed_x=0.0)
        if forward != state.forward:
            filtered = filtered._replace(was_y=0.0, speed_y=0.0)
    return state._replace(sources=sources, filter=filtered, right=right, forward=forward)
