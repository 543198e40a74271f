"""Builds the functions that are printed for a mode."""

import ast
import copy
import re
from collections import Counter
from collections.abc import Mapping, Sequence
from itertools import takewhile

from wendonic.compiler.folded import Folded
from wendonic.compiler.layout import Layout, paths_of
from wendonic.compiler.liveness import negated
from wendonic.compiler.ready import ready
from wendonic.compiler.scope import RESERVED
from wendonic.compiler.tick_function import PackedFunction, TickFunction, tick_function
from wendonic.compiler.tidy import tidied
from wendonic.compiler.trees import cloned, give_names, names_in, rewrite, statements_in
from wendonic.devices.sampler import Sampler
from wendonic.export.feeds import Door, door_of
from wendonic.export.inputs import Inputs, inputs_of
from wendonic.export.lift import (
    drop_unread_parameters,
    drop_unused_results,
    find_context,
    lift,
    loop_names,
    store_results,
    substitute,
)
from wendonic.export.naming import PathNames, unique
from wendonic.export.numbers import numbers_of
from wendonic.export.plainer import plainer, simplified
from wendonic.export.program import (
    Field,
    Function,
    ModeProgram,
    Number,
    calls_of,
    is_field,
    plain_function,
    set_values,
    values_of,
    written_in,
)
from wendonic.export.prune import prune
from wendonic.export.unite import unite
from wendonic.kernels.tick_record import tick_at_rest
from wendonic.profile.schema.profile import Profile
from wendonic.profile.sources import mode_sources
from wendonic.profile.tuning import mode_tuning

SQUARES = {("frame", "grid", "square_m"), ("frame", "grid", "middle", "x"), ("frame", "grid", "middle", "y")}
"""Numbers that define the squares of a body's place; they stay constants."""


