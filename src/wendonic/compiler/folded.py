"""Specialised kernels, and how they are kept for the next structure."""

import ast
import pickle
from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any

from wendonic.compiler.trees import names_in
from wendonic.compiler.values import Value


@dataclass
class Folded:
    """A specialised kernel: a function of plain numbers.

    `template` has the shape of its result: known parts, `Dynamic` names of parameters that are passed through, and a
    `Result` for each computed number, in the order of the return. `about` is the kernel's docstring.
    """

    name: str
    parameters: list[str]
    body: list[ast.stmt]
    template: Value
    results: int
    about: str = ""


@dataclass
class Result:
    """Placeholder in a template for the result with that index."""

    index: int


@dataclass
class Remembered:
    """A folded kernel kept for the next structure, and the kernels that it calls, with their names at that time.

    Its statements are kept as bytes: the garbage collector would traverse trees each time.
    """

    folded: Folded
    body: bytes
    calls: "dict[Any, tuple[str, Remembered]]"

    def copy(self, own_name: str, names: Mapping[str, str]) -> Folded:
        """Return a copy that may be changed, under a new name, with some function names replaced."""
        body: list[ast.stmt] = pickle.loads(self.body)
        renamed = {old: new for old, new in names.items() if old != new}
        for part in names_in(body) if renamed else ():
            part.id = renamed.get(part.id, part.id)
        return replace(self.folded, name=own_name, parameters=list(self.folded.parameters), body=body)


REMEMBERED: dict[Any, Remembered] = {}
MOST_REMEMBERED = 2000
"""Number of folded kernels that are kept before all of them are dropped."""
