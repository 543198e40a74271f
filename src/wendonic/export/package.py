"""An exported profile: its modes, the changes between them, and what all of them share."""

import ast
import math
from collections.abc import Sequence
from dataclasses import dataclass, field

from wendonic.export.build import Made
from wendonic.export.common import common_functions
from wendonic.export.corrections import Correction
from wendonic.export.game_axes import letters_of, minus
from wendonic.export.naming import identifiers
from wendonic.export.program import Field, Function
from wendonic.kernels.body.ground import NO_COURSE
from wendonic.kernels.row import Row
from wendonic.world_axes import WorldAxes


@dataclass
class Crossing:
    """A change of mode: statements over `last`, the old state, `next`, the new one, and `raw`, the last raw inputs of
    the old mode. `signals` are results of the old mode that are above 0 if a press enters the new one, `carried` the
    presses that continue while they are held.
    """

    old: str
    new: str
    body: list[ast.stmt]
    signals: list[str] = field(default_factory=list)
    carried: list[str] = field(default_factory=list)


@dataclass
class Package:
    """Everything that is printed. `stem` is the name of the files, and the prefix of names in C."""

    stem: str
    title: str
    profile_name: str
    version: str
    modes: list[Made]
    axes: WorldAxes
    crossings: list[Crossing] = field(default_factory=list)
    corrections: list[Correction] = field(default_factory=list)
    course: Row = ()
    float32: bool = False

    @property
    def shown_course(self) -> Row:
        """The course that is written with it: level ground if none is given although a mode reads one."""
        reads = any("course" in made.program.tick.context for made in self.modes)
        return self.course or (NO_COURSE if reads else ())

    @property
    def many(self) -> bool:
        """Whether names have to include their mode."""
        return len(self.modes) > 1

    @property
    def common(self) -> list[tuple[Function, Sequence[Function]]]:
        """Functions that are printed once for several modes, each with all functions of a mode that has it."""
        return list(common_functions([made.program.functions for made in self.modes])) if self.many else []

    def own_functions(self, made: Made) -> list[Function]:
        """Return the functions that are printed for one mode."""
        return [one for one in made.program.functions if not (self.many and one.common)]

    def corrections_of(self, made: Made) -> list[Correction]:
        """Return the corrections that a game can make to the body in one mode."""
        return [one for one in self.corrections if one.mode == made.mode]

    def prefix(self, made: Made) -> str:
        """Return the prefix of names of one mode."""
        return f"{self.word(made.mode)}_" if self.many else ""

    def word(self, mode: str) -> str:
        """Return the name of a mode as a part of other names."""
        names = [made.mode for made in self.modes]
        return identifiers(names, "mode")[names.index(mode)]


AT_ORIGIN, AHEAD = (0.0, 0.0, 0.0), (0.0, 1.0, 0.0)


def game_values(made: Made, axes: WorldAxes) -> list[tuple[Field, ast.expr]]:
    """Return the results of a tick in the game's own axes and unit, and angles in degrees, from its state and
    results.
    """
    found: list[tuple[Field, ast.expr]] = []
    letters = letters_of(axes)
    unit = axes.unit

    def number(*path: str) -> ast.expr:
        index = made.layout.index("outcome", *path)
        if index < 0 or index not in made.indices:
            return ast.Constant(made.layout.constants.get(("outcome", *path), 0.0))
        return ast.Name(f"{'next' if index < made.layout.state else 'out'}.{made.names[index]}", ast.Load())

    def vector(name: str, about: str, plan: Sequence[ast.expr], units: float, at_rest: Sequence[float]) -> None:
        columns = [axes.from_plan(*[float(axis == other) for other in range(3)]) for axis in range(3)]
        for index, letter in enumerate(letters):
            ((axis, sign),) = [(axis, column[index]) for axis, column in enumerate(columns) if column[index] != 0.0]
            node, field = plan[axis], Field(f"{name}_{letter}", sign * at_rest[axis] + 0.0, about)
            if isinstance(node, ast.Constant):
                found.append((field, node))
                continue
            if units != 1.0:
                node = ast.BinOp(node, ast.Mult(), ast.Constant(units))
            if sign < 0.0:
                node = minus(node)
            found.append((field, node))

    body = [[number("body", of, axis) for axis in "xyz"] for of in ("position", "velocity")]
    vector("game_position", f"where the body is, in the game's axes ({unit})", body[0], axes.units_per_m, AT_ORIGIN)
    vector("game_velocity", f"its velocity, in the game's axes ({unit}/s)", body[1], axes.units_per_m, AT_ORIGIN)
    wanted = [number("wanted", "direction", axis) for axis in "xyz"]
    vector("game_direction", "requested direction, of length up to 1, in the game's axes", wanted, 1.0, AT_ORIGIN)
    face = number("body", "face")
    sine, cosine = (ast.Call(ast.Name(name, ast.Load()), [face], []) for name in ("sin", "cos"))
    facing = [sine, cosine, ast.Constant(0.0)]
    vector("game_facing", "where it faces, of length 1, in the game's axes", facing, 1.0, AHEAD)
    for name, path, about in (
        ("face", ("body", "face"), "heading that the body faces (deg), clockwise from forward"),
        ("heading", ("heading",), "requested heading (deg), clockwise from forward"),
        ("view_yaw", ("view", "yaw"), "heading along which the player looks (deg), clockwise from forward"),
        ("view_pitch", ("view", "pitch"), "where the player looks (deg), up positive"),
        ("look_yaw", ("look", "yaw"), "how far the view turned in this tick (deg), to the right positive"),
        ("look_pitch", ("look", "pitch"), "how far the view turned in this tick (deg), up positive"),
    ):
        angle = number(*path)
        constant = isinstance(angle, ast.Constant)
        node = angle if constant else ast.BinOp(angle, ast.Mult(), ast.Constant(180.0 / math.pi))
        found.append((Field(f"{name}_deg", 0.0, about), node))
    return found


def game_statements(values: Sequence[tuple[Field, ast.expr]]) -> list[ast.stmt]:
    """Return the statements for the results of a tick in the game's own axes; an unchanged facing is kept."""
    stores: dict[str, ast.stmt] = {
        field.name: ast.Assign([ast.Name(f"out.{field.name}", ast.Store())], node) for field, node in values
    }
    face = next(node for field, node in values if field.name == "face_deg")
    if isinstance(face, ast.Constant):
        return list(stores.values())
    turned = [
        stores.pop(field.name)
        for field, node in values
        if field.name == "face_deg" or (field.name.startswith("game_facing_") and not isinstance(node, ast.Constant))
    ]
    changed = ast.Compare(ast.Name("out.face_deg", ast.Load()), [ast.NotEq()], [face])
    return [*stores.values(), ast.If(changed, turned, [])]
