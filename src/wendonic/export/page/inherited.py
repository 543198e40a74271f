"""Which numbers of a mode are another one's, because it is `like` that and says nothing of them itself."""

import copy
from collections.abc import Sequence
from typing import Any

from wendonic.profile.field_path import path_parts
from wendonic.profile.inherited import with_inherited
from wendonic.profile.schema.profile import Profile


def inherited_paths(profile: Profile, paths: Sequence[str]) -> dict[str, str]:
    """Return for the paths of inherited numbers those of the mode that they are from.

    >>> from wendonic.demo import demo_profile
    >>> of_inspect, of_foot = (f"mode.{mode}.move.half_life_s" for mode in ("inspect", "foot"))
    >>> inherited_paths(demo_profile("rounds"), [of_inspect, of_foot]) == {of_inspect: of_foot}
    True
    """
    content = profile.file_content()
    known = set(paths)
    found: dict[str, str] = {}
    for path in paths:
        parts = path_parts(path)
        if parts[0] != "mode":
            continue
        mode = str(parts[1])
        like = profile.mode[mode].like
        other = path.replace(f"mode.{mode}.", f"mode.{like}.", 1)
        if like and other in known and _follows(content, path_parts(other), parts):
            found[path] = other
    return found


def _follows(content: Any, path: Sequence[str | int], to: Sequence[str | int]) -> bool:
    """Return whether what is written at one path is there at another one, too."""
    mark = object()
    tried = {"mode": copy.deepcopy(content["mode"])}
    table: Any = tried
    for part, after in zip(path, [*path[1:], None], strict=True):
        if after is None:
            if isinstance(part, int) and not isinstance(table, list):
                return False
            table[part] = mark
        elif isinstance(part, int):
            table = table[part]
        else:
            # A list that is not written is one of defaults: it is followed as a whole.
            table = table.setdefault(part, [None] * (after + 1) if isinstance(after, int) else {})
    found: Any = with_inherited(tried)
    try:
        for part in to:
            found = found[part]
    except (KeyError, IndexError, TypeError):
        return False
    return found is mark
