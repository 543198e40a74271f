"""Lua 5.4 and LuaJIT: a module table; the numbers of the profile sit in one table of their own."""

import ast
import math
from collections.abc import Sequence

from wendonic.compiler.trees import names_in
from wendonic.export.build import Made
from wendonic.export.corrections import Correction
from wendonic.export.kinds import BOOL, kind_of
from wendonic.export.languages.common_section import common_section
from wendonic.export.languages.printer import ADD, ATOM, TERNARY, UNARY, Printer, comment_lines, wrapped
from wendonic.export.languages.reserved import WORDS
from wendonic.export.languages.scopes import Scopes
from wendonic.export.languages.structs import results_of, structs_of
from wendonic.export.languages.words import (
    about,
    course_words,
    earlier_of,
    entered_from,
    extra_parts,
    handed_parts,
    number_words,
)
from wendonic.export.naming import in_comment
from wendonic.export.package import Crossing, Package, game_statements, game_values
from wendonic.export.program import Field, Function

CONSTANTS = {
    "PI": "math.pi",
    "TWO_PI": "2.0 * math.pi",
    "HALF_PI": "0.5 * math.pi",
    "QUARTER_PI": "0.25 * math.pi",
    "EIGHTH_PI": "0.125 * math.pi",
    "LN_2": "math.log(2.0)",
    "RAD_PER_DEG": "math.pi / 180.0",
    "DEG_PER_RAD": "180.0 / math.pi",
}
HELPERS = {
    "hypot": """-- The length of (x, y).
local function hypot(x, y)
    return math.sqrt(x * x + y * y)
end
""",
    "expm1": """-- exp(x) - 1, exact for small x (Kahan).
local function expm1(x)
    local grown = math.exp(x)
    if grown == 1.0 then
        return x
    end
    if grown - 1.0 == -1.0 then
        return -1.0
    end
    return (grown - 1.0) * x / math.log(grown)
end
""",
    "copysign": """-- A number of that size, with the sign of another one, be that zero.
local function copysign(size, sign)
    if sign < 0.0 or (sign == 0.0 and 1.0 / sign < 0.0) then
        return -math.abs(size)
    end
    return math.abs(size)
end
""",
    "atan2": """-- The angle of (x, y), from the first axis on.
local function atan2(y, x)
    return math.atan2 and math.atan2(y, x) or math.atan(y, x)
end
""",
    "trunc": """-- The whole part of a number.
local function trunc(number)
    return number >= 0.0 and math.floor(number) or math.ceil(number)
end
""",
}
OURS = {"hypot": "hypot", "expm1": "expm1", "copysign": "copysign", "atan2": "atan2", "int": "trunc"}


