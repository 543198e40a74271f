"""`wendonic measure`: the feel sheet."""

import json
from pathlib import Path
from typing import Annotated

import typer

from wendonic.cli.options import ModeOption, ProfileArgument
from wendonic.cli.outputs import check_output
from wendonic.cli.say import say


def measure(
    profile: ProfileArgument,
    mode: ModeOption = None,
    as_json: Annotated[
        Path | None, typer.Option("--json", help="Write the sheet as JSON to this file; - for the terminal.")
    ] = None,
) -> None:
    """Measure how a profile feels, with exact stimuli: milliseconds, metres, degrees and ratios."""
    from wendonic.atomic_file import atomic_file
    from wendonic.profile.load import load_profile
    from wendonic.profile.units import spelled_in
    from wendonic.study.feel_sheet import measure as measure_profile
    from wendonic.study.feel_sheet import value_words
    from wendonic.study.quantities import QUANTITIES

    check_output(as_json, "feel sheet", (profile,))
    loaded = load_profile(profile)
    sheet = measure_profile(loaded, mode)
    if as_json is not None:
        text = json.dumps(dict(sheet), indent=2)
        if str(as_json) == "-":
            say(text)
            return
        with atomic_file(as_json) as beside:
            beside.write_text(text + "\n", encoding="utf-8")
        say(f"wrote {as_json}")
        return
    from rich import box
    from rich.console import Console
    from rich.table import Table

    table = Table(box=box.SIMPLE_HEAD, show_edge=False, padding=(0, 1))
    table.add_column("quantity", no_wrap=True)
    table.add_column("value", justify="right", no_wrap=True)
    table.add_column("unit", no_wrap=True)
    table.add_column("what it is")
    length = loaded.world.length
    for name, value in sheet.items():
        one = QUANTITIES[name]
        unit = length.label(one.unit) if value is not None else ""
        table.add_row(spelled_in(length, name), value_words(value, length.factor(one.unit)), unit, one.definition)
    Console().print(table)
