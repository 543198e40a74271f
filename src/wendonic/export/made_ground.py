"""Made-up grounds for the vectors of a mode that reads a course: a bit of everything close to where it begins, and
level ground with walls, of which the game reports how steep it is.
"""

from wendonic.course import Course

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
        ],
        "wall": WALLS,
        "blocked": [[1, 1], [-1, 0], [0, -1], [2, 3], [-2, 2]],
    }
)

LEVEL = Course.model_validate(
    {"format": "wendonic-course", "version": 1, "title": "Level, with walls", "wall": WALLS}
)

LANDMARKS = ((0.6, -1.2), (-1.0, -1.0), (1.2, 1.0), (0.0, 2.0))
"""Places of it where something decides: the top of the mound, inside a wall, and half-way up two ramps."""
