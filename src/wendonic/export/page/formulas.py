"""How the numbers that a tick runs on follow from the fields of a profile, as formulas in JavaScript.

A slider that moves changes a field; the page computes the numbers again by these formulas, without a round trip.
"""

import contextlib
import re
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Any

from wendonic.arithmetic import Traced, Tracing, value_of
from wendonic.compiler.layout import flat
from wendonic.errors import WendonicError
from wendonic.profile.schema.profile import Profile
from wendonic.profile.schema.steer.grid import GridSteer
from wendonic.profile.schema.table import Table
from wendonic.profile.tuning import mode_tuning

APART = frozenset({"window", "seat", "joystick", "budget", "world", "points", "rim"})
"""Names of what no formula is made of: where it changes, other things than numbers do, or a whole table of them."""


@dataclass(frozen=True)
class Formulas:
    """The formulas of one mode: of every number that its tick function reads, and of the middle and size of its
    squares; the conditions under which they hold; and the fields that they are made of.
    """

    numbers: tuple[str, ...]
    square: tuple[str, str, str]
    conditions: tuple[tuple[str, bool], ...]


@dataclass(frozen=True)
class TracedProfile:
    """A profile whose numbers write down what is made of them; `paths` are their fields, `v[0]` is the first."""

    profile: Profile
    paths: tuple[str, ...]
    values: tuple[float, ...]
    tracing: Tracing
    conditions: Mapping[str, bool]
    """What the profile's own checks compared: while it comes out so, they let other numbers pass, too."""

    def used(self, texts: Iterable[str]) -> frozenset[str]:
        """Return the paths that some formulas are made of; what another field does, its bindings do."""
        found = {int(number) for text in texts for number in re.findall(r"\bv\[(\d+)\]", text)}
        return frozenset(self.paths[number] for number in found)

    def formulas(self, mode: str, on_course: bool, indices: tuple[int, ...]) -> Formulas:
        """Return the formulas of a mode for the numbers at some indices of its tuning, all in one row."""
        self.tracing.conditions.clear()
        self.tracing.conditions.update(self.conditions)
        tick = mode_tuning(self.profile, mode, on_course).tick
        numbers = flat(tick)
        square = (tick.frame.grid.square_m, tick.frame.grid.middle.x, tick.frame.grid.middle.y)
        first, second, third = (text_of(number) for number in square)
        conditions = tuple(self.tracing.conditions.items())
        return Formulas(tuple(text_of(numbers[index]) for index in indices), (first, second, third), conditions)


def traced(profile: Profile) -> TracedProfile:
    """Return a profile with numbers that write down what is made of them.

    >>> from wendonic.demo import demo_profile
    >>> found = traced(demo_profile())
    >>> found.paths.index("gait.walk.accel_m_s2") > 0
    True
    """
    tracing = Tracing()
    paths: list[str] = []
    values: list[float] = []

    def wrapped(value: Any, path: str) -> Any:
        if isinstance(value, float):
            paths.append(path)
            values.append(value)
            return Traced(value, f"v[{len(paths) - 1}]", tracing)
        if isinstance(value, Table):
            return _rebuilt(value, path)
        if isinstance(value, dict):
            return {name: wrapped(part, f"{path}.{name}" if path else name) for name, part in value.items()}
        if isinstance(value, tuple):
            return tuple(wrapped(part, f"{path}[{index}]") for index, part in enumerate(value))
        return value

    def _rebuilt(table: Table, path: str) -> Table:
        fields: dict[str, Any] = {}
        for name in type(table).model_fields:
            value = getattr(table, name)
            inside = f"{path}.{name}" if path else name
            fields[name] = value if name in APART or name == "version" else wrapped(value, inside)
        if fields.get("drag_per_s") is not None and "thrust_m_s2" in fields:
            # A gait of thrust and drag has its speed and rates from these two.
            thrust, drag = fields["thrust_m_s2"], fields["drag_per_s"]
            fields |= {"top_speed_m_s": thrust / drag, "accel_m_s2": thrust, "brake_m_s2": thrust}
        made = type(table).model_construct(table.model_fields_set, **fields)
        if not isinstance(made, Profile):
            _check(made)
        return made

    made = wrapped(profile.with_every_gait(), "")
    for mode in made.mode.values():
        if isinstance(mode.steer, GridSteer):
            mode.steer.lay_out(profile.world.axes)
    return TracedProfile(made, tuple(paths), tuple(values), tracing, dict(tracing.conditions))


def _check(table: Table) -> None:
    """Let a table check itself as it does after loading, so that what it compares is written down."""
    for name, validator in type(table).__pydantic_decorators__.model_validators.items():
        if validator.info.mode == "after" and name not in vars(Table):
            # What a check makes of plain numbers only has no formula.
            with contextlib.suppress(TypeError, AttributeError, ValueError):
                validator.func(table)


def text_of(number: Any) -> str:
    """Return a number, or the formula of one, in JavaScript."""
    if isinstance(number, Traced):
        return number.text
    value = value_of(number)
    if not isinstance(value, int | float):
        raise WendonicError(f"{number!r} is not a number")
    return "Infinity" if value == float("inf") else repr(float(value))
