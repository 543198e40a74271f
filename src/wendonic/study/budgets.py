"""Compares the feel sheet with limits."""

from collections.abc import Iterator, Mapping

from wendonic.errors import WendonicError, none_such
from wendonic.length_unit import METRES, LengthUnit
from wendonic.study.feel_sheet import FeelSheet
from wendonic.study.quantities import QUANTITIES

Range = tuple[float | None, float | None]


def missed_limits(
    sheet: FeelSheet, limits: Mapping[str, Range], length: LengthUnit = METRES
) -> Iterator[tuple[str, str]]:
    """Yield (quantity, measured and allowed value in words) for each missed limit, lengths in the game's own unit. A
    quantity that the profile does not have misses every limit. Raises `WendonicError` for an unknown quantity.

    >>> from wendonic.demo import demo_profile
    >>> from wendonic.study.feel_sheet import measure
    >>> list(missed_limits(measure(demo_profile()), {"stop_distance_m": (None, 0.1)}))
    [('stop_distance_m', '0.1707 m; allowed: at most 0.1 m')]
    """
    for name, (low, high) in limits.items():
        if name not in QUANTITIES:
            raise WendonicError(none_such("quantity of the feel sheet", name, QUANTITIES))
        value, unit = sheet[name], QUANTITIES[name].unit
        least = f"at least {length.words(low, unit).rstrip()}" if low is not None else ""
        most = f"at most {length.words(high, unit).rstrip()}" if high is not None else ""
        allowed = " and ".join(words for words in (least, most) if words)
        if value is None:
            reason = sheet.reasons.get(name)
            yield name, f"no value{f' ({reason})' if reason else ''}; allowed: {allowed}"
        elif (low is not None and value < low) or (high is not None and value > high):
            # A value just beyond a limit must not be printed as the limit itself.
            shown = [length.words(value, unit, f".{digits}g").rstrip() for digits in (4, 6, 9, 17)]
            limits_shown = (least.removeprefix("at least "), most.removeprefix("at most "))
            yield name, f"{next((one for one in shown if one not in limits_shown), shown[0])}; allowed: {allowed}"
