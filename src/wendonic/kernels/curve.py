"""Step 4 of shaping: the response curve, tilt in and amount out."""

from wendonic.kernels.kernel import kernel

CURVE_LINEAR = 0
CURVE_POWER = 1


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