class Made:
    """A mode's program, and its relation to the tick function that it was made from."""

    def __init__(
        self, profile: Profile, mode: str, on_course: bool, adjustable: Sequence[str], seat: str | None = None
    ) -> None:
        """Build it."""
        tuning = mode_tuning(profile, mode, on_course)
        sources = mode_sources(profile, mode, seat)
        self.profile, self.mode, self.seat = profile, mode, seat
        self.sources = sources
        self.tuning = tuning.tick
        self.tables = tuple(tuning.tables)
        self.sampler = Sampler(sources)
        sample = self.sampler.layout.sample
        self.inputs: Inputs = inputs_of(sources, profile.press_names, profile.world.axes)
        nothing = zip(paths_of(sample), self.inputs.numbers, strict=True)
        silent = {path for path, node in nothing if isinstance(node, ast.Constant) and node.value == 0.0}
        if profile.mode[mode].movement == "carry":
            # A key of `move` that is not bound here may still be returning to rest.
            silent = {path for path in silent if path[0] != "move"}
        self.function: TickFunction = tick_function(tuning.tick, sample, True, silent)
        self.layout: Layout = self.function.layout
        running = ready(tuning.tick, sample, mode).layout
        self.indices = _places_kept(self.layout, running)
        """The numbers of the record that are printed: those that the running tick function has as well."""
        table = profile.mode[mode]
        names = PathNames(sources, profile.press_names, [table.gait, *table.press_gaits.values()])
        self.press_words = names.presses
        self.names = _field_names(self.layout, names)
        self.fields = [self.names[index] for index in self.indices]
        self.at_rest = self.layout.flat_record(tick_at_rest(tuning.tick))
        numbers = numbers_of(profile, mode, self.function.numbers, names, on_course, set())
        for number, (_, path) in zip(numbers, self.function.numbers, strict=True):
            if path == ("max_dt_s",) or path in SQUARES:
                continue
            number.adjustable = "all" in adjustable or any(path in adjustable for path in number.paths)
        self.squares = {
            path[2:]: ast.Name(_number_field(number), ast.Load())
            for number, (_, path) in zip(numbers, self.function.numbers, strict=True)
            if path in SQUARES
        }
        """The squares as numbers of the profile: their size, and the middle of the first one."""
        self.program = self._program(numbers)
        self.door: Door = door_of(self.program, self.inputs)

    def _program(self, numbers: list[Number]) -> ModeProgram:
        function = self.function
        functions = [plain_function(folded) for folded in function.functions]
        part = _entry(function.part)
        everyone = [*functions, part]
        drop_unused_results(everyone)
        for one in functions:
            folded = Folded(one.name, one.parameters, one.body, None, one.results)  # type: ignore[arg-type]
            tidied(folded)
        drop_unread_parameters(everyone)
        given: dict[str, ast.expr] = {}
        for (name, _), number in zip(function.numbers, numbers, strict=True):
            given[name] = ast.Name(_number_field(number), ast.Load())
        last, sample = (names for _, names in function.part.unpacked)
        for index, found in enumerate(last):
            if found and index in self.indices:
                given[found] = ast.Name(f"last.{self.names[index]}", ast.Load())
            elif found:
                given[found] = ast.Constant(self.at_rest[index])
        for index, found in enumerate(sample):
            if found:
                given[found] = self.inputs.numbers[index]
        substitute(part, given)
        for statement in statements_in(part.body):
            if isinstance(statement, ast.Return):
                row = values_of(statement)
                set_values(statement, [row[index] for index in self.indices])
        part.results = len(self.indices)
        store_results(part, [(number, self._field(index)) for number, index in enumerate(self.indices)])
        part.body = [statement for statement in part.body if not isinstance(statement, ast.Return)]
        lift(everyone)
        known = {f"number.{number.name}": number.value for number in numbers if not number.adjustable}
        take_out_unread(everyone, known)
        plainer(everyone)
        unite(everyone)
        take_out_unread(everyone, known)
        plainer(everyone)
        _name_sides(everyone, self.inputs.sides)
        _clear_names(everyone, self.press_words)
        find_context(everyone)
        read = {part.id for one in everyone for part in names_in(one.body)}
        return self._assembled(everyone, numbers, read)

    def _field(self, index: int) -> str:
        return f"{'next' if index < self.layout.state else 'out'}.{self.names[index]}"

    def _assembled(self, everyone: list[Function], numbers: list[Number], read: set[str]) -> ModeProgram:
        used = {name.removeprefix("raw.") for name in read if name.startswith("raw.")}
        max_dt = next(
            number.name
            for number, (_, path) in zip(numbers, self.function.numbers, strict=True)
            if path == ("max_dt_s",)
        )
        kept = [number for number in numbers if _number_field(number) in read or number.name == max_dt]
        shared, once = self._parts(used)
        state = self.layout.state
        fields = {index: Field(self.names[index], self.at_rest[index]) for index in self.indices}
        inputs = [Field(one.name, one.rest, one.about) for one in self.inputs.fields.values() if one.name in used]
        return ModeProgram(
            self.mode,
            everyone,
            kept,
            inputs,
            [one for index, one in fields.items() if index < state],
            [one for index, one in fields.items() if index >= state],
            shared,
            once,
            self._joined(),
            self._standing(),
            max_dt,
            self.tables if "tables" in read else (),
            list(self.fields),
        )

    def _whole(self, name: str) -> PackedFunction:
        return next(one for one in self.function.whole if one.name == name)

    def _parts(self, used: set[str]) -> tuple[list[str], dict[str, float]]:
        """Find the inputs of which each part of a hitch has a share, and those that belong to its first part only."""
        shares = _returned(self._whole("sample_share"))
        later = _returned(self._whole("later_sample"))
        shared: list[str] = []
        once: dict[str, float] = {}
        for index, node in enumerate(self.inputs.numbers):
            fields = [part.id.removeprefix("raw.") for part in names_in(node)]
            for field in fields:
                if field not in used:
                    continue
                if isinstance(shares[index], ast.BinOp) and field not in shared:
                    shared.append(field)
                value = later[index]
                if isinstance(value, ast.UnaryOp) and isinstance(value.operand, ast.Constant):
                    once[field] = -float(value.operand.value)  # type: ignore[arg-type]
                elif isinstance(value, ast.Constant):
                    once[field] = float(value.value)  # type: ignore[arg-type]
        return shared, once

    def _joined(self) -> list[ast.stmt]:
        """Return the statements that join two parts of a hitch; values of the second part stay as they are."""
        packed = self._whole("joined")
        first, second = (names for _, names in packed.unpacked)
        given: dict[str, ast.expr] = {}
        for index in range(self.layout.width):
            field = self._field(index)
            if first[index]:
                prefix = "before" if index < self.layout.state else "earlier"
                given[first[index] or ""] = ast.Name(f"{prefix}.{self.names[index]}", ast.Load())
            if second[index]:
                given[second[index] or ""] = ast.Name(field, ast.Load())
        body = copy.deepcopy(list(packed.body))
        rewrite(body, given)
        final = body[-1]
        if len(body) > 1 or not isinstance(final, ast.Return):
            locals_of = _laid_open(body)
            values = [locals_of(value) for value in values_of(body[-1])]  # type: ignore[arg-type]
        else:
            values = values_of(final)
        made: list[ast.stmt] = []
        for index, value in enumerate(values):
            if index not in self.indices:
                continue
            field = self._field(index)
            target, found = ast.Name(field, ast.Store()), simplified(value)
            match found:
                case ast.Name(id=name) if name == field:
                    continue
                case ast.IfExp(test=test, body=ast.Name(id=name), orelse=other) if name == field:
                    made.append(ast.If(negated(test), [ast.Assign([target], other)], []))
                case _:
                    made.append(ast.Assign([target], found))
        return made

    def _standing(self) -> dict[str, float]:
        """Return the statements of a tick of no length: nothing turned, nothing began or ended."""
        values = _returned(self._whole("standing"))
        return {
            self._field(index): float(value.value)  # type: ignore[arg-type]
            for index, value in enumerate(values)
            if isinstance(value, ast.Constant) and index in self.indices
        }

    def row_from(self, values: Mapping[str, float]) -> list[float]:
        """Return the sample for some raw inputs."""
        return self.inputs.row_from(values)

    def inputs_from(self, row: Sequence[float]) -> dict[str, float]:
        """Return raw inputs that give a sample."""
        return self.inputs.values_from(row)


