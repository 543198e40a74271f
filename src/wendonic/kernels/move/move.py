"""The channel `move`: sources, merge, diagonal rule, paces, notches and smoothing, in the order of shaping."""

import math
from typing import NamedTuple

from wendonic.kernels.half_life import share_left
from wendonic.kernels.move.diagonal import DIAGONAL_CAP, DIAGONAL_FREE, DIAGONAL_UNIT, scale_under
from wendonic.kernels.move.joined_keys import both_keys, earlier_together
from wendonic.kernels.move.merge import MERGE_STRONGEST, MERGE_SUM, merged
from wendonic.kernels.move.notches import notch_of, notched
from wendonic.kernels.move.one_euro import NO_ONE_EURO, ONE_EURO_AT_REST, OneEuroState, OneEuroTuning, one_euro
from wendonic.kernels.move.paces import COARSE_LENGTH, PaceTuning, pace_amount, pace_of
from wendonic.kernels.press.press import PressState
from wendonic.kernels.row import Row
from wendonic.kernels.source.dead_zone import wedged
from wendonic.kernels.source.keys import is_ramping
from wendonic.kernels.source.source import (
    NO_OUTPUT,
    SOURCE_KEYS,
    SOURCE_SWING,
    SourceOutput,
    SourceState,
    SourceTuning,
    source_output,
    within_circle,
)
from wendonic.kernels.vector import ZERO2, Vec2

REST_AMOUNT = 1e-3
"""A smoothed value decays for ever; below this share of full speed, without a request, it counts as rest."""

RAMP_PART_S = 0.0005
"""Longest part (s) of a tick while a key's ramp passes through a step without a closed form, such as one-euro."""

SETTLED = 1e-5
"""A request that changes by less within a tick counts as constant: a hundredth of a millimetre at 3 m/s."""

LEAST_LIVES = 1e-6
"""Over fewer half-lives than this, a decay is linear up to rounding."""

SMOOTHING_NONE = 0
SMOOTHING_HALF_LIFE = 1
SMOOTHING_ONE_EURO = 2


class PressAmount(NamedTuple):
    """While the press of that number is held, `move` is multiplied by `amount`."""

    press: int
    amount: float


class MoveTuning(NamedTuple):
    """The numbers of the channel. `cuts_ramps` is 1 if a tick in which keys ramp is cut into parts of RAMP_PART_S;
    `notches` is 0 for none; `notch_margin` (rad) applies if the pull is 1. If `across` is 1, in a game seen from the
    side, the shaped request of a source forward or back is dropped. `joined` is 1 if several sources are keys,
    `between` is the rule for their opposites. `diagonals` has the rule of each source, and is empty if all have the
    same.
    """

    sources: tuple[SourceTuning, ...]
    merge: int
    diagonal: int
    diagonal_factor: float
    paces: tuple[PaceTuning, ...]
    pace_margin: float
    press_amounts: tuple[PressAmount, ...]
    notches: int
    notch_pull: float
    notch_margin: float
    smoothing: int
    half_life_s: float
    one_euro: OneEuroTuning
    cuts_ramps: int
    across: int
    joined: int
    between: int
    diagonals: tuple[int, ...]


class MoveState(NamedTuple):
    """What the channel carries from tick to tick: its sources, the last one that steered, the pace, the notch, the
    filter, and the output, right and forward.
    """

    sources: tuple[SourceState, ...]
    last_source: float
    pace: float
    notch: float
    filter: OneEuroState
    right: float
    forward: float


class MoveOutput(NamedTuple):
    """The output: the number of the source that steers (-1 for none), raw and shaped, its length, the factor of
    presses, and how it changed within the tick, see `Request`.
    """

    source: float
    raw_x: float
    raw_y: float
    right: float
    forward: float
    amount: float
    scale: float
    begin: Vec2
    corner: Vec2
    corner_s: float


