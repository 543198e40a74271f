"""`wendonic look-units`: convert between units of looking."""

from typing import Annotated

import typer

from wendonic.cli.say import say


def look_units(
    cm_per_turn: Annotated[float | None, typer.Option(help="How far the mouse goes for a full turn (cm).")] = None,
    deg_per_count: Annotated[float | None, typer.Option(help="How far one count of the mouse turns (deg).")] = None,
    counts_per_turn: Annotated[float | None, typer.Option(help="Counts of the mouse in a full turn.")] = None,
    dpi: Annotated[float, typer.Option(help="Counts of the mouse an inch.")] = 800.0,
    rate_deg_s: Annotated[float, typer.Option(help="A rate of turning (deg/s), such as a stick's.")] = 180.0,
    fov_deg: Annotated[float, typer.Option(help="Field of view (deg), across the window or down it.")] = 80.0,
    zoom_fov_deg: Annotated[float, typer.Option(help="The same while zoomed (deg).")] = 40.0,
) -> None:
    """Counts, dpi, centimetres a turn, degrees a count and a rate at a field of view, converted into each other.

    Give one of the first three; without any it is 34 cm a turn.
    """
    from rich import box
    from rich.console import Console
    from rich.table import Table

    from wendonic.look_units import look_table, one_sensitivity

    sensitivity = one_sensitivity(dpi, cm_per_turn, deg_per_count, counts_per_turn)
    table = Table(box=box.SIMPLE_HEAD, show_header=False, show_edge=False, pad_edge=False)
    table.add_column("")
    table.add_column("", justify="right")
    table.add_column("")
    for words, value, unit in look_table(sensitivity, dpi, rate_deg_s, fov_deg, zoom_fov_deg):
        table.add_row(words, f"{value:.5g}", unit)
    Console().print(table)
    say(f"in a profile: deg_per_count = {sensitivity:.6g}")
