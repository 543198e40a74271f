"""Folding of statements: branches that cannot be taken are dropped, and known values are never assigned."""

import ast
import functools
from collections.abc import Iterator, Sequence
from types import FunctionType
from typing import Any

from wendonic.compiler.fold_expressions import ExpressionFolder
from wendonic.compiler.read import comments_in, refuse
from wendonic.compiler.scope import Scope
from wendonic.compiler.statements import moved, put_if
from wendonic.compiler.steps import add_remark
from wendonic.compiler.values import Dynamic, Known, Packed, Record, Value, expression, name, same

FALLS, ENDS = "falls", "ends"


class StatementFolder(ExpressionFolder):
    """Folds the statements of a kernel, except loops."""

    def block(self, scope: Scope, body: Sequence[ast.stmt]) -> str:
        """Fold statements; return whether control reaches their end."""
        comments = comments_in(scope.function.__module__)
        for statement in body:
            kind = type(statement).__name__
            handler = getattr(self, f"_do_{kind}", None)
            if handler is None:
                refuse(scope.function, statement, f"{kind} is outside the kernel language")
            before = len(scope.out)
            ended = handler(scope, statement) == ENDS
            comment = comments.get(getattr(statement, "lineno", 0))
            if comment and len(scope.out) > before:
                add_remark(scope.out[before], comment)
            if ended:
                return ENDS
        return FALLS

    def _do_Expr(self, scope: Scope, statement: ast.Expr) -> str:  # noqa: N802
        if not (isinstance(statement.value, ast.Constant) and isinstance(statement.value.value, str)):
            refuse(scope.function, statement, "an expression by itself does nothing")
        return FALLS

    def _do_Pass(self, scope: Scope, statement: ast.Pass) -> str:  # noqa: N802, ARG002
        return FALLS

    def _do_Return(self, scope: Scope, statement: ast.Return) -> str:  # noqa: N802
        if statement.value is None:
            refuse(scope.function, statement, "a kernel returns something")
        value = self.value(scope, statement.value)
        made = ast.Return(None)
        scope.returned.append((made, value))
        scope.out.append(made)
        return ENDS

    def _do_AnnAssign(self, scope: Scope, statement: ast.AnnAssign) -> str:  # noqa: N802
        if statement.value is None:
            refuse(scope.function, statement, "a name without a value")
        self._assign(scope, [statement.target], statement.value)
        return FALLS

    def _do_Assign(self, scope: Scope, statement: ast.Assign) -> str:  # noqa: N802
        self._assign(scope, statement.targets, statement.value)
        return FALLS

    def _do_AugAssign(self, scope: Scope, statement: ast.AugAssign) -> str:  # noqa: N802
        if not isinstance(statement.target, ast.Name):
            refuse(scope.function, statement, "only names are assigned to")
        added = ast.BinOp(ast.Name(statement.target.id, ast.Load()), statement.op, statement.value)
        self._assign(scope, [statement.target], ast.copy_location(added, statement))
        return FALLS

    def _assign(self, scope: Scope, targets: Sequence[ast.expr], source: ast.expr) -> None:
        hints = None
        if len(targets) == 1 and isinstance(source, ast.Call):
            hints = self._hints(scope, targets[0], source)
        value = self.value(scope, source, hints)
        pairs: list[tuple[str, Value]] = []
        for target in targets:
            self._pair(scope, target, value, pairs)
        self.bind(scope, pairs)

    def _hints(self, scope: Scope, target: ast.expr, call: ast.Call) -> list[str] | None:
        """Return names for the results of a call, if its target has names for them."""
        function = call.func
        if not isinstance(function, ast.Name):
            return None
        kernel = scope.function.__globals__.get(function.id)
        if not isinstance(kernel, FunctionType):
            return None
        return self._target_names(scope, target, kernel)

    def _target_names(self, scope: Scope, target: ast.expr, kernel: FunctionType) -> list[str] | None:
        shape = _shape_of(kernel.__annotations__.get("return"))
        return None if shape == () else self._shaped_names(scope, target, shape)

    def _shaped_names(self, scope: Scope, target: ast.expr, shape: Any) -> list[str] | None:
        if isinstance(target, ast.Name):
            return [scope.leaf_name(target.id, path) for path in _paths(shape)]
        if not isinstance(target, ast.Tuple) or not isinstance(shape, list) or len(shape) != len(target.elts):
            return None
        made: list[str] = []
        for one, (_, part) in zip(target.elts, shape, strict=True):
            found = self._shaped_names(scope, one, part)
            if found is None:
                return None
            made += found
        return made

    def _pair(self, scope: Scope, target: ast.expr, value: Value, pairs: list[tuple[str, Value]]) -> None:
        if isinstance(target, ast.Name):
            pairs.append((target.id, value))
        elif isinstance(target, ast.Tuple):
            if not isinstance(value, Record) or len(value.parts) != len(target.elts):
                refuse(scope.function, target, f"{len(target.elts)} names for something else")
            for one, part in zip(target.elts, value.parts, strict=True):
                self._pair(scope, one, part, pairs)
        else:
            refuse(scope.function, target, "only names are assigned to")

    def bind(self, scope: Scope, pairs: list[tuple[str, Value]]) -> None:
        """Bind variables to values; a value that is known or already assigned needs no statement."""
        moves: list[tuple[str, ast.expr]] = []
        for variable, value in pairs:
            scope.env[variable] = self._bound(scope, variable, value, (), moves)
        scope.out += moved(moves)

    def _bound(
        self, scope: Scope, variable: str, value: Value, path: tuple[str, ...], moves: list[tuple[str, ast.expr]]
    ) -> Value:
        """Return a value as a variable holds it; the assignments for that go into `moves`."""
        if type(value) is Known:
            return value
        if type(value) is Record:
            if value.is_known:
                return value
            parts: list[Value] | None = None
            for index, part in enumerate(value.parts):
                if type(part) is Known:
                    continue
                new = self._bound(scope, variable, part, (*path, value.fields[index]), moves)
                if new is not part:
                    if parts is None:
                        parts = list(value.parts)
                    parts[index] = new
            return value if parts is None else Record(value.kind, tuple(parts))
        node = value.node  # type: ignore[union-attr]
        if type(node) is ast.Name and node.id not in scope.mutable:
            return value
        target = scope.leaf_name(variable, path)
        if type(node) is ast.Name and node.id == target:
            return value
        moves.append((target, node))
        return Packed(name(target)) if isinstance(value, Packed) else Dynamic(name(target))

    def _do_If(self, scope: Scope, statement: ast.If) -> str:  # noqa: N802
        test = self.value(scope, statement.test)
        if isinstance(test, Known):
            return self.block(scope, statement.body if test.value else statement.orelse)
        before = dict(scope.env)
        kind, yes, after_yes = self._branch(scope, statement.body)
        scope.env = dict(before)
        other, no, after_no = self._branch(scope, statement.orelse)
        scope.env = dict(before)
        if ENDS in (kind, other):
            scope.env = after_no if kind == ENDS else after_yes
        else:
            self._merge(scope, statement, (after_yes, yes), (after_no, no))
        put_if(scope.out, expression(test), yes, no)
        return ENDS if kind == other == ENDS else FALLS

    def _branch(self, scope: Scope, body: Sequence[ast.stmt]) -> tuple[str, list[ast.stmt], dict[str, Value]]:
        outside, scope.out = scope.out, []
        kind = self.block(scope, body)
        inside, scope.out = scope.out, outside
        return kind, inside, scope.env

    def _merge(
        self,
        scope: Scope,
        statement: ast.AST,
        one: tuple[dict[str, Value], list[ast.stmt]],
        other: tuple[dict[str, Value], list[ast.stmt]],
    ) -> None:
        """Make both branches leave every variable under the same name."""
        env: dict[str, Value] = {}
        moves: tuple[list[tuple[str, ast.expr]], list[tuple[str, ast.expr]]] = ([], [])
        for variable, first in one[0].items():
            second = other[0].get(variable)
            if second is None:
                continue
            env[variable] = self._merged(scope, statement, variable, (first, second), (), moves)
        for (_, out), row in zip((one, other), moves, strict=True):
            out.extend(moved(row))
        scope.env = env

    def _merged(
        self,
        scope: Scope,
        statement: ast.AST,
        variable: str,
        pair: tuple[Value, Value],
        path: tuple[str, ...],
        moves: tuple[list[tuple[str, ast.expr]], list[tuple[str, ast.expr]]],
    ) -> Value:
        first, second = pair
        if first is second:
            return first
        if isinstance(first, Record) and isinstance(second, Record) and len(first.parts) == len(second.parts):
            parts = [
                self._merged(scope, statement, variable, (left, right), (*path, field_name), moves)
                for field_name, left, right in zip(first.fields, first.parts, second.parts, strict=True)
            ]
            return Record(first.kind, tuple(parts))
        if isinstance(first, Record) or isinstance(second, Record):
            refuse(scope.function, statement, f"{variable} has another shape in each branch")
        if same(first, second):
            return first
        target = scope.leaf_name(variable, path)
        for row, leaf in zip(moves, pair, strict=True):
            node = expression(leaf)
            if not (isinstance(node, ast.Name) and node.id == target):
                row.append((target, node))
        scope.mutable.add(target)
        return Packed(name(target)) if isinstance(first, Packed) else Dynamic(name(target))


@functools.cache
def _shape_of(annotation: Any) -> Any:
    """Return the shape given by an annotation: None for a number, otherwise (field, shape) pairs; () if unknown."""
    fields = getattr(annotation, "_fields", None)
    if fields is not None:
        hints = annotation.__annotations__
        parts = [(field_name, _shape_of(hints[field_name])) for field_name in fields]
        return () if any(part == () for _, part in parts) else parts
    arguments = getattr(annotation, "__args__", ())
    if getattr(annotation, "__origin__", None) is tuple and arguments and Ellipsis not in arguments:
        parts = [(str(index), _shape_of(argument)) for index, argument in enumerate(arguments)]
        return () if any(part == () for _, part in parts) else parts
    return None if annotation in (float, int, bool) else ()


def _paths(shape: Any, path: tuple[str, ...] = ()) -> Iterator[tuple[str, ...]]:
    if shape is None:
        yield path
    else:
        for field_name, part in shape:
            yield from _paths(part, (*path, field_name))
