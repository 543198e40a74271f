"""`wendonic draw`: a command for each picture."""

import inspect
from functools import cached_property
from pathlib import Path
from typing import Annotated, Any

import typer

from wendonic.cli.named_help import PLAYED, WholeSummaries, WithExample
from wendonic.cli.options import (
    ByOption,
    CourseOption,
    FromOption,
    HzOption,
    ModeOption,
    PlayedArgument,
    ProfileArgument,
    SeatOption,
    ToOption,
    WhileOption,
)
from wendonic.cli.outputs import check_output
from wendonic.cli.say import say
from wendonic.errors import WendonicError

OutOption = Annotated[
    Path | None,
    typer.Option("-o", "--out", help="The picture: .png, .svg or .pdf; named after the input by default."),
]
_TAKEN: dict[str, list[tuple[str, Any, Any]]] = {
    "profile": [("profile", ProfileArgument, inspect.Parameter.empty)],
    "profiles": [
        (
            "profiles",
            Annotated[list[Path], typer.Argument(metavar="PROFILE", help="One profile (.toml), or several.")],
            inspect.Parameter.empty,
        )
    ],
    "recording": [("recording", PlayedArgument, inspect.Parameter.empty)],
    "[recording]": [
        (
            "recording",
            Annotated[
                Path | None,
                typer.Argument(
                    metavar=PLAYED,
                    help="A recording, or a probe by name, to show as well. You may write --on before it.",
                ),
            ],
            None,
        )
    ],
    "mode": [("mode", ModeOption, None)],
    "seat": [("seat", SeatOption, None)],
    "hz": [("hz", HzOption, 60.0)],
    "course": [("course", CourseOption, None)],
    "window": [
        ("start_s", FromOption, None),
        ("end_s", ToOption, None),
    ],
    "moments": [
        ("moments", Annotated[list[float] | None, typer.Option("--at", help="A moment (s); can be repeated.")], None)
    ],
    "only": [
        (
            "only",
            Annotated[
                list[str] | None,
                typer.Option(
                    metavar="CONTROL", help="Only controls whose names begin like this, such as pad; can be repeated."
                ),
            ],
            None,
        )
    ],
    "by": [("by", ByOption, None), ("held", WhileOption, None)],
    "share": [
        (
            "share",
            Annotated[
                float, typer.Option("--share", help="Share of the samples at rest that the dead zone must cover.")
            ],
            0.999,
        )
    ],
}
"""Arguments of pictures as parameters of a command: name, annotation, default."""


def _command(picture: Any) -> Any:
    """Return the command of a picture."""

    def run(out: Path | None = None, **taken: Any) -> None:
        from wendonic.pictures.picture import Given
        from wendonic.pictures.style import save_picture

        one = taken.pop("profile", None)
        profiles = [one] if one else taken.pop("profiles", ())
        given = {name: value for name, value in taken.items() if name not in ("moments", "only") or value}
        named_after = taken["recording"] if "recording" in picture.takes else profiles[0]
        target = out or Path(f"{named_after.stem}-{picture.name}.png")
        check_output(target, "picture", (*profiles, taken.get("recording"), taken.get("course")))
        try:
            drawn = picture.draw(Given(profiles, **given))
        except WendonicError as error:
            # Another player may have what this one does not.
            if taken.get("seat") is None or type(error) is not WendonicError:
                raise
            raise WendonicError(f"seat {taken['seat']}: {error}") from None
        save_picture(drawn, target)
        say(f"wrote {target}")

    taken = [parameter for word in picture.takes for parameter in _TAKEN[word]]
    kind = inspect.Parameter.KEYWORD_ONLY
    run.__signature__ = inspect.Signature(  # type: ignore[attr-defined]
        [inspect.Parameter(name, kind, annotation=kept, default=default) for name, kept, default in taken]
        + [inspect.Parameter("out", kind, annotation=OutOption, default=None)]
    )
    run.__annotations__ = {name: kept for name, kept, _ in taken} | {"out": OutOption, "return": None}
    return run


class _Pictures(WholeSummaries):
    """The pictures, whose modules are imported only when one of them is needed."""

    @cached_property
    def _drawn(self) -> dict[str, Any]:
        from wendonic.pictures import PICTURES

        app = typer.Typer(rich_markup_mode=None)
        for picture in PICTURES.values():
            app.command(picture.name, cls=WithExample, help=picture.sentence, epilog=f"Example: {picture.example}")(
                _command(picture)
            )
        group = typer.main.get_command(app)
        return dict(getattr(group, "commands", {}))

    def list_commands(self, ctx: Any) -> list[str]:  # noqa: ARG002
        """Return the names of the pictures."""
        return list(self._drawn)

    def get_command(self, ctx: Any, cmd_name: str) -> Any:  # noqa: ARG002
        """Return the command of a picture."""
        # Suggestions for slips come from these names.
        self.commands = self._drawn
        return self._drawn.get(cmd_name)


draw = typer.Typer(
    cls=_Pictures,
    no_args_is_help=True,
    rich_markup_mode=None,
    help="Draw a profile, or a recording under a profile.",
    epilog="Example: wendonic draw stick demo-out/beekeeper.toml",
)


@draw.callback()
def _callback() -> None:
    pass
