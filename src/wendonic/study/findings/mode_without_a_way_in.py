"""A mode that no other mode leads to."""

from collections.abc import Iterator

from wendonic.study.finding import Case, Found, finding


@finding(30, "notice", "This mode is never reached.")
def mode_without_a_way_in(case: Case) -> Iterator[Found]:
    """A mode that no other mode leads to."""
    profile = case.profile
    exits = [table.leave_to for name, table in profile.mode.items() if name != case.mode]
    if case.mode != profile.first_mode and not any(exit_to is None or case.mode in exit_to for exit_to in exits):
        first = profile.first_mode
        leads = {f"mode.{first}.leave_to": [*(profile.mode[first].leave_to or ()), case.mode]}
        yield Found(case.where, "no other mode leads to it", [leads])
