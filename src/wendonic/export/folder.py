"""The folder of an export: only files of earlier exports are overwritten."""

from collections.abc import Mapping
from pathlib import Path

from wendonic.atomic_file import atomic_file
from wendonic.errors import WendonicError

LISTING = "exported.txt"
"""Names of the files that the last export wrote, one a line."""


def ready_folder(folder: Path, force: bool) -> None:
    """Raise `WendonicError` unless a folder is empty, not there yet, or may be written into with `force`."""
    if folder.exists() and not folder.is_dir():
        raise WendonicError(f"{folder} is a file; name a folder")
    if folder.is_dir() and any(folder.iterdir()) and not force:
        raise WendonicError(
            f"{folder} is not empty; --force overwrites what an earlier export wrote, and nothing else"
        )


def write_files(folder: Path, files: Mapping[str, str]) -> None:
    """Write all files, and remove those of an earlier export that are no longer written. Files that no export wrote
    stay; if one is in the way, `WendonicError` is raised before anything is written.
    """
    listing = folder / LISTING
    own = set(listing.read_text(encoding="utf-8").split("\n")) - {""} if listing.is_file() else set()
    in_the_way = [name for name in (*files, LISTING) if (folder / name).exists() and name not in own | {LISTING}]
    if (folder / LISTING).exists() and not own:
        in_the_way.append(LISTING)
    if in_the_way:
        raise WendonicError(
            f"{folder} has {', '.join(in_the_way)}, which no export wrote; move it, or name another folder"
        )
    folder.mkdir(parents=True, exist_ok=True)
    for name, text in files.items():
        with atomic_file(folder / name) as beside:
            beside.write_text(text, encoding="utf-8", newline="\n")
    for name in own - set(files):
        (folder / name).unlink(missing_ok=True)
    with atomic_file(listing) as beside:
        beside.write_text("".join(f"{name}\n" for name in sorted(files)), encoding="utf-8", newline="\n")
