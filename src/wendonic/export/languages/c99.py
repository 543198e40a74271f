"""C99, which is C++17 as well: one header and one source, nothing global, nothing allocated."""

import ast
import math
from collections.abc import Sequence

from wendonic.export.build import Made
from wendonic.export.corrections import Correction
from wendonic.export.feeds import Feed
from wendonic.export.kinds import BOOL, INT
from wendonic.export.languages.braces import joined_lines
from wendonic.export.languages.common_section import common_section
from wendonic.export.languages.out_arguments import OutArgumentPrinter, straight_results
from wendonic.export.languages.printer import WIDTH, comment_lines
from wendonic.export.languages.reserved import WORDS
from wendonic.export.languages.scopes import Scopes
from wendonic.export.languages.structs import results_of, structs_of
from wendonic.export.languages.words import (
    about,
    adjustable,
    course_words,
    entered_from,
    extra_parts,
    handed_parts,
    number_words,
)
from wendonic.export.naming import in_comment
from wendonic.export.package import Crossing, Package, game_statements, game_values
from wendonic.export.program import Field, Function

HELPERS = {
    "min_of": (
        "static {real} min_of({real} first, {real} second) {{\n    return second < first ? second : first;\n}}\n"
    ),
    "max_of": (
        "static {real} max_of({real} first, {real} second) {{\n    return second > first ? second : first;\n}}\n"
    ),
    "length_of": (
        "/* The length of (x, y); hypot guards against an overflow that no game meets, and takes longer. */\n"
        "static {real} length_of({real} x, {real} y) {{\n    return {sqrt}(x * x + y * y);\n}}\n"
    ),
    "floor_mod": (
        "/* What is left over of a division, with the sign of `whole`. */\n"
        "static {real} floor_mod({real} number, {real} whole) {{\n"
        "    const {real} left = {fmod}(number, whole);\n"
        "    return left != {zero} && (left < {zero}) != (whole < {zero}) ? left + whole : left;\n}}\n"
    ),
}
CONSTANTS = {
    "PI": "3.141592653589793",
    "TWO_PI": "6.283185307179586",
    "HALF_PI": "1.5707963267948966",
    "QUARTER_PI": "0.7853981633974483",
    "EIGHTH_PI": "0.39269908169872414",
    "LN_2": "0.6931471805599453",
    "RAD_PER_DEG": "0.017453292519943295",
    "DEG_PER_RAD": "57.29577951308232",
}
OURS = {"min": "min_of", "max": "max_of", "hypot": "length_of"}
MATH = {"abs": "fabs"}
SINGLE_GUARD = 3e-6
"""In single precision an angle (rad) this near to half a turn counts as exactly that, so that rounding does not
choose the side: a few units in the last place.
"""


