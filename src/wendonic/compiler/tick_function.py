"""Makes the tick function of a mode: straight-line code for one structure, with the numbers as parameters."""

import ast
from collections.abc import Callable, Collection, Iterator, Sequence
from dataclasses import dataclass
from typing import Any

from wendonic.compiler.fold import Folder
from wendonic.compiler.folded import Folded, Result
from wendonic.compiler.inline import inline
from wendonic.compiler.layout import Layout, Path, flat, paths_of
from wendonic.compiler.liveness import read_first
from wendonic.compiler.scope import MATH_NAMES
from wendonic.compiler.tidy import drop_unread, tidied
from wendonic.compiler.trees import give_names, key, names_in, read_names
from wendonic.compiler.tried import changed_when_tried
from wendonic.compiler.values import Dynamic, Known, Packed, Record, Value, expression, known, leaves, name, rebuilt
from wendonic.kernels.hitch import joined, later_sample, sample_share
from wendonic.kernels.tick import standing, tick, tick_part
from wendonic.kernels.tick_record import Tick, tick_at_rest
from wendonic.kernels.tuning import Tuning

ENTRIES: dict[Callable[..., Any], str] = {
    tick_part: "tick_part",
    sample_share: "sample_share",
    later_sample: "later_sample",
    joined: "joined",
    standing: "standing",
}

HELD_PRESSES = (("presses", "held"), ("presses", "held_s"))
"""The state that a mode needs of a press that was held in another mode."""


@dataclass(frozen=True)
class PackedFunction:
    """A function over whole records: its arguments, the numbers that it unpacks from each (a name or None for each
    number), and its statements, the last of which returns.
    """

    name: str
    arguments: tuple[str, ...]
    unpacked: tuple[tuple[str, tuple[str | None, ...]], ...]
    body: tuple[ast.stmt, ...]


@dataclass(frozen=True)
class TickFunction:
    """The tick function of one structure, as trees.

    `numbers` are the numbers of the tuning that it reads, by name and path. `part`, the first of `whole`, is one tick
    that is not a hitch; the others cut hitches and make ticks of no length. `functions` are the kernels that stayed
    functions, callees first; `layout` has the positions in a record.
    """

    numbers: tuple[tuple[str, Path], ...]
    whole: tuple[PackedFunction, ...]
    functions: tuple[Folded, ...]
    layout: Layout
    math_names: tuple[str, ...]

    @property
    def part(self) -> PackedFunction:
        """The tick itself."""
        return self.whole[0]


def _open(value: Any, start: str, indices: Callable[[Path, Any], bool]) -> Value:
    """Return a value whose chosen numbers are names."""
    parts: list[Value] = []
    for path, leaf in leaves(known(value)):
        chosen = isinstance(leaf, Known) and indices(path, leaf.value)
        parts.append(Dynamic(name("_".join((start, *path)))) if chosen else leaf)
    return rebuilt(known(value), iter(parts))


def tick_function(tuning: Tuning, sample: Any, readable: bool = False, silent: Collection[Path] = ()) -> TickFunction:
    """Return the tick function of a structure; `sample` gives the shape of the raw numbers. If it should be
    `readable`, longer kernels stay functions. Raw numbers that are `silent` are always at rest.

    Raises `KernelError` for a kernel outside the kernel language, `SourceMissingError` if sources are not available.
    """
    at_rest = tick_at_rest(tuning)
    tuning_value = _open(tuning, "tuning", lambda _, value: isinstance(value, float))
    sample_value = _open(sample, "sample", lambda path, _: path not in silent)
    rows: tuple[Value, Value] = (Dynamic(name("tables")), Dynamic(name("course")))
    dt = Dynamic(name("dt"))
    # Memory that never changes from its value at rest is known; what changes is found by a fixpoint. It begins with
    # what comes in from outside, the body, which the game may place, and presses that were held in another mode, and,
    # to save rounds, with what is seen to change.
    varying = {path for path in paths_of(at_rest.memory) if path[0] == "body" or path[::2] in HELD_PRESSES}
    varying |= changed_when_tried(tuning, at_rest, sample, silent)
    while True:
        memory = _open(at_rest.memory, "last_memory", lambda path, _: path in varying)
        last = Record(Tick, (memory, known(at_rest.outcome)))
        folder = Folder()
        part = folder.fold(tick_part, [tuning_value, *rows, last, sample_value, dt])
        parameters = dict(
            zip(_open_paths([tuning_value, *rows, last, sample_value, dt]), part.parameters, strict=True)
        )
        after = part.template.parts[0] if isinstance(part.template, Record) else part.template
        changed = {
            path
            for (path, new), (_, old) in zip(leaves(after), leaves(memory), strict=True)
            if path not in varying and not _unchanged(new, old)
        }
        if not changed:
            break
        varying.update(changed)
    functions = inline(part, list(folder.folded.values()), readable)
    layout, record = _layout(part, at_rest, parameters)
    part.body[-1] = ast.Return(ast.Tuple(record, ast.Load()))
    for function in (*functions.values(), part):
        tidied(function)
    number_names = {parameters[0, *path]: path for path in paths_of(tuning) if (0, *path) in parameters}
    packed = [_packed_part(part, parameters, layout, at_rest, sample)]
    small, more = _packed_others(tuning, sample, layout, at_rest, set(functions))
    packed += small
    left = {**functions, **more}
    read = {found for one in packed for found in read_names(one.body)}
    numbers = tuple((number, path) for number, path in number_names.items() if number in read)
    packed, numbers = _shorter_names(packed, numbers, set(left))
    bodies = [*(one.body for one in packed), *(one.body for one in left.values())]
    used = {found for body in bodies for found in read_names(body)}
    return TickFunction(numbers, tuple(packed), tuple(left.values()), layout, tuple(sorted(used & MATH_NAMES)))


