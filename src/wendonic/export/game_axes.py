"""The game's own axes as names and signs in printed source."""

import ast

from wendonic.world_axes import WorldAxes

ZERO = ast.Constant(0.0)


def letters_of(axes: WorldAxes) -> str:
    """Return the names of the game's axes.

    >>> letters_of(WorldAxes("+x", "-y")), letters_of(WorldAxes("+x", "-z", "+y"))
    ('xy', 'xyz')
    """
    return "xyz"[: len(axes.from_plan(0.0, 0.0, 0.0))]


def plan_letters(axes: WorldAxes) -> list[tuple[str, float] | None]:
    """Return the axis of the game and its sign for right, forward and up of the plan; None for those that the game's
    axes leave out.

    >>> plan_letters(WorldAxes("+x", "-y"))
    [('x', 1.0), ('y', -1.0), None]
    """
    letters = letters_of(axes)
    columns = [axes.to_plan(*[float(letter == other) for other in letters]) for letter in letters]
    return [
        next(
            ((letter, column[plan]) for letter, column in zip(letters, columns, strict=True) if column[plan] != 0.0),
            None,
        )
        for plan in range(3)
    ]


def minus(node: ast.expr) -> ast.expr:
    """Return the negative of an expression, without a negative zero; a double negation cancels out.

    >>> ast.unparse(minus(ast.Name("x", ast.Load()))), ast.unparse(minus(minus(ast.Name("x", ast.Load()))))
    ('0.0 - x', 'x')
    """
    match node:
        case ast.BinOp(left=ast.Constant(value=0.0), op=ast.Sub(), right=right):
            return right
        case ast.BinOp(left=left, op=ast.Div(), right=right):
            return ast.BinOp(minus(left), ast.Div(), right)
        case ast.BinOp(
            left=ast.BinOp(left=ast.Constant(value=0.0), op=ast.Sub(), right=left), op=ast.Sub(), right=right
        ):
            return ast.BinOp(right, ast.Add(), left)
        case ast.BinOp(left=left, op=ast.Sub(), right=right):
            return ast.BinOp(right, ast.Sub(), left)
    return ast.BinOp(ZERO, ast.Sub(), node)
