"""Conversions between units of looking: counts, dpi, centimetres a turn, degrees a count, a rate at a field of
view.

A mouse counts `dpi` times an inch (2.54 cm). A turn is 360 degrees. A field of view is the whole angle that the
window shows along one axis; every formula here holds for either axis, if both numbers belong to the same one. Raises
`WendonicError` for a number that is not finite, or out of its range.
"""

import math

from wendonic.arithmetic import atan, radians, tan
from wendonic.errors import WendonicError

CM_PER_INCH = 2.54


def _above_zero(**numbers: float) -> None:
    for name, number in numbers.items():
        if not 0.0 < number < math.inf:
            raise WendonicError(f"{name}: found {number!r}; allowed: a finite number above 0")


def _angles_of_view(**angles_deg: float) -> None:
    for name, angle_deg in angles_deg.items():
        if not 0.0 < angle_deg < 180.0:
            raise WendonicError(f"{name}: found {angle_deg!r}; allowed: above 0 and below 180 degrees")


def _part_of_screen(at: float) -> None:
    if not 0.0 <= at <= 1.0:
        raise WendonicError(f"found {at!r} as a part of the screen; allowed: 0 (the middle) to 1 (the edge)")


def deg_per_count_from_cm(cm_per_turn: float, dpi: float) -> float:
    """Return degrees a count: 360 * 2.54 / (cm_per_turn * dpi).

    >>> round(deg_per_count_from_cm(cm_per_turn=34, dpi=800), 6)
    0.033618
    """
    _above_zero(cm_per_turn=cm_per_turn, dpi=dpi)
    return 360.0 * CM_PER_INCH / (cm_per_turn * dpi)


def cm_per_turn(deg_per_count: float, dpi: float) -> float:
    """Return how far the mouse moves for a full turn (cm): 360 * 2.54 / (deg_per_count * dpi).

    >>> round(cm_per_turn(deg_per_count=0.0336176470588, dpi=800), 6)
    34.0
    """
    _above_zero(deg_per_count=deg_per_count, dpi=dpi)
    return 360.0 * CM_PER_INCH / (deg_per_count * dpi)


def counts_per_turn(deg_per_count: float) -> float:
    """Return how many counts a full turn takes: 360 / deg_per_count.

    >>> counts_per_turn(0.05)
    7200.0
    """
    _above_zero(deg_per_count=deg_per_count)
    return 360.0 / deg_per_count


def deg_per_count_from_counts(counts_per_turn: float) -> float:
    """Return degrees a count: 360 / counts_per_turn.

    >>> deg_per_count_from_counts(7200)
    0.05
    """
    _above_zero(counts_per_turn=counts_per_turn)
    return 360.0 / counts_per_turn


def dpi_from_swipe(counts: float, cm: float) -> float:
    """Return the dpi of a mouse that reported `counts` over `cm`: counts * 2.54 / cm. Move it along a ruler to find
    out.

    >>> dpi_from_swipe(counts=3150, cm=10)
    800.1
    """
    _above_zero(counts=counts, cm=cm)
    return counts * CM_PER_INCH / cm


def other_fov_deg(fov_deg: float, aspect_ratio: float) -> float:
    """Return the horizontal field of view from the vertical one: 2 atan(aspect_ratio * tan(fov / 2)).

    For the reverse, pass one over the aspect ratio.

    >>> round(other_fov_deg(60, aspect_ratio=16 / 9), 3)
    91.493
    """
    _angles_of_view(fov_deg=fov_deg)
    _above_zero(aspect_ratio=aspect_ratio)
    return math.degrees(2.0 * math.atan(aspect_ratio * math.tan(math.radians(fov_deg) / 2.0)))


def screen_part(angle_deg: float, fov_deg: float) -> float:
    """Return where on the screen a point `angle_deg` off the view's middle is seen: 0 the middle, 1 the edge.

    Formula of a flat projection: tan(angle) / tan(fov / 2). `angle_deg` within -90..90, both left out.

    >>> round(screen_part(30, fov_deg=60), 12), round(screen_part(15, fov_deg=60), 6)
    (1.0, 0.464102)
    """
    _angles_of_view(fov_deg=fov_deg)
    if not -90.0 < angle_deg < 90.0:
        raise WendonicError(f"angle_deg: found {angle_deg!r}; allowed: above -90 and below 90")
    return math.tan(math.radians(angle_deg)) / math.tan(math.radians(fov_deg) / 2.0)


def zoom_ratio(fov_deg: float, zoom_fov_deg: float, match_at: float = 0.0) -> float:
    """Return the factor for a sensitivity while zoomed, so that it feels the same at one part of the screen.

    The same motion of the hand carries what is seen at `match_at` (0 the middle, 1 the edge) to the middle of the
    screen before and after. Formula: atan(p tan(zoom_fov / 2)) / atan(p tan(fov / 2)) with p = match_at, and its
    limit tan(zoom_fov / 2) / tan(fov / 2) at p = 0.

    >>> round(zoom_ratio(80, 40), 6), round(zoom_ratio(80, 40, match_at=1), 6)
    (0.433763, 0.5)
    """
    _angles_of_view(fov_deg=fov_deg, zoom_fov_deg=zoom_fov_deg)
    _part_of_screen(match_at)
    wide = tan(radians(fov_deg) / 2.0)
    narrow = tan(radians(zoom_fov_deg) / 2.0)
    ratio: float = narrow / wide if match_at < 1e-6 else atan(match_at * narrow) / atan(match_at * wide)
    return ratio


