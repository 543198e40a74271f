"""Numbers as people read them: a few significant digits, and no powers of ten where a plain number does."""


def significant(value: float, digits: int) -> str:
    """Return a number rounded to so many significant digits; zero has no sign.

    >>> [significant(value, 3) for value in (1800.4, 123456.0, 0.0012345, -0.0, 12.0)]
    ['1800', '123000', '0.00123', '0', '12']
    """
    return f"{float(f'{value:.{digits}g}'):z.15g}"
