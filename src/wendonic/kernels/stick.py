"""A stick in any form: centre, gate, dead zone and curve one after another."""

import math
from typing import NamedTuple

from wendonic.kernels.curve import any_curve
from wendonic.kernels.dead_zone import ZONE_ROUND, zoned
from wendonic.kernels.gate import GATE_CIRCLE, gated
from wendonic.kernels.kernel import Row, called_kernel


class StickForm(NamedTuple):
    """What a stick's shaping has besides the usual: a round zone, a circular gate and a curve from 0 to 1.

    The centre is x right and y ahead; a `release` below 0 is none. `amount` and `knee_tilt` belong to the curve's
    form, `per_axis` is 1 for a curve on each axis by itself. `rim` and `points` are places in the tuning's `tables`.
    """

    gate: int
    centre_x: float
    centre_y: float
    zone: int
    release: float
    amount: float
    knee_tilt: float
    floor: float
    ceiling: float
    per_axis: int
    rim: int = 0
    points: int = 0


USUAL_FORM = StickForm(GATE_CIRCLE, 0.0, 0.0, ZONE_ROUND, -1.0, 0.0, 0.5, 0.0, 1.0, 0)


@called_kernel
def formed(
    x: float,
    y: float,
    inner: float,
    outer: float,
    curve_form: int,
    exponent: float,
    form: StickForm,
    was_out: int,
    tables: Row,
) -> tuple[float, float]:
    """Return what a stick at (x, y), raw, right and ahead, asks for.

    `was_out` is 1 if it was out of its dead zone a tick ago: then it stays out until it is back at its release.

    >>> x, y = formed(0.0, 0.6, 0.2, 1.0, 0, 1.0, USUAL_FORM, 0, ())
    >>> x, round(y, 12)
    (0.0, 0.5)
    """
    gate, centre_x, centre_y, zone, release, amount, knee_tilt, floor, ceiling, per_axis, rim, points = form
    # A rim is as far from where the stick rests as its hand can push it, so the rest comes off first.
    x, y = gated(x - centre_x, y - centre_y, gate, tables, rim)
    edge = release if was_out > 0 and release >= 0.0 else inner
    x, y = zoned(x, y, zone, inner, outer, edge)
    if per_axis > 0:
        across = any_curve(abs(x), curve_form, exponent, amount, knee_tilt, floor, ceiling, tables, points)
        along = any_curve(abs(y), curve_form, exponent, amount, knee_tilt, floor, ceiling, tables, points)
        return 0.0 - across if x < 0.0 else across, 0.0 - along if y < 0.0 else along
    length = math.hypot(x, y)
    if length == 0.0:
        return 0.0, 0.0
    value = any_curve(min(length, 1.0), curve_form, exponent, amount, knee_tilt, floor, ceiling, tables, points)
    scale = value / length
    # A corner beyond the rim stays as far beyond it; the diagonal rule has the last word.
    if length > 1.0:
        scale *= length
    return x * scale, y * scale
