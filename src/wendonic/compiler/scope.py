"""One kernel while it is folded: what its variables are, which names are taken, what has been written so far."""

import ast
import builtins
import math
from dataclasses import dataclass, field
from types import FunctionType

from wendonic.compiler.values import Value

MATH_NAMES = frozenset(vars(math))
RESERVED = MATH_NAMES | frozenset(vars(builtins))


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
