"""Exports a profile into a folder with source, vectors, a runner and a page."""

import contextlib
import logging
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from pathlib import Path

from wendonic import __version__
from wendonic.compiler.collector import collector_paused
from wendonic.course import Course
from wendonic.errors import WendonicError, none_such
from wendonic.export.build import Made
from wendonic.export.common import mark_common
from wendonic.export.corrections import mode_corrections
from wendonic.export.crossings import package_crossings
from wendonic.export.folder import ready_folder, write_files
from wendonic.export.guide import guide
from wendonic.export.kinds import find_types
from wendonic.export.naming import identifier
from wendonic.export.package import Package
from wendonic.export.targets import target_of
from wendonic.export.vectors import Vectors, fits, vectors_name, vectors_of
from wendonic.profile.schema.profile import Profile
from wendonic.profile.value_at import value_at
from wendonic.recording.recording import Recording


@dataclass(frozen=True)
class Exported:
    """The result of an export: the package, the files by name, and the vectors of each mode."""

    package: Package
    language: str
    files: dict[str, str]
    vectors: dict[str, Vectors]


def _no_number(profile: Profile, path: str, fields: Sequence[str]) -> str:
    """Explain why the source has no number of a field: the profile has no such field, or it has no effect."""
    with contextlib.suppress(WendonicError):
        value = value_at(profile, path)
        if isinstance(value, int | float):
            return (
                f"{path} is {value:g} and has no number in the source, since it has no effect like this; "
                "set it to another value to make it adjustable"
            )
    return none_such("field behind a number", path, fields)


def packaged(
    profile: Profile,
    stem: str,
    modes: Sequence[str] = (),
    course: Course | None = None,
    adjustable: Sequence[str] = (),
    float32: bool = False,
    profile_name: str = "",
    seat: str | None = None,
) -> Package:
    """Return the package of a profile's modes, by default of all.

    `adjustable` are field paths whose numbers stay adjustable, or "all". With a `seat`, only that player's controls
    are printed. Raises `WendonicError` for a mode or a seat that does not exist, for a path that determines no
    number, and for squares in single precision.
    """
    if profile.seat and seat is None:
        words = "the profile has seats %s, and without --seat every control counts for everybody"
        logging.getLogger("wendonic").warning(words, " and ".join(profile.seat))
    for mode in modes:
        if mode not in profile.mode:
            raise WendonicError(none_such("mode", mode, profile.mode))
    names = [mode for mode in profile.mode if mode in modes] if modes else list(profile.mode)
    with collector_paused():
        made = [Made(profile, mode, course is not None, adjustable, seat) for mode in names]
    fields = {field for one in made for number in one.program.numbers for field in number.paths} - {"max_dt_s"}
    squares = {
        field
        for one in made
        for node in one.squares.values()
        for number in one.program.numbers
        if node.id == f"number.{number.name}"
        for field in number.paths
    }
    for path in adjustable:
        if path in squares:
            raise WendonicError(f"{path} stays a constant, as places are counted in squares; leave it out")
        if path != "all" and path not in fields:
            raise WendonicError(_no_number(profile, path, sorted(fields)))
    for one in made:
        if float32 and any(function.name == "is_blocked" for function in one.program.functions):
            raise WendonicError(
                f'mode "{one.mode}" looks up blocked squares, whose table needs double; leave --float32 out'
            )
        find_types(one.program.functions)
    package = Package(
        identifier(stem, "profile"),
        f"{profile.title or stem}{f', seat {seat}' if seat else ''}",
        profile_name or f"{stem}.toml",
        __version__,
        made,
        profile.world.axes,
        package_crossings(profile, made, course is not None, profile.world.axes),
        [one for mode in made for one in mode_corrections(profile, mode, course is not None, profile.world.axes)],
        course.numbers if course else (),
        float32,
    )
    if package.many:
        mark_common([one.program.functions for one in made], [f"{package.stem}_", *map(package.prefix, made)])
    return package


def exported(
    package: Package,
    language: str,
    recording: Recording | None = None,
    hz: float = 60.0,
    vectors: Mapping[str, Vectors] | None = None,
    progress: Callable[[str, int, int], None] | None = None,
) -> Exported:
    """Return all files of a package in one language, with test vectors of its modes, made here or taken as they are.

    Meanwhile `progress` is called with a mode, the number of branches taken so far, and their total. Raises
    `WendonicError` for an unknown language, and for a recording without any control that a mode binds.
    """
    target = target_of(language)
    if recording is not None and not any(fits(made, recording) for made in package.modes):
        modes = " or ".join(f'"{made.mode}"' for made in package.modes)
        has = ", ".join(sorted(recording.controls)[:6]) or "no events"
        raise WendonicError(f"the recording has nothing of what mode {modes} binds; it has: {has}")
    if vectors is None:
        vectors = {made.mode: vectors_of(made, package, recording, hz, progress=progress) for made in package.modes}
    files = {**target.sources(package), **target.runner(package)}
    for made in package.modes:
        files[vectors_name(package, made)] = vectors[made.mode].csv()
    files[f"{package.stem}.md"] = guide(package, target, vectors)
    return Exported(package, language, files, dict(vectors))


def write_export(found: Exported, folder: Path, force: bool = False) -> None:
    """Write an export into a folder."""
    ready_folder(folder, force)
    write_files(folder, found.files)
