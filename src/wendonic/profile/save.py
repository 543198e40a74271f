"""Saves profiles: comments, order and layout of an existing file stay."""

import codecs
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import tomlkit

from wendonic.atomic_file import atomic_file
from wendonic.errors import ProfileError, WendonicError
from wendonic.profile.edit_text import edited
from wendonic.profile.load import profile_from_text, text_of
from wendonic.profile.schema.profile import Profile, known_profile


def save_profile(profile: Profile, path: str | Path) -> None:
    """Write a profile to the TOML file at `path`, whole or not at all.

    If there is a profile already, only what differs is changed in its text; otherwise it is written in the order of
    the profile. Loaded again, it is the same profile. Raises `ProfileError` for a file with faults, which is left as
    it is, and `WendonicError` for a place that cannot be written.

    >>> import tempfile
    >>> from wendonic.demo import PROFILE_PATH
    >>> from wendonic.profile.load import load_profile
    >>> with tempfile.TemporaryDirectory() as folder:
    ...     file = Path(folder, "mine.toml")
    ...     _ = file.write_text(PROFILE_PATH.read_text())
    ...     save_profile(load_profile(file).changed({"gait.walk.accel_m_s2": 9}), file)
    ...     [line for line in file.read_text().splitlines() if "accel_m_s2" in line]
    ['accel_m_s2 = 9             # rate at which speed rises']
    """
    known_profile(profile)
    target = Path(path)
    text = text_of(path, "profile", ProfileError) if target.exists() else ""
    write_profile_text(saved_text(profile, text, path), target)


def write_profile_text(text: str, path: str | Path) -> None:
    """Write a profile's text to a file, whole or not at all; a file that begins with a byte-order mark keeps it.

    Raises `WendonicError` for a place that cannot be written.
    """
    target = Path(path)
    marked = target.exists() and target.read_bytes().startswith(codecs.BOM_UTF8)
    with atomic_file(target) as beside:
        beside.write_text(text, encoding="utf-8-sig" if marked else "utf-8", newline="")


def saved_text(profile: Profile, text: str, path: str | Path = "<text>") -> str:
    """Return a profile as TOML, in the layout of a `text` that already holds one, or anew for an empty one.

    Raises `ProfileError` for a text with faults, and `WendonicError` if the result would not load as the same
    profile.

    >>> foot = 'format = "wendonic-profile"\\nversion = 1\\n[[mode.foot.move.bind]]\\nstick = "pad.left_stick"\\n'
    >>> text = f'{foot}[mode.aim]\\nlike = "foot"\\n'
    >>> changed = profile_from_text(text).changed({"mode.aim.move.bind[0].dead_zone.inner": 0.2})
    >>> saved_text(changed, text).splitlines()[-1]
    'move = { bind = [{ stick = "pad.left_stick", dead_zone = { inner = 0.2 } }] }'
    """
    content = profile.file_content()
    if text.strip():
        before = profile_from_text(text, path).file_content()
        new = edited(text, dict(_differences(before, content, "")))
    else:
        new = tomlkit.dumps(content)
    if not _holds(new, profile):
        raise WendonicError(f"{path}: the text to write would not load as the same profile; nothing was written")
    return new


def _holds(text: str, profile: Profile) -> bool:
    """Return whether a text loads as a profile: not every version of TOML Kit edits inline tables correctly."""
    try:
        return profile_from_text(text).model_dump() == profile.model_dump()
    except ProfileError:
        return False


HEADED = ("mode", "gait")
"""Tables whose named tables have their own headers."""


def _differences(old: Any, new: Any, path: str) -> Iterator[tuple[str, Any]]:
    """Yield (field path, new value) where two contents differ; None for what the new one does not have."""
    if isinstance(old, dict) and isinstance(new, dict):
        for name in old.keys() - new.keys():
            yield f"{path}.{name}".removeprefix("."), None
        for name, value in new.items():
            inside = f"{path}.{name}".removeprefix(".")
            if name not in old and value and inside.split(".")[0] in HEADED and inside.count(".") < 2:
                yield from _differences({}, value, inside)
            elif name not in old:
                yield inside, value
            else:
                yield from _differences(old[name], value, inside)
    elif _tables(old) and _tables(new) and len(old) == len(new):
        for index, (before, after) in enumerate(zip(old, new, strict=True)):
            yield from _differences(before, after, f"{path}[{index}]")
    elif old != new:
        yield path, new


def _tables(value: Any) -> bool:
    return isinstance(value, list) and bool(value) and all(isinstance(part, dict) for part in value)
