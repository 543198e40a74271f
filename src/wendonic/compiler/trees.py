"""Fast walking and copying of the few kinds of syntax in tick functions."""

import ast
import operator
from collections.abc import Mapping, Sequence
from typing import Any

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
    """Return the names in one or several nodes, in textual order."""
    found: list[ast.Name] = []
    for part in [node] if isinstance(node, ast.AST) else node:
        if type(part) is ast.Name:
            found.append(part)
        elif type(part) is not ast.Constant:
            _collect_names(part, found)
    return found


def calls_in(node: ast.AST) -> list[ast.Call]:
    """Return the calls in an expression, outer ones before those among their arguments."""
    found = [node] if type(node) is ast.Call else []
    for field in _CHILDREN[type(node)]:
        child = getattr(node, field)
        for part in child if type(child) is list else (child,):
            if part is not None:
                found += calls_in(part)
    return found


def _collect_names(node: Any, found: list[ast.Name]) -> None:
    kind = type(node)
    if kind is ast.BinOp:
        # By far the most frequent case.
        for part in (node.left, node.right):
            if type(part) is ast.Name:
                found.append(part)
            elif type(part) is not ast.Constant:
                _collect_names(part, found)
        return
    for field in _CHILDREN[kind]:
        child = getattr(node, field)
        if type(child) is list:
            for part in child:
                kind = type(part)
                if kind is ast.Name:
                    found.append(part)
                elif kind is not ast.Constant:
                    _collect_names(part, found)
        elif type(child) is ast.Name:
            found.append(child)
        elif type(child) is not ast.Constant and child is not None:
            _collect_names(child, found)


def read_names(node: ast.AST | Sequence[ast.AST]) -> set[str]:
    """Return the names that are read somewhere in a node."""
    found: set[str] = set()
    left: list[Any] = [node] if isinstance(node, ast.AST) else list(node)
    while left:
        part = left.pop()
        kind = type(part)
        if kind is ast.Name:
            if type(part.ctx) is ast.Load:
                found.add(part.id)
        elif kind is ast.BinOp:
            left.append(part.left)
            left.append(part.right)
        elif kind is not ast.Constant:
            for field in _CHILDREN[kind]:
                child = getattr(part, field)
                if type(child) is list:
                    left += child
                elif child is not None:
                    left.append(child)
    return found


def statements_in(body: Sequence[ast.stmt]) -> list[ast.stmt]:
    """Return all statements, including nested ones, each before those inside it."""
    found: list[ast.stmt] = []
    _collect_statements(body, found)
    return found


def _collect_statements(body: Sequence[ast.stmt], found: list[ast.stmt]) -> None:
    for statement in body:
        found.append(statement)
        if isinstance(statement, ast.If):
            _collect_statements(statement.body, found)
            _collect_statements(statement.orelse, found)
        elif isinstance(statement, ast.For | ast.While):
            _collect_statements(statement.body, found)


def cloned(node: ast.expr, renamed: Mapping[str, ast.expr]) -> ast.expr:
    """Return a copy of an expression with names renamed.

    Only names and constants are shared, since arguments of a call may be removed later.
    """
    kind = type(node)
    if kind is ast.Name:
        return renamed.get(node.id, node)  # type: ignore[attr-defined]
    if kind is ast.Constant:
        return node
    made = kind.__new__(kind)
    made.__dict__.update(node.__dict__)
    for field in _CHILDREN[kind]:
        child = getattr(node, field)
        setattr(
            made, field, [cloned(part, renamed) for part in child] if type(child) is list else cloned(child, renamed)
        )
    return made


def _renamed(node: ast.expr, renamed: Mapping[str, ast.expr]) -> ast.expr:
    """Return an expression with some names replaced, or itself if it contains none of them."""
    kind = type(node)
    if kind is ast.Name:
        return renamed.get(node.id, node)  # type: ignore[attr-defined]
    if kind is ast.Constant:
        return node
    changed: list[tuple[str, Any]] = []
    for field in _CHILDREN[kind]:
        child: Any = getattr(node, field)
        new: Any
        if type(child) is list:
            new = [_renamed(part, renamed) for part in child]
            if all(map(operator.is_, new, child)):
                continue
        else:
            new = _renamed(child, renamed)
            if new is child:
                continue
        changed.append((field, new))
    if not changed:
        return node
    made = kind.__new__(kind)
    made.__dict__.update(node.__dict__)
    for field, new in changed:
        setattr(made, field, new)
    return made


def key(node: ast.AST) -> Any:
    """Return a key that is equal for expressions with the same text.

    >>> tilt, same, other = (ast.parse(text, mode="eval").body for text in ("x * 2.0", "x*2.0", "x * 2"))
    >>> key(tilt) == key(same), key(tilt) == key(other)
    (True, False)
    """
    if isinstance(node, ast.Name):
        return node.id
    if isinstance(node, ast.Constant):
        # 1, 1.0 and True are equal in Python, and so are zeros of either sign.
        return type(node.value), repr(node.value)
    operators = getattr(node, "ops", None) or [getattr(node, "op", None)]
    children: list[ast.AST] = []
    for field in _CHILDREN[type(node)]:
        child = getattr(node, field)
        children += child if type(child) is list else [child]
    return (type(node), *map(type, operators), *map(key, children))


def cloned_target(node: ast.expr, renamed: Mapping[str, ast.expr]) -> ast.expr:
    """Return a copy of what an assignment writes."""
    if isinstance(node, ast.Tuple):
        return ast.Tuple([cloned_target(part, renamed) for part in node.elts], ast.Store())
    if isinstance(node, ast.Name):
        new = renamed.get(node.id)
        return ast.Name(new.id if isinstance(new, ast.Name) else node.id, ast.Store())
    return node


def rewrite(body: Sequence[ast.stmt], given: Mapping[str, ast.expr]) -> None:
    """Replace names by expressions where they are read."""
    for statement in statements_in(body):
        match statement:
            case ast.Assign(value=value):
                statement.value = _renamed(value, given)
            case ast.If(test=test) | ast.While(test=test):
                statement.test = _renamed(test, given)
            case ast.For(iter=iterated):
                statement.iter = _renamed(iterated, given)
            case ast.Return(value=value) if value is not None:
                statement.value = _renamed(value, given)


def give_names(body: Sequence[ast.stmt], renamed: Mapping[str, str]) -> None:
    """Rename names where they are read or written."""
    new: dict[str, ast.expr] = {old: ast.Name(name, ast.Load()) for old, name in renamed.items()}
    rewrite(body, new)
    for statement in statements_in(body):
        if isinstance(statement, ast.Assign):
            statement.targets = [cloned_target(written, new) for written in statement.targets]