class Paced(NamedTuple):
    """A pace, the length of (x, y), and the direction (x, y) of the request that it scales."""

    pace: float
    length: float
    x: float
    y: float


class Smoothed(NamedTuple):
    """The filter and its output: right, forward and length."""

    filter: OneEuroState
    right: float
    forward: float
    amount: float


class RunWithin(NamedTuple):
    """How a request changed within a tick: linearly from `begin` to `corner` in `corner_s`, and on to its end."""

    begin: Vec2
    corner: Vec2
    corner_s: float


NO_MOVE = MoveTuning(
    (), MERGE_STRONGEST, DIAGONAL_CAP, 1.0, (), 0.0, (), 0, 0.0, 0.0, SMOOTHING_NONE, 0.0, NO_ONE_EURO, 0, 0, 0, 0, ()
)
NO_MOVE_OUTPUT = MoveOutput(-1.0, 0.0, 0.0, 0.0, 0.0, 0.0, 1.0, ZERO2, ZERO2, 0.0)
MOVE_AT_REST = MoveState((), -1.0, 0.0, -1.0, ONE_EURO_AT_REST, 0.0, 0.0)


def move_output(
    tuning: MoveTuning,
    tables: Row,
    state: MoveState,
    raw: tuple[Row, ...],
    presses: tuple[PressState, ...],
    dt: float,
) -> tuple[MoveState, MoveOutput]:
    """Return the channel's new state and the output after `dt` seconds.

    If a step has no closed form for a key's ramp (`cuts_ramps`), a tick with a ramp has to come in parts of at most
    RAMP_PART_S.

    >>> from wendonic.kernels.source.source import PLAIN_SOURCE, SOURCE_AT_REST
    >>> stick = NO_MOVE._replace(sources=(PLAIN_SOURCE,), notches=4, notch_pull=1.0)
    >>> at_rest = MOVE_AT_REST._replace(sources=(SOURCE_AT_REST,))
    >>> move_output(stick, (), at_rest, ((0.6, 0.8),), (), 0.1)[1][:6]
    (0.0, 0.6, 0.8, 0.0, 1.0, 1.0)
    """
    sources, output = all_sources(tuning, tables, state, raw, dt)
    source, length, x, y, raw_x, raw_y, ran_x, ran_y, run_s, _ = output
    last_source = source if length > 0.0 else -1.0

    scale = diagonal_scale(tuning, source, length, x, y)
    pace = state.pace
    if len(tuning.paces) > 0:
        pace, length, x, y = paced(tuning, pace, scale, x, y)
        scale = pace_amount(tuning.paces, pace)
    kept = 1.0
    if len(tuning.press_amounts) > 0:
        kept = press_scale(tuning, presses)
        scale *= kept
    if scale != 1.0:
        x *= scale
        y *= scale
    notch = state.notch
    if tuning.notches > 0:
        notch = notch_of(x, y, tuning.notches, tuning.notch_margin, notch)
        x, y = notched(x, y, tuning.notches, tuning.notch_pull, notch)
    filtered, right, forward, amount = smoothed(tuning, state, x, y, length * scale, dt)

    if len(tuning.paces) > 0:
        # It jumps from pace to pace.
        ran_x, ran_y, run_s = x, y, 0.0
    elif run_s > 0.0:
        ran_scale = kept * diagonal_scale(tuning, source, math.hypot(ran_x, ran_y), ran_x, ran_y)
        ran_x *= ran_scale
        ran_y *= ran_scale
        if tuning.notches > 0:
            # A request that reverses or ends within the tick has its own notch before that.
            last_notch = notch if notch >= 0.0 else state.notch
            ran_notch = notch_of(ran_x, ran_y, tuning.notches, tuning.notch_margin, last_notch)
            ran_x, ran_y = notched(ran_x, ran_y, tuning.notches, tuning.notch_pull, ran_notch)
    else:
        ran_x, ran_y = x, y
    begin, corner, corner_s = run_within(tuning, state, Vec2(right, forward), Vec2(ran_x, ran_y), run_s, dt)
    after = MoveState(sources, last_source, pace, notch, filtered, right, forward)
    return after, MoveOutput(last_source, raw_x, raw_y, right, forward, amount, kept, begin, corner, corner_s)


