"""The base of all printers: expressions with no more brackets than necessary, and statements."""

import ast
import math
import re
import textwrap
from collections.abc import Callable, Mapping, Sequence

from wendonic.compiler.steps import remark_of, step_of
from wendonic.export.kernel_words import step_words
from wendonic.export.kinds import BOOL, FLOAT, INT, kind_of
from wendonic.export.languages.reserved import WORDS
from wendonic.export.languages.scopes import Scopes
from wendonic.export.program import Function, is_field, targets_of, values_of

WIDTH = 120
TERNARY, OR, AND, EQUAL, LESS, ADD, TIMES, UNARY, POWER, ATOM = range(1, 11)

NAMED = {
    math.pi: "PI",
    2.0 * math.pi: "TWO_PI",
    0.5 * math.pi: "HALF_PI",
    0.25 * math.pi: "QUARTER_PI",
    0.125 * math.pi: "EIGHTH_PI",
    math.log(2.0): "LN_2",
    math.pi / 180.0: "RAD_PER_DEG",
    180.0 / math.pi: "DEG_PER_RAD",
}
"""Numbers that are printed as named constants."""

_OPERATORS: dict[type[ast.AST], tuple[str, int]] = {
    ast.Add: ("+", ADD),
    ast.Sub: ("-", ADD),
    ast.Mult: ("*", TIMES),
    ast.Div: ("/", TIMES),
}
_COMPARED: dict[type[ast.AST], str] = {
    ast.Eq: "==",
    ast.NotEq: "!=",
    ast.Lt: "<",
    ast.LtE: "<=",
    ast.Gt: ">",
    ast.GtE: ">=",
}


