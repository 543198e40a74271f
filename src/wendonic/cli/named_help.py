"""Help in plain text: commands under headings, and commands whose help ends with the names an option knows, which are
looked up only when they are needed.
"""

import re
from collections.abc import Callable, Iterable, Mapping
from itertools import islice
from typing import Any

from typer.core import TyperCommand, TyperGroup

_VALUES = {"path": "PATH", "str": "TEXT", "float": "NUMBER", "int": "NUMBER", "int range": "NUMBER"}
"""Names of values, by the type that Typer prints."""


def _valued(name: str) -> str:
    """Return an option with its value in plain words, an argument without its type.

    >>> _valued("--out, -o <path>"), _valued("--free <list[str]>"), _valued("WORD <list[str]>")
    ('--out, -o PATH', '--free TEXT', 'WORD')
    """
    plain, _, kind = name.partition(" <")
    kind = re.sub(r"^list\[(\w+)\]$", r"\1", kind.removesuffix(">")).lower()
    if not kind or not plain.startswith("-"):
        return plain
    return f"{plain} {_VALUES.get(kind, kind)}"


def write_example(epilog: str | None, formatter: Any) -> None:
    """Write the example at the end of a help unwrapped, so that it can be copied."""
    if epilog:
        formatter.write_paragraph()
        formatter.write(f"  {epilog}\n")


PLAYED = "RECORDING|PROBE"
"""The recording or probe as an argument after the profile; --on is accepted before it, since other commands require
it.
"""


class WithExample(TyperCommand):
    """A command whose help ends with an unwrapped example."""

    def parse_args(self, ctx: Any, args: list[str]) -> list[str]:
        """Take the value of --on as an argument."""
        if any(one.param_type_name == "argument" and one.metavar == PLAYED for one in self.params):
            args = _without_on(args)
        return super().parse_args(ctx, args)

    def collect_usage_pieces(self, ctx: Any) -> list[str]:
        """Return the parts of the usage line; braces would mean a choice."""
        return [piece.replace("{", "").replace("}", "") for piece in super().collect_usage_pieces(ctx)]

    def format_options(self, ctx: Any, formatter: Any) -> None:
        """Write arguments and options, with no type of Python among them."""
        for title, kind in (("Arguments", "argument"), ("Options", "option")):
            records = [one.get_help_record(ctx) for one in self.get_params(ctx) if one.param_type_name == kind]
            rows = [(_valued(name), words) for name, words in filter(None, records)]
            if rows:
                with formatter.section(title):
                    formatter.write_dl(rows)

    def format_epilog(self, ctx: Any, formatter: Any) -> None:  # noqa: ARG002
        """Write the example on a line of its own."""
        write_example(self.epilog, formatter)


def _without_on(args: list[str]) -> list[str]:
    """Return the arguments with the value of --on moved to the end.

    >>> _without_on(["--on", "walk.jsonl", "beekeeper.toml", "--hz", "30"])
    ['beekeeper.toml', '--hz', '30', 'walk.jsonl']
    """
    kept: list[str] = []
    played: list[str] = []
    left = iter(args)
    for arg in left:
        if arg == "--on":
            played += islice(left, 1)
        elif arg.startswith("--on="):
            played.append(arg.removeprefix("--on="))
        else:
            kept.append(arg)
    return kept + played


class WholeSummaries(TyperGroup):
    """A group whose help lists its commands, each with the whole of its sentence."""

    def format_commands(self, ctx: Any, formatter: Any) -> None:
        """Write the list of commands under headings."""
        for heading, names in self.headings(ctx).items():
            with formatter.section(heading):
                known = {name: self.get_command(ctx, name) for name in names}
                formatter.write_dl(
                    [(name, command.get_short_help_str(limit=300)) for name, command in known.items() if command]
                )

    def format_epilog(self, ctx: Any, formatter: Any) -> None:  # noqa: ARG002
        """Write the example on a line of its own, whole."""
        write_example(self.epilog, formatter)

    def headings(self, ctx: Any) -> Mapping[str, Iterable[str]]:
        """Return the names of the commands by their heading."""
        return {"Commands": self.list_commands(ctx)}


def headed(headings: Mapping[str, Iterable[str]]) -> type[TyperGroup]:
    """Return a class of groups whose help lists its commands under headings."""

    class WithHeadings(WholeSummaries):
        def headings(self, ctx: Any) -> Mapping[str, Iterable[str]]:  # noqa: ARG002
            return headings

    return WithHeadings


def defining(title: str, definitions: Callable[[], Iterable[tuple[str, str]]]) -> type[TyperCommand]:
    """Return a class of commands whose help ends with names and descriptions above its example."""

    class WithDefinitions(WithExample):
        def format_epilog(self, ctx: Any, formatter: Any) -> None:
            with formatter.section(title):
                formatter.write_dl(list(definitions()))
            super().format_epilog(ctx, formatter)

    return WithDefinitions


def listing(title: str, names: Callable[[], Iterable[str]]) -> type[TyperCommand]:
    """Return a class of commands whose help ends with names above its example."""

    class WithNames(WithExample):
        def format_epilog(self, ctx: Any, formatter: Any) -> None:
            with formatter.section(title):
                formatter.write_text(", ".join(names()))
            super().format_epilog(ctx, formatter)

    return WithNames
