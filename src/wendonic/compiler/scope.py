"""One kernel while it is folded: its variables, the names in use, and the statements so far."""

import ast
import builtins
import math
from dataclasses import dataclass, field
from types import FunctionType

from wendonic.compiler.values import Value

MATH_NAMES = frozenset(vars(math))
RESERVED = MATH_NAMES | frozenset(vars(builtins))


def free_name(wanted: str, taken: set[str]) -> str:
    """Return a name that is neither taken nor reserved, with a number appended if necessary, and take it.

    >>> taken = {"speed"}
    >>> free_name("speed", taken), free_name("speed", taken), free_name("hypot", taken)
    ('speed_2', 'speed_3', 'hypot_2')
    """
    found, number = wanted, 1
    while found in taken or found in RESERVED:
        number += 1
        found = f"{wanted}_{number}"
    taken.add(found)
    return found


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
        """Return a name that is not taken yet."""
        return free_name(wanted.strip("_") or "value", self.taken)

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
    """A loop that is kept: the numbers that it carries, and their values at the end of each iteration."""

    carried: dict[str, Value]
    ends: list[dict[str, Value]] = field(default_factory=list)
