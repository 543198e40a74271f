"""`wendonic fit`: settings for a feel."""

import json
from pathlib import Path
from typing import TYPE_CHECKING, Annotated

import typer

from wendonic.cli.completion import numbers, quantities
from wendonic.cli.options import ByOption, ModeOption, ProfileArgument, SeatOption, WhileOption, separated
from wendonic.cli.outputs import check_output
from wendonic.cli.say import say

if TYPE_CHECKING:
    from wendonic.length_unit import LengthUnit
    from wendonic.study.solve.fit import Fitted


def fit(
    profile: ProfileArgument,
    target: Annotated[
        list[str],
        typer.Option(
            "--target",
            metavar="TARGET",
            help="A quantity and its value, a limit or a range: reach90_s=0.12, stop_distance_m<=0.3, "
            "jump_height_m=1:1.2. Separated by commas, or one after another.",
            autocompletion=quantities,
        ),
    ],
    free: Annotated[
        list[str],
        typer.Option(
            "--free",
            metavar="SETTING",
            help="Settings to solve for, such as gait.walk.accel_m_s2: separated by commas, or one after another.",
            autocompletion=numbers,
        ),
    ],
    out: Annotated[
        Path | None, typer.Option("-o", "--out", help="The new profile; named after the old one by default.")
    ] = None,
    mode: ModeOption = None,
    seat: SeatOption = None,
    by: ByOption = None,
    held: WhileOption = None,
    keep: Annotated[
        bool, typer.Option("--keep", help="Write the nearest profile even if a target is not reached.")
    ] = False,
    as_json: Annotated[bool, typer.Option("--json", help="Print targets and settings as JSON.")] = False,
) -> None:
    """Solve for settings that give a feel, and write a new profile; exit 1, and write nothing, if a target is not
    reached.
    """
    from wendonic.atomic_file import atomic_file
    from wendonic.errors import ProfileError
    from wendonic.profile.load import profile_from_text, text_of
    from wendonic.profile.save import saved_text
    from wendonic.study.as_json import fit_document
    from wendonic.study.solve.fit import fit as fit_profile
    from wendonic.study.solve.fit import targets_of

    path = out or profile.parent / f"{profile.stem}-fitted.toml"
    check_output(path, "profile", (profile,), (".toml",))
    text = text_of(profile, "profile", ProfileError)
    loaded = profile_from_text(text, profile)
    targets, settings = targets_of(separated(target) or []), separated(free) or []
    found = fit_profile(loaded, targets, settings, mode, by=by, held=held, seat=seat)
    writes = found.reached or keep
    if as_json:
        say(json.dumps(fit_document(found, str(profile), str(path) if writes else None), indent=2))
    else:
        _print_fit(found, loaded.world.length)
    if writes:
        with atomic_file(path) as beside:
            beside.write_text(saved_text(found.profile, text, profile), encoding="utf-8", newline="")
    if not as_json:
        say(f"wrote {path}" if writes else f"nothing was written; --keep writes the nearest profile to {path}")
    if not found.reached:
        raise typer.Exit(1)


def _print_fit(found: "Fitted", length: "LengthUnit") -> None:
    from rich import box
    from rich.console import Console
    from rich.table import Table

    from wendonic.study.solve.fit import missed_words, setting_note, setting_words, target_words

    console = Console()
    table = Table(box=box.SIMPLE_HEAD, show_edge=False, padding=(0, 1))
    for heading in ("target", "before", "wanted", "after"):
        table.add_column(heading, justify="left" if heading == "target" else "right", no_wrap=True)
    table.add_column("")
    for one in found.targets:
        table.add_row(*target_words(one, length), "reached" if one.reached else "not reached")
    console.print(table)
    settings = Table(box=box.SIMPLE_HEAD, show_edge=False, padding=(0, 1))
    settings.add_column("setting", no_wrap=True)
    for heading in ("before", "after"):
        settings.add_column(heading, justify="right", no_wrap=True)
    settings.add_column("")
    for setting in found.settings:
        settings.add_row(*setting_words(setting), setting_note(setting))
    console.print(settings)
    for words in missed_words(found):
        say(words)
