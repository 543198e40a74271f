"""What is known about a value while kernels are folded. All of these are immutable."""

import ast
import functools
import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

LOAD, STORE = ast.Load(), ast.Store()
"""Shared by all names, and never changed."""


@dataclass(slots=True)
class Known:
    """A number, a truth value, a function or a class that is known while folding."""

    value: Any


@dataclass(slots=True)
class Dynamic:
    """A number, or a row of numbers, that is known only when the tick function runs, as an expression."""

    node: ast.expr


@dataclass(slots=True)
class Packed:
    """A whole record that is passed on as it is, as an expression."""

    node: ast.expr


class Record:
    """A tuple or NamedTuple whose parts are each known or dynamic; `is_known` says whether all of it is known."""

    __slots__ = ("_described", "is_known", "kind", "parts")

    def __init__(self, kind: type, parts: "tuple[Value, ...]") -> None:
        """Check the parts once: most records are known as a whole, and are not split again."""
        self.kind = kind
        self.parts = parts
        self.is_known: bool = True
        self._described: tuple[Any, ...] | None = None
        for part in parts:
            if type(part) is not Known and not (type(part) is Record and part.is_known):
                self.is_known = False
                break

    def described(self) -> "tuple[Any, ...]":
        """Return the part of it that decides how a kernel is folded; see `described`."""
        found = self._described
        if found is None:
            found = self._described = (self.kind, tuple([described(part) for part in self.parts]))
        return found

    @property
    def fields(self) -> tuple[str, ...]:
        """Names of the parts; of a plain tuple their numbers."""
        field_names: tuple[str, ...] | None = getattr(self.kind, "_fields", None)
        return _numbered(len(self.parts)) if field_names is None else field_names


Value = Known | Dynamic | Packed | Record


@functools.cache
def _numbered(count: int) -> tuple[str, ...]:
    return tuple(map(str, range(count)))


def known(value: Any) -> Value:
    """Return a Python value as a known one: tuples part by part, everything else whole."""
    if isinstance(value, tuple):
        return Record(type(value), tuple(map(known, value)))
    return Known(value)


def described(value: Value) -> tuple[Any, ...] | str:
    """Return a value as a key: its known parts, and the kinds of the others."""
    if type(value) is Known:
        return type(value.value).__name__, repr(value.value)
    if type(value) is Record:
        return value.described()
    return type(value).__name__


def name(identifier: str) -> ast.Name:
    """Return a name that is read."""
    return ast.Name(identifier, LOAD)


def stored(identifier: str) -> ast.Name:
    """Return a name that is written."""
    return ast.Name(identifier, STORE)


def leaves(value: Value) -> list[tuple[tuple[str, ...], Value]]:
    """Return the leaves of a value with their paths."""
    found: list[tuple[tuple[str, ...], Value]] = []
    _collect(value, (), found)
    return found


def _collect(value: Value, path: tuple[str, ...], found: list[tuple[tuple[str, ...], Value]]) -> None:
    if type(value) is not Record:
        found.append((path, value))
        return
    for field, part in zip(value.fields, value.parts, strict=True):
        if type(part) is Record:
            _collect(part, (*path, field), found)
        else:
            found.append(((*path, field), part))


def leaf_values(value: Value) -> list[Value]:
    """Return the leaves of a value."""
    if type(value) is not Record:
        return [value]
    found: list[Value] = []
    stack = [value]
    while stack:
        top = stack.pop()
        if type(top) is Record:
            stack.extend(reversed(top.parts))  # type: ignore[arg-type]
        else:
            found.append(top)
    return found


def unknown_nodes(value: Value) -> list[ast.expr]:
    """Return the expressions of the leaves that are not known."""
    found: list[ast.expr] = []
    _collect_nodes(value, found)
    return found


def _collect_nodes(value: Value, found: list[ast.expr]) -> None:
    if type(value) is Record:
        if not value.is_known:
            for part in value.parts:
                if type(part) is Dynamic:
                    found.append(part.node)
                elif type(part) is not Known:
                    _collect_nodes(part, found)
    elif type(value) is not Known:
        found.append(value.node)  # type: ignore[union-attr]


def rebuilt(value: Value, new: Iterator[Value]) -> Value:
    """Return a value of the same shape with other leaves."""
    if isinstance(value, Record):
        return Record(value.kind, tuple([rebuilt(part, new) for part in value.parts]))
    return next(new)


def same(first: Value, second: Value) -> bool:
    """Return whether two leaves are the same number, or the same name."""
    if isinstance(first, Known) and isinstance(second, Known):
        one, other = first.value, second.value
        if type(one) is not type(other) or one != other:
            return False
        return not isinstance(one, float) or math.copysign(1.0, one) == math.copysign(1.0, other)
    if isinstance(first, Dynamic) and isinstance(second, Dynamic):
        one, other = first.node, second.node
        return isinstance(one, ast.Name) and isinstance(other, ast.Name) and one.id == other.id
    return False


def constant(value: Any) -> ast.expr:
    """Return a number as an expression that reads back the same."""
    if isinstance(value, float) and not math.isfinite(value):
        return name("inf") if value > 0.0 else ast.UnaryOp(ast.USub(), name("inf"))
    if isinstance(value, int | float) and not isinstance(value, bool) and math.copysign(1.0, value) < 0.0:
        return ast.UnaryOp(ast.USub(), ast.Constant(-value))
    return ast.Constant(value)


def expression(value: Value) -> ast.expr:
    """Return a leaf as an expression."""
    if isinstance(value, Known):
        return constant(value.value)
    if isinstance(value, Record):
        raise TypeError(f"a {value.kind.__name__} is not a single number")
    return value.node


def is_atom(node: ast.expr) -> bool:
    """Return whether an expression is a name or a number, so that writing it twice costs nothing."""
    return isinstance(node, ast.Name | ast.Constant) or (
        isinstance(node, ast.UnaryOp) and isinstance(node.operand, ast.Constant)
    )
