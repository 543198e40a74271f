"""Lifting: a function reads values from a struct instead of receiving them, and writes results into one directly."""

import ast
from collections.abc import Callable, Mapping, Sequence

from wendonic.compiler.liveness import read_first
from wendonic.compiler.trees import give_names, names_in, rewrite, statements_in
from wendonic.export.program import (
    ROWS,
    STRUCTS,
    Function,
    callers_of,
    calls_of,
    is_field,
    set_targets,
    set_values,
    targets_of,
    values_of,
    written_in,
)

READ_ONLY = ("raw.", "last.", "number.", "settings.")
LONGEST = 3
"""Most names in an expression that is repeated where it is read instead of being passed."""


def substitute(function: Function, given: Mapping[str, ast.expr]) -> None:
    """Replace names of a function by expressions; a name that it writes is first set to its expression."""
    written = written_in(function.body)
    first: list[ast.stmt] = []
    plain: dict[str, ast.expr] = {}
    for name, value in given.items():
        if name in written:
            first.append(ast.Assign([ast.Name(name, ast.Store())], value))
        else:
            plain[name] = value
    rewrite(function.body, plain)
    function.body[:0] = first
    function.parameters = [name for name in function.parameters if name not in given]


def lift(functions: Sequence[Function]) -> None:
    """Lift in all functions; they come callees first, and the last one is the tick."""
    callers = callers_of(functions)
    for function in reversed(functions[:-1]):
        sites = [site for caller in callers[function.name] for site in calls_of(caller.body, {function.name})]
        if not sites:
            continue
        _lift_parameters(function, [call for _, call in sites])
        if len(sites) == 1 and sites[0][0] is not None:
            _lift_results(function, sites[0][0])


def _lift_parameters(function: Function, calls: Sequence[ast.Call]) -> None:
    given: dict[str, ast.expr] = {}
    for index, parameter in enumerate(function.parameters):
        arguments = [call.args[index] for call in calls]
        alike = len({ast.dump(argument) for argument in arguments}) == 1
        if alike and _is_everywhere(arguments[0]):
            given[parameter] = arguments[0]
    kept = [index for index, parameter in enumerate(function.parameters) if parameter not in given]
    for call in calls:
        call.args = [call.args[index] for index in kept]
    substitute(function, given)


def _is_everywhere(node: ast.expr) -> bool:
    """Return whether an expression is short and means the same in every function."""
    names = names_in(node)
    return len(names) <= LONGEST and all(part.id in ROWS or part.id.startswith(READ_ONLY) for part in names)


def _lift_results(function: Function, call: ast.Assign) -> None:
    targets = targets_of(call)
    lifted = [index for index, target in enumerate(targets) if is_field(target.id)]
    if not lifted:
        return
    store_results(function, [(index, targets[index].id) for index in lifted])
    set_targets(call, [target for index, target in enumerate(targets) if index not in lifted])


def store_results(function: Function, lifted: Sequence[tuple[int, str]]) -> None:
    """Make a function write some of its results into fields instead of returning them."""
    returns = [statement for statement in statements_in(function.body) if isinstance(statement, ast.Return)]
    rows = [values_of(statement) for statement in returns]
    local = written_in(function.body) - set(function.parameters) - set(loop_names(function.body))
    for index, field in lifted:
        firsts = {ast.dump(row[index]) for row in rows}
        variable = rows[0][index]
        if len(firsts) == 1 and isinstance(variable, ast.Name) and variable.id in local and not is_field(variable.id):
            local.discard(variable.id)
            give_names(function.body, {variable.id: field})
    indices = {index for index, _ in lifted}

    def before(statement: ast.stmt) -> list[ast.stmt]:
        if not isinstance(statement, ast.Return):
            return [statement]
        row = values_of(statement)
        set_values(statement, [value for index, value in enumerate(row) if index not in indices])
        stores: list[ast.stmt] = [
            ast.Assign([ast.Name(field, ast.Store())], row[index])
            for index, field in lifted
            if not (isinstance(row[index], ast.Name) and _name(row[index]) == field)
        ]
        return [*stores, statement]

    replace_statements(function.body, before)
    function.results -= len(lifted)


def _name(node: ast.expr) -> str:
    return node.id if isinstance(node, ast.Name) else ""


def loop_names(body: Sequence[ast.stmt]) -> list[str]:
    """Return the names that loops count with."""
    return [
        statement.target.id
        for statement in statements_in(body)
        if isinstance(statement, ast.For) and isinstance(statement.target, ast.Name)
    ]


def replace_statements(body: list[ast.stmt], made: Callable[[ast.stmt], list[ast.stmt]]) -> None:
    """Replace each statement by others, inner ones first."""
    new: list[ast.stmt] = []
    for statement in body:
        for part in (getattr(statement, "body", None), getattr(statement, "orelse", None)):
            if part:
                replace_statements(part, made)
        new += made(statement)
    body[:] = new


def drop_unused_results(functions: Sequence[Function]) -> None:
    """Remove results that no caller needs from every function, callers before callees."""
    callers = callers_of(functions)
    for function in reversed(functions[:-1]):
        sites = [site for caller in callers[function.name] for site in calls_of(caller.body, {function.name})]
        unused = {
            index
            for index in range(function.results)
            if sites and all(call is not None and targets_of(call)[index].id == "_" for call, _ in sites)
        }
        if not unused:
            continue
        for call, _ in sites:
            if call is not None:
                set_targets(call, [part for index, part in enumerate(targets_of(call)) if index not in unused])
        for statement in statements_in(function.body):
            if isinstance(statement, ast.Return):
                row = values_of(statement)
                set_values(statement, [value for index, value in enumerate(row) if index not in unused])
        function.results -= len(unused)


def drop_unread_parameters(functions: Sequence[Function]) -> None:
    """Remove parameters that functions do not read, or write before reading."""
    callers = callers_of(functions)
    for function in functions[:-1]:
        reads = read_first(function.body, whole=True)
        kept = [index for index, parameter in enumerate(function.parameters) if parameter in reads]
        if len(kept) == len(function.parameters):
            continue
        function.parameters = [function.parameters[index] for index in kept]
        for caller in callers[function.name]:
            for _, call in calls_of(caller.body, {function.name}):
                call.args = [call.args[index] for index in kept]


def find_context(functions: Sequence[Function]) -> None:
    """Note which whole structs and rows each function needs; callees come first."""
    by_name: dict[str, Function] = {}
    for function in functions:
        found = {part.id.partition(".")[0] for part in names_in(function.body) if is_field(part.id)}
        found |= {part.id for part in names_in(function.body) if part.id in ROWS} - set(function.parameters)
        for _, call in calls_of(function.body, set(by_name)):
            if isinstance(call.func, ast.Name):
                found |= set(by_name[call.func.id].context)
        function.context = tuple(name for name in (*STRUCTS, *ROWS) if name in found)
        by_name[function.name] = function
