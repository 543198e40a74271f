"""Step 4 of shaping: the response curve, tilt in and amount out."""

from wendonic.kernels.kernel import Row, called_kernel, kernel

CURVE_LINEAR = 0
CURVE_POWER = 1
CURVE_EXPO = 2
CURVE_S = 3
CURVE_KNEE = 4
CURVE_POINTS = 5

PIECE_WIDTH = 5
"""Numbers of one piece of a curve through points: the tilt it begins at, then four coefficients."""


@kernel
def response_curve(tilt: float, form: int, exponent: float) -> float:
    """Return the wanted amount, 0..1, for a `tilt` of 0..1 that has left its dead zone.

    `CURVE_LINEAR`: amount = tilt. `CURVE_POWER`: amount = tilt ** exponent, exponent > 0; above 1 small
    tilts become finer, below 1 coarser. Both are monotone with f(0) = 0 and f(1) = 1.

    >>> response_curve(0.5, CURVE_LINEAR, 1.0), response_curve(0.5, CURVE_POWER, 2.0)
    (0.5, 0.25)
    """
    if form == CURVE_POWER:
        return float(tilt**exponent)
    return tilt


@called_kernel
def points_curve(tilt: float, tables: Row, points: int) -> float:
    """Return the amount at `tilt` on a monotone cubic through points (Fritsch and Butland 1984, as SciPy's PCHIP).

    At place `points` of `tables` stands how many pieces there are, then PIECE_WIDTH numbers of each: a, c3, c2, c1,
    c0. On the piece that begins at tilt a, with u = tilt - a: c0 + c1 u + c2 u² + c3 u³, to rounding what SciPy
    gives.

    >>> points_curve(0.75, (2.0, 0.0, 0.0, 0.0, 0.5, 0.0, 0.5, 0.0, 0.0, 1.5, 0.25), 0)
    0.625
    """
    low = 0
    high = int(tables[points]) - 1
    while low < high:
        middle = (low + high + 1) // 2
        if tables[points + 1 + middle * PIECE_WIDTH] <= tilt:
            low = middle
        else:
            high = middle - 1
    place = points + 1 + low * PIECE_WIDTH
    past = tilt - tables[place]
    return ((tables[place + 1] * past + tables[place + 2]) * past + tables[place + 3]) * past + tables[place + 4]


@kernel
def any_curve(
    tilt: float,
    form: int,
    exponent: float,
    amount: float,
    knee_tilt: float,
    floor: float,
    ceiling: float,
    tables: Row,
    points: int,
) -> float:
    """Return the wanted amount for a `tilt` of 0..1 under any form, between `floor` and `ceiling`.

    `CURVE_LINEAR` and `CURVE_POWER` as in `response_curve`. `CURVE_EXPO`: (1 - a) u + a u³, a = `amount`.
    `CURVE_S`: (1 - a) u + a (3 u² - 2 u³), finer at both ends. `CURVE_KNEE`: two straight rates that meet at tilt
    `knee_tilt` and value `amount`, both within 0..1. `CURVE_POINTS`: see `points_curve`. All are monotone from
    f(0) = 0 to f(1) = 1. A tilt above 0 then gives floor + (ceiling - floor) f: the pad's own dead zone in a game
    that has one is jumped over by the floor.

    >>> any_curve(0.5, CURVE_EXPO, 1.0, 0.6, 0.5, 0.0, 1.0, (), 0)
    0.275
    >>> any_curve(0.75, CURVE_KNEE, 1.0, 0.25, 0.5, 0.2, 0.9, (), 0)
    0.6375
    """
    if tilt <= 0.0:
        return 0.0
    value = response_curve(tilt, form, exponent)
    if form == CURVE_EXPO:
        value = (1.0 - amount) * tilt + amount * tilt * tilt * tilt
    elif form == CURVE_S:
        value = (1.0 - amount) * tilt + amount * tilt * tilt * (3.0 - 2.0 * tilt)
    elif form == CURVE_KNEE:
        if tilt < knee_tilt:
            value = tilt * amount / knee_tilt
        else:
            value = amount + (tilt - knee_tilt) * (1.0 - amount) / (1.0 - knee_tilt)
    elif form == CURVE_POINTS:
        # Rounding may take the last piece a hair past 1.
        value = min(max(points_curve(tilt, tables, points), 0.0), 1.0)
    return floor + (ceiling - floor) * value
