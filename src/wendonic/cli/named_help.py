"""Help in plain text: commands under headings, and commands whose help ends with the names an option knows, which are
looked up only when they are needed.
"""

from collections.abc import Callable, Iterable, Mapping
from typing import Any

from typer.core import TyperCommand, TyperGroup


def write_example(epilog: str | None, formatter: Any) -> None:
    """Write what a help ends with, unwrapped: an example is there to be copied."""
    if epilog:
        formatter.write_paragraph()
        formatter.write(f"  {epilog}\n")


class WithExample(TyperCommand):
    """A command whose help ends with an example, whole."""

    def format_epilog(self, ctx: Any, formatter: Any) -> None:  # noqa: ARG002
        """Write the example on a line of its own."""
        write_example(self.epilog, formatter)


class WholeSummaries(TyperGroup):
    """A group whose help lists its commands, each with the whole of its sentence."""

    def format_commands(self, ctx: Any, formatter: Any) -> None:
        """Write the list of commands, under headings."""
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
    """Return a kind of group whose help lists its commands under headings."""

    class WithHeadings(WholeSummaries):
        def headings(self, ctx: Any) -> Mapping[str, Iterable[str]]:  # noqa: ARG002
            return headings

    return WithHeadings


def defining(title: str, definitions: Callable[[], Iterable[tuple[str, str]]]) -> type[TyperCommand]:
    """Return a kind of command whose help ends with names and what each of them is, above its example."""

    class WithDefinitions(WithExample):
        def format_epilog(self, ctx: Any, formatter: Any) -> None:
            with formatter.section(title):
                formatter.write_dl(list(definitions()))
            super().format_epilog(ctx, formatter)

    return WithDefinitions


def listing(title: str, names: Callable[[], Iterable[str]]) -> type[TyperCommand]:
    """Return a kind of command whose help ends with names, above its example."""

    class WithNames(WithExample):
        def format_epilog(self, ctx: Any, formatter: Any) -> None:
            with formatter.section(title):
                formatter.write_text(", ".join(names()))
            super().format_epilog(ctx, formatter)

    return WithNames
