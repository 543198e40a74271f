"""Numbers for people: a few significant digits, and powers of ten only if necessary."""

from decimal import Decimal

PLAIN_FROM = 1e-7
"""Smaller numbers have too many zeros, and are written as powers of ten."""


ROUNDING = 1e-9
"""A measured number below this is a remainder of rounding."""


def without_rounding(value: float) -> float:
    """Return a measured number, in its own unit; a remainder of rounding becomes 0.

    >>> without_rounding(-3e-17), without_rounding(0.25)
    (0.0, 0.25)
    """
    return float(value) if abs(value) >= ROUNDING else 0.0


def significant(value: float, digits: int) -> str:
    """Return a number rounded to some significant digits; zero has no sign.

    >>> [significant(value, 3) for value in (1800.4, 123456.0, 0.0012345, -0.0, 12.0, -0.000061234)]
    ['1800', '123000', '0.00123', '0', '12', '-0.0000612']
    """
    shown = f"{float(f'{value:.{digits}g}'):z.15g}"
    return f"{Decimal(shown):f}" if "e-" in shown and abs(value) >= PLAIN_FROM else shown


def clock_s(t_s: float) -> str:
    """Return a time of a recording (s) to the millisecond, without trailing zeros, however large it is.

    >>> clock_s(2.5), clock_s(1764500000.1234), clock_s(-0.0001), clock_s(float("nan"))
    ('2.5', '1764500000.123', '0', 'nan')
    """
    shown = f"{t_s:z.3f}"
    return shown.rstrip("0").rstrip(".") if "." in shown else shown
