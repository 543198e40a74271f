"""For a game's own tests: checks that a profile keeps its feel."""

from pathlib import Path

from wendonic.profile.load import load_profile
from wendonic.profile.schema.profile import Profile
from wendonic.profile.units import spelled_in
from wendonic.study.budgets import Range, missed_limits
from wendonic.study.feel_sheet import known_quantity, measure


def assert_feel(
    profile: Profile | str | Path,
    mode: str | None = None,
    *,
    by: str | None = None,
    held: str | None = None,
    seat: str | None = None,
    **limits: Range,
) -> None:
    """Measure a profile (or the one in a file) and raise `AssertionError` with every quantity that misses its limits.

    Each limit is (smallest, largest) in the unit of the feel sheet, or in the game's own (`stop_distance_u`), None
    for no limit; `mode` is the first one by default, `by`, `held` and `seat` are as in
    `wendonic.study.feel_sheet.measure`. Only these quantities are measured. One that the mode does not have misses
    every limit. Raises `WendonicError` for a quantity, mode, device, press or seat that does not exist,
    `ProfileError` for a file with faults.

    >>> from wendonic.demo import demo_profile
    >>> assert_feel(demo_profile(), stop_distance_m=(None, 0.35), diagonal_ratio=(0.99, 1.01))
    >>> assert_feel(demo_profile(), reach90_s=(None, 0.1))
    Traceback (most recent call last):
    AssertionError: mode foot: reach90_s 0.1309 s; allowed: at most 0.1 s
    """
    found = profile if isinstance(profile, Profile) else load_profile(profile)
    name = found.mode_name(mode)
    length = found.world.length
    in_metres_of: dict[str, Range] = {}
    for quantity, (least, most) in limits.items():
        known, factor = known_quantity(quantity, length)
        low, high = (None if limit is None else limit * factor for limit in (least, most))
        in_metres_of[known] = (low, high)
    sheet = measure(found, name, only=in_metres_of, by=by, held=held, seat=seat)
    missed = [
        f"{spelled_in(length, quantity)} {words}" for quantity, words in missed_limits(sheet, in_metres_of, length)
    ]
    if missed:
        raise AssertionError(f"mode {name}: " + "\n".join(missed))
