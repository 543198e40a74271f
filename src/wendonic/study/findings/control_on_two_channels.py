"""A control that two channels share."""

from collections.abc import Iterator

from wendonic.profile.double_bindings import double_bindings
from wendonic.profile.field_path import dotted
from wendonic.study.finding import Case, Found, finding


@finding(150, "notice", "One motion of the hand does two things at once.")
def control_on_two_channels(case: Case) -> Iterator[Found]:
    """A control that two channels share."""
    names = ("move", "rise", "throttle", "turn", "look", "goal")
    channels = {name: getattr(case.table, name).bind for name in names if getattr(case.table, name)}
    unshared = {
        name: tuple(bind.model_copy(update={"shared": False}) for bind in binds) for name, binds in channels.items()
    }
    for path, words in double_bindings(unshared, {}):
        parts = (int(part) if part.isdigit() else part for part in path.split("."))
        yield Found(dotted(["mode", case.mode, *parts]), words.split(";")[0], (), "bind it once")
