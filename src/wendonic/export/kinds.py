"""Types of the variables of printed functions: truth values, counts, and numbers."""

import ast
from collections.abc import Sequence

from wendonic.compiler.trees import statements_in
from wendonic.export.lift import loop_names
from wendonic.export.program import Function, calls_of, is_field, targets_of, values_of

BOOL, INT, LITERAL, FLOAT = "bool", "int", "literal", "float"
"""`LITERAL` is a whole-number literal, which fits either."""


def find_types(functions: Sequence[Function]) -> None:
    """Find the types of all variables, parameters and results, until nothing changes any more."""
    by_name = {function.name: function for function in functions}
    for function in functions:
        function.result_types = [""] * function.results
        function.types = dict.fromkeys(loop_names(function.body), INT)
    while True:
        before = [(dict(function.types), list(function.result_types)) for function in functions]
        for function in functions:
            _find(function, by_name)
        if before == [(function.types, function.result_types) for function in functions]:
            break
    for function in functions:
        function.types = {name: INT if kind == LITERAL else kind for name, kind in function.types.items()}
        function.result_types = [FLOAT if kind in ("", LITERAL) else kind for kind in function.result_types]
        function.result_names = _result_names(function, functions)


def _join(first: str, second: str) -> str:
    """Return the type that both fit into."""
    if not first or first == second:
        return second
    if not second:
        return first
    pair = {first, second}
    if pair == {INT, LITERAL}:
        return INT
    return FLOAT


def _find(function: Function, by_name: dict[str, Function]) -> None:
    counted = set(loop_names(function.body))
    found: dict[str, str] = {}
    for statement in statements_in(function.body):
        match statement:
            case ast.Assign(value=value):
                targets = targets_of(statement)
                kinds = _kinds(value, function, by_name, len(targets))
                for target, kind in zip(targets, kinds, strict=True):
                    if not is_field(target.id) and target.id not in counted:
                        found[target.id] = _join(found.get(target.id, ""), kind)
            case ast.Return():
                for index, value in enumerate(values_of(statement)):
                    kind = kind_of(value, function, by_name)
                    function.result_types[index] = _join(function.result_types[index], kind)
    for name, kind in found.items():
        given = function.types.get(name, "") if name in function.parameters else ""
        function.types[name] = _join(given, kind)
    for _, call in calls_of(function.body, set(by_name)):
        if not isinstance(call.func, ast.Name):
            continue
        callee = by_name[call.func.id]
        for parameter, argument in zip(callee.parameters, call.args, strict=True):
            kind = kind_of(argument, function, by_name)
            callee.types[parameter] = _join(callee.types.get(parameter, ""), FLOAT if kind == LITERAL else kind)


def _kinds(value: ast.expr, function: Function, by_name: dict[str, Function], many: int) -> list[str]:
    if isinstance(value, ast.Call) and isinstance(value.func, ast.Name) and value.func.id in by_name:
        return [FLOAT if kind == LITERAL else kind for kind in by_name[value.func.id].result_types]
    if isinstance(value, ast.Tuple):
        return [kind_of(part, function, by_name) for part in value.elts]
    return [kind_of(value, function, by_name)] * many


def kind_of(node: ast.expr, function: Function, by_name: dict[str, Function]) -> str:
    """Return the type of an expression."""
    match node:
        case ast.Constant(value=bool()):
            return BOOL
        case ast.Constant(value=int()):
            return LITERAL
        case ast.Constant():
            return FLOAT
        case ast.Name(id=name):
            return FLOAT if is_field(name) else function.types.get(name, "")
        case ast.Compare() | ast.UnaryOp(op=ast.Not()):
            return BOOL
        case ast.BoolOp():
            return BOOL
        case ast.UnaryOp(operand=operand):
            return kind_of(operand, function, by_name)
        case ast.IfExp(body=yes, orelse=no):
            return _join(kind_of(yes, function, by_name), kind_of(no, function, by_name))
        case ast.BinOp(op=ast.Div() | ast.Pow()):
            return FLOAT
        case ast.BinOp(left=left, right=right):
            return _join(kind_of(left, function, by_name), kind_of(right, function, by_name))
        case ast.Call(func=ast.Name(id="int")):
            return INT
        case ast.Call(func=ast.Name(id=name)) if name in by_name:
            results = by_name[name].result_types
            return results[0] if results and results[0] != LITERAL else FLOAT
        case ast.Call(func=ast.Name(id="min" | "max"), args=args):
            kind = ""
            for part in args:
                kind = _join(kind, kind_of(part, function, by_name))
            return kind
    return FLOAT


def _result_names(function: Function, functions: Sequence[Function]) -> list[str]:
    """Return the name of each result of a function: that of its variable, or of the caller's target."""
    rows = [values_of(one) for one in statements_in(function.body) if isinstance(one, ast.Return)]
    sites = [site for caller in functions for site, _ in calls_of(caller.body, {function.name}) if site is not None]
    names: list[str] = []
    for index in range(function.results):
        choices = [row[index].id for row in rows if isinstance(row[index], ast.Name)]  # type: ignore[attr-defined]
        choices += [targets_of(site)[index].id for site in sites if len(targets_of(site)) == function.results]
        plain = [choice.rpartition(".")[2] for choice in choices if choice != "_"]
        name = plain[0] if plain else f"value_{index + 1}"
        names.append(name if name not in names else f"{name}_{index + 1}")
    return names
