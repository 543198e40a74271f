"""Removes repetition: what both sides of a branch do, or what has been computed before, is written once."""

import ast
from collections.abc import Collection, Sequence
from typing import Any

from wendonic.compiler.trees import key, names_in


def common_first(body: list[ast.stmt]) -> None:
    """Move an assignment that both sides of a branch share before the branch."""
    index = 0
    while index < len(body):
        statement = body[index]
        for part in (getattr(statement, "body", None), getattr(statement, "orelse", None)):
            if part:
                common_first(part)
        if isinstance(statement, ast.If) and statement.orelse:
            for one in list(statement.orelse):
                other = next((same for same in statement.body if _are_alike(one, same)), None)
                if other is None or not all(
                    _may_come_first(part, side) for part, side in ((one, statement.orelse), (other, statement.body))
                ):
                    continue
                if not _apart(one, names_in(statement.test)):
                    continue
                statement.orelse.remove(one)
                statement.body.remove(other)
                body.insert(index, one)
                index += 1
        index += 1
    body[:] = [one for one in body if not (isinstance(one, ast.If) and not one.body and not one.orelse)]


def _target(statement: ast.stmt) -> str:
    """Return the variable that a statement sets to a number or another variable, "" for any other statement."""
    match statement:
        case ast.Assign(targets=[ast.Name(id=name)], value=ast.Constant() | ast.Name()):
            return name
    return ""


def _are_alike(one: ast.stmt, other: ast.stmt) -> bool:
    if not isinstance(one, ast.Assign) or not isinstance(other, ast.Assign):
        return False
    return _target(one) != "" and _target(one) == _target(other) and key(one.value) == key(other.value)


def _may_come_first(statement: ast.stmt, body: list[ast.stmt]) -> bool:
    return all(_apart(statement, names_in(earlier)) for earlier in body[: body.index(statement)])


def _apart(statement: ast.stmt, names: Sequence[ast.Name]) -> bool:
    """Return whether the statements before another one neither read nor write what that writes, nor write what it
    reads.
    """
    own = {part.id for part in names_in(statement)}
    if any(part.id.startswith("_") for part in names) and any("." in name for name in own):
        # Called functions may read and write fields.
        return False
    target = _target(statement)
    return not any(part.id == target or (part.id in own and type(part.ctx) is ast.Store) for part in names)


def drop_again(body: list[ast.stmt], known: dict[str, Any], writers: Collection[str]) -> dict[str, Any]:
    """Remove assignments of the value that a variable already has; `known` are the values before, and `writers` the
    functions that write fields. Return the values known afterwards.
    """
    known = dict(known)
    kept: list[ast.stmt] = []
    for statement in body:
        target = _target(statement)
        if target and isinstance(statement, ast.Assign):
            value = key(statement.value)
            # Equal variables are recorded in both directions.
            if known.get(target) == value or (isinstance(value, str) and known.get(value) == target):
                continue
        kept.append(statement)
        if isinstance(statement, ast.If):
            forgotten = _forgotten(known, names_in(statement.test), writers)
            sides = [drop_again(side, forgotten, writers) for side in (statement.body, statement.orelse)]
            known = {name: value for name, value in sides[0].items() if sides[1].get(name) == value}
            continue
        if isinstance(statement, ast.For | ast.While):
            known = _forgotten(known, names_in(statement), writers)
            drop_again(statement.body, known, writers)
            continue
        known = _forgotten(known, names_in(statement), writers)
        if target and isinstance(statement, ast.Assign):
            known[target] = key(statement.value)
    body[:] = kept
    return known


def _forgotten(known: dict[str, Any], names: Sequence[ast.Name], writers: Collection[str]) -> dict[str, Any]:
    """Return what is still known after these names have been written, or functions called that may write fields."""
    written = {part.id for part in names if type(part.ctx) is ast.Store}
    calls = any(part.id in writers for part in names)

    def stays(name: str) -> bool:
        return name not in written and not (calls and "." in name)

    return {
        name: value
        for name, value in known.items()
        if stays(name) and not (isinstance(value, str) and not stays(value))
    }
