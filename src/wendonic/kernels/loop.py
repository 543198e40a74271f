"""Many ticks in a row: the loop that a batch interprets or compiles."""

from collections.abc import MutableSequence, Sequence
from typing import TypeAlias

from wendonic.kernels.axis_channel import AxisStates, AxisTuning, axis_amount
from wendonic.kernels.formed_source import FormState, FormTuning, formed_source
from wendonic.kernels.kernel import Row, kernel
from wendonic.kernels.look import LookStates, LookTuning, looked
from wendonic.kernels.pipeline import Memory, Tuning, tick
from wendonic.kernels.places import GAIT, RAW, SWING_START, TAKEN_OFF
from wendonic.kernels.press import PressState, PressTuning, pressed
from wendonic.kernels.sector import sectored
from wendonic.kernels.steered import ON_GROUND, steered_outcome, wished
from wendonic.kernels.steering import SteeringState, steering
from wendonic.kernels.steering_tuning import SteeringTuning
from wendonic.kernels.swing import SwingState, SwingTuning, swung

Gaits: TypeAlias = tuple[SteeringTuning, SteeringTuning, SteeringTuning, SteeringTuning]
"""The numbers of steering with each of a mode's gaits, its own first."""


@kernel
def sample_of(row: Row) -> Row:
    """Return a row's first MOVE_WIDTH numbers as a tuple, which the compiler keeps in registers."""
    first = row[0], row[1], row[2], row[3], row[4], row[5], row[6], row[7]
    second = row[8], row[9], row[10], row[11], row[12], row[13], row[14], row[15]
    return (*first, *second, row[TAKEN_OFF])


@kernel
def run_form(
    tuning: FormTuning, tables: Row, state: FormState, start: int, dts: Row, samples: Sequence[MutableSequence[float]]
) -> FormState:
    """Shape one source in all `samples`, where its numbers begin at `start`; return its state after the last one."""
    for k in range(len(dts)):
        row = samples[k]
        state = formed_source(tuning, tables, state, row[start + RAW], row[start + RAW + 1])
        for field in range(len(state)):
            row[start + field] = state[field]
    return state


@kernel
def run_swing(
    tuning: SwingTuning,
    tables: Row,
    state: SwingState,
    start: int,
    dts: Row,
    samples: Sequence[MutableSequence[float]],
) -> SwingState:
    """Shape the swing of the hands in all `samples`, into the source whose numbers begin at `start`."""
    for k in range(len(dts)):
        row = samples[k]
        state = swung(tuning, tables, state, row, SWING_START, dts[k])
        row[start + 1] = state.amount
        row[start + RAW + 1] = state.raw
    return state


@kernel
def run_steering(
    tunings: Gaits,
    course: Row,
    state: SteeringState,
    jump: PressTuning,
    jump_state: PressState,
    samples: Sequence[Row],
    wishes: Sequence[Row],
    jumps: Sequence[Row],
    dts: Row,
    outcomes: Sequence[MutableSequence[float]],
) -> tuple[SteeringState, PressState]:
    """Fill `outcomes` with the fields of `Steered`, then held, began and ended of the press that jumps, one row a
    tick, and return both states after the last one.

    `tunings` has one for each gait; a sample says which counts. `wishes` holds local right and ahead; rise, throttle
    and turn; where they began in the tick; and yaw and pitch (rad) of the view; `jumps` down, edges and lost of the
    press that jumps, which waits for the ground, and so has its place in here.
    """
    for k in range(len(dts)):
        right, ahead, rise, throttle, turn, rise_from, throttle_from, turn_from, yaw, pitch = wishes[k]
        begin = (rise_from, throttle_from, turn_from)
        tuning = tunings[int(samples[k][GAIT])]
        down, edges, lost = jumps[k]
        jump_state = pressed(jump, jump_state, down, edges, lost, 1.0 - state.fall.airborne, dts[k])
        jumps_now = (jump_state.began, jump_state.held)
        wish = wished(
            tuning, samples[k], right, ahead, (rise, throttle, turn), begin, yaw, pitch, ON_GROUND, jumps_now
        )
        state = steering(tuning, course, state, wish, dts[k])
        told = steered_outcome(state)
        row = outcomes[k]
        for field in range(len(told)):
            row[field] = told[field]
        row[len(told)] = jump_state.held
        row[len(told) + 1] = jump_state.began
        row[len(told) + 2] = jump_state.ended
    return state, jump_state