class LuaPrinter(Printer):
    """Prints functions in Lua."""

    language = "lua"
    remark = ("-- ", "-- ", "")
    end = ""
    both, either, negation = "and", "or", "not "
    equal, unequal = "==", "~="

    def constant_name(self, name: str) -> str:
        """Return how a number of the profile is written."""
        return f"N.{self.prefix.upper()}{name}"

    def shared_constant(self, name: str) -> str:
        """Return how a constant of mathematics is written."""
        self.used.add(name)
        return name

    def function_name(self, name: str) -> str:
        """Functions of a mode sit in one table, as Lua has no room for so many locals."""
        table = self.prefix_of(name).rstrip("_") or "F"
        return f"{table}.{name}_" if name in WORDS["lua"] else f"{table}.{name}"

    def number(self, value: float) -> str:
        """Return a number."""
        if math.isinf(value):
            return "math.huge" if value > 0.0 else "-math.huge"
        return repr(value)

    def bound(self, node: ast.expr, as_int: bool) -> tuple[str, int]:
        """Say `not`, which binds tightly."""
        match node:
            case ast.UnaryOp(op=ast.Not(), operand=operand):
                return f"not {self.expression(operand, UNARY)}", UNARY
        return super().bound(node, as_int)

    def choice(self, test: ast.expr, yes: ast.expr, no: ast.expr, as_int: bool) -> tuple[str, int]:
        """Return one of two values; numbers always count as true."""
        first, second, third = (
            self.expression(test, 3),
            self.expression(yes, 3, as_int),
            self.expression(no, 3, as_int),
        )
        if kind_of(yes, self.function, self.functions) == BOOL:
            return f"({first} and {second}) or (not ({first}) and {third})", TERNARY
        return f"{first} and {second} or {third}", TERNARY

    def power(self, base: ast.expr, exponent: ast.expr) -> tuple[str, int]:
        """Return a power."""
        return f"{self.expression(base, ATOM)} ^ {self.expression(exponent, ATOM)}", UNARY + 1

    def modulo(self, left: ast.expr, right: ast.expr, whole: bool) -> tuple[str, int]:
        """Return the remainder, with the sign of the right side."""
        return f"{self.expression(left, ADD + 1, whole)} % {self.expression(right, UNARY, whole)}", ADD + 1

    def floor_division(self, left: ast.expr, right: ast.expr) -> tuple[str, int]:
        """Return the whole part of a division."""
        return f"math.floor({self.expression(left, ADD + 1, True)} / {self.expression(right, UNARY, True)})", ATOM

    def subscript(self, row: ast.expr, index: ast.expr) -> str:
        """Return a number of a row, which begins at 1."""
        if isinstance(index, ast.Constant) and isinstance(index.value, int):
            return f"{self.expression(row, ATOM)}[{index.value + 1}]"
        return f"{self.expression(row, ATOM)}[{self.expression(index, ADD, True)} + 1]"

    def math_name(self, name: str) -> str:
        """Return what `math` calls it."""
        if name in OURS:
            self.used.add(OURS[name])
            return OURS[name]
        return f"math.{ {'fabs': 'abs', 'fmod': 'fmod'}.get(name, name) }"

    def block(self, head: str, body: Sequence[ast.stmt], scopes: Scopes, indent: str) -> list[str]:
        """Return a block under a head."""
        return [*self.wrapped(head, indent), *self.body(body, scopes, indent + "    "), f"{indent}end"]

    def statement(self, statement: ast.stmt, scopes: Scopes, indent: str) -> list[str]:
        """Return one statement."""
        match statement:
            case ast.While():
                return self.looped(f"while {self.expression(statement.test)} do", statement.body, scopes, indent)
            case ast.Continue():
                return [f"{indent}goto continue"]
        return super().statement(statement, scopes, indent)

    def looped(self, head: str, body: Sequence[ast.stmt], scopes: Scopes, indent: str) -> list[str]:
        """Return a loop; going on with it is a jump to its end."""
        inside = self.body(body, scopes, indent + "        ")
        if not any(line.strip() == "goto continue" for line in inside):
            return self.block(head, body, scopes, indent)
        # Locals of the body end before the label does.
        return [
            *self.wrapped(head, indent),
            f"{indent}    do",
            *inside,
            f"{indent}    end",
            f"{indent}    ::continue::",
            f"{indent}end",
        ]

    def condition(self, statement: ast.If, scopes: Scopes, indent: str) -> list[str]:
        """Return a branch with its alternatives."""
        lines = self.block(f"if {self.expression(statement.test)} then", statement.body, scopes, indent)
        rest = statement.orelse
        while rest:
            lines.pop()
            only = rest[0]
            if len(rest) == 1 and isinstance(only, ast.If) and not scopes.before.get(id(only)):
                lines += self.block(f"elseif {self.expression(only.test)} then", only.body, scopes, indent)
                rest = only.orelse
            else:
                lines += self.block("else", rest, scopes, indent)
                rest = []
        return lines

    def counting(self, statement: ast.For, scopes: Scopes, indent: str) -> list[str]:
        """Return a loop that counts from 0."""
        assert isinstance(statement.iter, ast.Call)
        assert isinstance(statement.target, ast.Name)
        end = statement.iter.args[0]
        read = {part.id for part in names_in(statement.body)}
        name = self.variable(statement.target.id) if statement.target.id in read else "_"
        if isinstance(end, ast.Constant) and isinstance(end.value, int):
            last = str(end.value - 1)
        else:
            last = f"{self.expression(end, ADD, True)} - 1"
        return self.looped(f"for {name} = 0, {last} do", statement.body, scopes, indent)

    def declaration(self, names: Sequence[str], indent: str) -> list[str]:
        """Return the declaration of variables that get their values later."""
        return self.wrapped(f"local {', '.join(map(self.variable, names))}", indent)

    def assignment(self, statement: ast.Assign, scopes: Scopes, indent: str) -> list[str]:
        """Return an assignment."""
        targets, value = self.split(statement)
        first = scopes.first.get(id(statement), [])
        if isinstance(value, ast.Tuple):
            text = ", ".join(self.expression(part) for part in value.elts)
        else:
            text = self.expression(value)
        if not targets:
            return self.wrapped(text, indent)
        while targets[-1].id == "_" and len(targets) > 1:
            targets = targets[:-1]
        if all(target.id == "_" for target in targets):
            return self.wrapped(text, indent)
        lines: list[str] = []
        word = ""
        if first and all(target.id in first or target.id == "_" for target in targets):
            word = "local "
        else:
            more = [*first, *(["_"] if any(target.id == "_" for target in targets) else [])]
            lines = (
                [f"{indent}local {', '.join(name if name == '_' else self.variable(name) for name in more)}"]
                if more
                else []
            )
        names = ", ".join("_" if target.id == "_" else self.target(target) for target in targets)
        return lines + self.wrapped(f"{word}{names} = {text}", indent)

    def body(self, body: Sequence[ast.stmt], scopes: Scopes, indent: str) -> list[str]:
        """Return statements; a return in the middle of a block is none of ours."""
        return super().body(body, scopes, indent)

    def returned(self, values: Sequence[ast.expr], indent: str) -> list[str]:
        """Return a return."""
        return self.wrapped(f"return {', '.join(self.expression(value) for value in values)}".rstrip(), indent)

    def printed(self, function: Function) -> list[str]:
        """Return a function under its comment."""
        self.begin(function)
        given = [self.structs.get(part, part) for part in self.passed(function)]
        given += map(self.variable, function.parameters)
        lines = comment_lines(function.about, "-- ", "-- ", "")
        lines += self.wrapped(f"function {self.function_name(function.name)}({', '.join(given)})", "")
        return [*lines, *self.body(function.body, Scopes(function), "    "), "end", ""]


