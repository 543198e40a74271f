"""Walking and copying the few kinds of syntax that a tick function is made of, quickly."""

import ast
from collections.abc import Iterator, Mapping, Sequence
from typing import Any, TypeVar

Tree = TypeVar("Tree", bound=ast.AST)

_CHILDREN: dict[type[ast.AST], tuple[str, ...]] = {
    ast.Constant: (),
    ast.Name: (),
    ast.BinOp: ("left", "right"),
    ast.UnaryOp: ("operand",),
    ast.BoolOp: ("values",),
    ast.Compare: ("left", "comparators"),
    ast.IfExp: ("test", "body", "orelse"),
    ast.Call: ("func", "args"),
    ast.Subscript: ("value", "slice"),
    ast.Tuple: ("elts",),
    ast.List: ("elts",),
    ast.Assign: ("value", "targets"),
    ast.Return: ("value",),
    ast.If: ("test", "body", "orelse"),
    ast.For: ("iter", "target", "body"),
    ast.While: ("test", "body"),
    ast.Pass: (),
    ast.Break: (),
    ast.Continue: (),
}


def names_in(node: ast.AST | Sequence[ast.AST]) -> list[ast.Name]:
    """Return the names in a node, or in some, in the order in which they are come by."""
    found: list[Any] = []
    for part in [node] if isinstance(node, ast.AST) else node:
        _collect(part, ast.Name, found)
    return found


def calls_in(node: ast.AST) -> list[ast.Call]:
    """Return the calls in an expression, outer ones before those among their arguments."""
    found: list[Any] = []
    _collect(node, ast.Call, found)
    return found


def _collect(node: ast.AST, wanted: type[ast.AST], found: list[Any]) -> None:
    kind = type(node)
    if kind is wanted:
        found.append(node)
    for field in _CHILDREN[kind]:
        child = getattr(node, field)
        if type(child) is list:
            for part in child:
                _collect(part, wanted, found)
        elif child is not None:
            _collect(child, wanted, found)


def read_names(node: ast.AST | Sequence[ast.AST]) -> set[str]:
    """Return the names that are read somewhere in a node."""
    return {part.id for part in names_in(node) if type(part.ctx) is ast.Load}


def statements_in(body: Sequence[ast.stmt]) -> Iterator[ast.stmt]:
    """Go through all statements, those inside others included."""
    for statement in body:
        yield statement
        if isinstance(statement, ast.If):
            yield from statements_in(statement.body)
            yield from statements_in(statement.orelse)
        elif isinstance(statement, ast.For | ast.While):
            yield from statements_in(statement.body)


def cloned(node: ast.expr, renamed: Mapping[str, ast.expr]) -> ast.expr:
    """Return a copy of an expression in which names stand for what they are renamed to."""
    kind = type(node)
    if kind is ast.Name:
        new = renamed.get(node.id)  # type: ignore[attr-defined]
        return node if new is None else new
    if kind is ast.Constant:
        return node
    made = kind.__new__(kind)
    made.__dict__.update(node.__dict__)
    for field in _CHILDREN[kind]:
        child = getattr(node, field)
        if type(child) is list:
            setattr(made, field, [cloned(part, renamed) for part in child])
        elif child is not None:
            setattr(made, field, cloned(child, renamed))
    return made


def copied(node: Tree, renamed: Mapping[str, str]) -> Tree:
    """Return a copy of a tree of which nothing but constants is shared, with some names replaced."""
    kind = type(node)
    if kind is ast.Constant:
        return node
    made = kind.__new__(kind)
    made.__dict__.update(node.__dict__)
    if isinstance(made, ast.Name):
        made.id = renamed.get(made.id, made.id)
        return made
    for field in _CHILDREN[kind]:
        child = getattr(node, field)
        if type(child) is list:
            setattr(made, field, [copied(part, renamed) for part in child])
        elif child is not None:
            setattr(made, field, copied(child, renamed))
    return made


def cloned_target(node: ast.expr, renamed: Mapping[str, ast.expr]) -> ast.expr:
    """Return a copy of what an assignment writes."""
    if isinstance(node, ast.Tuple):
        return ast.Tuple([cloned_target(part, renamed) for part in node.elts], ast.Store())
    if isinstance(node, ast.Name):
        new = renamed.get(node.id)
        return ast.Name(new.id if isinstance(new, ast.Name) else node.id, ast.Store())
    return node


def rewrite(body: Sequence[ast.stmt], given: Mapping[str, ast.expr]) -> None:
    """Let names stand for expressions wherever they are read."""
    for statement in statements_in(body):
        match statement:
            case ast.Assign(value=value):
                statement.value = cloned(value, given)
            case ast.If(test=test) | ast.While(test=test):
                statement.test = cloned(test, given)
            case ast.For(iter=iterated):
                statement.iter = cloned(iterated, given)
            case ast.Return(value=value) if value is not None:
                statement.value = cloned(value, given)


def give_names(body: Sequence[ast.stmt], renamed: Mapping[str, str]) -> None:
    """Give names other names wherever they are read or written."""
    new: dict[str, ast.expr] = {old: ast.Name(name, ast.Load()) for old, name in renamed.items()}
    rewrite(body, new)
    for statement in statements_in(body):
        if isinstance(statement, ast.Assign):
            statement.targets = [cloned_target(written, new) for written in statement.targets]
