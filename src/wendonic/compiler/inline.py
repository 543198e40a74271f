"""Inlining: small functions, and those called from one place only, become part of their caller."""

import ast
from collections import Counter
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from wendonic.compiler.folded import Folded
from wendonic.compiler.scope import free_name
from wendonic.compiler.statements import moved
from wendonic.compiler.steps import Step, mark_step, replaced
from wendonic.compiler.trees import cloned, cloned_target, names_in, statements_in
from wendonic.compiler.values import is_atom, name

SMALL = 14
"""Most statements of a function that is copied into every caller."""

READABLE, READABLE_ONCE = 3, 4
"""The same for code that is meant to be read, and there for a function that is called once."""

MANY_NUMBERS = 12
"""Number of arguments and results from which a call costs more than it simplifies."""

COPIED_REST = 12
"""Most statements after a branch with a return that are copied behind both sides."""


@dataclass
class _Facts:
    """What inlining needs to know about a function, computed once: its size, loops, the use of its names, and whether
    its returns can be replaced.
    """

    size: int
    loops: bool
    written: list[str]
    reads: Counter[str]
    opens: bool


def _facts(function: Folded) -> _Facts:
    writes: dict[str, None] = {}
    reads: Counter[str] = Counter()
    for found in names_in(function.body):
        if type(found.ctx) is ast.Load:
            reads[found.id] += 1
        else:
            writes[found.id] = None
    every = statements_in(function.body)
    return _Facts(
        len(every),
        any(isinstance(statement, ast.For | ast.While) for statement in every),
        list(writes),
        reads,
        opens(function.body),
    )


def calls_in(body: Sequence[ast.stmt], functions: dict[str, Folded]) -> Iterator[str]:
    """Yield the names of the functions that a body calls, each in a statement of its own."""
    for statement in statements_in(body):
        if isinstance(statement, ast.Assign) and isinstance(statement.value, ast.Call):
            callee = statement.value.func
            if isinstance(callee, ast.Name) and callee.id in functions:
                yield callee.id


def reached(start: list[Folded], functions: dict[str, Folded]) -> dict[str, Folded]:
    """Return the functions that some others call, directly or indirectly, callees first."""
    found: dict[str, Folded] = {}
    for function in start:
        _reach(function.body, functions, found)
    return found


def _reach(body: list[ast.stmt], functions: dict[str, Folded], found: dict[str, Folded]) -> None:
    for callee in dict.fromkeys(calls_in(body, functions)):
        if callee not in found:
            _reach(functions[callee].body, functions, found)
            found[callee] = functions[callee]


def inline(entry: Folded, folded: list[Folded], readable: bool = False) -> dict[str, Folded]:
    """Inline within a function and everything that it calls; return the remaining functions, callees first. If the
    code should be `readable`, longer kernels stay functions.
    """
    functions = {function.name: function for function in folded if function is not entry}
    used = reached([entry], functions)
    sites = Counter(callee for function in [*used.values(), entry] for callee in calls_in(function.body, functions))
    facts: dict[str, _Facts] = {}
    for function in [*used.values(), entry]:
        _Inliner(function, used, facts, sites, readable).run()
        facts[function.name] = _facts(function)
    left = reached([entry], functions)
    _drop_parameters(entry, left)
    return left


def _drop_parameters(entry: Folded, functions: dict[str, Folded]) -> None:
    """Remove unread parameters of functions, callees first, and the arguments for them in their callers."""
    for function in functions.values():
        reads = {found.id for found in names_in(function.body) if type(found.ctx) is ast.Load}
        kept = [index for index, parameter in enumerate(function.parameters) if parameter in reads]
        if len(kept) == len(function.parameters):
            continue
        function.parameters = [function.parameters[index] for index in kept]
        for caller in (*functions.values(), entry):
            for statement in statements_in(caller.body):
                if isinstance(statement, ast.Assign) and isinstance(statement.value, ast.Call):
                    called = statement.value
                    if isinstance(called.func, ast.Name) and called.func.id == function.name:
                        called.args = [called.args[index] for index in kept]


