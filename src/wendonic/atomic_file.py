"""Files are read whole, and written whole or not at all."""

import os
import shutil
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from pathlib import Path

from wendonic.errors import Fault, FileError, WendonicError
from wendonic.file_kind import file_kind

KINDS = ("profile", "course", "recording")


def file_content(path: str | Path, kind: str, error: type[FileError]) -> bytes:
    """Return the content of the file; one that is missing, a folder, unreadable or of another kind raises `error` in
    plain words.
    """
    if Path(path).is_dir():
        raise error(path, [Fault(None, "", f"is a folder; name a {kind} file in it")])
    try:
        content = Path(path).read_bytes()
    except OSError as reason:
        raise error(path, [Fault(None, "", f"cannot be read: {reason.strerror or reason}")]) from None
    found = file_kind(content)
    if kind in KINDS and found not in (None, kind):
        raise error(path, [Fault(None, "", f"is a {found}, where a {kind} belongs")])
    return content


@contextmanager
def atomic_file(path: str | Path) -> Iterator[Path]:
    """Give a path beside `path`, with the same ending, to write to; rename it into place at the end.

    If anything goes wrong in between, what was at `path` stays as it was and nothing else is left. A link stays a
    link, and a file keeps its permissions. An `OSError` becomes a `WendonicError` that names place and reason.

    >>> import tempfile
    >>> with tempfile.TemporaryDirectory() as folder:
    ...     with atomic_file(f"{folder}/note.txt") as beside:
    ...         _ = beside.write_text("smoker lit")
    ...     Path(folder, "note.txt").read_text()
    'smoker lit'
    """
    target = Path(path)
    # What a link leads to is written, not the link.
    real = Path(os.path.realpath(path))
    beside = real.with_name(f".{real.stem}.{os.getpid()}.part{target.suffix}")
    try:
        if target.is_dir():
            raise WendonicError(f"cannot write {target}: it is a folder; name a file in it")
        if not real.parent.is_dir():
            folder = real.parent if target.is_symlink() else target.parent
            raise WendonicError(f"cannot write {target}: there is no folder {folder}")
        yield beside
        if real.exists():
            shutil.copymode(real, beside)
        beside.replace(real)
    except OSError as error:
        raise WendonicError(f"cannot write {target}: {error.strerror or error}") from error
    finally:
        # After a rename there is nothing left to remove; a place that cannot be reached holds nothing either.
        with suppress(OSError):
            beside.unlink(missing_ok=True)
