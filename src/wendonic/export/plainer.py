"""Simplifies code without changing it: minima, tests as tests, no return where a function ends anyway."""

import ast
from collections import Counter
from collections.abc import Callable, Collection, Sequence

from wendonic.compiler.liveness import negated, read_first
from wendonic.compiler.steps import replaced
from wendonic.compiler.tidy import drop_tested_again, lay_in
from wendonic.compiler.trees import names_in, statements_in
from wendonic.export.program import Function, writers_among
from wendonic.export.prune import FieldLiveness
from wendonic.export.said_once import common_first, drop_again


def plainer(functions: Sequence[Function]) -> None:
    """Simplify all functions as far as possible, without changing any number."""
    writers = writers_among(functions)
    for function in functions:
        _one_by_one(function.body)
        _drop_copies(function.body)
        drop_tested_again(function.body, writers)
        _choose(function.body)
        common_first(function.body)
        usual_first(function.body)
        drop_again(function.body, {}, writers)
        FieldLiveness(writers).prune(function.body, set())
        _drop_copies(function.body)
        _return_choice(function.body)
        _everywhere(function.body, simplified)
        _unite_least(function.body, writers)
        lay_in(function.body, writers)
        _everywhere(function.body, simplified)
        if function.body and isinstance(function.body[-1], ast.Return) and function.body[-1].value is None:
            function.body.pop()


OPPOSITES: dict[type[ast.cmpop], type[ast.cmpop]] = {
    ast.Eq: ast.NotEq,
    ast.NotEq: ast.Eq,
    ast.Gt: ast.LtE,
    ast.LtE: ast.Gt,
    ast.Lt: ast.GtE,
    ast.GtE: ast.Lt,
}
"""The opposites of comparisons, for numbers that are not NaN."""

LONGEST_CHOICE = 190
"""Most characters of a choice between two values in one statement."""

LONGEST_RETURN = 90
"""Most characters of a returned expression with a choice in it, or with an expression moved into it."""


def _one_by_one(body: list[ast.stmt]) -> None:
    """Write simultaneous assignments one after another if some order gives the same result."""
    for statement in list(body):
        for part in (getattr(statement, "body", None), getattr(statement, "orelse", None)):
            if part:
                _one_by_one(part)
        match statement:
            case ast.Assign(targets=[ast.Tuple(elts=targets)], value=ast.Tuple(elts=values)):
                ordered = _in_order(list(zip(targets, values, strict=True)))
                if ordered is not None:
                    index = body.index(statement)
                    moves = [ast.Assign([target], value) for target, value in ordered]
                    body[index : index + 1] = [replaced(statement, move) for move in moves]


def _in_order(moves: list[tuple[ast.expr, ast.expr]]) -> list[tuple[ast.expr, ast.expr]] | None:
    """Return moves in an order in which none writes what a later one reads, without those that change nothing; None
    if they are circular.
    """
    left = [move for move in moves if ast.dump(move[0]).replace("Store()", "Load()") != ast.dump(move[1])]
    ordered = []
    while left:
        reads = [{part.id for part in names_in(value)} for _, value in left]
        free = next(
            (
                index
                for index, (target, _) in enumerate(left)
                if not any(names_in(target)[0].id in read for other, read in enumerate(reads) if other != index)
            ),
            None,
        )
        if free is None:
            return None
        ordered.append(left.pop(free))
    return ordered


def _drop_copies(body: list[ast.stmt]) -> None:
    """Remove assignments of a variable to itself, and branches with nothing else in them."""
    for statement in body:
        for part in (getattr(statement, "body", None), getattr(statement, "orelse", None)):
            if part:
                _drop_copies(part)
    body[:] = [statement for statement in body if not _does_nothing(statement)]
    for statement in body:
        if isinstance(statement, ast.If) and not statement.body:
            statement.test, statement.body, statement.orelse = negated(statement.test), statement.orelse, []