def _returned(packed: PackedFunction) -> list[ast.expr]:
    final = packed.body[-1]
    value = final.value if isinstance(final, ast.Return) else None
    return list(value.elts) if isinstance(value, ast.List | ast.Tuple) else []


def _laid_open(body: Sequence[ast.stmt]):  # type: ignore[no-untyped-def]
    known: dict[str, ast.expr] = {}

    def take(statements: Sequence[ast.stmt]) -> None:
        for statement in statements:
            match statement:
                case ast.Assign(targets=[ast.Name(id=name)], value=value):
                    known[name] = cloned(value, known)
                case ast.If(test=test, body=yes, orelse=no):
                    test = cloned(test, known)
                    before = dict(known)
                    take(yes)
                    first = dict(known)
                    known.clear()
                    known.update(before)
                    take(no)
                    second = dict(known)
                    for name in {*first, *second}:
                        left = first.get(name, ast.Name(name, ast.Load()))
                        right = second.get(name, ast.Name(name, ast.Load()))
                        if ast.dump(left) != ast.dump(right):
                            known[name] = ast.IfExp(test, left, right)

    take(body[:-1])
    return lambda value: cloned(value, known)


def take_out_unread(functions: list[Function], known: Mapping[str, float]) -> None:
    """Remove unread values until every function takes and returns only what is used."""
    before = -1
    while before != (handed := sum(len(one.parameters) + one.results for one in functions)):
        before = handed
        prune(functions, known)
        drop_unused_results(functions)
        lift(functions)


def _entry(part: PackedFunction) -> Function:
    names = [name for _, of_row in part.unpacked for name in of_row if name]
    results = len(values_of(part.body[-1]))  # type: ignore[arg-type]
    return Function("one_tick", [*names, "dt"], list(part.body), results, "One tick that is not a hitch.")


def _number_field(number: Number) -> str:
    return f"settings.{number.name.lower()}" if number.adjustable else f"number.{number.name}"


def _places_kept(layout: Layout, running: Layout) -> list[int]:
    """Return the numbers that the running tick function has as well, which carries nothing useless."""
    state = {index for path, index in layout.indices.items() if index >= 0 and running.index(*path) >= 0}
    return sorted(state)


def _field_names(layout: Layout, names: PathNames) -> list[str]:
    """Return the name of each number of a record; state and results are named separately."""
    found: list[str] = [""] * layout.width
    for path, index in layout.indices.items():
        if index >= 0 and not found[index]:
            found[index] = names.of_tick(path)
    taken: set[str] = set()
    state = set(found[: layout.state])
    plain = [f"reported_{one}" if index >= layout.state and one in state else one for index, one in enumerate(found)]
    return [unique(one or f"number_{index}", taken) for index, one in enumerate(plain)]


