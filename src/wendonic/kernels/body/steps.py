"""The ground along the path of a tick: steps that are too high, and edges where it drops."""

import math
from typing import NamedTuple

from wendonic.kernels.body.ground import HEADER_NUMBERS, PIECE_NUMBERS, WALL_NUMBERS, ground_at, height_at
from wendonic.kernels.row import Row
from wendonic.kernels.vector import Vec3

SAMPLE_M = 0.04
"""Distance between the places along a path at which ground is looked up. Narrower pieces may be missed."""

MOST_SAMPLES = 4096

STEP_DOWN_M = 0.05
"""A drop no deeper than this is walked down, whatever the highest step is, and so is the fall of a walkable slope."""

SEAM_M = 0.001
"""A smaller rise is not an edge."""

EDGE_HALVINGS = 7
"""Bisections between two samples to find an edge, to a third of a millimetre."""

BEND = 1.25
"""Between two samples, ground without an edge may rise by this factor times what the steeper of their slopes gives.
"""


class StepTuning(NamedTuple):
    """The highest step that is walked up or down (m), how far (m) above the feet of an airborne body a step may be
    that it still takes, and the tangents of the steepest slopes that are walked up and down. `leaves` is 1 if the
    body may leave the ground, because it has weight or flies; then the top of a wall is ground as well.
    """

    leaves: int
    step_m: float
    lip_m: float
    steepest_up: float
    steepest_down: float


class Walked(NamedTuple):
    """Where a body gets to on the plan, the height under it and of its feet (m), and 1 if it stands there."""

    x: float
    y: float
    floor: float
    feet_z: float
    stands: float


def floor_at(course: Row, leaves: int, x: float, y: float, feet_z: float) -> float:
    """Return the height (m) on which a body with its feet at a given height would stand: the ground, or a wall below
    it.

    >>> low_wall = [0.0, 1.0, 8.0, 0.0, 0.0, 2.0, 1.0, 0.5, 0.0]
    >>> floor_at(low_wall, 1, 1.0, 0.5, 0.6), floor_at(low_wall, 1, 1.0, 0.5, 0.1)
    (0.5, 0.0)
    """
    floor = height_at(course, x, y)
    if leaves <= 0:
        return floor
    first = HEADER_NUMBERS + PIECE_NUMBERS * int(course[0])
    for wall in range(int(course[1])):
        k = first + WALL_NUMBERS * wall
        if course[k] < x < course[k + 2] and course[k + 1] < y < course[k + 3] and course[k + 4] <= feet_z:
            floor = max(floor, course[k + 4])
    return floor


def rise_along(normal: Vec3, x: float, y: float) -> float:
    """Return how much ground with this normal rises (m) along (x, y) on the plan; the normal points up.

    >>> rise_along(Vec3(0.0, -0.6, 0.8), 9.0, 0.8)
    0.6
    """
    return -(normal.x * x + normal.y * y) / normal.z


def lifted_by_step(course: Row, was: Vec3, x: float, y: float, velocity: Vec3) -> bool:
    """Return whether a rising body met a step on its way from `was` to (x, y): it was not in the ground before, and
    rises faster than the ground that is now under it. Uphill, the ground may rise faster.

    >>> from wendonic.kernels.body.ground import PIECE_PLANE
    >>> kerb = (1.0, 0.0, 11.0, PIECE_PLANE, -9.0, 1.0, 9.0, 9.0, 0.2, 0.0, 0.0, 0.0)
    >>> lifted_by_step(kerb, Vec3(0.0, 0.9, 0.0), 0.0, 1.1, Vec3(0.0, 4.0, 3.0))
    True
    >>> ramp = (1.0, 0.0, 11.0, PIECE_PLANE, -9.0, 1.0, 9.0, 9.0, 0.0, 0.0, 1.0, 0.0)
    >>> lifted_by_step(ramp, Vec3(0.0, 2.0, 1.0), 0.0, 2.1, Vec3(0.0, 4.0, 3.0))
    False
    """
    if height_at(course, was.x, was.y) > was.z + SEAM_M:
        return False
    return velocity.z > rise_along(ground_at(course, x, y).normal, velocity.x, velocity.y)


def without_edge(course: Row, x: float, y: float, to_x: float, to_y: float, rise: float) -> bool:
    """Return whether the slopes at both ends account for a rise (m) from one place to another one close by.

    >>> from wendonic.kernels.body.ground import PIECE_PLANE
    >>> ramp = (1.0, 0.0, 11.0, PIECE_PLANE, -9.0, 1.0, 9.0, 9.0, 0.0, 0.0, 0.5, 0.0)
    >>> without_edge(ramp, 0.0, 0.98, 0.0, 1.02, 0.01), without_edge(ramp, 9.02, 8.0, 8.98, 8.0, 3.5)
    (True, False)
    """
    here = math.fabs(rise_along(ground_at(course, x, y).normal, to_x - x, to_y - y))
    there = math.fabs(rise_along(ground_at(course, to_x, to_y).normal, to_x - x, to_y - y))
    return math.fabs(rise) <= BEND * max(here, there) + SEAM_M


