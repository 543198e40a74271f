"""Plainer code that does the same: the lesser of two, a test as a test, no return where a function ends anyway."""

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
    """Say everything in all functions as plainly as can be, without changing a number."""
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
"""What a comparison is that does not hold, of numbers that are numbers."""

LONGEST_CHOICE = 190
"""Letters of a choice between two values that is said in one statement."""

LONGEST_RETURN = 90
"""Letters of what is returned, with a choice in it, or with what it alone reads."""


def _one_by_one(body: list[ast.stmt]) -> None:
    """Say assignments that all read before any writes one after another, where some order makes that the same."""
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
    """Return moves so that none writes what a later one reads, without those that change nothing; None where they go
    in circles.
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
    """Take out what sets a variable to itself, and branches with nothing else in them."""
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
    """Say a branch that only chooses between two short values in one line."""
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
    """Say what variables are usually before a branch that gives them other values, instead of behind it."""
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
    """Whether a statement sets a variable to a number or to another variable."""
    match statement:
        case ast.Assign(targets=[ast.Name(id=name)], value=ast.Constant()):
            return "." not in name
        case ast.Assign(targets=[ast.Name(id=name)], value=ast.Name(id=other)):
            return "." not in name + other
    return False


def _written_at_once(statement: ast.stmt) -> list[ast.Name]:
    return names_in(statement.targets[0]) if isinstance(statement, ast.Assign) else []


def _return_choice(body: list[ast.stmt]) -> None:
    """Say which of two short values is returned in one line."""
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
    """Return an expression said more plainly, its parts first."""
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
    """Return a choice between two values; between a truth and a test it is `and` or `or`, between equal ones none.

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
    """Return a sum or a product without its 0 or 1, None where it has none. A 0 that is added stays where it may take
    the sign off another zero, which the direction straight back depends on.
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
    """Whether a value is a square, or a sum of squares."""
    match node:
        case ast.BinOp(left=left, op=ast.Add(), right=right):
            return _is_of_squares(left) and _is_of_squares(right)
        case ast.BinOp(left=left, op=ast.Mult(), right=right):
            return ast.dump(left) == ast.dump(right)
    return False


def _least(test: ast.expr, yes: ast.expr, no: ast.expr) -> ast.expr | None:
    """Return `b if b < a else a` as what it is: the lesser of a and b, of equal ones the first."""
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
    """Lay what is compared twice into the one place that reads it now, and what is only returned into the return."""
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
    """Whether a value is read by the return after it alone, and short enough to be said there."""
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
    """Whether min or max of something takes a name."""
    return (
        isinstance(call.func, ast.Name)
        and call.func.id in ("min", "max")
        and any(isinstance(argument, ast.Name) and argument.id == name for argument in call.args)
    )