def all_sources(
    tuning: MoveTuning, tables: Row, state: MoveState, raw: tuple[Row, ...], dt: float
) -> tuple[tuple[SourceState, ...], SourceOutput]:
    """Return the sources' new states, and their request together: all keys first, then keys and the others."""
    follows_half_life = tuning.smoothing == SMOOTHING_HALF_LIFE
    felt_s = tuning.half_life_s if follows_half_life else 0.0
    output = keys = NO_OUTPUT
    output_was = 0.0
    keys_were = ZERO2
    joined = 0
    sources: tuple[SourceState, ...] = ()
    for k in range(len(tuning.sources)):
        was = state.sources[k]
        rule = tuning.diagonals[k] if len(tuning.diagonals) > 0 else tuning.diagonal
        capped = 1 if rule == DIAGONAL_CAP and tuning.merge != MERGE_SUM else 0
        after, shaped = source_output(tuning.sources[k], tables, was, raw[k], k + 0.0, felt_s, capped, dt)
        sources = (*sources, after)
        if tuning.across > 0 and tuning.sources[k].kind != SOURCE_SWING:
            shaped = across_alone(tuning.sources[k], shaped)
        if tuning.joined > 0 and tuning.sources[k].kind == SOURCE_KEYS:
            keys = shaped if joined == 0 else both_keys(keys, shaped, 1 if follows_half_life else 0)
            keys_were = earlier_together(keys_were, was.output)
            joined += 1
        elif k - joined == 0:
            output = shaped
            output_was = was.length
        else:
            output = merged(output, shaped, output_was, was.length, state.last_source, tuning.merge)
            output_was = was.length if output.source == shaped.source else output_was
    if joined == len(tuning.sources) and joined > 0:
        output = keys
    elif joined > 0:
        were = math.hypot(keys_were.x, keys_were.y)
        last = state.last_source
        for k in range(len(tuning.sources)):
            if tuning.sources[k].kind == SOURCE_KEYS and last == k:
                last = keys.source
        output = merged(keys, output, were, output_was, last, tuning.merge)
    return sources, output


def across_alone(tuning: SourceTuning, output: SourceOutput) -> SourceOutput:
    """Return the request of a source in a game seen from the side, without forward and back.

    >>> from wendonic.kernels.source.source import PLAIN_SOURCE
    >>> across_alone(PLAIN_SOURCE, NO_OUTPUT._replace(length=1.0, x=0.6, y=0.8))[1:4]
    (0.6, 0.6, 0.0)
    """
    # A tilt that is nearly upright requests nothing, since no thumb holds it exactly.
    side = output.x
    if tuning.kind != SOURCE_KEYS and side != 0.0:
        side = wedged(side, output.y, tuning.stick.dead_zone.inner).x
    ran = output.ran_x if tuning.kind == SOURCE_KEYS else side
    size = math.fabs(side)
    return output._replace(length=size, longest=size, x=side, y=0.0, ran_x=ran, ran_y=0.0)


def paced(tuning: MoveTuning, pace: float, scale: float, x: float, y: float) -> Paced:
    """Return the pace of a request with the factor `scale`, and the request's direction: the pace is its amount.

    >>> from wendonic.kernels.move.paces import PaceTuning
    >>> walks = NO_MOVE._replace(paces=(PaceTuning(0.1, 0.5), PaceTuning(0.8, 1.0)))
    >>> paced(walks, 0.0, 1.0, 0.0, 0.4)
    Paced(pace=1.0, length=1.0, x=0.0, y=1.0)
    """
    long = math.hypot(x, y)
    pace = pace_of(tuning.paces, tuning.pace_margin, long * scale, pace)
    if long <= 0.0:
        return Paced(pace, long, x, y)
    # First make a direction: for the shortest tilts, pace / length would overflow.
    x /= long
    y /= long
    if long < COARSE_LENGTH:
        again = math.hypot(x, y)
        x /= again
        y /= again
    return Paced(pace, 1.0, x, y)


