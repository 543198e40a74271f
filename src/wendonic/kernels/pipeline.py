"""One tick: raw numbers of the sample in, outcome out. The helm and the batch both call `tick`."""

import math
from typing import NamedTuple, TypeAlias

from wendonic.kernels.diagonal import DIAGONAL_FACTOR, DIAGONAL_FREE, diagonal_scale
from wendonic.kernels.facing import turned_towards
from wendonic.kernels.gait import walked
from wendonic.kernels.kernel import Row, called_kernel, kernel
from wendonic.kernels.merge import MERGE_LATEST, MERGE_STRONGEST, MERGE_SUM, latest, strongest, summed
from wendonic.kernels.move_rules import NO_RULES, RULES_AT_REST, MoveRules, RulesState, ruled
from wendonic.kernels.opposites import opposed
from wendonic.kernels.places import SOURCE_WIDTH, TAKEN_OFF
from wendonic.kernels.smoothing import half_life_factor
from wendonic.kernels.source import (
    SOURCE_AT_REST,
    SOURCE_KEYS,
    SourceState,
    SourceTuning,
    shaped_source,
)
from wendonic.kernels.steer_frame import FRAME_BESIDE, steered

REST_AMOUNT = 1e-3
"""Smoothing fades for ever; below this share of full speed, with nothing asked for, it is rest."""

RAMP_PART_S = 0.0005
"""Parts of a tick in which a key's ramp goes through a step that has no closed form for it, such as one-euro."""

MOST_PARTS = 1000
"""Parts that a hitch is cut into at most, so that a machine back from a night's sleep does not stall."""


class MoveTuning(NamedTuple):
    """The numbers of the channel `move`; `fine` is 1 where a tick in which keys ramp is cut into RAMP_PART_S."""

    source_count: int
    sources: tuple[SourceTuning, SourceTuning, SourceTuning, SourceTuning]
    merge: int
    diagonal: int
    half_life_s: float
    rules: MoveRules = NO_RULES
    fine: int = 0


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
    """Every number of one mode that moving takes. Its type is the same for all profiles."""

    max_dt_s: float
    move: MoveTuning
    steer: SteerTuning
    gait: GaitTuning


class Outcome(NamedTuple):
    """What came out of one tick; every field a float, in the plan frame, angles in radians.

    `heading` is 0 at rest, when `amount` is 0. `source` is the source that steers, -1 for none.
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


SourceStates: TypeAlias = tuple[SourceState, SourceState, SourceState, SourceState]

Memory: TypeAlias = tuple[SourceStates, Outcome, RulesState]
"""What is carried from tick to tick: the sources' states, what came out last, and what the rarer steps carry."""

OUTCOME_AT_REST = Outcome(-1.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0)
MEMORY_AT_REST: Memory = (
    (
        SOURCE_AT_REST,
        SOURCE_AT_REST._replace(source=1.0),
        SOURCE_AT_REST._replace(source=2.0),
        SOURCE_AT_REST._replace(source=3.0),
    ),
    OUTCOME_AT_REST,
    RULES_AT_REST,
)


@called_kernel
def merged_source(
    first: SourceState, second: SourceState, first_was: float, second_was: float, steering: float, rule: int
) -> SourceState:
    """Return what two sources give together under a merge rule; see `merge`.

    >>> keys = SOURCE_AT_REST._replace(length=1.0, x=1.0)
    >>> stick = SOURCE_AT_REST._replace(source=1.0, length=0.5, x=-0.5)
    >>> [merged_source(keys, stick, 1.0, 0.0, 0.0, rule).x for rule in (MERGE_STRONGEST, MERGE_SUM, MERGE_LATEST)]
    [1.0, 0.5, -0.5]
    """
    if rule == MERGE_SUM:
        return summed(first, second)
    if rule == MERGE_LATEST:
        return latest(first, second, first_was, second_was, steering)
    return strongest(first, second)


@kernel
def merged_sources(was: SourceStates, now: SourceStates, count: int, steering: float, rule: int) -> SourceState:
    """Return what up to four sources give together under a merge rule other than the strongest."""
    first, second, third, fourth = now
    merged = merged_source(first, second, was[0].length, was[1].length, steering, rule)
    merged_was = was[0].length if merged.source == first.source else was[1].length
    if count > 2:
        merged = merged_source(merged, third, merged_was, was[2].length, steering, rule)
        merged_was = was[2].length if merged.source == third.source else merged_was
    if count > 3:
        merged = merged_source(merged, fourth, merged_was, was[3].length, steering, rule)
    return merged


