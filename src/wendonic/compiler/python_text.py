"""A tick function printed as Python."""

import ast
import textwrap
from collections.abc import Sequence

from wendonic.compiler.tick_function import PackedFunction, TickFunction
from wendonic.compiler.trees import statements_in

LINE = 110


def _wrapped(start: str, names: Sequence[str], end: str, indent: str) -> list[str]:
    """Return a list of names between a start and an end, on one line or on several."""
    line = f"{indent}{start}{', '.join(names)}{end}"
    if len(line) <= LINE:
        return [line]
    inside = textwrap.wrap(", ".join(names), LINE - len(indent) - 4, break_long_words=False, break_on_hyphens=False)
    return [f"{indent}{start}", *[f"{indent}    {part}" for part in inside], f"{indent}{end}"]


def _unpacking(argument: str, names: Sequence[str | None], indent: str) -> list[str]:
    if not any(names):
        return []
    comma = "," if len(names) == 1 else ""
    return _wrapped("(", [found or "_" for found in names], f"{comma}) = {argument}", indent)


def _statements(body: Sequence[ast.stmt], indent: str) -> list[str]:
    for statement in statements_in(body):
        # All that printing needs of source positions.
        statement.lineno = 0
    module = ast.Module(list(body), [])
    return [f"{indent}{line}" for line in ast.unparse(module).splitlines()]


def _function(function: PackedFunction, indent: str) -> list[str]:
    lines = [f"{indent}def {function.name}({', '.join(function.arguments)}):"]
    inside = f"{indent}    "
    for argument, names in function.unpacked:
        lines += _unpacking(argument, names, inside)
    return [*lines, *_statements(function.body, inside)]


def python_text(function: TickFunction) -> str:
    """Return a tick function as a Python module: `make(numbers, tables, course)` gives `tick_part`, `tick` and
    `standing`, which take and give records.
    """
    lines: list[str] = []
    if function.math_names:
        lines += [*_wrapped("from math import (", function.math_names, ")", ""), ""]
    for kept in function.functions:
        lines += ["", f"def {kept.name}({', '.join(kept.parameters)}):", *_statements(kept.body, "    "), ""]
    lines += ["", "def make(numbers, tables, course):"]
    lines += _unpacking("numbers", [number for number, _ in function.numbers], "    ")
    for whole in function.whole:
        lines += ["", *_function(whole, "    ")]
    lines += ["", "    return tick_part, tick, standing", ""]
    return "\n".join(lines)
