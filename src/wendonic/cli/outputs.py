"""Files that a command writes: never over what it reads, nor over a thing of another kind."""

from collections.abc import Sequence
from pathlib import Path

from wendonic.errors import WendonicError
from wendonic.file_kind import file_kind


def kind_of(path: Path) -> str | None:
    """Return what a file holds that was made by hand, or by playing: a profile, a course, a recording; None for
    anything else.
    """
    try:
        kind = file_kind(path.read_bytes())
    except OSError:
        return None
    return None if kind in ("profile", "course") and path.suffix.lower() != ".toml" else kind


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
