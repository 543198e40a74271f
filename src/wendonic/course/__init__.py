"""A small piece of ground to try a profile on: heights, walls and blocked squares. No physics engine."""

from wendonic.course.course import Course, load_course
from wendonic.course.pieces import Flat, Mound, Piece, Ramp, Wall

__all__ = ["Course", "Flat", "Mound", "Piece", "Ramp", "Wall", "load_course"]
