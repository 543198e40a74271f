"""Tidying: what nobody reads is gone, and what is only another name for something goes by one name.

Each step goes through a function once or twice, so that the time grows with its length and no faster.
"""

import ast
from collections import Counter
from dataclasses import dataclass, field

from wendonic.compiler.fold import Folded
from wendonic.compiler.trees import cloned, cloned_target, names_in, read_names, statements_in

SHORT = 4
"""Names in an expression that is laid into the only place that reads it, if that comes next."""


def tidied(function: Folded) -> None:
    """Tidy one function."""
    for _ in range(2):
        drop_unread(function.body, set())
        unite_copies(function)
        lay_in(function.body)
    drop_unread(function.body, set())


def drop_unread(body: list[ast.stmt], after: set[str]) -> set[str]:
    """Take assignments out whose names nobody reads; return the names that are read before the body writes them."""
    return _Liveness().prune(body, after)


class _Liveness:
    """Goes backwards through statements with the names that are still to be read."""

    def __init__(self) -> None:
        self.loops: list[tuple[set[str], set[str]]] = []

    def prune(self, body: list[ast.stmt], live: set[str]) -> set[str]:
        """Take out of `body` what nobody reads."""
        live = set(live)
        kept: list[ast.stmt] = []
        for statement in reversed(body):
            live, stays = self.statement(statement, live)
            if stays:
                kept.append(statement)
        body[:] = kept[::-1]
        return live

    def statement(self, statement: ast.stmt, live: set[str]) -> tuple[set[str], bool]:
        match statement:
            case ast.Assign():
                return self.assignment(statement, live)
            case ast.If():
                yes = self.prune(statement.body, live)
                no = self.prune(statement.orelse, live)
                if not statement.body and not statement.orelse:
                    return live, False
                if not statement.body:
                    statement.test = negated(statement.test)
                    statement.body, statement.orelse = statement.orelse, []
                return yes | no | read_names(statement.test), True
            case ast.For() | ast.While():
                return self.loop(statement, live)
            case ast.Return():
                return (read_names(statement) if statement.value else set()), True
            case ast.Break():
                return set(self.loops[-1][1]), True
            case ast.Continue():
                return set(self.loops[-1][0]), True
            case ast.Pass():
                return live, False
        return live | read_names(statement), True

    def assignment(self, statement: ast.Assign, live: set[str]) -> tuple[set[str], bool]:
        (target,) = statement.targets
        if isinstance(target, ast.Name):
            if target.id not in live:
                return live, False
            return (live - {target.id}) | read_names(statement.value), True
        if not isinstance(target, ast.Tuple):
            return live | read_names(statement), True
        names = [part.id for part in target.elts if isinstance(part, ast.Name)]
        if not live.intersection(names):
            return live, False
        if isinstance(statement.value, ast.Tuple):
            pairs = [
                (part, value)
                for part, value, written in zip(target.elts, statement.value.elts, names, strict=True)
                if written in live
            ]
            if len(pairs) == 1:
                statement.targets, statement.value = [pairs[0][0]], pairs[0][1]
            else:
                target.elts = [part for part, _ in pairs]
                statement.value.elts = [value for _, value in pairs]
        else:
            for part in target.elts:
                if isinstance(part, ast.Name) and part.id not in live:
                    part.id = "_"
        return (live - set(names)) | read_names(statement.value), True

    def loop(self, statement: ast.For | ast.While, live: set[str]) -> tuple[set[str], bool]:
        head = live | read_names(statement.iter if isinstance(statement, ast.For) else statement.test)
        while True:
            self.loops.append((head, live))
            more = head | _Scan(self.loops).block(statement.body, head)
            self.loops.pop()
            if more == head:
                break
            head = more
        self.loops.append((head, live))
        self.prune(statement.body, head)
        self.loops.pop()
        if not statement.body and isinstance(statement, ast.For):
            return live, False
        statement.body = statement.body or [ast.Pass()]
        return head, True


class _Scan(_Liveness):
    """The same, without taking anything out."""

    def __init__(self, loops: list[tuple[set[str], set[str]]]) -> None:
        self.loops = loops

    def block(self, body: list[ast.stmt], live: set[str]) -> set[str]:
        """Return the names that are read before the body writes them."""
        live = set(live)
        for statement in reversed(body):
            match statement:
                case ast.Assign(targets=[target]):
                    written = {part.id for part in names_in(target)}
                    if written & live:
                        live = (live - written) | read_names(statement.value)
                case ast.If():
                    live = (
                        self.block(statement.body, live)
                        | self.block(statement.orelse, live)
                        | read_names(statement.test)
                    )
                case ast.For() | ast.While():
                    head = live | read_names(statement.iter if isinstance(statement, ast.For) else statement.test)
                    while True:
                        self.loops.append((head, live))
                        more = head | self.block(statement.body, head)
                        self.loops.pop()
                        if more == head:
                            break
                        head = more
                    live = head
                case ast.Return():
                    live = read_names(statement) if statement.value else set()
                case ast.Break():
                    live = set(self.loops[-1][1])
                case ast.Continue():
                    live = set(self.loops[-1][0])
                case _:
                    live |= read_names(statement)
        return live


