"""`wendonic compare`: profiles side by side."""

import json
from pathlib import Path
from typing import TYPE_CHECKING, Annotated

import typer

from wendonic.cli.options import ByOption, CourseOption, FromOption, ModeOption, SeatOption, ToOption, WhileOption
from wendonic.cli.outputs import check_output
from wendonic.cli.say import say
from wendonic.errors import WendonicError

if TYPE_CHECKING:
    from wendonic.study.solve.compare import Comparison, OnInput


def compare(
    profiles: Annotated[list[Path], typer.Argument(metavar="PROFILE", help="Two profiles (.toml) or more.")],
    on: Annotated[
        list[str] | None,
        typer.Option(
            "--on",
            metavar="RECORDING|PROBE",
            help="A recording, or a probe by name; figure_of_eight by default. Can be repeated; see the list below.",
        ),
    ] = None,
    out: Annotated[
        Path | None, typer.Option("-o", "--out", help="Draw paths, speeds and headings: .png, .svg or .pdf.")
    ] = None,
    mode: ModeOption = None,
    seat: SeatOption = None,
    course: CourseOption = None,
    hz: Annotated[float | None, typer.Option("--hz", help="Ticks a second of the inputs; 120 by default.")] = None,
    start_s: FromOption = None,
    end_s: ToOption = None,
    by: ByOption = None,
    held: WhileOption = None,
    as_json: Annotated[bool, typer.Option("--json", help="Print sheets and settings as JSON.")] = False,
) -> None:
    """Put profiles side by side: feel sheets, settings that differ, and a picture of the same input."""
    from wendonic.course import load_course
    from wendonic.course.unused import warn_of_unused
    from wendonic.profile.load import load_profile
    from wendonic.study.as_json import document, setting_values, sheet_head, sheet_values, walked_values
    from wendonic.study.no_effect import warn_of_no_effect
    from wendonic.study.solve.compare import COMPARED_HZ, inputs_named, names_of, numbers_on, traces_of, usual_inputs
    from wendonic.study.solve.compare import compare as compare_profiles

    check_output(out, "picture", (*profiles, course, *(Path(name) for name in on or ())))
    by_name = dict(zip(names_of(profiles), map(load_profile, profiles), strict=True))
    # Tables alone need no common input, so they are printed even if no input suits all profiles.
    inputs = inputs_named(on) if on else usual_inputs(by_name, mode) if out else {}
    ground = load_course(course) if course else None
    for name, profile in by_name.items():
        warn_of_unused(ground, profile, [mode] if mode else (), f"{name}: ")
    compared = compare_profiles(by_name, {}, mode, by=by, held=held, seat=seat)
    if not as_json:
        _print_tables(compared)
    rate = COMPARED_HZ if hz is None else hz
    traces = (
        traces_of(by_name, inputs, mode, rate, seat=seat, course=ground, start_s=start_s, end_s=end_s)
        if inputs
        else {}
    )
    for name, recording in inputs.items():
        # A part of a recording may well have no effect.
        if recording is not None and start_s is None and end_s is None:
            for title, trace in zip(by_name, traces[name], strict=True):
                warn_of_no_effect(trace, recording, seat, f"{title}, {name}: ")
    compared = compared._replace(traces=traces)
    numbers = numbers_on(by_name, traces)
    if as_json:
        sheets = {
            name: {**sheet_head(sheet, seat), "values": sheet_values(sheet)}
            for name, sheet in zip(compared.names, compared.sheets, strict=True)
        }
        settings = setting_values(by_name, compared.settings)
        on_inputs = {
            name: {
                profile: {"values": walked_values(walk, apart)}
                for profile, walk, apart in zip(compared.names, found.walks, found.differences, strict=True)
            }
            for name, found in numbers.items()
        }
        content = document("compare", profiles=sheets, settings=settings, on=on_inputs)
        say(json.dumps(content, indent=2, default=str))
    else:
        _print_walks(compared, numbers, rate)
    if out is not None:
        from wendonic.pictures import draw_comparison, save_picture

        if not traces:
            words = "at least one of these does not move by itself, so there is no walk to draw"
            raise WendonicError(
                f"{words}; wendonic draw look shows how they turn the view, and --on takes other inputs"
            )
        save_picture(draw_comparison(compared), out)
        say(f"wrote {out}")


def _print_walks(compared: "Comparison", numbers: "dict[str, OnInput]", hz: float) -> None:
    """Print the numbers of each profile on each input, and the differences from the first one."""
    from wendonic.cli.side_by_side import Row, print_side_by_side
    from wendonic.profile.units import spelled_in
    from wendonic.study.feel_sheet import value_words
    from wendonic.study.solve.differences import UNITS, Difference, Walked

    length = compared.length
    for name, found in numbers.items():
        rows = []
        for field in Walked._fields:
            unit = UNITS[field]
            cells = [value_words(getattr(walk, field), length.factor(unit)) for walk in found.walks]
            rows.append(Row(spelled_in(length, field), cells, length.label(unit)))
        rows.append(Row(f"against {compared.names[0]}:", [""] * len(found.walks)))
        for field in Difference._fields:
            unit = UNITS[field]
            cells = [
                "" if apart is None else value_words(getattr(apart, field), length.factor(unit))
                for apart in found.differences
            ]
            rows.append(Row(f"  {spelled_in(length, field)}", cells, length.label(unit)))
        title = f"on {name}, at {hz:g} ticks a second"
        print_side_by_side("number", compared.names, rows, title)


def _print_tables(compared: "Comparison") -> None:
    from wendonic.cli.side_by_side import Row, print_side_by_side
    from wendonic.study.quantities import QUANTITIES

    rows = []
    for quantity in QUANTITIES:
        if all(sheet[quantity] is None for sheet in compared.sheets):
            continue
        name, *values, unit = compared.quantity_words(quantity)
        rows.append(Row(f"{'*' if compared.differs(quantity) else ' '} {name}", values, unit))
    print_side_by_side("feel", compared.names, rows, "* differs")
    if not compared.settings:
        say("settings: the same")
        return
    settings = [compared.setting_words(setting) for setting in compared.settings]
    print_side_by_side("setting", compared.names, [Row(path, cells) for path, *cells in settings])
