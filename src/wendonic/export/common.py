"""Functions that several modes share: they are printed once, under a name without a mode."""

import ast
from collections.abc import Collection, Iterator, Sequence
from typing import Any

from wendonic.compiler.trees import names_in
from wendonic.export.program import Function, calls_of, is_field


def mark_common(programs: Sequence[Sequence[Function]], prefixes: Collection[str]) -> None:
    """Mark the functions that at least two modes have alike and that do not depend on a mode: no struct, no number of
    the profile, no function of the mode's own. A function whose name might clash with a mode's names is not common.
    """
    alike: dict[Any, list[Function]] = {}
    for functions in programs:
        own = {function.name: function for function in functions}
        content: dict[str, Any] = {}
        for function in functions:
            called = sorted({call.func.id for _, call in calls_of(function.body, set(own))})  # type: ignore[attr-defined]
            if _is_free(function) and all(name in content for name in called):
                content[function.name] = (*_content(function), *(content[name] for name in called))
        for name, found in content.items():
            if not name.startswith(tuple(prefixes)):
                alike.setdefault(found, []).append(own[name])
    # If different functions have the same name in several modes, the first one keeps it.
    taken: set[str] = set()
    for functions in alike.values():
        name = functions[0].name
        if len(functions) > 1 and name not in taken:
            taken.add(name)
            for function in functions:
                function.common = True
    for functions in programs:
        _only_with_what_they_call(functions)


def common_functions(programs: Sequence[Sequence[Function]]) -> Iterator[tuple[Function, Sequence[Function]]]:
    """Yield each common function once, callees first, with the functions of the mode that it is taken from."""
    printed: set[str] = set()
    for functions in programs:
        for function in functions:
            if function.common and function.name not in printed:
                printed.add(function.name)
                yield function, functions


def _is_free(function: Function) -> bool:
    return set(function.context) <= {"course"} and not any(is_field(part.id) for part in names_in(function.body))


def _content(function: Function) -> tuple[Any, ...]:
    return (
        function.name,
        tuple(function.parameters),
        tuple(ast.dump(statement) for statement in function.body),
        function.results,
        function.about,
        function.context,
        tuple(sorted(function.types.items())),
        tuple(function.result_types),
        tuple(function.result_names),
    )


def _only_with_what_they_call(functions: Sequence[Function]) -> None:
    own = {function.name: function for function in functions}
    for function in functions:
        calls = [call.func.id for _, call in calls_of(function.body, set(own))]  # type: ignore[attr-defined]
        function.common = function.common and all(own[name].common for name in calls)
