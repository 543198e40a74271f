"""`wendonic units`: convert between units of looking, and numbers of a frame into numbers of a second."""

from typing import Annotated

import typer

from wendonic.cli.say import say


def units(
    cm_per_turn: Annotated[float | None, typer.Option(help="Mouse travel for a full turn (cm).")] = None,
    deg_per_count: Annotated[float | None, typer.Option(help="Turn for one count of the mouse (deg).")] = None,
    counts_per_turn: Annotated[float | None, typer.Option(help="Counts of the mouse for a full turn.")] = None,
    dpi: Annotated[float, typer.Option(help="Counts per inch of the mouse.")] = 800.0,
    rate_deg_s: Annotated[float, typer.Option(help="A turn rate (deg/s), such as a stick's.")] = 180.0,
    fov_deg: Annotated[float, typer.Option(help="Field of view (deg), across the window or down it.")] = 80.0,
    zoom_fov_deg: Annotated[float, typer.Option(help="The same while zoomed (deg).")] = 40.0,
    hz: Annotated[float, typer.Option("--hz", help="Frames a second.")] = 60.0,
    factor: Annotated[
        float | None, typer.Option(help="Factor that something is multiplied by each frame: 0.9.")
    ] = None,
    share: Annotated[
        float | None,
        typer.Option(help="Share of the remaining distance covered each frame (lerp): 0.1."),
    ] = None,
    per_frame: Annotated[float | None, typer.Option(help="Distance or angle per frame: 3.")] = None,
    per_frame_squared: Annotated[float | None, typer.Option(help="Amount added to a speed each frame: 0.2.")] = None,
    unit: Annotated[str, typer.Option(metavar="UNIT", help="Unit of the last two, such as px or deg.")] = "",
) -> None:
    """Convert between units of looking, or per-frame numbers into per-second ones.

    Looking: give one of the first three; without any it is 34 cm a turn.
    """
    from wendonic.frame_units import frame_table
    from wendonic.look_units import look_table, one_sensitivity

    of_frame = frame_table(hz, factor, share, per_frame, per_frame_squared, unit)
    if of_frame:
        _print_table(of_frame)
    if not of_frame or any(given is not None for given in (cm_per_turn, deg_per_count, counts_per_turn)):
        sensitivity = one_sensitivity(dpi, cm_per_turn, deg_per_count, counts_per_turn)
        _print_table(look_table(sensitivity, dpi, rate_deg_s, fov_deg, zoom_fov_deg))
        say(f"in a profile: deg_per_count = {sensitivity:.6g}")


def _print_table(rows: list[tuple[str, float, str]]) -> None:
    from rich import box
    from rich.console import Console
    from rich.table import Table

    table = Table(box=box.SIMPLE_HEAD, show_header=False, show_edge=False, pad_edge=False)
    table.add_column("")
    table.add_column("", justify="right")
    table.add_column("")
    for words, value, unit in rows:
        table.add_row(words, f"{value:.5g}", unit)
    Console().print(table)