def read_first(body: list[ast.stmt]) -> set[str]:
    """Return the names that a body reads before it writes them."""
    return _Scan([]).block(body, set())


def negated(test: ast.expr) -> ast.expr:
    """Return the opposite of a test."""
    if isinstance(test, ast.UnaryOp) and isinstance(test.op, ast.Not):
        return test.operand
    return ast.UnaryOp(ast.Not(), test)


def _stores(body: list[ast.stmt]) -> Counter[str]:
    return Counter(found.id for found in names_in(body) if type(found.ctx) is ast.Store)


@dataclass
class _Uses:
    """Where a name is written and read, in the order in which statements stand, and in which loops."""

    writes: list[int] = field(default_factory=list)
    reads: list[int] = field(default_factory=list)
    loops: set[tuple[int, ...]] = field(default_factory=set)


class _Places:
    """Numbers every name of a function in the order in which it is come by, and finds the plain copies."""

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


def unite_copies(function: Folded) -> None:
    """Let a name that only stands for another one go by that one's name, and the other way round.

    In `a = b` every `a` may be called `b` if that is the only time `a` is written, before it is read, and `b` is not
    written any more. Every `b` may be called `a` if nothing else reads it, and `a` comes up only later.
    """
    places = _Places(function)
    uses = places.uses
    renamed: dict[str, str] = {}
    parameters = set(function.parameters)

    def end(identifier: str) -> str:
        while identifier in renamed:
            identifier = renamed[identifier]
        return identifier

    for place, loops, left, right in places.copies:
        target, source = end(left), end(right)
        if target == source:
            continue
        a, b = uses[target], uses[source]
        if len(a.writes) == 1 and min(a.reads, default=place) >= place and max(b.writes) < place:
            renamed[target] = source
            b.reads += a.reads
        elif (
            source not in parameters
            and len(b.reads) == 1
            and max(b.writes) < place
            and b.loops == {loops}
            and min(number for number in (*a.writes, *a.reads) if number != place) > place
            and target not in parameters
        ):
            renamed[source] = target
            a.writes += b.writes
            a.loops |= b.loops
    if not renamed:
        return

    new: dict[str, ast.expr] = {identifier: ast.Name(end(identifier), ast.Load()) for identifier in renamed}
    for statement in statements_in(function.body):
        match statement:
            case ast.Assign(targets=[written], value=value):
                statement.value = cloned(value, new)
                statement.targets = [cloned_target(written, new)]
            case ast.If(test=test) | ast.While(test=test):
                statement.test = cloned(test, new)
            case ast.For(iter=iterated):
                statement.iter = cloned(iterated, new)
            case ast.Return(value=value) if value is not None:
                statement.value = cloned(value, new)
    _drop_own_copies(function.body)


def _drop_own_copies(body: list[ast.stmt]) -> None:
    kept: list[ast.stmt] = []
    for statement in body:
        for part in (getattr(statement, "body", None), getattr(statement, "orelse", None)):
            if part:
                _drop_own_copies(part)
                if not part and isinstance(statement, ast.If) and part is statement.body:
                    part.append(ast.Pass())
        match statement:
            case ast.Assign(targets=[ast.Name(id=target)], value=ast.Name(id=source)) if target == source:
                continue
        kept.append(statement)
    body[:] = kept


def lay_in(body: list[ast.stmt]) -> None:
    """Lay a short expression into the statement that comes next, where that alone reads it."""
    loads = Counter(found.id for found in names_in(body) if type(found.ctx) is ast.Load)
    _lay_in(body, loads, _stores(body))


def _lay_in(body: list[ast.stmt], loads: Counter[str], stores: Counter[str]) -> None:
    place = 0
    while place < len(body):
        statement = body[place]
        for part in (getattr(statement, "body", None), getattr(statement, "orelse", None)):
            if part:
                _lay_in(part, loads, stores)
        match statement:
            case ast.Assign(targets=[ast.Name(id=target)], value=value) if (
                loads[target] == 1 and stores[target] == 1 and place + 1 < len(body)
            ):
                after = body[place + 1]
                head = _head(after)
                copies = isinstance(after, ast.Assign) and isinstance(after.value, ast.Name)
                moves = head is not None and (copies or _short(value))
                if head is not None and moves and any(found.id == target for found in names_in(head)):
                    _set_head(after, cloned(head, {target: value}))
                    del body[place]
                    place = max(place - 1, 0)
                    continue
        place += 1


def _head(statement: ast.stmt) -> ast.expr | None:
    """The expression that a statement computes first of all."""
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
