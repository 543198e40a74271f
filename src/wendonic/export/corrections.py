"""Corrections by a game that moves the body itself, as statements over the state: place, velocity, facing."""

import ast
from collections.abc import Sequence
from dataclasses import dataclass

from wendonic.export.build import Made
from wendonic.export.game_axes import ZERO, letters_of, minus, plan_letters
from wendonic.export.state_fields import StateFields, square_names
from wendonic.kernels.body.ground import NO_COURSE
from wendonic.profile.schema.profile import Profile
from wendonic.runtime.mode_run import ModeRun
from wendonic.world_axes import WorldAxes

_PLACE, _VELOCITY = 1, 4
"""Indices of a body's place and velocity in `runtime.reader.BODY`; its first number is the facing."""


@dataclass
class Correction:
    """A function that writes a correction by the game into the state of a mode: its parameters are a vector in the
    game's own axes and unit, its statements are over `next`, that state.
    """

    mode: str
    name: str
    about: str
    parameters: list[str]
    body: list[ast.stmt]

    @property
    def unread(self) -> list[str]:
        """Parameters that this mode does not use: the height of a facing, an upward speed if nothing falls."""
        read = {part.id for statement in self.body for part in ast.walk(statement) if isinstance(part, ast.Name)}
        return [name for name in self.parameters if name not in read]


def mode_corrections(profile: Profile, made: Made, on_course: bool, axes: WorldAxes) -> list[Correction]:
    """Return the corrections that a mode accepts, like `Helm.place`, without what the mode does not keep."""
    run = ModeRun(profile, made.mode, made.seat, NO_COURSE, axes, on_course)
    fields = StateFields(made, run)
    length, direction = _on_plan(axes, axes.units_per_m), _on_plan(axes, 1.0)
    found = [
        ("place", f"Put the body at a place, in the game's axes ({axes.unit}).", _placed(run, fields, length)),
        (
            "set_velocity",
            f"Set the body's velocity, in the game's axes ({axes.unit}/s): zeros stop it.",
            _moving(run, fields, length),
        ),
        ("set_facing", "Make the body face along a vector, in the game's axes.", _facing(run, fields, direction)),
    ]
    return [Correction(made.mode, name, about, list(letters_of(axes)), body) for name, about, body in found if body]


def _on_plan(axes: WorldAxes, units: float) -> list[ast.expr | None]:
    """Return the parameters in the plan frame: right, forward and up; None for directions that the axes leave out."""
    found: list[ast.expr | None] = []
    for axis in plan_letters(axes):
        if axis is None:
            found.append(None)
            continue
        letter, sign = axis
        node: ast.expr = ast.Name(letter, ast.Load())
        node = node if sign > 0.0 else minus(node)
        found.append(node if units == 1.0 else ast.BinOp(node, ast.Div(), ast.Constant(units)))
    return found


def _stored(run: ModeRun, fields: StateFields, start: int, vector: Sequence[ast.expr | None]) -> list[ast.stmt]:
    made: list[ast.stmt] = []
    for number, value in enumerate(vector, start):
        if value is not None:
            made += fields.stores(run.body, number, value)
    return made


def _placed(run: ModeRun, fields: StateFields, place: Sequence[ast.expr | None]) -> list[ast.stmt]:
    """A place reported by the game is safe until a better one is known; on squares it is in one of them."""
    made = _stored(run, fields, _PLACE, place)
    if run.tuning.comfort.used > 0:
        for number in range(len(run.safe_place.sources)):
            at = fields.targets(run.body, _PLACE + number % 2)
            made += fields.stores(run.safe_place, number, ast.Name(at[0], ast.Load())) if at else []
    return [*made, *_on_square(run, fields, place)] if run.on_squares else made


def _on_square(run: ModeRun, fields: StateFields, place: Sequence[ast.expr | None]) -> list[ast.stmt]:
    """Put the body in the middle of the square of a place, unless that belongs to the step under way."""
    given = [axis for axis in (0, 1) if place[axis] is not None]
    names = [f"square_{axis}" for axis in "xy"]
    finding = square_names(fields.made, run.reader.axes, (place[0] or ZERO, place[1] or ZERO))
    inside: list[ast.stmt] = []
    for number in range(len(run.square.sources)):
        if number >= 4:
            inside += fields.stores(run.square, number, ZERO)
        elif number % 2 in given:
            inside += fields.stores(run.square, number, ast.Name(names[number % 2], ast.Load()))
    elsewhere: list[ast.expr] = []
    for start in (0, 2):
        compared: list[ast.expr] = [
            ast.Compare(ast.Name(names[axis], ast.Load()), [ast.NotEq()], [ast.Name(field, ast.Load())])
            for axis in given
            for field in fields.targets(run.square, start + axis)[:1]
        ]
        elsewhere.append(compared[0] if len(compared) == 1 else ast.BoolOp(ast.Or(), compared))
    return [*(finding[axis] for axis in given), ast.If(ast.BoolOp(ast.And(), elsewhere), inside, [])]


def _moving(run: ModeRun, fields: StateFields, velocity: Sequence[ast.expr | None]) -> list[ast.stmt]:
    """A body with an upward speed is off the ground."""
    made = _stored(run, fields, _VELOCITY, velocity)
    up = fields.targets(run.body, _VELOCITY + 2)
    if run.airborne is not None and up and velocity[2] is not None:
        inside = fields.stores(run.airborne, 0, ast.Constant(1.0))
        if inside:
            test = ast.Compare(ast.Name(up[0], ast.Load()), [ast.NotEq()], [ZERO])
            made.append(ast.If(test, inside, []))
    return made


def _facing(run: ModeRun, fields: StateFields, facing: Sequence[ast.expr | None]) -> list[ast.stmt]:
    """A vector without a horizontal component turns nothing."""
    right, forward = (part if part is not None else ZERO for part in facing[:2])
    turned = fields.stores(run.body, 0, ast.Call(ast.Name("atan2", ast.Load()), [right, forward], []))
    if not turned:
        return []
    if run.on_squares:
        for number in (0, 1):
            turned += fields.stores(run.turned_to, number, ZERO)
    letters = [name for part in (right, forward) for name in ast.walk(part) if isinstance(name, ast.Name)]
    level: list[ast.expr] = [ast.Compare(name, [ast.NotEq()], [ZERO]) for name in letters]
    test: ast.expr = level[0] if len(level) == 1 else ast.BoolOp(ast.Or(), level)
    return [ast.If(test, turned, [])]
