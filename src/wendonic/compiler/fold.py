"""Folding: kernels specialised for what is known of their arguments.

A kernel and what is known of its arguments give one function of plain numbers: what is known is folded in, branches
that cannot be taken are gone, records are taken apart into their numbers. Kernels are pure, so what nobody needs
may be left out, and a call whose result is known is not a call.
"""

import ast
import builtins
import functools
import math
import pickle
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from operator import is_
from types import FunctionType, ModuleType
from typing import Any

from wendonic.compiler.read import kernel_tree, refuse
from wendonic.compiler.trees import names_in
from wendonic.compiler.values import (
    Dynamic,
    Known,
    Packed,
    Record,
    Value,
    expression,
    is_atom,
    known,
    leaf_values,
    leaves,
    name,
    rebuilt,
    same,
    stored,
)

ARITHMETIC: dict[type[ast.operator], Callable[[Any, Any], Any]] = {
    ast.Add: lambda a, b: a + b,
    ast.Sub: lambda a, b: a - b,
    ast.Mult: lambda a, b: a * b,
    ast.Div: lambda a, b: a / b,
    ast.FloorDiv: lambda a, b: a // b,
    ast.Mod: lambda a, b: a % b,
    ast.Pow: lambda a, b: a**b,
}
COMPARISONS: dict[type[ast.cmpop], Callable[[Any, Any], bool]] = {
    ast.Eq: lambda a, b: a == b,
    ast.NotEq: lambda a, b: a != b,
    ast.Lt: lambda a, b: a < b,
    ast.LtE: lambda a, b: a <= b,
    ast.Gt: lambda a, b: a > b,
    ast.GtE: lambda a, b: a >= b,
}
MATH_NAMES = frozenset(vars(math))
COMPUTED = (abs, int, float, *(one for one in vars(math).values() if callable(one)))
RESERVED = MATH_NAMES | frozenset(vars(builtins))

SHARED = ("tuning", "tables", "course")
"""Arguments that entries have in common, and are not handed on from one to the other."""

FALLS, ENDS = "falls", "ends"


@dataclass
class Folded:
    """A kernel specialised: a function of plain numbers.

    `template` has the shape of its result: what is known of it, `Dynamic` names of parameters that are handed
    through, and None-named places for what is computed, in the order in which it is returned. `about` is what the
    kernel says of itself.
    """

    name: str
    parameters: list[str]
    body: list[ast.stmt]
    template: Value
    results: int
    about: str = ""


@dataclass
class Remembered:
    """A folded kernel for the next structure, and what was called while it was folded, with the names that had then.

    Its statements are kept as bytes: as trees, each collection of garbage would go through them.
    """

    folded: Folded
    body: bytes
    calls: "dict[Any, tuple[str, Remembered]]"

    def copy(self, own_name: str, names: Mapping[str, str]) -> Folded:
        """Return one that may be changed, under a name of its own, with some names of functions replaced."""
        body: list[ast.stmt] = pickle.loads(self.body)
        renamed = {old: new for old, new in names.items() if old != new}
        for part in names_in(body) if renamed else ():
            part.id = renamed.get(part.id, part.id)
        return replace(self.folded, name=own_name, parameters=list(self.folded.parameters), body=body)


_REMEMBERED: dict[Any, Remembered] = {}
MOST_REMEMBERED = 2000
"""Folded kernels that are kept for the next structure, before all are dropped."""


@dataclass
class Result:
    """Stands in a template for the number of that place among the results."""

    place: int


@dataclass
class Scope:
    """One kernel while it is folded."""

    function: FunctionType
    tree: ast.FunctionDef
    env: dict[str, Value]
    taken: set[str]
    mutable: set[str]
    fresh: dict[str, str] = field(default_factory=dict)
    names: dict[tuple[str, tuple[str, ...]], str] = field(default_factory=dict)
    out: list[ast.stmt] = field(default_factory=list)
    returned: list[tuple[ast.Return, Value]] = field(default_factory=list)
    loops: "list[Loop]" = field(default_factory=list)

    def unique(self, wanted: str) -> str:
        """Return a name that nobody has yet."""
        wanted = wanted.strip("_") or "value"
        found, number = wanted, 1
        while found in self.taken or found in RESERVED:
            number += 1
            found = f"{wanted}_{number}"
        self.taken.add(found)
        return found

    def leaf_name(self, variable: str, path: tuple[str, ...]) -> str:
        """Return the name of one number of a variable."""
        base = self.fresh.get(variable, variable)
        key = (base, path)
        if key not in self.names:
            self.names[key] = self.unique("_".join((base, *path)))
            if variable in self.mutable:
                self.mutable.add(self.names[key])
        return self.names[key]


