"""C#: one class in one file, nothing unsafe, nothing allocated while it ticks."""

import ast
import math
from collections.abc import Sequence

from wendonic.export.build import Made
from wendonic.export.corrections import Correction
from wendonic.export.kinds import BOOL, INT
from wendonic.export.languages.braces import joined_lines
from wendonic.export.languages.common_section import common_section
from wendonic.export.languages.javascript import camel
from wendonic.export.languages.out_arguments import OutArgumentPrinter, straight_results
from wendonic.export.languages.printer import ATOM, UNARY, WIDTH, comment_lines, wrapped
from wendonic.export.languages.reserved import WORDS
from wendonic.export.languages.scopes import Scopes
from wendonic.export.languages.structs import structs_of
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
    "PI": "Math.PI",
    "TWO_PI": "2.0 * Math.PI",
    "HALF_PI": "0.5 * Math.PI",
    "QUARTER_PI": "0.25 * Math.PI",
    "EIGHTH_PI": "0.125 * Math.PI",
    "LN_2": "0.6931471805599453",
    "RAD_PER_DEG": "Math.PI / 180.0",
    "DEG_PER_RAD": "180.0 / Math.PI",
}
HELPERS = {
    "Hypot": """/// <summary>The length of (x, y).</summary>
private static double Hypot(double x, double y)
{
    return Math.Sqrt(x * x + y * y);
}
""",
    "Expm1": """/// <summary>exp(x) - 1, exact for small x (Kahan).</summary>
private static double Expm1(double x)
{
    double grown = Math.Exp(x);
    if (grown == 1.0)
        return x;
    if (grown - 1.0 == -1.0)
        return -1.0;
    return (grown - 1.0) * x / Math.Log(grown);
}
""",
    "CopySign": """/// <summary>A number of that size, with the sign of another one, be that zero.</summary>
private static double CopySign(double size, double sign)
{
    return sign < 0.0 || (sign == 0.0 && 1.0 / sign < 0.0) ? -Math.Abs(size) : Math.Abs(size);
}
""",
    "PlainZero": """/// <summary>The same number, and zero without a sign: Mono leaves out what adds 0.0.</summary>
private static double PlainZero(double x)
{
    return x == 0.0 ? 0.0 : x;
}
""",
    "FloorMod": """/// <summary>What is left over of a division, with the sign of whole.</summary>
private static double FloorMod(double number, double whole)
{
    double left = number % whole;
    return left != 0.0 && (left < 0.0) != (whole < 0.0) ? left + whole : left;
}
""",
}
OURS = {"hypot": "Hypot", "expm1": "Expm1", "copysign": "CopySign"}
MATH = {
    "abs": "Abs",
    "fabs": "Abs",
    "min": "Min",
    "max": "Max",
    "sqrt": "Sqrt",
    "sin": "Sin",
    "cos": "Cos",
    "tan": "Tan",
    "atan2": "Atan2",
    "atan": "Atan",
    "asin": "Asin",
    "acos": "Acos",
    "exp": "Exp",
    "log": "Log",
    "pow": "Pow",
    "floor": "Floor",
    "ceil": "Ceiling",
}


def pascal(name: str) -> str:
    """Return a name as C# writes methods and fields.

    >>> pascal("jump_held_s"), pascal("WALK_ACCEL_M_S2")
    ('JumpHeldS', 'WalkAccelMS2')
    """
    found = camel(name.lower())
    return found[0].upper() + found[1:]


