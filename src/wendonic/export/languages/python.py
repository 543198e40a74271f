"""Python: a module that imports only `math`."""

import ast
import math
from collections.abc import Sequence

from wendonic.export.build import Made
from wendonic.export.corrections import Correction
from wendonic.export.kinds import INT
from wendonic.export.languages.common_section import common_section
from wendonic.export.languages.printer import ADD, ATOM, POWER, TERNARY, UNARY, Printer, comment_lines, wrapped
from wendonic.export.languages.reserved import WORDS
from wendonic.export.languages.scopes import Scopes
from wendonic.export.languages.structs import structs_of
from wendonic.export.languages.words import (
    about,
    course_words,
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
BUILT_IN = ("abs", "min", "max", "int")


class PythonPrinter(Printer):
    """Prints functions in Python."""

    language = "python"
    remark = ("# ", "# ", "")
    end = ""
    true, false = "True", "False"
    both, either, negation = "and", "or", "not "

    def breaks_at(self, depth: int) -> str:
        """Outside of brackets a line goes on behind a backslash."""
        return "" if depth else " \\"

    def wrapped(self, line: str, indent: str) -> list[str]:
        """Return a line, broken where it is too long."""
        return wrapped(indent + line, self.breaks_at)

    def number(self, value: float) -> str:
        """Return a number."""
        if math.isinf(value):
            return "math.inf" if value > 0.0 else "-math.inf"
        return repr(value)

    def bound(self, node: ast.expr, as_int: bool) -> tuple[str, int]:
        """Say `not`, which binds loosely."""
        match node:
            case ast.UnaryOp(op=ast.Not(), operand=operand):
                return f"not {self.expression(operand, 4)}", 3
        return super().bound(node, as_int)

    def choice(self, test: ast.expr, yes: ast.expr, no: ast.expr, as_int: bool) -> tuple[str, int]:
        """Return one of two values."""
        parts = self.expression(yes, 2, as_int), self.expression(test, 2), self.expression(no, 2, as_int)
        return "{} if {} else {}".format(*parts), TERNARY

    def power(self, base: ast.expr, exponent: ast.expr) -> tuple[str, int]:
        """Return a power."""
        return f"{self.expression(base, ATOM)} ** {self.expression(exponent, UNARY)}", POWER

    def modulo(self, left: ast.expr, right: ast.expr, whole: bool) -> tuple[str, int]:
        """Return the remainder, with the sign of the right side."""
        return f"{self.expression(left, ADD + 1, whole)} % {self.expression(right, UNARY, whole)}", ADD + 1

    def floor_division(self, left: ast.expr, right: ast.expr) -> tuple[str, int]:
        """Return the whole part of a division."""
        return f"{self.expression(left, ADD + 1, True)} // {self.expression(right, UNARY, True)}", ADD + 1

    def math_name(self, name: str) -> str:
        """Return what `math` calls it."""
        return f"math.{name}" if hasattr(math, name) and name not in BUILT_IN else name

    def block(self, head: str, body: Sequence[ast.stmt], scopes: Scopes, indent: str) -> list[str]:
        """Return a block under a head."""
        lines = self.body(body, scopes, indent + "    ")
        return [*self.wrapped(f"{head}:", indent), *(lines or [f"{indent}    pass"])]

    def statement(self, statement: ast.stmt, scopes: Scopes, indent: str) -> list[str]:
        """Return one statement."""
        if isinstance(statement, ast.While):
            return self.block(f"while {self.expression(statement.test)}", statement.body, scopes, indent)
        return super().statement(statement, scopes, indent)

    def condition(self, statement: ast.If, scopes: Scopes, indent: str) -> list[str]:
        """Return a branch with its alternatives."""
        lines = self.block(f"if {self.expression(statement.test)}", statement.body, scopes, indent)
        rest = statement.orelse
        while len(rest) == 1 and isinstance(rest[0], ast.If):
            lines += self.block(f"elif {self.expression(rest[0].test)}", rest[0].body, scopes, indent)
            rest = rest[0].orelse
        return lines + (self.block("else", rest, scopes, indent) if rest else [])

    def counting(self, statement: ast.For, scopes: Scopes, indent: str) -> list[str]:
        """Return a loop that counts from 0."""
        assert isinstance(statement.iter, ast.Call)
        assert isinstance(statement.target, ast.Name)
        end = statement.iter.args[0]
        count = self.expression(end, 0, True)
        if not (self.is_int(end) or isinstance(end, ast.Constant)):
            count = f"int({count})"
        return self.block(
            f"for {self.variable(statement.target.id)} in range({count})", statement.body, scopes, indent
        )

    def declaration(self, names: Sequence[str], indent: str) -> list[str]:
        """Nothing is declared."""
        return []

    def assignment(self, statement: ast.Assign, scopes: Scopes, indent: str) -> list[str]:
        """Return an assignment."""
        targets, value = self.split(statement)
        if len(targets) == 1 and targets[0].id != "_":
            return self.wrapped(self.setting(targets[0], value), indent)
        if isinstance(value, ast.Tuple):
            pairs = zip(targets, value.elts, strict=True)
            text = ", ".join(self.expression(part, 0, self.wanted_int(target)) for target, part in pairs)
        else:
            text = self.expression(value)
        start = ", ".join(self.target(target) if target.id != "_" else "_" for target in targets)
        return self.wrapped(f"{start} = {text}" if targets else text, indent)

    def returned(self, values: Sequence[ast.expr], indent: str) -> list[str]:
        """Return a return."""
        kinds = self.function.result_types
        given = ", ".join(self.expression(value, 0, kind == INT) for value, kind in zip(values, kinds, strict=False))
        return self.wrapped(f"return {given}".rstrip(), indent)

    def printed(self, function: Function) -> list[str]:
        """Return a function with its comment."""
        self.begin(function)
        given = [
            *[self.structs.get(part, part) for part in self.passed(function)],
            *map(self.variable, function.parameters),
        ]
        lines = wrapped(f"def {self.function_name(function.name)}({', '.join(given)}):")
        lines += comment_lines(function.about, '"""', "", '"""', "    ")
        body = self.body(function.body, Scopes(function), "    ")
        return [*lines, *(body or ["    pass"]), "", ""]


class PythonPackage:
    """The module of a profile in Python."""

    def __init__(self, package: Package) -> None:
        """Take what is printed."""
        self.package = package
        self.used: set[str] = set()

    def class_name(self, made: Made, kind: str) -> str:
        """Return the name of a class."""
        name = self.package.word(made.mode) if self.package.many else ""
        return "".join(part.capitalize() for part in f"{name}_{kind}".split("_"))

    def class_lines(self, made: Made, kind: str, fields: Sequence[Field], about_it: str) -> list[str]:
        """Return a class with a field for each number."""
        names = [_safe(one.name) for one in fields]
        lines = [f"class {self.class_name(made, kind)}:", f'    """{about_it}"""', ""]
        lines += (
            wrapped(f"    __slots__ = ({', '.join(repr(name) for name in names)},)")
            if names
            else ["    __slots__ = ()"]
        )
        lines += ["", "    def __init__(self):"]
        for one, name in zip(fields, names, strict=True):
            lines += comment_lines(one.about, "# ", "# ", "", "        ")
            lines.append(f"        self.{name} = {one.rest!r}")
        return [*lines, *([] if fields else ["        pass"]), "", ""]

    def mode(self, made: Made) -> list[str]:
        """Return everything of one mode."""
        program, package = made.program, self.package
        prefix = package.prefix(made)
        printer = PythonPrinter(program.functions, prefix)
        lines = [f'# Mode "{in_comment(made.mode)}".', ""]
        for number in program.numbers:
            if not number.adjustable:
                said = number_words(number)
                lines += comment_lines(said, "# ", "# ", "")
                lines.append(f"{printer.constant_name(number.name)} = {printer.number(number.value)}")
        if program.tables:
            numbers = ", ".join(map(repr, program.tables))
            lines += wrapped(f"{printer.constant_name('TABLES')} = ({numbers},)")
        lines += ["", ""]
        game = game_values(made, package.axes)
        for struct in structs_of(made, package.axes):
            lines += self.class_lines(made, *struct)
        for function in package.own_functions(made):
            lines += printer.printed(function)
        lines += [f"def {prefix}in_game_axes(state, result):"]
        lines += ['    """The results in the game\'s own axes and unit, and in degrees."""']
        printer.function = Function("", [], [], 0)
        lines += printer.body(game_statements(game), Scopes(Function("", [], [], 0)), "    ")
        lines += ["", ""]
        lines += self.public(made, printer)
        for correction in package.corrections_of(made):
            lines += self.correction(made, correction, printer)
        lines += self.door(made)
        self.used |= printer.used
        return lines

    def public(self, made: Made, printer: PythonPrinter) -> list[str]:
        """Return the functions that a game calls."""
        program = made.program
        prefix = self.package.prefix(made)
        extra = extra_parts(program)
        words = {"raw": "given", "last": "last", "next": "state", "out": "result"}
        tick = f"{printer.function_name('one_tick')}({', '.join(handed_parts(program, words))})"
        input_class, state_class, result_class = (
            self.class_name(made, kind) for kind in ("input", "state", "result")
        )
        limit = printer.constant_name(program.max_dt)
        given = ", ".join(["state", "given", *extra, "dt", "result"])
        lines = [
            f"def {prefix}step({given}):",
            '    """The state and the results after dt seconds; of 0 s nothing changes, a hitch is cut up."""',
            "    if not 0.0 < dt < math.inf:",
        ]
        for name, value in program.standing.items():
            lines.append(f"        {printer.field(name)} = {value!r}")
        lines += [
            f"        {prefix}in_game_axes(state, result)",
            "        return",
            f"    last = copied(state, {state_class}())",
            f"    if dt <= {limit}:",
            f"        {tick}",
            f"        {prefix}in_game_axes(state, result)",
            "        return",
            f"    parts = min(math.ceil(dt / {limit}), 1000)",
            f"    given = copied(given, {input_class}())",
            *[f"    given.{_safe(name)} /= parts" for name in program.shared],
            "    dt /= parts",
            f"    {tick}",
            *[f"    given.{_safe(name)} = {value!r}" for name, value in program.once.items()],
            "    for _ in range(parts - 1):",
            f"        earlier = copied(result, {result_class}())",
            f"        last = copied(state, {state_class}())",
            f"        {tick}",
        ]
        printer.function = Function("", [], [], 0)
        lines += printer.body(program.joined, Scopes(printer.function), "        ")
        return [*lines, f"    {prefix}in_game_axes(state, result)", "", ""]

    def text(self) -> str:
        """Return the module."""
        package = self.package
        body, used = common_section(package, PythonPrinter, PythonPrinter.printed, blank=2)
        self.used |= used
        for made in package.modes:
            body += self.mode(made)
        for crossing in package.crossings:
            body += self.crossing(crossing)
        head = comment_lines(about(package), '"""', "", '"""')
        lines = [*head, "", "import math", ""]
        lines += [f"{name} = {value}" for name, value in CONSTANTS.items() if name in self.used]
        if package.shown_course:
            lines += wrapped(f"COURSE = ({', '.join(repr(float(number)) for number in package.shown_course)},)")
            lines.append(f'"""{course_words(package)}"""')
        lines += [
            "",
            "",
            "def copied(source, target):",
            '    """Return `target` with the numbers of `source`."""',
            "    for name in source.__slots__:",
            "        setattr(target, name, getattr(source, name))",
            "    return target",
            "",
            "",
        ]
        return "\n".join([*lines, *body]).rstrip("\n") + "\n"

    def correction(self, made: Made, correction: Correction, printer: PythonPrinter) -> list[str]:
        """Return a function that writes a correction by the game into a state."""
        printer.function = Function("", correction.parameters, correction.body, 0)
        return [
            f"def {self.package.prefix(made)}{correction.name}({', '.join(['state', *correction.parameters])}):",
            *comment_lines(correction.about, '"""', "", '"""', "    "),
            *printer.body(correction.body, Scopes(printer.function), "    "),
            "",
            "",
        ]

    def door(self, made: Made) -> list[str]:
        """Return the functions that write reports of devices into the raw inputs."""
        prefix = self.package.prefix(made)
        printer = PythonPrinter(made.door.functions, prefix)
        lines: list[str] = []
        for function in made.door.functions:
            lines += printer.printed(function)
        for feed in made.door.feeds:
            printer.begin(feed.function)
            given = [*[printer.structs[one] for one in feed.structs], *feed.function.parameters]
            lines += [
                *wrapped(f"def {prefix}{feed.function.name}({', '.join(given)}):"),
                *comment_lines(feed.about, '"""', "", '"""', "    "),
                *printer.body(feed.function.body, Scopes(feed.function), "    "),
                "",
                "",
            ]
        self.used |= printer.used
        return lines

    def crossing(self, crossing: Crossing) -> list[str]:
        """Return a function that enters a mode."""
        made = next(made for made in self.package.modes if made.mode == crossing.new)
        function = Function("", [], crossing.body, 0)
        printer = PythonPrinter([], self.package.prefix(made))
        printer.function = function
        body = printer.body(crossing.body, Scopes(function), "    ")
        self.used |= printer.used
        name = f"enter_{self.package.word(crossing.new)}_from_{self.package.word(crossing.old)}"
        return [
            f"def {name}(last, earlier, given):",
            f'    """The state of {entered_from(crossing)}."""',
            f"    state = {self.class_name(made, 'state')}()",
            *[line.replace("input.", "given.") for line in body],
            "    return state",
            "",
            "",
        ]

    def files(self) -> dict[str, str]:
        """Return the files by name."""
        return {f"{self.package.stem}.py": self.text()}


def _safe(name: str) -> str:
    return f"{name}_" if name in WORDS["python"] else name


PythonPrinter.structs = {**Printer.structs, "raw": "given"}