def _does_nothing(statement: ast.stmt) -> bool:
    match statement:
        case ast.Assign(targets=[ast.Name(id=written)], value=ast.Name(id=read)):
            return written == read
        case ast.If(body=[], orelse=[]):
            return True
    return False


def _choose(body: list[ast.stmt]) -> None:
    """Write a branch that only chooses between two short values on one line."""
    for index, statement in enumerate(body):
        for part in (getattr(statement, "body", None), getattr(statement, "orelse", None)):
            if part:
                _choose(part)
        match statement:
            case ast.If(
                test=test,
                body=[ast.Assign(targets=[ast.Name(id=first)], value=yes)],
                orelse=[ast.Assign(targets=[ast.Name(id=second)], value=no)],
            ) if first == second and not isinstance(yes, ast.IfExp) and not isinstance(no, ast.IfExp):
                choice = _choice(test, yes, no)
                if len(ast.unparse(ast.fix_missing_locations(ast.Expression(choice)))) <= LONGEST_CHOICE:
                    body[index] = replaced(statement, ast.Assign([ast.Name(first, ast.Store())], choice))


def usual_first(body: list[ast.stmt]) -> None:
    """Assign the usual values of variables before a branch that gives them other values, instead of in its other
    side.
    """
    index = 0
    while index < len(body):
        statement = body[index]
        for part in (getattr(statement, "body", None), getattr(statement, "orelse", None)):
            if part:
                usual_first(part)
        if isinstance(statement, ast.If) and statement.orelse and all(map(_is_plain, statement.orelse)):
            names = {part.id for one in statement.orelse for part in names_in(one) if type(part.ctx) is ast.Store}
            given = {part.id for one in statement.body for part in _written_at_once(one)}
            early = read_first(statement.body, whole=True) | {part.id for part in names_in(statement.test)}
            if names <= given and not names & early:
                body[index:index] = statement.orelse
                index += len(statement.orelse)
                statement.orelse = []
        index += 1


def _is_plain(statement: ast.stmt) -> bool:
    """Return whether a statement sets a variable to a number or to another variable."""
    match statement:
        case ast.Assign(targets=[ast.Name(id=name)], value=ast.Constant()):
            return "." not in name
        case ast.Assign(targets=[ast.Name(id=name)], value=ast.Name(id=other)):
            return "." not in name + other
    return False


def _written_at_once(statement: ast.stmt) -> list[ast.Name]:
    return names_in(statement.targets[0]) if isinstance(statement, ast.Assign) else []


def _return_choice(body: list[ast.stmt]) -> None:
    """Write a return of one of two short values on one line."""
    for statement in body:
        for part in (getattr(statement, "body", None), getattr(statement, "orelse", None)):
            if part:
                _return_choice(part)
    match body:
        case [*_, ast.If(test=test, body=[ast.Return(value=yes)], orelse=[]), ast.Return(value=no)] if (
            yes is not None
            and no is not None
            and not any(isinstance(one, ast.Tuple | ast.IfExp) for one in (yes, no))
        ):
            choice = _choice(test, yes, no)
            if len(ast.unparse(ast.fix_missing_locations(ast.Expression(choice)))) <= LONGEST_RETURN:
                body[-2:] = [replaced(body[-2], ast.Return(choice))]


def _everywhere(body: Sequence[ast.stmt], made: Callable[[ast.expr], ast.expr]) -> None:
    for statement in statements_in(body):
        match statement:
            case ast.Assign():
                statement.value = made(statement.value)
            case ast.If() | ast.While():
                statement.test = made(statement.test)
            case ast.For():
                statement.iter = made(statement.iter)
            case ast.Return() if statement.value is not None:
                statement.value = made(statement.value)