@dataclass
class Loop:
    """A loop that is kept: the numbers that it carries round, and what those stand at where it turns round."""

    carried: dict[str, Value]
    ends: list[dict[str, Value]] = field(default_factory=list)


def _stores(nodes: Iterable[ast.AST]) -> Iterator[str]:
    for node in nodes:
        for found in ast.walk(node):
            if isinstance(found, ast.Name) and isinstance(found.ctx, ast.Store):
                yield found.id


@functools.cache
def _stored_in(loop: ast.For | ast.While) -> tuple[str, ...]:
    """Names that the body of a kernel's loop writes."""
    return tuple(dict.fromkeys(_stores(loop.body)))


@functools.cache
def _leaves_early(loop: ast.For) -> bool:
    return any(isinstance(node, ast.Break | ast.Continue) for part in loop.body for node in ast.walk(part))


@functools.cache
def _unrolls(loop: ast.For) -> bool:
    """Whether a loop goes over the parts of a tuple, whose number the structure fixes."""
    return any(isinstance(node, ast.Name) and node.id == "len" for node in ast.walk(loop.iter))


@functools.cache
def _mutable_names(tree: ast.FunctionDef) -> frozenset[str]:
    """Names that are written more than once: those never stand for another name."""
    counts: dict[str, int] = {argument.arg: 1 for argument in tree.args.args}
    for found in _stores(tree.body):
        counts[found] = counts.get(found, 0) + 1

    def in_loops(nodes: Sequence[ast.AST]) -> None:
        for node in nodes:
            if isinstance(node, ast.While) or (isinstance(node, ast.For) and not _unrolls(node)):
                for found in _stores([node]):
                    counts[found] = 2
            else:
                in_loops(list(ast.iter_child_nodes(node)))

    in_loops(tree.body)
    return frozenset(found for found, count in counts.items() if count > 1)


