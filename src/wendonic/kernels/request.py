"""The player's request to the body in one tick, after shaping, and the body's wanted motion."""

import math
from typing import NamedTuple

from wendonic.kernels.body.facing import Aim
from wendonic.kernels.vector import UP, ZERO2, ZERO3, Vec2, Vec3, turned_by


class Request(NamedTuple):
    """The input of steering in a tick.

    The shaped channels come first: `move` at the end of the tick (`right`, `forward`), and how it changes: linearly
    from `begin` to `corner` in the first `corner_s` seconds and linearly on to the end; 0 s if it is constant.
    `scale` is the factor of presses, `fades` is 1 while only ramps and smoothing are left of it. Then follow the yaw
    and pitch (rad) of forward, and the yaw (rad) of the player's view; whether the body stands on the ground
    (GROUND_UNKNOWN until the game reports it), and the ground's normal as the game reports it; the point that is
    aimed at; and the previously requested direction, from which a turn is measured.
    """

    right: float
    forward: float
    begin: Vec2
    corner: Vec2
    corner_s: float
    scale: float
    fades: float
    rise: float
    turn: float
    throttle: float
    yaw: float
    pitch: float
    look_yaw: float
    grounded: float
    normal: Vec3
    aim: Aim
    last_direction: Vec3


NO_REQUEST = Request(
    0.0, 0.0, ZERO2, ZERO2, 0.0, 1.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 1.0, UP, Aim(0.0, 0.0, 0.0), ZERO3
)
"""Nothing requested, on level ground."""


class WantedMotion(NamedTuple):
    """The wanted motion of the body: `move` of the intent on the plan, and the same along the ground or in the air.
    `refused` is 1 if ground that is too steep refused a part of it; there the body also slides (m/s).
    """

    move_x: float
    move_y: float
    direction: Vec3
    refused: float
    slide: Vec3


NO_MOTION = WantedMotion(0.0, 0.0, ZERO3, 0.0, ZERO3)


def level_motion(x: float, y: float) -> WantedMotion:
    """Return the wanted motion of a body that moves by (x, y) on level ground.

    >>> level_motion(0.6, 0.8).direction
    Vec3(x=0.6, y=0.8, z=0.0)
    """
    return WantedMotion(x, y, Vec3(x, y, 0.0), 0.0, ZERO3)


def on_plan(request: Request, yaw: float) -> Request:
    """Return a request with x and y of the plan as `right` and `forward`, from one whose forward is at `yaw` (rad).

    >>> round(on_plan(NO_REQUEST._replace(forward=1.0), math.radians(90.0)).right, 12)
    1.0
    """
    sine = math.sin(yaw)
    cosine = math.cos(yaw)
    move = turned_by(request.right, request.forward, sine, cosine)
    begin = corner = move
    if request.corner_s > 0.0:
        begin = turned_by(request.begin.x, request.begin.y, sine, cosine)
        corner = turned_by(request.corner.x, request.corner.y, sine, cosine)
    return request._replace(right=move.x, forward=move.y, begin=begin, corner=corner)


FULL_BUT_ROUNDING = 1.0 - 1e-9
"""Share of a full request from which a request counts as full."""


def between(first: Vec2, last: Vec2, share: float, full: float) -> Vec2:
    """Return the request at a share of the path from one request to another; `full` is the length of a full one. A
    request that is full at both ends turns under the cap and stays full in between; any other changes linearly, and
    so does one that reverses.

    >>> round(math.hypot(*between(Vec2(1.0, 0.0), Vec2(0.6, 0.8), 0.25, 1.0)), 12)
    1.0
    >>> between(Vec2(1.0, 0.0), Vec2(-1.0, 0.0), 0.25, 1.0), between(Vec2(1.0, 0.0), Vec2(0.5, 0.5), 0.5, 1.0)
    (Vec2(x=0.5, y=0.0), Vec2(x=0.75, y=0.25))
    """
    x = first.x + (last.x - first.x) * share
    y = first.y + (last.y - first.y) * share
    if first.x * last.x + first.y * last.y <= 0.0:
        return Vec2(x, y)
    one, other = math.hypot(first.x, first.y), math.hypot(last.x, last.y)
    if min(one, other) < full * FULL_BUT_ROUNDING:
        return Vec2(x, y)
    longer = (one + (other - one) * share) / math.hypot(x, y)
    return Vec2(x * longer, y * longer)


def requested_at(request: Request, bends: int, t: float, dt: float) -> Vec2:
    """Return the request `t` seconds after the beginning of a tick of `dt` seconds; `bends` is 1 if it continues
    after its corner.

    >>> run = NO_REQUEST._replace(right=1.0, begin=Vec2(0.5, 0.0), corner=Vec2(1.0, 0.0), corner_s=0.5)
    >>> requested_at(run, 0, 0.25, 1.0).x, requested_at(run, 1, 0.75, 1.0).x
    (0.75, 1.0)
    """
    if t < request.corner_s:
        return between(request.begin, request.corner, t / request.corner_s, request.scale)
    end = Vec2(request.right, request.forward)
    if bends > 0 and t < dt:
        return between(request.corner, end, (t - request.corner_s) / (dt - request.corner_s), request.scale)
    return end


def part_of_request(request: Request, bends: int, first_s: float, last_s: float, dt: float) -> Request:
    """Return the request of the part of a tick of `dt` seconds from `first_s` to `last_s`, see `requested_at`.

    >>> run = NO_REQUEST._replace(right=1.0, begin=Vec2(0.5, 0.0), corner=Vec2(1.0, 0.0), corner_s=0.5)
    >>> part = part_of_request(run, 0, 0.25, 1.0, 1.0)
    >>> part.begin.x, part.corner.x, part.corner_s, part.right
    (0.75, 1.0, 0.25, 1.0)
    """
    if request.corner_s <= 0.0:
        return request
    begin, end = requested_at(request, bends, first_s, dt), requested_at(request, bends, last_s, dt)
    corner, corner_s = end, last_s - first_s
    if first_s < request.corner_s < last_s:
        corner, corner_s = request.corner, request.corner_s - first_s
    return request._replace(right=end.x, forward=end.y, begin=begin, corner=corner, corner_s=corner_s)