@kernel
def tick_part(tuning: Tuning, memory: Memory, sample: Row, view: Row, dt: float) -> Memory:
    """Return the memory after `dt` seconds, for a `dt` that is no hitch."""
    _, move, steer, gait = tuning
    states, was, rules_state = memory
    source, _, _, local_x, local_y, _, _, _, _, face, pos_x, pos_y, vel_x, vel_y = was

    count, sources, merge, diagonal, half_life_s, rules, _ = move
    first, second, third, fourth = states
    first = merged = shaped_source(sources[0], first, sample, dt)
    if count > 1:
        second = shaped_source(sources[1], second, sample, dt)
        merged = strongest(merged, second)
        if count > 2:
            third = shaped_source(sources[2], third, sample, dt)
            merged = strongest(merged, third)
            if count > 3:
                fourth = shaped_source(sources[3], fourth, sample, dt)
                merged = strongest(merged, fourth)
    if merge != MERGE_STRONGEST and count > 1:
        merged = merged_sources(states, (first, second, third, fourth), count, source, merge)
    steering, length, x, y, raw_x, raw_y, _, _ = merged
    source = steering if length > 0.0 else -1.0

    if rules.any > 0:
        rules_state, x, y, local_x, local_y = ruled(
            rules, rules_state, x, y, local_x, local_y, diagonal, half_life_s, sample[TAKEN_OFF], dt
        )
    else:
        scale = diagonal_scale(length, diagonal)
        left = half_life_factor(half_life_s, dt)
        x *= scale
        y *= scale
        local_x = x + (local_x - x) * left
        local_y = y + (local_y - y) * left
    amount = math.hypot(local_x, local_y)
    if x == 0.0 and y == 0.0 and amount < REST_AMOUNT:
        local_x = local_y = amount = 0.0
    elif amount > 1.0 and diagonal not in (DIAGONAL_FREE, DIAGONAL_FACTOR):
        # Only rounding can bring it here.
        amount = 1.0

    if steer.frame == FRAME_BESIDE:
        # `steering` goes on from here.
        return (
            (first, second, third, fourth),
            Outcome(source, raw_x, raw_y, local_x, local_y, 0.0, 0.0, amount, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0),
            rules_state,
        )
    move_x, move_y = steered(local_x, local_y, steer.frame, view[0])
    heading = 0.0
    if amount > 0.0:
        heading = math.atan2(move_x, move_y)
        face = turned_towards(face, heading, steer.turn_rate, dt)

    top_speed, accel, brake = gait
    vel_x, vel_y, moved_x, moved_y = walked(vel_x, vel_y, move_x * top_speed, move_y * top_speed, accel, brake, dt)
    pos_x += moved_x
    pos_y += moved_y
    return (
        (first, second, third, fourth),
        Outcome(
            source, raw_x, raw_y, local_x, local_y, move_x, move_y, amount, heading, face, pos_x, pos_y, vel_x, vel_y
        ),
        rules_state,
    )


@called_kernel
def is_ramping(move: MoveTuning, states: SourceStates, sample: Row) -> bool:
    """Return whether keys are on their way to where they are held.

    >>> from wendonic.kernels.source import SILENT_SOURCE
    >>> keys = SOURCE_AT_REST._replace(end_x=0.5)
    >>> move = MoveTuning(1, (SILENT_SOURCE._replace(kind=SOURCE_KEYS),) * 4, 0, 0, 0.0)
    >>> is_ramping(move, (keys, keys, keys, keys), [1.0, 0.0, 0.0, 0.0])
    True
    """
    for k in range(move.source_count):
        source = move.sources[k]
        if source.kind == SOURCE_KEYS:
            start = k * SOURCE_WIDTH
            state = states[k]
            if opposed(sample[start], sample[start + 1], source.opposites) != state.end_x:
                return True
            if opposed(sample[start + 2], sample[start + 3], source.opposites) != state.end_y:
                return True
    return False


@kernel
def tick(tuning: Tuning, memory: Memory, sample: Row, view: Row, dt: float) -> tuple[Memory, Outcome]:
    """Return the memory after `dt` seconds and what came out.

    `sample` begins with MOVE_WIDTH raw numbers, `view` is the camera's yaw and pitch (rad); both stand for the whole
    tick. A hitch (`dt` above `max_dt_s`) is cut into equal parts, MOST_PARTS at most, and so is a tick of a `fine`
    tuning in which keys ramp. A `dt` of 0 leaves the memory as it was.

    >>> from wendonic.kernels.source import SILENT_SOURCE as silent
    >>> keys = silent._replace(kind=1)
    >>> tuning = Tuning(0.1, MoveTuning(1, (keys, silent, silent, silent), 0, 0, 0.0), SteerTuning(0, 9.0),
    ...                 GaitTuning(3.0, 20.0, 30.0))
    >>> ahead = [0.0, 0.0, 1.0, 0.0] + [0.0] * 13
    >>> memory, outcome = tick(tuning, MEMORY_AT_REST, ahead, (0.0, 0.0), 0.1)
    >>> outcome.move_x, outcome.move_y, outcome.vel_y
    (0.0, 1.0, 2.0)
    """
    most_s = tuning.max_dt_s
    if tuning.move.fine > 0 and is_ramping(tuning.move, memory[0], sample):
        most_s = min(most_s, RAMP_PART_S)
    if dt > most_s:
        parts = min(math.ceil(dt / most_s), MOST_PARTS)
        dt /= parts
        for _ in range(parts - 1):
            memory = tick_part(tuning, memory, sample, view, dt)
    after = tick_part(tuning, memory, sample, view, dt)
    if dt <= 0.0:
        return memory, after[1]
    return after, after[1]
