"""A profile to begin with: the beekeeper's, comments and all, under a title of one's own."""

from pathlib import Path

import tomlkit

from wendonic.atomic_file import atomic_file
from wendonic.demo import PROFILE_PATH
from wendonic.errors import WendonicError


def write_starter(path: str | Path, force: bool = False) -> None:
    """Write a commented profile to `path`, titled after the file; refuses to overwrite one unless `force` is set."""
    target = Path(path)
    if target.exists() and not target.is_dir() and not force:
        raise WendonicError(f"{target} is already there; name another file, or overwrite it with --force")
    profile = tomlkit.parse(PROFILE_PATH.read_text(encoding="utf-8"))
    profile["title"] = target.stem
    with atomic_file(target) as beside:
        beside.write_text(tomlkit.dumps(profile), encoding="utf-8", newline="\n")
