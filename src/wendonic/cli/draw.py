"""`wendonic draw`: pictures."""

from pathlib import Path
from typing import TYPE_CHECKING, Annotated

import typer

from wendonic.cli.options import CourseOption, HzOption, ModeOption, ProfileArgument, RecordingArgument

draw = typer.Typer(
    no_args_is_help=True,
    help="Draw a profile, or a recording under a profile.",
    epilog="Example: wendonic draw stick demo-out/beekeeper.toml",
)

if TYPE_CHECKING:
    from wendonic.course import Course
    from wendonic.profile.schema import Profile
    from wendonic.recording.recording import Recording

OutOption = Annotated[
    Path | None,
    typer.Option("-o", "--out", help="The picture: .png, .svg or .pdf; named after the input by default."),
]


def _read(profile: Path, recording: Path, course: Path | None) -> "tuple[Recording, Profile, Course | None]":
    from wendonic.course import load_course
    from wendonic.profile.load import load_profile
    from wendonic.recording.recording import Recording

    return Recording.read(recording), load_profile(profile), load_course(course) if course else None


@draw.command(epilog="Example: wendonic draw stick demo-out/beekeeper.toml demo-out/beekeeper_pad.jsonl -o stick.png")
def stick(
    profile: ProfileArgument,
    recording: Annotated[
        Path | None, typer.Argument(metavar="[RECORDING]", help="A recording whose stick positions are shown.")
    ] = None,
    out: OutOption = None,
    mode: ModeOption = None,
) -> None:
    """Where raw stick positions go: dead zone, rim, lines of wanted amount."""
    from wendonic.pictures import draw_stick, save_picture
    from wendonic.profile.load import load_profile
    from wendonic.recording.recording import Recording

    drawn = draw_stick(load_profile(profile), Recording.read(recording) if recording else None, mode)
    target = out or Path(f"{profile.stem}-stick.png")
    save_picture(drawn, target)
    print(f"wrote {target}")


@draw.command(
    epilog="Example: wendonic draw timeline demo-out/beekeeper.toml demo-out/beekeeper_keys.jsonl --from 26 --to 33"
)
def timeline(
    profile: ProfileArgument,
    recording: RecordingArgument,
    out: OutOption = None,
    start_s: Annotated[float | None, typer.Option("--from", help="Begin here (s).")] = None,
    end_s: Annotated[float | None, typer.Option("--to", help="End here (s).")] = None,
    hz: HzOption = 60.0,
    mode: ModeOption = None,
) -> None:
    """Raw, shaped, intent and speed over time, held keys as bars."""
    from wendonic.batch import shape
    from wendonic.pictures import draw_timeline, save_picture

    events, tuned, _ = _read(profile, recording, None)
    trace = shape(events, tuned, hz=hz, mode=mode)
    target = out or Path(f"{recording.stem}-timeline.png")
    save_picture(draw_timeline(trace, events, start_s, end_s), target)
    print(f"wrote {target}")


@draw.command(epilog="Example: wendonic draw path demo-out/beekeeper.toml demo-out/beekeeper_keys.jsonl -o path.png")
def path(
    profile: ProfileArgument,
    recording: RecordingArgument,
    out: OutOption = None,
    hz: HzOption = 60.0,
    mode: ModeOption = None,
    course: CourseOption = None,
) -> None:
    """The walk from above: camera, facing, goals, squares, heights, the swing of hands."""
    from wendonic.batch import shape
    from wendonic.pictures import draw_path, save_picture

    events, tuned, ground = _read(profile, recording, course)
    trace = shape(events, tuned, hz=hz, mode=mode, course=ground)
    target = out or Path(f"{recording.stem}-path.png")
    save_picture(draw_path(trace, events.title, profile=tuned, recording=events, course=ground), target)
    print(f"wrote {target}")


@draw.command(
    epilog="Example: wendonic draw frame demo-out/beekeeper.toml demo-out/beekeeper_keys.jsonl --at 3 --at 17.5"
)
def frame(
    profile: ProfileArgument,
    recording: RecordingArgument,
    out: OutOption = None,
    at: Annotated[list[float] | None, typer.Option("--at", help="A moment (s); may be repeated.")] = None,
    hz: HzOption = 60.0,
    mode: ModeOption = None,
    course: CourseOption = None,
) -> None:
    """Why ahead went there: a compass rose with camera, facing, input and result at some moments."""
    from wendonic.batch import shape
    from wendonic.pictures import draw_frame, save_picture

    events, tuned, ground = _read(profile, recording, course)
    trace = shape(events, tuned, hz=hz, mode=mode, course=ground)
    target = out or Path(f"{recording.stem}-frame.png")
    save_picture(draw_frame(trace, tuned, at, events.title), target)
    print(f"wrote {target}")


