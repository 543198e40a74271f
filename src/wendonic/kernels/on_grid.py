"""The steer frame `grid` as a body that moves: its place between two squares."""

import math

from wendonic.kernels.body import Body
from wendonic.kernels.grid import GridState, grid_held, step_share, stepped
from wendonic.kernels.kernel import Row, called_kernel
from wendonic.kernels.steering_tuning import SteeringTuning
from wendonic.kernels.wish import Way, Wish


@called_kernel
def gridded(
    tuning: SteeringTuning, course: Row, body: Body, grid: GridState, wish: Wish, dt: float
) -> tuple[Body, Way, GridState]:
    """Return the body, its way and the squares after `dt` seconds on a grid.

    >>> from wendonic.kernels.body import BODY_AT_REST
    >>> from wendonic.kernels.grid import GRID_AT_REST
    >>> from wendonic.kernels.steering_tuning import PLAIN_STEERING
    >>> from wendonic.kernels.wish import NO_WISH
    >>> body, way, grid = gridded(PLAIN_STEERING, (0.0, 0.0, 3.0, 0.0), BODY_AT_REST, GRID_AT_REST,
    ...                           NO_WISH._replace(right=1.0), 0.05)
    >>> round(body.pos_x, 9), way.move_x, round(body.vel_x, 9)
    (0.25, 1.0, 5.0)
    """
    squares = tuning.grid
    grid = stepped(squares, course, grid_held(squares, grid, wish.right, wish.ahead), dt)
    step = grid.step
    way_x = step.to_x - step.x
    way_y = step.to_y - step.y
    length = math.sqrt(way_x * way_x + way_y * way_y)
    done, rate = step_share(step.share, squares.eased)
    speed = squares.square_m / squares.step_s * rate
    move_x = move_y = 0.0
    if length > 0.0:
        move_x, move_y = way_x / length, way_y / length
    after = Body(
        body.face,
        (step.x + way_x * done) * squares.square_m,
        (step.y + way_y * done) * squares.square_m,
        body.pos_z,
        move_x * speed,
        move_y * speed,
        0.0,
    )
    return after, Way(move_x, move_y, move_x, move_y, 0.0, 0.0, 0.0, 0.0, 0.0), grid
