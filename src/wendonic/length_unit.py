"""A game's own unit of length in tables, pictures and sentences."""

import math
from typing import NamedTuple

from wendonic.significant import significant

_LENGTHS = ("m", "m/s", "m/s²", "m/min")
"""Units that contain a length."""


class LengthUnit(NamedTuple):
    """The name of a game's unit, and how many of it are a metre.

    >>> pixels = LengthUnit("px", 50.0)
    >>> pixels.m(0.5), pixels.m_s(3.2), pixels.m_s2(22.0), pixels.m(0.123, ".3f")
    ('25 px', '160 px/s', '1100 px/s²', '6.2 px')
    """

    name: str
    per_m: float

    def m(self, metres: float, digits: str = "g") -> str:
        """Return a length (m) in words."""
        return self.words(metres, "m", digits)

    def m_s(self, speed_m_s: float, digits: str = "g") -> str:
        """Return a speed (m/s) in words."""
        return self.words(speed_m_s, "m/s", digits)

    def m_s2(self, rate_m_s2: float, digits: str = "g") -> str:
        """Return an acceleration (m/s²) in words."""
        return self.words(rate_m_s2, "m/s²", digits)

    def words(self, value: float, unit: str, digits: str = "g") -> str:
        """Return a value in a unit such as "m/s" in words; `digits` is the format for metres, "g" is six digits."""
        own = value * self.factor(unit)
        count = digits.removeprefix(".").rstrip("gf")
        if digits.endswith("f"):
            shown = f"{own:.{self.decimals(unit, int(count))}f}"
        else:
            shown = significant(own, int(count or 6))
        return f"{shown} {self.label(unit)}"

    def decimals(self, unit: str, in_metres: int) -> int:
        """Return the number of decimals for a value, from the number that metres would need: small units need fewer.

        >>> LengthUnit("px", 50.0).decimals("m/s", 3), LengthUnit("px", 50.0).decimals("s", 3)
        (1, 3)
        """
        return max(in_metres - max(round(math.log10(self.factor(unit))), 0), 0)

    def factor(self, unit: str) -> float:
        """Return the factor for values in a unit; 1 for a unit without a length.

        >>> LengthUnit("px", 50.0).factor("m/min"), LengthUnit("px", 50.0).factor("ms")
        (50.0, 1.0)
        """
        return self.per_m if unit in _LENGTHS else 1.0

    def label(self, unit: str) -> str:
        """Return the label of a unit.

        >>> LengthUnit("px", 50.0).label("m/s²"), LengthUnit("px", 50.0).label("deg")
        ('px/s²', 'deg')
        """
        return f"{self.name}{unit[1:]}" if unit in _LENGTHS else unit


METRES = LengthUnit("m", 1.0)


def common_unit(units: "list[LengthUnit]") -> LengthUnit:
    """Return the common unit of all, metres if they differ.

    >>> common_unit([LengthUnit("px", 50.0), LengthUnit("px", 32.0)])
    LengthUnit(name='m', per_m=1.0)
    """
    return units[0] if units and all(unit == units[0] for unit in units) else METRES