class Printer:
    """Prints the functions of one mode; each language overrides what is different."""

    language = "c99"
    end = ";"
    true, false = "true", "false"
    both, either, negation = "&&", "||", "!"
    equal, unequal = "==", "!="
    short_of_pi = 0.0
    """The smallest distance from half a turn at which a number just short of it is printed."""
    structs: Mapping[str, str] = {
        "raw": "input",
        "last": "last",
        "next": "state",
        "out": "result",
        "settings": "settings",
        "before": "last",
        "earlier": "earlier",
        "finger": "finger",
    }
    access = "."
    continuation = "    "
    remark = ("// ", "// ", "")
    """The beginning of a comment, of its further lines, and its end."""
    shift = 0
    """Number of characters by which printed lines are indented afterwards."""

    def __init__(self, functions: Sequence[Function], prefix: str = "") -> None:
        """Take the functions; `prefix` precedes all their names, and in capitals those of constants."""
        self.functions = {function.name: function for function in functions}
        self.prefix = prefix
        self.used: set[str] = set()
        """Helpers and constants that the printed source needs."""
        self.function = Function("", [], [], 0)
        self.said: set[str] = set()
        self.within: ast.stmt | None = None
        """The branch or loop that is being printed."""

    def begin(self, function: Function) -> None:
        """Begin a function, without comments so far."""
        self.function = function
        self.said = set()

    # --- names

    def variable(self, name: str) -> str:
        """Return how a variable is written."""
        taken = name in WORDS[self.language] or name in self.structs.values()
        return f"{name}_" if taken else name

    def field(self, name: str) -> str:
        """Return how a field of a struct is written."""
        struct, _, field = name.partition(".")
        if struct == "number":
            return self.constant_name(field)
        return f"{self.structs[struct]}{self.access}{self.field_name(field)}"

    def field_name(self, name: str) -> str:
        """Return how a field is called."""
        return f"{name}_" if name in WORDS[self.language] else name

    def constant_name(self, name: str) -> str:
        """Return how a number of the profile is written."""
        return f"{self.prefix.upper()}{name}"

    def function_name(self, name: str) -> str:
        """Return how a function is called."""
        return self.variable(f"{self.prefix_of(name)}{name}")

    def prefix_of(self, name: str) -> str:
        """Return the prefix of a function's name, empty for a function that several modes share."""
        return "" if name in self.functions and self.functions[name].common else self.prefix

    def shared_constant(self, name: str) -> str:
        """Return how a constant of mathematics is written."""
        self.used.add(name)
        return name

    # --- expressions

    def expression(self, node: ast.expr, least: int = 0, as_int: bool = False) -> str:
        """Return an expression, in brackets if it binds more loosely than `least`."""
        text, binds = self.bound(node, as_int)
        return f"({text})" if binds < least else text

    def bound(self, node: ast.expr, as_int: bool) -> tuple[str, int]:
        """Return an expression and how tightly it binds."""
        match node:
            case ast.Constant(value=value):
                return self.constant(value, as_int)
            case ast.Name(id="tables"):
                return self.constant_name("TABLES"), ATOM
            case ast.Name(id=name):
                return (self.field(name) if is_field(name) else self.variable(name)), ATOM
            case ast.UnaryOp(op=ast.Not(), operand=operand):
                return f"{self.negation}{self.expression(operand, UNARY)}", UNARY
            case ast.UnaryOp(op=ast.USub(), operand=operand):
                return f"-{self.expression(operand, UNARY, as_int)}", UNARY
            case ast.BoolOp(op=operator, values=values):
                word, level = (self.both, AND) if isinstance(operator, ast.And) else (self.either, OR)
                # Brackets make precedence visible, although they are not needed.
                parts = [self.expression(part, EQUAL) for part in values]
                return f" {word} ".join(parts), level
            case ast.Compare():
                return self.comparison(node)
            case ast.IfExp(test=test, body=yes, orelse=no):
                return self.choice(test, yes, no, as_int)
            case ast.BinOp():
                return self.binary(node, as_int)
            case ast.Subscript(value=value, slice=index):
                return self.subscript(value, index), ATOM
            case ast.Call(func=ast.Name(id=name), args=args):
                if name in self.functions:
                    return self.own_call(name, args), ATOM
                return self.math_call(name, args, as_int)
        raise TypeError(f"{type(node).__name__} in a tick function")

    def constant(self, value: object, as_int: bool) -> tuple[str, int]:
        """Return a literal number."""
        if isinstance(value, bool):
            return (self.true if value else self.false), ATOM
        if not isinstance(value, int | float):
            raise TypeError(f"{value!r} in a tick function")
        if as_int and float(value).is_integer():
            return str(int(value)), UNARY if value < 0 else ATOM
        known = NAMED.get(abs(float(value)))
        if known and value != 0.0:
            name = self.shared_constant(known)
            return (f"-{name}", UNARY) if value < 0.0 else (name, ATOM)
        short = round(math.pi - abs(float(value)), 12)
        if 0.0 < short < 1e-6 and math.pi - short == abs(value):
            # A little less than half a turn.
            pi, less = self.shared_constant("PI"), self.number(max(short, self.short_of_pi))
            return f"{less} - {pi}" if value < 0.0 else f"{pi} - {less}", ADD
        return self.number(float(value)), UNARY if str(value).startswith("-") else ATOM

    def number(self, value: float) -> str:
        """Return a number in the shortest form that reads back the same."""
        if math.isinf(value):
            raise TypeError("an infinite number in a tick function")
        return repr(value)

    def comparison(self, node: ast.Compare) -> tuple[str, int]:
        """Return a comparison; of a chain, each link by itself."""
        values = [node.left, *node.comparators]
        links = []
        for operator, left, right in zip(node.ops, values, values[1:], strict=False):
            word = {"==": self.equal, "!=": self.unequal}.get(_COMPARED[type(operator)], _COMPARED[type(operator)])
            level = EQUAL if isinstance(operator, ast.Eq | ast.NotEq) else LESS
            # A comparison that is an operand of another one goes in brackets.
            first, second = (ATOM if isinstance(side, ast.Compare) else level + 1 for side in (left, right))
            links.append((f"{self.expression(left, first)} {word} {self.expression(right, second)}", level))
        if len(links) == 1:
            return links[0]
        return f" {self.both} ".join(text for text, _ in links), AND

    def choice(self, test: ast.expr, yes: ast.expr, no: ast.expr, as_int: bool) -> tuple[str, int]:
        """Return one of two values."""
        parts = self.expression(test, OR), self.expression(yes, OR, as_int), self.expression(no, TERNARY, as_int)
        return "{} ? {} : {}".format(*parts), TERNARY

    def is_int(self, node: ast.expr) -> bool:
        """Return whether an expression is a count."""
        return kind_of(node, self.function, self.functions) == INT

    def binary(self, node: ast.BinOp, as_int: bool) -> tuple[str, int]:
        """Return a sum, product, power or the like."""
        whole = as_int or self.is_int(node)
        match node.op:
            case ast.Pow():
                return self.power(node.left, node.right)
            case ast.Mod():
                return self.modulo(node.left, node.right, whole)
            case ast.FloorDiv():
                return self.floor_division(node.left, node.right)
        word, level = _OPERATORS[type(node.op)]
        tighter = level + (isinstance(node.op, ast.Sub | ast.Div))
        if (
            isinstance(node.op, ast.Sub)
            and isinstance(node.left, ast.Constant)
            and node.left.value == 0.0
            and not whole
        ):
            return f"{self.number(0.0)} - {self.expression(node.right, level + 1)}", level
        left = self.side(node.left, level, whole)
        right = self.side(node.right, tighter, whole)
        return f"{left} {word} {right}", level

    def side(self, node: ast.expr, least: int, whole: bool) -> str:
        """Return one side of a sum or product; a count that is divided becomes a floating-point number."""
        if not whole and self.is_int(node) and not isinstance(node, ast.Constant):
            return self.bound_real(node)
        return self.expression(node, least, whole)

    def bound_real(self, node: ast.expr) -> str:
        """Return a count converted to a floating-point number."""
        return self.expression(node, UNARY)

    def power(self, base: ast.expr, exponent: ast.expr) -> tuple[str, int]:
        """Return a power."""
        return f"pow({self.expression(base)}, {self.expression(exponent)})", ATOM

    def modulo(self, left: ast.expr, right: ast.expr, whole: bool) -> tuple[str, int]:
        """Return the remainder, with the sign of the right side."""
        if whole:
            return f"{self.expression(left, TIMES, True)} % {self.expression(right, UNARY, True)}", TIMES
        self.used.add("floor_mod")
        return f"{self.helper('floor_mod')}({self.expression(left)}, {self.expression(right)})", ATOM

    def floor_division(self, left: ast.expr, right: ast.expr) -> tuple[str, int]:
        """Return the whole part of a division of counts that are not negative."""
        return f"{self.expression(left, TIMES, True)} / {self.expression(right, UNARY, True)}", TIMES

    def subscript(self, row: ast.expr, index: ast.expr) -> str:
        """Return a number of a row."""
        return f"{self.expression(row, ATOM)}[{self.index(index)}]"

    def index(self, index: ast.expr) -> str:
        """Return an index into a row."""
        return self.expression(index, 0, True)

    def helper(self, name: str) -> str:
        """Return how a small function of ours is called."""
        return name

    def math_call(self, name: str, args: Sequence[ast.expr], as_int: bool) -> tuple[str, int]:
        """Return a call of a function of mathematics."""
        given = ", ".join(self.expression(part) for part in args)
        return f"{self.math_name(name)}({given})", ATOM

    def math_name(self, name: str) -> str:
        """Return the name of a mathematical function; note it if it is a helper of ours."""
        return name

    def own_call(self, name: str, args: Sequence[ast.expr], targets: Sequence[str] = ()) -> str:
        """Return a call of one of the functions."""
        function = self.functions[name]
        given = [self.context_argument(part) for part in self.passed(function)]
        for parameter, part in zip(function.parameters, args, strict=True):
            whole = function.types.get(parameter) == INT
            given.append(self.expression(part, 0, True) if whole else self.side(part, 0, False))
        return f"{self.function_name(name)}({', '.join([*given, *targets])})"

    def passed(self, function: Function) -> list[str]:
        """Return the structs and rows that a function is passed; tables are constants of the file."""
        return [part for part in function.context if part != "tables"]

    def context_argument(self, part: str) -> str:
        """Return how a struct or a row is passed on."""
        return self.structs.get(part, part)

    # --- statements

    def body(self, body: Sequence[ast.stmt], scopes: Scopes, indent: str) -> list[str]:
        """Return statements."""
        lines: list[str] = []
        for statement in body:
            lines += self.comments(statement, indent)
            names = scopes.before.get(id(statement), [])
            if names:
                lines += self.declaration(names, indent)
            outside = self.within
            self.within = None if isinstance(statement, ast.Assign) else statement
            lines += self.statement(statement, scopes, indent)
            self.within = outside
        return lines

    def comments(self, statement: ast.stmt, indent: str) -> list[str]:
        """Return the comments over a statement, each once in a function: the step that begins with it, and the
        kernel's own comment. A copy that was moved into a branch of another step begins no step.
        """
        step = step_of(statement)
        copies = isinstance(statement, ast.Assign) and isinstance(statement.value, ast.Name)
        if copies and self.within is not None and step_of(self.within) != step:
            step = None
        first, more, last = self.remark
        lines: list[str] = []
        for words in (step_words(step) if step else "", remark_of(statement)):
            if words and words not in self.said:
                self.said.add(words)
                lines += comment_lines(words, first, more, last, indent, WIDTH - self.shift)
        return lines

    def statement(self, statement: ast.stmt, scopes: Scopes, indent: str) -> list[str]:
        """Return one statement."""
        match statement:
            case ast.Assign():
                return self.assignment(statement, scopes, indent)
            case ast.If():
                return self.condition(statement, scopes, indent)
            case ast.For():
                return self.counting(statement, scopes, indent)
            case ast.While(test=test):
                return self.block(f"while ({self.expression(test)})", statement.body, scopes, indent)
            case ast.Return():
                return self.returned(values_of(statement), indent)
            case ast.Break():
                return [f"{indent}break{self.end}"]
            case ast.Continue():
                return [f"{indent}continue{self.end}"]
        raise TypeError(f"{type(statement).__name__} in a tick function")

    def block(self, head: str, body: Sequence[ast.stmt], scopes: Scopes, indent: str) -> list[str]:
        """Return a block under a head."""
        return [*self.wrapped(f"{head} {{", indent), *self.body(body, scopes, indent + "    "), f"{indent}}}"]

    def condition(self, statement: ast.If, scopes: Scopes, indent: str) -> list[str]:
        """Return a branch with its alternatives."""
        lines = self.block(f"if ({self.expression(statement.test)})", statement.body, scopes, indent)
        rest = statement.orelse
        while rest:
            chained = len(rest) == 1 and isinstance(rest[0], ast.If) and not scopes.before.get(id(rest[0]))
            lines.pop()
            if chained and isinstance(rest[0], ast.If):
                head = f"}} else if ({self.expression(rest[0].test)})"
                lines += self.block(head, rest[0].body, scopes, indent)
                rest = rest[0].orelse
            else:
                lines += self.block("} else", rest, scopes, indent)
                rest = []
        return lines

    def counting(self, statement: ast.For, scopes: Scopes, indent: str) -> list[str]:
        """Return a loop that counts from 0."""
        raise NotImplementedError

    def declaration(self, names: Sequence[str], indent: str) -> list[str]:
        """Return the declaration of variables that get their values later."""
        raise NotImplementedError

    def assignment(self, statement: ast.Assign, scopes: Scopes, indent: str) -> list[str]:
        """Return an assignment."""
        raise NotImplementedError

    def returned(self, values: Sequence[ast.expr], indent: str) -> list[str]:
        """Return a return."""
        raise NotImplementedError

    def target(self, target: ast.Name) -> str:
        """Return the target of an assignment."""
        return self.field(target.id) if is_field(target.id) else self.variable(target.id)

    def setting(self, target: ast.Name, value: ast.expr) -> str:
        """Return the assignment of a value to a variable: `x += y` if the value is the variable plus something."""
        start, whole = self.target(target), self.wanted_int(target)
        match value:
            case ast.BinOp(left=ast.Name(id=target.id), op=op, right=right) if type(op) in _OPERATORS:
                if not (isinstance(right, ast.Constant) and right.value == 0.0):
                    return f"{start} {_OPERATORS[type(op)][0]}= {self.side(right, 0, whole or self.is_int(value))}"
        return f"{start} = {self.side(value, 0, whole)}"

    def wanted_int(self, target: ast.Name) -> bool:
        """Return whether a variable is a count."""
        return not is_field(target.id) and self.function.types.get(target.id) == INT

    def split(self, statement: ast.Assign) -> tuple[list[ast.Name], ast.expr]:
        """Return the targets of an assignment and its value."""
        return targets_of(statement), statement.value

    def callee(self, value: ast.expr) -> Function | None:
        """Return our function that a value calls."""
        if isinstance(value, ast.Call) and isinstance(value.func, ast.Name):
            return self.functions.get(value.func.id)
        return None

    def wrapped(self, line: str, indent: str) -> list[str]:
        """Return a line, broken where it is too long."""
        return wrapped(indent + line, self.breaks)

    breaks: Callable[[int], str] = staticmethod(lambda depth: "")  # noqa: ARG005
    """What ends a line that continues, by the number of open brackets."""


