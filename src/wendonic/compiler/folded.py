"""A kernel specialised, and how it is kept for the next structure."""

import ast
import pickle
from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any

from wendonic.compiler.trees import names_in
from wendonic.compiler.values import Value


@dataclass
class Folded:
    """A kernel specialised: a function of plain numbers.

    `template` has the shape of its result: what is known of it, `Dynamic` names of parameters that are handed
    through, and a `Result` for each number that is computed, in the order in which it is returned. `about` is what
    the kernel says of itself.
    """

    name: str
    parameters: list[str]
    body: list[ast.stmt]
    template: Value
    results: int
    about: str = ""


@dataclass
class Result:
    """Stands in a template for the result of that index."""

    index: int


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


REMEMBERED: dict[Any, Remembered] = {}
MOST_REMEMBERED = 2000
"""Folded kernels that are kept for the next structure, before all are dropped."""