def simplified(node: ast.expr) -> ast.expr:
    """Return a simplified expression, its parts first."""
    match node:
        case ast.BinOp(left=left, op=operator, right=right):
            node = ast.BinOp(simplified(left), operator, simplified(right))
            plain = _without_neutral(node)
            if plain is not None:
                return plain
            if isinstance(operator, ast.Sub) and _is(node.left, 0.0) and isinstance(node.right, ast.Constant):
                return ast.Constant(-float(node.right.value))  # type: ignore[arg-type]
            return node
        case ast.UnaryOp(op=operator, operand=operand):
            inside = simplified(operand)
            if isinstance(operator, ast.Not) and isinstance(inside, ast.UnaryOp) and isinstance(inside.op, ast.Not):
                return inside.operand
            if isinstance(operator, ast.Not) and isinstance(inside, ast.Compare) and len(inside.ops) == 1:
                turned = OPPOSITES.get(type(inside.ops[0]))
                if turned:
                    return ast.Compare(inside.left, [turned()], inside.comparators)
            return ast.UnaryOp(operator, inside)
        case ast.BoolOp(op=operator, values=values):
            parts: list[ast.expr] = []
            for value in map(simplified, values):
                same = isinstance(value, ast.BoolOp) and type(value.op) is type(operator)
                parts += value.values if isinstance(value, ast.BoolOp) and same else [value]
            return ast.BoolOp(operator, parts)
        case ast.Compare(left=left, ops=ops, comparators=others):
            parts = [simplified(part) for part in (left, *others)]
            match parts, ops:
                case [ast.IfExp(test=test, body=yes, orelse=no), zero], [ast.Gt()] if (
                    _is(zero, 0.0) and _is(yes, 1.0) and _is(no, 0.0)
                ):
                    return test
                case [inside, ast.Constant(value=bool(wanted))], [ast.Eq()]:
                    return inside if wanted else simplified(ast.UnaryOp(ast.Not(), inside))
            if isinstance(parts[0], ast.Constant) and len(ops) == 1 and isinstance(ops[0], ast.Eq):
                parts.reverse()
            return ast.Compare(parts[0], ops, parts[1:])
        case ast.IfExp(test=test, body=yes, orelse=no):
            test, yes, no = simplified(test), simplified(yes), simplified(no)
            return _least(test, yes, no) or _choice(test, yes, no)
        case ast.Call(func=func, args=args):
            if isinstance(func, ast.Name) and func.id == "fabs":
                func = ast.Name("abs", ast.Load())
            return ast.Call(func, [simplified(part) for part in args], [])
        case ast.Tuple(elts=parts):
            return ast.Tuple([simplified(part) for part in parts], ast.Load())
        case ast.Subscript(value=value, slice=index):
            return ast.Subscript(value, simplified(index), ast.Load())
    return node


def _choice(test: ast.expr, yes: ast.expr, no: ast.expr) -> ast.expr:
    """Return a choice between two values: `and` or `or` for truth values and tests, and no choice between equal
    values.

    >>> def said(words):
    ...     node = ast.parse(words, mode="eval").body
    ...     return ast.unparse(_choice(node.test, node.body, node.orelse))
    >>> said("False if a <= b else c"), said("True if a else b < c"), said("a if b else False"), said("a if b else a")
    ('a > b and c', 'a or b < c', 'b and a', 'a')
    """
    if ast.dump(yes) == ast.dump(no):
        return yes
    match yes, no:
        case ast.Constant(value=bool(truth)), _:
            return ast.BoolOp(ast.Or(), [test, no]) if truth else ast.BoolOp(ast.And(), [_opposite(test), no])
        case _, ast.Constant(value=bool(truth)):
            return ast.BoolOp(ast.Or(), [_opposite(test), yes]) if truth else ast.BoolOp(ast.And(), [test, yes])
    return ast.IfExp(test, yes, no)


def _opposite(test: ast.expr) -> ast.expr:
    return simplified(ast.UnaryOp(ast.Not(), test))


def _without_neutral(node: ast.BinOp) -> ast.expr | None:
    """Return a sum or a product without its 0 or 1, None if it has none. An added 0 stays if it may remove the sign
    of another zero, on which the direction straight back depends.
    """
    match node.op:
        case ast.Sub() if _is(node.right, 0.0):
            return node.left
        case ast.Add() if _is(node.right, 0.0) and _is_of_squares(node.left):
            return node.left
        case ast.Mult() if _is(node.left, 1.0):
            return node.right
        case ast.Mult() | ast.Div() if _is(node.right, 1.0):
            return node.left
    return None


