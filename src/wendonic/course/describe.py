"""Describes a course in words."""

import math

from wendonic.course.course import Course
from wendonic.course.pieces import Flat, Mound, Piece, Ramp


def describe_course(course: Course) -> list[str]:
    """Return lines of text: the pieces with their heights and slopes, walls, blocked squares.

    >>> from wendonic.demo import demo_course
    >>> describe_course(demo_course("terraces"))[1]
    '  ramp: x -40 to 40 m, y 2 to 6 m, from 0 to 2 m up forward, a slope of 26.6 deg'
    """
    lines = [f'Course "{course.title}"' if course.title else "Course without a title"]
    lines += [f"  {_piece_words(piece)}" for piece in course.piece] or ["  level ground at height 0"]
    lines += [
        f"  wall: {_range(wall.left_m, wall.right_m, wall.back_m, wall.forward_m)}, {wall.height_m:g} m high"
        for wall in course.wall
    ]
    if course.bounds:
        ends = course.bounds
        lines.append(f"  bounds: {_range(ends.left_m, ends.right_m, ends.back_m, ends.forward_m)}")
    if course.blocked:
        lines.append(f"  blocked: {', '.join(f'({x}, {y})' for x, y in course.blocked)}")
    return lines


def _range(left_m: float, right_m: float, back_m: float, forward_m: float) -> str:
    return f"x {left_m:g} to {right_m:g} m, y {back_m:g} to {forward_m:g} m"


def _piece_words(piece: Piece) -> str:
    match piece:
        case Flat():
            place = _range(piece.left_m, piece.right_m, piece.back_m, piece.forward_m)
            return f"flat: {place}, {piece.height_m:g} m up"
        case Ramp():
            place = _range(piece.left_m, piece.right_m, piece.back_m, piece.forward_m)
            slope_deg = math.degrees(math.atan(math.hypot(*piece.numbers[-2:])))
            heights = f"from {piece.from_height_m:g} to {piece.to_height_m:g} m up {piece.up}"
            return f"ramp: {place}, {heights}, a slope of {slope_deg:.1f} deg"
        case Mound():
            # The slope of h (1 + cos(pi r / radius)) / 2 is steepest half-way down.
            steepest_deg = math.degrees(math.atan(0.5 * math.pi * piece.height_m / piece.radius_m))
            place = f"about ({piece.at[0]:g}, {piece.at[1]:g}) m, radius {piece.radius_m:g} m"
            return f"mound: {place}, {piece.height_m:g} m up, a slope of up to {steepest_deg:.1f} deg"
    raise AssertionError(piece)
