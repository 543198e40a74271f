"""The state of the body that every steer frame moves: position, velocity and facing."""

from typing import NamedTuple

from wendonic.kernels.vector import ZERO3, Vec3


class Body(NamedTuple):
    """Face (rad), position (m) and velocity (m/s) in the plan frame."""

    face: float
    position: Vec3
    velocity: Vec3


BODY_AT_REST = Body(0.0, ZERO3, ZERO3)
