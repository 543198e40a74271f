"""A course, read from a file, and as one row of numbers for the kernels."""

from functools import cached_property
from pathlib import Path
from typing import Annotated, Literal

from pydantic import Field

from wendonic.course.pieces import Bounds, Piece, Wall
from wendonic.errors import FileError
from wendonic.kernels.body.ground import HEADER_NUMBERS, WALL_NUMBERS, Ground, ground_at, in_wall
from wendonic.kernels.frames.blocked import blocked_table
from wendonic.profile.load import table_from_text, text_of
from wendonic.profile.schema.table import Table, entry

Square = Annotated[tuple[int, int], Field(strict=False)]


class CourseError(FileError):
    """The faults of a course."""


class Course(Table):
    """Ground to try a profile on. The height at a place is that of the highest piece there, and 0 elsewhere. Bodies
    slide along walls, cannot cross the bounds, and cannot enter blocked squares, which are counted on the plan from
    (0, 0) around the origin. It is not a physics engine: there are no other bodies, no friction, no bounce.

    >>> from wendonic.demo import demo_course
    >>> hill = demo_course("terraces")
    >>> hill.ground(0.0, 4.0).height, hill.in_wall(0.0, 4.0)
    (1.0, False)
    """

    format: Literal["wendonic-course"] = entry("Kind of file.", example="wendonic-course")
    version: Literal[1] = entry("Version of the file format.", example=1, unit="version")
    title: str = entry("Name of the course, for people to read.", "", example="Terraced orchard")
    piece: Annotated[tuple[Piece, ...], Field(strict=False, max_length=200)] = entry(
        "Flats, ramps and mounds. At each place the highest one counts.",
        (),
        example=[{"form": "mound", "at": [0.0, 5.0], "radius_m": 2.0, "height_m": 0.5}],
    )
    wall: Annotated[tuple[Wall, ...], Field(strict=False, max_length=200)] = entry(
        "Walls, which bodies slide along.",
        (),
        example=[{"left_m": -1.0, "back_m": 3.0, "right_m": 1.0, "forward_m": 3.2}],
    )
    bounds: Bounds | None = entry(
        "Edges of the course, which no body crosses.",
        None,
        example={"left_m": -20.0, "back_m": -20.0, "right_m": 20.0, "forward_m": 20.0},
        otherwise="no end",
    )
    blocked: Annotated[tuple[Square, ...], Field(strict=False, max_length=100_000)] = entry(
        "Squares that cannot be entered, counted right and forward from the one around the origin.",
        (),
        example=[[1, 0], [1, 1]],
        unit="squares",
    )

    @cached_property
    def numbers(self) -> tuple[float, ...]:
        """The course as one row of numbers for the kernels; see `kernels.body.ground`."""
        pieces = [number for piece in self.piece for number in piece.numbers]
        walls = [number for wall in self.wall for number in wall.numbers]
        walls += self.bounds.numbers if self.bounds else ()
        start = HEADER_NUMBERS + len(pieces) + len(walls)
        counts = (float(len(self.piece)), len(walls) / WALL_NUMBERS, float(start))
        return (*counts, *pieces, *walls, *blocked_table(self.blocked))

    def ground(self, x: float, y: float) -> Ground:
        """Return height (m) and normal of the ground at a place of the plan (m).

        >>> from wendonic.demo import demo_course
        >>> demo_course("terraces").ground(0.0, 4.0).height
        1.0
        """
        return ground_at(self.numbers, x, y)

    def in_wall(self, x: float, y: float, feet_z: float = 0.0) -> bool:
        """Return whether a place of the plan (m) lies inside a wall, for feet at a height (m)."""
        return in_wall(self.numbers, x, y, feet_z)


def load_course(path: str | Path) -> Course:
    """Return the course in the TOML file at `path`; raises `CourseError` with all its faults at once.

    >>> load_course("no_such_course.toml")
    Traceback (most recent call last):
    wendonic.course.course.CourseError: no_such_course.toml: cannot be read: No such file or directory
    """
    return table_from_text(Course, text_of(path, "course", CourseError), path, CourseError)
