"""The functions of one mode's tick that are printed, over named structs instead of rows of numbers.

A name with a dot in it is a field of a struct that every function may be handed: `raw.key_w` is a raw input,
`last.view_yaw` what the last tick left, `next.view_yaw` what this one leaves, `out.look_yaw` what it reports,
`number.WALK_SPEED` a number of the profile, `settings.WALK_SPEED` one that stays adjustable. `course` and
`tables` are rows of numbers.
"""

import ast
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field

from wendonic.compiler.folded import Folded
from wendonic.compiler.trees import calls_in, names_in, statements_in
from wendonic.export.kernel_words import kernel_words

STRUCTS = ("raw", "last", "next", "out", "settings")
ROWS = ("course", "tables")


@dataclass
class Function:
    """One function: its parameters, its statements, the number of its results, and its purpose."""

    name: str
    parameters: list[str]
    body: list[ast.stmt]
    results: int
    about: str = ""
    context: tuple[str, ...] = ()
    """Structs and rows that it is passed whole."""
    types: dict[str, str] = field(default_factory=dict)
    """Which of its variables are "bool" or "int"; all others are numbers."""
    result_types: list[str] = field(default_factory=list)
    result_names: list[str] = field(default_factory=list)
    common: bool = False
    """Whether several modes share it; see `mark_common`."""


@dataclass
class Field:
    """One number of a struct: its name, its value at rest, and its meaning."""

    name: str
    rest: float = 0.0
    about: str = ""


@dataclass
class Number:
    """One number of the profile: its name as a constant, its value, its unit, and its place in the profile."""

    name: str
    value: float
    unit: str
    paths: tuple[str, ...]
    law: str = ""
    """How it follows from that field, if it is not the same number."""
    adjustable: bool = False


@dataclass
class ModeProgram:
    """One mode to be printed.

    `functions` are callees first; the last one is the tick, which returns nothing and writes `next` and `out`.
    `shared` are the raw inputs of which each part of a hitch has a share, `once` those that belong to its first part
    only, with their values afterwards; `joined` joins two parts of a hitch, over `next` and `out` of the second, and
    `before` and `earlier` of the first.
    """

    mode: str
    functions: list[Function]
    numbers: list[Number]
    inputs: list[Field]
    state: list[Field]
    results: list[Field]
    shared: list[str]
    once: dict[str, float]
    joined: list[ast.stmt]
    standing: dict[str, float]
    max_dt: str
    tables: tuple[float, ...] = ()
    checked: list[str] = field(default_factory=list)
    """Names that the vectors check: fields of the state and of the results."""

    @property
    def tick(self) -> Function:
        """The tick itself."""
        return self.functions[-1]


def plain_function(folded: Folded) -> Function:
    """Return a specialised kernel as a function that is printed."""
    about = kernel_words(folded.about) if folded.about else ""
    return Function(folded.name, list(folded.parameters), folded.body, folded.results, about)


def is_field(name: str) -> bool:
    """Return whether a name is a field of a struct."""
    return "." in name


def calls_of(body: Sequence[ast.stmt], names: set[str]) -> Iterator[tuple[ast.Assign | None, ast.Call]]:
    """Yield the calls of some functions, each with the assignment that takes exactly its results, if there is one."""
    for statement in statements_in(body):
        whole = statement.value if isinstance(statement, ast.Assign) else None
        for node in _expressions(statement):
            for part in calls_in(node):
                if isinstance(part.func, ast.Name) and part.func.id in names:
                    yield statement if isinstance(statement, ast.Assign) and part is whole else None, part


def _expressions(statement: ast.stmt) -> Iterator[ast.expr]:
    """Yield the expressions of a statement itself."""
    match statement:
        case ast.Assign(value=value):
            yield value
        case ast.If(test=test) | ast.While(test=test):
            yield test
        case ast.For(iter=iterated):
            yield iterated
        case ast.Return(value=value) if value is not None:
            yield value


def callers_of(functions: Sequence[Function]) -> dict[str, list[Function]]:
    """Return the callers of each function."""
    found: dict[str, list[Function]] = {function.name: [] for function in functions}
    for caller in functions:
        called = {call.func.id for _, call in calls_of(caller.body, set(found)) if isinstance(call.func, ast.Name)}
        for name in called:
            found[name].append(caller)
    return found


def targets_of(statement: ast.Assign) -> list[ast.Name]:
    """Return the names that an assignment writes."""
    target = statement.targets[0]
    parts = target.elts if isinstance(target, ast.Tuple) else [target]
    return [part for part in parts if isinstance(part, ast.Name)]


def set_targets(statement: ast.Assign, targets: Sequence[ast.Name]) -> None:
    """Make an assignment write other names."""
    single = len(targets) == 1
    statement.targets = [targets[0] if single else ast.Tuple(list(targets), ast.Store())]


def values_of(statement: ast.Return) -> list[ast.expr]:
    """Return the values of a return statement."""
    value = statement.value
    return [] if value is None else list(value.elts) if isinstance(value, ast.Tuple) else [value]


def set_values(statement: ast.Return, values: Sequence[ast.expr]) -> None:
    """Replace the values of a return statement."""
    if not values:
        statement.value = None
    else:
        statement.value = values[0] if len(values) == 1 else ast.Tuple(list(values), ast.Load())


def written_in(body: Sequence[ast.stmt]) -> set[str]:
    """Return the names that a body writes."""
    return {found.id for found in names_in(body) if type(found.ctx) is ast.Store}


def writers_among(functions: Sequence[Function]) -> set[str]:
    """Return the names of the functions that write fields of structs, directly or by calls; callees come first."""
    found: set[str] = set()
    for function in functions:
        if any(map(is_field, written_in(function.body))) or any(True for _ in calls_of(function.body, found)):
            found.add(function.name)
    return found