class _Inliner:
    """Inlines the calls of one function."""

    def __init__(
        self,
        function: Folded,
        functions: dict[str, Folded],
        facts: dict[str, _Facts],
        sites: Counter[str],
        readable: bool,
    ) -> None:
        self.readable = readable
        self.function = function
        self.functions = functions
        self.facts = facts
        self.sites = sites
        self.taken = {*function.parameters, *functions, function.name}
        self.taken.update(found.id for found in names_in(function.body))

    def run(self) -> None:
        """Replace every call that is worth inlining."""
        self.function.body = self.block(self.function.body)

    def block(self, body: list[ast.stmt]) -> list[ast.stmt]:
        """Return statements with their calls inlined."""
        made: list[ast.stmt] = []
        for statement in body:
            match statement:
                case ast.Assign(targets=[target], value=ast.Call(func=ast.Name(id=callee), args=arguments)) if (
                    callee in self.functions and self.worth(callee)
                ):
                    made += self.inlined(callee, arguments, target)
                case ast.If():
                    statement.body = self.block(statement.body)
                    statement.orelse = self.block(statement.orelse)
                    made.append(statement)
                case ast.For() | ast.While():
                    statement.body = self.block(statement.body)
                    made.append(statement)
                case _:
                    made.append(statement)
        return made

    def worth(self, callee: str) -> bool:
        """Return whether a function is small, or called from one place and without a loop."""
        facts, function = self.facts[callee], self.functions[callee]
        if not facts.opens:
            return False
        if facts.size <= (READABLE if self.readable else SMALL) and not facts.loops:
            return True
        if self.readable:
            return self.sites[callee] == 1 and facts.size <= READABLE_ONCE and not facts.loops
        if self.sites[callee] > 1:
            return False
        return not facts.loops or len(function.parameters) + function.results > MANY_NUMBERS

    def inlined(self, callee: str, arguments: list[ast.expr], target: ast.expr) -> list[ast.stmt]:
        """Return the statements of a call."""
        function, facts = self.functions[callee], self.facts[callee]
        targets = list(target.elts) if isinstance(target, ast.Tuple) else [target]
        names = [part.id for part in targets if isinstance(part, ast.Name)]
        renamed: dict[str, ast.expr] = {}
        before: list[tuple[str, ast.expr]] = []
        written = set(facts.written)
        for parameter, argument in zip(function.parameters, arguments, strict=True):
            if parameter not in written and (is_atom(argument) or facts.reads[parameter] <= 1):
                renamed[parameter] = argument
            else:
                fresh = self.unique(parameter)
                renamed[parameter] = name(fresh)
                before.append((fresh, argument))
        for local in facts.written:
            if local not in renamed:
                renamed[local] = name(self.unique(local))
        body = opened(function.body, names, renamed)
        if self.readable:
            mark_step(body, Step(function.name, function.about))
        return [*moved(before), *body]

    def unique(self, wanted: str) -> str:
        """Return a name that is not taken yet in this function."""
        return free_name(wanted, self.taken)


def returns_always(body: Sequence[ast.stmt]) -> bool:
    """Return whether control never reaches the end of a body."""
    for statement in body:
        if isinstance(statement, ast.Return | ast.Break | ast.Continue):
            return True
        if isinstance(statement, ast.If) and returns_always(statement.body) and returns_always(statement.orelse):
            return True
    return False


def has_return(statement: ast.stmt) -> bool:
    """Return whether a statement contains a return."""
    kind = type(statement)
    if kind is ast.If:
        return any(map(has_return, statement.body)) or any(map(has_return, statement.orelse))  # type: ignore[attr-defined]
    if kind is ast.For or kind is ast.While:
        return any(map(has_return, statement.body))  # type: ignore[attr-defined]
    return kind is ast.Return


def opens(body: Sequence[ast.stmt]) -> bool:
    """Return whether the returns of a body can be replaced without copying too much."""
    for index, statement in enumerate(body):
        if isinstance(statement, ast.Return):
            return True
        if not has_return(statement):
            continue
        if not isinstance(statement, ast.If):
            return False
        rest = list(body[index + 1 :])
        yes_ends, no_ends = returns_always(statement.body), returns_always(statement.orelse)
        if not yes_ends and not no_ends and len(statements_in(rest)) > COPIED_REST:
            return False
        return opens(statement.body if yes_ends else statement.body + rest) and opens(
            statement.orelse if no_ends else statement.orelse + rest
        )
    return True


def opened(body: Sequence[ast.stmt], targets: list[str], renamed: dict[str, ast.expr]) -> list[ast.stmt]:
    """Return a copy of a body that assigns its results to `targets` instead of returning."""
    made: list[ast.stmt] = []
    for index, statement in enumerate(body):
        if isinstance(statement, ast.Return):
            value = None if statement.value is None else cloned(statement.value, renamed)
            values = [] if value is None else list(value.elts) if isinstance(value, ast.Tuple) else [value]
            left = moved(list(zip(targets, values, strict=True)))
            return made + [replaced(statement, one) for one in left]
        if isinstance(statement, ast.If) and has_return(statement):
            rest = list(body[index + 1 :])
            yes = statement.body if returns_always(statement.body) else statement.body + rest
            no = statement.orelse if returns_always(statement.orelse) else statement.orelse + rest
            test = cloned(statement.test, renamed)
            taken = opened(yes, targets, renamed)
            chosen = ast.If(test, taken or [ast.Pass()], opened(no, targets, renamed))
            return [*made, replaced(statement, chosen)]
        made.append(replaced(statement, _copied(statement, renamed)))
    return made


def _copied(statement: ast.stmt, renamed: dict[str, ast.expr]) -> ast.stmt:
    match statement:
        case ast.Assign(targets=[target], value=value):
            return ast.Assign([cloned_target(target, renamed)], cloned(value, renamed))
        case ast.If(test=test, body=yes, orelse=no):
            return ast.If(
                cloned(test, renamed),
                _all_copied(yes, renamed),
                _all_copied(no, renamed),
            )
        case ast.For(target=target, iter=iterated, body=inside):
            counted = cloned_target(target, renamed)
            return ast.For(counted, cloned(iterated, renamed), _all_copied(inside, renamed), [])
        case ast.While(test=test, body=inside):
            return ast.While(cloned(test, renamed), _all_copied(inside, renamed), [])
        case ast.Pass() | ast.Break() | ast.Continue():
            return type(statement)()
    raise TypeError(f"{type(statement).__name__} in a tick function")


def _all_copied(body: Sequence[ast.stmt], renamed: dict[str, ast.expr]) -> list[ast.stmt]:
    return [replaced(part, _copied(part, renamed)) for part in body]
