"""A profile to start from: a shipped one with its comments, under a title of your own."""

from pathlib import Path

import tomlkit

from wendonic.atomic_file import atomic_file
from wendonic.demo import FOLDER, profile_names
from wendonic.errors import WendonicError, none_such
from wendonic.reference.json_schema import FILE_NAMES, write_schema


def write_starter(path: str | Path, force: bool = False, like: str = "beekeeper") -> None:
    """Write a commented profile to `path`, titled after the file, that begins as a shipped one, and the JSON Schema
    that it points to beside it; refuses to overwrite a profile unless `force` is set.
    """
    if like not in profile_names():
        raise WendonicError(none_such("shipped profile", like, profile_names()))
    target = Path(path)
    if target.exists() and not target.is_dir() and not force:
        raise WendonicError(f"{target} already exists; name another file, or overwrite it with --force")
    profile = tomlkit.parse((FOLDER / f"{like}.toml").read_text(encoding="utf-8"))
    profile["title"] = target.stem
    with atomic_file(target) as beside:
        beside.write_text(tomlkit.dumps(profile), encoding="utf-8", newline="\n")
    write_schema(target.with_name(FILE_NAMES["profile"]))
