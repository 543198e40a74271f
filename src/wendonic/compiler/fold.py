"""Folding: kernels are specialised for what is known about their arguments.

A kernel and what is known about its arguments give one function of plain numbers: known values are folded in,
branches that cannot be taken are dropped, and records are split into their numbers. Kernels are pure, so unused
computations may be left out, and a call with a known result disappears.
"""

import ast
import pickle
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from operator import is_
from types import FunctionType
from typing import Any

from wendonic.compiler.fold_loops import LoopFolder
from wendonic.compiler.fold_statements import FALLS
from wendonic.compiler.folded import MOST_REMEMBERED, REMEMBERED, Folded, Remembered, Result
from wendonic.compiler.read import kernel_tree, refuse
from wendonic.compiler.scope import Scope, free_name
from wendonic.compiler.statements import assigned
from wendonic.compiler.values import (
    Dynamic,
    Known,
    Packed,
    Record,
    Value,
    described,
    expression,
    leaf_values,
    leaves,
    name,
    rebuilt,
    same,
    unknown_nodes,
)
from wendonic.compiler.written import mutable_names

SHARED = ("tuning", "tables", "course")
"""Arguments that entries share and that are not passed from one to another."""


@dataclass(frozen=True)
class _TakenApart:
    """A record as the called kernel sees it, and the names of its numbers there, by variable and path."""

    entered: Value
    names: dict[tuple[str, tuple[str, ...]], str]