def _name_sides(functions: Sequence[Function], sides: Mapping[frozenset[str], str]) -> None:
    """Name the raw parameters of a function after the direction of their keys."""
    by_name = {function.name: function for function in functions}
    for caller in functions:
        for _, call in calls_of(caller.body, set(by_name)):
            callee = by_name[call.func.id]  # type: ignore[attr-defined]
            for parameter, argument in zip(list(callee.parameters), call.args, strict=True):
                side = sides.get(frozenset(part.id for part in names_in(argument) if is_field(part.id)))
                taken = {part.id for part in names_in(callee.body)} | {*callee.parameters, *by_name}
                if side and parameter.startswith("raw") and side not in taken:
                    _rename(callee, parameter, side)


def _clear_names(functions: Sequence[Function], presses: Sequence[str]) -> None:
    """Simplify the names of functions and variables: without a number where it is not needed, and with the name of a
    press instead of its number.
    """
    taken: set[str] = set()
    plain = {function.name: re.sub(r"_\d+$", "", function.name.strip("_")) for function in functions}
    alike = Counter(plain.values())
    renamed: dict[str, str] = {}
    for function in functions:
        base = plain[function.name]
        own = _named_after(function, base) if alike[base] > 1 else base
        renamed[function.name] = unique(own, taken)
        if own != base:
            function.about = re.sub(rf"\b{base}\b", own, function.about)
    for function in functions:
        _clear_variables(function, taken, presses)
        function.name = renamed[function.name]
    for caller in functions:
        for _, called in list(calls_of(caller.body, set(renamed))):
            if isinstance(called.func, ast.Name):
                called.func = ast.Name(renamed[called.func.id], ast.Load())


def _named_after(function: Function, base: str) -> str:
    """Return a name for one of several functions made from the same kernel: after the press or the source whose
    numbers it uses, if there is just one.
    """
    fields = [part.id.partition(".") for part in names_in(function.body) if is_field(part.id)]
    # The name of a device says nothing about the purpose of its input.
    names = [name.lower().split("_") for of, _, name in fields if of != "raw"]
    words = takewhile(lambda alike: len({*alike}) == 1, zip(*names, strict=False))
    shared = [word for word, *_ in words][: min(map(len, names), default=1) - 1]
    if "dead" in shared:
        shared = shared[: shared.index("dead")]
    first, _, rest = base.partition("_")
    return "_".join([*shared, rest or first]) if shared else base


def _clear_variables(function: Function, functions: set[str], presses: Sequence[str]) -> None:
    names = {part.id for part in names_in(function.body)} | set(function.parameters)
    written = written_in(function.body) | set(loop_names(function.body))
    own = [*function.parameters, *sorted(written - set(function.parameters))]
    used = names | functions
    for name in own:
        if is_field(name) or name in ("_", "dt", "course", "tables") or name in RESERVED:
            continue
        choices = [f"{name}_result"] if name in functions else _shorter(name, functions)
        of_press = re.match(r"presses_(\d+)_(\w+)$", name)
        if of_press:
            choices.insert(0, f"{presses[int(of_press[1])]}_{of_press[2]}")
        for wanted in choices:
            if wanted not in used | functions and wanted not in RESERVED and wanted not in ("course", "tables"):
                _rename(function, name, wanted)
                used.discard(name)
                used.add(wanted)
                break


def _shorter(name: str, functions: set[str]) -> list[str]:
    """Return shorter names for a variable, best first."""
    found: list[str] = []
    base = re.sub(r"_\d+$", "", name)
    for function in sorted(functions, key=len, reverse=True):
        rest = re.sub(rf"^{function}_(\d+_)*", "", base)
        if rest != base and rest and not rest[0].isdigit():
            found.append(rest)
            break
    for rest in list(found) or [name]:
        plain = re.sub(r"_?sources_\d+", "", re.sub(r"^(memory|request|sample|last_memory)_", "", rest)).strip("_")
        if plain != rest and plain and not plain[0].isdigit():
            found.insert(0, plain)
    if base != name:
        found.append(base)
    # The index of a call's result matters only if two results have the same name.
    return [plain for one in [*found, name] for plain in (re.sub(r"_\d+(?=_[a-z])", "", one), one)]


def _rename(function: Function, old: str, new: str) -> None:
    give_names(function.body, {old: new})
    for statement in statements_in(function.body):
        if isinstance(statement, ast.For) and isinstance(statement.target, ast.Name) and statement.target.id == old:
            statement.target = ast.Name(new, ast.Store())
    function.parameters = [new if name == old else name for name in function.parameters]