def _open_paths(arguments: Sequence[Value]) -> Iterator[tuple[Any, ...]]:
    """Yield the index of the argument and the path of each number that is a name."""
    for number, argument in enumerate(arguments):
        for path, leaf in leaves(argument):
            if not isinstance(leaf, Known):
                yield (number, *path)


def _unchanged(new: Any, old: Value) -> bool:
    if not isinstance(new, Known) or not isinstance(old, Known):
        return False
    return bool(new.value == old.value) and str(float(new.value)) == str(float(old.value))


def _layout(part: Folded, at_rest: Tick, parameters: dict[tuple[Any, ...], str]) -> tuple[Layout, list[ast.expr]]:
    """Find which numbers of a tick must be carried on, and the position of each in the record; return that and the
    numbers.

    Memory that affects nothing reported is not state.
    """
    final = part.body[-1]
    value = final.value if isinstance(final, ast.Return) else None
    computed = list(value.elts) if isinstance(value, ast.Tuple) else [value] if value is not None else []
    exprs: dict[Path, ast.expr] = {}
    constants: dict[Path, float] = {}
    for path, leaf in leaves(part.template):
        found: Any = leaf
        if isinstance(found, Known) and (3, *path) not in parameters:
            constants[path] = float(found.value)
        elif isinstance(found, Known):
            exprs[path] = expression(Known(float(found.value)))
        elif isinstance(found, Result):
            exprs[path] = computed[found.index]
        else:
            exprs[path] = expression(found)
    body = part.body[:-1]
    reported = [path for path in exprs if path[0] == "outcome"]
    kept: list[Path] = []
    while True:
        wanted = ast.Return(ast.Tuple([exprs[path] for path in (*kept, *reported)], ast.Load()))
        read = read_first([*body, wanted])
        more = [path for path in exprs if path[0] == "memory" and parameters.get((3, *path)) in read]
        if len(more) == len(kept):
            break
        kept = more
    record: list[ast.expr] = []
    indices: dict[Path, int] = {}
    seen: dict[Any, int] = {}
    for path in (*kept, *reported):
        written = key(exprs[path])
        shared = seen.get(written)
        if shared is None or (path[0] == "memory" and shared >= 0):
            # Each number of the state has its own index: the game may set one without another.
            shared = len(record)
            record.append(exprs[path])
            seen.setdefault(written, shared)
        indices[path] = shared
    for path in list(constants):
        # Numbers set from outside are reported as well, even if the tick itself never changes them.
        carried = indices.get(("memory", *path[1:]))
        if path[0] == "outcome" and carried is not None:
            indices[path] = carried
            del constants[path]
    constants |= {
        path: float(number)
        for path, number in zip(paths_of(at_rest), flat(at_rest), strict=True)
        if path[0] == "memory" and path not in indices and path not in constants
    }
    return Layout(len(kept), len(record), indices, constants), record


def _packed_part(
    part: Folded, parameters: dict[tuple[Any, ...], str], layout: Layout, at_rest: Tick, sample: Any
) -> PackedFunction:
    read = read_names(part.body)
    last: list[str | None] = [None] * layout.width
    for path in paths_of(at_rest):
        parameter = parameters.get((3, *path))
        if path in layout.indices and path[0] == "memory" and parameter in read:
            last[layout.indices[path]] = parameter
    raw = [parameters.get((4, *path)) for path in paths_of(sample)]
    numbers: list[str | None] = [parameter if parameter in read else None for parameter in raw]
    return PackedFunction(
        "tick_part",
        ("last", "sample", "dt"),
        (("last", tuple(last)), ("sample", tuple(numbers))),
        tuple(part.body),
    )


def _record_value(layout: Layout, at_rest: Tick, start: str) -> Value:
    """Return a `Tick` whose numbers are those of a record, or known."""
    parts: list[Value] = []
    for path in paths_of(at_rest):
        index = layout.indices.get(path, -1)
        if index >= 0:
            parts.append(Dynamic(name(f"{start}_{index}")))
        else:
            parts.append(Known(layout.constants[path]))
    return rebuilt(known(at_rest), iter(parts))


