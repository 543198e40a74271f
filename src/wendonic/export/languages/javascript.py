"""JavaScript: an ES module with JSDoc types."""

import ast
import math
import re
from collections.abc import Sequence

from wendonic.export.build import Made
from wendonic.export.corrections import Correction
from wendonic.export.kinds import BOOL
from wendonic.export.languages.braces import BracePrinter, joined_lines
from wendonic.export.languages.common_section import common_section
from wendonic.export.languages.printer import ATOM, UNARY, comment_lines, wrapped
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
    "PI": "Math.PI",
    "TWO_PI": "2.0 * Math.PI",
    "HALF_PI": "0.5 * Math.PI",
    "QUARTER_PI": "0.25 * Math.PI",
    "EIGHTH_PI": "0.125 * Math.PI",
    "LN_2": "Math.LN2",
    "RAD_PER_DEG": "Math.PI / 180.0",
    "DEG_PER_RAD": "180.0 / Math.PI",
}
HELPERS = {
    "hypot": """/** The length of (x, y). Math.hypot takes any number of them, and ten times as long.
 * @param {number} x
 * @param {number} y
 */
function hypot(x, y) {
    return Math.sqrt(x * x + y * y);
}
""",
    "copysign": """/** A number of that size, with the sign of another one, be that zero.
 * @param {number} size
 * @param {number} sign
 */
function copysign(size, sign) {
    return sign < 0.0 || Object.is(sign, -0.0) ? -Math.abs(size) : Math.abs(size);
}
""",
    "fmod": """/** What is left over of a division, with the sign of the number.
 * @param {number} number
 * @param {number} whole
 */
function fmod(number, whole) {
    return number % whole;
}
""",
    "floorMod": """/** What is left over of a division, with the sign of `whole`.
 * @param {number} number
 * @param {number} whole
 */
function floorMod(number, whole) {
    const left = number % whole;
    return left !== 0.0 && left < 0.0 !== whole < 0.0 ? left + whole : left;
}
""",
}


def camel(name: str) -> str:
    """Return a name as JavaScript writes it.

    >>> camel("jump_held_s"), camel("WALK_SPEED"), camel("_"), camel("style_output_2")
    ('jumpHeldS', 'WALK_SPEED', '_', 'styleOutput2')
    """
    if name.isupper() or name == "_":
        return name
    return re.sub(r"_+([a-z0-9])", lambda found: found[1].upper(), name)