class CPrinter(OutArgumentPrinter):
    """Prints functions in C."""

    language = "c99"
    remark = ("/* ", "   ", " */")
    access = "->"
    constant_word = "const "

    def __init__(self, functions: Sequence[Function], prefix: str, float32: bool) -> None:
        """Print in double, or in float."""
        super().__init__(functions, prefix)
        self.real = "float" if float32 else "double"
        self.suffix = "f" if float32 else ""
        self.short_of_pi = SINGLE_GUARD if float32 else 0.0
        self.by_value: set[str] = set()
        """Structs that are passed by value, not through a pointer."""

    def field(self, name: str) -> str:
        """Return a field of a struct, or through a pointer to it."""
        struct, _, field = name.partition(".")
        if struct in self.by_value:
            return f"{self.structs[struct]}.{self.field_name(field)}"
        return super().field(name)

    def number(self, value: float) -> str:
        """Return a number of the right type."""
        if math.isinf(value):
            return "INFINITY" if value > 0.0 else "-INFINITY"
        return f"{value!r}{self.suffix}"

    def math_call(self, name: str, args: Sequence[ast.expr], as_int: bool) -> tuple[str, int]:
        """Return a call of <math.h>, or a cast."""
        if name == "int":
            return f"(int){self.expression(args[0], 8)}", 8
        if name in OURS and len(args) > 2:
            first = ast.Call(ast.Name(name, ast.Load()), list(args[:-1]), [])
            return self.math_call(name, [first, args[-1]], as_int)
        return super().math_call(name, args, as_int)

    def math_name(self, name: str) -> str:
        """Return what <math.h> calls it."""
        if name in OURS:
            self.used.add(OURS[name])
            return OURS[name]
        return MATH.get(name, name) + self.suffix

    def power(self, base: ast.expr, exponent: ast.expr) -> tuple[str, int]:
        """Return a power; a power of one half is written as one of 2, which is faster."""
        if isinstance(base, ast.Constant) and base.value == 0.5:
            match exponent:
                case ast.BinOp(left=left, op=ast.Div(), right=right):
                    exponent = ast.BinOp(ast.UnaryOp(ast.USub(), left), ast.Div(), right)
                case _:
                    exponent = ast.UnaryOp(ast.USub(), exponent)
            return f"exp2{self.suffix}({self.expression(exponent)})", 10
        return f"pow{self.suffix}({self.expression(base)}, {self.expression(exponent)})", 10

    def bound_real(self, node: ast.expr) -> str:
        """Return a count converted to a floating-point number."""
        return f"({self.real}){self.expression(node, 8, True)}"

    def kind(self, kind: str) -> str:
        """Return the name of a type."""
        return {BOOL: "bool", INT: "int"}.get(kind, self.real)

    def out_argument(self, target: str) -> str:
        """Return a pointer to a target."""
        return target[1:] if target.startswith("*") else f"&{target}"

    def result_target(self, result: str) -> str:
        """Return the target that a result is written to."""
        return f"*{result}_out"

    def declaration(self, names: Sequence[str], indent: str) -> list[str]:
        """Return the declaration of variables that get their values later."""
        by_type: dict[str, list[str]] = {}
        for name in names:
            by_type.setdefault(self.type_of(name), []).append(self.variable(name))
        return [
            line for kind, found in by_type.items() for line in self.wrapped(f"{kind} {', '.join(found)};", indent)
        ]

    def head(self, function: Function, structs: dict[str, str]) -> str:
        """Return the head of a function."""
        kinds = {BOOL: "bool", INT: "int"}
        given = [structs[part] for part in self.passed(function)]
        given += [
            f"{kinds.get(function.types.get(name, ''), self.real)} {self.variable(name)}"
            for name in function.parameters
        ]
        kind = "void"
        if function.results == 1:
            kind = kinds.get(function.result_types[0], self.real)
        else:
            pairs = zip(function.result_types, function.result_names, strict=True)
            given += [f"{kinds.get(one, self.real)} *{name}_out" for one, name in pairs]
        return f"static {kind} {self.function_name(function.name)}({', '.join(given) or 'void'})"

    def printed(self, function: Function, structs: dict[str, str]) -> list[str]:
        """Return a function under its comment."""
        self.begin(function)
        self.unused = 0
        self.straight = straight_results(function, list(self.functions.values()))
        lines = comment_lines(function.about, "/* ", "   ", " */")
        lines += self.wrapped(f"{self.head(function, structs)} {{", "")
        scopes = Scopes(function, self.straight)
        body = joined_lines(self.body(function.body, scopes, "    "))
        self.straight = {}
        if function.results != 1 and body and body[-1] == "    return;":
            body.pop()
        return [*lines, *body, "}", ""]


