"""A quantity of the feel sheet: how it is called, its unit, what it means, and how it is measured."""

from collections.abc import Callable
from typing import NamedTuple

from wendonic.study.bench import Bench

Value = float | int | None
Measure = Callable[[Bench], Value]


class Quantity(NamedTuple):
    """One row of the feel sheet; `place` says where on the sheet, `measure` gives None where a mode has no such
    thing.
    """

    name: str
    unit: str
    definition: str
    place: int
    measure: Measure


_REGISTERED: dict[str, Quantity] = {}


def quantity(place: int, unit: str, definition: str) -> Callable[[Measure], Measure]:
    """Return a decorator that puts a function on the feel sheet under its own name."""

    def register(measure: Measure) -> Measure:
        name = measure.__name__
        _REGISTERED[name] = Quantity(name, unit, definition, place, measure)
        return measure

    return register


def registered() -> dict[str, Quantity]:
    """Return every quantity that has been imported, in the order of the sheet."""
    return {one.name: one for one in sorted(_REGISTERED.values(), key=lambda one: (one.place, one.name))}
