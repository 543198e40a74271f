"""`wendonic measure`: the feel sheet."""

import json
from pathlib import Path
from typing import TYPE_CHECKING, Annotated

import typer

from wendonic.cli.completion import quantities
from wendonic.cli.options import ByOption, ModeOption, ProfileArgument, SeatOption, WhileOption, separated
from wendonic.cli.outputs import check_output
from wendonic.cli.say import say

if TYPE_CHECKING:
    from wendonic.length_unit import LengthUnit
    from wendonic.study.feel_sheet import FeelSheet


def measure(
    profile: ProfileArgument,
    of: Annotated[
        list[str] | None,
        typer.Option(
            "--of",
            metavar="QUANTITIES",
            help="Only these quantities: separated by commas, or one after another. See the list below.",
            autocompletion=quantities,
            callback=separated,
        ),
    ] = None,
    mode: ModeOption = None,
    seat: SeatOption = None,
    by: ByOption = None,
    held: WhileOption = None,
    tilt: Annotated[
        float | None, typer.Option("--tilt", help="Tilt of amount_at_tilt and speed_at_tilt_m_s.")
    ] = None,
    hz: Annotated[float | None, typer.Option("--hz", help="Ticks a second of chain_delay_s.")] = None,
    goal_m: Annotated[float | None, typer.Option("--goal", help="Distance of a goal that is pointed at (m).")] = None,
    as_json: Annotated[bool, typer.Option("--json", help="Print the sheet as JSON.")] = False,
    out: Annotated[Path | None, typer.Option("-o", "--out", help="Write the sheet to this file (.json).")] = None,
) -> None:
    """Measure how a profile feels, with exact stimuli: milliseconds, metres, degrees and ratios."""
    from wendonic.atomic_file import atomic_file
    from wendonic.profile.load import load_profile
    from wendonic.study.as_json import document, sheet_head, sheet_values
    from wendonic.study.feel_sheet import known_quantity
    from wendonic.study.feel_sheet import measure as measure_profile
    from wendonic.study.thresholds import changed_thresholds

    check_output(out, "feel sheet", (profile,), (".json",))
    loaded = load_profile(profile)
    name, length = loaded.mode_name(mode), loaded.world.length
    only = [known_quantity(quantity, length)[0] for quantity in of] if of else None
    thresholds = changed_thresholds(tilt=tilt, hz=hz, goal_m=goal_m)
    sheet = measure_profile(loaded, name, only=only, by=by, held=held, thresholds=thresholds, seat=seat)
    head = {"profile": str(profile), "mode": name, **sheet_head(sheet, seat)}
    content = document("measure", **head, values=sheet_values(sheet))
    if out is not None:
        with atomic_file(out) as beside:
            beside.write_text(json.dumps(content, indent=2) + "\n", encoding="utf-8", newline="\n")
    if as_json:
        say(json.dumps(content, indent=2))
        return
    player = f", seat {seat}" if seat else ""
    say(f"{profile}, mode {name}{player}{f', by {sheet.by}' if sheet.by else ''}{f', {held} held' if held else ''}")
    _print_sheet(sheet, length)
    if out is not None:
        say(f"wrote {out}")


def _print_sheet(sheet: "FeelSheet", length: "LengthUnit") -> None:
    from rich import box
    from rich.console import Console
    from rich.table import Table

    from wendonic.profile.units import spelled_in
    from wendonic.study.feel_sheet import value_words
    from wendonic.study.quantities import QUANTITIES

    console = Console()
    table = Table(box=box.SIMPLE_HEAD, show_edge=False, padding=(0, 1))
    table.add_column("quantity", no_wrap=True)
    table.add_column("value", justify="right", no_wrap=True)
    table.add_column("unit", no_wrap=True)
    table.add_column("what it is")
    for name, value in sheet.items():
        if value is not None:
            one = QUANTITIES[name]
            words = value_words(value, length.factor(one.unit))
            definition = one.defined(sheet.thresholds, length)
            table.add_row(spelled_in(length, name), words, length.label(one.unit), definition)
    if table.row_count:
        console.print(table)
    missing = Table(box=box.SIMPLE_HEAD, show_edge=False, padding=(0, 1))
    missing.add_column("no value, because")
    missing.add_column("quantities")
    for reason, names in sheet.missing().items():
        missing.add_row(str(reason), ", ".join(spelled_in(length, name) for name in names))
    if missing.row_count:
        console.print(missing)
