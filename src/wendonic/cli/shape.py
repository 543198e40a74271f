"""`wendonic shape`: shapes a recording under a profile into a trace."""

import math
from pathlib import Path
from typing import TYPE_CHECKING, Annotated

import typer

from wendonic.cli.options import (
    CourseOption,
    FromOption,
    HzOption,
    ModeOption,
    PlayedArgument,
    ProfileArgument,
    SeatOption,
    ToOption,
)
from wendonic.cli.outputs import check_output
from wendonic.cli.say import say
from wendonic.counted import counted

if TYPE_CHECKING:
    import pandas as pd

    from wendonic.length_unit import LengthUnit

SHOWN_TICKS = 25
COLUMNS = {
    "t": ("t", "s", 2),
    "device": ("\ndevice", "", None),
    "raw_x": ("raw\nright", "", 2),
    "raw_y": ("raw\nforward", "", 2),
    "local_x": ("shaped\nright", "", 2),
    "local_y": ("shaped\nforward", "", 2),
    "amount": ("wanted\namount", "", 2),
    "heading_deg": ("heading", "deg", 1),
    "face_deg": ("facing", "deg", 1),
    "speed_m_s": ("speed", "m/s", 2),
    "pos_x": ("x", "m", 1),
    "pos_y": ("y", "m", 1),
}
"""The heading, the unit and the digits of each column."""

OF_MOVE = ("raw_x", "raw_y", "local_x", "local_y")
AXES = {"throttle": ("shaped\nthrottle", "", 2), "turn": ("shaped\nturn", "", 2), "rise": ("shaped\nrise", "", 2)}

LOOKS = {
    "yaw_deg_s": ("look yaw", "deg/s", 1),
    "pitch_deg_s": ("look pitch", "deg/s", 1),
    "view_yaw_deg": ("view yaw", "deg", 1),
    "view_pitch_deg": ("view pitch", "deg", 1),
}
"""Columns for a player who only looks, in place of those of a walk."""

LATE_S = 10_000.0
"""A recording that begins later than this is shown in seconds since its beginning, since full times do not fit."""

WIDE = 90
"""Width of a terminal with room for the view beside a walk."""


def shape(
    profile: ProfileArgument,
    recording: PlayedArgument,
    out: Annotated[
        Path | None, typer.Option("-o", "--out", help="Write every tick and column: .csv, .parquet or .jsonl.")
    ] = None,
    hz: HzOption = 60.0,
    mode: ModeOption = None,
    seat: SeatOption = None,
    course: CourseOption = None,
    start_s: FromOption = None,
    end_s: ToOption = None,
) -> None:
    """Shape a recording tick by tick: into a file, or a table of some ticks in the terminal."""
    from wendonic.batch import TRACE_ENDINGS, write_trace
    from wendonic.batch import shape as shape_recording
    from wendonic.batch.window import ticks_between
    from wendonic.course import load_course
    from wendonic.course.unused import warn_of_unused
    from wendonic.profile.load import load_profile
    from wendonic.study.no_effect import warn_of_no_effect
    from wendonic.study.press_spans import press_spans
    from wendonic.study.probes.by_name import recording_or_probe
    from wendonic.study.summary import summarise

    check_output(out, "trace", (profile, recording, course), TRACE_ENDINGS)
    ground = load_course(course) if course else None
    loaded = load_profile(profile)
    warn_of_unused(ground, loaded, [mode] if mode else ())
    length = loaded.world.length
    played = recording_or_probe(str(recording), loaded, mode, seat)
    trace = shape_recording(played, loaded, hz=hz, mode=mode, seat=seat, course=ground)
    warn_of_no_effect(trace, played, seat)
    trace = ticks_between(trace, start_s, end_s)
    if out is None:
        _print_ticks(trace, length)
    else:
        write_trace(trace, out)
        say(f"wrote {out}: {counted(len(trace), 'tick')}, {len(trace.columns)} columns")
    began = [f"{name} {len(press.began)}" for name, press in press_spans(trace).items()]
    if began:
        say(f"presses that began: {', '.join(began)}")
    say(summarise(trace).words(length))


def _print_ticks(trace: "pd.DataFrame", length: "LengthUnit") -> None:
    from rich import box
    from rich.console import Console
    from rich.table import Table

    from wendonic.study.looking import look_rates_deg_s, looks_deg, only_looks
    from wendonic.study.motion import walked_speeds_m_s

    step = max(-(-len(trace) // SHOWN_TICKS), 1)
    yaw, pitch = look_rates_deg_s(trace)
    shown = trace.assign(speed_m_s=walked_speeds_m_s, yaw_deg_s=yaw, pitch_deg_s=pitch).iloc[step - 1 :: step]
    # For a clock that started long ago, only the last digits matter.
    start_s = 0 if trace.empty or abs(trace["t"].iloc[0]) < LATE_S else math.floor(trace["t"].iloc[0])
    shown["t"] -= start_s
    every = "every tick" if step == 1 else f"1 tick of {step}, {len(trace)} in all"
    # As narrow as possible: twelve columns have to fit into a terminal of 80.
    table = Table(box=box.SIMPLE_HEAD, show_edge=False)
    table.padding, table.pad_edge = (0, 0), False
    columns = dict(COLUMNS)
    if trace["pos_y"].nunique() == 1 and trace["pos_z"].nunique() > 1:
        # Seen from the side, height is more useful than depth.
        columns["pos_z"] = ("up", *columns.pop("pos_y")[1:])
    console = Console()
    if only_looks(trace):
        columns = {"t": columns["t"], "device": columns["device"], **LOOKS}
    elif looks_deg(trace).any() and console.width >= WIDE:
        columns["view_yaw_deg"] = LOOKS["view_yaw_deg"]
    axes = {name: heading for name, heading in AXES.items() if trace[name].any()}
    if axes and not trace[[*OF_MOVE]].to_numpy().any():
        # A vehicle has nothing in the columns of `move`.
        kept = {name: heading for name, heading in columns.items() if name not in OF_MOVE}
        columns = {"t": kept.pop("t"), "device": kept.pop("device"), **axes, **kept}
    if trace["mode"].nunique() > 1:
        # If modes change, the mode is more useful than the device.
        columns = {("mode" if name == "device" else name): heading for name, heading in columns.items()}
        columns["mode"] = ("\nmode", "", None)
    rows = [
        [_cell(value, *column[1:], length) for value, column in zip(row, columns.values(), strict=True)]
        for row in shown[list(columns)].itertuples(index=False)
    ]
    for heading, unit, _ in columns.values():
        words = f"{heading}\n({length.label(unit)})" if unit else heading
        table.add_column(words, justify="right", no_wrap=True)
    for row in rows:
        table.add_row(*row)
    counted = f"; t counts from {start_s} s" if start_s else ""
    say(f"{every}{counted}; -o FILE.csv writes them all with every column")
    console.print(table)


def _cell(value: object, unit: str, digits: int | None, length: "LengthUnit") -> str:
    if value is None or (isinstance(value, float) and math.isnan(value)):
        return "-"
    if not isinstance(value, float) or digits is None:
        return str(value)
    return f"{value * length.factor(unit):z.{length.decimals(unit, digits)}f}"