def wrapped(line: str, breaks: Callable[[int], str] = lambda _: "", width: int = WIDTH) -> list[str]:
    """Return a line of source broken at commas and operators, outermost ones first, so that none is too long.

    >>> wrapped("x = first_of(one, two) + second;", width=26)
    ['x = first_of(one, two) +', '        second;']
    """
    lines: list[str] = []
    indent = line[: len(line) - len(line.lstrip())]
    open_now = 0
    while len(line) > width:
        cut, depth_at = _cut(line, width - 2)
        if cut <= len(indent):
            break
        open_now += depth_at
        lines.append(line[:cut].rstrip() + breaks(open_now))
        line = f"{indent}        {line[cut:].lstrip()}"
    return [*lines, line]


def _cut(line: str, width: int) -> tuple[int, int]:
    """Return where to break, and the number of open brackets there."""
    best, best_depth, depth = 0, 99, 0
    start = len(line) - len(line.lstrip())
    for index, letter in enumerate(line[: width + 1]):
        if letter in "([{":
            depth += 1
        elif letter in ")]}":
            depth -= 1
        elif letter == " " and index > start + 12:
            before = line[start:index].rpartition(" ")[2]
            breaks = before.endswith(",") or before in (
                "&&",
                "||",
                "+",
                "-",
                "*",
                "/",
                "and",
                "or",
                "?",
                ":",
                "else",
                "if",
            )
            # As far out as possible, and the last such place; the rest must not be longer than necessary.
            if breaks and (depth <= best_depth or best < width * 0.5):
                best, best_depth = index, depth
    return best, best_depth


def comment_lines(text: str, first: str, more: str, last: str, indent: str = "", width: int = WIDTH) -> list[str]:
    """Return a comment, wrapped; each of its lines begins a new one."""
    width -= len(indent) + max(len(first), len(more)) + len(last)
    said = re.sub(r"`([^`]*)`", r"\1", text).splitlines()
    lines: list[str] = []
    for one in said:
        lines += textwrap.wrap(one, width, subsequent_indent="  " if one.startswith("- ") else "")
    if not lines:
        return []
    made = [f"{indent}{first if index == 0 else more}{line}" for index, line in enumerate(lines)]
    made[-1] += last
    return made


__all__ = ["BOOL", "FLOAT", "INT", "Printer", "comment_lines", "wrapped"]
