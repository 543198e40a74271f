"""One tick: raw numbers of the sample in, outcome out. The helm and the batch both call `tick`."""

import math
from typing import NamedTuple

from wendonic.kernels.diagonal import DIAGONAL_FREE, diagonal_scale
from wendonic.kernels.facing import turned_towards
from wendonic.kernels.gait import walked
from wendonic.kernels.kernel import Row, kernel
from wendonic.kernels.merge import strongest
from wendonic.kernels.smoothing import half_life_factor
from wendonic.kernels.source import (
    SOURCE_AT_REST,
    SOURCE_WIDTH,
    SourceState,
    SourceTuning,
    shaped_source,
)
from wendonic.kernels.steer_frame import steered

SOURCES = 4
"""Sources that a channel has room for. Fixed, so that one compilation serves every profile."""

SAMPLE_WIDTH = SOURCES * SOURCE_WIDTH
"""Numbers in a sample."""

REST_AMOUNT = 1e-3
"""Smoothing fades for ever; below this share of full speed, with nothing asked for, it is rest."""


MOST_PARTS = 1000
"""Parts that a hitch is cut into at most, so that a machine back from a night's sleep does not stall."""


class MoveTuning(NamedTuple):
    """The numbers of the channel `move`."""

    sources: tuple[SourceTuning, SourceTuning, SourceTuning, SourceTuning]
    diagonal: int
    half_life_s: float


class SteerTuning(NamedTuple):
    """The numbers of the steer frame; `turn_rate` in rad/s."""

    frame: int
    turn_rate: float


class GaitTuning(NamedTuple):
    """The numbers of the gait."""

    top_speed_m_s: float
    accel_m_s2: float
    brake_m_s2: float


class Tuning(NamedTuple):
    """Every number of one mode of a profile. Its type is the same for all profiles."""

    max_dt_s: float
    move: MoveTuning
    steer: SteerTuning
    gait: GaitTuning


class Memory(NamedTuple):
    """What is carried from tick to tick. `source` is the last source that steered, -1 for none."""

    sources: tuple[SourceState, SourceState, SourceState, SourceState]
    source: float
    local_x: float
    local_y: float
    face: float
    pos_x: float
    pos_y: float
    vel_x: float
    vel_y: float


class Outcome(NamedTuple):
    """What came out of one tick; every field a float, in the plan frame, angles in radians.

    `heading` is 0 at rest, when `amount` is 0. `source` is the last source that steered, -1 for none.
    """

    source: float
    raw_x: float
    raw_y: float
    local_x: float
    local_y: float
    move_x: float
    move_y: float
    amount: float
    heading: float
    face: float
    pos_x: float
    pos_y: float
    vel_x: float
    vel_y: float


MEMORY_AT_REST = Memory((SOURCE_AT_REST,) * SOURCES, -1.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0)  # type: ignore[arg-type]


@kernel
def tick_part(tuning: Tuning, memory: Memory, sample: Row, view: Row, dt: float) -> tuple[Memory, Outcome]:
    """Return what `tick` returns, for a `dt` that is no hitch."""
    move, steer, gait = tuning.move, tuning.steer, tuning.gait
    first, second, third, fourth = move.sources
    was_first, was_second, was_third, was_fourth = memory.sources
    first_state = shaped_source(first, was_first, sample, 0, dt)
    second_state = shaped_source(second, was_second, sample, 1, dt)
    third_state = shaped_source(third, was_third, sample, 2, dt)
    fourth_state = shaped_source(fourth, was_fourth, sample, 3, dt)
    merged = strongest(strongest(first_state, second_state), strongest(third_state, fourth_state))

    scale = diagonal_scale(merged.x, merged.y, move.diagonal)
    target_x = merged.x * scale
    target_y = merged.y * scale
    left = half_life_factor(move.half_life_s, dt)
    local_x = target_x + (memory.local_x - target_x) * left
    local_y = target_y + (memory.local_y - target_y) * left
    amount = math.hypot(local_x, local_y)
    if merged.length == 0.0 and amount < REST_AMOUNT:
        local_x = local_y = amount = 0.0
    elif amount > 1.0 and move.diagonal != DIAGONAL_FREE:
        # Only rounding can bring it here.
        amount = 1.0

    move_x, move_y = steered(local_x, local_y, steer.frame, view[0])
    heading = 0.0
    face = memory.face
    if amount > 0.0:
        heading = math.atan2(move_x, move_y)
        face = turned_towards(face, heading, steer.turn_rate, dt)

    top_speed = gait.top_speed_m_s
    vel_x, vel_y, moved_x, moved_y = walked(
        memory.vel_x,
        memory.vel_y,
        move_x * top_speed,
        move_y * top_speed,
        gait.accel_m_s2,
        gait.brake_m_s2,
        dt,
    )
    pos_x = memory.pos_x + moved_x
    pos_y = memory.pos_y + moved_y
    source = merged.source if merged.length > 0.0 else memory.source
    states = (first_state, second_state, third_state, fourth_state)
    return (
        Memory(states, source, local_x, local_y, face, pos_x, pos_y, vel_x, vel_y),
        Outcome(
            source,
            merged.raw_x,
            merged.raw_y,
            local_x,
            local_y,
            move_x,
            move_y,
            amount,
            heading,
            face,
            pos_x,
            pos_y,
            vel_x,
            vel_y,
        ),
    )


@kernel
def tick(tuning: Tuning, memory: Memory, sample: Row, view: Row, dt: float) -> tuple[Memory, Outcome]:
    """Return the memory after `dt` seconds and what came out.

    `sample` holds SAMPLE_WIDTH raw numbers, `view` the camera's yaw and pitch (rad); both stand for the whole
    tick. A hitch (`dt` above `max_dt_s`) is cut into equal parts, MOST_PARTS at most. A `dt`
    of 0 leaves the memory as it was.

    >>> silent = SourceTuning(0, 0.0, 1.0, 0, 1.0, 0.0, 0.0)
    >>> keys = silent._replace(kind=1)
    >>> tuning = Tuning(0.1, MoveTuning((keys, silent, silent, silent), 0, 0.0), SteerTuning(0, 9.0),
    ...                 GaitTuning(3.0, 20.0, 30.0))
    >>> ahead = [0.0, 0.0, 1.0, 0.0] + [0.0] * 12
    >>> memory, outcome = tick(tuning, MEMORY_AT_REST, ahead, (0.0, 0.0), 0.1)
    >>> outcome.move_x, outcome.move_y, outcome.vel_y
    (0.0, 1.0, 2.0)
    """
    parts = 1
    if dt > tuning.max_dt_s:
        parts = min(math.ceil(dt / tuning.max_dt_s), MOST_PARTS)
        dt /= parts
    # One call in the text, so that the compiler can lay it into the loop.
    while True:
        after, outcome = tick_part(tuning, memory, sample, view, dt)
        if dt <= 0.0:
            return memory, outcome
        memory = after
        parts -= 1
        if parts <= 0:
            return memory, outcome