def half_windows_per_second(deg_s: float, fov_deg: float) -> float:
    """Return how fast the middle of the picture moves at a turn rate, in half window widths a second.

    Formula: radians(deg_s) / tan(fov / 2), the slope of `screen_part` at the middle. The same rate looks faster in a
    narrower field of view, which `zoom_ratio` compensates.

    >>> round(half_windows_per_second(90, fov_deg=90), 6)
    1.570796
    """
    _angles_of_view(fov_deg=fov_deg)
    if not math.isfinite(deg_s):
        raise WendonicError(f"deg_s: found {deg_s!r}; allowed: a finite number")
    return math.radians(deg_s) / math.tan(math.radians(fov_deg) / 2.0)


def deg_s_from_half_windows(half_windows_per_second: float, fov_deg: float) -> float:
    """Return the turn rate (deg/s) that moves the middle of the picture at a speed, see `half_windows_per_second`.

    >>> round(deg_s_from_half_windows(1.0, fov_deg=90), 6)
    57.29578
    """
    _angles_of_view(fov_deg=fov_deg)
    if not math.isfinite(half_windows_per_second):
        raise WendonicError(f"half_windows_per_second: found {half_windows_per_second!r}; allowed: a finite number")
    return math.degrees(half_windows_per_second * math.tan(math.radians(fov_deg) / 2.0))


def hand_cm_s(deg_s: float, cm_per_turn: float) -> float:
    """Return the speed of the hand (cm/s) for a turn rate: deg_s / 360 * cm_per_turn.

    >>> hand_cm_s(180, cm_per_turn=34)
    17.0
    """
    _above_zero(cm_per_turn=cm_per_turn)
    if not math.isfinite(deg_s):
        raise WendonicError(f"deg_s: found {deg_s!r}; allowed: a finite number")
    return deg_s / 360.0 * cm_per_turn


def one_sensitivity(
    dpi: float,
    cm_per_turn: float | None = None,
    deg_per_count: float | None = None,
    counts_per_turn: float | None = None,
) -> float:
    """Return degrees per count from the one sensitivity that is given; 34 cm per turn if none is.

    Raises `WendonicError` if more than one is given.

    >>> round(one_sensitivity(800), 6), one_sensitivity(800, counts_per_turn=7200)
    (0.033618, 0.05)
    """
    given = [number for number in (cm_per_turn, deg_per_count, counts_per_turn) if number is not None]
    if len(given) > 1:
        raise WendonicError(
            f"found {len(given)} of cm_per_turn, deg_per_count and counts_per_turn; allowed: one of them, "
            "the others follow from it and the dpi"
        )
    if deg_per_count is not None:
        _above_zero(deg_per_count=deg_per_count)
        return deg_per_count
    if counts_per_turn is not None:
        return deg_per_count_from_counts(counts_per_turn)
    return deg_per_count_from_cm(34.0 if cm_per_turn is None else cm_per_turn, dpi)


def look_table(
    deg_per_count: float, dpi: float, rate_deg_s: float, fov_deg: float, zoom_fov_deg: float
) -> list[tuple[str, float, str]]:
    """Return everything that follows from a sensitivity, a mouse, a rate and two fields of view: words, value, unit.

    >>> look_table(0.05, 800, 180, 80, 40)[1]
    ('counts for a full turn', 7200.0, 'counts')
    """
    turn_cm = cm_per_turn(deg_per_count, dpi)
    middle = half_windows_per_second(deg_per_count, fov_deg)
    rows = [
        ("one count of the mouse", deg_per_count, "deg"),
        ("counts for a full turn", counts_per_turn(deg_per_count), "counts"),
        ("mouse", dpi, "dpi"),
        ("mouse for a full turn", turn_cm, "cm"),
        ("mouse for a quarter turn", turn_cm / 4.0, "cm"),
        (f"one count in the middle of {fov_deg:g} deg of view", 100.0 * middle, "% of half a window"),
        (f"mouse from the edge to the middle of {fov_deg:g} deg of view", fov_deg / 720.0 * turn_cm, "cm"),
        (f"hand for {rate_deg_s:g} deg/s", hand_cm_s(rate_deg_s, turn_cm), "cm/s"),
        (f"mouse for {rate_deg_s:g} deg/s", rate_deg_s / deg_per_count, "counts/s"),
        (
            f"picture at {rate_deg_s:g} deg/s, {fov_deg:g} deg of view",
            half_windows_per_second(rate_deg_s, fov_deg),
            "half windows/s",
        ),
        (
            f"the same at {zoom_fov_deg:g} deg of view",
            half_windows_per_second(rate_deg_s, zoom_fov_deg),
            "half windows/s",
        ),
    ]
    for at, where in ((0.0, "the middle"), (0.5, "half-way out"), (1.0, "the edge")):
        ratio = zoom_ratio(fov_deg, zoom_fov_deg, at)
        rows.append((f"zoomed to {zoom_fov_deg:g} deg, matched at {where}", ratio, "times"))
        rows.append(("  mouse for a full turn while zoomed", turn_cm / ratio, "cm"))
    return rows
