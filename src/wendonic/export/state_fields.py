"""The printed fields of the numbers in a running mode's record, and statements that put a body on a square."""

import ast

from wendonic.compiler.layout import Path
from wendonic.export.build import Made
from wendonic.export.game_axes import ZERO, minus
from wendonic.runtime.cells import Cells
from wendonic.runtime.mode_run import ModeRun
from wendonic.world_axes import WorldAxes


class StateFields:
    """The fields that hold the numbers of a running mode's record."""

    def __init__(self, made: Made, run: ModeRun) -> None:
        """Find them."""
        self.made, self.run = made, run
        self.by_index: dict[int, list[Path]] = {}
        for path, index in run.layout.indices.items():
            if index >= 0:
                self.by_index.setdefault(index, []).append(path)

    def field(self, index: int, old: bool = False) -> str | None:
        """Return the field of a number: of the old state, or of the new one."""
        for path in self.by_index.get(index, []):
            found = self.made.layout.index(*path)
            if found in self.made.indices:
                state = found < self.made.layout.state
                struct = ("last" if state else "earlier") if old else ("next" if state else "")
                if struct:
                    return f"{struct}.{self.made.names[found]}"
        return None

    def targets(self, cells: Cells, number: int) -> list[str]:
        """Return the fields in which a number is kept, each once."""
        found = (self.field(index) for index in cells.targets[number])
        return [*dict.fromkeys(field for field in found if field is not None)]

    def stores(self, cells: Cells, number: int, value: ast.expr) -> list[ast.stmt]:
        """Return statements that set a number in all its fields."""
        return [ast.Assign([ast.Name(field, ast.Store())], value) for field in self.targets(cells, number)]


def square_names(made: Made, axes: WorldAxes, at: tuple[ast.expr, ast.expr]) -> list[ast.stmt]:
    """Return statements that find the square (`square_x`, `square_y`) of a place on the plan."""
    stores: list[ast.stmt] = []
    for axis, place in zip("xy", at, strict=True):
        along = sum(axes.level_from_plan(float(axis == "x"), float(axis == "y")))
        middle = made.squares.get(("middle", axis))
        away = ast.BinOp(place, ast.Sub(), middle) if middle is not None else place
        away = away if along > 0.0 else minus(away)
        share = ast.BinOp(ast.BinOp(away, ast.Div(), made.squares[("square_m",)]), ast.Add(), ast.Constant(0.5))
        square: ast.expr = ast.Call(ast.Name("floor", ast.Load()), [share], [])
        square = minus(square) if along < 0.0 else ast.BinOp(square, ast.Add(), ZERO)
        stores.append(ast.Assign([ast.Name(f"square_{axis}", ast.Store())], square))
    return stores
