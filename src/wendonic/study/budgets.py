"""The feel sheet against limits."""

from collections.abc import Iterator, Mapping

from wendonic.errors import none_such
from wendonic.profile.schema import Profile
from wendonic.study.feel_sheet import DEFINITIONS, FeelSheet
from wendonic.study.finding import Finding

Range = tuple[float | None, float | None]


def over_budget(sheet: FeelSheet, limits: Mapping[str, Range]) -> Iterator[tuple[str, str]]:
    """Give (quantity, what was measured and what is allowed) for each that a sheet misses.

    A quantity that the profile does not have misses every limit. Raises `WendonicError` for one that no sheet has.

    >>> from wendonic.demo import demo_profile
    >>> from wendonic.study.feel_sheet import measure
    >>> list(over_budget(measure(demo_profile()), {"stop_distance_m": (None, 0.1)}))
    [('stop_distance_m', '0.1946 m; allowed: at most 0.1 m')]
    """
    values = sheet._asdict()
    for name, (low, high) in limits.items():
        if name not in values:
            raise LookupError(none_such("quantity of the feel sheet", name, values))
        value, unit = values[name], DEFINITIONS[name][0]
        tail = f" {unit}" if unit else ""
        least = f"at least {low:g}{tail}" if low is not None else ""
        most = f"at most {high:g}{tail}" if high is not None else ""
        allowed = " and ".join(words for words in (least, most) if words)
        if value is None:
            yield name, f"this mode has none; allowed: {allowed}"
        elif (low is not None and value < low) or (high is not None and value > high):
            yield name, f"{value:.4g}{tail}; allowed: {allowed}"


def budget_findings(profile: Profile, sheet: FeelSheet) -> Iterator[Finding]:
    """Give the quantities of the first mode's sheet that miss the profile's own budget."""
    limits = {name: (limit.min, limit.max) for name, limit in profile.budget.items()}
    for name, words in over_budget(sheet, limits):
        low, high = limits[name]
        aim = high if high is not None else low
        yield Finding(
            "over-budget",
            "fault",
            f"budget.{name}",
            f"{name}: {words}",
            f"It is {DEFINITIONS[name][1]}; the profile sets itself this limit.",
            f"wendonic fit PROFILE --target {name}={aim:g} --free gait.walk.brake_m_s2 (or another setting)",
        )
