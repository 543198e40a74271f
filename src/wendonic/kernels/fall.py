"""Weight: rising by a jump, falling, and standing again."""

from typing import NamedTuple

from wendonic.kernels.body import Body
from wendonic.kernels.contact import floor_at
from wendonic.kernels.kernel import Row, called_kernel

STEP_DOWN_M = 0.05
"""Ground that lies no deeper than this, and what a walkable slope falls, is walked down; over more he falls."""

NOBODY_TOLD = 2.0
"""What `grounded` of a wish is while the game has said nothing of the ground: the gait's own course tells."""


class FallTuning(NamedTuple):
    """The weight of a gait; `on` is 0 where it has none. Gravity (m/s²) while rising and while falling, the fastest
    fall, the speed (m/s) at which a jump leaves the ground (0: none), and what an early release leaves of the rise.
    """

    on: int
    rising_m_s2: float
    falling_m_s2: float
    terminal_m_s: float
    jump_m_s: float
    cut_ratio: float


NO_FALL = FallTuning(0, 1.0, 1.0, 1.0, 0.0, 1.0)


class FallState(NamedTuple):
    """Whether the body is off the ground, and whether it rises by a jump whose press is still held; 0 or 1."""

    airborne: float
    jumping: float


STANDING = FallState(0.0, 0.0)


@called_kernel
def fallen(tuning: FallTuning, vel_z: float, dt: float) -> tuple[float, float]:
    """Return the speed upwards (m/s) after `dt` seconds off the ground, and how far up that went (m), exactly.

    It rises against one gravity, v²/2g high, and falls under the other until it is at its terminal speed.

    >>> fallen(FallTuning(1, 10.0, 20.0, 5.0, 0.0, 1.0), 4.0, 0.4)
    (0.0, 0.8)
    >>> vel_z, moved = fallen(FallTuning(1, 10.0, 20.0, 5.0, 0.0, 1.0), 4.0, 1.0)
    >>> vel_z, round(moved, 9)
    (-5.0, -1.575)
    """
    moved = 0.0
    if vel_z > 0.0:
        up_s = vel_z / tuning.rising_m_s2
        if up_s >= dt:
            return vel_z - tuning.rising_m_s2 * dt, dt * (vel_z - 0.5 * tuning.rising_m_s2 * dt)
        moved = 0.5 * vel_z * up_s
        vel_z = 0.0
        dt -= up_s
    gains_s = max(tuning.terminal_m_s + vel_z, 0.0) / tuning.falling_m_s2
    if dt <= gains_s:
        return vel_z - tuning.falling_m_s2 * dt, moved + dt * (vel_z - 0.5 * tuning.falling_m_s2 * dt)
    moved += gains_s * (vel_z - 0.5 * tuning.falling_m_s2 * gains_s) - tuning.terminal_m_s * (dt - gains_s)
    return -tuning.terminal_m_s, moved


@called_kernel
def taken_off(
    tuning: FallTuning, state: FallState, vel_z: float, began: float, held: float
) -> tuple[FallState, float]:
    """Return the state and the speed upwards as a tick begins: a jump that began leaves the ground, and one that is
    let go while it rises keeps `cut_ratio` of its speed.

    >>> taken_off(FallTuning(1, 10.0, 20.0, 5.0, 6.0, 0.5), STANDING, 0.0, began=1.0, held=1.0)
    (FallState(airborne=1.0, jumping=1.0), 6.0)
    >>> taken_off(FallTuning(1, 10.0, 20.0, 5.0, 6.0, 0.5), FallState(1.0, 1.0), 4.0, began=0.0, held=0.0)
    (FallState(airborne=1.0, jumping=0.0), 2.0)
    """
    if began > 0.0 and tuning.jump_m_s > 0.0:
        state = FallState(1.0, 1.0)
        vel_z = tuning.jump_m_s
    if state.jumping > 0.0 and held <= 0.0:
        state = FallState(state.airborne, 0.0)
        if vel_z > 0.0:
            vel_z *= tuning.cut_ratio
    return state, vel_z


@called_kernel
def come_down(
    tuning: FallTuning, course: Row, state: FallState, told: float, was: Body, body: Body, steepest: float, dt: float
) -> tuple[FallState, Body]:
    """Return the state and the body, moved on the plan from `was`, with its height after `dt` seconds.

    In the air it rises and falls, and stands once the floor is there. On the ground it follows a floor that falls no
    steeper than the tangent `steepest`, and a small step down; over more it begins to fall. Where the game tells of
    the ground (`told` 0 or 1), it is the game's word that counts, and the rise of a jump is not cut short by it.

    >>> ledge = Body(0.0, 0.0, 0.1, 3.0, 0.0, 1.0, 0.0)
    >>> level = (0.0, 0.0, 3.0, 0.0)
    >>> come_down(NO_FALL._replace(on=1), level, STANDING, NOBODY_TOLD, ledge, ledge, 1.0, 0.01)[0].airborne
    1.0
    """
    face, x, y, z, vel_x, vel_y, vel_z = body
    airborne = state.airborne
    if told <= 0.0:
        airborne = 1.0
    elif told < NOBODY_TOLD and was.vel_z <= 0.0:
        airborne = 0.0
    floor = floor_at(course, x, y, was.pos_z)
    if airborne > 0.0:
        vel_z, moved = fallen(tuning, was.vel_z if state.airborne > 0.0 else 0.0, dt)
        z = was.pos_z + moved
        if told >= NOBODY_TOLD and vel_z <= 0.0 and z <= floor:
            return STANDING, Body(face, x, y, floor, vel_x, vel_y, 0.0)
        return FallState(1.0, state.jumping), Body(face, x, y, z, vel_x, vel_y, vel_z)
    if told < NOBODY_TOLD:
        return STANDING, body
    step_x, step_y = x - was.pos_x, y - was.pos_y
    if was.pos_z - floor > STEP_DOWN_M + steepest * (step_x * step_x + step_y * step_y) ** 0.5:
        return FallState(1.0, 0.0), Body(face, x, y, was.pos_z, vel_x, vel_y, 0.0)
    return STANDING, Body(face, x, y, floor, vel_x, vel_y, vel_z)
