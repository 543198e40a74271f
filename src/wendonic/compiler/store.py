"""Tick functions kept on disk, under a digest of kernels and structure; the folder may be missing or read-only."""

import contextlib
import functools
import hashlib
import json
import sys
import tempfile
from pathlib import Path
from typing import Any

import wendonic.compiler
import wendonic.kernels
from wendonic.compiler.read import SourceMissingError


@functools.cache
def sources_digest() -> str:
    """Return a digest of the sources of kernels and compiler, and of the versions of Wendonic and Python.

    Raises `SourceMissingError` if the sources are not available.
    """
    digest = hashlib.sha256(f"{wendonic.__version__} {sys.implementation.cache_tag}".encode())
    for package in (wendonic.kernels, wendonic.compiler):
        folder = Path(package.__file__ or "").parent
        files = sorted(folder.rglob("*.py")) if package.__file__ else []
        if not files:
            raise SourceMissingError("the kernels' sources are not at hand")
        for path in files:
            digest.update(path.relative_to(folder).as_posix().encode() + b"\0" + path.read_bytes() + b"\0")
    return digest.hexdigest()[:16]


def structure_digest(structure: Any) -> str:
    """Return a digest of a structure."""
    return hashlib.sha256(repr(structure).encode()).hexdigest()[:24]


@functools.cache
def cache_folder() -> Path | None:
    """Return the folder of this version's tick functions, or None if nothing can be kept."""
    from platformdirs import user_cache_path

    folder = user_cache_path("wendonic", appauthor=False) / f"ticks-{sources_digest()}"
    try:
        folder.mkdir(parents=True, exist_ok=True)
    except OSError:
        return None
    return folder


def stored(digest: str) -> dict[str, Any] | None:
    """Return what is kept under a digest, or None if there is nothing or it is damaged."""
    folder = cache_folder()
    if folder is None:
        return None
    try:
        content = json.loads((folder / f"{digest}.json").read_text(encoding="utf-8"))
    except (OSError, ValueError):
        return None
    return content if isinstance(content, dict) and content.get("whole") is True else None


def store(digest: str, content: dict[str, Any]) -> None:
    """Keep something under a digest, whole or not at all; if the folder cannot be written, nothing happens."""
    folder = cache_folder()
    if folder is None:
        return
    with contextlib.suppress(OSError):
        with tempfile.NamedTemporaryFile("w", dir=folder, encoding="utf-8", delete=False, suffix=".part") as file:
            json.dump({**content, "whole": True}, file)
        Path(file.name).replace(folder / f"{digest}.json")