class LuaPackage:
    """The module of a profile in Lua."""

    def __init__(self, package: Package) -> None:
        """Take what is printed."""
        self.package = package
        self.used: set[str] = set()

    def maker(self, made: Made, kind: str) -> str:
        """Return the name of the function that makes a struct at rest."""
        return f"M.new_{self.package.prefix(made)}{kind}"

    def maker_lines(self, made: Made, kind: str, fields: Sequence[Field], about_it: str) -> list[str]:
        """Return a function that makes a struct at rest."""
        lines = [f"-- {about_it}", f"function {self.maker(made, kind)}()", "    return {"]
        for one in fields:
            lines += comment_lines(one.about, "-- ", "-- ", "", "        ")
            lines.append(f"        {_safe(one.name)} = {_number(one.rest)},")
        return [*lines, "    }", "end", ""]

    def mode(self, made: Made) -> list[str]:
        """Return everything of one mode."""
        program, package = made.program, self.package
        prefix = package.prefix(made)
        printer = LuaPrinter(program.functions, prefix)
        game = game_values(made, package.axes)
        lines = [f'-- Mode "{in_comment(made.mode)}".', ""]
        for struct in structs_of(made, package.axes):
            lines += self.maker_lines(made, *struct)
        table = prefix.rstrip("_") or "F"
        lines += [f"local {table} = {{}}", ""]
        for function in package.own_functions(made):
            lines += printer.printed(function)
        lines += [
            "-- The results in the game's own axes and unit, and in degrees.",
            f"function {table}.in_game_axes(state, result)",
        ]
        printer.function = Function("", [], [], 0)
        lines += printer.body(game_statements(game), Scopes(Function("", [], [], 0)), "    ")
        lines += ["end", "", *self.public(made, printer, table)]
        for correction in package.corrections_of(made):
            lines += self.correction(made, correction, printer)
        lines += self.door(made)
        self.used |= printer.used
        return lines

    def copier(self, made: Made, table: str, kind: str, fields: Sequence[Field]) -> list[str]:
        """Return a function that copies a struct into another one, and a struct for it to copy into."""
        lines = [f"function {table}.copy_{kind}(source, target)"]
        lines += [f"    target.{_safe(one.name)} = source.{_safe(one.name)}" for one in fields]
        return [*lines, "end", "", f"{table}.kept_{kind} = {self.maker(made, kind)}()", ""]

    def public(self, made: Made, printer: LuaPrinter, table: str) -> list[str]:
        """Return the functions that a game calls."""
        program, prefix = made.program, self.package.prefix(made)
        results = results_of(made, self.package.axes)
        copiers = [
            *self.copier(made, table, "state", program.state),
            *self.copier(made, table, "input", program.inputs),
            *(self.copier(made, table, "result", results) if earlier_of(program) else []),
        ]
        extra = extra_parts(program)
        words = {"raw": "input", "last": "last", "next": "state", "out": "result"}
        tick = f"{printer.function_name('one_tick')}({', '.join(handed_parts(program, words))})"
        limit = printer.constant_name(program.max_dt)
        lines = [
            *copiers,
            "-- The state and the results after dt seconds; 0 changes nothing, a hitch is cut into equal parts.",
            f"function M.{prefix}tick({', '.join(['state', 'input', *extra, 'dt', 'result'])})",
            f"    local last = {table}.kept_state",
            f"    {table}.copy_state(state, last)",
            "    if not (dt > 0.0 and dt < math.huge) then",
            *[f"        {printer.field(name)} = {_number(value)}" for name, value in program.standing.items()],
            f"        {table}.in_game_axes(state, result)",
            "        return",
            "    end",
            f"    if dt <= {limit} then",
            f"        {tick}",
        ]
        lines += [
            "    else",
            f"        local parts = math.min(math.ceil(dt / {limit}), 1000)",
            f"        {table}.copy_input(input, {table}.kept_input)",
            f"        input = {table}.kept_input",
            *[f"        input.{_safe(name)} = input.{_safe(name)} / parts" for name in program.shared],
            "        dt = dt / parts",
            f"        {tick}",
            *[f"        input.{_safe(name)} = {_number(value)}" for name, value in program.once.items()],
            "        for _ = 1, parts - 1 do",
            f"            local earlier = {table}.kept_result",
            f"            {table}.copy_result(result, earlier)",
            f"            {table}.copy_state(state, last)",
            f"            {tick}",
            *printer.body(program.joined, Scopes(printer.function), "            "),
            "        end",
        ]
        if not earlier_of(program):
            lines = [line for line in lines if "earlier" not in line]
        return [*lines, "    end", f"    {table}.in_game_axes(state, result)", "end", ""]

    def correction(self, made: Made, correction: Correction, printer: LuaPrinter) -> list[str]:
        """Return a function that writes a correction by the game into a state."""
        printer.function = Function("", correction.parameters, correction.body, 0)
        given = [f"_{name}" if name in correction.unread else name for name in correction.parameters]
        return [
            *comment_lines(correction.about, "-- ", "-- ", ""),
            f"function M.{self.package.prefix(made)}{correction.name}({', '.join(['state', *given])})",
            *printer.body(correction.body, Scopes(printer.function), "    "),
            "end",
            "",
        ]

    def door(self, made: Made) -> list[str]:
        """Return the functions that write reports of devices into the raw inputs."""
        prefix = self.package.prefix(made)
        printer = LuaPrinter(made.door.functions, prefix)
        lines: list[str] = []
        for function in made.door.functions:
            lines += printer.printed(function)
        for feed in made.door.feeds:
            printer.begin(feed.function)
            given = [f"_{printer.structs[one]}" if one in feed.idle else printer.structs[one] for one in feed.structs]
            given += [f"_{name}" if name in feed.unread else name for name in feed.function.parameters]
            lines += [
                *comment_lines(feed.about, "-- ", "-- ", ""),
                *wrapped(f"function M.{prefix}{feed.function.name}({', '.join(given)})"),
                *printer.body(feed.function.body, Scopes(feed.function), "    "),
                "end",
                "",
            ]
        self.used |= printer.used
        return lines

    def crossing(self, crossing: Crossing) -> list[str]:
        """Return a function that enters a mode."""
        made = next(made for made in self.package.modes if made.mode == crossing.new)
        function = Function("", [], crossing.body, 0)
        printer = LuaPrinter([], self.package.prefix(made))
        printer.function = function
        body = printer.body(crossing.body, Scopes(function), "    ")
        self.used |= printer.used
        used = {name: any(f"{name}." in line for line in body) for name in ("last", "earlier", "input")}
        given = ", ".join(name if used_here else f"_{name}" for name, used_here in used.items())
        return [
            f"-- The state of {entered_from(crossing)}.",
            f"function M.enter_{self.package.word(crossing.new)}_from_{self.package.word(crossing.old)}({given})",
            f"    local state = {self.maker(made, 'state')}()",
            *body,
            "    return state",
            "end",
            "",
        ]

    def numbers(self) -> list[str]:
        """Return the table of the profile's numbers."""
        lines = ["-- Numbers of the profile, each with its place in it.", "local N = {"]
        for made in self.package.modes:
            prefix = self.package.prefix(made).upper()
            for number in made.program.numbers:
                if not number.adjustable:
                    lines += comment_lines(number_words(number), "-- ", "-- ", "", "    ")
                    lines.append(f"    {prefix}{number.name} = {_number(number.value)},")
            if made.program.tables:
                numbers = ", ".join(map(_number, made.program.tables))
                lines += wrapped(f"    {prefix}TABLES = {{{numbers}}},")
        return [*lines, "}", ""]

    def text(self) -> str:
        """Return the module."""
        package = self.package
        body, used = common_section(package, LuaPrinter, LuaPrinter.printed)
        self.used |= used
        if body:
            body = ["local F = {}", "", *body]
        for made in package.modes:
            body += self.mode(made)
        for crossing in package.crossings:
            body += self.crossing(crossing)
        lines = [*comment_lines(about(package), "-- ", "-- ", ""), "", "local M = {}", ""]
        lines += [
            "-- LuaJIT's compiler gives up on so many branches again and again; its interpreter is quicker.",
            "if jit then",
            "    jit.off(true, true)",
            "end",
            "",
        ]
        lines += [f"local {name} = {value}" for name, value in CONSTANTS.items() if name in self.used]
        lines += ["", *self.numbers()]
        if package.shown_course:
            lines.append(f"-- {course_words(package)}")
            lines += wrapped(f"M.COURSE = {{{', '.join(_number(float(one)) for one in package.shown_course)}}}")
            lines.append("")
        lines += [text for name, text in HELPERS.items() if name in self.used]
        return "\n".join([*lines, *body, "return M"]) + "\n"

    def files(self) -> dict[str, str]:
        """Return the files by name."""
        return {f"{self.package.stem}.lua": self.text()}


def _safe(name: str) -> str:
    return f"{name}_" if name in WORDS["lua"] else name


def _number(value: float) -> str:
    if math.isinf(value):
        return "math.huge" if value > 0.0 else "-math.huge"
    return repr(value)
