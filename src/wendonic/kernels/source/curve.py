"""Step 4 of shaping: the response curve, tilt in and amount out."""

from typing import NamedTuple

from wendonic.kernels.row import Row

CURVE_LINEAR = 0
CURVE_POWER = 1
CURVE_EXPO = 2
CURVE_S = 3
CURVE_KNEE = 4
CURVE_POINTS = 5

PIECE_WIDTH = 5
"""Numbers of one piece of a curve through points: the tilt at which it begins, then four coefficients."""


def points_curve(tilt: float, tables: Row, points: int) -> float:
    """Return the amount at `tilt` on a monotone cubic through points (Fritsch and Butland 1984, as SciPy's PCHIP).

    At index `points` of `tables` is the number of pieces, followed by PIECE_WIDTH numbers for each: a, c3, c2, c1,
    c0. On the piece that begins at tilt a, with u = tilt - a: c0 + c1 u + c2 u² + c3 u³, equal to SciPy up to
    rounding.

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


class CurveTuning(NamedTuple):
    """A form with its numbers: `exponent` of a power, `amount` of an expo or S curve and of a knee at `knee_tilt`;
    `points` is where the pieces of a curve through points begin in the tables. `ends` is 1 if any tilt gives at least
    `floor` and full tilt gives `ceiling`; `per_axis` is 1 for a separate curve on each axis.
    """

    form: int
    points: int
    ends: int
    per_axis: int
    exponent: float
    amount: float
    knee_tilt: float
    floor: float
    ceiling: float


LINEAR = CurveTuning(CURVE_LINEAR, 0, 0, 0, 1.0, 0.0, 0.5, 0.0, 1.0)


def curve_amount(tuning: CurveTuning, tables: Row, tilt: float) -> float:
    """Return the wanted amount for a `tilt` above 0, up to 1, under any form, between `floor` and `ceiling`.

    `CURVE_LINEAR`: the tilt itself. `CURVE_POWER`: tilt ** exponent; above 1 small tilts become finer, below 1
    coarser. `CURVE_EXPO`: (1 - a) u + a u³, a = `amount`. `CURVE_S`: (1 - a) u + a (3 u² - 2 u³), finer at both ends.
    `CURVE_KNEE`: two straight rates that meet at tilt `knee_tilt` and value `amount`, both within 0..1.
    `CURVE_POINTS`: see `points_curve`. All are monotone from f(0) = 0 to f(1) = 1. A tilt above 0 then gives floor +
    (ceiling - floor) f: the floor skips a dead zone that the game itself has.

    >>> curve_amount(LINEAR._replace(form=CURVE_POWER, exponent=2.0), (), 0.5)
    0.25
    >>> curve_amount(LINEAR._replace(form=CURVE_EXPO, amount=0.6), (), 0.5)
    0.275
    >>> curve_amount(LINEAR._replace(form=CURVE_KNEE, amount=0.25, ends=1, floor=0.2, ceiling=0.9), (), 0.75)
    0.6375
    """
    value = tilt
    amount = tuning.amount
    if tuning.form == CURVE_POWER:
        # u^exponent for a tilt u
        value = float(tilt**tuning.exponent)
    elif tuning.form == CURVE_EXPO:
        # (1 - a) u + a u³ for a tilt u
        value = (1.0 - amount) * tilt + amount * tilt * tilt * tilt
    elif tuning.form == CURVE_S:
        # (1 - a) u + a (3 u² - 2 u³) for a tilt u
        value = (1.0 - amount) * tilt + amount * tilt * tilt * (3.0 - 2.0 * tilt)
    elif tuning.form == CURVE_KNEE:
        # Two straight rates, which meet at the knee.
        if tilt < tuning.knee_tilt:
            value = tilt * amount / tuning.knee_tilt
        else:
            value = amount + (tilt - tuning.knee_tilt) * (1.0 - amount) / (1.0 - tuning.knee_tilt)
    elif tuning.form == CURVE_POINTS:
        # Rounding may take the last piece slightly past 1.
        value = min(max(points_curve(tilt, tables, tuning.points), 0.0), 1.0)
    if tuning.ends > 0:
        # floor + (ceiling - floor) f for what the form gives, f
        value = tuning.floor + (tuning.ceiling - tuning.floor) * value
    return value
