"""Tidying: unread assignments are removed, and two names for one value become one.

Each step goes through a function once or twice, so that the time is linear in its length.
"""

import ast
from collections import Counter
from collections.abc import Collection
from dataclasses import dataclass, field

from wendonic.compiler.coalesce import coalesced, rename
from wendonic.compiler.folded import Folded
from wendonic.compiler.liveness import Liveness
from wendonic.compiler.trees import cloned, key, names_in

SHORT = 4
"""Most names in an expression that is moved into the next statement if only that reads it."""


def tidied(function: Folded) -> None:
    """Tidy one function."""
    for _ in range(2):
        drop_unread(function.body, set())
        united = unite_copies(function)
        if not lay_in(function.body) and not united:
            break
    coalesced(function)
    drop_unread(function.body, set())
    drop_tested_again(function.body)


def drop_tested_again(body: list[ast.stmt], writers: Collection[str] = ()) -> None:
    """Remove tests within a branch that repeat the branch's own test, until one of its names is written. A test that
    reads a field of a struct is kept after a call of one of the `writers`, which write fields.
    """
    for statement in body:
        if isinstance(statement, ast.If):
            repeated, names = key(statement.test), {part.id for part in names_in(statement.test)}
            if any("." in identifier for identifier in names):
                names |= set(writers)
            index = 0
            while index < len(statement.body):
                inside = statement.body[index]
                if isinstance(inside, ast.If) and key(inside.test) == repeated:
                    statement.body[index : index + 1] = inside.body
                    continue
                if any(
                    part.id in names and (type(part.ctx) is ast.Store or part.id in writers)
                    for part in names_in(inside)
                ):
                    break
                index += 1
        for part in (getattr(statement, "body", None), getattr(statement, "orelse", None)):
            if part:
                drop_tested_again(part, writers)


def drop_unread(body: list[ast.stmt], after: set[str]) -> set[str]:
    """Remove assignments whose names are never read; return the names that are read before the body writes them."""
    return Liveness().prune(body, after)


def _stores(body: list[ast.stmt]) -> Counter[str]:
    return Counter(found.id for found in names_in(body) if type(found.ctx) is ast.Store)


@dataclass
class _Uses:
    """The positions at which a name is written and read, in the order of the statements, and its loops."""

    writes: list[int] = field(default_factory=list)
    reads: list[int] = field(default_factory=list)
    loops: set[tuple[int, ...]] = field(default_factory=set)


class _Positions:
    """Numbers all uses of names of a function in textual order, and finds plain copies."""

    def __init__(self, function: Folded) -> None:
        self.count = 0
        self.uses: dict[str, _Uses] = {}
        self.copies: list[tuple[int, tuple[int, ...], str, str]] = []
        for parameter in function.parameters:
            self.uses[parameter] = _Uses([0], [], {()})
        self.block(function.body, ())

    def note(self, node: ast.AST | None, loops: tuple[int, ...]) -> None:
        if node is None:
            return
        for part in names_in(node):
            self.count += 1
            uses = self.uses.get(part.id)
            if uses is None:
                uses = self.uses[part.id] = _Uses()
            if type(part.ctx) is ast.Store:
                uses.writes.append(self.count)
                uses.loops.add(loops)
            else:
                uses.reads.append(self.count)

    def block(self, body: list[ast.stmt], loops: tuple[int, ...]) -> None:
        for statement in body:
            match statement:
                case ast.Assign(targets=[target], value=value):
                    self.note(value, loops)
                    self.note(target, loops)
                    if isinstance(target, ast.Name) and isinstance(value, ast.Name):
                        self.copies.append((self.count, loops, target.id, value.id))
                case ast.If(test=test, body=yes, orelse=no):
                    self.note(test, loops)
                    self.block(yes, loops)
                    self.block(no, loops)
                case ast.For(target=target, iter=iterated, body=inside):
                    self.note(iterated, loops)
                    self.count += 1
                    inner = (*loops, self.count)
                    self.note(target, inner)
                    self.block(inside, inner)
                case ast.While(test=test, body=inside):
                    self.count += 1
                    inner = (*loops, self.count)
                    self.note(test, inner)
                    self.block(inside, inner)
                case _:
                    self.note(statement, loops)


def unite_copies(function: Folded) -> bool:
    """Replace a name that is only a copy of another one by that other name, and the reverse; return whether there
    were any.

    In `a = b` every `a` may become `b` if that is the only time `a` is written, before it is read, and `b` is not
    written afterwards. Every `b` may become `a` if nothing else reads it, and `a` is used only later. A dotted name
    is a field of a struct, which others write, and stays.
    """
    positions = _Positions(function)
    uses = positions.uses
    renamed: dict[str, str] = {}
    parameters = set(function.parameters)

    def end(identifier: str) -> str:
        while identifier in renamed:
            identifier = renamed[identifier]
        return identifier

    for position, loops, left, right in positions.copies:
        target, source = end(left), end(right)
        if target == source or "." in target + source:
            continue
        a, b = uses[target], uses[source]
        if len(a.writes) == 1 and min(a.reads, default=position) >= position and max(b.writes) < position:
            renamed[target] = source
            b.reads += a.reads
        elif (
            source not in parameters
            and len(b.reads) == 1
            and max(b.writes) < position
            and b.loops == {loops}
            and min(number for number in (*a.writes, *a.reads) if number != position) > position
            and target not in parameters
        ):
            renamed[source] = target
            a.writes += b.writes
            a.loops |= b.loops
    if renamed:
        rename(function.body, {identifier: end(identifier) for identifier in renamed})
    return bool(renamed)


def lay_in(body: list[ast.stmt], writers: Collection[str] = ()) -> bool:
    """Move a short expression into the next statement if only that reads it, and return whether any was moved. A
    dotted name is a field of a struct, which others read, and results of `writers` are not moved, since they write
    such fields.
    """
    loads = Counter(found.id for found in names_in(body) if type(found.ctx) is ast.Load)
    return _lay_in(body, loads, _stores(body), writers)


def _lay_in(body: list[ast.stmt], loads: Counter[str], stores: Counter[str], writers: Collection[str]) -> bool:
    index, laid = 0, False
    while index < len(body):
        statement = body[index]
        for part in (getattr(statement, "body", None), getattr(statement, "orelse", None)):
            if part and _lay_in(part, loads, stores, writers):
                laid = True
        match statement:
            case ast.Assign(targets=[ast.Name(id=target)], value=value) if (
                loads[target] == 1
                and stores[target] == 1
                and "." not in target
                and index + 1 < len(body)
                and not (writers and any(part.id in writers for part in names_in(value)))
            ):
                after = body[index + 1]
                head = _head(after)
                copies = isinstance(after, ast.Assign) and isinstance(after.value, ast.Name)
                moves = head is not None and (copies or _short(value))
                if head is not None and moves and any(found.id == target for found in names_in(head)):
                    _set_head(after, cloned(head, {target: value}))
                    del body[index]
                    index, laid = max(index - 1, 0), True
                    continue
        index += 1
    return laid


def _head(statement: ast.stmt) -> ast.expr | None:
    """Return the expression that a statement evaluates first."""
    match statement:
        case ast.Assign() | ast.Return():
            return statement.value
        case ast.If():
            return statement.test
    return None


def _set_head(statement: ast.stmt, new: ast.expr) -> None:
    if isinstance(statement, ast.If):
        statement.test = new
    elif isinstance(statement, ast.Assign | ast.Return):
        statement.value = new


def _short(node: ast.expr) -> bool:
    return sum(1 for _ in names_in(node)) <= SHORT
