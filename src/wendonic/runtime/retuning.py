"""Carries a mode over to another profile: what both profiles have continues as it was."""

from collections.abc import Sequence

from wendonic.compiler.ready import Record
from wendonic.profile.schema.profile import Profile
from wendonic.runtime.kept_numbers import KeptNumbers, same_sources
from wendonic.runtime.mode_run import ModeRun


def retuned_record(
    old: ModeRun, new: ModeRun, before: Profile, after: Profile, record: Record, row: Sequence[float]
) -> Record:
    """Return the record with which a mode continues under another profile; `row` is the last sample.

    Presses are matched by name. What only the new profile has begins at rest, except smoothing and ramps, which begin
    at the last output, so that the intent does not jump.
    """
    had = before.press_names
    presses = {number: had.index(name) for number, name in enumerate(after.press_names) if name in had}
    sources = same_sources(before.mode[old.name], after.mode[new.name])
    made = list(new.record_at_rest)
    KeptNumbers(old, new, presses, sources, lambda _: True).write(made, record, row)
    return tuple(made)