class CSharpPrinter(OutArgumentPrinter):
    """Prints functions in C#."""

    language = "csharp"
    shift = 4

    def variable(self, name: str) -> str:
        """Return how a variable is written."""
        if name in self.straight:
            return self.result_target(self.straight[name])
        found = camel(name)
        return f"{found}_" if found in WORDS[self.language] or found in self.structs.values() else found

    def field_name(self, name: str) -> str:
        """Return how a field is called."""
        return pascal(name)

    def function_name(self, name: str) -> str:
        """Return how a method is called."""
        return pascal(f"{self.prefix_of(name)}{name}")

    def constant_name(self, name: str) -> str:
        """Return how a number of the profile is written."""
        return pascal(f"{self.prefix}{name}")

    def shared_constant(self, name: str) -> str:
        """Return how a constant of mathematics is written."""
        self.used.add(name)
        return pascal(name)

    def number(self, value: float) -> str:
        """Return a number."""
        return _number(value)

    def wrapped(self, line: str, indent: str) -> list[str]:
        """Return a line, broken where it is too long: all of it is inside a class."""
        return wrapped(indent + line, width=WIDTH - 4)

    def binary(self, node: ast.BinOp, as_int: bool) -> tuple[str, int]:
        """Return a sum, product, power or the like."""
        if isinstance(node.op, ast.Add) and not as_int and not self.is_int(node):
            for side, other in ((node.left, node.right), (node.right, node.left)):
                if isinstance(side, ast.Constant) and side.value == 0.0:
                    return f"{self.helper('plain_zero')}({self.expression(other)})", ATOM
        return super().binary(node, as_int)

    def power(self, base: ast.expr, exponent: ast.expr) -> tuple[str, int]:
        """Return a power."""
        return f"Math.Pow({self.expression(base)}, {self.expression(exponent)})", ATOM

    def helper(self, name: str) -> str:
        """Return how a small function of ours is called."""
        self.used.add(pascal(name))
        return pascal(name)

    def math_call(self, name: str, args: Sequence[ast.expr], as_int: bool) -> tuple[str, int]:
        """Return a call of Math, or a cast."""
        if name == "int":
            return f"(int){self.expression(args[0], UNARY)}", UNARY
        if name in ("min", "max") and len(args) > 2:
            first = ast.Call(ast.Name(name, ast.Load()), list(args[:-1]), [])
            return self.math_call(name, [first, args[-1]], as_int)
        return super().math_call(name, args, as_int)

    def math_name(self, name: str) -> str:
        """Return what Math calls it."""
        if name in OURS:
            self.used.add(OURS[name])
            return OURS[name]
        return f"Math.{MATH[name]}"

    def kind(self, kind: str) -> str:
        """Return the name of a type."""
        return _type(kind)

    def out_argument(self, target: str) -> str:
        """Return a target as an out parameter."""
        return f"out {target}"

    def result_target(self, result: str) -> str:
        """Return what a result is written to."""
        return f"{camel(result)}Out"

    def own_name(self, name: str) -> str:
        """Return a name of ours."""
        return camel(name)

    def declaration(self, names: Sequence[str], indent: str) -> list[str]:
        """Return the declaration of variables that get their values later."""
        lines: list[str] = []
        for kind, rest in (("bool", "false"), ("int", "0"), ("double", "0.0")):
            found = [f"{self.variable(name)} = {rest}" for name in names if self.type_of(name) == kind]
            if found:
                lines += self.wrapped(f"{kind} {', '.join(found)};", indent)
        return lines

    def printed(self, function: Function, types: dict[str, str]) -> list[str]:
        """Return a method under its comment."""
        self.begin(function)
        self.unused = 0
        self.straight = straight_results(function, list(self.functions.values()))
        lines = [
            f"/// {line}" for line in comment_lines(_escaped(function.about), "<summary>", "", "</summary>", "", 108)
        ]
        given = [f"{types[part]} {self.structs.get(part, part)}" for part in self.passed(function)]
        given += [f"{self.type_of(name)} {self.variable(name)}" for name in function.parameters]
        kind = "void"
        if function.results == 1:
            kind = _type(function.result_types[0])
        else:
            pairs = zip(function.result_types, function.result_names, strict=True)
            given += [f"out {_type(one)} {camel(name)}Out" for one, name in pairs]
        lines += self.wrapped(f"private static {kind} {self.function_name(function.name)}({', '.join(given)})", "")
        scopes = Scopes(function, self.straight)
        body = joined_lines(self.body(function.body, scopes, "    "), WIDTH - 4)
        self.straight = {}
        if function.results != 1 and body and body[-1] == "    return;":
            body.pop()
        return [*lines, "{", *body, "}", ""]


