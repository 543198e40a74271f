"""Settings that have no effect where they are."""

from collections.abc import Iterator

from wendonic.profile.field_path import dotted
from wendonic.profile.schema.table import idle_settings
from wendonic.profile.units import words_spelled_in
from wendonic.study.finding import Case, Found, finding


@finding(240, "notice", "Changing it makes no difference.", once=True)
def idle_number(case: Case) -> Iterator[Found]:
    """Settings that have no effect where they are."""
    for path, words in idle_settings(case.profile):
        where = dotted(path)
        # A mode with `like` inherits idle settings too, but they are written only once.
        if case.says(where):
            measured = words_spelled_in(case.profile.world.length, words)
            yield Found(where, measured, [{where: None}], "or leave it there while you try others")
