"""Changes between modes, as statements over the named numbers of both."""

import ast
from collections.abc import Iterator, Sequence

from wendonic.export.build import Made
from wendonic.export.game_axes import ZERO
from wendonic.export.package import Crossing
from wendonic.export.state_fields import StateFields, square_names
from wendonic.kernels.body.ground import NO_COURSE
from wendonic.profile.schema.profile import Profile
from wendonic.runtime.cells import Cells
from wendonic.runtime.crossing import Crossing as RunningCrossing
from wendonic.runtime.crossing import same_squares
from wendonic.runtime.helm import crossings_of
from wendonic.runtime.mode_run import ModeRun
from wendonic.world_axes import WorldAxes


def package_crossings(profile: Profile, modes: Sequence[Made], on_course: bool, axes: WorldAxes) -> list[Crossing]:
    """Return the crossings between all modes that the profile allows."""
    runs = {made.mode: ModeRun(profile, made.mode, made.seat, NO_COURSE, axes, on_course) for made in modes}
    by_mode = {made.mode: made for made in modes}
    found: dict[tuple[str, str], RunningCrossing] = {}
    ready: list[ModeRun] = []
    for run in runs.values():
        found |= crossings_of(profile, run, ready)
        ready.append(run)
    order = list(runs)
    return [
        Crossing(
            old,
            new,
            _statements(found[old, new], by_mode[old], by_mode[new], runs[old], runs[new]),
            [*_signals(StateFields(by_mode[old], runs[old]), new)],
            [*_carried_presses(profile, runs[old], runs[new])],
        )
        for old, new in sorted(found, key=lambda pair: (order.index(pair[0]), _rank(runs[pair[0]], pair[1])))
    ]


def _rank(run: ModeRun, new: str) -> int:
    """Return the rank of a mode among those that presses enter: of several, the first one counts."""
    entered = [mode for _, mode in run.enters]
    return entered.index(new) if new in entered else len(entered)


def _signals(fields: StateFields, new: str) -> Iterator[str]:
    """Yield the results that say that a press enters a mode, in order of precedence."""
    for index, mode in fields.run.enters:
        field = fields.field(index, True)
        if mode == new and field is not None:
            yield field.partition(".")[2]


def _carried_presses(profile: Profile, old: ModeRun, new: ModeRun) -> Iterator[str]:
    """Yield the presses that continue while they are held."""
    both = profile.mode[old.name].press.keys() & profile.mode[new.name].press.keys()
    for name, had, has in zip(profile.press_names, old.press_styles, new.press_styles, strict=True):
        if new.carries and had == has and name in both:
            yield name


def _statements(crossing: RunningCrossing, old: Made, new: Made, had: ModeRun, has: ModeRun) -> list[ast.stmt]:
    before, after = StateFields(old, had), StateFields(new, has)
    body: list[ast.stmt] = []
    rest = dict(zip(new.indices, [new.at_rest[index] for index in new.indices], strict=True))
    at_rest = {f"next.{new.names[index]}": value for index, value in rest.items()}
    written: dict[str, ast.expr] = {}

    def put(index: int, value: ast.expr) -> None:
        field = after.field(index, False)
        if field is not None:
            written[field] = value

    for index, source in enumerate(crossing.sources):
        put(index, _taken(before, source) if source >= 0 else ast.Constant(float(crossing.fixed[index])))
    if crossing.movement is not None:
        for index, source in crossing.movement.copied:
            put(index, _taken(before, source))
        for index, start in crossing.movement.held:
            sides = [_is_held(old.inputs.numbers[start + side]) for side in (0, 1)]
            put(index, ast.BinOp(sides[0], ast.Sub(), sides[1]))
        if crossing.movement.last_source >= 0:
            _put_last_source(crossing, after, written)
    for field, value in written.items():
        if not (isinstance(value, ast.Constant) and value.value == at_rest.get(field)):
            body.append(ast.Assign([ast.Name(field, ast.Store())], value))
    for number in range(len(has.presses)):
        if has.carries and has.press_styles[number] == had.press_styles[number]:
            body += _carried(had.presses[number], has.presses[number], before, after)
    if has.airborne is not None:
        up = _taken_cell(had.body, 6, before)
        airborne = after.field(has.airborne.targets[0][0], False)
        if airborne is not None and not isinstance(up, ast.Constant):
            set_it = ast.Assign([ast.Name(airborne, ast.Store())], ast.Constant(1.0))
            body.append(ast.If(ast.Compare(up, [ast.NotEq()], [ZERO]), [set_it], []))
    if has.on_squares and not (crossing.movement is not None and same_squares(had, has)):
        body += _on_square(had, has, before, after)
    return body


def _taken(before: StateFields, source: int) -> ast.expr:
    field = before.field(source, True)
    if field is None:
        return ast.Constant(float(before.run.record_at_rest[source]))
    return ast.Name(field, ast.Load())


def _taken_cell(cells: Cells, number: int, before: StateFields) -> ast.expr:
    source = cells.sources[number]
    return _taken(before, source) if source >= 0 else ast.Constant(float(cells.constants[number]))


def _is_held(node: ast.expr) -> ast.expr:
    return ast.IfExp(ast.Compare(node, [ast.Gt()], [ZERO]), ast.Constant(1.0), ZERO)


def _put_last_source(crossing: RunningCrossing, after: StateFields, written: dict[str, ast.expr]) -> None:
    """Translate the number of the source that moved last to that in the new mode."""
    movement = crossing.movement
    assert movement is not None
    field = after.field(movement.last_source, False)
    if field is None or field not in written:
        return
    value: ast.expr = ast.Constant(-1.0)
    for there, number in movement.source_numbers.items():
        same = ast.Compare(written[field], [ast.Eq()], [ast.Constant(there)])
        value = ast.IfExp(same, ast.Constant(number), value)
    written[field] = value


def _carried(had: Cells, has: Cells, before: StateFields, after: StateFields) -> list[ast.stmt]:
    """Let a held press continue."""
    down = _taken_cell(had, 0, before)
    if isinstance(down, ast.Constant):
        return []
    inside: list[ast.stmt] = []
    for number in range(len(has.targets)):
        inside += after.stores(has, number, _taken_cell(had, number, before))
    return [ast.If(ast.Compare(down, [ast.Gt()], [ZERO]), inside, [])] if inside else []


def _on_square(had: ModeRun, has: ModeRun, before: StateFields, after: StateFields) -> list[ast.stmt]:
    """Put the body in the middle of its square."""
    made = square_names(
        after.made, has.reader.axes, (_taken_cell(had.body, 1, before), _taken_cell(had.body, 2, before))
    )
    for number, axis in enumerate("xy"):
        for cell in (number, 2 + number):
            made += after.stores(has.square, cell, ast.Name(f"square_{axis}", ast.Load()))
    return made
