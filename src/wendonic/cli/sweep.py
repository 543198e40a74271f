"""`wendonic sweep`: feel over a range of settings."""

import json
from pathlib import Path
from typing import Annotated

import typer

from wendonic.cli.completion import numbers, quantities
from wendonic.cli.options import (
    ByOption,
    CourseOption,
    ModeOption,
    ProfileArgument,
    SeatOption,
    WhileOption,
    separated,
)
from wendonic.cli.outputs import check_output
from wendonic.cli.progress import progress_bar
from wendonic.cli.say import say


def sweep(
    profile: ProfileArgument,
    over: Annotated[
        list[str],
        typer.Option(
            "--over",
            metavar="SETTING=RANGE",
            help="Setting=from:to:count, such as gait.walk.accel_m_s2=8:40:30. Can be repeated.",
            autocompletion=numbers,
        ),
    ],
    of: Annotated[
        list[str],
        typer.Option(
            "--of",
            metavar="QUANTITIES",
            help="Quantities of the feel sheet: separated by commas, or one after another.",
            autocompletion=quantities,
            callback=separated,
        ),
    ],
    out: Annotated[
        Path,
        typer.Option(
            "-o", "--out", help="A table (.csv, .parquet or .jsonl), or a map of the first quantity (.png …)."
        ),
    ],
    on: Annotated[
        Path | None,
        typer.Option(
            "--on",
            metavar="FOLDER",
            help=(
                "A folder of recordings to sweep over; --of is then a number of `wendonic corpus`: the mean over "
                "the recordings, of how it differs from the unchanged profile where it can be compared."
            ),
        ),
    ] = None,
    mode: ModeOption = None,
    seat: SeatOption = None,
    course: CourseOption = None,
    by: ByOption = None,
    held: WhileOption = None,
    as_json: Annotated[
        bool, typer.Option("--json", help="Print the rows as JSON as well, with units and definitions.")
    ] = False,
    workers: Annotated[int | None, typer.Option("--workers", help="Processes; one for each core by default.")] = None,
) -> None:
    """Measure a profile for every combination of some settings: a table, or a map with contour lines."""
    from wendonic.batch import TRACE_ENDINGS, write_trace
    from wendonic.course import load_course
    from wendonic.course.unused import warn_of_unused
    from wendonic.pictures.style import ENDINGS
    from wendonic.profile.load import load_profile
    from wendonic.profile.units import metre_name
    from wendonic.study.solve.corpus import sweep_on
    from wendonic.study.solve.sweep import over_of, summary, sweep_document
    from wendonic.study.solve.sweep import sweep as sweep_profile

    if on is not None and (by or held):
        raise typer.BadParameter("--by and --while are for measuring; --on plays recordings as they are")
    if course is not None and on is None:
        raise typer.BadParameter("--course goes with --on: feel is measured on level ground")
    check_output(out, "table", (profile, course), (*TRACE_ENDINGS, *ENDINGS))
    settings = over_of(over)
    loaded, ground = load_profile(profile), load_course(course) if course else None
    warn_of_unused(ground, loaded, [mode] if mode else ())
    with progress_bar() as bar:
        task = bar.add_task("measuring", total=None)

        def show(done: int, all_of_them: int) -> None:
            bar.update(task, completed=done, total=all_of_them)

        if on is not None:
            # Results of a corpus stay in metres, even if the profile spells them most_apart_u.
            of = [metre_name(name) for name in of]
            frame = sweep_on(loaded, settings, of, on, mode, show, workers or 1, None, seat, ground)
        else:
            frame = sweep_profile(loaded, settings, of, mode, show, workers, by, held, seat)
    found = summary(frame, of)
    if out.suffix.lower() in TRACE_ENDINGS:
        write_trace(frame, out)
    else:
        from wendonic.pictures import draw_sweep, save_picture

        save_picture(draw_sweep(frame, of[0], length=loaded.world.length), out)
    if as_json:
        say(
            json.dumps(
                sweep_document(frame, list(settings), of, loaded, str(profile), mode, by, held, seat), indent=2
            )
        )
    else:
        say(f"wrote {out}: {found}")
