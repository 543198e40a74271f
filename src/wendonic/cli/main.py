"""`wendonic`: all commands, and errors in plain words."""

import functools
import io
import logging
import sys
from collections.abc import Callable, Iterable
from typing import Annotated, Any

import typer
from typer.core import TyperCommand

from wendonic import __version__
from wendonic.cli.calibrate import calibrate
from wendonic.cli.check import check
from wendonic.cli.compare import compare
from wendonic.cli.controls import controls
from wendonic.cli.convert import convert
from wendonic.cli.corpus import corpus
from wendonic.cli.cut import cut
from wendonic.cli.demo import demo
from wendonic.cli.draw import draw
from wendonic.cli.explain import explain
from wendonic.cli.export import export
from wendonic.cli.fields import fields
from wendonic.cli.fit import fit
from wendonic.cli.info import info
from wendonic.cli.join import join
from wendonic.cli.live import live
from wendonic.cli.measure import measure
from wendonic.cli.named_help import WithExample, defining, headed, listing
from wendonic.cli.new import new
from wendonic.cli.record import record
from wendonic.cli.say import say
from wendonic.cli.schema import schema
from wendonic.cli.shape import shape
from wendonic.cli.sweep import sweep
from wendonic.cli.units import units
from wendonic.errors import WendonicError


def _profiles() -> Iterable[str]:
    from wendonic.demo import profile_names

    return profile_names()


def _probes() -> Iterable[str]:
    from wendonic.study.probes.by_name import PROBES

    return PROBES


def _quantities() -> Iterable[tuple[str, str]]:
    from wendonic.study.quantities import QUANTITIES

    return ((name, f"{one.definition} ({one.unit or 'ratio'})") for name, one in QUANTITIES.items())


def _corpus_numbers() -> Iterable[tuple[str, str]]:
    from wendonic.study.solve.differences import DIFFERENCES, WALKED

    yield from ((name, f"{words}, under each profile") for name, words in WALKED.items())
    yield from ((name, f"{words}, against the first profile") for name, words in DIFFERENCES.items())


HEADINGS = {
    "Begin": ("demo", "new", "fields", "controls", "explain", "schema"),
    "Record": ("record", "convert", "cut", "join"),
    "Look": ("info", "shape", "draw"),
    "Measure": ("measure", "compare", "corpus", "units"),
    "Improve": ("live", "check", "calibrate", "fit", "sweep"),
    "Take along": ("export",),
}
"""Commands by purpose."""

app = typer.Typer(
    cls=headed(HEADINGS),
    no_args_is_help=True,
    rich_markup_mode=None,
    pretty_exceptions_enable=False,
    help="Shape raw input into movement intent, and see why it feels the way it does.",
    epilog="Begin with: wendonic demo --out demo-out",
)


def _add(command: Callable[..., None], example: str, kind: type[TyperCommand] = WithExample) -> None:
    """Add a command whose help ends with an example."""
    app.command(cls=kind, epilog=f"Example: wendonic {example}")(command)


_add(demo, "demo --out demo-out")
_add(new, "new cart.toml --like cart", listing("Shipped profiles", _profiles))
_add(shape, "shape demo-out/beekeeper.toml demo-out/beekeeper_keys.jsonl -o walk.csv")
_add(convert, "convert demo-out/beekeeper_pad.jsonl beekeeper_pad.parquet")
_add(cut, "cut demo-out/beekeeper_keys.jsonl --from 26 --to 33 -o dodge.jsonl")
_add(join, "join demo-out/beekeeper_keys.jsonl demo-out/beekeeper_pad.jsonl -o both.jsonl")
_add(record, "record walk.jsonl --seconds 20")
_add(live, "live demo-out/terraces.toml --course demo-out/terraces_course.toml")
_add(units, "units --factor 0.9 --hz 30")
_add(fields, "fields dead_zone")
_add(controls, "controls pad")
_add(explain, "explain coyote time")
_add(schema, "schema -o wendonic-profile.schema.json")
app.add_typer(draw, name="draw")
_add(info, "info demo-out/beekeeper.toml --tick-function --mode foot")
_add(calibrate, "calibrate demo-out/lookout_devices.jsonl --into demo-out/lookout.toml --dry-run")
_add(check, "check demo-out/beekeeper.toml")
_add(measure, "measure demo-out/harvest.toml --by pad.left_stick --while sprint", defining("Quantities", _quantities))
_add(compare, "compare demo-out/beekeeper.toml demo-out/terraces.toml -o both.png", listing("Probes", _probes))
_add(
    corpus,
    "corpus recordings/ --profile old.toml --profile new.toml -o change.parquet",
    defining("Numbers", _corpus_numbers),
)
_add(export, "export demo-out/beekeeper.toml --as c99 --out beekeeper_c --check")
_add(fit, "fit demo-out/beekeeper.toml --target reach90_s=0.2 --free gait.walk.accel_m_s2")
_add(
    sweep,
    "sweep demo-out/beekeeper.toml --over gait.walk.accel_m_s2=8:40:20 "
    "--over mode.foot.move.half_life_s=0.005:0.1:20 --of reach90_s -o map.png",
)


def _show_version(wanted: bool) -> None:
    if wanted:
        say(f"wendonic {__version__}")
        raise typer.Exit


@app.callback()
def _global_options(
    version: Annotated[
        bool, typer.Option("--version", callback=_show_version, is_eager=True, help="Show the version and stop.")
    ] = False,
) -> None:
    pass


@functools.cache
def _commands() -> Callable[..., Any]:
    """Return all commands, assembled only once however often a process calls `main`."""
    return typer.main.get_command(app)


def main() -> None:
    """Run the command line; errors go to stderr in plain words, with exit status 2."""
    logging.basicConfig(format="wendonic: %(message)s", level=logging.ERROR)
    logging.getLogger("wendonic").setLevel(logging.WARNING)
    if isinstance(sys.stdout, io.TextIOWrapper):
        # Characters that a terminal or a pipe cannot show are escaped, as on stderr.
        sys.stdout.reconfigure(errors="backslashreplace")
    if sys.stderr.isatty():
        # Work that takes seconds is announced.
        logging.getLogger("wendonic").setLevel(logging.INFO)
    try:
        _commands()(prog_name="wendonic")
    except WendonicError as error:
        say(f"wendonic: {error}", file=sys.stderr)
        sys.exit(2)
