"""Folding of loops: loops over the parts of a tuple are unrolled; others stay, with the state that they change."""

import ast
from collections.abc import Callable

from wendonic.compiler.fold_statements import ENDS, FALLS, StatementFolder
from wendonic.compiler.read import refuse
from wendonic.compiler.scope import Loop, Scope
from wendonic.compiler.statements import moved
from wendonic.compiler.values import (
    Dynamic,
    Known,
    Packed,
    Value,
    expression,
    leaf_values,
    leaves,
    name,
    rebuilt,
    same,
    stored,
)
from wendonic.compiler.written import leaves_early, stored_in, unrolls


class LoopFolder(StatementFolder):
    """Folds the loops of a kernel."""

    def _do_For(self, scope: Scope, statement: ast.For) -> str:  # noqa: N802
        called = statement.iter
        if not (isinstance(called, ast.Call) and isinstance(called.func, ast.Name) and called.func.id == "range"):
            refuse(scope.function, statement, "a for that does not go over range(…)")
        if not isinstance(statement.target, ast.Name) or statement.orelse:
            refuse(scope.function, statement, "a for goes with one name, and without else")
        bounds = [self.value(scope, argument) for argument in called.args]
        if all(isinstance(bound, Known) for bound in bounds):
            steps = range(*(bound.value for bound in bounds if isinstance(bound, Known)))
            if unrolls(statement) or len(steps) <= 1:
                return self._unrolled(scope, statement, steps)
        elif unrolls(statement):
            refuse(scope.function, statement, "a loop over len(…) whose length is not known")
        variable = scope.unique(statement.target.id if statement.target.id != "_" else "part")
        scope.env[statement.target.id] = Dynamic(name(variable))
        iterated = ast.Call(name("range"), [expression(bound) for bound in bounds], [])
        self._kept_loop(scope, statement, None, lambda body: ast.For(stored(variable), iterated, body, []))
        return FALLS

    def _unrolled(self, scope: Scope, statement: ast.For, steps: range) -> str:
        local = [variable for variable in stored_in(statement) if variable not in scope.env]
        target = statement.target
        if leaves_early(statement):
            refuse(scope.function, statement, "break or continue in a loop over the parts of a tuple")
        kept = dict(scope.fresh)
        for step in steps:
            for variable in local:
                scope.fresh[variable] = f"{kept.get(variable, variable)}_{step}" if len(steps) > 1 else variable
                if len(steps) > 1 and variable in scope.mutable:
                    scope.mutable.add(scope.fresh[variable])
            if isinstance(target, ast.Name):
                scope.env[target.id] = Known(step)
            if self.block(scope, statement.body) == ENDS:
                scope.fresh = kept
                return ENDS
        scope.fresh = kept
        return FALLS

    def _do_While(self, scope: Scope, statement: ast.While) -> str:  # noqa: N802
        if statement.orelse:
            refuse(scope.function, statement, "while … else is outside the kernel language")
        self._kept_loop(scope, statement, statement.test, lambda body: ast.While(ast.Constant(True), body, []))
        return FALLS

    def _kept_loop(
        self,
        scope: Scope,
        statement: ast.For | ast.While,
        test: ast.expr | None,
        make: Callable[[list[ast.stmt]], ast.stmt],
    ) -> None:
        """Fold a loop that stays: the numbers that it changes are found by a fixpoint."""
        touched = [variable for variable in stored_in(statement) if variable in scope.env]
        before = dict(scope.env)
        varying: set[tuple[str, tuple[str, ...]]] = set()
        taken, names, fresh_mutable = set(scope.taken), dict(scope.names), set(scope.mutable)
        while True:
            scope.taken, scope.names = set(taken), dict(names)
            scope.mutable = set(fresh_mutable)
            carried = {variable: self._carried(scope, variable, before[variable], varying) for variable in touched}
            loop = Loop(carried)
            mark = len(scope.returned)
            scope.env = {**before, **carried}
            outside, scope.out = scope.out, []
            scope.loops.append(loop)
            made: ast.stmt | None = None
            if test is not None:
                self._while_test(scope, test)
            if self.block(scope, statement.body) == FALLS:
                self._turn_round(scope, loop)
            scope.loops.pop()
            inside, scope.out = scope.out, outside
            more = {
                (variable, path)
                for end in loop.ends
                for variable in touched
                for (path, leaf), (_, now) in zip(leaves(carried[variable]), leaves(end[variable]), strict=True)
                if not same(leaf, now) and (variable, path) not in varying
            }
            if not more:
                made = make(inside or [ast.Pass()])
                break
            del scope.returned[mark:]
            varying |= more
        moves: list[tuple[str, ast.expr]] = []
        for variable in touched:
            for (path, leaf), (_, start) in zip(leaves(carried[variable]), leaves(before[variable]), strict=True):
                if (variable, path) in varying and not same(leaf, start):
                    moves.append((expression(leaf).id, expression(start)))  # type: ignore[attr-defined]
        scope.out += moved(moves)
        scope.out.append(made)
        scope.env = {**before, **carried}

    def _carried(self, scope: Scope, variable: str, value: Value, varying: set[tuple[str, tuple[str, ...]]]) -> Value:
        parts: list[Value] = []
        for path, leaf in leaves(value):
            if (variable, path) not in varying:
                parts.append(leaf)
                continue
            target = scope.leaf_name(variable, path)
            scope.mutable.add(target)
            parts.append(Packed(name(target)) if isinstance(leaf, Packed) else Dynamic(name(target)))
        return rebuilt(value, iter(parts))

    def _while_test(self, scope: Scope, test: ast.expr) -> None:
        value = self.value(scope, test)
        if isinstance(value, Known) and value.value:
            return
        scope.out.append(ast.If(ast.UnaryOp(ast.Not(), expression(value)), [ast.Break()], []))

    def _turn_round(self, scope: Scope, loop: Loop) -> None:
        """Assign what the loop carries to the names that the next iteration reads."""
        loop.ends.append(dict(scope.env))
        moves: list[tuple[str, ast.expr]] = []
        for variable, value in loop.carried.items():
            now = scope.env[variable]
            if len(leaf_values(value)) != len(leaf_values(now)):
                words = f"{variable} changes its shape in a loop; only range(len(…)) may build a tuple"
                refuse(scope.function, scope.tree, words)
            for (_, leaf), (_, new) in zip(leaves(value), leaves(now), strict=True):
                if isinstance(leaf, Dynamic | Packed) and isinstance(leaf.node, ast.Name) and not same(leaf, new):
                    node = expression(new)
                    if not (isinstance(node, ast.Name) and node.id == leaf.node.id):
                        moves.append((leaf.node.id, node))
        scope.out += moved(moves)

    def _do_Break(self, scope: Scope, statement: ast.Break) -> str:  # noqa: N802
        return self._leave(scope, statement, ast.Break())

    def _do_Continue(self, scope: Scope, statement: ast.Continue) -> str:  # noqa: N802
        return self._leave(scope, statement, ast.Continue())

    def _leave(self, scope: Scope, statement: ast.stmt, made: ast.stmt) -> str:
        if not scope.loops:
            refuse(scope.function, statement, "outside a loop")
        self._turn_round(scope, scope.loops[-1])
        scope.out.append(made)
        return ENDS