class Folder:
    """Folds kernels; `entries` are those that take and give records whole, by the name they are called by."""

    def __init__(self, entries: dict[Callable[..., Any], str] | None = None) -> None:
        """Begin with nothing folded."""
        self.folded: dict[Any, Folded] = {}
        self.taken: set[str] = set()
        self.entries = entries or {}
        self._calling: list[dict[Any, tuple[str, Remembered]]] = []
        self._remembered: dict[Any, Remembered] = {}

    # --- functions

    def fold(self, function: Callable[..., Any], arguments: Sequence[Value]) -> Folded:
        """Return a kernel specialised for what is known of its arguments; those that are names keep theirs."""
        if not isinstance(function, FunctionType):
            raise TypeError(f"{function!r} is no kernel")
        key = (function, tuple(map(_described, arguments)))
        if key not in self.folded:
            found = None if self.entries else _REMEMBERED.get(key)
            if found:
                self._recall(key, found)
            else:
                self._fold(key, function, arguments)
        if self._calling and key in self._remembered:
            self._calling[-1].setdefault(key, (self.folded[key].name, self._remembered[key]))
        return self.folded[key]

    def _recall(self, key: Any, found: Remembered) -> None:
        """Take over what another folder made of the same, with all that it calls, under names of this one's own."""
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
        scope = Scope(function, tree, {}, set(), set(_mutable_names(tree)))
        parameters: list[str] = []
        for argument, value in zip(names, arguments, strict=True):
            scope.env[argument] = self._entered(scope, argument, value, (), parameters)
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
        # What is called from outside is hardly ever the same twice.
        if self._calling and not self.entries:
            if len(_REMEMBERED) >= MOST_REMEMBERED:
                _REMEMBERED.clear()
            remembered = Remembered(replace(folded, body=[]), pickle.dumps(folded.body), calls)
            _REMEMBERED[key] = self._remembered[key] = remembered

    def _entered(
        self, scope: Scope, argument: str, value: Value, path: tuple[str, ...], parameters: list[str]
    ) -> Value:
        """Return a value as the kernel that it is handed to has it: what is not known are parameters."""
        if type(value) is Known:
            return value
        if type(value) is Record:
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
        """Return a name for a function; it begins with an underscore, as no number's does."""
        wanted = f"_{wanted}"
        found, number = wanted, 1
        while found in self.taken or found in RESERVED:
            number += 1
            found = f"{wanted}_{number}"
        self.taken.add(found)
        return found

    def _give_results(self, scope: Scope, folded: Folded) -> None:
        """Find what all returns have in common; the rest is what the function gives."""
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
        """Return what a kernel gives; what it has to compute is called for by a statement of its own."""
        if function in self.entries and any(isinstance(argument, Packed) for argument in arguments):
            handed = [
                expression(value)
                for parameter, value in zip(kernel_tree(function).args.args, arguments, strict=True)
                if parameter.arg not in SHARED
            ]
            return Packed(ast.Call(name(self.entries[function]), handed, []))
        folded = self.fold(function, arguments)
        given = [
            leaf.node for value in arguments for leaf in leaf_values(value) if not isinstance(leaf, Known | Record)
        ]
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
            scope.out.append(_assign(targets, ast.Call(name(folded.name), given, [])))
        return rebuilt(folded.template, iter(result))

    # --- statements

    def block(self, scope: Scope, body: Sequence[ast.stmt]) -> str:
        """Fold statements; return whether control comes out at their end."""
        for statement in body:
            kind = type(statement).__name__
            handler = getattr(self, f"_do_{kind}", None)
            if handler is None:
                refuse(scope.function, statement, f"{kind} is outside the kernel language")
            if handler(scope, statement) == ENDS:
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
        """Names for the numbers that a call gives, if its target says what they are called."""
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
        """Give variables their values; what is known or stands already needs no statement."""
        moves: list[tuple[str, ast.expr]] = []
        for variable, value in pairs:
            scope.env[variable] = self._bound(scope, variable, value, (), moves)
        scope.out += moved(moves)

    def _bound(
        self, scope: Scope, variable: str, value: Value, path: tuple[str, ...], moves: list[tuple[str, ast.expr]]
    ) -> Value:
        """Return a value as a variable has it; what has to be written for that goes into `moves`."""
        if type(value) is Known:
            return value
        if type(value) is Record:
            parts: list[Value] | None = None
            for place, part in enumerate(value.parts):
                if type(part) is Known:
                    continue
                new = self._bound(scope, variable, part, (*path, value.fields[place]), moves)
                if new is not part:
                    if parts is None:
                        parts = list(value.parts)
                    parts[place] = new
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
        _put_if(scope.out, expression(test), yes, no)
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
        """Let both branches leave every variable under the same name."""
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

    # --- loops

    def _do_For(self, scope: Scope, statement: ast.For) -> str:  # noqa: N802
        called = statement.iter
        if not (isinstance(called, ast.Call) and isinstance(called.func, ast.Name) and called.func.id == "range"):
            refuse(scope.function, statement, "a for that does not go over range(…)")
        if not isinstance(statement.target, ast.Name) or statement.orelse:
            refuse(scope.function, statement, "a for goes with one name, and without else")
        bounds = [self.value(scope, argument) for argument in called.args]
        if all(isinstance(bound, Known) for bound in bounds):
            steps = range(*(bound.value for bound in bounds if isinstance(bound, Known)))
            if _unrolls(statement) or len(steps) <= 1:
                return self._unrolled(scope, statement, steps)
        elif _unrolls(statement):
            refuse(scope.function, statement, "a loop over len(…) whose length is not known")
        variable = scope.unique(statement.target.id if statement.target.id != "_" else "part")
        scope.env[statement.target.id] = Dynamic(name(variable))
        iterated = ast.Call(name("range"), [expression(bound) for bound in bounds], [])
        self._kept_loop(scope, statement, None, lambda body: ast.For(stored(variable), iterated, body, []))
        return FALLS

    def _unrolled(self, scope: Scope, statement: ast.For, steps: range) -> str:
        local = [variable for variable in _stored_in(statement) if variable not in scope.env]
        target = statement.target
        if _leaves_early(statement):
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
        """Fold a loop that stays one: the numbers that it changes are found by going round until no more turn up."""
        touched = [variable for variable in _stored_in(statement) if variable in scope.env]
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
        """Bring what the loop carries under its names, as the next round finds it."""
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

    # --- expressions

    def value(self, scope: Scope, node: ast.expr, hints: list[str] | None = None) -> Value:
        """Fold an expression; calls of kernels in it become statements before it."""
        match node:
            case ast.Constant(value=bool() | int() | float() as number):
                return Known(number)
            case ast.Name(id=identifier):
                return self._named(scope, node, identifier)
            case ast.Attribute(value=owner, attr=attribute):
                return self._attribute(scope, node, self.value(scope, owner), attribute)
            case ast.Tuple(elts=parts):
                return Record(tuple, tuple(self._spread(scope, parts)))
            case ast.Subscript(value=owner, slice=index):
                return self._subscript(scope, node, self.value(scope, owner), self.value(scope, index))
            case ast.UnaryOp(op=operator, operand=operand):
                return self._unary(scope, node, operator, self.value(scope, operand))
            case ast.BinOp(left=left, op=operator, right=right):
                return self._binary(scope, node, self.value(scope, left), operator, self.value(scope, right))
            case ast.Compare():
                return self._compare(scope, node)
            case ast.BoolOp():
                return self._logic(scope, node)
            case ast.IfExp():
                return self._choice(scope, node)
            case ast.Call():
                return self._called(scope, node, hints)
        return refuse(scope.function, node, f"{_words(node)} is outside the kernel language")

    def _named(self, scope: Scope, node: ast.expr, identifier: str) -> Value:
        if identifier in scope.env:
            return scope.env[identifier]
        if identifier in scope.function.__globals__:
            return known(scope.function.__globals__[identifier])
        if hasattr(builtins, identifier):
            return Known(getattr(builtins, identifier))
        return refuse(scope.function, node, f"{identifier} has no value here")

    def _attribute(self, scope: Scope, node: ast.expr, owner: Value, attribute: str) -> Value:
        if isinstance(owner, Record) and attribute in owner.fields:
            return owner.parts[owner.fields.index(attribute)]
        if isinstance(owner, Known) and isinstance(owner.value, ModuleType):
            if owner.value is not math:
                refuse(scope.function, node, f"{owner.value.__name__}: kernels use math only")
            if not hasattr(math, attribute):
                refuse(scope.function, node, f"math has no {attribute}")
            return Known(getattr(math, attribute))
        return refuse(scope.function, node, f".{attribute} of {_kind(owner)}")

    def _spread(self, scope: Scope, parts: Sequence[ast.expr]) -> Iterator[Value]:
        for part in parts:
            if isinstance(part, ast.Starred):
                value = self.value(scope, part.value)
                if not isinstance(value, Record):
                    refuse(scope.function, part, f"* of {_kind(value)}")
                yield from value.parts
            else:
                yield self.value(scope, part)

    def _subscript(self, scope: Scope, node: ast.expr, owner: Value, index: Value) -> Value:
        if isinstance(owner, Record):
            if not isinstance(index, Known):
                refuse(scope.function, node, "a place in a tuple has to be known; rows may be read anywhere")
            return owner.parts[int(index.value)]
        if isinstance(owner, Dynamic):
            return Dynamic(ast.Subscript(owner.node, expression(index), ast.Load()))
        return refuse(scope.function, node, f"[…] of {_kind(owner)}")

    def _unary(self, scope: Scope, node: ast.expr, operator: ast.unaryop, operand: Value) -> Value:
        if isinstance(operator, ast.Not):
            if isinstance(operand, Known):
                return Known(not operand.value)
            return Dynamic(ast.UnaryOp(ast.Not(), expression(operand)))
        if isinstance(operator, ast.USub):
            if isinstance(operand, Known):
                return Known(-operand.value)
            return Dynamic(ast.UnaryOp(ast.USub(), expression(operand)))
        return refuse(scope.function, node, f"{_words(operator)} is outside the kernel language")

    def _binary(self, scope: Scope, node: ast.expr, left: Value, operator: ast.operator, right: Value) -> Value:
        compute = ARITHMETIC.get(type(operator))
        if compute is None or isinstance(left, Record) or isinstance(right, Record):
            refuse(scope.function, node, f"{_words(operator)} of {_kind(left)} and {_kind(right)}")
        if isinstance(left, Known) and isinstance(right, Known):
            return Known(compute(left.value, right.value))
        # Exact for every number there is, zeros of either sign and infinities included.
        if isinstance(right, Known) and right.value == 1 and isinstance(operator, ast.Mult | ast.Div | ast.Pow):
            return left
        if isinstance(left, Known) and left.value == 1 and isinstance(operator, ast.Mult):
            return right
        if isinstance(operator, ast.Sub) and isinstance(right, Known) and _is_plus_zero(right.value):
            return left
        # Exact for every finite number but for the sign of zero, and kernels have no others.
        if _is_nothing(left) and isinstance(operator, ast.Mult | ast.Div):
            return Known(0.0)
        if _is_nothing(right) and isinstance(operator, ast.Mult):
            return Known(0.0)
        return Dynamic(ast.BinOp(expression(left), operator, expression(right)))

    def _compare(self, scope: Scope, node: ast.Compare) -> Value:
        values = [self.value(scope, part) for part in (node.left, *node.comparators)]
        operator = node.ops[0]
        if isinstance(operator, ast.In | ast.NotIn):
            members = values[1]
            if len(node.ops) > 1 or not isinstance(members, Record):
                refuse(scope.function, node, "in goes with a tuple written out")
            left = self._atom(scope, values[0])
            inside = isinstance(operator, ast.In)
            single: ast.cmpop = ast.Eq() if inside else ast.NotEq()
            tests = [self._compared(left, single, member) for member in members.parts]
            return _joined(ast.Or() if inside else ast.And(), tests)
        if any(type(operator) not in COMPARISONS for operator in node.ops):
            refuse(scope.function, node, f"{_words(node.ops[0])} is outside the kernel language")
        if any(isinstance(value, Record | Packed) for value in values):
            refuse(scope.function, node, "records are not compared; compare their numbers")
        if len(node.ops) == 1:
            return self._compared(values[0], operator, values[1])
        if all(isinstance(value, Dynamic) for value in values):
            first, *rest = map(expression, values)
            return Dynamic(ast.Compare(first, node.ops, rest))
        atoms = [self._atom(scope, value) for value in values]
        tests = [self._compared(a, op, b) for a, op, b in zip(atoms, node.ops, atoms[1:], strict=False)]
        return _joined(ast.And(), tests)

    def _compared(self, left: Value, operator: ast.cmpop, right: Value) -> Value:
        if isinstance(left, Known) and isinstance(right, Known):
            return Known(COMPARISONS[type(operator)](left.value, right.value))
        return Dynamic(ast.Compare(expression(left), [operator], [expression(right)]))

    def _atom(self, scope: Scope, value: Value, wanted: str = "value") -> Value:
        """Return a value that may be written twice."""
        if isinstance(value, Dynamic) and not is_atom(value.node):
            made = scope.unique(wanted)
            scope.out.append(_assign([made], value.node))
            return Dynamic(name(made))
        return value

    def _logic(self, scope: Scope, node: ast.BoolOp) -> Value:
        is_and = isinstance(node.op, ast.And)
        tests: list[ast.expr] = []
        for place, part in enumerate(node.values):
            outside, scope.out = scope.out, []
            value = self.value(scope, part)
            inside, scope.out = scope.out, outside
            if isinstance(value, Known):
                if bool(value.value) == is_and:
                    continue
                # Nothing that comes before can change it, and nothing there has any effect.
                return Known(not is_and)
            if not inside or not tests:
                scope.out += inside
                tests.append(expression(value))
                continue
            # What has to be computed for this part is computed only if it is asked.
            rest = ast.BoolOp(node.op, list(node.values[place:]))
            made = scope.unique("holds")
            so_far = tests[0] if len(tests) == 1 else ast.BoolOp(node.op, tests)
            scope.out.append(_assign([made], so_far))
            outside, scope.out = scope.out, []
            last = self.value(scope, ast.copy_location(rest, node) if len(rest.values) > 1 else rest.values[0])
            scope.out.append(_assign([made], expression(last)))
            inside, scope.out = scope.out, outside
            scope.mutable.add(made)
            asked: ast.expr = name(made) if is_and else ast.UnaryOp(ast.Not(), name(made))
            scope.out.append(ast.If(asked, inside, []))
            return Dynamic(name(made))
        if not tests:
            return Known(is_and)
        return Dynamic(tests[0] if len(tests) == 1 else ast.BoolOp(node.op, tests))

    def _choice(self, scope: Scope, node: ast.IfExp) -> Value:
        test = self.value(scope, node.test)
        if isinstance(test, Known):
            return self.value(scope, node.body if test.value else node.orelse)
        rows = []
        for part in (node.body, node.orelse):
            outside, scope.out = scope.out, []
            value = self.value(scope, part)
            inside, scope.out = scope.out, outside
            rows.append((value, inside))
        (first, yes), (second, no) = rows
        if not yes and not no and not isinstance(first, Record):
            if same(first, second):
                return first
            return Dynamic(ast.IfExp(expression(test), expression(first), expression(second)))
        parts: list[Value] = []
        if [path for path, _ in leaves(first)] != [path for path, _ in leaves(second)]:
            refuse(scope.function, node, "both sides of if … else have the same shape")
        for (path, left), (_, right) in zip(leaves(first), leaves(second), strict=True):
            if same(left, right):
                parts.append(left)
                continue
            made = scope.unique("_".join(("chosen", *path)))
            yes.append(_assign([made], expression(left)))
            no.append(_assign([made], expression(right)))
            parts.append(Dynamic(name(made)))
        _put_if(scope.out, expression(test), yes, no)
        return rebuilt(first, iter(parts))

    def _called(self, scope: Scope, node: ast.Call, hints: list[str] | None) -> Value:
        function = node.func
        if isinstance(function, ast.Attribute) and function.attr == "_replace":
            return self._replaced(scope, node, self.value(scope, function.value))
        if node.keywords:
            refuse(scope.function, node, "keywords are outside the kernel language, but for _replace")
        target = self.value(scope, function)
        arguments = list(self._spread(scope, node.args))
        called: Any = target.value if isinstance(target, Known) else None
        if isinstance(called, FunctionType):
            return self.call(scope, called, arguments, hints)
        if isinstance(called, type) and issubclass(called, tuple):
            fields: tuple[str, ...] | None = getattr(called, "_fields", None)
            if fields is None or len(fields) != len(arguments):
                refuse(scope.function, node, f"{called.__name__} takes other parts")
            return Record(called, tuple(arguments))
        if called is len and len(arguments) == 1 and isinstance(arguments[0], Record):
            return Known(len(arguments[0].parts))
        if called is min or called is max:
            return self._least_or_most(scope, node, called, arguments)
        if any(called is one for one in COMPUTED):
            return self._computed(scope, node, called, arguments)
        return refuse(scope.function, node, f"{ast.unparse(function)} is no kernel")

    def _computed(self, scope: Scope, node: ast.Call, called: Any, arguments: list[Value]) -> Value:
        if any(isinstance(argument, Record | Packed) for argument in arguments):
            refuse(scope.function, node, f"{called.__name__} of a record")
        if all(isinstance(argument, Known) for argument in arguments):
            return Known(called(*(argument.value for argument in arguments if isinstance(argument, Known))))
        if called is float:
            # Every dynamic number is one already.
            return arguments[0]
        if called is math.hypot and len(arguments) == 2:
            others = [argument for argument in arguments if not _is_nothing(argument)]
            if len(others) == 1:
                called, arguments = math.fabs, others
        return Dynamic(ast.Call(name(called.__name__), [expression(argument) for argument in arguments], []))

    def _least_or_most(self, scope: Scope, node: ast.Call, called: Any, arguments: list[Value]) -> Value:
        if len(arguments) < 2 or any(isinstance(argument, Record | Packed) for argument in arguments):
            refuse(scope.function, node, "min and max go with two numbers or more")
        best = arguments[0]
        for other in arguments[1:]:
            if isinstance(best, Known) and isinstance(other, Known):
                best = Known(called(best.value, other.value))
                continue
            # As Python has it: of equal ones the first.
            first = expression(self._atom(scope, best))
            second = expression(self._atom(scope, other))
            operator: ast.cmpop = ast.Lt() if called is min else ast.Gt()
            best = Dynamic(ast.IfExp(ast.Compare(second, [operator], [first]), second, first))
        return best

    def _replaced(self, scope: Scope, node: ast.Call, owner: Value) -> Value:
        if not isinstance(owner, Record) or node.args:
            refuse(scope.function, node, f"_replace of {_kind(owner)}")
        new = {}
        for keyword in node.keywords:
            if keyword.arg is None or keyword.arg not in owner.fields:
                refuse(scope.function, node, f"_replace: {owner.kind.__name__} has no field {keyword.arg}")
            new[keyword.arg] = self.value(scope, keyword.value)
        parts = zip(owner.fields, owner.parts, strict=True)
        return Record(owner.kind, tuple([new.get(field_name, part) for field_name, part in parts]))


