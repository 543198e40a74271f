"""Files that a command writes: never over what it reads, nor over a thing of another kind."""

import json
from collections.abc import Sequence
from pathlib import Path

from wendonic.errors import WendonicError


def kind_of(path: Path) -> str | None:
    """Return what a file holds that was made by hand, or by playing: a profile, a course, a recording; None for
    anything else.
    """
    try:
        with path.open("rb") as file:
            head = file.read(4096).lstrip()
    except OSError:
        return None
    if head.startswith(b"PAR1"):
        return "recording" if b"wendonic-recording" in path.read_bytes()[-65536:] else None
    for kind in ("profile", "course"):
        if path.suffix.lower() == ".toml" and f'"wendonic-{kind}"'.encode() in head:
            return kind
    try:
        first = json.loads(head.splitlines()[0]) if head else None
    except (ValueError, RecursionError):
        return None
    return "recording" if isinstance(first, dict) and first.get("format") == "wendonic-recording" else None


def check_output(out: Path | None, kind: str, inputs: Sequence[Path | None] = ()) -> None:
    """Raise `WendonicError` if a file to be written is one of the inputs, or holds a profile, a course or a recording
    where `kind` is another one.
    """
    if out is None or not out.exists() or out.is_dir():
        return
    for given in inputs:
        if given is not None and given.exists() and out.samefile(given):
            raise WendonicError(f"{out} is what this reads; name another file for what it writes")
    found = kind_of(out)
    if found is not None and found != kind:
        article = "an" if kind[0] in "aeiou" else "a"
        raise WendonicError(f"{out} is a {found}, and would become {article} {kind}; name another file, or remove it")
