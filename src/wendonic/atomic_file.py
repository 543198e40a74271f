"""Reads whole files, and writes files whole or not at all."""

import os
import shutil
from collections.abc import Iterator, Sequence
from contextlib import contextmanager, suppress
from pathlib import Path

from wendonic.errors import Fault, FileError, WendonicError
from wendonic.file_kind import file_kind

KINDS = ("profile", "course", "recording")


def file_content(path: str | Path, kind: str, error: type[FileError]) -> bytes:
    """Return the content of a file; raises `error` in plain words if it is missing, a folder, unreadable or of
    another kind.
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


def check_ending(path: str | Path, allowed: Sequence[str]) -> str:
    """Return the ending of a file's name in lower case; raises `WendonicError` for an ending that is not allowed.

    >>> check_ending("walk.CSV", (".csv", ".jsonl"))
    '.csv'
    """
    ending = Path(path).suffix.lower()
    if ending not in allowed:
        raise WendonicError(f'cannot write {path}: found ending "{ending}"; allowed: {", ".join(allowed)}')
    return ending


def check_place(path: str | Path) -> None:
    """Raise `WendonicError` for a path that cannot be a file: a folder, or a path in a missing folder.

    >>> check_place("no_such_folder/note.txt")
    Traceback (most recent call last):
    wendonic.errors.WendonicError: cannot write no_such_folder/note.txt: there is no folder no_such_folder
    """
    target = Path(path)
    if target.is_dir():
        raise WendonicError(f"cannot write {target}: it is a folder; name a file in it")
    # The target of a link is written, not the link.
    real = Path(os.path.realpath(path))
    if not real.parent.is_dir():
        folder = real.parent if target.is_symlink() else target.parent
        raise WendonicError(f"cannot write {target}: there is no folder {folder}")


@contextmanager
def atomic_file(path: str | Path) -> Iterator[Path]:
    """Yield a path beside `path`, with the same ending, to write to, and rename it into place at the end.

    If anything goes wrong in between, the file at `path` stays as it was and nothing else is left. A link stays a
    link, and a file keeps its permissions. An `OSError` becomes a `WendonicError` that names place and reason.

    >>> import tempfile
    >>> with tempfile.TemporaryDirectory() as folder:
    ...     with atomic_file(f"{folder}/note.txt") as beside:
    ...         _ = beside.write_text("smoker lit")
    ...     Path(folder, "note.txt").read_text()
    'smoker lit'
    """
    target = Path(path)
    real = Path(os.path.realpath(path))
    beside = real.with_name(f".{real.stem}.{os.getpid()}.part{target.suffix}")
    try:
        check_place(path)
        yield beside
        if real.exists():
            shutil.copymode(real, beside)
        beside.replace(real)
    except OSError as error:
        raise WendonicError(f"cannot write {target}: {error.strerror or error}") from error
    finally:
        # After the rename there is nothing to remove, nor in a place that cannot be reached.
        with suppress(OSError):
            beside.unlink(missing_ok=True)