class JavaScriptPrinter(BracePrinter):
    """Prints functions in JavaScript."""

    language = "javascript"
    equal, unequal = "===", "!=="
    calls = 0
    """How many calls of this function give several numbers."""

    def variable(self, name: str) -> str:
        """Return how a variable is written."""
        found = camel(name)
        return f"{found}_" if found in WORDS[self.language] or found in self.structs.values() else found

    def field_name(self, name: str) -> str:
        """Return how a field is called."""
        return camel(name)

    def function_name(self, name: str) -> str:
        """Return how a function is called."""
        found = camel(f"{self.prefix_of(name)}{name}")
        return f"{found}_" if found in WORDS[self.language] else found

    def number(self, value: float) -> str:
        """Return a number."""
        if math.isinf(value):
            return "Infinity" if value > 0.0 else "-Infinity"
        return repr(value)

    def power(self, base: ast.expr, exponent: ast.expr) -> tuple[str, int]:
        """Return a power; Math.pow takes several times as long as what it stands for."""
        if isinstance(base, ast.Constant) and base.value == 0.5:
            half = ast.BinOp(ast.UnaryOp(ast.USub(), ast.Constant(math.log(2.0))), ast.Mult(), exponent)
            return f"Math.exp({self.expression(half)})", ATOM
        raised = ast.BinOp(exponent, ast.Mult(), ast.Call(ast.Name("log", ast.Load()), [base], []))
        return f"Math.exp({self.expression(raised)})", ATOM

    def floor_division(self, left: ast.expr, right: ast.expr) -> tuple[str, int]:
        """Return the whole part of a division."""
        return f"Math.floor({self.expression(left, 7, True)} / {self.expression(right, UNARY, True)})", ATOM

    def helper(self, name: str) -> str:
        """Return how a small function of ours is called."""
        self.used.add(camel(name))
        return camel(name)

    def math_name(self, name: str) -> str:
        """Return what Math calls it."""
        if name in ("hypot", "copysign", "fmod"):
            self.used.add(name)
            return name
        return f"Math.{ {'int': 'trunc', 'fabs': 'abs'}.get(name, name) }"

    def type_of(self, name: str) -> str:
        """Return a variable's type."""
        return "boolean" if self.function.types.get(name) == BOOL else "number"

    def counting_head(self, name: str, count: str) -> str:
        """Return the head of a loop that counts from 0."""
        return f"for (let {name} = 0; {name} < {count}; {name}++)"

    def declaration(self, names: Sequence[str], indent: str) -> list[str]:
        """Return the declaration of variables that get their values later."""
        return self.wrapped(f"let {', '.join(map(self.declared, names))};", indent)

    def declared(self, name: str) -> str:
        """Return a variable with a first value of its type."""
        return f"{self.variable(name)} = {'false' if self.type_of(name) == 'boolean' else '0.0'}"

    def assignment(self, statement: ast.Assign, scopes: Scopes, indent: str) -> list[str]:
        """Return an assignment."""
        targets, value = self.split(statement)
        first = scopes.first.get(id(statement), [])
        several = isinstance(value, ast.Tuple) or len(targets) != 1
        if not targets:
            return self.wrapped(f"{self.expression(value)};", indent)
        if not several:
            (target,) = targets
            word = ("const " if target.id in scopes.once else "let ") if target.id in first else ""
            return self.wrapped(f"{word}{self.setting(target, value)};", indent)
        if not isinstance(value, ast.Tuple):
            return self.calling(value, targets, first, scopes, indent)
        names = [self.target(target) for target in targets]
        lines = self.declaration(first, indent) if first else []
        parts = [self.expression(part) for part in value.elts]
        return lines + self.wrapped(f"[{', '.join(names)}] = [{', '.join(parts)}];", indent)

    def calling(
        self, value: ast.expr, targets: Sequence[ast.Name], first: Sequence[str], scopes: Scopes, indent: str
    ) -> list[str]:
        """Return a call that gives several numbers; taking them one by one is quicker than all at once."""
        if all(target.id == "_" for target in targets):
            return self.wrapped(f"{self.expression(value)};", indent)
        self.calls += 1
        gives = "gives" if self.calls == 1 else f"gives{self.calls}"
        lines = self.wrapped(f"const {gives} = {self.expression(value)};", indent)
        for index, target in enumerate(targets):
            if target.id == "_":
                continue
            word = ("const " if target.id in scopes.once else "let ") if target.id in first else ""
            lines.append(f"{indent}{word}{self.target(target)} = {gives}[{index}];")
        return lines

    def returned(self, values: Sequence[ast.expr], indent: str) -> list[str]:
        """Return a return."""
        given = ", ".join(self.expression(value) for value in values)
        return self.wrapped(
            f"return [{given}];" if len(values) > 1 else f"return {given};".replace(" ;", ";"), indent
        )

    def printed(self, function: Function, types: dict[str, str]) -> list[str]:
        """Return a function under its comment."""
        self.begin(function)
        self.calls = 0
        passed = self.passed(function)
        names = [self.structs.get(part, part) for part in passed]
        lines = ["/**", *comment_lines(function.about, " * ", " * ", "")]
        lines += [f" * @param {{{types[part]}}} {name}" for part, name in zip(passed, names, strict=True)]
        for name in function.parameters:
            lines.append(f" * @param {{{self.type_of(name)}}} {self.variable(name)}")
        kinds = ["boolean" if kind == BOOL else "number" for kind in function.result_types]
        if len(kinds) == 1:
            lines.append(f" * @returns {{{kinds[0]}}}")
        elif kinds:
            said = f"@returns {{[{', '.join(kinds)}]}} {', '.join(map(camel, function.result_names))}"
            lines += comment_lines(said, " * ", " *   ", "")
        lines.append(" */")
        given = ", ".join([*names, *map(self.variable, function.parameters)])
        lines += self.wrapped(f"function {self.function_name(function.name)}({given}) {{", "")
        body = joined_lines(self.body(function.body, Scopes(function), "    "))
        if body and body[-1] == "    return;":
            body.pop()
        return [*lines, *body, "}", ""]


