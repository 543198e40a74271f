"""Reads kernels as syntax trees from their source files."""

import ast
import functools
import sys
from collections.abc import Callable
from pathlib import Path
from typing import Any, NoReturn

from wendonic.errors import WendonicError


class KernelError(WendonicError):
    """A kernel uses something outside the kernel language."""


class SourceMissingError(WendonicError):
    """The sources of the kernels are not available, as in a frozen game."""


@functools.cache
def _functions_of(module: str) -> dict[str, ast.FunctionDef]:
    try:
        body = ast.parse(_text_of(module)).body
    except (OSError, UnicodeDecodeError, SyntaxError):
        raise SourceMissingError(
            f"the source of {module} is not at hand; allowed: an installation of Wendonic with its .py files"
        ) from None
    return {node.name: node for node in body if isinstance(node, ast.FunctionDef)}


@functools.cache
def _text_of(module: str) -> str:
    return Path(getattr(sys.modules[module], "__file__", None) or "").read_text(encoding="utf-8")


@functools.cache
def comments_in(module: str) -> dict[int, str]:
    """Return the comments in a module that has been read, by the number of the line below each."""
    found: dict[int, str] = {}
    words: list[str] = []
    for number, line in enumerate(_text_of(module).splitlines(), start=1):
        plain = line.strip()
        if plain.startswith("# "):
            words.append(plain.removeprefix("# "))
        elif words:
            found[number] = " ".join(words)
            words = []
    return found


def kernel_tree(function: Callable[..., Any]) -> ast.FunctionDef:
    """Return the syntax tree of a kernel; raises `SourceMissingError` if its file cannot be read."""
    found = _functions_of(function.__module__).get(function.__name__)
    if found is None:
        raise SourceMissingError(f"{function.__module__} has no function {function.__name__} at its top level")
    return found


def refuse(function: Callable[..., Any], node: ast.AST, words: str) -> NoReturn:
    """Raise `KernelError` for a construct, with file, line and what was found."""
    path = getattr(sys.modules[function.__module__], "__file__", None) or function.__module__
    line = getattr(node, "lineno", function.__code__.co_firstlineno)
    raise KernelError(f"{path}:{line}: in kernel {function.__name__}: {words}")
