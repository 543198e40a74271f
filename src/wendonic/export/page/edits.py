"""Where the numbers of a profile are in its text, so that a page without Python can write them: comments stay."""

import re
from collections.abc import Sequence
from typing import Any

import tomlkit
from tomlkit.items import InlineTable, Table

from wendonic.errors import WendonicError
from wendonic.profile.edit_content import UnwrittenTables
from wendonic.profile.edit_text import edited
from wendonic.profile.field_path import dotted, path_parts
from wendonic.profile.schema.profile import Profile
from wendonic.profile.units import as_written

PathParts = list[str | int]
MARK = 987654.5
NEW = "new_number"
EMPTY = "{}"
"""Stands before a line that is the first one of an empty inline table."""


class _Text:
    """A profile's text, and where its tables take a new number."""

    def __init__(self, text: str) -> None:
        self.text = text
        self.document: Any = tomlkit.parse(text)
        self.content: Any = self.document.unwrap()
        self._insertions: dict[str, tuple[int, str, str] | None] = {}

    def written(self, parts: PathParts) -> list[int] | None:
        """Return the start and end of the value at a path; None where it is not written."""
        found = self.content
        for part in parts:
            try:
                found = found[part]
            except (KeyError, IndexError, TypeError):
                return None
        start, end, new = _difference(self.text, edited(self.text, {dotted(parts): MARK}))
        if new not in str(MARK):
            return None
        # What both begin or end with is not part of the difference.
        before, after = str(MARK).partition(new)[::2]
        return [start - len(before), end + len(after)]

    def inside(self, parts: PathParts) -> tuple[int, str, str] | None:
        """Return where the table at a path takes a new line, and the text before and behind it; None where it
        cannot.
        """
        key = dotted(parts)
        if key not in self._insertions:
            self._insertions[key] = self._found(parts)
        return self._insertions[key]

    def table(self, parts: PathParts) -> Any:
        """Return the table at a path; None where there is none."""
        table = self.document
        for part in parts:
            try:
                table = table[part]
            except (KeyError, IndexError, TypeError):
                return None
        return table if isinstance(table, dict) else None

    def _found(self, parts: PathParts) -> tuple[int, str, str] | None:
        table = self.table(parts)
        if table is None or (not table and not isinstance(table, InlineTable)):
            return None
        if isinstance(table, InlineTable) and not table:
            at = self.written(parts)
            return (at[0] + 1, EMPTY, "") if at else None
        if isinstance(table, InlineTable):
            last = self.written([*parts, list(table)[-1]])
            return (last[1], ", ", "") if last else None
        try:
            start, end, new = _difference(self.text, edited(self.text, {dotted([*parts, NEW]): MARK}))
        except WendonicError:
            return None
        made = re.fullmatch(rf"(.*?){NEW} = {re.escape(str(MARK))}(.*)", new, re.DOTALL)
        return (start, made[1], made[2]) if made and start == end else None


def _difference(old: str, new: str) -> tuple[int, int, str]:
    """Return the start and end of the part of the old text that differs, and what replaces it."""
    start = 0
    while start < min(len(old), len(new)) and old[start] == new[start]:
        start += 1
    behind = 0
    while behind < min(len(old), len(new)) - start and old[-1 - behind] == new[-1 - behind]:
        behind += 1
    return start, len(old) - behind, new[start : len(new) - behind]


def text_edits(profile: Profile, text: str, paths: Sequence[str]) -> dict[str, Any]:
    """Return how a number at each path is written into a profile's text.

    Each has `factor`, by which a length is multiplied, and either `at`, the start and end of its value, or
    `put`, where a new line goes, with the text before and behind `name = value`; or `head`, a table to begin at
    the text's end. A number of a list that is not written has the paths of all in `list`. What cannot be written is
    left out.

    >>> from wendonic.demo import PROFILE_PATH, demo_profile
    >>> text = PROFILE_PATH.read_text()
    >>> start, end = text_edits(demo_profile(), text, ["gait.walk.accel_m_s2"])["gait.walk.accel_m_s2"]["at"]
    >>> text[start:end].strip()
    '22'
    """
    known = _Text(text)
    unwritten = UnwrittenTables(profile.file_content(), Profile.model_validate)
    found: dict[str, Any] = {}
    for path in paths:
        parts, factor = as_written(known.content, path_parts(path))
        one = _edit(known, parts)
        if one is None and isinstance(parts[-1], int):
            one = _edit(known, parts[:-1])
            if one and "at" not in one:
                start = path.rpartition("[")[0]
                one["list"] = [other for other in paths if other.rpartition("[")[0] == start]
        if one:
            found[path] = {"factor": factor, "with": _neighbours(known, unwritten, one, parts), **one}
    return found


def _neighbours(known: _Text, unwritten: UnwrittenTables, edit: dict[str, Any], parts: PathParts) -> list[str]:
    """Return what has to be written with the first number of a table, so that the others stay as they are."""
    if "at" in edit or "." not in edit["name"]:
        return []
    head = edit["name"].rpartition(".")[0]
    parent = parts[: -1 - isinstance(parts[-1], int)]
    if known.table(parent) is not None:
        return []
    held = unwritten.table(parent)
    return [f"{head}.{name} = {tomlkit.item(value).as_string()}" for name, value in held.items() if name != parts[-1]]


def _edit(known: _Text, parts: PathParts) -> dict[str, Any] | None:
    at = known.written(parts)
    if at:
        return {"at": at}
    if len(parts) == 1:
        # The file's own first lines: behind the one that says its version.
        end = known.text.index("\n", known.written(["version"])[1])  # type: ignore[index]
        return {"put": [end + 1, "", "\n"], "name": str(parts[0])}
    for depth in range(len(parts) - 1, 0, -1):
        rest = parts[depth:]
        if any(isinstance(part, int) for part in rest):
            return None
        table = known.table(parts[:depth])
        if table is None:
            continue
        if isinstance(table, Table) and table.is_super_table():
            # Its own name is written nowhere, only those of tables within it. A gait is a table by itself.
            more = 1 if parts[0] == "gait" and depth == 1 else 0
            return {"head": f"[{dotted(parts[: depth + more])}]", "name": dotted(parts[depth + more :])}
        insertion = known.inside(parts[:depth])
        if insertion:
            return {"put": list(insertion), "name": dotted(rest)}
    return {"head": f"[{dotted(parts[:2])}]", "name": dotted(parts[2:])} if parts[0] == "gait" else None
