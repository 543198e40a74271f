"""Looking by a displacement: the mouse, or a finger that drags."""

import math
from typing import NamedTuple

from wendonic.kernels.half_life import share_left

HAND_HALF_LIFE_S = 0.03
"""Half-life of the low-pass for the hand's speed: long enough for a few reports of the mouse."""

OWED_LEAST = 1e-9
"""A remainder of smoothing below this (rad) is handed out at once; it would decay for ever."""

SPEED_LEAST_CM_S = 1e-3
"""Below this speed a hand counts as still."""

MOST_CM_S = 1e6
"""No hand is faster; a very short tick would make it appear so."""


class DisplacementTuning(NamedTuple):
    """The numbers of a displacement besides its two angles per count.

    `smooths` is 1 if it is handed out with a half-life. `follows_hand` is 1 if the gain depends on the hand's speed:
    linear from `slow_gain` at `slow_cm_s` to `fast_gain` at `fast_cm_s`, and constant outside.
    """

    smooths: int
    follows_hand: int
    half_life_s: float
    cm_per_count: float
    slow_cm_s: float
    slow_gain: float
    fast_cm_s: float
    fast_gain: float


class DisplacementState(NamedTuple):
    """The angle that smoothing has not handed out yet (rad), and the speed of the hand."""

    owed_yaw: float
    owed_pitch: float
    hand_cm_s: float


PLAIN_DISPLACEMENT = DisplacementTuning(0, 0, 0.0, 0.0, 0.0, 1.0, 1.0, 1.0)
DISPLACEMENT_AT_REST = DisplacementState(0.0, 0.0, 0.0)


def hand_gain(tuning: DisplacementTuning, hand_cm_s: float) -> float:
    """Return the gain at some speed of the hand.

    >>> hand_gain(PLAIN_DISPLACEMENT._replace(slow_cm_s=10.0, fast_cm_s=50.0, fast_gain=2.0), 30.0)
    1.5
    """
    share = (hand_cm_s - tuning.slow_cm_s) / (tuning.fast_cm_s - tuning.slow_cm_s)
    return tuning.slow_gain + min(max(share, 0.0), 1.0) * (tuning.fast_gain - tuning.slow_gain)


class DisplacementOutput(NamedTuple):
    """How far the view turns (rad), to the right and up."""

    yaw: float
    pitch: float


def displacement_output(
    tuning: DisplacementTuning, state: DisplacementState, yaw: float, pitch: float, counts: float, dt: float
) -> tuple[DisplacementState, DisplacementOutput]:
    """Return the new state and how far the view turns (rad) for a displacement worth `yaw` and `pitch` at gain 1.

    `counts` is the length of the displacement, from which a low-pass finds the hand's speed; its mean over the tick
    counts. Smoothing hands out the share 1 - 2 ** (-dt / half_life_s) of the remaining angle, so everything that goes
    in comes out, at the same pace at every tick rate. `dt` is not used otherwise.

    >>> smooth = PLAIN_DISPLACEMENT._replace(smooths=1, half_life_s=0.05)
    >>> state, turn = displacement_output(smooth, DISPLACEMENT_AT_REST, 1.0, 0.0, 9.0, 0.05)
    >>> turn.yaw, displacement_output(smooth, state, 0.0, 0.0, 0.0, 0.05)[1].yaw
    (0.5, 0.25)
    """
    owed_yaw, owed_pitch, hand_cm_s = state
    if tuning.follows_hand > 0:
        now_cm_s = min(counts * tuning.cm_per_count / dt, MOST_CM_S)
        left = share_left(HAND_HALF_LIFE_S, dt)
        halves = math.log(2.0) * dt / HAND_HALF_LIFE_S
        mean = now_cm_s + (hand_cm_s - now_cm_s) * ((1.0 - left) / halves if halves > 1e-9 else 1.0)
        hand_cm_s = now_cm_s + (hand_cm_s - now_cm_s) * left
        if hand_cm_s < SPEED_LEAST_CM_S:
            hand_cm_s = 0.0
        gain = hand_gain(tuning, mean)
        yaw *= gain
        pitch *= gain
    if tuning.smooths > 0:
        owed_yaw += yaw
        owed_pitch += pitch
        share = 1.0 - share_left(tuning.half_life_s, dt)
        yaw = owed_yaw if abs(owed_yaw) < OWED_LEAST else owed_yaw * share
        pitch = owed_pitch if abs(owed_pitch) < OWED_LEAST else owed_pitch * share
        owed_yaw -= yaw
        owed_pitch -= pitch
    return DisplacementState(owed_yaw, owed_pitch, hand_cm_s), DisplacementOutput(yaw, pitch)