def _is_of_squares(node: ast.expr) -> bool:
    """Return whether a value is a square, or a sum of squares."""
    match node:
        case ast.BinOp(left=left, op=ast.Add(), right=right):
            return _is_of_squares(left) and _is_of_squares(right)
        case ast.BinOp(left=left, op=ast.Mult(), right=right):
            return ast.dump(left) == ast.dump(right)
    return False


def _least(test: ast.expr, yes: ast.expr, no: ast.expr) -> ast.expr | None:
    """Return `b if b < a else a` as the minimum of a and b, the first if they are equal."""
    if not (isinstance(test, ast.Compare) and len(test.ops) == 1):
        return None
    left, right = ast.dump(test.left), ast.dump(test.comparators[0])
    if left != ast.dump(yes) or right != ast.dump(no):
        return None
    kind = {ast.Lt: "min", ast.Gt: "max"}.get(type(test.ops[0]))
    return ast.Call(ast.Name(kind, ast.Load()), [no, yes], []) if kind else None


def _is(node: ast.expr, value: float) -> bool:
    return isinstance(node, ast.Constant) and not isinstance(node.value, bool) and node.value == value


def _unite_least(body: list[ast.stmt], writers: Collection[str]) -> None:
    """Move expressions that were compared twice into the single place that reads them now, and those that are only
    returned into the return.
    """
    loads = Counter(part.id for part in names_in(body) if type(part.ctx) is ast.Load)
    stores = Counter(part.id for part in names_in(body) if type(part.ctx) is ast.Store)
    _lay(body, loads, stores, writers)


def _lay(body: list[ast.stmt], loads: Counter[str], stores: Counter[str], writers: Collection[str]) -> None:
    from wendonic.compiler.trees import cloned

    index = 0
    while index + 1 < len(body):
        statement, after = body[index], body[index + 1]
        for part in (getattr(statement, "body", None), getattr(statement, "orelse", None)):
            if part:
                _lay(part, loads, stores, writers)
        match statement, after:
            case ast.Assign(targets=[ast.Name(id=name)], value=value), ast.Assign() | ast.Return() if (
                loads[name] == 1
                and stores[name] == 1
                and "." not in name
                and after.value is not None
                and (
                    (
                        any(isinstance(part, ast.Call) and _reads(part, name) for part in ast.walk(after.value))
                        and not any(isinstance(part, ast.Call) and _own(part) for part in ast.walk(value))
                    )
                    or _is_returned(name, value, after, writers)
                )
            ):
                after.value = cloned(after.value, {name: value})
                del body[index]
                index = max(index - 1, 0)
                continue
        index += 1
    if body:
        for part in (getattr(body[-1], "body", None), getattr(body[-1], "orelse", None)):
            if part:
                _lay(part, loads, stores, writers)


def _is_returned(name: str, value: ast.expr, after: ast.stmt, writers: Collection[str]) -> bool:
    """Return whether only the return after it reads a value, and the value is short enough to be written there."""
    if not isinstance(after, ast.Return) or isinstance(after.value, ast.Tuple) or after.value is None:
        return False
    names = {part.id for part in names_in(value)}
    whole = len(ast.unparse(ast.fix_missing_locations(value))) + len(ast.unparse(after))
    return (
        name in {part.id for part in names_in(after.value)} and not names & set(writers) and whole <= LONGEST_RETURN
    )


def _own(call: ast.Call) -> bool:
    return isinstance(call.func, ast.Name) and call.func.id.startswith("_")


def _reads(call: ast.Call, name: str) -> bool:
    """Return whether a minimum or maximum reads a name."""
    return (
        isinstance(call.func, ast.Name)
        and call.func.id in ("min", "max")
        and any(isinstance(argument, ast.Name) and argument.id == name for argument in call.args)
    )
