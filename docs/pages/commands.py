"""The page of commands: their help, as the terminal shows it."""

import re
from typing import Any

import typer

from pages.markdown import table, written_by
from wendonic.cli.main import HEADINGS, app

HEAD = """# Commands

Each is shown as `--help` shows it. Errors are printed in plain words on stderr, with exit status 2; output files are
written whole or not at all. Completion for your shell: `wendonic --install-completion`.

"""
WIDTH = 100


def _help(command: Any, name: str) -> str:
    context = command.make_context(name, [], resilient_parsing=True, max_content_width=WIDTH, terminal_width=WIDTH)
    return re.sub(r"[ \t]+\n", "\n", command.get_help(context)).strip()


def page() -> str:
    """Return the page."""
    group: Any = typer.main.get_command(app)
    context = group.make_context("wendonic", [], resilient_parsing=True)
    parts = [written_by(), HEAD]
    for heading, names in HEADINGS.items():
        commands = {name: group.get_command(context, name) for name in names}
        parts.append(f"## {heading}\n\n")
        rows = [(f"[`{name}`](#{name})", one.get_short_help_str(limit=300)) for name, one in commands.items()]
        parts.append(table(("command", "what it does"), rows) + "\n")
        for name, one in commands.items():
            parts.append(f"### {name} {{#{name}}}\n\n```text\n{_help(one, f'wendonic {name}')}\n```\n\n")
            for inner in one.list_commands(context) if hasattr(one, "list_commands") else ():
                text = _help(one.get_command(context, inner), f"wendonic {name} {inner}")
                parts.append(f"#### {name} {inner}\n\n```text\n{text}\n```\n\n")
    return "".join(parts).rstrip() + "\n"
