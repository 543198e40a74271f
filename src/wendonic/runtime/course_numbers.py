"""A course in the form that the kernels read."""

from wendonic.errors import WendonicError
from wendonic.kernels.body.ground import NO_COURSE, HasNumbers


def course_numbers(course: HasNumbers | None) -> tuple[float, ...]:
    """Return a course as one row of numbers, level ground if there is none; raises `WendonicError` for anything else,
    such as a path.

    >>> course_numbers(None) == NO_COURSE
    True
    >>> course_numbers("yard.toml")
    Traceback (most recent call last):
    wendonic.errors.WendonicError: course: found 'yard.toml'; allowed: a Course, as load_course returns it
    """
    if course is None:
        return NO_COURSE
    numbers: object = getattr(course, "numbers", None)
    if not isinstance(numbers, tuple):
        raise WendonicError(f"course: found {course!r}; allowed: a Course, as load_course returns it")
    return numbers
