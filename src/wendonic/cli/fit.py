"""`wendonic fit`: settings for a feel."""

from pathlib import Path
from typing import Annotated

import typer

from wendonic.cli.options import ByOption, ModeOption, ProfileArgument, WhileOption
from wendonic.cli.outputs import check_output
from wendonic.cli.say import say


def fit(
    profile: ProfileArgument,
    target: Annotated[
        list[str], typer.Option("--target", help="A quantity and its value: reach90_s=0.12. Again for more.")
    ],
    free: Annotated[
        list[str], typer.Option("--free", help="A setting to solve for: gait.walk.accel_m_s2. Again for more.")
    ],
    out: Annotated[
        Path | None, typer.Option("-o", "--out", help="The new profile; named after the old one by default.")
    ] = None,
    mode: ModeOption = None,
    by: ByOption = None,
    held: WhileOption = None,
) -> None:
    """Solve for settings that give a feel, and write a new profile; exit 1 if a target is out of reach."""
    from rich import box
    from rich.console import Console
    from rich.table import Table

    from wendonic.atomic_file import atomic_file
    from wendonic.errors import ProfileError
    from wendonic.profile.load import profile_from_text, text_of
    from wendonic.profile.units import spelled_in
    from wendonic.study.feel_sheet import value_words
    from wendonic.study.quantities import QUANTITIES
    from wendonic.study.solve.fit import fit as fit_text
    from wendonic.study.solve.fit import targets_of

    path = out or profile.with_name(f"{profile.stem}-fitted.toml")
    check_output(path, "profile", (profile,))
    text = text_of(profile, "profile", ProfileError)
    length = profile_from_text(text, profile).world.length
    found = fit_text(text, targets_of(target), free, mode, by=by, held=held)
    table = Table(box=box.SIMPLE_HEAD, show_edge=False, padding=(0, 1))
    for heading in ("target", "before", "wanted", "after"):
        table.add_column(heading, justify="left" if heading == "target" else "right")
    table.add_column("unit")
    table.add_column("")
    for one in found.targets:
        words = "reached" if one.reached else "out of reach"
        unit = QUANTITIES[one.quantity].unit
        cells = [value_words(value, length.factor(unit)) for value in (one.before, one.wanted, one.after)]
        table.add_row(spelled_in(length, one.quantity), *cells, length.label(unit), words)
    Console().print(table)
    settings = Table(box=box.SIMPLE_HEAD, show_edge=False, padding=(0, 1))
    for heading in ("setting", "before", "after", ""):
        settings.add_column(heading, justify="right" if heading in ("before", "after") else "left")
    for setting in found.settings:
        words = "changes none of the targets" if setting.idle else "at its limit" if setting.at_limit else ""
        settings.add_row(setting.path, f"{setting.before:g}", f"{setting.after:g}", words)
    Console().print(settings)
    with atomic_file(path) as beside:
        beside.write_text(found.text, encoding="utf-8", newline="")
    say(f"wrote {path}")
    if not found.reached:
        raise typer.Exit(1)
