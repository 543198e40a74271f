"""Where the body is, how fast it goes and where it faces: what every steer frame moves."""

from typing import NamedTuple

from wendonic.kernels.vector import ZERO3, Vec3


class Body(NamedTuple):
    """Face (rad), position (m) and velocity (m/s) in the plan frame."""

    face: float
    position: Vec3
    velocity: Vec3


BODY_AT_REST = Body(0.0, ZERO3, ZERO3)
