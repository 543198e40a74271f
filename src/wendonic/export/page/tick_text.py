"""The running tick function of a structure in JavaScript: the same statements over the same rows of numbers.

Only a browser reads it, so it is made quickly whenever a form changes.
"""

import ast
from collections.abc import Iterator, Sequence

from wendonic.compiler.trees import statements_in
from wendonic.export.languages.javascript import CONSTANTS, JavaScriptPrinter
from wendonic.export.languages.printer import ATOM, TIMES
from wendonic.export.languages.reserved import WORDS
from wendonic.export.program import Function

MATH_HELPERS = """const hypot = (x, y) => Math.sqrt(x * x + y * y);
const copysign = (size, sign) => sign < 0 || Object.is(sign, -0) ? -Math.abs(size) : Math.abs(size);
const fmod = (number, whole) => number % whole;
const floorMod = (number, whole) => {
  const left = number % whole;
  return left !== 0 && left < 0 !== whole < 0 ? left + whole : left;
};
"""
"""Helpers that tick functions call; a module with tick functions begins with them and `constants`."""


def constants() -> str:
    """Return the mathematical constants that tick functions use."""
    return "".join(f"const {name} = {value};\n" for name, value in CONSTANTS.items()) + MATH_HELPERS


class _TickPrinter(JavaScriptPrinter):
    """Prints expressions with the names unchanged, and rows of numbers."""

    def variable(self, name: str) -> str:
        return f"{name}_" if name in WORDS[self.language] else name

    def function_name(self, name: str) -> str:
        return self.variable(name)

    def bound(self, node: ast.expr, as_int: bool) -> tuple[str, int]:
        match node:
            case ast.List(elts=parts) | ast.Tuple(elts=parts):
                return f"[{', '.join(self.expression(part) for part in parts)}]", ATOM
            case ast.Name(id="tables" | "course" as row):
                return row, ATOM
            case ast.Call(func=ast.Name(id=name), args=args) if name in self.functions:
                return f"{self.variable(name)}({', '.join(self.expression(part) for part in args)})", ATOM
        return super().bound(node, as_int)

    def subscript(self, row: ast.expr, index: ast.expr) -> str:
        # Integers in Python are plain numbers here.
        return f"{self.expression(row, ATOM)}[{self.expression(index, 0, True)}]"

    def floor_division(self, left: ast.expr, right: ast.expr) -> tuple[str, int]:
        return f"Math.floor({self.expression(left, TIMES)} / {self.expression(right, TIMES + 1)})", ATOM


def tick_text(text: str) -> str:
    """Return a function expression that takes numbers, tables and a course, and returns `[part, tick, standing]`,
    from the text of a `ReadyTick`.
    """
    module = ast.parse(text)
    functions = [node for node in ast.walk(module) if isinstance(node, ast.FunctionDef)]
    known = [Function(node.name, [argument.arg for argument in node.args.args], [], 1) for node in functions]
    printer = _TickPrinter(known)
    lines = ["(() => {"]
    for node in module.body:
        if isinstance(node, ast.FunctionDef):
            lines += _function(printer, node, " ")
    return "\n".join([*lines, " return make;", "})()"])


def _function(printer: _TickPrinter, node: ast.FunctionDef, indent: str) -> list[str]:
    given = [printer.variable(argument.arg) for argument in node.args.args]
    lines = [f"{indent}function {printer.variable(node.name)}({', '.join(given)}) {{"]
    inner = [part for part in node.body if isinstance(part, ast.FunctionDef)]
    body = [part for part in node.body if not isinstance(part, ast.FunctionDef | ast.Expr)]
    names = dict.fromkeys(printer.variable(name) for name in _written(body) if name != "_")
    own = [name for name in names if name not in given]
    if own:
        lines.append(f"{indent} let {', '.join(own)};")
    before = [part for part in body if not isinstance(part, ast.Return)] if inner else body
    lines += _statements(printer, before, indent + " ")
    for part in inner:
        lines += _function(printer, part, indent + " ")
    if inner:
        lines += _statements(printer, [part for part in body if isinstance(part, ast.Return)], indent + " ")
    return [*lines, f"{indent}}}"]


def _written(body: Sequence[ast.stmt]) -> Iterator[str]:
    for statement in statements_in(body):
        targets: list[ast.expr] = []
        if isinstance(statement, ast.Assign):
            targets = statement.targets
        elif isinstance(statement, ast.For):
            targets = [statement.target]
        for target in targets:
            yield from (part.id for part in ast.walk(target) if isinstance(part, ast.Name))


def _statements(printer: _TickPrinter, body: Sequence[ast.stmt], indent: str) -> list[str]:
    lines: list[str] = []
    for statement in body:
        lines += _statement(printer, statement, indent)
    return lines


def _statement(printer: _TickPrinter, statement: ast.stmt, indent: str) -> list[str]:
    show = printer.expression
    match statement:
        case ast.Assign(targets=[ast.Name(id=name)], value=value):
            return [f"{indent}{printer.variable(name)} = {show(value)};"]
        case ast.Assign(targets=[ast.Tuple(elts=parts)], value=value):
            return _taken_apart(printer, parts, value, indent)
        case ast.If(test=test, body=yes, orelse=no):
            lines = [f"{indent}if ({show(test)}) {{", *_statements(printer, yes, indent + " ")]
            if no:
                lines += [f"{indent}}} else {{", *_statements(printer, no, indent + " ")]
            return [*lines, f"{indent}}}"]
        case ast.While(test=test, body=inside):
            return [f"{indent}while ({show(test)}) {{", *_statements(printer, inside, indent + " "), f"{indent}}}"]
        case ast.For(target=ast.Name(id=name), iter=ast.Call(args=[count]), body=inside):
            counter = printer.variable(name)
            head = f"{indent}for ({counter} = 0; {counter} < {show(count)}; {counter}++) {{"
            return [head, *_statements(printer, inside, indent + " "), f"{indent}}}"]
        case ast.Return(value=value):
            return [f"{indent}return {show(value) if value is not None else ''};"]
        case ast.Break():
            return [f"{indent}break;"]
        case ast.Continue():
            return [f"{indent}continue;"]
    raise TypeError(f"{type(statement).__name__} in a tick function")


def _taken_apart(printer: _TickPrinter, parts: Sequence[ast.expr], value: ast.expr, indent: str) -> list[str]:
    names = [printer.variable(part.id) if isinstance(part, ast.Name) else "_" for part in parts]
    if isinstance(value, ast.Name):
        row = printer.variable(value.id)
        return [f"{indent}{name} = {row}[{index}];" for index, name in enumerate(names) if name != "_"]
    targets = ", ".join("" if name == "_" else name for name in names)
    return [f"{indent}[{targets}] = {printer.expression(value)};"]
