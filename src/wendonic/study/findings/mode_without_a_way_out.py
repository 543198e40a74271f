"""A mode that cannot be left."""

from collections.abc import Iterator

from wendonic.study.finding import Case, Found, finding


@finding(20, "notice", "A player who enters this mode cannot leave it.")
def mode_without_a_way_out(case: Case) -> Iterator[Found]:
    """A mode that cannot be left."""
    others = [name for name in case.profile.mode if name != case.mode]
    if others and case.table.leave_to == ():
        leave = f"{case.where}.leave_to"
        yield Found(leave, "leads to no other mode", [{leave: [others[0]]}])
