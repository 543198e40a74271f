"""Recognises profiles, courses and recordings by their content."""

import json
import re
from pathlib import Path

_IN_TOML = re.compile(rb'^\s*format\s*=\s*["\']wendonic-(profile|course)["\']', re.MULTILINE)
_RECORDING = "wendonic-recording"
_PARQUET_KEY = b"\x12wendonic-recording\x18"
"""A key in the file's metadata, between its length and the mark of a value, since data may contain the same text."""

_HEAD, _TAIL = 4096, 65536


def file_kind(content: bytes) -> str | None:
    """Return "profile", "course" or "recording", by the format named in the content; None if there is none.

    >>> file_kind(b'format = "wendonic-course"'), file_kind(b'{"format": "wendonic-recording"}'), file_kind(b"a,b")
    ('course', 'recording', None)
    """
    if content.startswith(b"PAR1"):
        return "recording" if _PARQUET_KEY in content[-_TAIL:] else None
    head = content[:_HEAD].removeprefix(b"\xef\xbb\xbf").lstrip()
    if found := _IN_TOML.search(head):
        return found[1].decode()
    try:
        first = json.loads(head.splitlines()[0]) if head else None
    except (ValueError, RecursionError):
        return None
    return "recording" if isinstance(first, dict) and first.get("format") == _RECORDING else None


def kind_of_file(path: Path) -> str | None:
    """Return the kind that a file's content names, whatever its ending; None if it names none or cannot be read."""
    try:
        with path.open("rb") as file:
            head = file.read(_HEAD)
            file.seek(max(_HEAD, path.stat().st_size - _TAIL))
            return file_kind(head + file.read())
    except OSError:
        return None