def up_to_edge(
    course: Row, leaves: int, feet_z: float, most: float, x: float, y: float, floor: float, to_x: float, to_y: float
) -> Vec3:
    """Return the last place (m) on the path from (x, y), with the `floor` (m) there, to another place, at which the
    floor is no higher than `most` (m) and at most STEP_DOWN_M lower, with the floor there as z; for a body with its
    feet at `feet_z` (m). Bisection finds it to the distance divided by 2^EDGE_HALVINGS.

    >>> from wendonic.kernels.body.ground import PIECE_PLANE
    >>> bank = (1.0, 0.0, 11.0, PIECE_PLANE, -9.0, 1.0, 9.0, 9.0, 2.0, 0.0, 0.0, 0.0)
    >>> place = up_to_edge(bank, 0, 0.0, 0.1, 0.0, 0.98, 0.0, 0.0, 1.02)
    >>> 0.999 < place.y <= 1.0, place.z
    (True, 0.0)
    """
    free, blocked = 0.0, 1.0
    found = Vec3(x, y, floor)
    for _ in range(EDGE_HALVINGS):
        middle = 0.5 * (free + blocked)
        at_x = x + (to_x - x) * middle
        at_y = y + (to_y - y) * middle
        there = floor_at(course, leaves, at_x, at_y, feet_z)
        if there > most or there < floor - STEP_DOWN_M:
            blocked = middle
        else:
            free = middle
            found = Vec3(at_x, at_y, there)
    return found


def walked_over(
    course: Row, steps: StepTuning, stands: float, x: float, y: float, z: float, to_x: float, to_y: float
) -> Walked:
    """Return how far a body gets that goes straight from (x, y) to another place with its feet at z, before a step
    that is too high for it, and whether it stands there.

    Ground that rises or falls no more than its slopes say has no edge. It can be walked up if its tangent is at most
    `steepest_up`; the top of an edge may be no higher than `step_m` above the floor before it, or than `lip_m` above
    the feet. Over an edge that drops by more than `step_m` and STEP_DOWN_M a body with weight leaves the ground, and
    its feet stay at their height. A body that does not stand (`stands` 0) is in the air from the beginning.

    >>> from wendonic.kernels.body.ground import PIECE_PLANE
    >>> kerb = (1.0, 0.0, 11.0, PIECE_PLANE, -9.0, 1.0, 9.0, 1.05, 2.0, 0.0, 0.0, 0.0)
    >>> walked_over(kerb, StepTuning(0, 0.35, 0.35, 1.0, 1.0), 1.0, 0.0, 0.0, 0.0, 0.0, 5.0).y < 1.0
    True
    >>> walked_over(kerb, StepTuning(1, 0.35, 0.35, 1.0, 1.0), 1.0, 0.0, 1.02, 2.0, 0.0, 5.0)
    Walked(x=0.0, y=5.0, floor=0.0, feet_z=2.0, stands=0.0)
    """
    far = math.hypot(to_x - x, to_y - y)
    samples = min(math.ceil(far / SAMPLE_M), MOST_SAMPLES)
    # A standing body has the floor at its feet; the floor is looked up only if that makes a difference.
    floor = feet_z = z
    if samples == 0:
        floor = floor_at(course, steps.leaves, x, y, z)
        if steps.leaves > 0 and z - floor > STEP_DOWN_M:
            stands = 0.0
    reached_x, reached_y = x, y
    for k in range(samples):
        share = (k + 1.0) / samples
        at_x = x + (to_x - x) * share
        at_y = y + (to_y - y) * share
        ahead = floor_at(course, steps.leaves, at_x, at_y, feet_z)
        highest = floor + steps.steepest_up * far / samples + SEAM_M
        if ahead > min(highest, feet_z + steps.lip_m) or (
            steps.leaves > 0 and stands > 0.0 and ahead < floor - STEP_DOWN_M
        ):
            if k == 0:
                highest -= floor
                floor = floor_at(course, steps.leaves, x, y, z)
                highest += floor
                feet_z = max(z, floor)
                if steps.leaves > 0 and z - floor > STEP_DOWN_M:
                    stands = 0.0
            even = without_edge(course, reached_x, reached_y, at_x, at_y, ahead - floor)
            most = feet_z + SEAM_M if even else max(feet_z + steps.lip_m, floor + steps.step_m)
            if not (even and ahead <= highest) and ahead > most:
                # Otherwise a body would stop in front of an edge, and go on in the next tick.
                most -= SEAM_M
                edge = up_to_edge(course, steps.leaves, feet_z, most, reached_x, reached_y, floor, at_x, at_y)
                reached_x, reached_y, floor = edge
                feet_z = max(feet_z, floor)
                break
            drop = floor - ahead
            down_m = steps.steepest_down * far / samples + STEP_DOWN_M if even else max(steps.step_m, STEP_DOWN_M)
            if steps.leaves > 0 and drop > down_m:
                stands = 0.0
        reached_x, reached_y, floor = at_x, at_y, ahead
        feet_z = ahead if stands > 0.0 else max(feet_z, ahead)
    return Walked(reached_x, reached_y, floor, feet_z, stands)
