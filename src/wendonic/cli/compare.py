"""`wendonic compare`: profiles side by side."""

import json
from pathlib import Path
from typing import TYPE_CHECKING, Annotated

import typer

from wendonic.cli.options import ModeOption
from wendonic.cli.outputs import check_output
from wendonic.cli.say import say

if TYPE_CHECKING:
    from wendonic.study.solve.compare import Comparison


def compare(
    profiles: Annotated[
        list[Path], typer.Argument(metavar="PROFILE PROFILE...", help="Two profiles (.toml) or more.")
    ],
    on: Annotated[
        list[str] | None,
        typer.Option("--on", help="A recording, or a probe by name; figure_of_eight by default. Again for more."),
    ] = None,
    out: Annotated[
        Path | None, typer.Option("-o", "--out", help="Draw paths, speeds and headings: .png, .svg or .pdf.")
    ] = None,
    mode: ModeOption = None,
    as_json: Annotated[bool, typer.Option("--json", help="Print sheets and settings as JSON.")] = False,
) -> None:
    """Put profiles side by side: feel sheets, settings that differ, and a picture of the same input."""
    from wendonic.profile.load import load_profile
    from wendonic.study.solve.compare import USUAL_INPUT, inputs_named, names_of
    from wendonic.study.solve.compare import compare as compare_profiles

    check_output(out, "picture", (*profiles, *(Path(name) for name in on or ())))
    named = dict(zip(names_of(profiles), map(load_profile, profiles), strict=True))
    # Tables alone take no common input.
    inputs = inputs_named(on or [USUAL_INPUT]) if on or out else {}
    compared = compare_profiles(named, inputs, mode)
    if as_json:
        sheets = dict(zip(compared.names, [dict(sheet) for sheet in compared.sheets], strict=True))
        settings = {setting.path: setting.values for setting in compared.settings}
        say(json.dumps({"sheets": sheets, "settings": settings}, indent=2, default=str))
    else:
        _print_tables(compared)
    if out is not None:
        from wendonic.pictures import draw_comparison, save_picture

        save_picture(draw_comparison(compared), out)
        say(f"wrote {out}")


def _print_tables(compared: "Comparison") -> None:
    from rich import box
    from rich.console import Console
    from rich.table import Table

    from wendonic.profile.units import spelled_in
    from wendonic.study.feel_sheet import value_words
    from wendonic.study.quantities import QUANTITIES

    console = Console()
    table = Table(box=box.SIMPLE_HEAD, show_edge=False, padding=(0, 1), title="* differs", title_justify="left")
    table.add_column("feel")
    for name in compared.names:
        table.add_column(name, justify="right")
    table.add_column("unit")
    for quantity, one in QUANTITIES.items():
        values = [sheet[quantity] for sheet in compared.sheets]
        if all(value is None for value in values):
            continue
        differs = compared.differs(quantity)
        cells = [value_words(value, compared.length.factor(one.unit)) for value in values]
        name = spelled_in(compared.length, quantity)
        table.add_row(f"{'*' if differs else ' '} {name}", *cells, compared.length.label(one.unit))
    console.print(table)
    if not compared.settings:
        say("settings: the same")
        return
    settings = Table(box=box.SIMPLE_HEAD, show_edge=False, padding=(0, 1))
    settings.add_column("setting", overflow="fold")
    for name in compared.names:
        settings.add_column(name, justify="right", overflow="fold")
    for setting in compared.settings:
        path = spelled_in(compared.length, setting.path)
        factor = 1.0 if path == setting.path else compared.length.per_m
        settings.add_row(path, *(_cell(value, factor) for value in setting.values))
    console.print(settings)


def _cell(value: object, factor: float) -> str:
    if isinstance(value, tuple):
        return ", ".join(_cell(part, factor) for part in value) or "none"
    if isinstance(value, float) and factor != 1.0:
        return f"{value * factor:g}"
    return "-" if value is None else str(value)