ProfilesArgument = Annotated[
    list[Path], typer.Argument(metavar="PROFILE...", help="One profile (.toml), or several.")
]


@draw.command(epilog="Example: wendonic draw curve demo-out/beekeeper.toml -o curve.png")
def curve(profiles: ProfilesArgument, out: OutOption = None, mode: ModeOption = None) -> None:
    """Response curves with their slope, and how many of a stick's steps are left for slow walking."""
    from wendonic.pictures import draw_curves, save_picture
    from wendonic.profile.load import load_profile

    target = out or Path(f"{profiles[0].stem}-curve.png")
    save_picture(draw_curves([load_profile(path) for path in profiles], mode), target)
    print(f"wrote {target}")


@draw.command(epilog="Example: wendonic draw diagonals demo-out/beekeeper.toml -o diagonals.png")
def diagonals(profile: ProfileArgument, out: OutOption = None, mode: ModeOption = None) -> None:
    """Wanted speed by direction for keys and sticks; diagonals that are too fast stand out."""
    from wendonic.pictures import draw_diagonals, save_picture
    from wendonic.profile.load import load_profile

    target = out or Path(f"{profile.stem}-diagonals.png")
    save_picture(draw_diagonals(load_profile(profile), mode), target)
    print(f"wrote {target}")


@draw.command(epilog="Example: wendonic draw look demo-out/beekeeper.toml -o look.png")
def look(profiles: ProfilesArgument, out: OutOption = None, mode: ModeOption = None) -> None:
    """Yaw rate by tilt for sticks, angle by swipe for mice; of two profiles if two are given."""
    from wendonic.pictures import draw_look, save_picture
    from wendonic.profile.load import load_profile

    target = out or Path(f"{profiles[0].stem}-look.png")
    save_picture(draw_look([load_profile(path) for path in profiles], mode), target)
    print(f"wrote {target}")


@draw.command(epilog="Example: wendonic draw devices demo-out/beekeeper_mouse.jsonl -o devices.png")
def devices(
    recording: RecordingArgument,
    out: OutOption = None,
    start_s: Annotated[float | None, typer.Option("--from", help="Begin here (s).")] = None,
    end_s: Annotated[float | None, typer.Option("--to", help="End here (s).")] = None,
    only: Annotated[
        list[str] | None, typer.Option(help="Only controls whose names begin so, such as pad; may be repeated.")
    ] = None,
) -> None:
    """Every control of a recording over time: bars, lines and ticks, losses and notes."""
    from wendonic.pictures import draw_devices, save_picture
    from wendonic.recording.recording import Recording

    target = out or Path(f"{recording.stem}-devices.png")
    save_picture(draw_devices(Recording.read(recording), start_s, end_s, only or ()), target)
    print(f"wrote {target}")


@draw.command(epilog="Example: wendonic draw calibration demo-out/lookout_devices.jsonl")
def calibration(
    recording: RecordingArgument,
    out: OutOption = None,
    share: Annotated[float, typer.Option("--share", help="Share of the samples at rest that is to be dead.")] = 0.999,
) -> None:
    """Sticks at rest and round their rims, with the dead zone and the gate that follow."""
    from wendonic.pictures import draw_calibration, save_picture
    from wendonic.recording.recording import Recording
    from wendonic.study.calibration import calibrate

    target = out or Path(f"{recording.stem}-calibration.png")
    save_picture(draw_calibration(calibrate(Recording.read(recording), share)), target)
    print(f"wrote {target}")


@draw.command(epilog="Example: wendonic draw feel demo-out/beekeeper.toml demo-out/terraces.toml -o feel.png")
def feel(
    profiles: Annotated[list[Path], typer.Argument(metavar="PROFILE...", help="One profile (.toml), or several.")],
    out: OutOption = None,
    mode: ModeOption = None,
) -> None:
    """Speed after a full press, after letting go and after a reversal, with the feel sheet's quantities marked."""
    from wendonic.pictures import draw_feel, save_picture
    from wendonic.profile.load import load_profile
    from wendonic.study.compare import names_of

    named = dict(zip(names_of(profiles), map(load_profile, profiles), strict=True))
    target = out or Path(f"{profiles[0].stem}-feel.png")
    save_picture(draw_feel(named, mode), target)
    print(f"wrote {target}")
