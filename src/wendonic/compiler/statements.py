"""Assignments and branches as folding writes them."""

import ast

from wendonic.compiler.trees import names_in
from wendonic.compiler.values import stored


def moved(moves: list[tuple[str, ast.expr]]) -> list[ast.stmt]:
    """Return simultaneous assignments, written one after another if that gives the same result."""
    written: set[str] = set()
    for target, node in moves:
        if written and any(part.id in written for part in names_in(node)):
            targets = ast.Tuple([stored(target) for target, _ in moves], ast.Store())
            return [ast.Assign([targets], ast.Tuple([node for _, node in moves], ast.Load()))]
        written.add(target)
    return [assigned([target], node) for target, node in moves]


def assigned(targets: list[str], node: ast.expr) -> ast.Assign:
    """Return the assignment of an expression to a name, or of a call's results to several names."""
    if len(targets) == 1:
        return ast.Assign([stored(targets[0])], node)
    return ast.Assign([ast.Tuple([stored(target) for target in targets], ast.Store())], node)


def put_if(out: list[ast.stmt], test: ast.expr, yes: list[ast.stmt], no: list[ast.stmt]) -> None:
    """Append a branch unless it is empty."""
    if yes:
        out.append(ast.If(test, yes, no))
    elif no:
        out.append(ast.If(ast.UnaryOp(ast.Not(), test), no, []))
