"""Copy coalescing: two names that are never live at the same time share one name, and the copy between them
disappears.
"""

import ast

from wendonic.compiler.folded import Folded
from wendonic.compiler.liveness import Liveness
from wendonic.compiler.trees import give_names, names_in, read_names, statements_in

ROUNDS = 4
"""In each round a name is united with one other name; chains of copies need several rounds."""


def coalesced(function: Folded) -> None:
    """Unite the two names of each copy `a = b` if neither is written while the other is still live."""
    for _ in range(ROUNDS):
        partners = _copies(function)
        if not partners:
            return
        apart = _Apart(partners)
        apart.prune(function.body, set())
        renamed: dict[str, str] = {}
        taken: set[str] = set()
        for target, sources in partners.items():
            for source in sources:
                pair = frozenset((target, source))
                if pair in apart.pairs or taken & pair:
                    continue
                renamed[source] = target
                taken |= pair
        if not renamed:
            return
        rename(function.body, renamed)


def _copies(function: Folded) -> dict[str, dict[str, None]]:
    """Return the names that each name is copied from, and the reverse, among names that are written here."""
    partners: dict[str, dict[str, None]] = {}
    own = {part.id for part in names_in(function.body) if type(part.ctx) is ast.Store} - set(function.parameters)
    for statement in statements_in(function.body):
        match statement:
            case ast.Assign(targets=[ast.Name(id=target)], value=ast.Name(id=source)) if (
                target != source and {target, source} <= own and "." not in target + source
            ):
                partners.setdefault(target, {})[source] = None
                partners.setdefault(source, {})[target] = None
    return partners


class _Apart(Liveness):
    """Finds the pairs of names of which one is written while the other is live."""

    def __init__(self, partners: dict[str, dict[str, None]]) -> None:
        super().__init__()
        self.partners = partners
        self.pairs: set[frozenset[str]] = set()

    def assignment(self, statement: ast.Assign, live: set[str]) -> tuple[set[str], bool]:
        """Note what is live after each written name; a copy does not conflict with its own source."""
        (target,) = statement.targets
        written = [part.id for part in names_in(target)]
        copied = statement.value.id if isinstance(statement.value, ast.Name) else ""
        for name in written:
            for partner in self.partners.get(name, ()):
                if (partner in live and partner != copied) or (partner in written and partner != name):
                    self.pairs.add(frozenset((name, partner)))
        live.difference_update(written)
        live.update(read_names(statement.value))
        return live, True

    def loop(self, statement: ast.For | ast.While, live: set[str]) -> tuple[set[str], bool]:
        """The loop variable is written in every iteration."""
        head, stays = super().loop(statement, live)
        if isinstance(statement, ast.For):
            for name in (part.id for part in names_in(statement.target)):
                self.pairs |= {frozenset((name, partner)) for partner in self.partners.get(name, ())}
        return head, stays


def rename(body: list[ast.stmt], renamed: dict[str, str]) -> None:
    """Rename names everywhere, and drop copies of a name to itself."""
    give_names(body, renamed)
    _drop_own_copies(body)


def _drop_own_copies(body: list[ast.stmt]) -> None:
    kept: list[ast.stmt] = []
    for statement in body:
        if isinstance(statement, ast.If | ast.For | ast.While):
            _drop_own_copies(statement.body)
            statement.body = statement.body or [ast.Pass()]
            _drop_own_copies(statement.orelse)
        match statement:
            case ast.Assign(targets=[ast.Name(id=target)], value=ast.Name(id=source)) if target == source:
                continue
        kept.append(statement)
    body[:] = kept
