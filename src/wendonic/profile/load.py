"""A profile from a file."""

import re
import tomllib
from pathlib import Path

from pydantic import ValidationError

from wendonic.errors import Fault, ProfileError
from wendonic.profile.schema import Profile
from wendonic.whole_file import file_content


def load_profile(path: str | Path) -> Profile:
    """Return the profile in the TOML file at `path`; raises `ProfileError` with all its faults at once.

    >>> load_profile("no_such_profile.toml")
    Traceback (most recent call last):
    wendonic.errors.ProfileError: no_such_profile.toml: cannot be read: No such file or directory
    """
    content = file_content(path, "profile", ProfileError)
    try:
        text = content.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        line = content[: error.start].count(b"\n") + 1
        raise ProfileError(path, [Fault(line, "", "is no UTF-8 text; a profile is a TOML file")]) from None
    return profile_from_text(text, path)


def profile_from_text(text: str, path: str | Path = "<text>") -> Profile:
    """Return the profile in a TOML text; `path` only stands in the messages.

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
    try:
        content = tomllib.loads(text)
    except (tomllib.TOMLDecodeError, RecursionError) as error:
        place = re.search(r" \(at line (\d+), column (\d+)\)$", str(error))
        if place is None:
            raise ProfileError(path, [Fault(None, "", f"is no TOML: {error}")]) from None
        what = f"is no TOML: {str(error)[: place.start()]}"
        raise ProfileError(path, [Fault(int(place[1]), f"column {place[2]}", what)]) from None
    try:
        return Profile.model_validate(content)
    except ValidationError as error:
        from wendonic.profile.faults import profile_faults

        raise ProfileError(path, profile_faults(error, content, text)) from None
