"""A gait of the file that no mode uses."""

from collections.abc import Iterator

from wendonic.study.finding import Case, Found, finding


@finding(238, "notice", "Changing its numbers changes nothing.", once=True)
def gait_unused(case: Case) -> Iterator[Found]:
    """Look for gaits that are written, and that no mode and no press of a mode uses."""
    used = {name for mode in case.profile.mode for name in case.profile.gaits_of(mode)}
    for name in case.profile.gait:
        if name not in used and case.says(f"gait.{name}"):
            yield Found(
                f"gait.{name}",
                f"no mode uses gait {name}; in use: {', '.join(sorted(used - {'none'})) or 'none'}",
                (),
                f'write gait = "{name}" in a mode, or press_gaits = {{ PRESS = "{name}" }}',
            )
