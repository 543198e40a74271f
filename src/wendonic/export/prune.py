"""Resolves branches that the profile's numbers decide, and removes what is then unread."""

import ast
import math
from collections import Counter
from collections.abc import Mapping, Sequence

from wendonic.compiler.fold_expressions import ARITHMETIC
from wendonic.compiler.liveness import Liveness, negated
from wendonic.compiler.trees import names_in, read_names, statements_in
from wendonic.export.lift import drop_unread_parameters
from wendonic.export.program import Function, callers_of, calls_of, is_field, writers_among

Range = tuple[float, float]
Ranges = Mapping[str, Range]

SPAN_OF_DT = (1e-300, 1e9)
"""Range of the length of a tick: above 0, and no longer than any game survives."""


class FieldLiveness(Liveness):
    """Keeps assignments to fields of structs, and calls of functions that write such fields."""

    def __init__(self, writers: set[str]) -> None:
        """Take the names of such functions."""
        super().__init__()
        self.writers = writers

    def assignment(self, statement: ast.Assign, live: set[str]) -> tuple[set[str], bool]:
        """Keep assignments to a struct."""
        fields = {part.id for part in names_in(statement.targets[0]) if is_field(part.id)}
        called = statement.value.func if isinstance(statement.value, ast.Call) else None
        if isinstance(called, ast.Name) and called.id in self.writers and not fields:
            before = live | {part.id for part in names_in(statement.value)}
            if not (live & {part.id for part in names_in(statement.targets[0])}):
                for part in names_in(statement.targets[0]):
                    part.id = "_"
                return before, True
        return super().assignment(statement, live | fields)

    def loop(self, statement: ast.For | ast.While, live: set[str]) -> tuple[set[str], bool]:
        """Keep everything that a loop reads."""
        return super().loop(statement, live | read_names(statement))


def prune(functions: list[Function], numbers: Mapping[str, float]) -> None:
    """Decide tests by the numbers, and remove what is unread; functions come callees first."""
    ranges = {name: (value, value) for name, value in numbers.items()}
    known: dict[str, Ranges] = {}
    callers = callers_of(functions)
    for function in reversed(functions):
        calling = None if function is functions[-1] else callers[function.name]
        known[function.name] = _ranges_in(function, calling, ranges, known)
        function.body = _block(function.body, known[function.name])
    writers = writers_among(functions)
    for function in functions:
        FieldLiveness(writers).prune(function.body, set())
    drop_unread_parameters(functions)
    reached = {functions[-1].name}
    for function in reversed(functions):
        if function.name in reached:
            names = {one.name for one in functions}
            reached |= {call.func.id for _, call in calls_of(function.body, names) if isinstance(call.func, ast.Name)}
    functions[:] = [function for function in functions if function.name in reached]


def _block(body: Sequence[ast.stmt], numbers: Ranges) -> list[ast.stmt]:
    made: list[ast.stmt] = []
    for statement in body:
        match statement:
            case ast.If(test=test):
                statement.test = decided(test, numbers)
                yes, no = _block(statement.body, numbers), _block(statement.orelse, numbers)
                if isinstance(statement.test, ast.Constant):
                    made += yes if statement.test.value else no
                elif yes or no:
                    statement.body, statement.orelse = yes, no
                    if not yes:
                        statement.test, statement.body, statement.orelse = negated(statement.test), no, []
                    made.append(statement)
            case ast.While():
                statement.test = decided(statement.test, numbers)
                statement.body = _block(statement.body, numbers)
                _head_first(statement)
                made.append(statement)
            case ast.For():
                statement.body = _block(statement.body, numbers)
                made.append(statement)
            case ast.Assign():
                statement.value = decided(statement.value, numbers)
                made.append(statement)
            case ast.Return() if statement.value is not None:
                statement.value = decided(statement.value, numbers)
                made.append(statement)
            case ast.Pass():
                pass
            case _:
                made.append(statement)
        if made and isinstance(made[-1], ast.Return | ast.Break | ast.Continue):
            break
    return made


def _head_first(loop: ast.While) -> None:
    """Move the condition that ends a loop to its head, if it comes first in the loop."""
    match loop:
        case ast.While(test=ast.Constant(value=True), body=[ast.If(body=[ast.Break()], orelse=[]) as first, *rest]):
            loop.test = negated(first.test)
            loop.body = rest


def decided(node: ast.expr, numbers: Ranges) -> ast.expr:
    """Return an expression with every test resolved that the numbers decide."""
    match node:
        case ast.IfExp(test=test, body=yes, orelse=no):
            found = decided(test, numbers)
            if isinstance(found, ast.Constant):
                return decided(yes if found.value else no, numbers)
            return ast.IfExp(found, decided(yes, numbers), decided(no, numbers))
        case ast.BoolOp(op=operator, values=values):
            is_and = isinstance(operator, ast.And)
            kept: list[ast.expr] = []
            for value in values:
                found = decided(value, numbers)
                if not isinstance(found, ast.Constant):
                    kept.append(found)
                elif bool(found.value) != is_and:
                    return ast.Constant(not is_and)
            if not kept:
                return ast.Constant(is_and)
            return kept[0] if len(kept) == 1 else ast.BoolOp(operator, kept)
        case ast.UnaryOp(op=ast.Not(), operand=operand):
            found = decided(operand, numbers)
            return ast.Constant(not found.value) if isinstance(found, ast.Constant) else ast.UnaryOp(ast.Not(), found)
        case ast.Compare():
            return _compared(node, numbers)
        case ast.BinOp(left=left, op=operator, right=right):
            return ast.BinOp(decided(left, numbers), operator, decided(right, numbers))
        case ast.UnaryOp(op=operator, operand=operand):
            return ast.UnaryOp(operator, decided(operand, numbers))
        case ast.Call(func=func, args=args):
            return ast.Call(func, [decided(part, numbers) for part in args], [])
        case ast.Tuple(elts=parts):
            return ast.Tuple([decided(part, numbers) for part in parts], ast.Load())
        case ast.Subscript(value=value, slice=index):
            return ast.Subscript(value, decided(index, numbers), ast.Load())
    return node


