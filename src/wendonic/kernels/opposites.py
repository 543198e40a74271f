"""Step 5 of shaping, first half: two keys that pull opposite ways."""

from wendonic.kernels.kernel import kernel


@kernel
def cancelled_opposites(positive: float, negative: float) -> float:
    """Return what two opposite keys ask for together under `opposites = "cancel"`: -1, 0 or 1.

    Formula: positive - negative, each 0 (up) or 1 (down); both down is exactly 0.

    >>> cancelled_opposites(1.0, 0.0), cancelled_opposites(1.0, 1.0), cancelled_opposites(0.0, 1.0)
    (1.0, 0.0, -1.0)
    """
    return positive - negative