def press_scale(tuning: MoveTuning, presses: tuple[PressState, ...]) -> float:
    """Return the factor of held presses for a request: the smallest of their amounts, 1 if none is held.

    >>> from wendonic.kernels.press.press import PRESS_AT_REST
    >>> creeps = NO_MOVE._replace(press_amounts=(PressAmount(0, 0.4),))
    >>> press_scale(creeps, (PRESS_AT_REST,)), press_scale(creeps, (PRESS_AT_REST._replace(held=1.0),))
    (1.0, 0.4)
    """
    kept = 1.0
    for k in range(len(tuning.press_amounts)):
        if presses[tuning.press_amounts[k].press].held > 0.0:
            kept = min(kept, tuning.press_amounts[k].amount)
    return kept


def smoothed(tuning: MoveTuning, state: MoveState, x: float, y: float, amount: float, dt: float) -> Smoothed:
    """Return the filter, the request after smoothing, and its amount, which was `amount` before.

    >>> soft = NO_MOVE._replace(smoothing=SMOOTHING_HALF_LIFE, half_life_s=0.1)
    >>> smoothed(soft, MOVE_AT_REST, 0.0, 1.0, 1.0, 0.1)[1:]
    (0.0, 0.5, 0.5)
    """
    right, forward, filtered = x, y, state.filter
    if tuning.smoothing == SMOOTHING_HALF_LIFE:
        left = share_left(tuning.half_life_s, dt)
        right = x + (state.right - x) * left
        forward = y + (state.forward - y) * left
    elif tuning.smoothing == SMOOTHING_ONE_EURO:
        filtered, right, forward = one_euro(tuning.one_euro, filtered, x, y, state.right, state.forward, dt)
    if tuning.smoothing != SMOOTHING_NONE:
        amount = math.hypot(right, forward)
        if x == 0.0 and y == 0.0 and amount < REST_AMOUNT:
            right = forward = amount = 0.0
    return Smoothed(filtered, right, forward, without_rounding(tuning, amount))


def run_within(tuning: MoveTuning, state: MoveState, end: Vec2, ran: Vec2, run_s: float, dt: float) -> RunWithin:
    """Return how a request changed within the tick up to its `end`, see `Request`; `ran` is the effect of ramps on
    the way, and `run_s` their duration.

    >>> run_within(NO_MOVE, MOVE_AT_REST, Vec2(0.0, 1.0), Vec2(0.0, 0.5), 0.01, 0.02)
    RunWithin(begin=Vec2(x=0.0, y=0.5), corner=Vec2(x=0.0, y=1.0), corner_s=0.01)
    """
    begin = corner = end
    corner_s = 0.0
    if tuning.smoothing == SMOOTHING_NONE and run_s > 0.0:
        begin, corner_s = ran, run_s
    elif tuning.smoothing != SMOOTHING_NONE and abs(end.x - state.right) + abs(end.y - state.forward) > SETTLED:
        begin = Vec2(state.right, state.forward)
        corner_s = dt
        lives = dt / tuning.half_life_s if tuning.smoothing == SMOOTHING_HALF_LIFE else 0.0
        if lives > LEAST_LIVES:
            # Two linear runs with the same mean as smoothing over the tick: y' = (x - y) ln 2 / half-life.
            corner_s = min(0.5 * dt, 2.0 * tuning.half_life_s)
            lag, share = 1.0 / (lives * math.log(2.0)), corner_s / dt
            corner = Vec2(
                2.0 * (ran.x - (end.x - begin.x) * lag) - end.x + (end.x - begin.x) * share,
                2.0 * (ran.y - (end.y - begin.y) * lag) - end.y + (end.y - begin.y) * share,
            )
            corner = no_longer(corner, begin, end, ran)
    return RunWithin(begin, corner, corner_s)


