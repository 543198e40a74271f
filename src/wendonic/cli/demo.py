"""`wendonic demo`: everything once, on the shipped recordings."""

from pathlib import Path
from typing import TYPE_CHECKING, Annotated

import typer

from wendonic.cli.progress import progress_bar
from wendonic.cli.say import say

if TYPE_CHECKING:
    from wendonic.study.summary import Summary

HONEY = "#D9902F"


def demo(
    out: Annotated[
        Path, typer.Option("-o", "--out", help="The folder for pictures and traces; created if missing.")
    ] = Path("demo-out"),
) -> None:
    """Shape the shipped recordings of the beekeeper; print a summary, write pictures and traces."""
    from rich.console import Console
    from rich.progress import BarColumn, TextColumn, TimeElapsedColumn

    from wendonic.demo import RECORDINGS, copy_inputs

    console = Console()
    kept = copy_inputs(out)
    names = [name for name, profile in RECORDINGS.items() if profile == "beekeeper"]
    summaries: dict[str, Summary] = {}
    bar = BarColumn(complete_style=HONEY, finished_style=HONEY)
    columns = (TextColumn("{task.description}"), bar, TimeElapsedColumn())
    with progress_bar(*columns) as progress:
        task = progress.add_task("shaping and drawing", total=2 + 3 * len(names))
        # Loading the drawing libraries is the first wait, so the bar is shown before it.
        from wendonic.batch import shape, write_trace
        from wendonic.demo import demo_profile, demo_recording
        from wendonic.pictures import draw_devices, draw_path, draw_stick, draw_timeline, save_picture
        from wendonic.study.summary import summarise

        profile = demo_profile()
        for name in names:
            recording = demo_recording(name)
            trace = shape(recording, profile)
            summaries[name] = summarise(trace)
            write_trace(trace, out / f"{name}.csv")
            progress.advance(task)
            save_picture(draw_timeline(trace, recording), out / f"{name}_timeline.png")
            progress.advance(task)
            save_picture(draw_path(trace, recording.title), out / f"{name}_path.png")
            progress.advance(task)
        save_picture(draw_devices(demo_recording("beekeeper_mouse")), out / "beekeeper_mouse_devices.png")
        progress.advance(task)
        save_picture(draw_stick(profile, demo_recording("beekeeper_pad")), out / "stick.png")
        progress.advance(task)
    console.print(_summary_table(profile.title, summaries))
    say(f"wrote {out}: pictures (.png), traces (.csv), profiles (.toml, schemas .json) and recordings (.jsonl)")
    for path in kept:
        say(f"kept your changes in {path}; the table shows the shipped file")
    say(f"next: change a number in {out / 'beekeeper.toml'}, then look again:")
    say(f"  wendonic draw timeline {out / 'beekeeper.toml'} {out / 'beekeeper_keys.jsonl'}")


def _summary_table(title: str, summaries: "dict[str, Summary]") -> object:
    from rich.table import Table

    table = Table(title=title, title_justify="left", title_style="bold")
    table.add_column("")
    for name in summaries:
        table.add_column(name, justify="right")
    rows = {
        "ticks": ("ticks", "{:d}"),
        "duration_s": ("seconds", "{:.2f}"),
        "top_amount": ("top amount (1 is full)", "{:.3f}"),
        "straight_speed_m_s": ("straight speed (m/s)", "{:.3f}"),
        "diagonal_speed_m_s": ("diagonal speed (m/s)", "{:.3f}"),
        "distance_m": ("distance walked (m)", "{:.1f}"),
        "turned_deg": ("view turned (deg)", "{:.0f}"),
        "rest_drift_m_per_min": ("rest drift (m/min)", "{:.3f}"),
    }
    for field, (words, form) in rows.items():
        values = [getattr(summary, field) for summary in summaries.values()]
        table.add_row(words, *("-" if value is None else form.format(value) for value in values))
    return table