class Folder(LoopFolder):
    """Folds kernels; `entries` are those that take and return whole records, by the names under which they are
    called.
    """

    def __init__(self, entries: dict[Callable[..., Any], str] | None = None) -> None:
        """Begin without folded kernels."""
        self.folded: dict[Any, Folded] = {}
        self.taken: set[str] = set()
        self.entries = entries or {}
        self._calling: list[dict[Any, tuple[str, Remembered]]] = []
        self._remembered: dict[Any, Remembered] = {}
        self._taken_apart: dict[Any, _TakenApart] = {}

    def fold(self, function: Callable[..., Any], arguments: Sequence[Value]) -> Folded:
        """Return a kernel specialised for what is known about its arguments; arguments that are names keep them."""
        if not isinstance(function, FunctionType):
            raise TypeError(f"{function!r} is not a kernel")
        key = (function, tuple(map(described, arguments)))
        if key not in self.folded:
            found = None if self.entries else REMEMBERED.get(key)
            if found:
                self._recall(key, found)
            else:
                self._fold(key, function, arguments)
        if self._calling and key in self._remembered:
            self._calling[-1].setdefault(key, (self.folded[key].name, self._remembered[key]))
        return self.folded[key]

    def _recall(self, key: Any, found: Remembered) -> None:
        """Reuse the result of an earlier folder for the same kernel and arguments, with everything that it calls,
        under new names.
        """
        names: dict[str, str] = {}
        for called, (name_then, what) in found.calls.items():
            if called not in self.folded:
                self._recall(called, what)
            names[name_then] = self.folded[called].name
        self._remembered[key] = found
        self.folded[key] = found.copy(self._unique(key[0].__name__), names)

    def _fold(self, key: Any, function: FunctionType, arguments: Sequence[Value]) -> None:
        tree = kernel_tree(function)
        names = [argument.arg for argument in tree.args.args]
        if len(names) != len(arguments) or tree.args.kwonlyargs or tree.args.vararg or tree.args.kwarg:
            refuse(function, tree, f"takes {len(names)} plain arguments, and is called with {len(arguments)}")
        scope = Scope(function, tree, {}, set(), set(mutable_names(tree)))
        parameters: list[str] = []
        for argument, value in zip(names, arguments, strict=True):
            scope.env[argument] = self._argument(scope, argument, value, parameters)
        self._calling.append({})
        ends = self.block(scope, tree.body)
        calls = self._calling.pop()
        if ends == FALLS:
            refuse(function, tree, "may end without returning anything")
        folded = Folded(
            self._unique(function.__name__), parameters, scope.out, Known(None), 0, function.__doc__ or ""
        )
        self._give_results(scope, folded)
        self.folded[key] = folded
        # Entries are hardly ever folded twice for the same arguments.
        if self._calling and not self.entries:
            if len(REMEMBERED) >= MOST_REMEMBERED:
                REMEMBERED.clear()
            remembered = Remembered(replace(folded, body=[]), pickle.dumps(folded.body), calls)
            REMEMBERED[key] = self._remembered[key] = remembered

    def _argument(self, scope: Scope, argument: str, value: Value, parameters: list[str]) -> Value:
        """Return an argument as the called kernel sees it. A record that has been passed on under the same name
        before is not split again.
        """
        if type(value) is not Record or value.is_known or argument in scope.mutable:
            return self._entered(scope, argument, value, (), parameters)
        key = (argument, value.described())
        found = self._taken_apart.get(key)
        if found is not None and scope.taken.isdisjoint(found.names.values()):
            scope.names.update(found.names)
            scope.taken.update(found.names.values())
            parameters += found.names.values()
            return found.entered
        before = len(scope.names)
        entered = self._entered(scope, argument, value, (), parameters)
        names = dict(list(scope.names.items())[before:])
        if all(own == "_".join((argument, *path)) for (_, path), own in names.items()):
            self._taken_apart[key] = _TakenApart(entered, names)
        return entered

    def _entered(
        self, scope: Scope, argument: str, value: Value, path: tuple[str, ...], parameters: list[str]
    ) -> Value:
        """Return a value as the called kernel sees it: unknown numbers become parameters."""
        if type(value) is Known:
            return value
        if type(value) is Record:
            if value.is_known:
                return value
            parts = value.parts
            new = [
                part if type(part) is Known else self._entered(scope, argument, part, (*path, field), parameters)
                for field, part in zip(value.fields, parts, strict=True)
            ]
            return value if all(map(is_, new, parts)) else Record(value.kind, tuple(new))
        parameters.append(scope.leaf_name(argument, path))
        made = name(parameters[-1])
        return Packed(made) if type(value) is Packed else Dynamic(made)

    def _unique(self, wanted: str) -> str:
        """Return a name for a function; it begins with an underscore, unlike the names of numbers."""
        return free_name(f"_{wanted}", self.taken)

    def _give_results(self, scope: Scope, folded: Folded) -> None:
        """Find what all returns have in common; the function returns only the rest."""
        first = scope.returned[0][1]
        rows = [leaf_values(value) for _, value in scope.returned]
        if any(len(row) != len(rows[0]) for row in rows):
            refuse(scope.function, scope.tree, "returns records of different shapes")
        template: list[Any] = []
        given: list[int] = []
        fixed = {parameter for parameter in folded.parameters if parameter not in scope.mutable}
        for column, leaf in enumerate(rows[0]):
            alike = all(same(leaf, row[column]) for row in rows)
            handed = isinstance(leaf, Dynamic) and isinstance(leaf.node, ast.Name) and leaf.node.id in fixed
            if alike and (isinstance(leaf, Known) or handed):
                template.append(leaf)
            else:
                template.append(Result(len(given)))
                given.append(column)
        for (statement, _), row in zip(scope.returned, rows, strict=True):
            values = [expression(row[column]) for column in given]
            if not values:
                statement.value = None
            elif len(values) == 1:
                statement.value = values[0]
            else:
                statement.value = ast.Tuple(values, ast.Load())
        folded.template = rebuilt(first, iter(template))
        folded.results = len(given)

    def call(self, scope: Scope, function: FunctionType, arguments: list[Value], hints: list[str] | None) -> Value:
        """Return the result of a kernel; numbers that must be computed come from a call in a statement of its own."""
        if function in self.entries and any(isinstance(argument, Packed) for argument in arguments):
            handed = [
                expression(value)
                for parameter, value in zip(kernel_tree(function).args.args, arguments, strict=True)
                if parameter.arg not in SHARED
            ]
            return Packed(ast.Call(name(self.entries[function]), handed, []))
        folded = self.fold(function, arguments)
        given = [node for value in arguments for node in unknown_nodes(value)]
        handed_on = dict(zip(folded.parameters, given, strict=True))
        shape = [(path, leaf) for path, leaf in leaves(folded.template)]
        safe = hints is not None and not any(isinstance(leaf, Dynamic) for _, leaf in shape)
        targets: list[str] = []
        result: list[Value] = []
        for column, (path, leaf) in enumerate(shape):
            if isinstance(leaf, Result):
                wanted = hints[column] if hints is not None and column < len(hints) else ""
                if not (safe and wanted) and not (wanted and wanted not in scope.mutable):
                    wanted = scope.unique("_".join((function.__name__, *path)))
                targets.append(wanted)
                result.append(Dynamic(name(wanted)))
            elif isinstance(leaf, Dynamic) and isinstance(leaf.node, ast.Name):
                result.append(Dynamic(handed_on[leaf.node.id]))
            else:
                result.append(leaf)
        if targets:
            scope.out.append(assigned(targets, ast.Call(name(folded.name), given, [])))
        return rebuilt(folded.template, iter(result))
