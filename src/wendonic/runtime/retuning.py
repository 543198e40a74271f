"""A mode under another profile: what both have goes on as it was."""

from collections.abc import Sequence

from wendonic.compiler.ready import Record
from wendonic.profile.schema.profile import Profile
from wendonic.runtime.kept_numbers import KeptNumbers, same_sources
from wendonic.runtime.mode_run import ModeRun


def retuned_record(
    old: ModeRun, new: ModeRun, before: Profile, after: Profile, record: Record, row: Sequence[float]
) -> Record:
    """Return the record in which a mode goes on under another profile; `row` is the last sample.

    Presses are known by their names. What only the new profile has begins at rest, but for smoothing and ramps,
    which begin at what came out last: the intent does not jump for it.
    """
    had = before.press_names
    presses = {number: had.index(name) for number, name in enumerate(after.press_names) if name in had}
    sources = same_sources(before.mode[old.name], after.mode[new.name])
    made = list(new.record_at_rest)
    KeptNumbers(old, new, presses, sources, lambda _: True).write(made, record, row)
    return tuple(made)
