"""Comments on statements: the kernel from which one was inlined, and its comment there."""

import ast
from collections.abc import Sequence
from typing import NamedTuple, TypeVar

from wendonic.compiler.trees import statements_in


class Step(NamedTuple):
    """A kernel that became part of another function: its name, and its docstring."""

    kernel: str
    about: str


_STEP, _REMARK = "wendonic_step", "wendonic_remark"

Statement = TypeVar("Statement", bound=ast.stmt)


def mark_step(body: Sequence[ast.stmt], step: Step) -> None:
    """Mark statements, including nested ones, as belonging to a step; existing marks stay.

    >>> body = ast.parse("x = tilt / outer").body
    >>> mark_step(body, Step("round_dead_zone", "Return how far a stick is tilted."))
    >>> step_of(body[0]).kernel, step_of(ast.parse("x = 1").body[0])
    ('round_dead_zone', None)
    """
    for statement in statements_in(body):
        if step_of(statement) is None:
            setattr(statement, _STEP, step)


def step_of(statement: ast.stmt) -> Step | None:
    """Return the step that a statement belongs to, None for the function's own."""
    found: Step | None = getattr(statement, _STEP, None)
    return found


def add_remark(statement: ast.stmt, remark: str) -> None:
    """Attach a comment to a statement, unless it has one from further inside."""
    if not remark_of(statement):
        setattr(statement, _REMARK, remark)


def remark_of(statement: ast.stmt) -> str:
    """Return the comment on a statement, "" for none."""
    found: str = getattr(statement, _REMARK, "")
    return found


def replaced(of: ast.stmt, made: Statement) -> Statement:
    """Return a statement that replaces another one, with its marks."""
    step, remark = step_of(of), remark_of(of)
    if step is not None:
        setattr(made, _STEP, step)
    if remark:
        setattr(made, _REMARK, remark)
    return made