class CSharpPackage:
    """The file of a profile in C#."""

    def __init__(self, package: Package) -> None:
        """Take what is printed."""
        self.package = package
        self.used: set[str] = set()

    def class_name(self, made: Made, kind: str) -> str:
        """Return the name of a class."""
        name = self.package.word(made.mode) if self.package.many or kind == "body" else ""
        return pascal(f"{name}_{kind}") if name else pascal(kind)

    def class_lines(self, made: Made, kind: str, fields: Sequence[Field], about_it: str) -> list[str]:
        """Return a class with a field for each number."""
        name = self.class_name(made, kind)
        lines = [f"/// <summary>{_escaped(about_it)}</summary>", f"public sealed class {name}", "{"]
        for one in fields:
            lines += [
                f"    /// {line}"
                for line in comment_lines(_escaped(one.about), "<summary>", "", "</summary>", "", 104)
            ]
            rest = f" = {_number(one.rest)}" if one.rest else ""
            lines.append(f"    public double {pascal(one.name)}{rest};")
        lines += ["", f"    internal void CopyTo({name} target)", "    {"]
        lines += [f"        target.{pascal(one.name)} = {pascal(one.name)};" for one in fields]
        return [*lines, "    }", "}", ""]

    def mode(self, made: Made) -> list[str]:
        """Return everything of one mode."""
        program, package = made.program, self.package
        prefix = package.prefix(made)
        printer = CSharpPrinter(program.functions, prefix)
        types = {
            "raw": self.class_name(made, "input"),
            "last": self.class_name(made, "state"),
            "next": self.class_name(made, "state"),
            "out": self.class_name(made, "result"),
            "settings": self.class_name(made, "settings"),
            "course": "double[]",
        }
        lines: list[str] = []
        for number in program.numbers:
            if not number.adjustable:
                said = _escaped(number_words(number))
                lines += [f"/// {line}" for line in comment_lines(said, "<summary>", "", "</summary>", "", 108)]
                lines.append(f"public const double {printer.constant_name(number.name)} = {_number(number.value)};")
        if program.tables:
            numbers = ", ".join(map(_number, program.tables))
            lines += wrapped(f"private static readonly double[] {printer.constant_name('TABLES')} = {{{numbers}}};")
        lines.append("")
        game = game_values(made, package.axes)
        for struct in structs_of(made, package.axes):
            lines += self.class_lines(made, *struct)
        for function in package.own_functions(made):
            lines += printer.printed(function, types)
        lines += [
            "/// <summary>The results in the game's own axes and unit, and in degrees.</summary>",
            f"private static void {pascal(f'{prefix}in_game_axes')}({types['next']} state, {types['out']} result)",
            "{",
        ]
        printer.function = Function("", [], [], 0)
        lines += printer.body(game_statements(game), Scopes(Function("", [], [], 0)), "    ")
        lines += ["}", "", *self.body_class(made, printer, types), *self.door(made)]
        self.used |= printer.used
        return lines

    def body_class(self, made: Made, printer: CSharpPrinter, types: dict[str, str]) -> list[str]:
        """Return the class that a game uses."""
        program, prefix = made.program, self.package.prefix(made)
        extra = extra_parts(program)
        words = {"last": "last", "next": "State", "out": "Result"}

        def tick(raw: str) -> str:
            return f"{printer.function_name('one_tick')}({', '.join(handed_parts(program, {**words, 'raw': raw}))});"

        limit = printer.constant_name(program.max_dt)
        given = ", ".join([f"{types['raw']} input", *[f"{types[part]} {part}" for part in extra], "double dt"])
        printer.structs = {
            **printer.structs,
            "before": "last",
            "earlier": "earlier",
            "next": "State",
            "out": "Result",
        }
        lines = [
            f'/// <summary>A body in mode "{_escaped(in_comment(made.mode))}".</summary>',
            f"public sealed class {self.class_name(made, 'body')}",
            "{",
            "    /// <summary>What is carried from tick to tick; the game may set it.</summary>",
            f"    public readonly {types['next']} State = new {types['next']}();",
            "    /// <summary>What the last tick reported.</summary>",
            f"    public readonly {types['out']} Result = new {types['out']}();",
            f"    private readonly {types['next']} last = new {types['next']}();",
        ]
        lines.append(f"    private readonly {types['raw']} part = new {types['raw']}();")
        if earlier_of(program):
            lines.append(f"    private readonly {types['out']} earlier = new {types['out']}();")
        lines += [
            "",
            "    /// <summary>The state and the results after dt seconds; 0 changes nothing, a hitch is cut into",
            "    /// equal parts.</summary>",
            f"    public void Tick({given})",
            "    {",
            "        State.CopyTo(last);",
            "        if (!(dt > 0.0 && dt < double.PositiveInfinity)) {",
            *joined_lines(
                [
                    f"            {printer.field(name)} = {_number(value)};"
                    for name, value in program.standing.items()
                ],
                WIDTH - 8,
            ),
            f"        }} else if (dt <= {limit}) {{",
            f"            {tick('input')}",
        ]
        lines += [
            "        } else {",
            f"            double parts = Math.Min(Math.Ceiling(dt / {limit}), 1000.0);",
            "            input.CopyTo(part);",
            *[f"            part.{pascal(name)} /= parts;" for name in program.shared],
            "            dt /= parts;",
            f"            {tick('part')}",
            *joined_lines(
                [f"            part.{pascal(name)} = {_number(value)};" for name, value in program.once.items()],
                WIDTH - 8,
            ),
            "            for (int done = 1; done < parts; done++) {",
            *(["                Result.CopyTo(earlier);"] if earlier_of(program) else []),
            "                State.CopyTo(last);",
            f"                {tick('part')}",
            *printer.body(program.joined, Scopes(printer.function), "                "),
            "            }",
        ]
        printer.structs = CSharpPrinter.structs
        axes = f"{pascal(f'{prefix}in_game_axes')}(State, Result);"
        lines += ["        }", f"        {axes}", "    }"]
        for correction in self.package.corrections_of(made):
            lines += self.correction(correction, printer)
        return [*lines, "}", ""]

    def correction(self, correction: Correction, printer: CSharpPrinter) -> list[str]:
        """Return a method that writes a correction by the game into a body's state."""
        printer.function = Function("", correction.parameters, correction.body, 0)
        printer.structs = {**CSharpPrinter.structs, "next": "State"}
        body = printer.body(correction.body, Scopes(printer.function), "        ")
        printer.structs = CSharpPrinter.structs
        given = ", ".join(f"double {name}" for name in correction.parameters)
        return [
            "",
            *[
                f"    /// {line}"
                for line in comment_lines(_escaped(correction.about), "<summary>", "", "</summary>", "", 104)
            ],
            f"    public void {pascal(correction.name)}({given})",
            "    {",
            *body,
            "    }",
        ]

    def door(self, made: Made) -> list[str]:
        """Return the methods that write reports of devices into the raw inputs."""
        prefix = self.package.prefix(made)
        printer = CSharpPrinter(made.door.functions, prefix)
        types = {"raw": self.class_name(made, "input"), "finger": self.class_name(made, "finger")}
        lines: list[str] = []
        for function in made.door.functions:
            lines += printer.printed(function, types)
        for feed in made.door.feeds:
            printer.begin(feed.function)
            given = [f"{types[one]} {printer.structs[one]}" for one in feed.structs]
            given += [f"double {printer.variable(name)}" for name in feed.function.parameters]
            lines += [
                *[
                    f"/// {line}"
                    for line in comment_lines(_escaped(feed.about), "<summary>", "", "</summary>", "", 108)
                ],
                *printer.wrapped(
                    f"public static void {pascal(f'{prefix}{feed.function.name}')}({', '.join(given)})", ""
                ),
                "{",
                *joined_lines(printer.body(feed.function.body, Scopes(feed.function), "    "), WIDTH - 4),
                "}",
                "",
            ]
        self.used |= printer.used
        return lines

    def crossing(self, crossing: Crossing) -> list[str]:
        """Return a method that enters a mode."""
        by_mode = {made.mode: made for made in self.package.modes}
        old, new = by_mode[crossing.old], by_mode[crossing.new]
        function = Function("", [], crossing.body, 0)
        printer = CSharpPrinter([], self.package.prefix(new))
        printer.function = function
        body = printer.body(crossing.body, Scopes(function), "    ")
        self.used |= printer.used
        name = pascal(f"enter_{self.package.word(crossing.new)}_from_{self.package.word(crossing.old)}")
        new_class, old_class = self.class_name(new, "body"), self.class_name(old, "body")
        return [
            f"/// <summary>The body in {_escaped(entered_from(crossing))} with its last raw inputs.</summary>",
            f"public static {new_class} {name}({old_class} body, {self.class_name(old, 'input')} input)",
            "{",
            f"    {new_class} entered = new {new_class}();",
            f"    {self.class_name(new, 'state')} state = entered.State;",
            *(
                [f"    {self.class_name(old, 'state')} last = body.State;"]
                if any("last." in one for one in body)
                else []
            ),
            *(
                [f"    {self.class_name(old, 'result')} earlier = body.Result;"]
                if any("earlier." in one for one in body)
                else []
            ),
            *body,
            "    return entered;",
            "}",
            "",
        ]

    def text(self) -> str:
        """Return the file."""
        package = self.package
        body, used = common_section(package, CSharpPrinter, lambda one, it: one.printed(it, {"course": "double[]"}))
        self.used |= used
        for made in package.modes:
            body += self.mode(made)
        for crossing in package.crossings:
            body += self.crossing(crossing)
        inside = [
            f"private const double {pascal(name)} = {value};"
            for name, value in CONSTANTS.items()
            if name in self.used
        ]
        if package.shown_course:
            numbers = ", ".join(_number(float(one)) for one in package.shown_course)
            inside += comment_lines(course_words(package), "/// <summary>", "/// ", "</summary>")
            inside += wrapped(f"public static readonly double[] Course = {{{numbers}}};")
        inside.append("")
        for name, text in HELPERS.items():
            if name in self.used:
                inside += [*text.splitlines(), ""]
        inside += body
        lines = [
            *comment_lines(about(package), "// ", "// ", ""),
            "using System;",
            "",
            f"/// <summary>{_escaped(in_comment(package.title))}.</summary>",
            f"public static class {pascal(package.stem)}",
            "{",
        ]
        for line in inside:
            lines += wrapped(f"    {line}" if line else "")
        while lines[-1] == "":
            lines.pop()
        return "\n".join([*lines, "}"]) + "\n"

    def files(self) -> dict[str, str]:
        """Return the files by name."""
        return {f"{pascal(self.package.stem)}.cs": self.text()}


def _escaped(text: str) -> str:
    return text.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;")


def _type(kind: str) -> str:
    return {BOOL: "bool", INT: "int"}.get(kind, "double")


def _number(value: float) -> str:
    if math.isinf(value):
        return "double.PositiveInfinity" if value > 0.0 else "double.NegativeInfinity"
    return repr(value)
