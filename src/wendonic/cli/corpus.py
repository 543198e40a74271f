"""`wendonic corpus`: the effect of a change on real play."""

import json
from pathlib import Path
from typing import TYPE_CHECKING, Annotated

import typer

from wendonic.cli.options import CourseOption, HzOption, ModeOption, SeatOption, separated
from wendonic.cli.outputs import check_output
from wendonic.cli.progress import progress_bar
from wendonic.cli.say import say, say_lines
from wendonic.counted import counted, played

if TYPE_CHECKING:
    import pandas as pd

    from wendonic.length_unit import LengthUnit

MOST_SHOWN = 8


def corpus(
    folder: Annotated[
        Path,
        typer.Argument(metavar="FOLDER", help="A folder of recordings, or a Parquet file with a column recording."),
    ],
    profile: Annotated[
        list[Path],
        typer.Option("--profile", metavar="PROFILE", help="A profile (.toml), the old one first; can be repeated."),
    ],
    quantity: Annotated[
        list[str] | None,
        typer.Option(
            "--quantity",
            metavar="QUANTITIES",
            help="Only these numbers, and rank by the first: separated by commas, or one after another. "
            "See the list below.",
            callback=separated,
        ),
    ] = None,
    out: Annotated[
        Path | None,
        typer.Option(
            "-o", "--out", help="The table: .parquet, .csv or .jsonl. A run that was cut off continues there."
        ),
    ] = None,
    picture: Annotated[
        Path | None, typer.Option("--picture", help="Draw the distribution of change: .png, .svg or .pdf.")
    ] = None,
    workers: Annotated[
        int, typer.Option("--workers", help="Processes on this machine, one thread each (extra cluster).")
    ] = 1,
    cluster: Annotated[
        str | None,
        typer.Option(
            "--cluster",
            metavar="ADDRESS",
            help="A Dask scheduler: tcp://host:8786. Its workers read the folder by the same path.",
        ),
    ] = None,
    mode: ModeOption = None,
    seat: SeatOption = None,
    course: CourseOption = None,
    hz: HzOption = 60.0,
    as_json: Annotated[bool, typer.Option("--json", help="Print the summary as JSON.")] = False,
) -> None:
    """Put many recordings under an old and a new profile, and say which of them change, by how much, and when."""

    from wendonic.batch import TRACE_ENDINGS
    from wendonic.course import load_course
    from wendonic.course.unused import warn_of_unused
    from wendonic.length_unit import common_unit
    from wendonic.profile.load import load_profile
    from wendonic.profile.units import metre_name
    from wendonic.study.solve.compare import names_of
    from wendonic.study.solve.corpus import corpus as run_corpus
    from wendonic.study.solve.corpus import corpus_document, ranked_by

    if workers != 1 and cluster is not None:
        raise typer.BadParameter("--workers is for processes on this machine; a --cluster has its own")
    check_output(out, "table", (*profile, folder, course), TRACE_ENDINGS)
    check_output(picture, "picture", (*profile, folder, course))
    # Profiles in a game's own unit spell it most_apart_u.
    wanted = [metre_name(name) for name in quantity or ()]
    by_name = dict(zip(names_of(profile), map(load_profile, profile), strict=True))
    ground = load_course(course) if course else None
    for name, one in by_name.items():
        warn_of_unused(ground, one, [mode] if mode else (), f"{name}: ")
    with progress_bar() as bar:
        task = bar.add_task("recordings", total=None)
        frame = run_corpus(
            folder,
            by_name,
            wanted,
            mode,
            hz,
            workers,
            cluster,
            out,
            lambda done, all_of_them: bar.update(task, completed=done, total=all_of_them),
            seat,
            ground,
        )
    by = ranked_by(wanted, frame)
    length = common_unit([one.world.length for one in by_name.values()])
    if as_json:
        say(json.dumps(corpus_document(frame, str(folder), by), indent=2))
    else:
        _print_summary(frame, by, length)
    if out is not None:
        say(f"wrote {out}: {counted(len(frame), 'recording')}")
    if picture is not None:
        from wendonic.pictures import draw_corpus, save_picture

        save_picture(draw_corpus(frame, by, length=length), picture)
        say(f"wrote {picture}")


def _print_summary(frame: "pd.DataFrame", by: str, length: "LengthUnit") -> None:
    from rich import box
    from rich.console import Console
    from rich.table import Table

    from wendonic.profile.units import spelled_in
    from wendonic.significant import significant
    from wendonic.study.solve.corpus import changed, changed_most, medians, without_effect
    from wendonic.study.solve.differences import UNITS

    failed = frame[frame["error"].notna()]
    say(
        f"{counted(len(frame), 'recording')}, {played(float(frame['duration_s'].sum()))} of play"
        + (f"; {len(failed)} could not be used" if len(failed) else "")
    )
    if len(failed):
        say_lines(f"  {row.recording}: {row.error}" for row in failed.head(MOST_SHOWN).itertuples())
    idle = without_effect(frame)
    if idle:
        more = f" and {len(idle) - MOST_SHOWN} more" if len(idle) > MOST_SHOWN else ""
        say(f"no effect under any profile: {', '.join(idle[:MOST_SHOWN])}{more}")
    console = Console()
    table = Table(box=box.SIMPLE_HEAD, show_edge=False, padding=(0, 1))
    for heading in ("number", "median", "largest", "unit"):
        table.add_column(heading, justify="right" if heading in ("median", "largest") else "left")
    before = ""
    for column, middle, most in medians(frame):
        whose, _, field = column.rpartition(".")
        if whose != before:
            table.add_row(f"{whose}:")
            before = whose
        unit = UNITS[field]
        factor = length.factor(unit)
        table.add_row(
            f"  {spelled_in(length, field)}",
            significant(middle * factor, 4),
            significant(most * factor, 4),
            length.label(unit),
        )
    console.print(table)
    changes, differ = changed_most(frame, by, MOST_SHOWN), changed(frame)
    say_lines(f"{pair}: {number} of {len(frame) - len(failed)} recordings change" for pair, number in differ.items())
    if not changes:
        if any(differ.values()):
            say(f"no recording differs by {spelled_in(length, by)}")
        return
    say(f"changed most, by {spelled_in(length, by)}:")
    for change in changes:
        unit = UNITS[by]
        when = "" if change.parts_s is None else f", from {change.parts_s:.2f} s"
        words = length.words(change.amount, unit, ".3g").rstrip()
        say(f"  {change.recording} ({change.profile}): {words}{when}")
