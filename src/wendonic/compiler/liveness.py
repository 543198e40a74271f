"""Live names, statement by statement, from the end of a function backwards."""

import ast

from wendonic.compiler.trees import names_in, read_names


class Liveness:
    """Goes backwards through statements with the set of live names."""

    def __init__(self) -> None:
        """Begin outside any loop."""
        self.loops: list[tuple[set[str], set[str]]] = []

    def prune(self, body: list[ast.stmt], live: set[str]) -> set[str]:
        """Remove assignments from `body` that are never read."""
        # This copy belongs to the body, and its statements change it.
        live = set(live)
        kept: list[ast.stmt] = []
        for statement in reversed(body):
            live, stays = self.statement(statement, live)
            if stays:
                kept.append(statement)
        body[:] = kept[::-1]
        return live

    def statement(self, statement: ast.stmt, live: set[str]) -> tuple[set[str], bool]:
        """Return the names that are live before a statement, and whether the statement is kept; `live` may be
        changed.
        """
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
                yes |= no
                yes.update(read_names(statement.test))
                return yes, True
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
        live.update(read_names(statement))
        return live, True

    def assignment(self, statement: ast.Assign, live: set[str]) -> tuple[set[str], bool]:
        """Do this for an assignment; one that is never read is dropped."""
        (target,) = statement.targets
        if isinstance(target, ast.Name):
            if target.id not in live:
                return live, False
            live.discard(target.id)
            live.update(read_names(statement.value))
            return live, True
        if not isinstance(target, ast.Tuple):
            live.update(read_names(statement))
            return live, True
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
                statement.value = ast.Tuple([value for _, value in pairs], ast.Load())
        else:
            for part in target.elts:
                if isinstance(part, ast.Name) and part.id not in live:
                    part.id = "_"
        live.difference_update(names)
        live.update(read_names(statement.value))
        return live, True

    def loop(self, statement: ast.For | ast.While, live: set[str]) -> tuple[set[str], bool]:
        """Do this for a loop, whose body runs repeatedly."""
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


class _Scan(Liveness):
    """The same without removing anything."""

    def __init__(self, loops: list[tuple[set[str], set[str]]], whole: bool = False) -> None:
        self.loops = loops
        self.whole = whole
        """Whether every written name counts, even if nothing in the body reads it."""

    def block(self, body: list[ast.stmt], live: set[str]) -> set[str]:
        """Return the names that are read before the body writes them."""
        live = set(live)
        for statement in reversed(body):
            match statement:
                case ast.Assign(targets=[target]):
                    written = {part.id for part in names_in(target)}
                    # A call without a result writes fields of a struct, which have dotted names and which the caller
                    # reads.
                    if self.whole or written & live or not written or any("." in name for name in written):
                        live -= written
                        live.update(read_names(statement.value))
                case ast.If():
                    before = self.block(statement.body, live)
                    before |= self.block(statement.orelse, live)
                    live = before
                    live.update(read_names(statement.test))
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


def read_first(body: list[ast.stmt], whole: bool = False) -> set[str]:
    """Return the names that a body reads before writing them, as far as its results, or everything it writes, depend
    on them.
    """
    return _Scan([], whole).block(body, set())


def negated(test: ast.expr) -> ast.expr:
    """Return the opposite of a test."""
    if isinstance(test, ast.UnaryOp) and isinstance(test.op, ast.Not):
        return test.operand
    return ast.UnaryOp(ast.Not(), test)
