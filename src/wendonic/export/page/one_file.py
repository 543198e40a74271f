"""The page as one file that works without a server, for people who have nothing installed."""

from collections.abc import Sequence
from pathlib import Path

from wendonic.atomic_file import atomic_file
from wendonic.course import load_course
from wendonic.course.unused import warn_of_unused
from wendonic.errors import ProfileError, WendonicError
from wendonic.export.page.bundle import page_in_one_file
from wendonic.export.page.contents import PageProfile, given_module
from wendonic.profile.load import profile_from_text, text_of


def write_page(
    profiles: Sequence[Path],
    out: Path,
    course: Path | None = None,
    mode: str | None = None,
    force: bool = False,
    seat: str | None = None,
) -> None:
    """Write the page for playing and tuning some profiles into one file.

    With a `seat`, it is for that player. Raises `WendonicError` for profiles with faults, for a mode that the first
    one does not have, for a seat that one of them does not have, and for an existing file, without `force`.
    """
    if out.exists() and not force:
        raise WendonicError(f"{out}: is there already; --force overwrites it")
    ground = load_course(course) if course else None
    shown = []
    for path in profiles:
        text = text_of(path, "profile", ProfileError)
        shown.append(PageProfile(profile_from_text(text, path), path.name, text, ground, seat))
        warn_of_unused(ground, shown[-1].profile)
    first = shown[0].profile
    start = {"mode": first.mode_name(mode)}
    title = first.title or profiles[0].stem
    page = page_in_one_file(title, given_module(shown), start)
    with atomic_file(out) as beside:
        beside.write_text(page, encoding="utf-8", newline="\n")
