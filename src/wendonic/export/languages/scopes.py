"""Where each variable of a function is declared: as late as possible, and with its first value if possible."""

import ast
from collections.abc import Collection, Sequence

from wendonic.compiler.trees import names_in, statements_in
from wendonic.export.lift import loop_names
from wendonic.export.program import Function, is_field, targets_of


class Scopes:
    """`first` has, for each statement, the variables that it declares with their value; `before` those that are
    declared before it; `once` those that are written only once.
    """

    def __init__(self, function: Function, skipped: Collection[str] = ()) -> None:
        """Find them, except for some that are declared elsewhere."""
        self.first: dict[int, list[str]] = {}
        self.before: dict[int, list[str]] = {}
        elsewhere = {*function.parameters, *loop_names(function.body), "_", "course", "tables", *skipped}
        stores: dict[str, int] = {}
        for statement in statements_in(function.body):
            if isinstance(statement, ast.Assign):
                for target in targets_of(statement):
                    if not is_field(target.id) and target.id not in elsewhere:
                        stores[target.id] = stores.get(target.id, 0) + 1
        self.once = {name for name, count in stores.items() if count == 1}
        self._known: dict[int, frozenset[str]] = {}
        for name in stores:
            self._declare(name, function.body)

    def _mentions(self, statement: ast.stmt, name: str) -> bool:
        names = self._known.get(id(statement))
        if names is None:
            names = self._known[id(statement)] = frozenset(part.id for part in names_in(statement))
        return name in names

    def _declare(self, name: str, body: Sequence[ast.stmt]) -> None:
        mentions = [statement for statement in body if self._mentions(statement, name)]
        first = mentions[0]
        inside = [part for part in (getattr(first, "body", None), getattr(first, "orelse", None)) if part]
        in_head = isinstance(first, ast.Assign | ast.Return) or _head_mentions(first, name)
        if len(mentions) == 1 and not in_head:
            within = [part for part in inside if any(self._mentions(statement, name) for statement in part)]
            if len(within) == 1 and not (isinstance(first, ast.For | ast.While) and self._carried(within[0], name)):
                self._declare(name, within[0])
                return
            if len(within) == 2:
                both = all(self._begins_with(part, name) for part in within)
                if both:
                    for part in within:
                        self._declare(name, part)
                    return
        if isinstance(first, ast.Assign) and name in [target.id for target in targets_of(first)]:
            reads = {part.id for part in names_in(first.value)}
            if name not in reads:
                self.first.setdefault(id(first), []).append(name)
                return
        self.before.setdefault(id(first), []).append(name)

    def _begins_with(self, body: Sequence[ast.stmt], name: str) -> bool:
        """Return whether the first statement of a body that mentions a variable writes it."""
        first = next(statement for statement in body if self._mentions(statement, name))
        return (
            isinstance(first, ast.Assign)
            and name in [target.id for target in targets_of(first)]
            and not any(part.id == name for part in names_in(first.value))
        )

    def _carried(self, body: Sequence[ast.stmt], name: str) -> bool:
        """Return whether a loop may carry a variable: its first mention in the body is not a plain assignment."""
        return not self._begins_with(body, name)


def _head_mentions(statement: ast.stmt, name: str) -> bool:
    head = getattr(statement, "test", None) or getattr(statement, "iter", None)
    return head is not None and any(part.id == name for part in names_in(head))
