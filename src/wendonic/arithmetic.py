"""Arithmetic for a profile's numbers, either plain ones or ones that record how they are computed.

The numbers of a tick follow from the profile's fields by small formulas: degrees to radians, a height and a time to a
speed. With `Traced` numbers as fields, the same code gives these formulas instead of their results.
"""

import math
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any, TypeVar

Number = TypeVar("Number", float, "Traced")


@dataclass
class Tracing:
    """The comparisons that were made: each condition as a formula, and its outcome. With another outcome, the
    structure is a different one.
    """

    conditions: dict[str, bool] = field(default_factory=dict)


class Traced:
    """A number with the formula that gives it, over the numbers `v[0]`, `v[1]`, … in JavaScript.

    >>> tracing = Tracing()
    >>> full = Traced(2.0, "v[0]", tracing)
    >>> half = radians(full) / 2.0
    >>> half.text, round(half.value, 6), half > 1.0, tracing.conditions
    ('((v[0]*0.017453292519943295)/2.0)', 0.017453, False, {'(((v[0]*0.017453292519943295)/2.0)>1.0)': False})
    """

    __slots__ = ("text", "tracing", "value")

    def __init__(self, value: float, text: str, tracing: Tracing) -> None:
        """Take its present value, and its formula."""
        self.value, self.text, self.tracing = value, text, tracing

    def _of(self, value: float, text: str) -> "Traced":
        return Traced(value, text, self.tracing)

    def _with(self, other: Any, sign: str, reckon: Callable[[float, float], float], turned: bool) -> "Traced":
        value, text = (other.value, other.text) if isinstance(other, Traced) else (float(other), _number(other))
        if turned:
            return self._of(reckon(value, self.value), f"({text}{sign}{self.text})")
        return self._of(reckon(self.value, value), f"({self.text}{sign}{text})")

    def __add__(self, other: Any) -> "Traced":
        """Return the sum."""
        return self._with(other, "+", lambda a, b: a + b, False)

    def __radd__(self, other: Any) -> "Traced":
        """Return the sum."""
        return self._with(other, "+", lambda a, b: a + b, True)

    def __sub__(self, other: Any) -> "Traced":
        """Return the difference."""
        return self._with(other, "-", lambda a, b: a - b, False)

    def __rsub__(self, other: Any) -> "Traced":
        """Return the difference."""
        return self._with(other, "-", lambda a, b: a - b, True)

    def __mul__(self, other: Any) -> "Traced":
        """Return the product."""
        return self._with(other, "*", lambda a, b: a * b, False)

    def __rmul__(self, other: Any) -> "Traced":
        """Return the product."""
        return self._with(other, "*", lambda a, b: a * b, True)

    def __truediv__(self, other: Any) -> "Traced":
        """Return the quotient."""
        return self._with(other, "/", lambda a, b: a / b, False)

    def __rtruediv__(self, other: Any) -> "Traced":
        """Return the quotient."""
        return self._with(other, "/", lambda a, b: a / b, True)

    def __pow__(self, other: Any) -> "Traced":
        """Return the power."""
        return self._with(other, "**", lambda a, b: a**b, False)

    def __neg__(self) -> "Traced":
        """Return the negative."""
        return self._of(-self.value, f"(-{self.text})")

    def __abs__(self) -> "Traced":
        """Return the size."""
        return self._of(abs(self.value), f"Math.abs({self.text})")

    def _compared(self, other: Any, sign: str, found: bool) -> bool:
        text = other.text if isinstance(other, Traced) else _number(other)
        self.tracing.conditions[f"({self.text}{sign}{text})"] = found
        return found

    def __lt__(self, other: Any) -> bool:
        """Compare, and note how that came out."""
        return self._compared(other, "<", self.value < value_of(other))

    def __le__(self, other: Any) -> bool:
        """Compare, and note how that came out."""
        return self._compared(other, "<=", self.value <= value_of(other))

    def __gt__(self, other: Any) -> bool:
        """Compare, and note how that came out."""
        return self._compared(other, ">", self.value > value_of(other))

    def __ge__(self, other: Any) -> bool:
        """Compare, and note how that came out."""
        return self._compared(other, ">=", self.value >= value_of(other))

    def __eq__(self, other: object) -> bool:
        """Compare, and note how that came out."""
        if not isinstance(other, Traced | int | float):
            return False
        return self._compared(other, "===", self.value == value_of(other))

    def __ne__(self, other: object) -> bool:
        """Compare, and note how that came out."""
        return not self == other

    __hash__ = None  # type: ignore[assignment]

    def __bool__(self) -> bool:
        """Return whether it is not 0."""
        return self != 0.0

    def __format__(self, spec: str) -> str:
        """Format its present value."""
        return format(self.value, spec)

    def call(self, name: str, reckon: Callable[[float], float]) -> "Traced":
        """Return a function of it, by its name in JavaScript's Math."""
        return self._of(reckon(self.value), f"Math.{name}({self.text})")


def value_of(number: Any) -> float:
    """Return the plain value of a number."""
    return number.value if isinstance(number, Traced) else float(number)


def _number(value: Any) -> str:
    if value == math.inf:
        return "Infinity"
    return f"({value!r})" if value < 0.0 else repr(float(value))


def radians(angle_deg: Any) -> Any:
    """Return an angle in radians.

    >>> radians(180.0)
    3.141592653589793
    """
    return angle_deg * (math.pi / 180.0) if isinstance(angle_deg, Traced) else math.radians(angle_deg)


def tan(angle: Any) -> Any:
    """Return a tangent."""
    return angle.call("tan", math.tan) if isinstance(angle, Traced) else math.tan(angle)


def atan(number: Any) -> Any:
    """Return the angle of a tangent."""
    return number.call("atan", math.atan) if isinstance(number, Traced) else math.atan(number)


def sqrt(number: Any) -> Any:
    """Return a square root."""
    return number.call("sqrt", math.sqrt) if isinstance(number, Traced) else math.sqrt(number)


def log1p(number: Any) -> Any:
    """Return ln(1 + number)."""
    return number.call("log1p", math.log1p) if isinstance(number, Traced) else math.log1p(number)