def diagonal_scale(tuning: MoveTuning, source: float, length: float, x: float, y: float) -> float:
    """Return the factor of the diagonal rule for a request of a source, see `scale_under`.

    >>> diagonal_scale(NO_MOVE._replace(merge=MERGE_SUM), 0.0, 2.0, 2.0, 0.0)
    0.5
    """
    scale = 1.0
    if len(tuning.diagonals) == 0 and not needs_no_cap(tuning):
        scale = scale_under(tuning.diagonal, tuning.diagonal_factor, length, x, y)
    for k in range(len(tuning.diagonals)):
        if source == k:
            scale = scale_under(tuning.diagonals[k], tuning.diagonal_factor, length, x, y)
    return scale


def no_longer(corner: Vec2, begin: Vec2, end: Vec2, mean: Vec2) -> Vec2:
    """Return a corner cut to the length of the longest of three requests, since no request in between is longer.

    >>> no_longer(Vec2(0.0, 2.0), Vec2(1.0, 0.0), Vec2(0.0, 0.5), Vec2(0.5, 0.25))
    Vec2(x=0.0, y=1.0)
    """
    most = max(math.hypot(begin.x, begin.y), math.hypot(end.x, end.y))
    most = max(most, math.hypot(mean.x, mean.y))
    length = math.hypot(corner.x, corner.y)
    if length <= most:
        return corner
    return Vec2(corner.x * most / length, corner.y * most / length)


def without_rounding(tuning: MoveTuning, amount: float) -> float:
    """Return an amount without the excess that rounding adds to a full one; only a rule without a cap may exceed 1.

    >>> without_rounding(NO_MOVE, 1.0000000000000002)
    1.0
    """
    if len(tuning.diagonals) == 0 and tuning.diagonal in (DIAGONAL_CAP, DIAGONAL_UNIT):
        return min(amount, 1.0)
    if len(tuning.diagonals) == 0 and tuning.diagonal == DIAGONAL_FREE:
        return amount
    return 1.0 if 1.0 < amount < 1.0 + 1e-9 else amount


def needs_no_cap(tuning: MoveTuning) -> bool:
    """Return whether a diagonal cap is not needed because no source requests more than a length of 1.

    >>> from wendonic.kernels.source.source import PLAIN_SOURCE
    >>> stick = NO_MOVE._replace(sources=(PLAIN_SOURCE,))
    >>> needs_no_cap(stick), needs_no_cap(stick._replace(sources=(PLAIN_SOURCE._replace(kind=SOURCE_KEYS),)))
    (True, False)
    """
    within = tuning.diagonal == DIAGONAL_CAP and (tuning.merge != MERGE_SUM or len(tuning.sources) == 1)
    for k in range(len(tuning.sources)):
        keys = tuning.sources[k].kind == SOURCE_KEYS
        # Several entries of keys are one keyboard, perhaps with both axes.
        one_axis = within_circle(tuning.sources[k]) and not (keys and tuning.joined > 0)
        within = within and ((tuning.across > 0 and keys) or one_axis)
    return within


def any_ramping(tuning: MoveTuning, state: MoveState, raw: tuple[Row, ...]) -> bool:
    """Return whether keys of any source are on their way to where they are held.

    >>> any_ramping(NO_MOVE, MOVE_AT_REST, ())
    False
    """
    ramping = False
    for k in range(len(tuning.sources)):
        if tuning.sources[k].kind == SOURCE_KEYS:
            ramping = ramping or is_ramping(tuning.sources[k].keys, state.sources[k].keys, raw[k])
    return ramping
