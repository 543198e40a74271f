"""Steps 7 to 10 of shaping where a profile asks for more than a capped length and a half-life."""

import math
from typing import NamedTuple

from wendonic.kernels.diagonal import DIAGONAL_FACTOR, diagonal_scale, factor_scale
from wendonic.kernels.kernel import called_kernel
from wendonic.kernels.notches import notched
from wendonic.kernels.one_euro import (
    NO_ONE_EURO,
    ONE_EURO_AT_REST,
    OneEuroState,
    OneEuroTuning,
    one_euro,
)
from wendonic.kernels.paces import NO_PACES, PaceTuning, pace_amount, paced
from wendonic.kernels.smoothing import half_life_factor


class MoveRules(NamedTuple):
    """What few profiles ask of `move`; `any` is 1 for those that do. No `notches` are 0."""

    any: int
    diagonal_factor: float
    paces: PaceTuning
    notches: int
    notch_pull: float
    one_euro: OneEuroTuning


class RulesState(NamedTuple):
    """What these steps carry from tick to tick."""

    pace: float
    filter: OneEuroState


NO_RULES = MoveRules(0, 1.0, NO_PACES, 0, 0.0, NO_ONE_EURO)
RULES_AT_REST = RulesState(0.0, ONE_EURO_AT_REST)


@called_kernel
def ruled(
    rules: MoveRules,
    state: RulesState,
    x: float,
    y: float,
    local_x: float,
    local_y: float,
    diagonal: int,
    half_life_s: float,
    taken_off: float,
    dt: float,
) -> tuple[RulesState, float, float, float, float]:
    """Return the new state, what is asked for after steps 7 to 9, and (local_x, local_y) after following it.

    Diagonal rule, paces, what held presses take off (a share, 0..1), notches, then the filter or the half-life.

    >>> rules = NO_RULES._replace(any=1, notches=4, notch_pull=1.0)
    >>> ruled(rules, RULES_AT_REST, 0.6, 0.8, 0.0, 0.0, 0, 0.0, 0.5, 0.1)[3:]
    (0.0, 0.5)
    """
    _, diagonal_factor, paces, notches, notch_pull, filter_tuning = rules
    pace, filter_state = state
    length = math.hypot(x, y)
    scale = factor_scale(x, y, diagonal_factor) if diagonal == DIAGONAL_FACTOR else diagonal_scale(length, diagonal)
    if paces.paces > 0:
        pace = float(paced(paces, length * scale, int(pace)))
        if length > 0.0:
            scale = pace_amount(paces, int(pace)) / length
    scale *= 1.0 - taken_off
    x *= scale
    y *= scale
    if notches > 0:
        x, y = notched(x, y, notches, notch_pull)
    if filter_tuning.min_cutoff_hz > 0.0:
        filter_state, local_x, local_y = one_euro(filter_tuning, filter_state, x, y, local_x, local_y, dt)
    else:
        left = half_life_factor(half_life_s, dt)
        local_x = x + (local_x - x) * left
        local_y = y + (local_y - y) * left
    return RulesState(pace, filter_state), x, y, local_x, local_y