def moved(moves: list[tuple[str, ast.expr]]) -> list[ast.stmt]:
    """Return assignments that all read before any writes; one after another where that is the same."""
    written: set[str] = set()
    for target, node in moves:
        if written and any(part.id in written for part in names_in(node)):
            targets = ast.Tuple([stored(target) for target, _ in moves], ast.Store())
            return [ast.Assign([targets], ast.Tuple([node for _, node in moves], ast.Load()))]
        written.add(target)
    return [_assign([target], node) for target, node in moves]


def _assign(targets: list[str], node: ast.expr) -> ast.Assign:
    if len(targets) == 1:
        return ast.Assign([stored(targets[0])], node)
    return ast.Assign([ast.Tuple([stored(target) for target in targets], ast.Store())], node)


def _put_if(out: list[ast.stmt], test: ast.expr, yes: list[ast.stmt], no: list[ast.stmt]) -> None:
    if yes:
        out.append(ast.If(test, yes, no))
    elif no:
        out.append(ast.If(ast.UnaryOp(ast.Not(), test), no, []))


def _joined(operator: ast.boolop, tests: list[Value]) -> Value:
    is_and = isinstance(operator, ast.And)
    left: list[ast.expr] = []
    for test in tests:
        if isinstance(test, Known):
            if bool(test.value) != is_and:
                return Known(not is_and)
        else:
            left.append(expression(test))
    if not left:
        return Known(is_and)
    return Dynamic(left[0] if len(left) == 1 else ast.BoolOp(operator, left))


