"""The ground walked over in a tick: steps up that are too high, and edges where it falls away."""

import math
from typing import NamedTuple

from wendonic.kernels.body.ground import HEADER_NUMBERS, PIECE_NUMBERS, WALL_NUMBERS, Ground, ground_at
from wendonic.kernels.row import Row
from wendonic.kernels.vector import UP, Vec3

SAMPLE_M = 0.04
"""Ground is looked at so often along the path: what is narrower nobody would call ground."""

MOST_SAMPLES = 4096

STEP_DOWN_M = 0.05
"""Ground that lies no deeper than this, and what a walkable slope falls, is walked down; over more the body falls."""

SEAM_M = 0.001
BEND = 1.25
"""Between two samples, ground without an edge may bend so far from the steeper of their slopes."""


class StepTuning(NamedTuple):
    """The highest step that is walked up (m), and the tangents of the steepest slopes that are walked up and down."""

    step_m: float
    steepest_up: float
    steepest_down: float


class Walked(NamedTuple):
    """Where a body gets to on the plan, how high its feet are there (m), and 1 where it stands on the ground."""

    x: float
    y: float
    feet_z: float
    stands: float


def floor_at(course: Row, x: float, y: float, feet_z: float) -> Ground:
    """Return what a body would stand on whose feet are at a height: the ground, or the top of a wall below it.

    >>> low_wall = [0.0, 1.0, 8.0, 0.0, 0.0, 2.0, 1.0, 0.5, 0.0]
    >>> floor_at(low_wall, 1.0, 0.5, 0.6).height, floor_at(low_wall, 1.0, 0.5, 0.1).height
    (0.5, 0.0)
    """
    floor = ground_at(course, x, y)
    first = HEADER_NUMBERS + PIECE_NUMBERS * int(course[0])
    for wall in range(int(course[1])):
        k = first + WALL_NUMBERS * wall
        inside = course[k] < x < course[k + 2] and course[k + 1] < y < course[k + 3]
        if inside and floor.height < course[k + 4] <= feet_z:
            floor = Ground(course[k + 4], UP)
    return floor


def rise_along(normal: Vec3, x: float, y: float) -> float:
    """Return how much ground of that normal rises (m) along (x, y) on the plan; the normal points up.

    >>> rise_along(Vec3(0.0, -0.6, 0.8), 9.0, 0.8)
    0.6
    """
    return -(normal.x * x + normal.y * y) / normal.z


def walked_over(
    course: Row, steps: StepTuning, stands: float, x: float, y: float, z: float, to_x: float, to_y: float
) -> Walked:
    """Return where a body gets to that goes straight from (x, y) to another place with its feet at z, before a step
    that is too high for it, and whether it stands there.

    Ground that rises or falls no more than its own slopes say has no edge. It is walked up as far as its tangent is
    no more than `steepest_up`; what rises over an edge may be no higher than `step_m`. Over an edge that falls by
    more than STEP_DOWN_M the body leaves the ground, and its feet stay as high as they are. A body that does not
    stand (`stands` 0) is in the air from the beginning.

    >>> from wendonic.kernels.body.ground import PIECE_PLANE
    >>> kerb = (1.0, 0.0, 11.0, PIECE_PLANE, -9.0, 1.0, 9.0, 1.05, 2.0, 0.0, 0.0, 0.0)
    >>> walked_over(kerb, StepTuning(0.35, 1.0, 1.0), 1.0, 0.0, 0.0, 0.0, 0.0, 5.0).y < 1.0
    True
    >>> walked_over(kerb, StepTuning(0.35, 1.0, 1.0), 1.0, 0.0, 1.02, 2.0, 0.0, 5.0)
    Walked(x=0.0, y=5.0, feet_z=2.0, stands=0.0)
    """
    far_x = to_x - x
    far_y = to_y - y
    far = math.hypot(far_x, far_y)
    samples = min(math.ceil(far / SAMPLE_M), MOST_SAMPLES)
    under = floor_at(course, x, y, z)
    if z - under.height > STEP_DOWN_M:
        stands = 0.0
    reached = Walked(x, y, max(z, under.height), stands)
    for k in range(samples):
        share = (k + 1.0) / samples
        at_x = x + far_x * share
        at_y = y + far_y * share
        ahead = floor_at(course, at_x, at_y, reached.feet_z)
        rise = ahead.height - under.height
        stands = reached.stands
        walkable = True
        if rise != 0.0:
            slope = math.fabs(rise_along(under.normal, far_x, far_y))
            slope = max(slope, math.fabs(rise_along(ahead.normal, far_x, far_y))) / samples
            even = math.fabs(rise) <= BEND * slope + SEAM_M
            walkable = even and rise <= steps.steepest_up * far / samples + SEAM_M
            if not walkable and ahead.height > reached.feet_z + (SEAM_M if even else steps.step_m):
                break
            if rise < -STEP_DOWN_M and (not even or -rise > STEP_DOWN_M + steps.steepest_down * far / samples):
                stands = 0.0
        feet_z = ahead.height if stands > 0.0 else max(reached.feet_z, ahead.height)
        reached = Walked(at_x, at_y, feet_z, stands)
        under = ahead
    return reached