@kernel
def run_ticks(
    tuning: Tuning,
    memory: Memory,
    samples: Sequence[Row],
    views: Sequence[Row],
    dts: Row,
    outcomes: Sequence[MutableSequence[float]],
) -> Memory:
    """Fill `outcomes`, one row a tick, and return the memory after the last one.

    `samples`, `views` and `dts` have one row a tick too; see `tick` for what they hold. Rows are lists when
    interpreted and rows of arrays when compiled.
    """
    for k in range(len(dts)):
        view = views[k]
        memory, outcome = tick(tuning, memory, sample_of(samples[k]), (view[0], view[1]), dts[k])
        row = outcomes[k]
        for field in range(len(outcome)):
            row[field] = outcome[field]
    return memory


@kernel
def run_look(
    tuning: LookTuning,
    tables: Row,
    states: LookStates,
    view_yaw: float,
    view_pitch: float,
    samples: Sequence[Row],
    given: Sequence[Row],
    dts: Row,
    outcomes: Sequence[MutableSequence[float]],
) -> tuple[LookStates, float, float]:
    """Fill `outcomes` with the fields of `LookOutcome`, one row a tick; return states and view (rad) after the last.

    `given` holds 1 if the game said where its camera looks before the tick's look, else 0; yaw and pitch (rad).
    """
    for k in range(len(dts)):
        view = given[k]
        if view[0] > 0.0:
            view_yaw = view[1]
            view_pitch = view[2]
        states, outcome = looked(tuning, tables, states, view_yaw, view_pitch, samples[k], dts[k])
        view_yaw = outcome.view_yaw
        view_pitch = outcome.view_pitch
        row = outcomes[k]
        for field in range(len(outcome)):
            row[field] = outcome[field]
    return states, view_yaw, view_pitch


@kernel
def run_axis(
    tuning: AxisTuning,
    states: AxisStates,
    samples: Sequence[Row],
    dts: Row,
    outcomes: Sequence[MutableSequence[float]],
) -> AxisStates:
    """Fill `outcomes` with source, value and begin of one channel, one row a tick; return the states after them."""
    for k in range(len(dts)):
        states, source, value, begin = axis_amount(tuning, states, samples[k], dts[k])
        row = outcomes[k]
        row[0] = source
        row[1] = value
        row[2] = begin
    return states


@kernel
def run_press(
    tuning: PressTuning,
    state: PressState,
    raw: Sequence[Row],
    grounds: Row,
    dts: Row,
    flags: Sequence[MutableSequence[float]],
) -> PressState:
    """Fill `flags` with held, began and ended of one press, one row a tick, and return its state after the last one.

    `raw` holds down, edges and lost of every tick; see `pressed`.
    """
    for k in range(len(dts)):
        down, edges, lost = raw[k]
        state = pressed(tuning, state, down, edges, lost, grounds[k], dts[k])
        row = flags[k]
        row[0] = state.held
        row[1] = state.began
        row[2] = state.ended
    return state


@kernel
def run_sectors(sectors: int, margin: float, sector: float, faces: Row, filled: MutableSequence[float]) -> float:
    """Fill `filled` with the facing of every tick, see `sectored`; return the last one."""
    for k in range(len(faces)):
        sector = sectored(faces[k], sector, sectors, margin)
        filled[k] = sector
    return sector


LOOPS = (run_form, run_swing, run_ticks, run_steering, run_look, run_axis, run_press, run_sectors)
"""What can be compiled."""
