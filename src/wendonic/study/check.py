"""What is wrong with a profile, found by trying it."""

from wendonic.batch import Engine
from wendonic.profile.schema.profile import Profile
from wendonic.study.finding import Case, Finding
from wendonic.study.findings import FINDINGS


def check(profile: Profile, engine: Engine = "auto") -> list[Finding]:
    """Return every finding about a profile, faults before notices, in the order of the modes.

    `engine` is that of `wendonic.shape`.

    >>> from wendonic.demo import demo_profile
    >>> [finding.slug for finding in check(demo_profile("store_room"))]
    ['diagonal-too-fast', 'opposites-do-not-cancel']
    """
    found: list[Finding] = []
    for mode in profile.mode:
        case = Case(profile, mode, engine)
        for kind in FINDINGS.values():
            if mode == profile.first_mode or not kind.once:
                found += kind.findings(case)
    return sorted(found, key=lambda finding: finding.severity)
