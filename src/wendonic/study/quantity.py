"""A quantity of the feel sheet: its name, its unit, its definition, and how it is measured."""

from collections.abc import Callable
from typing import NamedTuple

from wendonic.length_unit import METRES, LengthUnit
from wendonic.study.bench import Bench
from wendonic.study.thresholds import THRESHOLDS, Thresholds

Value = float | int | None
Measure = Callable[[Bench], float | int | None]


class Quantity(NamedTuple):
    """One row of the feel sheet; `place` is its position on the sheet. `measure` raises `NotHere` if a mode has no
    such thing and `Unmeasured` if it could not be measured; None means that it never happened.

    `template` is its definition, with the thresholds that it depends on by name.
    """

    name: str
    unit: str
    template: str
    place: int
    measure: Measure

    @property
    def definition(self) -> str:
        """Its definition with the usual thresholds."""
        return self.defined()

    def defined(self, thresholds: Thresholds = THRESHOLDS, length: LengthUnit = METRES) -> str:
        """Return its definition with these thresholds; lengths in the game's world are in the game's own unit."""
        template = self.template
        for field, words in (
            ("{rests_m_s:g} m/s", length.m_s(thresholds.rests_m_s)),
            ("{goal_m:g} m", length.m(thresholds.goal_m)),
        ):
            template = template.replace(field, words)
        # Python formats a share as "90%"; everywhere else it is written "90 %".
        return template.format_map(thresholds._asdict()).replace("%", " %")

    @property
    def thresholds(self) -> dict[str, float]:
        """The thresholds that its definition names."""
        return {name: value for name, value in THRESHOLDS._asdict().items() if f"{{{name}" in self.template}


_REGISTERED: dict[str, Quantity] = {}


def quantity(place: int, unit: str, template: str) -> Callable[[Measure], Measure]:
    """Return a decorator that registers a function as a quantity under its own name."""

    def register(measure: Measure) -> Measure:
        name = measure.__name__
        _REGISTERED[name] = Quantity(name, unit, template, place, measure)
        return measure

    return register


def registered() -> dict[str, Quantity]:
    """Return every quantity that has been imported, in the order of the sheet."""
    return {one.name: one for one in sorted(_REGISTERED.values(), key=lambda one: (one.place, one.name))}
