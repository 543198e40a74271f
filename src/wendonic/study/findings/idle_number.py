"""Settings that do nothing where they stand."""

from collections.abc import Iterator, Sequence
from typing import Any

from wendonic.profile.edit import path_parts
from wendonic.profile.faults import dotted
from wendonic.profile.schema.table import idle_settings
from wendonic.profile.units import as_written
from wendonic.study.finding import Case, Found, finding


@finding(240, "notice", "Whoever turns it up and feels for a difference finds none.", once=True)
def idle_number(case: Case) -> Iterator[Found]:
    """Settings that do nothing where they stand."""
    for path, words in idle_settings(case.profile):
        where = dotted(path)
        # A mode that begins as another one has its idle settings too, but they are written only once.
        if _is_written(case.profile.written, where):
            yield Found(where, words, "take it out, or leave it there while you try others")


def _is_written(content: Any, where: str) -> bool:
    path: Sequence[str | int] = as_written(content, path_parts(where))[0]
    for part in path:
        try:
            content = content[part]
        except (KeyError, IndexError, TypeError):
            return False
    return True