class JavaScriptPackage:
    """The module of a profile in JavaScript."""

    def __init__(self, package: Package) -> None:
        """Take what is printed."""
        self.package = package
        self.used: set[str] = set()

    def class_name(self, made: Made, kind: str = "") -> str:
        """Return the name of a class or type."""
        name = self.package.word(made.mode) if self.package.many or not kind else ""
        return "".join(part.capitalize() for part in f"{name}_{kind}".split("_"))

    def typedef(self, made: Made, kind: str, fields: Sequence[Field], about_it: str) -> list[str]:
        """Return a type, and a function that makes one at rest."""
        name = self.class_name(made, kind)
        lines = ["/**", f" * {about_it}", f" * @typedef {{Object}} {name}"]
        for one in fields:
            lines += comment_lines(
                f"@property {{number}} {camel(one.name)}" + (f" {one.about}" if one.about else ""), " * ", " *   ", ""
            )
        lines += [
            " */",
            "",
            f"/** @returns {{{name}}} */",
            f"export function {self.maker(made, kind)}() {{",
            "    return {",
        ]
        lines += [f"        {camel(one.name)}: {_number(one.rest)}," for one in fields]
        return [*lines, "    };", "}", ""]

    def maker(self, made: Made, kind: str) -> str:
        """Return the name of the function that makes a struct at rest."""
        return camel(f"new_{self.package.prefix(made)}{kind}")

    def copier(self, made: Made, kind: str, fields: Sequence[Field]) -> list[str]:
        """Return a function that copies a struct."""
        name = self.class_name(made, kind)
        lines = [
            "/**",
            f" * @param {{{name}}} source",
            f" * @param {{{name}}} target",
            " */",
            f"function {camel(f'copy_{self.package.prefix(made)}{kind}')}(source, target) {{",
        ]
        lines += [f"    target.{camel(one.name)} = source.{camel(one.name)};" for one in fields]
        return [*lines, "}", ""]

    def mode(self, made: Made) -> list[str]:
        """Return everything of one mode."""
        program, package = made.program, self.package
        prefix = package.prefix(made)
        printer = JavaScriptPrinter(program.functions, prefix)
        types = {
            "raw": self.class_name(made, "input"),
            "last": self.class_name(made, "state"),
            "next": self.class_name(made, "state"),
            "out": self.class_name(made, "result"),
            "settings": self.class_name(made, "settings"),
            "course": "ReadonlyArray<number>",
        }
        lines = [f'// Mode "{in_comment(made.mode)}".', ""]
        for number in program.numbers:
            if not number.adjustable:
                lines += comment_lines(number_words(number), "// ", "// ", "")
                lines.append(f"const {printer.constant_name(number.name)} = {_number(number.value)};")
        if program.tables:
            numbers = ", ".join(map(_number, program.tables))
            lines += wrapped(f"const {printer.constant_name('TABLES')} = [{numbers}];")
        lines.append("")
        game = game_values(made, package.axes)
        for struct in structs_of(made, package.axes):
            lines += self.typedef(made, *struct)
        lines += self.copier(made, "state", program.state)
        lines += self.copier(made, "input", program.inputs)
        if earlier_of(program):
            lines += self.copier(made, "result", results_of(made, package.axes))
        for function in package.own_functions(made):
            lines += printer.printed(function, types)
        lines += [
            "/**",
            " * The results in the game's own axes and unit, and in degrees.",
            f" * @param {{{types['next']}}} state",
            f" * @param {{{types['out']}}} result",
            " */",
            f"function {camel(f'{prefix}in_game_axes')}(state, result) {{",
        ]
        printer.function = Function("", [], [], 0)
        lines += printer.body(game_statements(game), Scopes(Function("", [], [], 0)), "    ")
        lines += ["}", "", *self.class_lines(made, printer, types), *self.door(made)]
        self.used |= printer.used
        return lines

    def class_lines(self, made: Made, printer: JavaScriptPrinter, types: dict[str, str]) -> list[str]:
        """Return the class that a game uses."""
        program, prefix = made.program, self.package.prefix(made)
        extra = extra_parts(program)
        words = {"raw": "input", "last": "this.last", "next": "this.state", "out": "this.result"}

        def tick(raw: str) -> str:
            return f"{printer.function_name('one_tick')}({', '.join(handed_parts(program, {**words, 'raw': raw}))});"

        limit = printer.constant_name(program.max_dt)
        copy = camel(f"copy_{prefix}state")
        axes = f"{camel(f'{prefix}in_game_axes')}(this.state, this.result);"
        given = ", ".join(["input", *extra, "dt"])
        name = self.class_name(made) or "Body"
        lines = [
            f'/** A body in mode "{in_comment(made.mode)}". */',
            f"export class {name} {{",
            "    constructor() {",
            "        /** What is carried from tick to tick; the game may set it. */",
            f"        this.state = {self.maker(made, 'state')}();",
            "        /** What the last tick reported. */",
            f"        this.result = {self.maker(made, 'result')}();",
            "        /** @private */",
            f"        this.last = {self.maker(made, 'state')}();",
        ]
        lines += ["        /** @private */", f"        this.part = {self.maker(made, 'input')}();"]
        if earlier_of(program):
            lines += [
                "        /** @private */",
                f"        this.earlier = {self.maker(made, 'result')}();",
            ]
        lines += [
            "    }",
            "",
            "    /**",
            "     * The results after dt seconds; 0 changes nothing, a hitch is cut into equal parts.",
            f"     * @param {{{types['raw']}}} input",
            *[f"     * @param {{{types[part]}}} {part}" for part in extra],
            "     * @param {number} dt",
            "     */",
            f"    tick({given}) {{",
            f"        {copy}(this.state, this.last);",
            *(["        if (!(dt > 0.0 && dt < Infinity)) {"] if program.standing else []),
            *joined_lines(
                [
                    f"            this.{printer.field(name)} = {_number(value)};"
                    for name, value in program.standing.items()
                ]
            ),
            f"        {'} else if (' if program.standing else 'if (dt > 0.0 && '}dt <= {limit}) {{",
            f"            {tick('input')}",
        ]
        printer.structs = {
            **printer.structs,
            "before": "this.last",
            "earlier": "this.earlier",
            "next": "this.state",
            "out": "this.result",
        }
        copy_input, copy_result = camel(f"copy_{prefix}input"), camel(f"copy_{prefix}result")
        lines += [
            "        } else {" if program.standing else "        } else if (dt > 0.0 && dt < Infinity) {",
            f"            const parts = Math.min(Math.ceil(dt / {limit}), 1000);",
            f"            {copy_input}(input, this.part);",
            *[f"            this.part.{camel(field)} /= parts;" for field in program.shared],
            "            dt /= parts;",
            f"            {tick('this.part')}",
            *joined_lines(
                [f"            this.part.{camel(field)} = {_number(value)};" for field, value in program.once.items()]
            ),
            "            for (let done = 1; done < parts; done++) {",
            *([f"                {copy_result}(this.result, this.earlier);"] if earlier_of(program) else []),
            f"                {copy}(this.state, this.last);",
            f"                {tick('this.part')}",
            *printer.body(program.joined, Scopes(printer.function), "                "),
            "            }",
        ]
        printer.structs = JavaScriptPrinter.structs
        lines += ["        }", f"        {axes}", "        return this.result;", "    }"]
        for correction in self.package.corrections_of(made):
            lines += self.correction(correction, printer)
        return [*lines, "}", ""]

    def correction(self, correction: Correction, printer: JavaScriptPrinter) -> list[str]:
        """Return a method that writes a correction by the game into a body's state."""
        printer.function = Function("", correction.parameters, correction.body, 0)
        body = printer.body(correction.body, Scopes(printer.function), "        ")
        return [
            "",
            "    /**",
            *comment_lines(correction.about, " * ", " * ", "", "    "),
            *[f"     * @param {{number}} {name}" for name in correction.parameters],
            "     */",
            f"    {camel(correction.name)}({', '.join(correction.parameters)}) {{",
            *[f"        void {name};" for name in correction.unread],
            "        const state = this.state;",
            *body,
            "    }",
        ]

    def door(self, made: Made) -> list[str]:
        """Return the functions that write reports of devices into the raw inputs."""
        prefix = self.package.prefix(made)
        printer = JavaScriptPrinter(made.door.functions, prefix)
        types = {"raw": self.class_name(made, "input"), "finger": self.class_name(made, "finger")}
        lines: list[str] = []
        for function in made.door.functions:
            lines += printer.printed(function, types)
        for feed in made.door.feeds:
            printer.begin(feed.function)
            given = list(map(printer.variable, feed.function.parameters))
            lines += [
                "/**",
                *comment_lines(feed.about, " * ", " * ", ""),
                *[f" * @param {{{types[one]}}} {printer.structs[one]}" for one in feed.structs],
                *[f" * @param {{number}} {name}" for name in given],
                " */",
                *wrapped(
                    f"export function {camel(f'{prefix}{feed.function.name}')}("
                    f"{', '.join([*[printer.structs[one] for one in feed.structs], *given])}) {{"
                ),
                *[f"    void {printer.structs[one]};" for one in feed.idle],
                *[f"    void {printer.variable(name)};" for name in feed.unread],
                *joined_lines(printer.body(feed.function.body, Scopes(feed.function), "    ")),
                "}",
                "",
            ]
        self.used |= printer.used
        return lines

    def crossing(self, crossing: Crossing) -> list[str]:
        """Return a function that enters a mode."""
        by_mode = {made.mode: made for made in self.package.modes}
        old, new = by_mode[crossing.old], by_mode[crossing.new]
        function = Function("", [], crossing.body, 0)
        printer = JavaScriptPrinter([], self.package.prefix(new))
        printer.function = function
        body = printer.body(crossing.body, Scopes(function), "    ")
        self.used |= printer.used
        name = camel(f"enter_{self.package.word(crossing.new)}_from_{self.package.word(crossing.old)}")
        return [
            "/**",
            f" * The body in {entered_from(crossing)} with its last raw inputs.",
            f" * @param {{{self.class_name(old)}}} body",
            f" * @param {{{self.class_name(old, 'input')}}} input",
            " */",
            f"export function {name}(body, input) {{",
            *([] if any("input." in line for line in body) else ["    void input;"]),
            f"    const entered = new {self.class_name(new)}();",
            "    const state = entered.state;",
            *(["    const last = body.state;"] if any("last." in line for line in body) else []),
            *(["    const earlier = body.result;"] if any("earlier." in line for line in body) else []),
            *body,
            "    return entered;",
            "}",
            "",
        ]

    def text(self) -> str:
        """Return the module."""
        package = self.package
        body, used = common_section(
            package, JavaScriptPrinter, lambda one, it: one.printed(it, {"course": "ReadonlyArray<number>"})
        )
        self.used |= used
        for made in package.modes:
            body += self.mode(made)
        for crossing in package.crossings:
            body += self.crossing(crossing)
        lines = ["/**", *comment_lines(about(package), " * ", " * ", ""), " */", ""]
        lines += [f"const {name} = {value};" for name, value in CONSTANTS.items() if name in self.used]
        if package.shown_course:
            lines.append(f"/** {course_words(package)} */")
            lines += wrapped(
                f"export const COURSE = [{', '.join(_number(float(one)) for one in package.shown_course)}];"
            )
        lines.append("")
        lines += [text for name, text in HELPERS.items() if name in self.used]
        return "\n".join([*lines, *body]).rstrip("\n") + "\n"

    def files(self) -> dict[str, str]:
        """Return the files by name."""
        return {f"{self.package.stem}.js": self.text()}


def _number(value: float) -> str:
    if math.isinf(value):
        return "Infinity" if value > 0.0 else "-Infinity"
    return repr(value)
