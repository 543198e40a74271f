"""Vectors of two and three numbers."""

import math
from typing import NamedTuple


class Vec2(NamedTuple):
    """x to the right, y forward."""

    x: float
    y: float


class Vec3(NamedTuple):
    """x to the right, y forward, z up."""

    x: float
    y: float
    z: float


ZERO2 = Vec2(0.0, 0.0)
ZERO3 = Vec3(0.0, 0.0, 0.0)
UP = Vec3(0.0, 0.0, 1.0)


def length3(vector: Vec3) -> float:
    """Return a vector's length.

    >>> length3(Vec3(2.0, 3.0, 6.0))
    7.0
    """
    return math.sqrt(vector.x * vector.x + vector.y * vector.y + vector.z * vector.z)


def plus3(vector: Vec3, other: Vec3) -> Vec3:
    """Return the sum of two vectors.

    >>> plus3(Vec3(1.0, 2.0, 3.0), Vec3(0.5, 0.0, -1.0))
    Vec3(x=1.5, y=2.0, z=2.0)
    """
    return Vec3(vector.x + other.x, vector.y + other.y, vector.z + other.z)


def times3(vector: Vec3, factor: float) -> Vec3:
    """Return a vector times a number.

    >>> times3(Vec3(1.0, 0.0, 2.0), 0.5)
    Vec3(x=0.5, y=0.0, z=1.0)
    """
    return Vec3(vector.x * factor, vector.y * factor, vector.z * factor)


def turned(right: float, forward: float, yaw: float) -> Vec2:
    """Return (right, forward) of a player who looks along the heading `yaw` (rad), as (x, y) of the plan.

    Forward is (sin yaw, cos yaw) and right is (cos yaw, -sin yaw); the length is kept. 0 = +y, clockwise positive.

    >>> x, y = turned(0.0, 1.0, math.radians(90.0))
    >>> round(x, 12), round(y, 12)
    (1.0, 0.0)
    """
    return turned_by(right, forward, math.sin(yaw), math.cos(yaw))


def turned_by(right: float, forward: float, sine: float, cosine: float) -> Vec2:
    """Return (right, forward) of a player who looks along a heading with that sine and cosine, as (x, y) of the plan.

    >>> turned_by(0.0, 1.0, 1.0, 0.0)
    Vec2(x=1.0, y=0.0)
    """
    return Vec2(right * cosine + forward * sine, forward * cosine - right * sine)
