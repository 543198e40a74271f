"""What is wrong with a profile, found by trying it."""

from wendonic.profile.schema import Profile
from wendonic.study.finding import Finding
from wendonic.study.sides import side_findings


def check(profile: Profile) -> list[Finding]:
    """Return every finding about a profile, faults before notices.

    >>> from wendonic.demo import demo_profile
    >>> check(demo_profile("cart"))
    []
    """
    return sorted(side_findings(profile), key=lambda finding: finding.severity)
