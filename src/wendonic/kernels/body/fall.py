"""Weight: rising by a jump, falling, and landing."""

from typing import NamedTuple

from wendonic.kernels.body.body import Body
from wendonic.kernels.body.steps import lifted_by_step
from wendonic.kernels.row import Row
from wendonic.kernels.vector import Vec3

GROUND_UNKNOWN = 2.0
"""`grounded` until the game reports the ground: the gait uses its own course."""


class FallTuning(NamedTuple):
    """The weight of a gait; `falls` is 0 where it has none. Gravity (m/s²) while rising and while falling, the
    terminal speed, the speed (m/s) at which a jump leaves the ground (0: none), and the share of the upward speed
    that an early release leaves.
    """

    falls: int
    rising_m_s2: float
    falling_m_s2: float
    terminal_m_s: float
    jump_m_s: float
    early_release_ratio: float


NO_FALL = FallTuning(0, 1.0, 1.0, 1.0, 0.0, 1.0)


class FallState(NamedTuple):
    """Whether the body is off the ground, and whether it rises by a jump whose press is still held; 0 or 1."""

    airborne: float
    jumping: float


STANDING = FallState(0.0, 0.0)


class Rise(NamedTuple):
    """Speed upwards (m/s) at the end of a tick, and how far up it went (m)."""

    vel_z: float
    moved_z: float


def fallen(tuning: FallTuning, vel_z: float, dt: float) -> Rise:
    """Return the speed upwards (m/s) after `dt` seconds off the ground, and how far up that went (m), exactly.

    It rises against one gravity, v²/2g high, and falls under the other up to its terminal speed.

    >>> fallen(FallTuning(1, 10.0, 20.0, 5.0, 0.0, 1.0), 4.0, 0.4)
    Rise(vel_z=0.0, moved_z=0.8)
    >>> vel_z, moved = fallen(FallTuning(1, 10.0, 20.0, 5.0, 0.0, 1.0), 4.0, 1.0)
    >>> vel_z, round(moved, 9)
    (-5.0, -1.575)
    """
    moved = 0.0
    if vel_z > 0.0:
        up_s = vel_z / tuning.rising_m_s2
        if up_s >= dt:
            return Rise(vel_z - tuning.rising_m_s2 * dt, dt * (vel_z - 0.5 * tuning.rising_m_s2 * dt))
        moved = 0.5 * vel_z * up_s
        vel_z = 0.0
        dt -= up_s
    # v t - g t² / 2, up to the terminal speed.
    gains_s = max(tuning.terminal_m_s + vel_z, 0.0) / tuning.falling_m_s2
    if dt <= gains_s:
        return Rise(vel_z - tuning.falling_m_s2 * dt, moved + dt * (vel_z - 0.5 * tuning.falling_m_s2 * dt))
    moved += gains_s * (vel_z - 0.5 * tuning.falling_m_s2 * gains_s) - tuning.terminal_m_s * (dt - gains_s)
    return Rise(-tuning.terminal_m_s, moved)


def taken_off(
    tuning: FallTuning, state: FallState, vel_z: float, began: float, held: float
) -> tuple[FallState, float]:
    """Return the state and the upward speed as a tick begins: a jump that began leaves the ground, and one that is
    released while rising keeps `early_release_ratio` of its speed.

    >>> taken_off(FallTuning(1, 10.0, 20.0, 5.0, 6.0, 0.5), STANDING, 0.0, began=1.0, held=1.0)
    (FallState(airborne=1.0, jumping=1.0), 6.0)
    >>> taken_off(FallTuning(1, 10.0, 20.0, 5.0, 6.0, 0.5), FallState(1.0, 1.0), 4.0, began=0.0, held=0.0)
    (FallState(airborne=1.0, jumping=0.0), 2.0)
    """
    airborne, jumping = state
    if began > 0.0 and tuning.jump_m_s > 0.0:
        airborne = jumping = 1.0
        # The jump leaves the ground.
        vel_z = tuning.jump_m_s
    if jumping > 0.0 and held <= 0.0:
        # Released early: only a share of the upward speed is left.
        jumping = 0.0
        if vel_z > 0.0:
            vel_z *= tuning.early_release_ratio
    return FallState(airborne, jumping), vel_z


def height_settled(
    tuning: FallTuning,
    walled: int,
    course: Row,
    state: FallState,
    grounded: float,
    was: Body,
    body: Body,
    floor: float,
    stands: float,
    dt: float,
) -> tuple[FallState, Body]:
    """Return the state and the body, moved on the plan from `was`, with its height after `dt` seconds.

    In the air it rises and falls, and lands when it reaches the `floor` under it (m); a step of the `course`, if
    there is one (`walled`), only lifts a jump that still rises. On the ground it follows the floor while it `stands`
    on it, see `walked_over`, and begins to fall where it does not. If the game reports the ground (`grounded` 0 or
    1), its report counts, and does not cut the rise of a jump short.

    >>> from wendonic.kernels.body.ground import NO_COURSE
    >>> from wendonic.kernels.vector import Vec3
    >>> ledge = Body(0.0, Vec3(0.0, 0.1, 3.0), Vec3(0.0, 1.0, 0.0))
    >>> falls = NO_FALL._replace(falls=1)
    >>> height_settled(falls, 0, NO_COURSE, STANDING, GROUND_UNKNOWN, ledge, ledge, 0.0, 0.0, 0.01)[0].airborne
    1.0
    """
    x, y, z = body.position
    was_z = was.position.z
    airborne = state.airborne
    if grounded <= 0.0:
        airborne = 1.0
    elif grounded < GROUND_UNKNOWN and was.velocity.z <= 0.0:
        airborne = 0.0
    vel_z = body.velocity.z
    jumping = 0.0
    if airborne > 0.0:
        vel_z, moved = fallen(tuning, was.velocity.z if state.airborne > 0.0 else 0.0, dt)
        z = was_z + moved
        jumping = state.jumping
        if grounded >= GROUND_UNKNOWN and (z < floor or (vel_z <= 0.0 and z == floor)):
            z = floor
            rising = Vec3(body.velocity.x, body.velocity.y, vel_z)
            if walled <= 0 or vel_z <= 0.0 or not lifted_by_step(course, was.position, x, y, rising):
                airborne = jumping = vel_z = 0.0
    elif grounded >= GROUND_UNKNOWN:
        if stands <= 0.0:
            airborne = 1.0
            z = was_z
            vel_z = 0.0
        else:
            z = floor
    after = Body(body.face, Vec3(x, y, z), Vec3(body.velocity.x, body.velocity.y, vel_z))
    return FallState(airborne, jumping), after
