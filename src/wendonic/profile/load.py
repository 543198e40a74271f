"""Loads profiles."""

import re
import tomllib
from pathlib import Path
from typing import TypeVar

from pydantic import ValidationError

from wendonic.atomic_file import file_content
from wendonic.errors import Fault, FileError, ProfileError
from wendonic.profile.schema.profile import Profile
from wendonic.profile.schema.table import Table
from wendonic.profile.toml_slips import toml_slip

AnyTable = TypeVar("AnyTable", bound=Table)


def load_profile(path: str | Path) -> Profile:
    """Return the profile in the TOML file at `path`; raises `ProfileError` with all its faults at once.

    >>> load_profile("no_such_profile.toml")
    Traceback (most recent call last):
    wendonic.errors.ProfileError: no_such_profile.toml: cannot be read: No such file or directory
    """
    return profile_from_text(text_of(path, "profile", ProfileError), path)


def profile_from_text(text: str, path: str | Path = "<text>") -> Profile:
    """Return the profile in a TOML text; `path` is only for the messages.

    >>> profile = profile_from_text('''
    ... format = "wendonic-profile"
    ... version = 1
    ... [[mode.foot.move.bind]]
    ... stick = "pad.left_stick"
    ... ''')
    >>> profile.first_mode, profile.gait_of("foot").top_speed_m_s
    ('foot', 3.2)
    """
    if not text.strip():
        raise ProfileError(path, [Fault(None, "", 'is empty; "wendonic new" writes a profile to begin with')])
    return table_from_text(Profile, text, path, ProfileError)


def text_of(path: str | Path, kind: str, error: type[FileError]) -> str:
    """Return the text of a TOML file, or raise `error`."""
    content = file_content(path, kind, error)
    try:
        return content.decode("utf-8-sig")
    except UnicodeDecodeError as fault:
        line = content[: fault.start].count(b"\n") + 1
        raise error(path, [Fault(line, "", f"is not UTF-8 text; a {kind} is a TOML file")]) from None


def table_from_text(table: type[AnyTable], text: str, path: str | Path, error: type[FileError]) -> AnyTable:
    """Return the table of a TOML text, or raise `error` with all its faults at once."""
    try:
        content = tomllib.loads(text)
    except (tomllib.TOMLDecodeError, RecursionError) as fault:
        place = re.search(r" \(at line (\d+), column (\d+)\)$", str(fault))
        if place is None:
            raise error(path, [Fault(None, "", f"is not valid TOML: {fault}")]) from None
        line, column = int(place[1]), int(place[2])
        what = f"is not valid TOML: {toml_slip(text, line, column, str(fault)[: place.start()])}"
        raise error(path, [Fault(line, f"column {column}", what)]) from None
    try:
        return table.model_validate(content)
    except ValidationError as fault:
        from wendonic.profile.faults import table_faults

        raise error(path, table_faults(table, fault, content, text)) from None
