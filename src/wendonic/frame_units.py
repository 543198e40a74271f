"""Converts per-frame numbers to per-second ones."""

import math

from wendonic.errors import WendonicError


def _check_hz(hz: float) -> None:
    if not 0.0 < hz < math.inf:
        raise WendonicError(f"hz: found {hz!r}; allowed: a finite number above 0, frames a second")


def _check_finite(name: str, number: float) -> None:
    if not math.isfinite(number):
        raise WendonicError(f"{name}: found {number!r}; allowed: a finite number")


def half_life_s_from_factor(factor: float, hz: float) -> float:
    """Return the half-life (s) of what is multiplied by `factor` each frame: -1 / (hz log2(factor)).

    `factor` above 0 and below 1, `hz` frames a second; raises `WendonicError` otherwise. Moving a share s of the
    remaining distance each frame leaves 1 - s of it, which is the factor.

    >>> round(half_life_s_from_factor(0.9, hz=30), 3), half_life_s_from_factor(0.5, hz=60) == 1 / 60
    (0.219, True)
    """
    _check_hz(hz)
    if not 0.0 < factor < 1.0:
        raise WendonicError(
            f"factor: found {factor!r}; allowed: above 0 and below 1: the share that is left after a frame"
        )
    return -1.0 / (hz * math.log2(factor))


def drag_per_s_from_factor(factor: float, hz: float) -> float:
    """Return the drag (1/s) that leaves `factor` of a speed after each frame: -hz ln(factor).

    >>> round(drag_per_s_from_factor(0.9, hz=30), 3)
    3.161
    """
    return math.log(2.0) / half_life_s_from_factor(factor, hz)


def per_second(per_frame: float, hz: float) -> float:
    """Return a rate per second from one per frame: per_frame * hz.

    >>> per_second(3.0, hz=30)
    90.0
    """
    _check_hz(hz)
    _check_finite("per_frame", per_frame)
    return per_frame * hz


def per_second_squared(per_frame_squared: float, hz: float) -> float:
    """Return an acceleration for each second squared from one that is added to a speed each frame:
    per_frame_squared * hz².

    >>> per_second_squared(0.2, hz=30)
    180.0
    """
    _check_hz(hz)
    _check_finite("per_frame_squared", per_frame_squared)
    return per_frame_squared * hz * hz


def frame_table(
    hz: float,
    factor: float | None = None,
    share: float | None = None,
    per_frame: float | None = None,
    per_frame_squared: float | None = None,
    unit: str = "",
) -> list[tuple[str, float, str]]:
    """Return the results for each per-frame number that is given: words, value, unit.

    >>> for words, value, units in frame_table(30, share=0.1, per_frame_squared=0.2, unit="px"):
    ...     print(words, f"{value:.4g}", units)
    half-life of covering 0.1 of the rest each frame 0.2193 s
    drag, if it is of a speed 3.161 1/s
    0.2 px/frame² 180 px/s²
    """
    rows: list[tuple[str, float, str]] = []
    unit_name = unit or "units"
    shares = [] if share is None else [(1.0 - share, f"covering {share:g} of the rest each frame")]
    factors = [] if factor is None else [(factor, f"times {factor:g} each frame")]
    if share is not None and not 0.0 < share < 1.0:
        raise WendonicError(
            f"share: found {share!r}; allowed: above 0 and below 1: the share that is gone after a frame"
        )
    for left, words in factors + shares:
        rows.append((f"half-life of {words}", half_life_s_from_factor(left, hz), "s"))
        rows.append(("drag, if it is of a speed", drag_per_s_from_factor(left, hz), "1/s"))
    if per_frame is not None:
        rows.append((f"{per_frame:g} {unit_name}/frame", per_second(per_frame, hz), f"{unit_name}/s"))
    if per_frame_squared is not None:
        words = f"{per_frame_squared:g} {unit_name}/frame²"
        rows.append((words, per_second_squared(per_frame_squared, hz), f"{unit_name}/s²"))
    return rows
