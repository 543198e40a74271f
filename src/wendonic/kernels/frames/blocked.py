"""Squares that must not be entered, in a hash table: the lookup time does not depend on how many there are."""

import math
from collections.abc import Iterable

from wendonic.kernels.row import Row

_NUMBERS = 3
"""Numbers of a table entry: 1 if it is taken, and the square."""


def first_place(x: float, y: float, size: int) -> int:
    """Return the entry of a table of that size at which the search for a square begins: the sum of its numbers, each
    multiplied by a large prime, modulo the size.

    >>> first_place(0.0, 0.0, 7), first_place(1.0, -2.0, 7) in range(7)
    (0, True)
    """
    mixed = math.fabs(x * 73856093.0 + y * 19349663.0)
    return int(mixed - math.floor(mixed / size) * size)


def is_blocked(course: Row, x: float, y: float) -> bool:
    """Return whether a square is blocked on a course: open addressing, entry by entry until one is empty.

    >>> course = (0.0, 0.0, 3.0, *blocked_table([(5.0, -2.0), (0.0, 1.0)]))
    >>> is_blocked(course, 5.0, -2.0), is_blocked(course, 0.0, 1.0), is_blocked(course, 0.0, 0.0)
    (True, True, False)
    """
    start = int(course[2])
    size = int(course[start])
    found = False
    if size > 0:
        k = first_place(x, y, size)
        for _ in range(size):
            place = start + 1 + 3 * k
            if course[place] == 0.0:
                break
            if course[place + 1] == x and course[place + 2] == y:
                found = True
                break
            k = (k + 1) % size
    return found


def blocked_table(squares: Iterable[tuple[float, float]]) -> list[float]:
    """Return the table of blocked squares at the end of a course: its size, then its entries.

    >>> blocked_table([])
    [0.0]
    """
    known = dict.fromkeys((float(x), float(y)) for x, y in squares)
    if not known:
        return [0.0]
    # At most half of the entries are taken, so that an empty one is never far.
    size = 2 * len(known) + 1
    places: list[tuple[float, float, float]] = [(0.0, 0.0, 0.0)] * size
    for x, y in known:
        place = first_place(x, y, size)
        while places[place][0] > 0.0:
            place = (place + 1) % size
        places[place] = (1.0, x, y)
    return [float(size), *(number for place in places for number in place)]


def squares_in(course: Row) -> list[tuple[float, float]]:
    """Return the blocked squares of a course.

    >>> squares_in((0.0, 0.0, 3.0, *blocked_table([(5.0, -2.0)])))
    [(5.0, -2.0)]
    """
    start = int(course[2])
    places = range(start + 1, start + 1 + _NUMBERS * int(course[start]), _NUMBERS)
    return [(course[place + 1], course[place + 2]) for place in places if course[place] > 0.0]
