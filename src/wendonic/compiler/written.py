"""The names that a kernel writes, and how its loops end, found once for each kernel."""

import ast
import functools
from collections.abc import Iterable, Iterator, Sequence


def _stores(nodes: Iterable[ast.AST]) -> Iterator[str]:
    for node in nodes:
        for found in ast.walk(node):
            if isinstance(found, ast.Name) and isinstance(found.ctx, ast.Store):
                yield found.id


@functools.cache
def stored_in(loop: ast.For | ast.While) -> tuple[str, ...]:
    """Return the names that the body of a kernel's loop writes."""
    return tuple(dict.fromkeys(_stores(loop.body)))


@functools.cache
def leaves_early(loop: ast.For) -> bool:
    """Return whether a loop contains a break or a continue."""
    return any(isinstance(node, ast.Break | ast.Continue) for part in loop.body for node in ast.walk(part))


@functools.cache
def unrolls(loop: ast.For) -> bool:
    """Return whether a loop goes over the parts of a tuple, whose number the structure fixes."""
    return any(isinstance(node, ast.Name) and node.id == "len" for node in ast.walk(loop.iter))


@functools.cache
def mutable_names(tree: ast.FunctionDef) -> frozenset[str]:
    """Return the names that are written more than once, which never stand for another name."""
    counts: dict[str, int] = {argument.arg: 1 for argument in tree.args.args}
    for found in _stores(tree.body):
        counts[found] = counts.get(found, 0) + 1

    def in_loops(nodes: Sequence[ast.AST]) -> None:
        for node in nodes:
            if isinstance(node, ast.While) or (isinstance(node, ast.For) and not unrolls(node)):
                for found in _stores([node]):
                    counts[found] = 2
            else:
                in_loops(list(ast.iter_child_nodes(node)))

    in_loops(tree.body)
    return frozenset(found for found, count in counts.items() if count > 1)
