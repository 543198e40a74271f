"""Uniting: a function that is called once is inlined into its caller if that stays short enough to read."""

import ast
from collections import Counter
from collections.abc import Sequence

from wendonic.compiler.coalesce import coalesced
from wendonic.compiler.folded import Folded
from wendonic.compiler.inline import opened, opens
from wendonic.compiler.steps import Step, mark_step
from wendonic.compiler.tidy import unite_copies
from wendonic.compiler.trees import names_in, statements_in
from wendonic.export.lift import loop_names, replace_statements
from wendonic.export.naming import unique
from wendonic.export.program import Function, calls_of, is_field, targets_of, values_of, written_in

MOST_LINES = 81
"""Most lines of a function after others have been inlined into it."""

WIDTH = 92
"""Most characters of a statement that is printed on one line."""


def unite(functions: list[Function]) -> None:
    """Inline functions into their only callers, the shortest pairs first; callees come first, and the last one is the
    tick.
    """
    inside = {one.name: _lines(one.body) for one in functions}
    around = {one.name: _lines_around(one) for one in functions}
    laid_open = {one.name for one in functions if opens(one.body)}
    while True:
        calls: dict[str, list[tuple[Function, ast.Assign | None]]] = {one.name: [] for one in functions}
        for caller in functions:
            for site, call in calls_of(caller.body, set(calls)):
                if isinstance(call.func, ast.Name):
                    calls[call.func.id].append((caller, site))
        pairs = [
            (inside[caller.name] + around[caller.name] + inside[callee.name], callee, caller, site)
            for callee in functions
            if callee.name in laid_open and len(calls[callee.name]) == 1
            for caller, site in calls[callee.name]
            if site is not None
        ]
        short = [pair for pair in pairs if pair[0] <= MOST_LINES]
        if not short:
            return
        _, callee, caller, site = min(short, key=lambda pair: pair[0])
        _unite(callee, caller, site, functions)
        inside[caller.name] = _lines(caller.body)


def _unite(callee: Function, caller: Function, site: ast.Assign, functions: list[Function]) -> None:
    laid = _laid(callee, site, caller, functions)
    replace_statements(caller.body, lambda one: laid if one is site else [one])
    functions.remove(callee)
    folded = Folded(caller.name, caller.parameters, caller.body, None, caller.results)  # type: ignore[arg-type]
    unite_copies(folded)
    coalesced(folded)


def _lines(body: Sequence[ast.stmt]) -> int:
    """Return about how many lines a body takes in a language with braces."""
    found = 0
    for statement in body:
        match statement:
            case ast.If(test=test, body=yes, orelse=no):
                found += 1 + _length(test) // WIDTH + _lines(yes) + (2 if len(yes) > 1 or no else 0)
                chained = len(no) == 1 and isinstance(no[0], ast.If)
                found += _lines(no) + (1 if no and not chained else 0)
            case ast.For(body=inside) | ast.While(body=inside):
                found += 2 + _lines(inside)
            case _:
                found += 1 + _length(statement) // WIDTH
    return found


def _lines_around(function: Function) -> int:
    """Return about how many lines its head takes, and what it writes to the targets that it is passed."""
    handed = sum(len(name) + 9 for name in function.parameters) + 14 * function.results
    returns = sum(1 for one in statements_in(function.body) if isinstance(one, ast.Return))
    return 2 + handed // WIDTH + (returns * function.results if function.results > 1 else 0)


def _length(node: ast.AST) -> int:
    return len(ast.unparse(ast.fix_missing_locations(node)))


def _laid(callee: Function, site: ast.Assign, caller: Function, functions: Sequence[Function]) -> list[ast.stmt]:
    """Return the statements that replace a call."""
    assert isinstance(site.value, ast.Call)
    written = written_in(callee.body)
    effects = _effects(callee, functions)
    reads = Counter(part.id for part in names_in(callee.body) if type(part.ctx) is ast.Load)
    taken = {part.id for part in names_in(caller.body)} | {*caller.parameters} | {one.name for one in functions}
    renamed: dict[str, ast.expr] = {}
    before: list[ast.stmt] = []
    handed: set[str] = set()
    for parameter, argument in zip(callee.parameters, site.value.args, strict=True):
        names = {part.id for part in names_in(argument)}
        plain = isinstance(argument, ast.Name | ast.Constant) or reads[parameter] <= 1
        if parameter not in written and plain and not names & effects:
            renamed[parameter] = argument
            handed |= names
        else:
            renamed[parameter] = ast.Name(unique(parameter, taken), ast.Load())
            before.append(ast.Assign([ast.Name(renamed[parameter].id, ast.Store())], argument))  # type: ignore[attr-defined]
    targets = [target.id for target in targets_of(site)]
    rows = [values_of(one) for one in statements_in(callee.body) if isinstance(one, ast.Return)]
    local = {name for name in written | set(loop_names(callee.body)) if not is_field(name)} - set(callee.parameters)
    for index, target in enumerate(targets):
        variables = {part.id if isinstance(part, ast.Name) else "" for part in (row[index] for row in rows)}
        variable = variables.pop()
        if variables or variable not in local or variable in renamed or target == "_" or is_field(target):
            continue
        if target not in handed and targets.count(target) == 1:
            renamed[variable] = ast.Name(target, ast.Load())
    for name in sorted(local):
        if name not in renamed and name != "_":
            renamed[name] = ast.Name(unique(name, taken), ast.Load())
    body = opened(callee.body, targets, renamed)
    mark_step(body, Step(callee.name, callee.about))
    names = {one.name for one in functions}
    replace_statements(body, lambda one: [] if _is_unread(one, names) else [one])
    return [*before, *body]


def _is_unread(statement: ast.stmt, functions: set[str]) -> bool:
    """Return whether a statement assigns a value that is not used; a call may have other effects."""
    match statement:
        case ast.Assign(targets=[ast.Name(id="_")], value=value):
            return not any(part.id in functions for part in names_in(value))
    return False


def _effects(function: Function, functions: Sequence[Function]) -> set[str]:
    """Return the fields that a function writes, directly or through its calls."""
    found = {name for name in written_in(function.body) if is_field(name)}
    by_name = {one.name: one for one in functions}
    for _, call in calls_of(function.body, set(by_name)):
        if isinstance(call.func, ast.Name):
            found |= _effects(by_name[call.func.id], functions)
    return found