def _packed_others(
    tuning: Tuning, sample: Any, layout: Layout, at_rest: Tick, taken: set[str]
) -> tuple[list[PackedFunction], dict[str, Folded]]:
    """Fold what surrounds the tick: cutting hitches, and ticks of no length."""
    folder = Folder(ENTRIES)
    folder.taken |= taken
    left: dict[str, Folded] = {}
    tuning_value = _open(tuning, "tuning", lambda _, value: isinstance(value, float))
    count = len(paths_of(sample))
    raw = rebuilt(known(sample), iter([Dynamic(name(f"sample_{index}")) for index in range(count)]))
    share = Dynamic(name("share"))
    made: list[PackedFunction] = []

    def whole(
        kernel: Callable[..., Any], arguments: Sequence[tuple[str, Value]], results: Callable[[Value], Any]
    ) -> None:
        folded = folder.fold(kernel, [value for _, value in arguments])
        given = [
            expression(leaf) for _, value in arguments for _, leaf in leaves(value) if not isinstance(leaf, Known)
        ]
        names = dict(zip(folded.parameters, given, strict=True))
        final = folded.body[-1]
        value = final.value if isinstance(final, ast.Return) else None
        computed = list(value.elts) if isinstance(value, ast.Tuple) else [value] if value is not None else []
        parts: list[Value] = []
        for _, leaf in leaves(folded.template):
            found: Any = leaf
            parts.append(Dynamic(computed[found.index]) if isinstance(found, Result) else found)
        # Parameters keep the names of the numbers that are unpacked.
        folded.body[-1] = ast.Return(results(rebuilt(folded.template, iter(parts))))
        left.update(inline(folded, list(folder.folded.values())))
        tidied(folded)
        read = read_names(folded.body)
        unpacked: list[tuple[str, tuple[str | None, ...]]] = []
        plain = {node.id: parameter for parameter, node in names.items() if isinstance(node, ast.Name)}
        for argument, value_of in arguments:
            if argument in ("tuning", "share"):
                continue
            width = count if argument == "sample" else layout.width
            taken: list[str | None] = [None] * width
            for index in range(width):
                found_name = plain.get(f"{argument}_{index}")
                taken[index] = found_name if found_name in read else None
            unpacked.append((argument, tuple(taken)))
            del value_of
        given_names = tuple(argument for argument, _ in arguments if argument != "tuning")
        made.append(PackedFunction(kernel.__name__, given_names, tuple(unpacked), tuple(folded.body)))

    def as_sample(value: Value) -> ast.expr:
        return ast.List([expression(leaf) for _, leaf in leaves(value)], ast.Load())

    def as_record(value: Value) -> ast.expr:
        numbers: dict[int, ast.expr] = {}
        for path, leaf in leaves(value):
            index = layout.indices.get(path, -1)
            if index >= 0 and (index not in numbers or path[0] == "outcome"):
                numbers[index] = expression(leaf)
        return ast.Tuple([numbers[index] for index in range(layout.width)], ast.Load())

    whole(sample_share, [("tuning", tuning_value), ("sample", raw), ("share", share)], as_sample)
    whole(later_sample, [("sample", raw)], as_sample)
    records = [
        ("first", _record_value(layout, at_rest, "first")),
        ("second", _record_value(layout, at_rest, "second")),
    ]
    whole(joined, records, as_record)
    whole(standing, [("last", _record_value(layout, at_rest, "last"))], as_record)

    packed: list[Value] = [Packed(name("last")), Packed(name("sample"))]
    rows: tuple[Value, Value] = (Dynamic(name("tables")), Dynamic(name("course")))
    folded = folder.fold(tick, [tuning_value, *rows, *packed, Dynamic(name("dt"))])
    drop_unread(folded.body, set())
    made.append(PackedFunction("tick", ("last", "sample", "dt"), (), tuple(folded.body)))
    return made, left


def _shorter_names(
    packed: list[PackedFunction], numbers: tuple[tuple[str, Path], ...], taken: set[str]
) -> tuple[list[PackedFunction], tuple[tuple[str, Path], ...]]:
    """Name the numbers of the tuning, and of the state, by their path alone where that name is free."""
    used = set(taken)
    for one in packed:
        used |= {found.id for found in names_in(one.body)}
    renamed: dict[str, str] = {}
    for number, _ in numbers:
        short = number.removeprefix("tuning_")
        if short not in used:
            renamed[number] = short
            used.add(short)
    for found in packed[0].unpacked[0][1]:
        if found is not None:
            short = found.replace("last_memory_", "last_", 1)
            if short not in used:
                renamed[found] = short
                used.add(short)

    for one in packed:
        give_names(one.body, renamed)
    shorter = [
        PackedFunction(
            one.name,
            one.arguments,
            tuple(
                (argument, tuple(renamed.get(found, found) if found else None for found in names))
                for argument, names in one.unpacked
            ),
            one.body,
        )
        for one in packed
    ]
    return shorter, tuple((renamed.get(number, number), path) for number, path in numbers)