def _is_plus_zero(value: Any) -> bool:
    return isinstance(value, float) and value == 0.0 and math.copysign(1.0, value) > 0.0


def _is_nothing(value: Value) -> bool:
    return isinstance(value, Known) and isinstance(value.value, float) and value.value == 0.0


def _is_open(leaf: Value) -> bool:
    return not isinstance(leaf, Known)


def _described(value: Value) -> Any:
    if isinstance(value, Known):
        return type(value.value).__name__, repr(value.value)
    if isinstance(value, Record):
        return value.kind, tuple(map(_described, value.parts))
    return type(value).__name__


def _kind(value: Value) -> str:
    if isinstance(value, Record):
        return f"a {value.kind.__name__}"
    if isinstance(value, Known):
        return repr(value.value)
    return "a whole record" if isinstance(value, Packed) else "a number"


def _words(node: ast.AST) -> str:
    return type(node).__name__


def _shape_of(annotation: Any) -> Any:
    """Return the shape that an annotation promises: None for a number, else (field, shape) pairs; () if unknown."""
    fields = getattr(annotation, "_fields", None)
    if fields is not None:
        hints = annotation.__annotations__
        parts = [(field_name, _shape_of(hints[field_name])) for field_name in fields]
        return () if any(part == () for _, part in parts) else parts
    arguments = getattr(annotation, "__args__", ())
    if getattr(annotation, "__origin__", None) is tuple and arguments and Ellipsis not in arguments:
        parts = [(str(place), _shape_of(argument)) for place, argument in enumerate(arguments)]
        return () if any(part == () for _, part in parts) else parts
    return None if annotation in (float, int, bool) else ()


def _paths(shape: Any, path: tuple[str, ...] = ()) -> Iterator[tuple[str, ...]]:
    if shape is None:
        yield path
    else:
        for field_name, part in shape:
            yield from _paths(part, (*path, field_name))
