"""What is wrong with a profile, found by trying it."""

from wendonic.batch import Engine
from wendonic.profile.schema import Profile
from wendonic.study.budgets import budget_findings
from wendonic.study.feel_sheet import measure
from wendonic.study.finding import Finding
from wendonic.study.habits import habit_findings, mode_findings
from wendonic.study.press_reach import press_findings
from wendonic.study.sheet_findings import sheet_findings
from wendonic.study.sides import side_findings
from wendonic.study.sticks import stick_findings
from wendonic.study.walking import walking_findings


def check(profile: Profile, engine: Engine = "auto") -> list[Finding]:
    """Return every finding about a profile, faults before notices, in the order of the modes.

    `engine` is that of `wendonic.shape`.

    >>> from wendonic.demo import demo_profile
    >>> [finding.slug for finding in check(demo_profile("store_room"))]
    ['diagonal-too-fast', 'opposites-do-not-cancel']
    """
    found = [*side_findings(profile), *mode_findings(profile)]
    for mode in profile.mode:
        found += walking_findings(profile, mode)
        found += stick_findings(profile, mode)
        found += habit_findings(profile, mode)
        found += press_findings(profile, mode)
        sheet = measure(profile, mode, engine)
        found += sheet_findings(profile, mode, sheet)
        if mode == profile.first_mode:
            found += budget_findings(profile, sheet)
    return sorted(found, key=lambda finding: finding.severity)
