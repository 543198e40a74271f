"""`wendonic export`: a tuned profile as readable source in the game's own language."""

from pathlib import Path
from typing import Annotated

import typer

from wendonic.cli.options import CourseOption, HzOption, SeatOption
from wendonic.cli.progress import progress_bar
from wendonic.cli.say import say


def export(
    profiles: Annotated[
        list[Path], typer.Argument(metavar="PROFILE", help="The profile (.toml); several only with --as html.")
    ],
    language: Annotated[
        str,
        typer.Option(
            "--as", metavar="LANGUAGE", help="c99, javascript, csharp, lua or python; html is a page to play on."
        ),
    ],
    out: Annotated[
        Path, typer.Option("-o", "--out", metavar="FOLDER", help="Folder to write into; of html, the file.")
    ],
    mode: Annotated[
        list[str] | None, typer.Option("--mode", metavar="MODE", help="A mode to export; all of them by default.")
    ] = None,
    recording: Annotated[
        Path | None,
        typer.Option("--recording", metavar="RECORDING", help="A recording whose ticks become test vectors as well."),
    ] = None,
    seat: SeatOption = None,
    course: CourseOption = None,
    hz: HzOption = 60.0,
    adjustable: Annotated[
        str,
        typer.Option(
            "--adjustable",
            metavar="FIELDS",
            help="Fields whose numbers stay adjustable, for a settings menu: separated by commas, or all.",
        ),
    ] = "",
    float32: Annotated[bool, typer.Option("--float32", help="C with float instead of double.")] = False,
    check: Annotated[bool, typer.Option("--check", help="Compile and run it, if the language is installed.")] = False,
    force: Annotated[bool, typer.Option("--force", help="Overwrite what an earlier export wrote.")] = False,
) -> None:
    """Write a tuned profile as readable source, with test vectors, a runner that replays them, and a page on it; or
    as one file to play and tune it in a browser.
    """
    from rich.markup import escape

    from wendonic.course import load_course
    from wendonic.course.unused import warn_of_unused
    from wendonic.errors import WendonicError, escaped
    from wendonic.export.export import exported, packaged, write_export
    from wendonic.export.folder import ready_folder
    from wendonic.export.targets import target_of
    from wendonic.export.tools import tried
    from wendonic.profile.load import load_profile
    from wendonic.recording.recording import Recording

    if language == "html":
        from wendonic.export.page.one_file import write_page

        if recording or adjustable or float32 or check:
            raise WendonicError("--recording, --adjustable, --float32 and --check go with source, not with --as html")
        if mode and len(mode) > 1:
            raise WendonicError("--mode: found several; --as html takes the one that it begins in")
        write_page(profiles, out, course, mode[0] if mode else None, force, seat)
        say(f"wrote {out}: {out.stat().st_size / 1000:.0f} kB, opens in a browser without a server")
        return
    target_of(language)
    if len(profiles) > 1:
        raise WendonicError(f"found {len(profiles)} profiles; --as {language} takes one, --as html several")
    (profile,) = profiles
    if float32 and language != "c99":
        raise WendonicError(f"--float32 goes with --as c99; {language} has no float of its own")
    ready_folder(out, force)
    paths = [path.strip() for path in adjustable.split(",") if path.strip()]
    loaded, ground = load_profile(profile), load_course(course) if course else None
    warn_of_unused(ground, loaded, mode or ())
    package = packaged(
        loaded,
        profile.stem,
        mode or (),
        ground,
        paths,
        float32,
        profile.name,
        seat,
    )
    played = Recording.read(recording) if recording else None
    with progress_bar() as bar:
        task = bar.add_task("test vectors", total=None)

        def report(name: str, taken: int, count: int) -> None:
            bar.update(
                task, description=f"test vectors of {escape(escaped(name))}: branches", completed=taken, total=count
            )

        found = exported(package, language, played, hz, progress=report)
    write_export(found, out, force)
    say(f"wrote {out}: {', '.join(sorted(found.files))}")
    for name, vectors in found.vectors.items():
        share = f"{100.0 * vectors.share:.1f} %"
        say(f"mode {name}: {len(vectors.rows)} ticks of test vectors take {share} of its branches")
    if not check:
        say(f"next: {out / (package.stem + '.md')} says how to feed it; --check compiles and runs it")
        return
    runs = tried(language, package.stem, out)
    for run in runs:
        say(f"{run.tool}: {run.said}" if run.tool else f"not tried: {run.said}")
    if not all(run.well for run in runs if run.tool):
        raise typer.Exit(1)
