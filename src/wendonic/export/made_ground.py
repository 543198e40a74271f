"""Synthetic grounds for the vectors of a mode that reads a course: a bit of everything close to the start, and level
ground with walls, whose slope the game reports.
"""

import math
import random

from wendonic.course import Course
from wendonic.kernels.body.ground import HEADER_NUMBERS, PIECE_MOUND, PIECE_NUMBERS, WALL_NUMBERS, ground_at
from wendonic.kernels.row import Row

WALLS = [
    {"left_m": -1.4, "back_m": -1.6, "right_m": -0.6, "forward_m": -0.5, "height_m": 2},
    {"left_m": 2.2, "back_m": -1.0, "right_m": 2.6, "forward_m": 1.5, "height_m": 0.2},
    {"left_m": 1.4, "back_m": -2.4, "right_m": 2.2, "forward_m": -1.8, "height_m": 1.2},
]

GROUND = Course.model_validate(
    {
        "format": "wendonic-course",
        "version": 1,
        "title": "A bit of everything",
        "piece": [
            {"form": "flat", "left_m": -1.6, "back_m": 0.5, "right_m": -0.3, "forward_m": 1.6, "height_m": 0.25},
            {"form": "flat", "left_m": -3, "back_m": 1.6, "right_m": -0.3, "forward_m": 3, "height_m": 1.4},
            {
                "form": "ramp",
                "left_m": 0.3,
                "back_m": 0.3,
                "right_m": 1.8,
                "forward_m": 2.6,
                "up": "right",
                "to_height_m": 0.6,
            },
            {
                "form": "ramp",
                "left_m": -0.3,
                "back_m": 1.2,
                "right_m": 0.3,
                "forward_m": 2.4,
                "up": "forward",
                "to_height_m": 2.0,
            },
            {"form": "flat", "left_m": -1.0, "back_m": 1.0, "right_m": 0.1, "forward_m": 1.8, "height_m": 0.1},
            {"form": "mound", "at": [0.6, -1.2], "radius_m": 0.8, "height_m": 0.4},
            # A bank that is too steep, and a corner between two terraces, where a wall ends.
            {
                "form": "ramp",
                "left_m": 3,
                "back_m": -4,
                "right_m": 5,
                "forward_m": -1,
                "up": "right",
                "to_height_m": 4.0,
            },
            {"form": "flat", "left_m": -5, "back_m": -4, "right_m": -4, "forward_m": 1, "height_m": 1},
            {"form": "flat", "left_m": -4, "back_m": -4, "right_m": -2, "forward_m": -3, "height_m": 1},
        ],
        "wall": [*WALLS, {"left_m": -3.9, "back_m": -0.6, "right_m": -3.2, "forward_m": -0.5, "height_m": 2}],
        "blocked": [[1, 1], [-1, 0], [0, -1], [2, 3], [-2, 2]],
    }
)

LEVEL = Course.model_validate(
    {"format": "wendonic-course", "version": 1, "title": "Level, with walls", "wall": WALLS}
)


def grounds_of(course: Row) -> tuple[Row, ...]:
    """Return the grounds that vectors are played on: the course that is written with the source, if any, level ground
    with walls, and a bit of everything. A row of vectors whose first number is above 0 begins on one of them: 1 and 2
    mean the first, 3 and 4 the second, and so on; an even number means that its state is given.

    >>> len(grounds_of(())), len(grounds_of(LEVEL.numbers))
    (2, 3)
    """
    return (course, LEVEL.numbers, GROUND.numbers) if course else (GROUND.numbers, LEVEL.numbers)


FAR_M = 1000.0
"""Distance beyond which there are only the far sides of bounds."""


def at_an_edge(course: Row, rng: random.Random) -> dict[str, float]:
    """Return the state of a body close to an edge of a course, moving towards it or along it, sometimes above it;
    nothing if the edge is too far away.

    >>> set(at_an_edge(LEVEL.numbers, random.Random(1))) >= {"position_x", "position_y", "velocity_x", "velocity_y"}
    True
    """
    pieces, walls = int(course[0]), int(course[1])
    k = rng.randrange(pieces + walls)
    if k < pieces:
        index = HEADER_NUMBERS + PIECE_NUMBERS * k
        kind, *numbers = course[index : index + 5]
        left, back, right, forward = numbers
        if kind == PIECE_MOUND:
            x, y, radius = numbers[:3]
            left, back, right, forward = x - radius, y - radius, x + radius, y + radius
    else:
        index = HEADER_NUMBERS + PIECE_NUMBERS * pieces + WALL_NUMBERS * (k - pieces)
        left, back, right, forward = course[index : index + 4]
    away = rng.choice((-0.3, -0.05, 0.01, 0.05, 0.3))
    share = rng.choice((rng.random(), rng.random(), 0.02, 0.98))
    side = rng.randrange(4)
    towards = math.pi * side / 2.0
    if side % 2 == 0:
        x, y = left + share * (right - left), back - away if side == 0 else forward + away
    else:
        x, y = left - away if side == 1 else right + away, back + share * (forward - back)
    if k < pieces and kind == PIECE_MOUND and rng.random() < 0.5:
        # Near its rim, which only touches the square around it.
        x, y = numbers[0] + (radius + away) * math.sin(towards), numbers[1] + (radius + away) * math.cos(towards)
    heading = towards + rng.choice((rng.uniform(-0.3, 0.3), rng.uniform(-1.5, 1.5), rng.uniform(-3.2, 3.2)))
    speed = rng.choice((1.0, 4.0, 20.0, 60.0))
    if max(abs(x), abs(y)) > FAR_M:
        return {}
    found = {"position_x": x, "position_y": y}
    found |= {"velocity_x": speed * math.sin(heading), "velocity_y": speed * math.cos(heading)}
    found["face"] = math.remainder(heading, math.tau)
    above = rng.choice((0.0, 0.0, 0.0, 0.03, 0.3, 2.0))
    if above > 0.03:
        found |= {"fall_airborne": rng.choice((0.0, 1.0)), "velocity_z": rng.choice((rng.uniform(-9.0, 9.0), -29.9))}
    return found | {"position_z": ground_at(course, x, y).height + above}


RUNS = (
    (2.95, -2.5, 20.0, 0.0),
    (2.9, -2.5, 0.5, 0.0),
    (3.5, -2.5, 0.5, 0.0),
    (-3.9, -2.9, -20.0, -20.0),
    (-3.8, -0.1, -48.0, -72.0),
    (-3.8, -0.1, -96.0, -144.0),
)
"""Places and velocities from which a body runs into the bank, creeps towards it and up it, and runs into the corner,
and past the wall into the terrace behind it.
"""


def at_a_run(rng: random.Random) -> dict[str, float]:
    """Return the state of a body that makes one of the runs.

    >>> at_a_run(random.Random(1))["velocity_x"] != 0.0
    True
    """
    x, y, vel_x, vel_y = rng.choice(RUNS)
    index = {"position_x": x, "position_y": y, "position_z": 0.0}
    return index | {"velocity_x": vel_x, "velocity_y": vel_y, "face": math.atan2(vel_x, vel_y)}


LANDMARKS = ((0.6, -1.2), (-1.0, -1.0), (1.2, 1.0), (0.0, 2.0))
"""Special places: the top of the mound, inside a wall, and half-way up two ramps."""
