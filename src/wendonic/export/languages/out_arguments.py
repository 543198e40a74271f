"""Printing for languages in which a function with several results writes them through its arguments: C and C#."""

import ast
from collections import Counter
from collections.abc import Mapping, Sequence
from types import MappingProxyType

from wendonic.compiler.trees import names_in, statements_in
from wendonic.export.kinds import INT
from wendonic.export.languages.braces import BracePrinter
from wendonic.export.languages.scopes import Scopes
from wendonic.export.program import Function, calls_of, is_field, targets_of, values_of, written_in


def straight_results(function: Function, functions: Sequence[Function]) -> dict[str, str]:
    """Return the variables that a function only writes and finally returns, with the index of their result. If the
    function accesses a struct that it also writes results into, nothing is written there early.
    """
    rows = [values_of(one) for one in statements_in(function.body) if isinstance(one, ast.Return)]
    sites = [site for caller in functions for site, _ in calls_of(caller.body, {function.name}) if site is not None]
    into_structs = any(is_field(target.id) for site in sites for target in targets_of(site))
    if function.results < 2 or (into_structs and {"next", "out"} & set(function.context)):
        return {}
    reads = Counter(part.id for part in names_in(function.body) if type(part.ctx) is ast.Load)
    local = {name for name in written_in(function.body) if not is_field(name)} - set(function.parameters)
    found: dict[str, str] = {}
    for index, result in enumerate(function.result_names):
        names = {part.id if isinstance(part, ast.Name) else "" for part in (row[index] for row in rows)}
        name = names.pop()
        alike = function.types.get(name, "") in ("", function.result_types[index])
        if not names and name in local and reads[name] == len(rows) and name not in found and alike:
            found[name] = result
    return found


class OutArgumentPrinter(BracePrinter):
    """Prints assignments, calls and returns; each language defines how it passes targets and names things."""

    constant_word = ""
    """The keyword before the type of a variable that is written once."""

    unused = 0
    """How many results of this function are not used."""

    straight: Mapping[str, str] = MappingProxyType({})
    """Variables that are only results, with the index of their result."""

    def variable(self, name: str) -> str:
        """Return how a variable is written: a variable that is only a result is the target of that result."""
        if name in self.straight:
            return self.result_target(self.straight[name])
        return super().variable(name)

    def kind(self, kind: str) -> str:
        """Return the name of a type."""
        raise NotImplementedError

    def out_argument(self, target: str) -> str:
        """Return the argument by which a function writes to a target."""
        raise NotImplementedError

    def result_target(self, result: str) -> str:
        """Return the target that a function writes one of its results to."""
        raise NotImplementedError

    def own_name(self, name: str) -> str:
        """Return one of our names as the language writes it."""
        return name

    def type_of(self, name: str) -> str:
        """Return a variable's type."""
        return self.kind(self.function.types.get(name, ""))

    def assignment(self, statement: ast.Assign, scopes: Scopes, indent: str) -> list[str]:
        """Return an assignment, a declaration with a value, or a call that gives several numbers."""
        targets, value = self.split(statement)
        first = scopes.first.get(id(statement), [])
        callee = self.callee(value)
        if callee is not None and callee.results != 1:
            return self.calling(callee, value, targets, first, indent)
        if isinstance(value, ast.Tuple):
            return self.together(targets, value.elts, first, indent)
        (target,) = targets
        declared = ""
        if target.id in first:
            constant = self.constant_word if target.id in scopes.once else ""
            declared = f"{constant}{self.type_of(target.id)} "
        return self.wrapped(f"{declared}{self.setting(target, value)};", indent)

    def calling(
        self, callee: Function, value: ast.expr, targets: Sequence[ast.Name], first: Sequence[str], indent: str
    ) -> list[str]:
        """Return a call that writes its results to the targets that it is passed."""
        assert isinstance(value, ast.Call)
        lines = self.declaration(list(first), indent) if first else []
        given = []
        unused: dict[str, list[str]] = {}
        for index, target in enumerate(targets):
            name = self.target(target)
            if target.id == "_":
                self.unused += 1
                name = self.own_name(f"unused_{self.unused}")
                unused.setdefault(self.kind(callee.result_types[index]), []).append(name)
            given.append(self.out_argument(name))
        lines += [f"{indent}{kind} {', '.join(names)};" for kind, names in unused.items()]
        return lines + self.wrapped(f"{self.own_call(callee.name, value.args, given)};", indent)

    def together(
        self, targets: Sequence[ast.Name], values: Sequence[ast.expr], first: Sequence[str], indent: str
    ) -> list[str]:
        """Return assignments that all read before any writes."""
        lines = self.declaration(list(first), indent) if first else []
        inside = f"{indent}    "
        names = [self.own_name(f"next_{target.id.rpartition('.')[2]}") for target in targets]
        lines.append(f"{indent}{{")
        for target, value, name in zip(targets, values, names, strict=True):
            start = f"{self.constant_word}{self.type_of(target.id)} {name}"
            lines += self.wrapped(f"{start} = {self.expression(value, 0, self.wanted_int(target))};", inside)
        for target, name in zip(targets, names, strict=True):
            lines += self.wrapped(f"{self.target(target)} = {name};", inside)
        return [*lines, f"{indent}}}"]

    def returned(self, values: Sequence[ast.expr], indent: str) -> list[str]:
        """Return a return; several numbers go to the targets that the function is passed."""
        function = self.function
        if len(values) == 1:
            whole = function.result_types[0] == INT
            return self.wrapped(f"return {self.side(values[0], 0, whole)};", indent)
        lines: list[str] = []
        for index, value in enumerate(values):
            if isinstance(value, ast.Name) and value.id in self.straight:
                continue
            text = self.side(value, 0, function.result_types[index] == INT)
            lines += self.wrapped(f"{self.result_target(function.result_names[index])} = {text};", indent)
        return [*lines, f"{indent}return;"]
