"""The ground of a course: pieces with heights, walls, and blocked squares, all in one row of numbers."""

import math
from typing import NamedTuple, Protocol

from wendonic.kernels.row import Row
from wendonic.kernels.vector import UP, Vec3

PIECE_PLANE = 0.0
PIECE_MOUND = 1.0
PIECE_NUMBERS = 8
WALL_NUMBERS = 5
HEADER_NUMBERS = 3
"""Index at which the pieces begin, after the number of pieces, the number of walls and the start of the table of
blocked squares.
"""

NO_COURSE: tuple[float, ...] = (0.0, 0.0, 3.0, 0.0)
"""Level ground, no walls, nothing blocked."""


class HasNumbers(Protocol):
    """A course as kernels know it."""

    @property
    def numbers(self) -> tuple[float, ...]:
        """Return the course as one row of numbers."""


class Ground(NamedTuple):
    """Height (m) and normal of the ground at a place; the normal has length 1 and points up."""

    height: float
    normal: Vec3


LEVEL_GROUND = Ground(0.0, UP)


def piece_height(course: Row, k: int, x: float, y: float) -> float:
    """Return the height (m) at a place of the plan of the piece whose numbers begin at `k`, 0 outside it.

    A plane piece has left, back, right and forward edge (m), the height of its left back corner, and its rise per
    metre to the right and forward. A mound has its middle, a radius and a height: h (1 + cos(pi r / radius)) / 2.

    >>> ramp = [PIECE_PLANE, 0.0, 0.0, 4.0, 8.0, 1.0, 0.0, 0.75]
    >>> piece_height(ramp, 0, 1.0, 4.0), piece_height(ramp, 0, -1.0, 4.0)
    (4.0, 0.0)
    """
    if course[k] == PIECE_PLANE:
        if not (course[k + 1] <= x <= course[k + 3] and course[k + 2] <= y <= course[k + 4]):
            return 0.0
        return course[k + 5] + course[k + 6] * (x - course[k + 1]) + course[k + 7] * (y - course[k + 2])
    from_x, from_y, radius = x - course[k + 1], y - course[k + 2], course[k + 3]
    square = from_x * from_x + from_y * from_y
    if square >= radius * radius:
        return 0.0
    return 0.5 * course[k + 4] * (1.0 + math.cos(math.pi * math.sqrt(square) / radius))


def height_at(course: Row, x: float, y: float) -> float:
    """Return the height (m) of the ground at a place of the plan, see `ground_at`.

    >>> height_at([1.0, 0.0, 11.0, PIECE_PLANE, 0.0, 0.0, 4.0, 8.0, 1.0, 0.0, 0.75, 0.0], 1.0, 4.0)
    4.0
    """
    height = 0.0
    for piece in range(int(course[0])):
        top = piece_height(course, HEADER_NUMBERS + PIECE_NUMBERS * piece, x, y)
        height = max(height, top)
    return height


def ground_at(course: Row, x: float, y: float) -> Ground:
    """Return the ground at a place of the plan: the highest piece there, or level ground at height 0; see
    `piece_height`.

    >>> ramp = [PIECE_PLANE, 0.0, 0.0, 4.0, 8.0, 1.0, 0.0, 0.75]
    >>> ground_at([1.0, 0.0, 11.0, *ramp, 0.0], 1.0, 4.0)
    Ground(height=4.0, normal=Vec3(x=0.0, y=-0.6, z=0.8))
    >>> ground_at([1.0, 0.0, 11.0, *ramp, 0.0], -1.0, 4.0) == LEVEL_GROUND
    True
    """
    height = rise_x = rise_y = 0.0
    highest = 0
    for piece in range(int(course[0])):
        k = HEADER_NUMBERS + PIECE_NUMBERS * piece
        top = piece_height(course, k, x, y)
        if top > height:
            height = top
            highest = k
    if highest > 0:
        if course[highest] == PIECE_PLANE:
            rise_x, rise_y = course[highest + 6], course[highest + 7]
        else:
            from_x, from_y, radius = x - course[highest + 1], y - course[highest + 2], course[highest + 3]
            away = math.sqrt(from_x * from_x + from_y * from_y)
            # Avoids 0 / 0 in the middle, where the mound is level.
            steep = math.sin(math.pi * away / radius) / away if away > 0.0 else math.pi / radius
            fall = -0.5 * course[highest + 4] * math.pi / radius * steep
            rise_x, rise_y = fall * from_x, fall * from_y
    length = math.sqrt(1.0 + rise_x * rise_x + rise_y * rise_y)
    return Ground(height, Vec3(0.0 - rise_x / length, 0.0 - rise_y / length, 1.0 / length))


def in_wall(course: Row, x: float, y: float, feet_z: float) -> bool:
    """Return whether a place of the plan is inside a wall (left, back, right, forward and height in m), edges
    excluded; feet as high as the wall, or higher, are not inside it.

    >>> wall = [0.0, 1.0, 8.0, 0.0, 0.0, 2.0, 1.0, 3.0, 0.0]
    >>> in_wall(wall, 1.0, 0.5, 0.0), in_wall(wall, 2.0, 0.5, 0.0), in_wall(wall, 1.0, 0.5, 3.0)
    (True, False, False)
    """
    first = HEADER_NUMBERS + PIECE_NUMBERS * int(course[0])
    for wall in range(int(course[1])):
        k = first + WALL_NUMBERS * wall
        if course[k] < x < course[k + 2] and course[k + 1] < y < course[k + 3] and feet_z < course[k + 4]:
            return True
    return False
