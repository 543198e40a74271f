"""A game's own axes: which of them is right, forward and up."""

import math
from collections.abc import Sequence
from typing import Any, TypeAlias

from wendonic.errors import WendonicError

GameVector: TypeAlias = tuple[float, ...]
"""A vector in the game's own axes: (x, y, z), or (x, y) in a 2-D game."""


def vector_numbers(vector: Sequence[float | Sequence[float]]) -> tuple[float, ...]:
    """Return the numbers of a vector, given one by one or as one sequence, as Python floats: another number type
    would stay in a helm's memory, where it is slower and may be less precise.

    >>> vector_numbers((1, 2.5)), vector_numbers(([1, 2.5],))
    ((1.0, 2.5), (1.0, 2.5))
    """
    given: Any = vector
    try:
        if len(vector) == 1 and hasattr(vector[0], "__len__"):
            given = vector[0]
        return tuple([part if type(part) is float else _float_of(part) for part in given])
    except (LookupError, OverflowError, TypeError, ValueError):
        raise WendonicError(f"found {given!r}; allowed: numbers, one by one or as one vector") from None


def _float_of(part: Any) -> float:
    if isinstance(part, str):
        raise TypeError
    return float(part)


class WorldAxes:
    """Turns vectors between the plan frame and a game's own axes.

    `right`, `forward` and `up` each name a signed axis of the game, such as "+x" or "-z"; the letters differ.
    Without `up` the game is 2-D and seen from above, has x and y only, and height is left out; without `forward` it
    is 2-D and seen from the side. A vector v of the plan is v.x right + v.y forward + v.z up in the game.

    >>> WorldAxes("+x", "-z", "+y").from_plan(1.0, 2.0, 3.0)
    (1.0, 3.0, -2.0)
    >>> screen = WorldAxes("+x", "-y")
    >>> screen.from_plan(0.0, 1.0), screen.to_plan(0.0, -1.0)
    ((0.0, -1.0), (0.0, 1.0, 0.0))
    >>> WorldAxes("+x", None, "-y").from_plan(1.0, 2.0, 3.0)
    (1.0, -3.0)

    A game that measures in a unit of its own has `units_per_m` of it in a metre: places and velocities are turned by
    `place_from_plan` and `place_to_plan`, directions by the others. `unit` is its name.

    >>> WorldAxes("+x", "-y", units_per_m=50.0).place_from_plan(1.0, 2.0)
    (50.0, -100.0)
    """

    __slots__ = ("_game", "_game_units", "_level", "_plan", "forward", "right", "unit", "units_per_m", "up")

    def __init__(
        self, right: str, forward: str | None, up: str | None = None, units_per_m: float = 1.0, unit: str = "m"
    ) -> None:
        """Resolve the names; raises `WendonicError` unless they are signed axes with different letters."""
        self.right, self.forward, self.up = right, forward, up
        self.units_per_m, self.unit = units_per_m, unit
        written = [(axis, name) for axis, name in enumerate((right, forward, up)) if name is not None]
        names = [name for _, name in written]
        letters = "xyz"[: len(names)]
        if (
            len(names) < 2
            or sorted(name[1:] for name in names) != list(letters)
            or any(name[0] not in "+-" for name in names)
        ):
            raise WendonicError(f"axes {', '.join(names)}; allowed: signed axes such as +x, one of each of {letters}")
        signs = [1.0 if name[0] == "+" else -1.0 for name in names]
        # For each axis of the game, the axis of the plan and its sign, and the reverse.
        order = {name[1]: (axis, sign) for (axis, name), sign in zip(written, signs, strict=True)}
        self._game = tuple(order[letter] for letter in letters)
        self._game_units = tuple((axis, sign * units_per_m) for axis, sign in self._game)
        self._plan = tuple(
            (letters.index(name[1]), sign, axis) for (axis, name), sign in zip(written, signs, strict=True)
        )
        self._level = self._horizontal()

    def __repr__(self) -> str:
        """Return the names, and the unit if it is not the metre."""
        units = "" if self.units_per_m == 1.0 else f", units_per_m={self.units_per_m!r}, unit={self.unit!r}"
        return f"WorldAxes(right={self.right!r}, forward={self.forward!r}, up={self.up!r}{units})"

    def __eq__(self, other: object) -> bool:
        """Return whether both convert every vector alike, and have the same unit."""
        return isinstance(other, WorldAxes) and self._named() == other._named()

    def __hash__(self) -> int:
        """Return a hash of the names."""
        return hash(self._named())

    def _named(self) -> tuple[str, str | None, str | None, float, str]:
        return self.right, self.forward, self.up, self.units_per_m, self.unit

    @property
    def right_handed(self) -> bool | None:
        """Whether x, y, z of the game are right-handed, as the plan frame is; None in a 2-D game."""
        if self.up is None or self.forward is None:
            return None
        # The plan is right-handed, so the game is if the signed permutation between them is even.
        swaps = sum(a > b for i, (a, _) in enumerate(self._game) for b, _ in self._game[i + 1 :])
        return math.prod(sign for _, sign in self._game) * (-1.0) ** swaps > 0.0

    def from_plan(self, x: float, y: float, z: float = 0.0) -> GameVector:
        """Return a vector of the plan in the game's own axes."""
        return _turned((x, y, z), self._game)

    def to_plan(self, *vector: float | Sequence[float]) -> tuple[float, float, float]:
        """Return a vector of the game, given as two or three numbers or as one vector, in the plan frame.

        >>> WorldAxes("+x", "-z", "+y").to_plan(1.0, 2.0, 3.0)
        (1.0, -3.0, 2.0)
        """
        return self.plan_of(vector_numbers(vector))

    def plan_of(self, numbers: tuple[float, ...]) -> tuple[float, float, float]:
        """Return the game vector that has these numbers in the plan frame.

        >>> WorldAxes("+x", "-y").plan_of((3.0, 4.0))
        (3.0, -4.0, 0.0)
        """
        if len(numbers) != len(self._game):
            found = f"{len(numbers)} number{'s' if len(numbers) != 1 else ''}"
            raise WendonicError(f"{found}; allowed: {len(self._game)}, one for each axis of the world")
        plan = [0.0, 0.0, 0.0]
        for index, sign, axis in self._plan:
            plan[axis] = numbers[index] * sign + 0.0
        return plan[0], plan[1], plan[2]

    def place_from_plan(self, x: float, y: float, z: float = 0.0) -> GameVector:
        """Return a place or a velocity of the plan (m) in the game's own axes and unit."""
        return _turned((x, y, z), self._game_units)

    def place_to_plan(self, *place: float | Sequence[float]) -> tuple[float, float, float]:
        """Return a place or a velocity of the game, in its own unit, in the plan frame (m).

        >>> WorldAxes("+x", "-y", units_per_m=50.0).place_to_plan(100.0, 50.0)
        (2.0, -1.0, 0.0)
        """
        x, y, z = self.to_plan(*place)
        units = self.units_per_m
        return x / units, y / units, z / units

    def kept_from(self, plan: Sequence[float], was: Sequence[float]) -> tuple[float, float, float]:
        """Return a vector of the plan with components that the game's axes do not have left as they were: height in a
        2-D game from above, forward in one from the side.

        >>> WorldAxes("+x", "-y").kept_from((1.0, 2.0, 0.0), (0.0, 0.0, 5.0))
        (1.0, 2.0, 5.0)
        """
        x, y, z = plan
        return x, was[1] if self.forward is None else y, was[2] if self.up is None else z

    def square_to_plan(self, first: int, second: int) -> tuple[int, int]:
        """Return a square on the plan, right and forward, of one counted along the game's own horizontal axes, in
        their order; a game from the side counts along right and up, which is not a plan, and is left as it is.

        >>> WorldAxes("+x", "-y").square_to_plan(0, -1), WorldAxes("+x", "-z", "+y").square_to_plan(2, 3)
        ((0, 1), (2, -3))
        """
        right, forward = self.level_to_plan(first, second)
        return round(right), round(forward)

    def level_to_plan(self, first: float, second: float) -> tuple[float, float]:
        """Return a place on the plan, right and forward, by its numbers along the game's own horizontal axes.

        >>> WorldAxes("+x", "-z", "+y").level_to_plan(0.5, 2.5)
        (0.5, -2.5)
        """
        right, forward = self._level
        pair = (first, second)
        return pair[right[0]] * right[1], pair[forward[0]] * forward[1]

    def square_from_plan(self, right: float, forward: float) -> tuple[int, int]:
        """Return a square along the game's own horizontal axes, in their order, of one on the plan.

        >>> WorldAxes("+y", "+x").square_from_plan(1, 2)
        (2, 1)
        """
        first, second = self.level_from_plan(right, forward)
        return round(first), round(second)

    def level_from_plan(self, right: float, forward: float) -> tuple[float, float]:
        """Return a place on the plan by its numbers along the game's own horizontal axes, in their order.

        >>> WorldAxes("+x", "-z", "+y").level_from_plan(0.5, -2.5)
        (0.5, 2.5)
        """
        (right_at, right_sign), (forward_at, forward_sign) = self._level
        pair = [0.0, 0.0]
        pair[right_at], pair[forward_at] = right * right_sign, forward * forward_sign
        return pair[0], pair[1]

    def _horizontal(self) -> tuple[tuple[int, float], tuple[int, float]]:
        """Return the index of the game's horizontal axis, and its sign, for right and forward."""
        if self.forward is None:
            return (0, 1.0), (1, 1.0)
        right_first = self.right[1] < self.forward[1]
        signs = [1.0 if name[0] == "+" else -1.0 for name in (self.right, self.forward)]
        return (0 if right_first else 1, signs[0]), (1 if right_first else 0, signs[1])


def _turned(plan: tuple[float, float, float], axes: tuple[tuple[int, float], ...]) -> GameVector:
    """Return for each axis of a game the corresponding number of the plan times its factor."""
    # Adding zero turns -0.0 into 0.0. Unrolled, since every velocity that a game reads passes through here.
    (first, first_by), (second, second_by) = axes[0], axes[1]
    if len(axes) == 2:
        return plan[first] * first_by + 0.0, plan[second] * second_by + 0.0
    third, third_by = axes[2]
    return plan[first] * first_by + 0.0, plan[second] * second_by + 0.0, plan[third] * third_by + 0.0


PLAN_AXES = WorldAxes("+x", "+y", "+z")
"""The plan frame itself."""