class CPackage:
    """All files of a profile in C."""

    def __init__(self, package: Package) -> None:
        """Print everything."""
        self.package = package
        self.stem = package.stem
        self.real = "float" if package.float32 else "double"
        self.suffix = "f" if package.float32 else ""
        self.used: set[str] = set()
        self.sections: list[list[str]] = []
        given = {"course": f"const {self.real} *course"}
        common, used = common_section(
            package, lambda others: CPrinter(others, "", package.float32), lambda one, it: one.printed(it, given)
        )
        self.sections.append(common)
        self.used |= used
        for made in package.modes:
            self.sections.append(self.mode(made))

    # --- names

    def struct(self, made: Made, kind: str) -> str:
        """Return the name of a struct."""
        return f"{self.stem}_{self.package.prefix(made)}{kind}"

    def structs(self, made: Made) -> dict[str, str]:
        """Return how functions are handed the structs and rows."""
        return {
            "raw": f"const {self.struct(made, 'input')} *input",
            "last": f"const {self.struct(made, 'state')} *last",
            "next": f"{self.struct(made, 'state')} *state",
            "out": f"{self.struct(made, 'result')} *result",
            "settings": f"const {self.struct(made, 'settings')} *settings",
            "course": f"const {self.real} *course",
        }

    def value(self, number: float) -> str:
        """Return a number."""
        if math.isinf(number):
            return "INFINITY" if number > 0.0 else "-INFINITY"
        return f"{number!r}{self.suffix}"

    # --- header

    def header(self) -> str:
        """Return the header."""
        package = self.package
        guard = f"{self.stem.upper()}_H"
        lines = [
            *comment_lines(about(package), "/* ", "   ", " */"),
            f"#ifndef {guard}",
            f"#define {guard}",
            "",
            "#ifdef __cplusplus",
            'extern "C" {',
            "#endif",
            "",
        ]
        for made in package.modes:
            for struct in structs_of(made, package.axes):
                lines += self.typedef(made, *struct)
            lines += self.prototypes(made)
        for crossing in package.crossings:
            lines += [
                *comment_lines(f"The state of {entered_from(crossing)}.", "/* ", "   ", " */"),
                *self.wrap(f"{self.crossing_head(crossing)};"),
                "",
            ]
        if package.shown_course:
            lines += [
                *comment_lines(course_words(package), "/* ", "   ", " */"),
                f"extern const {self.real} {self.stem}_course[{len(package.shown_course)}];",
                "",
            ]
        lines += ["#ifdef __cplusplus", "}", "#endif", "", "#endif", ""]
        return "\n".join(lines)

    def typedef(self, made: Made, kind: str, fields: Sequence[Field], about_it: str) -> list[str]:
        """Return a struct of numbers, each with its meaning."""
        lines = [f"/* {about_it} */", "typedef struct {"]
        groups: list[tuple[str, list[str]]] = []
        for one in fields:
            name = _safe(one.name)
            if groups and groups[-1][0] == one.about and len(", ".join([*groups[-1][1], name])) < 90:
                groups[-1][1].append(name)
            else:
                groups.append((one.about, [name]))
        for said, names in groups:
            line = f"    {self.real} {', '.join(names)};"
            if said and len(line) + len(said) + 7 <= WIDTH:
                lines.append(f"{line} /* {said} */")
            else:
                lines += [*comment_lines(said, "/* ", "   ", " */", "    "), line]
        return [*lines, f"}} {self.struct(made, kind)};", ""]

    def tick_head(self, made: Made) -> str:
        """Return the head of the function that a game calls."""
        program = made.program
        given = [
            f"{self.struct(made, 'state')} *state",
            f"const {self.struct(made, 'input')} *input",
            *([f"const {self.struct(made, 'settings')} *settings"] if adjustable(program) else []),
            *([f"const {self.real} *course"] if "course" in program.tick.context else []),
            f"{self.real} dt",
            f"{self.struct(made, 'result')} *result",
        ]
        return f"void {self.struct(made, 'tick')}({', '.join(given)})"

    def begin_head(self, made: Made) -> str:
        """Return the head of the function that sets a body to rest."""
        state, result = self.struct(made, "state"), self.struct(made, "result")
        return f"void {self.struct(made, 'begin')}({state} *state, {result} *result)"

    def prototypes(self, made: Made) -> list[str]:
        """Return the functions that a game calls."""
        lines = [
            "/* At rest, at the origin, facing and looking forward. */",
            f"{self.begin_head(made)};",
            "/* Nothing pressed, nothing tilted. */",
            f"void {self.struct(made, 'input_at_rest')}({self.struct(made, 'input')} *input);",
        ]
        if adjustable(made.program):
            lines += [
                "/* The numbers of the profile. */",
                f"void {self.struct(made, 'settings_of_profile')}({self.struct(made, 'settings')} *settings);",
            ]
        lines += [
            "/* The state and the results after dt seconds; 0 changes nothing, a hitch is cut into equal parts. */",
            *self.wrap(f"{self.tick_head(made)};"),
        ]
        for one in self.package.corrections_of(made):
            lines += [
                *comment_lines(one.about, "/* ", "   ", " */"),
                *self.wrap(f"{self.correction_head(made, one)};"),
            ]
        for feed in made.door.feeds:
            lines += [
                *comment_lines(feed.about, "/* ", "   ", " */"),
                *self.wrap(f"{self.feed_head(made, feed)};"),
            ]
        return [*lines, ""]

    def feed_head(self, made: Made, feed: Feed) -> str:
        """Return the head of a function that writes reports of a device into the raw inputs."""
        structs = {"raw": f"{self.struct(made, 'input')} *input", "finger": f"{self.struct(made, 'finger')} *finger"}
        given = [
            *map(structs.__getitem__, feed.structs),
            *[f"{self.real} {name}" for name in feed.function.parameters],
        ]
        return f"void {self.struct(made, feed.function.name)}({', '.join(given)})"

    def door(self, made: Made) -> list[str]:
        """Return the functions that write reports of devices into the raw inputs."""
        printer = CPrinter(made.door.functions, self.package.prefix(made), self.package.float32)
        lines: list[str] = []
        for function in made.door.functions:
            lines += printer.printed(function, {})
        for feed in made.door.feeds:
            printer.begin(feed.function)
            unread = [*[printer.structs[one] for one in feed.idle], *map(printer.variable, feed.unread)]
            lines += [
                *self.wrap(f"{self.feed_head(made, feed)} {{"),
                *[f"    (void){name};" for name in unread],
                *joined_lines(printer.body(feed.function.body, Scopes(feed.function), "    ")),
                "}",
                "",
            ]
        self.used |= printer.used
        return lines

    def correction_head(self, made: Made, correction: Correction) -> str:
        """Return the head of a function that writes a correction by the game into a state."""
        given = ", ".join(f"{self.real} {name}" for name in correction.parameters)
        return f"void {self.struct(made, correction.name)}({self.struct(made, 'state')} *state, {given})"

    def correction(self, made: Made, correction: Correction, printer: CPrinter) -> list[str]:
        """Return a function that writes a correction by the game into a state."""
        printer.function = Function("", correction.parameters, correction.body, 0)
        return [
            *self.wrap(f"{self.correction_head(made, correction)} {{"),
            *[f"    (void){name};" for name in correction.unread],
            *printer.body(correction.body, Scopes(printer.function), "    "),
            "}",
            "",
        ]

    def crossing_head(self, crossing: Crossing) -> str:
        """Return the head of a function that enters a mode."""
        by_mode = {made.mode: made for made in self.package.modes}
        old, new = by_mode[crossing.old], by_mode[crossing.new]
        name = f"{self.stem}_enter_{self.package.word(crossing.new)}_from_{self.package.word(crossing.old)}"
        return (
            f"void {name}({self.struct(new, 'state')} *state, {self.struct(new, 'result')} *result, "
            f"const {self.struct(old, 'state')} *last, const {self.struct(old, 'result')} *earlier, "
            f"const {self.struct(old, 'input')} *input)"
        )

    def wrap(self, line: str) -> list[str]:
        """Return a line, broken where it is too long."""
        from wendonic.export.languages.printer import wrapped

        return wrapped(line)

    # --- source

    def mode(self, made: Made) -> list[str]:
        """Return everything of one mode."""
        program = made.program
        prefix = self.package.prefix(made)
        printer = CPrinter(program.functions, prefix, self.package.float32)
        structs = self.structs(made)
        functions: list[str] = []
        for function in self.package.own_functions(made):
            functions += printer.printed(function, structs)
        functions += self.axes_function(made, printer)
        functions += self.hitch(made, printer)
        functions += self.public(made, printer)
        for correction in self.package.corrections_of(made):
            functions += self.correction(made, correction, printer)
        functions += self.door(made)
        self.used |= printer.used
        return [*self.constants(made, printer), *functions]

    def constants(self, made: Made, printer: CPrinter) -> list[str]:
        """Return the numbers of the profile as constants."""
        lines = [f'/* Mode "{in_comment(made.mode)}". */', ""]
        for number in made.program.numbers:
            if not number.adjustable:
                start = f"static const {self.real} {printer.constant_name(number.name)} = {self.value(number.value)};"
                said = number_words(number)
                if said and len(start) + len(said) + 7 > WIDTH:
                    lines += [*comment_lines(said, "/* ", "   ", " */"), start]
                else:
                    lines.append(f"{start} /* {said} */" if said else start)
        if made.program.tables:
            numbers = ", ".join(self.value(number) for number in made.program.tables)
            lines += ["/* Measured rims, and curves through points. */"]
            lines += self.wrap(f"static const {self.real} {printer.constant_name('TABLES')}[] = {{{numbers}}};")
        return [*lines, ""]

    def axes_function(self, made: Made, printer: CPrinter) -> list[str]:
        """Return the function that converts a tick's numbers to the game's own axes."""
        lines = [
            "/* The results in the game's own axes and unit, and in degrees. */",
            *self.wrap(
                f"static void {self.package.prefix(made)}in_game_axes("
                f"const {self.struct(made, 'state')} *state, {self.struct(made, 'result')} *result) {{"
            ),
        ]
        printer.function = Function("", [], [], 0)
        lines += printer.body(
            game_statements(game_values(made, self.package.axes)), Scopes(Function("", [], [], 0)), "    "
        )
        return [*lines, "}", ""]

    def passed(self, made: Made, last: str, raw: str) -> str:
        """Return the arguments of the tick, in the order of its context."""
        words = {"raw": raw, "last": last, "next": "state", "out": "result"}
        return ", ".join(handed_parts(made.program, words))

    def hitch(self, made: Made, printer: CPrinter) -> list[str]:
        """Return the code that cuts a hitch into parts."""
        program = made.program
        head = self.tick_head(made).replace(
            f"void {self.struct(made, 'tick')}", f"static void {self.package.prefix(made)}hitch"
        )
        limit = printer.constant_name(program.max_dt)
        printer.used.add("min_of")
        tick = f"{printer.function_name('one_tick')}({self.passed(made, '&last', '&part')});"
        printer.function = Function("", [], [], 0)
        printer.by_value = {"before", "earlier"}
        lines = [
            "/* A tick that is too long is cut into equal parts; what came once comes with the first of them. */",
            *self.wrap(f"{head} {{"),
            f"    const {self.real} parts = min_of(ceil{self.suffix}(dt / {limit}), {self.value(1000.0)});",
            f"    {self.struct(made, 'input')} part = *input;",
            f"    {self.struct(made, 'state')} last = *state;",
            *[f"    part.{_safe(name)} /= parts;" for name in program.shared],
            "    dt /= parts;",
            f"    {tick}",
            *joined_lines([f"    part.{_safe(name)} = {self.value(value)};" for name, value in program.once.items()]),
            "    for (int done = 1; done < parts; done++) {",
            f"        const {self.struct(made, 'result')} earlier = *result;",
            "        last = *state;",
            f"        {tick}",
        ]
        body = printer.body(program.joined, Scopes(printer.function), "        ")
        if not any("earlier." in line for line in body):
            lines = [line for line in lines if " earlier = *result;" not in line]
        lines += body
        printer.by_value = set()
        return [*lines, "    }", "}", ""]

    def public(self, made: Made, printer: CPrinter) -> list[str]:
        """Return the functions that a game calls."""
        program = made.program
        structs = self.struct(made, "state"), self.struct(made, "input"), self.struct(made, "result")
        lines = [f"{self.begin_head(made)} {{"]
        lines += self.at_rest("state", program.state)
        lines += self.at_rest("result", results_of(made, self.package.axes))
        lines += ["}", "", f"void {self.struct(made, 'input_at_rest')}({structs[1]} *input) {{"]
        lines += self.at_rest("input", [*program.inputs, *made.door.inputs])
        lines += ["}", ""]
        if adjustable(program):
            name = self.struct(made, "settings")
            lines += [f"void {self.struct(made, 'settings_of_profile')}({name} *settings) {{"]
            for number in adjustable(program):
                lines.append(f"    settings->{_safe(number.name.lower())} = {self.value(number.value)};")
            lines += ["}", ""]
        limit = printer.constant_name(program.max_dt)
        lines += self.wrap(f"{self.tick_head(made)} {{")
        lines += [f"    const {structs[0]} last = *state;"]
        zero, longest = self.value(0.0), self.value(1e9)
        long, usual = f"if (dt > {limit} && dt <= {longest})", f"else if (dt > {zero} && dt <= {limit})"
        if program.standing:
            lines += [f"    if (!(dt > {zero}) || dt > {longest}) {{"]
            lines += joined_lines(
                [f"        {printer.field(name)} = {self.value(value)};" for name, value in program.standing.items()]
            )
            long, usual = f"}} else if (dt > {limit})", "else"
        names = extra_parts(program)
        hitch = ", ".join(["state", "input", *names, "dt", "result"])
        lines += [
            f"    {long} {{",
            f"        {self.package.prefix(made)}hitch({hitch});",
            f"    }} {usual} {{",
            f"        {printer.function_name('one_tick')}({self.passed(made, '&last', 'input')});",
            "    }",
            f"    {self.package.prefix(made)}in_game_axes(state, result);",
            "}",
            "",
        ]
        return lines

    def at_rest(self, name: str, fields: Sequence[Field]) -> list[str]:
        """Return statements that set all fields of a struct."""
        lines = [f"    memset({name}, 0, sizeof *{name});"]
        return [*lines, *[f"    {name}->{_safe(one.name)} = {self.value(one.rest)};" for one in fields if one.rest]]

    def source(self) -> str:
        """Return the source."""
        package = self.package
        lines = [
            *comment_lines(about(package), "/* ", "   ", " */"),
            f'#include "{self.stem}.h"',
            "",
            "#include <math.h>",
            "#include <stdbool.h>",
            "#include <string.h>",
            "",
        ]
        body = [line for section in self.sections for line in section]
        crossings: list[str] = []
        for crossing in package.crossings:
            crossings += self.crossing(crossing)
        for name, value in CONSTANTS.items():
            if name in self.used:
                lines.append(f"static const {self.real} {name} = {value}{self.suffix};")
        lines.append("")
        words = {"real": self.real, "zero": self.value(0.0)}
        words |= {name: f"{name}{self.suffix}" for name in ("fmod", "sqrt")}
        for name, text in HELPERS.items():
            if name in self.used:
                lines += [text.format(**words)]
        if package.shown_course:
            numbers = ", ".join(self.value(float(number)) for number in package.shown_course)
            lines += self.wrap(f"const {self.real} {self.stem}_course[{len(package.shown_course)}] = {{{numbers}}};")
            lines.append("")
        return "\n".join([*lines, *body, *crossings]).rstrip("\n") + "\n"

    def crossing(self, crossing: Crossing) -> list[str]:
        """Return a function that enters a mode."""
        made = next(made for made in self.package.modes if made.mode == crossing.new)
        function = Function("", [], crossing.body, 0)
        printer = CPrinter([], self.package.prefix(made), self.package.float32)
        printer.function = function
        body = printer.body(crossing.body, Scopes(function), "    ")
        self.used |= printer.used
        unused = [
            f"    (void){name};"
            for name in ("last", "earlier", "input")
            if not any(f"{name}->" in line for line in body)
        ]
        first = f"    {self.struct(made, 'begin')}(state, result);"
        return [*self.wrap(f"{self.crossing_head(crossing)} {{"), *unused, first, *body, "}", ""]

    def files(self) -> dict[str, str]:
        """Return the files by name."""
        source = self.source()
        return {f"{self.stem}.h": self.header(), f"{self.stem}.c": source}


def _safe(name: str) -> str:
    return f"{name}_" if name in WORDS["c99"] else name