def _compared(node: ast.Compare, numbers: Ranges) -> ast.expr:
    """Decide a comparison of the profile's numbers only."""
    parts = [decided(part, numbers) for part in (node.left, *node.comparators)]
    tree = ast.Compare(parts[0], node.ops, parts[1:])
    found = [range_of(part, numbers) for part in parts]
    answers = [
        None if left is None or right is None else _answer(operator, left, right)
        for operator, left, right in zip(node.ops, found, found[1:], strict=False)
    ]
    if any(answer is False for answer in answers):
        return ast.Constant(False)
    return ast.Constant(True) if all(answers) else tree


def _answer(operator: ast.cmpop, left: Range, right: Range) -> bool | None:
    """Return the outcome of a comparison for all numbers of two ranges; None if it depends on them."""
    match operator:
        case ast.Gt() | ast.GtE():
            turned: ast.cmpop = ast.Lt() if isinstance(operator, ast.Gt) else ast.LtE()
            return _answer(turned, right, left)
        case ast.Lt():
            return True if left[1] < right[0] else False if left[0] >= right[1] else None
        case ast.LtE():
            return True if left[1] <= right[0] else False if left[0] > right[1] else None
        case ast.Eq() | ast.NotEq():
            apart = left[1] < right[0] or right[1] < left[0]
            single = left[0] == left[1] == right[0] == right[1]
            if not apart and not single:
                return None
            return single == isinstance(operator, ast.Eq)
    return None


def range_of(node: ast.expr, numbers: Ranges) -> Range | None:
    """Return the range of an expression, None if it is not known."""
    match node:
        case ast.Constant(value=value) if isinstance(value, int | float) and not isinstance(value, bool):
            return float(value), float(value)
        case ast.Name(id=name):
            return numbers.get(name)
        case ast.UnaryOp(op=ast.USub(), operand=operand):
            inside = range_of(operand, numbers)
            return None if inside is None else (-inside[1], -inside[0])
        case ast.IfExp(body=yes, orelse=no):
            first, second = range_of(yes, numbers), range_of(no, numbers)
            if first is None or second is None:
                return None
            return min(first[0], second[0]), max(first[1], second[1])
        case ast.BinOp(left=left, op=operator, right=right):
            first, second = range_of(left, numbers), range_of(right, numbers)
            if first is None or second is None or type(operator) not in (ast.Add, ast.Sub, ast.Mult, ast.Div):
                return None
            if isinstance(operator, ast.Div) and second[0] <= 0.0 <= second[1]:
                return None
            ends = [ARITHMETIC[type(operator)](one, other) for one in first for other in second]
            # If it may be NaN, nothing is known.
            return None if any(map(math.isnan, ends)) else (min(ends), max(ends))
        case ast.Call(func=ast.Name(id=name), args=args):
            return _called_range(name, [range_of(part, numbers) for part in args])
    return None


def _called_range(name: str, given: Sequence[Range | None]) -> Range | None:
    """Return the range of a call."""
    if name in ("abs", "fabs") and given[0] is None:
        return 0.0, math.inf
    known = [one for one in given if one is not None]
    if len(known) < len(given):
        return None
    match name, known:
        case "ceil", [(low, high)] if max(-low, high) < 1e15:
            return float(math.ceil(low)), float(math.ceil(high))
        case "abs" | "fabs", [(low, high)]:
            return (0.0 if low <= 0.0 <= high else min(abs(low), abs(high))), max(abs(low), abs(high))
        case "min" | "max", _:
            best = min if name == "min" else max
            return best(low for low, _ in known), best(high for _, high in known)
    return None


def _ranges_in(
    function: Function, callers: Sequence[Function] | None, numbers: Ranges, known: Mapping[str, Ranges]
) -> Ranges:
    """Return the known ranges of a function's own names: those written once, and those passed by all callers; the
    tick has none.
    """
    found = dict(numbers)
    writes = Counter(part.id for part in names_in(function.body) if type(part.ctx) is ast.Store)
    if callers is None:
        found["dt"] = SPAN_OF_DT
    else:
        sites = [(caller, call) for caller in callers for _, call in calls_of(caller.body, {function.name})]
        for index, parameter in enumerate(function.parameters):
            ranges = [range_of(call.args[index], known.get(caller.name, {})) for caller, call in sites]
            given = [one for one in ranges if one is not None]
            if writes[parameter] == 0 and given and len(given) == len(ranges):
                found[parameter] = min(low for low, _ in given), max(high for _, high in given)
    values: dict[str, list[ast.expr]] = {}
    for statement in statements_in(function.body):
        match statement:
            case ast.Assign(targets=[ast.Name(id=name)], value=value) if name not in function.parameters:
                values.setdefault(name, []).append(value)
    for name, of_name in values.items():
        if is_field(name) or len(of_name) != writes[name]:
            continue
        ranges = [range_of(decided(value, found), found) for value in of_name]
        spans = [one for one in ranges if one is not None]
        if len(spans) == len(ranges):
            found[name] = min(low for low, _ in spans), max(high for _, high in spans)
    return found
